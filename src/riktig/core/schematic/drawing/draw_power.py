"""The parts of a power sheet that are not symbols of a path: lines across, cable, loads at the end, earth."""

from collections.abc import Callable, Mapping

from riktig.core.catalogue import Can
from riktig.core.geometry import Align, Circle, Face, Line, Shape, Text, bounds_of
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey
from riktig.core.schematic.drawing.label_collisions import LabelCollisions
from riktig.core.schematic.layout.frame import broken
from riktig.core.schematic.layout.power_sheets import (
    BELOW,
    BUS_GAP,
    INCOMER_X,
    INCOMING_TOP,
    POWER_BOTTOM,
    SMALLEST,
    power_top,
)
from riktig.core.schematic.layout.sheet_model import FRAME_RIGHT, LINE_GAP, Sheet, SheetElement, SheetPlace
from riktig.core.schematic.model.elements import Band, Device, Landing, Rung
from riktig.core.schematic.symbols.choose import (
    box_sign,
    earth_sign,
    motor_sign,
    phases_sign,
    surge_sign,
    transformer_sign,
)

__all__ = ["CORE", "LEAST", "PRINTED", "SMALL", "TAG", "power_shapes"]

SMALL, PRINTED, TAG = 2.6, 2.7, 3.2
LEAST = SMALLEST
"""Texts are made so small where there is no room for more, mm (chosen by us)."""
CORE = 2.3
"""Capital height of the name of a conductor out to a motor: three stand side by side, mm."""
TWO_LINES, ALL_LINES = 2, 3
EARTH_LINE = POWER_BOTTOM + 20
MOTOR_EDGE = 7.5
"""From the middle of a motor to its edge at the height where its earth leaves, mm."""

Devices = Mapping[DeviceId, Device]
Tags = dict[DeviceId, str]


def power_shapes(
    sheet: Sheet,
    devices: Devices,
    tags: Tags,
    elsewhere: dict[DeviceId, SheetPlace],
    collisions: LabelCollisions,
    rung_name: Callable[[str], str],
) -> list[Shape]:
    """The lines of the sheet, cable and load signs, and the earth line.

    Args:
        sheet: The sheet.
        devices: All devices.
        tags: What each is called.
        elsewhere: Where the other part of a device stands.
        collisions: What stands on the sheet so far.
        rung_name: What a rung is called by its id, where numbers go by rung; otherwise empty.
    """
    shapes: list[Shape] = []
    incomer = any(devices[s.element.device].kind.can(Can.MAIN_SWITCH) for s in sheet.seats)
    assert sheet.bus is not None
    bus = sheet.bus
    for line, node in enumerate(bus.nodes):
        y, x = bus.y + line * BUS_GAP, INCOMER_X + line * LINE_GAP
        shapes.append(Line(x if incomer else bus.x1, y, bus.x2, y, width=0.35, layer="circuit"))
        if incomer:
            shapes.append(Line(x, bus.y - 2, x, y, width=0.35, layer="circuit"))
        else:
            shapes.append(Text(bus.x1, y - 0.7, node.split(".")[1], SMALL, face=Face.PRINTED))
    for landing, x, y in sheet.landings:
        shapes += _landing(landing, x, y, devices, tags, elsewhere)
    for rung in sheet.rungs:
        first = next((s for s in sheet.seats if any(s.element == p for p in rung.path.parts)), None)
        named = rung.title and rung.band is Band.POWER and rung.start and rung.start[0] != "PE"
        if first and named and abs(first.top - power_top(bus.y)) < 0.1:
            _title(", ".join(filter(None, (rung.title, rung_name(rung.id)))), first, collisions)
    return shapes + _returns(sheet, bus.y, devices)


def _title(words: str, seat: SheetElement, collisions: LabelCollisions) -> None:
    """The name of a load beside its first element, in as many lines and as small as there is room for."""
    lines = len(seat.element.poles)
    x = seat.x + (2.6 * LINE_GAP if lines == ALL_LINES else (lines - 1) * LINE_GAP + 3.0)
    shapes: list[Text] = []
    for most, size in ((30, SMALL), (14, SMALL), (9, SMALL), (9, LEAST), (8, LEAST), (6, LEAST)):
        rows_of_text = broken(words, most)
        for dx, top in ((0.0, seat.top + 2), (0.0, seat.top - 2), (3.5, seat.top + 2), (0.0, seat.top + 6)):
            shapes = [Text(x + dx, top + n * 1.28 * size, part, size, "second") for n, part in enumerate(rows_of_text)]
            if all(collisions.free(mark) and bounds_of(mark).right < FRAME_RIGHT - 1 for mark in shapes):
                collisions.add(shapes)
                return
    collisions.add(shapes)


