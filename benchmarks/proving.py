"""Proving a panel of about 1,000 wires: the plan, a fault among all single faults, a pair, the next probe.

Run: .venv/bin/python benchmarks/proving.py
"""

import os
import statistics
import tempfile
import time
from pathlib import Path
from random import Random

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from bench import median_ms
from PySide6.QtWidgets import QApplication
from wires import panel

from riktig.core.evaluation import Evaluation
from riktig.core.job import CircuitId, Job
from riktig.core.proving import (
    DEAD_PANEL,
    ENERGISED,
    LIVE_SCRIPTS,
    PANEL_FACTS,
    PIN_PLACES,
    TESTS,
    Instrument,
    LiveEvidence,
    Probe,
    ProvingStage,
    SeenAfterStep,
    SwitchState,
    costs_of,
    locate,
    locate_live,
    next_probe,
    path_cost,
    plan_tests,
    single_faults,
    states_after,
    watched_in,
)
from riktig.core.schematic import NETS
from riktig.core.simulation import FaultKind, InjectedFault
from riktig.core.store import JobFile
from riktig.core.wiring import WIRING
from riktig.desk.app import application
from riktig.desk.session import Session
from riktig.desk.stations.prove import ProveStation
from riktig.devices import BenchMeter, SimulatedPanel

RUNS = 5


def main() -> None:
    """Prints the medians."""
    evaluation: Evaluation[Job] = Evaluation(panel(32))
    facts, places = evaluation.get(PANEL_FACTS), evaluation.get(PIN_PLACES)
    dead = evaluation.get(DEAD_PANEL)
    wires = evaluation.get(WIRING).wires
    print(f"{len(wires)} wires")
    print(f"plan                          {median_ms(lambda: plan_tests(facts, dead, places), 3):8.0f} ms")
    tests = [test for test in evaluation.get(TESTS).tests if test.stage is not ProvingStage.INSULATION]
    own = [test for test in tests if test.stage is ProvingStage.WIRES]
    rank = {str(wire.key): n for n, wire in enumerate(wires)}
    listed = sorted(own, key=lambda test: rank.get(test.wire, len(rank)))
    ways = [path_cost(range(len(own)), costs_of(some, places)) for some in (own, listed)]
    print(f"{len(tests)} cards; walking and switching {1 - ways[0] / ways[1]:.0%} less than in the order of the list")
    states = list(dict.fromkeys([tests[0].state, SwitchState(), *(test.state for test in tests)]))
    chance = Random(1)
    faults = single_faults(dead)
    print(f"{len(faults)} single faults")
    off = [fault for fault in faults if fault.wrong is FaultKind.OFF]
    ones, nexts = [], []
    for fault in chance.sample(off, RUNS):
        bench = SimulatedPanel(dead, 1, (fault,))
        probes = []
        for test in tests:
            ohm = bench.ohm(test.state, test.black.pin, test.red.pin)
            probes.append(Probe(test.state, test.black.pin, test.red.pin, ohm))
            if not test.expected.passes(ohm):
                break
        suspects = locate(dead, probes)
        ones.append(median_ms(lambda: locate(dead, probes), 1))  # noqa: B023 - called at once
        nexts.append(median_ms(lambda: next_probe(dead, suspects, probes, states), 1))  # noqa: B023 - called at once
    print(f"a fault among all singles     {statistics.median(ones):8.0f} ms, at most {max(ones):.0f}")
    print(f"the next probe                {statistics.median(nexts):8.0f} ms, at most {max(nexts):.0f}")
    pairs = []
    for _ in range(3):
        bench = SimulatedPanel(dead, 1, chance.sample(off, 2))
        probes = [
            Probe(t.state, t.black.pin, t.red.pin, bench.ohm(t.state, t.black.pin, t.red.pin)) for t in tests[::1]
        ]
        pairs.append(median_ms(lambda: locate(dead, probes), 1))  # noqa: B023 - called at once
    print(f"two faults, all cards read    {statistics.median(pairs):8.0f} ms, at most {max(pairs):.0f}")
    for name in ("13-14", "A1-A2"):
        print(f"a fault only a live step shows{in_live_steps(evaluation, name):8.0f} ms")
    print(f"a card accepted in the window {in_the_window():8.0f} ms until the next one is shown")


def in_live_steps(evaluation: Evaluation[Job], unit: str) -> float:
    """From what was seen after the steps of one circuit and all dead readings to the suspects, ms."""
    dead, make, scripts = evaluation.get(DEAD_PANEL), evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS)
    circuit = CircuitId("c1")
    fault = InjectedFault(FaultKind.OPEN_COIL if unit == "A1-A2" else FaultKind.STUCK, "c1.K", unit)
    bench = SimulatedPanel(dead, 1, (fault,))
    probes = [
        Probe(test.state, test.black.pin, test.red.pin, bench.ohm(test.state, test.black.pin, test.red.pin))
        for test in evaluation.get(TESTS).tests
        if test.stage is not ProvingStage.INSULATION
    ]
    sound = make()
    watched = watched_in(sound, circuit)
    asked, came = (states_after(panel, circuit, scripts[circuit], watched) for panel in (sound, make((fault,))))
    first = next(number for number, (one, other) in enumerate(zip(asked, came, strict=False), 1) if one != other)
    seen = tuple(SeenAfterStep(circuit, n, tuple(came[n - 1].items()), n != first) for n in range(1, first + 1))
    evidence, nets = LiveEvidence(seen, ()), evaluation.get(NETS)
    return median_ms(lambda: locate_live(dead, nets, probes, evidence, make, scripts), 3)


def in_the_window() -> float:
    """From Enter until the next card is on the screen, the reading in the file, ms."""
    application()
    with tempfile.TemporaryDirectory() as folder:
        session = Session(who="Ida")
        session.open(JobFile.create(Path(folder) / "b.riktig", panel(32), who="Ida", at="t"))
        station = ProveStation(session, BenchMeter())
        session.evaluation.get(TESTS)
        station.take_meter(Instrument("M-34", "4711", "2999-12-31", 0.0))
        station.resize(1000, 700)
        station.show()
        station.refresh()
        session.records_changed.connect(station.refresh)
        station.go_to_stage(ProvingStage.WIRES)
        times = []
        for _ in range(9):
            station.take_typed("0.1")
            begin = time.perf_counter()
            station.accept()
            QApplication.processEvents()
            times.append((time.perf_counter() - begin) * 1000)
        station.close()
    return statistics.median(times)


if __name__ == "__main__":
    main()
