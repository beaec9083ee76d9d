"""Sheets as drawings: symbols, tags, pin and net numbers, rails, arrows, contact mirrors."""

from riktig.core.catalogue import Behaviour
from riktig.core.circuit.draw_frame import Heading, broken, frame_marks, legend_marks
from riktig.core.circuit.draw_power import PRINTED, SMALL, TAG, power_marks
from riktig.core.circuit.draw_wires import wire_marks
from riktig.core.circuit.ground import Ground
from riktig.core.circuit.model import Circuits, Device, Element, Zone, elements_of
from riktig.core.circuit.nets import Net, NetClass, Nets
from riktig.core.circuit.numbers import Names
from riktig.core.circuit.power_sheets import BUS_GAP, BUS_TOP, is_bus
from riktig.core.circuit.sheet_model import (
    FIRST_X,
    FIRST_Y,
    FRAME_BOTTOM,
    LINE_GAP,
    RAIL_BOTTOM,
    RAIL_TOP,
    SHEET_HEIGHT,
    SHEET_WIDTH,
    TAP_TOP,
    Arrow,
    Place,
    Rail,
    Seat,
    Sheet,
    SheetKind,
    Sheets,
)
from riktig.core.circuit.symbols import earth_sign, symbol_of
from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Mark, Text, bounds_of
from riktig.core.job import DeviceId, PinId, Practice, pin_id

__all__ = ["contact_places", "draw_all", "io_address"]

CORE = 2.2
"""Capital height of the name of a conductor out to a motor: three stand side by side, mm."""
MAIN_POLES = ("1-2", "3-4", "5-6")
MIRROR_STEP = 3.4
"""From one line of a contact mirror to the next, mm."""
ROOMY = 15.5
"""Height of an element from which the number of its net stands on the line, not beside it, mm."""


def draw_all(
    sheets: Sheets,
    circuits: Circuits,
    nets: Nets,
    names: Names,
    practice: Practice,
    number: str,
    title: str,
    client: str,
    drawing_number: str,
    revision: str,
) -> tuple[Drawing, ...]:
    """All sheets as marks in mm; keys are ``element:``, ``device:`` and ``net:`` and the id."""
    heading = Heading(number, title, client, drawing_number, revision)
    pen = _Pen(sheets, circuits, nets, names, practice.rulebook.north_american)
    return tuple(
        Drawing(
            SHEET_WIDTH,
            SHEET_HEIGHT,
            tuple(frame_marks(sheet, heading, len(sheets.sheets)) + pen.sheet(sheet)),
            f"Sheet {sheet.number}: {sheet.title}",
        )
        for sheet in sheets.sheets
    )


def contact_places(sheets: Sheets, circuits: Circuits, device: Device) -> list[tuple[str, str]]:
    """Where the contacts of a device are: (unit, place or “spare”), in the order of its units."""
    found: dict[str, str] = {}
    for rung in circuits.rungs:
        for one in elements_of(rung.path):
            for pole in one.poles:
                if pole.device == device.id and one.id in sheets.places:
                    found[pole.unit] = str(sheets.places[one.id])
    return _with_spares(device, found)


def _with_spares(device: Device, found: dict[str, str]) -> list[tuple[str, str]]:
    return [
        (unit.name, found.get(unit.name, "spare")) for unit in device.kind.units if unit.behaviour is not Behaviour.COIL
    ]


def io_address(device: Device, unit: str) -> str:
    """The address of a point of an input or output card: “%IX0.3”; empty for anything else."""
    words = device.purpose.split(", ")[-1].split()
    if device.kind_id not in ("inputs", "outputs") or len(words) < 2 or not words[1].startswith("%"):
        return ""
    point = unit.split("-")[0 if device.kind_id == "inputs" else 1][1:]
    return f"{words[1].rsplit('.', 1)[0]}.{point}"


