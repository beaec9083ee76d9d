"""Edits done to a job: one, or a list of them all or none."""

from collections.abc import Sequence

from riktig.core.edits.model import Edit
from riktig.core.errors import ImpossibleValueError, InputFault, RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, beyond_limits
from riktig.core.schematic import with_names_recorded

__all__ = ["after_edit", "after_edits"]


def after_edit(evaluation: Evaluation[Job], edit: Edit) -> Job:
    """The job after an edit, with every tag and number given.

    Args:
        evaluation: Of the job.
        edit: The edit.

    Raises:
        RiktigError: it cannot be done to this job.
    """
    before, after = evaluation.document, edit.apply(evaluation)
    for fault in beyond_limits(after, before):
        raise ImpossibleValueError(f"{fault.where.removeprefix('$.job.')}: {fault.message.rstrip('.')}")
    return with_names_recorded(after, memory=evaluation.memory)


def after_edits(evaluation: Evaluation[Job], edits: Sequence[tuple[str, Edit]]) -> Job:
    """The job after a list of edits, each with its place; the plan is turned to it.

    Args:
        evaluation: Of the job.
        edits: The edits in their order, each with where it came from.

    Raises:
        RiktigError: one of them cannot be done, with its place; the plan is turned to its first job again.
    """
    before = evaluation.document
    for where, edit in edits:
        try:
            evaluation.move_to(after_edit(evaluation, edit))
        except RiktigError as error:
            evaluation.move_to(before)
            raise RiktigError(
                "The list was not carried out: nothing was changed.",
                hint="Correct what is listed.",
                faults=[InputFault(where, _fault_words(error))],
            ) from error
    return evaluation.document


def _fault_words(error: RiktigError) -> str:
    if isinstance(error, ImpossibleValueError):
        return f"That cannot be planned: {error.message}."
    return f"{error.message} {error.hint}".strip()
