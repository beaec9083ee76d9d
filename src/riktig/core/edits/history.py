"""What was done, and how it is taken back: the jobs before each step, kept as they were."""

from dataclasses import dataclass, replace

from riktig.core.edits.model import Edit
from riktig.core.job import Job

__all__ = ["History", "UndoStep"]


@dataclass(frozen=True, slots=True)
class UndoStep:
    """One step of undo: its name, the job before it, its edits. Steps that follow each other with one merge key join.

    ``number`` counts what was ever done; a step that is taken back and made again keeps it.
    """

    name: str
    before: Job
    edits: tuple[Edit, ...]
    merge: str = ""
    number: int = 0


@dataclass(frozen=True, slots=True)
class History:
    """The steps that can be taken back, the last one last, and those taken back, the next to be made again last."""

    done: tuple[UndoStep, ...] = ()
    undone: tuple[tuple[UndoStep, Job], ...] = ()
    count: int = 0

    def with_edit(self, name: str, before: Job, edit: Edit, merge: str = "") -> "History":
        """After one more edit; what was taken back can no longer be made again."""
        last = self.done[-1] if self.done else None
        if last and merge and last.merge == merge:
            return History((*self.done[:-1], replace(last, edits=(*last.edits, edit))), (), self.count)
        step = UndoStep(name, before, (edit,), merge, self.count + 1)
        return History((*self.done, step), (), self.count + 1)

    def back(self, now: Job) -> "tuple[History, UndoStep] | None":
        """After taking the last step back, and that step; None when there is none."""
        if not self.done:
            return None
        step = self.done[-1]
        return History(self.done[:-1], (*self.undone, (step, now)), self.count), step

    def forward(self) -> "tuple[History, UndoStep, Job] | None":
        """After making the step again that was taken back last, that step and the job after it; None without one."""
        if not self.undone:
            return None
        step, after = self.undone[-1]
        return History((*self.done, replace(step, merge="")), self.undone[:-1], self.count), step, after

    def edits_since(self, number: int) -> tuple[Edit, ...]:
        """The edits that hold of all steps behind the one of that number."""
        return tuple(edit for step in self.done if step.number > number for edit in step.edits)
