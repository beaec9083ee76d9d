"""Compiles the planner and keeps it on disk: run once when the program is set up."""

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job, add_load, new_job
from riktig.core.optimiser.problem import PanelToPlan, problem_of
from riktig.core.optimiser.search import improve
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.core.sizing import INSIDE_AIR

__all__ = ["warm_up"]


def warm_up() -> None:
    """Plans two small plates, so that everything the planner compiles is there."""
    job = new_job()
    for name in ("fan", "pump", "belt", "drum", "mill"):
        job = add_load(job, name, 1.5)
    evaluation = Evaluation(with_names_recorded(job))
    improve(problem_of(_panel(evaluation)), 100)
    first_job = Evaluation(with_names_recorded(add_load(new_job(), "fan", 1.5)))
    improve(problem_of(_panel(first_job)), 0)


def _panel(evaluation: Evaluation[Job]) -> PanelToPlan:
    """The panel of a job, its wires left out."""
    return PanelToPlan(
        evaluation.get(LAYOUT),
        evaluation.get(CIRCUITS),
        evaluation.get(DOOR),
        evaluation.get(INSIDE_AIR).losses,
        evaluation.document.enclosure,
        evaluation.document.practice,
    )


if __name__ == "__main__":
    warm_up()
