"""What was done, as a list that can be done again to this or another job."""

from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog, QPushButton, QVBoxLayout, QWidget

from riktig.core.edits import counted_words, dump_action
from riktig.desk.session import Session
from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["EditList"]


class EditList(QWidget):
    """How much was done since the list began, and the buttons to begin another and to write it."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)  # else a subclass paints no frame
        self._session = session
        head = plain_label("List of edits")
        head.setFont(words_font(12, bold=True))
        self.words = plain_label("", "second", wraps=True)
        self.begin = QPushButton("Begin a new list")
        self.begin.setToolTip("Leaves out what was done so far")
        self.begin.clicked.connect(self.begin_list)
        self.write = QPushButton("Write the list …")
        self.write.setToolTip("To be done again with: riktig edit JOB EDITS.jsonl")
        self.write.clicked.connect(self._choose)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(16, 12, 16, 12)
        layout.addWidget(head)
        layout.addWidget(self.words)
        buttons = row_of((self.begin, self.write), gap=8)
        buttons.addStretch(1)
        layout.addLayout(buttons)

    def refresh(self) -> None:
        """Counts what was done."""
        actions = self._session.actions()
        self.words.setText(
            f"{counted_words(actions)} since the job was opened or a list was begun. Written as a file, they can be "
            "done again to another job, or show step by step how something came about."
        )
        self.write.setEnabled(bool(actions))

    def begin_list(self) -> None:
        """What is done from now on is a list of its own."""
        self._session.begin_list()
        self.refresh()

    def _choose(self) -> None:
        name, _ = QFileDialog.getSaveFileName(self, "Write the list of edits", "edits.jsonl", "Lists (*.jsonl)")
        if name:
            self.write_to(Path(name))

    def write_to(self, path: Path) -> None:
        """Writes the list, an edit or record a line; says what went wrong otherwise."""
        actions = self._session.actions()
        part = path.with_name(f".{path.name}.part")
        try:
            part.write_text("".join(dump_action(action) + "\n" for action in actions), encoding="utf-8")
            part.replace(path)
        except OSError as error:
            part.unlink(missing_ok=True)
            self._session.say(f"The list could not be written to {path} ({error.strerror}).", wrong=True)
            return
        self._session.say(f"{counted_words(actions)} written to {path}.")
