"""Rungs written out and read back, twice into one job: what was apart stays apart."""

import pytest

from riktig.core.errors import RiktigError
from riktig.core.job import CircuitId, Job, OwnDevice, OwnRung, Recipe, Start, add_load, circuit_of, new_job, role_of
from riktig.core.schematic import CIRCUITS, NETS, add_circuit, add_written, as_written, with_names_recorded
from riktig.core.simulation import run_script
from riktig.core.store import WrittenCircuit, dump_rungs, load_rungs
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share
from tests.shared_plan import plan_for


def twice(job: Job, circuit: CircuitId) -> tuple[Job, list[CircuitId]]:
    """The circuit as a file, read back twice into its own job."""
    devices, rungs = as_written(plan_for(job).get(CIRCUITS), circuit)
    made = []
    for n in (1, 2):
        written = load_rungs(dump_rungs(WrittenCircuit(f"copy {n}", devices, rungs)))
        job = with_names_recorded(add_written(job, written.title, written.devices, written.rungs))
        made.append(job.circuits[-1].id)
    return job, made


def own_of(job: Job, circuit: CircuitId) -> list[frozenset[str]]:
    """The pins of a circuit that are on one net, by their roles: what is joined to what within it."""
    nets = plan_for(job).get(NETS).nets
    groups = (
        {f"{role_of(pin.device)}:{pin.marking}" for pin in net.pins if circuit_of(pin.device) == circuit}
        for net in nets
    )
    return sorted((frozenset(group) for group in groups if group), key=sorted)


WRITABLE = [name for name in SAMPLES if not any(word in name for word in ("by the controller", "free rungs"))]
"""A circuit whose points end at a controller is written with the controller's own pins."""


@pytest.mark.parametrize("name", share(WRITABLE, 2))
def test_every_circuit_read_back_twice_joins_what_it_joined_and_no_more(name: str) -> None:
    job = sample(name)
    circuit = job.circuits[-1].id
    try:
        copied, (first, second) = twice(job, circuit)
    except RiktigError as error:
        pytest.fail(str(error.faults))
    before = own_of(job, circuit)
    assert own_of(copied, first) == own_of(copied, second) == own_of(copied, circuit)
    assert own_of(copied, circuit) == before, "copies join nothing in what was there"


def test_two_copies_of_a_star_delta_starter_isolate_each_other() -> None:
    """With one breaker off its own fed lines are dead, and the other's are live."""
    job = with_names_recorded(add_load(new_job("R", "round"), "fan", 7.5, start=Start.STAR_DELTA))
    copied, (first, second) = twice(job, job.circuits[-1].id)
    evaluation = plan_for(copied)
    steps = ("open F: fed.L1 dead, fed.L3 dead",)
    for circuit in (first, second):
        results = run_script(evaluation.get(CIRCUITS), evaluation.get(NETS), circuit, steps)
        assert all(step.passed for step in results), [str(step) for step in results]


def test_a_node_of_a_circuit_that_is_not_there_is_refused_by_place() -> None:
    job = add_circuit(new_job("R", "round"), Recipe.LEVEL_ALARM)
    rung = OwnRung("one", "one", "c77.out", "K:A1-A2", "N", "control")
    with pytest.raises(RiktigError) as caught:
        add_written(job, "copy", (OwnDevice("K", "relay", "plate", "x"),), (rung,))
    (fault,) = caught.value.faults
    assert fault.where == "$.rungs[0].from"
    assert "c77" in fault.message
