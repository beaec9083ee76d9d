"""The search for a better plan: at once a feasible one, then better ones for as long as one watches."""

import threading
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from math import comb, factorial

import numpy as np
from numpy.typing import NDArray

from riktig.core.plate.planning import kernel, walk
from riktig.core.plate.planning.problem import Problem

__all__ = ["Found", "cost", "improve", "is_small", "metres", "now_of"]

WORKERS = 2
"""Walks at a time, each with its own chance (chosen by us: the cores of a small machine)."""
FIRST_STEPS = 20_000
"""Steps of the first walk of a worker: a better plan within a blink."""
SECOND_SHARE = 0.15
"""Share of the time for the second walk; the third takes the rest (chosen by us after trying)."""
LONGEST_STEPS = 12_000_000
"""Steps of the longest walk; longer ones gain less than another of this length."""
PIECE = 20_000
"""Steps between two looks at the clock and the stop."""
HOT, COLD = 6_000.0, 40.0
"""Where a walk begins and ends, mm of wire it may lose (chosen by us after trying: see benchmarks/plate.py)."""
WARM = 600.0
"""Where a walk begins that goes on from the best plan so far."""
MOST_ORDERS = 3_000_000
"""Up to so many plans all are tried, and the best is proven."""


@dataclass(frozen=True, eq=False, slots=True)
class Found:
    """A plan: its order, what it costs (mm of wire, wishes and all), its wire on the plate, mm, and what is over.

    ``over`` is what is too long, too high and short of spare room, mm; ``proven`` that no other plan costs less.
    """

    seq: NDArray[np.int64]
    ends: NDArray[np.int64]
    cost: float
    wire: float
    over: tuple[float, float, float]
    height: float
    proven: bool = False

    @property
    def fits(self) -> bool:
        """Whether every row is short enough and the plate high enough."""
        return self.over[0] + self.over[1] < 0.05


def cost(problem: Problem, seq: NDArray[np.int64], ends: NDArray[np.int64], *, proven: bool = False) -> Found:
    """What a plan costs, and what it comes to."""
    units = len(problem.unit)
    x, y, over = np.zeros(units), np.zeros(units), np.zeros(3)
    row, duct = np.zeros(units, np.int64), np.zeros(len(problem.strips))
    p = problem
    total = kernel.cost_of(seq, ends, *p.arrays, x, y, row, duct, over)
    down = kernel.place(seq, ends, p.unit, p.plate, p.rails, x, y, row, duct, over)
    return Found(
        seq.copy(),
        ends.copy(),
        float(total),
        metres(p, x, y, row, duct),
        (over[0], over[1], over[2]),
        float(down),
        proven,
    )


def metres(
    p: Problem, x: NDArray[np.float64], y: NDArray[np.float64], row: NDArray[np.int64], duct: NDArray[np.float64]
) -> float:
    """The wires on the plate, mm, of units that have been placed."""
    last = float(max(y, default=0.0))
    foot = min(p.plate[kernel.P_HEIGHT] - p.plate[kernel.P_FOOT], last + p.plate[kernel.P_PAST])
    return float(kernel.wire_length(p.unit, p.wire, p.pin, p.plate, x, y, row, duct, foot, kernel.COUNT))


def now_of(problem: Problem) -> Found:
    """The plan that stands now."""
    return cost(problem, problem.seq, problem.ends)


def is_small(problem: Problem) -> bool:
    """Whether all plans can be tried."""
    n, rows = len(problem.seq), len(problem.strips)
    return n <= 10 and factorial(n) * comb(n + rows - 1, rows - 1) <= MOST_ORDERS


def improve(
    problem: Problem,
    seconds: float,
    on_better: Callable[[Found], None] = lambda found: None,
    stopped: Callable[[], bool] = lambda: False,
    *,
    seed: int = 1,
    workers: int = WORKERS,
) -> Found:
    """The best plan met within a time, or the best there is when there are few.

    Method:
        Simulated annealing, walks of doubling length by several workers, by turns from the best plan so far and
        from scratch. A handful of units: all plans are tried.

    Args:
        on_better: Told each better plan, from whatever thread found it.
        stopped: Asked often; true ends the search with what it has.
    """
    start = now_of(problem)
    if not len(problem.seq):
        return start
    if is_small(problem):
        seq, ends = problem.seq.copy(), problem.ends.copy()
        p = problem
        walk.enumerate_all(p.seq, p.ends, p.strips, *p.arrays, seq, ends)
        found = cost(problem, seq, ends, proven=True)
        on_better(found)
        return found
    shared = _Shared(problem, start, on_better)
    until = time.monotonic() + seconds
    with ThreadPoolExecutor(workers) as pool:
        jobs = [pool.submit(_walk, shared, seed + 7919 * k, until, stopped) for k in range(workers)]
        for job in jobs:
            job.result()
    return shared.best


class _Shared:
    def __init__(self, problem: Problem, best: Found, on_better: Callable[[Found], None]) -> None:
        self.problem, self.best, self._on_better = problem, best, on_better
        self._lock = threading.Lock()

    def offer(self, seq: NDArray[np.int64], ends: NDArray[np.int64], value: float) -> None:
        with self._lock:
            if value < self.best.cost - 1e-6:
                self.best = cost(self.problem, seq, ends)
                self._on_better(self.best)


def _walk(shared: _Shared, seed: int, until: float, stopped: Callable[[], bool]) -> None:
    """One worker: a short walk for a first answer, a longer one, then walks that fill the time.

    From the third on they begin by turns hot and warm; each is followed by a cold one that settles what it found.
    """
    p, turn, steps = shared.problem, 0, FIRST_STEPS
    while time.monotonic() < until and not stopped():
        begun = time.monotonic()
        fresh = turn < 3 or turn % 2 == 0
        start = cost(p, p.seq, p.ends) if turn == 0 else shared.best
        best = _cool(shared, start, steps, HOT if fresh else WARM, COLD, seed + 1000 * turn, until, stopped)
        _cool(shared, best, steps // 20, COLD, COLD / 10, seed + 1000 * turn + 500, until, stopped)
        rate = steps * 1.05 / max(time.monotonic() - begun, 1e-3)
        left = (until - time.monotonic()) * rate / 1.05
        turn += 1
        steps = int(max(min(left * SECOND_SHARE if turn == 1 else left, LONGEST_STEPS), PIECE))


def _cool(
    shared: _Shared,
    start: Found,
    steps: int,
    hot: float,
    cold: float,
    seed: int,
    until: float,
    stopped: Callable[[], bool],
) -> Found:
    """One walk from hot to cold; the best it met."""
    p = shared.problem
    seq, ends = start.seq.copy(), start.ends.copy()
    top_seq, top_ends, top, done = seq.copy(), ends.copy(), np.inf, 0
    while done < steps and time.monotonic() < until and not stopped():
        some = min(PIECE, steps - done)
        at, then = (hot * (cold / hot) ** (k / steps) for k in (done, done + some))
        met_seq, met_ends = seq.copy(), ends.copy()
        value = walk.anneal(
            seq, ends, p.strips, p.group, p.member, *p.arrays, (seed + done) % 2**31, some, at, then, met_seq, met_ends
        )
        if value < top:
            top, top_seq, top_ends = value, met_seq, met_ends
            shared.offer(met_seq, met_ends, value)
        done += some
    return cost(p, top_seq, top_ends)
