"""Energise in the real window: operated by mouse and key, measured, spoilt, watched; over edits and undo."""

from typing import cast

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QMenu, QPushButton

from riktig.core.geometry import Circle, Line, Poly, Text
from riktig.core.job import DeviceId, ElementId, Insertable, Job, add_load, set_script
from riktig.core.keys import DeviceKey, read_key
from riktig.core.schematic import insert_contact, remove_element
from riktig.core.simulation import FaultKind, InjectedFault
from riktig.core.store import JobFile
from riktig.demo_job import demo_job
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.circuits import CircuitsStation
from riktig.desk.stations.circuits.live import LivePage
from riktig.desk.stations.circuits.live_script import ScriptAsked
from riktig.desk.theme import DARK
from tests.conftest import Doing
from tests.desk.conftest import click_on, press, settle_window
from tests.waiting import let_pass

K, STOP = DeviceId("c1.K"), ElementId("c1.S.stop/1-2")


@pytest.fixture
def station(window: MainWindow) -> CircuitsStation:
    window.go_to("Circuits")
    settle_window()
    station = window.stations["Circuits"]
    assert isinstance(station, CircuitsStation)
    station.show_sheet(1)
    press(station.view, Qt.Key.Key_E)
    settle_window()
    return station


@pytest.fixture
def live(station: CircuitsStation) -> LivePage:
    assert station.pages.currentWidget() is station.live
    return station.live


def button(live: LivePage, name: str) -> QPushButton:
    (found,) = [b for b in live.board.findChildren(QPushButton) if b.accessibleName() == name]
    return found


def overlay(live: LivePage) -> list[object]:
    return list(live.view.overlay)


class TestOperated:
    def test_a_button_held_down_by_the_mouse_starts_the_drum_and_it_stays_in(self, live: LivePage) -> None:
        start = next(b for b in live.board.findChildren(QPushButton) if b.accessibleName().startswith("S2"))
        QTest.mousePress(start, Qt.MouseButton.LeftButton)
        assert DeviceId("c1.S.start") in live.model.panel.operator_state.pressed
        QTest.mouseRelease(start, Qt.MouseButton.LeftButton)
        assert live.model.panel.operator_state.pressed == set()
        assert live.model.panel.is_fed(K)
        assert any("M1 runs forward" in live.log.item(n).text() for n in range(live.log.count()))

    def test_a_click_on_the_sheet_presses_and_lets_go_and_the_stop_does_too(self, live: LivePage) -> None:
        click_on(live.view, read_key("element:c1.S.start/3-4"))
        assert live.model.panel.is_fed(K)
        click_on(live.view, read_key("element:c1.S.stop/1-2"))
        assert not live.model.panel.is_fed(K)

    def test_keys_do_all_of_it(self, live: LivePage, session: Session) -> None:
        session.select(read_key("element:c1.S.start/3-4"))
        press(live.view, Qt.Key.Key_Space)
        assert live.model.panel.is_fed(K)
        session.select(read_key("element:c1.S.stop/1-2"))
        press(live.view, Qt.Key.Key_H)
        assert not live.model.panel.is_fed(K)
        assert DeviceId("c1.S.stop") in live.model.panel.operator_state.pressed, "held"
        press(live.view, Qt.Key.Key_H)
        assert live.model.panel.operator_state.pressed == set()
        before = live.model.panel.clock_s
        press(live.view, Qt.Key.Key_1)
        assert live.model.panel.clock_s == pytest.approx(before + 1.0)
        press(live.view, Qt.Key.Key_Period)
        assert str(session.selection).startswith("element:")
        press(live.view, Qt.Key.Key_M)
        assert live.meter.isVisible()

    def test_an_overload_is_tripped_and_reset_and_a_breaker_switched(self, live: LivePage) -> None:
        click_on(live.view, read_key("element:c1.S.start/3-4"))
        trip = next(b for b in live.board.findChildren(QPushButton) if b.accessibleName().endswith("overload: tripped"))
        trip.click()
        assert not live.model.panel.is_fed(K)
        assert DeviceId("c1.H.trip") in live.model.panel.on
        trip.click()
        assert live.model.panel.operator_state.tripped == set()
        off = next(b for b in live.board.findChildren(QPushButton) if b.accessibleName() == "Q1 main isolator: off")
        off.click()
        assert live.model.panel.on == set()

    def test_a_lost_line_stops_it_and_time_can_run(self, live: LivePage) -> None:
        click_on(live.view, read_key("element:c1.S.start/3-4"))
        button(live, "L3 of the incoming supply: lost").click()
        assert live.model.panel.turns(DeviceId("c1.M")) == "off"
        live.run.click()
        let_pass(600)
        assert live.model.panel.clock_s > 0.2
        live.run.click()
        stood = live.model.panel.clock_s
        let_pass(400)
        assert live.model.panel.clock_s == stood

    def test_what_cannot_be_operated_says_why_it_is_as_it_is(
        self, live: LivePage, said: list[tuple[str, bool]]
    ) -> None:
        click_on(live.view, read_key("element:c1.H.run/X1-X2"))
        assert "K1 43-44 is open" in said[-1][0]


