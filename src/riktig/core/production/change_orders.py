"""Change orders and red-lines, as the log has them: which are open, and what became of them."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.records import (
    ChangeClosed,
    ChangeOpened,
    ContactRead,
    HoleDone,
    NewRecord,
    Operation,
    PartMounted,
    PartReceived,
    PieceCut,
    Record,
    RedLine,
    RedLineAnswered,
    TakenBack,
    TaskDone,
    WireDone,
    log_of,
)

__all__ = [
    "ACCEPTED",
    "REJECTED",
    "ChangeOrder",
    "OpenRedLine",
    "change_orders",
    "change_subject",
    "done_again",
    "next_change",
    "red_lines",
]

ACCEPTED, REJECTED = "accepted", "rejected"


@dataclass(frozen=True, slots=True)
class ChangeOrder:
    """A change order: its number and the subject of its records, what it says, who opened and who closed it.

    ``closed`` is None while it is open.
    """

    number: int
    subject: str
    said: ChangeOpened
    who: str
    when: str
    closed: Record | None = None

    @property
    def is_open(self) -> bool:
        """Whether work of it is left, or nobody closed it."""
        return self.closed is None


@dataclass(frozen=True, slots=True)
class OpenRedLine:
    """A red-line and the planner's answer, None while there is none."""

    record: Record
    said: RedLine
    answer: Record | None = None


def change_subject(number: int) -> str:
    """What the records of a change order are about."""
    return f"change:{number}"


def change_orders(records: Iterable[Record]) -> tuple[ChangeOrder, ...]:
    """All change orders, oldest first; one that was taken back is none.

    Args:
        records: The log, oldest first.
    """
    log = log_of(records)
    orders: dict[str, ChangeOrder] = {}
    for record, opened in log.said(ChangeOpened):
        orders[record.subject] = ChangeOrder(len(orders) + 1, record.subject, opened, record.who, record.when)
    for record in log.standing(ChangeClosed):
        if record.subject in orders:
            order = orders[record.subject]
            orders[record.subject] = ChangeOrder(order.number, order.subject, order.said, order.who, order.when, record)
    return tuple(orders.values())


def next_change(records: Iterable[Record]) -> str:
    """The subject of the next change order: no other ever had it, be it taken back."""
    used = {record.subject for record in records if isinstance(record.facts, ChangeOpened)}
    number = len(used) + 1
    while change_subject(number) in used:
        number += 1
    return change_subject(number)


def red_lines(records: Iterable[Record]) -> tuple[OpenRedLine, ...]:
    """All red-lines with their answers, oldest first; one that was taken back is none.

    Args:
        records: The log, oldest first.
    """
    log = log_of(records)
    answers = {answer.of: record for record, answer in log.said(RedLineAnswered)}
    return tuple(OpenRedLine(record, line, answers.get(record.id)) for record, line in log.said(RedLine))


_DONE = (TaskDone, PartMounted, PartReceived, ContactRead, HoleDone, PieceCut)
"""What a task of any stage is ticked with."""


def done_again(subject: str, records: Iterable[Record], why: str) -> list[NewRecord]:
    """What takes the landings and the tightening of a wire back, or a task, so that it is done again as drawn.

    Args:
        subject: What the red-line is about.
        records: The log, oldest first.
        why: Why it was rejected.
    """
    again = (Operation.LANDED_START, Operation.LANDED_END, Operation.TIGHTENED)
    entries: list[NewRecord] = []
    for record in log_of(records).about(subject):
        facts = record.facts
        if isinstance(facts, WireDone) and facts.operation in again:
            entries.append(NewRecord(subject, TakenBack(facts.operation.words, f"red-line rejected: {why}"), record.id))
        elif isinstance(facts, _DONE):
            entries.append(NewRecord(subject, TakenBack("done", f"red-line rejected: {why}"), record.id))
    return entries
