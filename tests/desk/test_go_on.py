"""Going on in a new file: from a job whose record is broken, and from what a fault of the program left behind."""

import shutil
import sqlite3
import sys
from pathlib import Path

import pytest
from PySide6.QtWidgets import QMessageBox

from riktig.core.edits import SetHeading
from riktig.core.errors import RiktigError
from riktig.core.production import Operation
from riktig.core.records import WireDone
from riktig.core.store import JobFile
from riktig.desk.rescue import install
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.desk.conftest import settle_window


def press_in_message(window: MainWindow, words: str) -> str:
    """Presses a button of the message that is shown; returns what the message says."""
    box = next(box for box in window.findChildren(QMessageBox) if box.isVisible())
    button = next(button for button in box.buttons() if button.text().replace("&", "") == words)
    button.click()
    settle_window()
    return box.text()


def test_a_broken_record_offers_to_go_on_in_a_copy(window: MainWindow, session: Session) -> None:
    assert session.file
    assert session.edit("title", SetHeading({"title": "as it was"}))
    assert session.record("wire W1", WireDone(Operation.CUT, "x", "y"))
    path, kept = session.file.path.with_name("broken.riktig"), session.job
    shutil.copy(session.file.path, path)
    db = sqlite3.connect(path)
    (sql,) = db.execute("SELECT sql FROM sqlite_master WHERE name = 'log_is_append_only_u'").fetchone()
    db.execute("DROP TRIGGER log_is_append_only_u")
    db.execute("UPDATE log SET who = 'Somebody'")
    db.execute(sql)
    db.commit()
    db.close()
    before = path.read_bytes()
    assert window.open_path(path)
    assert session.read_only
    text = press_in_message(window, "Go on in a copy")
    assert "its record is not what was written" in text
    assert session.file.path == path.with_name(f"{path.stem}-copy-1.riktig")
    assert session.job == kept
    assert session.records == (), "it is not known which of them to believe"
    assert "goes on from" in session.file.revisions()[0].why
    assert "entry 1" in session.file.revisions()[0].why
    assert session.edit("title", SetHeading({"title": "later"}))
    assert path.read_bytes() == before, "the old file is not touched"


def test_after_a_fault_the_window_goes_on_from_the_job_as_it_was(
    window: MainWindow, session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(sys, "__excepthook__", lambda *error: None)
    monkeypatch.setattr(sys, "excepthook", sys.excepthook)
    install(session, window.tell_of_fault)
    assert session.edit("title", SetHeading({"title": "as it was"}))
    kept = session.job
    try:
        raise ZeroDivisionError("ours")
    except ZeroDivisionError as error:
        sys.excepthook(type(error), error, error.__traceback__)
    assert session.edit("title", SetHeading({"title": "later"}))
    text = press_in_message(window, "Go on in a new file")
    assert "Riktig has an internal error" in text
    assert session.job == kept
    assert session.file
    assert session.file.path.name == "KS-0417-rescued-1-goes-on-1.riktig"
    assert not session.read_only


def test_two_numbers_that_differ_in_case_only_are_not_two_files(tmp_path: Path, session: Session) -> None:
    JobFile.create(tmp_path / "ks-1.riktig", session.job, who="Ida", at="t").close()
    with pytest.raises(RiktigError, match="differs from it in large and small letters only"):
        JobFile.create(tmp_path / "KS-1.riktig", session.job, who="Ida", at="t")
    assert [path.name for path in tmp_path.glob("[kK][sS]-1*")] == ["ks-1.riktig"]
