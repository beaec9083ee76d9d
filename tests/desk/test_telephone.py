"""A talk by telephone in the real window: question by question, and kept on the record."""

import pytest

from riktig.core.records import PhoneTalk
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.handover import HandoverStation
from riktig.desk.stations.handover.telephone_dialog import NOTHING_MORE, TelephoneDialog
from tests.desk.conftest import settle_window


@pytest.fixture
def talk(window: MainWindow) -> TelephoneDialog:
    window.go_to("Hand over")
    settle_window()
    station = window.stations["Hand over"]
    assert isinstance(station, HandoverStation)
    station.phone.click()
    settle_window()
    return station.talk


def test_a_tripped_overload_is_found_and_the_talk_kept(talk: TelephoneDialog, session: Session) -> None:
    talk.caller.setText("night shift")
    assert talk.about.currentText() == session.job.loads[0].name
    for _ in range(12):
        if not talk.yes.isEnabled():
            break
        (talk.yes if "TRIPPED" in talk.question.text() else talk.no).click()
    assert talk.question.text() == NOTHING_MORE
    assert "The overload F3" in talk.list.item(0).text()
    assert "reset it once" in talk.skilled.text()
    talk.keep()
    facts = session.records[-1].facts
    assert isinstance(facts, PhoneTalk)
    assert facts.caller == "night shift"
    assert "The overload F3" in facts.concluded
    assert "yes" in facts.answers
    assert "no" in facts.answers


def test_who_does_not_know_is_asked_something_else_and_the_cautions_stand_first(talk: TelephoneDialog) -> None:
    asked: list[str] = []
    while talk.yes.isEnabled() and len(asked) < 12:
        asked.append(talk.question.text())
        talk.unsure.click()
    assert len(asked) == len(set(asked))
    assert asked
    assert talk.list.count() > 5, "nothing was learned, nothing is ruled out"
