"""Answers inside a sentence: a field, a choice."""

from collections.abc import Callable, Iterator, Sequence
from functools import cache

from PySide6.QtCore import QEvent, QSignalBlocker, QSize, Qt
from PySide6.QtGui import QFocusEvent, QFont, QKeyEvent, QPaintEvent, QWheelEvent
from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLineEdit, QWidget

from riktig.core.edits import range_words
from riktig.desk.theme import grown, words_font
from riktig.desk.widgets import FlowLayout, plain_label

__all__ = ["Answer", "ChoiceField", "say_range", "sentence"]

ROOM_FOR_ARROW = 38
"""Arrow, borders and padding of a choice, px (measured on the style sheet)."""

LONGEST_RUN = 20
"""Letters of a run of words in a sentence (chosen by us: three words)."""


def say_range(field: QLineEdit, *numbers: str) -> None:
    """Says from where to where a field takes a number: on hover, and to who does not see it.

    Args:
        field: The field.
        numbers: The names of what it takes; what has no range is left out.
    """
    words = ", or ".join(filter(None, map(range_words, numbers)))
    if words:
        field.setToolTip(f"{field.accessibleName()}: {words}")
        field.setAccessibleDescription(words)


class Answer(QLineEdit):
    """A typed answer; it is taken on Enter or on leaving the field. Enter goes on to the next answer."""

    def __init__(self, name: str, text: str, take: Callable[[str], bool], width: int = 90) -> None:
        super().__init__(text)
        self.setAccessibleName(name)
        self.setToolTip(name)
        self.setFixedWidth(grown(width))
        self._take, self._last = take, text
        self.editingFinished.connect(self._done)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter takes the answer and goes on, as Tab does; a wrong one keeps the place."""
        if event.modifiers() & Qt.KeyboardModifier.AltModifier:
            event.ignore()  # Alt with a digit is for the part, not a text
            return
        super().keyPressEvent(event)
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            event.accept()
            if not self.property("wrong"):
                self.focusNextChild()

    def _done(self) -> None:
        if self.text() == self._last:
            return
        taken = self._take(self.text())
        self.setProperty("wrong", not taken)
        self.style().unpolish(self)
        self.style().polish(self)
        if taken:
            self._last = self.text()

    def show_value(self, text: str) -> None:
        """Shows the value of now, unless something is being typed."""
        if not self.hasFocus() or self.text() == self._last:
            self.setText(text)
            self.setCursorPosition(0)
            self._last = text
            self.setProperty("wrong", False)


class ChoiceField(QComboBox):
    """An answer out of a few.

    Qt makes seven widgets for the list of a box that drops down, with its first entry. A letter has hundreds of
    choices, of which some thirty are on the screen: each is filled when it is first painted or asked for.
    """

    def __init__(self, name: str, choices: list[tuple[str, object]], take: Callable[[object], None]) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setToolTip(name)
        self.choices = choices
        self._chosen, self._filled = 0, False
        self.activated.connect(lambda index: take(choices[index][1]))

    def fill(self) -> None:
        """Puts the choices into the list, once."""
        if self._filled:
            return
        self._filled = True
        with QSignalBlocker(self):
            for text, value in self.choices:
                self.addItem(text, value)
            super().setCurrentIndex(self._chosen)
        self.currentIndexChanged.connect(self._moved)

    def _moved(self, index: int) -> None:
        self._chosen = index
        self.updateGeometry()

    def setCurrentIndex(self, index: int) -> None:
        """Chooses by place, without taking it over."""
        self.fill()
        super().setCurrentIndex(index)

    def currentIndex(self) -> int:
        """The place of what is chosen, -1 where there is no choice."""
        return self._chosen if self.choices else -1

    def currentText(self) -> str:
        """The words of what is chosen."""
        return self.choices[self._chosen][0] if self.choices else ""

    def count(self) -> int:
        """How many there are to choose from."""
        return len(self.choices)

    def changeEvent(self, event: QEvent) -> None:
        """Another style: an empty box would make its list for it."""
        if self._filled:
            super().changeEvent(event)
        else:
            QWidget.changeEvent(self, event)

    def focusInEvent(self, event: QFocusEvent) -> None:
        """A choice that is reached has its list, before it is painted too."""
        self.fill()
        super().focusInEvent(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """A key moves through the list."""
        self.fill()
        super().keyPressEvent(event)

    def showPopup(self) -> None:
        """Opens the list, where something else than a key or the pointer asks for it."""
        self.fill()
        super().showPopup()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Paints what is chosen."""
        self.fill()
        super().paintEvent(event)

    def sizeHint(self) -> QSize:
        """As wide as what is chosen, so that the sentence reads on."""
        width = self.fontMetrics().horizontalAdvance(self.currentText()) + ROOM_FOR_ARROW
        return QSize(width, _height_of_choice(self.font().key()))

    def minimumSizeHint(self) -> QSize:
        """No narrower than what is chosen."""
        return self.sizeHint()

    @property
    def value(self) -> object:
        """What is chosen."""
        return self.choices[self.currentIndex()][1]

    def wheelEvent(self, event: QWheelEvent) -> None:
        """The wheel moves the letter, not the answer under the pointer."""
        event.ignore()

    def show_value(self, value: object) -> None:
        """Shows the value of now."""
        for index, (_, choice) in enumerate(self.choices):
            if choice == value and type(choice) is type(value) and index != self._chosen:
                if self._filled:
                    super().setCurrentIndex(index)
                else:
                    self._moved(index)


@cache
def _height_of_choice(font: str) -> int:
    """The height of a choice in a font, px, measured once: Qt makes the list of each box that it measures."""
    box = QComboBox()
    asked = QFont()
    asked.fromString(font)
    box.setFont(asked)
    return box.sizeHint().height()


def sentence(*parts: str | QWidget, points: float = 11.0) -> QWidget:
    """Words and answers that run like text."""
    body = QWidget()
    layout = FlowLayout(body)

    def word(text: str) -> QWidget:
        label = plain_label(text)
        label.setFont(words_font(points))
        return label

    waiting: QWidget | None = None
    for part in parts:
        if not isinstance(part, str):
            if waiting:
                layout.addWidget(waiting)
            part.setFont(words_font(points))
            waiting = part
            continue
        texts = part.split(" ")
        if waiting and texts[0][:1] in (",", ".", ";"):
            layout.addWidget(_closed_by(waiting, word(texts.pop(0))))
        elif waiting:
            layout.addWidget(waiting)
        waiting = None
        for run in _runs(texts):
            layout.addWidget(word(run))
    if waiting:
        layout.addWidget(waiting)
    return body


def _runs(words: Sequence[str]) -> Iterator[str]:
    """Words in runs, short enough to break lines between them: each costs a label, which is slow to style."""
    run = ""
    for word in words:
        if run and len(run) + len(word) >= LONGEST_RUN:
            yield run
            run = word
        else:
            run = f"{run} {word}".strip()
    if run:
        yield run


def _closed_by(field: QWidget, mark: QWidget) -> QWidget:
    """A field with its comma or point, which stay together."""
    pair = QWidget()
    row = QHBoxLayout(pair)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(3)
    row.addWidget(field)
    row.addWidget(mark)
    return pair
