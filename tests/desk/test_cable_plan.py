"""Terminals: cores are named and sheaths shared at the picture; what cannot be is said while it is written."""

from pathlib import Path

import pytest
from PySide6.QtWidgets import QDialogButtonBox, QMenu

from riktig.core.ids import DeviceId
from riktig.core.keys import DeviceKey
from riktig.core.store import JobFile
from riktig.core.terminals import STRIPS, Cable
from riktig.demo_job import kelp_shed
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.terminals import TerminalsStation
from riktig.desk.stations.terminals.cables import CORE, CoresAsked
from tests.conftest import FakeClock
from tests.desk.conftest import settle_window

MOTOR, LOW, START = DeviceId("c2.M"), DeviceId("c4.B.stop"), DeviceId("c4.B.start")


@pytest.fixture
def station(window: MainWindow, session: Session, tmp_path: Path, clock: FakeClock) -> TerminalsStation:
    session.open(JobFile.create(tmp_path / "KS-0418.riktig", kelp_shed(), who="Ida", at=clock()))
    window.go_to("Terminals")
    settle_window()
    station = window.stations["Terminals"]
    assert isinstance(station, TerminalsStation)
    return station


def cable_to(session: Session, device: DeviceId) -> Cable:
    (cable,) = [cable for cable in session.evaluation.get(STRIPS).cables if device in cable.devices]
    return cable


def write(dialog: CoresAsked, row: int, name: str) -> None:
    item = dialog.cores.item(row, CORE)
    assert item is not None
    item.setText(name)


def asked(station: TerminalsStation) -> CoresAsked:
    menu = station.cable.menu()
    menu.aboutToShow.emit()
    next(action for action in menu.actions() if action.text().startswith("Cores of")).trigger()
    settle_window()
    (dialog,) = [d for d in station.findChildren(CoresAsked) if d.isVisible()]
    return dialog


def test_cores_are_named_and_spare_ones_bought(station: TerminalsStation, session: Session) -> None:
    session.select(DeviceKey(LOW))
    dialog = asked(station)
    ok = dialog.buttons.button(QDialogButtonBox.StandardButton.Ok)
    write(dialog, 0, "2")
    assert not ok.isEnabled()
    assert "twice" in dialog.wrong.text()
    write(dialog, 1, "1")
    dialog.bought.setValue(1)
    assert "2 cores are used" in dialog.wrong.text()
    dialog.bought.setValue(4)
    assert ok.isEnabled()
    ok.click()
    settle_window()
    cable = cable_to(session, LOW)
    assert [core.name for core in cable.cores] == ["2", "1"]
    assert cable.spare == 2
    session.undo()
    settle_window()
    assert session.job.cables == ()


def test_a_sheath_is_shared_and_taken_apart_again(station: TerminalsStation, session: Session) -> None:
    session.select(DeviceKey(LOW))
    menu = station.cable.menu()
    menu.aboutToShow.emit()
    share = next(action.menu() for action in menu.actions() if action.menu())
    assert isinstance(share, QMenu)
    words = [action.text() for action in share.actions()]
    assert not [text for text in words if text.startswith("WM")], "no motor in a control cable"
    next(action for action in share.actions() if "start float" in action.text()).trigger()
    settle_window()
    assert cable_to(session, START).devices == (LOW, START)
    menu.aboutToShow.emit()
    next(action for action in menu.actions() if action.text() == "As planned").trigger()
    settle_window()
    assert cable_to(session, START).devices == (START,)


def test_a_terminal_leads_to_its_cable_a_motor_shares_none(station: TerminalsStation, session: Session) -> None:
    session.select(DeviceKey(DeviceId("c2.X.U")))
    cable = station.cables.cable()
    assert cable is not None
    assert cable.device == MOTOR
    session.select(DeviceKey(LOW))
    settle_window()
    strips = session.evaluation.get(STRIPS).strips
    assert "X6" in strips[station.strip].tag, "the strip on which the chosen cable lands"
    session.select(DeviceKey(DeviceId("c2.X.U")))
    menu = station.cable.menu()
    menu.aboutToShow.emit()
    (share,) = [action for action in menu.actions() if action.menu()]
    assert not share.isEnabled()
    session.select(DeviceKey(DeviceId("c2.K")))
    menu.aboutToShow.emit()
    assert [action.text() for action in menu.actions()] == ["Choose a cable or one of its terminals first"]
