"""Nets to wires: n clamps of a net take n-1 wires, no clamp holds more than it may."""

from collections import Counter, defaultdict
from dataclasses import dataclass, replace
from itertools import pairwise

from riktig.core.catalogue import Clamp
from riktig.core.circuit import Circuits, Device, Names, Net, NetClass, Nets, Zone
from riktig.core.job import CircuitId, DeviceId, Enclosure, PinId, Practice
from riktig.core.plate import DoorPlan, Layout
from riktig.core.sizing import Sizing, circuit_of_net
from riktig.core.standards import Why, conductor_name, ferrule, twin_ferrule, wire_diameter
from riktig.core.wiring.batches import make_batches
from riktig.core.wiring.colours import conductor_colour
from riktig.core.wiring.model import Crowded, Stage, Wire, WireEnd, WireKey, Wiring, wire_key
from riktig.core.wiring.order_chain import best_path
from riktig.core.wiring.routes import Router

__all__ = ["DUCT_HEIGHT", "wire_all"]

DUCT_HEIGHT = 60.0
"""Inside height of the ducts, mm (the stock on the cut list)."""
TAP = "Up to 3 m from the block it needs no protection of its own (IEC 60204-1 7.2.8, from memory)."
SMALL_MM2 = 2.5
"""Power conductors of circuits that the Brief does not size, mm² (common practice, no source)."""
SMALL_AWG = 3.31
"""The same by the North American rulebook: 12 AWG, mm²."""
SURGE_MM2 = 6.0
ROUND_TO = 10.0
"""Lengths are rounded up to this, mm (chosen by us: what a person can mark on a bench rule)."""


@dataclass(frozen=True, slots=True)
class _Half:
    net: Net
    a: PinId
    b: PinId


def wire_all(
    circuits: Circuits,
    nets: Nets,
    names: Names,
    sizing: Sizing,
    layout: Layout,
    door: DoorPlan,
    enclosure: Enclosure,
    practice: Practice,
) -> Wiring:
    """All wires of the panel.

    Method:
        Each net is joined by the shortest chain through its clamps; a clamp for one conductor
        ends the chain. Protective conductors run each from a way of its own on the earth bar.
        Length = way through the ducts + an allowance at each end, rounded up.
    """
    devices = {device.id: device for device in circuits.devices}
    router = Router(layout, door, circuits.devices, enclosure, practice)
    halves: list[_Half] = []
    unrouted: list[PinId] = []
    clamps = (pin for net in nets.nets for pin in net.pins if _is_clamp(pin, devices))
    router.prepare(pin for pin in clamps if router.reaches(pin))
    for net in nets.nets:
        pins = [pin for pin in net.pins if _is_clamp(pin, devices)]
        unrouted += [pin for pin in pins if not router.reaches(pin)]
        pins = [pin for pin in pins if router.reaches(pin)]
        spread = _from_blocks(net, pins, circuits) if _feeds(net) else []
        if net.net_class is NetClass.EARTH:
            halves += _earths(net, pins, circuits, devices)
        elif spread:
            halves += spread
        elif bars := _bars_of(net, circuits):
            halves += _from_bars(net, pins, bars)
        elif any(devices[_owner(pin)[0]].kind_id == "tap_terminal" for pin in pins):
            halves += _tapped(net, pins, devices, router)
        elif len(pins) > 1:
            single = {pin for pin in pins if _holds(pin, devices, sizing) == 1}
            order = best_path(pins, single, router.length)
            halves += [_Half(net, a, b) for a, b in pairwise(order)]
    maker = _Maker(devices, names, sizing, practice, router)
    wires = [maker.wire(half) for half in halves]
    wires, crowded = _with_ends(wires, devices, sizing)
    ordered, batches = make_batches(wires, practice)
    return Wiring(ordered, batches, _fill(ordered, layout), crowded, tuple(unrouted))


def _owner(pin: PinId) -> tuple[DeviceId, str]:
    device, marking = pin.rsplit(":", 1)
    return DeviceId(device), marking


def _is_clamp(pin: PinId, devices: dict[DeviceId, Device]) -> bool:
    owner, marking = _owner(pin)
    device = devices[owner]
    clamp = device.kind.pin(marking).clamp
    return device.zone is not Zone.FIELD and clamp in (Clamp.POWER, Clamp.CONTROL)


def _holds(pin: PinId, devices: dict[DeviceId, Device], sizing: Sizing) -> int:
    owner, marking = _owner(pin)
    return sizing.parts[devices[owner].id].clamp(marking).conductors


