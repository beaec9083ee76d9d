"""What is asked at the end: letter and reason of an issue, to whom a panel goes, what was done on site, a visit."""

from collections.abc import Callable, Sequence

from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QLineEdit,
    QListWidget,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from riktig.core.handover import Missing, MissingFor, SiteState
from riktig.core.records import ServiceVisit
from riktig.desk.widgets import plain_label, row_of

__all__ = ["DispatchDialog", "IssueDialog", "SiteDialog"]

MOST_SHOWN = 8


def _field(name: str, text: str = "") -> QLineEdit:
    field = QLineEdit(text)
    field.setAccessibleName(name)
    return field


def _buttons(dialog: QDialog, words: str) -> QDialogButtonBox:
    buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Cancel)
    take = buttons.addButton(words, QDialogButtonBox.ButtonRole.AcceptRole)
    take.setObjectName("main")
    buttons.accepted.connect(dialog.accept)
    buttons.rejected.connect(dialog.reject)
    return buttons


class IssueDialog(QDialog):
    """Asks for the letter and why.

    Args:
        parent: What it stands over.
        letter: The one that is next.
    """

    def __init__(self, parent: QWidget, letter: str) -> None:
        super().__init__(parent)
        self.setWindowTitle("Issue")
        self.letter, self.why = _field("Letter", letter), _field("Why it is issued")
        self.letter.setMaximumWidth(80)
        form = QFormLayout()
        form.addRow("Letter", self.letter)
        form.addRow("Why", self.why)
        layout = QVBoxLayout(self)
        words = (
            "An issue freezes the drawings, the lists and the record as they are now under a letter. Later changes are "
            "found against it, and any two issues can be compared."
        )
        layout.addWidget(plain_label(words, "second", wraps=True))
        layout.addLayout(form)
        layout.addWidget(_buttons(self, "Issue"))
        self.setMinimumWidth(520)


class DispatchDialog(QDialog):
    """Asks to whom the panel goes, and why it leaves although something is missing.

    Args:
        parent: What it stands over.
        missing: What is missing.
    """

    def __init__(self, parent: QWidget, missing: Sequence[Missing]) -> None:
        super().__init__(parent)
        self.setWindowTitle("Dispatch")
        left = [item.text for item in missing if item.needed_for is MissingFor.DISPATCH]
        self.to, self.reason = _field("Who gets it"), _field("Why it leaves although something is missing")
        form = QFormLayout()
        form.addRow("To", self.to)
        if left:
            form.addRow("Reason", self.reason)
        layout = QVBoxLayout(self)
        if left:
            shown = "\n".join(f"○  {text}" for text in left[:MOST_SHOWN])
            more = f"\n… and {len(left) - MOST_SHOWN} more" if len(left) > MOST_SHOWN else ""
            words = f"{len(left)} things are missing. A reason is printed with the papers and stays in the record."
            layout.addWidget(plain_label(words, "fails", wraps=True))
            layout.addWidget(plain_label(shown + more, wraps=True))
        else:
            layout.addWidget(plain_label("Nothing is missing that is needed before the panel leaves.", "meets"))
        layout.addLayout(form)
        layout.addWidget(_buttons(self, "Dispatch"))
        self.setMinimumWidth(620)


class SiteDialog(QDialog):
    """The list that travelled to the site, ticked there item by item; below, a visit for service.

    Args:
        parent: What it stands over.
        states: Says the items as they are now.
        done: Notes an item with what came of it.
        visit: Notes a visit.
    """

    def __init__(
        self,
        parent: QWidget,
        states: Callable[[], Sequence[SiteState]],
        done: Callable[[str, str], bool],
        visit: Callable[[ServiceVisit], bool],
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle("Site and service")
        self._states, self._done, self._visit = states, done, visit
        self.items = QListWidget()
        self.items.setAccessibleName("Site list")
        self.items.setWordWrap(True)
        self.items.currentRowChanged.connect(lambda _row: self._show_chosen())
        self.outcome = _field("What came of it on site")
        self.outcome.setPlaceholderText("What came of it: a reading, “done”, who was there")
        self.outcome.returnPressed.connect(self.tick)
        self.note = QPushButton("Done on site")
        self.note.setAutoDefault(False)
        self.note.clicked.connect(self.tick)
        self.called_for, self.found = _field("Why somebody came"), _field("Found and done")
        self.parts, self.next_visit = _field("Parts"), _field("Next visit")
        form = QFormLayout()
        for words, field in (
            ("Called for", self.called_for),
            ("Found and done", self.found),
            ("Parts", self.parts),
            ("Next visit", self.next_visit),
        ):
            form.addRow(words, field)
        keep = QPushButton("Note the visit")
        keep.setAutoDefault(False)
        keep.clicked.connect(self.keep_visit)
        close = QPushButton("Close")
        close.setAutoDefault(False)
        close.clicked.connect(self.reject)
        layout = QVBoxLayout(self)
        caution = "Switch off, lock and prove dead before work at the panel, unless an item asks for voltage."
        layout.addWidget(plain_label(caution, "fails", wraps=True))
        layout.addWidget(self.items, 1)
        layout.addLayout(row_of((self.outcome, self.note)))
        layout.addWidget(plain_label("A service visit"))
        layout.addLayout(form)
        layout.addLayout(row_of((keep, None, close)))
        self.resize(820, 640)
        self.refresh()

    def refresh(self) -> None:
        """Shows the list of now; it opens at the first item that is not done."""
        shown = list(self._states())
        self.items.clear()
        for state in shown:
            mark = (
                f"✓  {state.what}\n     {state.done.who}, {state.done.when[:10]}" if state.done else f"○  {state.what}"
            )
            self.items.addItem(mark)
        self.items.setCurrentRow(next((n for n, state in enumerate(shown) if state.done is None), 0))

    def _show_chosen(self) -> None:
        row, states = self.items.currentRow(), list(self._states())
        self.note.setEnabled(0 <= row < len(states) and states[row].done is None)

    def tick(self) -> None:
        """Notes the chosen item."""
        row, states = self.items.currentRow(), list(self._states())
        if 0 <= row < len(states) and self._done(states[row].what, self.outcome.text()):
            self.outcome.clear()
            self.refresh()

    def keep_visit(self) -> None:
        """Notes the visit, and empties the fields for the next."""
        fields = (self.called_for, self.found, self.parts, self.next_visit)
        if self._visit(ServiceVisit(*(field.text().strip() for field in fields))):
            for field in fields:
                field.clear()
