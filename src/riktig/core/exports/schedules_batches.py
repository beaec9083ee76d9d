"""The batches that wires are cut in, for the bench, and what the cutting takes in this and in other ways."""

from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule
from riktig.core.job import Job
from riktig.core.standards import conductor_name
from riktig.core.wiring import WIRING, work_compared

__all__ = ["SCHEDULES"]


def _batches(evaluation: Evaluation[Job]) -> Schedule:
    wiring = evaluation.get(WIRING)
    numbers = {wire.key: wire.number for wire in wiring.wires}
    rows = tuple(
        (
            batch.number,
            batch.stage.value,
            conductor_name(batch.mm2),
            batch.colour,
            *batch.areas,
            len(batch.wires),
            batch.cut,
            round(batch.total / 1000, 2),
            round(batch.waste / 1000, 2),
            round(batch.minutes, 1),
            round(batch.cost, 2),
            " ".join(dict.fromkeys(numbers[key] for key in batch.wires)),
        )
        for batch in wiring.batches
    )
    columns = (
        ("batch", "Batch"),
        ("stage", "Stage"),
        ("size", "Size"),
        ("colour", "Colour"),
        ("from_area", "From area"),
        ("to_area", "To area"),
        ("wires", "Wires"),
        ("longest_mm", "Longest mm"),
        ("metres", "Metres"),
        ("trimmed_m", "Trimmed m"),
        ("minutes", "Minutes"),
        ("price", "Price"),
        ("numbers", "Numbers"),
    )
    return Schedule("batches", "Batches to cut", columns, rows)


def _cutting(evaluation: Evaluation[Job]) -> Schedule:
    wiring = evaluation.get(WIRING)
    work = work_compared(wiring.wires, wiring.batches, evaluation.document.practice)
    ways = (
        ("in batches, as planned", work.planned),
        ("the same batches, each wire to its own length", work.exact),
        ("one wire at a time", work.one_at_a_time),
    )
    rows = tuple((way, round(w.minutes), round(w.waste / 1000, 1), round(w.cost, 2)) for way, w in ways if wiring.wires)
    columns = (("way", "Cut"), ("minutes", "Minutes"), ("trimmed_m", "Trimmed m"), ("price", "Price"))
    return Schedule("cutting", "Work of cutting, compared", columns, rows)


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"batches": _batches, "cutting": _cutting}
