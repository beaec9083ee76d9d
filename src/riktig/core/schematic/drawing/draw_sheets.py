"""Sheets as drawings: symbols, tags and pin numbers; labels are set by ``draw_labels``."""

from dataclasses import dataclass, field

from riktig.core.catalogue import Behaviour, Can
from riktig.core.evaluation import Memory
from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Shape, Text
from riktig.core.job import DeviceId, ElementId, Numbering, PinRef, Practice
from riktig.core.keys import CircuitKey, DeviceKey, ElementKey, Key, NetKey, device_of
from riktig.core.schematic.drawing.draw_labels import LabelPlacer, left_of
from riktig.core.schematic.drawing.draw_notes import write_notes
from riktig.core.schematic.drawing.draw_power import PRINTED, TAG, power_shapes
from riktig.core.schematic.drawing.draw_wires import wire_shapes
from riktig.core.schematic.drawing.label_collisions import LabelCollisions
from riktig.core.schematic.drawing.ladder import LadderLabels
from riktig.core.schematic.drawing.sheet_data import SheetData, has_few_places, is_main
from riktig.core.schematic.drawing.sheet_notes import SheetNotes
from riktig.core.schematic.layout.earth_tree import bars_of, earth_shapes
from riktig.core.schematic.layout.frame import Heading, frame_shapes, legend_shapes, symbols_used
from riktig.core.schematic.layout.ladder_page import LADDER_WIDTH, page_height, turned
from riktig.core.schematic.layout.sheet_model import (
    LINE_GAP,
    SHEET_HEIGHT,
    SHEET_WIDTH,
    Sheet,
    SheetElement,
    SheetKind,
    SheetPlace,
    Sheets,
)
from riktig.core.schematic.model.elements import Circuits, Device, Element, Zone, elements_of
from riktig.core.schematic.netlist.nets import Nets
from riktig.core.schematic.numbering.numbers import Names
from riktig.core.schematic.symbols.choose import symbol_of
from riktig.core.schematic.symbols.iec import converter

__all__ = ["SheetInputs", "SheetPen", "contact_places", "sheets_with"]


@dataclass(frozen=True, slots=True, eq=False)
class SheetInputs:
    """What all sheets are drawn from; the texts are those of the title block."""

    sheets: Sheets
    circuits: Circuits
    nets: Nets
    names: Names
    practice: Practice
    number: str = ""
    title: str = ""
    client: str = ""
    drawing_number: str = ""
    revision: str = ""
    notes: SheetNotes = field(default_factory=SheetNotes)


class SheetPen:
    """All sheets, each drawn when it is asked for; one on which nothing differs is not drawn again.

    Args:
        inputs: What they are drawn from.
        memory: Keeps the drawings of sheets that did not change.
        name: Under which name it keeps them.
    """

    def __init__(self, inputs: SheetInputs, memory: Memory | None = None, name: str = "drawing of a sheet") -> None:
        self._kept = (memory or Memory()).memo(Drawing, name)
        self._sheets = inputs.sheets.sheets
        self._heading = Heading(inputs.number, inputs.title, inputs.client, inputs.drawing_number, inputs.revision)
        numbered = inputs.practice.numbering is Numbering.BY_RUNG
        rungs = {rung.id: number for number, rung in enumerate(inputs.circuits.rungs, 1)} if numbered else {}
        self._pen = _OneSheet(inputs, rungs)

    def drawing(self, index: int) -> Drawing:
        """The sheet in that place (from 0) as marks in mm; keys are ``element:``, ``device:``, ``net:``, ``place:``.

        Raises:
            IndexError: there is no such sheet.
        """
        sheet, count = self._sheets[index], len(self._sheets)
        inputs = (sheet, self._heading, count, self._pen.read_by(sheet))

        def draw() -> Drawing:
            size = (LADDER_WIDTH, page_height(sheet)) if sheet.is_ladder else (SHEET_WIDTH, SHEET_HEIGHT)
            shapes = tuple(frame_shapes(sheet, self._heading, count) + self._pen.sheet(sheet))
            return Drawing(*size, shapes, f"Sheet {sheet.number}: {sheet.title}")

        return self._kept.get(sheet.number, inputs, draw)

    def all(self) -> tuple[Drawing, ...]:
        """Every sheet."""
        return tuple(self.drawing(index) for index in range(len(self._sheets)))


