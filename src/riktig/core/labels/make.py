"""What text goes on what, in how many copies, on which medium, at its true size."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from enum import Enum
from math import sqrt

from riktig.core.catalogue import Can
from riktig.core.door import LEGEND_PLATE, NAMEPLATE, on_door
from riktig.core.job import (
    CodesOn,
    DeviceId,
    LabelSheet,
    MarkedWires,
    MarkerText,
    PhaseNames,
    Practice,
    Source,
    Supply,
    SupplySystem,
    TerminalTemperature,
)
from riktig.core.keys import DeviceKey, Key, PartKey, PieceKey, WireKey
from riktig.core.labels.nameplate import NameplateField
from riktig.core.plate import Piece
from riktig.core.schematic import Circuits, Names, PinLabels, Zone
from riktig.core.short_circuit import ShortCircuit
from riktig.core.simulation import LiveNet
from riktig.core.terminals import Strips
from riktig.core.wiring import Wiring
from riktig.core.wiring.colours import colour_table

__all__ = ["Label", "LabelInputs", "Labels", "Medium", "make_labels"]


class Medium(Enum):
    """What is printed on."""

    DEVICE = "device labels"
    WIRE = "wire markers"
    TERMINAL = "terminal markers"
    CABLE = "cable tags"
    PIECE = "piece labels"
    LEGEND = "door legends"
    WARNING = "warning plates"
    NAMEPLATE = "nameplate"


SIZES = {
    Medium.DEVICE: (27.0, 12.5),
    Medium.WIRE: (12.0, 4.0),
    Medium.TERMINAL: (6.0, 10.0),
    Medium.CABLE: (40.0, 10.0),
    Medium.PIECE: (50.0, 10.0),
    Medium.LEGEND: LEGEND_PLATE,
    Medium.WARNING: (100.0, 30.0),
    Medium.NAMEPLATE: NAMEPLATE,
}
"""Width and height, mm (chosen by us: common sizes of print media, no source)."""


"""Tags on a warning plate (chosen by us: two lines)."""


@dataclass(frozen=True, slots=True)
class Label:
    """A label: its lines of text, how many copies, and the key of what it goes on."""

    medium: Medium
    lines: tuple[str, ...]
    copies: int
    where: str
    key: Key | None
    code: str = ""
    """What its code says to a scanner; "" without one."""
    on_sheet: tuple[float, float] | None = None
    """Width and height of the sheet's labels, mm, where the medium has a sheet of its own."""

    @property
    def size(self) -> tuple[float, float]:
        """Width and height, mm; what carries a code beside its words is wider by the code."""
        if self.on_sheet:
            return self.on_sheet
        width, height = SIZES[self.medium]
        return (width + height, height) if self.code and self.medium is not Medium.NAMEPLATE else (width, height)


@dataclass(frozen=True, slots=True)
class Labels:
    """All labels, in the order they are put on, and the fields of the nameplate."""

    labels: tuple[Label, ...]
    nameplate: tuple[NameplateField, ...]

    def on(self, medium: Medium) -> tuple[Label, ...]:
        """Those on one medium."""
        return tuple(label for label in self.labels if label.medium is medium)


@dataclass(frozen=True, slots=True, eq=False)
class LabelInputs:
    """What all labels of a panel follow from."""

    circuits: Circuits
    names: Names
    wiring: Wiring
    strips: Strips
    practice: Practice
    supply: Supply
    sources: tuple[Source, ...]
    """Supplies that arrive from elsewhere."""
    fields: tuple[NameplateField, ...]
    """What the nameplate says."""
    live: tuple[LiveNet, ...]
    """What stays live with the main switch off: it is named on the warning plates."""
    settings: Mapping[DeviceId, float]
    """What dials are set to, A: it stands on the label of the device."""
    pieces: tuple[Piece, ...]
    """What is cut of rail, duct and lids: each carries its name and length."""
    short_circuit: ShortCircuit
    """What the supply can give: it stands on the plate over its terminals."""
    number: str
    """Of the job: codes begin with it."""
    sheets: tuple[LabelSheet, ...]
    """What labels are printed on, where the job says so."""

    def code(self, thing: str) -> str:
        """What a code of a device or a cable says, where the practice wants codes: “KS-0418/-K1”."""
        return f"{self.number}/-{thing}" if self.practice.codes is CodesOn.LABELS else ""


