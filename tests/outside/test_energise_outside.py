"""Potentials, readings and states against a general circuit solver, on random networks and on whole panels."""

from pathlib import Path

import numpy as np
import pytest

from riktig.core.evaluation import Evaluation
from riktig.core.job import DeviceId, Job, circuit_of, read_pin
from riktig.core.schematic import CIRCUITS, NETS
from riktig.core.simulation import Meter, Panel, meter_of
from riktig.core.simulation.connectivity import Connectivity
from riktig.core.simulation.network import Consumer, Contact, Network, SupplyPole
from riktig.core.simulation.nodal import solve_nodal
from riktig.core.simulation.volts import Volts
from tests.core.schematic.samples import sample
from tests.effort import times
from tests.outside.spice import needs_ngspice, operating_point
from tests.shared_plan import plan_for

NETWORKS = times(300, 3000)
PHASES = (230.0 + 0j, -115.0 - 199.2j, -115.0 + 199.2j, 0j)
TINY = 1e-4
"""A closed contact, ohm."""


def random_network(seed: int) -> tuple[Network, list[bool]]:
    """A control circuit of no sense: poles of the mains and of 24 V, contacts open or closed, coils and lamps."""
    chance = np.random.default_rng(seed)
    count = int(chance.integers(8, 24))
    poles = [SupplyPole("mains", f"L{n + 1}" if n < 3 else "N", n, ac, 0.0) for n, ac in enumerate(PHASES)]
    poles += [SupplyPole("T", "P", 4, 0j, 24.0), SupplyPole("T", "M", 3, 0j, 0.0)]
    contacts, closed = [], []
    for number in range(int(chance.integers(4, 2 * count))):
        a, b = (int(n) for n in chance.choice(count, 2, replace=False))
        contacts.append(Contact(DeviceId(f"K{number}"), "1-2", a, b))
        closed.append(bool(chance.random() < 0.6))
    consumers = []
    for number in range(int(chance.integers(3, 2 * count))):
        a, b = (int(n) for n in chance.choice(count, 2, replace=False))
        ohm = float(10 ** chance.uniform(1.5, 4.5))
        consumers.append(Consumer(DeviceId(f"H{number}"), "X1-X2", a, b, ohm, ohm, 230.0, 0.8, 0.4))
    network = Network({}, tuple(() for _ in range(count)), count, tuple(contacts), tuple(consumers), tuple(poles), {})
    connectivity = Connectivity(count, contacts)
    connectivity.change((), (), {pole.point for pole in poles})
    for number, is_closed in enumerate(closed):  # a contact that would short two poles stays open
        if not is_closed:
            continue
        connectivity.change((), (number,), connectivity.poles)
        if connectivity.crossings:
            connectivity.change((number,), (), connectivity.poles)
            closed[number] = False
    return network, closed


def live(network: Network, closed: list[bool]) -> Volts:
    connectivity = Connectivity(network.count, network.contacts)
    volts = Volts(network, connectivity)
    volts.set_poles(network.poles)
    connectivity.change((), [n for n, one in enumerate(closed) if one], {pole.point for pole in network.poles})
    volts.tie()
    volts.update(set(range(network.count)))
    return volts


def resistances(network: Network, closed: list[bool]) -> list[tuple[int, int, float]]:
    found = [(one.a, one.b, TINY) for one, is_closed in zip(network.contacts, closed, strict=True) if is_closed]
    return found + [(one.a, one.b, one.ohm) for one in network.consumers]


def reached(network: Network, edges: list[tuple[int, int, float]]) -> set[int]:
    """Nodes that hang together with a pole: the others have no potential that means anything."""
    seen, todo = {pole.point for pole in network.poles}, [pole.point for pole in network.poles]
    beside: dict[int, list[int]] = {}
    for a, b, _ in edges:
        beside.setdefault(a, []).append(b)
        beside.setdefault(b, []).append(a)
    while todo:
        for other in beside.get(todo.pop(), []):
            if other not in seen:
                seen.add(other)
                todo.append(other)
    return seen


