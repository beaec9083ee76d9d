"""Terminal strips with both sides, and the field cables that land on them."""

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass, replace

from riktig.core.catalogue import Can, Clamp, Mounting
from riktig.core.ids import is_within
from riktig.core.job import DeviceId, FieldCables, Load, OwnCable, PinRef
from riktig.core.schematic import EARTHS, NEUTRALS, Circuits, Device, Names, Net, Nets, Zone
from riktig.core.sizing import Sizing, least_control_section
from riktig.core.standards import is_awg, next_section, protective_section
from riktig.core.terminals.cables import EARTH_CORE, Cable, Core
from riktig.core.terminals.own_cables import with_own_cables
from riktig.core.terminals.screens import with_screens
from riktig.core.wiring import JUMPER, Wire, Wiring

__all__ = ["LandedCore", "PlannedCables", "Strip", "Strips", "TerminalRow", "make_strips"]

_CORE_COLOURS = {
    "L": "brown",
    "L1": "brown",
    "L2": "black",
    "L3": "grey",
    "N": "blue",
    "PE": "green-yellow",
    "U": "brown",
    "V": "black",
    "W": "grey",
}
"""Source: HD 308 S2 core colours, from memory. Control cores are numbered."""


@dataclass(frozen=True, slots=True)
class LandedCore:
    """A core as its terminal sees it: its cable, its colour or number, and where it goes."""

    cable: str
    name: str
    field_end: str


@dataclass(frozen=True, slots=True)
class TerminalRow:
    """One terminal: its mark and body, the wires inside and their colour, the cores outside."""

    device: DeviceId
    position: int
    mark: str
    kind_id: str
    colour: str
    number: str
    wire: str
    inside: str
    cores: tuple[LandedCore, ...]
    max_mm2: float
    wire_colour: str = ""
    jumper: str = ""
    """What bridges it to other terminals of its strip: the same text for all of them."""

    @property
    def cable(self) -> str:
        """The tags of its cables: “WB1, WB2”."""
        return ", ".join(dict.fromkeys(landed.cable for landed in self.cores))

    @property
    def core(self) -> str:
        """The names of its cores, in the order of their cables."""
        return ", ".join(landed.name for landed in self.cores)

    @property
    def field(self) -> str:
        """Where its cores go."""
        return ", ".join(landed.field_end for landed in self.cores)


@dataclass(frozen=True, slots=True)
class Strip:
    """A strip from left to right, as it will stand on the rail. Width mm with end stops."""

    tag: str
    purpose: str
    rows: tuple[TerminalRow, ...]


@dataclass(frozen=True, slots=True)
class PlannedCables:
    """What the job says of its cables: their lengths with the loads, what the builder planned, what practice shares."""

    loads: tuple[Load, ...]
    own: tuple[OwnCable, ...]
    shared: FieldCables


@dataclass(frozen=True, slots=True)
class Strips:
    """All strips and all field cables."""

    strips: tuple[Strip, ...]
    cables: tuple[Cable, ...]


def make_strips(
    circuits: Circuits, nets: Nets, names: Names, sizing: Sizing, wiring: Wiring, planned: PlannedCables
) -> Strips:
    """The terminal schedule.

    Method:
        Each field device has one cable; its pins land on the field side of the terminal of their
        net that belongs to the device's own circuit, or on a free way of the earth bar.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        names: Tags of devices and numbers of nets.
        sizing: The part of every device.
        wiring: All wires, in the order of their batches.
        planned: How long cables are, and what shares one.
    """
    each = with_screens(_cables(circuits, nets, names, sizing, wiring, planned.loads), circuits, nets)
    circuit_of = {device.id: device.circuit for device in circuits.devices}
    cables = with_own_cables(each, planned.own, planned.shared, circuit_of, nets.of_pin)
    core_at: dict[PinRef, list[LandedCore]] = defaultdict(list)
    for cable in cables:
        for core in cable.cores:
            core_at[core.panel_pin].append(LandedCore(cable.tag, core.name, core.field_end))
    wires_at: dict[PinRef, list[Wire]] = defaultdict(list)
    for wire in wiring.wires:
        wires_at[wire.start.pin].append(wire)
        wires_at[wire.end.pin].append(wire)
    landed = _Landed(circuits, nets, names, sizing, wiring, wires_at, core_at)
    groups: dict[str, list[Device]] = defaultdict(list)
    for device in circuits.devices:
        if device.strip:
            groups[device.strip].append(device)
    strips = []
    for members in groups.values():
        rows = tuple(landed.row(n, device) for n, device in enumerate(members, 1))
        strips.append(Strip(names.tag[members[0].id], _purpose(members[0]), rows))
    return Strips(tuple(strips), cables)


