"""Nets: all pins at one potential. Union-find over pins and the nodes of the rungs."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum

from riktig.core.catalogue import Behaviour, Clamp
from riktig.core.circuit.model import Band, Branch, Circuits, Element, Landing, Parallel, Rung, Series
from riktig.core.job import PinId, pin_id

__all__ = ["Net", "NetClass", "Nets", "find_nets"]


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

    id: PinId
    pins: tuple[PinId, ...]
    net_class: NetClass
    nodes: tuple[str, ...]
    inner: bool
    line: int = -1


@dataclass(frozen=True, slots=True)
class Nets:
    """All nets in the order they are met from the supply, and the net of each pin."""

    nets: tuple[Net, ...]
    of_pin: dict[PinId, Net]


class _Union:
    def __init__(self) -> None:
        self._parent: dict[str, str] = {}

    def find(self, item: str) -> str:
        parent = self._parent.setdefault(item, item)
        while parent != self._parent[parent]:
            self._parent[item] = parent = self._parent[self._parent[parent]]
        return parent

    def join(self, a: str, b: str) -> None:
        self._parent[self.find(a)] = self.find(b)

    def items(self) -> Iterable[str]:
        return tuple(self._parent)


def find_nets(circuits: Circuits) -> Nets:
    """All nets of the circuits.

    Method:
        Every rung is walked once a line; a device element parts two nodes, a joint (terminal,
        bar) does not. O(pins).

    Returns:
        Nets in the order a reader meets them from the supply on, same circuits same order.
    """
    union = _Union()
    order: list[str] = []
    fresh = iter(range(10**9))
    kinds = {device.id: device.kind for device in circuits.devices}
    power: dict[str, int] = {}

    def touch(pin: str, node: str) -> None:
        union.join(pin, node)
        order.append(pin)

    def walk(branch: Branch, lefts: list[str], rights: list[str], met: list[list[tuple[str, int]]]) -> None:
        match branch:
            case Element(poles=poles):
                for line, pole in enumerate(poles):
                    pins = kinds[pole.device].unit(pole.unit).pins
                    first, last = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
                    out = branch.leads_to(line)
                    for pin, node, on in ((first, lefts[line], line), (last, rights[out], out)):
                        union.join(pin_id(pole.device, pin), node)
                        met[line].append((pin_id(pole.device, pin), on))
            case Landing(device=device, pins=pins):
                for line, pin in enumerate(pins):
                    union.join(pin_id(device, pin), lefts[line])
                    met[line].append((pin_id(device, pin), line))
                for left, right in zip(lefts, rights, strict=True):
                    union.join(left, right)
            case Series(parts):
                between = [[f"node:~{next(fresh)}" for _ in lefts] for _ in parts[1:]]
                nodes = [lefts, *between, rights]
                for part, a, b in zip(parts, nodes, nodes[1:], strict=False):
                    walk(part, a, b, met)
            case Parallel(parts):
                for part in parts:
                    walk(part, lefts, rights, met)

    for rung in circuits.rungs:
        lines = _lines(rung.path)
        count = max(len(rung.start), len(rung.end), lines)
        begin = [f"node:{rung.start[n]}" if rung.start else f"node:~{next(fresh)}" for n in range(count)]
        finish = [f"node:{rung.end[n]}" if rung.end else f"node:~{next(fresh)}" for n in range(count)]
        met: list[list[tuple[str, int]]] = [[] for _ in range(count)]
        walk(rung.path, begin, finish, met)
        order += [pin for line in met for pin, _ in line]
        if rung.band in (Band.INCOMING, Band.POWER):
            power.update((pin, _phase(rung, on, lines)) for line in met for pin, on in line)
    for device in circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.JOINT:
                for pin in unit.pins[1:]:
                    union.join(device.pin(unit.pins[0]), device.pin(pin))
    for pin_ in circuits.earths:
        touch(pin_, "node:PE")
    return _gathered(circuits, union, order, power)


def _phase(rung: Rung, on: int, lines: int) -> int:
    """Which phase a line of a power path carries: its place among three, or what its start names."""
    if lines == 3:
        return on
    node = rung.start[on] if on < len(rung.start) else ""
    return int(node[-1]) - 1 if node[-2:-1] == "L" and node[-1].isdecimal() else -1


_PASSES = {Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER}


def _spread(circuits: Circuits, root: dict[PinId, str], seeds: set[str], stop: str = "") -> set[str]:
    """The nets that ``seeds`` reach through anything that switches; not through the device kind ``stop``."""
    joined: dict[str, set[str]] = defaultdict(set)
    for device in circuits.devices:
        for unit in device.kind.units if device.kind_id != stop else ():
            ends = [root.get(device.pin(unit.pins[0])), root.get(device.pin(unit.pins[-1]))]
            if unit.behaviour in _PASSES and ends[0] and ends[1]:
                joined[ends[0]].add(ends[1])
                joined[ends[1]].add(ends[0])
    seen, todo = set(seeds), list(seeds)
    while todo:
        fresh = joined[todo.pop()] - seen
        seen |= fresh
        todo += fresh
    return seen


def _lines(branch: Branch) -> int:
    match branch:
        case Element(poles=poles):
            return len(poles)
        case Landing(pins=pins):
            return len(pins)
        case Series(parts) | Parallel(parts):
            return _lines(parts[0]) if parts else 1


def _gathered(circuits: Circuits, union: _Union, order: list[str], power: dict[str, int]) -> Nets:
    groups: dict[str, list[PinId]] = defaultdict(list)
    clamps: dict[PinId, Clamp] = {}
    touched = set(union.items())
    for device in circuits.devices:
        for pin in device.kind.pins:
            pid = device.pin(pin.name)
            clamps[pid] = pin.clamp
            if pid in touched:
                groups[union.find(pid)].append(pid)
    names: dict[str, list[str]] = defaultdict(list)
    for item in touched:
        if item.startswith("node:") and "~" not in item:
            names[union.find(item)].append(item.removeprefix("node:"))
    met = list(dict.fromkeys(union.find(pin) for pin in order))
    root = {pin: one for one, pins in groups.items() for pin in pins}
    dc, excepted = _kinds_of(circuits, root, names)
    nets = []
    for one in met:
        pins, nodes = tuple(groups[one]), tuple(sorted(names[one]))
        if not pins:
            continue
        if "PE" in nodes:
            net_class = NetClass.EARTH
        elif "N" in nodes:
            net_class = NetClass.NEUTRAL
        elif one in excepted:
            net_class = NetClass.EXCEPTED
        elif any(pin in power for pin in pins):
            net_class = NetClass.POWER
        else:
            net_class = NetClass.DC if one in dc else NetClass.CONTROL
        inner = all(clamps[pin] is Clamp.PLUG for pin in pins)
        line = max((power.get(pin, -1) for pin in pins), default=-1)
        nets.append(Net(pins[0], pins, net_class, nodes, inner, line))
    return Nets(tuple(nets), {pin: net for net in nets for pin in net.pins})


def _kinds_of(circuits: Circuits, root: dict[PinId, str], names: dict[str, list[str]]) -> tuple[set[str], set[str]]:
    """Which nets carry direct current, and which stay live with the main switch off."""
    dc, foreign = set(), set()
    for device in circuits.devices:
        pins = {"dc_supply": ("P", "M"), "drive": ("24", "0", "REF", "COM"), "soft_starter": ("S1", "S2")}
        dc |= {root[pin] for name in pins.get(device.kind_id, ()) if (pin := device.pin(name)) in root}
        if device.kind_id == "foreign_source":
            foreign |= {root[pin] for name in ("1", "2") if (pin := device.pin(name)) in root}
    dc |= {one for one, nodes in names.items() if any(node.startswith(("dc.", "limited.")) for node in nodes)}
    ahead = {one for one, nodes in names.items() if any(node.startswith("in.") for node in nodes)}
    shared = {one for one, nodes in names.items() if {"N", "PE"} & set(nodes)}
    excepted = _spread(circuits, root, ahead, "isolator") - ahead
    return _spread(circuits, root, dc - shared) - shared, (excepted | _spread(circuits, root, foreign)) - shared
