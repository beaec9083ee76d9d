"""At which size a drawing opens: so that it can be read, whatever the size of its window."""

from dataclasses import dataclass

from riktig.core.geometry import CAPITAL, Drawing, Rect, Text

__all__ = ["FITS", "LEAST_PX", "PAGES", "SHEET", "WORKSHOP", "Opening"]

LEAST_PX = 12.0
"""Type of 9 pt at 96 dots an inch: nothing on the screen is smaller."""
MARGIN_PX = 30.0
"""Borders and a scroll bar."""
MOST_PAGE = 4.2
"""Pages of labels and lists are not blown up beyond this, px/mm: half as large again as on paper."""
SMALLEST = 1.6
"""The smallest capital that is printed, mm: nothing smaller decides how large a page opens."""
MOST_OVER = 1.8
"""A tall drawing is at most so much larger than what would show all of it: it is scrolled, not lost (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Opening:
    """How a view opens.

    ``natural``: texts stay as they are drawn, and it opens so that the smallest of them reads. ``fills_width``: as wide
    as the view, what is taller is scrolled. ``grows``: texts too small for the zoom grow where there is room, or are
    left out. ``top``: it begins at its upper edge.
    """

    natural: bool = False
    fills_width: bool = False
    grows: bool = False
    top: bool = False

    def scale(self, drawing: Drawing, home: Rect | None, width: float, height: float) -> float:
        """The scale at which it opens, px/mm.

        Args:
            drawing: What is shown.
            home: The part that matters; None: all of it.
            width: Of the view, px.
            height: Of the view, px.
        """
        wide, high = (home.width, home.height) if home else (drawing.width, drawing.height)
        across, down = (width - MARGIN_PX) / max(wide, 1), (height - MARGIN_PX) / max(high, 1)
        whole = min(across, down)
        if self.natural:
            sizes = (mark.size for mark in drawing.shapes if isinstance(mark, Text) and mark.text.strip())
            reads = LEAST_PX * CAPITAL / max(min(sizes, default=LEAST_PX), SMALLEST)
            return max(min(across, MOST_PAGE) if self.fills_width else whole, reads)
        if self.fills_width:
            return min(across, MOST_OVER * whole)
        return whole


FITS = Opening(grows=True)
"""All of it at once; its texts grow."""
WORKSHOP = Opening(fills_width=True, grows=True, top=True)
"""A plate and what is marked out on it: as wide as the view."""
SHEET = Opening(natural=True)
"""A sheet of circuits: all of it, or as much as can be read."""
PAGES = Opening(natural=True, fills_width=True, top=True)
"""Pages one below the other."""
