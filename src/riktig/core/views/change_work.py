"""A change order as work: every wire, task, label and test that it touches, and which of it is done."""

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule
from riktig.core.ids import WireId
from riktig.core.job import Job
from riktig.core.keys import Key, WireKey
from riktig.core.labels import LABELS, Label
from riktig.core.production import (
    TAKEN_OUT,
    WORK,
    BuildProgress,
    Operation,
    TaskState,
    WireChange,
    WireWork,
    made_wires,
    progress_of,
    task_states,
    tick_facts,
    wire_work,
)
from riktig.core.proving import TESTS, reading_facts, results_of
from riktig.core.records import NewRecord, Outcome, Record, TaskDone, counted, log_of, slot_of, why_not
from riktig.core.wiring import WIRING

__all__ = ["ChangeLine", "ChangeWork", "change_paper", "change_work"]


@dataclass(frozen=True, slots=True)
class ChangeLine:
    """One piece of work of a change.

    Args:
        station: Where it is done: “Wires”, “Build”, “Labels”, “Prove”.
        what: What is done: “take out”, “make new”, “print and replace”.
        name: What it is done to.
        why: What is different of it.
        done: Whether that is in the log.
        by_hand: What is recorded when it is ticked here; empty where it is ticked at its own place.
        key: What to show of it.
        wire: The wire that it is about, where it is about one.
    """

    station: str
    what: str
    name: str
    why: str
    done: bool
    by_hand: tuple[NewRecord, ...] = ()
    key: Key | None = None
    wire: WireWork | None = None


@dataclass(frozen=True, slots=True)
class ChangeWork:
    """All the work of a change."""

    lines: tuple[ChangeLine, ...]

    @property
    def left(self) -> tuple[ChangeLine, ...]:
        """What is not done yet."""
        return tuple(line for line in self.lines if not line.done)

    @property
    def counts(self) -> str:
        """“3 wires, 1 label, 4 tests”."""
        names = {"Wires": "wire", "Build": "task", "Labels": "label", "Prove": "test"}
        counted_lines = Counter(names[line.station] for line in self.lines)
        return ", ".join(f"{n} {name if n == 1 else name + 's'}" for name, n in counted_lines.items()) or "nothing"


def change_paper(work: ChangeWork, title: str) -> Schedule:
    """The work of a change as a list to print, with room to sign for what is not done.

    Args:
        work: The work.
        title: What is changed.
    """
    columns = (("station", "Where"), ("what", "What"), ("thing", "Thing"), ("why", "Why"), ("done", "Done by, date"))
    rows = tuple(
        (line.station, line.what, line.name, line.why, "in the record" if line.done else "") for line in work.lines
    )
    return Schedule("change order", f"Change order: {title}", columns, rows)


def change_work(before: Evaluation[Job], after: Evaluation[Job], records: Iterable[Record], subject: str) -> ChangeWork:
    """What is different of two documents, as work at the bench.

    Args:
        before: The job as it was when the change was opened.
        after: The job of now.
        records: The log, oldest first.
        subject: What the records of the change order are about.
    """
    log = log_of(records)
    progress = progress_of(after.get(WIRING), log)
    hand = _ticked_by_hand(log, subject)
    lines = [
        *_wires(before, after, log, progress, hand, subject),
        *_tasks(before, after, log, hand, subject),
        *_labels(before, after, hand, subject),
        *_tests(before, after, log),
    ]
    return ChangeWork(tuple(lines))


def _ticked_by_hand(log: tuple[Record, ...], subject: str) -> frozenset[str]:
    """The subjects of this change that were ticked and not taken back."""
    task_records = [
        record for record in log if record.subject.startswith(f"{subject}/") and isinstance(record.facts, TaskDone)
    ]
    present = {slot_of(r.subject, r.facts): r.facts for r in task_records if isinstance(r.facts, TaskDone)}
    return frozenset(item.record.subject for item in counted(log, TaskDone, present) if item.counts)


def _by_hand(subject: str, key: str, title: str) -> NewRecord:
    return NewRecord(f"{subject}/{key}", TaskDone("Change order", title, title))


