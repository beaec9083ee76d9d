"""Strips as they stand on the rail: inside above, field below, four times true size."""

from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Point, Poly, Rect, Shape, Text
from riktig.core.keys import DeviceKey
from riktig.core.plate import box
from riktig.core.terminals.strips import Strip, Strips
from riktig.core.wiring import JUMPER, wire_roles

__all__ = ["draw_strip", "draw_strips"]

WIDE, TALL = 15.0, 46.0
CAPTION = 4.0
"""From one line of captions to the next, mm."""
LEFT = 58.0


def draw_strip(strip: Strip, strips: Strips) -> Drawing:
    """One strip with both sides written at each terminal; keys are ``device:`` and the id.

    Args:
        strip: The strip.
        strips: The terminal strips and the cables that land on them.
    """
    shapes: list[Shape] = []
    top = 58.0
    width = LEFT + len(strip.rows) * WIDE + 30
    shapes += [
        Text(8, top + TALL / 2 - 1, strip.tag, 6.0, face=Face.PRINTED_BOLD),
        Text(8, top + TALL / 2 + 6, strip.purpose, 3.0, "second"),
        Text(8, 12, "inside", 3.2, "second", Face.BOLD),
        Text(8, top + TALL + 26, "field", 3.2, "second", Face.BOLD),
        box(Rect(LEFT - 9, top + 14, 9, TALL - 28), "second", 0.3, "rail"),
        box(Rect(LEFT + len(strip.rows) * WIDE, top + 14, 9, TALL - 28), "second", 0.3, "rail"),
    ]
    for index, row in enumerate(strip.rows):
        x = LEFT + index * WIDE
        middle = x + WIDE / 2
        key = DeviceKey(row.device)
        wire, _ = wire_roles(row.wire_colour or "black")
        shapes += [
            *(
                Line(middle, 20, middle, top + 5, role, width, layer="wire")
                for role, width in (("ink", 2.4), (wire, 1.9))
                if row.wire
            ),
            box(Rect(x, top, WIDE, TALL), "ink", 0.4, f"terminal {row.colour}", key, "terminal"),
            Circle(middle, top + 7, 3, "ink", 0.3, "card", "terminal", key),
            Circle(middle, top + TALL - 7, 3, "ink", 0.3, "card", "terminal", key),
            Text(middle, top + TALL / 2 + 1.6, row.mark, 4.2, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key),
            Text(middle, 17, row.number, 3.2, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key),
            Text(
                middle - 2.2,
                top - 3,
                row.inside.partition("jumper to")[0].rstrip(", "),
                3.2,
                face=Face.PRINTED,
                upright=False,
                key=key,
            ),
        ]
        low = top + TALL
        for n, core in enumerate(row.cores):
            at = middle + 3.0 * (n - (len(row.cores) - 1) / 2)
            shapes += [
                Line(at, low - 5, at, low + 18, "ink", 2.4, layer="wire"),
                Line(at, low - 5, at, low + 18, _core_role(core.name), 1.9, layer="wire"),
            ]
        if row.cores:
            shapes += [
                Text(middle - 2.2, low + 46, row.field, 3.2, face=Face.PRINTED, upright=False, key=key),
                Text(middle + 4.2, low + 46, row.core, 2.6, "second", upright=False, key=key),
            ]
    shapes += _jumpers(strip, top)
    shapes += _cable_shapes(strip, strips, top + TALL + 48)
    return Drawing(max(width, 130), top + TALL + 66 + 2 * CAPTION, tuple(shapes), f"Terminal strip {strip.tag}")


def _core_role(core: str) -> str:
    roles = {"blue": "wire light blue"}
    return roles.get(core, f"wire {core}" if not core.isdigit() else "wire black")


def _jumpers(strip: Strip, top: float) -> list[Shape]:
    """A bar across the terminals that a jumper bridges, with a dot on each of them."""
    at: dict[str, list[float]] = {}
    for index, row in enumerate(strip.rows):
        if row.jumper.startswith(JUMPER):
            at.setdefault(row.jumper, []).append(LEFT + index * WIDE + WIDE / 2)
    shapes: list[Shape] = []
    for level, middles in enumerate(at.values()):
        y = top + 13 + 2.4 * (level % 3)
        shapes.append(Line(middles[0], y, middles[-1], y, "second", 1.4, layer="terminal"))
        shapes += [Circle(x, y, 1.1, "second", 0.3, "second", "terminal") for x in middles]
    return shapes


def _cable_shapes(strip: Strip, strips: Strips, y: float) -> list[Shape]:
    shapes: list[Shape] = []
    level = 0
    for cable in strips.cables:
        places = [i for i, row in enumerate(strip.rows) if any(core.cable == cable.tag for core in row.cores)]
        if not places:
            continue
        x1 = LEFT + min(places) * WIDE + 2
        x2 = LEFT + (max(places) + 1) * WIDE - 2
        bracket = (Point(x1, y), Point(x1, y + 4), Point(x2, y + 4), Point(x2, y))
        shapes += [
            Poly(bracket, "second", 0.4, layer="cable"),
            Text(
                (x1 + x2) / 2,
                y + 10,
                cable.tag,
                3.8,
                face=Face.PRINTED_BOLD,
                align=Align.MIDDLE,
                key=DeviceKey(cable.device),
            ),
            Text(
                (x1 + x2) / 2,
                y + 15 + CAPTION * (level % 3),  # neighbours would overprint each other
                f"{cable.make_up} to {cable.to}",
                2.6,
                "second",
                align=Align.MIDDLE,
                key=DeviceKey(cable.device),
            ),
        ]
        level += 1
    return shapes


def draw_strips(strips: Strips) -> tuple[Drawing, ...]:
    """All strips, a drawing each."""
    return tuple(draw_strip(strip, strips) for strip in strips.strips)
