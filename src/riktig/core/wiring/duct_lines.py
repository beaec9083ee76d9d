"""The ducts as lines that pins go into and that meet at stops: how far it is along them from stop to stop."""

import itertools
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from riktig.core.geometry import Point
from riktig.core.plate import Duct, meets

__all__ = ["LEAST", "DuctLines", "Entry", "Stop", "StopWays"]

LEAST = 1e-6
"""The least length of a step, mm: two places at one spot of a duct are still one behind the other."""


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

    def __post_init__(self) -> None:
        self._on = {duct.name: [] for duct in self.ducts}

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
        """Orders what is on each duct, and finds the ways between all stops.

        Method:
            Dijkstra over the stops alone (SciPy csgraph): there are a few of them per duct, and what goes in
            between two of them lies on the straight line.
        """
        from scipy.sparse import csr_array  # late: its import takes half a second
        from scipy.sparse.csgraph import dijkstra

        steps = [*self._steps, *(step for duct in self.ducts for step in self._along(duct))]
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

    def _along(self, duct: Duct) -> list[tuple[int, int, float]]:
        """Puts the entries of a duct in their places; gives the steps from stop to stop."""

        def place(thing: Entry | int) -> float:
            at = thing.at if isinstance(thing, Entry) else self.stops[thing].at
            return at.y if duct.upright else at.x

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
