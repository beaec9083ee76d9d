"""What labels are printed on, and how much of a begun sheet is used."""

from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, LabelSheet
from riktig.core.labels import Medium

__all__ = ["DropLabelSheet", "SetLabelSheet", "UseLabels"]


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
