"""Measures what the issue gives a figure for. Medians of several runs; never part of the tests.

Run: .venv/bin/python benchmarks/measure.py
"""

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import TypeVar

from riktig.core.edits import ChangeLoad
from riktig.core.evaluation import Derived

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, add_load, new_job
from riktig.core.plate import LAYOUT
from riktig.core.rules import RULES
from riktig.core.schematic import with_names_recorded
from riktig.core.store import JobFile
from riktig.demo_job import wash_drum

COLD = """
import time; begin = time.perf_counter()
from riktig.desk.app import application, make_window
from riktig.desk.demo_file import demo_file
app = application()
window = make_window()
window.show()
app.processEvents()
shown = time.perf_counter() - begin
window.session.open(demo_file(window.session))
window.go_to("Brief")
app.processEvents()
print(shown, time.perf_counter() - begin)
"""

KILLED = """
import os, sys
from pathlib import Path
from riktig.core.records import Record, WireDone
from riktig.core.store import JobFile
file = JobFile(Path(sys.argv[1]), who="Ida")
for n in range(2000):
    file.add_records([Record(f"{sys.argv[2]}-{n}", "w", WireDone(), "Ida", "t", 1)])
os.kill(os.getpid(), 9)
"""


def median(name: str, runs: list[float], unit: str = "ms", scale: float = 1000.0) -> None:
    """Prints the median and the spread of some runs in seconds."""
    values = sorted(run * scale for run in runs)
    low, high = values[0], values[-1]
    print(f"{name:58} {statistics.median(values):9.1f} {unit}   ({low:.1f} to {high:.1f}, {len(values)} runs)")


def timed(act: Callable[[], object], runs: int) -> list[float]:
    """Wall time of an act, several times."""
    found = []
    for _ in range(runs):
        begin = time.perf_counter()
        act()
        found.append(time.perf_counter() - begin)
    return found


def cold_start() -> None:
    """A new process until the window is on the (offscreen) screen, and until the job can be used."""
    shown, usable, process = [], [], []
    for _ in range(7):
        begin = time.perf_counter()
        out = subprocess.run([sys.executable, "-c", COLD], capture_output=True, text=True, check=True)
        process.append(time.perf_counter() - begin)
        first, second = out.stdout.split()[-2:]
        shown.append(float(first))
        usable.append(float(second))
    median("cold start: window painted", shown)
    median("cold start: demonstration open and shown", usable)
    median("cold start: the whole process, from start to end", process)


def panel(motors: int) -> Job:
    """A panel of many motors, for growth with size."""
    job = new_job("B", "benchmark")
    for n in range(motors):
        job = add_load(job, f"fan {n}", (0.75, 1.5, 4.0)[n % 3])
    return with_names_recorded(job)


T = TypeVar("T")


def _fresh(job: Job, derived: Derived[Job, T]) -> T:
    return Evaluation(job).get(derived)


def core() -> None:
    """First plate, and everything derived, by size; an edit after which all is derived anew."""
    Evaluation(wash_drum()).get(RULES)
    for motors in (1, 5, 10, 20):
        job = panel(motors)
        median(f"first plate, {motors} motors", timed(partial(_fresh, job, LAYOUT), 9))
        median(f"everything derived, {motors} motors", timed(partial(_fresh, job, RULES), 5))


def edit_to_view() -> None:
    """An edit in the window until the station, the route card and the drawer show it."""
    from riktig.desk.app import application, make_window
    from riktig.desk.demo_file import demo_file

    app = application()
    window = make_window()
    window.session.open(demo_file(window.session))
    window.show()
    for station in ("Brief", "Circuits", "Plate", "Wires"):
        window.go_to(station)
        app.processEvents()
        found = []
        for n in range(15):
            kw = (4.0, 5.5)[n % 2]
            begin = time.perf_counter()
            window.session.edit("power", ChangeLoad(window.session.job.loads[0].id, {"kw": kw}))
            app.processEvents()
            found.append(time.perf_counter() - begin)
        median(f"edit to refreshed view, {station}", found[1:])
    window.close()


def kill_and_reopen() -> None:
    """Opening a job file whose writer was killed in the middle of its work."""
    path = Path(tempfile.mkdtemp()) / "killed.riktig"
    JobFile.create(path, wash_drum(), who="Ida", at="t").close()
    found = []
    for n in range(9):
        subprocess.run([sys.executable, "-c", KILLED, str(path), str(n)], check=False)
        begin = time.perf_counter()
        file = JobFile(path, who="Ida")
        file.job()
        file.records()
        found.append(time.perf_counter() - begin)
        file.close()
    median("reopen after kill -9 (up to 18,000 records)", found)


if __name__ == "__main__":
    cold_start()
    core()
    edit_to_view()
    kill_and_reopen()
