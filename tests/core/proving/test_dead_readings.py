"""Readings of the dead panel: against networkx, within their bounds while it is sound, and outside with a fault."""

from collections import defaultdict
from random import Random

import networkx as nx
import numpy as np
import pytest
from numpy.typing import NDArray
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share, some, times
from tests.shared_plan import plan_for

from riktig.core.ids import PinRef
from riktig.core.job import Job
from riktig.core.proving import (
    DEAD_PANEL,
    TESTS,
    DeadPanel,
    Outcome,
    PieceKind,
    ProvingStage,
    SwitchState,
    Test,
    bounds,
    judge,
    resistances,
    single_faults,
    with_faults,
)
from riktig.core.simulation import FaultKind
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed, wash_drum
from riktig.devices import LEADS_OHM, BenchMeter, SimulatedPanel

JOBS = {"wash drum": wash_drum, "frost fan": frost_fan, "kelp shed": kelp_shed}
MISWIRED = (FaultKind.OFF, FaultKind.NEIGHBOUR, FaultKind.SWAPPED)


def dead_and_tests(job: Job) -> tuple[DeadPanel, list[Test]]:
    evaluation = plan_for(job)
    return evaluation.get(DEAD_PANEL), [
        t for t in evaluation.get(TESTS).tests if t.stage is not ProvingStage.INSULATION
    ]


def read_all(panel: DeadPanel, tests: list[Test], ohm: NDArray[np.float64]) -> list[float]:
    """All readings at once, state by state, in the order of the tests."""
    by_state: dict[SwitchState, list[int]] = defaultdict(list)
    for number, test in enumerate(tests):
        by_state[test.state].append(number)
    values = [0.0] * len(tests)
    for state, numbers in by_state.items():
        pairs = [(panel.node[tests[n].black.pin], panel.node[tests[n].red.pin]) for n in numbers]
        found = resistances(panel, panel.closed(state), ohm, np.array(pairs, dtype=np.int64))
        for number, value in zip(numbers, found.tolist(), strict=True):
            values[number] = value
    return values


def drawn(panel: DeadPanel, chance: Random) -> NDArray[np.float64]:
    """A sound panel: every piece somewhere between its bounds; what may be open is open in half of the cases."""
    ohm = []
    for piece in panel.pieces:
        low, high = piece.ohms.low, piece.ohms.high
        if high == float("inf"):
            high = chance.choice([float("inf"), low * 1000])
        ohm.append(high if high == float("inf") else chance.uniform(low, high))
    return np.array(ohm)


@pytest.mark.parametrize("seed", range(times(20, 200)))
def test_the_resistance_between_two_points_is_that_of_another_library(seed: int) -> None:
    """networkx.resistance_distance, which inverts the Laplacian; ours solves with sparse factors and contraction."""
    chance = Random(seed)
    panel = plan_for(wash_drum()).get(DEAD_PANEL)
    state = chance.choice([SwitchState(), SwitchState(frozenset(panel.devices))])
    ohm = np.maximum(drawn(panel, chance), 1e-3)
    leading = panel.closed(state) & np.isfinite(ohm)
    graph: nx.MultiGraph[int] = nx.MultiGraph()
    graph.add_nodes_from(range(len(panel.pins)))
    for number in np.flatnonzero(leading).tolist():
        graph.add_edge(*panel.ends[number].tolist(), weight=float(ohm[number]))
    islands = [sorted(island) for island in nx.connected_components(graph) if len(island) > 2]
    looked = 0
    for island in islands:
        a, b = chance.sample(island, 2)
        theirs = nx.resistance_distance(graph.subgraph(island), a, b, weight="weight")
        ours = resistances(panel, panel.closed(state), ohm, np.array([(a, b)], dtype=np.int64))[0]
        assert ours == pytest.approx(theirs, rel=1e-4, abs=1e-6)
        looked += 1
    assert looked
    first, last = islands[0][0], next(n for n in range(len(panel.pins)) if n not in islands[0])
    assert resistances(panel, panel.closed(state), ohm, np.array([(first, last)], dtype=np.int64))[0] == float("inf")


