"""What may be wrong: the true fault among the first, few probes to it, and the same joins as a full search finds."""

from collections.abc import Sequence
from functools import cache
from math import log2
from random import Random

import networkx as nx
import numpy as np
import pytest
from tests.effort import some, times
from tests.shared_plan import plan_for

from riktig.core.ids import PinRef
from riktig.core.proving import (
    DEAD_PANEL,
    TESTS,
    DeadPanel,
    Effects,
    Faults,
    Probe,
    ProvingStage,
    Suspect,
    SwitchState,
    Test,
    fault_words,
    locate,
    next_probe,
    repair_words,
    repeated_after,
    single_faults,
    with_faults,
)
from riktig.core.proving.fault_effects import BETWEEN, JOINED, LOW_OHM, OPEN, PERHAPS
from riktig.core.schematic import NAMES
from riktig.core.simulation import FaultKind
from riktig.demo_job import frost_fan, kelp_shed, wash_drum
from riktig.devices import SimulatedPanel

JOBS = {"wash drum": wash_drum, "frost fan": frost_fan, "kelp shed": kelp_shed}
MOST_PROBES = 20


@cache
def of_job(name: str) -> tuple[DeadPanel, tuple[Test, ...], tuple[SwitchState, ...]]:
    evaluation = plan_for(JOBS[name]())
    tests = tuple(t for t in evaluation.get(TESTS).tests if t.stage is not ProvingStage.INSULATION)
    states = tuple(dict.fromkeys([tests[0].state, SwitchState(), *(test.state for test in tests)]))
    return evaluation.get(DEAD_PANEL), tests, states


def read_until_wrong(bench: SimulatedPanel, tests: Sequence[Test]) -> list[Probe] | None:
    """The readings up to the first card that fails; None where none does."""
    probes: list[Probe] = []
    for test in tests:
        ohm = bench.ohm(test.state, test.black.pin, test.red.pin)
        probes.append(Probe(test.state, test.black.pin, test.red.pin, ohm))
        if not test.expected.passes(ohm):
            return probes
    return None


def found_at(suspects: Sequence[Suspect], faults: Faults) -> int:
    """At which place the truth stands, counted from 1; 0 where it is missing."""
    wanted = set(faults)
    for place, suspect in enumerate(suspects, 1):
        if any(set(one) == wanted for one in (suspect.faults, *suspect.alike)):
            return place
    return 0


def follow(bench: SimulatedPanel, name: str, probes: list[Probe]) -> tuple[tuple[Suspect, ...], int, int]:
    """Follows the proposed probes to the end: what is left, how many probes it took, and how many things began it."""
    panel, _, states = of_job(name)
    suspects = locate(panel, probes)
    began = len(suspects)
    for taken in range(MOST_PROBES):
        asked = next_probe(panel, suspects, probes, states)
        if asked is None:
            return suspects, taken, began
        ohm = bench.ohm(asked.state, asked.black, asked.red)
        probes.append(Probe(asked.state, asked.black, asked.red, ohm))
        suspects = locate(panel, probes)
    return suspects, MOST_PROBES, began


@pytest.mark.parametrize("name", JOBS)
def test_a_single_fault_is_among_the_first_three_with_few_probes(name: str) -> None:
    """At least 95 of 100 singles among the first three; probes within 1.3 of the bits that there are to find (log2)."""
    panel, tests, _ = of_job(name)
    faults = list(single_faults(panel))
    chance = Random(11)
    chance.shuffle(faults)
    places, shares = [], []
    for fault in faults[: times(8 if name == "kelp shed" else 14, 700)]:
        bench = SimulatedPanel(panel, chance.randrange(10**6), (fault,))
        probes = read_until_wrong(bench, tests)
        if probes is None:
            continue  # found under power: contacts that weld, lamps that are open
        suspects, taken, began = follow(bench, name, probes)
        places.append(found_at(suspects, (fault,)))
        if began > 1:
            shares.append(taken / max(log2(began), 1.0))
    assert sum(1 <= place <= 3 for place in some(places)) >= 0.95 * len(places)
    assert sum(some(shares)) / len(shares) <= 1.3


