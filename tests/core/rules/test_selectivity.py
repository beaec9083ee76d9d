"""Control protection: what is computed is fitted, and the fuse of a circuit opens before that of the supply."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import (
    ControlSupply,
    DeviceId,
    Job,
    LoadId,
    Pick,
    Recipe,
    Rulebook,
    add_load,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import add_circuit, with_names_recorded
from riktig.core.sizing import PROPOSAL, SIZING


def starters(count: int = 2, *, american: bool = False) -> Job:
    job = set_supply(new_job("S", "selective"), upstream_a=20.0)
    if american:
        job = set_supply(job, voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False)
        job = set_practice(job, rulebook=Rulebook.UL)
    for n in range(count):
        job = add_load(job, f"fan {n}", 1.5)
    return with_names_recorded(job)


@pytest.mark.parametrize("american", [False, True])
def test_the_transformer_is_guarded_by_what_was_computed(american: bool) -> None:
    """NEC 450.3(B): 300 % of the primary current below 2 A; a breaker of 15 A is far above that."""
    evaluation = plan_for(starters(american=american))
    proposal, parts = evaluation.get(PROPOSAL), evaluation.get(SIZING).parts
    by_id = {str(device): part for device, part in parts.items()}
    primary, secondary = proposal.value("panel.primary"), proposal.value("panel.secondary")
    va = proposal.value("panel.transformer")
    assert primary
    assert secondary
    assert va
    assert by_id["s1.F"].rated_a == primary.amount
    assert by_id["s1.FS"].rated_a == secondary.amount
    volts = 480.0 if american else 400.0
    assert primary.amount <= 3.0 * va.amount / volts


@pytest.mark.parametrize("american", [False, True])
@pytest.mark.parametrize("motors", [2, 5, 12])
def test_a_fault_in_one_control_circuit_leaves_the_others(american: bool, motors: int) -> None:
    """IEC 60269-2: 1 to 1.6 between fuses in a row, from memory."""
    evaluation = plan_for(starters(motors, american=american))
    parts = {str(device): part for device, part in evaluation.get(SIZING).parts.items()}
    branches = [part.rated_a for device, part in parts.items() if device.endswith(".FC")]
    assert len(branches) == motors
    assert parts["s1.FS"].rated_a >= 1.6 * max(branches) - 1e-9
    result = next(r for r in evaluation.get(RULES) if r.code == "C12")
    assert not result.findings


def test_a_circuits_fuse_lets_its_coil_in() -> None:
    """62 VA at 230 V pull 0.27 A for an instant, 9.2 VA hold 0.04 A: a slow link of 0.2 A carries both."""
    parts = {str(d): part for d, part in plan_for(starters()).get(SIZING).parts.items()}
    assert parts["c1.FC"].rated_a == 0.2


def test_a_breaker_picked_where_the_fuse_was_is_found() -> None:
    job = starters()
    wrong = replace(job, picks=(Pick(DeviceId("s1.FS"), "FU-0.2"),))
    result = next(r for r in plan_for(wrong).get(RULES) if r.code == "C12")
    assert [f.verdict for f in result.findings]
    assert all(f.verdict is Verdict.JUDGE for f in result.findings)


def test_straight_from_a_line_there_is_nothing_to_compare() -> None:
    job = set_practice(starters(1), control_supply=ControlSupply.DIRECT)
    result = next(r for r in plan_for(with_names_recorded(job)).get(RULES) if r.code == "C12")
    assert not result.findings
    assert "no small source" in result.evidence[0]


@pytest.mark.parametrize("recipe", [Recipe.EMERGENCY_STOP, Recipe.PHASE_MONITOR, Recipe.LEVEL_ALARM, Recipe.VALVE])
def test_circuits_of_the_book_are_selective_too(recipe: Recipe) -> None:
    job = with_names_recorded(add_circuit(starters(), recipe))
    result = next(r for r in plan_for(job).get(RULES) if r.code == "C12")
    assert not result.findings
    assert LoadId("m1") in {load.id for load in job.loads}