def sheets_with(sheets: Sheets, circuits: Circuits, nets: Nets, key: Key | None) -> tuple[int, ...]:
    """The numbers of the sheets on which what a key names stands.

    Args:
        sheets: The sheets as they are laid out.
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        key: What it stands for; None for nothing that can be selected.
    """
    if isinstance(key, CircuitKey):
        return tuple(sheet.number for sheet in sheets.sheets if key.circuit in sheet.circuits)
    owner = device_of(key)
    net = nets.net(key.net) if isinstance(key, NetKey) else None
    devices = {pin.device for pin in net.pins} if net else set()
    rails = []
    for sheet in sheets.sheets:
        poles = [(pole, seat.element.id) for seat in sheet.seats for pole in seat.element.poles]
        is_here = (
            any(element == key.element for _, element in poles)
            if isinstance(key, ElementKey)
            else any(pole.device == owner or pole.device in devices for pole, _ in poles)
        )
        if is_here or (owner and any(landing.device == owner for landing, _, _ in sheet.landings)):
            rails.append(sheet.number)
    if not rails and owner:
        bonded = any(pin.device == owner for pin in circuits.earths)
        bars = any(d.id == owner and d.kind.can(Can.EARTH_BAR) for d in circuits.devices)
        rails = [s.number for s in sheets.sheets if s.kind is SheetKind.EARTH and (bonded or bars)][:1]
    return tuple(rails)


def contact_places(sheets: Sheets, circuits: Circuits, device: Device) -> list[tuple[str, str]]:
    """Where the contacts of a device are: (unit, place or “spare”), in the order of its units.

    Args:
        sheets: The sheets as they are laid out.
        circuits: All devices and rungs of the job.
        device: The device.
    """
    names: dict[str, str] = {}
    for rung in circuits.rungs:
        for element in elements_of(rung.path):
            for pole in element.poles:
                if pole.device == device.id and element.id in sheets.places:
                    names[pole.unit] = str(sheets.places[element.id])
    return [
        (unit.name, names.get(unit.name, "spare"))
        for unit in device.kind.units
        if unit.behaviour is not Behaviour.COIL and unit.name not in device.kind.own_loops
    ]


