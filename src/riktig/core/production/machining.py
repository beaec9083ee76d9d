"""What is already done to holes and cut pieces, and what of it no longer counts after an edit."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.holes import Hole
from riktig.core.plate import Piece
from riktig.core.production.ticks import Done
from riktig.core.records import HoleDone, HoleWork, PieceCut, Record, Slot, counted, slot_of

__all__ = [
    "HoleState",
    "PieceState",
    "hole_facts",
    "hole_states",
    "hole_subject",
    "piece_facts",
    "piece_states",
    "piece_subject",
]


@dataclass(frozen=True, slots=True)
class HoleState:
    """A hole with what is done to it; ``stale`` says why something done to it no longer counts."""

    hole: Hole
    done: tuple[tuple[HoleWork, Done, str], ...]
    stale: str = ""

    def has(self, operation: HoleWork) -> bool:
        """Whether an operation is done and still counts."""
        return any(work is operation for work, _, _ in self.done)

    def record_of(self, operation: HoleWork) -> str:
        """The record that says so, or ""."""
        return next((record for work, _, record in self.done if work is operation), "")

    @property
    def next(self) -> HoleWork | None:
        """What is to be done next, None when it is finished."""
        return next((operation for operation in self.hole.operations if not self.has(operation)), None)


@dataclass(frozen=True, slots=True)
class PieceState:
    """A piece and whether it is cut; ``stale`` says why a cut no longer counts."""

    piece: Piece
    done: Done | None
    record: str
    stale: str = ""


def hole_subject(hole: Hole) -> str:
    """What the record is about: it stays when the hole's number changes."""
    return f"hole:{hole.face}:{hole.key}"


def hole_facts(hole: Hole, operation: HoleWork) -> HoleDone:
    """What a tick made now is true of.

    Args:
        hole: The hole.
        operation: What was done to the hole.
    """
    return HoleDone(operation, hole.number, hole.x, hole.y, hole.size)


def hole_states(holes: tuple[Hole, ...], records: Iterable[Record]) -> tuple[HoleState, ...]:
    """Every hole with what is done to it, from the log; what was done elsewhere or in another size is out of date.

    Work that is done again where the hole is now supersedes what was done elsewhere.

    Args:
        holes: The holes.
        records: The log, oldest first.
    """
    present: dict[Slot, HoleDone] = {}
    for hole in holes:
        for operation in HoleWork:
            facts = hole_facts(hole, operation)
            present[slot_of(hole_subject(hole), facts)] = facts
    done: dict[str, dict[HoleWork, tuple[Done, str]]] = {}
    stale: dict[str, str] = {}
    for item in counted(records, HoleDone, present):
        record, tick = item.record, item.facts
        if item.counts:
            done.setdefault(record.subject, {})[tick.operation] = (Done(record.who, record.when), record.id)
        else:
            stale[record.subject] = item.why_not
    states_found = []
    for hole in holes:
        ticks = done.get(hole_subject(hole), {})
        order = tuple((work, *ticks[work]) for work in hole.operations if work in ticks)
        states_found.append(HoleState(hole, order, stale.get(hole_subject(hole), "")))
    return tuple(states_found)


def piece_subject(piece: Piece) -> str:
    """What the record is about."""
    return f"piece:{piece.name}"


def piece_facts(piece: Piece) -> PieceCut:
    """What the record is true of: what it was cut from, and its length."""
    return PieceCut(piece.stock, piece.length)


def piece_states(pieces: tuple[Piece, ...], records: Iterable[Record]) -> tuple[PieceState, ...]:
    """Every piece, and whether it is cut as the plan now has it.

    Args:
        pieces: What is cut, each with its name and length.
        records: The log, oldest first.
    """
    present = {slot_of(piece_subject(piece), piece_facts(piece)): piece_facts(piece) for piece in pieces}
    last = {item.record.subject: item for item in counted(records, PieceCut, present)}
    states = []
    for piece in pieces:
        item = last.get(piece_subject(piece))
        if item is None:
            states.append(PieceState(piece, None, ""))
        else:
            done = Done(item.record.who, item.record.when) if item.counts else None
            states.append(PieceState(piece, done, item.record.id, item.why_not))
    return tuple(states)
