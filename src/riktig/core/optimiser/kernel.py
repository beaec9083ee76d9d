"""The cost of a plan: compiled, since it is asked millions of times.

A plan is ``seq`` (units in order, row after row) and ``ends`` (where each row ends in ``seq``). All lengths
are mm; every wish is counted in mm of wire. Units are described by the columns of ``unit``, wires by those of
``wire`` and ``pin``, the plate by ``plate``: see the indices below.
"""

import numpy as np
from numpy.typing import NDArray

from riktig.core.optimiser.compiled import compiled

__all__ = ["cost_of", "place", "wire_length"]

F = NDArray[np.float64]
N = NDArray[np.int64]

# Columns of ``unit``.
WIDTH, LEFT, RIGHT, ABOVE, BELOW, TERMINAL, SCREWED, HEAT, LOW_VOLTAGE, DEPTH, INCOMER, FIXED_ROW, FIXED_X, UP, DOWN = (
    range(15)
)
# Columns of ``wire``: unit and side (0 top, 1 bottom) at both ends. Of ``pin``: dx from the unit's left edge and dy
# from the rail at both ends, how many conductors, and what they weigh: thick ones more. A wire to an upright has -1
# as its second unit, the upright (0 left, 1 right) as side, its y (nan: its foot) as dy.
UA, SA, UB, SB = range(4)
XA, YA, XB, YB, COUNT, WEIGHT = range(6)
# Entries of ``plate``.
(
    P_WIDTH,
    P_HEIGHT,
    P_EDGE,
    P_DUCT,
    P_GAP,
    P_BESIDE,
    P_TURNED,
    P_FIXED,
    P_FOOT,
    P_PAST,
    P_SPARE,
    P_CLEAR,
    P_ENTRY_TOP,
) = range(13)

LONG, HIGH = 1500.0, 200.0
"""What a mm counts by which a row is too long or the plate too low, mm of wire (chosen by us: no wire is worth it)."""
UNFIT = 4000.0
"""What not fitting at all counts beside (chosen by us: more than a wire across the plate)."""
SPARE = 20.0
"""What a mm counts that lacks to the spare room of the practice (chosen by us)."""
HEIGHT = 3.0
"""What a mm of plate taken counts (chosen by us: room is left in one piece, at the foot)."""
HOT_LOW = 25.0
"""What a watt at the very foot counts against one at the top (chosen by us)."""
HOT_PAIR = 12.0
"""What the lesser watts of two warm neighbours count (chosen by us)."""
WARM_W = 4.0
"""From how many watts a neighbour is warm (chosen by us)."""
MIXED = 150.0
"""What extra-low voltage beside mains counts, a side (chosen by us)."""
ENTRY = 20.0
"""What a mm between incomer and cable entry counts beside its wires (chosen by us: it belongs there)."""
COLUMN = 0.4
"""What a mm counts by which parts of one circuit stand out of their column (chosen by us)."""
BROKEN = 400.0
"""What a rail counts that a screwed part breaks (chosen by us: one more piece to cut)."""
BEHIND = 400.0
"""What a part counts that an operator of the door would touch (chosen by us)."""


