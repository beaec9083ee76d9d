"""Measures the door: sixty operators planned and dragged by the frame; holes, their order, template; the cut list.

Run: .venv/bin/python benchmarks/door.py
"""

import os
import random
import statistics
import tempfile
import time
from functools import partial
from pathlib import Path

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from circuits import panel
from measure import median, timed
from plate import anew

from riktig.core.door import DOOR, with_seats
from riktig.core.evaluation import Evaluation
from riktig.core.exports import template_of, write_template
from riktig.core.exports.pdf import SetHead
from riktig.core.geometry import Point
from riktig.core.holes import BLOCKERS, METAL_HOLES, SHEETS, mark_out_order
from riktig.core.job import Job, Practice, set_enclosure
from riktig.core.plate import LAYOUT, RULER, Piece, cut_plan
from riktig.core.production import CRITICALS, judged_all
from riktig.core.store import JobFile

OPERATORS = 60


def boxed() -> Job:
    """Starters until the door has sixty operators, in a box large enough for them."""
    starters = 10
    while True:
        job = set_enclosure(
            panel(starters),
            width=1200.0,
            height=2000.0,
            depth=400.0,
            plate_width=1150.0,
            plate_height=1950.0,
            plate_depth=370.0,
        )
        if len(Evaluation(job).get(DOOR).seats) >= OPERATORS:
            return job
        starters += 2


def core(job: Job) -> None:
    """What is worked out of the door, each by itself."""
    evaluation = Evaluation(job)
    door, layout = evaluation.get(DOOR), evaluation.get(LAYOUT)
    count = len(door.seats)
    median(
        f"door planned, {count} operators, {len(layout.seats)} parts behind", timed(partial(anew, evaluation, DOOR), 9)
    )
    seat = next(one for one in door.seats if not one.is_shaft)
    moved = (seat.at(seat.x + 7, seat.y + 3),)
    median("  one moved and judged", timed(lambda: with_seats(door, moved, layout, job.enclosure), 99))
    holes = evaluation.get(METAL_HOLES)
    median(f"  {len(holes)} holes judged", timed(partial(anew, evaluation, BLOCKERS), 9))
    for face in ("plate", "door"):
        mine = [hole for hole in holes if hole.face == face]
        median(f"  order of {len(mine)} holes of the {face}", timed(partial(mark_out_order, mine, face), 5))
        order = mark_out_order(mine, face)
        walks = f"{order.walk / 1000:.1f} m, row by row {order.row_by_row / 1000:.1f} m"
        print(f"    a walk of {walks}, {len(order.rounds)} tools")
    criticals = evaluation.get(CRITICALS)
    median(f"  {len(criticals)} gates judged, nothing read", timed(lambda: judged_all(criticals, (), job.practice), 9))
    sheet = next(one for one in evaluation.get(SHEETS) if one.name == "plate")
    mine = [hole for hole in holes if hole.face == "plate"]
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "t.pdf"

        def write() -> None:
            write_template(path, SetHead("T", "t", "A", ""), [template_of(sheet, mine)])

        median(f"  template of the plate, {len(template_of(sheet, mine).tiles)} sheets", timed(write, 5))


def cuts() -> None:
    """Eighty pieces of five lengths from bars of two metres, proven."""
    seed = random.Random(4)
    lengths = [seed.randrange(150, 1400) for _ in range(5)]
    pieces = tuple(Piece(f"D{n}", "duct", float(lengths[n % 5]), "") for n in range(80))
    cut_plan(pieces[:4], (), Practice())
    proven = cut_plan(pieces, (), Practice()).proven
    median(f"80 pieces of five lengths, proven: {proven}", timed(lambda: cut_plan(pieces, (), Practice()), 21))


def drag(job: Job) -> None:
    """A frame of a drag on the door in the real window, off the screen: move, judge, paint."""
    from PySide6.QtCore import QPointF, Qt
    from PySide6.QtTest import QTest

    from riktig.desk.app import application, make_window

    app = application()
    window = make_window()
    with tempfile.TemporaryDirectory() as folder:
        file = JobFile.create(Path(folder) / "d.riktig", job, who="b", at="2026-01-01T00:00:00+00:00")
        window.session.open(file)
        window.resize(1280, 800)
        window.show()
        window.go_to("Door")
        QTest.qWait(3000)
        view = window.stations["Door"].view  # type: ignore[attr-defined]
        seats = [one for one in window.session.evaluation.get(DOOR).seats if not one.is_shaft]
        seat = seats[len(seats) // 2]
        start = view.to_px(Point(seat.x + RULER, seat.y + RULER))
        QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=start.toPoint())
        frames = []
        for n in range(160):
            at = start + QPointF(10 + (n * 7) % 190, (n * 5) % 120)
            begin = time.perf_counter()
            QTest.mouseMove(view, at.toPoint())
            view.repaint()
            frames.append(1000 * (time.perf_counter() - begin))
        QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=start.toPoint())
        frames = frames[5:]
        late = sum(frame > 16 for frame in frames)
        spot = f"median {statistics.median(frames):.1f} ms, longest {max(frames):.1f} ms, {late} of {len(frames)} over"
        print(f"a frame of a drag, {len(seats)} operators: {spot} (wanted: 16 ms)")
        window.session.unwritten = ""
        window.close()
        app.processEvents()


if __name__ == "__main__":
    one = boxed()
    core(one)
    cuts()
    drag(one)
