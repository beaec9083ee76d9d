"""Undo by keys in the real window: what was done last where one is, and nothing elsewhere without a word."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLineEdit

from riktig.core.edits import ChangeLoad, SetHeading
from riktig.core.records import LabelPrinted, Operation, TakenBack, WireDone
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from tests.desk.conftest import settle_window


def press_undo(window: MainWindow) -> None:
    QTest.keyClick(window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)


def said(window: MainWindow) -> str:
    return window.drawer.message


def tick(window: MainWindow, session: Session) -> str:
    """One wire cut in Build; the key of the wire."""
    window.go_to("Build")
    wire = next(state for state in session.progress.states if not state.done).wire
    assert session.record(wire.key, WireDone(Operation.CUT, wire.name, length=500.0, number=wire.number))
    return wire.key


def test_in_build_undo_corrects_the_tick_and_leaves_the_loads_alone(window: MainWindow, session: Session) -> None:
    window.go_to("Brief")
    session.edit("power", ChangeLoad(session.job.loads[0].id, {"kw": 3.0}))
    tick(window, session)
    job = session.job
    press_undo(window)
    assert session.job is job
    last = session.records[-1]
    assert isinstance(last.facts, TakenBack)
    assert last.corrects == session.records[-2].id
    assert "cut" in said(window)
    assert "correction" in said(window)


def test_an_edit_of_another_station_is_taken_back_at_the_second_press_only(
    window: MainWindow, session: Session
) -> None:
    window.go_to("Brief")
    before = session.job
    session.edit("power of the wash drum", ChangeLoad(session.job.loads[0].id, {"kw": 3.0}))
    after = session.job
    window.go_to("Prove")
    press_undo(window)
    assert session.job is after
    assert "Brief" in said(window)
    assert "power of the wash drum" in said(window)
    press_undo(window)
    assert session.job == before
    assert said(window).startswith("Undone: power of the wash drum")


def test_the_first_press_of_another_station_does_not_count(window: MainWindow, session: Session) -> None:
    window.go_to("Brief")
    session.edit("power", ChangeLoad(session.job.loads[0].id, {"kw": 3.0}))
    after = session.job
    for name in ("Prove", "Build", "Labels"):
        window.go_to(name)
        press_undo(window)
        assert session.job is after, "each station asks anew"


def test_in_the_brief_an_edit_is_taken_back_though_a_tick_came_later(window: MainWindow, session: Session) -> None:
    window.go_to("Brief")
    before = session.job
    session.edit("title", SetHeading({"title": "another shed"}))
    tick(window, session)
    count = len(session.records)
    window.go_to("Brief")
    press_undo(window)
    assert session.job == before
    assert len(session.records) == count, "what was recorded stays"


def test_ticks_are_taken_back_one_by_one_and_then_nothing_more(window: MainWindow, session: Session) -> None:
    first, second = tick(window, session), tick(window, session)
    press_undo(window)
    press_undo(window)
    assert [record.subject for record in session.records] == [first, second, second, first]
    press_undo(window)
    assert len(session.records) == 4
    assert "nothing to undo" in said(window)


def test_a_print_is_not_undone_and_that_is_said(window: MainWindow, session: Session) -> None:
    window.go_to("Labels")
    session.record("marker:36", LabelPrinted("36"))
    press_undo(window)
    assert len(session.records) == 1
    assert said(window).startswith("Not undone: print of label 36")
    press_undo(window)
    assert "nothing to undo" in said(window)


def test_the_menu_and_the_button_name_what_undo_would_do(window: MainWindow, session: Session) -> None:
    window.go_to("Brief")
    session.edit("title & client", SetHeading({"title": "a shed"}))
    settle_window()
    words = [action.text() for action in window.menus["Edit"].actions()]
    assert "Undo: title && client" in words
    assert window.strip.undo.toolTip() == "Undo: title & client (Ctrl+Z)"
    press_undo(window)
    settle_window()
    words = [action.text() for action in window.menus["Edit"].actions()]
    assert "Redo: title && client" in words
    assert "Undo" in words


@pytest.mark.parametrize("entered", [False, True])
def test_in_a_field_undo_takes_back_the_typing_first_and_then_the_job(
    window: MainWindow, session: Session, *, entered: bool
) -> None:
    window.go_to("Brief")
    before = session.job
    field = next(
        line for line in window.stations["Brief"].findChildren(QLineEdit)
        if line.isVisible() and line.text() == before.title
    )  # fmt: skip
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, "Drying shed")
    if entered:
        QTest.keyClick(field, Qt.Key.Key_Return)
        settle_window()
        assert session.job.title == "Drying shed"
    here = QApplication.focusWidget()
    assert here is not None
    QTest.keyClick(here, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    settle_window()
    assert session.job.title == before.title
    assert field.text() == before.title
    assert bool(session.history.undone) is entered
