"""The bench: a tick until it is in the file and shown, in the whole window, with an empty log and with a long one.

Run: .venv/bin/python benchmarks/bench.py
"""

import os
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtCore import QCoreApplication
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication
from wires import panel

from riktig.core.evaluation import Evaluation
from riktig.core.job import LoadId, change_load
from riktig.core.production import WORK, BuildStage, gate_facts, gate_subject, stage_states, tick_facts, wire_work
from riktig.core.records import NewRecord, Operation
from riktig.core.schematic import with_names_recorded
from riktig.core.store import JobFile
from riktig.core.views import change_work
from riktig.core.wiring import WIRING
from riktig.desk.app import application
from riktig.desk.session import Session
from riktig.desk.shell import MainWindow
from riktig.desk.stations.build import BuildStation

RUNS = 15
DONE = 0.8
"""How much of the wires is finished in the long log, and of the tasks half as much."""


def median_ms(work: Callable[[], object], runs: int = RUNS) -> float:
    """The median time of some work, ms."""
    times = []
    for _ in range(runs):
        begin = time.perf_counter()
        work()
        times.append((time.perf_counter() - begin) * 1000)
    return statistics.median(times)


def long_log(session: Session) -> list[NewRecord]:
    """What the bench has recorded when most of the panel is built."""
    wires = session.evaluation.get(WIRING).wires
    entries = [
        NewRecord(wire.key, tick_facts(wire, op)) for wire in wires[: int(DONE * len(wires))] for op in Operation
    ]
    for state in stage_states(session.evaluation.get(WORK), session.progress, session.records):
        own = state.tasks[: int(DONE / 2 * len(state.tasks))]
        entries += [NewRecord(task.task.subject, task.task.facts) for task in own]
    return entries


def rest(window: MainWindow) -> None:
    """Lets everything come to an end that waits or is worked out aside."""
    QTest.qWait(100)
    while window.deriver.busy:
        QTest.qWait(20)
    QTest.qWait(50)


def measure_ticks(window: MainWindow) -> None:
    """Prints how long a tick takes until it is shown, and until the whole window has followed."""
    session = window.session
    states = stage_states(session.evaluation.get(WORK), session.progress, session.records)
    shut = [state for state in states if not state.may_begin]
    session.record_all([NewRecord(gate_subject(s.stage), gate_facts(s, "measured")) for s in shut])
    begin = time.perf_counter()
    window.go_to("Build")
    QApplication.processEvents()
    print(f"Build opened: {(time.perf_counter() - begin) * 1000:.0f} ms")
    station = window.stations["Build"]
    assert isinstance(station, BuildStation)
    for stage in (BuildStage.RECEIVE, BuildStage.PARTS, BuildStage.WIRES):
        station.show_stage(stage)
        rest(window)
        shown, whole = [], []
        for _ in range(RUNS):
            begin = time.perf_counter()
            (station.wires.tick_next if stage.is_wiring else station.tasks.do_now)()
            QCoreApplication.sendPostedEvents(None, 0)
            shown.append((time.perf_counter() - begin) * 1000)
            QApplication.processEvents()
            whole.append((time.perf_counter() - begin) * 1000)
            rest(window)
        figures = f"{statistics.median(shown):.0f} ms (at most {max(shown):.0f})"
        print(f"a tick in {stage.value}, {len(session.records)} entries: in the file and shown {figures}")
        print(f"    until the whole window has followed {statistics.median(whole):.0f} ms")


def main() -> None:
    """Prints the figures for a job of some thousand wires."""
    application()
    job = with_names_recorded(panel(40))
    with tempfile.TemporaryDirectory() as folder:
        window = MainWindow(Session(who="Ida"))
        window.show()
        for name in ("begun", "mostly built"):
            path = Path(folder) / f"{name}.riktig"
            JobFile.create(path, job, who="Ida", at="t").close()
            window.open_path(path)
            rest(window)
            session = window.session
            wires = session.evaluation.get(WIRING).wires
            print(f"{name}: {len(wires)} wires, {len(session.evaluation.get(WORK))} tasks")
            if name != "begun":
                session.record_all(long_log(session))
            measure_ticks(window)
        window.close()
    before, after = Evaluation(job), Evaluation(with_names_recorded(change_load(job, LoadId("m7"), run_lamp=False)))
    old, new = before.get(WIRING), after.get(WIRING)
    print(f"difference of two documents as wires to touch: {median_ms(lambda: wire_work(old, new)):.0f} ms")
    change_work(before, after, (), "change:1")
    print(f"as all work, all lists being known: {median_ms(lambda: change_work(before, after, (), 'change:1')):.0f} ms")


if __name__ == "__main__":
    main()
