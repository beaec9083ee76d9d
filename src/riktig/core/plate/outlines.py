"""Outlines that all drawings are made of."""

from riktig.core.geometry import Point, Poly, Rect
from riktig.core.keys import Key

__all__ = ["box", "dashed"]


def box(
    rect: Rect, role: str = "ink", width: float = 0.5, fill: str = "", key: Key | None = None, layer: str = "plate"
) -> Poly:
    """The outline of a rectangle.

    Args:
        rect: The rectangle, mm from the datum.
        role: The role of its line, which says its colour.
        width: Outer width, mm.
        fill: The role it is filled with; "" for none.
        key: What it stands for; None for nothing that can be selected.
        layer: The layer it is drawn on.
    """
    corners = (
        Point(rect.x, rect.y),
        Point(rect.right, rect.y),
        Point(rect.right, rect.bottom),
        Point(rect.x, rect.bottom),
    )
    return Poly(corners, role, width, True, fill, False, layer, key)


def dashed(outline: Poly) -> Poly:
    """The same outline in a dashed line."""
    return outline._replace(dashed=True)
