"""Which rectangles of two lists are near each other, so that only those are looked at one by one."""

from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray

from riktig.core.geometry.rect import Rect

__all__ = ["near_pairs"]


def near_pairs(
    rects: Sequence[Rect], others: Sequence[Rect], across: float = 0.0, down: float = 0.0
) -> list[tuple[int, int]]:
    """The places of all pairs that lie over each other, or no further apart than some room.

    Args:
        rects: Rectangles, mm.
        others: Rectangles, mm.
        across: How far apart a pair may be along x, mm.
        down: How far apart a pair may be along y, mm.

    Returns:
        Places in ``rects`` and in ``others``, in the order of both.
    """
    if not rects or not others:
        return []
    a, b = _edges(rects), _edges(others)
    near = (a[:, None, 0] < b[None, :, 2] + across) & (b[None, :, 0] < a[:, None, 2] + across)
    near &= (a[:, None, 1] < b[None, :, 3] + down) & (b[None, :, 1] < a[:, None, 3] + down)
    return [(int(first), int(second)) for first, second in np.argwhere(near)]


def _edges(rects: Sequence[Rect]) -> NDArray[np.float64]:
    """Left, top, right and lower edge of each."""
    return np.array([(rect.x, rect.y, rect.x + rect.width, rect.y + rect.height) for rect in rects])
