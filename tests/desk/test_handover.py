"""Hand over: what was done in the window is written as a list and done again without it."""

from contextlib import closing
from pathlib import Path

import pytest
from PySide6.QtCore import Qt

from riktig.cli import main
from riktig.core.edits import ChangeLoad, SetHeading
from riktig.core.job import Job
from riktig.core.store import JobFile
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.handover import HandoverStation
from tests.conftest import FakeClock
from tests.desk.conftest import press, settle_window


@pytest.fixture
def station(window: MainWindow) -> HandoverStation:
    window.go_to("Hand over")
    settle_window()
    station = window.stations["Hand over"]
    assert isinstance(station, HandoverStation)
    return station


@pytest.fixture
def twin(tmp_path: Path, demo: Job, clock: FakeClock) -> Path:
    """The same job, as it was before anything was done in the window."""
    path = tmp_path / "twin.riktig"
    JobFile.create(path, demo, who="Ida", at=clock()).close()
    return path


def test_what_was_done_in_the_window_is_done_again_to_another_file(
    window: MainWindow, station: HandoverStation, session: Session, twin: Path, tmp_path: Path
) -> None:
    load = session.job.loads[0].id
    session.edit("power", ChangeLoad(load, {"kw": 2.2}))
    session.edit("title", SetHeading({"title": "taken back"}))
    session.undo()
    session.edit("title", SetHeading({"title": "as delivered"}))
    window.go_to("Build")
    press(window.stations["Build"], Qt.Key.Key_Space)
    window.go_to("Hand over")
    settle_window()
    assert "2 edits and 1 record since" in station.edit_list.words.text()
    station.edit_list.write_to(tmp_path / "done.jsonl")
    text = (tmp_path / "done.jsonl").read_text(encoding="utf-8")
    assert "taken back" not in text, "what was undone is not in the list"

    assert main(["edit", str(twin), str(tmp_path / "done.jsonl"), "--dry-run"]) == 0
    with closing(JobFile(twin, who="Ida")) as untouched:
        assert untouched.job().loads[0].kw != 2.2, "a dry run changes nothing"
    assert main(["edit", str(twin), str(tmp_path / "done.jsonl"), "--who", "Ola"]) == 0
    with closing(JobFile(twin, who="Ida")) as again:
        assert again.job() == session.job
        assert [(one.subject, one.facts, one.who) for one in again.records()] == [
            (one.subject, one.facts, "Ola") for one in session.records
        ]


def test_a_new_list_begins_empty(station: HandoverStation, session: Session) -> None:
    session.edit("title", SetHeading({"title": "first"}))
    settle_window()
    station.edit_list.begin.click()
    assert "0 edits and 0 records" in station.edit_list.words.text()
    assert not station.edit_list.write.isEnabled()
    session.edit("title", SetHeading({"title": "second"}))
    settle_window()
    assert "1 edit and 0 records" in station.edit_list.words.text()


def test_a_folder_that_takes_no_file_is_said(
    station: HandoverStation, session: Session, said: list[tuple[str, bool]], tmp_path: Path
) -> None:
    session.edit("title", SetHeading({"title": "first"}))
    station.edit_list.write_to(tmp_path / "no such folder" / "done.jsonl")
    text, wrong = said[-1]
    assert wrong
    assert "could not be written" in text
