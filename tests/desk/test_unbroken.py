"""The window takes whatever is done to it and to its file: clocks and searches that go on, files that go away."""

import os
import re
import sys
from pathlib import Path

import pytest
import shiboken6
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QMessageBox

import riktig.desk as desk_package
from riktig.cli import main
from riktig.core.edits import AddLoad, ChangeLoad, SetHeading, SetPractice
from riktig.core.job import ControlSupply, LoadId, remove_load
from riktig.core.plate import LAYOUT
from riktig.core.production import BuildStage, Operation
from riktig.core.records import GatePassed, Record, TakenBack, WireDone
from riktig.core.store import JobFile
from riktig.desk.rescue import install
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.shell.start_page import newest_jobs
from riktig.desk.stations.build import BuildStation
from riktig.desk.stations.circuits import CircuitsStation
from riktig.desk.stations.handover import HandoverStation
from riktig.desk.stations.plate import PlateStation
from tests.conftest import Doing
from tests.desk.conftest import Waiter, open_gates, press, settle_window, wait_until
from tests.desk.monkey import Monkey
from tests.effort import times
from tests.shared_plan import plan_for
from tests.waiting import let_pass

__all__ = ["wait_until"]
Said = list[tuple[str, bool]]


@pytest.fixture
def faults(monkeypatch: pytest.MonkeyPatch) -> list[BaseException]:
    """What reaches the handler of faults."""
    found: list[BaseException] = []
    monkeypatch.setattr(sys, "excepthook", lambda kind, error, trace: found.append(error))
    return found


@pytest.fixture
def running(window: MainWindow) -> CircuitsStation:
    """Energise, with time running."""
    window.go_to("Circuits")
    settle_window()
    station = window.stations["Circuits"]
    assert isinstance(station, CircuitsStation)
    station.show_sheet(1)
    press(station.view, Qt.Key.Key_E)
    station.live.run.setChecked(True)
    let_pass(700)
    assert station.live.model.panel.clock_s > 0
    return station


def test_the_clock_of_energise_stands_when_the_station_is_left(
    running: CircuitsStation, window: MainWindow, session: Session, faults: list[BaseException]
) -> None:
    window.go_to("Brief")
    session.edit("supply", SetPractice({"control_supply": ControlSupply.DC}))
    let_pass(700)
    assert not running.live.run.isChecked()
    assert faults == []


def test_the_clock_of_energise_goes_on_with_the_circuits_of_now(
    running: CircuitsStation, session: Session, faults: list[BaseException]
) -> None:
    for choice in (ControlSupply.DC, ControlSupply.BY_RULEBOOK):
        session.edit("supply", SetPractice({"control_supply": choice}))
        let_pass(700)
    assert running.live.run.isChecked()
    assert faults == []


def test_a_load_taken_out_while_a_plan_is_sought_draws_nothing_of_yesterday(
    window: MainWindow,
    session: Session,
    faults: list[BaseException],
    monkeypatch: pytest.MonkeyPatch,
    wait_until: Waiter,
) -> None:
    monkeypatch.setattr("riktig.desk.stations.plate.plan_run.SECONDS", 30.0)
    for n in range(2):
        session.edit("add", AddLoad(f"fan {n}", {"kw": 1.5}))
    window.go_to("Plate")
    station = window.stations["Plate"]
    assert isinstance(station, PlateStation)
    station.plan_button.click()
    wait_until(lambda: station.run.best is not None)
    last = session.job.loads[-1].id
    session.edit("take out", Doing(lambda job: remove_load(job, last)))
    let_pass(700)
    assert faults == []
    assert {seat.device for seat in session.evaluation.get(LAYOUT).seats}
    station.run.wait()


def test_a_job_that_is_open_and_is_opened_again_stays_open(window: MainWindow, session: Session) -> None:
    assert session.file
    file, link = session.file, session.file.path.with_name("link.riktig")
    link.symlink_to(file.path)
    for path in (file.path, link):
        window.show_start()
        assert window.open_path(path)
        assert session.file is file
        assert not session.read_only
        assert window.current == "Brief"


def test_a_link_to_nothing_among_the_jobs_does_no_harm(tmp_path: Path) -> None:
    (tmp_path / "gone.riktig").symlink_to(tmp_path / "nothing")
    (tmp_path / "loop.riktig").symlink_to(tmp_path / "loop.riktig")
    os.mkfifo(tmp_path / "pipe.riktig")
    (tmp_path / "folder.riktig").mkdir()
    (tmp_path / "a.riktig").write_bytes(b"x")
    assert newest_jobs(tmp_path) == [tmp_path / "a.riktig"]


def test_a_file_taken_away_is_said_at_once_and_the_work_goes_on(
    window: MainWindow, session: Session, said: Said
) -> None:
    assert session.file
    path = session.file.path
    assert session.edit("title", SetHeading({"title": "before"}))
    path.rename(path.with_name("renamed.riktig"))
    assert session.edit("title", SetHeading({"title": "after"}))
    assert "was renamed, moved or deleted while it was open" in said[-1][0]
    assert said[-1][1]
    assert session.file.path.name == "KS-0417-rescued-1.riktig"
    assert window.windowTitle() == "KS-0417 in KS-0417-rescued-1.riktig - Riktig"
    assert "Compare the two" in next(box for box in window.findChildren(QMessageBox) if box.isVisible()).text()
    assert session.unwritten == ""
    assert session.edit("title", SetHeading({"title": "later"}))
    assert sum("rescued" in text for text, _ in said) == 1, "it is said once"
    again = JobFile(session.file.path, read_only=True)
    assert [again.job_at(n).title for n in range(2, 5)] == ["before", "after", "later"]
    again.close()


