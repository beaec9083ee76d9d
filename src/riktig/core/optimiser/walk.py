"""The walk that lowers the cost of a plan, and the trial of all plans of a handful of units; compiled with numba."""

import math

import numpy as np

from riktig.core.optimiser.compiled import compiled, inlined
from riktig.core.optimiser.kernel import cost_of
from riktig.core.optimiser.tables import Numbers, Order, Question, Table, WalkPlan, no_places

__all__ = ["anneal", "enumerate_all"]

new_places = compiled(no_places)
_EXCHANGE, _NEAR, _SWAP, _ALONE = 0.1, 0.25, 0.5, 0.75
"""Chance below which a step exchanges two circuits, swaps neighbours, swaps any two units, moves one; else several."""


@compiled
def anneal(order: Order, question: Question, walk: WalkPlan, chance: Table, best: Order) -> float:
    """Simulated annealing over order and rows, one step for each line of ``chance``.

    Args:
        order: Where the walk begins; left where it ended.
        question: What is planned.
        walk: Rows, circuits and heat.
        chance: What chance decides, a line a step.
        best: Takes the best plan met.

    Returns:
        The cost of the best plan met.
    """
    seq, ends = order
    places = new_places(len(question.unit), len(ends))
    now = lowest = cost_of(order, question, places)
    best.seq[:] = seq
    best.ends[:] = ends
    if len(seq) < 2:
        return float(lowest)
    heat = walk.hot
    old_seq, old_ends = seq.copy(), ends.copy()
    for k in range(len(chance)):
        heat *= walk.cool
        if not _step(order, question.unit, walk, chance, k):
            continue
        new = cost_of(order, question, places)
        if new <= now or chance[k]["accept"] < math.exp((now - new) / heat):
            now = new
            old_seq[:] = seq
            old_ends[:] = ends
            if now < lowest - 1e-9:
                lowest = now
                best.seq[:] = seq
                best.ends[:] = ends
        else:
            seq[:] = old_seq
            ends[:] = old_ends
    return float(lowest)


@inlined
def _step(order: Order, unit: Table, walk: WalkPlan, chance: Table, k: int) -> bool:
    """Changes the plan by what chance says; False when that changes nothing."""
    seq = order.seq
    n = len(seq)
    p = int(chance[k]["place"] * n)
    kind = chance[k]["kind"]
    if kind >= _SWAP:
        return _move(order, unit, walk, chance, k)
    q = int(chance[k]["other"] * n)
    if kind < _EXCHANGE:
        return _exchange(seq, seq[p], seq[q], walk, unit)
    if kind < _NEAR:
        q = min(max(p + (1 if chance[k]["other"] < 0.5 else -1), 0), n - 1)
    if q == p or unit[seq[q]]["terminal"] != unit[seq[p]]["terminal"]:
        return False
    seq[p], seq[q] = seq[q], seq[p]
    return True


@inlined
def _move(order: Order, unit: Table, walk: WalkPlan, chance: Table, k: int) -> bool:
    """Takes one unit or a few out of their row and puts them into another, or elsewhere into the same."""
    seq, ends = order
    p = int(chance[k]["place"] * len(seq))
    target = int(chance[k]["other"] * len(ends))
    if (walk.strips[target] > 0) != (unit[seq[p]]["terminal"] > 0):
        return False
    row = 0
    while p >= ends[row]:
        row += 1
    length = 2 + int(chance[k]["length"] * 3) if chance[k]["kind"] > _ALONE else 1
    length = min(length, ends[row] - p)
    begin = 0 if target == 0 else ends[target - 1]
    size = ends[target] - begin - (length if target == row else 0)
    spot = begin + int(chance[k]["spot"] * (size + 1))
    _shift(seq, ends, p, length, (row, target), spot)
    return True


@compiled
def _exchange(seq: Numbers, u: int, v: int, walk: WalkPlan, unit: Table) -> bool:
    """Two circuits change places, each part with its like; False when there is nothing to change."""
    first, second = walk.group[u], walk.group[v]
    if first < 0 or second < 0 or first == second:
        return False
    done = False
    for k in range(walk.member.shape[1]):
        a, b = walk.member[first, k], walk.member[second, k]
        if a < 0 or b < 0 or unit[a]["terminal"] != unit[b]["terminal"]:
            continue
        for i in range(len(seq)):
            if seq[i] == a:
                seq[i] = b
            elif seq[i] == b:
                seq[i] = a
        done = True
    return done


@compiled
def _shift(seq: Numbers, ends: Numbers, p: int, length: int, rows: tuple[int, int], spot: int) -> None:
    """Takes ``length`` units at ``p`` and puts them at ``spot``; ``rows`` are the row left and the row entered."""
    n = len(seq)
    row, target = rows
    taken = seq[p : p + length].copy()
    for k in range(p, n - length):
        seq[k] = seq[k + length]
    for k in range(row, len(ends)):
        ends[k] -= length
    if target > row:
        spot -= length
    for k in range(n - 1, spot + length - 1, -1):
        seq[k] = seq[k - length]
    seq[spot : spot + length] = taken
    for k in range(target, len(ends)):
        ends[k] += length


@compiled
def _next_split(split: Numbers, most: int) -> bool:
    """Turns where the rows end into the next possibility; False after the last. The last row takes what is left."""
    k = len(split) - 2
    while k >= 0 and split[k] == most:
        k -= 1
    if k < 0:
        return False
    split[k : len(split) - 1] = split[k] + 1
    return True


@compiled
def _next_order(order: Numbers) -> bool:
    """Turns an order into the next in the dictionary's sense; False after the last."""
    k = len(order) - 2
    while k >= 0 and order[k] > order[k + 1]:
        k -= 1
    if k < 0:
        return False
    j = len(order) - 1
    while order[j] < order[k]:
        j -= 1
    order[k], order[j] = order[j], order[k]
    order[k + 1 :] = order[k + 1 :][::-1].copy()
    return True


@compiled
def _in_their_rows(order: Order, strips: Numbers, unit: Table) -> bool:
    """Whether terminals stand in rows for terminals and all else in the others."""
    begin = 0
    for r in range(len(strips)):
        for k in range(begin, order.ends[r]):
            if (unit[order.seq[k]]["terminal"] > 0) != (strips[r] > 0):
                return False
        begin = order.ends[r]
    return True


@compiled
def enumerate_all(order: Order, question: Question, strips: Numbers, best: Order) -> float:
    """Every order in every split into rows: the least cost there is. For a handful of units only.

    Args:
        order: Any plan; turned through all of them.
        question: What is planned.
        strips: Of every row, whether it is for terminals.
        best: Takes the best plan.

    Returns:
        Its cost.
    """
    seq, split = order
    places = new_places(len(question.unit), len(split))
    lowest = np.inf
    seq[:] = np.sort(seq)
    more = True
    while more:
        split[:] = 0
        split[len(split) - 1] = len(seq)
        splits = True
        while splits:
            if _in_their_rows(order, strips, question.unit):
                now = cost_of(order, question, places)
                if now < lowest:
                    lowest = now
                    best.seq[:] = seq
                    best.ends[:] = split
            splits = _next_split(split, len(seq))
        more = _next_order(seq)
    return float(lowest)
