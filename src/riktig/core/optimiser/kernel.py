"""The cost of a plan: compiled where numba is installed, since it is asked millions of times.

All lengths are mm; every wish is counted in mm of wire. ``tables`` says what the columns are.
"""

import numpy as np

from riktig.core.optimiser.compiled import compiled, inlined
from riktig.core.optimiser.tables import Floats, Numbers, Order, Places, Question, Table

__all__ = ["LACKING", "TOO_HIGH", "TOO_LONG", "cost_of", "place", "wire_length"]

TOO_LONG, TOO_HIGH, LACKING = range(3)
"""Entries of ``Places.over``."""

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
BROKEN = 100_000.0
"""What a rail counts that a screwed part breaks: more than any wire saves, since the plate lays such parts last."""
BEHIND = 400.0
"""What a part counts that an operator of the door would touch (chosen by us)."""
EPSILON = 1e-6
"""Two parts may touch, mm: less than this is no overlap."""


@inlined
def _has_fixed(row: int, first: int, unit: Table) -> bool:
    """Whether a part with a width stays in a row; the parts that stay are numbered from ``first`` on."""
    count = 0
    for still in range(first, len(unit)):
        if unit[still]["fixed_row"] == row and unit[still]["width"] > 0:
            count += 1
    return count > 0


@compiled
def _past_fixed(at: float, gap: float, mover: int, row: int, first: int, question: Question) -> float:
    """The first place from ``at`` on, from the rail's left end, where a unit is clear of what stays in its row."""
    unit, begin = question.unit, question.rails[row]["left"]
    moved = True
    while moved:
        moved = False
        for still in range(first, len(unit)):
            if unit[still]["fixed_row"] != row or unit[still]["width"] <= 0:
                continue
            from_left = unit[still]["fixed_x"] - begin
            low = from_left - max(unit[still]["left"], unit[mover]["right"])
            high = from_left + unit[still]["width"] + max(unit[still]["right"], gap)
            if at < high - EPSILON and at + unit[mover]["width"] > low + EPSILON:
                at = high
                moved = True
    return at


@inlined
def _pack_row(
    row: int, begin: int, end: int, seq: Numbers, question: Question, places: Places
) -> tuple[float, float, float, bool]:
    """Puts the units of one row one after the other, from 0 on.

    Returns:
        Where the last one ends, the most room asked for above and below the rail, mm, and whether any is a terminal.
    """
    unit, fixed = question.unit, question.plate.fixed > 0
    at = high = low = 0.0
    before = question.plate.rail_free
    strips = False
    for k in range(begin, end):
        u = seq[k]
        places.row[u] = row
        strips = strips or unit[u]["terminal"] > 0
        gap = max(unit[u]["left"], before)
        at += gap
        if fixed:
            at = _past_fixed(at, gap, u, row, len(seq), question)
        places.x[u] = at
        at += unit[u]["width"]
        before = unit[u]["right"]
        high = max(high, unit[u]["above"])
        low = max(low, unit[u]["below"])
    return at, high, low, strips


@inlined
def _place_fixed(seq: Numbers, question: Question, places: Places) -> None:
    """Gives the parts that stay their row and place; their line is that of their row, or of their own rail."""
    unit = question.unit
    for still in range(len(seq), len(places.row)):
        if unit[still]["fixed_row"] >= 0:
            places.x[still] = unit[still]["fixed_x"]
            places.row[still] = int(unit[still]["fixed_row"])
            if question.plate.fixed > 0:
                places.y[still] = question.rails[places.row[still]]["y"]


@inlined
def _screwed_to_the_right(
    span: tuple[int, int], seq: Numbers, question: Question, places: Places, free: float, run: float
) -> tuple[float, float]:
    """Moves the screwed parts of a packed row to its right end, by what is ``free`` there, mm.

    Returns:
        The rail, which ends where they begin, and the width that they take, mm.
    """
    unit, rail_free = question.unit, question.plate.rail_free
    rail, screwed = run, 0.0
    for k in range(span[0], span[1]):
        u = seq[k]
        if unit[u]["screwed"] > 0:
            places.x[u] += free
            rail = min(rail, max(places.x[u] - rail_free, 0.0))
            screwed += unit[u]["width"]
    return rail, screwed


