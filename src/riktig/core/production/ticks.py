"""What has been done to each wire, and which of it no longer counts after an edit.

A tick says what it was true of. It counts as long as that is still true; otherwise it is out of
date, with the reason. Nothing is ever deleted.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cached_property

from riktig.core.ids import PinRef, WireId, read_pin, read_wire
from riktig.core.records import Operation, Record, Slot, WireDone, counted, slot_of, taken_back
from riktig.core.standards import conductor_name
from riktig.core.wiring import Wire, WireEnd, Wiring

__all__ = [
    "OPERATIONS",
    "TAKEN_OUT",
    "BuildProgress",
    "Done",
    "Operation",
    "Stale",
    "WireState",
    "loose_screws",
    "operations",
    "progress_of",
    "tick_facts",
]


def operations() -> tuple[Operation, ...]:
    """All operations, in the order they are done."""
    return tuple(Operation)


TAKEN_OUT = "/out "
"""In the subject of an entry that says that a wire was taken out for a change: its key stands behind it."""


OPERATIONS = len(Operation)
"""How many operations a wire takes; an enumeration counts its members anew each time it is asked."""


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
        return any(done_operation is operation for done_operation, _ in self.done)

    @property
    def complete(self) -> bool:
        """Whether all operations are done."""
        return len(self.done) == OPERATIONS

    @property
    def next(self) -> Operation | None:
        """The first operation still to do."""
        return next((operation for operation in Operation if not self.has(operation)), None)


@dataclass(frozen=True)
class BuildProgress:
    """All wires with what has been done, and what is out of date."""

    states: tuple[WireState, ...]
    stale: tuple[Stale, ...]

    @cached_property
    def _by_key(self) -> dict[str, WireState]:
        return {state.wire.key: state for state in self.states}

    def of(self, key: str) -> WireState | None:
        """The state of one wire."""
        return self._by_key.get(key)

    def count(self, operation: Operation) -> int:
        """Wires for which an operation is done."""
        return sum(state.has(operation) for state in self.states)

    @property
    def complete(self) -> int:
        """Wires that are finished."""
        return sum(state.complete for state in self.states)


def _end_facts(end: WireEnd) -> str:
    return f"{end.pin} {end.fitting} {end.torque_n_m:g} N·m"


def tick_facts(wire: Wire, operation: Operation, tool: str = "") -> WireDone:
    """What a tick made now is true of: recorded with it, and compared ever after.

    Args:
        wire: The wire.
        operation: What was done to the wire.
        tool: What it was tightened with.
    """
    conductor = f"{conductor_name(wire.mm2)} {wire.colour}"
    match operation:
        case Operation.CUT:
            return WireDone(operation, wire.name, conductor, length=wire.cut, needed=wire.length)
        case Operation.MARKED:
            return WireDone(operation, wire.name, conductor, number=wire.number)
        case Operation.STRIPPED:
            ends = "; ".join(sorted(f"{end.strip:g} mm {end.fitting}" for end in (wire.start, wire.end)))
            return WireDone(operation, wire.name, conductor, ends=ends)
        case Operation.LANDED_START:
            return WireDone(operation, wire.name, conductor, end=_end_facts(wire.start))
        case Operation.LANDED_END:
            return WireDone(operation, wire.name, conductor, end=_end_facts(wire.end))
        case Operation.TIGHTENED:
            first, last = sorted((wire.start, wire.end), key=lambda end: end.pin)
            return WireDone(operation, wire.name, conductor, ends=f"{_end_facts(first)}; {_end_facts(last)}", tool=tool)


def progress_of(wiring: Wiring, records: Iterable[Record]) -> BuildProgress:
    """What counts and what is out of date, from the log.

    A tick taken back by a correction is neither; ticking again supersedes what was out of date. An end that has
    landed was stripped, whether or not somebody ticked that before.

    Args:
        wiring: All wires, in the order of their batches.
        records: The log, oldest first.
    """
    log = tuple(
        record
        for record in records
        if record.corrects or isinstance(record.facts, WireDone) or TAKEN_OUT in record.subject
    )
    wires: dict[str, Wire] = {wire.key: wire for wire in wiring.wires}
    done: dict[str, dict[Operation, Done]] = {}
    stale: list[tuple[str, WireDone, Stale]] = []
    present = _present(wires, log)
    for item in counted(log, WireDone, present):
        record, facts = item.record, item.facts
        if item.counts:
            operation = present[item.slot].operation  # an end that is now the other one of its wire
            done.setdefault(record.subject, {})[operation] = Done(record.who, record.when)
        else:
            wire = wires.get(record.subject)
            name = wire.name if wire else facts.name
            stale.append((record.subject, facts, Stale(record.subject, name, facts.operation.words, item.why_not)))
    loose = loose_screws(log)
    for key, ticks in done.items():
        if Operation.TIGHTENED in ticks and loose & {wires[key].start.pin, wires[key].end.pin}:
            del ticks[Operation.TIGHTENED]
        landed = next((ticks[op] for op in (Operation.LANDED_START, Operation.LANDED_END) if op in ticks), None)
        if landed:  # no end lands that was not stripped; who ticks no stripping, strips where he lands
            ticks.setdefault(Operation.STRIPPED, landed)
    states = tuple(
        WireState(wire, tuple((op, ticks[op]) for op in Operation if op in ticks) if ticks else ())
        for wire in wiring.wires
        for ticks in (done.get(wire.key),)
    )
    order = {key: place for place, key in enumerate(wires)}
    left = [tick for key, facts, tick in stale if facts.operation not in done.get(key, {})]
    left.sort(key=lambda stale: order.get(stale.subject, len(order)))
    return BuildProgress(states, tuple(left))


def loose_screws(log: Iterable[Record]) -> set[PinRef]:
    """The clamps that something was put into or taken out of since they were tightened last.

    Two conductors in one clamp have one screw: whoever tightens it after the second went in has tightened both.

    Args:
        log: The log, oldest first.
    """
    entries = tuple(log)
    gone, by_id = taken_back(entries), {record.id: record for record in entries}
    loose: set[PinRef] = set()
    for record in entries:
        back = by_id.get(record.corrects) if record.corrects else None
        facts = back.facts if back else record.facts
        if isinstance(facts, WireDone) and facts.operation.is_landing and facts.pin:
            loose.add(read_pin(facts.pin))
        elif (
            isinstance(facts, WireDone)
            and facts.operation is Operation.TIGHTENED
            and record.id not in gone
            and not back
        ):
            loose.difference_update(read_wire(WireId(record.subject)))
        elif isinstance(facts, WireDone) and facts.operation is Operation.TIGHTENED and back:
            loose.update(read_wire(WireId(back.subject)))
        elif TAKEN_OUT in record.subject and not record.corrects and record.id not in gone:
            loose.update(read_wire(WireId(record.subject.partition(TAKEN_OUT)[2])))
    return loose


def _present(wires: Mapping[str, Wire], log: Iterable[Record]) -> dict[Slot, WireDone]:
    """What a tick would say now, of every wire that the log speaks of."""
    named = {record.subject for record in log if record.subject in wires}
    present: dict[Slot, WireDone] = {}
    for key in named:
        for operation in Operation:
            facts = tick_facts(wires[key], operation)
            present[slot_of(key, facts)] = facts
    return present