def _purpose(first: Device) -> str:
    """What a strip is for, by its first terminal: a circuit, the supply, or one function of all circuits."""
    if first.purpose.startswith("incoming"):
        return "incoming supply"
    return first.strip if first.strip in (NEUTRALS, EARTHS) else first.purpose.split(", ")[0]


@dataclass(frozen=True, slots=True)
class _Landed:
    """What lands on the terminals."""

    circuits: Circuits
    nets: Nets
    names: Names
    sizing: Sizing
    wiring: Wiring
    wires_at: dict[PinRef, list[Wire]]
    core_at: dict[PinRef, list[LandedCore]]

    def row(self, position: int, device: Device) -> TerminalRow:
        """The row of a terminal."""
        inner, outer = device.pin("i"), device.pin("f")
        part, net = self.sizing.parts[device.id], self.nets.of_pin.get(inner)  # one written by hand may join nothing
        wires = self.wires_at.get(inner, [])
        far = [w.end.label if w.start.pin == inner else w.start.label for w in wires]
        if self.wiring.joined.get(inner, "").startswith(JUMPER):
            others = [pin for pin in self.wiring.joined_with(inner) if pin != inner]
            far.append("jumper to " + ", ".join(self.circuits.device(pin.device).mark for pin in others))
        return TerminalRow(
            device.id,
            position,
            device.mark,
            device.kind_id,
            part.colour,
            self.names.number[net.id] if net else "",
            ", ".join(w.key for w in wires),
            ", ".join(far),
            tuple(self.core_at.get(outer, ())),
            part.power.max_mm2,
            wires[0].colour if wires else "",
            self.wiring.joined.get(inner, "") if len(self.wiring.joined_with(inner)) > 1 else "",
        )


def _cables(
    circuits: Circuits, nets: Nets, names: Names, sizing: Sizing, wiring: Wiring, loads: tuple[Load, ...]
) -> tuple[Cable, ...]:
    wired = {end.pin for wire in wiring.wires for end in (wire.start, wire.end)}
    free_ways = [
        bar.pin(pin.name)
        for bar in circuits.devices
        if bar.kind.can(Can.EARTH_BAR)
        for pin in bar.kind.pins
        if bar.pin(pin.name) not in wired
    ]
    field = _Field(circuits.by_id, nets, names, free_ways, set(), is_awg(sizing.feeder.mm2))
    sections = _CoreSections(sizing, wiring)
    lengths = {load.id: load.cable_m for load in loads}
    cables = []
    for device in circuits.devices:
        if device.zone is not Zone.FIELD or device.kind.mounting is not Mounting.FIELD:
            continue
        tag = names.tag[device.id]
        load = sizing.load_of(device.circuit)
        is_supply = device.kind.can(Can.SUPPLY)
        metres = lengths.get(load.load, 0.0) if load else 0.0
        landed = _cores_of(device, field)
        live, earth = sections.of(device, [core for core in landed if core.name != EARTH_CORE], nets)
        cores = tuple(replace(core, mm2=earth if core.name == EARTH_CORE else live) for core in landed)
        to = f"{tag} {device.purpose}"
        enters = bool(cores) or _from_panel(device, circuits, nets)
        cables.append(Cable(tag if is_supply else f"W{tag}", device.id, to, live, cores, metres, is_supply, enters))
    return tuple(cables)


def _from_panel(device: Device, circuits: Circuits, nets: Nets) -> bool:
    """Whether a port of a thing on a network is joined to one in the panel."""
    joined = (nets.of_pin.get(device.pin(pin.name)) for pin in device.kind.pins)
    others = (circuits.device(pin.device) for net in joined if net for pin in net.pins)
    return any(other.zone is not Zone.FIELD for other in others)


