"""The shaft: its centre through both datums, the length to cut, and by how much a handle misses."""

from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.door import SHAFTS, engagement_of
from riktig.core.exports import site_items
from riktig.core.job import Job, Param, Recipe, Rulebook, ShaftFitting, set_enclosure, set_practice
from riktig.core.rules import RULES, Verdict, apply_mend
from riktig.core.schematic import with_names_recorded


def shaft_of(job: Job):  # type: ignore[no-untyped-def]
    return plan_for(job).get(SHAFTS)[0]


def test_the_worked_example() -> None:
    """By hand: isolator 54 × 68 from (45, 68.5) on a plate of 350 × 550 in a box of 400 × 600, 170 mm to the door.

    Centre on the plate (72, 102.5); plate 25 mm from the box's edge, door face 15 mm: (82, 112.5) on the door.
    The isolator is 82 mm deep: 170 - 82 = 88 mm to the door, 1.5 mm of sheet, 15 mm into the switch, 25 mm into the
    handle: 129.5 mm. A wall 5 mm/m out of square over the free 89.5 mm: 0.4475 mm; 3 mm are taken at 33.5 mm/m.
    """
    shaft = shaft_of(one_motor())
    assert shaft.on_plate == (72.0, 102.5)
    assert shaft.on_door == shaft.on_leaf == (82.0, 112.5)
    assert shaft.length == 129.5
    engaged = engagement_of(shaft, one_motor().practice)
    assert engaged.misses == pytest.approx(0.4475)
    assert engaged.most_skew == pytest.approx(3000 / 89.5)
    assert engaged.engages


def test_measured_datums_carry_the_centre() -> None:
    # The plate hangs 28 mm from the left edge and 24 from the top, the door's datum is 14 mm in: 72 + 28 - 14 = 86.
    job = set_enclosure(one_motor(), plate_left=28.0, plate_top=24.0, door_left=14.0)
    assert shaft_of(job).on_door == (86.0, 111.5)
    lines = shaft_of(job).why.lines
    assert lines[0] == "across 72 + 28 − 14 = 86 mm"


def test_a_skew_that_is_too_much_is_a_finding_with_a_mend_and_moves_the_hole_to_the_site() -> None:
    job = set_practice(one_motor(), wall_skew=40.0)
    engaged = engagement_of(shaft_of(job), job.practice)
    assert engaged.misses == pytest.approx(89.5 * 40 / 1000)
    assert not engaged.engages
    result = next(r for r in plan_for(job).get(RULES) if r.code == "P07")
    assert result.verdict is Verdict.FAILS
    quick_fix = result.findings[0].quick_fix
    assert quick_fix is not None
    after = apply_mend(job, quick_fix)
    assert after.practice.shaft is ShaftFitting.SITE
    assert next(r for r in plan_for(after).get(RULES) if r.code == "P07").verdict is Verdict.MEETS
    assert any("cut the hole" in what and "129.5" in what for what, _ in site_items(plan_for(after)))


def test_a_measured_centre_that_is_off_eats_into_what_the_wall_may_do() -> None:
    job = one_motor()
    whole, off = engagement_of(shaft_of(job), job.practice), engagement_of(shaft_of(job), job.practice, off=2.0)
    assert off.misses == pytest.approx(whole.misses + 2.0)
    assert off.most_skew == pytest.approx(1000 / 89.5)
    assert not engagement_of(shaft_of(job), job.practice, off=2.6).engages


def test_the_inner_handle_is_there_where_the_rulebook_wants_it() -> None:
    assert not shaft_of(one_motor()).inner_handle
    american = one_motor(rulebook=Rulebook.UL)
    assert shaft_of(american).inner_handle
    without = replace(
        american,
        circuits=tuple(
            replace(c, params=(Param("handle inside", "no"),)) if c.recipe is Recipe.INCOMER else c
            for c in american.circuits
        ),
    )
    result = next(r for r in plan_for(with_names_recorded(without)).get(RULES) if r.code == "P07")
    assert [f.message for f in result.findings] == ["Q1 has no handle inside to switch it with the door open."]


def test_in_the_workshop_the_site_still_tries_the_handle() -> None:
    items = [what for what, _ in site_items(plan_for(one_motor()))]
    assert not any("cut the hole" in what for what in items)
    assert any(what.startswith("Try the handle of Q1") for what in items)
