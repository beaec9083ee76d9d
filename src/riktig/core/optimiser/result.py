"""From a plan found to a plate: where everything stands, what was reached, and what would do when it does not fit."""

from collections.abc import Callable

import numpy as np

from riktig.core.catalogue import Box, boxes
from riktig.core.job import Enclosure, Practice
from riktig.core.optimiser import kernel
from riktig.core.optimiser.bound import least_wire
from riktig.core.optimiser.problem import Problem
from riktig.core.optimiser.search import Found
from riktig.core.optimiser.tables import Order, no_places
from riktig.core.plate.first_layout import arrange, lay_rows
from riktig.core.plate.model import Layout, Stand
from riktig.core.plate.place_blocks import with_stands
from riktig.core.plate.reached import Reached
from riktig.core.schematic import Circuits
from riktig.core.sizing import Sizing

__all__ = ["boxes_that_do", "reached", "realised"]

OFFERED_BOXES = 3
"""How many standard enclosures that would do are named (chosen by us)."""


def realised(problem: Problem, plan_found: Found, circuits: Circuits, sizing: Sizing) -> Layout:
    """The plate of a plan.

    Args:
        problem: What is planned.
        plan_found: The plan that was found.
        circuits: All devices and rungs of the job.
        sizing: The part of every device.
    """
    if problem.is_fixed:
        return with_stands(problem.layout, _stands(problem, plan_found), all_misfits=True)
    begin, rows = 0, []
    for end in plan_found.ends:
        rows.append([problem.blocks[u] for u in plan_found.seq[begin:end]])
        begin = int(end)
    return lay_rows(rows, circuits, sizing, problem.enclosure, problem.practice)


def _stands(problem: Problem, plan_found: Found) -> tuple[Stand, ...]:
    places = no_places(len(problem.question.unit), len(problem.strips))
    kernel.place(Order(plan_found.seq, plan_found.ends), problem.question, places)
    p, x, y, row = problem, places.x, places.y, places.row
    numbers = [rail.number for rail in p.layout.rails]
    made = []
    for u in range(p.free):
        block = p.blocks[u]
        left = float(p.question.rails[row[u]]["left"])
        at = left + float(np.ceil((x[u] - left) * 10 - 1e-6)) / 10
        made.append(
            Stand(block, 0 if block.screwed else numbers[row[u]], round(at, 2), round(float(y[u]) - block.above, 2))
        )
    return tuple(made)


def boxes_that_do(circuits: Circuits, sizing: Sizing, enclosure: Enclosure, practice: Practice) -> tuple[Box, ...]:
    """The smallest standard enclosures that everything fits into, planned at once; no smaller than the present one.

    Args:
        circuits: All devices and rungs of the job.
        sizing: The part of every device.
        enclosure: The enclosure.
        practice: The practice of the job.
    """
    fitting: list[Box] = []
    for box in boxes():
        shell = box.around(enclosure)
        if not arrange(circuits, sizing, shell, practice, None).misfits:
            fitting.append(box)
        if len(fitting) == OFFERED_BOXES:
            break
    return tuple(fitting)


def reached(
    problem: Problem,
    plan_found: Found,
    before: Found,
    layout: Layout,
    boxes: Callable[[], tuple[Box, ...]],
    best_known: float = float("inf"),
) -> Reached:
    """What a plan comes to, against the one before, the best known for the same question and the bound.

    Args:
        problem: What is planned.
        plan_found: The plan that was found.
        before: The plan that stood before.
        layout: The plate: where everything stands.
        boxes: Gives the enclosures that would do; asked only when this one does not.
        best_known: The least cost found for the same question before.
    """
    total = sum(rail.length for rail in layout.rails) or 1.0
    free = sum(layout.free_on(rail) for rail in layout.rails)
    deep = max((block.depth for block in problem.blocks), default=0.0) - layout.depth
    measures = ((plan_found.over[1], "low"), (plan_found.over[0], "narrow"), (deep, "shallow"))
    lacking = tuple(f"{by:.0f} mm too {what}" for by, what in measures if by >= 0.5)
    offered = boxes() if lacking else ()
    return Reached(
        plan_found.wire,
        before.wire,
        least_wire(problem),
        plan_found.cost,
        before.cost,
        min(best_known, plan_found.cost),
        plan_found.proven,
        plan_found.height,
        layout.plate.height,
        free / total,
        problem.practice.spare_share,
        lacking,
        offered,
    )
