"""The door: where operators go, what does not fit, two doors, seen from behind; placed by hand."""

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.schematic.builders import one_motor
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.door import (
    DOOR,
    SHAFTS,
    DoorPlan,
    door_for_me,
    fix_door,
    in_column,
    in_row,
    lock_on_door,
    move_on_door,
    spread_on_door,
    to_door,
    to_plate,
    with_seats,
)
from riktig.core.errors import RiktigError
from riktig.core.geometry import Point
from riktig.core.holes import BLOCKERS, METAL_HOLES
from riktig.core.job import DeviceId, DoorFix, DoorPlace, HingeSide, Job, add_load, set_box, set_enclosure
from riktig.core.plate import LAYOUT
from riktig.core.proving import TESTS
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NAMES, with_names_recorded
from riktig.core.wiring import WIRING
from riktig.demo_job import demo_job

Q1, S1, S2, H1 = (DeviceId(one) for one in ("c0.Q", "c1.S.stop", "c1.S.start", "c1.H.run"))


def door_of(job: Job) -> DoorPlan:
    return plan_for(job).get(DOOR)


@pytest.fixture(scope="module")
def shed() -> Job:
    return demo_job()


def test_every_operator_stands_on_the_door_clear_of_all_others(shed: Job) -> None:
    door = door_of(shed)
    assert door.misfits == ()
    bodies = [seat.body for seat in door.seats]
    for n, body in enumerate(bodies):
        assert body.sticks_out_of(door.face) == 0
        assert all(body.overlap(other) == (0.0, 0.0) for other in bodies[n + 1 :])


def test_groups_stand_from_left_to_right_in_the_order_of_the_loads(shed: Job) -> None:
    door = door_of(shed)
    first: dict[str, tuple[float, float]] = {}
    for seat in door.seats:
        if not seat.is_shaft:
            first[seat.group] = min(first.get(seat.group, (9e9, 9e9)), (seat.y, seat.x))
    order = [first[group] for group in sorted(first)]
    assert all(a < b for a, b in pairwise(order)), "rows from the top, in a row from the left"


def test_in_a_group_lamps_stand_over_start_over_stop(shed: Job) -> None:
    door = door_of(shed)
    fan = {seat.device.split(".", 1)[1]: seat for seat in door.seats if seat.group == "c1"}
    assert fan["H.run"].y == fan["H.trip"].y < fan["S.start"].y < fan["S.stop"].y


def test_a_box_with_two_doors_has_two_hinges_and_a_handle_on_one_of_them(shed: Job) -> None:
    door = door_of(set_enclosure(shed, doors=2))
    left, right = door.leaves
    # By hand: 1000 mm wide, a fold of 15 mm on both sides of each door: 500 - 30 = 470 each, the right one from 500.
    assert (left.face.width, right.face.width, right.face.x) == (470.0, 470.0, 500.0)
    assert (left.hinge_x, right.hinge_x) == (0.0, 970.0)
    assert (left.hinged_right, right.hinged_right) == (False, True)
    assert door.misfits == ()
    assert {seat.leaf for seat in door.seats} == {"left door"}, "all with the handle, while they fit there"
    for seat in door.seats:
        assert seat.body.sticks_out_of(door.leaf(seat.leaf).face) == 0
    assert len(door.studs) == 2


def test_holes_of_a_right_door_are_measured_from_its_own_datum(shed: Job) -> None:
    job = set_enclosure(shed, doors=2)
    old = door_of(job).seat(S2)
    assert old is not None
    evaluation = plan_for(move_on_door(job, door_of(job), [old.at(700.0, 800.0)]))
    door, holes = evaluation.get(DOOR), {hole.key: hole for hole in evaluation.get(METAL_HOLES)}
    seat = next(seat for seat in door.seats if seat.leaf == "right door")
    assert seat.device == S2
    hole = holes[f"device:{seat.device}#1"]
    assert (hole.face, hole.x, hole.y) == ("right door", 200.0, 800.0)
    bonds = {h.purpose for h in holes.values() if "bond" in h.purpose}
    assert bonds == {"bond of the left door", "bond of the right door"}


