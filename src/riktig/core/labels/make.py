"""What text goes on what, in how many copies, on which medium, at its true size."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import Enum

from riktig.core.catalogue import Can
from riktig.core.door import LEGEND_PLATE, NAMEPLATE, on_door
from riktig.core.job import Enclosure, MarkedWires, MarkerText, Practice, Source, Supply
from riktig.core.keys import DeviceKey, Key, PartKey, PieceKey, WireKey
from riktig.core.plate import Piece
from riktig.core.schematic import Circuits, Names, PinLabels, Zone
from riktig.core.simulation import MAINS, LiveNet
from riktig.core.sizing import Sizing
from riktig.core.terminals import Strips
from riktig.core.wiring import Wiring

__all__ = [
    "Label",
    "LabelInputs",
    "Labels",
    "Medium",
    "NameplateField",
    "NameplateInputs",
    "make_labels",
    "nameplate_fields",
]


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
    Medium.DEVICE: (27.0, 9.0),
    Medium.WIRE: (12.0, 4.0),
    Medium.TERMINAL: (6.0, 10.0),
    Medium.CABLE: (40.0, 10.0),
    Medium.PIECE: (40.0, 9.0),
    Medium.LEGEND: LEGEND_PLATE,
    Medium.WARNING: (100.0, 30.0),
    Medium.NAMEPLATE: NAMEPLATE,
}
"""Width and height, mm (chosen by us: common sizes of print media, no source)."""

LONGEST_MARKER = 15
"""Characters a wire marker of ours holds at the smallest type (chosen by us)."""


MOST_LIVE = 6
"""Tags on a warning plate (chosen by us: two lines)."""


@dataclass(frozen=True, slots=True)
class Label:
    """A label: its lines of text, how many copies, and the key of what it goes on."""

    medium: Medium
    lines: tuple[str, ...]
    copies: int
    where: str
    key: Key | None

    @property
    def size(self) -> tuple[float, float]:
        """Width and height, mm."""
        return SIZES[self.medium]


@dataclass(frozen=True, slots=True)
class NameplateField:
    """One thing the nameplate says. Required by the rulebook or not."""

    name: str
    value: str
    required: bool


@dataclass(frozen=True, slots=True)
class Labels:
    """All labels, in the order they are put on, and the fields of the nameplate."""

    labels: tuple[Label, ...]
    nameplate: tuple[NameplateField, ...]

    def on(self, medium: Medium) -> tuple[Label, ...]:
        """Those on one medium."""
        return tuple(label for label in self.labels if label.medium is medium)


@dataclass(frozen=True, slots=True, eq=False)
class NameplateInputs:
    """What a nameplate says it of: the texts of the job, and what is behind its ratings."""

    maker: str
    number: str
    serial: str
    drawing_number: str
    supply: Supply
    enclosure: Enclosure
    sizing: Sizing


def nameplate_fields(inputs: NameplateInputs) -> tuple[NameplateField, ...]:
    """What the nameplate says.

    Source:
        IEC 60204-1:2016 16.4 and IEC 61439-1 6.1, from memory.
    """
    supply, sizing = inputs.supply, inputs.sizing
    largest = f"{sizing.largest_a:g} A" if sizing.largest_a else ""
    return (
        NameplateField("Maker", inputs.maker, True),
        NameplateField("Designation", inputs.number, True),
        NameplateField("Serial number", inputs.serial, True),
        NameplateField("Document", inputs.drawing_number, True),
        NameplateField("Supply", f"{supply.system_name} {supply.voltage_name} {supply.frequency_hz:g} Hz", True),
        NameplateField("Full-load current", f"{sizing.full_load_a:g} A", True),
        NameplateField("Largest motor", largest, False),
        NameplateField("Prospective fault current", f"{supply.fault_ka:g} kA", False),
        NameplateField("Degree of protection", inputs.enclosure.rating, False),
    )


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
    pieces: tuple[Piece, ...] = ()
    """What is cut of rail, duct and lids: each carries its name and length."""


def make_labels(inputs: LabelInputs) -> Labels:
    """Every label of the panel. Wire markers come in pairs, in the order of the batches."""
    circuits, names, strips, fields = inputs.circuits, inputs.names, inputs.strips, inputs.fields
    labels = [*_of_devices(circuits, names), *_of_wires(inputs.wiring, names, inputs.practice), *_of_strips(strips)]
    for piece in inputs.pieces:
        length = f"{piece.length:g} mm {piece.place}"
        labels.append(Label(Medium.PIECE, (piece.name, length), 1, "on the piece", PieceKey(piece.name)))
    labels += _warnings(strips, circuits, names, inputs.supply, inputs.live)
    for source in inputs.sources:
        words = f"{source.voltage_v:g} V from {source.comes_from or 'elsewhere'}: stays live with the main switch off"
        labels.append(
            Label(Medium.WARNING, (source.name.upper(), words), 1, "door and where it enters", PartKey("sources"))
        )
    lines = tuple(f"{field.name}: {field.value}" for field in fields if field.value)
    labels.append(Label(Medium.NAMEPLATE, lines, 1, "door, outside", PartKey("nameplate")))
    return Labels(tuple(labels), fields)


def _of_devices(circuits: Circuits, names: Names) -> Iterator[Label]:
    for device in circuits.devices:
        tag = names.tag[device.id]
        if device.zone is Zone.PLATE and not device.strip:
            yield Label(Medium.DEVICE, (tag, device.purpose), 1, "plate", DeviceKey(device.id))
        if device.zone is Zone.DOOR and device.kind.can(Can.EARTH_STUD):
            yield Label(Medium.DEVICE, (tag, device.purpose), 1, "door", DeviceKey(device.id))
        if on_door(device) or device.kind.can(Can.MAIN_SWITCH):
            yield Label(Medium.LEGEND, (device.legend,), 1, f"door, {tag}", DeviceKey(device.id))


def _of_wires(wiring: Wiring, names: Names, practice: Practice) -> Iterator[Label]:
    """A marker for both ends of every wire that the practice wants marked."""
    for wire in wiring.wires:
        if (practice.marked is MarkedWires.IN_DUCT and not wire.ducts) or wire.net not in names.number:
            continue
        for end, far in ((wire.start, wire.end), (wire.end, wire.start)):
            text = wire.number
            if practice.marker is MarkerText.NUMBER_AND_FAR_END:
                text = f"{wire.number} {far.label}"
            yield Label(Medium.WIRE, (text,), 1, f"at {end.label}", WireKey(wire.key))


def _of_strips(strips: Strips) -> Iterator[Label]:
    for strip in strips.strips:
        yield Label(Medium.DEVICE, (strip.tag, strip.purpose), 1, "strip", DeviceKey(strip.rows[0].device))
        for row in strip.rows:
            yield Label(Medium.TERMINAL, (row.mark,), 2, f"{strip.tag}, {row.position}", DeviceKey(row.device))
    for cable in strips.cables:
        yield Label(Medium.CABLE, (cable.tag, cable.make_up), 2, "both ends", DeviceKey(cable.device))


def _warnings(
    strips: Strips, circuits: Circuits, names: Names, supply: Supply, live: tuple[LiveNet, ...]
) -> Iterator[Label]:
    """What stays live with the main switch off: a plate over the incoming terminals, and one at each other place."""
    for tag in (strip.tag for strip in strips.strips if strip.purpose == "incoming supply"):
        main = next((names.tag[d.id] for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH)), "")
        also = _also(live, circuits, names, {tag, main})
        text = f"{supply.voltage_name}: {tag} and {main}:1 3 5 {also}stay live with {main} off"
        yield Label(Medium.WARNING, (supply.name.upper(), text), 1, f"over {tag}", PartKey("warning"))
    yield from _elsewhere(live, circuits, names)


def _also(live: tuple[LiveNet, ...], circuits: Circuits, names: Names, told: set[str]) -> str:
    """What else the incoming supply keeps live: the tags of a few devices, “and more” beyond; or empty."""
    inside = {device.id for device in circuits.devices if device.zone is not Zone.FIELD}
    owners = (pin.device for live_net in live if live_net.source == MAINS for pin in live_net.pins)
    tags = [tag for tag in dict.fromkeys(names.tag[did] for did in owners if did in inside) if tag not in told]
    if not tags:
        return ""
    return f"and {', '.join(tags[:MOST_LIVE])}{' and more' if len(tags) > MOST_LIVE else ''} "


def _elsewhere(live: tuple[LiveNet, ...], circuits: Circuits, names: Names) -> Iterator[Label]:
    """A plate for every supply that enters from elsewhere: its voltage, and the clamps that it keeps live."""
    main = next((names.tag[d.id] for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH)), "the main switch")
    label = PinLabels(circuits, names)
    for device in circuits.devices:
        own = [own for own in live if own.source == device.id]
        if not own:
            continue
        pins = dict.fromkeys(label(pin) for live_net in own for pin in live_net.pins if pin.device != device.id)
        first = ", ".join(list(pins)[:MOST_LIVE]) + (" and more" if len(pins) > MOST_LIVE else "")
        text = f"{own[0].volts:g} V: {first} stay live with {main} off"
        yield Label(
            Medium.WARNING,
            (device.purpose.upper(), text),
            1,
            f"where {names.tag[device.id]} enters",
            DeviceKey(device.id),
        )
