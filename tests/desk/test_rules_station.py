"""The Rules station in the real window: the walk, verdicts, signatures, comparisons, findings, the short circuit."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel, QPushButton

from riktig.core.exports.verification import verification_record
from riktig.core.handover import missing_words
from riktig.core.job import SignedBy, UpstreamDevice, set_practice, set_supply
from riktig.core.keys import read_key
from riktig.core.rules import RULES, Group, Verdict, group_key, stand_of_clauses
from riktig.core.views import statuses
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.rules import RulesStation
from riktig.desk.stations.rules.findings_page import FindingsPage
from tests.conftest import Doing
from tests.desk.conftest import settle_window


def cells(page: FindingsPage) -> list[str]:
    """The texts of the first finding."""
    items = [page.table.item(0, column) for column in range(page.table.columnCount())]
    return [item.text() for item in items if item]


def test_rules_show_every_verdict_and_a_signature_holds_while_the_evidence_does(
    window: MainWindow, session: Session
) -> None:
    window.go_to("Rules")
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    session.edit("upstream", Doing(lambda job: set_supply(job, upstream_device=UpstreamDevice.UNKNOWN)))
    settle_window()
    result = next(r for r in session.evaluation.get(RULES) if r.code == "E07")
    assert result.verdict is Verdict.JUDGE
    station.sign(result, "compared with the breakers bought")
    assert station.judgement_of(result) is not None
    answer_job = session.job.supply

    session.edit("fault", Doing(lambda job: set_supply(job, fault_ka=answer_job.fault_ka + 4)))
    changed = next(r for r in session.evaluation.get(RULES) if r.code == result.code)
    assert station.judgement_of(changed) is None, "the evidence is another now"


def test_a_signature_counts_on_the_route_card_and_can_be_withdrawn(window: MainWindow, session: Session) -> None:
    window.go_to("Rules")
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    for result in (r for r in session.evaluation.get(RULES) if r.verdict is Verdict.JUDGE):
        station.sign(result, "looked at with the risk assessment, 12 May")
    settle_window()

    def line() -> str:
        lines = {status.station: status.line for status in statuses(session.evaluation, session.records)}
        return lines["Rules"]

    assert line().endswith("signed")
    assert not stand_of_clauses(session.evaluation.get(RULES), session.records).is_open
    signed = next(r for r in session.evaluation.get(RULES) if r.verdict is Verdict.JUDGE)
    station.withdraw(signed, "the risk assessment was for another machine")
    assert station.judgement_of(signed) is None
    assert line() == "1 needs judgement"
    before = len(session.records)
    station.withdraw(signed, "once more")
    assert len(session.records) == before, "there is nothing to withdraw"


def test_what_changed_since_the_last_look_is_said_until_it_was_seen(window: MainWindow, session: Session) -> None:
    window.go_to("Rules")
    settle_window()
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    assert "changed" not in station.words.text()
    session.edit("fault", Doing(lambda job: set_supply(job, fault_ka=25.0)))
    settle_window()
    assert "3 changed since the last look" in station.words.text(), "E07, E20 and E35"
    shown = [label.text() for label in station.findChildren(QLabel)]
    assert shown.count("was: meets") == 3
    station.looked.click()
    assert "changed" not in station.words.text()


def test_a_click_in_the_picture_of_the_walk_shows_what_is_about_that_place(
    window: MainWindow, session: Session
) -> None:
    window.go_to("Rules")
    settle_window()
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    of_plate = [r for r in session.evaluation.get(RULES) if r.group is Group.PLATE]

    def titles() -> set[str]:
        results = {result.title for result in session.evaluation.get(RULES)}
        return {label.text() for label in station.list.findChildren(QLabel) if label.text() in results}

    assert len(titles()) == len(session.evaluation.get(RULES))
    station.walk.clicked.emit(group_key(Group.PLATE))
    assert titles() == {result.title for result in of_plate}
    assert f"{len(of_plate)} about “Plate and door”" in station.words.text()
    station.walk.clicked.emit(read_key("device:c1.F"))
    assert str(session.selection) == "device:c1.F"
    about = titles()
    assert about
    assert "Documents" not in about
    station.whole.click()
    assert len(titles()) == len(session.evaluation.get(RULES))


def test_a_comparison_with_print_stands_beside_its_clause(window: MainWindow, session: Session) -> None:
    window.go_to("Rules")
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    result = next(r for r in session.evaluation.get(RULES) if r.code == "E02")
    station.signing.compare(result, "EN 60204-1:2018, print of 2019")
    settle_window()
    shown = [label.text() for label in station.list.findChildren(QLabel)]
    assert any("compared with EN 60204-1:2018, print of 2019" in text for text in shown)
    assert [b.text() for b in station.list.findChildren(QPushButton)].count("✓ print") == 1


def test_a_finding_of_ones_own_is_noted_where_one_stands_and_settled(window: MainWindow, session: Session) -> None:
    window.go_to("Rules")
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    session.select(read_key("device:c1.K"))
    station.own.click()
    page = station.findings
    assert "noted at: K1" in page.words.text()
    page.keep.click()
    assert session.records == (), "it says nothing"
    page.text.setText("the cover is cracked")
    QTest.keyClick(page.text, Qt.Key.Key_Return)
    assert cells(page)[0] == "the cover is cracked"
    assert cells(page)[1] == "K1"
    assert any("cracked" in line for line in missing_words(session.evaluation, session.records))
    page.how.setText("cover changed")
    page.done.click()
    assert "1 open" in page.words.text(), "none is chosen"
    page.table.selectRow(0)
    page.done.click()
    assert "0 open" in page.words.text()
    assert cells(page)[3].startswith("cover changed")
    assert not any("cracked" in line for line in missing_words(session.evaluation, session.records))


def test_a_deviation_that_needs_two_is_refused_to_the_same_person(window: MainWindow, session: Session) -> None:
    window.go_to("Rules")
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    session.edit("two", Doing(lambda job: set_practice(job, deviation_signed_by=SignedBy.TWO)))
    session.edit("fault", Doing(lambda job: set_supply(job, fault_ka=25.0)))
    settle_window()
    result = next(r for r in session.evaluation.get(RULES) if r.code == "E07")
    first = session.who
    station.sign(result, "fuses upstream")
    settle_window()
    assert station.judgement_of(result) is None
    assert "Second signature …" in [b.text() for b in station.list.findChildren(QPushButton)]
    station.sign(result, "fuses upstream, again")
    assert len(session.records) == 1
    session.who = "P. Aune"
    station.sign(result, "seen, agreed")
    session.who = first
    assert station.judgement_of(result) is not None


def test_the_short_circuit_is_a_picture_and_a_list_that_leads_to_the_part(window: MainWindow, session: Session) -> None:
    window.go_to("Rules")
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    station.rating.click()
    page = station.short_circuit
    assert "10 kA at 400 V" in page.head.text()
    assert "✓ Enough" in page.head.text()
    words = [page.list.item(row).text() for row in range(page.list.count())]
    row = next(n for n, text in enumerate(words) if "F1," in text)
    page.list.setCurrentRow(row)
    assert str(session.selection).startswith("device:c1.F")
    assert page.view.drawing.width > 100
    station.other.click()
    assert "clauses fail there" in station.market.head.text()
    assert station.market.table.rowCount() == len(session.evaluation.get(RULES))


def test_a_clause_that_fails_can_be_accepted_as_a_deviation_and_fails_all_the_same(
    window: MainWindow, session: Session
) -> None:
    window.go_to("Rules")
    station = window.stations["Rules"]
    assert isinstance(station, RulesStation)
    session.edit("fault", Doing(lambda job: set_supply(job, fault_ka=25.0)))
    settle_window()
    result = next(r for r in session.evaluation.get(RULES) if r.code == "E07")
    assert result.verdict is Verdict.FAILS
    station.sign(result, "fuses of 20 A are added upstream by the customer")
    stand = stand_of_clauses(session.evaluation.get(RULES), session.records)
    assert result in stand.deviating
    assert result not in stand.failing
    missing = missing_words(session.evaluation, session.records)
    assert "clause “Short-circuit rating” fails, a deviation is signed" in missing
    sheet = verification_record(session.evaluation, session.records)
    assert any(row[0] == "deviation" and row[1] == "Short-circuit rating" for row in sheet.rows)
    session.edit("fault", Doing(lambda job: set_supply(job, fault_ka=30.0)))
    settle_window()
    stand = stand_of_clauses(session.evaluation.get(RULES), session.records)
    assert [r.code for r in stand.failing] == ["E07", "E20"], "more can flow now: it was accepted of 25 kA"
