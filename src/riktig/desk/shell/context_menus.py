"""What the right button and the menu key offer on every drawing and list: where else it is shown, copies, a photo."""

from collections.abc import Callable, Iterable
from functools import partial
from typing import Protocol

from PySide6.QtCore import QObject, QPoint, Qt
from PySide6.QtWidgets import QAbstractItemView, QApplication, QMenu, QWidget

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.holes import HOLES
from riktig.core.job import Job
from riktig.core.keys import DeviceKey, ElementKey, HoleKey, Key, NetKey, PinKey, WireKey, device_of
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS
from riktig.core.views import details_of
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.shell.arrivals import Arrivals
from riktig.desk.shell.homes import HOME_OF
from riktig.desk.stations import Stations
from riktig.desk.widgets import Station, all_of_list, chosen_of_list

__all__ = ["ContextMenus", "shown_in"]


class _Window(Protocol):
    """What is needed of the main window."""

    session: Session
    stations: Stations
    current: str
    arrivals: Arrivals

    def go_to(self, name: str) -> None: ...


def shown_in(evaluation: Evaluation[Job], key: Key) -> tuple[str, ...]:
    """The stations on which a thing is seen, in the order of work.

    Args:
        evaluation: Of the job.
        key: The thing.
    """
    match key:
        case DeviceKey() | PinKey() | ElementKey():
            owner = device_of(key)
            device = evaluation.get(CIRCUITS).by_id.get(owner) if owner else None
            if device is None:
                return ()
            places = (
                ("Circuits", True),
                ("Plate", evaluation.get(LAYOUT).seat(device.id) is not None),
                ("Door", any(seat.device == device.id for seat in evaluation.get(DOOR).seats)),
                ("Terminals", bool(device.strip)),
            )
            return tuple(name for name, shown in places if shown)
        case WireKey():
            return ("Plate", "Wires", "Build")
        case NetKey():
            return ("Circuits", "Wires")
        case HoleKey(number):
            hole = next((hole for hole in evaluation.get(HOLES) if hole.number == number), None)
            return () if hole is None else ("Plate",) if hole.face == "plate" else ("Door",)
    home = HOME_OF.get(type(key), "")
    return (home,) if home else ()


class ContextMenus(QObject):
    """Gives every drawing and list of the stations its menu; some stations add to it what can be done there.

    Args:
        window: The window.
        widget: What the menus stand over.
        more: What is offered where nothing is under the pointer: words, and what they do.
    """

    def __init__(self, window: _Window, widget: QWidget, more: Iterable[tuple[str, Callable[[], object]]]) -> None:
        super().__init__(widget)
        self._window, self._widget, self._more = window, widget, tuple(more)

    def serve(self, station: Station) -> None:
        """Gives the drawings and lists of a station their menu."""
        station.add_common = self.add_common
        for view in station.findChildren(DrawingView):
            if not view.has_own_menu:
                view.menu_asked.connect(self._of_drawing)
        for rows in station.findChildren(QAbstractItemView):
            rows.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
            rows.customContextMenuRequested.connect(partial(self._of_list, rows))

    def add_common(self, menu: QMenu, key: Key | None) -> None:
        """Adds what can be done with anything that is drawn.

        Args:
            menu: What it is added to.
            key: What is under the pointer; None for nothing.
        """
        if not menu.isEmpty():
            menu.addSeparator()
        session, window = self._window.session, self._window
        page = details_of(session.evaluation, key, ()) if key is not None else None
        if key is not None:
            for name in shown_in(session.evaluation, key):
                if name != window.current:
                    menu.addAction(f"Show in {name}").triggered.connect(
                        lambda _=False, name=name, key=key: self.show_there(name, key)
                    )
        if key is not None and page is not None:
            title = page.title
            menu.addAction(f"Copy “{title}”").triggered.connect(lambda: QApplication.clipboard().setText(title))
            menu.addAction("Add a photo …").triggered.connect(self._window.arrivals.ask_photo)
            menu.addAction("Add a note …").triggered.connect(self._window.arrivals.ask_note)
            menu.addAction("Design reason …").triggered.connect(self._window.arrivals.ask_reason)
        else:
            for words, act in self._more:
                menu.addAction(words).triggered.connect(lambda _=False, act=act: act())

    def show_there(self, name: str, key: Key) -> None:
        """Opens a station at a thing."""
        self._window.go_to(name)
        self._window.session.select(key)
        self._window.stations[name].open_thing(key)

    def _of_drawing(self, key: Key | None, at: QPoint) -> None:
        menu = QMenu(self._widget)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.add_common(menu, key)
        menu.popup(at)

    def _of_list(self, rows: QAbstractItemView, at: QPoint) -> None:
        menu = QMenu(self._widget)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for words, text_of in (("Copy", chosen_of_list), ("Copy all of the list", all_of_list)):
            menu.addAction(words).triggered.connect(
                lambda _=False, text_of=text_of: QApplication.clipboard().setText(text_of(rows))
            )
        key = self._window.session.selection
        if key is not None:
            self.add_common(menu, key)
        menu.popup(rows.viewport().mapToGlobal(at))