@pytest.mark.parametrize("doors", [1, 2])
def test_seen_from_behind_twice_is_the_same_door(shed: Job, doors: int) -> None:
    door = door_of(set_enclosure(shed, doors=doors))
    behind = door.from_behind()
    assert behind != door
    assert behind.from_behind() == door
    for one, other in zip(door.seats, behind.seats, strict=True):
        assert one.x + other.x == pytest.approx(door.face.width)
        assert one.y == other.y


@given(x=st.floats(0, 970), y=st.floats(0, 1370), left=st.floats(0, 60), top=st.floats(0, 60), dl=st.floats(0, 60))
@settings(max_examples=60, deadline=None)
def test_from_plate_to_door_and_back_is_the_same_place(x: float, y: float, left: float, top: float, dl: float) -> None:
    box = replace(demo_job().enclosure, plate_left=left, plate_top=top, door_left=dl)
    there = to_door(to_plate(Point(x, y), box), box)
    assert there == pytest.approx((x, y), abs=0.16), "rounded to a tenth three times"


def test_an_operator_put_somewhere_stays_and_all_others_with_it(shed: Job) -> None:
    before = door_of(shed)
    seat = before.seat(S2)
    assert seat is not None
    moved = move_on_door(shed, before, [seat.at(700.0, 900.0)])
    after = door_of(moved)
    for one, other in zip(before.seats, after.seats, strict=False):
        there = after.seat(one.device)
        assert there is not None
        assert (there.x, there.y) == ((700.0, 900.0) if one.device == S2 else (one.x, one.y)), other


def test_a_moved_operator_moves_its_hole_and_nothing_else(shed: Job) -> None:
    fixed = fix_door(shed, door_of(shed))
    before = {hole.key: hole for hole in plan_for(fixed).get(METAL_HOLES)}
    seat = door_of(fixed).seat(S2)
    assert seat is not None
    after = {
        hole.key: hole
        for hole in plan_for(move_on_door(fixed, door_of(fixed), [seat.at(seat.x + 3, seat.y)])).get(METAL_HOLES)
    }
    changed = {key for key in before if (before[key].x, before[key].y) != (after[key].x, after[key].y)}
    assert changed == {f"device:{S2}#1"}
    assert before.keys() == after.keys()


def test_the_handle_and_what_is_locked_are_not_moved(shed: Job) -> None:
    door = door_of(shed)
    handle, seat = door.seat(Q1), door.seat(S2)
    assert handle is not None
    assert seat is not None
    with pytest.raises(RiktigError, match="stands over the isolator"):
        move_on_door(shed, door, [handle.at(300.0, 300.0)])
    locked = lock_on_door(shed, door, frozenset({S2}), True)
    there = door_of(locked).seat(S2)
    assert there is not None
    with pytest.raises(RiktigError, match="locked"):
        move_on_door(locked, door_of(locked), [there.at(10.0, 10.0)])


def test_planning_the_door_keeps_what_is_locked_and_gives_the_rest_back(shed: Job) -> None:
    door = door_of(shed)
    seat = door.seat(S2)
    assert seat is not None
    job = lock_on_door(
        move_on_door(shed, door, [seat.at(700.0, 900.0)]),
        door_of(move_on_door(shed, door, [seat.at(700.0, 900.0)])),
        frozenset({S2}),
        True,
    )
    again = door_of(door_for_me(job))
    there = again.seat(S2)
    assert there is not None
    assert (there.x, there.y) == (700.0, 900.0)
    assert door_for_me(door_for_me(shed)).door is None
    assert again.misfits == ()


def test_a_new_operator_goes_below_those_of_its_load_when_the_door_is_fixed() -> None:
    job = one_motor()
    begun = fix_door(job, door_of(job))
    more = with_names_recorded(add_load(begun, "rinse pump", 0.37))
    before, after = door_of(begun), door_of(more)
    assert all(after.seat(seat.device) == seat for seat in before.seats if not seat.is_shaft)
    assert len(after.seats) > len(before.seats)


