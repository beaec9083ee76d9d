"""Cautions that stand beside the work in the real window."""

from riktig.core.production import BuildStage
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.build import BuildStation
from tests.desk.conftest import open_gates, settle_window


def test_a_wire_that_is_stripped_has_the_caution_of_its_strands(window: MainWindow, session: Session) -> None:
    """S28, and S01 at every stage of Build."""
    open_gates(session)
    window.go_to("Build")
    settle_window()
    station = window.stations["Build"]
    assert isinstance(station, BuildStation)
    station.show_stage(BuildStage.WIRES)
    settle_window()
    assert "without nicking a strand" in station.caution.text()
    station.show_stage(BuildStage.PARTS)
    settle_window()
    assert "strand" not in station.caution.text()
    assert "lock off and prove dead" in station.caution.text()
