"""Emergency stop: every load stops, no single fault starts one again, lamps and alarms stay alive."""

import pytest

from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    CircuitId,
    Command,
    ControlSupply,
    Job,
    OwnDevice,
    OwnRung,
    Recipe,
    Rulebook,
    Start,
    add_load,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import CIRCUITS, NETS, add_circuit, add_device, add_rung, with_names_recorded
from riktig.core.simulation import BEHAVIOURS, StepResult, run_script
from riktig.core.sizing import SIZING

STARTS = [Start.DIRECT, Start.REVERSING, Start.STAR_DELTA, Start.SOFT, Start.DRIVE]
COMMANDS = [Command.BUTTONS, Command.SELECTOR, Command.LEVEL, Command.STATION, Command.CONTROLLER]


def with_stop(start: Start, command: Command, **practice: object) -> Job:
    job = set_practice(set_supply(new_job("E", "stop"), upstream_a=40.0), **practice)  # type: ignore[arg-type]
    job = add_load(job, "mixer", 2.2, start=start, command=command, level_alarm=command is Command.LEVEL)
    job = add_load(job, "fan", 1.5)
    return with_names_recorded(add_circuit(job, Recipe.EMERGENCY_STOP))


def clause(job: Job) -> ClauseResult:
    return next(r for r in Evaluation(with_names_recorded(job)).get(RULES) if r.code == "C13")


def played(job: Job, *steps: str) -> tuple[StepResult, ...]:
    evaluation = Evaluation(job)
    return run_script(evaluation.get(CIRCUITS), evaluation.get(NETS), CircuitId("c100"), steps)


@pytest.mark.parametrize("command", COMMANDS)
@pytest.mark.parametrize("start", STARTS)
def test_no_load_can_stay_in(start: Start, command: Command) -> None:
    """Whoever commands it: what the controller runs stops too (IEC 60204-1 9.2.2, category 0, from memory)."""
    if start is Start.REVERSING and command is not Command.BUTTONS:
        command = Command.BOTH_WAYS
    result = clause(with_stop(start, command))
    assert not [f.message for f in result.findings if f.verdict is Verdict.FAILS]
    judged = [f for f in result.findings if f.verdict is Verdict.JUDGE]
    assert len(judged) == 1
    assert "risk assessment" in judged[0].message


@pytest.mark.parametrize("control", [ControlSupply.DIRECT, ControlSupply.TRANSFORMER, ControlSupply.DC])
def test_whatever_feeds_control(control: ControlSupply) -> None:
    result = clause(with_stop(Start.DIRECT, Command.BUTTONS, control_supply=control))
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
    job = with_stop(Start.DIRECT, Command.BUTTONS)
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


def test_a_reset_that_is_held_starts_nothing() -> None:
    results = played(
        with_stop(Start.DIRECT, Command.BUTTONS),
        "press S.reset: H.ready off",
        "press c1.S.start: c1.K off, c1.M off",
        "release c1.S.start: c1.K off",
        "press S: K1 off, K2 off",
        "release S: K1 off, K2 off, c1.K off",
    )
    assert all(step.passed for step in results[:3])


def test_trip_lamp_and_alarm_stay_alive() -> None:
    """With the stop pressed an overload that trips is still seen, and a tank that runs over still heard."""
    job = with_stop(Start.DIRECT, Command.LEVEL)
    results = played(
        job, "press S: c1.K off", "trip c1.FO: c1.H.trip on", "raise c1.B.alarm: c1.H.alarm on, c1.Z.alarm on"
    )
    assert all(step.passed for step in results), [str(step) for step in results]


def test_the_reset_is_blue() -> None:
    """IEC 60204-1 10.2.1: reset blue, white, grey or black, never green."""
    parts = {str(d): part for d, part in Evaluation(with_stop(Start.DIRECT, Command.BUTTONS)).get(SIZING).parts.items()}
    assert parts["c100.S.reset"].colour == "blue"


@pytest.mark.parametrize("american", [False, True])
def test_the_recipe_does_what_it_says(american: bool) -> None:
    job = with_stop(Start.DIRECT, Command.BUTTONS)
    if american:
        job = set_supply(job, voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False)
        job = with_names_recorded(set_practice(job, rulebook=Rulebook.UL))
    outcome = next(o for o in Evaluation(job).get(BEHAVIOURS) if o.circuit == "c100")
    assert outcome.passed


def test_without_one_nothing_is_claimed() -> None:
    result = clause(add_load(new_job("E", "none"), "fan", 1.5))
    assert not result.findings
    assert "risk assessment" in result.evidence[0]
