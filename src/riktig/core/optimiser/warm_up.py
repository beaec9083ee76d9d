"""Compiles the planner and keeps it on disk: run once when the program is set up."""

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.job import add_load, new_job
from riktig.core.optimiser.problem import problem_of
from riktig.core.optimiser.search import improve
from riktig.core.plate import INSIDE_AIR, LAYOUT
from riktig.core.schematic import CIRCUITS, with_names_recorded

__all__ = ["warm_up"]


def warm_up() -> None:
    """Plans two small plates, so that everything the planner compiles is there."""
    job = new_job()
    for name in ("fan", "pump", "belt", "drum", "mill"):
        job = add_load(job, name, 1.5)
    evaluation = Evaluation(with_names_recorded(job))
    layout, circuits, door = evaluation.get(LAYOUT), evaluation.get(CIRCUITS), evaluation.get(DOOR)
    problem = problem_of(
        layout, circuits, door, evaluation.get(INSIDE_AIR).losses, job.enclosure, job.practice, (), frozenset()
    )
    improve(problem, 100)
    first_job = Evaluation(with_names_recorded(add_load(new_job(), "fan", 1.5)))
    few = problem_of(
        first_job.get(LAYOUT),
        first_job.get(CIRCUITS),
        first_job.get(DOOR),
        first_job.get(INSIDE_AIR).losses,
        first_job.document.enclosure,
        first_job.document.practice,
        (),
        frozenset(),
    )
    improve(few, 0)


if __name__ == "__main__":
    warm_up()
