"""What a job file is: where it lies, how much is in it, who wrote it last, and whether its record is whole."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QDialog, QDialogButtonBox, QFormLayout, QLabel, QVBoxLayout, QWidget

from riktig.core.records import taken_back
from riktig.core.store import JobFile
from riktig.desk.session import Session
from riktig.desk.widgets import plain_label

__all__ = ["facts_of_file", "show_properties"]


def facts_of_file(file: JobFile, session: Session) -> list[tuple[str, str]]:
    """The properties of the open job, each with its name.

    Args:
        file: Its file.
        session: What the window works on.
    """
    job, revisions, records = session.job, file.revisions(), session.records
    size = file.path.stat().st_size if file.path.exists() else 0
    corrected = len(taken_back(records) & {record.id for record in records})
    last = revisions[-1] if revisions else None
    return [
        ("Job", f"{job.number} {job.title}".strip()),
        ("Revision of the drawings", job.revision or "none"),
        ("File", str(file.path)),
        ("Size", f"{size / 1024:.0f} KiB"),
        ("Opened", "read-only" if file.read_only else "to be changed"),
        ("Saved steps", str(len(revisions))),
        ("Last saved", f"{last.at}, {last.who}: {last.why}" if last else "never"),
        ("Entries of the record", f"{len(records)}, {corrected} of them corrected"),
        ("Record", _state_of_record(file)),
    ]


def _state_of_record(file: JobFile) -> str:
    """Whether the entries are as they were written; of a file without digests nobody can say."""
    if not file.has_digests:
        return "of an early format without digests: whether it was changed cannot be told"
    broken = file.broken_links()
    if not broken and not file.entries():
        return "empty: nothing to compare"
    if not broken:
        return "every entry as it was written"
    return f"not as it was written, at {len(broken)} place{'' if len(broken) == 1 else 's'}: {broken[0][1]}"


def show_properties(parent: QWidget, session: Session) -> QDialog | None:
    """Opens the page; None where no job is open, which is said.

    Args:
        parent: What it stands over.
        session: What the window works on.
    """
    if session.file is None:
        session.say("Start or open a job first: then its file has properties.")
        return None
    page = QDialog(parent)
    page.setWindowTitle("Properties of the job")
    form = QFormLayout()
    for name, text in facts_of_file(session.file, session):
        label = plain_label(text, wraps=True)
        label.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        label.setAccessibleName(f"{name}: {text}")
        form.addRow(QLabel(name), label)
    buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
    buttons.rejected.connect(page.reject)
    layout = QVBoxLayout(page)
    layout.addLayout(form)
    layout.addWidget(buttons)
    page.resize(560, 330)
    page.open()
    return page
