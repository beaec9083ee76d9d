"""Sheets as drawings: ruler, symbols, tags, pin and net numbers, cross references."""

from riktig.core.catalogue import Behaviour
from riktig.core.circuit.draw_power import PRINTED, SMALL, TAG, power_marks
from riktig.core.circuit.model import Circuits, Device, Element, elements_of
from riktig.core.circuit.nets import Nets
from riktig.core.circuit.numbers import Names
from riktig.core.circuit.sheets import (
    COLUMN,
    FIRST_X,
    FIRST_Y,
    LINE_GAP,
    RAIL_BOTTOM,
    RAIL_TOP,
    ROW,
    SHEET_HEIGHT,
    SHEET_WIDTH,
    TAP_TOP,
    Seat,
    Sheet,
    Sheets,
)
from riktig.core.circuit.symbols import symbol_of
from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Mark, Point, Poly, Text
from riktig.core.job import DeviceId, PinId, pin_id

__all__ = ["contact_places", "draw_sheet"]

CORE = 2.2
"""Capital height of the name of a conductor out to a motor: three stand side by side, mm."""
LONGEST_WORD = 10
"""Characters of a word beside a symbol before it goes on to a second line."""
MAIN_POLES = ("1-2", "3-4", "5-6")
MIRROR_STEP = 3.4
"""From one line of a contact mirror to the next, mm."""
ROOMY = 15.5
"""Height of an element from which the number of its net stands on the line, not beside it, mm."""


def draw_sheet(sheet: Sheet, sheets: Sheets, circuits: Circuits, nets: Nets, names: Names) -> Drawing:
    """One sheet as marks in mm; keys are ``element:``, ``device:`` and ``net:`` and the id."""
    pen = _Pen(sheet, sheets, circuits, nets, names)
    marks = _frame(sheet)
    for wire in sheet.wires:
        marks.append(Line(wire.x1, wire.y1, wire.x2, wire.y2, width=0.35, layer="circuit"))
    for seat in sheet.seats:
        marks += pen.seat(seat)
    marks += [Circle(x, y, 0.8, fill="ink", layer="circuit") for x, y in sheet.dots]
    if sheet.circuit is None:
        devices = {device.id: device for device in circuits.devices}
        on = [str(s.number) for s in sheets.sheets if s.circuit]
        marks += power_marks(sheet, devices, names.tag, on)
    else:
        marks += pen.control_extras(sheet)
    return Drawing(SHEET_WIDTH, SHEET_HEIGHT, tuple(marks), f"Sheet {sheet.number}: {sheet.title}")


def _frame(sheet: Sheet) -> list[Mark]:
    right, bottom = FIRST_X + 10 * COLUMN, FIRST_Y + 6 * ROW
    corners = (Point(FIRST_X, FIRST_Y), Point(right, FIRST_Y), Point(right, bottom), Point(FIRST_X, bottom))
    marks: list[Mark] = [Poly(corners, "second", 0.3, closed=True, layer="frame")]
    for n in range(10):
        x = FIRST_X + n * COLUMN
        marks.append(Text(x + COLUMN / 2, FIRST_Y - 2.2, str(n), SMALL, "second", align=Align.MIDDLE, layer="frame"))
        if n:
            marks.append(Line(x, FIRST_Y, x, FIRST_Y + 1.6, "second", layer="frame"))
    for n, letter in enumerate("ABCDEF"):
        y = FIRST_Y + n * ROW
        marks.append(Text(FIRST_X - 3, y + ROW / 2 + 1, letter, SMALL, "second", align=Align.MIDDLE, layer="frame"))
        if n:
            marks.append(Line(FIRST_X, y, FIRST_X + 1.6, y, "second", layer="frame"))
    marks.append(
        Text(
            right - 3,
            bottom - 2.6,
            f"{sheet.title} · sheet {sheet.number}",
            SMALL,
            "second",
            align=Align.RIGHT,
            layer="frame",
        )
    )
    return marks


def contact_places(sheets: Sheets, circuits: Circuits, device: Device) -> list[tuple[str, str]]:
    """Where the contacts of a device are: (unit, place or “spare”), in the order of its units."""
    found: dict[str, str] = {}
    for rung in circuits.rungs:
        for one in elements_of(rung.path):
            for pole in one.poles:
                if pole.device == device.id and one.id in sheets.places:
                    found[pole.unit] = str(sheets.places[one.id])
    return [
        (unit.name, found.get(unit.name, "spare")) for unit in device.kind.units if unit.behaviour is not Behaviour.COIL
    ]


