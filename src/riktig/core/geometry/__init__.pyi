from .codes import LEAST_MODULE, code_fits, code_marks
from .display import Align, Arc, Circle, Drawing, Face, Line, Poly, Shape, Text, bounds_of, hit, moved, scaled
from .legible import Legible, legible
from .letters import CAPITAL, run_of, unprintable
from .near import near_pairs
from .rect import TOLERANCE_MM, Point, Rect, close

__all__ = [
    "CAPITAL",
    "LEAST_MODULE",
    "TOLERANCE_MM",
    "Align",
    "Arc",
    "Circle",
    "Drawing",
    "Face",
    "Legible",
    "Line",
    "Point",
    "Poly",
    "Rect",
    "Shape",
    "Text",
    "bounds_of",
    "close",
    "code_fits",
    "code_marks",
    "hit",
    "legible",
    "moved",
    "near_pairs",
    "run_of",
    "scaled",
    "unprintable",
]