@pytest.mark.parametrize("name", JOBS)
def test_every_sound_panel_passes_every_card(name: str) -> None:
    """Whatever lies between the bounds of its parts: Rayleigh's law says that no reading then lies outside."""
    panel, tests = dead_and_tests(JOBS[name]())
    for seed in range(times(20, 3400)):
        readings = read_all(panel, tests, drawn(panel, Random(seed)))
        assert [t.title for t, ohm in zip(tests, readings, strict=True) if judge(t, ohm) is not Outcome.PASSED] == []


@pytest.mark.parametrize("name", share(SAMPLES, 1)[::4])
def test_sound_panels_of_every_kind_of_job_pass(name: str) -> None:
    panel, tests = dead_and_tests(sample(name))
    for seed in range(2):
        readings = read_all(panel, tests, drawn(panel, Random(seed)))
        assert [t.title for t, ohm in zip(tests, readings, strict=True) if judge(t, ohm) is not Outcome.PASSED] == []


@pytest.mark.parametrize("name", JOBS)
def test_every_wire_missing_in_the_wrong_clamp_or_swapped_fails_a_card(name: str) -> None:
    """The readings are those of data: what is electronic is open. A card that cannot tell says so in its first line."""
    panel, tests = dead_and_tests(JOBS[name]())
    by_eye = {test.wire for test in tests if test.first}
    faults = [fault for fault in single_faults(panel) if fault.wrong in MISWIRED]
    missed = []
    for fault in faults if name == "wash drum" else share(faults, 2)[:: times(2, 1)]:
        wrong = with_faults(panel, [fault])
        ohm = np.where(np.isfinite(wrong.high), wrong.usual, np.inf)
        readings = read_all(wrong, tests, ohm)
        if all(judge(test, reading) is Outcome.PASSED for test, reading in zip(tests, readings, strict=True)):
            missed.append(fault)
    assert [fault for fault in missed if fault.what not in by_eye and fault.to not in by_eye] == []


def test_a_wire_beside_a_closed_contact_is_read_with_the_contact_open() -> None:
    """By hand: 95 to 96 of an overload is closed at rest; a wire of 95 in clamp 96 would read as right through it."""
    _, tests = dead_and_tests(wash_drum())
    of_overload = [t for t in tests if t.wire and "c1.FO:96" in t.wire]
    assert of_overload
    assert all("c1.FO" in test.state.moved for test in of_overload)
    assert all("tripped by its test lever" in test.switches for test in of_overload)
    assert not any(
        test.state.moved for test in tests if test.wire and "c1.FO" not in test.wire and "c1.K:" not in test.wire
    )


@pytest.mark.parametrize("name", JOBS)
def test_the_plan_reads_every_edge_of_the_wire_graph_and_every_joint(name: str) -> None:
    job = JOBS[name]()
    panel, tests = dead_and_tests(job)
    wiring = plan_for(job).get(WIRING)
    asked: nx.Graph[PinRef] = nx.Graph()
    for test in some(t for t in tests if t.stage is ProvingStage.WIRES):
        asked.add_edge(test.black.pin, test.red.pin)
    assert all(asked.has_edge(wire.start.pin, wire.end.pin) for wire in wiring.wires)
    for group in (*wiring.jumpers, *wiring.links):
        assert nx.is_connected(asked.subgraph(group))
    plugs = [piece for piece in panel.pieces if piece.kind is PieceKind.PLUG]
    assert len([t for t in tests if t.key.startswith("plug:")]) == len(plugs)


def test_bounds_rise_with_every_piece() -> None:
    panel, tests = dead_and_tests(frost_fan())
    pairs = [(t.black.pin, t.red.pin) for t in tests]
    low, high = bounds(panel, tests[0].state, pairs)
    assert (low <= high + 1e-9).all()


@pytest.mark.parametrize("name", ["wash drum", "kelp shed"])
def test_the_simulated_meter_passes_a_sound_panel_and_reads_a_missing_wire_as_open(name: str) -> None:
    panel, tests = dead_and_tests(JOBS[name]())
    meter, bench = BenchMeter(), SimulatedPanel(panel)
    looked = tests if name == "wash drum" else tests[::7]
    assert [t.title for t in looked if judge(t, meter.read(t, bench), LEADS_OHM) is not Outcome.PASSED] == []
    for fault in [f for f in single_faults(panel) if f.wrong is FaultKind.OFF][::9]:
        bench.put_in([fault])
        own = next(test for test in tests if test.wire == fault.what)
        assert judge(own, meter.read(own, bench), LEADS_OHM) is Outcome.FAILED
