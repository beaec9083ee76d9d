"""What a start loads, and the first screen that is there before the rest of the program."""

import subprocess
import sys
from pathlib import Path

import pytest
from PySide6.QtCore import QSettings, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QMainWindow, QToolButton

from riktig.desk.first_window import SIZE, FirstWindow
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.log_file import LOG, begin_log
from tests.desk.conftest import Waiter

SAY = "\nimport sys\nprint(*sorted(name for name in sys.modules if not name.startswith('_')))"
FIRST = (
    """
import os
os.environ["QT_QPA_PLATFORM"] = "offscreen"
from riktig.desk.app import application
from riktig.desk.first_window import SIZE, FirstWindow
app = application()
window = FirstWindow(lambda: sys.exit())
window.show()
"""
    + SAY
)
SHOW = "from riktig.cli import main; main(['show', sys.argv[1], 'loads'])"
HEAVY = {"PySide6", "numpy", "scipy", "msgspec", "reportlab", "ezdxf", "openpyxl", "numba", "cryptography", "sqlite3"}


def loaded(script: str, *arguments: str) -> set[str]:
    run = subprocess.run(
        [sys.executable, "-c", f"import sys\n{script}", *arguments], capture_output=True, text=True, check=True
    )
    return set(run.stdout.splitlines()[-1].split())


def packages(names: set[str]) -> set[str]:
    return {name.partition(".")[0] for name in names}


def test_the_command_line_loads_nothing_before_it_knows_what_is_asked() -> None:
    names = loaded(f"import riktig.cli{SAY}")
    assert "riktig.cli.parser" in names
    assert not packages(names) & HEAVY
    assert {name for name in names if name.startswith("riktig.core.")} <= {
        "riktig.core.errors", "riktig.core.loading", "riktig.core.exports", "riktig.core.exports.lists",
    }  # fmt: skip


def test_a_list_loads_only_what_it_needs(session: Session) -> None:
    assert session.file
    names = loaded(SHOW + SAY, str(session.file.path))
    assert "riktig.core.sizing.proposal" in names, "the list of loads names what is proposed for each"
    assert not packages(names) & {"PySide6", "scipy", "reportlab", "ezdxf", "openpyxl", "numba"}
    for step in ("optimiser", "wiring", "simulation", "rules", "holes", "views", "proving"):
        assert not any(name.startswith(f"riktig.core.{step}.") for name in names), step


def test_the_first_screen_is_painted_before_the_core_is_loaded() -> None:
    names = loaded(FIRST)
    assert "riktig.desk.shell.start_page" in names
    assert not packages(names) & (HEAVY - {"PySide6"})
    for step in ("schematic", "sizing", "plate", "wiring", "rules", "store", "edits"):
        assert not any(name.startswith(f"riktig.core.{step}") for name in names), step


def test_the_program_takes_the_place_of_the_first_screen(session: Session, wait_until: Waiter) -> None:
    first = FirstWindow(lambda: MainWindow(session), "KS-0417.riktig")
    assert first.inner is None
    first.show()
    wait_until(lambda: first.inner is not None)
    inner = first.inner
    assert isinstance(inner, MainWindow)
    assert first.windowTitle() == inner.windowTitle()
    assert inner.window() is first
    inner.go_to("Circuits")
    QTest.keyClick(inner, Qt.Key.Key_1, Qt.KeyboardModifier.ControlModifier)
    assert inner.current == "Brief", "shortcuts reach it"
    assert session.file
    session.unwritten, session.file.read_only = "an edit", True
    assert not first.close(), "what is not in the file is said first"
    assert "not in the file" in inner.drawer.message
    session.file.read_only = False
    session.write_again()
    assert first.close()


@pytest.mark.usefixtures("app")
def test_the_first_screen_offers_the_newest_jobs(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("riktig.desk.first_window.jobs_folder", lambda: tmp_path)
    (tmp_path / "KS-0417.riktig").write_bytes(b"")
    first = FirstWindow(QMainWindow)
    assert any("KS-0417" in button.text() for button in first.findChildren(QToolButton))
    first.deleteLater()


@pytest.mark.usefixtures("app")
def test_the_window_stands_where_it_stood(tmp_path: Path) -> None:
    settings = QSettings(str(tmp_path / "window.ini"), QSettings.Format.IniFormat)
    first = FirstWindow(QMainWindow, "KS-0417.riktig", settings)
    assert (first.width(), first.height()) == SIZE
    first.resize(720, 540)  # a window is never restored larger than its screen, here 800 by 800
    first.close()
    settings.sync()
    again = FirstWindow(
        QMainWindow, "KS-0417.riktig", QSettings(str(tmp_path / "window.ini"), QSettings.Format.IniFormat)
    )
    assert (again.width(), again.height()) == (720, 540)
    for window in (first, again):
        window.deleteLater()


def test_what_the_program_says_and_its_faults_are_in_the_log(
    session: Session, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("riktig.log_file.log_folder", lambda: tmp_path / "state")
    before = list(LOG.handlers)
    begin_log()
    try:
        session.say("The supply is 400 V.")
        session.say("That cannot be planned.", wrong=True)
        text = (tmp_path / "state" / "riktig.log").read_text(encoding="utf-8")
    finally:
        for handler in set(LOG.handlers) - set(before):
            LOG.removeHandler(handler)
            handler.close()
    assert "INFO The supply is 400 V." in text
    assert "wrong: That cannot be planned." in text


def test_a_log_that_cannot_be_written_stops_nothing(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    (tmp_path / "file").write_text("in the way")
    monkeypatch.setattr("riktig.log_file.log_folder", lambda: tmp_path / "file" / "state")
    before = list(LOG.handlers)
    begin_log()
    assert LOG.handlers == before
