"""The work at the bench as a list: every task of every stage with how it is done, to be ticked on paper too."""

from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule
from riktig.core.job import InspectedBy, Job
from riktig.core.production import WORK, BuildStage

__all__ = ["SCHEDULES"]


def _work(evaluation: Evaluation[Job]) -> Schedule:
    """All tasks but those of wires, holes and cut pieces, which have lists of their own; who inspects by practice."""
    another = evaluation.document.practice.inspected_by is InspectedBy.ANOTHER
    rows = tuple(
        (
            task.stage.value,
            task.title,
            "; ".join(task.how),
            round(task.minutes, 1),
            "another than who built" if another and task.stage is BuildStage.INSPECTION else "",
            task.subject,
        )
        for task in evaluation.get(WORK)
        if task.stage not in (BuildStage.HOLES, BuildStage.CUT)
    )
    columns = (
        ("stage", "Stage"),
        ("task", "Task"),
        ("how", "How"),
        ("minutes", "About, min"),
        ("by", "By"),
        ("id", "Id"),
    )
    return Schedule("work", "Work at the bench", columns, rows)


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"work": _work}
