"""Lessons: of their kind, always to be found, the same for the same seed, and scored against the best there can be."""

import pytest
from tests.effort import times

from riktig.core.evaluation import Evaluation
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
from riktig.core.simulation import FaultKind
from riktig.demo_job import frost_fan, wash_drum
from riktig.devices import SimulatedPanel

DRUM = Evaluation(wash_drum())
PANEL = DRUM.get(DEAD_PANEL)
CARDS = [test for test in DRUM.get(TESTS).tests if test.stage is not ProvingStage.INSULATION]
KINDS = {
    Lesson.OPEN_WIRE: {FaultKind.OFF},
    Lesson.SWAPPED: {FaultKind.SWAPPED},
    Lesson.NEIGHBOUR: {FaultKind.NEIGHBOUR},
    Lesson.SHORT: {FaultKind.SHORT},
    Lesson.CONTACT: {FaultKind.WELDED, FaultKind.STUCK, FaultKind.WRONG_BLOCK, FaultKind.BLOWN},
}


@pytest.mark.parametrize("lesson", Lesson)
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
    fan = Evaluation(frost_fan())
    assert lesson_faults(fan.get(DEAD_PANEL), CARDS[:0], Lesson.TWO, 1) == ()
