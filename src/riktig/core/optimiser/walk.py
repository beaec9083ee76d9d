"""The walk that lowers the cost of a plan, and the trial of all plans of a handful of units; compiled."""

import numpy as np
from numpy.typing import NDArray

from riktig.core.optimiser.compiled import compiled
from riktig.core.optimiser.kernel import TERMINAL, cost_of

__all__ = ["anneal", "enumerate_all"]

F = NDArray[np.float64]
N = NDArray[np.int64]


@compiled
def _row_at(ends: N, k: int) -> int:
    for r in range(len(ends)):
        if k < ends[r]:
            return r
    return len(ends) - 1


@compiled
def anneal(
    seq: N,
    ends: N,
    strips: N,
    group: N,
    member: N,
    unit: F,
    wire: N,
    pin: F,
    column: N,
    behind: F,
    plate: F,
    rails: F,
    seed: int,
    steps: int,
    hot: float,
    cold: float,
    best_seq: N,
    best_ends: N,
) -> float:
    """Simulated annealing over order and rows. ``strips`` says of every row whether it is for terminals,
    ``group`` of every unit which circuit it belongs to (-1: none), ``member`` which unit has a role in a circuit.

    ``seq`` and ``ends`` are left where the walk ended, the best plan met is in ``best_seq`` and ``best_ends``.

    Returns:
        The cost of the best plan met.
    """
    np.random.seed(seed)
    n, rows, units = len(seq), len(ends), len(unit)
    x, y, over = np.zeros(units), np.zeros(units), np.zeros(3)
    row, duct = np.zeros(units, np.int64), np.zeros(rows)
    now = cost_of(seq, ends, unit, wire, pin, column, behind, plate, rails, x, y, row, duct, over)
    best = now
    best_seq[:] = seq
    best_ends[:] = ends
    if n < 2 or steps <= 0:
        return float(best)
    cool = (cold / hot) ** (1.0 / steps)
    heat = hot
    old_seq, old_ends = seq.copy(), ends.copy()
    for _ in range(steps):
        heat *= cool
        p = np.random.randint(n)
        choice = np.random.random()
        terminal = unit[seq[p], TERMINAL]
        if choice < 0.1:
            q = np.random.randint(n)
            if not _exchange(seq, seq[p], seq[q], group, member, unit):
                continue
        elif choice < 0.5:
            q = np.random.randint(n)
            if choice < 0.25:
                q = min(max(p + 1 - 2 * np.random.randint(2), 0), n - 1)
            if q == p or unit[seq[q], TERMINAL] != terminal:
                continue
            seq[p], seq[q] = seq[q], seq[p]
        else:
            length = 1
            if choice > 0.75:
                length = 2 + np.random.randint(3)
            r = _row_at(ends, p)
            length = min(length, ends[r] - p)
            target = np.random.randint(rows)
            if (strips[target] > 0) != (terminal > 0):
                continue
            begin = 0 if target == 0 else ends[target - 1]
            size = ends[target] - begin
            if target == r:
                size -= length
            spot = begin + np.random.randint(size + 1)
            _shift(seq, ends, p, length, r, target, spot)
        new = cost_of(seq, ends, unit, wire, pin, column, behind, plate, rails, x, y, row, duct, over)
        if new <= now or np.random.random() < np.exp((now - new) / heat):
            now = new
            old_seq[:] = seq
            old_ends[:] = ends
            if now < best - 1e-9:
                best = now
                best_seq[:] = seq
                best_ends[:] = ends
        else:
            seq[:] = old_seq
            ends[:] = old_ends
    return float(best)


@compiled
def _exchange(seq: N, u: int, v: int, group: N, member: N, unit: F) -> bool:
    """Two circuits change places, each part with its like; False when there is nothing to change."""
    one, other = group[u], group[v]
    if one < 0 or other < 0 or one == other:
        return False
    done = False
    for k in range(member.shape[1]):
        a, b = member[one, k], member[other, k]
        if a < 0 or b < 0 or unit[a, TERMINAL] != unit[b, TERMINAL]:
            continue
        for i in range(len(seq)):
            if seq[i] == a:
                seq[i] = b
            elif seq[i] == b:
                seq[i] = a
        done = True
    return done


@compiled
def _shift(seq: N, ends: N, p: int, length: int, r: int, target: int, spot: int) -> None:
    """Takes ``length`` units at ``p`` of row ``r`` and puts them into row ``target`` at ``spot``."""
    n = len(seq)
    taken = seq[p : p + length].copy()
    for k in range(p, n - length):
        seq[k] = seq[k + length]
    for k in range(r, len(ends)):
        ends[k] -= length
    if target > r:
        spot -= length
    for k in range(n - 1, spot + length - 1, -1):
        seq[k] = seq[k - length]
    seq[spot : spot + length] = taken
    for k in range(target, len(ends)):
        ends[k] += length


@compiled
def enumerate_all(
    seq: N,
    ends: N,
    strips: N,
    unit: F,
    wire: N,
    pin: F,
    column: N,
    behind: F,
    plate: F,
    rails: F,
    best_seq: N,
    best_ends: N,
) -> float:
    """Every order in every split into rows: the least cost there is. For a handful of units only."""
    n, rows, units = len(seq), len(ends), len(unit)
    x, y, over = np.zeros(units), np.zeros(units), np.zeros(3)
    row, duct = np.zeros(units, np.int64), np.zeros(rows)
    best = np.inf
    order = np.sort(seq)
    split = np.zeros(rows, np.int64)
    while True:
        split[:] = 0
        split[rows - 1] = n
        while True:
            right = True
            begin = 0
            for r in range(rows):
                for k in range(begin, split[r]):
                    if (unit[order[k], TERMINAL] > 0) != (strips[r] > 0):
                        right = False
                begin = split[r]
            if right:
                now = cost_of(order, split, unit, wire, pin, column, behind, plate, rails, x, y, row, duct, over)
                if now < best:
                    best = now
                    best_seq[:] = order
                    best_ends[:] = split
            k = rows - 2
            while k >= 0 and split[k] == n:
                k -= 1
            if k < 0:
                break
            value = split[k] + 1
            for j in range(k, rows - 1):
                split[j] = value
        k = n - 2
        while k >= 0 and order[k] > order[k + 1]:
            k -= 1
        if k < 0:
            return float(best)
        j = n - 1
        while order[j] < order[k]:
            j -= 1
        order[k], order[j] = order[j], order[k]
        order[k + 1 :] = order[k + 1 :][::-1].copy()
