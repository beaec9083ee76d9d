"""The record of the bench beside wires, holes and tests: tasks, gates that were passed, change orders and red-lines."""

from collections.abc import Iterable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job
from riktig.core.production import WORK, BuildStage, change_orders, progress_of, red_lines, stage_states
from riktig.core.records import (
    ContactRead,
    NoteKept,
    PartReceived,
    PhotoKept,
    Record,
    RedLineAnswered,
    log_of,
    taken_back,
)
from riktig.core.wiring import WIRING

__all__ = ["change_record", "note_record", "work_record"]

_ELSEWHERE = (BuildStage.HOLES, BuildStage.CUT)
"""Stages with a record of their own."""


def work_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Every task with who did it when; gates that were passed while they were shut stand with their reason.

    Args:
        evaluation: Of the job.
        records: The log, oldest first.
    """
    log = log_of(records)
    by_id = {record.id: record for record in log}
    rows: list[tuple[Value, ...]] = []
    door_order = evaluation.document.practice.door_order
    states = stage_states(evaluation.get(WORK), progress_of(evaluation.get(WIRING), log), log, door_order)
    for stage in states:
        if stage.passed:
            gate = stage.passed
            text = f"begun with a shut gate: {gate.reason} (open then: {gate.open_work})"
            rows.append((stage.stage.value, text, "", gate.who, gate.when[:16]))
        if stage.stage in _ELSEWHERE:
            continue
        for task in stage.tasks:
            record = by_id.get(task.record)
            noted = _noted(record) if record else ""
            who, when = (task.done.who, task.done.when[:16]) if task.done else ("", "")
            rows.append((stage.stage.value, task.task.title, noted or task.stale, who, when))
    columns = (("stage", "Stage"), ("task", "Task"), ("noted", "Noted"), ("who", "Done by"), ("when", "When"))
    return Schedule("work record", "Work record", columns, tuple(rows))


def _noted(record: Record) -> str:
    """What was entered with a task."""
    match record.facts:
        case PartReceived(quantity=quantity, wanted=wanted, serials=serials, batch=batch):
            parts = [
                f"{quantity} of {wanted}",
                f"serial {serials}" if serials else "",
                f"batch {batch}" if batch else "",
            ]
            return ", ".join(part for part in parts if part)
        case ContactRead(ohm=ohm, zero=zero, meter=meter, fault=fault):
            read = f"{ohm} Ω, leads {zero:g} Ω, {meter}" if ohm else meter
            return f"{read}: {fault}" if fault else read
    return ""


def change_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Change orders and red-lines, with who asked, opened, answered and closed.

    Args:
        evaluation: Of the job; orders and red-lines are told from the log alone.
        records: The log, oldest first.
    """
    log = log_of(records)
    rows: list[tuple[Value, ...]] = [
        (
            f"change order {order.number}",
            order.said.title,
            f"{order.said.why}; asked by {order.said.asked_by or 'nobody named'}; since revision {order.said.base}",
            f"{order.who} {order.when[:16]}",
            f"closed by {order.closed.who} {order.closed.when[:16]}" if order.closed else "open",
        )
        for order in change_orders(log)
    ]
    for line in red_lines(log):
        answer = line.answer.facts if line.answer else None
        answer_words = f"{answer.answer}: {answer.why}" if isinstance(answer, RedLineAnswered) else "open"
        drawn = f"drawn {line.said.drawn}, built {line.said.built}"
        rows.append(("red-line", line.said.name, drawn, f"{line.record.who} {line.record.when[:16]}", answer_words))
    columns = (("kind", "Kind"), ("what", "What"), ("says", "It says"), ("by", "Noted by"), ("answer", "Answer"))
    return Schedule("change record", "Change orders and red-lines", columns, tuple(rows))


def note_record(evaluation: Evaluation[Job], records: Iterable[Record]) -> Schedule:
    """Every note and photo that was not taken back, of what, by whom and when; the photos are in the job file.

    Args:
        evaluation: Of the job; notes and photos are told from the log alone.
        records: The log, oldest first.
    """
    log = log_of(records)
    gone = taken_back(log)
    rows: list[tuple[Value, ...]] = []
    for record in log:
        if record.id in gone:
            continue
        match record.facts:
            case NoteKept(text=text, of=of):
                rows.append((of, "note", text, record.who, record.when[:16]))
            case PhotoKept(file=file, name=name, of=of):
                rows.append((of, "photo", f"{name}, kept as {file}", record.who, record.when[:16]))
    columns = (("of", "Of"), ("kind", "Kind"), ("says", "It says"), ("who", "By"), ("when", "When"))
    return Schedule("note record", "Notes and photos", columns, tuple(rows))
