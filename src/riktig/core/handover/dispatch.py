"""The panel leaves the house, and is closed as built: gates with names, passed with a reason that stays."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from riktig.core.errors import RiktigError
from riktig.core.handover.issues import digest_of_job, is_digest_of
from riktig.core.handover.missing import Missing, MissingFor
from riktig.core.job import Job
from riktig.core.records import AsBuiltClosed, NewRecord, PanelDispatched, Record, ServiceVisit, log_of

__all__ = ["Dispatched", "as_built_entry", "as_built_of", "dispatch_entry", "dispatched_of", "is_as_built", "visits_of"]


@dataclass(frozen=True, slots=True)
class Dispatched:
    """The panel has left: the entry of the log, and what it says."""

    record: Record
    facts: PanelDispatched


def dispatched_of(records: Iterable[Record]) -> Dispatched | None:
    """The dispatch that counts; None while the panel is in the house.

    Args:
        records: The log, oldest first.
    """
    dispatches = log_of(records).said(PanelDispatched)
    return Dispatched(*dispatches[-1]) if dispatches else None


def dispatch_entry(job: Job, to: str, reason: str, missing: Sequence[Missing]) -> NewRecord:
    """What the log gets when the panel leaves.

    Args:
        job: The job of now.
        to: Who gets it.
        reason: Why it leaves although something is missing; it is printed with the papers.
        missing: What is missing.

    Raises:
        RiktigError: nobody gets it, it has no serial number, or something is missing and nobody said why.
    """
    left = [item.text for item in missing if item.needed_for is MissingFor.DISPATCH]
    if not to.strip():
        raise RiktigError("The panel is not dispatched: it is not said to whom.", hint="Name who gets it.")
    if not job.serial.strip():
        raise RiktigError(
            "The panel is not dispatched: it has no serial number, so nobody can find its papers again.",
            hint="Fill it in at the head of the Brief.",
        )
    if left and not reason.strip():
        raise RiktigError(
            f"The panel is not dispatched: {len(left)} things are missing.",
            hint="Do them, or say why it leaves without; the reason is printed with the papers.",
        )
    kept_reason = reason.strip() if left else ""
    return NewRecord("dispatch", PanelDispatched(to.strip(), job.serial, kept_reason, "; ".join(left)))


def as_built_of(records: Iterable[Record]) -> Record | None:
    """The entry that closed the panel as built; None while it is open.

    Args:
        records: The log, oldest first.
    """
    closed = log_of(records).standing(AsBuiltClosed)
    return closed[-1] if closed else None


def is_as_built(job: Job, records: Iterable[Record]) -> bool:
    """Whether the job of now is the one that was closed as built: a later change opens it again.

    Args:
        job: The job of now.
        records: The log, oldest first.
    """
    closed = as_built_of(records)
    return closed is not None and isinstance(closed.facts, AsBuiltClosed) and is_digest_of(closed.facts.digest, job)


def as_built_entry(job: Job, records: Iterable[Record], missing: Sequence[Missing]) -> NewRecord:
    """What the log gets when the panel is closed as built: the drawing is what hangs on the wall.

    Args:
        job: The job of now.
        records: The log, oldest first.
        missing: What is missing.

    Raises:
        RiktigError: something is open, or the panel never left; there is no way round this gate.
    """
    if missing:
        raise RiktigError(
            f"The panel is not closed as built: {len(missing)} things are open, the first: {missing[0].text}.",
            hint="As built means that nothing is open. Do it, or leave the panel open.",
        )
    if dispatched_of(records) is None:
        raise RiktigError("The panel is not closed as built: it was not dispatched.", hint="Dispatch it first.")
    return NewRecord("as built", AsBuiltClosed(job.serial, digest_of_job(job)))


def visits_of(records: Iterable[Record]) -> tuple[Record, ...]:
    """All service visits, oldest first.

    Args:
        records: The log, oldest first.
    """
    return log_of(records).standing(ServiceVisit)
