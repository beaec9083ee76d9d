"""Wires, rules and tests of a large job are worked out aside while the window stays in use."""

import pytest
from PySide6.QtWidgets import QLabel

from riktig.core.evaluation import Evaluation
from riktig.core.job import ElementId, Insertable, add_load
from riktig.core.keys import read_key
from riktig.core.rules import RULES
from riktig.core.schematic import insert_contact
from riktig.core.views import statuses
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.shell import deriver as module
from tests.conftest import Doing
from tests.desk.conftest import Waiter, settle_window
from tests.shared_plan import plan_for
from tests.waiting import let_pass

STOP = ElementId("c1.S.stop/1-2")


@pytest.fixture
def slow(window: MainWindow, monkeypatch: pytest.MonkeyPatch) -> MainWindow:
    """A window that takes every job for a large one."""
    monkeypatch.setattr(module, "QUIET_MS", 1)
    window.deriver.slow = True
    return window


def insert(session: Session, text: str = "again") -> None:
    session.edit("insert", Doing(lambda job: insert_contact(job, STOP, Insertable.STOP_BUTTON, text)))


def test_the_sheet_is_seen_at_once_and_the_rest_follows(slow: MainWindow, session: Session, wait_until: Waiter) -> None:
    slow.go_to("Circuits")
    before = slow.route.stops[1].status
    insert(session)
    let_pass(0)
    slow.deriver.slow = True
    assert "working out" in slow.drawer.kept.text() or not slow.deriver.busy
    wait_until(lambda: not slow.deriver.busy)
    settle_window()
    assert "working out" not in slow.drawer.kept.text()
    wanted = statuses(Evaluation(session.job), session.records)
    assert [stop.status for stop in slow.route.stops] == list(wanted)
    assert slow.route.stops[1].status != before
    assert session.evaluation.get(RULES) == Evaluation(session.job).get(RULES)


def test_edits_that_follow_each_other_end_in_the_last(slow: MainWindow, session: Session, wait_until: Waiter) -> None:
    for n in range(5):
        insert(session, f"stop {n}")
        slow.deriver.slow = True
        let_pass(3)
    wait_until(lambda: not slow.deriver.busy)
    settle_window()
    assert [stop.status for stop in slow.route.stops] == list(statuses(plan_for(session.job), session.records))


def test_what_was_worked_out_of_a_job_that_was_left_is_not_taken(
    slow: MainWindow, session: Session, wait_until: Waiter
) -> None:
    insert(session)
    let_pass(5)
    session.undo()
    session.edit("add", Doing(lambda job: add_load(job, "rinse pump", 1.5)))
    wait_until(lambda: not slow.deriver.busy)
    settle_window()
    assert session.evaluation.get(RULES) == plan_for(session.job).get(RULES)


def test_the_window_closes_in_the_middle_of_the_work(slow: MainWindow, session: Session) -> None:
    insert(session)
    let_pass(4)
    slow.close()
    assert not slow.deriver.busy


def test_a_selection_meanwhile_waits_for_its_details(
    slow: MainWindow, session: Session, wait_until: Waiter, monkeypatch: pytest.MonkeyPatch
) -> None:
    slow.go_to("Circuits")
    monkeypatch.setattr(module, "QUIET_MS", 300)
    insert(session)
    slow.deriver.ask()
    session.select(read_key("device:c1.K"))
    words = [label.text() for label in slow.details.findChildren(QLabel)]
    assert any("worked out" in text for text in words)
    wait_until(lambda: not slow.deriver.busy)
    settle_window()
    words = [label.text() for label in slow.details.findChildren(QLabel) if label.isVisible()]
    assert "K1" in words


def test_no_verdict_of_the_job_as_it_was_is_shown_while_it_is_judged_anew(
    slow: MainWindow, session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    """“42 meet” may be said only of the panel that was looked at."""
    settle_window()
    known = [label.text() for label in slow.drawer.counts]
    assert any("meet" in text for text in known)
    slow.deriver.slow = True
    monkeypatch.setattr(module, "QUIET_MS", 300)
    insert(session)
    let_pass(20)
    assert slow.deriver.busy
    assert [label.text() for label in slow.drawer.counts] == ["✗ …", "? …", "✓ …", "– …"]
    settle_window()
    assert any("meet" in label.text() for label in slow.drawer.counts)
