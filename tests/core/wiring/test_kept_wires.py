"""Wires that an edit left alone are kept, and what is kept changes nothing: a fresh look comes to the same."""

from collections.abc import Callable
from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.job import Distribution, Job, WireOrder, add_load, new_job, set_enclosure, set_practice, set_supply
from riktig.core.plate import LAYOUT, move_block
from riktig.core.schematic import with_names_recorded
from riktig.core.wiring import WIRING, Wiring


def mill(how: Distribution = Distribution.LOOPS) -> Job:
    """Narrow ducts on a plate that they fill: some wires make a detour, and some clamps hold too much."""
    job = new_job("M", "mill")
    for n in range(9):
        job = add_load(job, f"fan {n}", (0.75, 4.0, 7.5)[n % 3], run_lamp=True, trip_lamp=True)
    job = set_enclosure(job, width=1000.0, height=1200.0, plate_width=950.0, plate_height=1150.0)
    job = set_practice(set_supply(job, upstream_a=100.0), distribution=how, duct_width=30.0)
    return with_names_recorded(job)


def moved(job: Job, plan: Evaluation[Job]) -> Job:
    """The last part on a rail half a millimetre to the right."""
    stand = [stand for stand in plan.get(LAYOUT).stands if stand.rail][-1]
    return move_block(job, plan.get(LAYOUT), stand.block.lead, stand.rail, stand.x + 0.5)


def one_alone(job: Job, plan: Evaluation[Job]) -> Job:
    """A clamp with two conductors that shall take one: the order of its potential changes."""
    wiring = plan.get(WIRING)
    landed = [end.pin for wire in wiring.wires for end in (wire.start, wire.end)]
    crowded = next(pin for pin in landed if landed.count(pin) == 2)
    return replace(job, one_conductor=(f"{crowded.device}:{crowded.marking}",))


def own_order(job: Job, plan: Evaluation[Job]) -> Job:
    """A chain of three or more the other way round from its middle."""
    pins: dict[str, list[str]] = {}
    for wire in plan.get(WIRING).wires:
        of_net = pins.setdefault(str(wire.net), [])
        of_net += [str(end.pin) for end in (wire.start, wire.end) if str(end.pin) not in of_net]
    chain = next(chain for chain in pins.values() if len(chain) >= 4)
    return replace(job, wire_orders=(WireOrder((tuple(reversed(chain)),)),))


EDITS: dict[str, Callable[[Job, Evaluation[Job]], Job]] = {
    "moved": moved,
    "one alone": one_alone,
    "own order": own_order,
    "another supply": lambda job, plan: set_supply(job, upstream_a=125.0),
    "ends": lambda job, plan: set_practice(job, end_allowance=job.practice.end_allowance + 25.0),
    "a load more": lambda job, plan: with_names_recorded(add_load(job, "one more", 2.2)),
    "wide ducts": lambda job, plan: set_practice(job, duct_width=60.0),
    "heat": lambda job, plan: set_enclosure(job, ambient_c=55.0),
}


@pytest.mark.parametrize("how", list(Distribution))
def test_after_a_row_of_edits_all_is_as_worked_out_anew(how: Distribution) -> None:
    job = mill(how)
    plan = Evaluation(job)
    plan.get(WIRING)
    changed = 0
    for name, edit in EDITS.items():
        for change in (edit, moved):
            before = plan.get(WIRING)
            plan.move_to(change(plan.document, plan))
            now, fresh = plan.get(WIRING), Evaluation(plan.document).get(WIRING)
            assert now == fresh, name
            changed += now != before
    assert changed > len(EDITS), "an edit that changes no wire says nothing here"


def test_what_did_not_move_is_the_very_same_wire() -> None:
    plan = Evaluation(mill())
    before = plan.get(WIRING)
    plan.move_to(moved(plan.document, plan))
    after = plan.get(WIRING)
    same = {id(wire) for wire in before.wires} & {id(wire) for wire in after.wires}
    assert len(same) > len(after.wires) * 0.8
    assert after != before


def test_the_job_has_what_this_is_about() -> None:
    wiring: Wiring = plan_for(mill()).get(WIRING)
    assert any(wire.detour for wire in wiring.wires), "ducts that are full"
    assert wiring.batches
