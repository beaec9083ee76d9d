"""How thick each wire is, and why: by its load, by what it feeds, or by what it is tapped from."""

from collections.abc import Iterable, Mapping
from copy import copy
from dataclasses import replace

from riktig.core.catalogue import Behaviour, Can
from riktig.core.ids import role_of
from riktig.core.job import INCOMER_ID, CircuitId, DeviceId, PinRef, circuit_of
from riktig.core.schematic import DOOR_BONDS, Device, Net, NetClass, Nets
from riktig.core.sizing import Laid, Section, Sizing, circuit_of_net, smallest_section
from riktig.core.standards import (
    COMMON_PRACTICE,
    Why,
    conductor_name,
    nec_protective_size,
    next_section,
    protective_section,
)
from riktig.core.wiring.connections import Connection, feeds
from riktig.core.wiring.model import ASSEMBLY

__all__ = ["SectionChooser"]

TAP = "Up to 3 m it needs no protection of its own ({}, from memory)."
SMALL_MM2 = 2.5
"""Power conductors of circuits that the Brief does not size, mm² (common practice, no source)."""
SMALL_AWG = 2.08
"""The same by the North American rulebook: 14 AWG, mm² (behind 15 A; NEC 240.4(D), from memory)."""
CONTROL_A = 4.0
"""Above this a breaker or fuse guards power and not control, A (chosen by us)."""
SURGE_MM2, SURGE_AWG = 6.0, 5.26
"""Earth of a surge protector, mm²: IEC 60364-5-53 534.4.10, and 10 AWG by part data, from memory."""


_ONWARD = "It leads on to the next panel, behind the same protection as the feed of this one."


