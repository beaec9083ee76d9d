"""Measures the plate: a first plan, how good a plan is after how long, a drag by the frame, growth with size.

Run: .venv/bin/python benchmarks/plate.py [--long]
With --long every plan is also sought for ten times as long: some eight minutes a size.
"""

import os
import statistics
import sys
import tempfile
import time
from functools import partial
from pathlib import Path
from typing import TypeVar

from riktig.core.evaluation import Derived, Memory
from riktig.core.keys import DeviceKey

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from circuits import panel
from measure import median, timed

from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Point
from riktig.core.job import DeviceId, Job, set_enclosure
from riktig.core.optimiser.replan import replan_of
from riktig.core.plate import LAYOUT, RULER, with_block_at
from riktig.core.sizing import INSIDE_AIR, SIZING
from riktig.core.store import JobFile
from riktig.core.wiring import DUCT_USES, WIRING, route_shapes

SEEDS = (1, 2, 3)
WIRES = 5_000


def boxed(starters: int) -> Job:
    """Starters of all kinds in a box large enough for them."""
    return set_enclosure(
        panel(starters),
        width=1200.0,
        height=2000.0,
        depth=400.0,
        plate_width=1150.0,
        plate_height=1950.0,
        plate_depth=370.0,
    )


T = TypeVar("T")


def anew(evaluation: Evaluation[Job], derived: Derived[Job, T]) -> T:
    """One result computed again from inputs that are there."""
    return derived.call(Memory(), evaluation.inputs_of(derived))


def first_plan() -> None:
    """From sized circuits to a plate that fits; and what else is worked out of it, by size."""
    for starters in (5, 10, 20, 40):
        job = boxed(starters)
        evaluation = Evaluation(job)
        evaluation.get(SIZING)
        count = len(evaluation.get(LAYOUT).seats)

        median(f"feasible plate, {count} devices on it", timed(partial(anew, evaluation, LAYOUT), 9))
        evaluation.get(WIRING), evaluation.get(DUCT_USES), evaluation.get(INSIDE_AIR)
        median("  fill of all ducts", timed(partial(anew, evaluation, DUCT_USES), 5))
        median("  problem for the planner", timed(partial(replan_of, evaluation), 5))


def quality(long: bool) -> None:
    """What 20 s find against 1 s, and against 200 s, on two cores; medians of some seeds."""
    from riktig.core.optimiser import least_wire, now_of
    from riktig.timed_search import search_for

    for starters in (10, 20):
        evaluation = Evaluation(boxed(starters))
        replan = replan_of(evaluation)
        problem = replan.problem
        search_for(replan, 0.01)
        found = {}
        for seconds in (1, 5, 20, *((200,) if long else ())):
            seeds = SEEDS if seconds < 200 else SEEDS[:1]
            found[seconds] = statistics.median(search_for(replan, seconds, seed=100 * seconds + s).cost for s in seeds)
        devices = len(evaluation.get(LAYOUT).seats)
        best = min(found.values())
        said = ", ".join(f"{s} s: +{value / best - 1:.2%}" for s, value in found.items())
        bundles = len(problem.question.wire)
        print(f"{devices} devices, {problem.free} units, {bundles} bundles: {said} over the best of these")
        wire = search_for(replan, 5).wire
        print(f"  wire {now_of(problem).wire / 1000:.1f} m at first, {wire / 1000:.1f} m after 5 s, ", end="")
        print(f"proven bound {least_wire(problem) / 1000:.1f} m ({least_wire(problem) / wire:.0%})")


def drag() -> None:
    """A part dragged across the plate with all wires shown: the work of a frame until it is painted."""
    from riktig.desk.app import application, make_window

    app = application()
    window = make_window()
    window.resize(1600, 900)
    folder = Path(tempfile.mkdtemp())
    window.session.open(JobFile.create(folder / "b.riktig", boxed(17), who="b", at="t", why="b"))
    window.show()
    window.go_to("Plate")
    station = window.stations["Plate"]
    evaluation = window.session.evaluation
    layout, wires = evaluation.get(LAYOUT), evaluation.get(WIRING).wires
    shapes = route_shapes(wires, width=0.5)
    station.view.set_laid((shapes * (3 * WIRES // len(shapes) + 1))[: 3 * WIRES])  # type: ignore[attr-defined]
    app.processEvents()
    view, gesture = station.view, station.view.gesture  # type: ignore[attr-defined]
    for what, lead in (("a contactor", "c1.K"), ("a drive or breaker", "c4.F")):
        body = next(s.body for s in layout.stands if s.block.lead == lead)
        at = Point(body.centre.x + RULER, body.centre.y + RULER)
        gesture.begin(DeviceKey(DeviceId(lead)), at)
        gesture.move(at)
        view.repaint()
        found = []
        for n in range(200):
            to = Point(at.x + 3 * (n % 100), at.y + 5 * (n % 60))
            begin = time.perf_counter()
            gesture.move(to)
            view.repaint()
            found.append(time.perf_counter() - begin)
        gesture.cancel()
        median(f"a frame dragging {what}, {len(layout.seats)} parts, {WIRES} wires", found)
    view._forget()
    median("  the layer behind it painted anew", timed(lambda: (view._forget(), view.repaint()), 7))
    window.close()


def judged() -> None:
    """The check of the whole plate after a move, by size."""
    for starters in (10, 20, 40):
        layout = Evaluation(boxed(starters)).get(LAYOUT)
        lead = next(s.block.lead for s in layout.stands if s.rail)
        median(
            f"one part moved, whole plate judged, {len(layout.seats)} devices",
            timed(partial(with_block_at, layout, DeviceId(lead), 1, 55.0), 15),
        )


if __name__ == "__main__":
    first_plan()
    judged()
    drag()
    quality("--long" in sys.argv)
