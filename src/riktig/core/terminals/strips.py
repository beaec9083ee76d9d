"""Terminal strips with both sides, and the field cables that land on them."""

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Can, Clamp, Mounting
from riktig.core.job import DeviceId, Load, PinRef
from riktig.core.schematic import Circuits, Device, Names, Nets, Zone
from riktig.core.sizing import Sizing
from riktig.core.standards import conductor_name
from riktig.core.wiring import Wire, Wiring

__all__ = ["Cable", "Core", "Strip", "Strips", "TerminalRow", "make_strips"]

_CORE_COLOURS = {
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
class Core:
    """One core of a field cable: its colour or number, and where both of its ends land."""

    name: str
    number: str
    panel_end: str
    field_end: str
    panel_pin: PinRef


@dataclass(frozen=True, slots=True)
class Cable:
    """A field cable: its tag, what it goes to, its cores and section; length m (0: unknown)."""

    tag: str
    device: DeviceId
    to: str
    mm2: float
    cores: tuple[Core, ...]
    length_m: float
    is_supply: bool = False

    @property
    def make_up(self) -> str:
        """“4 G 1.5 mm²”: G with a protective conductor, × without."""
        sign = "G" if any(core.name == "green-yellow" for core in self.cores) else "×"
        return f"{len(self.cores)} {sign} {conductor_name(self.mm2)}"


@dataclass(frozen=True, slots=True)
class TerminalRow:
    """One terminal: its mark and body, the wire inside, the core outside."""

    device: DeviceId
    position: int
    mark: str
    kind_id: str
    colour: str
    number: str
    wire: str
    inside: str
    cable: str
    core: str
    field: str
    max_mm2: float


@dataclass(frozen=True, slots=True)
class Strip:
    """A strip from left to right, as it will stand on the rail. Width mm with end stops."""

    tag: str
    purpose: str
    rows: tuple[TerminalRow, ...]


@dataclass(frozen=True, slots=True)
class Strips:
    """All strips and all field cables."""

    strips: tuple[Strip, ...]
    cables: tuple[Cable, ...]


def make_strips(
    circuits: Circuits, nets: Nets, names: Names, sizing: Sizing, wiring: Wiring, loads: tuple[Load, ...]
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
        loads: The loads of the job.
    """
    cables = _cables(circuits, nets, names, sizing, wiring, loads)
    core_at = {core.panel_pin: (cable, core) for cable in cables for core in cable.cores}
    wires_at: dict[PinRef, list[Wire]] = defaultdict(list)
    for wire in wiring.wires:
        wires_at[wire.start.pin].append(wire)
        wires_at[wire.end.pin].append(wire)
    landed = _Landed(nets, names, sizing, wires_at, core_at)
    groups: dict[str, list[Device]] = defaultdict(list)
    for device in circuits.devices:
        if device.strip:
            groups[device.strip].append(device)
    strips = []
    for members in groups.values():
        rows = tuple(landed.row(n, device) for n, device in enumerate(members, 1))
        purpose = members[0].purpose.split(", ")[0]
        supply = members[0].purpose.startswith("incoming")
        strips.append(Strip(names.tag[members[0].id], "incoming supply" if supply else purpose, rows))
    return Strips(tuple(strips), cables)


@dataclass(frozen=True, slots=True)
class _Landed:
    """What lands on the terminals."""

    nets: Nets
    names: Names
    sizing: Sizing
    wires_at: dict[PinRef, list[Wire]]
    core_at: dict[PinRef, tuple[Cable, Core]]

    def row(self, position: int, device: Device) -> TerminalRow:
        """The row of a terminal."""
        inner, outer = device.pin("i"), device.pin("f")
        part, net = self.sizing.parts[device.id], self.nets.of_pin.get(inner)  # one written by hand may join nothing
        wires = self.wires_at.get(inner, [])
        far = [w.end.label if w.start.pin == inner else w.start.label for w in wires]
        cable, core = self.core_at.get(outer, (None, None))
        return TerminalRow(
            device.id,
            position,
            device.mark,
            device.kind_id,
            part.colour,
            self.names.number[net.id] if net else "",
            ", ".join(w.key for w in wires),
            ", ".join(far),
            cable.tag if cable else "",
            core.name if core else "",
            core.field_end if core else "",
            part.power.max_mm2,
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
    field = _Field(circuits.by_id, nets, names, free_ways)
    lengths = {load.id: load.cable_m for load in loads}
    cables = []
    for device in circuits.devices:
        if device.zone is not Zone.FIELD or device.kind.mounting is not Mounting.FIELD:
            continue
        tag = names.tag[device.id]
        load = sizing.load_of(device.circuit)
        if device.kind.can(Can.SUPPLY):
            cable_tag, mm2, metres = tag, sizing.feeder.mm2, 0.0
        else:
            cable_tag = f"W{tag}"
            power = device.kind.is_motor
            mm2 = load.proposal.cable.mm2 if load and power else 1.0
            metres = lengths.get(load.load, 0.0) if load else 0.0
        cores = []
        for count, pin in enumerate(device.kind.pins, 1):
            core = _core(device, pin.name, count, field)
            if core:
                cores.append(core)
        cables.append(
            Cable(
                cable_tag, device.id, f"{tag} {device.purpose}", mm2, tuple(cores), metres, device.kind.can(Can.SUPPLY)
            )
        )
    return tuple(cables)


@dataclass(frozen=True, slots=True)
class _Field:
    """What cables from the field land on."""

    devices: Mapping[DeviceId, Device]
    nets: Nets
    names: Names
    free_ways: list[PinRef]
    """Ways of earth bars that nothing lands on; what a cable takes is taken out."""


def _core(device: Device, pin: str, count: int, field: _Field) -> Core | None:
    net, names, free_ways = field.nets.of_pin.get(device.pin(pin)), field.names, field.free_ways
    if net is None:
        return None
    landing, label = None, ""
    for other in net.pins:
        owner, marking = other
        candidate = field.devices[owner]
        if candidate.circuit == device.circuit and (
            candidate.strip and candidate.kind.pin(marking).clamp is Clamp.FIELD
        ):
            landing, label = other, f"{names.tag[candidate.id]}:{candidate.mark}"
    if landing is None and pin == "PE" and free_ways:
        landing = free_ways.pop(0)
        owner, marking = landing
        label = f"{names.tag[owner]}:{marking}"
    if landing is None:
        return None
    mark = pin[0] if device.kind.can(Can.PLAIN_MOTOR) and pin != "PE" else pin
    name = _CORE_COLOURS.get(mark, str(count))
    return Core(name, names.number[net.id], label, f"{names.tag[device.id]}:{pin}", landing)
