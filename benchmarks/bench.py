"""The bench: a tick until it is in the file and shown, opening Build, a change of 1,000 wires as work.

Run: .venv/bin/python benchmarks/bench.py
"""

import os
import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from PySide6.QtWidgets import QApplication
from wires import panel

from riktig.core.evaluation import Evaluation
from riktig.core.job import LoadId, change_load
from riktig.core.production import WORK, BuildStage, gate_facts, gate_subject, stage_states, wire_work
from riktig.core.records import NewRecord
from riktig.core.schematic import with_names_recorded
from riktig.core.store import JobFile
from riktig.core.views import change_work
from riktig.core.wiring import WIRING
from riktig.desk.app import application
from riktig.desk.session import Session
from riktig.desk.stations.build import BuildStation

RUNS = 9


def median_ms(work: Callable[[], object], runs: int = RUNS) -> float:
    """The median time of some work, ms."""
    times = []
    for _ in range(runs):
        begin = time.perf_counter()
        work()
        times.append((time.perf_counter() - begin) * 1000)
    return statistics.median(times)


def main() -> None:
    """Prints the figures for a job of some thousand wires."""
    app = application()
    assert isinstance(app, QApplication)
    job = with_names_recorded(panel(40))
    with tempfile.TemporaryDirectory() as folder:
        session = Session(who="Ida")
        session.open(JobFile.create(Path(folder) / "b.riktig", job, who="Ida", at="t"))
        wires = session.evaluation.get(WIRING).wires
        session.evaluation.get(WORK)
        print(f"{len(wires)} wires, {len(session.evaluation.get(WORK))} tasks")
        states = stage_states(session.evaluation.get(WORK), session.progress, session.records)
        shut = [state for state in states if not state.may_begin]
        session.record_all([NewRecord(gate_subject(s.stage), gate_facts(s, "measured")) for s in shut])
        station = BuildStation(session)
        station.resize(1080, 700)
        begin = time.perf_counter()
        station.show()
        station.show_now()
        app.processEvents()
        print(f"Build opened: {(time.perf_counter() - begin) * 1000:.0f} ms")
        session.records_changed.connect(station.refresh)
        for stage in (BuildStage.RECEIVE, BuildStage.WIRES):
            station.show_stage(stage)
            app.processEvents()

            def tick(of: BuildStage = stage) -> None:
                (station.wires.tick_next if of.is_wiring else station.tasks.do_now)()
                app.processEvents()

            print(f"a tick in {stage.value}, in the file and shown: {median_ms(tick):.0f} ms")
        session.close()
    before, after = Evaluation(job), Evaluation(with_names_recorded(change_load(job, LoadId("m7"), run_lamp=False)))
    old, new = before.get(WIRING), after.get(WIRING)
    print(f"difference of two documents as wires to touch: {median_ms(lambda: wire_work(old, new)):.0f} ms")
    change_work(before, after, (), "change:1")
    print(f"as all work, all lists being known: {median_ms(lambda: change_work(before, after, (), 'change:1')):.0f} ms")


if __name__ == "__main__":
    main()
