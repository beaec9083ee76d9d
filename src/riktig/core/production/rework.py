"""What a change of the drawing asks of wires that may be in already: out, new, an end moved, marked or fitted anew."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import Enum

from riktig.core.ids import PinRef, WireId
from riktig.core.production.ticks import Operation, tick_facts
from riktig.core.records import CUT_SLACK_MM, Record, WireDone, log_of, why_not
from riktig.core.wiring import Wire, Wiring

__all__ = ["WireChange", "WireWork", "made_wires", "wire_work"]


class WireChange(Enum):
    """What is done to a wire for a change."""

    OUT = "take out"
    MOVE = "move one end"
    IN = "make new"
    REPLACE = "replace"
    REMARK = "mark anew"
    REFIT = "fit the end anew"
    RETIGHTEN = "tighten anew"


@dataclass(frozen=True, slots=True)
class WireWork:
    """One wire that is touched: as it was, as it is to be, and why in words."""

    change: WireChange
    before: Wire | None
    after: Wire | None
    why: str

    @property
    def wire(self) -> Wire:
        """The wire as it is to be; one that goes as it was."""
        wire = self.after or self.before
        assert wire is not None  # one of both there always is
        return wire

    @property
    def keys(self) -> frozenset[WireId]:
        """The wires that it is about, before and after."""
        return frozenset(wire.key for wire in (self.before, self.after) if wire)


def wire_work(before: Wiring, after: Wiring) -> tuple[WireWork, ...]:
    """All wires that a change touches, in the order they go out and in.

    Method:
        A wire that goes and one that comes are one work, the move of an end, where they have an end, the number and
        the conductor in common and the old one is long enough. What stays is compared as its ticks are.

    Args:
        before: The wires of the drawing before.
        after: The wires of now.
    """
    old, new = before.by_key, after.by_key
    gone = [wire for wire in before.wires if wire.key not in new]
    come = [wire for wire in after.wires if wire.key not in old]
    moves = _moves(gone, come)
    moved = {key for work in moves for key in work.keys}
    works = [WireWork(WireChange.OUT, wire, None, "it is not drawn any more") for wire in gone if wire.key not in moved]
    works += moves
    works += [WireWork(WireChange.IN, None, wire, "it is new") for wire in come if wire.key not in moved]
    for wire in after.wires:
        if wire.key in old:
            change = _changed(old[wire.key], wire)
            if change:
                works.append(change)
    return (*works, *_retightened(works, old, after))


def _retightened(works: list[WireWork], old: Mapping[WireId, Wire], after: Wiring) -> list[WireWork]:
    """The wires that stay as they are in a clamp that another goes out of or into: its screw is opened for that."""
    loose: set[PinRef] = set()
    for work in works:
        if work.change is WireChange.REMARK:
            continue
        ends = [{wire.start.pin, wire.end.pin} for wire in (work.before, work.after) if wire]
        loose |= ends[0] ^ ends[1] if work.change is WireChange.MOVE else set[PinRef]().union(*ends)
    busy = {key for work in works for key in work.keys}
    why = "another conductor goes into its clamp or out of it"
    return [
        WireWork(WireChange.RETIGHTEN, old[wire.key], wire, why)
        for wire in after.wires
        if wire.key in old and wire.key not in busy and loose & {wire.start.pin, wire.end.pin}
    ]


def _moves(gone: list[Wire], come: list[Wire]) -> list[WireWork]:
    left = list(come)
    moves: list[WireWork] = []
    for wire in gone:
        ends = {wire.start.pin, wire.end.pin}
        for other in left:
            shared = ends & {other.start.pin, other.end.pin}
            alike = (wire.number, wire.mm2, wire.colour) == (other.number, other.mm2, other.colour)
            if len(shared) == 1 and alike and other.length <= wire.cut + CUT_SLACK_MM:
                stays = next(iter(shared))
                was = wire.end if wire.start.pin == stays else wire.start
                now = other.end if other.start.pin == stays else other.start
                moves.append(WireWork(WireChange.MOVE, wire, other, f"from {was.label} to {now.label}"))
                left.remove(other)
                break
    return moves


_OF_OPERATION = {
    Operation.CUT: WireChange.REPLACE, Operation.MARKED: WireChange.REMARK, Operation.STRIPPED: WireChange.REFIT,
    Operation.LANDED_START: WireChange.REFIT, Operation.LANDED_END: WireChange.REFIT,
    Operation.TIGHTENED: WireChange.RETIGHTEN,
}  # fmt: skip


def _changed(old: Wire, new: Wire) -> WireWork | None:
    """What a wire that stays asks for: the first of its operations that no longer holds says it."""
    ends = {
        end.pin: operation for end, operation in ((new.start, Operation.LANDED_START), (new.end, Operation.LANDED_END))
    }
    for operation in Operation:
        now = operation
        if operation.is_landing:
            pin = (old.start if operation is Operation.LANDED_START else old.end).pin
            now = ends.get(pin, operation)
        why = why_not(tick_facts(old, operation), tick_facts(new, now))
        if why:
            change = WireChange.REPLACE if (old.mm2, old.colour) != (new.mm2, new.colour) else _OF_OPERATION[operation]
            return WireWork(change, old, new, why)
    return None


def made_wires(records: Iterable[Record]) -> frozenset[WireId]:
    """The wires that somebody has begun: what has a tick that was not taken back.

    Args:
        records: The log, oldest first.
    """
    return frozenset(WireId(record.subject) for record in log_of(records).standing(WireDone))