class _Pen:
    def __init__(self, sheets: Sheets, circuits: Circuits, nets: Nets, names: Names, north_american: bool) -> None:
        self._sheets, self._circuits, self._nets, self._names = sheets, circuits, nets, names
        self._american = north_american
        self._devices = {device.id: device for device in circuits.devices}
        self._coils: dict[DeviceId, Element] = {}
        self._used: dict[DeviceId, dict[str, str]] = {}
        for rung in circuits.rungs:
            for one in elements_of(rung.path):
                unit = self._devices[one.device].kind.unit(one.poles[0].unit)
                if unit.behaviour is Behaviour.COIL:
                    self._coils.setdefault(one.device, one)
                if one.id in sheets.places:
                    for pole in one.poles:
                        self._used.setdefault(pole.device, {})[pole.unit] = str(sheets.places[one.id])
        self._by_node = {node: net for net in nets.nets for node in net.nodes}
        self._bonded = set(circuits.earths)

    def sheet(self, sheet: Sheet) -> list[Mark]:
        """Everything on a sheet but its frame: what is fixed first, then labels where nothing stands yet."""
        if sheet.kind is SheetKind.LEGEND:
            return legend_marks(self._circuits, north_american=self._american)
        self._power = sheet.kind is SheetKind.POWER
        self._numbered: set[PinId] = set()
        self._joints = [*sheet.dots]
        for wire in sheet.wires:
            if wire.y1 == wire.y2:
                self._joints += [(wire.x1, wire.y1), (wire.x2, wire.y2)]
        self._ground = Ground()
        self._ground.add(wire_marks(sheet, self._devices, self._nets))
        for seat in sheet.seats:
            self._ground.add(self._symbols(seat))
        self._ground.add([Circle(x, y, 0.8, fill="ink", layer="circuit") for x, y in sheet.dots])
        if self._power:
            self._ground.add(power_marks(sheet, self._devices, self._names.tag, self._elsewhere(), self._ground))
        else:
            self._ground.add(self._landings(sheet))
            for seat in sheet.seats:
                if self._coils.get(seat.element.device) is seat.element:
                    self._ground.add(self._mirror(self._devices[seat.element.device], seat.x))
        for rail in sheet.rails:
            self._ground.add(self._rail(rail))
        for arrow in sheet.arrows:
            self._ground.add(self._arrow(arrow))
        for seat in sheet.seats:
            self._ground.add(self._said(seat))
        for seat in sheet.seats:
            self._numbers(seat)
        return self._ground.marks

    def _elsewhere(self) -> dict[DeviceId, Place]:
        """Where the other part of a device stands that a power sheet shows as a box."""
        return {
            one.device: self._sheets.places[one.id]
            for rung in self._circuits.rungs
            for one in elements_of(rung.path)
            if self._devices[one.device].kind_id in ELSEWHERE and one.id in self._sheets.places
        }

    def _symbols(self, seat: Seat) -> list[Mark]:
        """An element with its tag and pin numbers."""
        one = seat.element
        device = self._devices[one.device]
        key = f"element:{one.id}"
        marks: list[Mark] = []
        for index, pole in enumerate(one.poles):
            x = seat.x + index * LINE_GAP
            owner = self._devices[pole.device]
            marks += symbol_of(owner.kind_id, pole.unit, self._american)(x, seat.top, seat.bottom, key)
            if owner.strip:
                y = (seat.top + seat.bottom) / 2
                marks.append(Text(x + 1.8, y + 1.2, owner.mark, PRINTED, face=Face.PRINTED, key=key))
            else:
                marks += self._pins(owner, pole.unit, pole.flipped, x, seat, key)
        y = (seat.top + seat.bottom) / 2
        if len(one.poles) > 1 and not device.strip and device.kind.family != "overload":
            far = seat.x + (len(one.poles) - 1) * LINE_GAP
            marks.append(Line(seat.x - 2, y, far - 2, y, width=0.2, dashed=True, layer="circuit"))
        return marks + self._tag(device, seat, key)

    def _tag(self, device: Device, seat: Seat, key: str) -> list[Mark]:
        y = (seat.top + seat.bottom) / 2
        tag = self._names.tag[device.id]
        if device.strip:
            if device.mark in ("N", "PE") or (seat.top < BUS_TOP and self._power and device.mark != "L1"):
                return []
            return [Text(seat.x - 4, y + 1.2, tag, TAG, align=Align.RIGHT, face=Face.PRINTED_BOLD, key=key)]
        x = self._left(device, seat)
        return [Text(x, y - 0.4, tag, TAG, align=Align.RIGHT, face=Face.PRINTED_BOLD, key=key)]

    def _left(self, device: Device, seat: Seat) -> float:
        unit = device.kind.unit(seat.element.poles[0].unit)
        return seat.x - (12.0 if unit.symbol in WIDE and len(seat.element.poles) == 1 else 7.0)

    def _said(self, seat: Seat) -> list[Mark]:
        """What is said under a tag, in as many lines and as large as there is room for."""
        device = self._devices[seat.element.device]
        if device.strip:
            return []
        key = f"element:{seat.element.id}"
        x, y = self._left(device, seat), (seat.top + seat.bottom) / 2 + 3.4
        words = self._words(device, seat.element)
        zone = [] if device.zone is Zone.PLATE else [device.zone.value]
        for most, size, down in ((12, SMALL, 0), (9, SMALL, 0), (8, 2.2, 0), (9, 2.2, 4.6), (6, 2.2, 0)):
            lines = broken(words, most)
            for said in (lines + zone, lines, lines[:2], lines[:1]):
                marks = [
                    Text(
                        x,
                        y + down + n * size * 1.24,
                        part,
                        size if part not in zone else min(size, 2.2),
                        "third" if part in zone else "second",
                        align=Align.RIGHT,
                        key=key,
                    )
                    for n, part in enumerate(said)
                ]
                whole = len(said) >= len(lines) or most == 6
                if whole and all(self._ground.free(mark) and bounds_of(mark).x > FIRST_X for mark in marks):
                    return list(marks)
        return []

    def _words(self, device: Device, element: Element) -> str:
        """What is said under a tag: where the coil is, the address of a point, or what it is for."""
        address = io_address(device, element.poles[0].unit)
        if address:
            return address
        coil = self._coils.get(device.id)
        if coil and element.id != coil.id:
            return f"coil {self._sheets.places[coil.id]}"
        there = self._sheets.touched.get(device.id)
        if device.kind_id in ELSEWHERE and there and not self._power:
            return f"also {there}"
        return device.purpose.split(", ")[-1]

    def _pins(self, owner: Device, unit: str, flipped: bool, x: float, seat: Seat, key: str) -> list[Mark]:
        one = owner.kind.unit(unit)
        upper, lower = (one.pins[-1], one.pins[0]) if flipped else (one.pins[0], one.pins[-1])
        y = (seat.top + seat.bottom) / 2
        right = _PIN_RIGHT.get(one.symbol) or _PIN_BY_BEHAVIOUR.get(one.behaviour, 1.4)
        if len(seat.element.poles) > 1 and right < 2.2:
            right = 2.2
        rise = 3.4 if right > 4 else min(5.6, (seat.bottom - seat.top) / 2 - 2.2)
        up = y - rise if right < 4 else y - 1.6
        return [
            Text(x + right, up + 0.6, upper, PRINTED, "second", Face.PRINTED, key=key),
            Text(x + right, y + rise + 0.9, lower, PRINTED, "second", Face.PRINTED, key=key),
        ]

    def _numbers(self, seat: Seat) -> None:
        """The number of each net where it first can be written without touching another label."""
        for index, pole in enumerate(seat.element.poles):
            x = seat.x + index * LINE_GAP
            owner = self._devices[pole.device]
            pins = owner.kind.unit(pole.unit).pins
            ends = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
            incoming = self._power and owner.mark in ("L1", "L2", "L3") and seat.top < BUS_TOP
            for pin, y in zip(ends, (seat.top, seat.bottom), strict=True):
                net = self._nets.of_pin.get(pin_id(pole.device, pin))
                below = owner.kind.family == "overload" and y == seat.bottom
                above = bool(owner.strip) and y == seat.top
                leg = self._power and not owner.strip and net is not None and self._is_leg(net)
                if not (self._power and (below or above or leg or incoming)):
                    self._number(net, x, y, seat)

    def _is_leg(self, net: Net) -> bool:
        """Whether a net is a motor's own conductor, which is named at its terminal."""
        return any(self._devices[DeviceId(p.rsplit(":", 1)[0])].kind.is_motor for p in net.pins)

    def _number(self, net: Net | None, x: float, y: float, seat: Seat) -> None:
        number = self._names.number.get(net.id, "") if net else ""
        if not net or not number or net.id in self._numbered or net.net_class in (NetClass.EARTH, NetClass.NEUTRAL):
            return
        if number in ("L1", "L2", "L3") or (not self._power and y in (RAIL_TOP, RAIL_BOTTOM)):
            return
        if any(abs(x - dx) < 1 and abs(y - dy) < 1 for dx, dy in self._joints):
            return
        key = f"net:{net.id}"
        leg = self._power and self._is_leg(net)
        beside = Text(
            x - 1.2, y + (2.2 if leg else 1.0), number, CORE if leg else PRINTED, face=Face.PRINTED,
            align=Align.RIGHT, key=key, backed=True,
        )  # fmt: skip
        on = Text(x, y + 1.2, number, PRINTED, face=Face.PRINTED, align=Align.MIDDLE, key=key, backed=True)
        roomy = not self._power and seat.bottom - seat.top >= ROOMY
        for spot in (on, beside) if roomy else (beside, on) if not self._power else (beside,):
            if self._ground.clear(spot):
                self._numbered.add(net.id)
                self._ground.add([spot])
                return

    def _rail(self, rail: Rail) -> list[Mark]:
        """The name of a node at the left end of its stretch, and what shows that it ends in earth."""
        net = self._by_node.get(rail.node) or (self._nets.of_pin.get(rail.pin) if rail.pin else None)
        if is_bus(rail.node) and rail.y not in (RAIL_TOP, RAIL_BOTTOM, TAP_TOP):
            return []
        name = self._names.number.get(net.id, "") if net else ""
        if net and net.net_class is NetClass.EARTH:
            name = "PE"
        marks: list[Mark] = []
        if net and net.id not in self._numbered:
            self._numbered.add(net.id)
        if not rail.top and net and self._bonded & set(net.pins) and net.net_class is NetClass.EARTH:
            return [*earth_sign(rail.x1, rail.y + 3.4)]
        y = rail.y - 1.4 if rail.top else rail.y + 3.6
        x = rail.x1 - 1.6
        if rail.y == TAP_TOP:
            y += 3.4
        marks.append(
            Text(x, y, name, PRINTED, face=Face.PRINTED, align=Align.RIGHT, key=f"net:{net.id}" if net else "")
        )
        return marks

    def _arrow(self, arrow: Arrow) -> list[Mark]:
        """Where a node goes on or comes from: the place of its partner, beside an arrow head."""
        words = f"{'to' if arrow.onward else 'from'} {arrow.to}"
        align = Align.LEFT if arrow.onward else Align.RIGHT
        key = f"place:{arrow.to.full}"
        x = arrow.x + (2.0 if arrow.onward else -2.0)
        if not arrow.onward and arrow.y == TAP_TOP:
            x -= 5.0
        if arrow.y == 0.0:
            spots = [Text(x, BUS_TOP + BUS_GAP + 0.9, words, SMALL, "act", align=align, key=key)]
        else:
            spots = [
                Text(x, arrow.y + dy, words, SMALL, "act", align=align, key=key)
                for dy in (1.0, 4.2, -2.6, 7.4, -5.8, 10.6, -9.0, 13.8)
                if FIRST_Y + 3 < arrow.y + dy < FRAME_BOTTOM - 1
            ]
        return [next((spot for spot in spots if self._ground.free(spot)), spots[0])]

    def _landings(self, sheet: Sheet) -> list[Mark]:
        """Pins that a control path only touches: named with their device and where else it is drawn."""
        marks: list[Mark] = []
        for landing, x, y in sheet.landings:
            device = self._devices[landing.device]
            key = f"device:{device.id}"
            name = f"{self._names.tag[device.id]}:{landing.pins[0]}"
            marks += [
                Circle(x, y + 1.4, 1.0, fill="paper", width=0.35, layer="circuit", key=key),
                Text(x + 2.4, y + 2.4, name, PRINTED, face=Face.PRINTED_BOLD, key=key),
            ]
        return marks

    def _mirror(self, device: Device, x: float) -> list[Mark]:
        """Under a coil: where its contacts are, the main poles in one line, the spare ones in the last."""
        rows = _with_spares(device, self._used.get(device.id, {}))
        used = [row for row in rows if row[1] != "spare"]
        poles = [place for unit, place in used if unit in MAIN_POLES]
        if len(poles) == len(MAIN_POLES) and len(set(poles)) == 1:
            used = [("1 to 6", poles[0]), *(row for row in used if row[0] not in MAIN_POLES)]
        spare = [unit for unit, place in rows if place == "spare" and unit not in MAIN_POLES]
        marks: list[Mark] = []
        top = RAIL_BOTTOM + 7.6
        step = min(MIRROR_STEP, 13.5 / max(len(used) + bool(spare) - 1, 1))
        size = min(PRINTED, step * 0.8)
        for index, (unit, place) in enumerate(used):
            y = top + index * step
            marks += [
                Text(x - 9, y, unit, size, "second", Face.PRINTED),
                Text(x + 6.4, y, place, size, "act", key=f"place:{place}"),
            ]
        if spare:
            text = "spare " + " ".join(unit.split("-")[0] for unit in spare)
            marks.append(Text(x - 9, top + len(used) * step, text, size, "third"))
        return marks


WIDE = {"push", "turn", "key", "mushroom", "float", "limit", "temperature", "trip", "delay"}
"""Symbols with a sign at their left."""
ELSEWHERE = ("transformer", "phase_monitor", "surge")
"""Devices of which a power sheet shows one part and a control sheet another."""
_PIN_RIGHT = {
    "fuse": 2.4,
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
