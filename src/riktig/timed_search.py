"""The search for a better plate against the clock, on several threads: what the core itself knows nothing of."""

import time
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor

from riktig.core.optimiser import FIRST_STEPS, Found
from riktig.core.optimiser.replan import Replan

__all__ = ["WORKERS", "search_for"]

WORKERS = 2
"""Threads that walk beside each other (chosen by us: the cores of a small machine)."""


def search_for(
    replan: Replan,
    seconds: float,
    on_better: Callable[[Found], None] = lambda plan_found: None,
    stopped: Callable[[], bool] = lambda: False,
    *,
    seed: int = 1,
) -> Found:
    """The best plan met within a time.

    A first short search tells how fast this machine is; the next ones are given as many steps as fit into the
    time that is left, so that the last one has cooled down when the time is up.

    Args:
        replan: What is to be planned.
        seconds: For how long; with nothing, the shortest search.
        on_better: Told each better plan, from whatever thread found it.
        stopped: Asked often; true ends the search with what it has.
        seed: Of chance.
    """
    until = time.monotonic() + seconds

    def over() -> bool:
        return stopped() or time.monotonic() >= until

    with ThreadPoolExecutor(WORKERS) as pool:

        def beside(tasks: Sequence[Callable[[], Found]]) -> Sequence[Found]:
            return list(pool.map(lambda task: task(), tasks))

        begun = time.monotonic()
        best = replan.search(FIRST_STEPS, on_better, stopped, seed=seed, run=beside)
        rate = FIRST_STEPS / max(time.monotonic() - begun, 1e-3)
        while len(replan.problem.now.seq) and not best.proven and not over():
            seed += 1
            begun, steps = time.monotonic(), max(int((until - time.monotonic()) * rate), 1)
            best = replan.search(steps, on_better, over, start=best, seed=seed, run=beside)
            rate = steps / max(time.monotonic() - begun, 1e-3)
    return best
