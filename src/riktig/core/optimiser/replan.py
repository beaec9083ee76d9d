"""The plate's problem from the panel as it is wired now."""

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.optimiser import (
    Found,
    PanelToPlan,
    Problem,
    Run,
    Tie,
    Watch,
    boxes_that_do,
    improve,
    now_of,
    one_after_another,
    problem_of,
    reached,
    realised,
)
from riktig.core.plate import LAYOUT, Layout, locked_leads, with_layout
from riktig.core.plate.reached import Reached
from riktig.core.schematic import CIRCUITS, NETS, Circuits, NetClass
from riktig.core.sizing import INSIDE_AIR, SIZING, Sizing
from riktig.core.wiring.derived import WIRING

__all__ = ["Replan", "replan_of"]


@dataclass(frozen=True, eq=False, slots=True)
class Replan:
    """A plate to be planned anew, and all it takes to turn a plan found into the job's own."""

    problem: Problem
    circuits: Circuits
    sizing: Sizing
    before: Found

    def search(
        self,
        steps: int,
        on_better: Callable[[Found], None] = lambda plan_found: None,
        stopped: Callable[[], bool] = lambda: False,
        *,
        start: Found | None = None,
        seed: int = 1,
        run: Run = one_after_another,
    ) -> Found:
        """The best plan met within so many steps; see ``improve``."""
        return improve(self.problem, steps, Watch(on_better, stopped, run), start=start, seed=seed)

    def layout(self, plan_found: Found) -> Layout:
        """The plate of a plan."""
        return realised(self.problem, plan_found, self.circuits, self.sizing)

    def reached(self, plan_found: Found, best_known: float = float("inf")) -> Reached:
        """What a plan comes to."""
        boxes = partial(boxes_that_do, self.circuits, self.sizing, self.problem.enclosure, self.problem.practice)
        return reached(self.problem, plan_found, self.before, self.layout(plan_found), boxes, best_known)

    def put_into(self, job: Job, plan_found: Found) -> Job:
        """The job with the plan; locks hold."""
        return with_layout(job, self.layout(plan_found), locked_leads(job))


def replan_of(evaluation: Evaluation[Job]) -> Replan:
    """What is to be planned, with the wires that the present plate gives."""
    job, circuits = evaluation.document, evaluation.get(CIRCUITS)
    low = frozenset(pin for net in evaluation.get(NETS).nets if net.net_class is NetClass.DC for pin in net.pins)
    panel = PanelToPlan(
        evaluation.get(LAYOUT),
        circuits,
        evaluation.get(DOOR),
        evaluation.get(INSIDE_AIR).losses,
        job.enclosure,
        job.practice,
        tuple(Tie(wire.start.pin, wire.end.pin, wire.mm2) for wire in evaluation.get(WIRING).wires),
        low,
    )
    problem = problem_of(panel, locked_leads(job))
    return Replan(problem, circuits, evaluation.get(SIZING), now_of(problem))
