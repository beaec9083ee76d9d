"""In which order holes are made: least walking, and every tool taken in hand once."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from riktig.core.holes.model import Hole, Tool

__all__ = ["MarkOut", "Round", "mark_out_order", "shortest_walk", "walk_length"]

_TOOLS = {tool: n for n, tool in enumerate((Tool.DRILL, Tool.TAP, Tool.SCREW, Tool.HOLE_SAW, Tool.PUNCH, Tool.CUT))}
"""Small before large: a punch and a cut-out need a hole drilled first (common practice, no source)."""
F = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Round:
    """One walk with one tool in hand."""

    tool: str
    holes: tuple[Hole, ...]


@dataclass(frozen=True, slots=True)
class MarkOut:
    """One surface: the walk for marking all holes, and a round a tool for making them; lengths of the walks, mm."""

    face: str
    marking: tuple[Hole, ...]
    rounds: tuple[Round, ...]
    walk: float
    row_by_row: float


def mark_out_order(holes: Iterable[Hole], face: str) -> MarkOut:
    """The order for one surface. Marking starts at the datum; every round goes on where the last one ended.

    Args:
        holes: The holes.
        face: The name of the surface.
    """
    on_face = [hole for hole in holes if hole.face == face]
    rows = sorted(on_face, key=lambda hole: (hole.y, hole.x))
    marking = shortest_walk(rows, (0.0, 0.0))
    groups: dict[tuple[int, float, str], list[Hole]] = {}
    for hole in rows:
        groups.setdefault((_TOOLS[hole.tool], hole.drill or hole.width, hole.tool_said), []).append(hole)
    at_now = (0.0, 0.0)
    rounds: list[Round] = []
    for (_, _, name), group in sorted(groups.items(), key=lambda group: group[0]):
        walk = shortest_walk(group, at_now)
        rounds.append(Round(name, walk))
        at_now = (walk[-1].x, walk[-1].y)
    return MarkOut(face, marking, tuple(rounds), walk_length(marking), walk_length(rows))


def walk_length(holes: Sequence[Hole]) -> float:
    """The way from the first to the last in the order given, mm."""
    if len(holes) < 2:
        return 0.0
    points = np.array([(hole.x, hole.y) for hole in holes])
    return float(np.hypot(*np.diff(points, axis=0).T).sum())


def shortest_walk(holes: Sequence[Hole], start: tuple[float, float]) -> tuple[Hole, ...]:
    """The holes in an order with a short walk from ``start`` over all of them.

    Method:
        The nearest next, then stretches turned round and moved while that shortens the walk (2-opt and Or-opt for an
        open path); up to eight holes the shortest of all orders is found.

    Args:
        holes: The holes.
        start: Where the walk begins, mm.
    """
    if len(holes) < 2:
        return tuple(holes)
    points = np.array([start, *((hole.x, hole.y) for hole in holes)])
    far = np.hypot(points[:, None, 0] - points[None, :, 0], points[:, None, 1] - points[None, :, 1])
    order = _exact(far) if len(holes) <= 8 else _improved(_nearest(far), far)
    return tuple(holes[i - 1] for i in order[1:])


def _nearest(far: F) -> list[int]:
    left = np.ones(len(far), dtype=bool)
    left[0] = False
    order = [0]
    while left.any():
        near = np.where(left, far[order[-1]], np.inf)
        order.append(int(near.argmin()))
        left[order[-1]] = False
    return order


def _exact(far: F) -> list[int]:
    """The shortest open path from node 0 over all others (dynamic programming over sets)."""
    n = len(far)
    best: dict[tuple[int, int], tuple[float, int]] = {(1 << i, i): (far[0, i], 0) for i in range(1, n)}
    full = sum(1 << i for i in range(1, n))
    for size in range(2, n):
        for seen in [s for s in range(2, full + 1, 2) if s.bit_count() == size]:
            for last in (i for i in range(1, n) if seen >> i & 1):
                before = seen & ~(1 << last)
                best[seen, last] = min((best[before, k][0] + far[k, last], k) for k in range(1, n) if before >> k & 1)
    last = min(range(1, n), key=lambda i: best[full, i][0])
    order, seen = [], full
    while last:
        order.append(last)
        seen, last = seen & ~(1 << last), best[seen, last][1]
    return [0, *reversed(order)]


def _improved(order: list[int], far: F) -> list[int]:
    """Turns stretches round and moves up to three holes elsewhere until nothing gets shorter."""
    path = np.array(order)
    for _ in range(200):
        turned = _turn(path, far)
        moved = _move(turned if turned is not None else path, far)
        if turned is None and moved is None:
            break
        path = moved if moved is not None else turned if turned is not None else path
    return [int(i) for i in path]


def _turn(path: NDArray[np.int64], far: F) -> NDArray[np.int64] | None:
    """The best stretch to turn round; None when none helps. The first place stays, the last may be anything."""
    n = len(path)
    step = far[path[:-1], path[1:]]
    a, b = path[:-1], path[1:]
    # Turning i+1 .. j joins a[i] to path[j], and b[i] to path[j+1] when there is one.
    gain = step[:, None] - far[np.ix_(a, path)]
    after = np.zeros((n - 1, n))
    after[:, :-1] = step[None, :] - far[np.ix_(b, path[1:])]
    gain = gain + after
    allowed = np.arange(n)[None, :] > np.arange(n - 1)[:, None] + 1
    gain = np.where(allowed, gain, -np.inf)
    i, j = np.unravel_index(int(gain.argmax()), gain.shape)
    if gain[i, j] <= 1e-6:
        return None
    return np.concatenate([path[: i + 1], path[i + 1 : j + 1][::-1], path[j + 1 :]])


def _move(path: NDArray[np.int64], far: F) -> NDArray[np.int64] | None:
    """The best stretch of up to three holes to put elsewhere; None when none helps."""
    n = len(path)
    best, best_gain = 1e-6, None
    for size in (1, 2, 3):
        for i in range(1, n - size + 1):
            rest = np.concatenate([path[:i], path[i + size :]])
            first, last = path[i], path[i + size - 1]
            freed = far[path[i - 1], first]
            if i + size < n:
                freed += far[last, path[i + size]] - far[path[i - 1], path[i + size]]
            for near, other, turned in ((first, last, False), (last, first, True)):
                cost = far[rest, near]
                cost = cost + np.append(far[other, rest[1:]] - far[rest[:-1], rest[1:]], 0.0)
                at = int(cost.argmin())
                if freed - cost[at] > best:
                    best = float(freed - cost[at])
                    stretch = path[i : i + size][::-1] if turned else path[i : i + size]
                    best_gain = np.concatenate([rest[: at + 1], stretch, rest[at + 1 :]])
    return best_gain
