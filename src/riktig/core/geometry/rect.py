"""Points and upright rectangles in mm."""

from dataclasses import dataclass
from typing import NamedTuple

__all__ = ["TOLERANCE_MM", "Point", "Rect", "close"]

TOLERANCE_MM = 0.01
"""Lengths closer than this are the same (chosen by us: a fiftieth of what a scribe can mark)."""


def close(a: float, b: float) -> bool:
    """Whether two lengths (mm) are the same within the tolerance.

    Args:
        a: One length, mm.
        b: The other, mm.
    """
    return abs(a - b) <= TOLERANCE_MM


class Point(NamedTuple):
    """A place in mm from the datum: x to the right, y down."""

    x: float
    y: float


@dataclass(frozen=True, slots=True)
class Rect:
    """An upright rectangle: left upper corner, width and height, mm.

    Raises:
        ValueError: a negative width or height.
    """

    x: float
    y: float
    width: float
    height: float

    def __post_init__(self) -> None:
        if self.width < 0 or self.height < 0:
            raise ValueError(f"a rectangle cannot be {self.width} by {self.height} mm")

    @property
    def right(self) -> float:
        """X of the right edge."""
        return self.x + self.width

    @property
    def bottom(self) -> float:
        """Y of the lower edge."""
        return self.y + self.height

    @property
    def centre(self) -> Point:
        """The middle."""
        return Point(self.x + self.width / 2, self.y + self.height / 2)

    def grown(
        self, left: float, top: float | None = None, right: float | None = None, bottom: float | None = None
    ) -> "Rect":
        """The rectangle with room added on each side (one value: the same on all)."""
        top = left if top is None else top
        right = left if right is None else right
        bottom = top if bottom is None else bottom
        return Rect(self.x - left, self.y - top, self.width + left + right, self.height + top + bottom)

    def moved(self, dx: float, dy: float) -> "Rect":
        """The same rectangle elsewhere."""
        return Rect(self.x + dx, self.y + dy, self.width, self.height)

    def holds(self, point: Point) -> bool:
        """Whether the point lies in it or on its edge."""
        return self.x <= point.x <= self.right and self.y <= point.y <= self.bottom

    def overlap(self, other: "Rect") -> tuple[float, float]:
        """How far the two reach into each other along x and y, mm; (0, 0) when they do not."""
        across = min(self.right, other.right) - max(self.x, other.x)
        down = min(self.bottom, other.bottom) - max(self.y, other.y)
        if across <= TOLERANCE_MM or down <= TOLERANCE_MM:
            return (0.0, 0.0)
        return (across, down)

    def sticks_out_of(self, outer: "Rect") -> float:
        """The furthest this reaches beyond ``outer``, mm; 0 when it lies inside."""
        out = max(outer.x - self.x, outer.y - self.y, self.right - outer.right, self.bottom - outer.bottom)
        return out if out > TOLERANCE_MM else 0.0
