"""Build in the real window: stages and gates, the bench card by foot switch and scanner, people, changes."""

from pathlib import Path

import pytest
from pypdf import PdfReader
from PySide6.QtCore import Qt
from PySide6.QtGui import QImage, QKeyEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QWidget

from riktig.core.edits import ChangeLoad, SetHeading, SetPerson
from riktig.core.ids import LoadId
from riktig.core.job import Person
from riktig.core.production import (
    ACCEPTED,
    REJECTED,
    BuildStage,
    Operation,
    batch_code,
    change_orders,
    red_lines,
    stage_of_wire,
    tick_facts,
    wire_code,
)
from riktig.core.records import (
    ChangeOpened,
    ContactRead,
    GatePassed,
    NewRecord,
    PartReceived,
    TakenBack,
    TaskDone,
    WireDone,
)
from riktig.core.rules import RULES
from riktig.core.views import photos_of
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.build import BuildStation
from riktig.desk.stations.rules import RulesStation
from riktig.devices import FOOT_SWITCH_KEY, BenchMeter, FootSwitch, Scanner
from tests.desk.conftest import open_gates, press, settle_window
from tests.effort import some

Said = list[tuple[str, bool]]
KEYS = {"Return": Qt.Key.Key_Return, FOOT_SWITCH_KEY: Qt.Key.Key_PageDown}


@pytest.fixture
def station(window: MainWindow, session: Session) -> BuildStation:
    window.go_to("Build")
    settle_window()
    station = window.stations["Build"]
    assert isinstance(station, BuildStation)
    return station


def scanner_on(widget: QWidget) -> Scanner:
    return Scanner(lambda text: QTest.keyClicks(widget, text), lambda key: QTest.keyClick(widget, KEYS[key]))


def foot_switch_on(widget: QWidget) -> FootSwitch:
    return FootSwitch(lambda key: QTest.keyClick(widget, KEYS[key]))


def finished(station: BuildStation, stage: BuildStage) -> int:
    return station.state_of(stage).finished


def test_a_fresh_job_begins_with_what_is_delivered(station: BuildStation) -> None:
    assert station.stage is BuildStage.RECEIVE
    assert station.pages.currentWidget() is station.tasks
    assert station.stages.count() == len(BuildStage)
    assert station.gate.isHidden()


def test_space_does_a_task_and_goes_on_and_backspace_takes_it_back(station: BuildStation, session: Session) -> None:
    first = station.tasks.task
    assert first is not None
    press(station.tasks.list, Qt.Key.Key_Space)
    assert finished(station, BuildStage.RECEIVE) == 1
    assert station.tasks.task is not None
    assert station.tasks.task.task.subject != first.task.subject
    press(station.tasks.list, Qt.Key.Key_Up)
    press(station.tasks.list, Qt.Key.Key_Backspace)
    assert finished(station, BuildStage.RECEIVE) == 0
    assert [type(record.facts) for record in session.records] == [PartReceived, TakenBack]


def test_parts_that_are_short_stay_open(station: BuildStation, session: Session) -> None:
    station.tasks.entry.quantity.setValue(0)
    station.tasks.entry.batch.setText("B7")
    station.tasks.do_now()
    assert finished(station, BuildStage.RECEIVE) == 0
    assert isinstance(session.records[0].facts, PartReceived)
    assert session.records[0].facts.batch == "B7"
    assert "are there" in station.stale_words.text()


def test_a_shut_gate_refuses_until_somebody_passes_it_with_a_reason(
    station: BuildStation, session: Session, said: Said
) -> None:
    station.show_stage(BuildStage.PARTS)
    assert not station.gate.isHidden()
    assert "Parts received" in station.gate_words.text()
    press(station.tasks.list, Qt.Key.Key_Space)
    assert session.records == ()
    assert "Nothing was recorded" in said[-1][0]
    assert not station.pass_with("   ")
    assert session.records == ()
    assert station.pass_with("the enclosure comes on Friday")
    press(station.tasks.list, Qt.Key.Key_Space)
    assert finished(station, BuildStage.PARTS) == 1
    assert "Ida: the enclosure comes on Friday" in station.gate_words.text()
    station.show_stage(BuildStage.TAGS)
    press(station.tasks.list, Qt.Key.Key_Space)
    assert finished(station, BuildStage.TAGS) == 0, "one gate that was passed opens no other"


