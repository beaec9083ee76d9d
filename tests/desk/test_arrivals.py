"""What comes from outside: a job or a list dropped on the window, and a job imported with its records."""

from pathlib import Path

import pytest
from PySide6.QtCore import QMimeData, QPointF, Qt, QUrl
from PySide6.QtGui import QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import QApplication

from riktig.core.records import Operation, Record, WireDone
from riktig.core.store import JobFile, dump_whole
from riktig.core.wiring import WIRING
from riktig.desk.shell import MainWindow
from riktig.desk.stations.brief import BriefStation
from tests.desk.conftest import settle_window


@pytest.fixture(autouse=True)
def jobs(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """Where imported jobs are kept in these tests."""
    place = tmp_path / "Riktig"
    monkeypatch.setattr("riktig.desk.shell.arrivals.jobs_folder", lambda: place)
    return place


def drop(window: MainWindow, *paths: Path) -> bool:
    """Drags files over the window and lets them go; whether they were welcome."""
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path)) for path in paths])
    middle = window.rect().center()
    keys, buttons, copy = Qt.KeyboardModifier.NoModifier, Qt.MouseButton.LeftButton, Qt.DropAction.CopyAction
    enter = QDragEnterEvent(middle, copy, data, buttons, keys)
    enter.ignore()
    QApplication.sendEvent(window, enter)
    if enter.isAccepted():
        QApplication.sendEvent(window, QDropEvent(QPointF(middle), copy, data, buttons, keys))
        settle_window()
    return enter.isAccepted()


def exported(window: MainWindow, path: Path) -> Path:
    """The open job with one tick, as text."""
    session = window.session
    assert session.file
    wire = session.evaluation.get(WIRING).wires[0]
    tick = Record("tick-1", str(wire.key), WireDone(Operation.CUT, length=wire.cut), "Ida", "2026-11-30T08:00:00", 1)
    session.file.add_records([tick])
    path.write_text(dump_whole(session.file), encoding="utf-8")
    return path


def test_a_job_dropped_on_the_window_is_opened(window: MainWindow, tmp_path: Path) -> None:
    assert window.session.file
    other = tmp_path / "other.riktig"
    JobFile.create(other, window.session.job, who="Olav", at="t").close()
    assert drop(window, other)
    assert window.session.file.path == other.resolve()
    assert window.current == "Brief"


def test_an_exported_job_dropped_on_the_window_comes_with_its_records(
    window: MainWindow, tmp_path: Path, jobs: Path
) -> None:
    text = exported(window, tmp_path / "job.json")
    assert drop(window, text)
    assert window.session.file
    assert window.session.file.path.parent == jobs.resolve()
    assert [record.id for record in window.session.records] == ["tick-1"]
    # Once more: the first stays as it is, the second stands beside it.
    first = window.session.file.path
    assert window.arrivals.import_from(text)
    assert window.session.file.path != first
    assert first.exists()


def test_a_list_of_loads_dropped_on_the_window_is_shown_in_the_brief(window: MainWindow, tmp_path: Path) -> None:
    loads = tmp_path / "loads.csv"
    loads.write_text("name,kw\nrinse pump,2.2\nlift,4\n", encoding="utf-8")
    window.go_to("Plate")
    assert drop(window, loads)
    brief = window.stations["Brief"]
    assert window.current == "Brief"
    assert isinstance(brief, BriefStation)
    assert brief.new.list is not None
    assert len(brief.new.list.found.rows) == 2


def test_what_cannot_be_taken_in_is_not_welcome(window: MainWindow, tmp_path: Path) -> None:
    strange = tmp_path / "song.mp3"
    strange.write_bytes(b"x")
    before = window.session.file
    assert not drop(window, strange)
    assert window.session.file is before


def test_a_text_that_is_no_job_is_said_and_nothing_changes(window: MainWindow, tmp_path: Path) -> None:
    text = tmp_path / "job.json"
    text.write_text('{"not": "a job"}', encoding="utf-8")
    before = window.session.file
    assert not window.arrivals.import_from(text)
    assert window.session.file is before
    assert "not a job" in window.drawer.message
