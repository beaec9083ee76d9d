"""One part to scale: from the front with its pins, holes and the room it needs, and from the side with its depth."""

from riktig.core.catalogue import RAIL_HEIGHT, Part
from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Rect, Shape, Text
from riktig.core.plate.fit import RAIL_WIDTH
from riktig.core.plate.outlines import box, dashed

__all__ = ["draw_part"]

EDGE = 26.0
"""Room around the drawing for its measures, mm."""
APART = 34.0
"""Between front and side, mm."""


def draw_part(part: Part) -> Drawing:
    """Front and side of a part with its measures; a measure that is not known is a question mark."""
    width, height, depth = (value or 40.0 for value in (part.width, part.height, part.depth))
    size = max(min(max(width + depth, height) / 30, 7.0), 3.0)
    left = EDGE + part.room_left + size * 3
    top = EDGE + part.room_top + size * 2
    front = Rect(left, top, width, height)
    side = Rect(front.right + part.room_right + APART, top, depth, height)
    shapes: list[Shape] = []
    if part.room_left or part.room_right or part.room_top or part.room_bottom:
        around = front.grown(part.room_left, part.room_top, part.room_right, part.room_bottom)
        shapes += [dashed(box(around, "act", 0.5))]
    rail = not part.is_screwed
    middle = front.centre.y
    if rail:
        strip = Rect(front.x - 8, middle - RAIL_WIDTH / 2, front.width + 16, RAIL_WIDTH)
        shapes.append(box(strip, "line", 0.4, "rail"))
    shapes.append(box(front, "ink", 0.7, "part"))
    for pin in part.kind.pins:
        at = part.pin_point(pin)
        shapes.append(Circle(front.x + at.x, front.y + at.y, 1.5, "second", 0.35, "card"))
        if width / max(len(part.kind.pins) / 2, 1) > 7:
            shapes.append(Text(front.x + at.x, front.y + at.y - 2.4, pin.name, 2.6, "second", align=Align.MIDDLE))
    for hole in part.holes:
        x, y = front.x + hole.x, front.y + hole.y
        shapes += [
            Circle(x, y, 2.2, "fails", 0.5),
            Line(x - 4, y, x + 4, y, "fails", 0.35),
            Line(x, y - 4, x, y + 4, "fails", 0.35),
        ]
    shapes.append(Text(front.centre.x, middle + size / 2, part.ref, size, "ink", Face.PRINTED_BOLD, Align.MIDDLE))
    shapes += _side(part, side, rail)
    shapes += _measures(part, front, side, size)
    right = side.right + EDGE
    foot = front.bottom + part.room_bottom + EDGE + size
    return Drawing(right, foot, tuple(shapes), f"Part {part.ref}")


def _side(part: Part, side: Rect, rail: bool) -> list[Shape]:
    """The plate as a line at the left, the rail on it, the part in front of both."""
    shapes: list[Shape] = [Line(side.x, side.y - 12, side.x, side.bottom + 12, "ink", 1.4)]
    if rail:
        base = Rect(side.x, side.centre.y - RAIL_WIDTH / 2, RAIL_HEIGHT, RAIL_WIDTH)
        body = Rect(side.x + RAIL_HEIGHT, side.y, max(side.width - RAIL_HEIGHT, 1.0), side.height)
        shapes += [box(base, "second", 0.4, "rail"), box(body, "ink", 0.7, "part")]
    else:
        shapes.append(box(side, "ink", 0.7, "part"))
    return shapes


def _measures(part: Part, front: Rect, side: Rect, size: float) -> list[Shape]:
    def said(value: float) -> str:
        return f"{value:g}" if value else "?"

    y, x = front.bottom + part.room_bottom + size * 2.2, front.x - part.room_left - size * 1.2
    role = "second"
    return [
        Line(front.x, y, front.right, y, role, 0.3),
        Text(front.centre.x, y + size * 1.3, said(part.width), size, role, align=Align.MIDDLE),
        Line(x, front.y, x, front.bottom, role, 0.3),
        Text(x - size * 0.4, front.centre.y, said(part.height), size, role, align=Align.MIDDLE, upright=False),
        Line(side.x, y, side.right, y, role, 0.3),
        Text(side.centre.x, y + size * 1.3, said(part.depth), size, role, align=Align.MIDDLE),
    ]
