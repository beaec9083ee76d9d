"""The ways of wires: how far it is from any clamp to any other through the ducts, and which way the wire runs."""

import itertools
from collections.abc import Callable, Collection, Container, Sequence
from dataclasses import dataclass
from functools import cache, partial
from math import hypot, inf

import numpy as np
from numpy.typing import NDArray

from riktig.core.catalogue import Can, Clamp, Side
from riktig.core.door import DoorPlan, Leaf, to_door
from riktig.core.geometry import Point
from riktig.core.job import Enclosure, PinRef, Practice
from riktig.core.plate import DUCT_DEPTH, Duct, Layout
from riktig.core.schematic import BOX_BOND, DOOR_BONDS, Device, Zone
from riktig.core.wiring.duct_lines import LEAST, DuctLines, StopWays, Stretches, in_common
from riktig.core.wiring.order_chain import best_path
from riktig.core.wiring.spots import Spot, corners, infeed_places, straight_lengths, straight_way

__all__ = ["Route", "Router", "over_hinge"]

BOX_STEP = 150.0
"""From the plate's corner to the enclosure's stud behind it (chosen by us)."""
HINGE = 50_000.0
"""What a way over the hinge counts more, mm (chosen by us: beyond any way on a plate, so none is crossed twice)."""
SAME_MM = 1e-9
"""Two ways that differ by less are one as long as the other: the straight one is taken."""


@dataclass(frozen=True, slots=True)
class Route:
    """A way through the ducts: length mm without ends, corner points on the plate, duct names."""

    length: float
    points: tuple[Point, ...]
    ducts: tuple[str, ...]
    via_door: bool


def over_hinge(layout: Layout, enclosure: Enclosure, leaf: Leaf) -> float:
    """The straight way from the duct nearest to a hinge to the hinge itself, sideways and forward, mm.

    A loom that is shorter pulls when the door opens. 0 where no duct stands upright.

    Args:
        layout: The plate: its ducts, and how far it is from the door.
        enclosure: The box: where plate and door are in it.
        leaf: The door that opens.
    """
    uprights = [duct for duct in layout.ducts if duct.upright]
    if not uprights:
        return 0.0
    duct = _at_hinge(uprights, right=leaf.hinged_right)
    across = duct.rect.centre.x + to_door(Point(0, 0), enclosure).x - leaf.hinge_x
    return hypot(across, max(layout.depth - DUCT_DEPTH, 0.0))


def _at_hinge(uprights: Sequence[Duct], *, right: bool) -> Duct:
    """The upright duct on the side of a hinge."""
    return max(uprights, key=lambda duct: duct.rect.x if right else -duct.rect.x)


