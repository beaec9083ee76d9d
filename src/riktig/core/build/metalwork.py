"""What is already done to holes and cut pieces, and what of it no longer counts after an edit."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.build.ticks import Done
from riktig.core.holes import Hole, HoleWork
from riktig.core.job import Record, taken_back
from riktig.core.plate import Piece

__all__ = [
    "CUT_PIECE",
    "HOLE",
    "HoleState",
    "PieceState",
    "hole_facts",
    "hole_states",
    "hole_subject",
    "piece_facts",
    "piece_states",
    "piece_subject",
]

HOLE, CUT_PIECE = "hole", "piece cut"
"""The kinds of the records."""
MOVED = 0.05
"""A hole that moved by more is another hole, mm (chosen by us: half of what is written down)."""


@dataclass(frozen=True, slots=True)
class HoleState:
    """A hole with what is done to it; ``stale`` says why something done to it no longer counts."""

    hole: Hole
    done: tuple[tuple[HoleWork, Done, str], ...]
    stale: str = ""

    def has(self, operation: HoleWork) -> bool:
        """Whether an operation is done and still counts."""
        return any(one is operation for one, _, _ in self.done)

    def record_of(self, operation: HoleWork) -> str:
        """The record that says so, or ""."""
        return next((record for one, _, record in self.done if one is operation), "")

    @property
    def next(self) -> HoleWork | None:
        """What is to be done next, None when it is finished."""
        return next((one for one in self.hole.operations if not self.has(one)), None)


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


def hole_facts(hole: Hole, operation: HoleWork) -> tuple[tuple[str, str], ...]:
    """What a tick is true of."""
    return (
        ("operation", operation.value),
        ("number", hole.number),
        ("x", f"{hole.x:g}"),
        ("y", f"{hole.y:g}"),
        ("size", hole.size),
    )


def hole_states(holes: tuple[Hole, ...], records: Iterable[Record]) -> tuple[HoleState, ...]:
    """Every hole with what is done to it, from the log; what was done elsewhere or in another size is out of date."""
    kept = tuple(records)
    gone = taken_back(kept)
    mine: dict[str, list[Record]] = {}
    for record in kept:
        if record.kind == HOLE and record.id not in gone and record.facts:
            mine.setdefault(record.subject, []).append(record)
    found = []
    for hole in holes:
        done: dict[HoleWork, tuple[Done, str]] = {}
        stale = ""
        for record in mine.get(hole_subject(hole), ()):
            operation = next((one for one in HoleWork if one.value == record.fact("operation")), None)
            if operation is None:
                continue
            why = _why_stale(hole, record, operation)
            if why:
                stale = why
            else:
                done[operation] = (Done(record.who, record.when), record.id)
        order = tuple((one, *done[one]) for one in hole.operations if one in done)
        found.append(HoleState(hole, order, stale))
    return tuple(found)


def _why_stale(hole: Hole, record: Record, operation: HoleWork) -> str:
    x, y = float(record.fact("x")), float(record.fact("y"))
    if max(abs(hole.x - x), abs(hole.y - y)) > MOVED:
        return f"{operation.value} at {x:g}, {y:g}; it is now at {hole.x:g}, {hole.y:g}"
    made = operation in (HoleWork.MADE, HoleWork.DEBURRED)
    if made and record.fact("size") != hole.size:
        return f"{operation.value} as {record.fact('size')}; it is now {hole.size}"
    return ""


def piece_subject(piece: Piece) -> str:
    """What the record is about."""
    return f"piece:{piece.name}"


def piece_facts(piece: Piece) -> tuple[tuple[str, str], ...]:
    """What the record is true of: what it was cut from, and its length."""
    return (("stock", piece.stock), ("length", f"{piece.length:g}"))


def piece_states(pieces: tuple[Piece, ...], records: Iterable[Record]) -> tuple[PieceState, ...]:
    """Every piece, and whether it is cut as the plan now has it."""
    kept = tuple(records)
    gone = taken_back(kept)
    last = {one.subject: one for one in kept if one.kind == CUT_PIECE and one.id not in gone and one.facts}
    found = []
    for piece in pieces:
        record = last.get(piece_subject(piece))
        if record is None:
            found.append(PieceState(piece, None, ""))
        elif record.facts[:2] == piece_facts(piece):
            found.append(PieceState(piece, Done(record.who, record.when), record.id))
        else:
            was = f"cut to {record.fact('length')} mm from {record.fact('stock')}"
            found.append(PieceState(piece, None, record.id, f"{was}; it is now {piece.length:g} mm from {piece.stock}"))
    return tuple(found)
