"""What has been done to each wire, and which of it no longer counts after an edit.

A tick says what it was true of. It counts as long as that is still true; otherwise it is out of
date, with the reason. Nothing is ever deleted.
"""

from collections.abc import Container, Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property

from riktig.core.ids import PinRef, WireId, read_pin, read_wire
from riktig.core.records import FromLog, Log, Operation, Record, Slot, WireDone, log_of, slot_of, why_not
from riktig.core.standards import conductor_name, torque_name
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

    @cached_property
    def complete(self) -> int:
        """Wires that are finished."""
        return sum(state.complete for state in self.states)


def _end_facts(end: WireEnd) -> str:
    return f"{end.pin} {end.fitting} {torque_name(end.torque_n_m, awg=False)}"


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
    return log_of(records).get(_PROGRESS, wiring).progress


def loose_screws(records: Iterable[Record]) -> frozenset[PinRef]:
    """The clamps that something was put into or taken out of since they were tightened last.

    Two conductors in one clamp have one screw: whoever tightens it after the second went in has tightened both.

    Args:
        records: The log, oldest first.
    """
    return log_of(records).get(_LOOSE, None)


def _loosened(before: frozenset[PinRef], _: None, log: Log, new: Sequence[Record]) -> frozenset[PinRef]:
    """The loose screws after further entries.

    A correction of a landing or of a tightening leaves its screws loose whatever was before, so the entries before
    need no second look; what was noted as taken out and is not, does.
    """
    if any(record.corrects and TAKEN_OUT in log.meant(record).subject for record in new):
        before, new = frozenset(), log
    loose = set(before)
    for record in new:
        meant = log.meant(record)
        facts, subject = meant.facts, WireId(meant.subject)
        if isinstance(facts, WireDone) and facts.operation.is_landing and facts.pin:
            loose.add(read_pin(facts.pin))
        elif isinstance(facts, WireDone) and facts.operation is Operation.TIGHTENED:
            if record.corrects:
                loose.update(read_wire(subject))
            elif record.id not in log.gone:
                loose.difference_update(read_wire(subject))
        elif TAKEN_OUT in subject and not record.corrects and record.id not in log.gone:
            loose.update(read_wire(WireId(subject.partition(TAKEN_OUT)[2])))
    return frozenset(loose)


_LOOSE = FromLog[None, frozenset[PinRef]](
    "loose screws", lambda beside, log: _loosened(frozenset(), beside, log, log), _loosened
)


@dataclass(frozen=True, slots=True)
class _Known:
    """The progress with what is needed to go on from it.

    Args:
        progress: What counts.
        places: Where a wire is among the states.
        wires_at: The wires at a clamp.
        loose: The loose screws.
        stale: What no longer counts, of each wire that has such.
    """

    progress: BuildProgress
    places: dict[WireId, int]
    wires_at: dict[PinRef, tuple[WireId, ...]]
    loose: frozenset[PinRef]
    stale: dict[str, tuple[Stale, ...]]


def _known_anew(wiring: Wiring, log: Log) -> _Known:
    wires_at: dict[PinRef, tuple[WireId, ...]] = {}
    for wire in wiring.wires:
        for end in (wire.start, wire.end):
            wires_at[end.pin] = (*wires_at.get(end.pin, ()), wire.key)
    untouched = BuildProgress(tuple(WireState(wire, ()) for wire in wiring.wires), ())
    places = {wire.key: place for place, wire in enumerate(wiring.wires)}
    known = _Known(untouched, places, wires_at, loose_screws(log), {})
    return _with_wires(known, wiring, log, dict.fromkeys(record.subject for record in log.standing(WireDone)))


def _known_further(before: _Known, wiring: Wiring, log: Log, new: Sequence[Record]) -> _Known:
    """The progress after further entries: of the wires that they are about, and that share a screw with these."""
    loose = loose_screws(log)
    touched = dict.fromkeys(meant.subject for meant in map(log.meant, new) if isinstance(meant.facts, WireDone))
    for pin in loose ^ before.loose:
        touched.update(dict.fromkeys(before.wires_at.get(pin, ())))
    if not touched:
        return before
    known = _Known(before.progress, before.places, before.wires_at, loose, before.stale)
    return _with_wires(known, wiring, log, touched)


def _with_wires(known: _Known, wiring: Wiring, log: Log, subjects: Iterable[str]) -> _Known:
    """The progress with the state of some wires read from the log."""
    states, stale = list(known.progress.states), dict(known.stale)
    for subject in subjects:
        place = known.places.get(WireId(subject))
        wire = None if place is None else wiring.wires[place]
        done, outdated = _ticks_of(subject, wire, log, known.loose)
        stale.pop(subject, None)
        if outdated:
            stale[subject] = outdated
        if place is not None:
            states[place] = WireState(wiring.wires[place], done)
    last = len(states)
    in_order = sorted(stale, key=lambda subject: known.places.get(WireId(subject), last))
    progress = BuildProgress(tuple(states), tuple(tick for subject in in_order for tick in stale[subject]))
    return _Known(progress, known.places, known.wires_at, known.loose, stale)


_PROGRESS = FromLog[Wiring, _Known]("progress of the wires", _known_anew, _known_further)


def _ticks_of(
    subject: str, wire: Wire | None, log: Log, loose: Container[PinRef]
) -> tuple[tuple[tuple[Operation, Done], ...], tuple[Stale, ...]]:
    """What counts of a wire in the order it is done, and what no longer does; ``wire`` is None when it is gone."""
    now = [tick_facts(wire, operation) for operation in Operation] if wire else []
    present = {slot_of(subject, facts): facts for facts in now}
    last: dict[Slot, tuple[Record, WireDone]] = {}
    for record in log.about(subject):
        if isinstance(record.facts, WireDone):
            last[slot_of(subject, record.facts)] = (record, record.facts)
    ticks: dict[Operation, Done] = {}
    outdated: list[tuple[Operation, Stale]] = []
    for slot, (record, facts) in last.items():
        why = why_not(facts, present.get(slot), subject_is_known=wire is not None)
        if why:
            name = wire.name if wire else facts.name
            outdated.append((facts.operation, Stale(subject, name, facts.operation.words, why)))
        else:
            operation = present[slot].operation  # an end that is now the other one of its wire
            ticks[operation] = Done(record.who, record.when)
    if wire and Operation.TIGHTENED in ticks and (wire.start.pin in loose or wire.end.pin in loose):
        del ticks[Operation.TIGHTENED]
    landed = next((ticks[op] for op in (Operation.LANDED_START, Operation.LANDED_END) if op in ticks), None)
    if landed:  # no end lands that was not stripped; who ticks no stripping, strips where he lands
        ticks.setdefault(Operation.STRIPPED, landed)
    done = tuple((operation, ticks[operation]) for operation in Operation if operation in ticks)
    return done, tuple(tick for operation, tick in outdated if operation not in ticks)
