"""Each wire against what protects it: how much can flow in it before something opens, and what it may carry."""

import heapq
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import InitVar, dataclass, field
from math import sqrt

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.ids import role_of
from riktig.core.job import CircuitId, DeviceId, PinRef, Supply
from riktig.core.rules.model import Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Circuits, Device, NetClass, Nets, Zone
from riktig.core.sizing import Sizing
from riktig.core.standards import rule
from riktig.core.wiring import Wire, Wiring

__all__ = ["TAP_MM", "GuardedWires", "Limit"]

TAP_MM = 3000.0
"""A conductor so long may be thinner than what protects it asks, when what it leads to limits its current: IEC 60204-1
7.2.8, from memory."""
SHORT_SHARE = rule("short circuit share").value
"""Behind an overload relay a conductor is protected against a short circuit by a device of up to so many times what it
carries."""
LEADS_ON = {Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER}
TAKES = {Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD, Behaviour.WINDING}
UNKNOWN = float("inf")
Takers = dict[DeviceId, tuple[float, bool]]
"""What takes current behind a wire: by device how much, A, and whether it is a breaker or fuse."""


@dataclass(frozen=True, slots=True)
class Limit:
    """What bounds the current in a wire, A: the device ahead of it, with overload relays, and all that it leads to."""

    ahead: float
    with_overload: float
    behind: float
    """The sum of what stands behind it; infinite where something there takes what it likes."""
    largest: float
    """The largest of what stands behind it."""
    all_guards: bool
    """Whether all that stands behind it are breakers and fuses."""

    def verdict(self, carries: float, length: float) -> Verdict:
        """Whether a conductor that carries so many A, so many mm long, is protected.

        A short tap that carries each of the breakers behind it, but not all at once, is for a person: the load decides.
        """
        enough = carries * 1.0001
        short = self.ahead <= SHORT_SHARE * carries
        tap = self.all_guards and length <= TAP_MM
        if enough >= self.ahead or (enough >= self.with_overload and short):
            return Verdict.MEETS
        if self.behind and enough >= self.behind and (tap or short):
            return Verdict.MEETS
        if not self.behind:  # what it leads to draws nothing that is known, like a monitor: overload is no question
            return Verdict.MEETS if short else Verdict.JUDGE
        return Verdict.JUDGE if tap and enough >= self.largest else Verdict.FAILS


@dataclass(slots=True)
class _Edge:
    device: Device
    unit: Unit
    net: PinRef
    """The net it leads to."""


