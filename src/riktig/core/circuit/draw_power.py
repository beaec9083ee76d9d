"""The parts of a power sheet that are not symbols of a path: bars, cable, motor, earth."""

from riktig.core.circuit.model import Band, Device, elements_of
from riktig.core.circuit.recipes import MAIN
from riktig.core.circuit.sheets import (
    BUS_GAP,
    BUS_TOP,
    COLUMN,
    FIRST_LOAD_X,
    FIRST_X,
    INCOMER_X,
    INCOMING_TOP,
    LINE_GAP,
    LOAD_STEP,
    POWER_BOTTOM,
    POWER_TOP,
    Sheet,
)
from riktig.core.circuit.symbols import earth_sign, motor_sign
from riktig.core.geometry import Align, Circle, Face, Line, Mark, Text
from riktig.core.job import DeviceId

__all__ = ["PRINTED", "SMALL", "TAG", "power_marks"]

SMALL, PRINTED, TAG = 2.5, 2.6, 3.0

Devices = dict[DeviceId, Device]
Tags = dict[DeviceId, str]


def power_marks(sheet: Sheet, devices: Devices, tags: Tags, control_sheets: list[str]) -> list[Mark]:
    """The busbars of the sheet, cable and motor signs, and the earth line."""
    marks: list[Mark] = []
    farthest = max((seat.x for seat in sheet.seats if len(seat.element.poles) == 3), default=0.0)
    right = min(max(farthest, FIRST_LOAD_X) + LOAD_STEP + COLUMN / 2, FIRST_X + 10 * COLUMN - 18)
    incomer = [s for s in sheet.seats if devices[s.element.device].kind_id == "isolator"]
    for line in range(3):
        y = BUS_TOP + line * BUS_GAP
        x = INCOMER_X + line * LINE_GAP
        start = x if incomer else FIRST_X + 6
        marks.append(Line(start, y, right, y, width=0.35, layer="circuit"))
        if incomer:
            marks.append(Line(x, BUS_TOP - 2, x, y, width=0.35, layer="circuit"))
    for landing, x, y in sheet.landings:
        device = devices[landing.device]
        key = f"device:{device.id}"
        if device.kind_id == "supply":
            marks += _cable(tags[device.id], x, y, key)
        elif device.kind.is_motor and landing.pins[0] == "W2":
            at = [(x + n * LINE_GAP, pin) for n, pin in enumerate(landing.pins)]
            marks += [Text(a, POWER_BOTTOM + 3.6, pin, SMALL, face=Face.PRINTED, align=Align.MIDDLE) for a, pin in at]
            marks.append(Text(at[1][0], POWER_BOTTOM + 8, f"of {tags[device.id]}", SMALL, "act", align=Align.MIDDLE))
        elif device.kind.is_motor:
            marks += _motor(tags[device.id], x, key)
        elif device.kind_id == "dist_block":
            marks += [Circle(x + n * LINE_GAP, y + 1.5, 1.1, fill="ink", layer="circuit", key=key) for n in range(3)]
            all_blocks = " ".join(tags[d.id] for d in devices.values() if d.kind_id == "dist_block")
            marks.append(Text(x + 2 * LINE_GAP + 2.4, y + 2.6, all_blocks, TAG, face=Face.PRINTED_BOLD, key=key))
    marks += _branches(sheet)
    return marks + _returns(sheet, right, devices, control_sheets)


def _branches(sheet: Sheet) -> list[Mark]:
    marks: list[Mark] = []
    for rung in sheet.rungs:
        if rung.start != MAIN or rung.band is Band.INCOMING:
            continue
        first = next(elements_of(rung.path))
        seat = next(s for s in sheet.seats if s.element.id == first.id)
        for line in range(3):
            x, y = seat.x + line * LINE_GAP, BUS_TOP + line * BUS_GAP
            marks.append(Line(x, y, x, POWER_TOP, width=0.35, layer="circuit"))
            marks.append(Circle(x, y, 0.8, fill="ink", layer="circuit"))
        marks.append(Text(seat.x + 2.6 * LINE_GAP, POWER_TOP + 2, rung.title, SMALL, "second"))
    return marks


def _cable(tag: str, x: float, y: float, key: str) -> list[Mark]:
    marks: list[Mark] = [Text(x - 4, y - 0.6, tag, TAG, face=Face.PRINTED_BOLD, align=Align.RIGHT, key=key)]
    names = ("L1", "L2", "L3")
    marks += [_conductor_name(x + n * LINE_GAP, name) for n, name in enumerate(names)]
    return marks


def _motor(tag: str, x: float, key: str) -> list[Mark]:
    middle, y = x + LINE_GAP, POWER_BOTTOM + 9
    marks: list[Mark] = [
        Line(x + line * LINE_GAP, POWER_BOTTOM, middle + (line - 1) * 4.5, y - 7, width=0.35, layer="circuit")
        for line in range(3)
    ]
    return marks + motor_sign(middle, y, tag, key)


def _returns(sheet: Sheet, right: float, devices: Devices, control_sheets: list[str]) -> list[Mark]:
    """Neutral and earth: where they go on."""
    marks: list[Mark] = []
    base = POWER_BOTTOM + 20
    for seat in sheet.seats:
        device = devices[seat.element.device]
        if device.mark == "N" and device.kind_id == "neutral_terminal":
            y = BUS_TOP + 3 * BUS_GAP
            marks += [
                Line(seat.x, seat.bottom, seat.x, y, width=0.35, layer="circuit"),
                Line(seat.x, y, right, y, width=0.35, layer="circuit"),
                _conductor_name(seat.x, "N"),
                Text(right + 1.5, y + 1, "to " + ", ".join(control_sheets[:4]), SMALL, "act"),
            ]
        elif device.kind_id == "earth_terminal" and seat.top < BUS_TOP:
            marks += [
                Line(seat.x, seat.bottom, seat.x, base, width=0.35, dashed=True, layer="circuit"),
                Line(seat.x, base, right, base, width=0.35, dashed=True, layer="circuit"),
                _conductor_name(seat.x, "PE"),
                *earth_sign(seat.x - 12, base + 1),
                Line(seat.x - 12, base - 2.4, seat.x, base - 2.4, width=0.35, layer="circuit"),
            ]
        elif device.kind_id == "earth_terminal":
            middle = seat.x - 2.2 * LINE_GAP
            marks += [
                Line(seat.x, seat.bottom, seat.x, base, width=0.35, dashed=True, layer="circuit"),
                Line(middle + 9, seat.top, seat.x, seat.top, width=0.35, dashed=True, layer="circuit"),
            ]
    return marks


def _conductor_name(x: float, name: str) -> Text:
    return Text(x, INCOMING_TOP - 0.6, name, PRINTED, face=Face.PRINTED, align=Align.MIDDLE)
