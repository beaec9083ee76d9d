"""The circuits as lists: rungs as they are written down, and what each circuit must do."""

from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule
from riktig.core.job import Job
from riktig.core.schematic import CIRCUITS, FAULTS, NAMES, as_written, by_tags
from riktig.core.simulation import behaviour_of, with_tags

__all__ = ["SCHEDULES"]

_RESULT = {True: "as it must", False: "otherwise"}


def _rungs(evaluation: Evaluation[Job]) -> Schedule:
    circuits = evaluation.get(CIRCUITS)
    rows = []
    for cid, title in circuits.titles:
        _, rungs = as_written(circuits, cid)
        rows += [(str(cid), title, r.role, r.title, r.band, r.start, r.path, r.end) for r in rungs]
    columns = (
        ("circuit", "Circuit"),
        ("name", "Name"),
        ("rung", "Rung"),
        ("for", "For"),
        ("band", "Sheet"),
        ("from", "From"),
        ("path", "Path"),
        ("to", "To"),
    )
    return Schedule("rungs", "Rungs", columns, tuple(rows))


def _behaviour(evaluation: Evaluation[Job]) -> Schedule:
    circuits, tags = evaluation.get(CIRCUITS), evaluation.get(NAMES).tag
    rows: list[tuple[str | float | int | None, ...]] = []
    for cid, title in circuits.titles:
        outcome = behaviour_of(evaluation.document, circuits, cid)
        if outcome is None:
            continue
        if outcome.broken:
            rows.append((title, 0, "", "", "cannot be done", outcome.broken))
        for n, step in enumerate(outcome.steps, 1):
            expected = ", ".join(with_tags(step_text, cid, tags) for step_text in step.expected)
            otherwise = "; ".join(with_tags(step_text, cid, tags) for step_text in step.otherwise)
            rows.append(
                (
                    title,
                    n,
                    with_tags(step.done, cid, tags),
                    expected,
                    "as it must" if step.passed else "otherwise",
                    otherwise,
                )
            )
    columns = (
        ("circuit", "Circuit"),
        ("step", "Step"),
        ("done", "Done"),
        ("expected", "Expected"),
        ("result", "Result"),
        ("otherwise", "Otherwise"),
    )
    return Schedule("behaviour", "What each circuit must do", columns, tuple(rows))


def _faults(evaluation: Evaluation[Job]) -> Schedule:
    tags = evaluation.get(NAMES).tag
    rows = []
    for fault in evaluation.get(FAULTS):
        rows.append((fault.kind, by_tags(fault.text, tags), str(fault.where or ""), fault.remedy))
    columns = (("kind", "Kind"), ("text", "What"), ("where", "Where"), ("remedy", "Remedy"))
    return Schedule("faults", "Faults of the circuits", columns, tuple(rows))


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {
    "rungs": _rungs,
    "behaviour": _behaviour,
    "faults": _faults,
}