def test_an_operator_outside_the_door_is_said_with_how_far_and_blocks_the_drill(shed: Job) -> None:
    door = door_of(shed)
    seat = door.seat(S1)
    assert seat is not None
    job = move_on_door(shed, door, [seat.at(975.0, 600.0)])
    evaluation = plan_for(job)
    said = [m.said(evaluation.get(NAMES).tag) for m in evaluation.get(DOOR).misfits]
    # By hand: the legend plate is 50 wide: 975 + 25 - 970 = 30 past the edge; the hole 975 + 11.15 - 970 = 16.
    assert any(text == "S1 reaches 30 mm past the door's edge" for text in said)
    assert any("reaches 16 mm past the edge of the door" in one.text for one in evaluation.get(BLOCKERS))


def test_two_operators_on_one_place_are_too_near_and_their_holes_cut_into_each_other(shed: Job) -> None:
    door = door_of(shed)
    one, other = door.seat(S1), door.seat(S2)
    assert one is not None
    assert other is not None
    evaluation = plan_for(move_on_door(shed, door, [one.at(other.x + 20, other.y)]))
    tags = evaluation.get(NAMES).tag
    assert any("too near" in m.said(tags) for m in evaluation.get(DOOR).misfits)
    # By hand: 20 apart, two holes of 22.3: 2.3 mm of each other.
    assert any("cut 2.3 mm into each other" in one.text for one in evaluation.get(BLOCKERS))


def test_the_pitch_of_the_standard_is_kept_by_what_has_no_legend() -> None:
    # IEC 60947-5-1, from memory: D22 30 mm across or 40 mm down without legends. Bodies of 30 × 36 mm that do not
    # touch at 29 across and 38 down are still too near: 1 mm across or 2 mm down are wanting.
    job = one_motor()
    door = door_of(job)
    bare = [replace(seat, legend="") for seat in door.seats if not seat.is_shaft][:2]
    pair = (bare[0].at(150.0, 300.0), bare[1].at(179.0, 338.0))
    layout, box = plan_for(job).get(LAYOUT), set_box(job, 400.0, 600.0, 300.0).enclosure
    near = with_seats(replace(door, seats=pair), pair, layout, box)
    assert [m.by for m in near.misfits] == [pytest.approx(1.0)]
    clear = (pair[0], pair[1].at(180.0, 338.0))
    assert with_seats(replace(door, seats=clear), clear, layout, box).misfits == ()


def test_operators_are_put_in_line_and_at_even_distances(shed: Job) -> None:
    door = door_of(shed)
    some = [seat for seat in door.seats if seat.group == "c4"][:4]
    assert {seat.y for seat in in_row(some)} == {some[0].y}
    assert {seat.x for seat in in_column(some)} == {some[0].x}
    apart = [some[0].at(100.0, 50.0), some[1].at(131.0, 90.0), some[2].at(400.0, 20.0)]
    assert sorted(seat.x for seat in spread_on_door(apart)) == [100.0, 250.0, 400.0]
    assert spread_on_door(some[:2]) == tuple(some[:2])


@given(
    spots=st.lists(st.tuples(st.floats(-50, 1100), st.floats(-50, 1500)), min_size=24, max_size=24),
    hinge=st.sampled_from(HingeSide),
    doors=st.sampled_from([1, 2]),
)
@settings(max_examples=times(10, 100), deadline=None)
def test_any_door_by_hand_is_planned_as_it_is_and_the_same_seen_twice_from_behind(
    spots: list[tuple[float, float]], hinge: HingeSide, doors: int
) -> None:
    job = set_enclosure(demo_job(), hinge=hinge, doors=doors)
    seats = [seat for seat in door_of(job).seats if not seat.is_shaft]
    places = tuple(DoorPlace(seat.device, round(x, 1), round(y, 1)) for seat, (x, y) in zip(seats, spots, strict=False))
    door = door_of(replace(job, door=DoorFix(places)))
    for place in places:
        seat = door.seat(place.device)
        assert seat is not None
        assert (seat.x, seat.y) == (place.x, place.y)
    assert door.from_behind().from_behind() == door


def test_sixty_operators_find_room_on_two_doors_in_reading_order() -> None:
    job = set_box(one_motor(), 1200.0, 1800.0, 400.0)
    for n in range(14):
        job = add_load(job, f"fan {n}", 1.1)
    door = door_of(with_names_recorded(set_enclosure(job, doors=2)))
    assert len(door.seats) >= 60
    assert [m for m in door.misfits if "edge" in m.text or "too near" in m.text] == []