def _earths(net: Net, pins: list[PinId], circuits: Circuits, devices: dict[DeviceId, Device]) -> list[_Half]:
    """Each point from a way of its own; a further bar hangs on the last way of the one before."""
    bars = [d for d in circuits.devices if d.kind_id == "earth_bar"]
    if not bars:
        return []
    points = [p for p in circuits.earths if p in pins]
    ways = [bar.pin(str(n)) for bar in bars for n in range(1, 8)]
    links = [_Half(net, a.pin("8"), b.pin("1")) for a, b in pairwise(bars)]
    if links:
        taken = {half.b for half in links}
        ways = [way for way in ways if way not in taken]
    spare = ways[-1:] * len(points)
    return links + [_Half(net, way, point) for way, point in zip(ways + spare, points, strict=False)]


def _tapped(net: Net, pins: list[PinId], devices: dict[DeviceId, Device], router: Router) -> list[_Half]:
    """What is tapped ahead of the main switch hangs on the terminal's own clamp for it, the feed on the other."""
    tap = next(p for p in pins if devices[_owner(p)[0]].kind_id == "tap_terminal" and _owner(p)[1] == "t")
    aside = [p for p in pins if p != tap and devices[_owner(p)[0]].kind_id == "rail_isolator"]
    feed = [p for p in pins if p != tap and p not in aside]
    chains = [best_path(feed, set(), router.length)] if len(feed) > 1 else []
    return [_Half(net, a, b) for chain in [*chains, [tap, *aside]] for a, b in pairwise(chain)]


def _bars_of(net: Net, circuits: Circuits) -> list[Device]:
    """The bars that spread a return: the neutral, or 0 V where relay commons are bridged."""
    kinds = {NetClass.NEUTRAL: "neutral_bar", NetClass.DC: "zero_bar"}
    wanted = kinds.get(net.net_class)
    return [d for d in circuits.devices if d.kind_id == wanted and d.pin("1") in net.pins] if wanted else []


def _from_bars(net: Net, pins: list[PinId], bars: list[Device]) -> list[_Half]:
    """Each circuit's return from a way of its own on the bar; what one circuit has more of goes on from there."""
    ways = [bar.pin(str(n)) for bar in bars for n in range(1, 8)]
    links = [_Half(net, a.pin("8"), b.pin("1")) for a, b in pairwise(bars)]
    taken = {half.b for half in links}
    ways = [way for way in ways if way not in taken]
    heads: dict[CircuitId, PinId] = {}
    halves: list[_Half] = []
    for pin in pins:
        if pin in ways or DeviceId(pin.rsplit(":", 1)[0]) in {bar.id for bar in bars}:
            continue
        circuit = _circuit(pin)
        if circuit in heads:
            halves.append(_Half(net, heads[circuit], pin))
        else:
            halves.append(_Half(net, ways[min(len(heads), len(ways) - 1)], pin))
        heads[circuit] = pin
    return links + halves


def _from_blocks(net: Net, pins: list[PinId], circuits: Circuits) -> list[_Half]:
    """Each breaker from a way of its own of the distribution blocks; none without blocks.

    The supply lands on the first block; a further block hangs on the thick outlet of the one before.
    """
    blocks = [d for d in circuits.devices if d.kind_id == "dist_block"]
    if not blocks:
        return []
    unit = next(u for u in blocks[0].kind.units if blocks[0].pin(u.name) in net.pins)
    inlets = [block.pin(unit.name) for block in blocks]
    ways = [block.pin(name) for block in blocks for name in unit.pins[2:]]
    onward = [block.pin(unit.pins[1]) for block in blocks]
    links = [_Half(net, a, b) for a, b in zip(onward, inlets[1:], strict=False)]
    ends = [pin for pin in pins if pin not in inlets and pin not in ways and pin not in onward]
    source = [pin for pin in ends if pin.startswith(str(blocks[0].circuit))]
    fed = [pin for pin in ends if pin not in source]
    halves = [_Half(net, pin, inlets[0]) for pin in source]
    over = ways[-1:] * max(len(fed) - len(ways), 0)
    return halves + links + [_Half(net, way, pin) for way, pin in zip(ways + over, fed, strict=False)]


