"""Predicted readings of the dead panel against ngspice, in random positions of its switches with random sound parts."""

from pathlib import Path

import networkx as nx
import numpy as np
import pytest

from riktig.core.proving import DEAD_PANEL, DeadPanel, SwitchState, closed_in, resistances
from riktig.core.simulation import islands
from riktig.demo_job import frost_fan, kelp_shed, wash_drum
from tests.effort import times
from tests.outside.spice import needs_ngspice, operating_point
from tests.shared_plan import plan_for

JOBS = {"wash drum": wash_drum, "frost fan": frost_fan, "kelp shed": kelp_shed}
LEAST_OHM = 1e-3


def random_state(panel: DeadPanel, chance: np.random.Generator) -> SwitchState:
    devices = list(panel.devices)
    off = frozenset(device for device in devices if chance.random() < 0.4)
    moved = frozenset(device for device in devices if chance.random() < 0.2)
    turned = tuple(
        (device, str(chance.choice(kind.positions)))
        for device, kind in ((d, panel.devices[d].kind) for d in devices)
        if kind.positions and chance.random() < 0.3
    )
    return SwitchState(off, moved, turned)


@needs_ngspice
@pytest.mark.parametrize("name", JOBS)
def test_readings_in_random_states_are_those_of_a_circuit_solver(name: str, tmp_path: Path) -> None:
    panel = plan_for(JOBS[name]()).get(DEAD_PANEL)
    chance = np.random.default_rng(17)
    compared = 0
    for _ in range(times(8, 340)):
        state = random_state(panel, chance)
        share = chance.random(len(panel.pieces))
        high = np.where(np.isfinite(panel.high), panel.high, panel.low * 50)
        ohm = np.maximum(panel.low + share * (high - panel.low), LEAST_OHM)
        leading = panel.closed(state)
        label = islands(len(panel.pins), panel.ends[leading])
        large = [nodes for nodes in (np.flatnonzero(label == n) for n in np.unique(label)) if len(nodes) > 4]
        black, red = (int(node) for node in chance.choice(large[int(chance.integers(len(large)))], 2, replace=False))
        kept = [n for n in np.flatnonzero(leading).tolist() if label[panel.ends[n, 0]] == label[black]]
        lines = [f"R{n} n{panel.ends[n, 0]} n{panel.ends[n, 1]} {float(ohm[n])!r}" for n in kept]
        lines += [f"VG n{black} 0 0", f"I1 0 n{red} 1"]
        theirs = operating_point(tmp_path, len(panel.pins), lines)[red]
        ours = resistances(panel, leading, ohm, np.array([(black, red)], dtype=np.int64))[0]
        assert ours == pytest.approx(theirs, rel=0.01, abs=2e-3)
        compared += 1
    assert compared


@pytest.mark.parametrize("name", JOBS)
def test_what_is_closed_is_the_same_asked_one_by_one_and_for_the_whole_panel(name: str) -> None:
    """The panel keeps what stands as without the hands; asked contact by contact it must be the same."""
    panel = plan_for(JOBS[name]()).get(DEAD_PANEL)
    chance = np.random.default_rng(5)
    for _ in range(5):
        state = random_state(panel, chance)
        closed = panel.closed(state).tolist()
        for piece, leads_on in zip(panel.pieces, closed, strict=True):
            if piece.kind.name == "CONTACT" and piece.device and piece.unit:
                assert leads_on == closed_in(panel.devices[piece.device], piece.unit, state), piece


@pytest.mark.parametrize("count", [1, 7, 60, 400])
def test_islands_are_the_connected_components_of_a_graph_library(count: int) -> None:
    """Small graphs are walked by a loop, large ones by SciPy; islands are numbered by their lowest nodes."""
    chance = np.random.default_rng(count)
    for edges in (0, count // 2, count, 3 * count):
        ends = chance.integers(0, count, (edges, 2))
        graph: nx.Graph[int] = nx.Graph()
        graph.add_nodes_from(range(count))
        graph.add_edges_from(ends.tolist())
        components = sorted(nx.connected_components(graph), key=min)
        number = {node: n for n, component in enumerate(components) for node in component}
        assert islands(count, ends).tolist() == [number[node] for node in range(count)]
