"""Lessons: of their kind, always to be found, the same for the same seed, and scored against the best there can be."""

import pytest
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.ids import DeviceId, PinRef, read_pin
from riktig.core.proving import (
    DEAD_PANEL,
    HINT_COST,
    TESTS,
    Lesson,
    Probe,
    ProvingStage,
    SwitchState,
    lesson_faults,
    locate,
    next_probe,
    noted_before,
    score_of,
)
from riktig.core.schematic import NETS
from riktig.core.simulation import FaultKind
from riktig.demo_job import frost_fan, wash_drum
from riktig.devices import SimulatedPanel

DRUM = plan_for(wash_drum())
PANEL = DRUM.get(DEAD_PANEL)
CARDS = [test for test in DRUM.get(TESTS).tests if test.stage is not ProvingStage.INSULATION]
KINDS = {
    Lesson.OPEN_WIRE: {FaultKind.OFF},
    Lesson.SWAPPED: {FaultKind.SWAPPED},
    Lesson.NEIGHBOUR: {FaultKind.NEIGHBOUR},
    Lesson.SHORT: {FaultKind.SHORT},
    Lesson.CONTACT: {FaultKind.WELDED, FaultKind.STUCK, FaultKind.WRONG_BLOCK, FaultKind.BLOWN},
}


@pytest.mark.parametrize("lesson", [lesson for lesson in Lesson if lesson is not Lesson.BACK_FEED])
def test_a_lesson_has_a_fault_of_its_kind_that_a_card_shows(lesson: Lesson) -> None:
    for seed in range(times(4, 60)):
        faults = lesson_faults(PANEL, CARDS, lesson, seed)
        assert len(faults) == (2 if lesson is Lesson.TWO else 1)
        assert {fault.wrong for fault in faults} <= KINDS.get(lesson, set(FaultKind))
        assert faults == lesson_faults(PANEL, CARDS, lesson, seed)
        bench = SimulatedPanel(PANEL, seed, faults)
        noted = noted_before(CARDS, lambda test: bench.ohm(test.state, test.black.pin, test.red.pin))  # noqa: B023
        assert not CARDS[len(noted) - 1].expected.passes(noted[-1].ohm)


def test_who_follows_the_hints_finds_it_and_pays_for_them() -> None:
    faults = lesson_faults(PANEL, CARDS, Lesson.SWAPPED, 3)
    bench = SimulatedPanel(PANEL, 3, faults)
    noted = noted_before(CARDS, lambda test: bench.ohm(test.state, test.black.pin, test.red.pin))
    probes = list(noted)
    states = [SwitchState(), SwitchState(frozenset(PANEL.devices)), *dict.fromkeys(test.state for test in CARDS)]
    suspects = locate(PANEL, probes)
    while (asked := next_probe(PANEL, suspects, probes, states)) is not None:
        probes.append(Probe(asked.state, asked.black, asked.red, bench.ohm(asked.state, asked.black, asked.red)))
        suspects = locate(PANEL, probes)
    assert faults in [suspect.faults for suspect in suspects]
    taken = len(probes) - len(noted)
    score = score_of(PANEL, noted, taken, 1, found=True)
    assert score.cost == taken + HINT_COST
    assert score.best <= taken + 1


def test_a_panel_without_the_kind_has_no_such_lesson() -> None:
    assert lesson_faults(PANEL, [], Lesson.OPEN_WIRE, 1) == (), "no card shows it"
    fan = plan_for(frost_fan())
    assert lesson_faults(fan.get(DEAD_PANEL), CARDS[:0], Lesson.TWO, 1) == ()


def test_a_back_feed_joins_two_supplies_and_no_earth() -> None:
    """By hand: the fan has a control transformer, the drum has none, so that it has nothing of the kind."""
    fan = plan_for(frost_fan())
    panel = fan.get(DEAD_PANEL)
    cards = [test for test in fan.get(TESTS).tests if test.stage is not ProvingStage.INSULATION]
    numbers = fan.get(NETS).of_pin
    sources = {panel.supplies[panel.node[PinRef(DeviceId("s1.T"), pin)]] for pin in ("1", "5")}
    assert len(sources) == 2, "both sides of the transformer are two supplies"
    for seed in range(times(4, 40)):
        (fault,) = lesson_faults(panel, cards, Lesson.BACK_FEED, seed)
        pins = [read_pin(fault.where), read_pin(fault.to)]
        assert {panel.supplies[panel.node[pin]] for pin in pins} == sources
        assert all("PE" not in numbers[pin].nodes for pin in pins if pin in numbers)
    assert not lesson_faults(PANEL, CARDS, Lesson.BACK_FEED, 1)
