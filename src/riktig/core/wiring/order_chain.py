"""In which order a chain of wires joins the clamps of a net."""

from functools import cache
from itertools import pairwise, permutations

import numpy as np
from numpy.typing import NDArray

from riktig.core.job import PinRef

__all__ = ["best_path"]

STARTS = 6
"""Starts tried on a long chain (chosen by us: more gain little)."""
MANY = 300
"""A net with more pins is ordered with one start and two looks: it takes seconds and not minutes."""
LEAST_GAIN = 1e-9
"""A turn that saves less saves nothing, mm."""
ROWS = 16
"""So many places of a chain are looked at in one, to find the first from which a turn shortens it (chosen by us)."""
EXACT_UP_TO = 7
"""Clamps up to which every order is tried (5040 of them at most)."""


def best_path(pins: list[PinRef], single: set[PinRef], lengths: NDArray[np.float64]) -> list[PinRef]:
    """The order in which a chain joins the pins with the least wire.

    Method:
        Up to seven pins every order is tried; beyond, nearest neighbour from every start with
        2-opt. Pins in ``single`` are kept at the ends of the chain; when there are more than
        two of them the chain cannot spare them, and the clamps are reported as crowded.

    Args:
        pins: Two or more.
        single: Those whose clamp takes one conductor.
        lengths: Way from each pin to each, mm.
    """
    if len(pins) <= EXACT_UP_TO:
        orders = _orders(len(pins))
        alone = np.array([pin in single for pin in pins])
        inside = alone[orders[:, 1:-1]].sum(axis=1)
        total = lengths[orders[:, :-1], orders[:, 1:]].sum(axis=1).round(3)
        order = orders[np.lexsort((total, inside))[0]]  # stable: of equal ones the first, as the pins stand
        return [pins[n] for n in order]
    return _long_path(pins, [pin for pin in pins if pin in single][:2], lengths)


@cache
def _orders(count: int) -> NDArray[np.int64]:
    """Every order of so many things, the first numbers leading."""
    return np.array(list(permutations(range(count))))


def _long_path(pins: list[PinRef], ends: list[PinRef], way: NDArray[np.float64]) -> list[PinRef]:
    """Nearest neighbour from a few starts, each improved by 2-opt; ``ends`` stay at the ends."""
    fixed = [pins.index(pin) for pin in ends]
    last = fixed[1] if len(fixed) == 2 else None
    tries = STARTS if len(pins) <= MANY else 1
    starts = fixed[:1] or range(0, len(pins), max(len(pins) // tries, 1))
    orders = [_two_opt(_nearest(start, last, way), way, bool(fixed), last is not None) for start in starts]
    rows = way.tolist()
    best = min(orders, key=lambda order: (sum(rows[a][b] for a, b in pairwise(order)), order))
    return [pins[n] for n in best]


def _nearest(start: int, last: int | None, way: NDArray[np.float64]) -> list[int]:
    order, free = [start], np.ones(len(way), bool)
    free[start] = False
    if last is not None:
        free[last] = False
    while free.any():
        following = int(np.where(free, way[order[-1]], np.inf).argmin())
        if not free[following]:  # none of them can be reached: the first
            following = int(free.argmax())
        free[following] = False
        order.append(following)
    return order if last is None else [*order, last]


def _two_opt(order: list[int], way: NDArray[np.float64], first_stays: bool, last_stays: bool) -> list[int]:
    """Turns stretches round as long as that shortens the chain; only two joints change a turn."""
    count, improved = len(order), True
    looks, end = count if count <= MANY else 2, count + 1 - int(last_stays)
    chain = np.array(order)
    while improved and looks:
        improved, looks = False, looks - 1
        i = _next_start(chain, way, int(first_stays), end)
        while i is not None:
            j = i + 2
            while (turn := _first_gain(chain, way, i, j, end)) is not None:
                chain[i:turn] = chain[i:turn][::-1].copy()
                improved, j = True, turn + 1
            i = _next_start(chain, way, i + 1, end)
    return [int(n) for n in chain]


def _next_start(chain: NDArray[np.int64], way: NDArray[np.float64], begin: int, end: int) -> int | None:
    """The first place from ``begin`` on for which ``_first_gain`` finds a turn, looked for in many places in one."""
    last = len(chain) - 1
    for first in range(begin, last, ROWS):
        rows = np.arange(first, min(first + ROWS, last))
        tails = chain[first + 1 : end - 1]
        gain = np.zeros((len(rows), len(tails)))
        led = slice(0 if first else 1, None)  # nothing leads to the head of the chain
        before = chain[rows[led] - 1]
        gain[led] += way[before, chain[rows[led]]][:, None] - way[before[:, None], tails]
        following = chain[first + 2 : min(end, len(chain))]
        inner = len(following)
        gain[:, :inner] += way[tails[:inner], following] - way[chain[rows][:, None], following]
        better = (np.triu(gain) > LEAST_GAIN).any(axis=1)  # a turn has two clamps or more
        if better.any():
            return first + int(better.argmax())
    return None


def _first_gain(chain: NDArray[np.int64], way: NDArray[np.float64], i: int, j: int, end: int) -> int | None:
    """The first place from ``j`` on, ahead of ``end``, up to which turning the chain from ``i`` on shortens it."""
    if j >= end:
        return None
    tails = chain[j - 1 : end - 1]
    gain = np.zeros(len(tails))
    if i:
        gain += way[chain[i - 1], chain[i]] - way[chain[i - 1], tails]
    inner = min(end, len(chain)) - j
    gain[:inner] += way[tails[:inner], chain[j : j + inner]] - way[chain[i], chain[j : j + inner]]
    better = np.flatnonzero(gain > LEAST_GAIN)
    return j + int(better[0]) if len(better) else None
