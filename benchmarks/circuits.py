"""Measures the circuits by size: sheets laid out and drawn, an insert until it is on the screen, two thousand rungs.

Run: .venv/bin/python benchmarks/circuits.py
"""

import os
import statistics
import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.edits import PutIn
from riktig.core.keys import ElementKey

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from measure import median

from riktig.core.evaluation import Evaluation
from riktig.core.job import Command, ElementId, Insertable, Job, OwnDevice, OwnRung, Start, add_load, new_job
from riktig.core.schematic import (
    CIRCUITS,
    FAULTS,
    SHEETS,
    Circuits,
    add_written,
    elements_of,
    find_nets,
    with_names_recorded,
)
from riktig.core.store import JobFile

KINDS: list[dict[str, object]] = [
    {},
    {"start": Start.STAR_DELTA},
    {"start": Start.REVERSING, "command": Command.BOTH_WAYS},
    {"start": Start.SOFT},
    {"command": Command.LEVEL, "level_alarm": True},
    {"command": Command.SELECTOR},
]


def panel(starters: int) -> Job:
    """A panel of many starters of all kinds."""
    job = new_job("B", "benchmark")
    for n in range(starters):
        job = add_load(job, f"pump {n}", (0.75, 1.5, 4.0)[n % 3], **KINDS[n % 6])  # type: ignore[arg-type]
    return with_names_recorded(job)


def timed(act: Callable[[], object], runs: int, ahead: Callable[[], object] = lambda: None) -> list[float]:
    """Wall time of an act, several times, each after ``ahead``."""
    found = []
    for _ in range(runs):
        ahead()
        begin = time.perf_counter()
        act()
        found.append(time.perf_counter() - begin)
    return found


def growth() -> None:
    """Laying out and drawing all sheets from nothing, by size."""
    base: tuple[float, float] | None = None
    for starters in (5, 10, 20, 40, 80):
        job = panel(starters)
        circuits: Circuits = Evaluation(job).get(CIRCUITS)
        count = len(Evaluation(job).get(SHEETS).sheets)

        def draw(job: Job = job) -> None:
            Evaluation(job).get(SHEET_DRAWINGS)

        whole = timed(draw, 5)
        median(f"{starters} starters, {count} sheets: all laid out and drawn", whole)
        median(f"{starters} starters: nets", timed(partial(find_nets, circuits), 5))
        here = statistics.median(whole)
        if base:
            print(f"{'':4}{starters / base[0]:.1f} times the starters, {here / base[1]:.2f} times the time")
        base = (starters, here)


def insert_on_screen() -> None:
    """An insert in a panel of 30 starters until the sheet is painted, with wires and rules worked out or not yet."""
    from riktig.desk.app import application, make_window

    app = application()
    job = panel(30)
    window = make_window()
    window.resize(1280, 800)
    window.session.open(JobFile.create(Path(tempfile.mkdtemp()) / "b.riktig", job, who="a", at="t"))
    window.show()
    window.go_to("Circuits")
    app.processEvents()
    station = window.stations["Circuits"]
    rungs = window.session.evaluation.get(CIRCUITS).rungs
    stops = [e.id for r in rungs for e in elements_of(r.path) if e.id.endswith("S.stop/1-2")]

    def wait() -> None:
        for _ in range(3):
            app.processEvents()
        while window.deriver.busy:
            app.processEvents()
            time.sleep(0.01)

    def insert(at: ElementId) -> None:
        window.session.edit("insert", PutIn(at, Insertable.STOP_BUTTON, "again"))
        station.view.repaint()  # type: ignore[attr-defined]

    def turn_to(at: ElementId) -> None:
        wait()
        window.session.select(ElementKey(at))
        app.processEvents()

    found = []
    for n in range(12):
        at = stops[n % 6]
        turn_to(at)
        begin = time.perf_counter()
        insert(at)
        found.append(time.perf_counter() - begin)
    median("30 starters: an insert until it is painted", found[1:])
    wait()
    begin = time.perf_counter()
    insert(stops[0])
    wait()
    print(f"{'30 starters: wires, rules and tests worked out aside':58} {time.perf_counter() - begin:9.1f} s")
    window.close()


def many_rungs() -> None:
    """Two thousand rungs of one's own in one circuit."""
    relays = [OwnDevice(f"K{n}", "relay", "plate", f"step {n}") for n in range(1000)]
    rungs = [OwnRung(f"a{n}", "", "c1.control", f"K{(n + 1) % 1000}:13-14 K{n}:A1-A2", "N") for n in range(1000)]
    rungs += [OwnRung(f"b{n}", "", "c1.control", f"K{n}:33-34 K{(n + 1) % 1000}:43-44", f"n{n}") for n in range(1000)]
    base = with_names_recorded(add_load(new_job("B"), "drum", 4.0))
    job = with_names_recorded(add_written(base, "many", relays, rungs))
    median("2,000 rungs: sheets", timed(lambda: Evaluation(job).get(SHEET_DRAWINGS), 3))
    median("2,000 rungs: faults", timed(lambda: Evaluation(job).get(FAULTS), 3))


if __name__ == "__main__":
    growth()
    insert_on_screen()
    many_rungs()
