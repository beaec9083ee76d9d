"""From a plan found to a plate: where everything stands, what was reached, and what would do when it does not fit."""

from dataclasses import dataclass, replace

import numpy as np

from riktig.core.catalogue import Box, boxes
from riktig.core.circuit import Circuits
from riktig.core.job import Enclosure, Practice
from riktig.core.plate.arrange import arrange, lay_rows
from riktig.core.plate.model import Layout, Stand
from riktig.core.plate.planning import kernel
from riktig.core.plate.planning.bound import least_wire
from riktig.core.plate.planning.problem import Problem
from riktig.core.plate.planning.search import Found
from riktig.core.plate.standing import with_stands
from riktig.core.sizing import Sizing

__all__ = ["Reached", "boxes_that_do", "reached", "realised"]

OFFERED_BOXES = 3
"""How many standard enclosures that would do are named (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Reached:
    """What a plan comes to. Lengths mm, shares 0..1.

    ``wire`` is what runs on the plate, without the door and without the ends; ``least`` what no plan falls
    below; ``best_known`` the least cost ever met for the same question, with all wishes, and ``cost`` this plan's.
    ``lacking`` says by how many mm the plate is too low, too narrow, too shallow; empty when everything fits.
    """

    wire: float
    wire_before: float
    least: float
    cost: float
    cost_before: float
    best_known: float
    proven: bool
    height: float
    plate_height: float
    free_share: float
    spare_share: float
    lacking: tuple[str, ...]
    boxes: tuple[Box, ...]

    def lines(self) -> tuple[str, ...]:
        """What it says to the builder, a line a thing."""
        said = [
            f"wire on the plate {self.wire / 1000:.1f} m, it was {self.wire_before / 1000:.1f} m",
            f"rows take {self.height:.0f} of {self.plate_height:.0f} mm of the plate",
            f"{self.free_share:.0%} of the rail is free, the practice asks for {self.spare_share:.0%}",
        ]
        if self.proven:
            said.append("all plans were tried: none is better")
        else:
            over = self.cost / self.best_known - 1 if self.best_known else 0.0
            known = "the best found so far" if over < 0.0005 else f"{over:.1%} above the best found so far"
            said.append(f"{known}; proven: no plan takes less than {self.least / 1000:.1f} m of wire")
        if self.lacking:
            said.append(f"the plate is {' and '.join(self.lacking)}")
            names = ", ".join(box.name for box in self.boxes)
            said.append(f"standard enclosures that would do: {names}" if names else "no standard enclosure would do")
        return tuple(said)


def realised(problem: Problem, found: Found, circuits: Circuits, sizing: Sizing) -> Layout:
    """The plate of a plan."""
    if problem.is_fixed:
        return with_stands(problem.layout, _stands(problem, found), all_misfits=True)
    begin, rows = 0, []
    for end in found.ends:
        rows.append([problem.blocks[u] for u in found.seq[begin:end]])
        begin = int(end)
    return lay_rows(rows, circuits, sizing, problem.enclosure, problem.practice)


def _stands(problem: Problem, found: Found) -> tuple[Stand, ...]:
    units = len(problem.unit)
    x, y, over = np.zeros(units), np.zeros(units), np.zeros(3)
    row, duct = np.zeros(units, np.int64), np.zeros(len(problem.strips))
    p = problem
    kernel.place(found.seq, found.ends, p.unit, p.plate, p.rails, x, y, row, duct, over)
    numbers = [rail.number for rail in p.layout.rails]
    made = []
    for u in range(p.free):
        block = p.blocks[u]
        left = float(p.rails[row[u], 1])
        at = left + float(np.ceil((x[u] - left) * 10 - 1e-6)) / 10
        made.append(
            Stand(block, 0 if block.screwed else numbers[row[u]], round(at, 2), round(float(y[u]) - block.above, 2))
        )
    return tuple(made)


def boxes_that_do(circuits: Circuits, sizing: Sizing, enclosure: Enclosure, practice: Practice) -> tuple[Box, ...]:
    """The smallest standard enclosures that everything fits into, planned at once; no smaller than the present one."""
    found: list[Box] = []
    lost_depth = enclosure.depth - enclosure.plate_depth
    for box in boxes():
        shell = replace(
            enclosure,
            width=box.width,
            height=box.height,
            depth=box.depth,
            plate_width=box.plate_width,
            plate_height=box.plate_height,
            plate_depth=max(box.depth - lost_depth, 50.0),
        )
        if not arrange(circuits, sizing, shell, practice, None).misfits:
            found.append(box)
        if len(found) == OFFERED_BOXES:
            break
    return tuple(found)


def reached(
    problem: Problem,
    found: Found,
    before: Found,
    layout: Layout,
    circuits: Circuits,
    sizing: Sizing,
    best_known: float = float("inf"),
) -> Reached:
    """What a plan comes to, against the one before, the best known for the same question and the bound."""
    total = sum(rail.length for rail in layout.rails) or 1.0
    free = sum(layout.free_on(rail) for rail in layout.rails)
    deep = max((block.depth for block in problem.blocks), default=0.0) - layout.depth
    measures = ((found.over[1], "low"), (found.over[0], "narrow"), (deep, "shallow"))
    lacking = tuple(f"{by:.0f} mm too {what}" for by, what in measures if by >= 0.5)
    offered = boxes_that_do(circuits, sizing, problem.enclosure, problem.practice) if lacking else ()
    return Reached(
        found.wire,
        before.wire,
        least_wire(problem),
        found.cost,
        before.cost,
        min(best_known, found.cost),
        found.proven,
        found.height,
        layout.plate.height,
        free / total,
        problem.practice.spare_share,
        lacking,
        offered,
    )
