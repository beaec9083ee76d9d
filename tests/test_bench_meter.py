"""The simulated meter: as steady as a good one, and it reads the faults that are put in."""

import pytest

from riktig.core.proving import DEAD_PANEL, OPEN_LINE, TESTS, ProvingStage, judge
from riktig.core.simulation import FaultKind, InjectedFault
from riktig.devices import LEADS_OHM, BenchMeter, SimulatedPanel
from tests.core.schematic.builders import one_motor
from tests.effort import some
from tests.shared_plan import plan_for

PLAN = plan_for(one_motor())
METER = BenchMeter()
WIRES = PLAN.get(TESTS).of(ProvingStage.WIRES)


def panel(*faults: InjectedFault) -> SimulatedPanel:
    return SimulatedPanel(PLAN.get(DEAD_PANEL), faults=faults)


def off(wire: str) -> InjectedFault:
    return InjectedFault(FaultKind.OFF, wire, wire.partition("~")[0])


def test_the_same_test_reads_the_same_each_time_and_another_panel_a_little_otherwise() -> None:
    tests = some(PLAN.get(TESTS).tests)
    assert [METER.read(t, panel()) for t in tests] == [METER.read(t, panel()) for t in tests]
    other = SimulatedPanel(PLAN.get(DEAD_PANEL), seed=2)
    pins = [(t.state, t.black.pin, t.red.pin) for t in WIRES]
    assert [panel().ohm(*pin) for pin in pins] != [other.ohm(*pin) for pin in pins]


def test_readings_of_wires_are_those_of_a_display_with_a_tenth_of_an_ohm() -> None:
    for test in some(test for test in WIRES if test.wire):
        ohm = METER.read(test, panel())
        assert round(ohm, 1) == ohm
        assert 0.1 <= ohm <= 0.4


@pytest.mark.parametrize("number", range(0, 31, 3))
def test_a_wire_left_out_reads_open_at_its_own_test(number: int) -> None:
    wire = [test for test in WIRES if test.wire][number].wire
    without = panel(off(wire))
    for test in WIRES:
        if test.wire == wire:
            assert METER.read(test, without) == OPEN_LINE
        else:
            assert judge(test, METER.read(test, without), LEADS_OHM).value == "passed"


def test_a_bond_left_out_is_found_by_its_bond_test_too() -> None:
    bond = PLAN.get(TESTS).of(ProvingStage.BONDS)[0]
    (own,) = [test for test in WIRES if test.wire and bond.red.pin in (test.black.pin, test.red.pin)]
    assert METER.read(bond, panel(off(own.wire))) == OPEN_LINE


def test_a_short_is_read_only_where_it_was_put_in() -> None:
    shorts = PLAN.get(TESTS).of(ProvingStage.SHORTS)
    first = next(test for test in shorts if test.title == "X1:L1 against X1:L2")
    short = InjectedFault(FaultKind.SHORT, "", str(first.black.pin), str(first.red.pin))
    assert METER.read(first, panel(short)) < 0.5
    assert all(METER.read(test, panel(short)) == OPEN_LINE for test in shorts if test.key != first.key)
