"""What labels are printed on and how much of it is used; texts of one's own; wires without markers."""

from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, LabelSheet, LabelText, UnmarkedWire
from riktig.core.labels import LABELS, MOST_UNMARKED, Medium, label_names, misfit_texts, named_lines, why_marked
from riktig.core.wiring import WIRING, WireId

__all__ = ["DropLabelSheet", "DropLabelText", "LeaveUnmarked", "MarkWire", "SetLabelSheet", "SetLabelText", "UseLabels"]


@dataclass(frozen=True)
class SetLabelSheet:
    """The sheet that the labels of one medium are printed on, in the place of the one before."""

    sheet: LabelSheet

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with that sheet.

        Raises:
            RiktigError: there is no such medium.
        """
        job, medium = evaluation.document, self.sheet.medium
        if medium not in {known.value for known in Medium}:
            raise RiktigError(
                f"There are no labels called “{medium}”, so no sheet was taken in.",
                hint=f"Labels are: {', '.join(known.value for known in Medium)}.",
            )
        others = tuple(sheet for sheet in job.label_sheets if sheet.medium != medium)
        return replace(job, label_sheets=(*others, self.sheet))


@dataclass(frozen=True)
class DropLabelSheet:
    """The labels of one medium on plain paper again, to be cut out."""

    medium: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without that sheet."""
        job = evaluation.document
        return replace(job, label_sheets=tuple(sheet for sheet in job.label_sheets if sheet.medium != self.medium))


@dataclass(frozen=True)
class UseLabels:
    """So many labels of a medium came out of the printer: the next begin where these ended."""

    medium: str
    count: int

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with the begun sheet as it is now."""
        job = evaluation.document
        sheets = tuple(
            sheet.after(max(self.count, 0)) if sheet.medium == self.medium else sheet for sheet in job.label_sheets
        )
        return replace(job, label_sheets=sheets)


@dataclass(frozen=True)
class SetLabelText:
    """What a label says by the builder's word; it stays through edits. ``label`` is its name, such as “legend/…/0”.

    The name of the thing on it, a tag or a number, stays what it is: it is changed where it is given.
    """

    label: str
    lines: tuple[str, ...]
    reason: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with that text.

        Raises:
            RiktigError: there is no such label, its name would change, or the text does not fit.
        """
        job, labels = evaluation.document, evaluation.get(LABELS).labels
        label = dict(zip(label_names(labels), labels, strict=True)).get(self.label)
        if label is None:
            raise RiktigError("There is no such label any more, so no text was changed.")
        lines, names = tuple(line.strip() for line in self.lines), named_lines(label.medium)
        if lines[:names] != label.lines[:names]:
            raise RiktigError(
                f"“{' / '.join(label.lines[:names])}” is the name of the thing, so the label was not changed.",
                hint="Change the tag or the number itself: then it changes on every label and drawing.",
            )
        worded = replace(label, lines=lines, short=(), own=self.reason)
        misfits = misfit_texts(worded)
        if misfits:
            width, height = label.size
            raise RiktigError(
                f"“{misfits[0]}” does not fit on {width:g} × {height:g} mm, so the label was not changed.",
                hint="Use fewer words, or a larger label for this medium.",
            )
        label_text = next((text for text in job.label_texts if text.label == self.label), None)
        text = LabelText(self.label, lines, label_text.was if label_text else label.lines, self.reason)
        return replace(job, label_texts=(*_others(job, self.label), text))


def _others(job: Job, label: str) -> tuple[LabelText, ...]:
    return tuple(text for text in job.label_texts if text.label != label)


@dataclass(frozen=True)
class DropLabelText:
    """A label says what Riktig makes of the job again."""

    label: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without that text."""
        job = evaluation.document
        return replace(job, label_texts=_others(job, self.label))


@dataclass(frozen=True)
class LeaveUnmarked:
    """A wire, by its text form, goes without markers: why, and who allows it."""

    wire: str
    reason: str
    allowed_by: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with that wire left unmarked.

        Raises:
            RiktigError: there is no such wire, it is not in plain view, or ten go without already.
        """
        job, wiring = evaluation.document, evaluation.get(WIRING)
        wire = wiring.by_key.get(WireId(self.wire))
        if wire is None:
            raise RiktigError("There is no such wire, so nothing was changed.")
        if why := why_marked(wire):
            raise RiktigError(
                f"Wire {wire.name} {why}, so it keeps its markers.",
                hint="Without markers may go what is seen from end to end.",
            )
        others = tuple(entry for entry in job.unmarked if entry.wire != self.wire)
        still = [entry for entry in others if WireId(entry.wire) in wiring.by_key]
        if len(still) >= MOST_UNMARKED:
            raise RiktigError(
                f"{MOST_UNMARKED} wires go without markers already, so this one keeps its own.",
                hint="More than that nobody tells apart by looking.",
            )
        return replace(job, unmarked=(*others, UnmarkedWire(self.wire, self.reason, self.allowed_by)))


@dataclass(frozen=True)
class MarkWire:
    """A wire that went without markers gets them again."""

    wire: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with that wire marked."""
        job = evaluation.document
        return replace(job, unmarked=tuple(entry for entry in job.unmarked if entry.wire != self.wire))
