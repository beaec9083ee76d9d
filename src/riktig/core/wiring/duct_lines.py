"""The ducts as lines that pins go into and that meet at stops: how far it is along them from stop to stop."""

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from math import inf
from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

from riktig.core.geometry import Point
from riktig.core.plate import Duct, meets

__all__ = ["LEAST", "DuctLines", "Entry", "Stop", "StopWays", "Stretches", "in_common"]

Stretches: TypeAlias = Mapping[str, Sequence[tuple[float, float]]]
"""Parts of ducts by name, each from where to where along it on the plate, mm."""

LEAST = 1e-6
"""The least length of a step, mm: two places at one spot of a duct are still one behind the other."""

SAME_MM = 0.05
"""Two places along a duct nearer than this are one: stretches come rounded to hundredths of a millimetre."""


@dataclass(frozen=True, slots=True)
class Stop:
    """Where ways can turn: a crossing on one of its two ducts, where a loom leaves a duct, or a hinge (no duct)."""

    at: Point
    duct: str


@dataclass(slots=True)
class Entry:
    """Where something goes into a duct; ``along`` is how far that is from the duct's first entry, mm."""

    at: Point
    duct: str
    along: float = 0.0
    before: tuple[int, float] | None = None
    """The stop before it on the duct, and how far that is, mm."""
    behind: tuple[int, float] | None = None


@dataclass(frozen=True, slots=True)
class StopWays:
    """The shortest way from every stop to every other: lengths, mm, and the stop before the last on each."""

    length: NDArray[np.float64]
    previous: NDArray[np.int32]

    def path(self, first: int, last: int) -> list[int]:
        """The stops from one to another, both named."""
        row, chain = self.previous[first], [last]
        while chain[-1] != first:
            chain.append(int(row[chain[-1]]))
        return chain[::-1]


