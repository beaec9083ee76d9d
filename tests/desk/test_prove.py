"""Prove in the real window: the card, the meter at hand, what may be wrong, and the way back to Build."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from riktig.core.edits import SetPerson
from riktig.core.errors import RiktigError
from riktig.core.job import Person
from riktig.core.production import Operation, tick_facts
from riktig.core.proving import DEAD_PANEL, LIVE_PLAN, Instrument, Lesson, Outcome, ProvingStage, Score, single_faults
from riktig.core.records import LiveReleased, LiveStepDone, NewRecord, ReadingTaken, Record
from riktig.core.simulation import FaultKind, InjectedFault
from riktig.core.views import MOST_NUMBERED
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.prove import ProveStation
from riktig.desk.stations.prove.bench_control import ProveBench
from riktig.desk.stations.prove.instruments import InstrumentDialog
from riktig.desk.stations.prove.practice_page import PracticePage
from riktig.desk.stations.prove.practice_progress import PracticeProgress
from riktig.devices import ScpiMeter, Speech
from tests.desk.conftest import BENCH_METER, press, settle_window, type_reading


class TestProve:
    @pytest.fixture
    def station(self, window: MainWindow) -> ProveStation:
        window.go_to("Prove")
        settle_window()
        station = window.stations["Prove"]
        assert isinstance(station, ProveStation)
        station.take_meter(BENCH_METER)
        return station

    def test_a_figure_begins_a_reading_enter_accepts_and_goes_on(self, station: ProveStation, session: Session) -> None:
        assert station.card.title.text() == "Bond of E1:1, at the bare metal"
        press(station, Qt.Key.Key_0)
        assert station.typed.text() == "0"
        QTest.keyClicks(station.typed, ".25")
        press(station.typed, Qt.Key.Key_Return)
        assert station.card.reading.text().endswith("Ω")
        press(station, Qt.Key.Key_Return)
        assert session.results.count(Outcome.PASSED) == 1
        assert station.card.title.text() == "Bond of E2:1, at the bare metal"
        press(station, Qt.Key.Key_Backspace)
        assert station.card.title.text() == "Bond of E1:1, at the bare metal"

    def test_no_key_passes_a_test_without_a_reading(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        for key in (Qt.Key.Key_Space, Qt.Key.Key_Return, Qt.Key.Key_R):
            press(station, key)
        assert any(text.startswith("Type what your meter shows first") for text, _ in said)
        assert session.records == ()

    def test_without_a_meter_there_is_no_reading(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        station.instrument = None
        station.take_typed("0.2")
        assert station.ohm is None
        assert said[-1][0].startswith("No reading without its meter")
        press(station, Qt.Key.Key_Return)
        station.fail()
        assert session.records == ()

    @pytest.mark.parametrize(
        ("meter", "words"),
        [
            (Instrument("M-34", "", "2999-12-31", 0.2), "serial number"),
            (Instrument("M-34", "4711", "soon", 0.2), "calibrated"),
            (Instrument("M-34", "4711", "2001-01-01", 0.2), "calibration of M-34 ended"),
            (Instrument("M-34", "4711", "2999-12-31", 38.0), "hold their tips together"),
            (Instrument("stand-in", "SIM-1", "2999-12-31", 0.2, simulated=True), "proves nothing"),
        ],
    )
    def test_a_meter_that_proves_nothing_is_refused(
        self, station: ProveStation, said: list[tuple[str, bool]], meter: Instrument, words: str
    ) -> None:
        station.instrument = None
        station.take_meter(meter)
        assert station.instrument is None
        assert words in said[-1][0]

    def test_a_failure_needs_a_bad_reading_or_words(
        self, station: ProveStation, session: Session, monkeypatch: pytest.MonkeyPatch, said: list[tuple[str, bool]]
    ) -> None:
        asked: list[str] = []

        def answer(_parent: object, _title: str, question: str) -> tuple[str, bool]:
            asked.append(question)
            return ("the lug is loose", True) if len(asked) > 2 else ("", True)

        monkeypatch.setattr("riktig.desk.stations.prove.station.QInputDialog.getText", answer)
        press(station, Qt.Key.Key_F)
        type_reading(station)
        press(station, Qt.Key.Key_F)
        assert asked == ["There is no reading. What is wrong?", "The reading is as expected. What is wrong?"]
        station.fail()
        assert "needs a reading" in said[-1][0]
        assert not session.records, "no words, no failure"
        press(station, Qt.Key.Key_F)
        facts = session.records[-1].facts
        assert isinstance(facts, ReadingTaken)
        assert (facts.outcome, facts.reason) == (Outcome.FAILED, "the lug is loose")

    def test_a_wrong_reading_cannot_pass(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        station.go_to_stage(ProvingStage.WIRES)
        test = station.current_test()
        assert test is not None
        off = InjectedFault(FaultKind.OFF, test.wire, str(test.black.pin))
        assert type_reading(station, [off]) == "open"
        assert station.card.reading.text() == "open"
        press(station, Qt.Key.Key_Return)
        assert "cannot pass" in said[-1][0]
        assert session.records == ()
        press(station, Qt.Key.Key_F)
        assert session.results.outcome(test.key) is Outcome.FAILED
        type_reading(station)
        press(station, Qt.Key.Key_Return)
        assert session.results.outcome(test.key) is Outcome.PASSED

    def test_a_reading_is_kept_with_its_meter_and_its_leads(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        QTest.keyClicks(station.typed, "good")
        press(station.typed, Qt.Key.Key_Return)
        assert "nothing was recorded" in said[-1][0]
        station.typed.clear()
        QTest.keyClicks(station.typed, "0.25")
        press(station.typed, Qt.Key.Key_Return)
        station.accept()
        facts = session.records[-1].facts
        assert isinstance(facts, ReadingTaken)
        assert (facts.meter, facts.ohm, facts.zero) == ("M-34 4711, calibrated to 2999-12-31", "0.25", 0.2)

    def test_a_skip_needs_a_reason_and_is_on_record(self, station: ProveStation, session: Session) -> None:
        station.skip("no door yet")
        assert session.results.count(Outcome.SKIPPED) == 1
        facts = session.records[-1].facts
        assert isinstance(facts, ReadingTaken)
        assert facts.reason == "no door yet"

    @pytest.mark.parametrize("stage", [ProvingStage.ENERGISE, ProvingStage.FUNCTION])
    def test_live_steps_can_be_read_but_not_done_while_they_are_shut(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]], stage: ProvingStage
    ) -> None:
        assert "shut" in station.stage_buttons[stage].text()
        station.stage_buttons[stage].click()
        assert station.live.isVisible()
        assert station.live.shut.text().startswith("Shut. Not done yet: Bonds: 4 not passed")
        assert station.live.list.count() > 5
        assert not station.live.yes.isEnabled()
        station.live.passed()
        station.live.remark.setText("it hummed")
        station.live.failed()
        assert said[-1][0].startswith("Shut.")
        assert session.records == ()
        station.stage_buttons[ProvingStage.WIRES].click()
        assert station.card.isVisible()

    def test_a_swapped_pair_is_found_and_sent_to_build(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        """The journey of a fault: read until a card fails, follow the proposed probes, repair, read again."""
        wires = session.evaluation.get(WIRING).wires
        session.record_all([NewRecord(wire.key, tick_facts(wire, op)) for wire in wires for op in Operation])
        settle_window()
        swapped = [f for f in single_faults(session.evaluation.get(DEAD_PANEL)) if f.wrong is FaultKind.SWAPPED]
        fault = swapped[len(swapped) // 2]
        while type_reading(station, [fault]) != "open":
            press(station, Qt.Key.Key_Return)
        press(station, Qt.Key.Key_F)
        assert session.results.count(Outcome.FAILED) == 1
        press(station, Qt.Key.Key_W)
        assert station.below.currentWidget() is station.finder.panel
        suspected = station.finder.suspects
        assert station.finder.list.everywhere.isEnabled()
        pictures = station.finder.suspects_dialog()
        assert pictures.which.itemText(0) == "Plate"
        assert pictures.pages.count() == pictures.which.count() > 1, "on the sheets too"
        assert ("of" in pictures.head.text().split(".")[0]) == (len(suspected) > MOST_NUMBERED)
        assert pictures.words.text().count("\n\n") == min(len(suspected), MOST_NUMBERED) - 1
        asked = 0
        while station.finder.list.next.isEnabled() and asked < 12:
            station.finder.list.next.click()
            assert station.card.title.text() == "To find the fault"
            type_reading(station, [fault])
            press(station, Qt.Key.Key_Return)
            asked += 1
        found = [suspect.faults for suspect in station.finder.suspects]
        assert found == [(fault,)], "the two wires, and nothing else, explain all readings"
        read = session.results.count(Outcome.PASSED)
        station.finder.repair.click()
        half_done = [state for state in session.progress.states if not state.complete]
        to_land = {str(state.wire.key) for state in half_done if state.next is not Operation.TIGHTENED}
        assert to_land == {fault.what, fault.to}, "what shares their clamps is only to be tightened again"
        assert session.results.count(Outcome.PASSED) < read or session.results.count(Outcome.FAILED) == 0
        assert "changed over at" in said[-1][0]
        proposed = [r for r in session.records if isinstance(r.facts, ReadingTaken) and "find" in r.subject]
        assert proposed == [], "a probe of the fault finder is no test of the plan"

    def test_sound_readings_have_nothing_wrong_in_them(
        self, station: ProveStation, said: list[tuple[str, bool]]
    ) -> None:
        for _ in range(3):
            type_reading(station)
            press(station, Qt.Key.Key_Return)
        press(station, Qt.Key.Key_W)
        assert said[-1][0] == "All readings so far are as a sound panel gives them."
        assert station.below.currentWidget() is station.done

    def test_the_card_over_the_whole_screen_takes_figures_and_the_foot_switch(
        self, station: ProveStation, session: Session
    ) -> None:
        station.go_to_stage(ProvingStage.WIRES)
        card = station.bench.card
        station.bench.open()
        QTest.keyClicks(card, "0.3")
        press(card, Qt.Key.Key_Return)
        assert card.name.text() == "0.1 Ω"
        assert "As expected" in card.said.text()
        press(card, Qt.Key.Key_PageDown)
        assert session.results.count(Outcome.PASSED) == 1
        press(card, Qt.Key.Key_Backspace)
        assert station.test_key == session.records[-1].subject
        card.close()


def test_the_card_says_each_point_and_each_reading_once(window: MainWindow) -> None:
    window.go_to("Prove")
    settle_window()
    station = window.stations["Prove"]
    assert isinstance(station, ProveStation)
    station.take_meter(BENCH_METER)
    told: list[str] = []
    bench = ProveBench(station, Speech(find=lambda name: name, start=lambda command: told.append(command[-1])))
    bench.card.show_now()
    assert told == [], "it was not asked to speak"
    bench.card.speak.setChecked(True)
    station.go_to_stage(ProvingStage.WIRES)
    bench.card.show_now()
    bench.card.show_now()
    bench.card.scanned("0.3")
    bench.card.show_now()
    said = [text for text in told if text != "--cancel"]
    assert len(said) == 2
    assert " to " in said[0]
    assert said[1].startswith("0.1 ohm")
    bench.card.close()


@pytest.fixture
def speaking() -> Iterator[ScpiMeter]:
    meter = ScpiMeter(lambda: 0.25, identity="Lab works,M-34,4711,1.02")
    yield meter
    meter.close()


class TestMeterThatSpeaks:
    def test_it_says_who_it_is_and_is_read_by_one_key(
        self, window: MainWindow, session: Session, speaking: ScpiMeter
    ) -> None:
        station = window.stations["Prove"]
        assert isinstance(station, ProveStation)
        window.go_to("Prove")
        settle_window()
        station.ask_meter()
        dialog = station.asking
        dialog.address.setText(speaking.resource)
        dialog.connect_meter()
        assert (dialog.name.text(), dialog.serial.text()) == ("Lab works M-34", "4711")
        dialog.read_leads()
        assert dialog.zero.text() == "0.25"
        dialog.calibrated.setText("2999-12-31")
        dialog.take_meter()
        assert station.link is not None
        press(station, Qt.Key.Key_R)
        press(station, Qt.Key.Key_Return)
        facts = session.records[-1].facts
        assert isinstance(facts, ReadingTaken)
        assert (facts.outcome, facts.ohm, facts.zero) == (Outcome.PASSED, "0.25", 0.25)
        assert facts.meter == "Lab works M-34 4711, calibrated to 2999-12-31"
        station.link.close()

    def test_a_simulated_one_is_never_taken_for_a_job(self, window: MainWindow) -> None:
        simulated = ScpiMeter(lambda: 0.2)
        taken: list[Instrument] = []
        dialog = InstrumentDialog("2026-12-01", lambda meter, _: taken.append(meter), window)
        dialog.address.setText(simulated.resource)
        dialog.connect_meter()
        dialog.calibrated.setText("2999-12-31")
        dialog.zero.setText("0.2")
        dialog.take_meter()
        assert taken == []
        assert "proves nothing" in dialog.said.text()
        dialog.reject()
        simulated.close()

    def test_one_that_is_pulled_out_is_said_and_records_nothing(
        self, window: MainWindow, session: Session, speaking: ScpiMeter, said: list[tuple[str, bool]]
    ) -> None:
        station = window.stations["Prove"]
        assert isinstance(station, ProveStation)
        window.go_to("Prove")
        settle_window()
        dialog = InstrumentDialog("2026-12-01", station.take_meter, window)
        dialog.address.setText(speaking.resource)
        dialog.connect_meter()
        dialog.calibrated.setText("2999-12-31")
        dialog.zero.setText("0.2")
        dialog.take_meter()
        assert station.link is not None
        station.link.close()
        press(station, Qt.Key.Key_R)
        assert "nothing was recorded" in said[-1][0]
        assert station.ohm is None
        assert session.records == ()


@pytest.mark.parametrize(
    ("facts", "words"),
    [
        (ReadingTaken(Outcome.PASSED, "0.2", "bench meter (simulated)"), "simulated reading proves nothing"),
        (ReadingTaken(Outcome.PASSED, "0.2"), "without its instrument"),
        (ReadingTaken(Outcome.FAILED, "inf"), "without its instrument"),
        (ReadingTaken(Outcome.PASSED), "passes by a reading"),
    ],
)
def test_the_file_itself_refuses_a_reading_that_nothing_read(session: Session, facts: ReadingTaken, words: str) -> None:
    """Whatever way it came: past the window there is the file, and no path around it."""
    assert session.file
    with pytest.raises(RiktigError, match=words):
        session.file.add_records([Record("r1", "wire:x", facts, "Ida", "2026-12-01T08:00:00", 1)])
    assert not session.file.records()


class TestUnderVoltage:
    """The live page, from the gate to the last step."""

    @pytest.fixture
    def station(self, window: MainWindow) -> ProveStation:
        window.go_to("Prove")
        settle_window()
        station = window.stations["Prove"]
        assert isinstance(station, ProveStation)
        station.take_meter(BENCH_METER)
        station.stage_buttons[ProvingStage.ENERGISE].click()
        settle_window()
        return station

    def opened(self, station: ProveStation) -> None:
        station.live.stands_by.setText("Ola")
        station.live.reason.setText("a bench test of the software")
        station.live.release.click()
        settle_window()

    def test_it_opens_only_with_somebody_who_stands_by_and_a_reason(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        live = station.live
        live.release.click()
        assert "who stands by" in said[-1][0]
        live.stands_by.setText("Ola")
        live.release.click()
        assert "say why" in said[-1][0]
        assert not session.records
        self.opened(station)
        facts = session.records[-1].facts
        assert isinstance(facts, LiveReleased)
        assert facts.stands_by == "Ola"
        assert "Wire by wire" in facts.open_work
        assert not live.gate.isVisible()

    def test_who_may_not_sign_does_not_open_it_while_something_is_open(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        session.edit("people", SetPerson(Person("Id", "Ida", signs=False)))
        settle_window()
        self.opened(station)
        assert "Ida may not sign" in said[-1][0]
        assert not any(isinstance(record.facts, LiveReleased) for record in session.records)

    def test_what_came_instead_is_said_by_buttons_and_leads_to_what_may_be_wrong(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        self.opened(station)
        live = station.live
        station.stage_buttons[ProvingStage.FUNCTION].click()
        live.wrong.click()
        assert said[-1] == ("All readings so far are as a sound panel gives them.", False)
        pressed = next(n for n, r in enumerate(live.results) if r.step.done.startswith("Press"))
        live.list.setCurrentRow(pressed)
        buttons = {button.text(): button for button in live.seen.buttons.values()}
        assert {"K1 pulled in", "M1 runs forward"} <= set(buttons)
        for words in ("M1 runs forward", "M1 runs forward", "K1 pulled in"):
            buttons[words].click()
        lamp = next(button for words, button in buttons.items() if words.endswith(" lit"))
        lamp.click()
        assert live.remark.text() == live.seen.otherwise
        assert "K1 dropped out" in live.remark.text()
        assert "M1 stands" in live.remark.text()
        live.no.click()
        facts = session.records[-1].facts
        assert isinstance(facts, LiveStepDone)
        assert facts.outcome is Outcome.FAILED
        live.wrong.click()
        assert station.pages.currentIndex() == 0, "the next probes are read dead, on the card"
        suspected = [station.finder.list.list.item(n).text() for n in range(station.finder.list.list.count())]
        assert any("K1" in text for text in suspected)
        assert "read dead" in said[-1][0]
        station.finder.list.next.click()
        assert station.current_test() is station.finder.proposed

    def test_the_switch_box_is_proposed_where_the_field_is_imitated(self, station: ProveStation) -> None:
        live = station.live
        assert not live.box.isVisible()
        station.stage_buttons[ProvingStage.FUNCTION].click()
        assert live.box.isVisible()
        live.box.click()
        assert "no switch" in live.box_dialog.words.text() or "0 switches" in live.box_dialog.words.text()
        live.box_dialog.close()

    def test_every_step_is_gone_through_and_on_record(self, station: ProveStation, session: Session) -> None:
        self.opened(station)
        live = station.live
        for stage in (ProvingStage.SETTINGS, ProvingStage.ENERGISE, ProvingStage.FUNCTION):
            station.stage_buttons[stage].click()
            assert live.caution.isVisible() is stage.live
            for _ in range(live.list.count()):
                result = live.at_hand
                assert result is not None
                step = result.step
                if step.unit:
                    low, high = step.low or 0.0, step.high or 0.0
                    live.value.setText(f"{(low + high) / 2:g}")
                if step.trimmed:
                    live.found.setText("23.1")
                live.yes.click()
        settle_window()
        done = [record.facts for record in session.records if isinstance(record.facts, LiveStepDone)]
        assert len(done) == len(session.evaluation.get(LIVE_PLAN))
        assert {facts.outcome for facts in done} == {Outcome.PASSED}
        assert all(facts.meter for facts in done if facts.value and facts.unit == "V")
        total = len([s for s in session.evaluation.get(LIVE_PLAN) if s.stage is ProvingStage.ENERGISE])
        assert station.stage_buttons[ProvingStage.ENERGISE].text() == f"Energise  {total} of {total}"

    def test_a_wrong_voltage_cannot_pass_and_what_came_instead_is_kept(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        self.opened(station)
        live = station.live
        live.yes.click()  # the tester is proved
        for bad in ("31", "OL", ""):
            live.value.setText(bad)
            live.yes.click()
            assert "not as expected" in said[-1][0] or "nothing was recorded" in said[-1][0]
        live.value.setText("31")
        live.remark.setText("L2 is missing at the supply")
        live.no.click()
        facts = session.records[-1].facts
        assert isinstance(facts, LiveStepDone)
        assert (facts.outcome, facts.value, facts.reason) == (Outcome.FAILED, "31", "L2 is missing at the supply")
        assert live.at_hand is not None
        assert live.at_hand.outcome is Outcome.FAILED
        station.live.meter = ""
        live.value.setText("400")
        live.yes.click()
        assert "No reading without its meter" in said[-1][0]

    def test_a_dead_test_that_fails_afterwards_shuts_it_again(self, station: ProveStation, session: Session) -> None:
        self.opened(station)
        station.stage_buttons[ProvingStage.WIRES].click()
        station.take_typed("open")
        station.fail()
        station.stage_buttons[ProvingStage.ENERGISE].click()
        assert "1 dead tests failed" in station.live.shut.text()
        assert not station.live.release.isVisible()
        assert not station.live.yes.isEnabled()

    def test_settings_are_noted_before_anything_is_live(
        self, station: ProveStation, session: Session, said: list[tuple[str, bool]]
    ) -> None:
        station.stage_buttons[ProvingStage.SETTINGS].click()
        live = station.live
        assert not live.gate.isVisible()
        assert live.expected.text() == "8.5 A"
        live.found.setText("6")
        live.value.setText("6.2")
        live.yes.click()
        assert "6.2 A is not as expected" in said[-1][0]
        live.value.setText("8.5 A")
        live.yes.click()
        facts = session.records[-1].facts
        assert isinstance(facts, LiveStepDone)
        assert (facts.stage, facts.found, facts.value, facts.meter) == ("Settings", "6", "8.5", "")
        assert station.stage_buttons[ProvingStage.SETTINGS].text().endswith(" 1 of 2")
        assert live.done.text() == "Look over the torque marks"
        live.yes.click()
        assert station.stage_buttons[ProvingStage.SETTINGS].text().endswith(" 2 of 2")


class TestPracticeBench:
    """It has its own record and no way to the job's."""

    @pytest.fixture
    def page(self, window: MainWindow, tmp_path: Path) -> PracticePage:
        window.go_to("Prove")
        settle_window()
        station = window.stations["Prove"]
        assert isinstance(station, ProveStation)
        station.practice.progress = PracticeProgress(tmp_path / "own" / "practice.json")
        station.open_practice()
        settle_window()
        return station.practice

    @pytest.mark.parametrize("lesson", Lesson)
    def test_every_lesson_can_be_begun_probed_and_named(
        self, page: PracticePage, session: Session, lesson: Lesson
    ) -> None:
        page.lesson.setCurrentIndex(list(Lesson).index(lesson))
        page.begin()
        if lesson is Lesson.BACK_FEED:
            assert page.said.text() == "This panel has nothing of this kind.", "the drum has one supply"
            page.panel_of.setCurrentIndex(page.panel_of.findData("frost-fan"))
            page.begin()
        assert page.run is not None
        assert page.banner.text().startswith("PRACTICE BENCH")
        assert session.job.number in page.banner.text()
        page.hint()
        if "Touch" in page.said.text():
            page.touch()
            assert page.reading.text() != "–"
            assert page.list.count() == 1
        page.answer.setEditText(page._words(page.run.faults[:1]))
        page.name_it()
        assert page.said.text().startswith("Found:")
        assert page.run is None
        assert "found once" in page.how_far.text()
        assert session.records == (), "nothing of it is on the record of the job"

    def test_a_wrong_answer_costs_and_giving_up_does_not_count(self, page: PracticePage) -> None:
        page.begin()
        page.answer.setEditText("the supply is off")
        page.name_it()
        assert page.said.text() == "No. That costs 3."
        page.black.setText("K99:1")
        page.touch()
        assert "Nothing on this panel is called" in page.said.text()
        page.give_up()
        assert page.said.text().startswith("It was:")
        assert page.how_far.text() == "not found yet"

    def test_progress_is_kept_with_the_user_and_a_damaged_file_begins_anew(self, tmp_path: Path) -> None:
        path = tmp_path / "practice.json"
        PracticeProgress(path).add(Lesson.SHORT, Score(4, 1, 3, found=True))
        PracticeProgress(path).add(Lesson.SHORT, Score(3, 0, 3, found=True))
        assert (
            PracticeProgress(path).words(Lesson.SHORT) == "found 2 times, at best at a cost of 3 where 3 is the least"
        )
        for damage in ("", "[1, 2]", '{"SHORT": "x"}', '{"SHORT": [1', "\x00"):
            path.write_text(damage, encoding="utf-8")
            assert PracticeProgress(path).words(Lesson.SHORT) == "not found yet"
