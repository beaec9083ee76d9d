"""Emergency stop: every load stops, no single fault starts one again, lamps and alarms stay alive."""

from dataclasses import replace
from itertools import product

import pytest
from tests.effort import share
from tests.shared_plan import plan_for

from riktig.core.exports import schedule
from riktig.core.job import (
    CircuitId,
    Command,
    ControlSupply,
    DeviceId,
    Direction,
    Job,
    OwnDevice,
    OwnRung,
    Param,
    Recipe,
    Rulebook,
    Start,
    Wetting,
    add_load,
    add_signal,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import CIRCUITS, NETS, add_circuit, add_device, add_rung, with_names_recorded
from riktig.core.simulation import BEHAVIOURS, Panel, StepResult, run_script
from riktig.core.sizing import SIZING

STARTS = [Start.DIRECT, Start.REVERSING, Start.STAR_DELTA, Start.SOFT, Start.DRIVE]
BUILT = ["safety relay", "three relays"]
COMMANDS = [Command.BUTTONS, Command.SELECTOR, Command.LEVEL, Command.STATION, Command.CONTROLLER]


def with_stop(start: Start, command: Command, built: str = "safety relay", **practice: object) -> Job:
    job = set_practice(set_supply(new_job("E", "stop"), upstream_a=40.0), **practice)  # type: ignore[arg-type]
    job = add_load(job, "mixer", 2.2, start=start, command=command, level_alarm=command is Command.LEVEL)
    job = add_load(job, "fan", 1.5)
    job = add_circuit(job, Recipe.EMERGENCY_STOP, "stop", (Param("built of", built),))
    return with_names_recorded(job)


def clause(job: Job) -> ClauseResult:
    return next(r for r in plan_for(with_names_recorded(job)).get(RULES) if r.code == "C13")


def played(job: Job, *steps: str) -> tuple[StepResult, ...]:
    evaluation = plan_for(job)
    return run_script(evaluation.get(CIRCUITS), evaluation.get(NETS), CircuitId("c100"), steps)


@pytest.mark.parametrize(("built", "start", "command"), share(product(BUILT, STARTS, COMMANDS), 1))
def test_no_load_can_stay_in(built: str, start: Start, command: Command) -> None:
    """Whoever commands it: what the controller runs stops too (IEC 60204-1 9.2.2, category 0, from memory)."""
    if start is Start.REVERSING and command is not Command.BUTTONS:
        command = Command.BOTH_WAYS
    result = clause(with_stop(start, command, built))
    assert not [f.message for f in result.findings if f.verdict is Verdict.FAILS]
    judged = [f for f in result.findings if f.verdict is Verdict.JUDGE]
    assert len(judged) == 1
    assert "risk assessment" in judged[0].message


@pytest.mark.parametrize("built", BUILT)
@pytest.mark.parametrize("control", [ControlSupply.DIRECT, ControlSupply.TRANSFORMER, ControlSupply.DC])
def test_whatever_feeds_control(control: ControlSupply, built: str) -> None:
    result = clause(with_stop(Start.DIRECT, Command.BUTTONS, built, control_supply=control))
    assert not [f for f in result.findings if f.verdict is Verdict.FAILS]


def test_a_coil_that_is_fed_past_the_stop_fails() -> None:
    job = with_stop(Start.DIRECT, Command.BUTTONS)
    job = add_device(job, CircuitId("c1"), OwnDevice("K9", "contactor_wired", "plate", "past"))
    job = add_rung(job, CircuitId("c1"), OwnRung("past", "past", "control.live", "K9:A1-A2", "control.back", "control"))
    assert any(f.verdict is Verdict.FAILS and "can stay in" in f.message for f in clause(job).findings)


def test_a_start_contact_past_the_stop_fails() -> None:
    """A contact from ahead of the stop straight onto a coil behind it."""
    job = with_stop(Start.DIRECT, Command.BUTTONS)
    job = add_rung(job, CircuitId("c1"), OwnRung("past", "past", "control.live", "K:43-44 @K:A1", "", "control"))
    assert any(f.verdict is Verdict.FAILS for f in clause(job).findings)


@pytest.mark.parametrize("stuck", ["K1", "K2", "K3"])
def test_a_relay_that_stays_in_starts_nothing(stuck: str) -> None:
    """One channel pushed in: releasing the mushroom must not start the motor, and the reset does nothing either."""
    job = with_stop(Start.DIRECT, Command.BUTTONS, "three relays")
    results = played(
        job,
        "press S.reset: c1.K off",
        "release S.reset: H.ready on",
        "press c1.S.start: c1.K on, c1.M forward",
        "release c1.S.start: c1.K on",
        f"push {stuck}: {stuck} on",
        "press S: c1.K off, c1.M off",
        "release S: c1.K off, c1.M off, H.ready off",
        "press c1.S.start: c1.K off, c1.M off",
        "release c1.S.start: c1.K off",
        "press S.reset: c1.K off, H.ready off",
        "release S.reset: c1.K off, H.ready off",
    )
    assert all(step.passed for step in results[5:]), [str(step) for step in results if not step.passed]


@pytest.mark.parametrize("built", BUILT)
def test_a_reset_that_is_held_starts_nothing(built: str) -> None:
    results = played(
        with_stop(Start.DIRECT, Command.BUTTONS, built),
        "press S.reset: H.ready off",
        "press c1.S.start: c1.K off, c1.M off",
        "release c1.S.start: c1.K off",
        "press S: H.ready off",
        "release S: H.ready off, c1.K off",
    )
    assert all(step.passed for step in results)


RUNNING = (
    "press S.reset: c1.K off",
    "release S.reset: H.ready on, K on",
    "press c1.S.start: c1.K on, c1.M forward",
    "release c1.S.start: c1.K on",
)
STAYS_OFF = (
    "release S: H.ready off, K off, c1.K off, c1.M off",
    "press c1.S.start: c1.K off, c1.M off",
    "release c1.S.start: c1.K off",
    "press S.reset: c1.K off, H.ready off",
    "release S.reset: K off, H.ready off",
)


def test_a_safety_relay_stops_and_is_reset() -> None:
    results = played(
        with_stop(Start.DIRECT, Command.BUTTONS),
        *RUNNING,
        "press S: K off, c1.K off, c1.M off, H.ready off",
        "release S: K off, c1.K off, H.ready off",
        "press S.reset: K off",
        "release S.reset: K on, H.ready on, c1.K off",
        "press c1.S.start: c1.K on, c1.M forward",
    )
    assert all(step.passed for step in results), [str(step) for step in results if not step.passed]


@pytest.mark.parametrize("channel", ["S11 @K:S12", "S21 @K:S22"])
def test_a_channel_that_is_bridged_still_stops_and_cannot_be_reset(channel: str) -> None:
    """A wire across one contact of the mushroom: the other channel stops, and the relay sees that one never opened."""
    job = add_rung(
        with_stop(Start.DIRECT, Command.BUTTONS),
        CircuitId("c100"),
        OwnRung("bridge", "bridge", "", f"@K:{channel}", "", "control"),
    )
    results = played(with_names_recorded(job), *RUNNING, "press S: K off, c1.K off, c1.M off", *STAYS_OFF)
    assert all(step.passed for step in results), [str(step) for step in results if not step.passed]


def test_a_reset_button_that_sticks_cannot_start_it() -> None:
    """The reset bridged: it never falls, so nothing starts (IEC 60204-1 9.2.3.4.2, from memory)."""
    job = add_rung(
        with_stop(Start.DIRECT, Command.BUTTONS),
        CircuitId("c100"),
        OwnRung("bridge", "bridge", "", "@K:S33 @K:S34", "", "control"),
    )
    results = played(
        with_names_recorded(job), "rest: K off", "press S.reset: K off", "release S.reset: K off, H.ready off"
    )
    assert all(step.passed for step in results)


@pytest.mark.parametrize("control", [ControlSupply.TRANSFORMER, ControlSupply.DC])
def test_without_control_voltage_it_lets_go_and_must_be_reset(control: ControlSupply) -> None:
    results = played(
        with_stop(Start.DIRECT, Command.BUTTONS, control_supply=control),
        *RUNNING,
        "open c0.Q: K off, c1.K off",
        "close c0.Q: K off, c1.K off, H.ready off",
        "press S.reset: K off",
        "release S.reset: K on, H.ready on",
    )
    assert all(step.passed for step in results), [str(step) for step in results if not step.passed]


@pytest.mark.parametrize("recipe", [Recipe.VALVE, Recipe.LIT_BUTTON, Recipe.SELECTED_LAMP, Recipe.PHASE_MONITOR])
@pytest.mark.parametrize("built", BUILT)
def test_what_other_circuits_switch_stops_too(built: str, recipe: Recipe) -> None:
    job = with_names_recorded(add_circuit(with_stop(Start.DIRECT, Command.BUTTONS, built), recipe, "more"))
    assert not [f for f in clause(job).findings if f.verdict is Verdict.FAILS]
    assert all(outcome.passed for outcome in plan_for(job).get(BEHAVIOURS))


def test_a_valve_past_the_stop_fails() -> None:
    job = with_stop(Start.DIRECT, Command.BUTTONS)
    job = add_device(job, CircuitId("c1"), OwnDevice("Y9", "valve", "field", "past"))
    job = add_rung(job, CircuitId("c1"), OwnRung("past", "past", "control.live", "Y9:1-2", "control.back", "control"))
    assert any(f.verdict is Verdict.FAILS and "can stay in" in f.message for f in clause(job).findings)


def test_a_stop_of_an_earlier_job_stays_as_it_was_built() -> None:
    """A circuit without the choice is of three relays; one that is added now has a safety relay as a part."""
    new = add_circuit(add_load(new_job("E", "stop"), "fan", 1.5), Recipe.EMERGENCY_STOP)
    old = replace(new, circuits=(*new.circuits[:-1], replace(new.circuits[-1], params=())))
    kinds = [{d.kind_id for d in plan_for(with_names_recorded(job)).get(CIRCUITS).devices} for job in (new, old)]
    assert "safety_relay" in kinds[0] - kinds[1]
    assert "relay" in kinds[1] - kinds[0]
    rows = [row[1] for row in schedule("bom", plan_for(with_names_recorded(new))).rows]
    assert "safety relay, two channels, monitored reset, 2 NO, coil 230 V 50 Hz" in rows


def test_trip_lamp_and_alarm_stay_alive() -> None:
    """With the stop pressed an overload that trips is still seen, and a tank that runs over still heard."""
    job = with_stop(Start.DIRECT, Command.LEVEL)
    results = played(
        job, "press S: c1.K off", "trip c1.FO: c1.H.trip on", "raise c1.B.alarm: c1.H.alarm on, c1.Z.alarm on"
    )
    assert all(step.passed for step in results), [str(step) for step in results]


def test_the_reset_is_blue() -> None:
    """IEC 60204-1 10.2.1: reset blue, white, grey or black, never green."""
    parts = {str(d): part for d, part in plan_for(with_stop(Start.DIRECT, Command.BUTTONS)).get(SIZING).parts.items()}
    assert parts["c100.S.reset"].colour == "blue"


@pytest.mark.parametrize("built", BUILT)
@pytest.mark.parametrize("american", [False, True])
def test_the_recipe_does_what_it_says(american: bool, built: str) -> None:
    job = with_stop(Start.DIRECT, Command.BUTTONS, built)
    if american:
        job = set_supply(job, voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False)
        job = with_names_recorded(set_practice(job, rulebook=Rulebook.UL))
    outcome = next(o for o in plan_for(job).get(BEHAVIOURS) if o.circuit == "c100")
    assert outcome.passed


def test_without_one_nothing_is_claimed() -> None:
    """Whether a machine needs one is not to be seen in its panel: with a motor the engineer decides."""
    result = clause(add_load(new_job("E", "none"), "fan", 1.5))
    assert [finding.verdict for finding in result.findings] == [Verdict.JUDGE]
    assert "risk assessment" in result.findings[0].message
    still = next(r for r in plan_for(new_job("E", "nothing moves")).get(RULES) if r.code == "C13")
    assert still.verdict is Verdict.NOT_APPLICABLE


@pytest.mark.parametrize("built", BUILT)
@pytest.mark.parametrize("wetting", [Wetting.DC, Wetting.CONTROL])
def test_what_the_controller_moves_in_the_field_stops_too(wetting: Wetting, built: str) -> None:
    """A valve on a 24 V output or behind a relay of the controller: commanded, it falls with the stop."""
    job = with_stop(Start.DIRECT, Command.CONTROLLER, built)
    job = add_signal(job, "drain valve", wetting=wetting, direction=Direction.OUT, watts=8.0)
    job = with_names_recorded(job)
    assert not [f for f in clause(job).findings if f.verdict is Verdict.FAILS]
    valve = next(d for d in plan_for(job).get(CIRCUITS).devices if d.kind_id == "valve")
    panel = Panel(plan_for(job).get(CIRCUITS), plan_for(job).get(NETS))
    cards = [d for d in panel.circuits.devices if d.kind_id == "outputs"]
    panel.operator_state.outputs |= {(card.id, unit.name) for card in cards for unit in card.kind.units}
    pressed, stop, reset = panel.operator_state.pressed, DeviceId("c100.S"), DeviceId("c100.S.reset")
    for held, runs in (({reset}, False), (set[DeviceId](), True), ({stop}, False), (set[DeviceId](), False)):
        pressed.clear()
        pressed.update(held)
        panel.run_until_stable()
        assert (valve.id in panel.on, DeviceId("c1.K") in panel.on) == (runs, runs)
