"""Numbers and tags in the real window: named anew on request, printed and remembered, counted by place, found."""

from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel

from riktig.core.geometry import Text
from riktig.core.job import (
    ElementId,
    Insertable,
    Letters,
    Numbering,
    ReservedNumber,
    add_load,
    remove_load,
    set_practice,
)
from riktig.core.keys import NetKey, read_key
from riktig.core.labels import Medium
from riktig.core.production import NumberStatus, operations, tick_facts
from riktig.core.records import FieldEndDone, LabelPrinted, NewRecord
from riktig.core.rules import RULES
from riktig.core.schematic import NAMES, insert_contact
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.brief.fields import Answer, ChoiceField
from riktig.desk.stations.circuits import CircuitsStation
from riktig.desk.stations.labels import LabelsStation
from riktig.desk.stations.labels.choice_bar import CHANGED
from riktig.desk.stations.wires import WiresStation
from tests.conftest import Doing
from tests.desk.conftest import click_on, press, settle_window

STOP = ElementId("c1.S.stop/1-2")


def answer(window: MainWindow, name: str, text: str) -> Answer:
    (field,) = [w for w in window.stations["Brief"].findChildren(Answer) if w.accessibleName() == name]
    field.setFocus()
    field.selectAll()
    QTest.keyClicks(field, text)
    press(field, Qt.Key.Key_Return)
    return field


def numbers(session: Session) -> set[str]:
    return set(session.evaluation.get(NAMES).number.values())