@needs_ngspice
def test_a_thousand_random_networks_have_the_potentials_that_a_circuit_solver_finds(tmp_path: Path) -> None:
    made = [random_network(seed) for seed in range(NETWORKS)]
    decks: dict[str, list[str]] = {"real": [], "imaginary": [], "direct": []}
    base = 0
    places = []
    for number, (network, closed) in enumerate(made):
        edges = resistances(network, closed)
        held = reached(network, edges)
        places.append((base, held))
        for word, lines in decks.items():
            for pole in network.poles:
                if (pole.system, pole.name) == ("T", "M"):
                    continue
                value = {"real": pole.ac.real, "imaginary": pole.ac.imag, "direct": pole.dc}[word]
                lines.append(f"V{number}_{pole.system}{pole.name} n{base + pole.point} 0 {value!r}")
            for n, (a, b, ohm) in enumerate(edges):
                if a in held:
                    lines.append(f"R{number}_{n} n{base + a} n{base + b} {ohm!r}")
        base += network.count
    found = {word: operating_point(tmp_path, base, lines) for word, lines in decks.items()}
    checked = states = 0
    for (network, closed), (start, held) in zip(made, places, strict=True):
        volts = live(network, closed)
        for point in held:
            ours = volts.at[point]
            theirs = found["real"][start + point] + 1j * found["imaginary"][start + point]
            assert ours is not None
            assert abs(ours[0] - theirs) <= 0.01 * max(abs(theirs), 1.0)
            assert ours[1] == pytest.approx(found["direct"][start + point], rel=0.01, abs=0.01)
            checked += 1
        for number, one in enumerate(network.consumers):
            if one.a not in held:
                continue
            ac = np.hypot(*(found[w][start + one.a] - found[w][start + one.b] for w in ("real", "imaginary")))
            across = np.hypot(ac, found["direct"][start + one.a] - found["direct"][start + one.b])
            if abs(across / one.volts - one.pick) > 0.01:
                assert (volts.across[number] / one.volts >= one.pick) == (across / one.volts >= one.pick)
                states += 1
    assert checked > 10 * NETWORKS
    assert states > 8 * NETWORKS


PANELS = {
    "direct-on-line": ("c1.S.start",),
    "both ways": ("c1.S.reverse",),
    "star-delta": ("c1.S.start",),
    "pump by level": (),
    "emergency stop": (),
    "drive": ("c1.S.start",),
    "soft start": ("c1.S.start",),
    "lamp test": (),
    "phase lamps": (),
    "all of it by the controller": (),
    "control at 24 V": ("c1.S.start",),
    "direct-on-line, North American": ("c1.S.start",),
}


def running(name: str) -> tuple[Panel, Meter]:
    evaluation: Evaluation[Job] = plan_for(sample(name))
    panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS))
    panel.operator_state.pressed |= {DeviceId(one) for one in PANELS[name]}
    panel.run_until_stable()
    return panel, meter_of(panel)


@pytest.mark.parametrize("name", PANELS)
def test_every_consumer_of_a_panel_has_the_voltage_that_nodal_analysis_gives_it(name: str) -> None:
    panel, meter = running(name)
    checked = 0
    for number, one in enumerate(panel.network.consumers):
        if not all(one.ends):
            continue
        pins = [read_pin(f"{one.device}:{end}") for end in one.ends]
        if any(pin not in panel.network.point for pin in pins):
            continue
        reading = meter.volts(pins[0], pins[1])
        assert reading.value is not None
        across = panel.volts.across[number]
        assert abs(reading.value) == pytest.approx(across, rel=0.01, abs=0.5)
        assert (across / one.volts >= one.pick) == (abs(reading.value) / one.volts >= one.pick)
        checked += 1
    assert checked


