"""Hours at the bench, told from the log: what each stage took beside what was planned for it, and who was at it."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from riktig.core.ids import WireId
from riktig.core.inputs import minutes_between
from riktig.core.production.ticks import OPERATIONS, BuildProgress
from riktig.core.production.work_model import BuildStage, StageState
from riktig.core.production.work_state import WIRE_MINUTES, stage_of_wire
from riktig.core.records import (
    ContactRead,
    HoleDone,
    PartMounted,
    PartReceived,
    PieceCut,
    Record,
    TaskDone,
    WireDone,
    log_of,
    taken_back,
)
from riktig.core.wiring import Wire, Wiring

__all__ = ["IDLE_MINUTES", "DayDone", "StageHours", "days_done", "hours_of_stages", "stage_of_record"]

IDLE_MINUTES = 30.0
"""A pause between two entries of one person that is longer is no work (chosen by us)."""
_STAGE_OF = {
    PartReceived: BuildStage.RECEIVE, HoleDone: BuildStage.HOLES, PieceCut: BuildStage.CUT,
    PartMounted: BuildStage.PARTS, ContactRead: BuildStage.OPERATOR_TESTS,
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class StageHours:
    """What a stage took so far, by person, and what was planned for what is done and for what is left, min."""

    stage: BuildStage
    by_person: tuple[tuple[str, float], ...]
    planned_done: float
    planned_left: float

    @property
    def taken(self) -> float:
        """What it took so far, min."""
        return sum(minutes for _, minutes in self.by_person)


@dataclass(frozen=True, slots=True)
class DayDone:
    """A day of the log, and the planned minutes of all that was done up to its end."""

    day: str
    minutes: float


def stage_of_record(record: Record, wires: Mapping[WireId, Wire]) -> BuildStage | None:
    """The stage that an entry is about, None for what is no work at the bench.

    Args:
        record: The entry.
        wires: All wires by key: a tick of one that is gone is taken for one on the plate.
    """
    facts = record.facts
    if isinstance(facts, WireDone):
        wire = wires.get(WireId(record.subject))
        return stage_of_wire(wire) if wire else BuildStage.WIRES
    if isinstance(facts, TaskDone):
        return next((stage for stage in BuildStage if stage.value == facts.stage), None)
    return _STAGE_OF.get(type(facts))


def hours_of_stages(stages: Sequence[StageState], wiring: Wiring, records: Iterable[Record]) -> tuple[StageHours, ...]:
    """What every stage took beside its plan.

    Method:
        The time between two entries of one person, where it is no pause, belongs to the stage of the later one. What
        stands first after a pause is taken for nothing: nobody knows when it was begun. A clock that goes back counts
        for nothing.

    Args:
        stages: All stages with their tasks.
        wiring: All wires.
        records: The log, oldest first.
    """
    taken: dict[BuildStage, dict[str, float]] = defaultdict(lambda: defaultdict(float))
    last: dict[str, str] = {}
    keys = wiring.by_key
    for record in records:
        stage = stage_of_record(record, keys)
        if stage is None or minutes_between(record.when, record.when) is None:
            continue
        before, last[record.who] = last.get(record.who), record.when
        minutes = minutes_between(before, record.when) if before else None
        if minutes is not None and 0 <= minutes <= IDLE_MINUTES:
            taken[stage][record.who] += minutes
    return tuple(
        StageHours(
            state.stage,
            tuple(sorted(taken[state.stage].items())),
            _planned(state) - state.minutes_left,
            state.minutes_left,
        )
        for state in stages
    )


def _planned(state: StageState) -> float:
    """What all of a stage is planned to take, min."""
    tasks = sum(task.task.minutes for task in state.tasks)
    return tasks + (WIRE_MINUTES * (state.count - len(state.tasks)) if state.stage.is_wiring else 0.0)


def days_done(progress: BuildProgress, stages: Sequence[StageState], records: Iterable[Record]) -> tuple[DayDone, ...]:
    """For each day of the log the planned minutes of what was done by then and still counts.

    Args:
        progress: What is done to the wires.
        stages: All stages with their tasks.
        records: The log, oldest first.
    """
    per_day: dict[str, float] = defaultdict(float)
    for state in stages:
        for task in state.tasks:
            if task.done:
                per_day[task.done.when[:10]] += task.task.minutes
    for wire in progress.states:
        for _operation, done in wire.done:
            per_day[done.when[:10]] += WIRE_MINUTES / OPERATIONS
    log = log_of(records)
    gone = taken_back(log)
    days = sorted({record.when[:10] for record in log if record.id not in gone} | set(per_day))
    total, done_days = 0.0, list[DayDone]()
    for day in days:
        total += per_day.get(day, 0.0)
        done_days.append(DayDone(day, total))
    return tuple(done_days)
