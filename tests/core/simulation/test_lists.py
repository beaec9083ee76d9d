"""What stays live, what restarts, faults put in, scripts, the meter, tanks: known by hand."""

import json

import pytest

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import schedule
from riktig.core.job import CircuitId, DeviceId, Job, OwnDevice, OwnRung, add_load, change_load, read_pin
from riktig.core.schematic import CIRCUITS, NETS, add_written, with_names_recorded
from riktig.core.simulation import (
    CONDUCTORS,
    ISOLATIONS,
    MAINS,
    RESTARTS,
    FaultKind,
    InjectedFault,
    Operator,
    Panel,
    Runner,
    Touch,
    carriages_of,
    conductors_with_faults,
    faults_at,
    inject_faults,
    lock_off,
    meter_of,
    operate,
    operators_of,
    position_of,
    read_script,
    set_level,
    set_travel,
    tanks_of,
)
from riktig.core.sizing import SIZING
from riktig.core.wiring import WIRING
from riktig.demo_job import demo_job
from tests.core.schematic.builders import one_motor
from tests.core.schematic.samples import sample
from tests.effort import some
from tests.shared_plan import plan_for

START = DeviceId("c1.S.start")


@pytest.fixture(scope="module")
def evaluation() -> Evaluation[Job]:
    return plan_for(one_motor())


@pytest.fixture(scope="module")
def shed() -> Evaluation[Job]:
    return plan_for(demo_job("kelp-shed"))


def wired(evaluation: Evaluation[Job], *faults: InjectedFault) -> Panel:
    """A panel as it is wired, with faults put in."""
    conductors = conductors_with_faults(evaluation.get(CONDUCTORS), faults)
    panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS), evaluation.document.supply, 230.0, conductors)
    inject_faults(panel.operator_state, faults)
    panel.run_until_stable()
    return panel


def started(panel: Panel) -> Panel:
    panel.operator_state.pressed.add(START)
    panel.run_until_stable()
    panel.operator_state.pressed.discard(START)
    panel.run_until_stable()
    return panel


class TestLive:
    def test_of_the_shed_with_its_main_switch_off_these_sources_stay(self, shed: Evaluation[Job]) -> None:
        main = next(one for one in shed.get(ISOLATIONS) if one.device == "c0.Q")
        # By hand: the incoming supply ahead of Q1, the maintained branch behind Q2, and the fire panel's contact.
        assert {one.source for one in main.live} == {MAINS, "c1.KF1.W"}
        rows = [row for row in schedule("live", shed).as_dicts() if row["off"] == "Q1"]
        pins = " ".join(str(row["pins"]) for row in rows)
        assert all(tag in pins for tag in ("Q1:1", "Q2:2", "F22:1", "X3:F11", "K5:A1"))
        assert "K9:" not in pins

    def test_one_motor_breaker_off_makes_only_its_motor_dead(self, evaluation: Evaluation[Job]) -> None:
        (one,) = [one for one in evaluation.get(ISOLATIONS) if one.device == "c1.F"]
        devices = {pin.device for net in one.dead for pin in evaluation.get(NETS).of_pin[net].pins}
        assert devices == {"c1.F", "c1.K"}

    def test_to_work_on_the_contactor_its_own_two_breakers_are_locked(self, evaluation: Evaluation[Job]) -> None:
        circuits = evaluation.get(CIRCUITS)
        found = lock_off(circuits, Panel(circuits, evaluation.get(NETS)).network, DeviceId("c1.K"))
        assert set(found.switches) == {"c1.F", "c1.FC"}


class TestRestart:
    def test_buttons_stay_off_a_selector_in_hand_does_not(self, shed: Evaluation[Job]) -> None:
        found = {(one.circuit, one.how): one for one in shed.get(RESTARTS)}
        assert not found[CircuitId("c2"), "by its button"].after_power
        pump = CircuitId("c4")
        assert found[pump, "in hand"].asks
        # Between the floats it was held by its own contact: it waits for the start float (common practice).
        assert found[pump, "by level, between the floats"].ran
        assert not found[pump, "by level, between the floats"].after_power
        assert found[pump, "by level, both floats up"].after_power

    def test_every_motor_is_in_the_table(self) -> None:
        job = one_motor()
        for number in range(3):
            job = add_load(job, f"pump {number}", 1.5)
        assert len(plan_for(job).get(RESTARTS)) == 4


