"""What is already mounted on the plate, and what has moved in the plan since."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.job import DeviceId
from riktig.core.plate import Layout, Stand
from riktig.core.production.ticks import Done
from riktig.core.records import PartMounted, Record, Slot, counted, slot_of

__all__ = ["Mounted", "mounted_facts", "mounted_of", "mounted_subject"]


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


def mounted_facts(stand: Stand) -> PartMounted:
    """What the record is true of: the place it was mounted at, and the part."""
    return PartMounted(stand.x, stand.y, stand.block.members[0][1].ref)


def mounted_of(layout: Layout, records: Iterable[Record]) -> tuple[Mounted, ...]:
    """The blocks whose last record says that they are mounted, in the order of the layout.

    Args:
        layout: The plate: where everything stands.
        records: The log, oldest first.
    """
    present: dict[Slot, PartMounted] = {}
    for stand in layout.stands:
        facts = mounted_facts(stand)
        present[slot_of(mounted_subject(stand.block.lead), facts)] = facts
    last = {item.record.subject: item for item in counted(records, PartMounted, present)}
    mounted = []
    for stand in layout.stands:
        item = last.get(mounted_subject(stand.block.lead))
        if item is None:
            continue
        moved = round(max(abs(stand.x - item.facts.x), abs(stand.y - item.facts.y)), 1)
        record = item.record
        mounted.append(Mounted(stand.block.lead, Done(record.who, record.when), record.id, moved))
    return tuple(mounted)
