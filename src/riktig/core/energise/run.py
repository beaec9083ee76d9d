"""The circuits with power on: which contacts are closed, what each net is joined to, what works.

A model by connection: a coil is in when its two ends reach two different poles of one supply
through closed contacts. It says whether a relay holds, in which order things follow, and where two
poles meet; it knows no voltages, so two coils in series both count as fed.
"""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass, field

from riktig.core.catalogue import Behaviour, Unit
from riktig.core.circuit import Circuits, Device, Nets, elements_of
from riktig.core.job import DeviceId, PinId

__all__ = ["Panel"]

ROUNDS = 60
"""Rounds until a circuit counts as one that never comes to rest (chosen by us: a long chain of relays needs 20)."""
PAUSE_S = 0.05
_LOADS = (Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD, Behaviour.INPUT)
Source = tuple[str, str]
"""A supply and one of its poles."""


@dataclass
class Panel:
    """A panel that is operated. ``on`` are the devices whose coil, lamp or load is fed."""

    circuits: Circuits
    nets: Nets
    pressed: set[DeviceId] = field(default_factory=set)
    pressed_units: set[tuple[DeviceId, str]] = field(default_factory=set)
    position: dict[DeviceId, str] = field(default_factory=dict)
    opened: set[DeviceId] = field(default_factory=set)
    tripped: set[DeviceId] = field(default_factory=set)
    lost: set[str] = field(default_factory=set)
    outputs: set[tuple[DeviceId, str]] = field(default_factory=set)
    foreign: set[DeviceId] = field(default_factory=set)
    pushed: set[DeviceId] = field(default_factory=set)
    on: set[DeviceId] = field(default_factory=set)
    fed_units: set[tuple[DeviceId, str]] = field(default_factory=set)
    shorts: list[str] = field(default_factory=list)
    restless: bool = False
    clock_s: float = 0.0

    def __post_init__(self) -> None:
        self._devices = {device.id: device for device in self.circuits.devices}
        self._since: dict[DeviceId, float] = {}
        self._alive: set[tuple[str, str]] = set()
        self._phases: dict[PinId, set[Source]] = {}
        self._drawn = {
            (pole.device, pole.unit)
            for rung in self.circuits.rungs
            for one in elements_of(rung.path)
            for pole in one.poles
        }
        self.settle()

    def settle(self) -> None:
        """Lets everything that follows follow, until nothing moves or it is clear that it never will."""
        self.restless = False
        for number in range(ROUNDS):
            before = (frozenset(self.on), frozenset(self.fed_units), frozenset(self._alive))
            self._round()
            if (frozenset(self.on), frozenset(self.fed_units), frozenset(self._alive)) == before and number > 1:
                return
        self.restless = True

    def wait(self, seconds: float) -> None:
        """Lets time pass: timers run out."""
        for step in (seconds - PAUSE_S, PAUSE_S) if seconds > PAUSE_S else (seconds,):
            self.clock_s += step
            self.settle()

    def sources_at(self, net: PinId) -> set[Source]:
        """The poles that a net is joined to."""
        return self._phases.get(net, set())

    def alive(self, node: str) -> bool:
        """Whether a named node is joined to a pole of any supply."""
        net = next((one for one in self.nets.nets if node in one.nodes), None)
        return net is not None and bool(self.sources_at(net.id))

    def turns(self, device: DeviceId) -> str:
        """“forward”, “reverse”, “star”, “delta” or “off”: what a motor does."""
        motor = self._devices[device]
        first = [self._pole(motor, pin) for pin in ("U1", "V1", "W1")]
        if None in first or len(set(first)) < 3:
            return "off"
        if any(pin.name == "W2" for pin in motor.kind.pins):
            tails = {self._root_of(motor, pin) for pin in ("W2", "U2", "V2")}
            if len(tails) == 1:
                return "star"
            fed = [self._pole(motor, pin) for pin in ("U2", "V2", "W2")]
            return "delta" if None not in fed and len(set(fed)) == 3 else "off"
        order = "".join(str(pole)[-1] for pole in first)
        return "forward" if order in ("123", "231", "312") else "reverse"

    def _pole(self, device: Device, pin: str) -> str | None:
        net = self.nets.of_pin.get(device.pin(pin))
        lines = (
            [pole for supply, pole in self.sources_at(net.id) if supply == "mains" and pole[0] == "L"] if net else []
        )
        return lines[0] if len(lines) == 1 else None

    def _root_of(self, device: Device, pin: str) -> PinId | None:
        net = self.nets.of_pin.get(device.pin(pin))
        return self._roots.get(net.id) if net else None

    def _round(self) -> None:
        """One round: what is joined to what, then what that feeds."""
        self._join()
        fed: set[tuple[DeviceId, str]] = set()
        for device in self.circuits.devices:
            for unit in device.kind.units:
                if (unit.behaviour in _LOADS and self._fed(device, unit)) or (
                    device.kind_id == "load_three" and len({self._pole(device, pin) for pin in unit.pins} - {None}) == 3
                ):
                    fed.add((device.id, unit.name))
        self.fed_units = fed
        now = {device for device, _ in fed}
        now |= {d.id for d in self.circuits.devices if d.kind.is_motor and self.turns(d.id) != "off"}
        for one in now - self.on:
            self._since[one] = self.clock_s
        self.on = now
        self._alive = self._sources_alive()

    def _sources_alive(self) -> set[tuple[str, str]]:
        """Which transformers and supplies give voltage: those whose input is fed."""
        alive: set[tuple[str, str]] = set()
        for device in self.circuits.devices:
            if device.kind_id == "transformer" and self._between(device, "1", "3"):
                alive |= {(device.id, "5"), (device.id, "7")}
                self.on.add(device.id)
            elif device.kind_id == "dc_supply" and (device.id, "L-N") in self.fed_units:
                alive |= {(device.id, "P"), (device.id, "M")}
            elif device.kind_id == "foreign_source" and device.id in self.foreign:
                alive |= {(device.id, "1"), (device.id, "2")}
            elif device.kind_id in ("drive", "soft_starter"):
                alive |= self._own_loop(device)
        return alive

    def _own_loop(self, device: Device) -> set[tuple[str, str]]:
        if device.kind_id == "drive":
            powered = all(self._pole(device, pin) for pin in ("L1", "L2", "L3"))
            return {(device.id, "24"), (device.id, "0")} if powered else set()
        return set()

    def _between(self, device: Device, a: str, b: str) -> bool:
        nets = [self.nets.of_pin.get(device.pin(pin)) for pin in (a, b)]
        if nets[0] is None or nets[1] is None:
            return False
        return _differ(self.sources_at(nets[0].id), self.sources_at(nets[1].id))

    def _fed(self, device: Device, unit: Unit) -> bool:
        if device.kind_id == "soft_starter" and unit.name == "S1-S2":
            ends = [self._root_of(device, pin) for pin in unit.pins]
            return ends[0] is not None and ends[0] == ends[1] and (device.id, "A1-A2") in self.fed_units
        if device.kind_id == "drive" and unit.name in ("R1-0", "R2-0"):
            net = self.nets.of_pin.get(device.pin(unit.pins[0]))
            return net is not None and (device.id, "24") in self.sources_at(net.id)
        return self._between(device, unit.pins[0], unit.pins[-1])

    def _join(self) -> None:
        parent: dict[PinId, PinId] = {net.id: net.id for net in self.nets.nets}

        def find(item: PinId) -> PinId:
            while parent[item] != item:
                parent[item] = parent[parent[item]]
                item = parent[item]
            return item

        for device in self.circuits.devices:
            for unit in device.kind.units:
                if (device.id, unit.name) in self._drawn and self._closed(device, unit):
                    ends = [self.nets.of_pin.get(device.pin(pin)) for pin in (unit.pins[0], unit.pins[-1])]
                    if ends[0] and ends[1]:
                        parent[find(ends[0].id)] = find(ends[1].id)
        self._roots = {net: find(net) for net in parent}
        poles: dict[PinId, set[Source]] = defaultdict(set)
        for net, source in self._sources():
            poles[self._roots[net]].add(source)
        self._phases = {net: poles.get(root, set()) for net, root in self._roots.items()}
        self.shorts = sorted(
            f"{a[1]} meets {b[1]}"
            for here in poles.values()
            for a in here
            for b in here
            if a[0] == b[0] and a[1] < b[1]
        )

    def _sources(self) -> Iterable[tuple[PinId, Source]]:
        """The poles of everything that makes a potential, each at its net."""
        for device in self.circuits.devices:
            if device.kind_id == "supply":
                for pin in ("L1", "L2", "L3", "N"):
                    net = self.nets.of_pin.get(device.pin(pin))
                    if net and pin not in self.lost:
                        yield net.id, ("mains", pin)
        for owner, pin in sorted(self._alive):
            net = self.nets.of_pin.get(self._devices[DeviceId(owner)].pin(pin))
            if net:
                yield net.id, (owner, pin)

    def _closed(self, device: Device, unit: Unit) -> bool:
        """Whether a unit leads on now."""
        did = device.id
        match unit.behaviour:
            case Behaviour.JOINT | Behaviour.HEATER:
                return True
            case Behaviour.POLE:
                return did not in self.opened and did not in self.tripped
            case Behaviour.NO:
                return self._moved(device, unit)
            case Behaviour.NC:
                return not self._moved(device, unit)
            case _:
                return False

    def _moved(self, device: Device, unit: Unit) -> bool:
        """Whether a contact is in its other position: closed when it closes, open when it opens."""
        did, kind = device.id, device.kind
        if unit.symbol == "trip" or (kind.family == "overload"):
            if kind.id == "breaker_signal":
                return did in self.opened or did in self.tripped
            return did in self.tripped
        if kind.id == "motor_protector":
            return did not in self.opened and did not in self.tripped
        if kind.id in ("soft_starter", "drive"):
            run = "S1-S2" if kind.id == "soft_starter" else "R1-0"
            return (did, run) in self.fed_units and did not in self.tripped
        if kind.id == "phase_monitor":
            return all(self._pole(device, pin) for pin in ("L1", "L2", "L3"))
        if kind.id == "outputs":
            return (did, unit.name) in self.outputs and bool(self.on)
        if did in self.position or kind.id in ("selector_hoa", "key_hoa", "selector_two", "key_two"):
            return _selected(self.position.get(did, "off"), unit)
        if kind.id == "timer":
            return self._star_delta_timer(did, unit)
        if kind.id == "timer_on" and unit.behaviour is Behaviour.NO:
            return did in self.on and self.clock_s - self._since.get(did, 0.0) >= 10.0 - 1e-9
        if kind.has_coil:
            return (did, "A1-A2") in self.fed_units or did in self.pushed
        return did in self.pressed or (did, unit.name) in self.pressed_units

    def _star_delta_timer(self, did: DeviceId, unit: Unit) -> bool:
        if did not in self.on:
            return False
        run = self.clock_s - self._since.get(did, self.clock_s)
        return run < 30.0 if unit.name == "17-18" else run >= 30.0 + PAUSE_S - 1e-9


def _selected(position: str, unit: Unit) -> bool:
    if unit.name == "23-24":
        return position == "auto"
    if unit.name == "13-14":
        return position in ("hand", "on")
    return position == "on"


def _differ(a: set[Source], b: set[Source]) -> bool:
    """Whether two ends reach two different poles of one supply."""
    return any(one[0] == other[0] and one[1] != other[1] for one in a for other in b)
