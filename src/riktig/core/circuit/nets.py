"""Nets: all pins at one potential. Union-find over pins and the nodes of the rungs."""

from collections import defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from enum import Enum

from riktig.core.catalogue import Behaviour, Can, Clamp, kind
from riktig.core.circuit.model import Band, Branch, Circuits, Element, Landing, Parallel, Rung, Series
from riktig.core.job import DeviceId, PinRef, circuit_of
from riktig.core.plan import Memory

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


@dataclass(frozen=True, slots=True)
class Nets:
    """All nets in the order they are met from the supply, and the net of each pin."""

    nets: tuple[Net, ...]
    of_pin: dict[PinRef, Net]

    def net(self, net_id: PinRef) -> Net | None:
        """The net with that id, which is that of its first pin; None where there is none."""
        found = self.of_pin.get(net_id)
        return found if found and found.id == net_id else None


class _Union:
    def __init__(self) -> None:
        self._parent: dict[PinOrNode, PinOrNode] = {}

    def find(self, item: PinOrNode) -> PinOrNode:
        parent = self._parent.setdefault(item, item)
        while parent != self._parent[parent]:
            self._parent[item] = parent = self._parent[self._parent[parent]]
        return parent

    def join(self, a: PinOrNode, b: PinOrNode) -> None:
        self._parent[self.find(a)] = self.find(b)

    def join_all(self, group: Iterable[PinOrNode]) -> None:
        """Joins all of a group, whose first stays looked up."""
        parent, root = self._parent, None
        for item in group:
            own = self.find(item) if item in parent else item
            if root is None:
                root = own
                parent.setdefault(root, root)
            elif own != root:
                parent[own] = root
                parent.setdefault(item, root)

    def items(self) -> Iterable[PinOrNode]:
        return tuple(self._parent)


@dataclass(frozen=True, slots=True)
class _Walked:
    """One rung walked from end to end: groups of one potential, pins in the order met, phases of power pins."""

    groups: tuple[tuple[PinOrNode, ...], ...]
    order: tuple[PinRef, ...]
    power: tuple[tuple[PinRef, int], ...]


def find_nets(circuits: Circuits, memory: Memory | None = None) -> Nets:
    """All nets of the circuits.

    Method:
        Every rung is walked once a line; a device element parts two nodes, a joint (terminal,
        bar) does not. O(pins). A rung that did not change is not walked again.

    Returns:
        Nets in the order a reader meets them from the supply on, same circuits same order.
    """
    memory = memory or Memory()
    return memory.recent(Nets, "nets").get((circuits,), lambda: _find(circuits, memory))


def _find(circuits: Circuits, memory: Memory) -> Nets:
    union = _Union()
    order: list[PinRef] = []
    kinds = {device.id: device.kind_id for device in circuits.devices}
    power: dict[PinRef, int] = {}
    for walked in _all_walked(circuits, kinds, memory):
        for group in walked.groups:
            union.join_all(group)
        order += walked.order
        power.update(walked.power)
    for device in circuits.devices:
        for unit, pins in device.unit_pins:
            if unit.behaviour is Behaviour.JOINT:
                for pin in pins[1:]:
                    union.join(pins[0], pin)
    for pin in circuits.earths:
        union.join(pin, "node:PE")
        order.append(pin)
    return _gathered(circuits, union, order, power)


def drawn_joints(circuits: Circuits) -> Iterator[tuple[PinOrNode, ...]]:
    """The pins and named nodes (“node:N”) that one path joins at one point, for every point of every path.

    Terminals part two points here: their pins are in different groups, as they are drawn.
    """
    kinds = {device.id: device.kind_id for device in circuits.devices}
    for walked in _all_walked(circuits, kinds, Memory()):
        yield from walked.groups


def _all_walked(circuits: Circuits, kinds: dict[DeviceId, str], memory: Memory) -> Iterator[_Walked]:
    kept = memory.memo(_Walked, "rung")
    for rung in circuits.rungs:
        crossed = tuple(kinds[did] for did in _met(rung.path))
        yield kept.get(rung.id, (rung, crossed), lambda r=rung: _walk(r, kinds))  # type: ignore[misc]


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


