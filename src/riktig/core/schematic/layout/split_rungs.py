"""Paths cut into pieces that fit a sheet: where one is cut, the line goes on from a place of its own."""

from collections.abc import Iterator
from dataclasses import dataclass

from riktig.core.schematic.layout.branch_layout import height_of, width_of
from riktig.core.schematic.layout.sheet_model import MOST_COLUMNS, RAIL_BOTTOM, RAIL_TOP
from riktig.core.schematic.model.elements import Branch, Element, Landing, Parallel, Rung, Series

__all__ = ["RungPiece", "first_leaf", "is_cut", "split_rung"]

LEAST = 0.8
"""An element may shrink to so many times its height before its path is cut in two (tried out on sheets)."""
CUT = "~"


@dataclass(frozen=True, slots=True)
class RungPiece:
    """A stretch of a rung that stands on one sheet: from and to which node, and along which path."""

    rung: Rung
    start: str
    path: Series
    end: str

    @property
    def width(self) -> int:
        """How many elements stand side by side."""
        return max(width_of(self.path), 1)


def is_cut(node: str) -> bool:
    """Whether a node is only the place where a path was cut."""
    return node.startswith(CUT)


def split_rung(rung: Rung) -> tuple[RungPiece, ...]:
    """The pieces of a rung: itself when it fits, else as many as it takes.

    Method:
        One after the other, elements are taken into a piece until it is full. What stands side by
        side and does not fit becomes pieces between the same two places.
    """
    start, end = rung.start[0] if rung.start else "", rung.end[0] if rung.end else ""
    if _fits(rung.path):
        return (RungPiece(rung, start, rung.path, end),)
    names = (f"{CUT}{rung.id}.{n}" for n in range(10**9))
    return tuple(_cut(rung, rung.path, start, end, names))


def _fits(branch: Branch) -> bool:
    return width_of(branch) <= MOST_COLUMNS and height_of(branch, LEAST) <= RAIL_BOTTOM - RAIL_TOP


def _cut(rung: Rung, path: Series, start: str, end: str, names: Iterator[str]) -> Iterator[RungPiece]:
    branches: list[Branch] = []
    at = start
    for index, part in enumerate(path.parts):
        last = index == len(path.parts) - 1
        if _fits(Series((*branches, part))):
            branches.append(part)
            continue
        if branches:
            to = next(names)
            yield RungPiece(rung, at, Series(tuple(branches)), to)
            at, branches = to, []
        if _fits(Series((part,))):
            branches = [part]
            continue
        to = end if last else next(names)
        yield from _pieces_beside(rung, part, at, to, names)
        at = to
    if branches or not path.parts:
        yield RungPiece(rung, at, Series(tuple(branches)), end)


def _pieces_beside(rung: Rung, part: Branch, start: str, end: str, names: Iterator[str]) -> Iterator[RungPiece]:
    """What stands side by side, in as many pieces as it takes between the same two places."""
    if isinstance(part, Series):
        yield from _cut(rung, part, start, end, names)
        return
    assert isinstance(part, Parallel), "an element alone always fits"
    branches: list[Branch] = []
    for piece in part.parts:
        if branches and not _fits(_together([*branches, piece])):
            yield from _cut(rung, _together(branches), start, end, names)
            branches = []
        branches.append(piece)
    yield from _cut(rung, _together(branches), start, end, names)


def _together(parts: list[Branch]) -> Series:
    if len(parts) > 1:
        return Series((Parallel(tuple(parts)),))
    return parts[0] if isinstance(parts[0], Series) else Series((parts[0],))


def first_leaf(branch: Branch) -> Element | Landing | None:
    """The element or pin that a path meets first."""
    match branch:
        case Element() | Landing():
            return branch
        case Series(parts) | Parallel(parts):
            return next((leaf_found for part in parts if (leaf_found := first_leaf(part))), None)