class Router:
    """Shortest ways between pins through ducts, across the hinge and over the door.

    Method:
        Each clamp goes straight into the duct above or below it, each operator to the hinge of its door. The ways
        between the stops, where ducts meet and looms leave them, are found once; a way from clamp to clamp is the
        straight one along their duct, or goes by one of the two stops beside either.
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
        self._lines = DuctLines(layout.ducts)
        self._spots: dict[PinRef, Spot] = {}
        levels = [duct for duct in layout.ducts if not duct.upright]
        self._levels = [(duct.rect.centre.y, duct.name) for duct in levels]
        self._infeeds = infeed_places(layout)
        for device in devices:
            if device.zone is Zone.PLATE:
                self._add_plate_pins(device)
        self._lines.cross()
        for leaf in door.leaves:
            self._add_leaf(leaf, devices)
        self._ways: StopWays = self._lines.ways()
        self._exits_of: dict[PinRef, list[tuple[int, float]]] = {}
        self._joined = self._largest_part()
        self._routes: dict[tuple[PinRef, PinRef], Route] = {}
        self._chains: dict[tuple[tuple[PinRef, ...], frozenset[PinRef], frozenset[PinRef]], list[PinRef]] = {}

    def or_same(self, before: "Router | None") -> "Router":
        """The router of before where nothing moved; else this one, with the ways between clamps that stayed."""
        if before is None or before._lines.stops != self._lines.stops:
            return self
        if not np.array_equal(before._ways.length, self._ways.length):
            return self
        if before._spots == self._spots:
            return before
        self._take_from(before)
        return self

    def _take_from(self, before: "Router") -> None:
        """Takes the ways and chains between clamps that have not moved; the ducts are where they were."""
        still = {pin for pin, spot in self._spots.items() if before._spots.get(pin) == spot}
        self._routes = {ends: route for ends, route in before._routes.items() if still.issuperset(ends)}
        self._chains = {key: order for key, order in before._chains.items() if still.issuperset(key[0])}

    def chain(self, pins: Sequence[PinRef], single: frozenset[PinRef], door: Collection[PinRef]) -> list[PinRef]:
        """The order in which a chain of wires joins pins with the least wire, those of the door in one go.

        Args:
            pins: Two or more.
            single: Those whose clamp takes one conductor.
            door: Pins on the door: a way over the hinge counts so much more that a chain crosses it once.
        """
        key = (tuple(pins), single, frozenset(door))
        if key not in self._chains:
            on_door = np.array([pin in door for pin in pins])
            lengths = self.lengths(pins) + HINGE * (on_door[:, None] != on_door)
            self._chains[key] = best_path(list(pins), set(single), lengths)
        return self._chains[key]

    def _exits(self, pin: PinRef) -> list[tuple[int, float]]:
        """The stops a wire from a clamp meets first, and how far they are, mm."""
        exits = self._exits_of.get(pin)
        if exits is None:
            exits = self._exits_of[pin] = self._spots[pin].exits
        return exits

    def reaches(self, pin: PinRef) -> bool:
        """Whether a pin has a place, and a way to it from where most pins are."""
        return pin in self._joined

    def lengths(self, pins: Sequence[PinRef]) -> NDArray[np.float64]:
        """Way from each pin to each, mm without ends; infinite where there is none."""
        spots = [self._spots[pin] for pin in pins]
        count = len(spots)
        stop = np.zeros((count, 2), np.int64)
        off = np.full((count, 2), np.inf)
        for n, pin in enumerate(pins):
            for k, (at, length) in enumerate(self._exits(pin)):
                stop[n, k], off[n, k] = at, length
        if len(self._lines.stops):
            reach = (off[:, :, None] + self._ways.length[stop]).min(axis=1)
            lengths = (reach[:, stop] + off[None, :, :]).min(axis=2)
        else:
            lengths = np.full((count, count), np.inf)
        shortest: NDArray[np.float64] = np.minimum(lengths, straight_lengths(spots))
        return shortest

    def length(self, a: PinRef, b: PinRef) -> float:
        """Way from pin to pin, mm without ends; infinite when there is none."""
        return float(self.lengths((a, b))[0, 1])

    def route(self, a: PinRef, b: PinRef) -> Route:
        """The way itself."""
        if (a, b) not in self._routes:
            self._routes[a, b] = self._find_route(a, b)
        return self._routes[a, b]

    def stops_of_ducts(self) -> dict[str, list[float]]:
        """The places on each duct where ways can turn, mm along it on the plate."""
        uprights = {duct.name: duct.upright for duct in self._layout.ducts}
        places: dict[str, list[float]] = {name: [] for name in uprights}
        for stop in self._lines.stops:
            if stop.duct:
                places[stop.duct].append(round(stop.at.y if uprights[stop.duct] else stop.at.x, 2))
        return places

    def routes_around(self, full: Stretches, dear: float = inf) -> Callable[[PinRef, PinRef], list[Route]]:
        """What gives the ways between two pins that keep out of some stretches of duct, the cheapest first.

        The straight way along one duct is among them whatever it passes. The length of each way is its own, whatever
        its mm count.

        Args:
            full: Those stretches.
            dear: What each mm in them counts more than one elsewhere; infinite where no way may pass.
        """
        ways = self._lines.ways_around(full, dear)

        @cache
        def exits(pin: PinRef) -> list[tuple[int, float, float]]:
            """The stops from a pin, how far they are, mm, and how much of that lies in the stretches."""
            spot = self._spots[pin]
            if spot.entry is None:
                return [(stop, length, 0.0) for stop, length in self._exits(pin)]
            stretches = full.get(spot.entry.duct)
            if not stretches:
                return [(stop, length, 0.0) for stop, length in self._exits(pin)]
            inside = partial(self._lines.inside_mm, spot.entry, stretches=stretches)
            stops = [(stop, length, inside(stop)) for stop, length in self._exits(pin)]
            return [stop for stop in stops if not stop[2] or dear < inf]

        def routes(a: PinRef, b: PinRef) -> list[Route]:
            begin, end = self._spots[a], self._spots[b]
            straight = straight_way(begin, end)
            other_ways: list[tuple[float, Route]] = []
            if straight is not None:
                passed = self._straight_inside(begin, end, full) if dear < inf else 0.0
                count = straight + (dear * passed if passed else 0.0)
                other_ways.append((count, self._route(begin, end, [], straight)))
            for (first, out, before), (last, back, behind) in itertools.product(exits(a), exits(b)):
                counted = float(ways.length[first, last])
                if np.isfinite(counted):
                    stops = ways.path(first, last)
                    between = sum(float(self._ways.length[p, q]) for p, q in itertools.pairwise(stops))
                    inside = before + behind
                    count = out + counted + back + (dear * inside if inside else 0.0)
                    other_ways.append((count, self._route(begin, end, stops, out + between + back)))
            return [route for _, route in sorted(other_ways, key=lambda way: way[0])]

        return routes

    def _straight_inside(self, begin: Spot, end: Spot, stretches: Stretches) -> float:
        """How much of the straight way along one duct lies in some stretches of it, mm."""
        if not begin.entry or not end.entry:
            return 0.0
        upright = self._lines.is_upright(begin.entry.duct)
        first, last = sorted((e.at.y if upright else e.at.x) for e in (begin.entry, end.entry))
        return in_common(first, last, stretches.get(begin.entry.duct, ()))

    def _find_route(self, a: PinRef, b: PinRef) -> Route:
        begin, end = self._spots[a], self._spots[b]
        straight = straight_way(begin, end)
        length, chain = float("inf") if straight is None else straight - SAME_MM, None
        for (first, out), (last, back) in itertools.product(self._exits(a), self._exits(b)):
            whole = out + float(self._ways.length[first, last]) + back
            if whole < length - SAME_MM:
                length, chain = whole, (first, last)
        if chain is None:
            length = length if straight is None else straight
            stops = []
        else:
            stops = self._ways.path(*chain)
        return self._route(begin, end, stops, length)

    def _route(self, begin: Spot, end: Spot, stops: list[int], length: float) -> Route:
        """The way over some stops, its corners alone."""
        on = [self._lines.stops[n] for n in stops]
        names = [begin.entry.duct] if begin.entry else []
        names += [a.duct for a, b in itertools.pairwise(on) if a.duct == b.duct]
        names += [end.entry.duct] if end.entry else []
        inner = [begin.entry.at] if begin.entry else []
        first_added = len(inner)
        inner += [stop.at for stop in on]
        last = len(inner)
        inner += [end.entry.at] if end.entry else []
        points = [begin.at, *corners(inner, first_added, last), end.at]
        door = begin.hinge >= 0 or end.hinge >= 0 or any(not stop.duct for stop in on)
        return Route(length, tuple(points), tuple(dict.fromkeys(names)), door)

    def _largest_part(self) -> frozenset[PinRef]:
        """The pins that hang together by most ducts: a duct that was dragged away leaves its pins out."""
        part: dict[PinRef, tuple[object, ...]] = {}
        length = self._ways.length
        first_reached = np.argmax(np.isfinite(length), axis=1).tolist() if length.size else []
        for pin, spot in self._spots.items():
            exits = self._exits(pin)
            if exits:
                part[pin] = (first_reached[exits[0][0]],)
            else:
                part[pin] = (spot.entry.duct,) if spot.entry else (pin,)
        sizes: dict[tuple[object, ...], int] = {}
        for key in part.values():
            sizes[key] = sizes.get(key, 0) + 1
        most = max(sizes, key=lambda key: sizes[key], default=None)
        return frozenset(pin for pin, key in part.items() if key == most)

    def _add_plate_pins(self, device: Device) -> None:
        seat = self._layout.seat(device.id)
        if seat is None:
            return
        stud = device.kind.can(Can.EARTH_STUD)
        for pin in device.kind.pins:
            ref = PinRef(device.id, pin.name)
            if self._connected is not None and ref not in self._connected:
                continue  # no wire goes there: of a thousand relays that leaves out two pins in three
            at = seat.pin_point(pin.name)
            if device.id in self._infeeds and pin.clamp is Clamp.POWER and pin.side is Side.TOP:
                at = self._infeeds[device.id]
            if stud:
                self._spots[ref] = self._of_stud(at, box=device.role == BOX_BOND)
                continue
            upward = seat.side_of(pin) is Side.TOP
            side = [level for level in self._levels if (level[0] < at.y) == upward] or self._levels
            if not side:
                self._spots[ref] = Spot(at)
                continue
            y, name = min(side, key=lambda level: abs(level[0] - at.y))
            self._spots[ref] = Spot(at, max(abs(y - at.y), LEAST), self._lines.enter(Point(at.x, y), name))

    def _of_stud(self, at: Point, *, box: bool) -> Spot:
        uprights = [d for d in self._layout.ducts if d.upright]
        if not uprights:
            return Spot(at)
        duct = min(uprights, key=lambda d: abs(d.rect.centre.x - at.x))
        foot = Point(duct.rect.centre.x, duct.rect.bottom)
        length = abs(foot.x - at.x) + abs(foot.y - at.y) + (BOX_STEP if box else 0)
        return Spot(at, max(length, LEAST), self._lines.enter(foot, duct.name))

    def _add_leaf(self, leaf: Leaf, devices: Sequence[Device]) -> None:
        """The pins of one door, and its loom over its own hinge; the bond goes with the door of most operators."""
        places = self._on_leaf(leaf, devices)
        uprights = [d for d in self._layout.ducts if d.upright]
        if not places or not uprights:
            return
        right = leaf.hinged_right
        duct = _at_hinge(uprights, right=right)
        origin = to_door(Point(0, 0), self._enclosure)
        # At half the door's height, wherever operators are: one more then makes no wire that is cut too short.
        y = min(max(leaf.face.centre.y - origin.y, duct.rect.y), duct.rect.bottom)
        leave = self._lines.stop(Point(duct.rect.centre.x, y), duct.name)
        hinge = self._lines.stop(Point(self._layout.plate.right if right else 0.0, y))
        straight = over_hinge(self._layout, self._enclosure, leaf)
        self._lines.join(leave, hinge, max(self._practice.door_loop, straight))
        for pin, spot in places:
            shown = Point(spot.x - origin.x, spot.y - origin.y)
            reach = abs(spot.x - leaf.hinge_x) + abs(shown.y - y)
            self._spots[pin] = Spot(shown, max(reach, LEAST), hinge=hinge)

    def _on_leaf(self, leaf: Leaf, devices: Sequence[Device]) -> list[tuple[PinRef, Point]]:
        """The pins of one door with their places on it."""
        places: list[tuple[PinRef, Point]] = []
        for device in devices:
            if device.zone is not Zone.DOOR:
                continue
            if device.kind.can(Can.EARTH_STUD):
                # One written by hand has a name of its own and stands where the first does.
                bond = DOOR_BONDS.index(device.role) if device.role in DOOR_BONDS else 0
                at = min(bond, len(self._door.studs) - 1)
                if self._door.leaves[at] == leaf:
                    places.append((PinRef(device.id, "1"), self._door.studs[at]))
                continue
            seat = self._door.seat(device.id)
            if seat and seat.leaf == leaf.name:
                places += [(PinRef(device.id, p.name), Point(seat.x, seat.y)) for p in device.kind.pins]
        return places
