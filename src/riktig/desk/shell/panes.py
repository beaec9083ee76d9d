"""The panes of the window for the keyboard: Tab goes through them as the eye does, F6 from one to the next."""

from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer
from PySide6.QtWidgets import QApplication, QWidget

from riktig.desk.shell.route_card import RouteCard
from riktig.desk.widgets import Station, TabOrder, first_field

__all__ = ["Panes"]

PAUSE_MS = 150
"""Between two strokes of Tab of somebody in a hurry (chosen by us)."""


class Panes(QObject):
    """Knows what stands where.

    Args:
        parent: The window.
        station: Gives the station that is open, if one is.
        strip: The job strip, above everything.
        route: The route card, to the left of the station.
        details: What is known of the selection, to its right.
        below: What stands below, from top to bottom; the findings last.
    """

    def __init__(
        self,
        parent: QWidget,
        station: Callable[[], Station | None],
        strip: QWidget,
        route: RouteCard,
        details: QWidget,
        below: tuple[QWidget, ...],
    ) -> None:
        super().__init__(parent)
        self._station, self._strip, self._route, self._details = station, strip, route, details
        self._below = below
        self._order = TabOrder()
        self._after_painting = QTimer(self, singleShot=True)
        self._after_painting.timeout.connect(self._set_order)
        app = QApplication.instance()
        if isinstance(app, QApplication):
            app.focusChanged.connect(self._focus_moved)

    def follow(self) -> None:
        """Something has come or gone: nobody presses Tab before it is painted."""
        self._after_painting.start(0)

    def _focus_moved(self, _: QWidget | None, now: QWidget | None) -> None:
        """Pages turn and lists grow within a station too.

        At once where the focus is on what has no place yet, else in a pause: a Brief of forty motors has 1,500 fields,
        which takes 60 ms.
        """
        if now is not None and not self._after_painting.isActive():
            self._after_painting.start(0 if now not in self._order else PAUSE_MS)

    def _set_order(self) -> None:
        station = self._station()
        if station is not None:
            self._order.set(self._strip, self._route, station, self._details, *self._below)

    def next(self) -> None:
        """Goes round: route card, station, details, findings."""
        station = self._station()
        panes: list[QWidget] = [self._route, *([station] if station else []), self._details, self._below[-1]]
        focus = QApplication.focusWidget()
        now = next((i for i, pane in enumerate(panes) if focus and (pane is focus or pane.isAncestorOf(focus))), -1)
        pane = panes[(now + 1) % len(panes)]
        if pane is self._route:
            self._route.take_focus()
        elif isinstance(pane, Station):
            pane.take_focus()
        else:
            (first_field(pane) or pane).setFocus()
