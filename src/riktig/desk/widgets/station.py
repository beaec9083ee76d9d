"""What every station is: a widget that shows the plan and is refreshed only when seen."""

from collections.abc import Sequence

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QLayout, QPushButton, QVBoxLayout, QWidget

from riktig.core.keys import Key
from riktig.desk.session import Session
from riktig.desk.theme import LIGHT, Theme
from riktig.desk.widgets.small import row_of

__all__ = ["Station"]


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

    def show_derived(self) -> None:
        """Called when wires, rules and tests are all known again; what needs them all is shown now."""

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
