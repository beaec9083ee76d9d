"""Distribution blocks: each breaker from a way of its own, thin taps, further blocks when the ways run out."""

import pytest

from riktig.core.evaluation import Evaluation
from riktig.core.job import ControlSupply, Distribution, Job, add_load, new_job, set_box, set_practice, set_supply
from riktig.core.plate import LAYOUT
from riktig.core.rules import RULES, Verdict, findings_of
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
    evaluation = Evaluation(panel(motors))
    found = [d for d in evaluation.get(CIRCUITS).devices if d.kind_id == "dist_block"]
    assert len(found) == blocks
    assert all(evaluation.get(LAYOUT).seat(d.id) for d in found)
    # Three wires from the isolator, three a motor and one for its control, three from block to block.
    assert len(feeds(evaluation)) == 3 + 4 * motors + 3 * (blocks - 1)


def test_no_way_takes_two_wires_and_nothing_is_crowded() -> None:
    evaluation = Evaluation(panel(7))
    ends = [end.pin for wire in feeds(evaluation) for end in (wire.start, wire.end)]
    assert len(ends) == len(set(ends)), "no feed is looped"
    crowded = [one for one in evaluation.get(WIRING).crowded if ":N" not in one.label]
    assert crowded == []


def test_the_supply_side_is_thick_and_each_tap_as_its_circuit_needs() -> None:
    """By hand: 80 A upstream want 35 mm² (96 A); 8.5 A among four grouped 13.5 x 0.65 = 8.8 A: 1.5 mm²."""
    evaluation = Evaluation(panel(4))
    found = {(wire.mm2, "c0.Q:" in f"{wire.start.pin}|{wire.end.pin}") for wire in feeds(evaluation)}
    assert (35.0, True) in found
    taps = [w for w in feeds(evaluation) if not any(end.pin.device == "c0.Q" for end in (w.start, w.end))]
    thin = {wire.mm2 for wire in taps if not all(end.pin.device.startswith("c0.XD") for end in (wire.start, wire.end))}
    assert thin == {1.5}
    assert any("7.2.8" in wire.why.reason for wire in taps)


def test_loops_of_the_same_supply_do_not_fit_the_breakers() -> None:
    """35 mm² looped through clamps for 16 mm²: what the blocks are for."""
    looped = [f for f in findings_of(Evaluation(panel(2, Distribution.LOOPS)).get(RULES)) if f.code == "W04"]
    blocks = [f for f in findings_of(Evaluation(panel(2)).get(RULES)) if f.code == "W04"]
    assert any("35 mm² in a clamp for 1 to 16 mm²" in f.message for f in looped)
    assert not any("35 mm² in a clamp" in f.message for f in blocks)
    assert all(f.verdict is Verdict.FAILS for f in looped)


def test_a_panel_with_loops_has_no_block() -> None:
    kinds = [d.kind_id for d in Evaluation(panel(2, Distribution.LOOPS)).get(CIRCUITS).devices]
    assert "dist_block" not in kinds