class TestShown:
    def test_live_lines_are_thick_what_works_is_filled_and_power_waits_at_a_dot(self, live: LivePage) -> None:
        rest = overlay(live)
        thick = [one for one in rest if isinstance(one, Line) and one.role == "live"]
        assert thick and all(line.width > 0.5 for line in thick)
        assert any(isinstance(one, Circle) and one.fill == "live" for one in rest), "power waits at the start button"
        assert not any(isinstance(one, Poly) and one.fill == "live" for one in rest)
        click_on(live.view, read_key("element:c1.S.start/3-4"))
        now = overlay(live)
        assert any(isinstance(one, Poly) and one.fill == "live" for one in now), "the coil is in"
        assert any(isinstance(one, Text) and one.text == "IN" for one in now)
        assert any(isinstance(one, Poly) and one.role == "act" for one in now), "what moved last has corners"

    def test_a_motor_says_which_way_it_turns(self, live: LivePage, station: CircuitsStation) -> None:
        click_on(live.view, read_key("element:c1.S.start/3-4"))
        station.show_sheet(0)
        assert any(isinstance(one, Text) and one.text == "runs forward" for one in overlay(live))

    def test_the_pointer_on_a_conductor_says_its_voltage_its_source_and_the_way(self, live: LivePage) -> None:
        number = next(one for one in live.view.drawing.shapes if str(one.key).startswith("net:c1.FC:2"))
        live.view.hovered.emit(number.key)
        assert "231 V from L1 of the incoming supply, through Q1 1-2, F2 1-2" in live.hint.text()

    def test_a_selector_held_with_shift_springs_back(self, window: MainWindow, session: Session) -> None:
        session.open(
            JobFile.create(session.file.path.with_name("shed.riktig"), demo_job("kelp-shed"), who="a", at="t")  # type: ignore[union-attr]
        )
        window.go_to("Circuits")
        station = window.stations["Circuits"]
        assert isinstance(station, CircuitsStation)
        station.energise()
        station.show_sheet(10)
        settle_window()
        board = station.live.board
        hand = next(b for b in board.findChildren(QPushButton) if b.accessibleName().endswith("select: hand"))
        QTest.mousePress(hand, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ShiftModifier)
        assert station.live.model.panel.operator_state.position == {DeviceId("c4.S.select"): "hand"}
        QTest.mouseRelease(hand, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ShiftModifier)
        assert station.live.model.panel.operator_state.position == {DeviceId("c4.S.select"): "off"}

    def test_power_off_goes_back_to_the_sheets(self, station: CircuitsStation, live: LivePage) -> None:
        assert not station.add.isVisible()
        press(live.view, Qt.Key.Key_Escape)
        assert station.pages.currentWidget() is station.view
        assert station.add.isVisible()
        assert not station.power.isChecked()

    def test_the_theme_follows(self, window: MainWindow, live: LivePage) -> None:
        window.set_theme(DARK)
        assert live.view.theme is DARK


