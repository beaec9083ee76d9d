"""What is already mounted on the plate, and what has moved in the plan since."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.build.ticks import Done
from riktig.core.job import DeviceId, Record, taken_back
from riktig.core.plate import Layout, Stand

__all__ = ["MOUNTED", "Mounted", "mounted_facts", "mounted_of", "mounted_subject"]

MOUNTED = "mounted"
"""The kind of the record."""


@dataclass(frozen=True, slots=True)
class Mounted:
    """A block that is mounted: who and when; ``moved`` is how far the plan has moved since, mm."""

    lead: DeviceId
    done: Done
    record: str
    moved: float


def mounted_subject(lead: DeviceId) -> str:
    """What the record is about."""
    return f"device:{lead}"


def mounted_facts(stand: Stand) -> tuple[tuple[str, str], ...]:
    """What the record is true of: the place it was mounted at, and the part."""
    return (("x", f"{stand.x:g}"), ("y", f"{stand.y:g}"), ("part", stand.block.members[0][1].ref))


def mounted_of(layout: Layout, records: Iterable[Record]) -> tuple[Mounted, ...]:
    """The blocks whose last record says that they are mounted, in the order of the layout."""
    kept = tuple(records)
    gone = taken_back(kept)
    last = {one.subject: one for one in kept if one.kind == MOUNTED and one.id not in gone and one.facts}
    found = []
    for stand in layout.stands:
        record = last.get(mounted_subject(stand.block.lead))
        if record is None:
            continue
        dx, dy = stand.x - float(record.fact("x")), stand.y - float(record.fact("y"))
        moved = round(max(abs(dx), abs(dy)), 1)
        found.append(Mounted(stand.block.lead, Done(record.who, record.when), record.id, moved))
    return tuple(found)