class SectionChooser:
    """Gives every wire its section, mm²."""

    def __init__(
        self, devices: Mapping[DeviceId, Device], nets: Nets, sizing: Sizing, laid: Laid, joined: Mapping[PinRef, str]
    ) -> None:
        self._devices, self._sizing, self._laid, self._joined = devices, sizing, laid, joined
        self._tap = TAP.format("NFPA 79 7.2.8" if laid.north_american else "IEC 60204-1 7.2.8")
        self._net_of = nets.of_pin
        self._infeeds: dict[str, Section] = {}
        self._least = SMALL_AWG if laid.north_american else SMALL_MM2
        self._guards: dict[CircuitId, float] = {}
        self._phases: dict[CircuitId, float] = {}
        self._transformed = {d.circuit for d in devices.values() if d.kind.can(Can.TRANSFORMS)}
        self._foreign_a: dict[CircuitId, float] = {}
        """What protects the supplies from elsewhere of a circuit, A."""
        self._serves_net: dict[PinRef, bool] = {}
        self._ends_of: dict[str, list[Device]] = {}
        for pin, name in joined.items():
            ends = self._ends_of.setdefault(_whole(name), [])
            if devices[pin.device] not in ends:
                ends.append(devices[pin.device])
        for device in devices.values():
            if device.kind.can(Can.FOREIGN_SUPPLY):
                amps = max(self._foreign_a.get(device.circuit, 0.0), device.protected_a)
                self._foreign_a[device.circuit] = amps
            if device.kind.is_protective:
                amps = sizing.parts[device.id].rated_a
                self._guards[device.circuit] = max(self._guards.get(device.circuit, 0.0), amps)

    def without_phases(self) -> "SectionChooser":
        """The same for another look at the panel, which notes its live conductors itself."""
        again = copy(self)
        again._phases = {}
        return again

    def _small_mm2(self, connection: Connection, *, of_way: bool = False) -> float:
        """The section of a circuit that the Brief does not size: it carries what its own breaker lets through.

        Its breaker is the one at either end of the wire, or on its net behind the feed; of the neutral of a way, that
        of its circuit. What only measures takes nothing to speak of, and its clamps no thick wire.
        """
        ends = [self._devices[pin.device].kind for pin in (connection.a, connection.b)]
        if any(kind.can(Can.WATCHES_PHASES) or kind.has_coil for kind in ends):
            return self._least
        amps = self._near_guards(connection)
        if not amps and of_way:
            amps = self._guards.get(circuit_of(connection.b.device), 0.0)
        needed = smallest_section(amps, "behind its own breaker", self._laid).mm2 if amps else 0.0
        return max(self._least, needed)

    def _near_guards(self, connection: Connection) -> float:
        """The largest breaker or fuse at either end of a wire, or on its net behind the feed, A; 0 where none is."""
        near = {connection.a.device, connection.b.device}
        if not feeds(connection.net) and connection.net.net_class is not NetClass.NEUTRAL:
            near |= {pin.device for pin in connection.net.pins}
        guards = [device for device in near if self._devices[device].kind.is_protective]
        return max((self._sizing.parts[device].rated_a for device in guards), default=0.0)

    def section(self, connection: Connection) -> tuple[float, Why]:
        """The section of a wire and why."""
        sizing, net = self._sizing, connection.net
        circuit = circuit_of_net(net)
        load = sizing.load_of(circuit)
        onward = sizing.onward
        ends = {circuit_of(connection.a.device), circuit_of(connection.b.device)}
        ahead = any(node.startswith("in.") for node in net.nodes)
        leads_on = bool(ends & onward.circuits) or (bool(onward.circuits) and ahead and ends == {INCOMER_ID})
        if leads_on:
            mm2 = onward.pe_mm2 if net.net_class is NetClass.EARTH else onward.mm2
            return mm2, Why(f"Why {conductor_name(mm2)}", _ONWARD, (), "common practice, no source")
        if net.net_class is NetClass.EARTH:
            return self.earth_section(connection.b)
        if feeds(net) and (shared := self.infeed(connection.b) or self.infeed(connection.a)):
            blocks = any(self._devices[pin.device].kind.can(Can.DISTRIBUTES) for pin in (connection.a, connection.b))
            section = shared if blocks else sizing.feeder  # a loop goes on to what else hangs on the feed
            return section.mm2, section.why
        if feeds(net) and (last_tap := self._last_tap(connection)):
            return last_tap
        if net.net_class is NetClass.POWER:
            block = self._devices[connection.a.device].kind.can(Can.DISTRIBUTES)
            tap = sizing.load_of(circuit_of(connection.b.device)) if block else None
            if tap:
                return tap.section.mm2, replace(tap.section.why, reason=f"{tap.section.why.reason} {self._tap}")
            section = load.section if load and not feeds(net) else sizing.feeder
            small = self._small(connection, load is None)
            if small:
                return small
            if (
                load
                and load.proposal.legs
                and not any(circuit_of(pin.device) == circuit and role_of(pin.device) == "F" for pin in net.pins)
            ):
                section = load.proposal.legs if not feeds(net) else section
            return section.mm2, section.why
        if self._serves(connection) or (net.net_class is NetClass.EXCEPTED and net.line >= 0 and not load):
            reason = "Socket, light and heater: as thick as their breaker asks."
            return self._of_services(connection, reason)
        if net.net_class is NetClass.NEUTRAL:
            return self._neutral_section(connection)
        if net.net_class is NetClass.EXCEPTED and load and net.line >= 0:
            return load.section.mm2, load.section.why
        return self._control_section(connection, load.control if load else None)

    def _control_section(self, connection: Connection, own: Section | None) -> tuple[float, Why]:
        """As thick as control of its circuit; behind a transformer of its own as thick as its breakers ask."""
        sizing = self._sizing
        control = own or sizing.control
        amps = max(self._behind_transformer(connection), self._from_elsewhere(connection))
        if amps > control.carries_a:
            needed = smallest_section(amps, "what can flow before its protection opens", self._laid)
            return needed.mm2, needed.why
        if self._is_way(connection):
            reason = "A way behind a transformer of its own carries power: no thinner than other ways."
            return self._least, Why(f"Why {conductor_name(self._least)}", reason, (), COMMON_PRACTICE)
        return control.mm2, control.why

    def _from_elsewhere(self, connection: Connection) -> float:
        """What protects a supply from elsewhere that is live on a net, A; 0 of any other."""
        if connection.net.net_class is not NetClass.EXCEPTED:
            return 0.0
        if not self._foreign_a:
            return 0.0
        return max((self._foreign_a.get(circuit_of(pin.device), 0.0) for pin in connection.net.pins), default=0.0)

    @staticmethod
    def _gathers(device: Device) -> bool:
        """Whether what flows to or from a transformer passes by: a breaker, its link to earth, the bridged return."""
        linked = any(unit.symbol == "link" for unit in device.kind.units)
        return device.kind.is_protective or linked or device.kind.can(Can.COMMON_TERMINAL)

    def _is_way(self, connection: Connection) -> bool:
        """Whether a wire leads from a breaker of power behind a transformer, and not of control, to its load."""
        ends = [self._devices[pin.device] for pin in (connection.a, connection.b)]
        is_transformed = ends[0].circuit in self._transformed
        fed = [d for d in ends if d.kind.is_protective and self._sizing.parts[d.id].rated_a > CONTROL_A]
        return is_transformed and bool(fed) and any(d.strip for d in ends)

    def _behind_transformer(self, connection: Connection) -> float:
        """What flows between a transformer and the breakers of its own behind it, A; 0 of any other wire.

        Its return carries as much as its live side.
        """
        if not self._transformed:
            return 0.0
        winding_pins = {
            device.id: device
            for pin in connection.net.pins
            if (device := self._devices[pin.device]).kind.can(Can.TRANSFORMS)
        }
        ends = [self._devices[pin.device] for pin in (connection.a, connection.b)]
        if not winding_pins or not all(device.id in winding_pins or self._gathers(device) for device in ends):
            return 0.0
        total = 0.0
        for transformer in winding_pins.values():
            live = next(unit.pins[0] for unit in transformer.kind.units if unit.behaviour is Behaviour.SOURCE)
            net = self._net_of.get(transformer.pin(live))
            behind = {pin.device for pin in net.pins} if net else set()
            guards = [self._devices[device_id] for device_id in behind if self._devices[device_id].kind.is_protective]
            total += sum(self._sizing.parts[device.id].rated_a for device in guards)
        return total

    def infeed(self, pin: PinRef) -> Section | None:
        """What feeds the comb or busbar that a clamp is on: it carries all its breakers; None where there is none."""
        name = _whole(self._joined.get(pin, ""))
        breakers = [device for device in self._ends_of.get(name, ()) if device.kind.is_protective]
        if len(breakers) < 2:
            return None
        if name not in self._infeeds:
            amps = sum(self._lets_through(device) for device in breakers)
            made = smallest_section(amps, f"the {len(breakers)} breakers that it feeds together", self._laid)
            self._infeeds[name] = min(made, self._sizing.feeder, key=lambda section: section.mm2)
        return self._infeeds[name]

    def _lets_through(self, breaker: Device) -> float:
        """What a breaker or fuse lets through in the long run, A."""
        load = self._sizing.load_of(breaker.circuit)
        breaker_a = load.proposal.amount("breaker") if load and role_of(breaker.id) == "F" else 0.0
        return breaker_a or self._sizing.parts[breaker.id].rated_a

    def _serves(self, connection: Connection) -> bool:
        """Whether a wire belongs to services that the Brief does not list: their breakers ask for more than control."""
        net = connection.net
        if net.net_class is NetClass.NEUTRAL:
            return any(self._devices[pin.device].kind.can(Can.SERVICE) for pin in (connection.a, connection.b))
        if net.id not in self._serves_net:
            self._serves_net[net.id] = any(self._devices[pin.device].kind.can(Can.SERVICE) for pin in net.pins)
        return self._serves_net[net.id]

    def _of_services(self, connection: Connection, reason: str) -> tuple[float, Why]:
        """As thick as the nearest breaker asks; away from all, as that of its circuit that guards no socket."""
        circuits = {circuit_of(connection.a.device), circuit_of(connection.b.device)}
        guards = [d for d in self._devices.values() if d.circuit in circuits and d.kind.is_protective]
        plain = [d for d in guards if not d.kind.can(Can.RESIDUAL)] or guards
        amps = self._near_guards(connection) or max((self._sizing.parts[d.id].rated_a for d in plain), default=0.0)
        wanted_mm2 = smallest_section(amps, "behind its own breaker", self._laid).mm2 if amps else 0.0
        mm2 = max(self._least, wanted_mm2)
        return mm2, Why(f"Why {conductor_name(mm2)}", reason, (), COMMON_PRACTICE)

    def _neutral_section(self, connection: Connection) -> tuple[float, Why]:
        """The neutral of a load is as thick as its line; that of control as thick as control; the bar's, the feeder."""
        sizing = self._sizing
        of_one = circuit_of(connection.a.device) == circuit_of(connection.b.device)
        if of_one and not sizing.load_of(circuit_of(connection.b.device)):
            of_bar = any(self._devices[pin.device].kind.can(Can.NEUTRAL_BAR) for pin in (connection.a, connection.b))
            if of_bar and sizing.onward.circuits:
                why = Why(f"Why {conductor_name(sizing.onward.mm2)}", _ONWARD, (), COMMON_PRACTICE)
                return sizing.onward.mm2, why
            if of_bar:
                return sizing.feeder.mm2, sizing.feeder.why
        load = sizing.load_of(circuit_of(connection.b.device))
        ends = [self._devices[pin.device] for pin in (connection.a, connection.b)]
        end_kinds = [d.kind for d in ends if d.circuit == circuit_of(connection.b.device)]
        way = any(kind.can(Can.NEUTRAL_TERMINAL) for kind in end_kinds)
        if load and (way or any(kind.can(Can.RESIDUAL) and kind.sized_as for kind in end_kinds)):
            shared = load.proposal.neutral_a
            section = (
                smallest_section(shared, "what protects all that share it", self._laid) if shared else load.section
            )
            return max(section, load.section, key=lambda s: s.mm2).mm2, section.why
        if way and not any(d.purpose.startswith("incoming") for d in ends):
            reason = "The neutral of a small circuit is as thick as its line."
            mm2 = self._small_mm2(connection, of_way=True)
            return mm2, Why(f"Why {conductor_name(mm2)}", reason, (), "common practice, no source")
        if any(d.kind.can(Can.SERVICE) or d.kind.can(Can.TAP_SWITCH) for d in ends):
            return self._of_services(connection, "The neutral of services is as thick as their breaker asks.")
        control = load.control if load else sizing.control
        return control.mm2, control.why

    def _small(self, connection: Connection, unsized: bool) -> tuple[float, Why] | None:
        """Power conductors of a circuit that the Brief does not list: a tap, or behind a small fuse."""
        devices = [self._devices[pin.device] for pin in (connection.a, connection.b)]
        of_load = [d for d in devices if d.circuit != devices[0].circuit or self._sizing.load_of(d.circuit) is None]
        block = devices[0].kind.can(Can.DISTRIBUTES)
        other = devices[1]
        if any(d.kind.can(Can.SWITCHES_LOAD) and self._sizing.load_of(d.circuit) is None for d in devices):
            return None  # the main contactor carries all that is behind it
        ahead = any(n.startswith("in.") for n in connection.net.nodes)
        is_control = unsized and not feeds(connection.net) and not ahead
        tapped = devices[0].kind.can(Can.TAP_TERMINAL) and connection.a.marking == "t"
        if ahead and (tapped or all(d.kind.can(Can.TAP_SWITCH) for d in devices)):
            why = Why("Why this size", f"A tap ahead of the main switch. {self._tap}", (), COMMON_PRACTICE)
            return self._tap_mm2(connection.net), why
        if (
            block and not other.kind.can(Can.DISTRIBUTES) and other in of_load and not self._is_incomer(other)
        ) or is_control:
            reason = "A small circuit behind its own fuse or breaker." + (f" {self._tap}" if block else "")
            mm2 = self._small_mm2(connection)
            return mm2, Why(f"Why {conductor_name(mm2)}", reason, (), "common practice, no source")
        return None

    def _last_tap(self, connection: Connection) -> tuple[float, Why] | None:
        """A short tap to a breaker at the end of the feed whose clamps the feed does not fit; None where it does."""
        parts, feeder = self._sizing.parts, self._sizing.feeder
        guards = [pin for pin in connection.last if self._devices[pin.device].kind.is_protective]
        pin = next((pin for pin in guards if parts[pin.device].clamp(pin.marking).max_mm2 < feeder.mm2), None)
        if pin is None:
            return None
        load = self._sizing.load_of(circuit_of(pin.device))
        tap_section = smallest_section(parts[pin.device].rated_a, "behind the tap", self._laid)
        other = connection.b if pin == connection.a else connection.a
        least = max(
            load.section.mm2 if load else tap_section.mm2, parts[other.device].clamp(other.marking).min_mm2, self._least
        )
        mm2 = next((size for size in self._laid.sizes if size >= least - 1e-9), feeder.mm2)
        reason = f"A tap to the last breaker of the feed, which is too thick for its clamps. {self._tap}"
        return mm2, Why(f"Why {conductor_name(mm2)}", reason, (), COMMON_PRACTICE)

    def _tap_mm2(self, net: Net) -> float:
        """A tap ahead of the main switch carries what all that hangs on it lets through together, mm²."""
        on_tap = {pin.device for pin in net.pins if self._devices[pin.device].kind.can(Can.TAP_SWITCH)}
        circuits = {circuit_of(device) for device in on_tap}
        amps = sum(self._guards.get(circuit, 0.0) for circuit in circuits)
        listed = [size.section.mm2 for circuit in circuits if (size := self._sizing.load_of(circuit))]
        wanted_mm2 = smallest_section(amps, "behind the tap", self._laid).mm2 if amps else 0.0
        return max([self._least, wanted_mm2, *listed])

    def _is_incomer(self, device: Device) -> bool:
        return device.kind.can(Can.MAIN_SWITCH) or device.kind.can(Can.PLAIN_TERMINAL)

    def _breaker_mm2(self, circuit: CircuitId) -> float:
        """As thick as what its own breaker asks of its lines."""
        amps = self._guards.get(circuit, 0.0)
        return max(self._least, smallest_section(amps, "behind its own breaker", self._laid).mm2 if amps else 0.0)

    def note_phases(self, live: Iterable[tuple[Connection, float]]) -> None:
        """Keeps the thickest live conductor of every circuit, mm²; a feed that only passes through it counts apart."""
        for connection, mm2 in live:
            passes = any(node.startswith(("main.", "in.", "held.")) for node in connection.net.nodes)
            if connection.net.net_class is NetClass.NEUTRAL or passes:
                continue
            for pin in (connection.a, connection.b):
                circuit = circuit_of(pin.device)
                self._phases[circuit] = max(self._phases.get(circuit, 0.0), mm2)

    def _small_earth(self, circuit: CircuitId, guard_a: float = 0.0) -> float:
        """The protective conductor of a circuit by its thickest live conductor, mm².

        Args:
            circuit: Which circuit.
            guard_a: What protects its load, A: a North American protective conductor need be no thicker than that asks.
        """
        phase = self._phases.get(circuit, 0.0)
        if not self._laid.north_american:
            return next_section(protective_section(phase).value) if phase else 0.0
        return min(nec_protective_size(guard_a).value, phase) if guard_a else phase

    def earth_section(self, point: PinRef) -> tuple[float, Why]:
        """The protective conductor that a point asks for, mm², and why."""
        owner = point.device
        load = self._sizing.load_of(self._devices[owner].circuit)
        if circuit_of(owner) in self._sizing.onward.circuits:
            mm2, of = self._sizing.onward.pe_mm2, "the conductors that lead on"
            source = self._cites("IEC 60204-1:2016 Table 1")
        elif role_of(owner) in DOOR_BONDS:
            mm2, of = self._sizing.door_bond_mm2, "the supply conductor"
            source = self._cites("IEC 61439-1 Table 3")
        elif load:
            guard = load.proposal.amount("breaker")
            mm2, of = max(load.pe_mm2, self._small_earth(load.circuit, guard)), "the load's phase conductor"
            source = self._cites("IEC 60204-1:2016 Table 1")
        elif self._devices[owner].kind.can(Can.SURGE):
            least = SURGE_AWG if self._laid.north_american else SURGE_MM2
            mm2, of = max(least, self._small_earth(self._devices[owner].circuit)), "the current of a surge"
            source = self._cites("IEC 60364-5-53 534.4.10 (type 2)", "NEC 242.28 and part data")
        elif self._devices[owner].circuit != INCOMER_ID:
            small = self._small_earth(self._devices[owner].circuit)
            mm2, of = max(self._least, small), "the small circuit it belongs to"
            source = f"{self._cites('IEC 60204-1:2016 Table 1')}; least: common practice, no source"
        else:
            mm2, of = self._sizing.feeder_pe_mm2, "the supply conductor"
            source = self._cites("IEC 60204-1:2016 Table 1")
        reason = f"A protective conductor is sized by {of}."
        return mm2, Why(f"Why {conductor_name(mm2)}", reason, (), source)

    def _cites(self, iec: str, north_american: str = "NEC 250.122") -> str:
        return f"{north_american if self._laid.north_american else iec}, from memory"


def _whole(name: str) -> str:
    """What joins a pin, whichever of its potentials: the infeed of a comb feeds all its phases."""
    return name.rpartition(" ")[0] if name.startswith(ASSEMBLY) else name
