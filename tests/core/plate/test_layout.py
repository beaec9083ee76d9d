"""The plate: everything placed at once, nothing over anything, the builder's hand respected."""

from itertools import combinations, pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import box as shape
from tests.core.schematic.builders import door_begun
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.door import DOOR
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Rect
from riktig.core.job import ControlSupply, DeviceId, Job, add_load, new_job, set_enclosure, set_practice
from riktig.core.plate import (
    LAYOUT,
    Layout,
    body_of,
    fix_as_it_is,
    move_block,
    plan_for_me,
    rail_changed,
    set_lock,
    set_rails_and_ducts,
    with_block_at,
)
from riktig.core.rules import larger_enclosure
from riktig.core.schematic import with_names_recorded

K1, F1, F2, Q1 = (DeviceId(name) for name in ("c1.K", "c1.F", "c1.FC", "c0.Q"))


def layout_of(job: Job) -> Layout:
    return plan_for(job).get(LAYOUT)


def overlaps(layout: Layout) -> float:
    """Area that seats take from each other or from ducts, by shapely, mm²."""
    shapes = [shape(s.rect.x, s.rect.y, s.rect.right, s.rect.bottom) for s in layout.seats]
    ducts = [shape(d.rect.x, d.rect.y, d.rect.right, d.rect.bottom) for d in layout.ducts]
    seats = sum(a.intersection(b).area for a, b in combinations(shapes, 2))
    return float(seats) + sum(a.intersection(d).area for a in shapes for d in ducts)


def test_everything_on_the_plate_is_placed_at_once_and_fits(evaluation: Evaluation[Job]) -> None:
    layout = evaluation.get(LAYOUT)
    assert layout.misfits == ()
    assert overlaps(layout) < 0.5, "but for rounding to a hundredth"
    assert all(seat.rect.sticks_out_of(layout.plate) == 0 for seat in layout.seats)


@pytest.mark.parametrize("count", [1, 2, 3, 5])
def test_more_motors_fit_a_box_that_is_large_enough(count: int) -> None:
    job = new_job()
    for n in range(count):
        job = add_load(job, f"fan {n}", 2.2)
    job = with_names_recorded(job)
    for _ in range(12):
        if not layout_of(job).misfits:
            break
        job = larger_enclosure(job)
    assert layout_of(job).misfits == ()
    assert overlaps(layout_of(job)) < 0.5


def test_a_plate_that_is_too_small_says_by_how_many_mm_and_against_what() -> None:
    job = with_names_recorded(add_load(new_job(), "fan", 4))
    small = set_enclosure(job, width=300.0, height=400.0, plate_width=250.0, plate_height=350.0)
    misfits = layout_of(small).misfits
    assert misfits
    assert all(m.by > 0 and m.against and "mm" in m.text for m in misfits)
    by = {m.device: m.by for m in misfits if m.against == "plate"}
    lowest = max(s.rect.bottom for s in layout_of(small).seats if s.device.startswith("c1.X"))
    assert by[DeviceId("c1.X.U")] == pytest.approx(lowest - 345, abs=0.1)


def test_moving_one_part_leaves_the_others_where_they_stand(demo: Job) -> None:
    before = layout_of(demo)
    after = layout_of(move_block(demo, before, F2, 1, 150.0))
    for seat in before.seats:
        if seat.device != F2:
            assert after.seat(seat.device) == seat
    moved = after.seat(F2)
    assert moved is not None
    assert moved.rect.x == 40 + 150


def test_a_contactor_takes_its_overload_along(demo: Job) -> None:
    layout = layout_of(demo)
    after = layout_of(move_block(demo, layout, DeviceId("c1.FO"), 2, 80.0))
    contactor, overload = after.seat(K1), after.seat(DeviceId("c1.FO"))
    assert contactor is not None
    assert overload is not None
    assert overload.rect.y == contactor.rect.bottom
    assert overload.rect.x == contactor.rect.x == 120