@inlined
def _to_rail(
    row: int, span: tuple[int, int], seq: Numbers, unit: Table, places: Places, at: tuple[float, float]
) -> float:
    """Moves a packed row, ``span`` in ``seq``, to its rail ``at`` (left end, line); returns the width on it, mm."""
    used = 0.0
    for k in range(span[0], span[1]):
        places.x[seq[k]] += at[0]
        places.y[seq[k]] = at[1]
        used += unit[seq[k]]["width"]
    for still in range(len(seq), len(places.row)):
        if unit[still]["fixed_row"] == row:
            places.y[still] = at[1]
            used += max(unit[still]["width"], 0.0)
    return used


@compiled
def place(order: Order, question: Question, places: Places) -> float:
    """Packs the rows and fills the places.

    Args:
        order: The plan.
        question: Units, rails and plate.
        places: Filled.

    Returns:
        The lower end of the last row, mm.
    """
    seq, ends = order
    rails, plate, over = question.rails, question.plate, places.over
    fixed = plate.fixed > 0
    left = plate.edge + plate.duct
    over[:] = 0.0
    used = length = 0.0
    down = plate.edge
    begin = 0
    for r in range(len(ends)):
        end = ends[r]
        has = end > begin or _has_fixed(r, len(seq), question.unit)
        at, high, low, strips = _pack_row(r, begin, end, seq, question, places)
        if fixed:
            places.duct[r] = rails[r]["duct"]
            run, base, origin = rails[r]["length"], rails[r]["y"], rails[r]["left"]
            over[TOO_HIGH] += max(high - rails[r]["above"], 0.0) + max(low - rails[r]["below"], 0.0)
            down = max(down, base + low)
        else:
            run, origin = plate.width - 2 * left - (plate.beside if strips else 0.0), left
            base = down
            places.duct[r] = np.nan
            if has:
                if not (plate.turned > 0 and strips and r == 0):
                    places.duct[r] = down + plate.duct / 2
                    down += plate.duct
                base = down + high
                down = base + low
        over[TOO_LONG] += max(at - run, 0.0)
        if has:
            rail, screwed = run, 0.0
            if not fixed and end > begin:
                free = max(run - at - question.unit[seq[end - 1]]["right"], 0.0)
                rail, screwed = _screwed_to_the_right((begin, end), seq, question, places, free, run)
            used += _to_rail(r, (begin, end), seq, question.unit, places, (origin, base)) - screwed
            length += rail
        begin = end
    _place_fixed(seq, question, places)
    if not fixed:
        over[TOO_HIGH] = max(down - plate.height, 0.0)
    over[LACKING] = max(used - (1.0 - plate.spare) * length, 0.0)
    return float(down)


@compiled
def wire_length(question: Question, places: Places, foot: float, weighed: bool) -> float:
    """The wires of a placed plan, mm: up or down into a duct, along it, and by an upright to another.

    Args:
        question: Wires and plate.
        places: Where the units stand.
        foot: The lower end of the upright ducts, mm.
        weighed: Whether each wire counts by its weight, which gives its cost, and not by its conductors.

    Returns:
        The length, or the cost.
    """
    x, y, row, duct = places.x, places.y, places.row, places.duct
    plate = question.plate
    rows = len(duct)
    above, below = np.zeros(rows, np.int64), np.zeros(rows, np.int64)
    for r in range(rows):
        above[r], below[r] = duct_of(r, 0, duct, rows), duct_of(r, 1, duct, rows)
    west = plate.edge + plate.duct / 2
    east = plate.width - west
    total = 0.0
    for e in range(len(question.wire)):
        wire = question.wire[e]
        a, b = wire["unit_a"], wire["unit_b"]
        x_a = x[a] + wire["x_a"]
        line_a = above[row[a]] if wire["side_a"] == 0 else below[row[a]]
        length = abs(y[a] + wire["y_a"] - duct[line_a])
        if b < 0:
            side = west if wire["side_b"] == 0 else east
            y_b = foot if np.isnan(wire["y_b"]) else wire["y_b"]
            length += abs(x_a - side) + abs(duct[line_a] - y_b)
        else:
            x_b = x[b] + wire["x_b"]
            line_b = above[row[b]] if wire["side_b"] == 0 else below[row[b]]
            length += abs(y[b] + wire["y_b"] - duct[line_b])
            if line_a == line_b:
                length += abs(x_a - x_b)
            else:
                by_west = abs(x_a - west) + abs(x_b - west)
                by_east = abs(x_a - east) + abs(x_b - east)
                length += min(by_west, by_east) + abs(duct[line_a] - duct[line_b])
        total += (wire["weight"] if weighed else wire["count"]) * length
    return float(total)