class _Maker:
    def __init__(
        self, devices: dict[DeviceId, Device], names: Names, sizing: Sizing, practice: Practice, router: Router
    ) -> None:
        self._devices, self._names, self._sizing = devices, names, sizing
        self._practice, self._router = practice, router
        self._least = SMALL_AWG if practice.rulebook.north_american else SMALL_MM2

    def wire(self, half: _Half) -> Wire:
        """A wire with its length and looks; fittings come when all wires are known."""
        net = half.net
        route = self._router.route(half.a, half.b)
        raw = route.length + 2 * self._practice.end_allowance
        length = -(-raw // ROUND_TO) * ROUND_TO
        mm2, why = self._section(half)
        stage = self._stage(half, route.via_door)
        circuit = circuit_of_net(net) if stage is not Stage.EARTH else _circuit(half.b)
        return Wire(
            wire_key(half.a, half.b),
            net.id,
            self._names.number[net.id],
            self._end(half.a),
            self._end(half.b),
            mm2,
            conductor_colour(net, self._practice),
            length,
            length,
            stage,
            circuit,
            route.ducts,
            route.points,
            route.via_door,
            why,
        )

    def label(self, pin: PinId) -> str:
        """How a pin is called on the panel: “K1:13”, “X1:L1”."""
        owner, marking = _owner(pin)
        device = self._devices[owner]
        return f"{self._names.tag[owner]}:{device.mark if device.strip else marking}"

    def _end(self, pin: PinId) -> WireEnd:
        return WireEnd(pin, self.label(pin), "", 0.0, 0.0)

    def _section(self, half: _Half) -> tuple[float, Why]:
        sizing, net = self._sizing, half.net
        circuit = circuit_of_net(net)
        load = sizing.load_of(circuit)
        if net.net_class is NetClass.EARTH:
            return self._earth_section(half.b)
        if net.net_class is NetClass.POWER:
            block = self._devices[_owner(half.a)[0]].kind_id == "dist_block"
            tap = sizing.load_of(_circuit(half.b)) if block else None
            if tap:
                return tap.section.mm2, replace(tap.section.why, reason=f"{tap.section.why.reason} {TAP}")
            section = load.section if load and not _feeds(net) else sizing.feeder
            small = self._small(half, load is None)
            if small:
                return small
            if load and load.proposal.legs and not any(pin.startswith(f"{circuit}.F:") for pin in net.pins):
                section = load.proposal.legs if not _feeds(net) else section
            return section.mm2, section.why
        if net.net_class is NetClass.NEUTRAL:
            return self._neutral_section(half)
        if net.net_class is NetClass.EXCEPTED and load and net.line >= 0:
            return load.section.mm2, load.section.why
        if load:
            return load.control.mm2, load.control.why
        control = sizing.loads[0].control if sizing.loads else sizing.feeder
        return control.mm2, control.why

    def _neutral_section(self, half: _Half) -> tuple[float, Why]:
        """The neutral of a load is as thick as its line; that of control as thick as control; the bar's, the feeder."""
        sizing = self._sizing
        if self._devices[_owner(half.b)[0]].circuit == self._devices[_owner(half.a)[0]].circuit and not sizing.load_of(
            _circuit(half.b)
        ):
            of_bar = "neutral_bar" in (self._devices[_owner(pin)[0]].kind_id for pin in (half.a, half.b))
            if of_bar:
                return sizing.feeder.mm2, sizing.feeder.why
        load = sizing.load_of(_circuit(half.b))
        ends = [self._devices[_owner(pin)[0]] for pin in (half.a, half.b)]
        way = any(d.kind_id == "neutral_terminal" and d.circuit == _circuit(half.b) for d in ends)
        if load and way:
            return load.section.mm2, load.section.why
        control = load.control if load else sizing.loads[0].control if sizing.loads else sizing.feeder
        return control.mm2, control.why

    def _small(self, half: _Half, unsized: bool) -> tuple[float, Why] | None:
        """Power conductors of a circuit that the Brief does not list: a tap, or behind a small fuse."""
        devices = [self._devices[_owner(pin)[0]] for pin in (half.a, half.b)]
        mine = [d for d in devices if d.circuit != devices[0].circuit or self._sizing.load_of(d.circuit) is None]
        block = devices[0].kind_id == "dist_block"
        other = devices[1]
        ahead = any(n.startswith("in.") for n in half.net.nodes)
        own = unsized and not _feeds(half.net) and not ahead
        if ahead and devices[0].kind_id == "tap_terminal" and half.a.endswith(":t"):
            load = self._sizing.load_of(other.circuit)
            why = Why("Why this size", f"A tap ahead of the main switch. {TAP}", (), "common practice, no source")
            return (load.section.mm2 if load else self._least), why
        if (block and other.kind_id != "dist_block" and other in mine and not self._is_incomer(other)) or own:
            reason = "A small circuit behind its own fuse or breaker." + (f" {TAP}" if block else "")
            return self._least, Why(f"Why {conductor_name(self._least)}", reason, (), "common practice, no source")
        return None

    def _is_incomer(self, device: Device) -> bool:
        return device.kind.family == "isolator" or device.kind_id == "terminal"

    def _earth_section(self, point: PinId) -> tuple[float, Why]:
        owner, _ = _owner(point)
        load = self._sizing.load_of(self._devices[owner].circuit)
        if owner.endswith("E.door"):
            mm2, of = self._sizing.door_bond_mm2, "the supply conductor"
            source = "IEC 61439-1 Table 3, from memory"
        elif load:
            mm2, of = load.pe_mm2, "the motor's phase conductor"
            source = "IEC 60204-1:2016 Table 1, from memory"
        elif self._devices[owner].kind_id == "surge":
            mm2, of = SURGE_MM2, "the current of a surge"
            source = "IEC 60364-5-53 534.4.10 (type 2), from memory: fairly sure"
        elif self._devices[owner].circuit != "c0":
            mm2, of = self._least, "the small circuit it belongs to"
            source = "common practice, no source"
        else:
            mm2, of = self._sizing.feeder_pe_mm2, "the supply conductor"
            source = "IEC 60204-1:2016 Table 1, from memory"
        reason = f"A protective conductor is sized by {of}."
        return mm2, Why(f"Why {conductor_name(mm2)}", reason, (), source)

    def _stage(self, half: _Half, via_door: bool) -> Stage:
        if half.net.net_class is NetClass.EARTH:
            return Stage.EARTH
        if via_door:
            return Stage.DOOR
        if half.net.net_class is NetClass.NEUTRAL:
            return Stage.NEUTRAL
        if half.net.net_class is NetClass.CONTROL:
            return Stage.CONTROL
        feed = _feeds(half.net) or self._sizing.load_of(circuit_of_net(half.net)) is None
        return Stage.FEED if feed else Stage.MOTOR


def _feeds(net: Net) -> bool:
    return any(node.startswith("main.") for node in net.nodes)


def _circuit(pin: PinId) -> CircuitId:
    return CircuitId(pin.split(".", 1)[0])


def _with_ends(
    wires: list[Wire], devices: dict[DeviceId, Device], sizing: Sizing
) -> tuple[list[Wire], tuple[Crowded, ...]]:
    """Fittings by what shares a clamp, and the clamps that hold more than they may."""
    at: dict[PinId, list[Wire]] = defaultdict(list)
    labels: dict[PinId, str] = {}
    for wire in wires:
        for end in (wire.start, wire.end):
            at[end.pin].append(wire)
            labels[end.pin] = end.label
    crowded: list[Crowded] = []
    for pin, here in at.items():
        owner, marking = _owner(pin)
        clamp = sizing.parts[owner].clamp(marking)
        if len(here) > clamp.conductors:
            text = f"{len(here)} conductors where {clamp.conductors} may land"
            crowded.append(Crowded(pin, labels[pin], text))
        if len({wire.mm2 for wire in here}) > 1:
            crowded.append(Crowded(pin, labels[pin], "two sections share one clamp"))
        for mm2, _ in Counter(wire.mm2 for wire in here).items():
            if not clamp.min_mm2 <= mm2 <= clamp.max_mm2:
                text = f"{conductor_name(mm2)} in a clamp for {clamp.min_mm2:g} to {clamp.max_mm2:g} mm²"
                crowded.append(Crowded(pin, labels[pin], text))

    def fitted(end: WireEnd, wire: Wire) -> WireEnd:
        owner, marking = _owner(end.pin)
        part = sizing.parts[owner]
        clamp = part.clamp(marking)
        if part.kind.id == "stud":
            return replace(end, fitting=f"ring {wire.mm2:g} / {part.screw}", strip=8.0, torque_n_m=clamp.torque_n_m)
        others = [one for one in at[end.pin] if one.key != wire.key and one.mm2 == wire.mm2]
        twin = twin_ferrule(wire.mm2) if others else None
        chosen = twin or ferrule(wire.mm2)
        shared: WireKey | None = others[0].key if twin else None
        fitting = f"ferrule {chosen.name}" if chosen else f"pin lug {wire.mm2:g}"
        strip = chosen.strip if chosen else clamp.strip
        return replace(end, fitting=fitting, strip=strip, torque_n_m=clamp.torque_n_m, shared=shared)

    done = [replace(wire, start=fitted(wire.start, wire), end=fitted(wire.end, wire)) for wire in wires]
    return done, tuple(crowded)


def _fill(wires: tuple[Wire, ...], layout: Layout) -> dict[str, float]:
    """Share of each duct that the wires through it take, counted as squares of their diameter.

    A wire counts for the whole duct it runs in, so the figure is that of the fullest place.
    """
    taken = dict.fromkeys((duct.name for duct in layout.ducts), 0.0)
    for wire in wires:
        for name in wire.ducts:
            taken[name] += wire_diameter(wire.mm2).value ** 2
    width = {duct.name: duct.rect.width if duct.upright else duct.rect.height for duct in layout.ducts}
    return {name: round(area / (width[name] * DUCT_HEIGHT), 4) for name, area in taken.items()}
