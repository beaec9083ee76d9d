"""The simulated meter: as steady as a good one, and it reads the faults that are put in."""

import pytest

from riktig.core.evaluation import Evaluation
from riktig.core.proving import OPEN_LINE, TESTS, ProvingStage, judge
from riktig.core.wiring import WIRING
from riktig.devices import BenchMeter
from tests.core.schematic.builders import one_motor
from tests.effort import some

PLAN = Evaluation(one_motor())
WIRING_NOW = PLAN.get(WIRING)


def test_the_same_test_reads_the_same_each_time() -> None:
    first, second = BenchMeter(), BenchMeter()
    for test in some(PLAN.get(TESTS).tests):
        assert first.read(test, WIRING_NOW) == second.read(test, WIRING_NOW)


def test_readings_are_those_of_a_display_with_a_tenth_of_an_ohm() -> None:
    for test in some(PLAN.get(TESTS).of(ProvingStage.WIRES)):
        ohm = BenchMeter().read(test, WIRING_NOW)
        assert round(ohm, 1) == ohm
        assert 0.1 <= ohm <= 0.4


@pytest.mark.parametrize("number", range(0, 31, 3))
def test_a_wire_left_out_reads_open_at_its_own_test(number: int) -> None:
    meter = BenchMeter()
    test = PLAN.get(TESTS).of(ProvingStage.WIRES)[number]
    meter.off.add(test.wire)
    assert meter.read(test, WIRING_NOW) == OPEN_LINE
    others = [t for t in PLAN.get(TESTS).of(ProvingStage.WIRES) if t.wire != test.wire]
    assert all(judge(t, meter.read(t, WIRING_NOW)).value == "passed" for t in others)


def test_a_bond_left_out_is_found_by_its_bond_test_too() -> None:
    meter = BenchMeter()
    bond = PLAN.get(TESTS).of(ProvingStage.BONDS)[0]
    meter.off.add(bond.wire)
    assert meter.read(bond, WIRING_NOW) == OPEN_LINE


def test_a_short_is_read_only_where_it_was_put_in() -> None:
    meter = BenchMeter()
    first, *others = PLAN.get(TESTS).of(ProvingStage.SHORTS)
    meter.shorted.add(first.key)
    assert meter.read(first, WIRING_NOW) < 0.5
    assert all(meter.read(t, WIRING_NOW) == OPEN_LINE for t in others)
