"""What belongs together stands together: cards of a controller, an interlock between its contactors."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import DeviceId, Job, Placement, Start, add_load, new_job, set_enclosure
from riktig.core.optimiser.replan import replan_of
from riktig.core.plate import LAYOUT, Layout, apart, move_block, plan_for_me
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.demo_job import demo_job


def along(layout: Layout, *devices: str) -> list[str]:
    """Some devices of one rail in the order in which they stand, with all that stands between them."""
    seats = sorted((s for s in layout.seats), key=lambda seat: (seat.rail, seat.rect.x))
    names = [str(seat.device) for seat in seats]
    first, last = min(map(names.index, devices)), max(map(names.index, devices))
    assert len({seat.rail for seat in seats[first : last + 1]}) == 1
    return names[first : last + 1]


def reversing() -> Job:
    job = add_load(new_job(), "sluice gate", 5.5, start=Start.REVERSING)
    job = add_load(job, "belt", 5.5, start=Start.STAR_DELTA)
    return with_names_recorded(job)


def alone(job: Job, device: str, rail: int, offset: float) -> Job:
    """The job as one stands that was worked on before groups were kept: a part with a place of its own."""
    fixed = move_block(job, plan_for(job).get(LAYOUT), DeviceId("c1.K"), 1, 2.0)
    assert fixed.plate is not None
    placed = (*fixed.plate.placements, Placement(DeviceId(device), rail, offset))
    return replace(fixed, plate=replace(fixed.plate, placements=placed))


@pytest.mark.parametrize(
    "devices",
    [("s4.A", "s4.AI0", "s4.AQ0", "s4.AO0"), ("c1.KD", "c1.KI", "c1.KS"), ("c3.K", "c3.KI", "c3.KR")],
    ids=["cards", "star and delta", "forward and reverse"],
)
def test_groups_of_the_shed_stand_in_their_order_with_nothing_between(devices: tuple[str, ...]) -> None:
    evaluation = plan_for(demo_job("kelp-shed"))
    assert along(evaluation.get(LAYOUT), devices[0], devices[-1]) == list(devices)
    assert apart(evaluation.get(LAYOUT), evaluation.get(CIRCUITS)) == ()


def test_a_plan_that_was_searched_keeps_them_together() -> None:
    evaluation = plan_for(demo_job("kelp-shed"))
    replan = replan_of(evaluation)
    planned = replan.layout(replan.search(20_000))
    assert apart(planned, evaluation.get(CIRCUITS)) == ()


def test_they_move_as_one() -> None:
    job = reversing()
    before = plan_for(job).get(LAYOUT)
    after = plan_for(move_block(job, before, DeviceId("c1.KR"), 1, 60.0)).get(LAYOUT)

    def steps(layout: Layout) -> list[float]:
        x = {str(seat.device): seat.rect.x for seat in layout.seats}
        return [round(x[b] - x[a], 2) for a, b in (("c1.K", "c1.KI"), ("c1.KI", "c1.KR"))]

    rails = {seat.rail for seat in after.seats if seat.device in {"c1.K", "c1.KI", "c1.KR"}}
    assert rails == {1}
    assert steps(after) == steps(before)


def test_a_part_with_a_place_of_its_own_stays_there_and_the_rules_say_so() -> None:
    job = alone(reversing(), "c1.KR", 1, 150.0)
    result = next(result for result in plan_for(job).get(RULES) if result.code == "P10")
    assert result.verdict is Verdict.JUDGE
    assert any("does not stand beside" in finding.message for finding in result.findings)
    planned = plan_for_me(job)
    again = next(result for result in plan_for(planned).get(RULES) if result.code == "P10")
    assert again.verdict is Verdict.MEETS


def test_a_group_that_is_longer_than_the_rail_is_not_pressed_onto_it() -> None:
    narrow = set_enclosure(reversing(), width=200.0, plate_width=150.0)
    evaluation = plan_for(narrow)
    blocks = {stand.block.lead: stand.block for stand in evaluation.get(LAYOUT).stands}
    assert len(blocks[DeviceId("c2.KD")].members) == 1


def test_a_panel_without_groups_has_nothing_to_keep_together() -> None:
    evaluation = plan_for(demo_job("frost-fan"))
    result = next(result for result in evaluation.get(RULES) if result.code == "P10")
    assert result.grounds == ("no controller with cards and no two contactors that exclude each other stand here",)


def test_a_screwed_part_stands_at_the_right_end_and_leaves_the_rail_before_it_free() -> None:
    """A drive in the middle of its row would cut the rail, and what lies behind it would be lost."""
    evaluation = plan_for(demo_job("kelp-shed"))
    layout = evaluation.get(LAYOUT)
    drive = next(seat for seat in layout.seats if seat.device == "c5.U")
    rail = min(layout.rails, key=lambda rail: abs(rail.y - drive.rect.centre.y))
    right = max(other.x2 for other in layout.rails)
    assert right - drive.rect.right < 20.0
    assert drive.rect.x - 20.0 < rail.x2 < drive.rect.x
    assert all(seat.rect.right < rail.x2 + 1.0 for seat in layout.seats if seat.rail == rail.number)