@pytest.mark.parametrize(
    ("device", "rail", "offset", "against", "by"),
    [(F2, 1, 100.0, "c1.F", 13.0), (F2, 1, 260.0, "R1", 8.0), (Q1, 1, -12.0, "R1", 12.0), (K1, 1, 200.0, "D4", 60.0)],
    ids=["into its neighbour", "past the rail", "past the left end", "too tall for the row"],
)
def test_what_does_not_fit_says_by_how_much(
    demo: Job, device: DeviceId, rail: int, offset: float, against: str, by: float
) -> None:
    layout = layout_of(move_block(demo, layout_of(demo), device, rail, offset))
    found = {(m.device, m.against): m.by for m in layout.misfits}
    sizes = [v for (one, other), v in found.items() if against in (one, other)]
    assert sizes == [pytest.approx(by)]


def test_the_preview_of_a_drag_agrees_with_the_plan_after_it(demo: Job) -> None:
    layout = layout_of(demo)
    for offset in (0.0, 55.5, 130.0, 400.0):
        preview = with_block_at(layout, F1, 1, offset)
        planned = layout_of(move_block(demo, layout, F1, 1, offset))
        assert preview.misfits == planned.misfits
        assert set(preview.seats) == set(planned.seats)


@settings(max_examples=60, deadline=None)
@given(st.sampled_from([K1, F1, F2, Q1]), st.integers(1, 3), st.floats(-50, 350))
def test_misfits_agree_with_shapely_wherever_a_part_is_put(device: DeviceId, rail: int, offset: float) -> None:
    job = with_names_recorded(add_load(new_job(), "fan", 4))
    layout = with_block_at(layout_of(job), device, rail, round(offset, 1))
    area = overlaps(layout)
    if area > 1:
        assert layout.misfits, "shapely sees an overlap, so must we"
    if not layout.misfits:
        assert area < 0.5


def test_a_lock_holds_against_the_hand_and_against_the_plan(demo: Job) -> None:
    layout = layout_of(demo)
    moved = move_block(demo, layout, F2, 1, 150.0)
    locked = set_lock(moved, layout_of(moved), F2, True)
    with pytest.raises(RiktigError, match="locked"):
        move_block(locked, layout_of(locked), F2, 1, 10.0)
    planned = layout_of(plan_for_me(locked))
    seat = planned.seat(F2)
    assert seat is not None
    assert seat.rect.x == 190
    assert planned.misfits == ()


def test_plan_for_me_gives_everything_back_that_is_not_locked(demo: Job) -> None:
    moved = move_block(demo, layout_of(demo), F2, 1, 150.0)
    assert plan_for_me(moved).plate is None
    assert layout_of(plan_for_me(moved)) == layout_of(demo)
    assert plan_for_me(demo) is demo


def test_fixing_everything_where_it_is_changes_nothing(demo: Job) -> None:
    assert layout_of(fix_as_it_is(demo, layout_of(demo))) == layout_of(demo)


def test_a_new_part_takes_a_gap_and_leaves_what_was_fixed(demo: Job) -> None:
    demo = set_practice(demo, control_supply=ControlSupply.DIRECT)
    fixed = fix_as_it_is(demo, layout_of(demo))
    after = layout_of(with_names_recorded(add_load(fixed, "pump", 1.1)))
    assert after.seat(K1) == layout_of(demo).seat(K1)
    assert after.seat(DeviceId("c2.K")) is not None
    assert not [m for m in after.misfits if m.device in (K1, DeviceId("c2.K"))]


@pytest.mark.parametrize("what", ["c1.M", "c1.S.stop"])
def test_what_stands_on_no_rail_is_not_moved(demo: Job, what: str) -> None:
    with pytest.raises(RiktigError, match="rail"):
        move_block(demo, layout_of(demo), DeviceId(what), 1, 0)
    with pytest.raises(RiktigError, match="R9"):
        move_block(demo, layout_of(demo), F1, 9, 0)


