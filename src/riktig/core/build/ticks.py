"""What has been done to each wire, and which of it no longer counts after an edit.

A tick says what it was true of. It counts as long as that is still true; otherwise it is out of
date, with the reason. Nothing is ever deleted.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum

from riktig.core.job import Record
from riktig.core.standards import conductor_name
from riktig.core.wiring import Wire, WireEnd, Wiring

__all__ = ["Done", "Operation", "Progress", "Stale", "WireState", "operations", "progress_of", "tick_facts"]

CUT_SLACK_MM = 10.0
"""A wire cut this much too short still reaches: lengths are rounded up by as much."""


class Operation(Enum):
    """What is done to a wire, in order."""

    CUT = "cut"
    MARKED = "marked"
    LANDED_START = "landed at the start"
    LANDED_END = "landed at the end"
    TIGHTENED = "tightened"


def operations() -> tuple[Operation, ...]:
    """All operations, in the order they are done."""
    return tuple(Operation)


@dataclass(frozen=True, slots=True)
class Done:
    """An operation that counts: who and when."""

    who: str
    when: str


@dataclass(frozen=True, slots=True)
class Stale:
    """A tick or reading that no longer counts: of which wire, which, and why."""

    subject: str
    name: str
    what: str
    why: str


@dataclass(frozen=True, slots=True)
class WireState:
    """How far one wire is."""

    wire: Wire
    done: tuple[tuple[Operation, Done], ...]

    def has(self, operation: Operation) -> bool:
        """Whether an operation is done and still counts."""
        return any(one is operation for one, _ in self.done)

    @property
    def complete(self) -> bool:
        """Whether all operations are done."""
        return len(self.done) == len(Operation)

    @property
    def next(self) -> Operation | None:
        """The first operation still to do."""
        return next((one for one in Operation if not self.has(one)), None)


@dataclass(frozen=True, slots=True)
class Progress:
    """All wires with what has been done, and what is out of date."""

    states: tuple[WireState, ...]
    stale: tuple[Stale, ...]

    def of(self, key: str) -> WireState | None:
        """The state of one wire."""
        return next((state for state in self.states if state.wire.key == key), None)

    def count(self, operation: Operation) -> int:
        """Wires for which an operation is done."""
        return sum(state.has(operation) for state in self.states)

    @property
    def complete(self) -> int:
        """Wires that are finished."""
        return sum(state.complete for state in self.states)


def _end_facts(end: WireEnd) -> str:
    return f"{end.pin} {end.fitting} {end.torque_n_m:g} N·m"


def tick_facts(wire: Wire, operation: Operation) -> tuple[tuple[str, str], ...]:
    """What a tick is true of: recorded with it, and compared ever after."""
    conductor = f"{conductor_name(wire.mm2)} {wire.colour}"
    first, last = sorted((wire.start, wire.end), key=lambda end: end.pin)
    ends = f"{_end_facts(first)}; {_end_facts(last)}"
    facts = {
        Operation.CUT: (("conductor", conductor), ("length", f"{wire.cut:g}")),
        Operation.MARKED: (("conductor", conductor), ("number", wire.number)),
        Operation.LANDED_START: (("conductor", conductor), ("end", _end_facts(wire.start))),
        Operation.LANDED_END: (("conductor", conductor), ("end", _end_facts(wire.end))),
        Operation.TIGHTENED: (("conductor", conductor), ("ends", ends)),
    }[operation]
    return (("operation", operation.value), ("name", wire.name), *facts)


def progress_of(wiring: Wiring, records: Iterable[Record]) -> Progress:
    """What counts and what is out of date, from the log.

    A tick taken back by a correction is neither; ticking again supersedes what was out of date.
    """
    corrected: set[str] = set()
    ticks: dict[str, list[Record]] = {}
    for record in records:
        if record.corrects:
            corrected.add(record.corrects)
        elif record.kind == "tick":
            ticks.setdefault(record.subject, []).append(record)
    stale: list[Stale] = []
    states: list[WireState] = []
    for wire in wiring.wires:
        mine = [r for r in ticks.pop(wire.key, []) if r.id not in corrected]
        done, old = _judge(wire, mine)
        states.append(WireState(wire, done))
        stale += old
    for key, mine in ticks.items():
        for record in mine:
            if record.id not in corrected:
                what = record.fact("operation")
                stale.append(Stale(key, record.fact("name"), what, "the wire is gone: take it out"))
    return Progress(tuple(states), tuple(stale))


def _judge(wire: Wire, ticks: list[Record]) -> tuple[tuple[tuple[Operation, Done], ...], list[Stale]]:
    done: dict[Operation, Done] = {}
    old: dict[str, Stale] = {}
    for record in ticks:
        said = record.fact("operation")
        fits = [one for one in Operation if _kind(one.value) == _kind(said) and not _why_stale(wire, one, record)]
        if fits:
            done[fits[0]] = Done(record.who, record.when)
            old.pop(_slot(said, record), None)
        else:
            mine = next(one for one in Operation if one.value == said)
            why = _why_stale(wire, mine, record)
            old[_slot(said, record)] = Stale(wire.key, wire.name, said, why)
    fresh = [stale for stale in old.values() if not any(one.value == stale.what for one in done)]
    return tuple((one, done[one]) for one in Operation if one in done), fresh


def _kind(said: str) -> str:
    """Both landings are one kind: which end is the start may turn round, the pin does not."""
    return "landed" if said.startswith("landed") else said


def _slot(said: str, record: Record) -> str:
    return said + record.fact("end").split(" ")[0]


def _why_stale(wire: Wire, operation: Operation, record: Record) -> str:
    now = dict(tick_facts(wire, operation))
    if record.fact("conductor") != now["conductor"]:
        return f"it is now {now['conductor']}, was {record.fact('conductor')}"
    match operation:
        case Operation.CUT:
            cut = float(record.fact("length") or 0)
            if cut + CUT_SLACK_MM < wire.length:
                return f"it must now be {wire.length:g} mm, was cut to {cut:g} mm"
        case Operation.MARKED:
            if record.fact("number") != wire.number:
                return f"its number is now {wire.number}, was {record.fact('number')}"
        case Operation.LANDED_START | Operation.LANDED_END:
            return _end_changed(record.fact("end"), now["end"])
        case Operation.TIGHTENED:
            if record.fact("ends") != now["ends"]:
                return "what shares its clamps has changed"
    return ""


def _end_changed(was: str, now: str) -> str:
    if was == now:
        return ""
    old_pin, _, old_rest = was.partition(" ")
    new_pin, _, new_rest = now.partition(" ")
    if old_pin != new_pin:
        return f"it now lands on another clamp than {old_pin}"
    return f"its end is now {new_rest}, was {old_rest}"