class _Pen:
    def __init__(self, sheet: Sheet, sheets: Sheets, circuits: Circuits, nets: Nets, names: Names) -> None:
        self._sheets, self._circuits, self._nets, self._names = sheets, circuits, nets, names
        self._devices = {device.id: device for device in circuits.devices}
        self._coils = {
            one.device: one.id
            for rung in circuits.rungs
            for one in elements_of(rung.path)
            if one.poles[0].unit == "A1-A2"
        }
        self._numbered: set[str] = set()
        self._short = False
        self._power = sheet.circuit is None
        self._joints = [*sheet.dots]
        for wire in sheet.wires:
            if wire.y1 == wire.y2:
                self._joints += [(wire.x1, wire.y1), (wire.x2, wire.y2)]

    def seat(self, seat: Seat) -> list[Mark]:
        """An element with its tag, pin numbers and the numbers of the nets around it."""
        one = seat.element
        device = self._devices[one.device]
        key = f"element:{one.id}"
        marks: list[Mark] = []
        for index, pole in enumerate(one.poles):
            x = seat.x + index * LINE_GAP
            owner = self._devices[pole.device]
            marks += symbol_of(owner.kind_id, pole.unit)(x, seat.top, seat.bottom, key)
            if owner.strip:
                marks += self._terminal_mark(owner, x, seat, key)
            else:
                marks += self._pins(owner, pole.unit, pole.flipped, x, seat, key)
            marks += self._numbers(one, index, x, seat)
        y = (seat.top + seat.bottom) / 2
        if len(one.poles) > 1 and not device.strip and device.kind.family != "overload":
            far = seat.x + (len(one.poles) - 1) * LINE_GAP
            marks.append(Line(seat.x - 2, y, far - 2, y, width=0.2, dashed=True, layer="circuit"))
        return marks + self._tag(device, seat, key)

    def _tag(self, device: Device, seat: Seat, key: str) -> list[Mark]:
        far = {"start_button": 11.0, "stop_button": 11.0, "overload": 11.5, "contactor": 6.5}
        x = seat.x - far.get(device.kind.family, 6.5)
        if len(seat.element.poles) > 1:
            x = seat.x - 6.5
        elif seat.element.poles[0].unit == "A1-A2":
            x = seat.x - 7.5
        y = (seat.top + seat.bottom) / 2
        if device.strip:
            return (
                [
                    Text(
                        seat.x - 4,
                        y + 1.2,
                        self._names.tag[device.id],
                        TAG,
                        align=Align.RIGHT,
                        face=Face.PRINTED_BOLD,
                        key=key,
                    )
                ]
                if device.mark not in ("N", "PE")
                else []
            )
        word = device.purpose.split(", ")[-1]
        coil = self._coils.get(device.id)
        if coil and seat.element.id != coil:
            word = f"coil {self._sheets.places[coil]}"
        said = word.split(" ", 1) if len(word) > LONGEST_WORD else [word]
        return [
            Text(x, y - 0.4, self._names.tag[device.id], TAG, align=Align.RIGHT, face=Face.PRINTED_BOLD, key=key),
            *(
                Text(x, y + 3.8 + n * 3.2, part, SMALL, "second", align=Align.RIGHT, key=key)
                for n, part in enumerate(said)
            ),
        ]

    def _terminal_mark(self, owner: Device, x: float, seat: Seat, key: str) -> list[Mark]:
        y = (seat.top + seat.bottom) / 2
        return [Text(x + 1.8, y + 1.2, owner.mark, PRINTED, face=Face.PRINTED, key=key)]

    def _pins(self, owner: Device, unit: str, flipped: bool, x: float, seat: Seat, key: str) -> list[Mark]:
        pins = owner.kind.unit(unit).pins
        upper, lower = (pins[-1], pins[0]) if flipped else (pins[0], pins[-1])
        y = (seat.top + seat.bottom) / 2
        right = 6.4 if unit == "A1-A2" else 4.8 if owner.kind_id == "lamp" else 1.4
        if owner.kind.unit(unit).behaviour is Behaviour.NC:
            right = 3.9
        elif owner.kind.family == "overload" and not unit.startswith("9"):
            right = 3.4
        elif len(seat.element.poles) > 1:
            right = 2.2
        rise = 3.4 if right > 4 else 5.6
        up = y - rise if right < 4 else y - 1.6
        return [
            Text(x + right, up + 0.6, upper, PRINTED, "second", Face.PRINTED, key=key),
            Text(x + right, y + rise + 0.9, lower, PRINTED, "second", Face.PRINTED, key=key),
        ]

    def _numbers(self, one: Element, index: int, x: float, seat: Seat) -> list[Mark]:
        """The net's number where the element begins, unless another has it there already."""
        pole = one.poles[index]
        pins = self._devices[pole.device].kind.unit(pole.unit).pins
        ends = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
        marks: list[Mark] = []
        incoming = self._devices[pole.device].mark in ("L1", "L2", "L3")
        owner = self._devices[pole.device]
        self._short = seat.bottom - seat.top < ROOMY
        for pin, y in zip(ends, (seat.top, seat.bottom), strict=True):
            below = owner.kind.family == "overload" and y == seat.bottom
            above = bool(owner.strip) and y == seat.top
            leg = self._power and not owner.strip and self._is_leg(pin_id(pole.device, pin))
            if not (self._power and (below or above)) and not (incoming and y == seat.top) and not leg:
                marks += self._number(pin_id(pole.device, pin), x, y)
        return marks

    def _is_leg(self, pin: PinId) -> bool:
        """Whether a pin is on a motor's own conductor, which is named at its terminal."""
        net = self._nets.of_pin.get(pin)
        return net is not None and any(self._devices[DeviceId(p.rsplit(":", 1)[0])].kind.is_motor for p in net.pins)

    def _number(self, pin: PinId, x: float, y: float) -> list[Mark]:
        net = self._nets.of_pin.get(pin)
        number = self._names.number.get(net.id, "") if net else ""
        spot = number
        if y == RAIL_BOTTOM or number in ("N", "PE", "L1", "L2", "L3"):
            return []
        if y == RAIL_TOP:
            y -= 3.0
        elif any(abs(x - dx) < 1 and abs(y - dy) < 1 for dx, dy in self._joints):
            return []
        if not net or not number or spot in self._numbered:
            return []
        self._numbered.add(spot)
        if self._power or self._short:
            core = self._power and self._is_leg(pin)
            return [
                Text(
                    x - 1.2,
                    y + (2.2 if core else 1.0),
                    number,
                    CORE if core else PRINTED,
                    face=Face.PRINTED,
                    align=Align.RIGHT,
                    key=f"net:{net.id}",
                    backed=True,
                )
            ]
        return [
            Text(x, y + 1.2, number, PRINTED, face=Face.PRINTED, align=Align.MIDDLE, key=f"net:{net.id}", backed=True)
        ]

    def control_extras(self, sheet: Sheet) -> list[Mark]:
        """Where the supply comes from, the return, and the contacts under each coil."""
        marks: list[Mark] = []
        tap = next((s for s in sheet.seats if s.top == TAP_TOP), None)
        if tap:
            marks.append(Text(tap.x + 8, TAP_TOP + 4, self._source_of(tap), SMALL, "act"))
        left = min((w.x1 for w in sheet.wires if w.node == "return"), default=FIRST_X)
        marks.append(Text(left, RAIL_BOTTOM - 1.6, "N", PRINTED, face=Face.PRINTED))
        marks.append(Text(left - 13.5, RAIL_BOTTOM + 3.6, "from 1.1", SMALL, "act"))
        for seat in sheet.seats:
            device = self._devices[seat.element.device]
            if seat.element.poles[0].unit == "A1-A2":
                marks += self._mirror(device, seat.x)
        return marks

    def _source_of(self, tap: Seat) -> str:
        first = self._devices[tap.element.device].pin("1")
        net = self._nets.of_pin[first]
        for pin in net.pins:
            owner = self._devices[pin.rsplit(":", 1)[0]]  # type: ignore[index]
            for rung in self._circuits.rungs:
                for one in elements_of(rung.path):
                    if one.device == owner.id and one.id in self._sheets.places:
                        return f"from {self._sheets.places[one.id]}"
        return ""

    def _mirror(self, device: Device, x: float) -> list[Mark]:
        """Under a coil: where its contacts are, the main poles in one line, the spare ones in the last."""
        rows = contact_places(self._sheets, self._circuits, device)
        used = [row for row in rows if row[1] != "spare"]
        poles = [place for unit, place in used if unit in MAIN_POLES]
        if len(poles) == len(MAIN_POLES) and len(set(poles)) == 1:
            used = [("1 to 6", poles[0]), *(row for row in used if row[0] not in MAIN_POLES)]
        marks: list[Mark] = []
        for index, (unit, place) in enumerate(used):
            y = RAIL_BOTTOM + 7.6 + index * MIRROR_STEP
            marks += [Text(x - 9, y, unit, PRINTED, "second", Face.PRINTED), Text(x + 7.5, y, place, SMALL, "act")]
        spare = [unit for unit, place in rows if place == "spare"]
        if spare:
            y = RAIL_BOTTOM + 7.6 + len(used) * MIRROR_STEP
            marks.append(Text(x - 9, y, "spare " + " ".join(unit.split("-")[0] for unit in spare), SMALL, "third"))
        return marks
