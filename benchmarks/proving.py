"""Proving a panel of about 1,000 wires: the plan, a fault among all single faults, a pair, the next probe.

Run: .venv/bin/python benchmarks/proving.py
"""

import statistics
import time
from collections.abc import Callable
from random import Random

from wires import panel

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.plate import LAYOUT
from riktig.core.proving import (
    DEAD_PANEL,
    PANEL_FACTS,
    TESTS,
    Probe,
    ProvingStage,
    SwitchState,
    costs_of,
    locate,
    next_probe,
    path_cost,
    pin_places,
    plan_tests,
    single_faults,
)
from riktig.core.schematic import CIRCUITS
from riktig.core.simulation import FaultKind
from riktig.core.wiring import WIRING
from riktig.devices import SimulatedPanel

RUNS = 5


def median_ms(work: Callable[[], object], runs: int = RUNS) -> float:
    """The median time of some work, ms."""
    times = []
    for _ in range(runs):
        begin = time.perf_counter()
        work()
        times.append((time.perf_counter() - begin) * 1000)
    return statistics.median(times)


def main() -> None:
    """Prints the medians."""
    evaluation: Evaluation[Job] = Evaluation(panel(32))
    facts, layout, door = evaluation.get(PANEL_FACTS), evaluation.get(LAYOUT), evaluation.get(DOOR)
    dead = evaluation.get(DEAD_PANEL)
    wires = evaluation.get(WIRING).wires
    print(f"{len(wires)} wires")
    print(f"plan                          {median_ms(lambda: plan_tests(facts, dead, layout, door), 3):8.0f} ms")
    tests = [test for test in evaluation.get(TESTS).tests if test.stage is not ProvingStage.INSULATION]
    own = [test for test in tests if test.stage is ProvingStage.WIRES]
    places = pin_places(evaluation.get(CIRCUITS), layout, door)
    rank = {str(wire.key): n for n, wire in enumerate(wires)}
    listed = sorted(own, key=lambda test: rank.get(test.wire, len(rank)))
    ways = [path_cost(range(len(own)), costs_of(some, places)) for some in (own, listed)]
    print(f"{len(tests)} cards; walking and switching {1 - ways[0] / ways[1]:.0%} less than in the order of the list")
    states = list(dict.fromkeys([tests[0].state, SwitchState(), *(test.state for test in tests)]))
    chance = Random(1)
    faults = single_faults(dead)
    print(f"{len(faults)} single faults")
    off = [fault for fault in faults if fault.wrong is FaultKind.OFF]
    ones, nexts = [], []
    for fault in chance.sample(off, RUNS):
        bench = SimulatedPanel(dead, 1, (fault,))
        probes = []
        for test in tests:
            ohm = bench.ohm(test.state, test.black.pin, test.red.pin)
            probes.append(Probe(test.state, test.black.pin, test.red.pin, ohm))
            if not test.expected.passes(ohm):
                break
        suspects = locate(dead, probes)
        ones.append(median_ms(lambda: locate(dead, probes), 1))  # noqa: B023 - called at once
        nexts.append(median_ms(lambda: next_probe(dead, suspects, probes, states), 1))  # noqa: B023 - called at once
    print(f"a fault among all singles     {statistics.median(ones):8.0f} ms, at most {max(ones):.0f}")
    print(f"the next probe                {statistics.median(nexts):8.0f} ms, at most {max(nexts):.0f}")
    pairs = []
    for _ in range(3):
        bench = SimulatedPanel(dead, 1, chance.sample(off, 2))
        probes = [
            Probe(t.state, t.black.pin, t.red.pin, bench.ohm(t.state, t.black.pin, t.red.pin)) for t in tests[::1]
        ]
        pairs.append(median_ms(lambda: locate(dead, probes), 1))  # noqa: B023 - called at once
    print(f"two faults, all cards read    {statistics.median(pairs):8.0f} ms, at most {max(pairs):.0f}")


if __name__ == "__main__":
    main()
