"""What a person must accept: restarts, hand, contacts in a return, a neutral that is not cut off."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import (
    CircuitId,
    Command,
    ControlSupply,
    DeviceId,
    Earthing,
    ElementId,
    Job,
    OverloadContact,
    OverloadDirection,
    OwnDevice,
    OwnRung,
    Param,
    Recipe,
    RunLamp,
    Start,
    add_load,
    add_signal,
    circuit_inputs,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.proving import FUNCTION
from riktig.core.rules import RULES, VIEW, ClauseResult, Verdict
from riktig.core.rules.operation import both_buttons
from riktig.core.schematic import CIRCUITS, add_circuit, add_device, add_rung, remove_element, with_names_recorded
from riktig.core.simulation import pressed_together


def clause(job: Job, code: str) -> ClauseResult:
    return next(r for r in plan_for(with_names_recorded(job)).get(RULES) if r.code == code)


def pump(command: Command, start: Start = Start.DIRECT, **said: object) -> Job:
    return add_load(new_job("O", "operation"), "pump", 1.5, command=command, start=start, **said)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("command", "start", "by_itself"),
    [
        (Command.BUTTONS, Start.DIRECT, False),
        (Command.BUTTONS, Start.STAR_DELTA, False),
        (Command.STATION, Start.DIRECT, False),
        (Command.BOTH_WAYS, Start.REVERSING, False),
        (Command.SELECTOR, Start.DIRECT, True),
        (Command.LEVEL, Start.DIRECT, True),
        (Command.CONTROLLER, Start.DRIVE, True),
        (Command.ALWAYS, Start.DIRECT, True),
    ],
)
def test_what_starts_by_itself_when_the_supply_returns_is_signed_for(
    command: Command, start: Start, by_itself: bool
) -> None:
    """IEC 60204-1 7.5, from memory: a hold contact falls out with the supply, a selector stays where it is."""
    result = clause(pump(command, start), "C14")
    assert [f.verdict for f in result.findings] == [Verdict.JUDGE] * by_itself
    assert ("stays off" in result.evidence[0]) is not by_itself
    if by_itself:
        assert "when the supply returns" in result.findings[0].message


@pytest.mark.parametrize("built", ["safety relay", "three relays"])
def test_behind_an_emergency_stop_nothing_starts_before_its_reset(built: str) -> None:
    """The stop lets go with the supply, so hand and level wait for the reset."""
    job = add_circuit(pump(Command.SELECTOR), Recipe.EMERGENCY_STOP, "stop", (Param("built of", built),))
    result = clause(job, "C14")
    assert not [f for f in result.findings if "when the supply returns" in f.message]
    assert [f for f in result.findings if "guard is reset" in f.message], "an overload that is reset is another matter"


def test_a_hold_that_is_bridged_by_the_builder_is_found() -> None:
    """A wire across start button and hold: the motor runs as soon as the supply is there."""
    job = pump(Command.BUTTONS)
    job = add_rung(job, CircuitId("c1"), OwnRung("past", "past", "", "@S.start:3 @S.start:4", "", "control"))
    assert clause(job, "C14").findings


@pytest.mark.parametrize(("command", "passed"), [(Command.LEVEL, 2), (Command.SELECTOR, 0), (Command.BUTTONS, 0)])
def test_what_hand_passes_by_is_signed_for(command: Command, passed: int) -> None:
    result = clause(pump(command), "C15")
    assert len(result.findings) == int(passed > 0)
    if passed:
        assert result.findings[0].message == "In hand M1 runs whatever B1, B2 say."


def test_an_alarm_float_is_not_passed_by_and_a_thermostat_is() -> None:
    alone = clause(pump(Command.LEVEL), "C15").evidence
    assert clause(pump(Command.LEVEL, level_alarm=True), "C15").evidence == alone
    job = pump(Command.SELECTOR)
    job = add_signal(job, "room thermostat", load=job.loads[0].id)
    assert "in hand" in clause(job, "C15").evidence[0]


@pytest.mark.parametrize("control", [ControlSupply.DIRECT, ControlSupply.TRANSFORMER, ControlSupply.DC])
@pytest.mark.parametrize(("place", "findings"), [(OverloadContact.FIRST, 0), (OverloadContact.RETURN, 1)])
def test_an_overload_in_the_return_of_its_coil_is_signed_for(
    control: ControlSupply, place: OverloadContact, findings: int
) -> None:
    """IEC 60204-1 9.4.3.1, from memory: an earth fault between coil and contact leaves the coil in."""
    result = clause(set_practice(pump(Command.BUTTONS), control_supply=control, overload_contact=place), "C16")
    assert [f.verdict for f in result.findings] == [Verdict.JUDGE] * findings
    assert all("95-96" in f.message for f in result.findings)


def test_a_stop_of_ones_own_in_the_return_is_found_too() -> None:
    job = with_names_recorded(pump(Command.BUTTONS))
    job = add_device(job, CircuitId("c1"), OwnDevice("K9", "relay", "plate", "own"))
    job = add_device(job, CircuitId("c1"), OwnDevice("S9", "stop_button", "door", "own"))
    rung = OwnRung("own", "own", "main.L1", "K9:A1-A2 S9:1-2", "N", "control")
    (found,) = clause(add_rung(job, CircuitId("c1"), rung), "C16").findings
    assert "1-2" in found.message


@pytest.mark.parametrize("earthing", list(Earthing))
@pytest.mark.parametrize("neutral", [True, False])
def test_on_a_tt_supply_the_neutral_is_cut_off_too(earthing: Earthing, neutral: bool) -> None:
    """IEC 60364-4-46 461.2, from memory: in TT systems the neutral is cut off with the lines."""
    result = clause(set_supply(pump(Command.BUTTONS), earthing=earthing, neutral=neutral), "E02")
    asked = [f for f in result.findings if "neutral" in f.message]
    assert len(asked) == int(earthing is Earthing.TT and neutral)


def test_a_load_that_nothing_starts_is_not_called_safe() -> None:
    """With its start button taken out the motor never ran: that is said, and not that it stays off."""
    cut = remove_element(with_names_recorded(pump(Command.BUTTONS)), ElementId("c1.S.start/3-4"))
    assert clause(cut, "C14").evidence == ("M1, never ran",)


@pytest.mark.parametrize("start", [Start.DIRECT, Start.STAR_DELTA])
@pytest.mark.parametrize(("by", "judged"), [(RunLamp.AUXILIARY, False), (RunLamp.COIL, True)])
def test_a_run_lamp_beside_a_coil_shows_the_coil_and_a_person_signs(by: RunLamp, judged: bool, start: Start) -> None:
    """IEC 60204-1 10.3.1, from memory: an indicator says what is; a coil that is fed may not have pulled in."""
    result = clause(set_practice(pump(Command.BUTTONS, start), run_lamp=by), "C19")
    assert bool(result.findings) is judged
    assert all(f.verdict is Verdict.JUDGE for f in result.findings)
    assert not result.evidence[0].startswith("0 lamps")


def reversing() -> Job:
    return with_names_recorded(pump(Command.BOTH_WAYS, Start.REVERSING))


def test_two_buttons_at_once_race_and_a_person_sees_the_interlock_hold() -> None:
    """Common practice, no source: with crossed auxiliary contacts only, the quicker contactor wins."""
    result = clause(reversing(), "C20")
    (found,) = result.findings
    assert found.verdict is Verdict.JUDGE and "mechanical interlock" in found.message and "race" in found.message


def test_without_the_mechanical_interlock_a_person_decides_what_a_race_may_do() -> None:
    evaluation = plan_for(reversing())
    circuits = evaluation.get(CIRCUITS)
    bare = replace(circuits, devices=tuple(d for d in circuits.devices if d.id != DeviceId("c1.KI")))
    tried = pressed_together(circuit_inputs(evaluation.document), bare)
    (found,) = both_buttons(replace(evaluation.get(VIEW), pressed_together=tried)).findings
    assert found.verdict is Verdict.JUDGE and "nothing mechanical" in found.message


def test_without_the_crossed_contacts_both_come_in_and_that_fails() -> None:
    job = reversing()
    for element in ("c1.K/21-22", "c1.KR/21-22"):
        job = remove_element(job, ElementId(element))
    (found,) = clause(job, "C20").findings
    assert found.verdict is Verdict.FAILS and "in together" in found.message


@pytest.mark.parametrize("start", [Start.DIRECT, Start.STAR_DELTA])
def test_a_load_that_runs_one_way_has_no_opposite_buttons(start: Start) -> None:
    result = clause(pump(Command.BUTTONS, start), "C20")
    assert not result.findings and result.evidence == ("0 pairs of opposite buttons",)


def test_the_function_test_ends_with_both_buttons_pressed() -> None:
    steps = plan_for(reversing()).get(FUNCTION)
    assert [s.done for s in steps if "at the same instant" in s.done] == ["press S2 and S3 at the same instant"]
    assert steps[-1].expected == ("K1 and K2 never in together",)


@pytest.mark.parametrize("direction", OverloadDirection)
def test_one_contact_that_is_entered_at_the_other_number_is_named(direction: OverloadDirection) -> None:
    job = with_names_recorded(set_practice(pump(Command.BUTTONS), overload_direction=direction))
    assert not clause(job, "C10").findings
    c1, usual = CircuitId("c1"), direction is OverloadDirection.UP
    for n, path in enumerate(("FO:97-98 H9:X1-X2", "<FO:97-98 H9:X1-X2")):
        own = add_device(job, c1, OwnDevice("H9", "lamp", "door", "own", "OWN", colour="white"))
        own = add_rung(own, c1, OwnRung("own", "own", "main.L1", path, "N", "control"))
        own = remove_element(with_names_recorded(own), ElementId("c1.FO/97-98"))
        found = [f for f in clause(own, "C10").findings if "wired in at" in f.message]
        assert bool(found) is (usual is bool(n)), (path, found)
        assert all(f.verdict is Verdict.JUDGE and "97-98" in f.message for f in found)