@dataclass(slots=True)
class DuctLines:
    """All ducts of a plate; entries and stops are added, then ``ways`` orders them and measures."""

    ducts: Sequence[Duct]
    stops: list[Stop] = field(default_factory=list)
    _steps: list[tuple[int, int, float]] = field(default_factory=list)
    _on: dict[str, list[Entry | int]] = field(default_factory=dict)
    _pieces: dict[str, list[tuple[int, int, float]]] = field(default_factory=dict)
    """Of each duct the steps from stop to stop, once ``ways`` has ordered them."""
    _upright: dict[str, bool] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self._on = {duct.name: [] for duct in self.ducts}
        self._upright = {duct.name: duct.upright for duct in self.ducts}

    def enter(self, at: Point, duct: str) -> Entry:
        """Something goes into a duct at a point of its middle line."""
        entry = Entry(at, duct)
        self._on[duct].append(entry)
        return entry

    def stop(self, at: Point, duct: str = "") -> int:
        """A new stop, on a duct or on none; its number."""
        self.stops.append(Stop(at, duct))
        if duct:
            self._on[duct].append(len(self.stops) - 1)
        return len(self.stops) - 1

    def join(self, a: int, b: int, length: float) -> None:
        """A way between two stops that is no way along a duct."""
        self._steps.append((a, b, max(length, LEAST)))

    def cross(self) -> None:
        """An upright joins the level ducts it touches; one that touches none (a misfit) is taken to reach them all."""
        uprights = [duct for duct in self.ducts if duct.upright]
        for level in (duct for duct in self.ducts if not duct.upright):
            for upright in meets(level, uprights) or uprights:
                at = Point(upright.rect.centre.x, level.rect.centre.y)
                self.join(self.stop(at, upright.name), self.stop(at, level.name), 0.0)

    def ways(self) -> StopWays:
        """Orders what is on each duct, and finds the ways between all stops."""
        self._pieces = {duct.name: self._along(duct) for duct in self.ducts}
        return self.ways_around({})

    def ways_around(self, full: Stretches, dear: float = inf) -> StopWays:
        """The ways between all stops that keep out of some stretches of duct; after ``ways``.

        Args:
            full: Those stretches.
            dear: What each mm in them counts more than one elsewhere; infinite where no way may pass.

        Method:
            Dijkstra over the stops alone (SciPy csgraph): there are a few of them per duct, and what goes in
            between two of them lies on the straight line.
        """
        from scipy.sparse import csr_array  # late: its import takes half a second
        from scipy.sparse.csgraph import dijkstra

        steps = list(self._steps)
        for duct in self.ducts:
            closed = full.get(duct.name, ())
            for a, b, length in self._pieces[duct.name]:
                first, last = self._place(a, upright=duct.upright), self._place(b, upright=duct.upright)
                inside = in_common(first, last, closed)
                if not inside or dear < inf:
                    steps.append((a, b, length + (dear * inside if inside else 0.0)))
        count = len(self.stops)
        if not count:
            return StopWays(np.zeros((0, 0)), np.zeros((0, 0), np.int32))
        shortest: dict[tuple[int, int], float] = {}
        for a, b, length in steps:
            pair = (min(a, b), max(a, b))
            shortest[pair] = min(shortest.get(pair, float("inf")), length)
        ends = np.array(list(shortest), dtype=np.int64).reshape(-1, 2)
        lengths = np.array(list(shortest.values()), dtype=np.float64)
        graph = csr_array((lengths, (ends[:, 0], ends[:, 1])), shape=(count, count))
        return StopWays(*dijkstra(graph, directed=False, return_predecessors=True))

    def is_upright(self, duct: str) -> bool:
        """Whether a duct stands upright."""
        return self._upright[duct]

    def inside_mm(self, entry: Entry, stop: int, stretches: Sequence[tuple[float, float]]) -> float:
        """How much of the duct between an entry and a stop on it lies in some stretches of it, mm."""
        upright = self._upright[entry.duct]
        first, last = sorted((entry.at.y if upright else entry.at.x, self._place(stop, upright=upright)))
        return in_common(first, last, stretches)

    def _place(self, stop: int, *, upright: bool) -> float:
        """Where a stop is along an upright or a level duct, mm on the plate."""
        at = self.stops[stop].at
        return at.y if upright else at.x

    def _along(self, duct: Duct) -> list[tuple[int, int, float]]:
        """Puts the entries of a duct in their places; gives the steps from stop to stop."""

        def place(thing: Entry | int) -> float:
            if isinstance(thing, Entry):
                return thing.at.y if duct.upright else thing.at.x
            return self._place(thing, upright=duct.upright)

        things = sorted(self._on[duct.name], key=place)
        gaps = [max(place(b) - place(a), LEAST) for a, b in itertools.pairwise(things)]
        along = [0.0, *itertools.accumulate(gaps)]
        stops = [(thing, s) for thing, s in zip(things, along, strict=False) if isinstance(thing, int)]
        passed = 0
        for thing, s in zip(things, along, strict=False):
            if isinstance(thing, int):
                passed += 1
                continue
            thing.along = s
            if passed:
                thing.before = (stops[passed - 1][0], s - stops[passed - 1][1])
            if passed < len(stops):
                thing.behind = (stops[passed][0], stops[passed][1] - s)
        return [(a, b, t - s) for (a, s), (b, t) in itertools.pairwise(stops)]


def in_common(first: float, last: float, stretches: Sequence[tuple[float, float]]) -> float:
    """How much of a part of a duct lies in some stretches of it, mm; 0 where they only meet.

    Args:
        first: Where the part begins along the duct, mm.
        last: Where it ends.
        stretches: Each from where to where; none lies in another.
    """
    total = 0.0
    for begin, end in stretches:  # a plain loop: asked some ten thousand times where ducts are full
        shared = min(last, end) - max(first, begin)
        if shared > SAME_MM:
            total += shared
    return total
