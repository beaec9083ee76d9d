"""The text of a label, written beside it on the picture: its lines and why. The label shows what is typed."""

from collections.abc import Container, Iterable, Mapping, Sequence
from dataclasses import replace

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QComboBox, QDialogButtonBox, QFormLayout, QFrame, QLineEdit, QVBoxLayout, QWidget

from riktig.core.labels import Label, named_lines
from riktig.desk.widgets import plain_label

__all__ = ["TextEditor", "with_draft"]

MOST_FIELDS = 16
WIDTH_PX, GAP_PX = 420, 6
"""How wide it is, and how far from its label (chosen by us)."""


def with_draft(
    labels: Iterable[Label], named: Mapping[str, Label], name: str, lines: tuple[str, ...]
) -> tuple[Label, ...]:
    """Labels as they are with the lines that are being typed.

    Args:
        labels: What is shown.
        named: The labels that can be typed, by name.
        name: Of the one that is typed.
        lines: What is typed.
    """
    typed = named.get(name)
    return tuple(replace(label, lines=lines, short=()) if label is typed else label for label in labels)


class TextEditor(QFrame):
    """Asks for the lines of a label and the reason, beside the label.

    Args:
        parent: The picture that it lies on.
    """

    drafted = Signal(str, object)
    """The name of the label and its lines as they are typed; None for the lines once nothing is typed any more."""
    taken = Signal(str, object, str)
    """Name, lines and reason."""
    plain_asked = Signal(str)
    """The name of a label that is to carry Riktig's text again."""

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self._picture = parent
        self.setFrameShape(QFrame.Shape.Box)
        self.setAutoFillBackground(True)
        self.setObjectName("beside")
        self.setAccessibleName("Text of a label")
        self._labels: tuple[tuple[str, Label], ...] = ()
        self._filling = False
        self.which = QComboBox()
        self.which.setAccessibleName("Which label")
        self.fields = [QLineEdit() for _ in range(MOST_FIELDS)]
        self.form = QFormLayout()
        for number, field in enumerate(self.fields, 1):
            field.setAccessibleName(f"Line {number}")
            field.textEdited.connect(self._draft)
            self.form.addRow(f"Line {number}", field)
        self.why = QLineEdit()
        self.why.setAccessibleName("Why it says something else")
        self.form.addRow("Reason", self.why)
        self.wrong = plain_label("", "fails", wraps=True)
        self.buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        self.plain_button = self.buttons.addButton("Riktig's text again", QDialogButtonBox.ButtonRole.ResetRole)
        self.plain_button.clicked.connect(self._to_plain)
        self.buttons.accepted.connect(self.accept)
        self.buttons.rejected.connect(self.close_editor)
        layout = QVBoxLayout(self)
        layout.addWidget(self.which)
        layout.addLayout(self.form)
        layout.addWidget(self.wrong)
        layout.addWidget(self.buttons)
        self.which.currentIndexChanged.connect(self._show)
        self.hide()

    def open_on(self, labels: Sequence[tuple[str, Label]], area: QRectF) -> None:
        """Shows itself below a label, above it where there is no room, so that the label stays in sight.

        Args:
            labels: The labels of one thing on one medium, each with its name; the first is shown.
            area: Of the label on the picture, pixels.
        """
        self._filling, self._labels = True, tuple(labels)
        self.which.clear()
        self.which.addItems([" / ".join(label.lines) for _name, label in labels])
        self.which.setVisible(len(labels) > 1)
        self._filling = False
        self._show()
        self.setFixedWidth(WIDTH_PX)
        self.adjustSize()
        around = self._picture.rect()
        below, above = area.bottom() + GAP_PX, area.top() - GAP_PX - self.height()
        lowest = max(around.height() - self.height(), 0)
        top = below if below <= lowest else max(above, 0) if above >= 0 else lowest
        left = min(max(area.left(), 0), max(around.width() - WIDTH_PX, 0))
        self.move(int(left), int(top))
        self.show()
        self.raise_()
        first = next((field for field in self.fields if field.isEnabled() and not field.isHidden()), self.why)
        first.setFocus()
        first.selectAll()

    def _show(self) -> None:
        """The label that is chosen: the name of its thing cannot be changed here."""
        if self._filling or not self._labels:
            return
        name, label = self._labels[max(self.which.currentIndex(), 0)]
        names, count = named_lines(label.medium), len(label.lines)
        for number, field in enumerate(self.fields):
            field.setText(label.lines[number] if number < count else "")
            field.setCursorPosition(0)
            field.setReadOnly(number < names)
            field.setEnabled(number >= names)
            self.form.setRowVisible(number, number < max(count, 2))
        self.why.setText(label.own)
        self.wrong.setText("")
        self.plain_button.setEnabled(bool(label.own))
        self.drafted.emit(name, None)

    @property
    def name(self) -> str:
        """The name of the label that is shown."""
        return self._labels[max(self.which.currentIndex(), 0)][0]

    @property
    def lines(self) -> tuple[str, ...]:
        """What was entered, without empty lines at its end."""
        texts = [field.text().strip() for field in self.fields]
        while texts and not texts[-1]:
            texts.pop()
        return tuple(texts)

    @property
    def reason(self) -> str:
        """Why it says something else."""
        return self.why.text().strip()

    def say_wrong(self, words: str) -> None:
        """Says beside the fields what is wrong with the text."""
        self.wrong.setText(words)
        self.adjustSize()

    def accept(self) -> None:
        """Takes what was entered, once it has a reason."""
        if not self.reason:
            self.say_wrong("Not yet: say why it says something else. The reason stands in the rules and on paper.")
            self.why.setFocus()
            return
        name, lines, reason = self.name, self.lines, self.reason
        self.close_editor()
        self.taken.emit(name, lines, reason)

    def close_editor(self) -> None:
        """Goes, with nothing done."""
        if self._labels:
            name, self._labels = self.name, ()
            self.hide()
            self.drafted.emit(name, None)
            self._picture.setFocus()

    def leave_unless(self, names: Container[str]) -> None:
        """Goes when its label is none of those any more: another one was chosen, or the labels are other ones.

        Args:
            names: Of the labels that are chosen now.
        """
        if self._labels and self.name not in names:
            self.close_editor()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter takes the text, Esc leaves it."""
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.accept()
        elif event.key() == Qt.Key.Key_Escape:
            self.close_editor()
        else:
            event.accept()

    def _draft(self) -> None:
        self.say_wrong("")
        self.drafted.emit(self.name, self.lines)

    def _to_plain(self) -> None:
        name = self.name
        self.close_editor()
        self.plain_asked.emit(name)
