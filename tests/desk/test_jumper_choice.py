"""Terminals: the jumper of a chosen terminal is parted, joined and taken off in its menu, and every step is undone."""

import pytest
from PySide6.QtWidgets import QMenu

from riktig.core.ids import DeviceId
from riktig.core.job import Job
from riktig.core.keys import DeviceKey
from riktig.core.terminals import STRIPS, jumpers_on
from riktig.demo_job import kelp_shed
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.terminals import TerminalsStation
from tests.desk.conftest import settle_window

STOP, START = DeviceId("c4.B.stop.Xb"), DeviceId("c4.B.start.Xa")
"""Two terminals of the wash drum under one jumper."""


@pytest.fixture
def demo() -> Job:
    return kelp_shed()


@pytest.fixture
def station(window: MainWindow) -> TerminalsStation:
    window.go_to("Terminals")
    settle_window()
    station = window.stations["Terminals"]
    assert isinstance(station, TerminalsStation)
    return station


def jumper_menu(station: TerminalsStation) -> QMenu:
    menu = station.order.menu()
    menu.aboutToShow.emit()
    (found,) = [action.menu() for action in menu.actions() if action.text() == "Jumper"]
    assert isinstance(found, QMenu)
    return found


def choose(station: TerminalsStation, words: str) -> None:
    (action,) = [action for action in jumper_menu(station).actions() if action.text().startswith(words)]
    assert action.isEnabled()
    action.trigger()
    settle_window()


def test_a_jumper_is_parted_joined_and_taken_off_at_its_terminal(station: TerminalsStation, session: Session) -> None:
    def jumpers() -> list[list[DeviceId]]:
        strips = session.evaluation.get(STRIPS).strips
        return [[row.device for row in j.joins] for strip in strips for j in jumpers_on(strip)]

    session.select(DeviceKey(START))
    settle_window()
    usual = session.job
    assert [STOP, START] in jumpers()
    choose(station, "Part it left of this terminal")
    assert [STOP, START] not in jumpers()
    assert session.selection == DeviceKey(START)
    choose(station, "Join to X")
    assert [STOP, START] in jumpers()
    assert session.job.jumpers
    choose(station, "Take this terminal off it")
    assert [STOP, START] not in jumpers()
    choose(station, "Usual jumper")
    assert session.job == usual
    for _ in range(3):
        session.undo()
    assert [STOP, START] not in jumpers(), "parted, as after the first step"
    session.undo()
    assert session.job == usual


def test_on_a_terminal_of_power_no_jumper_is_offered(station: TerminalsStation, session: Session) -> None:
    session.select(DeviceKey(DeviceId("c4.X.U")))
    settle_window()
    actions = [(action.text(), action.isEnabled()) for action in jumper_menu(station).actions()]
    assert actions == [("No jumper lies on this terminal", False)]
