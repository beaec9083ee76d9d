"""Whether an entry of the log still counts, and why not: one judgement for all kinds.

A *slot* is what one entry can be superseded in: an operation on a wire, an end in its clamp, a test. The
*present* facts say of every slot what an entry made now would say.
"""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Generic, NamedTuple, TypeVar

from riktig.core.records.facts import (
    ClauseJudged,
    ContactRead,
    DimensionRead,
    Facts,
    FieldEndDone,
    HoleDone,
    HoleWork,
    LabelPrinted,
    LiveStepDone,
    NoteKept,
    Operation,
    Outcome,
    PartMounted,
    PartReceived,
    PhotoKept,
    PieceCut,
    ReadingTaken,
    TaskDone,
    WireDone,
)
from riktig.core.records.inspection_facts import ClauseCompared, FindingNoted, FindingSettled
from riktig.core.records.log import Log, log_of
from riktig.core.records.record import Record

__all__ = ["CUT_SLACK_MM", "SIMULATED", "Counted", "Slot", "counted", "last_word", "slot_of", "why_not"]

CUT_SLACK_MM = 10.0
"""A wire cut this much too short still reaches: lengths are rounded up by as much."""
SIMULATED = "(simulated)"
"""In the name of every stand-in for a meter: what it shows is no reading of the panel."""
MOVED_MM = 0.05
"""What moved by more is elsewhere, mm (chosen by us: half of what is written down)."""


Said = TypeVar("Said", bound=Facts)


class Slot(NamedTuple):
    """What an entry is about, to the single operation."""

    kind: type
    subject: str
    what: str = ""


@dataclass(frozen=True, slots=True)
class Counted(Generic[Said]):
    """An entry that is the last word in its slot; ``why_not`` is "" when it counts."""

    record: Record
    facts: Said
    slot: Slot
    why_not: str

    @property
    def counts(self) -> bool:
        """Whether it still counts."""
        return not self.why_not


def slot_of(subject: str, facts: Facts) -> Slot:
    """The slot of an entry. A landing belongs to its pin: which end is the start may turn round, the pin does not.

    Args:
        subject: What the entry is about.
        facts: What was recorded.
    """
    match facts:
        case WireDone() if facts.operation.is_landing:
            return Slot(WireDone, subject, f"landed {facts.pin}")
        case PhotoKept():
            return Slot(PhotoKept, subject, facts.file)
        case NoteKept() | FindingNoted():
            return Slot(type(facts), subject, facts.text)
        case FindingSettled():
            return Slot(FindingSettled, subject, facts.finding)
        case ContactRead():
            return Slot(ContactRead, subject, f"{facts.contact} {facts.position}")
        case WireDone() | HoleDone():
            return Slot(type(facts), subject, facts.operation.value)
        case _:
            return Slot(type(facts), subject)


def counted(records: Iterable[Record], kind: type[Said], present: Mapping[Slot, Said]) -> Iterator[Counted[Said]]:
    """Every entry of one kind that is the last word in its slot, with whether it still counts.

    What was taken back is left out; a later entry supersedes an earlier one, whether that still counted or not.
    Of the readings of a dimension each is a word of its own.

    Args:
        records: The log, oldest first.
        kind: Of the entries that are asked for.
        present: What an entry made now would say, for every slot there is.
    """
    last: dict[tuple[Slot, str], tuple[Record, Said]] = {}
    for record, facts in log_of(records).said(kind):
        slot = slot_of(record.subject, facts)
        last[slot, record.id if kind is DimensionRead else ""] = (record, facts)
    subjects = {slot.subject for slot in present}
    for (slot, _), (record, facts) in last.items():
        reason = why_not(facts, present.get(slot), subject_is_known=slot.subject in subjects)
        yield Counted(record, facts, slot, reason)


def last_word(log: Log, slot: Slot) -> Record | None:
    """The last entry in a slot that stands, whether it counts or not; None where there is none."""
    about = reversed(log.about(slot.subject))
    return next((record for record in about if slot_of(record.subject, record.facts) == slot), None)


def why_not(then: Facts, now: Facts | None, *, subject_is_known: bool = True) -> str:
    """Why an entry no longer counts, in words; "" when it does.

    Args:
        then: What was recorded.
        now: What would be recorded today; None when there is no such thing any more.
        subject_is_known: Whether what it is about is still there, be it for other operations.
    """
    if now is None:
        return _gone(then, subject_is_known=subject_is_known)
    match then, now:
        case WireDone(), WireDone():
            return _wire(then, now)
        case HoleDone(), HoleDone():
            return _hole(then, now)
        case PieceCut(), PieceCut() if (then.stock, f"{then.length:g}") != (now.stock, f"{now.length:g}"):
            return f"cut to {then.length:g} mm from {then.stock}; it is now {now.length:g} mm from {now.stock}"
        case DimensionRead(), DimensionRead() if abs(then.nominal - now.nominal) > MOVED_MM:
            return f"read against {then.nominal:g} mm; it is now {now.nominal:g} mm"
        case PartMounted(), PartMounted():
            return _mounted(then, now)
        case FieldEndDone(), FieldEndDone() if then != now:
            return "its number or what is connected there has changed"
        case ReadingTaken(), ReadingTaken():
            return _reading(then, now)
        case ClauseJudged(), ClauseJudged() if then.evidence != now.evidence or then.deviation != now.deviation:
            return "the evidence has changed since"
        case ClauseCompared(), ClauseCompared() if then.source != now.source:
            return f"it now rests on {now.source}"
        case LabelPrinted(), LabelPrinted() if then.text != now.text:
            return f"it now says {now.text}"
    return _bench(then, now)