def test_a_gate_is_passed_by_somebody_of_the_job(station: BuildStation, session: Session, said: Said) -> None:
    station.show_stage(BuildStage.PARTS)
    session.edit("people", SetPerson(Person("OS", "Ola Sand")))
    for who in ("", "Ida"):
        session.who = who
        assert not station.pass_with("in a hurry")
        assert "stays shut" in said[-1][0]
    session.who = "Ola Sand"
    assert station.pass_with("in a hurry")


def test_wires_wait_for_their_gate_too(station: BuildStation, session: Session, said: Said) -> None:
    station.show_stage(BuildStage.WIRES)
    press(station.wires.list, Qt.Key.Key_Space)
    assert session.progress.count(Operation.CUT) == 0
    assert "comes after" in said[-1][0]
    open_gates(session)
    press(station.wires.list, Qt.Key.Key_Space)
    assert session.progress.count(Operation.CUT) == 1


def test_holes_are_ticked_where_they_are_measured(station: BuildStation, window: MainWindow, session: Session) -> None:
    station.show_stage(BuildStage.HOLES)
    press(station.tasks.list, Qt.Key.Key_Space)
    settle_window()
    assert session.records == ()
    assert window.current in ("Plate", "Door")


def test_a_reading_needs_its_instrument_and_the_zero_of_its_leads(
    station: BuildStation, session: Session, said: Said
) -> None:
    open_gates(session)
    before = len(session.records)
    station.show_stage(BuildStage.OPERATOR_TESTS)
    tasks = station.state_of(BuildStage.OPERATOR_TESTS).tasks
    row = next(
        n for n, t in enumerate(tasks) if isinstance(t.task.facts, ContactRead) and t.task.facts.expected == "closed"
    )
    station.tasks.list.setCurrentRow(row)
    entry = station.tasks.entry
    entry.ohm.setText("0.3")
    station.tasks.do_now()
    assert "needs its instrument" in said[-1][0]
    entry.meter.setText("M-1, 4711")
    station.tasks.do_now()
    assert "leads" in said[-1][0]
    for ohm in ("", "1e999", "-1", "abc", "nan"):
        entry.zero.setText("0,2")
        entry.ohm.setText(ohm)
        station.tasks.do_now()
    assert len(session.records) == before
    entry.ohm.setText("40")
    station.tasks.do_now()
    assert finished(station, BuildStage.OPERATOR_TESTS) == 0, "a wrong reading is kept, and passes nothing"
    assert "39.8 Ω where it is closed" in station.stale_words.text()
    station.tasks.list.setCurrentRow(row)
    entry.ohm.setText("0,3")
    press(entry.ohm, Qt.Key.Key_Return)
    assert finished(station, BuildStage.OPERATOR_TESTS) == 1


def test_a_whole_batch_is_cut_in_one_tick(station: BuildStation, session: Session) -> None:
    open_gates(session)
    station.show_stage(BuildStage.WIRES)
    batch = next(b for b in session.evaluation.get(WIRING).batches if station.wires.key in b.wires)
    assert len(batch.wires) > 1
    press(station.wires.list, Qt.Key.Key_1, Qt.KeyboardModifier.ShiftModifier)
    cut = {state.wire.key for state in session.progress.states if state.has(Operation.CUT)}
    assert cut == set(batch.wires)
    assert len({record.when for record in session.records if isinstance(record.facts, WireDone)}) <= len(batch.wires)


