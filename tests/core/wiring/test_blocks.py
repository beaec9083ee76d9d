"""Distribution blocks: each breaker from a way of its own, thin taps, further blocks when the ways run out."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    ControlSupply,
    Distribution,
    Job,
    LoadId,
    Protection,
    add_load,
    change_load,
    new_job,
    set_box,
    set_practice,
    set_supply,
)
from riktig.core.plate import LAYOUT
from riktig.core.rules import RULES, findings_of
from riktig.core.schematic import CIRCUITS, NETS, with_names_recorded
from riktig.core.wiring import WIRING, Wire


def panel(motors: int, distribution: Distribution = Distribution.BLOCKS) -> Job:
    job = set_practice(new_job("B"), distribution=distribution)
    job = set_practice(job, control_supply=ControlSupply.DIRECT)
    job = set_supply(set_box(job, 1000.0, 1200.0, 300.0), upstream_a=80.0)
    for n in range(motors):
        job = add_load(job, f"fan {n}", 4.0)
    return with_names_recorded(job)


def feeds(evaluation: Evaluation[Job]) -> list[Wire]:
    on = {net.id for net in evaluation.get(NETS).nets if any(node.startswith("main.") for node in net.nodes)}
    return [wire for wire in evaluation.get(WIRING).wires if wire.net in on]


@pytest.mark.parametrize(("motors", "blocks"), [(1, 1), (3, 1), (4, 2), (8, 3)])
def test_blocks_are_made_for_every_feed(motors: int, blocks: int) -> None:
    """By hand: two feeds of the first line a motor, seven to a block; a thick outlet leads on to the next."""
    evaluation = plan_for(panel(motors))
    found = [d for d in evaluation.get(CIRCUITS).devices if d.kind_id == "dist_block"]
    assert len(found) == blocks
    assert all(evaluation.get(LAYOUT).seat(d.id) for d in found)
    # Three wires from the isolator, three a motor and one for its control, three from block to block.
    assert len(feeds(evaluation)) == 3 + 4 * motors + 3 * (blocks - 1)


def test_no_way_takes_two_wires_and_nothing_is_crowded() -> None:
    evaluation = plan_for(panel(7))
    ends = [end.pin for wire in feeds(evaluation) for end in (wire.start, wire.end)]
    assert len(ends) == len(set(ends)), "no feed is looped"
    crowded = [one for one in evaluation.get(WIRING).crowded if ":N" not in one.label]
    assert crowded == []


def test_the_supply_side_is_thick_and_each_tap_as_its_circuit_needs() -> None:
    """By hand: 80 A upstream want 35 mm² (96 A); 8.5 A among four grouped 13.5 x 0.65 = 8.8 A: 1.5 mm²."""
    evaluation = plan_for(panel(4))
    found = {(wire.mm2, "c0.Q:" in f"{wire.start.pin}|{wire.end.pin}") for wire in feeds(evaluation)}
    assert (35.0, True) in found
    taps = [w for w in feeds(evaluation) if not any(end.pin.device == "c0.Q" for end in (w.start, w.end))]
    thin = {wire.mm2 for wire in taps if not all(end.pin.device.startswith("c0.XD") for end in (wire.start, wire.end))}
    assert thin == {1.5}
    assert any("7.2.8" in wire.why.reason for wire in taps)


def test_a_feed_that_does_not_go_into_the_breakers_gets_blocks_whatever_the_practice_says() -> None:
    """By hand: 80 A want 35 mm²; a breaker of 6 to 25 A takes 16 mm²: it cannot be looped."""
    evaluation = plan_for(panel(2, Distribution.LOOPS))
    assert any(device.kind_id == "dist_block" for device in evaluation.get(CIRCUITS).devices)
    assert not [finding for finding in findings_of(evaluation.get(RULES)) if finding.code == "W04"]


@pytest.mark.parametrize(("upstream", "blocks"), [(20.0, False), (50.0, False), (63.0, True)])
def test_loops_as_long_as_they_fit(upstream: float, blocks: bool) -> None:
    """IEC 60204-1 Table 6 B1: 16 mm² carries 59 A, 25 mm² 77 A; motor breakers up to 25 A take 16 mm² (part data)."""
    evaluation = plan_for(set_supply(panel(2, Distribution.LOOPS), upstream_a=upstream))
    assert any(d.kind_id == "dist_block" for d in evaluation.get(CIRCUITS).devices) is blocks


def test_a_motor_protector_takes_less() -> None:
    """The smallest frames take 6 mm², which carries 31 A: 40 A upstream want 10 mm²."""
    job = change_load(panel(2, Distribution.LOOPS), LoadId("m1"), protection=Protection.PROTECTOR)
    kinds = [d.kind_id for d in plan_for(set_supply(job, upstream_a=40.0)).get(CIRCUITS).devices]
    assert "dist_block" in kinds
