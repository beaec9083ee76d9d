"""Answers inside a sentence: a field, a choice."""

from collections.abc import Callable
from enum import Enum

from PySide6.QtWidgets import QComboBox, QHBoxLayout, QLineEdit, QWidget

from riktig.desk.theme import words_font
from riktig.desk.widgets import FlowLayout, plain_label

__all__ = ["Answer", "Pick", "sentence"]


class Answer(QLineEdit):
    """A typed answer; it is taken on Enter or on leaving the field."""

    def __init__(self, name: str, text: str, take: Callable[[str], bool], width: int = 90) -> None:
        super().__init__(text)
        self.setAccessibleName(name)
        self.setToolTip(name)
        self.setFixedWidth(width)
        self._take, self._last = take, text
        self.editingFinished.connect(self._done)

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
            self._last = text
            self.setProperty("wrong", False)


class Pick(QComboBox):
    """An answer out of a few."""

    def __init__(self, name: str, choices: list[tuple[str, object]], take: Callable[[object], None]) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setToolTip(name)
        for text, value in choices:
            self.addItem(text, value)
        self._choices = choices
        self.activated.connect(lambda index: take(choices[index][1]))

    @classmethod
    def of(cls, name: str, kind: type[Enum], take: Callable[[object], None]) -> "Pick":
        """A choice between the values of an enumeration."""
        return cls(name, [(str(value.value), value) for value in kind], take)

    def show_value(self, value: object) -> None:
        """Shows the value of now."""
        for index, (_, one) in enumerate(self._choices):
            if one == value:
                self.setCurrentIndex(index)


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
        for text in part.split(" "):
            if waiting and text[:1] in (",", ".", ";"):
                layout.addWidget(_closed_by(waiting, word(text)))
            elif waiting:
                layout.addWidget(waiting)
                layout.addWidget(word(text))
            else:
                layout.addWidget(word(text))
            waiting = None
    if waiting:
        layout.addWidget(waiting)
    return body


def _closed_by(field: QWidget, mark: QWidget) -> QWidget:
    """A field with its comma or point, which stay together."""
    pair = QWidget()
    row = QHBoxLayout(pair)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(3)
    row.addWidget(field)
    row.addWidget(mark)
    return pair