def ticks(session: Session) -> list[Record]:
    """What was recorded beside the gates that were passed for it."""
    return [record for record in session.records if not isinstance(record.facts, GatePassed)]


def test_what_another_person_recorded_is_taken_back_with_a_reason_only(
    window: MainWindow, session: Session, said: Said
) -> None:
    window.go_to("Build")
    build = window.stations["Build"]
    assert isinstance(build, BuildStation)
    open_gates(session)
    build.show_stage(BuildStage.WIRES)
    build.toggle(Operation.CUT)
    session.who = "Ola"
    asked: list[str] = []
    session.ask_why = lambda question: asked.append(question) or ""  # type: ignore[func-returns-value]
    build.toggle(Operation.CUT)
    assert asked == ["Ida recorded this. Why is it taken back?"]
    assert "it stays" in said[-1][0]
    assert session.progress.count(Operation.CUT) == 1
    session.ask_why = lambda question: "cut too short"
    build.toggle(Operation.CUT)
    assert session.progress.count(Operation.CUT) == 0
    assert session.records[-1].facts == TakenBack("cut", "cut too short")
    build.toggle(Operation.CUT)
    session.who = "I\u200bDA"
    session.ask_why = lambda question: ""
    build.toggle(Operation.CUT)
    assert len(ticks(session)) == 3, "Ola's stays for Ida too"


@pytest.mark.parametrize("name", ["a\nb", "\ud800", "\x1b[2J", "x" * 100_000, "\u202eexe"])
def test_a_text_that_cannot_be_kept_is_refused_at_the_field(session: Session, said: Said, name: str) -> None:
    before = session.job
    assert not session.edit("name", ChangeLoad(session.job.loads[0].id, {"name": name}))
    assert not session.edit("title", SetHeading({"title": name}))
    assert session.job is before
    assert "name: this text has" in said[0][0]
    assert session.edit("title", SetHeading({"title": "fine"})), "and no later edit fails for it"


def test_a_fault_is_reported_once_with_what_was_done_and_can_be_done_again(
    window: MainWindow, session: Session, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(sys, "__excepthook__", lambda *error: None)
    monkeypatch.setattr(sys, "excepthook", sys.excepthook)
    told: list[str] = []
    install(session, lambda text, rescued: told.append(text))
    first = session.job
    session.edit("power", ChangeLoad(LoadId("m1"), {"kw": 5.5}))
    session.edit("title", SetHeading({"title": "another"}))
    window.go_to("Build")
    build = window.stations["Build"]
    assert isinstance(build, BuildStation)
    open_gates(session)
    build.show_stage(BuildStage.WIRES)
    build.toggle(Operation.CUT)
    for number in range(3):
        for _ in range(5):
            try:
                raise KeyError(number) if number != 1 else ZeroDivisionError
            except (KeyError, ZeroDivisionError) as error:
                sys.excepthook(type(error), error, error.__traceback__)
    assert len(told) == 2, "each fault once, however often its clock ticks"
    reports = sorted(path.name for path in tmp_path.glob("*-fault-*.txt"))
    assert reports == ["KS-0417-fault-1.txt", "KS-0417-fault-2.txt"]
    text = (tmp_path / reports[0]).read_text(encoding="utf-8")
    assert "KeyError" in text
    assert "riktig edit" in text
    # Played again on a copy of the job as it was.
    copy = tmp_path / "copy.riktig"
    JobFile.create(copy, first, who="Ida", at="t").close()
    assert main(["edit", str(copy), str(tmp_path / "KS-0417-rescued-1.jsonl")]) == 0
    file = JobFile(copy, read_only=True)
    assert file.job() == session.job
    assert [type(record.facts) for record in file.records() if not isinstance(record.facts, GatePassed)] == [WireDone]
    file.close()


def test_the_window_can_be_closed_while_papers_are_written(window: MainWindow, session: Session) -> None:
    window.go_to("Hand over")
    station = window.stations["Hand over"]
    assert isinstance(station, HandoverStation)
    station.write.click()
    work = station.work
    assert work is not None
    assert work.isRunning()
    assert window.close()
    assert work.isFinished()
    assert not list(station.folder().rglob("*.pdf")), "no half set of papers"


@pytest.mark.parametrize("seed", range(times(1, 20)))
def test_a_monkey_at_mouse_and_keys_finds_no_fault(window: MainWindow, session: Session, seed: int) -> None:
    """Run it alone with: python -m tests.desk.monkey ACTIONS SEED JOB."""
    monkey = Monkey(window, seed)
    monkey.run(times(400, 3000))
    assert not monkey.faults, f"seed {seed}: {monkey.faults}"
    records: tuple[Record, ...] = session.records
    assert session.file
    assert tuple(session.file.records()) == records, "what the window shows is what the file holds"
    assert plan_for(session.job).document == session.file.job()


def test_what_waits_for_the_next_turn_of_the_loop_goes_with_its_window(
    session: Session, faults: list[BaseException]
) -> None:
    """A call that came after the window was gone touched what was gone; the binding ended the program for it."""
    window = MainWindow(session)
    window.show()
    settle_window()
    session.edit("title", SetHeading({"title": "one more"}))
    window.close()
    shiboken6.delete(window)
    for _ in range(5):
        let_pass(2)
    assert faults == []


def test_every_call_for_later_names_whom_it_goes_with() -> None:
    """``QTimer.singleShot`` with a method and no object to go with calls it even when its widget is gone."""
    desk = Path(desk_package.__file__).parent
    alone = [
        f"{path.name}: {call.group()}"
        for path in sorted(desk.rglob("*.py"))
        for call in re.finditer(r"singleShot\(\w+, (?:self\.\w+|lambda)[^\n]*", path.read_text(encoding="utf-8"))
    ]
    assert alone == []
