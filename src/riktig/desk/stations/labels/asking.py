"""What is asked about a label: its own words, no marker, the company's table; and what comes of the answers."""

from PySide6.QtWidgets import QInputDialog, QWidget

from riktig.core.edits import DropLabelText, LeaveUnmarked, MarkWire, SetLabelText, SetPractice
from riktig.core.keys import Key, WireKey
from riktig.core.labels import LABELS
from riktig.desk.session import Session
from riktig.desk.stations.labels.words_dialog import WordsDialog

__all__ = ["LabelAsking"]


class LabelAsking:
    """Dialogs about labels, and the edits they make.

    Args:
        parent: What they stand over.
        session: The job at hand.
    """

    def __init__(self, parent: QWidget, session: Session) -> None:
        self._parent, self._session = parent, session

    def to_plain(self, name: str) -> None:
        """Lets a label say what Riktig says."""
        self._session.edit("label says Riktig's text", DropLabelText(name))

    def take_text(self, name: str, lines: tuple[str, ...], reason: str) -> None:
        """Lets a label say something else."""
        self._session.edit(f"label says “{' '.join(lines)}”", SetLabelText(name, lines, reason))

    def is_unmarked(self, key: Key | None) -> bool:
        """Whether a wire goes without markers by somebody's permission."""
        return isinstance(key, WireKey) and any(entry.wire == key.wire for entry in self._session.job.unmarked)

    def ask_unmarked(self, key: Key | None) -> None:
        """Asks why a wire may go without markers, or gives it its markers again."""
        if not isinstance(key, WireKey):
            return
        if self.is_unmarked(key):
            self._session.edit("wire marked again", MarkWire(key.wire))
            return
        text, done = QInputDialog.getText(self._parent, "No marker", "Why may this wire go without markers?")
        if done and text.strip():
            self.leave_unmarked(key, text.strip())

    def leave_unmarked(self, key: WireKey, reason: str) -> None:
        """Lets a wire go without markers; who is at the window allows it."""
        self._session.edit("wire without markers", LeaveUnmarked(key.wire, reason, self._session.who))

    def ask_words(self) -> None:
        """Asks for the company's table."""
        missing = self._session.evaluation.get(LABELS).untranslated
        dialog = WordsDialog(self._parent, self._session.job.practice, missing)
        if dialog.exec():
            change = SetPractice({"label_language": dialog.language, "label_words": dialog.rows})
            self._session.edit("words on labels", change)
