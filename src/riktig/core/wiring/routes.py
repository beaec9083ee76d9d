"""The duct graph: how far it is from any clamp to any other, and which way the wire runs."""

import itertools
from collections.abc import Container, Iterable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from riktig.core.catalogue import Can, Side
from riktig.core.door import DoorPlan, Leaf, to_door
from riktig.core.geometry import Point
from riktig.core.job import Enclosure, PinRef, Practice
from riktig.core.plate import Layout, meets
from riktig.core.schematic import BOX_BOND, DOOR_BONDS, Device, Zone

if TYPE_CHECKING:
    from scipy.sparse import csr_array

__all__ = ["Route", "Router"]

_Ways = tuple[NDArray[np.float64], NDArray[np.int32]]
"""From one clamp: the length to every node, mm, and the node before each on its way."""
SOURCES_AT_ONCE = 24
"""Searches in one call: it holds the interpreter, so that a window waits for it (a call of 24 takes some 30 ms)."""
BOX_STEP = 150.0
"""From the plate's corner to the enclosure's stud behind it (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Route:
    """A way through the ducts: length mm without ends, corner points on the plate, duct names."""

    length: float
    points: tuple[Point, ...]
    ducts: tuple[str, ...]
    via_door: bool


@dataclass(frozen=True, slots=True)
class _Node:
    at: Point
    duct: str
    door: bool = False


class Router:
    """Shortest ways between pins through ducts, across the hinge and over the door.

    Method:
        Nodes: each clamp, its way into the duct above or below it, the duct crossings, the hinge
        and each operator. Dijkstra from a clamp (SciPy csgraph), kept a source.
    """

    def __init__(
        self,
        layout: Layout,
        door: DoorPlan,
        devices: Sequence[Device],
        enclosure: Enclosure,
        practice: Practice,
        connected: Container[PinRef] | None = None,
    ) -> None:
        self._connected = connected
        self._layout, self._door = layout, door
        self._enclosure, self._practice = enclosure, practice
        self._nodes: list[_Node] = []
        self._edges: list[tuple[int, int, float, str]] = []
        self._of_pin: dict[PinRef, int] = {}
        self._in_duct: dict[str, list[int]] = {duct.name: [] for duct in layout.ducts}
        self._graph: csr_array[np.float64, tuple[int, int]] | None = None
        self._main: frozenset[int] | None = None
        self._paths: dict[int, _Ways] = {}
        for device in devices:
            if device.zone is Zone.PLATE:
                self._add_plate_pins(device)
        self._add_crossings()
        self._add_door(devices)
        self._join_ducts()
        self._names = {frozenset((a, b)): name for a, b, _, name in self._edges}

    def reaches(self, pin: PinRef) -> bool:
        """Whether a pin has a place, and a way to it from where most pins are."""
        return pin in self._of_pin and self._of_pin[pin] in self._joined()

    def _joined(self) -> frozenset[int]:
        """The nodes of the largest set of ducts that hang together: one that was dragged away leaves its pins out."""
        if self._main is None:
            from scipy.sparse.csgraph import connected_components  # late: its import takes half a second

            if not self._nodes:
                return frozenset()
            _, label = connected_components(self._matrix(), directed=False)
            pins = np.bincount(label[list(self._of_pin.values())], minlength=1) if self._of_pin else np.zeros(1)
            self._main = frozenset(int(node) for node in np.flatnonzero(label == int(pins.argmax())))
        return self._main

    def prepare(self, pins: Iterable[PinRef]) -> None:
        """Finds the ways from many pins in one go: a search costs less than its call."""
        from scipy.sparse.csgraph import dijkstra  # late: its import takes half a second

        sources = sorted({self._of_pin[pin] for pin in pins} - self._paths.keys())
        for begin in range(0, len(sources), SOURCES_AT_ONCE):
            some = sources[begin : begin + SOURCES_AT_ONCE]
            lengths, before = dijkstra(self._matrix(), directed=False, indices=some, return_predecessors=True)
            self._paths.update(zip(some, zip(lengths, before, strict=True), strict=True))

    def length(self, a: PinRef, b: PinRef) -> float:
        """Way from pin to pin, mm without ends; infinite when there is none."""
        return float(self._from(self._of_pin[a])[0][self._of_pin[b]])

    def route(self, a: PinRef, b: PinRef) -> Route:
        """The way itself."""
        source, node = self._of_pin[a], self._of_pin[b]
        lengths, before = self._from(source)
        chain = [node]
        while node != source and before[node] >= 0:
            node = int(before[node])
            chain.append(node)
        chain.reverse()
        names = [self._names.get(frozenset(pair), "") for pair in itertools.pairwise(chain)]
        ducts = tuple(dict.fromkeys(name for name in names if name))
        points = tuple(self._nodes[n].at for n in chain)
        via_door = any(self._nodes[n].door for n in chain)
        return Route(float(lengths[self._of_pin[b]]), points, ducts, via_door)

    def _from(self, source: int) -> _Ways:
        if source not in self._paths:
            from scipy.sparse.csgraph import dijkstra  # late: its import takes half a second

            graph = self._matrix()
            lengths, before = dijkstra(graph, directed=False, indices=[source], return_predecessors=True)
            self._paths[source] = (lengths[0], before[0])
        return self._paths[source]

    def _matrix(self) -> "csr_array[np.float64, tuple[int, int]]":
        """The graph as a sparse matrix, built once; of parallel edges the shorter counts."""
        if self._graph is None:
            from scipy.sparse import csr_array

            shortest: dict[tuple[int, int], float] = {}
            for a, b, length, _ in self._edges:
                pair = (min(a, b), max(a, b))
                shortest[pair] = min(shortest.get(pair, float("inf")), max(length, 1e-6))
            ends = np.array(list(shortest), dtype=np.int64).reshape(-1, 2)
            lengths = np.array(list(shortest.values()), dtype=np.float64)
            count = len(self._nodes)
            self._graph = csr_array((lengths, (ends[:, 0], ends[:, 1])), shape=(count, count))
        return self._graph

    def _node(self, at: Point, duct: str = "", *, door: bool = False) -> int:
        self._nodes.append(_Node(at, duct, door))
        if duct:
            self._in_duct[duct].append(len(self._nodes) - 1)
        return len(self._nodes) - 1

    def _add_plate_pins(self, device: Device) -> None:
        seat = self._layout.seat(device.id)
        if seat is None:
            return
        levels = [d for d in self._layout.ducts if not d.upright]
        for pin in device.kind.pins:
            if self._connected is not None and PinRef(device.id, pin.name) not in self._connected:
                continue  # no wire goes there: of a thousand relays that leaves out two nodes in three
            at = seat.pin_point(pin.name)
            upward = seat.side_of(pin) is Side.TOP
            side = [d for d in levels if (d.rect.centre.y < at.y) == upward] or levels
            node = self._node(at)
            self._of_pin[PinRef(device.id, pin.name)] = node
            if device.kind.can(Can.EARTH_STUD):
                self._add_stud(node, at, box=device.role == BOX_BOND)
            elif side:
                duct = min(side, key=lambda d: abs(d.rect.centre.y - at.y))
                way_in = self._node(Point(at.x, duct.rect.centre.y), duct.name)
                self._edges.append((node, way_in, abs(duct.rect.centre.y - at.y), ""))

    def _add_stud(self, node: int, at: Point, *, box: bool) -> None:
        uprights = [d for d in self._layout.ducts if d.upright]
        if not uprights:
            return
        duct = min(uprights, key=lambda d: abs(d.rect.centre.x - at.x))
        foot = Point(duct.rect.centre.x, duct.rect.bottom)
        way_in = self._node(foot, duct.name)
        length = abs(foot.x - at.x) + abs(foot.y - at.y) + (BOX_STEP if box else 0)
        self._edges.append((node, way_in, length, ""))

    def _add_crossings(self) -> None:
        """An upright joins the level ducts it touches; one that touches none (a misfit) is taken to reach them all."""
        uprights = [duct for duct in self._layout.ducts if duct.upright]
        for level in (duct for duct in self._layout.ducts if not duct.upright):
            for upright in meets(level, uprights) or uprights:
                at = Point(upright.rect.centre.x, level.rect.centre.y)
                a = self._node(at, upright.name)
                b = self._node(at, level.name)
                self._edges.append((a, b, 0.0, ""))

    def _add_door(self, devices: Sequence[Device]) -> None:
        for leaf in self._door.leaves:
            self._add_leaf(leaf, devices)

    def _add_leaf(self, leaf: Leaf, devices: Sequence[Device]) -> None:
        """The pins of one door, and its loom over its own hinge; the bond goes with the door of most operators."""
        spots: list[tuple[PinRef, Point]] = []
        for device in devices:
            if device.zone is not Zone.DOOR:
                continue
            if device.kind.can(Can.EARTH_STUD):
                # One written by hand has a name of its own and stands where the first does.
                bond = DOOR_BONDS.index(device.role) if device.role in DOOR_BONDS else 0
                at = min(bond, len(self._door.studs) - 1)
                if self._door.leaves[at] == leaf:
                    spots.append((PinRef(device.id, "1"), self._door.studs[at]))
                continue
            seat = self._door.seat(device.id)
            if seat and seat.leaf == leaf.name:
                spots += [(PinRef(device.id, p.name), Point(seat.x, seat.y)) for p in device.kind.pins]
        uprights = [d for d in self._layout.ducts if d.upright]
        if not spots or not uprights:
            return
        right = leaf.hinged_right
        duct = max(uprights, key=lambda d: d.rect.x if right else -d.rect.x)
        origin = to_door(Point(0, 0), self._enclosure)
        # At half the door's height, wherever operators are: one more then makes no wire that is cut too short.
        y = min(max(leaf.face.centre.y - origin.y, duct.rect.y), duct.rect.bottom)
        leave = self._node(Point(duct.rect.centre.x, y), duct.name)
        hinge = self._node(Point(self._layout.plate.right if right else 0.0, y), door=True)
        self._edges.append((leave, hinge, self._practice.door_loop, ""))
        nodes: list[int] = []
        for pin, spot in spots:
            shown = Point(spot.x - origin.x, spot.y - origin.y)
            node = self._node(shown, door=True)
            self._of_pin[pin] = node
            reach = abs(spot.x - leaf.hinge_x) + abs(shown.y - y)
            self._edges.append((hinge, node, reach, ""))
            for other in nodes:
                there = self._nodes[other].at
                self._edges.append((other, node, abs(there.x - shown.x) + abs(there.y - shown.y), ""))
            nodes.append(node)

    def _join_ducts(self) -> None:
        """Joins the neighbours along each duct."""
        for duct in self._layout.ducts:
            along = sorted(
                self._in_duct[duct.name], key=lambda n: self._nodes[n].at.y if duct.upright else self._nodes[n].at.x
            )
            for a, b in itertools.pairwise(along):
                p, q = self._nodes[a].at, self._nodes[b].at
                self._edges.append((a, b, abs(p.x - q.x) + abs(p.y - q.y), duct.name))
