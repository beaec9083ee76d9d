"""The page of a ladder: a control sheet turned over its diagonal, so that its paths run level."""

from riktig.core.geometry import Align, Arc, Circle, Line, Point, Poly, Shape, Text
from riktig.core.schematic.layout.sheet_model import FRAME_RIGHT, TITLE_BLOCK

__all__ = ["LADDER_HEIGHT", "LADDER_WIDTH", "MARGIN", "SHIFT", "turned"]

SHIFT = 14.0
"""To the right of where turning alone would put it, mm: room for the numbers of the lines."""
MARGIN = 9.0
LADDER_WIDTH, LADDER_HEIGHT = 212.0, FRAME_RIGHT + TITLE_BLOCK + 3


def turned(shape: Shape) -> Shape:
    """A shape of an upright control sheet where it stands on the ladder: x and y exchanged, and moved aside.

    A text keeps its way of reading: it stands in the middle above where its anchor was.
    """
    match shape:
        case Line():
            return shape._replace(x1=shape.y1 + SHIFT, y1=shape.x1, x2=shape.y2 + SHIFT, y2=shape.x2)
        case Poly():
            return shape._replace(points=tuple(Point(p.y + SHIFT, p.x) for p in shape.points))
        case Circle():
            return shape._replace(x=shape.y + SHIFT, y=shape.x)
        case Arc():
            return shape._replace(x=shape.y + SHIFT, y=shape.x, start=90 - shape.start - shape.span)
        case Text():
            return shape._replace(x=shape.y + SHIFT, y=shape.x, align=Align.MIDDLE)
