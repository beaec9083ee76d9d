"""Labels at their true size, medium by medium, on sheets as they will print."""

import textwrap

from riktig.core.geometry import Align, Drawing, Face, Line, Point, Poly, Rect, Shape, Text, run_of
from riktig.core.keys import Key
from riktig.core.labels.make import Label, Labels, Medium
from riktig.core.plate import box

__all__ = ["draw_medium"]

SHEET = 190.0
GAP = 3.0

READABLE = 38
"""Letters of a line on a warning plate: 3.2 mm high, 9 point, on 72 mm (chosen by us)."""
SIGN = 22.0
"""Side of the warning sign, mm: seen at about a metre (ISO 3864-1, from memory)."""
SIGN_HIGH = SIGN * 0.866
_FLASH = (
    (0.535, 0.28), (0.415, 0.50), (0.505, 0.485), (0.435, 0.645), (0.395, 0.625), (0.425, 0.745), (0.53, 0.675),
    (0.487, 0.665), (0.585, 0.43), (0.497, 0.447), (0.575, 0.30),
)  # fmt: skip
"""The flash in shares of the side: two slanting strokes and an arrow head that points down."""


def draw_medium(labels: Labels, medium: Medium, only: tuple[Label, ...] | None = None) -> Drawing:
    """The labels of one medium, or some of them, 1 mm to 1 mm, in the order they are put on.

    Args:
        labels: All labels of the panel.
        medium: What they are printed on.
        only: Only these; None draws all.
    """
    shown = [label for label in (labels.on(medium) if only is None else only) for _ in range(label.copies)]
    shapes: list[Shape] = []
    x = y = GAP
    height = 0.0
    for label in shown:
        width, height = label.size
        if x + width > SHEET:
            x, y = GAP, y + height + GAP
        shapes += _label(label, Rect(x, y, width, height))
        x += width + (0 if medium is Medium.TERMINAL else GAP)
    bottom = y + height + GAP
    check: list[Shape] = [
        Line(GAP, bottom + 4, GAP + 100, bottom + 4, "second", 0.2),
        Line(GAP, bottom + 2.5, GAP, bottom + 5.5, "second", 0.2),
        Line(GAP + 100, bottom + 2.5, GAP + 100, bottom + 5.5, "second", 0.2),
        Text(GAP + 102, bottom + 5, "100 mm: measure it on the print", 2.2, "second"),
    ]
    return Drawing(SHEET + GAP, bottom + 9, (*shapes, *check), medium.value)


def _label(label: Label, rect: Rect) -> list[Shape]:
    key = label.key
    fill = "card"
    shapes: list[Shape] = [box(rect, "line", 0.2, fill, key, "label")]
    x, y = rect.centre
    match label.medium:
        case Medium.WIRE:
            size = min(2.6, 0.95 * rect.width / max(len(label.lines[0]), 1) / 0.85)
            shapes.append(Text(x, y + size / 2, label.lines[0], size, face=Face.PRINTED, align=Align.MIDDLE, key=key))
        case Medium.TERMINAL:
            shapes.append(Text(x, y + 1.2, label.lines[0], 2.4, face=Face.PRINTED, align=Align.MIDDLE, key=key))
        case Medium.DEVICE:
            shapes += [
                Text(x, y - 0.4, label.lines[0], 3.2, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key),
                _fitted(Text(x, y + 3.2, label.lines[1], 1.9, key=key), rect.width - 2),
            ]
        case Medium.NAMEPLATE:
            for n, line in enumerate(label.lines):
                shapes.append(Text(rect.x + 4, rect.y + 7 + n * 6, line, 2.6, key=key))
        case Medium.LEGEND:
            shapes.append(
                _fitted(Text(x, y + 1.6, label.lines[0], 3.2, "ink", Face.PRINTED_BOLD, key=key), rect.width - 4)
            )
        case Medium.WARNING:
            shapes[0] = box(rect, "ink", 0.4, "lens yellow", key, "label")
            words = Rect(rect.x + SIGN + 4, rect.y, rect.width - SIGN - 6, rect.height)
            middle = words.centre.x
            shapes += [
                *electricity_sign(rect.x + 3, y - SIGN_HIGH / 2, key),
                _to_width(Text(middle, rect.y + 9, label.lines[0], 4.4, "print", Face.BOLD, key=key), words.width - 4),
                *_broken(middle, rect.y + 19, label.lines[1], words.width - 4, key),
            ]
        case Medium.CABLE:
            shapes += [
                Text(rect.x + 3, y + 1.6, label.lines[0], 3.6, face=Face.PRINTED_BOLD, key=key),
                Text(rect.right - 3, y + 1.4, label.lines[1], 2.0, "second", align=Align.RIGHT, key=key),
            ]
    return shapes


def electricity_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    """The warning of electricity: a black-edged yellow triangle with an arrowed flash, from its upper left corner.

    Source:
        ISO 7010 W012 and ISO 3864-1 (proportions of the triangle), from memory.

    Args:
        x: Its left end, mm.
        y: Its top, mm.
        key: What it belongs to.
    """

    def placed(points: tuple[tuple[float, float], ...]) -> tuple[Point, ...]:
        return tuple(Point(x + px * SIGN, y + py * SIGN) for px, py in points)

    edge = placed(((0.5, 0.0), (1.0, 0.866), (0.0, 0.866)))
    inside = placed(((0.5, 0.16), (0.862, 0.786), (0.138, 0.786)))
    return [
        Poly(edge, "print", 0.2, closed=True, fill="print", layer="sign", key=key),
        Poly(inside, "print", 0.2, closed=True, fill="lens yellow", layer="sign", key=key),
        Poly(placed(_FLASH), "print", 0.1, closed=True, fill="print", layer="sign", key=key),
    ]


def _broken(x: float, y: float, text: str, width: float, key: Key | None) -> list[Shape]:
    """Text in as few lines as it can be read in, one under the other; the first at ``y`` or a little above."""
    lines = textwrap.wrap(text, READABLE)
    size = min(_to_width(Text(x, y, line, 3.4, "print", key=key), width).size for line in lines)
    top = y - (len(lines) - 1) * 1.2
    return [
        Text(x, top + n * 1.35 * size, line, size, "print", align=Align.MIDDLE, key=key) for n, line in enumerate(lines)
    ]


def _to_width(text: Text, width: float) -> Text:
    """A text set in the middle, and no larger than a width allows, mm, by the widths of its letters."""
    return text._replace(size=min(text.size, width / max(run_of(text.text, mono=False), 0.1)), align=Align.MIDDLE)


def _fitted(text: Text, width: float) -> Text:
    """A text set in the middle and small enough for a width, mm (widest letter about 0.95 of its height)."""
    return text._replace(size=min(text.size, width / max(len(text.text), 1) / 0.95), align=Align.MIDDLE)
