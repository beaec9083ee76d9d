"""What batches cost: minutes to begin them and to set their lengths, minutes to trim, and what is trimmed away.

Cutting several wires to the longest of them saves setting a length for each, and wastes the rest. Of wires that may be
cut together the parting that costs least is found exactly: sorted by length its batches are runs, since a batch costs
by its longest alone.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate

__all__ = ["Prices", "Work", "cheapest_parts", "work_of_batch", "work_one_at_a_time", "work_to_length"]

SET_MINUTES = 0.5
"""To set a length at the bench and to try it on the first wire (chosen by us)."""
TRIM_MINUTES = 0.2
"""To cut a wire that was cut too long once more at its place (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Prices:
    """Minutes to begin a batch, the price of an hour, and that of a metre for each mm²."""

    begin_minutes: float
    hour: float
    metre: float


@dataclass(frozen=True, slots=True)
class Work:
    """What cutting takes: minutes, mm that are trimmed away, and the price of both."""

    minutes: float = 0.0
    waste: float = 0.0
    cost: float = 0.0

    def __add__(self, other: "Work") -> "Work":
        return Work(self.minutes + other.minutes, self.waste + other.waste, self.cost + other.cost)


def work_of_batch(lengths: Sequence[float], mm2: float, prices: Prices) -> Work:
    """All cut to the longest, each that is too long trimmed at its place.

    Args:
        lengths: Of the wires of one batch, mm; at least one.
        mm2: Their section.
        prices: What minutes and metres cost.
    """
    longest = max(lengths)
    shorter = sum(length < longest for length in lengths)
    minutes = prices.begin_minutes + SET_MINUTES + TRIM_MINUTES * shorter
    return _priced(minutes, longest * len(lengths) - sum(lengths), mm2, prices)


def work_to_length(lengths: Sequence[float], mm2: float, prices: Prices) -> Work:
    """Each cut to its own length, those of one length one after the other: nothing is trimmed.

    Args:
        lengths: Of the wires of one batch, mm.
        mm2: Their section.
        prices: What minutes and metres cost.
    """
    return _priced(prices.begin_minutes + SET_MINUTES * len(set(lengths)), 0.0, mm2, prices)


def work_one_at_a_time(lengths: Sequence[float], mm2: float, prices: Prices) -> Work:
    """Each wire begun, cut and carried to its place by itself.

    Args:
        lengths: Of the wires, mm.
        mm2: Their section.
        prices: What minutes and metres cost.
    """
    return _priced(len(lengths) * (prices.begin_minutes + SET_MINUTES), 0.0, mm2, prices)


def cheapest_parts(lengths: Sequence[float], mm2: float, prices: Prices) -> list[list[int]]:
    """Wires that may be cut together, parted so that all batches together cost least.

    Args:
        lengths: Of the wires, mm.
        mm2: Their section.
        prices: What minutes and metres cost.

    Returns:
        The indexes of the wires of each batch, the longest batch first.

    Proof:
        Of a batch only the longest counts. A wire belongs into the batch with the shortest longest that still holds it:
        in any other more of it is trimmed. So a best parting consists of runs of the sorted lengths, equal ones in one
        run. The best end of each run follows from the best ends of the shorter ones.
    """
    counts = Counter(lengths)
    distinct = sorted(counts, reverse=True)
    many = [0, *accumulate(counts[length] for length in distinct)]
    metres = [0.0, *accumulate(counts[length] * length for length in distinct)]
    minute, millimetre = prices.hour / 60, prices.metre * mm2 / 1000
    begin = (prices.begin_minutes + SET_MINUTES) * minute
    best, first_of = [0.0], [0]
    for end in range(1, len(distinct) + 1):
        costs = [
            best[first]
            + begin
            + TRIM_MINUTES * minute * (many[end] - many[first + 1])
            + millimetre * (distinct[first] * (many[end] - many[first]) - (metres[end] - metres[first]))
            for first in range(end)
        ]
        least = min(range(end), key=costs.__getitem__)
        best.append(costs[least])
        first_of.append(least)
    runs: list[tuple[int, int]] = []
    end = len(distinct)
    while end:
        runs.append((first_of[end], end))
        end = first_of[end]
    run_of = {distinct[n]: r for r, (first, end) in enumerate(reversed(runs)) for n in range(first, end)}
    parts: list[list[int]] = [[] for _ in runs]
    for index, length in enumerate(lengths):
        parts[run_of[length]].append(index)
    return parts


def _priced(minutes: float, waste: float, mm2: float, prices: Prices) -> Work:
    return Work(minutes, waste, minutes * prices.hour / 60 + waste / 1000 * mm2 * prices.metre)