class TestPractice:
    @pytest.fixture(autouse=True)
    def at_the_brief(self, window: MainWindow) -> None:
        window.go_to("Brief")
        settle_window()

    def test_the_school_is_chosen_in_the_brief_and_the_numbers_follow(
        self, window: MainWindow, session: Session
    ) -> None:
        (pick,) = [
            w for w in window.stations["Brief"].findChildren(ChoiceField) if w.accessibleName() == "Wires numbered"
        ]
        pick.setCurrentIndex([value for _, value in pick.choices].index(Numbering.BY_SHEET))
        pick.activated.emit(pick.currentIndex())
        settle_window()
        assert {"101", "201"} <= numbers(session)
        session.undo()
        assert "1" in numbers(session)

    def test_a_number_is_kept_for_a_common_potential(self, window: MainWindow, session: Session) -> None:
        session.edit("a second starter", Doing(lambda job: add_load(job, "belt", 1.1)))
        settle_window()
        answer(window, "Number of the control return", "0")
        assert session.job.practice.reserved == (ReservedNumber("control.back", "0"),)
        assert "0" in numbers(session)
        answer(window, "Number of the control return", " ")
        assert not session.job.practice.reserved

    def test_a_scheme_that_cannot_be_read_is_said_and_one_that_doubles_is_shown(
        self, window: MainWindow, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        session.edit("own scheme", Doing(lambda job: set_practice(job, numbering=Numbering.HOUSE)))
        settle_window()
        field = answer(window, "Numbering scheme", "{shet}")
        assert field.property("wrong")
        assert said[-1][1]
        assert "shet" in said[-1][0]
        answer(window, "Numbering scheme", "{sheet}{column}")
        texts = [w.text() for w in window.stations["Brief"].findChildren(QLabel) if w.isVisible()]
        assert any("would share a number" in text for text in texts)
        assert "fail" in " ".join(w.text() for w in window.drawer.findChildren(QLabel))
        assert any(result.code == "N01" and result.findings for result in session.evaluation.get(RULES))

    def test_the_houses_letters_are_asked_only_when_they_count(self, window: MainWindow, session: Session) -> None:
        (field,) = [w for w in window.stations["Brief"].findChildren(Answer) if w.accessibleName() == "Letters of lamp"]
        assert not field.isVisible()
        session.edit("own letters", Doing(lambda job: set_practice(job, letters=Letters.HOUSE)))
        settle_window()
        assert field.isVisible()
        answer(window, "Letters of lamp", "lp")
        assert "LP1" in session.evaluation.get(NAMES).tag.values()


class TestNamedAnew:
    @pytest.fixture
    def station(self, window: MainWindow) -> CircuitsStation:
        window.go_to("Circuits")
        settle_window()
        station = window.stations["Circuits"]
        assert isinstance(station, CircuitsStation)
        return station

    def test_old_and_new_are_shown_first_and_nothing_changes_until_asked(
        self, station: CircuitsStation, session: Session
    ) -> None:
        session.edit("belt", Doing(lambda job: add_load(job, "belt", 1.1)))
        session.edit("no drum", Doing(lambda job: remove_load(job, job.loads[0].id)))
        before = session.job
        station.count.click()
        settle_window()
        page = station.renaming
        assert page.isVisible()
        texts = {mark.text for mark in page.view.drawing.shapes if isinstance(mark, Text)}
        assert {change.new for change in page.changes} <= texts
        assert session.job is before
        page.do.click()
        settle_window()
        assert session.undo_name == "number anew"
        assert not page.isVisible()
        station.count.click()
        settle_window()
        assert not page.do.isEnabled(), "nothing is left to change"
        page.tags.click()
        settle_window()
        assert {change.old for change in page.changes} >= {"K2"}
        page.do.click()
        assert session.undo_name == "tag anew"
        session.undo()
        session.undo()
        assert session.job == before

    def test_escape_leaves_everything_as_it_is(self, station: CircuitsStation, session: Session) -> None:
        before = session.job
        station.count.click()
        press(station.renaming.view, Qt.Key.Key_Escape)
        assert station.view.isVisible()
        assert session.job is before


class TestPrinted:
    @pytest.fixture
    def station(self, window: MainWindow) -> LabelsStation:
        window.go_to("Labels")
        settle_window()
        station = window.stations["Labels"]
        assert isinstance(station, LabelsStation)
        station.turn(Medium.WIRE)
        return station

    def test_printed_numbers_are_kept_and_changed_labels_alone_are_printed_again(
        self, station: LabelsStation, session: Session, tmp_path: Path
    ) -> None:
        assert station.choice.which.findText(CHANGED) < 0
        station.print_to(tmp_path / "all.pdf")
        settle_window()
        assert session.job.printed
        assert len(PdfReader(tmp_path / "all.pdf").pages) >= 1
        assert station.choice.which.findText(CHANGED) < 0
        session.edit("second stop", Doing(lambda job: insert_contact(job, STOP, Insertable.STOP_BUTTON, "second")))
        settle_window()
        assert station.choice.which.findText(CHANGED) > 0
        assert "reprint them" in station.words.text()
        station.choice.choose(CHANGED)
        shown = [m.text for m in station.view.drawing.shapes if isinstance(m, Text) and str(m.key).startswith("wire:")]
        assert sorted(shown) == ["13", "13", "9", "9"]
        station.print_to(tmp_path / "again.pdf")
        settle_window()
        assert station.choice.which.findText(CHANGED) < 0
        text = PdfReader(tmp_path / "again.pdf").pages[0].extract_text()
        assert "13" in text
        assert "M1-U" not in text

    def test_what_is_wrong_is_said_before_it_is_printed(
        self, station: LabelsStation, session: Session, said: list[tuple[str, bool]], monkeypatch: pytest.MonkeyPatch
    ) -> None:
        asked: list[object] = []

        def no_name(*arguments: object) -> tuple[str, str]:
            asked.append(arguments)
            return "", ""

        monkeypatch.setattr("riktig.desk.stations.labels.station.QFileDialog.getSaveFileName", no_name)
        session.edit(
            "doubles", Doing(lambda job: set_practice(job, numbering=Numbering.HOUSE, scheme="{sheet}{column}"))
        )
        settle_window()
        assert "Resolve first" in station.words.text()
        station.print.click()
        assert not asked
        assert said[-1][1]
        assert "Not printed yet" in said[-1][0]
        station.print.click()
        assert len(asked) == 1, "whoever insists may print"

    def test_a_folder_that_cannot_be_written_leaves_nothing_printed(
        self, station: LabelsStation, session: Session, said: list[tuple[str, bool]], tmp_path: Path
    ) -> None:
        station.print_to(tmp_path / "missing" / "x.pdf")
        assert said[-1][1]
        assert session.job.printed == ()
        assert not [record for record in session.records if isinstance(record.facts, LabelPrinted)]

    def test_pin_cards_show_every_device_and_print_true_to_scale(
        self, station: LabelsStation, tmp_path: Path, session: Session
    ) -> None:
        station.turn(None)
        texts = {m.text for m in station.view.drawing.shapes if isinstance(m, Text)}
        assert {"K1", "A1", "10"} <= texts
        station.print_to(tmp_path / "cards.pdf")
        assert "K1" in PdfReader(tmp_path / "cards.pdf").pages[0].extract_text()


class TestTally:
    @pytest.fixture
    def station(self, window: MainWindow) -> WiresStation:
        window.go_to("Wires")
        settle_window()
        station = window.stations["Wires"]
        assert isinstance(station, WiresStation)
        station.numbers.click()
        settle_window()
        return station

    def test_numbers_are_listed_and_finished_ones_left_out_on_request(
        self, station: WiresStation, session: Session
    ) -> None:
        assert station.ends_of_number.isVisible()
        mine = [wire for wire in session.evaluation.get(WIRING).wires if wire.number == "8"]
        entries = [NewRecord(wire.key, tick_facts(wire, one)) for wire in mine for one in operations()]
        session.record_all(entries)
        settle_window()
        state = next(one for one in station.states() if one.number == "8")
        assert state.standing is NumberStatus.COMPLETE
        assert "1 complete" in station.hint.text()
        station.which.click()
        texts = {m.text for m in station.ends_of_number.drawing.shapes if isinstance(m, Text)}
        assert "9" in texts
        assert NetKey(state.net) not in {m.key for m in station.ends_of_number.drawing.shapes}

    def test_space_ticks_the_field_ends_of_the_chosen_number_and_takes_them_back(
        self, station: WiresStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        net = next(one.net for one in station.states() if one.number == "M1-U")
        click_on(station.ends_of_number, NetKey(net))
        assert session.selection == NetKey(net)
        press(station.ends_of_number, Qt.Key.Key_Space)
        assert [type(record.facts) for record in session.records] == [FieldEndDone]
        assert next(one for one in station.states() if one.net == net).field[0].done
        press(station.ends_of_number, Qt.Key.Key_Space)
        assert not next(one for one in station.states() if one.net == net).field[0].done
        session.select(None)
        press(station.ends_of_number, Qt.Key.Key_Space)
        assert "Choose a number" in said[-1][0]

    def test_an_end_is_chosen_and_the_other_views_come_back(self, station: WiresStation, session: Session) -> None:
        click_on(station.ends_of_number, read_key("pin:c1.K:13"))
        assert session.selection == read_key("pin:c1.K:13")
        station.batches.click()
        settle_window()
        assert station.cards.isVisible()
        assert not station.field.isVisible()


def test_the_finder_answers_while_wires_are_worked_out(
    window: MainWindow, session: Session, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(type(window.deriver), "busy", property(lambda self: True))
    assert window.search("K1:13")[0].key == read_key("pin:c1.K:13")
    assert not any(str(entry.key).startswith("wire:") for entry in window.search("9"))
