"""Who may do what at the bench: by the people of the job, and by what each has done already."""

from collections.abc import Iterable, Sequence

from riktig.core.inputs import same_person
from riktig.core.job import InspectedBy, Person, Practice
from riktig.core.production.work_model import BuildStage
from riktig.core.records import HoleDone, PartMounted, PieceCut, Record, TaskDone, WireDone, log_of

__all__ = ["may_not", "may_not_sign", "person_called"]

BUILT = (WireDone, HoleDone, PieceCut, PartMounted, TaskDone)
"""What somebody who built the panel has recorded."""


def person_called(people: Iterable[Person], text: str) -> Person | None:
    """Whom initials, a badge or a name mean; None for nobody of the job.

    Args:
        people: The people of the job.
        text: What was typed or scanned.
    """
    called = text.strip()
    for person in people:
        if called and (person.badge == called or person.initials.casefold() == called.casefold()):
            return person
    return next((person for person in people if called and same_person(person.name, called)), None)


def may_not(
    who: str, stage: BuildStage, people: Sequence[Person], practice: Practice, records: Iterable[Record]
) -> str:
    """Why somebody may not tick work of a stage, as the end of a sentence; "" when he may.

    Args:
        who: The name under which it would be recorded.
        stage: The stage of the work.
        people: The people of the job; where none are named, anyone with a name may build and inspect.
        practice: Whether who built may inspect.
        records: The log, oldest first.
    """
    if not who.strip():
        return "nobody is at the bench: say who you are"
    person = person_called(people, who)
    if people and person is None:
        return f"{who} is not among the people of this job"
    inspecting = stage is BuildStage.INSPECTION
    if person and not (person.inspects if inspecting else person.builds):
        return f"{who} may not {'inspect' if inspecting else 'build'}"
    if inspecting and practice.inspected_by is InspectedBy.ANOTHER and _has_built(who, records):
        return f"{who} built part of it: somebody else inspects it, as the practice asks"
    return ""


def may_not_sign(who: str, people: Sequence[Person]) -> str:
    """Why somebody may not judge a clause, as the end of a sentence; "" when he may.

    Args:
        who: The name under which it would be recorded.
        people: The people of the job; where none are named, anyone with a name may.
    """
    if not who.strip():
        return "nobody has said who signs"
    person = person_called(people, who)
    if people and person is None:
        return f"{who} is not among the people of this job"
    return f"{who} may not sign" if person and not person.signs else ""


def _has_built(who: str, records: Iterable[Record]) -> bool:
    log = log_of(records)
    return any(
        same_person(record.who, who)
        and not (isinstance(record.facts, TaskDone) and record.facts.stage == BuildStage.INSPECTION.value)
        for kind in BUILT
        for record in log.standing(kind)
    )