class TestEdits:
    def test_an_edit_keeps_what_was_turned_and_undo_gives_the_behaviour_back(
        self, live: LivePage, session: Session
    ) -> None:
        off = next(b for b in live.board.findChildren(QPushButton) if b.accessibleName() == "Q1 main isolator: off")
        off.click()
        session.edit("again", Doing(lambda job: insert_contact(job, STOP, Insertable.STOP_BUTTON, "again")))
        settle_window()
        assert live.model.panel.operator_state.opened == {DeviceId("c0.Q")}
        session.undo()
        settle_window()
        assert live.model.panel.on == set()
        next(b for b in live.board.findChildren(QPushButton) if b.accessibleName() == "Q1 main isolator: off").click()
        click_on(live.view, read_key("element:c1.S.start/3-4"))
        assert live.model.panel.is_fed(K)

    def test_a_running_motor_runs_on_over_an_edit_elsewhere_and_when_wires_become_known(
        self, live: LivePage, session: Session
    ) -> None:
        click_on(live.view, read_key("element:c1.S.start/3-4"))
        clock = live.model.panel.clock_s
        session.edit("lamp", Doing(lambda job: add_load(job, "belt", 1.1)))
        settle_window()
        assert live.model.panel.is_fed(K), "its hold contact still feeds it"
        assert live.model.panel.clock_s >= clock
        live.model.follow(wires=True)
        assert live.model.wired
        assert live.model.panel.is_fed(K)
        session.edit("no hold", Doing(lambda job: remove_element(job, ElementId("c1.K/13-14"))))
        settle_window()
        assert not live.model.panel.is_fed(K)


class TestMeter:
    def test_typed_probes_read_volts_and_ohms_only_when_dead(self, live: LivePage) -> None:
        live.measure.click()
        for field, text in ((live.meter.black, "K1:1"), (live.meter.red, "K1:3")):
            field.setFocus()
            QTest.keyClicks(field, text)
            press(field, Qt.Key.Key_Return)
        assert live.meter.shown.text() in ("399 V AC", "400 V AC")
        live.meter.what.setCurrentText("Ω")
        assert live.meter.shown.text() == "live"
        assert "dead circuits" in live.meter.way.text()

    def test_clicks_place_the_probes_in_turn(self, live: LivePage) -> None:
        live.measure.click()
        click_on(live.view, read_key("element:c1.K/A1-A2"))
        click_on(live.view, read_key("element:c1.K/A1-A2"))
        assert {live.meter.black.text(), live.meter.red.text()} == {"K1:A1", "K1:A2"}
        assert not live.model.panel.is_fed(K), "a click with the meter out operates nothing"

    def test_a_pin_that_is_not_there_is_said(self, live: LivePage) -> None:
        live.measure.click()
        live.meter.black.setText("K77:1")
        live.meter.red.setText("1")
        live.meter.read()
        assert live.meter.black.property("wrong")
        assert "Nothing is called K77:1" in live.meter.way.text()


class TestFaults:
    def test_a_fault_put_in_from_the_menu_changes_what_it_does_and_comes_out_again(
        self, live: LivePage, session: Session
    ) -> None:
        session.select(read_key("device:c1.K"))
        from riktig.desk.stations.circuits.live_faults import fault_menu

        menu = fault_menu(live, session, live.model, lambda: live.show_sheet(live.sheet))
        kinds = {action.text(): cast(QMenu, action.menu()) for action in menu.actions() if action.menu()}
        faults = {action.text(): action for kind in kinds.values() for action in kind.actions()}
        assert len(faults) == sum(len(kind.actions()) for kind in kinds.values()), "each can be told from the others"
        assert any(text.startswith("Wire off at K1:A1, that to ") for text in faults)
        faults["K1 A1-A2 open inside"].trigger()
        click_on(live.view, read_key("element:c1.S.start/3-4"))
        assert not live.model.panel.is_fed(K)
        assert "1 faults in" in live.clock.text()
        live.model.mend()
        click_on(live.view, read_key("element:c1.S.start/3-4"))
        assert live.model.panel.is_fed(K)

    def test_from_rest_takes_everything_out(self, live: LivePage) -> None:
        live.model.put(InjectedFault(FaultKind.WELDED, "c1.K", "13-14"))
        assert live.model.panel.is_fed(K)
        live.rest.click()
        assert live.model.faults == ()
        assert not live.model.panel.is_fed(K)


