"""Surfaces marked out: every hole with its cross, its number and its running dimensions from the datum."""

from collections.abc import Sequence

from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Point, Poly, Rect, Shape, Text, bounds_of
from riktig.core.holes.model import Hole, HoleSurface
from riktig.core.keys import DuctKey, HoleKey, RailKey
from riktig.core.plate import RULER, at_ruler, box, grown_by, rulers

__all__ = ["draw_sheet", "hole_shapes", "mark_out", "running_shapes", "walk_shapes"]

NUMBER, PLACE, MOST_NUMBER = 7.0, 4.6, 12.0
KEPT = ("plate", "door", "ruler", "rail", "duct")


def draw_sheet(sheet: HoleSurface) -> Drawing:
    """A bare surface with its rulers and its datum, for gland plates and sides."""
    shapes: list[Shape] = [box(at_ruler(sheet.rect, Point(RULER, RULER)), fill="panel", layer="door")]
    shapes += rulers(sheet.width, sheet.height)
    return Drawing(sheet.width + 2 * RULER, sheet.height + RULER + 6, tuple(shapes), sheet.name.capitalize())


def mark_out(
    drawing: Drawing, holes: tuple[Hole, ...], face: str, left: float = 0.0, *, places: bool = True
) -> Drawing:
    """The drawing with every hole of a surface: crosses, numbers, running dimensions and datum.

    Args:
        drawing: The drawing, in mm.
        holes: The holes.
        face: The name of the surface.
        left: Where the surface's datum is from the drawing's, mm: that of a right door.
        places: Each with its place written beside it; without, only the numbers, which then are larger.
    """
    shapes = [_plain(m) for m in drawing.shapes if m.layer in KEPT or _names_a_piece(m)]
    on_face = [hole for hole in holes if hole.face == face]
    grown = grown_by(Rect(0, 0, drawing.width, drawing.height))
    taken: list[Rect] = []
    for hole in on_face:
        shapes += hole_shapes(hole, Point(RULER + left, RULER), grown, taken, places=places)
    width = max((bounds_of(mark).right for mark in shapes), default=drawing.width) + 4
    return Drawing(width, drawing.height, tuple(shapes), f"{drawing.title}, mark-out")


def hole_shapes(
    hole: Hole, shift: Point, grown: float = 1.0, taken: list[Rect] | None = None, *, places: bool = True
) -> list[Shape]:
    """A hole: its edge, a cross, its number and its place; texts go where no other text of a hole stands.

    Args:
        hole: The hole.
        shift: How far everything is moved, mm.
        grown: How many times larger texts are than on a small plate.
        taken: Room that other shapes have taken; added to.
        places: Whether the places of the holes are written too.
    """
    x, y, r = hole.x + shift.x, hole.y + shift.y, hole.drill / 2
    key = HoleKey(hole.number)
    reach = max(r + 2, 4.0)
    shapes: list[Shape] = []
    if hole.is_cut_out:
        reach = 6.0
        shapes.append(box(hole.outline.moved(*shift), "act", 0.5, key=key, layer="hole"))
    else:
        shapes.append(Circle(x, y, r, "act", 0.4, "", "hole", key))
    shapes += [
        Line(x - reach, y, x + reach, y, "act", 0.3, layer="hole", key=key),
        Line(x, y - reach, x, y + reach, "act", 0.3, layer="hole", key=key),
    ]
    place = f"{hole.x:g}, {hole.y:g}" if places else ""
    below = PLACE * grown + 3 if places else 1.0
    size = min(NUMBER * grown * (1.0 if places else 1.4), MOST_NUMBER if places else 1.4 * MOST_NUMBER)
    wide = max(len(hole.number) * size * 0.86, len(place) * PLACE * grown * 0.72)
    spots = [
        Rect(x + reach + 0.5, y - 1.5 - size, wide, size + below),
        Rect(x - reach - 0.5 - wide, y - 1.5 - size, wide, size + below),
        Rect(x - wide / 2, y + reach + 1, wide, size + below),
        Rect(x - wide / 2, y - reach - 2 - size - below + 3, wide, size + below),
    ]
    free = [spot for spot in spots if not any(spot.overlap(other)[0] for other in taken or ())]
    at = (free or spots)[0]
    if taken is not None:
        taken.append(at)
    shapes.append(Text(at.x, at.y + size, hole.number, size, "ink", Face.PRINTED_BOLD, key=key))
    if places:
        shapes.append(Text(at.x, at.y + size + 1.4 + PLACE * grown, place, PLACE * grown, "second", key=key))
    return shapes


def running_shapes(hole: Hole, shift: Point, size: float) -> list[Shape]:
    """The two running dimensions of one hole, from the datum along the top and down the side, large.

    Args:
        hole: The hole.
        shift: How far everything is moved, mm.
        size: The height of figures, mm.
    """
    x, y = hole.x + shift.x, hole.y + shift.y
    return [
        Line(shift.x, y, x, y, "act", 0.8),
        Line(x, shift.y, x, y, "act", 0.8),
        Circle(x, y, max(hole.drill / 2, size * 0.8), "act", 1.4),
        Text(x, shift.y - 2, f"{hole.x:g}", size, "act", Face.PRINTED_BOLD, Align.MIDDLE, backed=True),
        Text(shift.x + size * 0.4, y - 2, f"{hole.y:g}", size, "act", Face.PRINTED_BOLD, backed=True),
    ]


def walk_shapes(walk: Sequence[Hole], shift: Point) -> list[Shape]:
    """The way from hole to hole, with an arrow head on each leg.

    Args:
        walk: The holes in the order they are made.
        shift: How far everything is moved, mm.
    """
    if len(walk) < 2:
        return []
    points = tuple(Point(hole.x + shift.x, hole.y + shift.y) for hole in walk)
    return [Poly(points, "third", 0.9, dashed=True)]


def _names_a_piece(mark: Shape) -> bool:
    """Whether it is the name of a rail or duct: the piece carries the same."""
    return isinstance(mark, Text) and isinstance(mark.key, RailKey | DuctKey)


def _plain(mark: Shape) -> Shape:
    """The mark without its lens colour, so that hole numbers can be read over it."""
    if isinstance(mark, Circle) and mark.fill.startswith("lens"):
        return mark._replace(fill="card")
    return mark
