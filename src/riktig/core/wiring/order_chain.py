"""In which order a chain of wires joins the clamps of a net."""

from collections.abc import Callable
from itertools import pairwise, permutations

from riktig.core.job import PinRef

__all__ = ["best_path"]

STARTS = 6
MANY = 300
"""A net with more pins is ordered with one start and two looks: it takes seconds and not minutes."""
"""Starts tried on a long chain (chosen by us: more gain little)."""
EXACT_UP_TO = 7
"""Clamps up to which every order is tried (5040 of them at most)."""


def best_path(pins: list[PinRef], single: set[PinRef], length: Callable[[PinRef, PinRef], float]) -> list[PinRef]:
    """The order in which a chain joins the pins with the least wire.

    Method:
        Up to seven pins every order is tried; beyond, nearest neighbour from every start with
        2-opt. Pins in ``single`` are kept at the ends of the chain; when there are more than
        two of them the chain cannot spare them, and the clamps are reported as crowded.

    Args:
        pins: Two or more.
        single: Those whose clamp takes one conductor.
        length: Way between two pins, mm.
    """
    if len(pins) <= EXACT_UP_TO:
        ways = {(a, b): length(a, b) for a in pins for b in pins}

        def cost(order: tuple[PinRef, ...]) -> tuple[int, float]:
            inside = sum(pin in single for pin in order[1:-1])
            return inside, round(sum(ways[pair] for pair in pairwise(order)), 3)

        rank = {pin: place for place, pin in enumerate(pins)}
        orders = ((*cost(order), [rank[pin] for pin in order], order) for order in permutations(pins))
        return list(min(orders)[-1])
    return _long_path(pins, [pin for pin in pins if pin in single][:2], length)


def _long_path(pins: list[PinRef], ends: list[PinRef], length: Callable[[PinRef, PinRef], float]) -> list[PinRef]:
    """Nearest neighbour from a few starts, each improved by 2-opt; ``ends`` stay at the ends."""
    way = [[length(a, b) for b in pins] for a in pins]
    fixed = [pins.index(pin) for pin in ends]
    last = fixed[1] if len(fixed) == 2 else None
    tries = STARTS if len(pins) <= MANY else 1
    starts = fixed[:1] or range(0, len(pins), max(len(pins) // tries, 1))
    orders = [_two_opt(_nearest(start, last, way), way, bool(fixed), last is not None) for start in starts]
    best = min(orders, key=lambda order: (sum(way[a][b] for a, b in pairwise(order)), order))
    return [pins[n] for n in best]


def _nearest(start: int, last: int | None, way: list[list[float]]) -> list[int]:
    order, left = [start], set(range(len(way))) - {start, last}
    while left:
        row = way[order[-1]]
        following = min(left, key=lambda n: (row[n], n))
        left.remove(following)
        order.append(following)
    return order if last is None else [*order, last]


def _two_opt(order: list[int], way: list[list[float]], first_stays: bool, last_stays: bool) -> list[int]:
    """Turns stretches round as long as that shortens the chain; only two joints change a turn."""
    count, improved = len(order), True
    looks = count if count <= MANY else 2
    while improved and looks:
        improved, looks = False, looks - 1
        for i in range(int(first_stays), count - 1):
            for j in range(i + 2, count + 1 - int(last_stays)):
                head, tail = order[i], order[j - 1]
                gain = 0.0
                if i:
                    gain += way[order[i - 1]][head] - way[order[i - 1]][tail]
                if j < count:
                    gain += way[tail][order[j]] - way[head][order[j]]
                if gain > 1e-9:
                    order[i:j] = order[i:j][::-1]
                    improved = True
    return order
