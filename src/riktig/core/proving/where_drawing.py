"""Where two points are that are to be touched: on the plate, and on the door beside it."""

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from riktig.core.door import DoorPlan
from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Point, Rect, Shape, Text, bounds_of, moved
from riktig.core.ids import PinRef
from riktig.core.plate import RULER, Layout, box
from riktig.core.proving.places import DOOR_MM
from riktig.core.wiring import Wire, route_shapes

__all__ = ["bounds_of_all", "draw_close", "draw_outlines", "is_on_door", "mark_points"]

GAP = 60.0
"""Between plate and door as they are drawn, mm."""
AROUND, WIDEST = 55.0, 230.0
"""Shown around two points, and the most that is still read, mm (chosen by us)."""
MARK = 26.0
"""The ring around a point, mm."""


def is_on_door(layout: Layout, points: Sequence[PinRef], places: Mapping[PinRef, Point]) -> bool:
    """Whether one of some points is on the door, so that the door is drawn beside the plate.

    Args:
        layout: The plate: where everything stands.
        points: The points.
        places: Where every pin is.
    """
    edge = layout.plate.right + DOOR_MM
    return any(places[pin].x >= edge for pin in points if pin in places)


def draw_outlines(layout: Layout, door: DoorPlan, *, with_door: bool) -> Drawing:
    """The plate in outlines, and the door from behind beside it.

    Args:
        layout: The plate: where everything stands.
        door: The doors with their operators.
        with_door: Whether the door is drawn too.
    """
    shapes: list[Shape] = [box(layout.plate, "line", 2.0, "panel")]
    shapes += [box(duct.rect, "hair", 1.0, "duct") for duct in layout.ducts]
    shapes += [box(seat.rect, "third", 1.0, "card") for seat in layout.seats]
    right, bottom = layout.plate.right, layout.plate.bottom
    if with_door:
        shift, behind = layout.plate.right + GAP, door.from_behind()
        shapes += [
            box(Rect(leaf.face.x + shift, leaf.face.y, leaf.face.width, leaf.face.height), "line", 2.0, "panel")
            for leaf in behind.leaves
        ]
        shapes += [Circle(shift + seat.x, seat.y, 14.0, "third", 1.2, "card") for seat in behind.seats]
        shapes.append(Text(shift + 8, 26, "door, from behind", 16.0, "second"))
        right = shift + max(leaf.face.right for leaf in behind.leaves)
        bottom = max(bottom, *(leaf.face.bottom for leaf in behind.leaves))
    return Drawing(right + 6, bottom + 6, tuple(shapes), "Where the two points are")


def mark_points(
    layout: Layout, wires: Sequence[Wire], points: tuple[PinRef, PinRef], places: Mapping[PinRef, Point]
) -> list[Shape]:
    """What lies over the outlines: the parts of two points, a ring around each point, and the way of the wire.

    Args:
        layout: The plate: where everything stands.
        wires: What is measured, where it is a wire.
        points: The points of the black and the red probe.
        places: Where every pin is.
    """
    owners = {pin.device for pin in points}
    shapes: list[Shape] = [box(seat.rect, "act", 2.2, "card") for seat in layout.seats if seat.device in owners]
    if not is_on_door(layout, points, places):
        shapes += route_shapes(wires, shift=0.0, width=4.0)
    edge = layout.plate.right + DOOR_MM
    for pin, role, name in zip(points, ("ink", "fails"), ("black", "red"), strict=True):
        if pin in places:
            shapes += _mark(places[pin], edge, layout.plate.right + GAP, role, name)
    return shapes


def bounds_of_all(drawing: Drawing) -> NDArray[np.float64]:
    """Left, top, right and bottom of every mark of a drawing, a row each, mm."""
    boxes = [bounds_of(shape) for shape in drawing.shapes]
    return np.array([(box.x, box.y, box.right, box.bottom) for box in boxes], float).reshape(-1, 4)


def draw_close(
    plate: Drawing, bounds: NDArray[np.float64], points: tuple[PinRef, PinRef], places: Mapping[PinRef, Point]
) -> Drawing | None:
    """What lies around two points of the plate, at reading size; None where they are too far apart or on the door.

    Args:
        plate: The plate with its tags and clamps.
        bounds: Of every mark of it, as ``bounds_of_all`` gives them.
        points: The points of the black and the red probe.
        places: Where every pin is.
    """
    at = [Point(places[pin].x + RULER, places[pin].y + RULER) for pin in points if pin in places]
    if len(at) < len(points) or any(place.x > plate.width for place in at):
        return None
    left, top = (min(place.x for place in at) - AROUND, min(place.y for place in at) - AROUND)
    right, bottom = (max(place.x for place in at) + AROUND, max(place.y for place in at) + AROUND)
    if right - left > WIDEST or bottom - top > WIDEST:
        return None
    seen = Rect(left, top, right - left, bottom - top)
    meet = (bounds[:, 0] < right) & (left < bounds[:, 2]) & (bounds[:, 1] < bottom) & (top < bounds[:, 3])
    shapes = [moved(plate.shapes[number], -left, -top) for number in np.flatnonzero(meet)]
    for place, role in zip(at, ("ink", "fails"), strict=True):
        shapes.append(Circle(place.x - left, place.y - top, 7.0, role, 2.0))
    return Drawing(seen.width, seen.height, tuple(shapes), "Close by")


def _mark(place: Point, edge: float, shift: float, role: str, name: str) -> list[Shape]:
    x = place.x - edge + shift if place.x >= edge else place.x
    ring = [Circle(x, place.y, MARK, role, 5.0), Circle(x, place.y, 5.0, role, 1.0, role)]
    leg = Line(x, place.y - MARK, x, place.y - 2 * MARK, role, 5.0)
    return [*ring, leg, Text(x + 8, place.y - 1.5 * MARK, name, 22.0, role, Face.BOLD, Align.LEFT)]
