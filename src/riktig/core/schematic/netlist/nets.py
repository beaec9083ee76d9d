"""Nets: all pins at one potential. Union-find over pins and the nodes of the rungs."""

from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from enum import Enum

from riktig.core.catalogue import Behaviour, Clamp, kind
from riktig.core.evaluation import Memory
from riktig.core.job import DeviceId, PinRef
from riktig.core.schematic.model.elements import Band, Branch, Circuits, Element, Landing, Parallel, Rung, Series
from riktig.core.schematic.netlist.net_sources import NetSources

__all__ = ["Net", "NetClass", "Nets", "PinOrNode", "drawn_joints", "find_nets"]

PinOrNode = PinRef | str
"""A pin, or a node between pins by its name: “node:N”."""


class NetClass(Enum):
    """What a net carries; it decides colour and section."""

    POWER = "power"
    CONTROL = "control"
    NEUTRAL = "neutral"
    DC = "direct-current control"
    EXCEPTED = "live with the main switch off"
    EARTH = "earth"


@dataclass(frozen=True, slots=True)
class Net:
    """Pins at one potential, in the order of devices and of their pins. Its id is its first pin.

    ``nodes`` are the named nodes it is ("N", "main.L1"). ``inner``: only plugged pins, so no wire
    can be landed on it and it has no number.
    """

    id: PinRef
    pins: tuple[PinRef, ...]
    net_class: NetClass
    nodes: tuple[str, ...]
    inner: bool
    line: int = -1
    earthed: bool = False
    """Whether it is the earthed side of a control or direct-current supply."""
    stays_live: bool = False
    """Whether it belongs to a circuit that the main switch does not cut off, its neutral too."""

    @property
    def is_shared(self) -> bool:
        """Whether it is the earth or the neutral of the supply, which all circuits share under one name."""
        return self.net_class is NetClass.EARTH or "N" in self.nodes


@dataclass(frozen=True, slots=True)
class Nets:
    """All nets in the order they are met from the supply, and the net of each pin."""

    nets: tuple[Net, ...]
    of_pin: dict[PinRef, Net]

    def net(self, net_id: PinRef) -> Net | None:
        """The net with that id, which is that of its first pin; None where there is none."""
        net = self.of_pin.get(net_id)
        return net if net and net.id == net_id else None


class _Union:
    """Groups of one potential by their numbers, and the group of every pin and node that was met.

    A pin is looked up once; after that only numbers are joined, which costs a third.
    """

    def __init__(self) -> None:
        self._parent: list[int] = []
        self.group_of: dict[PinOrNode, int] = {}

    def add(self, items: Iterable[PinOrNode]) -> int:
        """One group more: these are at one potential, with all that any of them was joined to before."""
        number = len(self._parent)
        self._parent.append(number)
        known = self.group_of.setdefault
        for item in items:
            earlier = known(item, number)
            if earlier != number:
                self._parent[self.find(earlier)] = number
        return number

    def find(self, group: int) -> int:
        """The group that stands for all that a group was joined to."""
        parent = self._parent
        while parent[group] != group:
            parent[group] = group = parent[parent[group]]
        return group


@dataclass(frozen=True, slots=True)
class _Walked:
    """One rung walked from end to end.

    Groups of one potential, the order in which a reader meets those that have a pin (line after line), and phases of
    power pins.
    """

    groups: tuple[tuple[PinOrNode, ...], ...]
    met: tuple[int, ...]
    power: tuple[tuple[PinRef, int], ...]


def find_nets(circuits: Circuits, memory: Memory | None = None) -> Nets:
    """All nets of the circuits.

    Method:
        Every rung is walked once a line; a device element parts two nodes, a joint (terminal,
        bar) does not. O(pins). A rung that did not change is not walked again.

    Args:
        circuits: All devices and rungs of the job.
        memory: What earlier computations of the evaluation left; without it the same, only slower.

    Returns:
        Nets in the order a reader meets them from the supply on, same circuits same order.
    """
    memory = memory or Memory()
    return memory.recent(Nets, "nets").get((circuits,), lambda: _find(circuits, memory))


