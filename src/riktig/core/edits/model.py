"""What an edit is: a typed value that turns a job into another."""

from typing import Protocol

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job

__all__ = ["Edit"]


class Edit(Protocol):
    """One change of the document. A frozen value with a text form (docs/edits.md)."""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The changed job; the one of the plan is left as it is.

        Raises:
            RiktigError: it cannot be done to this job; nothing is changed.
        """
        ...
