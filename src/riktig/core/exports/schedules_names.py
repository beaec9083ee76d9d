"""The numbers as lists: ends by place with pulled wires and links, and conductors by route."""

from collections import defaultdict
from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import DeviceId, Job
from riktig.core.schematic import CIRCUITS, CONDUCTOR_ENDS, DOOR, NAMES, NETS, PLATE, NetClass, PinLabels

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


def _routes(evaluation: Evaluation[Job]) -> Schedule:
    """Conductors from the panel to each place: over the hinge, and to every thing in the field; earth is counted."""
    names, nets = evaluation.get(NAMES), {net.id: net for net in evaluation.get(NETS).nets}
    devices = evaluation.get(CIRCUITS).by_id
    to: dict[str, list[str]] = defaultdict(list)
    earths: dict[str, int] = defaultdict(int)
    for conductor_ends in evaluation.get(CONDUCTOR_ENDS):
        for ends in conductor_ends.places[1:]:
            to[ends.place].append(names.number.get(conductor_ends.net, ""))
            earths[ends.place] += nets[conductor_ends.net].net_class is NetClass.EARTH
    rows: list[tuple[Value, ...]] = []
    for place, numbers in to.items():
        device = devices.get(DeviceId(place))
        text = f"{names.tag[device.id]} {device.purpose}" if device else f"the {place}"
        rows.append((text, len(numbers), earths[place], ", ".join(numbers)))
    columns = (("to", "To"), ("conductors", "Conductors"), ("earths", "Of them earth"), ("numbers", "Numbers"))
    return Schedule("routes", "Conductors by route", columns, tuple(rows))


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"tally": _ends_of_number, "routes": _routes}