class TestBenchCard:
    @pytest.fixture
    def card(self, station: BuildStation, session: Session) -> "BuildStation":
        open_gates(session)
        station.show_stage(BuildStage.WIRES)
        station.bench.card.resize(1280, 800)
        station.bench.card.show_now()
        station.bench.card.show()
        settle_window()
        return station

    def test_the_foot_switch_takes_a_wire_from_cutting_to_tight(self, card: BuildStation, session: Session) -> None:
        switch = foot_switch_on(card.bench.card)
        first = card.wires.key
        assert card.bench.card.next.text().startswith("Cut ")
        for _ in Operation:
            switch.step()
        state = session.progress.of(first)
        assert state is not None
        assert state.complete
        assert card.wires.key != first
        assert card.bench.card.name.text() == session.evaluation.get(WIRING).by_key[card.wires.key].number

    def test_the_marker_of_the_wire_at_hand_ticks_and_another_goes_there(
        self, card: BuildStation, session: Session
    ) -> None:
        scanner = scanner_on(card.bench.card)
        number = session.evaluation.get(WIRING).by_key[card.wires.key].number
        scanner.scan(wire_code(session.job.number, number))
        assert session.progress.count(Operation.CUT) == 1
        scanner.scan("M1-U")
        assert session.evaluation.get(WIRING).by_key[card.wires.key].number == "M1-U"
        assert session.progress.count(Operation.CUT) == 1

    def test_the_same_code_twice_within_a_second_is_one(self, card: BuildStation, session: Session) -> None:
        now = [100.0]
        card.bench.card._clock = lambda: now[0]
        number = session.evaluation.get(WIRING).by_key[card.wires.key].number
        scanner = scanner_on(card.bench.card)
        for later in (0.0, 0.4, 0.4, 1.5):
            now[0] += later
            scanner.scan(number)
        done = [record for record in session.records if isinstance(record.facts, WireDone)]
        assert len(done) == 2

    def test_the_code_of_a_batch_ticks_all_its_wires(self, card: BuildStation, session: Session) -> None:
        batch = next(b for b in session.evaluation.get(WIRING).batches if card.wires.key in b.wires)
        scanner_on(card.bench.card).scan(batch_code(session.job.number, batch.number))
        assert {s.wire.key for s in session.progress.states if s.has(Operation.CUT)} == set(batch.wires)

    @pytest.mark.parametrize("code", ["OTHER/36", "B999", "rubbish", "x" * 80])
    def test_a_code_of_nothing_here_is_said_on_the_card(self, card: BuildStation, session: Session, code: str) -> None:
        before = len(session.records)
        scanner_on(card.bench.card).scan(code)
        assert card.bench.card.said.text()
        assert len(session.records) == before

    def test_a_badge_changes_who_is_at_the_bench(self, card: BuildStation, session: Session) -> None:
        session.edit("people", SetPerson(Person("IDA", "Ida")))
        session.edit("people", SetPerson(Person("OS", "Ola Sand", "B-2")))
        scanner_on(card.bench.card).scan("B-2")
        foot_switch_on(card.bench.card).step()
        assert session.records[-1].who == "Ola Sand"
        assert "Ola Sand" in card.bench.card.head.text()

    def test_escape_closes_it_and_typing_does_not_tick(self, card: BuildStation, session: Session) -> None:
        before = len(session.records)
        QTest.keyClicks(card.bench.card, "12345")
        assert len(session.records) == before
        press(card.bench.card, Qt.Key.Key_Escape)
        assert not card.bench.card.isVisible()


def test_who_may_not_build_ticks_nothing_and_initials_take_over(
    station: BuildStation, session: Session, said: Said
) -> None:
    session.edit("people", SetPerson(Person("OS", "Ola Sand", "B-2")))
    session.edit("people", SetPerson(Person("EH", "Eva Holm", builds=False, inspects=True)))
    press(station.tasks.list, Qt.Key.Key_Space)
    assert "Ida is not among the people of this job" in said[-1][0]
    station.ask_who()
    assert station._people is not None
    QTest.keyClicks(station._people.called, "eh")
    press(station._people.called, Qt.Key.Key_Return)
    assert session.who == "Eva Holm"
    press(station.tasks.list, Qt.Key.Key_Space)
    assert "may not build" in said[-1][0]
    assert not [record for record in session.records if isinstance(record.facts, PartReceived)]
    station.ask_who()
    QTest.keyClicks(station._people.called, "nobody here")
    press(station._people.called, Qt.Key.Key_Return)
    assert session.who == "Eva Holm"
    assert "Nobody of this job" in station._people.said.text()


