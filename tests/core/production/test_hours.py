"""Hours told from the log: gaps between entries of one person, pauses left out, a clock that goes back ignored."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.production import (
    WORK,
    BuildStage,
    Operation,
    StageHours,
    days_done,
    draw_hours,
    draw_run,
    hours_of_stages,
    progress_of,
    stage_states,
    tick_facts,
)
from riktig.core.records import Facts, LabelPrinted, Record, TakenBack
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan

EVALUATION = plan_for(frost_fan())
TASKS = EVALUATION.get(WORK)
WIRES = EVALUATION.get(WIRING)


def entry(n: int, subject: str, facts: Facts, at: str, who: str = "Ida", corrects: str = "") -> Record:
    return Record(f"r{n}", subject, facts, who, at, 1, corrects)


def task_entry(n: int, stage: BuildStage, at: str, who: str = "Ida") -> Record:
    task = [task for task in TASKS if task.stage is stage][n]
    return entry(n, task.subject, task.facts, at, who)


def hours(records: list[Record]) -> dict[BuildStage, StageHours]:
    states = stage_states(TASKS, progress_of(WIRES, records), records)
    return {of_stage.stage: of_stage for of_stage in hours_of_stages(states, WIRES, records)}


def test_the_time_between_two_entries_belongs_to_the_later_ones_stage() -> None:
    log = [
        task_entry(0, BuildStage.RAILS, "2026-12-01T08:00:00"),
        task_entry(1, BuildStage.RAILS, "2026-12-01T08:04:00"),
        task_entry(2, BuildStage.PARTS, "2026-12-01T08:10:00"),
    ]
    assert hours(log)[BuildStage.RAILS].taken == 4
    assert hours(log)[BuildStage.PARTS].by_person == (("Ida", 6.0),)


@pytest.mark.parametrize(("second", "minutes"), [
    ("2026-12-01T08:30:00", 30.0),
    ("2026-12-01T08:31:00", 0.0),
    ("2026-12-02T08:00:00", 0.0),
    ("2026-12-01T07:00:00", 0.0),
    ("2026-12-01T10:20:00+02:00", 20.0),
    ("not a time", 0.0),
])  # fmt: skip
def test_pauses_and_clocks_that_go_back_count_for_nothing(second: str, minutes: float) -> None:
    log = [task_entry(0, BuildStage.RAILS, "2026-12-01T08:00:00"), task_entry(1, BuildStage.RAILS, second)]
    assert hours(log)[BuildStage.RAILS].taken == minutes


def test_two_people_are_each_timed_by_their_own_entries() -> None:
    wire = WIRES.wires[0]
    log = [
        task_entry(0, BuildStage.RAILS, "2026-12-01T08:00:00"),
        entry(10, wire.key, tick_facts(wire, Operation.CUT), "2026-12-01T08:01:00", "Ola"),
        task_entry(1, BuildStage.RAILS, "2026-12-01T08:05:00"),
        entry(11, wire.key, tick_facts(wire, Operation.MARKED), "2026-12-01T08:03:00", "Ola"),
        entry(12, "label", LabelPrinted("x"), "2026-12-01T08:09:00", "Ola"),
    ]
    assert hours(log)[BuildStage.RAILS].by_person == (("Ida", 5.0),)
    assert sum(h.taken for h in hours(log).values()) == 7


def test_what_is_planned_is_what_is_done_and_what_is_left() -> None:
    nothing = hours([])
    log = [task_entry(0, BuildStage.RAILS, "2026-12-01T08:00:00")]
    for stage, before in nothing.items():
        now = hours(log)[stage]
        assert now.planned_done + now.planned_left == pytest.approx(before.planned_left)
    assert hours(log)[BuildStage.RAILS].planned_done > 0


def test_the_days_add_up_to_what_is_done_and_what_was_taken_back_is_not() -> None:
    log = [
        task_entry(0, BuildStage.RAILS, "2026-12-01T08:00:00"),
        task_entry(1, BuildStage.RAILS, "2026-12-02T08:00:00"),
        task_entry(2, BuildStage.RAILS, "2026-12-02T09:00:00"),
    ]
    states = stage_states(TASKS, progress_of(WIRES, log), log)
    days = days_done(progress_of(WIRES, log), states, log)
    of_one = next(task for task in TASKS if task.stage is BuildStage.RAILS).minutes
    assert [(day.day, day.minutes) for day in days] == [("2026-12-01", of_one), ("2026-12-02", 3 * of_one)]
    log.append(entry(9, log[2].subject, TakenBack("a rail"), "2026-12-03T08:00:00", corrects="r2"))
    states = stage_states(TASKS, progress_of(WIRES, log), log)
    assert days_done(progress_of(WIRES, log), states, log)[-1].minutes == 2 * of_one


def test_the_pictures_are_drawn_of_nothing_and_of_much() -> None:
    assert draw_run((), 0.0).shapes
    states = stage_states(TASKS, progress_of(WIRES, ()), ())
    drawing = draw_hours(hours_of_stages(states, WIRES, ()))
    assert len([shape for shape in drawing.shapes if getattr(shape, "text", "") == BuildStage.COVERS.value]) == 1