def test_a_door_that_is_too_small_is_planned_all_the_same_and_says_what_lacks() -> None:
    job = one_motor()
    for n in range(8):
        job = add_load(job, f"fan {n}", 0.37)
    door = door_of(with_names_recorded(set_box(job, 300.0, 400.0, 200.0)))
    assert door.misfits
    assert len({seat.device for seat in door.seats}) == len(door.seats)


def test_the_same_input_gives_the_same_door(shed: Job) -> None:
    evaluation = plan_for(shed)
    again = DOOR.call(evaluation.memory, evaluation.inputs_of(DOOR))
    assert again == evaluation.get(DOOR)
    switch = evaluation.get(LAYOUT).seat(Q1)
    assert switch is not None
    edge = (shed.enclosure.width - shed.enclosure.plate_width) / 2 - (1000.0 - 970.0) / 2
    on_door = evaluation.get(SHAFTS)[0].on_door
    middle = Point(switch.rect.x + switch.rect.width / 2 + edge, switch.rect.y + switch.rect.height / 2 + edge)
    assert (on_door.x, on_door.y) == pytest.approx((middle.x, middle.y), abs=0.1)


def test_each_of_two_doors_has_a_bond_and_a_loom_of_its_own() -> None:
    """The hinge is no bond: the right door has a stud, an earth conductor and its bonding test of its own."""
    job = with_names_recorded(set_enclosure(set_box(one_motor(), 800.0, 1000.0, 300.0), doors=2))
    old = door_of(job)
    seat = old.seat(S2)
    assert seat is not None
    evaluation = plan_for(move_on_door(job, old, [seat.at(600.0, 400.0)]))
    tags, wires = evaluation.get(NAMES).tag, evaluation.get(WIRING).wires
    bonds = {device.id for device in evaluation.get(CIRCUITS).devices if device.purpose.startswith("bond of the")}
    assert bonds == {"c0.E.door", "c0.E.door2"}
    earth = {w.end.pin for w in wires if w.colour == "green-yellow"} | {
        w.start.pin for w in wires if w.colour == "green-yellow"
    }
    assert {"c0.E.door:1", "c0.E.door2:1"} <= set(map(str, earth))
    mm2 = {w.mm2 for w in wires if "E.door" in w.key}
    assert len(mm2) == 1, "both by the supply conductor"
    assert {t.key for t in evaluation.get(TESTS).tests} >= {"bond:c0.E.door:1", "bond:c0.E.door2:1"}
    assert tags[DeviceId("c0.E.door2")] != tags[DeviceId("c0.E.door")]
    to_right = [w for w in wires if "c1.S.start" in w.key]
    assert to_right
    assert next(r for r in evaluation.get(RULES) if r.code == "E09").verdict is Verdict.MEETS


@given(spots=st.lists(st.tuples(st.floats(40, 500), st.floats(60, 500)), min_size=24, max_size=24))
@settings(max_examples=times(12, 100), deadline=None)
def test_all_operators_that_overlap_are_said_to_be_too_near_and_no_others(spots: list[tuple[float, float]]) -> None:
    """Against all pairs of outlines: only near neighbours are looked at, and none may be missed."""
    job = demo_job()
    door = door_of(job)
    seats = [seat for seat in door.seats if not seat.is_shaft]
    moved = [seat.at(x, y) for seat, (x, y) in zip(seats, spots, strict=False)]
    there = with_seats(door, moved, plan_for(job).get(LAYOUT), job.enclosure)
    said = {frozenset((m.device, m.against)) for m in there.misfits if "too near" in m.text}
    overlapping = {
        frozenset((one.device, other.device))
        for n, one in enumerate(there.seats)
        for other in there.seats[n + 1 :]
        if min(one.body.overlap(other.body)) > 0.05
    }
    assert overlapping <= said
    for pair in said - overlapping:
        # What does not overlap and is still too near stands closer than the standard's pitch of 30 by 50 mm.
        one, other = (there.seat(DeviceId(device)) for device in pair)
        assert one is not None
        assert other is not None
        assert abs(one.x - other.x) < 30
        assert abs(one.y - other.y) < 50