def test_a_wash_drum_is_built_from_receipt_to_inspection(station: BuildStation, session: Session) -> None:
    """Every stage by the foot switch, readings typed; metal is ticked elsewhere, the inspection by somebody else."""
    switch = foot_switch_on(station)
    for stage in BuildStage:
        if stage is BuildStage.INSPECTION:
            for _ in range(2):
                station.show_stage(stage)
                switch.step()
            assert finished(station, stage) == 0, "who built it does not inspect it"
            session.who = "Eva Holm"
        state = station.state_of(stage)
        assert state.may_begin, f"{stage}: {state.shut}"
        station.show_stage(stage)
        if stage in (BuildStage.HOLES, BuildStage.CUT):
            session.record_all([NewRecord(task.task.subject, task.task.facts) for task in state.tasks])
            continue
        if stage.is_wiring:
            for _ in range(state.count * len(Operation) + 5):
                if station.state_of(stage).complete:
                    break
                switch.step()
            assert station.state_of(stage).complete, stage
            continue
        station.tasks.entry.meter.setText("M-1, 4711")
        station.tasks.entry.zero.setText("0.2")
        for _ in state.tasks:
            task = station.tasks.task
            assert task is not None
            if isinstance(task.task.facts, ContactRead):
                station.tasks.entry.ohm.setText("0.3" if task.task.facts.expected == "closed" else "OL")
            switch.step()
        assert station.state_of(stage).complete, stage
    assert all(state.complete for state in station.states)
    assert not [record for record in session.records if isinstance(record.facts, GatePassed)]
    assert session.progress.complete == len(session.progress.states)


class TestChanges:
    def open_order(self, station: BuildStation, session: Session) -> None:
        assert session.file is not None
        order = ChangeOpened("no run lamp", "the customer reads it elsewhere", "customer", session.file.revision())
        assert station.changes.open_order(order)
        station.changed.setChecked(True)

    def tick_half(self, session: Session) -> None:
        wires = session.evaluation.get(WIRING).wires
        session.record_all([NewRecord(w.key, tick_facts(w, op)) for w in wires for op in Operation])

    def test_a_lamp_less_is_work_down_to_the_last_wire(
        self, station: BuildStation, session: Session, tmp_path: Path
    ) -> None:
        open_gates(session)
        self.tick_half(session)
        self.open_order(station, session)
        lamp = session.job.loads[0]
        assert lamp.run_lamp
        before = {wire.key for wire in session.evaluation.get(WIRING).wires}
        session.edit("no run lamp", ChangeLoad(LoadId(lamp.id), {"run_lamp": False}))
        settle_window()
        station.refresh()
        after = {wire.key for wire in session.evaluation.get(WIRING).wires}
        work = station.changes.work
        touched = {key for line in work.lines if line.wire for key in line.wire.keys}
        assert touched >= before ^ after != set()
        assert {line.station for line in work.lines} >= {"Wires", "Prove"}
        assert not station.changes.close_order.isEnabled()
        outs = [n for n, line in enumerate(work.lines) if line.what == "take out"]
        for row in some(outs):
            station.changes.lines.setCurrentRow(row)
            QTest.keyClick(station.changes.lines, Qt.Key.Key_Space)
            assert station.changes.work.lines[row].done
        assert all(isinstance(record.facts, TaskDone) for record in session.records[-len(outs) :])
        assert station.changes.work.left, "wires that go in are ticked as wires are"
        assert station.changes.write_paper(tmp_path / "order.pdf")
        text = "\n".join(page.extract_text() for page in PdfReader(tmp_path / "order.pdf").pages)
        assert "take out" in text
        assert "in the record" in text

    def test_an_order_says_what_and_why_and_one_that_was_not_drawn_is_withdrawn(
        self, station: BuildStation, session: Session, said: Said
    ) -> None:
        assert not station.changes.open_order(ChangeOpened("a lamp", ""))
        assert "why" in said[-1][0]
        self.open_order(station, session)
        station.refresh()
        assert station.changed.text() == "Changes  1"
        assert station.changes.work.lines == ()
        assert station.changes.close_order.text() == "Withdraw order"
        station.changes.close_it()
        assert change_orders(session.records) == (), "nothing was drawn, so nothing can be closed as done"
        assert station.changes.open_count == 0

    def test_an_order_that_touches_nothing_at_the_bench_is_closed_once_it_is_drawn(
        self, station: BuildStation, session: Session
    ) -> None:
        self.open_order(station, session)
        session.edit("title", SetHeading({"title": "another title"}))
        station.refresh()
        assert station.changes.close_order.text() == "Close order"
        if not station.changes.work.left:
            station.changes.close_it()
        assert [order.is_open for order in change_orders(session.records)] == [bool(station.changes.work.left)]

    def test_a_red_line_is_accepted_once_the_drawing_is_another(
        self, station: BuildStation, session: Session, said: Said
    ) -> None:
        open_gates(session)
        station.show_stage(BuildStage.WIRES)
        assert station.wires.note_red_line("landed at 14 instead of 13")
        station.changed.setChecked(True)
        station.refresh()
        (line,) = red_lines(session.records)
        assert not station.changes.answer_with(line, ACCEPTED, "drawn so now")
        assert "still what it was" in said[-1][0]
        session.edit("draw it", ChangeLoad(session.job.loads[0].id, {"place": "pit"}))
        assert station.changes.answer_with(line, ACCEPTED, "drawn so now")
        assert [bool(line.answer) for line in red_lines(session.records)] == [True]

    def test_a_rejected_red_line_takes_the_landings_back(self, station: BuildStation, session: Session) -> None:
        open_gates(session)
        station.show_stage(BuildStage.WIRES)
        key = station.wires.key
        for operation in Operation:
            station.wires.toggle(operation)
        assert station.wires.note_red_line("landed at 14 instead of 13")
        (line,) = red_lines(session.records)
        assert not station.changes.answer_with(line, REJECTED, "")
        assert station.changes.answer_with(line, REJECTED, "14 is the other contact")
        state = session.progress.of(key)
        assert state is not None
        assert [operation for operation, _ in state.done] == [Operation.CUT, Operation.MARKED, Operation.STRIPPED]
        assert station.changes.open_count == 0


