"""The first screen shows the recent jobs with a picture of their plate as they were left."""

import hashlib
from pathlib import Path

import pytest
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QToolButton

from riktig.core.job import Job
from riktig.core.store import JobFile
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.shell.job_pictures import address_of, picture_file, picture_of
from riktig.desk.shell.jobs import keep_picture
from tests.desk.conftest import settle_window


@pytest.fixture
def in_jobs(tmp_path: Path, session: Session, window: MainWindow, demo: Job) -> Path:
    """The open job, in the folder of jobs."""
    path = tmp_path / "Riktig" / "KS 0417 ø.riktig"
    path.parent.mkdir()
    session.open(JobFile.create(path, demo, who="Ida", at="2026-11-30T08:00:00"))
    window.go_to("Plate")
    settle_window()
    return path


def cards(window: MainWindow) -> list[QToolButton]:
    return [button for button in window.start.findChildren(QToolButton) if button.isVisible()]


def test_a_job_that_was_left_is_shown_with_its_plate_and_opened_by_a_click(
    window: MainWindow, session: Session, in_jobs: Path
) -> None:
    assert not picture_file(in_jobs).exists()
    window.show_start()
    settle_window()
    picture = QImage(str(picture_file(in_jobs)))
    assert max(picture.width(), picture.height()) == 256
    colours = {picture.pixel(x, y) for x in range(0, picture.width(), 3) for y in range(0, picture.height(), 3)}
    assert len(colours) > 5, "something is painted on it"
    (card,) = cards(window)
    assert not card.icon().isNull()
    assert card.accessibleName().startswith("Open KS 0417 ø, last changed 20")
    session.select(None)
    card.click()
    settle_window()
    assert window.current == "Brief"
    assert session.file
    assert session.file.path == in_jobs


def test_it_lies_where_the_standard_says_under_the_address_of_the_file(
    window: MainWindow, session: Session, in_jobs: Path
) -> None:
    """Thumbnail Managing Standard, freedesktop.org, 0.9 (from memory): MD5 of the URI, URI and time in the PNG."""
    assert keep_picture(session)
    uri = address_of(in_jobs)
    assert uri.endswith("/Riktig/KS%200417%20%C3%B8.riktig"), "spaces and letters that are not ASCII are escaped"
    assert uri.startswith("file:///")
    assert picture_file(in_jobs).name == hashlib.md5(uri.encode()).hexdigest() + ".png"
    picture = QImage(str(picture_file(in_jobs)))
    assert picture.text("Thumb::URI") == uri
    assert picture.text("Thumb::MTime") == str(int(in_jobs.stat().st_mtime))
    assert picture_file(in_jobs).stat().st_mode & 0o777 == 0o600


def test_a_picture_of_another_file_is_not_shown(window: MainWindow, session: Session, in_jobs: Path) -> None:
    assert keep_picture(session)
    other = in_jobs.with_name("other.riktig")
    picture_file(in_jobs).rename(picture_file(other))
    assert picture_of(other).isNull()
    assert picture_of(in_jobs).isNull()


def test_without_a_picture_the_card_has_the_name_alone(window: MainWindow, tmp_path: Path, in_jobs: Path) -> None:
    JobFile.create(in_jobs.with_name("empty.riktig"), Job(number="X"), who="Ida", at="t").close()
    window.show_start()
    settle_window()
    names = {card.toolTip().partition(",")[0]: card for card in cards(window)}
    assert set(names) == {"empty", "KS 0417 ø"}
    assert names["empty"].icon().isNull()
    assert "empty" in names["empty"].text()


def test_where_no_picture_can_be_written_the_window_goes_on(
    window: MainWindow, session: Session, in_jobs: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    blocked = in_jobs.parent / "a file"
    blocked.write_text("no folder")
    monkeypatch.setattr("riktig.desk.shell.job_pictures.pictures_folder", lambda: blocked / "thumbnails")
    assert not keep_picture(session)
    window.show_start()
    assert window.start.isVisible()


def test_nothing_is_worked_out_for_a_picture(window: MainWindow, session: Session, in_jobs: Path) -> None:
    session.evaluation = type(session.evaluation)(session.job)
    assert not keep_picture(session)
    assert session.evaluation.computed == 0
