"""Every circuit does what its recipe promises; a circuit that was spoilt does not, and the step says why."""

import pytest

from riktig.core.errors import RiktigError
from riktig.core.job import CircuitId, DeviceId, ElementId, Job, Recipe, circuit_inputs
from riktig.core.schematic import (
    CIRCUITS,
    NETS,
    all_circuits,
    elements_of,
    remove_element,
    script_of,
    with_names_recorded,
)
from riktig.core.simulation import Panel, behaviour_of, run_script, with_tags
from tests.core.schematic.builders import one_motor
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import some
from tests.shared_plan import plan_for


def wholes(job: Job) -> list[CircuitId]:
    return [c.id for c in all_circuits(circuit_inputs(job))]


@pytest.mark.parametrize("name", SAMPLES)
def test_every_circuit_does_what_its_recipe_promises(name: str) -> None:
    job = sample(name)
    circuits = plan_for(job).get(CIRCUITS)
    ran = 0
    for cid in wholes(job):
        found = behaviour_of(job, circuits, cid)
        if found is not None:
            ran += len(found.steps)
            assert found.passed, [(s.done, s.otherwise) for s in found.steps if not s.passed] or found.broken
    assert ran > 4


WHOLE = ["both ways", "star-delta", "pump by level", "emergency stop", "all of it by the controller"]


@pytest.mark.parametrize("name", WHOLE)
def test_on_the_whole_panel_it_is_as_with_its_supplies_alone(name: str) -> None:
    job = sample(name)
    evaluation = plan_for(job)
    circuits = evaluation.get(CIRCUITS)
    for circuit in some(all_circuits(circuit_inputs(job))):
        load = next((one for one in job.loads if one.id == circuit.load), None)
        steps = script_of(circuit, load, job.signals, job.circuits)
        small = behaviour_of(job, circuits, circuit.id)
        assert (small.steps if small else ()) == run_script(circuits, evaluation.get(NETS), circuit.id, steps)


SPOILT = {
    "no hold contact": ("direct-on-line", "K/13-14", "release S.start", "K is off, not on"),
    "no overload contact": ("direct-on-line", "FO/95-96", "trip guard", "M is forward, not off"),
    "no interlock": ("both ways", "KR/21-22", "push KR", "K is on, not off"),
    "no silence": ("high-level alarm", "K.silence/21-22", "press S.silence", "Z.alarm is on, not off"),
    "no second channel": ("emergency stop", "K2/43-44", "press S", "H.ready is on, not off"),
}


@pytest.mark.parametrize("what", SPOILT)
def test_a_circuit_that_was_spoilt_fails_at_the_step_that_needs_what_was_taken(what: str) -> None:
    name, element, step, otherwise = SPOILT[what]
    job = sample(name)
    circuit = job.circuits[-1].id
    if what == "no second channel":
        job = with_names_recorded(remove_element(job, ElementId(f"{circuit}.K1/43-44")))
    spoilt = with_names_recorded(remove_element(job, ElementId(f"{circuit}.{element}")))
    found = behaviour_of(spoilt, plan_for(spoilt).get(CIRCUITS), circuit)
    assert found is not None
    failing = [s for s in found.steps if not s.passed]
    assert any(s.done == step and otherwise in s.otherwise for s in failing), (found.broken, failing)


def test_where_what_the_script_moves_was_taken_out_it_cannot_be_done_and_says_so() -> None:
    job = sample("direct-on-line")
    circuit = job.circuits[-1].id
    spoilt = with_names_recorded(remove_element(job, ElementId(f"{circuit}.S.stop/1-2")))
    found = behaviour_of(spoilt, plan_for(spoilt).get(CIRCUITS), circuit)
    assert found is not None
    assert not found.passed
    assert "S.stop" in found.broken


def test_both_contactors_in_is_a_short_circuit_and_is_said() -> None:
    """K and KR in together join two lines: common practice, no source."""
    job = sample("both ways")
    plan, circuit = plan_for(job), job.circuits[-1].id
    panel = Panel(plan.get(CIRCUITS), plan.get(NETS))
    panel.operator_state.pushed |= {DeviceId(f"{circuit}.K"), DeviceId(f"{circuit}.KR")}
    panel.run_until_stable()
    assert panel.shorts == ["L2 meets L3"]


def test_an_interlock_bypassed_by_its_hold_contact_lets_both_stay_in() -> None:
    """The hold contact re-joined past the interlock: pushed in by hand, both stay in (common practice, no source)."""
    from riktig.core.schematic import move_element

    job = sample("both ways")
    circuit = job.circuits[-1].id
    coil = f"{circuit}.K/A1-A2"
    path = next(r for r in plan_for(job).get(CIRCUITS).rungs if r.id == f"{circuit}.run").path
    assert any(e.id == coil for e in elements_of(path))
    right = behaviour_of(job, plan_for(job).get(CIRCUITS), circuit)
    assert right is not None
    assert next(s for s in right.steps if s.done == "push KR").passed
    moved = with_names_recorded(
        move_element(job, ElementId(f"{circuit}.KR/21-22"), ElementId(f"{circuit}.S.start/3-4"))
    )
    wrong = behaviour_of(moved, plan_for(moved).get(CIRCUITS), circuit)
    assert wrong is not None
    assert not next(s for s in wrong.steps if s.done == "push KR").passed


def test_a_chain_of_relays_that_feeds_back_never_comes_to_rest_and_is_said() -> None:
    from riktig.core.job import OwnDevice, OwnRung
    from riktig.core.schematic import add_written

    job = with_names_recorded(
        add_written(
            one_motor(), "ring", [OwnDevice("K1", "relay", "plate", "ring")],
            [OwnRung("one", "ring", "main.L1", "K1:21-22 K1:A1-A2", "N")],
        )
    )  # fmt: skip
    evaluation = plan_for(job)
    assert Panel(evaluation.get(CIRCUITS), evaluation.get(NETS)).restless


@pytest.mark.parametrize("step", ["press Q99", "fly away", "turn nothing to hand", "trip guard"])
def test_a_step_that_cannot_be_done_says_so(step: str) -> None:
    job = sample("lamp test")
    evaluation = plan_for(job)
    with pytest.raises(RiktigError):
        run_script(evaluation.get(CIRCUITS), evaluation.get(NETS), job.circuits[-1].id, (step,))


def test_steps_are_told_with_tags() -> None:
    tags = {DeviceId("c1.K"): "K1", DeviceId("c1.S.start"): "S2", DeviceId("c0.Q"): "Q1"}
    assert with_tags("press S.start", CircuitId("c1"), tags) == "press S2"
    assert with_tags("open c0.Q", CircuitId("c1"), tags) == "open Q1"
    assert with_tags("K on, H.run off", CircuitId("c1"), tags) == "K1 on, H.run off"


def test_the_recipes_without_a_script_are_only_the_free_ones() -> None:
    job = sample("free rungs")
    silent = [c.recipe for c in job.circuits if not script_of(c, next(iter(job.loads)) if c.load else None)]
    assert silent == [Recipe.FREE]
