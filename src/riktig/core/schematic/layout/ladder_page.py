"""The page of a ladder: a control sheet turned over its diagonal, so that its paths run level."""

from riktig.core.geometry import Align, Arc, Circle, Line, Point, Poly, Shape, Text
from riktig.core.schematic.layout.sheet_model import TITLE_BLOCK, Sheet

__all__ = ["LADDER_WIDTH", "MARGIN", "SHIFT", "frame_bottom", "page_height", "turned"]

SHIFT = 14.0
"""To the right of where turning alone would put it, mm: room for the numbers of the lines."""
MARGIN = 9.0
LADDER_WIDTH = 216.0
FOOT = 22.0
"""Below the last line: room for what is said of its symbols, mm."""


def frame_bottom(sheet: Sheet) -> float:
    """Where the frame of a ladder ends, mm: a page is only as high as its lines ask, so it reads large."""
    return sheet.lines[-1] + FOOT


def page_height(sheet: Sheet) -> float:
    """The height of the page of a ladder, mm."""
    return frame_bottom(sheet) + TITLE_BLOCK + 3


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
