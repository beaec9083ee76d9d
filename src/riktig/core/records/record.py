"""An entry of the log. Never part of the job: it outlives every undo."""

from dataclasses import dataclass

from riktig.core.records.facts import Facts

__all__ = ["NewRecord", "Record"]


@dataclass(frozen=True, slots=True)
class NewRecord:
    """What is to be recorded: the stable key of what it is about, what was done, the entry it takes back or ""."""

    subject: str
    facts: Facts
    corrects: str = ""


@dataclass(frozen=True, slots=True)
class Record:
    """One entry of the log.

    Args:
        id: Made once by whoever records, so that writing twice is writing once.
        subject: The stable key of what it is about: a wire, a test, a clause.
        facts: What was done or read, and what it was true of.
        who: Who says so.
        when: ISO 8601 with zone, from the caller's clock.
        revision: Of the job that was in force.
        corrects: The id of an earlier record that this one takes back, or "".
    """

    id: str
    subject: str
    facts: Facts
    who: str
    when: str
    revision: int
    corrects: str = ""