class _CoreSections:
    """How thick the cores of a cable are, mm²."""

    def __init__(self, sizing: Sizing, wiring: Wiring) -> None:
        self._sizing = sizing
        self._american = is_awg(sizing.feeder.mm2)
        self._at: dict[PinRef, float] = defaultdict(float)
        for wire in wiring.wires:
            for end in (wire.start, wire.end):
                self._at[end.pin] = max(self._at[end.pin], wire.mm2)

    def of(self, device: Device, live: list[Core], nets: Nets) -> tuple[float, float]:
        """Of its live cores and of its protective conductor.

        What the Brief sized has the Brief's section; power that it did not size that of the wires in the panel;
        anything else is control.
        """
        load = self._sizing.load_of(device.circuit)
        if device.kind.can(Can.SUPPLY):
            return self._sizing.feeder.mm2, self._sizing.feeder_pe_mm2
        if device.circuit in self._sizing.onward.circuits:
            return self._sizing.onward.mm2, self._sizing.onward.pe_mm2
        least = least_control_section(self._american)
        landed = max((self._at[PinRef(core.panel_pin.device, "i")] for core in live), default=0.0)
        power = any(self._is_power(nets.of_pin.get(core.panel_pin)) for core in live)
        if not power and (load or landed <= least):
            return least, least
        if load:
            mm2 = max(load.proposal.cable.mm2, load.proposal.amount("neutral"))
            return mm2, min(mm2, load.pe_mm2) if self._american else next_section(protective_section(mm2).value)
        inner = [PinRef(core.panel_pin.device, "i") for core in live]
        thick = [self._at[pin] for pin in inner if self._at[pin]]
        # Behind a transformer of its own the bridged return of all ways is thicker than the line of any.
        mm2 = (max(thick) if power else min(thick)) if thick else least
        return mm2, mm2 if self._american else next_section(protective_section(mm2).value)

    @staticmethod
    def _is_power(net: Net | None) -> bool:
        return net is not None and net.line >= 0


@dataclass(frozen=True, slots=True)
class _Field:
    """What cables from the field land on."""

    devices: Mapping[DeviceId, Device]
    nets: Nets
    names: Names
    free_ways: list[PinRef]
    """Ways of earth bars that nothing lands on; what a cable takes is taken out."""
    taken: set[PinRef]
    """Field sides of terminals that a core lands on already."""
    numbered: bool
    """Whether cores are known by numbers alone, as those of North American cables are (common practice, no source)."""

    def landing(self, device: Device, net: Net) -> PinRef | None:
        """The field side of a terminal on a net: the device's own, else a free one of its circuit, else any of it."""
        offered = [
            pin
            for pin in net.pins
            if (terminal := self.devices[pin.device]).strip
            and terminal.circuit == device.circuit
            and terminal.kind.pin(pin.marking).clamp is Clamp.FIELD
        ]
        device_terminals = [pin for pin in offered if is_within(pin.device, device.id)]
        chosen = next(
            (pin for pin in (*device_terminals, *offered) if pin not in self.taken), offered[-1] if offered else None
        )
        if chosen:
            self.taken.add(chosen)
        return chosen


def _cores_of(device: Device, field: _Field) -> list[Core]:
    """The cores of the cable to a device; points that its own link joins have one between them."""
    cores: list[Core] = []
    joined: set[PinRef] = set()
    for pin in device.kind.pins:
        net = field.nets.of_pin.get(device.pin(pin.name))
        if net is None or net.id in joined:
            continue
        # The green-yellow core bears no number: those of the others run on without it.
        count = sum(core.name != EARTH_CORE for core in cores) + 1
        core = _core(device, pin.name, count, field)
        joined.add(net.id)
        if core:
            cores.append(core)
    return cores


def _core(device: Device, pin: str, count: int, field: _Field) -> Core | None:
    net, names, free_ways = field.nets.of_pin.get(device.pin(pin)), field.names, field.free_ways
    if net is None:
        return None
    landing, label = field.landing(device, net), ""
    if landing is not None:
        terminal = field.devices[landing.device]
        label = f"{names.tag[terminal.id]}:{terminal.mark}"
    if landing is None and pin == "PE" and free_ways:
        landing = free_ways.pop(0)
        owner, marking = landing
        label = f"{names.tag[owner]}:{marking}"
    if landing is None:
        return None
    mark = pin[0] if device.kind.can(Can.PLAIN_MOTOR) and pin != "PE" else pin
    name = EARTH_CORE if pin == "PE" else str(count)
    if not field.numbered:
        name = _CORE_COLOURS.get(mark, name)
    field_end = f"{names.tag[device.id]}:{pin}"
    return Core(name, names.number[net.id], label, field_end, landing, device.pin(pin))
