"""The potential of every point, worked out anew only where something changed."""

from collections import Counter
from collections.abc import Iterable, Sequence
from copy import copy
from math import sqrt

import numpy as np
from numpy.typing import NDArray

from riktig.core.simulation.connectivity import NONE, Connectivity
from riktig.core.simulation.network import Network, SupplyPole

__all__ = ["Volts"]

Potential = tuple[complex, float]
"""Volts as phasor and as direct voltage, against the zero that all supplies joined to it share."""


class Volts:
    """Potentials of points and voltages across consumers.

    A point that a pole reaches through contacts has the pole's potential. Points that only consumers
    reach are solved together, each group of them as small as it is: two coils in series, a lamp fed
    backwards. Supplies that nothing joins have no voltage between them; where consumers alone bridge
    such supplies at two places, the current round is not followed.
    """

    def __init__(self, network: Network, connectivity: Connectivity) -> None:
        self.network, self.connectivity = network, connectivity
        self.at: list[Potential | None] = [None] * network.count
        self.across: list[float] = [0.0] * len(network.consumers)
        self.broken: set[int] = set()
        self._beside: list[list[int]] = [[] for _ in range(network.count)]
        for number, consumer in enumerate(network.consumers):
            self._beside[consumer.a].append(number)
            self._beside[consumer.b].append(number)
        self.poles: tuple[SupplyPole, ...] = ()
        self.doubled: list[tuple[SupplyPole, SupplyPole]] = []
        """Poles that sit at one point."""
        self._pole: dict[int, SupplyPole] = {}
        self._zero: dict[str, tuple[str, Potential]] = {}

    def fork(self, connectivity: Connectivity) -> "Volts":
        """The same potentials, changed on their own from now on.

        Args:
            connectivity: The fork of what these potentials follow from.
        """
        fork = copy(self)
        fork.connectivity, fork.at, fork.across = connectivity, list(self.at), list(self.across)
        fork.broken, fork.doubled = set(self.broken), list(self.doubled)
        fork._pole, fork._zero = dict(self._pole), dict(self._zero)
        return fork

    def set_poles(self, poles: Iterable[SupplyPole]) -> None:
        """The poles that give voltage now."""
        self.poles = tuple(poles)
        self._pole = {}
        self.doubled = []
        for pole in self.poles:
            first = self._pole.setdefault(pole.point, pole)
            if first is not pole:
                self.doubled.append((first, pole))

    def pole_at(self, point: int) -> SupplyPole | None:
        """The pole that reaches a point through contacts."""
        return self._pole.get(self.connectivity.root[point])

    def tie(self) -> bool:
        """Works out which supplies share a zero, through contacts; whether that is otherwise than before."""
        before, self._zero = self._zero, {}
        crossed = [
            (self.pole_at(self.connectivity.contacts[n].a), self.pole_at(self.connectivity.contacts[n].b))
            for n in sorted(self.connectivity.crossings)
        ]
        for a, b in (*self.doubled, *crossed):
            if a is None or b is None or a.system == b.system:
                continue
            first, last = self._offset(a.system), self._offset(b.system)
            if first[0] != last[0]:
                ac = first[1][0] + a.ac - last[1][0] - b.ac
                dc = first[1][1] + a.dc - last[1][1] - b.dc
                for system in [b.system, *(s for s, (base, _) in self._zero.items() if base == last[0])]:
                    known = self._offset(system)[1]
                    self._zero[system] = (first[0], (known[0] + ac, known[1] + dc))
        return self._zero != before

    def _offset(self, system: str) -> tuple[str, Potential]:
        """The system whose zero counts, and the potential of the system's own zero against it."""
        return self._zero.get(system, (system, (0j, 0.0)))

    def base(self, point: int) -> str:
        """The system whose zero the potential of a point that a pole reaches is against."""
        pole = self.pole_at(point)
        return self._offset(pole.system)[0] if pole else ""

    def update(self, dirty: set[int]) -> set[int]:
        """Potentials of what changed; the consumers whose voltage was worked out anew."""
        todo = {point for point in dirty if self.connectivity.root[point] == NONE}
        for point in dirty:
            self.at[point] = self._potential_at(point)
            for number in self._beside[point]:
                consumer = self.network.consumers[number]
                other = consumer.b if consumer.a == point else consumer.a
                if self.connectivity.root[other] == NONE and number not in self.broken:
                    todo.add(other)
        touched = set(dirty)
        seen: set[int] = set()
        for seed in sorted(todo):
            if seed not in seen:
                cluster = self._cluster(seed)
                seen |= cluster
                touched |= cluster
                self._solve(sorted(cluster))
        beside = {number for point in touched for number in self._beside[point]}
        for number in beside:
            self.across[number] = 0.0 if number in self.broken else self._across(number)
        return beside

    def _potential_at(self, point: int) -> Potential | None:
        pole = self.pole_at(point)
        if pole is None:
            return None
        _, zero = self._offset(pole.system)
        return zero[0] + pole.ac, zero[1] + pole.dc

    def _across(self, number: int) -> float:
        consumer = self.network.consumers[number]
        a, b = self.at[consumer.a], self.at[consumer.b]
        if a is None or b is None:
            return 0.0
        bases = {self.base(point) for point in (consumer.a, consumer.b) if self.connectivity.root[point] != NONE}
        return 0.0 if len(bases) > 1 else _size(a, b)

    def between(self, a: int, b: int) -> float:
        """The voltage between two points; 0 where nothing ties their supplies together."""
        first, last = self.at[a], self.at[b]
        if first is None or last is None:
            return 0.0
        bases = {self.base(point) for point in (a, b) if self.connectivity.root[point] != NONE}
        return 0.0 if len(bases) > 1 else _size(first, last)

    def _cluster(self, seed: int) -> set[int]:
        """The points without a pole that hang together by contacts and consumers."""
        connectivity = self.connectivity
        reached, todo = {seed}, [seed]
        while todo:
            point = todo.pop()
            for number, other in connectivity.beside[point]:
                if connectivity.closed[number] and other not in reached and connectivity.root[other] == NONE:
                    reached.add(other)
                    todo.append(other)
            for number in self._beside[point]:
                consumer = self.network.consumers[number]
                other = consumer.b if consumer.a == point else consumer.a
                if number not in self.broken and other not in reached and connectivity.root[other] == NONE:
                    reached.add(other)
                    todo.append(other)
        return reached

    def _solve(self, cluster: Sequence[int]) -> None:
        """Potentials of points that only consumers feed: conductances and what flows in from outside."""
        edges = sorted({n for point in cluster for n in self._beside[point] if n not in self.broken})
        base, outer = self._fed_from(edges, set(cluster))
        if len(outer) < 2:
            for point in cluster:
                self.at[point] = next(iter(outer), None)
            return
        group = self._groups(cluster)
        matrix, flow = self._conductances(edges, group, base)
        lone = np.diag(matrix) == 0
        matrix[lone, lone] = 1.0
        volts = np.linalg.solve(matrix, flow)
        for point in cluster:
            ac, dc = volts[group[point]]
            self.at[point] = None if lone[group[point]] else (complex(ac), float(dc.real))

    def _fed_from(self, edges: Sequence[int], inside: set[int]) -> tuple[str, set[Potential]]:
        """The system that most ways into a cluster come from, and the potentials of it that feed the cluster."""
        feeding = [
            point
            for number in edges
            for point in {self.network.consumers[number].a, self.network.consumers[number].b} - inside
        ]
        bases = Counter(self.base(point) for point in feeding)
        base = max(sorted(bases), key=lambda name: bases[name]) if bases else ""
        known = {self.at[point] for point in feeding if self.base(point) == base}
        return base, {potential for potential in known if potential is not None}

    def _conductances(
        self, edges: Sequence[int], group: dict[int, int], base: str
    ) -> tuple[NDArray[np.float64], NDArray[np.complex128]]:
        """The conductance matrix between groups of points, S, and what flows into each from outside, A (AC, DC)."""
        count = max(group.values()) + 1
        matrix, flow = np.zeros((count, count)), np.zeros((count, 2), dtype=complex)
        for number in edges:
            consumer = self.network.consumers[number]
            siemens = 1.0 / consumer.ohm
            a, b = group.get(consumer.a), group.get(consumer.b)
            if a is not None and b is not None:
                if a != b:
                    matrix[a, a] += siemens
                    matrix[b, b] += siemens
                    matrix[a, b] -= siemens
                    matrix[b, a] -= siemens
                continue
            near, there = (a, consumer.b) if a is not None else (b, consumer.a)
            known = self.at[there]
            if near is None or known is None or self.base(there) != base:
                continue
            matrix[near, near] += siemens
            flow[near] += siemens * np.array(known)
        return matrix, flow

    def _groups(self, cluster: Sequence[int]) -> dict[int, int]:
        """The number of the group of each point: points joined by closed contacts are one."""
        group: dict[int, int] = {}
        count = 0
        for point in cluster:
            if point in group:
                continue
            todo = [point]
            group[point] = count
            while todo:
                for number, other in self.connectivity.beside[todo.pop()]:
                    if (
                        self.connectivity.closed[number]
                        and self.connectivity.root[other] == NONE
                        and other not in group
                    ):
                        group[other] = count
                        todo.append(other)
            count += 1
        return group


def _size(a: Potential, b: Potential) -> float:
    alternating, direct = abs(a[0] - b[0]), a[1] - b[1]
    return sqrt(alternating * alternating + direct * direct)
