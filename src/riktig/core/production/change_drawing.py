"""The wires of a change on the plate: what comes out in dashes, what goes in drawn through."""

from collections.abc import Iterable

from riktig.core.geometry import Circle, Drawing, Face, Line, Point, Poly, Shape, Text
from riktig.core.keys import WireKey
from riktig.core.plate import Layout, box
from riktig.core.production.rework import WireWork
from riktig.core.wiring import Wire

__all__ = ["draw_change"]

SIZE = 24.0


def draw_change(layout: Layout, works: Iterable[WireWork]) -> Drawing:
    """The plate with the parts that are touched, the wires that come out and those that go in.

    Args:
        layout: The plate of now.
        works: The wires of the change.
    """
    all_works = tuple(works)
    touched = {
        end.pin.device
        for work in all_works
        for wire in (work.before, work.after)
        if wire
        for end in (wire.start, wire.end)
    }
    shapes: list[Shape] = [box(layout.plate, "line", 2.0, "panel")]
    shapes += [box(duct.rect, "hair", 1.0, "duct") for duct in layout.ducts]
    for seat in layout.seats:
        on = seat.device in touched
        shapes.append(box(seat.rect, "act" if on else "third", 2.2 if on else 1.0, "act soft" if on else "card"))
    for work in all_works:
        if work.before and (work.after is None or work.before.route != work.after.route):
            shapes += _way(work.before, out=True)
        if work.after:
            shapes += _way(work.after, out=False)
    y = layout.plate.bottom + 30
    shapes += [
        Line(0, y, 60, y, "fails", 5.0), Text(70, y + 8, "comes out", SIZE, face=Face.WORDS),
        Line(0, y + 44, 60, y + 44, "act", 5.0), Text(70, y + 52, "goes in, or stays otherwise", SIZE, face=Face.WORDS),
    ]  # fmt: skip
    right = max(
        [
            layout.plate.right,
            *(p.x for work in all_works for wire in (work.before, work.after) if wire for p in wire.route),
        ]
    )
    return Drawing(right + 6, y + 64, tuple(shapes), "The wires of this change")


def _way(wire: Wire, *, out: bool) -> list[Shape]:
    """The way of a wire; a corner is put in where two points are neither level nor upright to each other."""
    points: list[Point] = []
    for point in wire.route:
        if points and abs(points[-1].x - point.x) > 0.1 and abs(points[-1].y - point.y) > 0.1:
            points.append(Point(point.x, points[-1].y))
        points.append(point)
    if len(points) < 2:
        return []
    role, key = ("fails", None) if out else ("act", WireKey(wire.key))
    ends = [Circle(point.x, point.y, 8.0, role, 0, role, key=key) for point in (points[0], points[-1])]
    return [Poly(tuple(points), role, 5.0, dashed=out, key=key), *ends]