def _find(circuits: Circuits, memory: Memory) -> Nets:
    union = _Union()
    met: list[int] = []
    kinds = {device.id: device.kind_id for device in circuits.devices}
    power: dict[PinRef, int] = {}
    for walked in _all_walked(circuits, kinds, memory):
        numbers = [union.add(group) for group in walked.groups]
        met += [numbers[place] for place in walked.met]
        power.update(walked.power)
    for device in circuits.devices:
        for unit, pins in device.unit_pins:
            if unit.behaviour is Behaviour.JOINT:
                union.add(pins)
    met += [union.add((pin, "node:PE")) for pin in circuits.earths]
    return _gathered(circuits, union, met, power)


def drawn_joints(circuits: Circuits) -> Iterator[tuple[PinOrNode, ...]]:
    """The pins and named nodes (“node:N”) that one path joins at one point, for every point of every path.

    Terminals part two points here: their pins are in different groups, as they are drawn.
    """
    kinds = {device.id: device.kind_id for device in circuits.devices}
    for walked in _all_walked(circuits, kinds, Memory()):
        yield from walked.groups


def _all_walked(circuits: Circuits, kinds: dict[DeviceId, str], memory: Memory) -> Iterator[_Walked]:
    cache = memory.memo(_Walked, "rung")
    for rung in circuits.rungs:
        crossed = tuple(kinds[device_id] for device_id in _met(rung.path))
        yield cache.get(rung.id, (rung, crossed), lambda r=rung: _RungWalk(r, kinds).walked())  # type: ignore[misc]


def _met(branch: Branch) -> Iterator[DeviceId]:
    match branch:
        case Element(poles=poles):
            for pole in poles:
                yield pole.device
        case Landing(device=device):
            yield device
        case Series(parts) | Parallel(parts):
            for part in parts:
                yield from _met(part)


class _RungWalk:
    """Walks one rung from end to end, with no knowledge of other rungs: nodes between have no name outside.

    ``met`` holds, line after line, the pins in the order a reader meets them, each with the line it is on.
    """

    def __init__(self, rung: Rung, kinds: dict[DeviceId, str]) -> None:
        self.rung, self.kinds, self.union = rung, kinds, _Union()
        self._fresh = iter(range(10**9))
        self.lines = _lines(rung.path)
        self.count = max(len(rung.start), len(rung.end), self.lines)
        self.met: list[list[tuple[PinRef, int]]] = [[] for _ in range(self.count)]
        self._branch(rung.path, self._ends(rung.start), self._ends(rung.end))

    def _ends(self, named: tuple[str, ...]) -> list[str]:
        return [f"node:{named[n]}" if named else self._between() for n in range(self.count)]

    def _between(self) -> str:
        return f"node:~{next(self._fresh)}"

    def _branch(self, branch: Branch, lefts: list[str], rights: list[str]) -> None:
        match branch:
            case Element():
                self._element(branch, lefts, rights)
            case Landing(device=device, pins=pins):
                for line, name in enumerate(pins):
                    pin = PinRef(device, name)
                    self.union.add((pin, lefts[line]))
                    self.met[line].append((pin, line))
                self._through(lefts, rights)
            case Series(()):
                self._through(lefts, rights)
            case Series(parts):
                nodes = [lefts, *([self._between() for _ in lefts] for _ in parts[1:]), rights]
                for part, a, b in zip(parts, nodes, nodes[1:], strict=False):
                    self._branch(part, a, b)
            case Parallel(parts):
                for part in parts:
                    self._branch(part, lefts, rights)

    def _through(self, lefts: list[str], rights: list[str]) -> None:
        for left, right in zip(lefts, rights, strict=True):
            self.union.add((left, right))

    def _element(self, element: Element, lefts: list[str], rights: list[str]) -> None:
        for line, pole in enumerate(element.poles):
            pins = kind(self.kinds[pole.device]).unit(pole.unit).pins
            first, last = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
            out = element.leads_to(line)
            for name, node, on in ((first, lefts[line], line), (last, rights[out], out)):
                pin = PinRef(pole.device, name)
                self.union.add((pin, node))
                self.met[line].append((pin, on))

    def walked(self) -> _Walked:
        """What the rung joins."""
        union = self.union
        groups: dict[int, list[PinOrNode]] = defaultdict(list)
        for item, number in union.group_of.items():
            if isinstance(item, PinRef) or not item.startswith("node:~"):
                groups[union.find(number)].append(item)
        places = {number: place for place, number in enumerate(groups)}
        power: tuple[tuple[PinRef, int], ...] = ()
        if self.rung.band in (Band.INCOMING, Band.POWER):
            power = tuple((pin, _phase(self.rung, on, self.lines)) for line in self.met for pin, on in line)
        order = dict.fromkeys(places[union.find(union.group_of[pin])] for line in self.met for pin, _ in line)
        return _Walked(tuple(tuple(group) for group in groups.values()), tuple(order), power)


