"""Pieces laid into stock lengths and the offcuts on the shelf: proven least new stock, then the longest offcut left."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cache

import numpy as np
from numpy.typing import NDArray

from riktig.core.errors import RiktigError
from riktig.core.job import Offcut, Practice
from riktig.core.plate.model import Piece

__all__ = ["Bar", "CutPlan", "cut_plan", "plan_cuts"]

MOST_PATTERNS = 20_000
"""Ways to fill a bar that are looked at; beyond, the plan is good but not proven."""
MOST_SECONDS = 2.0
"""For how long one integer programme may run; beyond, the plan is good but not proven."""
_LAST = -2
"""Marks fillings of the bar that is to be left as long as possible."""
_Fillings = list[tuple[int, Counter[int]]]
"""What each bar holds, by its source: -1 a new bar, else the number of the offcut."""


@dataclass(frozen=True, slots=True)
class Bar:
    """One bar to cut: of what, its length, where it comes from, its pieces in order of cutting, what is left, mm.

    ``starts`` is where each piece begins from the bar's left end, the first after the trim.
    """

    stock: str
    length: float
    source: str
    pieces: tuple[Piece, ...]
    starts: tuple[float, ...]
    left: float


@dataclass(frozen=True, slots=True)
class CutPlan:
    """All bars of a panel; ``proven``: no plan takes less new stock; ``least`` is the bound it was held against."""

    bars: tuple[Bar, ...]
    proven: bool
    new_bars: int
    least: int
    too_long: tuple[Piece, ...] = ()
    """Pieces that no bar is long enough for."""


def plan_cuts(
    pieces: Iterable[Piece], shelf: Iterable[Offcut] = (), *, bar: float = 2000.0, kerf: float = 2.0, trim: float = 5.0
) -> CutPlan:
    """Which piece is cut from which bar.

    Method:
        For each stock the fewest new bars, offcuts first: first fit decreasing against the sum of lengths, and where
        the two differ all fillings of a bar as patterns, an integer programme (HiGHS) over them. Then the last bar is
        filled as little as the others allow, so that what is left is as long as it can be.

    Args:
        pieces: What is cut, each with its name and length.
        shelf: Offcuts that are in store.
        bar: Length of a new bar, mm.
        kerf: What the saw takes at each cut, mm.
        trim: Cut off the end of a new bar first, mm.

    Raises:
        RiktigError: a piece is longer than a bar and every offcut.
    """
    groups: dict[str, list[Piece]] = {}
    for piece in pieces:
        groups.setdefault(piece.stock, []).append(piece)
    on_shelf = tuple(shelf)
    bars: list[Bar] = []
    proven, new, least = True, 0, 0
    for stock, group in groups.items():
        offcuts = sorted((o for o in on_shelf if o.stock == stock), key=lambda o: o.length)
        optimiser = _CutOptimiser(stock, group, offcuts, bar, kerf, trim)
        made = optimiser.solve()
        bars += made.bars
        proven, new, least = proven and made.proven, new + made.new_bars, least + made.least
    return CutPlan(tuple(bars), proven, new, least)


def cut_plan(pieces: tuple[Piece, ...], shelf: tuple[Offcut, ...], practice: Practice) -> CutPlan:
    """The plan of a job: pieces too long for any bar are set aside and said, the others are laid out.

    Args:
        pieces: What is cut, each with its name and length.
        shelf: Offcuts that are in store.
        practice: The practice of the job.
    """
    longest = {offcut.stock: offcut.length for offcut in sorted(shelf, key=lambda o: o.length)}
    usable = practice.bar_length - practice.bar_trim
    fits = tuple(p for p in pieces if p.length <= max(usable, longest.get(p.stock, 0.0)) + 1e-6)
    made = plan_cuts(fits, shelf, bar=practice.bar_length, kerf=practice.saw_kerf, trim=practice.bar_trim)
    return replace(made, too_long=tuple(p for p in pieces if p not in fits))


class _CutOptimiser:
    """The pieces of one stock. Lengths are whole hundredths of a mm, so that sums are exact."""

    def __init__(
        self, stock: str, pieces: list[Piece], offcuts: Sequence[Offcut], bar: float, kerf: float, trim: float
    ) -> None:
        self.stock, self.offcuts, self.bar, self.kerf, self.trim = stock, offcuts, bar, kerf, trim
        self.pieces = sorted(pieces, key=lambda p: (-p.length, p.name))
        self.room = _whole(bar - trim + kerf)
        self.rooms = [_whole(o.length + kerf) for o in offcuts]
        for piece in self.pieces:
            if _whole(piece.length + kerf) > max([self.room, *self.rooms]):
                raise RiktigError(
                    f"{piece.name} is {piece.length:g} mm long; the longest {stock} is {bar:g} mm, "
                    f"{bar - trim:g} mm of it to use. So nothing can be cut for it.",
                    hint="Make it of two pieces, or order longer stock.",
                )
        self.demand = Counter(_whole(piece.length + kerf) for piece in self.pieces)
        self.sizes = tuple(sorted(self.demand, reverse=True))

    def solve(self) -> CutPlan:
        fillings, bound, proven = self._greedy(), self._bound(), True
        new = sum(source < 0 for source, _ in fillings)
        if new > bound:
            better = self._least()
            if better is None:
                proven = False
            else:
                fillings = better
                new = sum(source < 0 for source, _ in fillings)
                bound = new
        fillings, longest = self._longest_offcut(fillings)
        return CutPlan(self._bars(fillings), proven and longest, new, bound)

    def _bound(self) -> int:
        """New bars by length alone, with every offcut as full as it could be."""
        total = sum(size * count for size, count in self.demand.items()) - sum(self.rooms)
        return max(-(-total // self.room), 0)

    def _greedy(self) -> _Fillings:
        """Longest first, each into the first bar it fits: offcuts, then new bars."""
        rooms = [(n, room) for n, room in enumerate(self.rooms)]
        filled: list[tuple[int, int, Counter[int]]] = [(n, room, Counter()) for n, room in rooms]
        for size in sorted(self.demand.elements(), reverse=True):
            for k, (source, left, pieces) in enumerate(filled):
                if size <= left:
                    pieces[size] += 1
                    filled[k] = (source, left - size, pieces)
                    break
            else:
                filled.append((-1, self.room - size, Counter({size: 1})))
        return [(source, pieces) for source, _, pieces in filled if pieces]

    def _least(self) -> _Fillings | None:
        """The fewest new bars, proven; None when there are too many fillings, or time is up."""
        columns = self._columns()
        if columns is None:
            return None
        cost = np.array([1.0 if source < 0 else 1e-4 for source, _ in columns])
        times = self._programme(columns, cost, None)
        return None if times is None else self._taken(columns, times)

    def _longest_offcut(self, fillings: _Fillings) -> tuple[_Fillings, bool]:
        """As many new bars, one of them filled as little as the others allow; whether that is proven."""
        new = [pieces for source, pieces in fillings if source < 0]
        columns = self._columns()
        if not new or columns is None:
            return fillings, not new
        used = min(_filled(pieces) for pieces in new)
        floor = sum(s * c for s, c in self.demand.items()) - (len(new) - 1) * self.room - sum(self.rooms)
        if floor >= used:
            return fillings, True
        every = _all_fillings(self.sizes, tuple(self.demand[s] for s in self.sizes), used + 1, max(floor, 0))
        if every is None:
            return fillings, False
        last = [(_LAST, pattern) for _, pattern in every]
        cost = np.array([1e-4] * len(columns) + [float(total) for total, _ in every])
        times = self._programme([*columns, *last], cost, len(new) - 1)
        if times is None:
            return fillings, False
        taken = self._taken([*last, *columns], np.concatenate([times[len(columns) :], times[: len(columns)]]))
        return [(-1 if source == _LAST else source, pieces) for source, pieces in taken], True

    def _columns(self) -> list[tuple[int, tuple[int, ...]]] | None:
        """All ways to fill a bar, with what it is filled: -1 a new bar, else the number of the offcut."""
        counts = tuple(self.demand[s] for s in self.sizes)
        columns: list[tuple[int, tuple[int, ...]]] = []
        for source, room in [(-1, self.room), *enumerate(self.rooms)]:
            columns += [(source, pattern) for pattern in _patterns(self.sizes, counts, room)]
            if len(columns) > MOST_PATTERNS:
                return None
        return columns

    def _programme(
        self, columns: list[tuple[int, tuple[int, ...]]], cost: NDArray[np.float64], most_new: int | None
    ) -> NDArray[np.int64] | None:
        """How often each filling is taken so that every piece is cut, at least cost; None when that is not known."""
        from scipy.optimize import Bounds, LinearConstraint, milp  # late: its import takes half a second

        rows = np.array([pattern for _, pattern in columns], dtype=float).T
        limits = [LinearConstraint(rows, lb=[self.demand[s] for s in self.sizes], ub=np.inf)]
        sources = np.array([source for source, _ in columns])
        if self.rooms:
            uses = np.array([sources == n for n in range(len(self.rooms))], dtype=float)
            limits.append(LinearConstraint(uses, lb=0, ub=1))
        if most_new is not None:
            limits.append(LinearConstraint((sources == -1).astype(float)[None, :], lb=0, ub=most_new))
            limits.append(LinearConstraint((sources == _LAST).astype(float)[None, :], lb=1, ub=1))
        solution = milp(
            cost,
            constraints=limits,
            integrality=np.ones(len(cost), dtype=int),
            bounds=Bounds(0, np.inf),
            options={"time_limit": MOST_SECONDS},
        )
        return np.round(solution.x).astype(np.int64) if solution.status == 0 else None

    def _taken(self, columns: list[tuple[int, tuple[int, ...]]], times: NDArray[np.int64]) -> _Fillings:
        """The fillings without what they hold too much of."""
        left = Counter(self.demand)
        made: _Fillings = []
        for (source, pattern), often in zip(columns, times, strict=True):
            for _ in range(often):
                pieces = Counter({s: min(count, left[s]) for s, count in zip(self.sizes, pattern, strict=True)})
                left -= pieces
                if +pieces:
                    made.append((source, +pieces))
        return made

    def _bars(self, fillings: _Fillings) -> tuple[Bar, ...]:
        queue: dict[int, list[Piece]] = {}
        for piece in self.pieces:
            queue.setdefault(_whole(piece.length + self.kerf), []).append(piece)
        bars = []
        number = 0
        for source, pieces in sorted(fillings, key=lambda filling: (filling[0] < 0, -_filled(filling[1]))):
            taken = [queue[size].pop(0) for size in sorted(pieces.elements(), reverse=True)]
            length = self.bar if source < 0 else self.offcuts[source].length
            at, starts = self.trim if source < 0 else 0.0, []
            for piece in taken:
                starts.append(round(at, 2))
                at += piece.length + self.kerf
            number += source < 0
            name = f"new bar {number}" if source < 0 else self.offcuts[source].mark or "offcut"
            bars.append(Bar(self.stock, length, name, tuple(taken), tuple(starts), round(max(length - at, 0.0), 2)))
        return tuple(bars)


def _whole(mm: float) -> int:
    return round(mm * 100)


def _filled(held: Counter[int]) -> int:
    return sum(size * count for size, count in held.items())


@cache
def _patterns(sizes: tuple[int, ...], counts: tuple[int, ...], room: int) -> tuple[tuple[int, ...], ...]:
    """All fillings of a bar to which no further piece could be added."""
    patterns: list[tuple[int, ...]] = []
    least = min(sizes)

    def fill(k: int, left: int, chosen: list[int]) -> None:
        if len(patterns) > MOST_PATTERNS:
            return
        if k == len(sizes):
            spare = any(size <= left and chosen[n] < counts[n] for n, size in enumerate(sizes))
            if not spare and any(chosen):
                patterns.append(tuple(chosen))
            return
        if left < least:
            fill(len(sizes), left, chosen + [0] * (len(sizes) - k))
            return
        for count in range(min(counts[k], left // sizes[k]), -1, -1):
            fill(k + 1, left - count * sizes[k], [*chosen, count])

    fill(0, room, [])
    return tuple(patterns)


def _all_fillings(
    sizes: tuple[int, ...], counts: tuple[int, ...], below: int, floor: int
) -> list[tuple[int, tuple[int, ...]]] | None:
    """All fillings of at least a length and shorter than another; None when there are too many."""
    partials: list[tuple[int, tuple[int, ...]]] = [(0, ())]
    for size, count in zip(sizes, counts, strict=True):
        partials = [
            (total + times * size, (*chosen, times))
            for total, chosen in partials
            for times in range(count + 1)
            if total + times * size < below
        ]
        if len(partials) > 4 * MOST_PATTERNS:
            return None
    return [partial for partial in partials if partial[0] >= floor]
