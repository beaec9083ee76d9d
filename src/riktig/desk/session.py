"""What the window works on: the job, its plan, its file, its records, and one selection."""

import uuid
from collections import deque
from collections.abc import Callable, Sequence
from dataclasses import replace

from PySide6.QtCore import QObject, Signal

from riktig.core.edits import Action, Edit, History, RecordStep, UndoStep, after_edit
from riktig.core.errors import ImpossibleValueError, RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.inputs import same_person
from riktig.core.job import Job, new_job
from riktig.core.keys import Key
from riktig.core.production import BuildProgress, Stale, progress_of
from riktig.core.proving import TESTS, Results, results_of
from riktig.core.records import Facts, Log, NewRecord, Record, Signer, TakenBack, can_be_undone, name_of_records
from riktig.core.schematic import NETS
from riktig.core.store import Attachment, JobFile
from riktig.core.wiring import WIRING
from riktig.desk.wall_clock import Clock, wall_clock
from riktig.log_file import LOG

__all__ = ["LARGE_PINS", "MANY_PINS", "Session"]

MOST_ACTED = 200
"""Actions that are kept for a report of a fault."""
LARGE_PINS = 1500
"""Pins from which on wires are worked out aside: some 30 motors, whose wires take a tenth of a second (measured)."""
MANY_PINS = 400
"""Pins from which on rules, tests and tasks are: some six motors, where they take a tenth of a second (measured)."""


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
    moved = Signal(object)

    def __init__(self, who: str = "", clock: Clock = wall_clock) -> None:
        super().__init__()
        self.who = who
        self.signer: Signer | None = None
        self.clock = clock
        self.job: Job = new_job()
        self.evaluation: Evaluation[Job] = Evaluation(self.job)
        self.file: JobFile | None = None
        self.records = Log()
        self.selection: Key | None = None
        self.unwritten = ""
        self.lost_last: tuple[Stale, ...] = ()
        self.history = History()
        self.place = ""
        self.turned_by = ""
        """The edit, undo or redo that brought the job of now; empty when it was opened."""
        self._asked: tuple[UndoStep | RecordStep, str] | None = None
        self.list_from = 0
        self.ask_why: Callable[[str], str] = lambda question: ""
        self._recorded: list[tuple[int, NewRecord]] = []
        self._acted: deque[Action] = deque(maxlen=MOST_ACTED)
        self.log: tuple[str, ...] = ()
        self.shown_revision = 0

    def open(self, file: JobFile) -> None:
        """Turns to a job file; the one before is closed.

        Raises:
            RiktigError: the file's job cannot be read.
        """
        job, records = file.job(), Log(file.records())
        if self.file:
            self.file.close()
        self.said.emit("", False)  # what was said is of the job before
        self.file, self.records = file, records
        self.history, self.unwritten, self.turned_by = History(), "", ""
        self._acted.clear()
        self.begin_list()
        before, self.job, self.shown_revision = self.job, job, file.revision()
        self.evaluation = Evaluation(job)
        self.selection = None
        self.lost_last = ()
        self.changed.emit(before, job)
        self.records_changed.emit()
        if file.read_only:
            self.say(
                f"{file.path.name} is open read-only: {file.only_looking or 'it was opened so'}. "
                "Changes here will not be saved.",
                wrong=True,
            )
        elif file.doubts:
            self.say(
                f"The record of {file.path.name}: {'; '.join(file.doubts[:3])}. Ask whose keys they are.", wrong=True
            )
        elif file.put_aside:
            self.say(
                f"Beside {file.path.name} lay an unfinished write of another file, perhaps of a newer copy that was "
                f"overwritten. It was not applied; it is now called {file.put_aside}.",
                wrong=True,
            )

    @property
    def read_only(self) -> bool:
        """Whether nothing can be changed."""
        return bool(self.file and self.file.read_only)

    @property
    def out_of_step(self) -> str:
        """Why this bench may not have what the others of the shop's server have, in words; "" where it has."""
        return self.file.out_of_step if self.file else ""

    def _why_fixed(self, done: str) -> str:
        """Why the plan cannot be changed here, "" where it can."""
        if self.read_only:
            return f"This job is open read-only, so nothing was {done}."
        return str(getattr(self.file, "refuses_plan", ""))

    def edit(self, name: str, edit: Edit, *, merge: str = "") -> bool:
        """Makes one edit: one step of undo, one revision of the file. False when refused.

        Returns:
            Whether it was made.
        """
        if fixed := self._why_fixed("changed"):
            self.say(fixed, wrong=True)
            return False
        try:
            after = after_edit(self.evaluation, edit)
        except ImpossibleValueError as error:
            self.say(f"That cannot be planned: {error}. Nothing was changed.", wrong=True)
            return False
        except RiktigError as error:
            self.say(str(error), wrong=True)
            return False
        if after == self.job:
            return True
        self._acted.append(edit)
        self._asked = None
        self.history = self.history.with_edit(name, self.job, edit, merge, self.place)
        self._turn_to(after, name)
        return True

    def undo(self) -> None:
        """Takes back what was done last where one is; what was done last elsewhere only when asked a second time.

        An edit of the job is taken back as a whole. An entry of the log stays, and a correction is added to it.
        """
        if self.read_only:
            self.say("This job is open read-only, so nothing was taken back.", wrong=True)
            return
        step = self.history.last_at(self.place)
        if step is None:
            step = self.history.last()
            if step is not None and self._asked != (step, self.place):
                self._asked = (step, self.place)
                self.say(f"The last change was in {step.place}: {step.name}. Undo once more to take it back.")
                return
        self._asked = None
        if isinstance(step, RecordStep):
            self._take_back(step)
        elif step is not None:
            self._back()
        else:
            self.say("There is nothing to undo.")

    def _back(self) -> None:
        if fixed := self._why_fixed("taken back"):
            self.say(fixed, wrong=True)
            return
        taken = self.history.back(self.job)
        if taken:
            self.history, step = taken
            self._turn_to(step.before, f"undo: {step.name}")
            self.say(
                f"Undone: {step.name}." + (f" It was changed in {step.place}." if self._is_elsewhere(step) else "")
            )

    def _take_back(self, step: RecordStep) -> None:
        """Corrects the entries of one step of the log."""
        if not step.undoable:
            self.history = self.history.without(step)
            self.say(f"Not undone: {step.name}. The record keeps it; where it is wrong, correct it in {step.place}.")
            return
        log = self.records
        here = (record for record in step.records if log.by_id(record.id) and record.id not in log.gone)
        entries = [NewRecord(record.subject, TakenBack(step.name), record.id) for record in here]
        before = self.history
        if entries and not self.record_all(entries):
            return
        self.history = before.without(step)
        self.say(f"Undone: {step.name}. The record keeps both the entry and its correction.")

    def _is_elsewhere(self, step: UndoStep) -> bool:
        return bool(step.place and self.place and step.place != self.place)

    def redo(self) -> None:
        """Makes the last edit taken back again."""
        made = None if self._why_fixed("done again") else self.history.forward()
        if made:
            self.history, step, after = made
            self._turn_to(after, f"redo: {step.name}")
            self.say(f"Done again: {step.name}.")

    @property
    def undo_name(self) -> str:
        """What undo would take back, or ""."""
        step = self.history.last_at(self.place) or self.history.last()
        return step.name if step else ""

    @property
    def edit_name(self) -> str:
        """The last edit of the job, or ""."""
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
        return tuple(action for _, _, action in sorted(placed, key=lambda placed_action: placed_action[:2]))

    def _turn_to(self, after: Job, why: str) -> None:
        counted = self._counting()
        before, self.job, self.turned_by = self.job, after, why
        self.evaluation.move_to(after)
        self._write(why)
        self.lost_last = tuple(s for s in self._not_counting() if (s.subject, s.what) in counted)
        self.changed.emit(before, after)
        if self.lost_last:
            self.lost.emit(self.lost_last)

    def follow(self, job: Job, records: tuple[Record, ...], revision: int) -> None:
        """Shows what another window or bench wrote.

        Undo begins anew where the plan changed: a step further back would take back what the other did.
        """
        before, self.job, self.shown_revision = self.job, job, revision
        self.records = self.records.followed_by(records)
        if job != before:
            self.history, self.turned_by = History(), ""
            self.evaluation.move_to(job)
            self.changed.emit(before, job)
        self.records_changed.emit()

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
            self._say_if_moved()
        except RiktigError as error:
            self.unwritten = why
            self.say(str(error), wrong=True)

    def _say_if_moved(self) -> None:
        """Says, at once, that the work goes on in a rescue copy, and what to do."""
        if not self.file or not self.file.rescued_from:
            return
        self.say(
            f"{self.file.rescued_from} while it was open. Everything that was confirmed, the last step too, is in "
            f"{self.file.path}, and the work goes on there. Compare the two before you throw one away.",
            wrong=True,
        )
        self.file.rescued_from = ""
        self.moved.emit(self.file.path)

    def write_again(self) -> None:
        """Tries once more to write what could not be written."""
        if self.unwritten:
            self._write(self.unwritten)
            if not self.unwritten:
                self.say("Everything is in the file again.")

    def record(self, subject: str, facts: Facts, *, corrects: str = "") -> bool:
        """Appends to the log; True only when it is in the file.

        Returns:
            Whether it is in the file.
        """
        return self.record_all([NewRecord(subject, facts, corrects)])

    def record_all(self, entries: list[NewRecord], attached: Sequence[Attachment] = ()) -> bool:
        """Appends several entries, all or none. One that takes back what another person recorded must say why."""
        with_reasons = self._with_reasons(entries)
        if with_reasons is None:
            return False
        entries = with_reasons
        try:
            number = self.file.revision() if self.file else 0
            made = [
                Record(uuid.uuid4().hex, entry.subject, entry.facts, self.who, self.clock(), number, entry.corrects)
                for entry in entries
            ]
            if self.file:
                self.file.add_records(made, attached)
                self._say_if_moved()
        except RiktigError as error:
            self.say(str(error), wrong=True)
            return False
        self.records = self.records.with_records(made)
        self._acted.extend(entries)
        if not attached:  # a list of edits is a text: it has no room for pictures
            self._recorded += [(self.history.count, entry) for entry in entries]
        if entries:
            self.history = self.history.with_records(
                name_of_records(entries), tuple(made), self.place, undoable=can_be_undone(entries)
            )
        self.records_changed.emit()
        return True

    def _with_reasons(self, entries: list[NewRecord]) -> list[NewRecord] | None:
        """The entries with the reasons that were asked for; None when one was not given, which is said."""
        new_records: list[NewRecord] = []
        for entry in entries:
            before, facts = self.records.by_id(entry.corrects), entry.facts
            if before and isinstance(facts, TakenBack) and not facts.why and not same_person(before.who, self.who):
                why = self.ask_why(f"{before.who} recorded this. Why is it taken back?").strip()
                if not why:
                    self.say(f"{before.who} recorded this, and no reason was given: it stays.", wrong=True)
                    return None
                entry = replace(entry, facts=TakenBack(facts.what, why))
            new_records.append(entry)
        return new_records

    @property
    def pins(self) -> int:
        """How many pins are joined to something: how large the job is."""
        return len(self.evaluation.get(NETS).of_pin)

    @property
    def shows_wires(self) -> bool:
        """Whether wires can be shown now: they are there, or take no time."""
        return self.pins <= LARGE_PINS or self.evaluation.has(WIRING)

    @property
    def progress(self) -> BuildProgress:
        """What counts as done, of the job and records of now."""
        return progress_of(self.evaluation.get(WIRING), self.records)

    @property
    def results(self) -> Results:
        """What counts as read, of the job and records of now."""
        return results_of(self.evaluation.get(TESTS), self.records)

    def last_actions(self, most: int) -> tuple[Action, ...]:
        """The last edits and entries since the job was opened, whether taken back or not, for a report."""
        return tuple(self._acted)[-most:]

    def select(self, key: Key | None) -> None:
        """Makes something the selection of the whole window; None for nothing."""
        if key != self.selection:
            self.selection = key
            self.selected.emit(key)

    def say(self, text: str, *, wrong: bool = False) -> None:
        """Says something to the user in the one place for it."""
        self.log = (*self.log[-50:], text)
        LOG.info("%s%s", "wrong: " if wrong else "", text)
        self.said.emit(text, wrong)

    def close(self) -> None:
        """Closes the file."""
        if self.file:
            self.file.close()
            self.file = None
