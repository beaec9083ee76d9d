"""The page of what a job file is."""

import shutil
import sqlite3
from contextlib import closing

from PySide6.QtWidgets import QDialog, QLabel

from riktig.core.records import Operation, WireDone
from riktig.core.store import JobFile
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.shell.properties import facts_of_file, show_properties
from tests.desk.conftest import settle_window


def test_it_counts_what_is_in_the_file(window: MainWindow, session: Session) -> None:
    window.go_to("Build")
    wire = session.progress.states[0].wire
    session.record(wire.key, WireDone(Operation.CUT, wire.name, length=500.0))
    session.undo()
    assert session.file is not None
    facts = dict(facts_of_file(session.file, session))
    assert facts["Job"].startswith("KS-0417")
    assert facts["File"] == str(session.file.path)
    assert facts["Saved steps"] == "1"
    assert facts["Entries of the record"] == "2, 1 of them corrected"
    assert facts["Record"] == "every entry as it was written"


def test_a_changed_entry_is_said(window: MainWindow, session: Session) -> None:
    wire = session.progress.states[0].wire
    session.record(wire.key, WireDone(Operation.CUT, wire.name, length=500.0))
    assert session.file is not None
    path = session.file.path
    broken = path.with_name("broken.riktig")
    shutil.copy(path, broken)
    with closing(sqlite3.connect(broken)) as db:
        (sql,) = db.execute("SELECT sql FROM sqlite_master WHERE name = 'log_is_append_only_u'").fetchone()
        db.execute("DROP TRIGGER log_is_append_only_u")
        db.execute("UPDATE log SET who = 'Ola'")
        db.execute(sql)
        db.commit()
    session.open(JobFile(broken, who="Ida"))
    assert session.file.path == broken
    assert dict(facts_of_file(session.file, session))["Record"].startswith("not as it was written, at ")


def test_the_menu_opens_it_and_its_texts_can_be_copied(window: MainWindow) -> None:
    window.go_to("Brief")
    action = next(a for a in window.menus["File"].actions() if a.text() == "Properties …")
    action.trigger()
    settle_window()
    page = next(d for d in window.findChildren(QDialog) if d.windowTitle() == "Properties of the job" and d.isVisible())
    texts = [label.text() for label in page.findChildren(QLabel)]
    assert any("KS-0417.riktig" in text for text in texts)
    page.close()


def test_without_a_job_that_is_said(window: MainWindow) -> None:
    empty, heard = Session(), list[str]()
    empty.said.connect(lambda text, wrong: heard.append(text))
    assert show_properties(window, empty) is None
    assert heard == ["Start or open a job first: then its file has properties."]


def test_of_an_empty_record_nothing_is_vouched_for(window: MainWindow, session: Session) -> None:
    assert session.file is not None
    assert dict(facts_of_file(session.file, session))["Record"].startswith("empty")