def _landing(
    landing: Landing, x: float, y: float, devices: Devices, tags: Tags, on: dict[DeviceId, SheetPlace]
) -> list[Shape]:
    device = devices[landing.device]
    tag, key = tags[device.id], DeviceKey(device.id)
    count = len(landing.pins)
    middle = x + (count - 1) * LINE_GAP / 2
    if device.kind.can(Can.SUPPLY):
        shapes: list[Shape] = [Text(x - 4, y - 0.6, tag, TAG, face=Face.PRINTED_BOLD, align=Align.RIGHT, key=key)]
        return shapes + [_conductor_name(x + n * LINE_GAP, name) for n, name in enumerate(landing.pins)]
    if device.kind.is_motor and landing.pins[0] == "W2":
        at = [(x + n * LINE_GAP, pin) for n, pin in enumerate(landing.pins)]
        signs: list[Shape] = [
            Text(a, POWER_BOTTOM + 3.6, pin, SMALL, face=Face.PRINTED, align=Align.MIDDLE) for a, pin in at
        ]
        return [*signs, Text(at[1][0], POWER_BOTTOM + 8, f"of {tag}", SMALL, "act", align=Align.MIDDLE)]
    if device.kind.is_motor:
        y = POWER_BOTTOM + 9
        legs: list[Shape] = [
            Line(x + n * LINE_GAP, POWER_BOTTOM, middle + (n - (count - 1) / 2) * 4.5, y - 7, width=0.35,
                 layer="circuit")
            for n in range(count)
        ]  # fmt: skip
        return legs + motor_sign(middle, y, tag, key)
    if device.kind.can(Can.DISTRIBUTES):
        dots: list[Shape] = [
            Circle(x + n * LINE_GAP, y + 1.5, 1.1, fill="ink", layer="circuit", key=key) for n in range(count)
        ]
        shown = [tags[d.id] for d in devices.values() if d.kind.can(Can.DISTRIBUTES)]
        blocks = " ".join(shown) if len(shown) < 3 else f"{shown[0]}–{shown[-1]}"
        return [*dots, Text(x - 6.0, y + 2.6, blocks, TAG, face=Face.PRINTED_BOLD, align=Align.RIGHT, key=key)]
    if device.kind.can(Can.NEUTRAL_BAR) or device.kind.can(Can.EARTH_BAR):
        return []
    end = POWER_BOTTOM
    if landing.pins == ("N",):
        box = x - LINE_GAP / 2
        return [
            Line(x, y, x, end + 8, width=0.35, layer="circuit"),
            Line(x, end + 8, box, end + 8, width=0.35, layer="circuit"),
            Text(x + 1.0, end + 2.0, "N", SMALL, "second", Face.PRINTED),
        ]
    drop: list[Shape] = [
        Line(x + n * LINE_GAP, y, x + n * LINE_GAP, end + 3, width=0.35, layer="circuit") for n in range(count)
    ]
    names: list[Shape] = [
        Text(x + n * LINE_GAP + 1.0, end + 2.0, pin, SMALL, "second", Face.PRINTED)
        for n, pin in enumerate(landing.pins)
    ]
    words = "" if device.kind.can(Can.OTHER_LOAD) else device.kind.name.split(",")[0]
    place = on.get(device.id)
    half = max(9.0, (count - 1) * LINE_GAP / 2 + 3)
    if device.kind.can(Can.TRANSFORMS) and count == TWO_LINES:
        half = 4.0
        sign = transformer_sign((x, x + LINE_GAP), end + 3, end + 10, tag, key)
        shapes = [*drop, *names, *sign, Text(middle, end + 18.4, words, 2.3, "second", align=Align.MIDDLE, key=key)]
    else:
        shapes = [*drop, *names, *_end_sign(device, middle, end + 8, half, tag)]
    if place:
        shapes.append(Text(middle - half - 1.5, end + 9, str(place), SMALL, "act", align=Align.RIGHT))
    if any(pin.name == "PE" for pin in device.kind.pins) and device.zone.value == "plate":
        shapes += earth_sign(middle + (count - 1) * LINE_GAP / 2 + 10, end + 10)
    return shapes


