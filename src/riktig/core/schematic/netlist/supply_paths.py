"""The drawn circuits as ways from the sources on: which devices lie between anything and its source."""

import heapq
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.job import DeviceId, PinRef
from riktig.core.schematic.model.elements import Circuits, Device, Element, elements_of
from riktig.core.schematic.netlist.nets import PinOrNode, drawn_joints
from riktig.core.schematic.netlist.unit_graph import PASS, TAKES

__all__ = ["Crossing", "SupplyPaths"]

CROSS, JOINT, DRAWN = 1.0, 0.01, 0.0001
"""What a way costs: a device that can part it, a terminal on it, a stretch of drawn line (chosen by us)."""
HOLDS = 1.5
"""A contact on the way to the coil that closes it: it holds, another one starts (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Crossing:
    """A device on a way: in by one pin, out by another."""

    device: DeviceId
    unit: str
    enters: PinRef
    leaves: PinRef

    def turned(self) -> "Crossing":
        """The same, met from the other side."""
        return Crossing(self.device, self.unit, self.leaves, self.enters)


@dataclass(frozen=True, slots=True)
class _Link:
    cost: float
    to: PinOrNode
    crossing: Crossing | None = None


class SupplyPaths:
    """Points (pins, and where lines meet) joined by drawn lines and by what is crossed.

    ``source_of`` and the way to it are worked out once, by a shortest-path search from all
    sources together; O(points · log points).
    """

    def __init__(self, circuits: Circuits) -> None:
        self.devices = circuits.by_id
        self.elements: dict[tuple[DeviceId, str], Element] = {}
        rungs: dict[tuple[DeviceId, str], int] = {}
        coils: dict[DeviceId, set[int]] = defaultdict(set)
        for number, rung in enumerate(circuits.rungs):
            for element in elements_of(rung.path):
                for pole in element.poles:
                    self.elements.setdefault((pole.device, pole.unit), element)
                    rungs.setdefault((pole.device, pole.unit), number)
                    if self.devices[pole.device].kind.unit(pole.unit).behaviour is Behaviour.COIL:
                        coils[pole.device].add(number)
        self._links: dict[PinOrNode, list[_Link]] = defaultdict(list)
        for number, group in enumerate(drawn_joints(circuits)):
            for point in group:
                self._join(point, f"line:{number}", DRAWN)
        self._primaries: dict[PinRef, Crossing] = {}
        for device in circuits.devices:
            for unit in device.kind.units:
                holds = rungs.get((device.id, unit.name)) in coils[device.id]
                self._add_unit(device, unit, HOLDS if holds else CROSS)
        self._cost, self._back = self._from_sources()

    def _add_unit(self, device: Device, unit: Unit, cost: float) -> None:
        """What a unit lets through, and what a winding is fed by."""
        if unit.behaviour is Behaviour.JOINT:
            for pin in unit.pins[1:]:
                self._cross(device, unit.name, unit.pins[0], pin, JOINT)
        elif unit.behaviour in PASS and (device.id, unit.name) in self.elements:
            self._cross(device, unit.name, unit.pins[0], unit.pins[-1], cost)
        elif unit.behaviour is Behaviour.SOURCE:
            self._note_primary(device, unit.name, (unit.pins[0], unit.pins[-1]))

    def _note_primary(self, device: Device, unit: str, pins: tuple[str, str]) -> None:
        for pin in pins:
            primary = device.kind.primary_of(pin)
            if primary:
                out = device.pin(pin)
                self._primaries[device.pin(primary)] = Crossing(device.id, unit, device.pin(primary), out)

    def _join(self, pin_ref: PinOrNode, other: PinOrNode, cost: float) -> None:
        self._links[pin_ref].append(_Link(cost, other))
        self._links[other].append(_Link(cost, pin_ref))

    def _cross(self, device: Device, unit: str, first: str, last: str, cost: float) -> None:
        a, b = device.pin(first), device.pin(last)
        there = Crossing(device.id, unit, a, b)
        self._links[a].append(_Link(cost, b, there))
        self._links[b].append(_Link(cost, a, there.turned()))

    def _sources(self) -> Iterator[PinRef]:
        """The pins where a potential comes from that nothing drawn here makes."""
        for device in self.devices.values():
            if device.kind.can(Can.SUPPLY):
                yield from (device.pin(pin.name) for pin in device.kind.pins if pin.name != "PE")
            for unit in device.kind.units:
                if unit.behaviour is Behaviour.SOURCE and not device.kind.primary_of(unit.pins[0]):
                    yield from (device.pin(pin) for pin in (unit.pins[0], unit.pins[-1]))

    def _from_sources(self) -> tuple[dict[PinOrNode, float], dict[PinOrNode, tuple[PinOrNode | None, Crossing | None]]]:
        cost: dict[PinOrNode, float] = {}
        back: dict[PinOrNode, tuple[PinOrNode | None, Crossing | None]] = {}
        for point, so_far, before, crossing in self._spread(self._sources(), downward=True):
            cost[point] = so_far
            back[point] = (before, crossing)
        return cost, back

    def _spread(
        self, starts: Iterable[PinRef], blocked: frozenset[PinOrNode] = frozenset(), *, downward: bool = False
    ) -> Iterator[tuple[PinOrNode, float, PinOrNode | None, Crossing | None]]:
        """Every point in the order of its cost from ``starts``: with the point before it and what was crossed."""
        tick = 0
        queue: list[tuple[float, int, PinOrNode, PinOrNode | None, Crossing | None]] = []
        for start in starts:
            tick += 1
            queue.append((0.0, tick, start, None, None))
        heapq.heapify(queue)
        done: set[PinOrNode] = set(blocked)
        while queue:
            cost, _, point, before, crossing = heapq.heappop(queue)
            if point in done:
                continue
            done.add(point)
            yield point, cost, before, crossing
            links = self._links.get(point, [])
            if downward and isinstance(point, PinRef) and point in self._primaries:
                made = self._primaries[point]
                links = [*links, _Link(CROSS, made.leaves, made)]
            for link in links:
                if link.to not in done:
                    tick += 1
                    heapq.heappush(queue, (cost + link.cost, tick, link.to, point, link.crossing))

    def primary(self, pin: PinRef) -> PinRef | None:
        """The pin behind a potential of its own, on the side that is fed; None where nothing lies behind."""
        owner, name = pin
        behind = self.devices[owner].kind.primary_of(name)
        return self.devices[owner].pin(behind) if behind else None

    def cost(self, pin: PinRef) -> float:
        """How far a pin is from its source; infinite where there is none."""
        return self._cost.get(pin, float("inf"))

    def back(self, pin: PinRef) -> tuple[PinRef | None, tuple[Crossing, ...], frozenset[PinOrNode]]:
        """The source of a pin (None: there is none), what lies between from the source on, and the points met."""
        if pin not in self._cost:
            return None, (), frozenset()
        crossings: list[Crossing] = []
        met: set[PinOrNode] = set()
        point: PinOrNode = pin
        before, crossing = self._back[point]
        while before is not None:
            met.add(point)
            if crossing:
                crossings.append(crossing)
            point = before
            before, crossing = self._back[point]
        assert isinstance(point, PinRef)  # every way begins at the pin of a source
        return point, _merged(reversed(crossings)), frozenset(met | {point})

    def on(
        self, start: PinRef, goal: Callable[[PinRef], bool], blocked: frozenset[PinOrNode], most: int = 1
    ) -> list[tuple[PinRef, tuple[Crossing, ...]]]:
        """The nearest pins that are a ``goal``, with what lies between; it goes nowhere that is ``blocked``."""
        paths: list[tuple[PinRef, tuple[Crossing, ...]]] = []
        back: dict[PinOrNode, tuple[PinOrNode | None, Crossing | None]] = {}
        for point, _, before, crossing in self._spread((start,), blocked - {start}):
            back[point] = (before, crossing)
            if isinstance(point, PinRef) and goal(point):
                crossings = []
                at: PinOrNode | None = point
                while at is not None:
                    at, back_crossing = back[at]
                    if back_crossing:
                        crossings.append(back_crossing)
                paths.append((point, _merged(reversed(crossings))))
                if len(paths) >= most:
                    break
        return paths

    def takes(self, pin: PinRef) -> tuple[DeviceId, str] | None:
        """The load that a pin belongs to: its device and unit; None where the pin is no load's."""
        owner, name = pin
        device = self.devices.get(owner)
        if device is None:
            return None
        for unit in device.kind.units:
            turns = unit.behaviour is Behaviour.WINDING and device.kind.is_motor
            if name in unit.pins and (unit.behaviour in TAKES or turns):
                return device.id, unit.name
        return None


def _merged(crossings: Iterable[Crossing]) -> tuple[Crossing, ...]:
    """A bar met by its first way is one crossing, not two."""
    merged: list[Crossing] = []
    for crossing in crossings:
        last = merged[-1] if merged else None
        if last and (last.device, last.unit, last.leaves) == (crossing.device, crossing.unit, crossing.enters):
            merged[-1] = Crossing(crossing.device, crossing.unit, last.enters, crossing.leaves)
        else:
            merged.append(crossing)
    return tuple(merged)
