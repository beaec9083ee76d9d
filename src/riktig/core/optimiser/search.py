"""The search for a better plan: at once a feasible one, then better ones for as long as one watches."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial
from math import comb, factorial

import numpy as np
from numpy.typing import NDArray

from riktig.core.optimiser import kernel, walk
from riktig.core.optimiser.problem import Problem
from riktig.core.optimiser.tables import CHANCE, Order, Places, WalkPlan, no_places

__all__ = [
    "FIRST_STEPS",
    "Found",
    "Run",
    "Watch",
    "cost",
    "improve",
    "is_small",
    "metres",
    "now_of",
    "one_after_another",
]

WALKS = 2
"""Walks of one round, each with its own chance (chosen by us: the cores of a small machine)."""
FIRST_STEPS = 20_000
"""Steps of a walk of the first round: a better plan within a blink."""
SECOND_SHARE = 0.15
"""Share of the steps for the second round; the third takes the rest (chosen by us after trying)."""
SETTLING = 1 / 20
"""A walk is followed by a cold one of this share of its steps, which settles what it found."""
LONGEST_STEPS = 12_000_000
"""Steps of the longest walk; longer ones gain less than another of this length."""
PIECE = 20_000
"""Steps between two looks at whether it is to stop."""
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
    """A plan with its cost, its wire and what is over.

    Args:
        problem: What is planned.
        seq: The units, row after row.
        ends: Where each row ends in ``seq``.
        proven: Whether no plan can cost less.
    """
    question, order = problem.question, Order(seq, ends)
    places = no_places(len(question.unit), len(ends))
    total = kernel.cost_of(order, question, places)
    down = kernel.place(order, question, places)
    too_long, too_high, lacking = (float(mm) for mm in places.over)
    return Found(
        seq.copy(), ends.copy(), float(total), metres(problem, places), (too_long, too_high, lacking), down, proven
    )


def metres(problem: Problem, places: Places) -> float:
    """The wires on the plate, mm, of units that have been placed."""
    plate = problem.question.plate
    foot = min(plate.height - plate.foot, float(max(places.y, default=0.0)) + plate.past)
    return float(kernel.wire_length(problem.question, places, foot, False))


def now_of(problem: Problem) -> Found:
    """The plan that stands now."""
    return cost(problem, problem.now.seq, problem.now.ends)


def is_small(problem: Problem) -> bool:
    """Whether all plans can be tried."""
    n, rows = len(problem.now.seq), len(problem.strips)
    return n <= 10 and factorial(n) * comb(n + rows - 1, rows - 1) <= MOST_ORDERS


Task = Callable[[], Found]
Run = Callable[[Sequence[Task]], Sequence[Found]]
"""Does several tasks, beside each other or not, and gives what came of each in their order."""


def one_after_another(tasks: Sequence[Task]) -> Sequence[Found]:
    """Does tasks in turn on the thread it is called on."""
    return [task() for task in tasks]


@dataclass(frozen=True, slots=True)
class Watch:
    """Who looks on while a plate is planned, and who does the work."""

    on_better: Callable[[Found], None] = lambda _: None
    """Told each plan that is better than those told before, from whatever thread found it."""
    stopped: Callable[[], bool] = lambda: False
    """Asked often; true ends the search with what it has."""
    run: Run = one_after_another
    """Does the walks of a round."""


def improve(
    problem: Problem, steps: int, watch: Watch | None = None, *, start: Found | None = None, seed: int = 1
) -> Found:
    """The best plan met within so many steps of each walk, or the best there is when there are few.

    One seed and one number of steps give one plan, whoever runs the walks; only a search that is stopped
    early has what it had met by then.

    Method:
        Simulated annealing in rounds of longer and longer walks. All walks of a round begin from the same plan,
        each with its own chance; from the third round on they begin by turns from scratch and from the best so
        far. A handful of units: all plans are tried.

    Args:
        problem: What is to be planned.
        steps: Steps of each walk, all rounds together.
        watch: Who looks on and who does the work; nobody, and one walk after another, when none is given.
        start: A plan to go on from; the one that stands when none is given.
        seed: Of chance.
    """
    watch = watch or Watch()
    first = start is None
    best = start or now_of(problem)
    if not len(problem.now.seq):
        return best
    if is_small(problem):
        outcome = _best_of_all(problem)
        watch.on_better(outcome)
        return outcome
    lowest = [best.cost]

    def tell(plan_found: Found) -> None:
        if plan_found.cost < lowest[0] - 1e-6:
            lowest[0] = plan_found.cost
            watch.on_better(plan_found)

    walker = _Walker(problem, tell, watch.stopped)
    turn, left = (0 if first else 1), steps
    while left > 0 and not watch.stopped():
        length = _length(turn, left, first=first)
        fresh = turn < 3 or turn % 2 == 0
        walks = [
            partial(walker.walk, best, length, seed + 7919 * k + 1000 * turn, HOT if fresh else WARM)
            for k in range(WALKS)
        ]
        for better in watch.run(walks):
            if better.cost < best.cost - 1e-6:
                best = better
        left -= length
        turn += 1
    return best


def _length(turn: int, left: int, *, first: bool) -> int:
    """Steps of a walk of one round."""
    if turn == 0 and first:
        return min(FIRST_STEPS, left)
    share = left * SECOND_SHARE if turn == 1 else left
    return int(min(max(min(share, LONGEST_STEPS), PIECE), left))


def _best_of_all(problem: Problem) -> Found:
    """The best of all plans there are."""
    turned, best = (Order(problem.now.seq.copy(), problem.now.ends.copy()) for _ in range(2))
    walk.enumerate_all(turned, problem.question, problem.strips, best)
    return cost(problem, best.seq, best.ends, proven=True)


@dataclass(frozen=True, slots=True)
class _Walker:
    """Walks over the plans of one problem; ``tell`` is told each better plan, ``stopped`` is asked often."""

    problem: Problem
    tell: Callable[[Found], None]
    stopped: Callable[[], bool]

    def walk(self, start: Found, steps: int, seed: int, hot: float) -> Found:
        """One walk from hot to cold, and a cold one behind it; the best it met."""
        cold_steps = max(int(steps * SETTLING), 1)
        met = self._cool(start, steps - cold_steps, (hot, COLD), seed)
        return self._cool(met, cold_steps, (COLD, COLD / 10), seed + 500)

    def _cool(self, start: Found, steps: int, heat: tuple[float, float], seed: int) -> Found:
        """One walk from the first heat to the second; the best it met, which may be where it began."""
        problem, (hot, cold) = self.problem, heat
        at = Order(start.seq.copy(), start.ends.copy())
        best, done = start, 0
        chances = np.random.default_rng(seed)
        while done < steps and not self.stopped():
            some = min(PIECE, steps - done)
            met = Order(at.seq.copy(), at.ends.copy())
            heat_now = hot * (cold / hot) ** (done / steps)
            plan = WalkPlan(problem.strips, problem.group, problem.member, heat_now, (cold / hot) ** (1 / steps))
            chance = chances.random((some, len(CHANCE.names or ()))).view(CHANCE).reshape(some)
            if walk.anneal(at, problem.question, plan, chance, met) < best.cost - 1e-6:
                best = cost(problem, met.seq, met.ends)
                self.tell(best)
            done += some
        return best