class TestFaults:
    def test_a_wire_off_at_the_hold_contact_lets_go_with_the_button(self, evaluation: Evaluation[Job]) -> None:
        wires = [w for w in evaluation.get(WIRING).wires if read_pin("c1.K:14") in (w.start.pin, w.end.pin)]
        fault = InjectedFault(FaultKind.OFF, str(wires[0].key), "c1.K:14")
        panel = wired(evaluation, fault)
        assert not started(panel).is_fed(DeviceId("c1.K"))
        assert started(wired(evaluation)).is_fed(DeviceId("c1.K"))

    def test_two_motor_wires_swapped_turn_it_the_other_way(self, evaluation: Evaluation[Job]) -> None:
        keys = {}
        for wire in evaluation.get(WIRING).wires:
            for end in (wire.start.pin, wire.end.pin):
                if str(end) in ("c1.FO:2", "c1.FO:4"):
                    keys[end] = str(wire.key)
        swapped = InjectedFault(
            FaultKind.SWAPPED, keys[read_pin("c1.FO:2")], "c1.FO:2", keys[read_pin("c1.FO:4")], "c1.FO:4"
        )
        assert started(wired(evaluation, swapped)).turns(DeviceId("c1.M")) == "reverse"
        assert started(wired(evaluation)).turns(DeviceId("c1.M")) == "forward"

    def test_a_short_ahead_of_everything_takes_the_feed_and_is_said(self, evaluation: Evaluation[Job]) -> None:
        panel = wired(evaluation, InjectedFault(FaultKind.SHORT, "", "c0.Q:1", "c0.Q:3"))
        assert panel.operator_state.lost == {"L1", "L2"}
        assert panel.on == set()
        assert any(
            "L1 meets L2" in event.text and "nothing in the panel guards it" in event.text for event in panel.events
        )

    def test_a_short_between_two_poles_behind_the_contactor_trips_when_it_comes_in(
        self, evaluation: Evaluation[Job]
    ) -> None:
        panel = wired(evaluation, InjectedFault(FaultKind.SHORT, "", "c1.FO:2", "c1.FO:4"))
        assert panel.shorts == []
        panel.operator_state.pressed.add(START)
        panel.run_until_stable()
        assert panel.shorts == ["L1 meets L2"]
        assert DeviceId("c1.F") in panel.operator_state.tripped

    @pytest.mark.parametrize(
        ("fault", "on"),
        [
            (InjectedFault(FaultKind.OPEN_COIL, "c1.K", "A1-A2"), False),
            (InjectedFault(FaultKind.BLOWN, "c1.FC", "1-2"), False),
            (InjectedFault(FaultKind.WELDED, "c1.K", "13-14"), True),
        ],
    )
    def test_a_spoilt_device_does_what_it_must(
        self, evaluation: Evaluation[Job], fault: InjectedFault, on: bool
    ) -> None:
        panel = wired(evaluation, fault)
        assert panel.is_fed(DeviceId("c1.K")) == on, "a welded hold contact starts it by itself"
        assert started(panel).is_fed(DeviceId("c1.K")) == on

    def test_every_fault_of_every_device_can_be_put_in_and_said(self, evaluation: Evaluation[Job]) -> None:
        panel = wired(evaluation)
        for device in some(evaluation.get(CIRCUITS).devices):
            for fault in some(faults_at(panel, evaluation.get(WIRING), device.id)):
                assert fault.said(str)
                started(wired(evaluation, fault))

    def test_a_wire_that_is_not_there_is_said(self, evaluation: Evaluation[Job]) -> None:
        with pytest.raises(RiktigError, match="No wire"):
            wired(evaluation, InjectedFault(FaultKind.OFF, "none", "c1.K:14"))


