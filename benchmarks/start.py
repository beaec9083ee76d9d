"""Measures the start, and an edit until it is seen on every station.

The first screen is compared with an empty window, in turns, so that a slow spell of the machine meets both. Edits are
measured in time of the processor: on a shared machine the clock on the wall counts what others do. The last column is
by how much an edit takes longer than an empty window takes to be painted, also in time of the processor; 0.77 is 100 ms
on a machine where that takes 130 ms.

Run: .venv/bin/python benchmarks/start.py [ROUNDS]
"""

import os
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from riktig.core.job import Job

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

PAINTED = """
import sys, time
begin = time.perf_counter()
worked = time.process_time()
from PySide6.QtCore import QEvent, QObject
class Spy(QObject):
    def eventFilter(self, widget, event):
        if event.type() == QEvent.Type.Paint and widget.isWidgetType() and widget.isWindow():
            print(1000 * (time.process_time() - worked), 1000 * (time.perf_counter() - begin), flush=True)
            import os
            os._exit(0)
        return False
"""
EMPTY = (
    PAINTED
    + """
from PySide6.QtWidgets import QApplication, QMainWindow
app, spy = QApplication([]), Spy()
app.installEventFilter(spy)
window = QMainWindow()
window.resize(1280, 800)
window.show()
app.exec()
"""
)
OURS = (
    PAINTED
    + """
from riktig.desk.app import application, run_window
app, spy = application(), Spy()
app.installEventFilter(spy)
run_window(None)
"""
)
IMPORT = "import time; begin = time.perf_counter(); import riktig.cli; print(1000 * (time.perf_counter() - begin))"


def _ms(script: str, column: int = -1) -> float:
    run = subprocess.run([sys.executable, "-c", script], capture_output=True, text=True, check=True)
    return float(run.stdout.split()[column])


def starts(rounds: int) -> None:
    """Three scripts in turn, so that a slow spell of the machine meets all of them."""
    taken: dict[str, list[float]] = {"empty window painted": [], "first screen painted": [], "import riktig.cli": []}
    for _ in range(rounds):
        for name, script in zip(taken, (EMPTY, OURS, IMPORT), strict=True):
            taken[name].append(_ms(script))
    for name, times in taken.items():
        print(f"{name:34} {statistics.median(times):7.0f} ms (of the best {min(times):.0f})")
    pairs = zip(taken["first screen painted"], taken["empty window painted"], strict=True)
    print(f"{'first screen over empty window':34} {statistics.median(a / b for a, b in pairs):7.2f} times")


def edits(job: str, change: Callable[[int], object], rounds: int) -> None:
    """From an edit until its station shows it, on every station; another power, back and forth."""
    import tempfile
    from pathlib import Path

    from riktig.core.store import JobFile
    from riktig.desk.app import application, make_window

    app, window = application(), make_window()
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "job.riktig"
        window.session.open(JobFile.create(path, _jobs()[job], who="Ida", at="t"))
        window.show()
        for station in window.stations:
            window.go_to(station)
            app.processEvents()
            taken, yard = [], []
            for n in range(rounds + 1):
                if n % 3 == 0:
                    yard.append(_ms(EMPTY, 0))
                begin = time.thread_time()
                window.session.edit("power", change(n))  # type: ignore[arg-type]
                app.sendPostedEvents()  # laid out
                app.sendPostedEvents()  # and painted; what timers begin comes after that
                taken.append(1000 * (time.thread_time() - begin))
                until = (
                    time.monotonic() + 1.5
                )  # what is worked out aside is no part of it, and must not reach into the next
                while time.monotonic() < until and window.deriver.busy:
                    app.processEvents()
            middle = statistics.median(taken[1:])
            times = middle / statistics.median(yard)
            line = f"{job + ', ' + station:34} {middle:7.0f} ms (of the best {min(taken):.0f})"
            print(f"{line}{times:7.2f} empty windows")
        window.close()


def _jobs() -> "dict[str, Job]":
    from riktig.core.job import add_load, new_job
    from riktig.core.schematic import with_names_recorded
    from riktig.demo_job import demo_job

    many = new_job("B", "benchmark")
    for n in range(40):
        many = add_load(many, f"fan {n}", (0.75, 1.5, 4.0)[n % 3])
    return {"kelp shed": demo_job("kelp-shed"), "40 motors": with_names_recorded(many)}


def main() -> None:
    """All of it."""
    from riktig.core.edits import ChangeLoad

    rounds = int(sys.argv[1]) if len(sys.argv) > 1 else 7
    starts(rounds)
    for name, job in _jobs().items():
        load = job.loads[0].id
        edits(name, lambda n, load=load: ChangeLoad(load, {"kw": (4.0, 5.5)[n % 2]}), rounds)  # type: ignore[misc]


if __name__ == "__main__":
    main()