def _walk(rung: Rung, kinds: dict[DeviceId, str]) -> _Walked:
    """What a rung joins, with no knowledge of other rungs: nodes between have no name outside."""
    union = _Union()
    fresh = iter(range(10**9))

    def between(lefts: list[str]) -> list[str]:
        return [f"node:~{next(fresh)}" for _ in lefts]

    def walk(branch: Branch, lefts: list[str], rights: list[str], met: list[list[tuple[PinRef, int]]]) -> None:
        match branch:
            case Element(poles=poles):
                for line, pole in enumerate(poles):
                    pins = kind(kinds[pole.device]).unit(pole.unit).pins
                    first, last = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
                    out = branch.leads_to(line)
                    for name, node, on in ((first, lefts[line], line), (last, rights[out], out)):
                        pin = PinRef(pole.device, name)
                        union.join(pin, node)
                        met[line].append((pin, on))
            case Landing(device=device, pins=pins):
                for line, name in enumerate(pins):
                    pin = PinRef(device, name)
                    union.join(pin, lefts[line])
                    met[line].append((pin, line))
                for left, right in zip(lefts, rights, strict=True):
                    union.join(left, right)
            case Series(parts):
                if not parts:
                    for left, right in zip(lefts, rights, strict=True):
                        union.join(left, right)
                nodes = [lefts, *(between(lefts) for _ in parts[1:]), rights]
                for part, a, b in zip(parts, nodes, nodes[1:], strict=False):
                    walk(part, a, b, met)
            case Parallel(parts):
                for part in parts:
                    walk(part, lefts, rights, met)

    lines = _lines(rung.path)
    count = max(len(rung.start), len(rung.end), lines)
    begin = [f"node:{rung.start[n]}" if rung.start else f"node:~{next(fresh)}" for n in range(count)]
    finish = [f"node:{rung.end[n]}" if rung.end else f"node:~{next(fresh)}" for n in range(count)]
    met: list[list[tuple[PinRef, int]]] = [[] for _ in range(count)]
    walk(rung.path, begin, finish, met)
    groups: dict[PinOrNode, list[PinOrNode]] = defaultdict(list)
    for item in union.items():
        group = groups[union.find(item)]
        if isinstance(item, PinRef) or not item.startswith("node:~"):
            group.append(item)
    power: tuple[tuple[PinRef, int], ...] = ()
    if rung.band in (Band.INCOMING, Band.POWER):
        power = tuple((pin, _phase(rung, on, lines)) for line in met for pin, on in line)
    order = tuple(pin for line in met for pin, _ in line)
    return _Walked(tuple(tuple(group) for group in groups.values() if group), order, power)


def _phase(rung: Rung, on: int, lines: int) -> int:
    """Which phase a line of a power path carries: its place among three, or what its start names."""
    if lines == 3:
        return on
    node = rung.start[on] if on < len(rung.start) else ""
    return int(node[-1]) - 1 if node[-2:-1] == "L" and node[-1].isdecimal() else -1


_PASSES = {Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER}


def _reach(joined: dict[PinOrNode, set[PinOrNode]], seeds: set[PinOrNode]) -> set[PinOrNode]:
    """The nets that ``seeds`` reach along ``joined``."""
    seen, todo = set(seeds), list(seeds)
    while todo:
        fresh = joined.get(todo.pop(), set()) - seen
        seen |= fresh
        todo += fresh
    return seen


def _switched(
    circuits: Circuits, root: dict[PinRef, PinOrNode], stop: Can | None = None
) -> dict[PinOrNode, set[PinOrNode]]:
    """Which nets touch each other through anything that switches, other than what can do ``stop``."""
    joined: dict[PinOrNode, set[PinOrNode]] = defaultdict(set)
    for device in circuits.devices:
        if stop and device.kind.can(stop):
            continue
        for unit, pins in device.unit_pins:
            if unit.behaviour in _PASSES:
                a, b = root.get(pins[0]), root.get(pins[-1])
                if a and b:
                    joined[a].add(b)
                    joined[b].add(a)
    return joined


def _lines(branch: Branch) -> int:
    match branch:
        case Element(poles=poles):
            return len(poles)
        case Landing(pins=pins):
            return len(pins)
        case Series(parts) | Parallel(parts):
            return _lines(parts[0]) if parts else 1


def _gathered(circuits: Circuits, union: _Union, order: list[PinRef], power: dict[PinRef, int]) -> Nets:
    groups: dict[PinOrNode, list[PinRef]] = defaultdict(list)
    clamps: dict[PinRef, Clamp] = {}
    touched = set(union.items())
    for device in circuits.devices:
        for pid, clamp in ((device.pins[pin.name], pin.clamp) for pin in device.kind.pins):
            clamps[pid] = clamp
            if pid in touched:
                groups[union.find(pid)].append(pid)
    names: dict[PinOrNode, list[str]] = defaultdict(list)
    for item in touched:
        if not isinstance(item, PinRef) and "~" not in item:
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


def _kinds_of(
    circuits: Circuits, root: dict[PinRef, PinOrNode], names: dict[PinOrNode, list[str]]
) -> tuple[set[PinOrNode], set[PinOrNode]]:
    """Which nets carry direct current, and which stay live with the main switch off."""
    dc: set[PinOrNode] = set()
    foreign: set[PinOrNode] = set()
    for device in circuits.devices:
        dc |= {root[pin] for name in device.kind.dc_pins if (pin := device.pin(name)) in root}
        if device.kind.can(Can.FOREIGN_SUPPLY):
            foreign |= {root[pin] for name in ("1", "2") if (pin := device.pin(name)) in root}
    dc |= {one for one, nodes in names.items() if any(node.startswith(("dc.", "limited.")) for node in nodes)}
    ahead = {one for one, nodes in names.items() if any(node.startswith("in.") for node in nodes)}
    shared = {one for one, nodes in names.items() if {"N", "PE"} & set(nodes)}
    own = {device.circuit for device in circuits.devices if device.kind.can(Can.SUPPLY)}
    tapped = {
        one for pin, one in root.items() if one in ahead and circuit_of(pin.device) not in own
    }  # a job with nothing ahead of its main switch need not look
    excepted = _reach(_switched(circuits, root, Can.MAIN_SWITCH), ahead) - ahead if tapped else set()
    if not (dc - shared or foreign):
        return set(), excepted - shared
    joined = _switched(circuits, root)
    return _reach(joined, dc - shared) - shared, (excepted | _reach(joined, foreign)) - shared