def test_keys_reach_the_page_from_the_station_itself(station: BuildStation, session: Session) -> None:
    event = QKeyEvent(QKeyEvent.Type.KeyPress, Qt.Key.Key_Space, Qt.KeyboardModifier.NoModifier)
    station.keyPressEvent(event)
    assert len(session.records) == 1


def test_a_screw_says_what_it_was_tightened_with_and_an_old_tool_is_refused(
    station: BuildStation, session: Session, said: Said
) -> None:
    open_gates(session)
    station.show_stage(BuildStage.WIRES)
    station.ask_who()
    people = station._people
    assert people is not None
    for name, day, words in (
        ("", "2030-01-01", "a name"),
        ("TW-3 4711", "31.3.2027", "is no day"),
        ("TW-3 4711", "2001-01-01", "calibration of TW-3 4711 ended on 2001-01-01"),
    ):
        people.tool.setText(name)
        people.calibrated.setText(day)
        people.note_tool()
        assert words in people.said.text()
        assert station.wires.tool is None
    people.calibrated.setText("2999-12-31")
    people.note_tool()
    people.close()
    for operation in Operation:
        station.wires.toggle(operation)
    done = [record.facts for record in session.records if isinstance(record.facts, WireDone)]
    assert [facts.tool for facts in done] == ["", "", "", "", "", "TW-3 4711, calibrated to 2999-12-31"]
    assert station.wires.tool is not None
    station.wires.tool = type(station.wires.tool)("TW-3 4711", "2001-01-01")
    station.wires.step(1)
    station.wires.toggle(Operation.TIGHTENED)
    assert "Nothing was recorded" in said[-1][0]
    assert len([record for record in session.records if isinstance(record.facts, WireDone)]) == len(done)