@needs_ngspice
@pytest.mark.parametrize("name", PANELS)
def test_every_potential_of_a_panel_is_what_a_circuit_solver_finds(name: str, tmp_path: Path) -> None:
    panel, meter = running(name)
    meter.volts(*list(panel.network.point)[:2])
    ends, ohm, sources, count = meter.deck()
    ours = solve_nodal(count, ends, ohm, sources)
    labels = np.unique(_islands(count, ends, sources), return_index=True)
    for word in ("real", "imag", "dc"):
        lines = [f"R{n} n{a} n{b} {r!r}" for n, ((a, b), r) in enumerate(zip(ends.tolist(), ohm.tolist(), strict=True))]
        for n, (a, b, ac, dc, inner) in enumerate(sources):
            value = dc if word == "dc" else getattr(ac, word)
            lines += [f"V{n} n{count + n} n{a} {value!r}", f"RS{n} n{count + n} n{b} {inner!r}"]
        lines += [f"VG{n} n{first} 0 0" for n, first in enumerate(labels[1].tolist())]
        theirs = operating_point(tmp_path, count, lines)
        mine = ours[:, 1].real if word == "dc" else getattr(ours[:, 0], word)
        known = ~np.isnan(theirs)
        assert known.sum() > 0.9 * count
        assert np.allclose(mine[known], theirs[known], rtol=0.01, atol=1e-3)


@needs_ngspice
@pytest.mark.parametrize("name", PANELS)
def test_what_an_ohm_meter_reads_is_what_a_circuit_solver_finds(name: str, tmp_path: Path) -> None:
    panel, meter = running(name)
    panel.operator_state.opened |= {d.id for d in panel.circuits.devices if d.kind.family == "isolator"}
    panel.run_until_stable()
    chance = np.random.default_rng(3)
    pins = sorted(pin for pin in panel.network.point if circuit_of(pin.device) != "c0")
    read = []
    for _ in range(200):
        black, red = (pins[n] for n in chance.choice(len(pins), 2, replace=False))
        found = meter.ohms(black, red)
        if found.value is not None and found.value > 0.1:
            read.append((meter.node(black), meter.node(red), found.value))
    assert len(read) > 3
    ends, ohm, count = meter.cold_deck()
    labels = _islands(count, ends, [])
    for black_at, red_at, value in read[:4]:
        kept = [n for n, (a, _) in enumerate(ends.tolist()) if labels[a] == labels[black_at]]
        lines = [f"R{n} n{ends[n][0]} n{ends[n][1]} {float(ohm[n])!r}" for n in kept]
        lines += [f"VG n{black_at} 0 0", f"I1 0 n{red_at} 1"]
        assert operating_point(tmp_path, count, lines)[red_at] == pytest.approx(value, rel=0.01)


def _islands(count: int, ends: np.ndarray, sources: list) -> np.ndarray:  # type: ignore[type-arg]
    from riktig.core.simulation.nodal import islands

    pairs = np.array([(a, b) for a, b, *_ in sources], dtype=np.int64).reshape(-1, 2)
    return islands(count, np.concatenate([ends, pairs]))


class TestKnownByHand:
    """Series and parallel by Ohm's law; no source but the law."""

    def test_a_divider(self) -> None:
        # 24 V over 1 kohm and 3 kohm, 0.5 ohm inside: 24 * 3000 / 4000.5.
        ends = np.array([(0, 1), (1, 2)], dtype=np.int64)
        volts = solve_nodal(3, ends, np.array([3000.0, 1000.0]), [(0, 2, 0j, 24.0, 0.5)])
        assert volts[1, 1].real == pytest.approx(24 * 3000 / 4000.5)

    def test_two_in_parallel(self) -> None:
        # 1 kohm beside 1 kohm is 500 ohm; with 500 ohm inside half of 10 V is left.
        ends = np.array([(0, 1), (0, 1)], dtype=np.int64)
        volts = solve_nodal(2, ends, np.array([1000.0, 1000.0]), [(0, 1, 10 + 0j, 0.0, 500.0)])
        assert volts[1, 0] == pytest.approx(5.0)