@pytest.mark.parametrize("name", ["wash drum", "frost fan"])
def test_two_faults_at_once_are_among_the_first_three(name: str) -> None:
    """At least 85 of 100 pairs, after all cards were read and the proposed probes followed."""
    panel, tests, _ = of_job(name)
    faults = [f for f in single_faults(panel) if f.wrong in (FaultKind.OFF, FaultKind.NEIGHBOUR, FaultKind.SWAPPED)]
    chance = Random(3)
    places = []
    for _ in range(times(8, 150)):
        first, second = chance.sample(faults, 2)
        if {first.what, first.to} & {second.what, second.to} - {""}:
            continue
        bench = SimulatedPanel(panel, chance.randrange(10**6), (first, second))
        probes = [Probe(t.state, t.black.pin, t.red.pin, bench.ohm(t.state, t.black.pin, t.red.pin)) for t in tests]
        suspects, _, _ = follow(bench, name, probes)
        places.append(found_at(suspects, (first, second)))
    assert sum(1 <= place <= 3 for place in some(places)) >= 0.85 * len(places)


def by_networkx(panel: DeadPanel, state: SwitchState, pairs: Sequence[tuple[PinRef, PinRef]]) -> list[int]:
    graphs: list[nx.Graph[PinRef]] = []
    for bound in (panel.high, panel.low, None):
        graph: nx.Graph[PinRef] = nx.Graph()
        graph.add_nodes_from(panel.pins)
        for number in np.flatnonzero(panel.closed(state)).tolist():
            if bound is None or bound[number] <= LOW_OHM:
                graph.add_edge(panel.pieces[number].a, panel.pieces[number].b)
        graphs.append(graph)
    kinds = (JOINED, PERHAPS, BETWEEN)
    return [next((k for k, g in zip(kinds, graphs, strict=True) if nx.has_path(g, *pair)), OPEN) for pair in pairs]


@pytest.mark.parametrize("name", JOBS)
def test_how_points_are_joined_with_a_fault_is_what_networkx_finds(name: str) -> None:
    panel, tests, states = of_job(name)
    chance = Random(7)
    every = single_faults(panel)
    in_parts = [fault for fault in every if fault.wrong in (FaultKind.WELDED, FaultKind.STUCK, FaultKind.WRONG_BLOCK)]
    singles = [*chance.sample(every, 25), *chance.sample(in_parts, 10)]
    pairs = [(f, g) for f, g in zip(singles[::2], singles[1::2], strict=False) if not {f.what, f.to} & {g.what, g.to}]
    hypotheses: list[Faults] = [(), *((f,) for f in singles), *pairs]
    points = [(test.black.pin, test.red.pin) for test in chance.sample(tests, min(len(tests), 40))]
    for state in states[:3]:
        classes = Effects(panel, hypotheses).classes(state, points)
        for row, faults in enumerate(hypotheses):
            assert classes[row].tolist() == by_networkx(with_faults(panel, faults), state, points), faults


def test_a_sound_panel_has_nothing_wrong() -> None:
    panel, tests, _ = of_job("wash drum")
    bench = SimulatedPanel(panel)
    assert read_until_wrong(bench, tests) is None
    probes = [Probe(t.state, t.black.pin, t.red.pin, bench.ohm(t.state, t.black.pin, t.red.pin)) for t in tests]
    assert locate(panel, probes) == ()
    assert locate(panel, []) == ()


def test_readings_that_contradict_each_other_explain_nothing() -> None:
    """Whatever is said of them would be wrong: the same points read both ways."""
    panel, tests, _ = of_job("wash drum")
    test = next(t for t in tests if t.wire)
    probes = [Probe(test.state, test.black.pin, test.red.pin, ohm) for ohm in (0.1, float("inf"))]
    assert locate(panel, probes) == ()


def test_every_fault_has_words_and_a_repair() -> None:
    evaluation = plan_for(kelp_shed())
    panel, tags = evaluation.get(DEAD_PANEL), evaluation.get(NAMES).tag

    def label(pin: PinRef) -> str:
        return f"{tags[pin.device]}:{pin.marking}" if pin.device in tags else ""

    for fault in single_faults(panel):
        words = f"{fault_words((fault,), label, tags)} {repair_words(fault, label, tags)}"
        assert "{" not in words
        assert len(words) > 20
        assert " :" not in words


def test_a_repair_repeats_the_tests_of_what_it_touches_and_no_others() -> None:
    evaluation = plan_for(wash_drum())
    plan, panel = evaluation.get(TESTS), evaluation.get(DEAD_PANEL)
    fault = next(f for f in single_faults(panel) if f.wrong is FaultKind.OFF and f.what.startswith("c1.S.start:3"))
    again = repeated_after((fault,), plan)
    # By hand: the wire itself, every pair in whose potentials it lies, insulation; no bond, no other wire.
    assert {test.stage for test in again} == {ProvingStage.WIRES, ProvingStage.SHORTS, ProvingStage.INSULATION}
    assert {test.wire for test in again if test.stage is ProvingStage.WIRES} == {fault.what}
    assert all(fault.what in test.true_of for test in again)
