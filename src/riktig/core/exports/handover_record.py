"""The record of hand-over on paper: issues, papers, dispatch with its reason, work on site, as built, visits."""

from collections.abc import Iterable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job
from riktig.core.records import (
    AsBuiltClosed,
    Facts,
    JobIssued,
    PanelDispatched,
    PapersWritten,
    Record,
    ServiceVisit,
    SiteItemDone,
    log_of,
    taken_back,
)

__all__ = ["handover_record"]


def handover_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """What left the house and when, and what was done to the panel after; what was taken back is left out.

    Args:
        evaluation: Of the job; all of it is told from the log alone.
        records: The log, oldest first.
    """
    del evaluation
    log = log_of(records)
    gone = taken_back(log)
    rows = [
        (*words, record.who, record.when[:16])
        for record in log
        if record.id not in gone and not record.corrects and (words := _facts_row(record.facts))
    ]
    columns = (("kind", "Kind"), ("what", "What"), ("says", "It says"), ("who", "By"), ("when", "When"))
    return Schedule("handover record", "Issues, dispatch, site and service", columns, tuple(rows))


def _facts_row(facts: Facts) -> tuple[Value, ...]:
    match facts:
        case JobIssued():
            return "issue", f"revision {facts.letter}", f"{facts.why}; digest {facts.digest[:16]}"
        case PapersWritten():
            return "documents", f"revision {facts.letter}", f"{facts.files} files"
        case PanelDispatched():
            although = f"although {facts.reason}; missing then: {facts.open_work}"
            words = although if facts.reason else "nothing that Riktig looks at was missing"
            return "dispatch", f"serial number {facts.serial} to {facts.to}", words
        case SiteItemDone():
            return "on site", facts.what, facts.result
        case AsBuiltClosed():
            return "as built", f"serial number {facts.serial}", f"digest {facts.digest[:16]}"
        case ServiceVisit():
            more = "; ".join(
                text
                for text in (
                    f"parts: {facts.parts}" if facts.parts else "",
                    f"next visit: {facts.next_visit}" if facts.next_visit else "",
                )
                if text
            )
            return "service visit", facts.called_for, f"{facts.done}{'; ' if more else ''}{more}"
    return ()
