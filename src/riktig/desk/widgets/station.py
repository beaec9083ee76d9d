"""What every station is: a widget that shows the plan and is refreshed only when seen."""

from collections.abc import Sequence

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QLabel, QLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from riktig.core.keys import Key
from riktig.desk.session import Session
from riktig.desk.theme import LIGHT, Theme

__all__ = ["Station", "plain_label", "replace_body", "row_of", "show_only"]


def plain_label(text: str = "", role: str = "", *, wraps: bool = False) -> QLabel:
    """A label of plain text in a role of the style sheet."""
    label = QLabel(text)
    label.setTextFormat(Qt.TextFormat.PlainText)
    label.setWordWrap(wraps)
    if role:
        label.setObjectName(role)
    return label


def row_of(items: Sequence[QWidget | QLayout | None], *, gap: int = 8) -> QHBoxLayout:
    """Widgets side by side; None is a stretch."""
    row = QHBoxLayout()
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(gap)
    for item in items:
        if item is None:
            row.addStretch(1)
        elif isinstance(item, QLayout):
            row.addLayout(item)
        else:
            row.addWidget(item)
    return row


def show_only(*widgets: tuple[QWidget, bool]) -> None:
    """Hides and shows widgets, those that go first: never are both there at once, which would push the window wider."""
    for widget, shown in sorted(widgets, key=lambda one: one[1]):
        widget.setVisible(shown)


def replace_body(area: QScrollArea, body: QWidget) -> None:
    """Puts a new body into a scroll area; the old one goes later, since it may be the sender."""
    old = area.takeWidget()
    if old is not None:
        old.hide()
        old.deleteLater()
    area.setWidget(body)


class Station(QWidget):
    """Base of the stations: a bar of actions above, the picture or list below.

    ``refresh`` is called when the station is seen and the job, the records or the theme have
    changed since; ``show_selection`` whenever the selection changes while it is seen.
    """

    asked = Signal(object)
    """A place elsewhere that the builder wants to see: the window goes there."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.theme: Theme = LIGHT
        self.stale = True
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._body = QVBoxLayout(self)
        self._body.setContentsMargins(14, 10, 14, 8)
        self._body.setSpacing(8)

    def add_bar(self, items: Sequence[QWidget | QLayout | None]) -> None:
        """Adds the bar of actions."""
        self._body.addLayout(row_of(items))

    def add_body(self, item: QWidget | QLayout, stretch: int = 1) -> None:
        """Adds what the station is about."""
        if isinstance(item, QLayout):
            self._body.addLayout(item, stretch)
        else:
            self._body.addWidget(item, stretch)

    def button(self, text: str, tip: str, *, checkable: bool = False, main: bool = False) -> QPushButton:
        """An action with its explanation."""
        button = QPushButton(text)
        button.setToolTip(tip)
        button.setAccessibleDescription(tip)
        button.setCheckable(checkable)
        if main:
            button.setObjectName("main")
        return button

    def refresh(self) -> None:
        """Shows the plan of now."""

    def show_selection(self, key: Key | None) -> None:
        """Marks what is selected."""

    def open_thing(self, key: Key | None) -> None:
        """Someone wants to see a thing here: more than marked, where it is one page of several."""
        self.show_selection(key)

    def shut(self) -> None:
        """The window closes: whatever still runs is ended."""

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.theme = theme
