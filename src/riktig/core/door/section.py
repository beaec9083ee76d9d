"""A cut through door and plate at one operator or at the shaft: what reaches how deep, and what is left."""

from collections.abc import Iterable, Mapping
from typing import NamedTuple

from riktig.core.door.clash import Behind
from riktig.core.door.door_types import WIRING_DEPTH, PlacedOperator
from riktig.core.door.shaft import Shaft
from riktig.core.door.stack import stack_of
from riktig.core.geometry import Align, Drawing, Face, Line, Point, Rect, Shape, Text
from riktig.core.job import DeviceId, Enclosure
from riktig.core.plate import box
from riktig.core.plate.outlines import dashed

__all__ = ["draw_section"]

HEAD, PAD = 34.0, 16.0
"""Drawn in front of the door, and kept about the picture, mm."""
HALF = 30.0
"""Half the height of what is cut through, mm."""


def draw_section(
    seat: PlacedOperator,
    behind: Iterable[Behind],
    enclosure: Enclosure,
    tags: Mapping[DeviceId, str],
    shaft: Shaft | None = None,
) -> Drawing:
    """The cut seen from the side: the door on the left, the plate on the right, true to scale along the depth.

    Args:
        seat: Where the operator stands on the door.
        behind: What stands on the plate; that which the operator's shadow meets is drawn, the highest of it.
        enclosure: The enclosure.
        tags: The tag of every device.
        shaft: For a handle: the shaft between it and its isolator.
    """
    deep, sheet = enclosure.plate_depth, enclosure.door_thickness
    door = PAD + HEAD
    plate = door + deep
    size = max(deep / 32, 6.0)
    middle = PAD + size + HALF
    shapes: list[Shape] = [
        box(Rect(door - sheet, PAD + size, sheet, 2 * HALF), "ink", 0.5, "rail"),
        box(Rect(plate, PAD + size, enclosure.plate_thickness, 2 * HALF), "ink", 0.5, "rail"),
        Text(door - 1, PAD + size - 2, "door", size * 0.8, "second", align=Align.RIGHT),
        Text(plate + 1, PAD + size - 2, "plate", size * 0.8, "second", align=Align.RIGHT),
    ]
    row = middle + HALF + size * 1.6
    if seat.is_shaft and shaft:
        shapes += _shaft(seat, shaft, _Lines(door, plate, middle, size), tags[seat.device])
        shapes += _measure(door - sheet, plate - seat.part.depth, row, f"{shaft.free:g} free", size)
        row += size * 2.2
        last = plate - seat.part.depth + shaft.inside
        shapes += _measure(last - shaft.length, last, row, f"shaft {shaft.length:g}", size)
    else:
        shapes += _stack(seat, door, middle, size)
        shapes += _measure(door, door + seat.depth, row, f"{seat.depth:g}", size)
        shapes.append(dashed(box(Rect(door + seat.depth, middle - 11, WIRING_DEPTH, 22), "act", 0.5, "chosen")))
        under = [thing for thing in behind if thing.shadow.overlap(seat.behind)[0]]
        front = max(under, key=lambda thing: thing.height, default=None)
        high = front.height if front else 0.0
        left = deep - high - seat.depth
        short = left < WIRING_DEPTH - 0.01
        if front:
            name = tags.get(DeviceId(front.name.strip("{}")), front.name)
            shapes += [
                box(Rect(plate - high, middle - HALF + 4, high, 2 * HALF - 8), "ink", 0.5, "part"),
                Text(plate - high / 2, middle + size / 3, name, size, face=Face.PRINTED_BOLD, align=Align.MIDDLE),
            ]
        text = f"{left:.0f} for wires" if left > 0 else f"{-left:.0f} too deep"
        row += size * 2.2
        shapes += _measure(door + seat.depth, plate - high, row, text, size, wrong=short)
    return Drawing(plate + PAD, row + size * 2, tuple(shapes), f"{tags[seat.device]}, cut from the side")


def _measure(a: float, b: float, y: float, text: str, size: float, *, wrong: bool = False) -> list[Shape]:
    role = "fails" if wrong else "act"
    first, last = min(a, b), max(a, b)
    return [
        Line(first, y, last, y, role, 0.7),
        Line(first, y - 3, first, y + 3, role, 0.7),
        Line(last, y - 3, last, y + 3, role, 0.7),
        Text((first + last) / 2, y - 2, text, size, role, Face.BOLD, Align.MIDDLE, backed=True),
    ]


def _stack(seat: PlacedOperator, door: float, middle: float, size: float) -> list[Shape]:
    stack = stack_of(seat.part.kind, seat.part, seat.legend)
    shapes: list[Shape] = [
        box(
            Rect(door - 18, middle - 14, 16, 28), "ink", 0.5, f"lens {seat.part.colour}" if seat.part.colour else "part"
        ),
        box(Rect(door, middle - 14, 6, 28), "second", 0.4, "card"),
    ]
    layers = max((block.layer for block in stack.blocks), default=0)
    if not layers:
        return [*shapes, box(Rect(door + 6, middle - 12, max(seat.depth - 6, 1), 24), "ink", 0.5, "part")]
    each = (seat.depth - 6) / layers
    for layer in range(1, layers + 1):
        x = door + 6 + (layer - 1) * each
        blocks = [block for block in stack.blocks if block.layer == layer]
        high = 26.0 / len(blocks)
        for n, block in enumerate(blocks):
            y = middle - 13 + n * high
            shapes.append(box(Rect(x, y, each, high), "ink", 0.4, "card" if "lamp" in block.what else "part"))
            words = f"{block.what.split()[0]} {'-'.join(block.pins[:2])}"
            text = min(size * 0.62, high * 0.62, each * 1.25 / max(len(words), 1))
            at = Point(x + each / 2, y + high / 2 + text / 2)
            shapes.append(Text(*at, words, text, face=Face.PRINTED, align=Align.MIDDLE))
    return shapes


class _Lines(NamedTuple):
    """Where a section is drawn, mm: the outer face of door and plate, the middle of the operator, the letters."""

    door: float
    plate: float
    middle: float
    size: float


def _shaft(seat: PlacedOperator, shaft: Shaft, lines: _Lines, tag: str) -> list[Shape]:
    high = seat.part.depth
    door, plate, middle, size = lines
    return [
        box(Rect(door - 22, middle - 24, 20, 48), "ink", 0.5, "part"),
        box(Rect(door - 32, middle - 7, 10, 14), "ink", 0.5, "second"),
        box(Rect(plate - high + shaft.inside - shaft.length, middle - 3, shaft.length, 6), "ink", 0.5, "rail"),
        box(Rect(plate - high, middle - HALF + 4, high, 2 * HALF - 8), "ink", 0.5, "part"),
        Text(plate - high / 2, middle + size / 3, tag, size, face=Face.PRINTED_BOLD, align=Align.MIDDLE),
    ]
