"""Edits of design reasons: why an operator, a terminal, an earth or a number is as it is."""

from dataclasses import dataclass, replace

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import DesignReason, Job
from riktig.core.labels import INDEX

__all__ = ["GiveReason", "TakeReason"]


@dataclass(frozen=True)
class GiveReason:
    """Something in the panel, by the text form of its key, gets its reason; one that was there is replaced."""

    thing: str
    reason: str
    who: str = ""

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job with that reason.

        Raises:
            RiktigError: there is no such thing.
            ValueError: no reason.
        """
        job = evaluation.document
        if not any(str(entry.key) == self.thing for entry in evaluation.get(INDEX).entries):
            raise RiktigError(
                f"“{self.thing}” names nothing in this panel, so no reason was kept.",
                hint="Name a thing such as device:c1.K, pin:c1.K:A1, net:c1.K:A1 or wire:c1.K:A2~c1.F:2.",
            )
        given = DesignReason(self.thing, self.reason.strip(), self.who.strip())
        return replace(job, reasons=(*_others(job, self.thing), given))


@dataclass(frozen=True)
class TakeReason:
    """The reason of something is taken out."""

    thing: str

    def apply(self, evaluation: Evaluation[Job]) -> Job:
        """The job without that reason."""
        job = evaluation.document
        return replace(job, reasons=_others(job, self.thing))


def _others(job: Job, thing: str) -> tuple[DesignReason, ...]:
    return tuple(entry for entry in job.reasons if entry.thing != thing)
