"""What was done, and how it is taken back: the jobs before each step, and the entries of the log beside them."""

from dataclasses import dataclass, replace

from riktig.core.edits.model import Edit
from riktig.core.job import Job
from riktig.core.records import Record

__all__ = ["History", "RecordStep", "UndoStep"]


@dataclass(frozen=True, slots=True)
class UndoStep:
    """One step of undo: its name, the job before it, its edits. Steps that follow each other with one merge key join.

    ``number`` counts what was ever done; a step that is taken back and made again keeps it. ``place`` is where it was
    done: the name of a station.
    """

    name: str
    before: Job
    edits: tuple[Edit, ...]
    merge: str = ""
    number: int = 0
    place: str = ""


@dataclass(frozen=True, slots=True)
class RecordStep:
    """What was recorded in one step, behind the edit of that number; ``undoable``: taking it back is a correction."""

    name: str
    records: tuple[Record, ...]
    number: int
    place: str = ""
    undoable: bool = True


@dataclass(frozen=True, slots=True)
class History:
    """The steps that can be taken back, the last one last, and those taken back, the next to be made again last.

    ``recorded`` are the steps of the log that were not taken back.
    """

    done: tuple[UndoStep, ...] = ()
    undone: tuple[tuple[UndoStep, Job], ...] = ()
    count: int = 0
    recorded: tuple[RecordStep, ...] = ()

    def with_edit(self, name: str, before: Job, edit: Edit, merge: str = "", place: str = "") -> "History":
        """After one more edit; what was taken back can no longer be made again."""
        last = self.done[-1] if self.done else None
        if last and merge and last.merge == merge:
            return replace(self, done=(*self.done[:-1], replace(last, edits=(*last.edits, edit))), undone=())
        step = UndoStep(name, before, (edit,), merge, self.count + 1, place)
        return replace(self, done=(*self.done, step), undone=(), count=self.count + 1)

    def with_records(self, name: str, records: tuple[Record, ...], place: str, *, undoable: bool) -> "History":
        """After entries of the log were made."""
        return replace(self, recorded=(*self.recorded, RecordStep(name, records, self.count, place, undoable)))

    def without(self, step: RecordStep) -> "History":
        """After a step of the log was taken back, or given up."""
        return replace(self, recorded=tuple(other for other in self.recorded if other is not step))

    def last(self) -> UndoStep | RecordStep | None:
        """What was done last of all; None when nothing can be taken back."""
        return _later(self.done[-1] if self.done else None, self.recorded[-1] if self.recorded else None)

    def last_at(self, place: str) -> UndoStep | RecordStep | None:
        """What was done last at a place and can be taken back alone; None where nothing was.

        An entry of the log stands by itself. An edit can only be taken back while no other follows it.

        Args:
            place: The name of a station.
        """
        edit = self.done[-1] if self.done and self.done[-1].place in (place, "") else None
        entry = next((step for step in reversed(self.recorded) if step.place in (place, "")), None)
        return _later(edit, entry)

    def back(self, now: Job) -> "tuple[History, UndoStep] | None":
        """After taking the last edit back, and that step; None when there is none."""
        if not self.done:
            return None
        step = self.done[-1]
        return replace(self, done=self.done[:-1], undone=(*self.undone, (step, now))), step

    def forward(self) -> "tuple[History, UndoStep, Job] | None":
        """After making the edit again that was taken back last, that step and the job after it; None without one."""
        if not self.undone:
            return None
        step, after = self.undone[-1]
        return replace(self, done=(*self.done, replace(step, merge="")), undone=self.undone[:-1]), step, after

    def edits_since(self, number: int) -> tuple[Edit, ...]:
        """The edits that hold of all steps behind the one of that number."""
        return tuple(edit for step in self.done if step.number > number for edit in step.edits)


def _later(edit: UndoStep | None, entry: RecordStep | None) -> UndoStep | RecordStep | None:
    """The one that was done later: an entry follows the edit that it has the number of."""
    if edit is None or entry is None:
        return edit or entry
    return entry if entry.number >= edit.number else edit
