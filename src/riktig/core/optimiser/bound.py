"""What no plan can be better than: proven, and honest about how far that is from what is found."""

from collections import defaultdict

import numpy as np

from riktig.core.optimiser.problem import Problem
from riktig.core.optimiser.tables import Table

__all__ = ["least_wire"]

_Wire = tuple[int, int, int, int, float, float, float, float, float, float]


def least_wire(problem: Problem) -> float:
    """A length that the wires on the plate cannot fall below, mm, wherever the units stand.

    Method:
        Every wire has to leave its part, cross the room kept for fingers and reach the middle of the duct, at
        both ends: that much is certain, since a row is at least as high as each unit in it asks. Along the duct,
        wires from one side of a unit to the same side of others lie in the same duct, or go round by an upright,
        which is at least the height of a row: of the others at most two can stand next to it, two behind those,
        and so on; the narrowest are taken to stand nearest, and those with most conductors to be the nearest.
        Each wire gives half of its way to either of its units. With locks, where rows are as they are, only
        the ends count.
    """
    unit, plate = problem.question.unit, problem.question.plate
    duct = plate.duct
    total = 0.0
    around: dict[tuple[int, int], list[_Wire]] = defaultdict(list)
    for line in problem.question.wire:
        wire: _Wire = line.item()
        a, sa, b, sb, _, ya, _, yb, count, _ = wire
        total += count * _end(unit[a], sa, ya, duct, problem.is_fixed)
        if b >= 0:
            total += count * _end(unit[b], sb, yb, duct, problem.is_fixed)
            if a != b and sa == sb and not problem.is_fixed and a < problem.free and b < problem.free:
                around[a, sa].append(wire)
                around[b, sb].append(wire)
    if not problem.is_fixed:
        row = float(np.min(unit["above"][: problem.free] + unit["below"][: problem.free])) + duct
        for (me, _), wires in around.items():
            total += _fan(me, wires, unit, row) / 2
    return total


def _end(unit: np.void, side: int, dy: float, duct: float, fixed: bool) -> float:
    """From a pin to the middle of the duct at the very least, mm."""
    if fixed or unit["width"] <= 0:
        return 0.0
    up, down = float(unit["above"] + dy), float(unit["below"] - dy)
    return max(up if side == 0 else min(up, down), 0.0) + duct / 2


def _fan(me: int, wires: list[_Wire], unit: Table, around: float) -> float:
    """What the wires from one side of a unit to the same side of others take along the duct at the very least, mm."""
    counts: dict[int, float] = defaultdict(float)
    inset: dict[int, float] = {}
    for a, _, b, _, xa, _, xb, _, count, _ in wires:
        other, here_x, theirs = (b, xa, xb) if a == me else (a, xb, xa)
        counts[other] += count
        to_right, to_left = unit["width"][me] - here_x + theirs, here_x + unit["width"][other] - theirs
        near = min(to_right, to_left)
        inset[other] = min(inset.get(other, near), near)
    widths = sorted(unit["width"][k] for k in counts)
    least = max(min(inset.values()), 0.0)
    # The narrowest stand nearest, one to the left and one to the right: (k // 2) others are between.
    ways = [min(least + sum(widths[: k // 2]), around) for k in range(len(widths))]
    heavy = sorted(counts.values(), reverse=True)
    return float(sum(count * way for count, way in zip(heavy, ways, strict=True)))
