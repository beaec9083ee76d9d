"""A newcomer's whole way in the real window: from the first screen to the last verdict."""

from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from riktig.core.job import ElementId, Insertable, Job
from riktig.core.keys import read_key
from riktig.core.plate import LAYOUT
from riktig.core.production import WORK, BuildStage, Operation
from riktig.core.proving import Outcome, ProvingStage
from riktig.core.records import NewRecord
from riktig.core.views import Stamp, statuses
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.brief import BriefStation
from riktig.desk.stations.build import BuildStation
from riktig.desk.stations.circuits import CircuitsStation
from riktig.desk.stations.handover import HandoverStation
from riktig.desk.stations.prove import ProveStation
from tests.conftest import Doing, FakeClock
from tests.desk.conftest import Waiter, app, click_on, open_gates, press, settle_window, type_reading, wait_until

__all__ = ["app", "wait_until"]


@pytest.fixture
def newcomer(app: QApplication, tmp_path: Path, clock: FakeClock, monkeypatch: pytest.MonkeyPatch) -> MainWindow:
    for module in ("start_page", "main_window", "jobs"):
        monkeypatch.setattr(f"riktig.desk.shell.{module}.jobs_folder", lambda: tmp_path / "Riktig")
    window = MainWindow(Session(who="Ida", clock=clock))
    window.show()
    settle_window()
    return window


def stamps(window: MainWindow) -> dict[str, Stamp]:
    return {s.station: s.stamp for s in statuses(window.session.evaluation, window.session.records)}