@compiled
def duct_of(r: int, side: int, duct: Floats, rows: int) -> int:
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
def _beside_cost(left: np.void, right: np.void) -> float:
    """What two neighbours cost: heat beside heat, extra-low voltage beside mains, a rail that is broken."""
    total = 0.0
    lesser = min(left["heat"], right["heat"])
    if lesser > WARM_W:
        total += HOT_PAIR * lesser
    if left["low_voltage"] != right["low_voltage"]:
        total += MIXED
    if left["screwed"] > 0 and right["screwed"] == 0:
        total += BROKEN
    return total


@compiled
def _behind_cost(unit: np.void, x: float, y: float, behind: Table) -> float:
    """What a deep unit costs that stands behind parts of the door."""
    total = 0.0
    for o in range(len(behind)):
        across = x < behind[o]["right"] and x + unit["width"] > behind[o]["left"]
        upright = y - unit["up"] < behind[o]["bottom"] and y + unit["down"] > behind[o]["top"]
        if unit["depth"] > behind[o]["depth"] and across and upright:
            total += BEHIND
    return total


@inlined
def _lowest(seq: Numbers, unit: Table, y: Floats) -> float:
    """The line of the lowest row that anything stands on, mm."""
    last = 0.0
    for k in range(len(seq)):
        last = max(last, y[seq[k]])
    for still in range(len(seq), len(y)):
        if unit[still]["fixed_row"] >= 0:
            last = max(last, y[still])
    return last


@compiled
def cost_of(order: Order, question: Question, places: Places) -> float:
    """Everything that is wished for, in mm of wire.

    Args:
        order: The plan.
        question: What is planned.
        places: Filled as ``place`` does.
    """
    down = place(order, question, places)
    seq, ends = order
    unit, column, plate, over = question.unit, question.column, question.plate, places.over
    x, y = places.x, places.y
    foot = min(plate.height - plate.foot, _lowest(seq, unit, y) + plate.past)
    total = wire_length(question, places, foot, True)
    total += LONG * over[TOO_LONG] + HIGH * over[TOO_HIGH] + SPARE * over[LACKING] + HEIGHT * down
    if over[TOO_LONG] + over[TOO_HIGH] > 0.05:
        total += UNFIT
    begin = 0
    for r in range(len(ends)):
        for k in range(begin, ends[r]):
            u = seq[k]
            total += HOT_LOW * unit[u]["heat"] * y[u] / plate.height
            if unit[u]["incomer"] > 0:
                total += ENTRY * (y[u] if plate.entry_top > 0 else plate.height - y[u])
            if k + 1 < ends[r]:
                total += _beside_cost(unit[u], unit[seq[k + 1]])
            if unit[u]["depth"] > plate.clear:
                total += _behind_cost(unit[u], x[u], y[u], question.behind)
        begin = ends[r]
    for c in range(len(column)):
        a, b = column[c]["upper"], column[c]["lower"]
        total += COLUMN * abs(x[a] + unit[a]["width"] / 2 - x[b] - unit[b]["width"] / 2)
    return float(total)
