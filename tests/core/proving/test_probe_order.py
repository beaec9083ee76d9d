"""The order of the cards: as good as the best of a search through all orders, and far less walking than the list."""

from itertools import pairwise, permutations

import numpy as np
import pytest
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.plate import LAYOUT
from riktig.core.proving import PANEL_FACTS, TESTS, ProvingStage, best_order, costs_of, path_cost, pin_places
from riktig.core.schematic import CIRCUITS
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

JOBS = {"wash drum": wash_drum, "frost fan": frost_fan, "kelp shed": kelp_shed}


@pytest.mark.parametrize("seed", range(times(12, 200)))
def test_small_orders_are_within_a_tenth_of_the_best_there_is(seed: int) -> None:
    evaluation = Evaluation(frost_fan())
    places = pin_places(evaluation.get(CIRCUITS), evaluation.get(LAYOUT), evaluation.get(DOOR))
    tests = evaluation.get(TESTS).of(ProvingStage.WIRES)
    chosen = np.random.default_rng(seed).choice(len(tests), 8, replace=False)
    costs = costs_of([tests[n] for n in chosen], places)
    best = min(sum(costs[a, b] for a, b in pairwise((0, *rest))) for rest in permutations(range(1, 8)))
    assert path_cost(best_order(costs), costs) <= 1.1 * best


@pytest.mark.parametrize("name", JOBS)
def test_the_order_walks_and_switches_a_third_less_than_the_list_of_wires(name: str) -> None:
    evaluation = Evaluation(JOBS[name]())
    places = pin_places(evaluation.get(CIRCUITS), evaluation.get(LAYOUT), evaluation.get(DOOR))
    planned = evaluation.get(TESTS).of(ProvingStage.WIRES)
    rank = {str(wire.key): n for n, wire in enumerate(evaluation.get(WIRING).wires)}
    listed = sorted(planned, key=lambda test: rank.get(test.wire, len(rank)))
    cost = {
        kind: path_cost(range(len(planned)), costs_of(tests, places))
        for kind, tests in (("plan", planned), ("list", listed))
    }
    assert cost["plan"] <= 0.7 * cost["list"]


def test_the_order_is_one_of_all_tests_and_the_same_each_time() -> None:
    first, second = Evaluation(kelp_shed()), Evaluation(kelp_shed())
    keys = [test.key for test in first.get(TESTS).tests]
    assert keys == [test.key for test in second.get(TESTS).tests]
    assert len(set(keys)) == len(keys)
    stages = [test.stage for test in first.get(TESTS).tests]
    assert stages == sorted(stages, key=list(ProvingStage).index)


def test_every_point_of_every_test_has_a_place() -> None:
    evaluation = plan_for(kelp_shed())
    facts = evaluation.get(PANEL_FACTS)
    places = pin_places(facts.circuits, evaluation.get(LAYOUT), evaluation.get(DOOR))
    points = {point.pin for test in evaluation.get(TESTS).tests for point in (test.black, test.red)}
    assert [str(pin) for pin in points if pin not in places] == []
