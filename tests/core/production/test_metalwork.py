"""Ticks on holes and pieces: what counts, what does not since an edit, what was taken back."""

from dataclasses import replace

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.door import DOOR, move_on_door
from riktig.core.exports import metal_record
from riktig.core.holes import METAL_HOLES, Hole, HoleWork, Tool
from riktig.core.job import DeviceId, Job, set_practice
from riktig.core.plate import CUTS, LAYOUT, rail_changed, set_rails_and_ducts
from riktig.core.production import hole_facts, hole_states, hole_subject, piece_facts, piece_states, piece_subject
from riktig.core.records import Record, TakenBack

S2 = DeviceId("c1.S.start")


@pytest.fixture
def job() -> Job:
    return one_motor()


def start_hole(job: Job) -> Hole:
    return next(h for h in plan_for(job).get(METAL_HOLES) if h.key == f"device:{S2}#1")


def tick(hole: Hole, work: HoleWork, n: int = 1) -> Record:
    return Record(f"r{n}", hole_subject(hole), hole_facts(hole, work), "Ida", "2026-11-25T08:00:00+00:00", 1)


def test_work_goes_from_mark_to_deburr() -> None:
    hole = start_hole(one_motor())
    states = [
        hole_states((hole,), [tick(hole, work, n) for n, work in enumerate(list(HoleWork)[:count])])[0]
        for count in range(5)
    ]
    assert [state.next for state in states] == [*HoleWork, None]
    assert all(state.stale == "" for state in states)


def test_a_self_drilling_screw_is_only_marked_and_punched(job: Job) -> None:
    from riktig.core.job import Fixing

    screws = [
        h for h in plan_for(set_practice(job, fixing=Fixing.SELF_DRILLING)).get(METAL_HOLES) if h.tool is Tool.SCREW
    ]
    assert screws
    assert {h.operations for h in screws} == {(HoleWork.MARKED, HoleWork.PUNCHED)}
    assert {h.tool_said for h in screws} == {"screw ST4.8"}


def test_a_hole_that_moved_is_out_of_date_and_says_where_it_was(job: Job) -> None:
    hole, door = start_hole(job), plan_for(job).get(DOOR)
    records = [tick(hole, HoleWork.MARKED), tick(hole, HoleWork.MADE, 2)]
    seat = door.seat(S2)
    assert seat is not None
    moved = start_hole(move_on_door(job, door, [seat.at(200.0, 300.0)]))
    state = hole_states((moved,), records)[0]
    assert state.done == ()
    assert state.stale == "drilled at 145, 290; it is now at 200, 300"


def test_a_hole_of_another_size_must_be_made_again_but_its_mark_stands(job: Job) -> None:
    hole = start_hole(job)
    wider = replace(hole, drill=30.5)
    state = hole_states((wider,), [tick(hole, HoleWork.MARKED), tick(hole, HoleWork.MADE, 2)])[0]
    assert [work for work, _, _ in state.done] == [HoleWork.MARKED]
    assert state.stale == "drilled as 22.3; it is now 30.5"


def test_work_done_again_in_the_right_place_supersedes_what_was_done_in_the_wrong_one(job: Job) -> None:
    hole = start_hole(job)
    wrong = replace(hole, x=hole.x + 5)
    records = [tick(wrong, HoleWork.MARKED, 1), tick(hole, HoleWork.MARKED, 2)]
    state = hole_states((hole,), records)[0]
    assert state.stale == ""
    assert state.has(HoleWork.MARKED)
    back = hole_states((wrong,), records)[0]
    assert back.stale, "the last word is that it was marked where it is no longer wanted"


def test_another_number_leaves_what_is_done(job: Job) -> None:
    hole = start_hole(job)
    state = hole_states((replace(hole, number="DH77"),), [tick(hole, HoleWork.MADE)])[0]
    assert state.has(HoleWork.MADE)


def test_a_tick_taken_back_is_gone_and_the_log_keeps_both(job: Job) -> None:
    hole = start_hole(job)
    records = [tick(hole, HoleWork.MARKED), Record("c", hole_subject(hole), TakenBack(), "Ida", "t", 1, "r1")]
    assert hole_states((hole,), records)[0].done == ()
    assert hole_states((hole,), records[:1])[0].record_of(HoleWork.MARKED) == "r1"


def test_a_piece_is_cut_as_long_as_the_plan_has_it_so(job: Job) -> None:
    evaluation = plan_for(job)
    piece = next(p for p in evaluation.get(CUTS) if p.name == "R1")
    record = Record("p", piece_subject(piece), piece_facts(piece), "Ida", "t", 1)
    states = {state.piece.name: state for state in piece_states(evaluation.get(CUTS), [record])}
    assert states["R1"].done is not None
    assert states["R2"].done is None
    layout = evaluation.get(LAYOUT)
    longer = set_rails_and_ducts(job, layout, *rail_changed(layout, 1, x2=300.0))
    state = {one.piece.name: one for one in piece_states(plan_for(longer).get(CUTS), [record])}["R1"]
    assert state.done is None
    assert state.stale == "cut to 270 mm from rail 35 × 7.5; it is now 260 mm from rail 35 × 7.5"


def test_the_record_of_the_metal_has_every_hole_and_piece(job: Job) -> None:
    evaluation = plan_for(job)
    hole = start_hole(job)
    rows = metal_record(evaluation, [tick(hole, HoleWork.MARKED)]).rows
    mine = next(row for row in rows if row[0] == hole.number)
    assert mine[2:] == ("S2", "punch 22.3", "Ida 2026-11-25T08:00", "", "", "")
    assert {row[0] for row in rows} >= {piece.name for piece in evaluation.get(CUTS)}
