"""What a start loads, and the first screen that is there before the rest of the program."""

import subprocess
import sys
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QMainWindow, QPushButton

from riktig.desk.first_window import FirstWindow
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.desk.conftest import Waiter

SAY = "\nimport sys\nprint(*sorted(name for name in sys.modules if not name.startswith('_')))"
FIRST = (
    """
import os
os.environ["QT_QPA_PLATFORM"] = "offscreen"
from riktig.desk.app import application
from riktig.desk.first_window import FirstWindow
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
    assert "not in the file" in inner.drawer.said.text()
    session.file.read_only = False
    session.write_again()
    assert first.close()


def test_the_first_screen_offers_the_newest_jobs(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("riktig.desk.first_window.jobs_folder", lambda: tmp_path)
    (tmp_path / "KS-0417.riktig").write_bytes(b"")
    first = FirstWindow(QMainWindow)
    assert any(button.text() == "KS-0417" for button in first.findChildren(QPushButton))
    first.deleteLater()