def _end_sign(device: Device, middle: float, y: float, half: float, tag: str) -> list[Shape]:
    """What stands at the end of its lines: by what it does, or a box with its name."""
    key = DeviceKey(device.id)
    words = "" if device.kind.can(Can.OTHER_LOAD) else device.kind.name.split(",")[0]
    if device.kind.can(Can.SURGE):
        return surge_sign(middle, y, LINE_GAP, tag, key)
    if device.kind.can(Can.WATCHES_PHASES):
        return phases_sign(middle, y, half, tag, key)
    return box_sign(middle, y, tag, [line for line in broken(words, 16) if line], key, half)


def _returns(sheet: Sheet, bus_y: float, devices: Devices) -> list[Shape]:
    """Neutral and earth of the supply, and the earth line that the loads' conductors hang on."""
    shapes: list[Shape] = []
    at: list[float] = []
    for seat in sheet.seats:
        device = devices[seat.element.device]
        if device.kind.can(Can.NEUTRAL_TERMINAL) and seat.top < bus_y:
            y = bus_y + 3 * BUS_GAP + 3
            shapes += [Line(seat.x, seat.bottom, seat.x, y, width=0.35, layer="circuit"), _conductor_name(seat.x, "N")]
        elif device.kind.can(Can.EARTH_TERMINAL) and seat.top < bus_y:
            shapes += [
                _earth_line(seat.x, seat.bottom, seat.x, EARTH_LINE),
                _conductor_name(seat.x, "PE"),
                *earth_sign(seat.x - 12, EARTH_LINE + 1),
                Line(seat.x - 12, EARTH_LINE - 2.4, seat.x, EARTH_LINE - 2.4, width=0.35, layer="circuit"),
            ]
            at.append(seat.x)
    for rung in sheet.rungs:
        if rung.start == ("PE",) and rung.band is Band.POWER:
            earth = _earth_of(rung, sheet, at)
            shapes += earth
    if at:
        left, right = min(at), min(max(at) + 4, FRAME_RIGHT - 4)
        shapes.append(_earth_line(left, EARTH_LINE, right, EARTH_LINE))
        if not any(rail.node == "in.L1" for rail in sheet.rails):
            shapes.append(Text(left - 3, EARTH_LINE + 1, "PE", PRINTED, face=Face.PRINTED, align=Align.RIGHT))
    return shapes


def _earth_line(x1: float, y1: float, x2: float, y2: float) -> Line:
    return Line(x1, y1, x2, y2, width=0.35, dashed=True, layer="circuit")


def _earth_of(rung: Rung, sheet: Sheet, at: list[float]) -> list[Shape]:
    """The protective conductor of a load: from its frame by its terminal, where it has one, to the earth line."""
    landing = next((part for part in rung.path.parts if isinstance(part, Landing)), None)
    terminal = next((s for s in sheet.seats if any(s.element == part for part in rung.path.parts)), None)
    if landing is None:
        return []
    motor = next(((mark, x) for mark, x, _ in sheet.landings if mark.device == landing.device), None)
    body = next((s for s in sheet.seats if s.element.device == landing.device), None)
    if motor:
        half = (len(motor[0].pins) - 1) * LINE_GAP / 2
        edge, y, beside = motor[1] + half + MOTOR_EDGE, BELOW, motor[1] + 3.0 * LINE_GAP
    elif body:
        edge, y, beside = body.x + 5.0, (body.top + body.bottom) / 2 + 0.6, body.x + 12.0
    else:
        return []
    x = terminal.x if terminal else beside
    at.append(x)
    shapes: list[Shape] = [_earth_line(edge, y, x, y)]
    if terminal:
        shapes.append(_earth_line(x, terminal.bottom, x, EARTH_LINE))
        return [*shapes, _earth_line(x, y, x, terminal.top)] if y < terminal.top else shapes
    return [*shapes, _earth_line(x, y, x, EARTH_LINE)]


def _conductor_name(x: float, name: str) -> Text:
    return Text(x, INCOMING_TOP - 0.6, name, PRINTED, face=Face.PRINTED, align=Align.MIDDLE)