@dataclass(slots=True)
class GuardedWires:
    """The nets of a panel with what is ahead of each, and its wires as trees from where the current comes in.

    Where wires run is asked each time: a part that moves changes wires and nothing of what is kept here.
    """

    view: InitVar[View]
    _nets: Nets = field(init=False)
    _circuits: Circuits = field(init=False)
    _sizing: Sizing = field(init=False)
    _supply: Supply = field(init=False)
    _transformer_v: float = field(init=False)
    _opens: dict[tuple[DeviceId, str, bool], float] = field(default_factory=dict)
    _watched: dict[CircuitId, bool] = field(default_factory=dict)
    _consumers: dict[PinRef, Takers] = field(default_factory=dict)
    _edges: dict[PinRef, list[_Edge]] = field(default_factory=lambda: defaultdict(list))
    _ahead: dict[PinRef, float] = field(default_factory=dict)
    _overload: dict[PinRef, float] = field(default_factory=dict)
    _from: dict[PinRef, Device] = field(default_factory=dict)
    _nearer: dict[PinRef, PinRef | None] = field(default_factory=dict)
    """The net ahead of each on its widest way; None where the source is on it."""
    _line: dict[PinRef, int] = field(default_factory=dict)
    _depth: dict[PinRef, int] = field(default_factory=dict)
    """How many devices the widest way to a net goes through: what lies behind is deeper."""
    _of_circuit: dict[CircuitId, list[Device]] = field(default_factory=lambda: defaultdict(list))
    _takers_on: dict[PinRef, list[Device]] = field(default_factory=lambda: defaultdict(list))
    """By net what draws current there: coils, lamps, loads and windings."""

    def __post_init__(self, view: View) -> None:
        self._nets, self._circuits = view.nets, view.circuits
        self._sizing, self._supply, self._transformer_v = view.sizing, view.supply, view.practice.transformer_v
        of_pin = self._nets.of_pin
        for device in self._circuits.devices:
            self._of_circuit[device.circuit].append(device)
            taking = [pin for unit in device.kind.units if unit.behaviour in TAKES for pin in unit.pins]
            for net_id in dict.fromkeys(net.id for pin in taking if (net := of_pin.get(device.pin(pin)))):
                self._takers_on[net_id].append(device)
            for unit in device.kind.units:
                if unit.behaviour in LEADS_ON and unit.symbol != "link":
                    ends = [of_pin.get(device.pin(pin)) for pin in (unit.pins[0], unit.pins[-1])]
                    if ends[0] and ends[1] and ends[0].id != ends[1].id:
                        self._edges[ends[0].id].append(_Edge(device, unit, ends[1].id))
                        self._edges[ends[1].id].append(_Edge(device, unit, ends[0].id))
        self._ahead = self._widest(overloads=False)
        self._overload = self._widest(overloads=True)

    def limits(self, wiring: Wiring) -> Iterable[tuple[Wire, Limit]]:
        """Each wire of a live net that the supply, a transformer, a 24 V supply or a supply from elsewhere feeds.

        Not looked at: neutrals and returns, what a supply feeds of which nobody has said what protects it, and wires
        that no way leads to from where the current comes in.
        """
        by_net: dict[PinRef, list[Wire]] = defaultdict(list)
        for wire in wiring.wires:
            by_net[wire.net].append(wire)
        for net in self._nets.nets:
            if net.net_class in (NetClass.EARTH, NetClass.NEUTRAL) or net.id not in self._ahead:
                continue
            yield from self._of_net(net.id, by_net[net.id], wiring)

    def ahead_of(self, net: PinRef) -> float:
        """The most that can flow into a net before something opens, A; 0 for one that nothing feeds."""
        return min(self._ahead.get(net, 0.0), self._overload.get(net, UNKNOWN))

    def guards_of(self, net: PinRef) -> tuple[tuple[DeviceId, float], ...]:
        """Breakers and fuses on the widest way to a net with what they open at, A; the one nearest the source first."""
        guards: list[tuple[DeviceId, float]] = []
        at: PinRef | None = net
        while at is not None and at in self._from:
            device, nearer = self._from[at], self._nearer[at]
            if device.kind.is_protective:
                opens = min(self._opens_at(device, unit, overloads=False) for unit in device.kind.units)
                guards.append((device.id, opens))
            at = nearer
        return tuple(reversed(guards))

    def line_of(self, net: PinRef) -> int:
        """The line of the supply that feeds a net, 0 to 2; -1 where it is not one of them."""
        return self._line.get(net, -1)

    def _widest(self, *, overloads: bool) -> dict[PinRef, float]:
        """By net, the most that can flow in before something opens: over every way the least, of all ways the most."""
        most: dict[PinRef, float] = {}
        queue: list[tuple[float, int, PinRef]] = []
        count = 0

        def meet(net: PinRef, amps: float, by: Device, nearer: PinRef | None, line: int) -> None:
            nonlocal count
            if amps > most.get(net, 0.0):
                most[net] = amps
                if not overloads:
                    self._from[net], self._nearer[net], self._line[net] = by, nearer, line
                    self._depth[net] = self._depth[nearer] + 1 if nearer else 0
                count += 1
                heapq.heappush(queue, (-amps, count, net))

        windings = self._windings()
        for device, net, amps, line in self._sources():
            meet(net, amps, device, None, line)
        while queue:
            amps, _, net = heapq.heappop(queue)
            if -amps < most[net]:
                continue
            for edge in self._edges[net]:
                through = min(-amps, self._opens_at(edge.device, edge.unit, overloads=overloads))
                meet(edge.net, through, edge.device, net, self._line.get(net, -1))
            for transformer, behind, ratio in windings[net]:
                meet(behind, -amps * ratio, transformer, net, -1)
        return most

    def _windings(self) -> dict[PinRef, list[tuple[Device, PinRef, float]]]:
        """By the net of a primary: the transformer, the net of its live side, and by how much its current is larger."""
        of_pin, supply = self._nets.of_pin, self._supply
        second_v = self._transformer_v
        windings: dict[PinRef, list[tuple[Device, PinRef, float]]] = defaultdict(list)
        for device in self._circuits.devices:
            if not device.kind.can(Can.TRANSFORMS):
                continue
            first, back = (of_pin.get(device.pin(pin)) for pin in ("1", "3"))
            to_neutral = back is not None and back.net_class is NetClass.NEUTRAL
            first_v = supply.voltage_to_neutral_v if to_neutral else supply.voltage_v
            for unit in device.kind.units:
                live = of_pin.get(device.pin(unit.pins[0])) if unit.behaviour is Behaviour.SOURCE else None
                if first and live:
                    windings[first.id].append((device, live.id, first_v / second_v))
        return windings

    def _sources(self) -> Iterable[tuple[Device, PinRef, float, int]]:
        """Where current comes from, how much before something outside or inside the source opens, and by which line."""
        of_pin = self._nets.of_pin
        for device in self._circuits.devices:
            pins: tuple[tuple[str, float], ...] = ()
            if device.kind.can(Can.SUPPLY):
                pins = tuple((name, self._supply.upstream_a or UNKNOWN) for name in ("L1", "L2", "L3"))
            elif device.kind.can(Can.MAKES_DC):
                pins = (("P", self._sizing.parts[device.id].rated_a or UNKNOWN),)  # it limits its own current
            elif device.kind.can(Can.FOREIGN_SUPPLY) and device.protected_a:
                pins = (("1", device.protected_a),)
            for line, (name, amps) in enumerate(pins):
                net = of_pin.get(device.pin(name))
                if net:
                    yield device, net.id, amps, line if device.kind.can(Can.SUPPLY) else -1

    def _opens_at(self, device: Device, unit: Unit, *, overloads: bool) -> float:
        """At which current a device opens in the long run, A; infinite for one that does not."""
        key = (device.id, unit.name, overloads)
        if key not in self._opens:
            self._opens[key] = self._opening_current(device, unit, overloads=overloads)
        return self._opens[key]

    def _opening_current(self, device: Device, unit: Unit, *, overloads: bool) -> float:
        part, size = self._sizing.parts[device.id], self._sizing.load_of(device.circuit)
        can = device.kind.can
        watches = unit.behaviour is Behaviour.HEATER or (not can(Can.OVERLOAD) and can(Can.SET_TO_MOTOR))
        if overloads and (watches or can(Can.ELECTRONIC_STARTER)):
            return size.setting_a or size.current.value if size else part.max_a or UNKNOWN
        if unit.behaviour is not Behaviour.POLE or not device.kind.is_protective:
            return UNKNOWN
        if size and can(Can.FRAME) and role_of(device.id) == "F":
            return size.proposal.amount("breaker") or UNKNOWN
        return part.rated_a or part.max_a or UNKNOWN

    def _of_net(self, net: PinRef, wires: list[Wire], wiring: Wiring) -> Iterable[tuple[Wire, Limit]]:
        """The wires of one net as a tree: each with what lies behind it."""
        near: dict[object, list[tuple[object, Wire]]] = defaultdict(list)
        pins: dict[object, list[PinRef]] = defaultdict(list)
        for wire in wires:
            a, b = self.place(wire.start.pin, wiring), self.place(wire.end.pin, wiring)
            near[a].append((b, wire))
            near[b].append((a, wire))
            pins[a].append(wire.start.pin)
            pins[b].append(wire.end.pin)
        for pin in self._nets.of_pin[net].pins:
            if pin in wiring.joined and self.place(pin, wiring) in pins:
                pins[self.place(pin, wiring)].append(pin)
        source = self._from[net]
        roots = [place for place, at in pins.items() if any(self._is_source(pin, source) for pin in at)]
        seen: set[object] = set(roots)
        order: list[tuple[object, object, Wire]] = []
        for place in roots:
            stack = [place]
            while stack:
                nearer = stack.pop()
                for other, wire in near[nearer]:
                    if other not in seen:
                        seen.add(other)
                        order.append((nearer, other, wire))
                        stack.append(other)
        behind_place = {place: self._behind(at, net, source) for place, at in pins.items()}
        overload = self._overload.get(net, UNKNOWN) * self._share_on(net)
        for nearer, other, wire in reversed(order):
            takers = behind_place[other]
            amps = self._currents(takers)
            guards = bool(takers) and all(guard for _, guard in takers.values())
            yield wire, Limit(self._ahead[net], overload, sum(amps), max(amps, default=0.0), guards)
            behind_place[nearer] = behind_place[nearer] | takers

    def place(self, pin: PinRef, wiring: Wiring) -> object:
        """A pin, or the bar, block, comb or rail that joins it to others of its net: one place for all of them."""
        if pin in wiring.joined:
            return wiring.joined[pin]
        device = self._circuits.by_id[pin.device]
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.JOINT and pin.marking in unit.pins:
                return (device.id, unit.name)
        return pin

    def _is_source(self, pin: PinRef, source: Device) -> bool:
        """Whether current comes in at a pin: of what feeds the net, or of the terminal that the supply lands on."""
        if source.kind.can(Can.SUPPLY) or source.kind.can(Can.FOREIGN_SUPPLY):
            device = self._circuits.by_id[pin.device]
            return bool(device.strip) and device.circuit == source.circuit
        return pin.device == source.id

    def _behind(self, at: list[PinRef], net: PinRef, source: Device) -> Takers:
        """What takes current at some pins."""
        takers: Takers = {}
        for device_id in dict.fromkeys(pin.device for pin in at):
            device = self._circuits.by_id[device_id]
            if device.id == source.id:
                continue
            markings = {pin.marking for pin in at if pin.device == device_id}
            for unit in device.kind.units:
                if markings & set(unit.pins) and unit.behaviour is not Behaviour.JOINT:
                    takers |= self._taken(device, unit, net)
            if device.strip and not device.kind.can(Can.SUPPLY):
                drawn = self._takers_on[net]
                in_field = (d for d in drawn if d.zone is Zone.FIELD and d.circuit == device.circuit)
                takers |= {d.id: (self._draws(d), False) for d in in_field}
        return takers

    def _taken(self, device: Device, unit: Unit, net: PinRef) -> Takers:
        """What a unit leads to, as far as a breaker, a fuse or an overload relay; a load takes what it likes."""
        if unit.behaviour in TAKES:
            return {device.id: (UNKNOWN, False)}
        if unit.behaviour not in LEADS_ON:
            return {}
        amps = self._opens_at(device, unit, overloads=True)
        if amps < UNKNOWN:
            size = self._sizing.load_of(device.circuit)
            if size and role_of(device.id) == "F" and self._is_watched(device):
                amps = min(amps, max(size.current.value, size.setting_a))  # the overload relay behind it opens first
            return {device.id: (amps, device.kind.is_protective)}
        takers: Takers = {}
        for edge in self._edges[net]:
            if edge.device.id != device.id or edge.unit.name != unit.name:
                continue
            if self._depth.get(edge.net, 0) <= self._depth[net]:
                continue  # back to where it comes from
            for further in self._edges[edge.net]:
                if further.device.id != device.id:
                    takers |= self._taken(further.device, further.unit, edge.net)
            takers |= self._consumers_on(edge.net)
        return takers

    def _draws(self, device: Device) -> float:
        """What a load in the field can take in the long run, A: a motor what its overload relay lets it."""
        size = self._sizing.load_of(device.circuit)
        if size is None or not device.kind.is_motor or not self._is_watched(device):
            return UNKNOWN
        return (size.setting_a or size.current.value) * self._share(device)

    def _currents(self, takers: Takers) -> list[float]:
        """What takes current, A each; the two ends of windings in triangle draw √3 of one, and not two of them."""
        amps_of = dict(takers)
        for device_id in takers:
            motor = self._circuits.by_id[device_id]
            if not motor.kind.can(Can.SIX_ENDS):
                continue
            relays = [d for d in takers if self._circuits.by_id[d].circuit == motor.circuit and d != device_id]
            if relays:
                amps_of[device_id] = (amps_of[device_id][0] * (sqrt(3) - 1), False)
        return [amps for amps, _ in amps_of.values()]

    def _is_watched(self, device: Device) -> bool:
        """Whether the circuit of a device has something that watches its motor's current."""
        if device.circuit not in self._watched:
            other_kinds = (other.kind for other in self._of_circuit[device.circuit])
            watches = any(kind.can(Can.SET_TO_MOTOR) or kind.can(Can.ELECTRONIC_STARTER) for kind in other_kinds)
            self._watched[device.circuit] = watches
        return self._watched[device.circuit]

    def _share(self, motor: Device) -> float:
        """What a winding takes of what its relay is set to: 1/√3 where that stands ahead of the triangle."""
        if not motor.kind.can(Can.SIX_ENDS):
            return 1.0
        of_pin = self._nets.of_pin
        nets = {of_pin[pin].id for pin in motor.pins.values() if pin in of_pin}
        relays = (other for other in self._of_circuit[motor.circuit] if other.kind.can(Can.OVERLOAD))
        inside = any(pin in of_pin and of_pin[pin].id in nets for relay in relays for pin in relay.pins.values())
        return 1.0 if inside else 1 / sqrt(3)

    def _share_on(self, net: PinRef) -> float:
        """The share of a net that lands on a motor with six ends."""
        return min((self._share(d) for d in self._takers_on[net] if d.kind.can(Can.SIX_ENDS)), default=1.0)

    def _consumers_on(self, net: PinRef) -> Takers:
        """Loads that hang on a net straight away."""
        if net not in self._consumers:
            self._consumers[net] = self._find_consumers(net)
        return self._consumers[net]

    def _find_consumers(self, net: PinRef) -> Takers:
        takers: Takers = {}
        for pin in self._nets.of_pin[net].pins:
            device = self._circuits.by_id[pin.device]
            if any(u.behaviour in TAKES and pin.marking in u.pins for u in device.kind.units):
                takers[device.id] = (self._draws(device), False)
        return takers