def test_from_an_empty_brief_to_the_last_verdict_and_the_papers(
    newcomer: MainWindow, tmp_path: Path, wait_until: Waiter
) -> None:
    window, session = newcomer, newcomer.session

    # The first screen: give the job a number; without one it says why it needs it.
    press(window.start.number, Qt.Key.Key_Return)
    assert "Enter a job number" in window.start.where.text()
    QTest.keyClicks(window.start.number, "KS-0500")
    QTest.keyClicks(window.start.title, "Rinse pump")
    press(window.start.title, Qt.Key.Key_Return)
    assert (tmp_path / "Riktig" / "KS-0500.riktig").exists()
    assert window.current == "Brief"
    assert stamps(window)["Brief"] is Stamp.BLANK

    # The Brief: say what turns.
    brief = window.stations["Brief"]
    assert isinstance(brief, BriefStation)
    QTest.keyClicks(brief.new.name, "rinse pump")
    QTest.keyClicks(brief.new.power, "abc")
    press(brief.new.power, Qt.Key.Key_Return)
    assert not session.job.loads
    brief.new.power.clear()
    QTest.keyClicks(brief.new.power, "2.2")
    press(brief.new.power, Qt.Key.Key_Return)
    assert session.job.loads[0].kw == 2.2
    for name, text in (
        ("Maker", "Shed works"),
        ("Serial number", "1"),
        ("Drawing number", "D-1"),
        ("When it is made", "2026-12"),
        ("Standard on the nameplate", "IEC 61439-2"),
    ):
        field = next(f for f in brief.findChildren(type(brief.new.name)) if f.accessibleName() == name)
        QTest.keyClicks(field, text)
        press(field, Qt.Key.Key_Return)

    # Every station can be seen by key, and none of the planned ones has anything to fix.
    for number, name in enumerate(list(window.stations)[:10], 1):
        QTest.keyClick(window, getattr(Qt.Key, f"Key_{number % 10}"), Qt.KeyboardModifier.ControlModifier)
        settle_window()
        assert window.current == name
    assert Stamp.FIX not in stamps(window).values()

    # Circuits: a second stop, and back again.
    window.go_to("Circuits")
    circuits = window.stations["Circuits"]
    assert isinstance(circuits, CircuitsStation)
    circuits.show_sheet(1)
    click_on(circuits.view, read_key("element:c1.S.stop/1-2"))
    circuits.put_in(ElementId("c1.S.stop/1-2"), Insertable.STOP_BUTTON, "stop at the bay")
    assert len(session.evaluation.get(WIRING).wires) == 32
    QTest.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    settle_window()
    assert len(session.evaluation.get(WIRING).wires) == 31
    assert session.evaluation.get(LAYOUT).misfits == ()

    # Build: every wire, by the space bar.
    window.go_to("Build")
    build = window.stations["Build"]
    assert isinstance(build, BuildStation)
    open_gates(session)
    build.show_stage(BuildStage.WIRES)
    for _ in range(31 * len(Operation)):
        QTest.keyClick(build.wires.list, Qt.Key.Key_Space)
    settle_window()
    assert session.progress.complete == 31
    assert stamps(window)["Build"] is Stamp.BEGUN, "wires are in, and nobody says that anything was mounted"
    work = session.evaluation.get(WORK)
    session.record_all([NewRecord(task.subject, task.facts) for task in work])
    settle_window()
    assert stamps(window)["Build"] is Stamp.CLEAR

    # Prove: every dead test, by figures and Enter; live stages stay shut to the end.
    window.go_to("Prove")
    prove = window.stations["Prove"]
    assert isinstance(prove, ProveStation)
    tests = len(session.results.readings)
    for _ in range(tests):
        type_reading(prove)
        QTest.keyClick(prove, Qt.Key.Key_Return)
    settle_window()
    assert session.results.count(Outcome.PASSED) == tests
    assert stamps(window)["Prove"] is Stamp.CLEAR
    assert "shut" in prove.stage_buttons[ProvingStage.ENERGISE].text()

    # An edit after all that takes exactly the affected ticks and readings, and says so.
    session.edit("put in a stop", Doing(_second_stop))
    settle_window()
    assert {s.name for s in session.lost_last} >= {"9 S2:3 to S1:2"}
    assert session.progress.complete == 30
    assert "no longer count" in window.drawer.message
    session.undo()
    assert session.progress.complete == 31
    settle_window()

    # Hand over: in the background, whole, with the record of the tests.
    window.go_to("Hand over")
    station = window.stations["Hand over"]
    assert isinstance(station, HandoverStation)
    station.write.click()
    wait_until(lambda: station.work is None)
    names = {p.name for p in station.folder().rglob("*") if p.is_file()}
    assert {"KS-0500_rev_A_papers.pdf", "KS-0500_rev_A_schedules.xlsx", "KS-0500_rev_A_plate.dxf"} <= names
    record = (station.folder() / "csv" / "test_record.csv").read_text(encoding="utf-8")
    assert record.count("passed") == tests
    # What stands on the papers is out: those numbers are given to nothing else from here on.
    assert {"1", "M1-U", "PE"} <= set(session.job.printed)
    assert session.progress.complete == 31

    # Closed and opened again, everything is there.
    window.close()
    again = MainWindow(Session(who="Ola", clock=FakeClock()))
    assert again.open_path(tmp_path / "Riktig" / "KS-0500.riktig")
    assert again.session.progress.complete == 31
    assert again.session.results.count(Outcome.PASSED) == tests
    again.close()


def _second_stop(job: Job) -> Job:
    from riktig.core.schematic import insert_contact

    return insert_contact(job, ElementId("c1.S.stop/1-2"), Insertable.STOP_BUTTON, "second")


def test_a_bad_file_is_said_and_the_window_stays_usable(newcomer: MainWindow, tmp_path: Path) -> None:
    window = newcomer
    for name, content in (("empty", b""), ("picture", b"\x89PNG" + bytes(80))):
        path = tmp_path / f"{name}.riktig"
        path.write_bytes(content)
        assert not window.open_path(path)
        assert name in window.drawer.message
    window.go_to("Wires")
    assert "Start or open a job first" in window.drawer.message
    window.new_job("KS-1", "after all that")
    assert window.current == "Brief"
    window.new_job("KS-1", "again")
    assert "exists already" in window.drawer.message
    window.close()


def test_a_hand_over_can_be_stopped(newcomer: MainWindow, wait_until: Waiter) -> None:
    window = newcomer
    window.open_demo()
    window.go_to("Hand over")
    station = window.stations["Hand over"]
    assert isinstance(station, HandoverStation)
    station.write.click()
    station.stop.click()
    wait_until(lambda: station.work is None)
    assert "Stopped" in station.words.text() or "written" in station.words.text()
    window.close()
