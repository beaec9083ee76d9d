"""Before anything is named anew: old and new side by side, with what each change touches."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.edits import NumberAnew, TagAnew
from riktig.core.exports import Renaming, draw_renaming, number_changes, tag_changes
from riktig.desk.canvas import PAGES, DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import plain_label, row_of

__all__ = ["RenamingPage"]


class RenamingPage(QWidget):
    """Numbers or tags that would change. Nothing changes until the button is pressed."""

    def __init__(self, session: Session, back: Callable[[], None]) -> None:
        super().__init__()
        self._session, self._back = session, back
        self.changes: tuple[Renaming, ...] = ()
        self.of_tags = False
        leave = QPushButton("Back to the sheets")
        leave.clicked.connect(back)
        self.numbers, self.tags = QPushButton("Numbers"), QPushButton("Tags")
        for button, tags in ((self.numbers, False), (self.tags, True)):
            button.setCheckable(True)
            button.clicked.connect(lambda _=False, t=tags: self.turn(of_tags=t))
        self.do = QPushButton()
        self.do.setObjectName("main")
        self.do.clicked.connect(self.carry_out)
        self.words = plain_label("", "second", wraps=True)
        self.view = DrawingView("Old and new")
        self.view.opening = PAGES
        self.view.chosen.connect(session.select)
        self.view.on_key = self._key
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addLayout(row_of([leave, self.numbers, self.tags, None, self.do]))
        column.addWidget(self.words)
        column.addWidget(self.view, 1)

    def turn(self, *, of_tags: bool) -> None:
        """Shows numbers or tags."""
        self.of_tags = of_tags
        self.show_changes()

    def show_changes(self) -> None:
        """What would change now."""
        plan, practice = self._session.evaluation, self._session.job.practice
        self.changes = tag_changes(plan) if self.of_tags else number_changes(plan)
        self.numbers.setChecked(not self.of_tags)
        self.tags.setChecked(self.of_tags)
        what = "Tags" if self.of_tags else "Numbers"
        school = f"{practice.tags.value}; {practice.letters.value}" if self.of_tags else practice.numbering.value
        self.view.show_drawing(draw_renaming(self.changes, f"{what}, old and new"))
        self.do.setText("Retag" if self.of_tags else "Renumber")
        self.do.setEnabled(bool(self.changes))
        labels, tests = sum(change.labels for change in self.changes), sum(change.tests for change in self.changes)
        printed = sum(change.printed for change in self.changes)
        text = (
            f"{len(self.changes)} {what.lower()} would change: {labels} labels to print again, {tests} tests to repeat."
        )
        if not self.changes:
            text = "Nothing would change."
        if printed:
            text += f" {printed} of the old ones stand on printed labels: those must come off."
        own_stay = " Your own tags stay." if self.of_tags else ""
        self.words.setText(f"{text} Named by practice: {school}.{own_stay}")

    def carry_out(self) -> None:
        """Names anew, as one edit."""
        of_tags = self.of_tags
        if self._session.edit("tag anew" if of_tags else "number anew", TagAnew() if of_tags else NumberAnew()):
            self._back()

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.view.set_theme(theme)

    def _key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape:
            self._back()
            return True
        return False
