"""Two-dimensional codes as marks of a drawing: what a scanner reads off a label or a card."""

from functools import lru_cache

import segno

from riktig.core.geometry.display import Poly, Shape
from riktig.core.geometry.rect import Point, Rect
from riktig.core.keys import Key

__all__ = ["LEAST_MODULE", "code_fits", "code_marks"]

LEAST_MODULE = 0.25
"""The smallest module that a hand scanner reads off an office print, mm (common practice, no source: 10 mil)."""
QUIET = 4
"""Modules of white around a code (ISO/IEC 18004, from memory)."""


@lru_cache(maxsize=4096)
def _modules(text: str) -> tuple[tuple[bool, ...], ...]:
    """The modules of a QR code with medium error correction, row by row; True is dark."""
    return tuple(tuple(bool(module) for module in row) for row in segno.make_qr(text, error="m").matrix)


def code_fits(text: str, side: float) -> bool:
    """Whether a code with its white border can be read at a size.

    Args:
        text: What it says.
        side: Of the square it is given, mm.
    """
    return side / (len(_modules(text)) + 2 * QUIET) >= LEAST_MODULE - 1e-9


def code_marks(text: str, square: Rect, key: Key | None = None) -> list[Shape]:
    """A QR code (ISO/IEC 18004) in the middle of a square, with the white border that scanners need.

    Dark modules that lie side by side in a row are one mark, so that no gap shows between them.

    Args:
        text: What it says.
        square: The room for it, mm.
        key: What it belongs to.
    """
    rows = _modules(text)
    side = min(square.width, square.height) / (len(rows) + 2 * QUIET)
    left = square.x + (square.width - side * len(rows)) / 2
    top = square.y + (square.height - side * len(rows)) / 2
    shapes: list[Shape] = []
    for number, row in enumerate(rows):
        begin: int | None = None
        for column, dark in enumerate((*row, False)):
            if dark and begin is None:
                begin = column
            elif not dark and begin is not None:
                x1, x2, y1 = left + begin * side, left + column * side, top + number * side
                corners = (Point(x1, y1), Point(x2, y1), Point(x2, y1 + side), Point(x1, y1 + side))
                shapes.append(Poly(corners, "print", 0.0, closed=True, fill="print", layer="code", key=key))
                begin = None
    return shapes