def _bench(then: Facts, now: Facts) -> str:
    """Why work at the bench beside holes and wires no longer counts."""
    match then, now:
        case LiveStepDone(), LiveStepDone() if then.true_of != now.true_of:
            return f"done as {then.true_of}; it is now {now.true_of}"
        case TaskDone(), TaskDone() if then.true_of != now.true_of:
            return f"done as {then.true_of or then.title}; it is now {now.true_of or now.title}"
        case PartReceived(), PartReceived() if then.quantity < now.wanted:
            return f"{then.quantity} of {now.wanted} are there"
        case ContactRead(), ContactRead() if then.fault:
            return then.fault
        case ContactRead(), ContactRead() if then.expected != now.expected:
            return f"{now.expected} is expected now, it was {then.expected}"
    return ""


def _gone(then: Facts, *, subject_is_known: bool) -> str:
    """Why an entry does not count of which there is nothing any more."""
    match then:
        case WireDone() if subject_is_known and then.operation.is_landing:
            return f"it now lands on another clamp than {then.pin}"
        case WireDone():
            return "the wire is gone: remove it"
        case ReadingTaken():
            return "there is no such test any more"
        case _:
            return "it is no longer planned"


def _wire(then: WireDone, now: WireDone) -> str:
    if then.conductor != now.conductor:
        return f"it is now {now.conductor}, was {then.conductor}"
    match then.operation:
        case Operation.CUT:
            cut, needed = then.length or 0.0, now.needed or 0.0
            if cut + CUT_SLACK_MM < needed:
                return f"it must now be {needed:g} mm, was cut to {cut:g} mm"
        case Operation.MARKED:
            if then.number != now.number:
                return f"its number is now {now.number}, was {then.number}"
        case Operation.STRIPPED:
            if then.ends != now.ends:
                return f"its ends are now {now.ends}, were {then.ends}"
        case Operation.LANDED_START | Operation.LANDED_END:
            if then.end != now.end:
                return f"its end is now {now.end.partition(' ')[2]}, was {then.end.partition(' ')[2]}"
        case Operation.TIGHTENED:
            if then.ends != now.ends:
                return "what shares its clamps has changed"
    return ""


def _hole(then: HoleDone, now: HoleDone) -> str:
    if max(abs(now.x - then.x), abs(now.y - then.y)) > MOVED_MM:
        return f"{then.operation.value} at {then.x:g}, {then.y:g}; it is now at {now.x:g}, {now.y:g}"
    if then.operation in (HoleWork.MADE, HoleWork.DEBURRED) and then.size != now.size:
        return f"{then.operation.value} as {then.size}; it is now {now.size}"
    return ""


def _mounted(then: PartMounted, now: PartMounted) -> str:
    if then.part != now.part:
        return f"{then.part} was mounted, it is now {now.part}"
    moved = max(abs(now.x - then.x), abs(now.y - then.y))
    return f"the plan has it {moved:.1f} mm away from where it was mounted" if moved > MOVED_MM else ""


def _reading(then: ReadingTaken, now: ReadingTaken) -> str:
    """Whatever its expectation was made of is what a reading is true of."""
    if SIMULATED in then.meter:
        return "it was read with the simulated meter, which proves nothing"
    if then.true_of != now.true_of:
        return _conductors(then.true_of, now.true_of)
    if then.low is not None:  # said since format 4
        if then.switches != now.switches:
            return "the switches must now stand otherwise for it"
        if (then.low, then.high) != (now.low, now.high):
            return f"{now.expected} is expected now, it was {then.expected}"
    elif then.ohm and then.outcome is Outcome.PASSED and now.low is not None:
        high = float("inf") if now.high is None else now.high
        if not now.low <= float(then.ohm) <= high:
            return f"{now.expected} is expected now"
    return ""


def _conductors(was: str, now: str) -> str:
    old, new = set(was.split()), set(now.split())
    keys = [word for word in old ^ new if "~" in word]
    if keys:
        return f"{len(keys)} of the wires it was true of are new, gone or changed"
    return "a conductor it was true of has changed"