def test_half_done_wires_are_a_list_of_their_own(station: BuildStation, session: Session) -> None:
    open_gates(session)
    wires = session.evaluation.get(WIRING).wires
    begun = (wires[4], wires[11])
    session.record_all([NewRecord(wire.key, tick_facts(wire, Operation.CUT)) for wire in begun])
    session.record_all([NewRecord(wires[7].key, tick_facts(wires[7], operation)) for operation in Operation])
    station.show_stage(BuildStage.WIRES)
    assert station.wires.half_done.text() == "Half-done  2"
    QTest.mouseClick(station.wires.half_done, Qt.MouseButton.LeftButton)
    settle_window()
    assert station.wires.list.count() == 2
    assert station.wires.key == wires[4].key
    for _ in range(len(Operation) - 1):
        press(station.wires.list, Qt.Key.Key_Space)
    assert station.wires.list.count() == 1
    assert station.wires.key == wires[11].key


def test_a_photo_is_kept_with_its_task_and_what_is_none_is_refused(
    station: BuildStation, session: Session, said: Said, tmp_path: Path
) -> None:
    picture = QImage(3000, 2000, QImage.Format.Format_RGB32)
    picture.fill(Qt.GlobalColor.darkGreen)
    good, text, huge = tmp_path / "delivered.png", tmp_path / "text.png", tmp_path / "huge.jpg"
    assert picture.save(str(good))
    text.write_text("this is no picture")
    with huge.open("wb") as file:
        file.truncate(200_000_000)
    for path, words in ((text, "is no picture"), (huge, "200 MB"), (tmp_path / "gone.jpg", "cannot be read")):
        assert not station.tasks.keep_photo(path)
        assert words in said[-1][0]
    assert session.records == ()
    assert station.tasks.keep_photo(good)
    assert station.tasks.photo.text() == "Photo …  1"
    task = station.tasks.task
    assert task is not None
    assert len(photos_of(session.records, task.task.where[0])) == 1
    assert station.tasks.keep_note("two screws were missing")
    assert "two screws were missing" in station.tasks.how.text()
    station.show_stage(BuildStage.CLEAN)
    assert station.tasks.keep_photo(good)
    assert station.tasks.photo.text() == "Photo …  1"


def test_who_may_not_sign_judges_no_clause(window: MainWindow, session: Session, said: Said) -> None:
    rules = window.stations["Rules"]
    assert isinstance(rules, RulesStation)
    result = session.evaluation.get(RULES)[0]
    session.edit("people", SetPerson(Person("IDA", "Ida")))
    rules.sign(result, "compared with print")
    assert session.records == ()
    assert "Ida may not sign" in said[-1][0]
    session.edit("people", SetPerson(Person("IDA", "Ida", signs=True)))
    rules.sign(result, "compared with print")
    assert len(session.records) == 1


def test_work_goes_on_where_it_was_left_in_another_window(session: Session, meter: BenchMeter) -> None:
    open_gates(session)
    wires = session.evaluation.get(WIRING).wires
    session.record_all([NewRecord(wires[0].key, tick_facts(wires[0], operation)) for operation in Operation])
    session.record(wires[6].key, tick_facts(wires[6], Operation.CUT))
    window = MainWindow(session, meter)
    window.show()
    window.go_to("Build")
    settle_window()
    station = window.stations["Build"]
    assert isinstance(station, BuildStation)
    assert station.stage is stage_of_wire(wires[6])
    assert station.wires.key == wires[6].key
    window.close()


def test_progress_says_what_was_worked_today_and_what_waits(station: BuildStation, session: Session) -> None:
    for _ in range(3):
        press(station.tasks.list, Qt.Key.Key_Space)
    QTest.mouseClick(station.how_far, Qt.MouseButton.LeftButton)
    settle_window()
    assert station.pages.currentWidget() is station.progress
    text = station.progress.blocks.text()
    assert text.startswith("Ida today: ")
    assert "left of 6 h" in text
    assert "Rails and ducts fixed waits for mark-out and holes" in text
    station.show_stage(BuildStage.RECEIVE)
    assert station.pages.currentWidget() is station.tasks
    assert not station.how_far.isChecked()
