"""What the window works on: the job, its plan, its file, its records, and one selection."""

import uuid
from collections.abc import Callable
from datetime import datetime

from PySide6.QtCore import QObject, Signal

from riktig.core.build import Progress, Stale, progress_of
from riktig.core.edits import Action, Edit, History, after_edit
from riktig.core.errors import ImpossibleValueError, RiktigError
from riktig.core.job import Job, new_job
from riktig.core.keys import Key
from riktig.core.plan import Plan
from riktig.core.prove import TESTS, Results, results_of
from riktig.core.records import Facts, NewRecord, Record
from riktig.core.store import JobFile
from riktig.core.wiring import WIRING

__all__ = ["Session"]

Clock = Callable[[], str]


def wall_clock() -> str:
    """Now, ISO 8601 with zone."""
    return datetime.now().astimezone().isoformat(timespec="seconds")


class Session(QObject):
    """The one place that changes anything. Views listen; no view tells another.

    Every edit is in the file before ``changed`` is sent; every record before
    ``records_changed``. What could not be written is said and kept in memory.
    """

    changed = Signal(object, object)
    records_changed = Signal()
    selected = Signal(object)
    said = Signal(str, bool)
    lost = Signal(object)

    def __init__(self, who: str = "", clock: Clock = wall_clock) -> None:
        super().__init__()
        self.who = who
        self.clock = clock
        self.job: Job = new_job()
        self.plan: Plan[Job] = Plan(self.job)
        self.file: JobFile | None = None
        self.records: tuple[Record, ...] = ()
        self.selection: Key | None = None
        self.unwritten = ""
        self.lost_last: tuple[Stale, ...] = ()
        self.history = History()
        self.list_from = 0
        self._recorded: list[tuple[int, NewRecord]] = []
        self._kept: tuple[object, object, Progress | None, Results | None] = (0, 0, None, None)

    def open(self, file: JobFile) -> None:
        """Turns to a job file; the one before is closed.

        Raises:
            RiktigError: the file's job cannot be read.
        """
        job, records = file.job(), tuple(file.records())
        if self.file:
            self.file.close()
        self.file, self.records = file, records
        self.history, self.unwritten = History(), ""
        self.begin_list()
        before, self.job = self.job, job
        self.plan = Plan(job)
        self.selection = None
        self.lost_last = ()
        self.changed.emit(before, job)
        self.records_changed.emit()
        if file.read_only:
            self.say(
                f"{file.path.name} is open for looking only: {file.held_by or 'another window'} "
                "has it. Nothing you change here can be kept.",
                wrong=True,
            )

    @property
    def read_only(self) -> bool:
        """Whether nothing can be changed."""
        return bool(self.file and self.file.read_only)

    def edit(self, name: str, edit: Edit, *, merge: str = "") -> bool:
        """Makes one edit: one step of undo, one revision of the file. False when refused."""
        if self.read_only:
            self.say("This job is open for looking only, so nothing was changed.", wrong=True)
            return False
        try:
            after = after_edit(self.plan, edit)
        except ImpossibleValueError as error:
            self.say(f"That cannot be planned: {error}. Nothing was changed.", wrong=True)
            return False
        except RiktigError as error:
            self.say(str(error), wrong=True)
            return False
        if after == self.job:
            return True
        self.history = self.history.with_edit(name, self.job, edit, merge)
        self._turn_to(after, name)
        return True

    def undo(self) -> None:
        """Takes the last edit back; records stay."""
        taken = None if self.read_only else self.history.back(self.job)
        if taken:
            self.history, step = taken
            self._turn_to(step.before, f"undo: {step.name}")

    def redo(self) -> None:
        """Makes the last edit taken back again."""
        made = None if self.read_only else self.history.forward()
        if made:
            self.history, step, after = made
            self._turn_to(after, f"redo: {step.name}")

    @property
    def undo_name(self) -> str:
        """What undo would take back, or ""."""
        return self.history.done[-1].name if self.history.done else ""

    @property
    def redo_name(self) -> str:
        """What redo would make again, or ""."""
        return self.history.undone[-1][0].name if self.history.undone else ""

    def begin_list(self) -> None:
        """A list of edits begins with what is done from now on."""
        self.list_from, self._recorded = self.history.count, []

    def actions(self) -> tuple[Action, ...]:
        """What was done since the list began and not taken back: edits and entries of the log, in their order."""
        placed: list[tuple[int, int, Action]] = [
            (step.number, 0, edit) for step in self.history.done if step.number > self.list_from for edit in step.edits
        ]
        placed += [(number, 1, record) for number, record in self._recorded]
        return tuple(action for _, _, action in sorted(placed, key=lambda one: one[:2]))

    def _turn_to(self, after: Job, why: str) -> None:
        counted = self._counting()
        before, self.job = self.job, after
        self.plan.move_to(after)
        self._write(why)
        self.lost_last = tuple(s for s in self._not_counting() if (s.subject, s.what) in counted)
        self.changed.emit(before, after)
        if self.lost_last:
            self.lost.emit(self.lost_last)

    def _counting(self) -> set[tuple[str, str]]:
        """Ticks and readings that count now, as (subject, what)."""
        if not self.records:
            return set()
        ticks = {(s.wire.key, op.value) for s in self.progress.states for op, _ in s.done}
        readings = {(t.key, "reading") for t, r in self.results.readings if r}
        return ticks | readings

    def _not_counting(self) -> tuple[Stale, ...]:
        if not self.records:
            return ()
        return (*self.progress.stale, *self.results.stale)

    def _write(self, why: str) -> None:
        if not self.file:
            return
        try:
            self.file.add_revision(self.job, who=self.who, at=self.clock(), why=why)
            self.unwritten = ""
        except RiktigError as error:
            self.unwritten = why
            self.say(str(error), wrong=True)

    def write_again(self) -> None:
        """Tries once more to write what could not be written."""
        if self.unwritten:
            self._write(self.unwritten)
            if not self.unwritten:
                self.say("Everything is in the file again.")

    def record(self, subject: str, facts: Facts, *, corrects: str = "") -> bool:
        """Appends to the log; True only when it is in the file."""
        return self.record_all([NewRecord(subject, facts, corrects)])

    def record_all(self, entries: list[NewRecord]) -> bool:
        """Appends several entries, all or none."""
        number = self.file.revision() if self.file else 0
        made = [
            Record(uuid.uuid4().hex, one.subject, one.facts, self.who, self.clock(), number, one.corrects)
            for one in entries
        ]
        try:
            if self.file:
                self.file.add_records(made)
        except RiktigError as error:
            self.say(str(error), wrong=True)
            return False
        self.records = (*self.records, *made)
        self._recorded += [(self.history.count, one) for one in entries]
        self.records_changed.emit()
        return True

    @property
    def progress(self) -> Progress:
        """What counts as done, of the job and records of now."""
        return self._derived()[0]

    @property
    def results(self) -> Results:
        """What counts as read, of the job and records of now."""
        return self._derived()[1]

    def _derived(self) -> tuple[Progress, Results]:
        wiring, records = self.plan.get(WIRING), self.records
        kept_wiring, kept_records, progress, results = self._kept
        if progress is None or results is None or kept_wiring is not wiring or (kept_records is not records):
            progress = progress_of(wiring, records)
            results = results_of(self.plan.get(TESTS), records)
            self._kept = (wiring, records, progress, results)
        return progress, results

    def select(self, key: Key | None) -> None:
        """Makes something the selection of the whole window; None for nothing."""
        if key != self.selection:
            self.selection = key
            self.selected.emit(key)

    def say(self, text: str, *, wrong: bool = False) -> None:
        """Says something to the user in the one place for it."""
        self.said.emit(text, wrong)

    def close(self) -> None:
        """Closes the file."""
        if self.file:
            self.file.close()
            self.file = None
