"""Terminals: a strip is ordered at its picture by dragging, by key and by its menu, and every step is undone."""

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QMenu

from riktig.core.geometry import Poly, bounds_of
from riktig.core.ids import DeviceId
from riktig.core.keys import DeviceKey
from riktig.core.schematic import CIRCUITS
from riktig.core.terminals import BLOCKS, STRIPS
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.terminals import TerminalsStation
from tests.desk.conftest import drag, settle_window

U, V, W = (DeviceId(f"c1.X.{name}") for name in "UVW")


@pytest.fixture
def station(window: MainWindow) -> TerminalsStation:
    window.go_to("Terminals")
    settle_window()
    station = window.stations["Terminals"]
    assert isinstance(station, TerminalsStation)
    return station


def row(session: Session, terminal: DeviceId = U) -> list[DeviceId]:
    strips = session.evaluation.get(STRIPS).strips
    return next([r.device for r in s.rows] for s in strips if terminal in [r.device for r in s.rows])


def middle(station: TerminalsStation, terminal: DeviceId) -> QPointF:
    """Where a block of the strip is on the screen."""
    (rect,) = [
        bounds_of(mark)
        for mark in station.view.drawing.shapes
        if isinstance(mark, Poly) and mark.layer == BLOCKS and mark.key == DeviceKey(terminal)
    ]
    return station.view.to_px(rect.centre)


def choose(menu: QMenu, words: str) -> None:
    menu.aboutToShow.emit()
    (action,) = [action for action in menu.actions() if action.text().startswith(words)]
    assert action.isEnabled()
    action.trigger()
    settle_window()


def test_a_terminal_is_dragged_along_its_strip(station: TerminalsStation, session: Session) -> None:
    session.select(DeviceKey(U))
    settle_window()
    usual, job = row(session), session.job
    assert usual[:3] == [U, V, W]
    begin, end = middle(station, U), middle(station, W)
    drag(station.view, begin, end + QPointF(4, 0))
    settle_window()
    assert row(session) == [V, W, U, *usual[3:]]
    assert session.selection == DeviceKey(U)
    session.undo()
    settle_window()
    assert session.job == job


def test_keys_move_it_and_the_ends_stop_it(station: TerminalsStation, session: Session) -> None:
    usual = row(session)
    session.select(DeviceKey(V))
    settle_window()
    station.view.setFocus()
    QTest.keyClick(station.view, Qt.Key.Key_Left, Qt.KeyboardModifier.AltModifier)
    settle_window()
    assert row(session) == [V, U, *usual[2:]]
    job = session.job
    QTest.keyClick(station.view, Qt.Key.Key_Left, Qt.KeyboardModifier.AltModifier)
    settle_window()
    assert session.job is job
    QTest.keyClick(station.view, Qt.Key.Key_Right, Qt.KeyboardModifier.AltModifier)
    settle_window()
    assert row(session) == usual


def test_the_menu_parts_adds_counts_and_takes_back(station: TerminalsStation, session: Session) -> None:
    menu = station.order.menu()
    usual, strips = row(session), len(session.evaluation.get(STRIPS).strips)
    session.select(DeviceKey(W))
    choose(menu, "Part the strip")
    assert row(session, U) == [U, V]
    assert len(session.evaluation.get(STRIPS).strips) == strips + 1
    session.select(DeviceKey(V))
    choose(menu, "Spare terminal")
    spare = row(session, U)[-1]
    assert session.evaluation.get(CIRCUITS).by_id[spare].purpose == "spare"
    choose(menu, "Usual order")
    assert row(session) == usual
    assert len(session.evaluation.get(STRIPS).strips) == strips


def test_without_a_terminal_the_menu_says_what_it_needs(
    station: TerminalsStation, session: Session, said: list[tuple[str, bool]]
) -> None:
    session.select(DeviceKey(DeviceId("c1.K")))
    menu = station.order.menu()
    menu.aboutToShow.emit()
    assert [action.text() for action in menu.actions()] == ["Choose a terminal first"]
    station.ordering.shift(1)
    assert "Choose a terminal" in said[-1][0]