def _phase(rung: Rung, on: int, lines: int) -> int:
    """Which phase a line of a power path carries: its place among three, or what its start names."""
    if lines == 3:
        return on
    node = rung.start[on] if on < len(rung.start) else ""
    return int(node[-1]) - 1 if node[-2:-1] == "L" and node[-1].isdecimal() else -1


def _lines(branch: Branch) -> int:
    match branch:
        case Element(poles=poles):
            return len(poles)
        case Landing(pins=pins):
            return len(pins)
        case Series(parts) | Parallel(parts):
            return _lines(parts[0]) if parts else 1


def _pins_of(circuits: Circuits, union: _Union) -> tuple[dict[int, list[PinRef]], dict[PinRef, int], set[int]]:
    """The pins of each net, the net of each pin, and the nets with a pin that takes a wire."""
    groups: dict[int, list[PinRef]] = defaultdict(list)
    root: dict[PinRef, int] = {}
    landed: set[int] = set()
    for device in circuits.devices:
        for pin in device.kind.pins:
            ref = device.pins[pin.name]
            number = union.group_of.get(ref)
            if number is not None:
                root[ref] = pin_root = union.find(number)
                groups[pin_root].append(ref)
                if pin.clamp is not Clamp.PLUG:
                    landed.add(pin_root)
    return groups, root, landed


def _gathered(circuits: Circuits, union: _Union, met: list[int], power: dict[PinRef, int]) -> Nets:
    group_of, find = union.group_of, union.find
    groups, root, landed = _pins_of(circuits, union)
    names: dict[int, list[str]] = defaultdict(list)
    for item, number in group_of.items():
        if not isinstance(item, PinRef):
            names[find(number)].append(item.removeprefix("node:"))
    lines: dict[int, int] = {}
    for ref, line in power.items():
        pin_root = root[ref]
        lines[pin_root] = max(lines.get(pin_root, -1), line)
    known = NetSources(circuits, root, names)
    nets = []
    for pin_root in dict.fromkeys(map(find, met)):
        pins, nodes = tuple(groups[pin_root]), tuple(sorted(names[pin_root]))
        if not pins:
            continue
        net_class = next(
            net_class
            for net_class, holds in (
                (NetClass.EARTH, "PE" in nodes),
                (NetClass.NEUTRAL, "N" in nodes or pin_root in known.neutral),
                (NetClass.EXCEPTED, pin_root in known.excepted),
                (NetClass.POWER, pin_root in lines),
                (NetClass.DC, pin_root in known.dc),
                (NetClass.CONTROL, True),
            )
            if holds
        )
        line, landed_on = lines.get(pin_root, -1), pin_root in landed
        sides = pin_root in known.earthed, pin_root in known.stays_live
        nets.append(Net(pins[0], pins, net_class, nodes, not landed_on, line, *sides))
    return Nets(tuple(nets), {pin: net for net in nets for pin in net.pins})