def make_labels(inputs: LabelInputs) -> Labels:
    """Every label of the panel. Wire markers come in pairs, in the order of the batches."""
    circuits, names, fields = inputs.circuits, inputs.names, inputs.fields
    labels = [*_of_devices(inputs), *_of_wires(inputs.wiring, names, inputs.practice), *_of_strips(inputs)]
    for piece in inputs.pieces:
        length = f"{piece.length:g} mm {piece.place}"
        labels.append(Label(Medium.PIECE, (piece.name, length), 1, "on the piece", PieceKey(piece.name)))
    labels += _warnings(inputs)
    for source in inputs.sources:
        main = next((names.tag[d.id] for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH)), "the main switch")
        words = f"{source.volts} from {source.comes_from or 'elsewhere'} stay live inside when {main} is off."
        labels.append(
            Label(Medium.WARNING, (source.name.upper(), words), 1, "door and where it enters", PartKey("sources"))
        )
    lines = tuple(f"{field.name}: {field.value}" for field in fields if field.value)
    whole = inputs.number if inputs.practice.codes is CodesOn.LABELS else ""
    labels.append(Label(Medium.NAMEPLATE, lines, 1, "door, outside", PartKey("nameplate"), whole))
    sizes = {sheet.medium: (sheet.width, sheet.height) for sheet in inputs.sheets}
    if sizes:
        labels = [replace(label, on_sheet=sizes.get(label.medium.value)) for label in labels]
    return Labels(tuple(labels), fields)


def _of_devices(inputs: LabelInputs) -> Iterator[Label]:
    for device in inputs.circuits.devices:
        tag = inputs.names.tag[device.id]
        if device.zone is Zone.PLATE and not device.strip:
            amps = inputs.settings.get(device.id)
            words = f"set to {amps:g} A" if amps else device.purpose
            yield Label(Medium.DEVICE, (tag, words), 1, "plate", DeviceKey(device.id), inputs.code(tag))
        if device.zone is Zone.DOOR and device.kind.can(Can.EARTH_STUD):
            yield Label(Medium.DEVICE, (tag, device.purpose), 1, "door", DeviceKey(device.id), inputs.code(tag))
        if on_door(device) or device.kind.can(Can.MAIN_SWITCH):
            yield Label(Medium.LEGEND, (device.legend,), 1, f"door, {tag}", DeviceKey(device.id))


def _of_wires(wiring: Wiring, names: Names, practice: Practice) -> Iterator[Label]:
    """A marker for both ends of every wire that the practice wants marked."""
    if practice.marked is MarkedWires.NONE:
        return
    for wire in wiring.wires:
        if (practice.marked is MarkedWires.IN_DUCT and not wire.ducts) or wire.net not in names.number:
            continue
        for end, far in ((wire.start, wire.end), (wire.end, wire.start)):
            text = wire.number
            if practice.marker is MarkerText.NUMBER_AND_FAR_END:
                text = f"{wire.number} {far.label}"
            elif practice.marker is MarkerText.CLAMPS:
                text = f"{end.label} {far.label}"
            yield Label(Medium.WIRE, (text,), 1, f"at {end.label}", WireKey(wire.key))


def _of_strips(inputs: LabelInputs) -> Iterator[Label]:
    for strip in inputs.strips.strips:
        first = DeviceKey(strip.rows[0].device)
        yield Label(Medium.DEVICE, (strip.tag, strip.purpose), 1, "strip", first, inputs.code(strip.tag))
        for row in strip.rows:
            yield Label(Medium.TERMINAL, (row.mark,), 2, f"{strip.tag}, {row.position}", DeviceKey(row.device))
    for cable in inputs.strips.cables:
        of = DeviceKey(cable.device)
        yield Label(Medium.CABLE, (cable.tag, cable.make_up), 2, "both ends", of, inputs.code(cable.tag))


SKILLED = "Only skilled persons open this door: switch off, lock and prove dead before work."
"""Who may open the panel (IEC 60204-1 16.2 asks for the sign; the words are common practice, no source)."""


def _warnings(inputs: LabelInputs) -> Iterator[Label]:
    """On the door who may open it; inside what stays live with the main switch off; a plate for each other supply."""
    circuits, names, supply = inputs.circuits, inputs.names, inputs.supply
    yield Label(Medium.WARNING, (f"{supply.voltage_name} INSIDE", SKILLED), 1, "door, outside", PartKey("skilled"))
    main = next((names.tag[d.id] for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH)), "the main switch")
    for tag in (strip.tag for strip in inputs.strips.strips if strip.purpose == "incoming supply"):
        where = f"at {tag}, at the upper clamps of {main}{_also(inputs)}"
        text = f"{supply.voltage_name} ({_of_source(inputs)}) stay live {where} when {main} is off."
        yield Label(Medium.WARNING, (supply.name.upper(), text), 1, f"over {tag}", PartKey("warning"))
        if note := _of_system(supply, inputs.practice.phase_names):
            yield Label(Medium.WARNING, (supply.name.upper(), note), 1, f"at {tag}", PartKey("warning"))
    yield from _of_charge(inputs)
    if inputs.practice.rulebook.north_american:
        yield from _north_american(inputs)
    yield from _elsewhere(inputs, main)


CHARGE_MINUTES = 5
"""How long a drive keeps its charge (typical part data, no source: its own plate decides)."""


