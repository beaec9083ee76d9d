"""What every station is: a widget that shows the plan and is refreshed only when seen."""

from collections.abc import Sequence
from typing import ClassVar

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QLayout, QPushButton, QVBoxLayout, QWidget

from riktig.core.evaluation import Derived
from riktig.core.job import Job
from riktig.core.keys import Key
from riktig.desk.session import Session
from riktig.desk.theme import LIGHT, Theme
from riktig.desk.widgets.small import flowing, plain_label, row_of

__all__ = ["Station"]


class _Cover(QWidget):
    """Lies over a station while what it shows is worked out; a click goes nowhere meanwhile."""

    def __init__(self, station: QWidget) -> None:
        super().__init__(station)
        self.setObjectName("cover")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        words = plain_label("The wires are being worked out …", "second")
        words.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._words = words
        self.hide()

    def lay_over(self) -> None:
        """Covers the whole station."""
        station = self.parentWidget()
        if station is not None:
            self.setGeometry(station.rect())
        self._words.setParent(self)
        self._words.setGeometry(self.rect())
        self.raise_()
        self.show()


class Station(QWidget):
    """Base of the stations: a bar of actions above, the picture or list below.

    ``refresh`` is called when the station is seen and the job, the records or the theme have
    changed since; ``show_selection`` whenever the selection changes while it is seen.
    """

    needs: ClassVar[tuple[Derived[Job, object], ...]] = ()
    """What it cannot show anything without; in a large job that is worked out aside."""
    asked = Signal(object)
    """A place elsewhere that the builder wants to see: the window goes there."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.theme: Theme = LIGHT
        self.stale = True
        self._cover = _Cover(self)
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._body = QVBoxLayout(self)
        self._body.setContentsMargins(14, 10, 14, 8)
        self._body.setSpacing(8)

    def add_bar(self, items: Sequence[QWidget | None]) -> None:
        """Adds the bar of actions, which breaks its line where the window is narrow; after None stands to the right."""
        left, right = list(items), list[QWidget | None]()
        if None in left:
            at = left.index(None)
            left, right = left[:at], left[at + 1 :]
        self._body.addLayout(row_of((flowing(left), *right)))

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

    def show_waiting(self) -> None:
        """What it shows is still worked out: the old state is covered, so that nobody takes it for that of now."""
        self._cover.lay_over()

    def show_now(self) -> None:
        """Shows the plan of now, and takes the cover away."""
        self.stale = False
        self._cover.hide()
        self.refresh()

    @property
    def covered(self) -> bool:
        """Whether it waits for what it shows."""
        return self._cover.isVisibleTo(self)

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
