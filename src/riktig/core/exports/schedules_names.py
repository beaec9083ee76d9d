"""The numbers as lists: ends by place with pulled wires and links, and conductors by route."""

from collections import defaultdict
from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job
from riktig.core.schematic import CIRCUITS, CONDUCTOR_ENDS, DOOR, NAMES, PLATE, PinLabels

__all__ = ["SCHEDULES"]


def _ends_of_number(evaluation: Evaluation[Job]) -> Schedule:
    names = evaluation.get(NAMES)
    label = PinLabels(evaluation.get(CIRCUITS), names)
    rows: list[tuple[Value, ...]] = []
    for conductor_ends in evaluation.get(CONDUCTOR_ENDS):
        by_place: dict[str, list[str]] = defaultdict(list)
        for ends in conductor_ends.places:
            by_place[ends.place if ends.place in (PLATE, DOOR) else ""] += [label(pin) for pin in ends.pins]
        cells = tuple(", ".join(by_place[place]) for place in (PLATE, DOOR, ""))
        rows.append(
            (
                names.number.get(conductor_ends.net, ""),
                *cells,
                conductor_ends.pulled,
                conductor_ends.links,
                str(conductor_ends.net),
            )
        )
    columns = (
        ("number", "Number"),
        ("plate", "On the plate"),
        ("door", "On the door"),
        ("field", "In the field"),
        ("pulled", "Pulled"),
        ("links", "Links"),
        ("id", "Net id"),
    )
    return Schedule("tally", "Conductor tally", columns, tuple(rows))


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"tally": _ends_of_number}
