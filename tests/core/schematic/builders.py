"""Short ways to a circuit, for tests."""

from typing import Unpack

from riktig.core.door import DOOR, fix_door
from riktig.core.job import ElementId, Job, PracticeFields, add_load, new_job, set_practice
from riktig.core.schematic import CIRCUITS, NAMES, NETS, with_names_recorded
from tests.shared_plan import plan_for

STOP = ElementId("c1.S.stop/1-2")
START = ElementId("c1.S.start/3-4")
COIL = ElementId("c1.K/A1-A2")


def one_motor(kw: float = 4.0, **practice: Unpack[PracticeFields]) -> Job:
    """The wash drum alone, with some of the practice changed."""
    job = add_load(new_job("T-1", "test"), "wash drum", kw)
    return with_names_recorded(set_practice(job, **practice) if practice else job)


def door_begun(job: Job) -> Job:
    """The job with its door worked on already, so that no operator moves any more."""
    return fix_door(job, plan_for(job).get(DOOR))


def joins(job: Job) -> dict[str, set[str]]:
    """Number to the pins that carry it, as written on the panel; terminals by both sides."""
    evaluation = plan_for(job)
    names, devices = evaluation.get(NAMES), evaluation.get(CIRCUITS).by_id
    found: dict[str, set[str]] = {}
    for net in evaluation.get(NETS).nets:
        labels = set()
        for pin in net.pins:
            owner, marking = pin
            device = next(d for i, d in devices.items() if i == owner)
            labels.add(f"{names.tag[device.id]}:{device.mark + '/' + marking if device.strip else marking}")
        number = names.number.get(net.id, "-" + min(labels))
        found.setdefault(number, set()).update(labels)
    return found