class TestMeter:
    def test_dead_the_coil_reads_its_winding_through_the_terminals(self, evaluation: Evaluation[Job]) -> None:
        panel = wired(evaluation)
        panel.operator_state.opened.add(DeviceId("c0.Q"))
        panel.run_until_stable()
        found = meter_of(panel).ohms(read_pin("c1.K:A1"), read_pin("c1.K:A2"))
        assert found.value == pytest.approx(560.0, rel=0.01)  # parts.csv: CON-9 has 560 ohm
        assert any("{c1.K} A1-A2" in one for one in found.way)

    def test_a_larger_contactor_reads_the_winding_of_its_own_part(self) -> None:
        evaluation: Evaluation[Job] = plan_for(change_load(one_motor(), one_motor().loads[0].id, kw=7.5))
        parts = evaluation.get(SIZING).parts
        part = parts[DeviceId("c1.K")]
        assert part.coil_ohm != 560.0, "not the one of the smallest contactor"
        panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS), parts=parts)
        panel.operator_state.opened.add(DeviceId("c0.Q"))
        panel.run_until_stable()
        found = meter_of(panel).ohms(read_pin("c1.K:A1"), read_pin("c1.K:A2"))
        assert found.value == pytest.approx(part.coil_ohm, rel=0.01)

    def test_live_it_refuses_ohms_and_reads_volts(self, evaluation: Evaluation[Job]) -> None:
        meter = meter_of(wired(evaluation))
        assert "live" in meter.ohms(read_pin("c1.K:1"), read_pin("c1.K:3")).refused
        read = meter.volts(read_pin("c1.K:1"), read_pin("c1.K:3"))
        assert read.value == pytest.approx(400.0, rel=0.01)
        assert read.kind == "AC"
        assert meter.volts(read_pin("c1.K:2"), read_pin("c1.K:4")).value == pytest.approx(0.0, abs=0.5)

    def test_nothing_between_two_pins_is_an_open_line(self, evaluation: Evaluation[Job]) -> None:
        panel = wired(evaluation)
        panel.operator_state.opened.add(DeviceId("c0.Q"))
        panel.run_until_stable()
        found = meter_of(panel).ohms(read_pin("c1.K:1"), read_pin("c1.K:2"))
        assert found.value is None
        assert found.text == "OL"

    def test_the_reading_follows_the_state(self, evaluation: Evaluation[Job]) -> None:
        panel = wired(evaluation)
        meter = meter_of(panel)
        assert meter.volts(read_pin("c1.K:A2"), read_pin("c1.K:A1")).value == pytest.approx(0.0, abs=0.5)
        started(panel)
        found = meter.volts(read_pin("c1.K:A2"), read_pin("c1.K:A1"))
        assert found.value == pytest.approx(230.0, rel=0.01)
        assert any("{c1.S.stop} 1-2" in one for one in found.way)


class TestTank:
    def test_filling_and_emptying_run_the_pump_from_float_to_float(self) -> None:
        evaluation: Evaluation[Job] = plan_for(sample("pump by level"))
        panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS))
        (tank,) = tanks_of(panel.circuits)
        panel.operator_state.position[DeviceId("c1.S.select")] = "auto"
        ran = []
        for level in (0.1, 0.4, 0.7, 0.4, 0.1, 0.4):
            tank = set_level(panel, tank, level)
            ran.append(panel.turns(DeviceId("c1.M")) != "off")
        assert ran == [False, False, True, True, False, False]

    def test_floats_in_the_wrong_order_are_said(self) -> None:
        (tank,) = tanks_of(plan_for(sample("pump by level")).get(CIRCUITS))
        assert tank.faults() == ()
        assert "start float must hang above the stop float" in tank.moved("start", 0.1).faults()[0]

    def test_a_carriage_stops_at_its_end_and_goes_back(self, shed: Evaluation[Job]) -> None:
        panel = Panel(shed.get(CIRCUITS), shed.get(NETS))
        (carriage,) = carriages_of(panel.circuits)
        panel.operator_state.pressed.add(DeviceId("c3.S.start"))
        panel.run_until_stable()
        panel.operator_state.pressed.clear()
        panel.run_until_stable()
        assert panel.turns(carriage.motor) == "forward"
        carriage = set_travel(panel, carriage, 1.0)
        assert panel.turns(carriage.motor) == "off"
        panel.operator_state.pressed.add(DeviceId("c3.S.reverse"))
        panel.run_until_stable()
        assert panel.turns(carriage.motor) == "reverse"


class TestScripts:
    def test_a_failing_step_says_why(self, evaluation: Evaluation[Job]) -> None:
        runner = Runner(Panel(evaluation.get(CIRCUITS), evaluation.get(NETS)), CircuitId("c1"))
        found = runner.step("rest: K on")
        assert found.otherwise == ("K is off, not on",)
        assert "{c1.S.start} 3-4 is open" in found.why[0] or "{c1.K} 13-14 is open" in found.why[0]

    def test_tags_name_the_things_of_the_whole_panel(self, evaluation: Evaluation[Job]) -> None:
        names = {"K1": DeviceId("c1.K"), "S2": START}
        runner = Runner(Panel(evaluation.get(CIRCUITS), evaluation.get(NETS)), CircuitId(""), names)
        assert runner.step("press s2: k1 in").passed
        assert runner.step("weld K1 13-14: K1 in").passed
        assert runner.step("mend K1: K1 in").passed

    @pytest.mark.parametrize(
        ("text", "steps"),
        [
            ("press S1: K1 on  # go\n\n release S1\n", ("press S1: K1 on", "release S1")),
            (json.dumps(["press S1"]), ("press S1",)),
            (json.dumps({"steps": ["press S1", "wait 2"]}), ("press S1", "wait 2")),
            ("", ()),
        ],
    )
    def test_a_script_is_lines_or_json(self, text: str, steps: tuple[str, ...]) -> None:
        assert read_script(text) == steps

    @pytest.mark.parametrize(
        ("text", "where"), [('{"steps": 3}', "$.steps"), ('{"steps": ["a", 4]}', "$.steps[1]"), ("[1", "line 1")]
    )
    def test_a_script_that_is_none_says_the_place(self, text: str, where: str) -> None:
        with pytest.raises(RiktigError) as caught:
            read_script(text)
        assert where in caught.value.where

    @pytest.mark.parametrize(
        "step", ["press K99", "wait long", "wait -1", "weld K1 9-9", "dance", "blow K1 zz", "turn K1", "turn K1 to x"]
    )
    def test_a_step_that_cannot_be_done_is_refused(self, evaluation: Evaluation[Job], step: str) -> None:
        runner = Runner(Panel(evaluation.get(CIRCUITS), evaluation.get(NETS)), CircuitId(""), {"K1": DeviceId("c1.K")})
        with pytest.raises(RiktigError):
            runner.step(step)


