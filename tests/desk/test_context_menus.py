"""The right button and the menu key: on every drawing and list, with where else a thing is shown."""

from collections.abc import Iterator

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtGui import QContextMenuEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QAbstractItemView, QApplication, QMenu, QPushButton

from riktig.core.door import DOOR
from riktig.core.keys import DeviceKey, Key, NetKey, WireKey
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.wiring import WIRING
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.shell.context_menus import shown_in
from riktig.desk.stations.build import BuildStation
from tests.desk.conftest import settle_window


@pytest.fixture(autouse=True)
def no_menu_left() -> Iterator[None]:
    yield
    for widget in QApplication.topLevelWidgets():
        if isinstance(widget, QMenu):
            widget.close()


def open_menu() -> QMenu:
    menu = QApplication.activePopupWidget()
    assert isinstance(menu, QMenu), "a menu has opened"
    return menu


def entries(menu: QMenu) -> list[str]:
    return [action.text() for action in menu.actions() if action.text()]


def largest_view(window: MainWindow) -> DrawingView:
    station = window.stations[window.current]
    return max((v for v in station.findChildren(DrawingView) if v.isVisible()), key=lambda v: v.width() * v.height())


def right_click(view: DrawingView, key: Key) -> QMenu:
    view.reveal(key)
    at = view.centre_of(key)
    assert at is not None
    QTest.mouseClick(view, Qt.MouseButton.RightButton, pos=at.toPoint())
    return open_menu()


@pytest.mark.parametrize("name", ["Circuits", "Plate", "Door", "Wires", "Terminals", "Labels"])
def test_every_drawing_has_a_menu_by_mouse_and_by_key(window: MainWindow, session: Session, name: str) -> None:
    window.go_to(name)
    settle_window()
    view = largest_view(window)
    QTest.mouseClick(view, Qt.MouseButton.RightButton, pos=QPoint(3, view.height() // 2))
    by_mouse = entries(open_menu())
    assert "Drawing as a list" in by_mouse
    assert "Print …" in by_mouse
    open_menu().close()
    settle_window()
    key = QContextMenuEvent(QContextMenuEvent.Reason.Keyboard, QPoint(5, 5), view.mapToGlobal(QPoint(5, 5)))
    QApplication.sendEvent(view, key)
    assert entries(open_menu())


def test_a_part_leads_from_the_plate_to_the_circuits_and_back(window: MainWindow, session: Session) -> None:
    window.go_to("Plate")
    settle_window()
    devices = session.evaluation.get(CIRCUITS).by_id
    leads = (stand.block.lead for stand in session.evaluation.get(LAYOUT).stands)
    lead = next(lead for lead in leads if devices[lead].kind.has_coil)
    menu = right_click(largest_view(window), DeviceKey(lead))
    names = entries(menu)
    assert "Show in Circuits" in names
    assert "Show in Plate" not in names, "it is there already"
    assert "Add a photo …" in names
    tag = session.evaluation.get(NAMES).tag[lead]
    next(action for action in menu.actions() if action.text() == f"Copy “{tag}”").trigger()
    assert QApplication.clipboard().text() == tag
    next(action for action in menu.actions() if action.text() == "Show in Circuits").trigger()
    settle_window()
    assert window.current == "Circuits"
    assert session.selection == DeviceKey(lead)
    assert "Show in Plate" in entries(window.stations["Circuits"].full_menu())  # type: ignore[attr-defined]


def test_things_are_offered_only_where_they_are_seen(session: Session) -> None:
    evaluation = session.evaluation
    layout, door = evaluation.get(LAYOUT), evaluation.get(DOOR)
    for device in evaluation.get(CIRCUITS).devices:
        places = shown_in(evaluation, DeviceKey(device.id))
        assert ("Plate" in places) == (layout.seat(device.id) is not None), device.id
        assert ("Door" in places) == (door.seat(device.id) is not None), device.id
        assert ("Terminals" in places) == bool(device.strip), device.id
    wire = evaluation.get(WIRING).wires[0]
    assert shown_in(evaluation, WireKey(wire.key)) == ("Plate", "Wires", "Build")
    assert shown_in(evaluation, NetKey(wire.net)) == ("Circuits", "Wires")
    assert shown_in(evaluation, DeviceKey("no such device")) == ()  # type: ignore[arg-type]


def test_a_wire_is_shown_in_build_from_its_list(window: MainWindow, session: Session) -> None:
    wire = session.evaluation.get(WIRING).wires[12]
    window.go_to("Wires")
    session.select(WireKey(wire.key))
    settle_window()
    window.context_menus.show_there("Build", WireKey(wire.key))
    settle_window()
    build = window.stations["Build"]
    assert isinstance(build, BuildStation)
    rows = build.wires.list
    assert window.current == "Build"
    assert wire.number in str(rows.currentIndex().data())


def test_lists_are_copied_from_their_menu(window: MainWindow, session: Session) -> None:
    window.go_to("Terminals")
    next(b for b in window.stations["Terminals"].findChildren(QPushButton) if b.text() == "List").click()
    settle_window()
    rows = next(r for r in window.stations["Terminals"].findChildren(QAbstractItemView) if r.isVisible())
    rows.customContextMenuRequested.emit(QPoint(20, 20))
    menu = open_menu()
    assert entries(menu)[:2] == ["Copy", "Copy all of the list"]
    menu.actions()[1].trigger()
    lines = QApplication.clipboard().text().splitlines()
    assert len(lines) == 1 + rows.model().rowCount()
