"""A change order as work: closed only when the panel is as drawn again, whatever was made and ticked before."""

import random

import pytest
from tests.core.schematic.builders import door_begun, one_motor
from tests.effort import each_once, some
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.job import ElementId, Insertable, Job, LoadId, change_load, set_practice
from riktig.core.production import WORK, Operation, WireChange, progress_of, tick_facts, wire_work
from riktig.core.proving import TESTS, reading_facts
from riktig.core.records import NewRecord, Outcome, Record, TaskDone, WireDone
from riktig.core.schematic import insert_contact, with_names_recorded
from riktig.core.views import ChangeLine, change_paper, change_work
from riktig.core.wiring import WIRING
from riktig.demo_job import kelp_shed

ORDER = "change:1"


def as_records(entries: list[NewRecord], start: int) -> list[Record]:
    return [
        Record(f"r{start + n}", entry.subject, entry.facts, "Ida", "2026-12-01T08:00:00", 2, entry.corrects)
        for n, entry in enumerate(entries)
    ]


def built(evaluation: Evaluation[Job], share: float, seed: int) -> list[Record]:
    """A panel of which some wires are in, and everything else of the bench is done and tested."""
    wires = list(evaluation.get(WIRING).wires)
    random.Random(seed).shuffle(wires)
    entries = [
        NewRecord(wire.key, tick_facts(wire, operation))
        for wire in wires[: round(len(wires) * share)]
        for operation in Operation
    ]
    entries += [NewRecord(task.subject, task.facts) for task in evaluation.get(WORK)]
    tests = evaluation.get(TESTS).tests
    entries += [NewRecord(t.key, reading_facts(t, Outcome.PASSED, ohm=0.2, meter="M-1")) for t in tests]
    return as_records(entries, 0)


def finish(after: Evaluation[Job], records: list[Record], lines: tuple[ChangeLine, ...]) -> list[NewRecord]:
    """What a builder records to finish a change: by hand what is ticked in the order, else at its own place."""
    entries: list[NewRecord] = []
    progress = progress_of(after.get(WIRING), records)
    tests = {f"{test.title}, {test.black.label} to {test.red.label}": test for test in after.get(TESTS).tests}
    tasks = {f"{task.stage.value}: {task.title}": task for task in after.get(WORK)}
    for line in lines:
        if line.by_hand:
            entries += line.by_hand
        elif line.wire and line.wire.after:
            state = progress.of(line.wire.after.key)
            assert state is not None
            entries += [NewRecord(state.wire.key, tick_facts(state.wire, op)) for op in Operation if not state.has(op)]
        elif line.station == "Prove":
            entries.append(
                NewRecord(tests[line.name].key, reading_facts(tests[line.name], Outcome.PASSED, ohm=0.2, meter="M-1"))
            )
        else:
            entries.append(NewRecord(tasks[line.name].subject, tasks[line.name].facts))
    return entries


CHANGES = {
    "no run lamp": lambda job: change_load(job, LoadId("m1"), run_lamp=False),
    "a trip lamp less": lambda job: change_load(job, LoadId("m1"), trip_lamp=False),
    "a bigger motor": lambda job: change_load(job, LoadId("m1"), kw=11.0),
    "wider ducts": lambda job: set_practice(job, duct_width=80.0),
}


@pytest.mark.parametrize(("name", "share"), each_once(CHANGES, [0.0, 0.5, 1.0]))
def test_an_order_is_finished_by_doing_what_it_lists_and_by_nothing_less(name: str, share: float) -> None:
    job = with_names_recorded(change_load(one_motor(), LoadId("m1"), run_lamp=True, trip_lamp=True))
    before, after = plan_for(job), plan_for(with_names_recorded(CHANGES[name](job)))
    records = built(before, share, seed=7)
    work = change_work(before, after, records, ORDER)
    assert work.left
    for _ in range(4):
        left = change_work(before, after, records, ORDER).left
        if not left:
            break
        done_before = len(left)
        records += as_records(finish(after, records, left[: max(1, len(left) // 2)]), len(records))
        assert len(change_work(before, after, records, ORDER).left) <= done_before
    for _ in range(3):
        records += as_records(finish(after, records, change_work(before, after, records, ORDER).left), len(records))
    assert change_work(before, after, records, ORDER).left == ()


def test_nothing_is_work_of_a_change_that_changes_nothing() -> None:
    job = with_names_recorded(one_motor())
    assert change_work(plan_for(job), plan_for(job), built(plan_for(job), 1.0, 1), ORDER).lines == ()


def test_a_wire_that_was_never_made_needs_no_taking_out() -> None:
    job = with_names_recorded(change_load(one_motor(), LoadId("m1"), run_lamp=True))
    after = with_names_recorded(change_load(job, LoadId("m1"), run_lamp=False))
    gone = [w for w in wire_work(plan_for(job).get(WIRING), plan_for(after).get(WIRING)) if w.change is WireChange.OUT]
    assert gone
    for records, done in (([], True), (built(plan_for(job), 1.0, 1), False)):
        lines = change_work(plan_for(job), plan_for(after), records, ORDER).lines
        outs = [line for line in lines if line.what == WireChange.OUT.value]
        assert [line.done for line in outs] == [done] * len(gone)


def test_what_is_ticked_in_one_order_is_not_done_in_another() -> None:
    job = with_names_recorded(change_load(one_motor(), LoadId("m1"), run_lamp=True))
    after = with_names_recorded(change_load(job, LoadId("m1"), run_lamp=False))
    records = built(plan_for(job), 1.0, 1)
    by_hand = [
        entry
        for line in change_work(plan_for(job), plan_for(after), records, ORDER).left
        for entry in line.by_hand
        if isinstance(entry.facts, TaskDone)
    ]
    records += as_records(by_hand, len(records))
    here = change_work(plan_for(job), plan_for(after), records, ORDER)
    there = change_work(plan_for(job), plan_for(after), records, "change:2")
    assert len(there.left) == len(here.left) + len(by_hand)


def test_moving_an_end_ticks_the_wire_as_it_is_now() -> None:
    job = door_begun(with_names_recorded(kelp_shed()))
    second_stop = insert_contact(job, ElementId("c2.S.stop/1-2"), Insertable.STOP_BUTTON, "at the gate")
    lines = change_work(plan_for(job), plan_for(second_stop), built(plan_for(job), 1.0, 1), ORDER).lines
    for line in some([line for line in lines if line.what == WireChange.MOVE.value]):
        assert {entry.subject for entry in line.by_hand} == {line.wire and line.wire.after and line.wire.after.key}
        assert all(isinstance(entry.facts, WireDone) for entry in line.by_hand)


def test_the_paper_has_a_row_a_line_with_room_to_sign() -> None:
    job = with_names_recorded(one_motor())
    after = plan_for(with_names_recorded(change_load(job, LoadId("m1"), kw=11.0)))
    work = change_work(plan_for(job), after, (), ORDER)
    paper = change_paper(work, "more power")
    assert len(paper.rows) == len(work.lines) > 3
    assert {row[-1] for row in paper.rows} <= {"", "in the record"}