class TestScripts:
    def test_what_a_circuit_must_do_is_watched_step_by_step(self, live: LivePage) -> None:
        actions = {action.text(): action for action in live.script_menu().actions()}
        next(action for text, action in actions.items() if text.startswith("What “Wash drum")).trigger()
        assert live.watched.isVisible()
        live.watched.next.click()
        assert "✓" in live.watched.said.text()
        live.watched.all.click()
        assert all(one.passed for one in live.watched.results)
        assert "all correct" in live.watched.title.text()
        live.watched.end.click()
        assert not live.watched.isVisible()

    def test_a_script_of_ones_own_is_kept_with_the_job_and_a_failing_step_says_why(
        self, live: LivePage, session: Session
    ) -> None:
        session.edit("script", Doing(lambda job: set_script(job, "Mine", ("press S2: K1 in", "press S1: K1 in"))))
        assert session.job.scripts[0].name == "Mine"
        next(action for action in live.script_menu().actions() if action.text() == "Mine").trigger()
        live.watched.run()
        assert [one.passed for one in live.watched.results] == [True, False]
        assert "S1 1-2 is open" in live.watched.said.text()
        session.undo()
        assert session.job.scripts == ()

    def test_what_cannot_be_read_is_said_while_it_is_written(self, live: LivePage) -> None:
        asked = ScriptAsked(live, "Mine", "press K99", live.refuse_unreadable)
        assert "K99" in asked.wrong.text()
        asked.text.setPlainText("press S2: K1 in")
        assert asked.wrong.text() == ""
        asked.name.setText("")
        assert "name" in asked.wrong.text()


def test_the_lists_are_shown_in_place_of_the_sheet(live: LivePage) -> None:
    live.show_list("live")
    assert live.seen.currentWidget() is live.table
    model = live.table.model()
    assert model.rowCount() > 3
    live.show_list("restart")
    assert live.table.model().rowCount() == 1


def test_what_must_be_locked_to_work_on_the_chosen_thing_is_said(live: LivePage, session: Session) -> None:
    session.select(read_key("device:c1.K"))
    live.say_locks(K)
    assert live.hint.text().startswith("To work on K1: switch off and lock F")
    assert "F1" in live.hint.text() and "F2" in live.hint.text()
    assert any("Isolation points for K1" in action.text() for action in live.list_menu().actions())


def test_the_water_of_a_tank_is_dragged_and_a_float_hung_wrongly_is_said(window: MainWindow, session: Session) -> None:
    job: Job = demo_job("kelp-shed")
    session.open(JobFile.create(session.file.path.with_name("shed.riktig"), job, who="a", at="t"))  # type: ignore[union-attr]
    window.go_to("Circuits")
    station = window.stations["Circuits"]
    assert isinstance(station, CircuitsStation)
    station.energise()
    live = station.live
    station.show_sheet(10)
    settle_window()
    (tank,) = live.board.tanks
    next(b for b in live.board.findChildren(QPushButton) if b.accessibleName().endswith("select: auto")).click()
    QTest.mousePress(tank, Qt.MouseButton.LeftButton, pos=QPoint(40, 30))
    assert live.model.panel.turns(DeviceId("c4.M")) == "forward"
    QTest.mouseMove(tank, QPoint(40, 100))
    QTest.mouseRelease(tank, Qt.MouseButton.LeftButton, pos=QPoint(40, 100))
    press(tank, Qt.Key.Key_Up)
    tank.hang("start", 0.1)
    assert "start float must hang above" in live.hint.text()


class TestFront:
    def test_a_button_on_the_front_is_pressed_by_a_click_and_its_lamp_lights(self, live: LivePage) -> None:
        live.window().resize(1280, 800)
        settle_window()
        assert live.front.isVisible()
        assert live.front.accessibleDescription() == "No lamp is lit"
        click_on(live.front, DeviceKey(DeviceId("c1.S.start")))
        assert live.model.panel.is_fed(K)
        assert live.front.accessibleDescription() == "Lit: H1"
        assert any(isinstance(mark, Circle) and mark.role == "live" for mark in live.front.overlay)
        click_on(live.front, DeviceKey(DeviceId("c1.S.stop")))
        assert not live.model.panel.is_fed(K)
        assert live.front.accessibleDescription() == "No lamp is lit"

    def test_it_turns_to_the_operators_of_the_sheet_and_shows_all_by_key(self, live: LivePage) -> None:
        live.window().resize(1280, 800)
        settle_window()
        for device in ("c1.S.start", "c1.S.stop", "c1.H.run"):
            at = live.front.centre_of(DeviceKey(DeviceId(device)))
            assert at is not None
            assert live.front.rect().contains(at.toPoint()), device
        near = live.front.scale
        press(live.front, Qt.Key.Key_0)
        assert live.front.scale < near

    def test_it_goes_in_a_narrow_window_and_by_its_button(self, live: LivePage) -> None:
        live.window().resize(1280, 800)
        settle_window()
        live.shows_front.click()
        assert not live.front.isVisible()
        live.shows_front.click()
        assert live.front.isVisible()
        live.window().resize(1000, 700)
        settle_window()
        assert not live.front.isVisible()
        assert not live.shows_front.isEnabled()