def test_more_finger_room_asks_for_more_height(demo: Job) -> None:
    roomy = set_practice(demo, finger_room=40.0)
    assert layout_of(roomy).rails[-1].y > layout_of(demo).rails[-1].y


def test_pins_stand_on_their_part_and_terminals_side_by_side(evaluation: Evaluation[Job]) -> None:
    layout = evaluation.get(LAYOUT)
    for seat in some(layout.seats):
        for pin in some(seat.part.kind.pins):
            assert seat.rect.holds(seat.pin_point(pin.name))
    strip = [layout.seat(DeviceId(f"c0.X.{name}")) for name in ("L1", "L2", "L3", "N", "PE")]
    for one, other in some(pairwise(strip)):
        assert one is not None
        assert other is not None
        assert other.rect.x == pytest.approx(one.rect.right, abs=0.02)


def test_a_body_is_its_block_on_its_rail(evaluation: Evaluation[Job]) -> None:
    layout = evaluation.get(LAYOUT)
    block, number, offset = next(b for b in layout.blocks if b[0].lead == K1)
    rail = layout.rails[number - 1]
    assert body_of(block, rail, offset) == Rect(45, rail.y - 40.5, 45, 81 + 62)


def test_the_shaft_is_the_isolators_middle_projected_onto_the_door(evaluation: Evaluation[Job]) -> None:
    seat = evaluation.get(LAYOUT).seat(Q1)
    handle = next(s for s in evaluation.get(DOOR).seats if s.device == Q1)
    assert seat is not None
    # Plate 25 mm inside the box, door face 15 mm inside: 10 mm between the two datums.
    assert (handle.x, handle.y) == (seat.rect.centre.x + 10, seat.rect.centre.y + 10)


def test_operators_keep_the_pitch_of_the_standard_and_stay_on_the_door(two_motors: Job) -> None:
    door = plan_for(two_motors).get(DOOR)
    operators = [s for s in door.seats if s.device != Q1]
    for one, other in combinations(operators, 2):
        assert abs(one.x - other.x) >= 30 or abs(one.y - other.y) >= 50
    assert all(0 < s.x < door.face.width and 0 < s.y < door.face.height for s in operators)


def test_with_the_handle_low_the_operators_stand_above_it_and_on_the_door(demo: Job) -> None:
    job = set_enclosure(demo, width=800.0, height=1000.0, plate_width=750.0, plate_height=950.0)
    layout = layout_of(job)
    last = layout.rails[-1].number
    far = set_rails_and_ducts(job, layout, *rail_changed(layout, last, y=800.0))
    deep = plan_for(move_block(far, plan_for(far).get(LAYOUT), Q1, last, 400.0)).get(DOOR)
    handle = next(s for s in deep.seats if s.device == Q1)
    others = [s for s in deep.seats if s.device != Q1]
    assert handle.y > deep.face.height / 2
    assert all(s.y < handle.y - 33 for s in others)
    assert [m for m in deep.misfits if "edge" in m.text] == []


def test_a_box_that_is_too_shallow_is_said_with_the_depth_it_lacks(two_motors: Job) -> None:
    three = with_names_recorded(add_load(two_motors, "belt", 1.1))
    misfits = plan_for(set_enclosure(three, plate_depth=100.0)).get(DOOR).misfits
    assert misfits
    assert any("more depth in front of" in m.text for m in misfits)
    assert all(("depth" in m.text or "swings" in m.text) and m.by > 0 for m in misfits)


def test_another_load_moves_no_hole_that_may_have_been_cut(two_motors: Job) -> None:
    begun = door_begun(two_motors)
    before = {s.device: (s.x, s.y) for s in plan_for(begun).get(DOOR).seats}
    after = {s.device: (s.x, s.y) for s in plan_for(with_names_recorded(add_load(begun, "belt", 1.1))).get(DOOR).seats}
    assert all(after[device] == at for device, at in before.items())
