"""What stands on a sheet so far, and whether a label would touch it."""

from collections import defaultdict
from collections.abc import Iterable
from itertools import pairwise

from riktig.core.geometry import Arc, Circle, Line, Poly, Shape, Text, bounds_of

__all__ = ["LabelCollisions"]

CELL = 20.0
CLEAR = 0.3
"""Labels keep so far from lines and symbols, mm."""
Box = tuple[float, float, float, float]


class LabelCollisions:
    """The marks of a sheet with an index of where they are."""

    def __init__(self) -> None:
        self.shapes: list[Shape] = []
        self._texts: dict[tuple[int, int], list[Box]] = defaultdict(list)
        self._lines: dict[tuple[int, int], list[Box]] = defaultdict(list)

    def add(self, shapes: Iterable[Shape]) -> None:
        """Puts marks on the sheet."""
        for mark in shapes:
            self.shapes.append(mark)
            index = self._texts if isinstance(mark, Text) else self._lines
            for box in _boxes(mark):
                for cell in _cells(box):
                    index[cell].append(box)

    def clear(self, text: Text) -> bool:
        """Whether a text meets no other text."""
        return not _meets(_box_of(text), self._texts, 0.0)

    def free(self, text: Text, apart: float = 0.0) -> bool:
        """Whether a text meets neither a text nor a line or symbol.

        Args:
            text: The text.
            apart: How far from every other text it stays, mm.
        """
        box = _box_of(text)
        return not _meets(box, self._texts, apart) and not _meets(box, self._lines, CLEAR)


def _box_of(mark: Shape) -> Box:
    box = bounds_of(mark)
    return (box.x, box.y, box.right, box.bottom)


def _boxes(mark: Shape) -> list[Box]:
    """Boxes of a mark: an open run of strokes has one a stroke, so that what lies beside it stays free."""
    match mark:
        case Poly(points=points, closed=False):
            return [(min(a.x, b.x), min(a.y, b.y), max(a.x, b.x), max(a.y, b.y)) for a, b in pairwise(points)]
        case Line() | Poly() | Circle() | Arc() | Text():
            return [_box_of(mark)]


def _cells(box: Box) -> list[tuple[int, int]]:
    left, top, right, bottom = (int(value // CELL) for value in box)
    return [(x, y) for x in range(left, right + 1) for y in range(top, bottom + 1)]


def _meets(box: Box, index: dict[tuple[int, int], list[Box]], clear: float) -> bool:
    left, top, right, bottom = box[0] - clear, box[1] - clear, box[2] + clear, box[3] + clear
    for cell in _cells((left, top, right, bottom)):
        for x1, y1, x2, y2 in index.get(cell, ()):
            if left < x2 and x1 < right and top < y2 and y1 < bottom:
                return True
            if x1 == x2 and left < x1 < right and top < y2 and y1 < bottom:
                return True
            if y1 == y2 and top < y1 < bottom and left < x2 and x1 < right:
                return True
    return False