@pytest.mark.parametrize("name", ["kelp-shed", "frost-fan"])
def test_everything_that_can_be_operated_goes_to_each_position_and_says_so(name: str) -> None:
    evaluation: Evaluation[Job] = plan_for(demo_job(name))
    panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS))
    for one in operators_of(panel.circuits):
        for position in (*one.positions[1:], one.positions[0]):
            operate(panel, one, "50" if one.touch is Touch.SIGNAL else position)
            if one.touch is not Touch.SIGNAL:
                assert position_of(panel, one) == position, (one, position)
    bad = Operator(Touch.HOLD, START, "", None, ("free", "held"), "")
    with pytest.raises(RiktigError, match="cannot be"):
        operate(panel, bad, "sideways")


def test_a_drive_runs_at_the_share_that_the_program_gives_and_stops_with_its_command(shed: Evaluation[Job]) -> None:
    panel = Panel(shed.get(CIRCUITS), shed.get(NETS))
    drive = next(d.id for d in panel.circuits.devices if d.kind_id == "drive")
    motor = DeviceId(f"{drive.partition('.')[0]}.M")
    able = operators_of(panel.circuits)
    signal = next(one for one in able if one.touch is Touch.SIGNAL)
    operate(panel, signal, "40")
    assert panel.turns(motor) == "off"
    for one in able:
        if one.touch is Touch.OUTPUT and one.said == "%QX0.0":
            operate(panel, one, "on")
    assert panel.turns(motor) == "forward"
    assert panel.share(drive, "REF-COM") == pytest.approx(0.4, abs=0.01)
    operate(panel, signal, "90")
    assert panel.share(drive, "REF-COM") == pytest.approx(0.9, abs=0.01)


def test_the_standby_pump_comes_in_when_the_duty_pump_fails_and_goes_when_it_is_back() -> None:
    """Duty and standby by the duty contactor's opener; common practice, no source."""
    devices = [
        OwnDevice("B1", "float_no", "field", "call"), OwnDevice("B2", "field_contact", "field", "duty healthy"),
        OwnDevice("KB", "relay", "plate", "call"), OwnDevice("K1", "relay", "plate", "duty"),
        OwnDevice("K2", "relay", "plate", "standby"),
    ]  # fmt: skip
    rungs = [
        OwnRung("call", "call", "main.L1", "B1:1-2 KB:A1-A2", "N"),
        OwnRung("duty", "duty", "main.L1", "KB:13-14 B2:1-2 K1:A1-A2", "N"),
        OwnRung("standby", "standby", "main.L1", "KB:33-34 K1:21-22 K2:A1-A2", "N"),
    ]
    job = with_names_recorded(add_written(one_motor(), "duty and standby", devices, rungs))
    evaluation = plan_for(job)
    panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS))
    runner = Runner(panel, job.circuits[-1].id)
    for step in (
        "rest: K1 out, K2 out",
        "raise B1: KB in, K1 in, K2 out",
        "raise B2: K1 out, K2 in",
        "lower B2: K1 in, K2 out",
        "lower B1: K1 out, K2 out",
    ):
        found = runner.step(step)
        assert found.passed, (step, found.otherwise, found.why)


def test_a_struck_emergency_stop_stays_struck(shed: Evaluation[Job]) -> None:
    evaluation = plan_for(sample("emergency stop"))
    panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS))
    stop = next(one for one in operators_of(panel.circuits) if one.positions == ("out", "struck"))
    reset = next(one for one in operators_of(panel.circuits) if str(one.device).endswith("S.reset"))
    for position in ("held", "free"):
        operate(panel, reset, position)
    relay = DeviceId(f"{str(stop.device).partition('.')[0]}.K1")
    assert panel.is_fed(relay)
    operate(panel, stop, "struck")
    panel.wait(60.0)
    assert not panel.is_fed(relay)
    operate(panel, stop, "out")
    assert not panel.is_fed(relay), "it waits for its reset"
