"""In which order points are touched: with the least walking of the probes and the least switching."""

from collections.abc import Mapping, Sequence

import numpy as np
from numpy.typing import NDArray

from riktig.core.geometry import Point
from riktig.core.ids import PinRef
from riktig.core.proving.tests import Test

__all__ = ["SWITCH_MM", "best_order", "costs_of", "order_tests", "path_cost"]

SWITCH_MM = 1500.0
"""What one switch to move is worth in walking of a probe, mm (chosen by us: a probe is put down for it)."""
LIFT_MM = 15.0
"""Lifting a probe and setting it down again, mm (chosen by us)."""
LOOKS = 12
"""Rounds of improvement (chosen by us: later ones gain less than a percent)."""
EXCHANGE_UP_TO = 400
"""A stage with more tests gets fewer rounds, so that a plan stays within its second (chosen by us)."""

Costs = NDArray[np.float64]


def costs_of(tests: Sequence[Test], places: Mapping[PinRef, Point]) -> Costs:
    """What it costs to go from each test to each other, mm: both probes the shorter way round, and the switching.

    Args:
        tests: The tests.
        places: Where every pin is; on doors far enough from the plate.
    """
    nowhere = Point(0.0, 0.0)
    points = [places.get(pin, nowhere) for test in tests for pin in (test.black.pin, test.red.pin)]
    at = np.array([(point.x, point.y) for point in points]).reshape(-1, 2, 2)

    def far(first: int, last: int) -> Costs:
        distance: Costs = np.abs(np.subtract.outer(at[:, first, 0], at[:, last, 0]))
        distance += np.abs(np.subtract.outer(at[:, first, 1], at[:, last, 1]))
        distance[distance > 0] += LIFT_MM
        return distance

    walk = np.minimum(far(0, 0) + far(1, 1), far(0, 1) + far(1, 0))
    states = list(dict.fromkeys(test.state for test in tests))
    number = np.array([states.index(test.state) for test in tests], dtype=np.int64)
    switching = np.array([[len(a.changes_from(b)) for b in states] for a in states], dtype=np.float64)
    return walk + SWITCH_MM * switching[np.ix_(number, number)]


def path_cost(order: Sequence[int], costs: Costs) -> float:
    """What a whole order costs, mm."""
    chain = np.array(order, dtype=np.int64)
    return float(costs[chain[:-1], chain[1:]].sum())


def best_order(costs: Costs) -> list[int]:
    """An order of low cost through all tests, from the first one.

    Method:
        Nearest neighbour; then pieces of up to three tests are moved to where they cost least (Or-opt), and stretches
        turned round (2-opt), until neither gains or the rounds are over.
    """
    count = len(costs)
    if count < 3:
        return list(range(count))
    chain = _nearest(costs)
    looks = LOOKS if count <= EXCHANGE_UP_TO else LOOKS // 12
    for _ in range(looks):
        before = path_cost(chain.tolist(), costs)
        chain = _turned(_moved(chain, costs), costs)
        if path_cost(chain.tolist(), costs) > before - 1e-6:
            break
    order: list[int] = chain.tolist()
    return order


def _nearest(costs: Costs) -> NDArray[np.int64]:
    count = len(costs)
    free = np.ones(count, dtype=bool)
    order = np.zeros(count, dtype=np.int64)
    free[0] = False
    for step in range(1, count):
        order[step] = int(np.where(free, costs[order[step - 1]], np.inf).argmin())
        free[order[step]] = False
    return order


def _turned(chain: NDArray[np.int64], costs: Costs) -> NDArray[np.int64]:
    """One round of turning stretches: for each beginning the end that gains most."""
    count = len(chain)
    for i in range(1, count - 1):
        ends = chain[i:]
        after = np.append(chain[i + 1 :], -1)
        left = chain[i - 1]
        old = costs[left, chain[i]] + np.where(after >= 0, costs[ends, after], 0.0)
        new = costs[left, ends] + np.where(after >= 0, costs[chain[i], after], 0.0)
        gain = old - new
        best = int(gain.argmax())
        if gain[best] > 1e-9:
            chain[i : i + best + 1] = chain[i : i + best + 1][::-1].copy()
    return chain


def _moved(chain: NDArray[np.int64], costs: Costs) -> NDArray[np.int64]:
    """One round of moving short pieces to the joint where they cost least; costs are the same both ways."""
    padded = np.pad(costs, ((0, 1), (0, 1)))  # behind the last test there is a joint that costs nothing
    for size in (1, 2, 3):
        joints = padded[chain, np.append(chain[1:], -1)]
        for i in range(1, len(chain) - size + 1):
            piece = chain[i : i + size]
            rest = np.concatenate([chain[:i], chain[i + size :]])
            right = np.append(rest[1:], -1)
            closed = padded[chain[i - 1], right[i - 1]]
            here = np.concatenate([joints[: i - 1], [closed], joints[i + size :]])
            from_first, from_last = padded[piece[0]], padded[piece[-1]]
            straight = from_first[rest] + from_last[right] - here
            back = from_last[rest] + from_first[right] - here
            best_straight, best_back = int(straight.argmin()), int(back.argmin())
            turned = back[best_back] < straight[best_straight]
            best = best_back if turned else best_straight
            if min(straight[best_straight], back[best_back]) < min(straight[i - 1], back[i - 1]) - 1e-9:
                laid = piece[::-1] if turned else piece
                chain = np.concatenate([rest[: best + 1], laid, rest[best + 1 :]])
                joints = padded[chain, np.append(chain[1:], -1)]
    return chain


def order_tests(tests: Sequence[Test], places: Mapping[PinRef, Point]) -> tuple[Test, ...]:
    """Tests in an order of little walking and switching, stage by stage; a stage begins where its list does.

    Args:
        tests: The tests, stage by stage.
        places: Where every pin is.
    """
    ordered: list[Test] = []
    for stage in dict.fromkeys(test.stage for test in tests):
        stage_tests = [test for test in tests if test.stage is stage]
        ordered += [stage_tests[n] for n in best_order(costs_of(stage_tests, places))]
    return tuple(ordered)
