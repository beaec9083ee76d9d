"""Rectangles, the one tolerance, and drawings as lists of marks in millimetres.

Axes: x to the right, y downwards, from the datum in the upper left corner, as one reads a plate.
"""

from riktig.core.geometry.display import Align, Arc, Circle, Drawing, Face, Line, Poly, Shape, Text, bounds_of, hit
from riktig.core.geometry.letters import CAPITAL, run_of
from riktig.core.geometry.rect import TOLERANCE_MM, Point, Rect, close

__all__ = [
    "CAPITAL",
    "TOLERANCE_MM",
    "Align",
    "Arc",
    "Circle",
    "Drawing",
    "Face",
    "Line",
    "Point",
    "Poly",
    "Rect",
    "Shape",
    "Text",
    "bounds_of",
    "close",
    "hit",
    "run_of",
]
