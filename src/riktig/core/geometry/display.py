"""A drawing as a list of marks in mm: one list feeds screen, PDF, SVG and DXF alike.

Colours are *roles* ("ink", "hair", "wire RD"): whoever paints decides what they look like.
Each mark has a layer (for DXF and for switching) and may carry the key of what it shows.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import Enum
from typing import NamedTuple

from riktig.core.geometry.letters import run_of
from riktig.core.geometry.rect import Point, Rect
from riktig.core.keys import Key

__all__ = ["Align", "Arc", "Circle", "Drawing", "Face", "Line", "Poly", "Shape", "Text", "bounds_of", "hit", "moved"]


class Align(Enum):
    """Where the anchor point of a text lies along its line."""

    LEFT = "left"
    MIDDLE = "middle"
    RIGHT = "right"


class Face(Enum):
    """Words in the proportional face; what is printed on the panel in the mono face."""

    WORDS = "words"
    BOLD = "bold"
    PRINTED = "printed"
    PRINTED_BOLD = "printed bold"


class Line(NamedTuple):
    """A straight stroke."""

    x1: float
    y1: float
    x2: float
    y2: float
    role: str = "ink"
    width: float = 0.25
    dashed: bool = False
    layer: str = "drawing"
    key: Key | None = None


class Poly(NamedTuple):
    """A run of straight strokes, closed and filled if asked."""

    points: tuple[Point, ...]
    role: str = "ink"
    width: float = 0.25
    closed: bool = False
    fill: str = ""
    dashed: bool = False
    layer: str = "drawing"
    key: Key | None = None


class Circle(NamedTuple):
    """A circle, filled if asked."""

    x: float
    y: float
    radius: float
    role: str = "ink"
    width: float = 0.25
    fill: str = ""
    layer: str = "drawing"
    key: Key | None = None


class Arc(NamedTuple):
    """Part of a circle from ``start`` over ``span`` degrees, counted from 3 o'clock clockwise."""

    x: float
    y: float
    radius: float
    start: float
    span: float
    role: str = "ink"
    width: float = 0.25
    layer: str = "drawing"
    key: Key | None = None


class Text(NamedTuple):
    """One line of text; x, y is its anchor on the base line, ``size`` the capital height in mm."""

    x: float
    y: float
    text: str
    size: float = 2.5
    role: str = "ink"
    face: Face = Face.WORDS
    align: Align = Align.LEFT
    upright: bool = True
    layer: str = "text"
    key: Key | None = None
    backed: bool = False


Shape = Line | Poly | Circle | Arc | Text


@dataclass(frozen=True, slots=True)
class Drawing:
    """Marks in painting order on a page of ``width`` by ``height`` mm, with a title."""

    width: float
    height: float
    shapes: tuple[Shape, ...]
    title: str = ""


def bounds_of(mark: Shape) -> Rect:
    """A rectangle that holds the mark; a text runs as long as in the shipped faces."""
    match mark:
        case Line():
            left, top = min(mark.x1, mark.x2), min(mark.y1, mark.y2)
            return Rect(left, top, abs(mark.x2 - mark.x1), abs(mark.y2 - mark.y1))
        case Poly():
            xs, ys = zip(*mark.points, strict=True)
            left, top = min(xs), min(ys)
            return Rect(left, top, max(xs) - left, max(ys) - top)
        case Circle() | Arc():
            r = mark.radius
            return Rect(mark.x - r, mark.y - r, 2 * r, 2 * r)
        case Text():
            run = mark.size * run_of(mark.text, mono=mark.face in (Face.PRINTED, Face.PRINTED_BOLD))
            shift = {Align.LEFT: 0.0, Align.MIDDLE: run / 2, Align.RIGHT: run}[mark.align]
            if mark.upright:
                return Rect(mark.x - shift, mark.y - mark.size, run, mark.size * 1.2)
            return Rect(mark.x - mark.size, mark.y - run + shift, mark.size * 1.2, run)


def moved(mark: Shape, dx: float, dy: float) -> Shape:
    """The same mark elsewhere.

    Args:
        mark: The mark.
        dx: How far to the right, mm.
        dy: How far down, mm.
    """
    match mark:
        case Line():
            return mark._replace(x1=mark.x1 + dx, y1=mark.y1 + dy, x2=mark.x2 + dx, y2=mark.y2 + dy)
        case Poly():
            return mark._replace(points=tuple(Point(p.x + dx, p.y + dy) for p in mark.points))
        case Circle() | Arc() | Text():
            return mark._replace(x=mark.x + dx, y=mark.y + dy)


def scaled(mark: Shape, factor: float) -> Shape:
    """The same mark larger or smaller, seen from the datum; its line width as well.

    Args:
        mark: The mark.
        factor: How many times as large, above 0.
    """
    match mark:
        case Line():
            x1, y1, x2, y2 = (at * factor for at in (mark.x1, mark.y1, mark.x2, mark.y2))
            return mark._replace(x1=x1, y1=y1, x2=x2, y2=y2, width=mark.width * factor)
        case Poly():
            points = tuple(Point(p.x * factor, p.y * factor) for p in mark.points)
            return mark._replace(points=points, width=mark.width * factor)
        case Circle() | Arc():
            radius, width = mark.radius * factor, mark.width * factor
            return mark._replace(x=mark.x * factor, y=mark.y * factor, radius=radius, width=width)
        case Text():
            return mark._replace(x=mark.x * factor, y=mark.y * factor, size=mark.size * factor)


def hit(shapes: Iterable[Shape], point: Point, reach: float = 1.0) -> Key | None:
    """The key of the topmost keyed shape within ``reach`` mm of the point; None where there is none.

    Of several, the smallest wins, so that a pin on a part can be chosen.

    Args:
        shapes: The shapes, those drawn last on top.
        point: A place, mm from the datum.
        reach: How near is a hit, mm.
    """
    best: Key | None = None
    best_area = float("inf")
    for mark in shapes:
        if not mark.key:
            continue
        box = bounds_of(mark).grown(reach)
        area = box.width * box.height
        if box.holds(point) and area <= best_area:
            best, best_area = mark.key, area
    return best