def _of_charge(inputs: LabelInputs) -> Iterator[Label]:
    """A plate on every drive: it keeps its charge after the switch is off (IEC 60204-1 6.2.4, from memory)."""
    for device in inputs.circuits.devices:
        if device.kind.can(Can.VARIES_SPEED):
            tag = inputs.names.tag[device.id]
            words = f"{tag} keeps its charge: wait {CHARGE_MINUTES} minutes after switching off, or as its plate says."
            yield Label(Medium.WARNING, ("STORED CHARGE", words), 1, f"on {tag}", DeviceKey(device.id))


def _north_american(inputs: LabelInputs) -> Iterator[Label]:
    """Plates that the North American rulebook asks for: arc flash, conductors of the field, links of fuses.

    Source:
        NEC 110.16, UL 508A 54 and 55, from memory: fairly sure of what they ask for, the words are our own.
    """
    words = "Danger of arc flash and shock: protective clothing and tools by local practice."
    yield Label(Medium.WARNING, ("ARC FLASH", words), 1, "door, outside", PartKey("arc flash"))
    degrees = "60 °C up to 100 A, 75 °C above" if inputs.practice.terminal_c is TerminalTemperature.C60 else "75 °C"
    words = f"Use copper conductors only, {degrees}. Torques are on the list of terminals."
    yield Label(Medium.WARNING, ("FIELD WIRING", words), 1, "inside the door", PartKey("field wiring"))
    if any(device.kind.can(Can.LIMITS_CURRENT) for device in inputs.circuits.devices):
        words = "Replace fuses by the same class and rating only."
        yield Label(Medium.WARNING, ("FUSES", words), 1, "inside the door", PartKey("fuses"))


def _of_source(inputs: LabelInputs) -> str:
    """What protects the incoming supply, what it can give, and which of how many it is: “80 A, 6 kA, supply 1 of 2”."""
    count = 1 + len(inputs.sources)
    words = f"{inputs.supply.upstream_a:g} A, {inputs.short_circuit.prospective_ka:.3g} kA"
    return f"{words}, supply 1 of {count}" if count > 1 else words


def _of_system(supply: Supply, names: PhaseNames) -> str:
    """What is unlike a star: a line with more voltage to ground (NEC 408.3(F), from memory), or an earthed one."""
    if supply.system is SupplySystem.HIGH_LEG:
        return f"{names.of('L2')} has {supply.voltage_v * sqrt(3) / 2:.0f} V to ground."
    if supply.system is SupplySystem.CORNER:
        first, earthed, third = names.names
        return f"{earthed} is earthed: {first} and {third} have {supply.voltage_v:g} V to earth."
    return ""


def _also(inputs: LabelInputs) -> str:
    """What else the incoming supply keeps live: the switches ahead of the main one, and all wires of one colour."""
    ahead = [d for d in inputs.circuits.devices if d.kind.can(Can.TAP_SWITCH)]
    inside = {d.id for d in inputs.circuits.devices if d.zone is not Zone.FIELD and not d.kind.can(Can.MAIN_SWITCH)}
    foreign = {d.id for d in inputs.circuits.devices if d.kind.can(Can.FOREIGN_SUPPLY)}
    owners = {pin.device for live_net in inputs.live if live_net.source not in foreign for pin in live_net.pins}
    incoming = {
        row.device for strip in inputs.strips.strips if strip.purpose == "incoming supply" for row in strip.rows
    }
    if not owners & (inside - incoming):
        return ""
    switches = ", ".join(inputs.names.tag[d.id] for d in ahead)
    colour = colour_table(inputs.practice)["stays live"]
    return f"{f', at {switches}' if switches else ''} and in all {colour} wires"


def _elsewhere(inputs: LabelInputs, main: str) -> Iterator[Label]:
    """A plate for every supply that enters from elsewhere: what it gives, where from, and where it lands."""
    label, names = PinLabels(inputs.circuits, inputs.names), inputs.names
    by_name = {source.name: source for source in inputs.sources}
    for device in inputs.circuits.devices:
        own = [live_net for live_net in inputs.live if live_net.source == device.id]
        if not own or not device.kind.can(Can.FOREIGN_SUPPLY):
            continue
        source = next((source for name, source in by_name.items() if name in device.purpose), None)
        volts = f"{device.volts:g} V {'DC' if device.direct else 'AC'}" if device.volts else "A voltage the Brief lacks"
        comes = f" from {source.comes_from}" if source and source.comes_from else " from another panel"
        clamps = {device_id for live_net in own for pin in live_net.pins if (device_id := pin.device) != device.id}
        strips = [d for d in inputs.circuits.devices if d.id in clamps and d.strip]
        at = ", ".join(label(d.pin("f")) for d in strips) or ", ".join(names.tag[d] for d in sorted(clamps))
        text = f"{volts}{comes} at {at}. {main} does not switch it off."
        where = f"where {names.tag[device.id]} enters"
        title = source.name if source else device.purpose.rpartition(", ")[2]
        yield Label(Medium.WARNING, (title.upper(), text), 1, where, DeviceKey(device.id))