@dataclass(slots=True)
class _OneSheet:
    """Draws one sheet at a time from what all of them share."""

    reading: SheetData
    bonded: frozenset[PinRef]
    first: dict[SheetKind, int]

    def __init__(self, inputs: SheetInputs, rungs: dict[str, int]) -> None:
        sheets, circuits, nets = inputs.sheets, inputs.circuits, inputs.nets
        devices = circuits.by_id
        coils: dict[DeviceId, Element] = {}
        first: dict[DeviceId, ElementId] = {}
        used: dict[DeviceId, dict[str, str]] = {}
        for rung in circuits.rungs:
            for element in elements_of(rung.path):
                place = sheets.places.get(element.id)
                for pole in element.poles:
                    if place:
                        used.setdefault(pole.device, {})[pole.unit] = str(place)
                if is_main(devices[element.device], element):
                    first.setdefault(element.device, element.id)
                if devices[element.device].kind.unit(element.poles[0].unit).behaviour is Behaviour.COIL:
                    coils.setdefault(element.device, element)
        coil_ids = {device_id: coil.id for device_id, coil in coils.items()}
        at_coil = {device_id: str(sheets.places[coil]) for device_id, coil in coil_ids.items() if coil in sheets.places}
        by_node = {node: net for net in nets.nets for node in net.nodes}
        elsewhere = {
            device_id: next(iter(used[device_id].values()))
            for device_id, d in devices.items()
            if d.kind.can(Can.DRAWN_ELSEWHERE) and device_id in used
        }
        touched = {device_id: str(place) for device_id, place in sheets.touched.items()}
        self.reading = SheetData(
            devices,
            circuits,
            nets.of_pin,
            by_node,
            inputs.names,
            coils,
            at_coil,
            used,
            elsewhere,
            touched,
            dict(circuits.titles),
            inputs.practice.rulebook.north_american,
            rungs,
            inputs.notes,
            first,
        )
        self.bonded = frozenset(circuits.earths)
        self.first = {s.kind: s.number for s in reversed(sheets.sheets)}

    def read_by(self, sheet: Sheet) -> tuple[object, ...]:
        """Everything a drawing of the sheet reads beside the sheet itself."""
        r = self.reading
        if sheet.kind is SheetKind.EARTH:
            bonded = ((pin, r.devices[pin.device]) for pin in r.circuits.earths)
            sizes = (r.notes.conductors.get(pin) for pin in r.circuits.earths)
            bars = (bar for bar, _ in bars_of(r.circuits))
            points = ((pin, d, r.names.tag[d.id]) for pin, d in bonded)
            return (*points, *sizes, *((b.id, r.names.tag[b.id]) for b in bars))
        if sheet.kind is SheetKind.LEGEND:
            return (r.north_american, *symbols_used(r.circuits))
        notes = r.notes
        inputs: list[object] = [r.north_american, *(r.rungs.get(rung.id) for rung in sheet.rungs)]
        if sheet.bus:
            inputs += notes.supply
        for seat in sheet.seats:
            element = seat.element
            for pole in element.poles:
                device = r.devices[pole.device]
                inputs += (device, r.names.tag[device.id])
                inputs += (notes.ratings.get(device.id), notes.cables.get(device.id), r.first.get(device.id))
                inputs += r.used.get(device.id, {}).values() if has_few_places(device) else ()
                for pin in device.kind.unit(pole.unit).pins:
                    net = r.of_pin.get(device.pin(pin))
                    inputs += (r.said_of(net), notes.conductors.get(device.pin(pin)))
            inputs.append(r.titles.get(r.devices[element.device].circuit))
            inputs += (r.at_coil.get(element.device), r.elsewhere.get(element.device), r.touched.get(element.device))
            if r.coils.get(element.device) == element:
                inputs += r.used.get(element.device, {}).items()
        if sheet.bus:
            inputs += (r.names.tag[device_id] for device_id, d in r.devices.items() if d.kind.can(Can.DISTRIBUTES))
        for landing, _, _ in sheet.landings:
            inputs += (r.devices[landing.device], r.names.tag[landing.device], r.elsewhere.get(landing.device))
            inputs += (str(r.touched.get(landing.device)), notes.ratings.get(landing.device))
            inputs.append(notes.cables.get(landing.device))
        for rail in sheet.rails:
            inputs.append(r.said_of(r.by_node.get(rail.node) or (r.of_pin.get(rail.pin) if rail.pin else None)))
        if sheet.bus:
            inputs += (r.said_of(r.by_node.get(node)) for node in sheet.bus.nodes)
        return tuple(inputs)

    def sheet(self, sheet: Sheet) -> list[Shape]:
        """Everything on a sheet but its frame: what is fixed first, then labels where nothing stands yet."""
        r = self.reading
        if sheet.kind is SheetKind.EARTH:
            conductors = r.notes.conductors
            return earth_shapes(
                r.circuits,
                r.names.tag,
                r.devices,
                sheet.number - self.first[SheetKind.EARTH],
                lambda pin: conductors[pin].size if pin in conductors else "",
            )
        if sheet.kind is SheetKind.LEGEND:
            return legend_shapes(
                r.circuits, sheet.number - self.first[SheetKind.LEGEND], north_american=r.north_american
            )
        if sheet.is_ladder:
            return self._ladder(sheet)
        collisions = LabelCollisions()
        collisions.add(wire_shapes(sheet, r.devices, r.of_pin))
        for seat in sheet.seats:
            collisions.add(self._symbols(seat, sheet))
        collisions.add([Circle(x, y, 0.8, fill="ink", layer="circuit") for x, y in sheet.dots])
        if sheet.bus:
            there = {device_id: SheetPlace(*_split(text)) for device_id, text in r.elsewhere.items()}
            collisions.add(power_shapes(sheet, r.devices, r.names.tag, there, collisions, r.rung_name))
        else:
            collisions.add(self._landings(sheet))
        LabelPlacer(r, sheet, collisions, self.bonded).set_all()
        write_notes(r, sheet, collisions)
        return collisions.shapes

    def _ladder(self, sheet: Sheet) -> list[Shape]:
        """A control sheet whose paths run level: turned, and labelled anew."""
        r = self.reading
        drawn: list[Shape] = list(wire_shapes(sheet, r.devices, r.of_pin))
        for seat in sheet.seats:
            for index, pole in enumerate(seat.element.poles):
                draw = symbol_of(r.devices[pole.device].kind_id, pole.unit, r.north_american)
                drawn += draw(seat.x + index * LINE_GAP, seat.top, seat.bottom, ElementKey(seat.element.id))
        drawn += [Circle(x, y, 0.8, fill="ink", layer="circuit") for x, y in sheet.dots]
        drawn += [
            Circle(x, y + 1.4, 1.0, fill="paper", width=0.35, layer="circuit", key=DeviceKey(landing.device))
            for landing, x, y in sheet.landings
        ]
        collisions = LabelCollisions()
        collisions.add([turned(shape) for shape in drawn])
        LadderLabels(r, sheet, collisions).set_all()
        write_notes(r, sheet, collisions)
        return collisions.shapes

    def _symbols(self, seat: SheetElement, sheet: Sheet) -> list[Shape]:
        """An element with its tag and pin numbers."""
        r, element = self.reading, seat.element
        device = r.devices[element.device]
        key = ElementKey(element.id)
        shapes: list[Shape] = []
        last = seat.x + (len(element.poles) - 1) * LINE_GAP
        whole = len(element.poles) > 1 and device.kind.can(Can.ELECTRONIC_STARTER)
        if whole:
            soft = device.kind.can(Can.STARTS_SOFTLY)
            shapes += converter(seat.x, last, seat.top, seat.bottom, key, soft=soft)
        for index, pole in enumerate(element.poles):
            x = seat.x + index * LINE_GAP
            owner = r.devices[pole.device]
            shapes += (
                [] if whole else symbol_of(owner.kind_id, pole.unit, r.north_american)(x, seat.top, seat.bottom, key)
            )
            if owner.strip:
                y = (seat.top + seat.bottom) / 2
                shapes.append(Text(x + 1.8, y + 1.2, owner.mark, PRINTED, face=Face.PRINTED, key=key))
            else:
                shapes += _pins(owner, pole.unit, pole.flipped, x, seat, key)
        y = (seat.top + seat.bottom) / 2
        if len(element.poles) > 1 and not whole and not device.strip and not device.kind.can(Can.OVERLOAD):
            shapes.append(Line(seat.x - 2, y, last - 2, y, width=0.2, dashed=True, layer="circuit"))
        return shapes + self._tag(device, seat, sheet, key)

    def _tag(self, device: Device, seat: SheetElement, sheet: Sheet, key: Key | None) -> list[Shape]:
        y = (seat.top + seat.bottom) / 2
        tag = self.reading.names.tag[device.id]
        if device.strip:
            above = sheet.bus is not None and seat.top < sheet.bus.y and device.role.rpartition(".")[2] != "L1"
            if device.mark in ("N", "PE") or above:
                return []
            return [Text(seat.x - 4, y + 1.2, tag, TAG, align=Align.RIGHT, face=Face.PRINTED_BOLD, key=key)]
        x = left_of(device, seat)
        return [Text(x, y - 0.4, tag, TAG, align=Align.RIGHT, face=Face.PRINTED_BOLD, key=key)]

    def _landings(self, sheet: Sheet) -> list[Shape]:
        """Pins that a control path only touches: named with their device and where else it is drawn."""
        shapes: list[Shape] = []
        for landing, x, y in sheet.landings:
            device = self.reading.devices[landing.device]
            key = DeviceKey(device.id)
            name = f"{self.reading.names.tag[device.id]}:{landing.pins[0]}"
            shapes += [
                Circle(x, y + 1.4, 1.0, fill="paper", width=0.35, layer="circuit", key=key),
                Text(x + 2.4, y + 2.4, name, PRINTED, face=Face.PRINTED_BOLD, key=key),
            ]
            if device.zone is not Zone.PLATE:
                shapes.append(Text(x + 2.4, y + 5.6, device.zone.value, 2.6, "third", key=key))
        return shapes