@compiled
def place(seq: N, ends: N, unit: F, plate: F, rails: F, x: F, y: F, row: N, duct: F, over: F) -> float:
    """Packs the rows and fills ``x``, ``y`` (rail), ``row`` of the units, ``duct`` (centre above each row).

    ``rails`` holds y, left end and length of every rail, the room above and below it (fixed rails only).
    ``over`` takes what is too long, too high and too deep for its row, mm.

    Returns:
        The lower end of the last row, mm.
    """
    rows = len(ends)
    fixed = plate[P_FIXED] > 0
    left = plate[P_EDGE] + plate[P_DUCT]
    over[0] = over[1] = over[2] = 0.0
    used = 0.0
    length = 0.0
    down = plate[P_EDGE]
    begin = 0
    for r in range(rows):
        end = ends[r]
        strips = False
        has = end > begin
        for k in range(len(seq), len(row)):
            if unit[k, FIXED_ROW] == r and unit[k, WIDTH] > 0:
                has = True
        high = low = 0.0
        at = 0.0
        before = 0.0
        for k in range(begin, end):
            u = seq[k]
            row[u] = r
            strips = strips or unit[u, TERMINAL] > 0
            gap = max(unit[u, LEFT], before)
            at += gap
            if fixed:
                moved = True
                while moved:
                    moved = False
                    for f in range(len(seq), len(row)):
                        if unit[f, FIXED_ROW] != r or unit[f, WIDTH] <= 0:
                            continue
                        lo = unit[f, FIXED_X] - rails[r, 1] - max(unit[f, LEFT], unit[u, RIGHT])
                        hi = unit[f, FIXED_X] - rails[r, 1] + unit[f, WIDTH] + max(unit[f, RIGHT], gap)
                        if at < hi - 1e-6 and at + unit[u, WIDTH] > lo + 1e-6:
                            at = hi
                            moved = True
            x[u] = at
            at += unit[u, WIDTH]
            before = unit[u, RIGHT]
            used += unit[u, WIDTH]
            high = max(high, unit[u, ABOVE])
            low = max(low, unit[u, BELOW])
        if fixed:
            duct[r] = rails[r, 5]
            run = rails[r, 2]
            over[1] += max(high - rails[r, 3], 0.0) + max(low - rails[r, 4], 0.0)
            base, origin = rails[r, 0], rails[r, 1]
            down = max(down, base + low)
        else:
            run = plate[P_WIDTH] - 2 * left
            if strips:
                run -= plate[P_BESIDE]
            origin = left
            if has:
                first_turned = plate[P_TURNED] > 0 and strips and r == 0
                duct[r] = np.nan if first_turned else down + plate[P_DUCT] / 2
                if not first_turned:
                    down += plate[P_DUCT]
                base = down + high
                down = base + low
            else:
                duct[r] = np.nan
                base = down
        for k in range(begin, end):
            x[seq[k]] += origin
            y[seq[k]] = base
        over[0] += max(at - run, 0.0)
        if has:
            length += run
            for f in range(len(seq), len(row)):
                if unit[f, FIXED_ROW] == r:
                    y[f] = base
                    if unit[f, WIDTH] > 0:
                        used += unit[f, WIDTH]
        begin = end
    for f in range(len(seq), len(row)):
        if unit[f, FIXED_ROW] >= 0:
            x[f] = unit[f, FIXED_X]
            row[f] = int(unit[f, FIXED_ROW])
            y[f] = y[f] if not fixed else rails[row[f], 0]
    if not fixed:
        over[1] = max(down - plate[P_HEIGHT], 0.0)
    over[2] = max(used - (1.0 - plate[P_SPARE]) * length, 0.0)
    return float(down)


@compiled
def wire_length(unit: F, wire: N, pin: F, plate: F, x: F, y: F, row: N, duct: F, foot: float, by: int) -> float:
    """The wires of a placed plan, mm: up or down into a duct, along it, and by an upright to another.

    ``by`` is the column that each counts by: ``COUNT`` gives the length, ``WEIGHT`` the cost.
    """
    rows = len(duct)
    above, below = np.zeros(rows, np.int64), np.zeros(rows, np.int64)
    for r in range(rows):
        above[r], below[r] = duct_of(r, 0, duct, rows), duct_of(r, 1, duct, rows)
    west = plate[P_EDGE] + plate[P_DUCT] / 2
    east = plate[P_WIDTH] - west
    total = 0.0
    for e in range(len(wire)):
        a, b = wire[e, UA], wire[e, UB]
        xa = x[a] + pin[e, XA]
        ya = y[a] + pin[e, YA]
        la = above[row[a]] if wire[e, SA] == 0 else below[row[a]]
        length = abs(ya - duct[la])
        if b < 0:
            side = west if wire[e, SB] == 0 else east
            yb = foot if np.isnan(pin[e, YB]) else pin[e, YB]
            length += abs(xa - side) + abs(duct[la] - yb)
        else:
            xb = x[b] + pin[e, XB]
            lb = above[row[b]] if wire[e, SB] == 0 else below[row[b]]
            length += abs(y[b] + pin[e, YB] - duct[lb])
            if la == lb:
                length += abs(xa - xb)
            else:
                by_west = abs(xa - west) + abs(xb - west)
                by_east = abs(xa - east) + abs(xb - east)
                length += min(by_west, by_east) + abs(duct[la] - duct[lb])
        total += pin[e, by] * length
    return float(total)