def _wires(
    before: Evaluation[Job],
    after: Evaluation[Job],
    log: tuple[Record, ...],
    progress: BuildProgress,
    hand: frozenset[str],
    subject: str,
) -> list[ChangeLine]:
    made = made_wires(log)
    lines: list[ChangeLine] = []
    for work in wire_work(before.get(WIRING), after.get(WIRING)):
        why, name = work.why, work.wire.name
        state = progress.of(work.after.key) if work.after else None
        tick: tuple[NewRecord, ...] = ()
        if work.change is WireChange.OUT:
            tick = (_by_hand(subject, f"{TAKEN_OUT[1:]}{work.wire.key}", f"{name} taken out"),)
            was_made = work.wire.key in made
            done = not was_made or tick[0].subject in hand
            why = why if was_made else "it was not made yet: nothing to take out"
        else:
            done = state is not None and state.complete
        if work.change is WireChange.MOVE and work.before and work.after and work.before.key in made:
            tick = tuple(NewRecord(work.after.key, tick_facts(work.after, operation)) for operation in Operation)
        key = WireKey(work.after.key) if work.after else None
        lines.append(ChangeLine("Wires", work.change.value, name, why, done, tick, key, work))
    return lines


def _tasks(
    before: Evaluation[Job], after: Evaluation[Job], log: tuple[Record, ...], hand: frozenset[str], subject: str
) -> list[ChangeLine]:
    old = {slot_of(task.subject, task.facts): task for task in before.get(WORK)}
    states = {slot_of(s.task.subject, s.task.facts): s for s in task_states(after.get(WORK), log)}
    was_done = {slot_of(s.task.subject, s.task.facts): s.done is not None for s in task_states(before.get(WORK), log)}
    lines: list[ChangeLine] = []
    for slot, state in states.items():
        earlier = old.get(slot)
        if earlier is None or earlier.facts != state.task.facts:
            lines.append(_task_line(state, "new" if earlier is None else "do again"))
    for slot, task in old.items():
        if slot not in states and was_done[slot]:
            tick = _by_hand(subject, f"undo {task.subject} {slot.what}", f"{task.title} undone")
            title = f"{task.stage.value}: {task.title}"
            lines.append(
                ChangeLine("Build", "undo", title, "it is not planned any more", tick.subject in hand, (tick,))
            )
    return lines


def _task_line(state: TaskState, what: str) -> ChangeLine:
    task = state.task
    key = task.where[0] if task.where else None
    title = f"{task.stage.value}: {task.title}"
    return ChangeLine("Build", what, title, state.stale, state.done is not None, (), key)


def _labels(before: Evaluation[Job], after: Evaluation[Job], hand: frozenset[str], subject: str) -> list[ChangeLine]:
    def texts(evaluation: Evaluation[Job]) -> Mapping[tuple[str, str, str], Label]:
        return {
            (label.medium.value, " / ".join(label.lines), str(label.key)): label
            for label in evaluation.get(LABELS).labels
        }

    old, new = texts(before), texts(after)
    lines: list[ChangeLine] = []
    for what, labels in (
        ("take off", [label for key, label in old.items() if key not in new]),
        ("print and put on", [label for key, label in new.items() if key not in old]),
    ):
        for label in labels:
            name = f"{' / '.join(label.lines)}, {label.medium.value}"
            tick = _by_hand(
                subject, f"{what} {label.medium.value} {label.key} {'/'.join(label.lines)}", f"{name} {what}"
            )
            lines.append(ChangeLine("Labels", what, name, label.where, tick.subject in hand, (tick,), label.key))
    return lines


def _tests(before: Evaluation[Job], after: Evaluation[Job], log: tuple[Record, ...]) -> list[ChangeLine]:
    """Tests that are new, or whose reading of before no longer says anything."""
    old = {test.key: test for test in before.get(TESTS).tests}
    results = results_of(after.get(TESTS), log)
    stale = {reading.subject for reading in results.stale}
    lines: list[ChangeLine] = []
    for test, reading in results.readings:
        why, what = "", "test"
        if test.key in old:
            then, now = (reading_facts(each, Outcome.PASSED, ohm=None, meter="") for each in (old[test.key], test))
            why, what = why_not(then, now), "test again"
            if not why and test.key not in stale:
                continue
        passed = reading is not None and reading.outcome is Outcome.PASSED
        key = WireKey(WireId(test.wire)) if test.wire else None
        name = f"{test.title}, {test.black.label} to {test.red.label}"
        lines.append(ChangeLine("Prove", what, name, why, passed, (), key))
    return lines