def _split(place: str) -> tuple[int, int, str, int]:
    if place.startswith("line "):
        return 0, 0, "", int(place.removeprefix("line "))
    sheet, _, column = place.partition(".")
    return int(sheet), int(column), "", 0


def _pins(owner: Device, unit: str, flipped: bool, x: float, seat: SheetElement, key: Key | None) -> list[Shape]:
    own_unit = owner.kind.unit(unit)
    upper, lower = (own_unit.pins[-1], own_unit.pins[0]) if flipped else (own_unit.pins[0], own_unit.pins[-1])
    y = (seat.top + seat.bottom) / 2
    right = _PIN_RIGHT.get(own_unit.symbol) or _PIN_BY_BEHAVIOUR.get(own_unit.behaviour, 1.4)
    if len(seat.element.poles) > 1 or owner.kind.can(Can.RESIDUAL):
        right = max(right, 2.2)
    if len(seat.element.poles) > 1 and own_unit.symbol in ("soft", "drive"):
        spots = ((y - 4.8, upper), (y + 7.4, lower))
        return [Text(x + 1.2, at, pin, PRINTED, "second", Face.PRINTED, key=key) for at, pin in spots]
    rise = 3.4 if right > 4 else min(5.6, max((seat.bottom - seat.top) / 2 - 2.6, 3.6))
    up = y - rise if right < 4 else y - 1.6
    return [
        Text(x + right, up + 0.6, upper, PRINTED, "second", Face.PRINTED, key=key),
        Text(x + right, y + rise + 0.9, lower, PRINTED, "second", Face.PRINTED, key=key),
    ]


_PIN_RIGHT = {
    "fuse": 2.4,
    "isolator": 2.6,
    "link": 2.2,
    "winding": 2.6,
    "source winding": 2.6,
    "box": 5.8,
    "rectifier": 5.8,
    "direct": 5.8,
    "signal": 5.8,
    "fan": 5.8,
    "foreign": 5.8,
    "output": 5.8,
    "soft": 5.4,
    "drive": 5.4,
    "resistor": 3.0,
    "buzzer": 2.6,
    "socket": 4.4,
    "coil": 6.4,
    "lamp": 4.8,
    "test": 4.8,
}
_PIN_BY_BEHAVIOUR = {
    Behaviour.COIL: 6.4,
    Behaviour.LAMP: 4.8,
    Behaviour.NC: 3.9,
    Behaviour.HEATER: 3.4,
    Behaviour.INPUT: 5.8,
    Behaviour.LOAD: 5.8,
}