@compiled
def duct_of(r: int, side: int, duct: F, rows: int) -> int:
    """The row above which the duct lies that a pin looks to; the nearest there is when none lies on its side."""
    if side == 1:
        for k in range(r + 1, rows):
            if not np.isnan(duct[k]):
                return k
    for k in range(r, -1, -1):
        if not np.isnan(duct[k]):
            return k
    for k in range(rows):
        if not np.isnan(duct[k]):
            return k
    return 0


@compiled
def cost_of(
    seq: N,
    ends: N,
    unit: F,
    wire: N,
    pin: F,
    column: N,
    behind: F,
    plate: F,
    rails: F,
    x: F,
    y: F,
    row: N,
    duct: F,
    over: F,
) -> float:
    """Everything that is wished for, in mm of wire; fills the places as ``place`` does."""
    down = place(seq, ends, unit, plate, rails, x, y, row, duct, over)
    n = len(seq)
    last = 0.0
    for k in range(n):
        last = max(last, y[seq[k]])
    for f in range(len(seq), len(row)):
        if unit[f, FIXED_ROW] >= 0:
            last = max(last, y[f])
    foot = min(plate[P_HEIGHT] - plate[P_FOOT], last + plate[P_PAST])
    total = wire_length(unit, wire, pin, plate, x, y, row, duct, foot, WEIGHT)
    total += LONG * over[0] + HIGH * over[1] + SPARE * over[2] + HEIGHT * down
    if over[0] + over[1] > 0.05:
        total += UNFIT
    begin = 0
    for r in range(len(ends)):
        for k in range(begin, ends[r]):
            u = seq[k]
            total += HOT_LOW * unit[u, HEAT] * y[u] / plate[P_HEIGHT]
            if unit[u, INCOMER] > 0:
                away = y[u] if plate[P_ENTRY_TOP] > 0 else plate[P_HEIGHT] - y[u]
                total += ENTRY * away
            if k + 1 < ends[r]:
                v = seq[k + 1]
                lesser = min(unit[u, HEAT], unit[v, HEAT])
                if lesser > WARM_W:
                    total += HOT_PAIR * lesser
                if unit[u, LOW_VOLTAGE] != unit[v, LOW_VOLTAGE]:
                    total += MIXED
                if unit[u, SCREWED] > 0 and unit[v, SCREWED] == 0:
                    total += BROKEN
            for o in range(len(behind) if unit[u, DEPTH] > plate[P_CLEAR] else 0):
                if (
                    unit[u, DEPTH] > behind[o, 4]
                    and x[u] < behind[o, 2]
                    and x[u] + unit[u, WIDTH] > behind[o, 0]
                    and y[u] - unit[u, UP] < behind[o, 3]
                    and y[u] + unit[u, DOWN] > behind[o, 1]
                ):
                    total += BEHIND
        begin = ends[r]
    for c in range(len(column)):
        a, b = column[c, 0], column[c, 1]
        total += COLUMN * abs(x[a] + unit[a, WIDTH] / 2 - x[b] - unit[b, WIDTH] / 2)
    return float(total)
