"""What this step offers the evaluation."""

from riktig.core.door import DOOR
from riktig.core.evaluation import reads
from riktig.core.holes.glands import Entries, entries_of
from riktig.core.holes.make import hole_list, sheets_of
from riktig.core.holes.model import Hole
from riktig.core.holes.ready import MetalWork, blockers_of, gland_blockers
from riktig.core.job import JOB_ENCLOSURE, JOB_OPENINGS, JOB_PRACTICE
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.sizing import SIZING
from riktig.core.terminals import STRIPS

__all__ = ["BLOCKERS", "ENTRIES", "GLAND_BLOCKERS", "HOLES", "METAL_HOLES", "SHEETS"]

SHEETS = (reads(JOB_ENCLOSURE) & DOOR).derive("sheets", sheets_of)
METAL_HOLES = (reads(LAYOUT) & DOOR & JOB_ENCLOSURE & JOB_PRACTICE & JOB_OPENINGS & NAMES).derive(
    "metal holes", hole_list
)
"""Those of plate, doors and sides: they wait for no wire."""


def _all_holes(metal: tuple[Hole, ...], entries: Entries) -> tuple[Hole, ...]:
    return (*metal, *entries.holes)


ENTRIES = (reads(STRIPS) & JOB_ENCLOSURE & DOOR & JOB_PRACTICE).derive("entries", entries_of)
HOLES = (reads(METAL_HOLES) & ENTRIES).derive("holes", _all_holes)
METAL_WORK = (reads(CIRCUITS) & SIZING & LAYOUT & DOOR & METAL_HOLES & SHEETS & NAMES).derive("metal work", MetalWork)
BLOCKERS = reads(METAL_WORK).derive("blockers", blockers_of)
GLAND_BLOCKERS = reads(ENTRIES).derive("gland blockers", gland_blockers)
