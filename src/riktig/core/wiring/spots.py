"""Where clamps are, and the ways between two of them that pass no crossing of ducts."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from riktig.core.geometry import Point
from riktig.core.job import DeviceId
from riktig.core.plate import BAR_PITCH, INFEED_WIDTH, Layout
from riktig.core.wiring.duct_lines import LEAST, Entry

__all__ = ["Spot", "corners", "infeed_places", "straight_lengths", "straight_way"]


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a clamp is, and how a wire gets from it to the ducts."""

    at: Point
    stub: float = 0.0
    """From the clamp into its duct, mm."""
    entry: Entry | None = None
    hinge: int = -1
    """The stop that the loom of its door runs to; -1 for a clamp on the plate."""

    @property
    def exits(self) -> list[tuple[int, float]]:
        """The stops a wire meets first, and how far they are, mm."""
        if self.hinge >= 0:
            return [(self.hinge, self.stub)]
        if self.entry is None:
            return []
        near = [way for way in (self.entry.before, self.entry.behind) if way is not None]
        return [(stop, self.stub + length) for stop, length in near]


def infeed_places(layout: Layout) -> dict[DeviceId, Point]:
    """Where the feed of busbars lands, for each part on them: at their infeed, on the bar that is farthest down.

    Which bar carries which line is not planned; a wire that is too long is trimmed, one that is too short is lost.
    """
    places: dict[DeviceId, Point] = {}
    for stand in layout.stands:
        bars = stand.block.bars
        if bars:
            lowest = stand.y + stand.block.above + BAR_PITCH * (bars.lines - 1) / 2
            at = Point(stand.x + bars.infeed_x + INFEED_WIDTH / 2, lowest)
            places |= {adapter.device: at for adapter in bars.adapters}
    return places


def straight_way(a: Spot, b: Spot) -> float | None:
    """The way that passes no stop: along the one duct, or over the one door, mm; None when there is none.

    Args:
        a: Where it begins.
        b: Where it ends.
    """
    if a is b:
        return 0.0
    if a.entry and b.entry and a.entry.duct == b.entry.duct:
        return a.stub + abs(a.entry.along - b.entry.along) + b.stub
    if a.hinge >= 0 and a.hinge == b.hinge:
        return max(abs(a.at.x - b.at.x) + abs(a.at.y - b.at.y), LEAST)
    return None


def straight_lengths(spots: Sequence[Spot]) -> NDArray[np.float64]:
    """``straight_way`` for each with each; infinite where there is none."""
    ducts: dict[str, int] = {}
    duct = np.array([ducts.setdefault(spot.entry.duct, len(ducts)) if spot.entry else -1 for spot in spots])
    hinge = np.array([spot.hinge for spot in spots])
    place = np.array([(spot.entry.along if spot.entry else 0.0, spot.stub, spot.at.x, spot.at.y) for spot in spots])
    along, stub, x, y = place.reshape(-1, 4).T
    lengths = np.full((len(spots), len(spots)), np.inf)
    on_duct = (duct[:, None] == duct) & (duct >= 0)
    lengths[on_duct] = (stub[:, None] + np.abs(along[:, None] - along) + stub)[on_duct]
    on_door = (hinge[:, None] == hinge) & (hinge >= 0)
    lengths[on_door] = np.maximum(np.abs(x[:, None] - x) + np.abs(y[:, None] - y), LEAST)[on_door]
    np.fill_diagonal(lengths, 0.0)
    return lengths


def corners(points: list[Point], kept: int, last: int) -> list[Point]:
    """Without what lies on the straight line or at one spot; the first ``kept`` and those from ``last`` on stay.

    Args:
        points: The points of a way, in their order.
        kept: So many of the first are not on stops: they stay.
        last: From this place on none is on a stop.
    """
    left: list[Point] = []
    for n, point in enumerate(points):
        if kept <= n < last:
            before, behind = (left[-1] if left else None), (points[n + 1] if n + 1 < len(points) else None)
            if point in (before, behind):
                continue
            if before and behind and (before.x == point.x == behind.x or before.y == point.y == behind.y):
                continue
        left.append(point)
    return left
