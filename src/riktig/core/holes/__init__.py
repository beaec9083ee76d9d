"""Every hole of the panel: where, how large, with which tool, in which order, on what paper.

Words: a *sheet* is a surface that holes are made in, a *tool* what is taken in hand for one, a *round* a walk with
one tool; the *datum* is the upper left corner of each sheet.
"""

from riktig.core.door import DOOR
from riktig.core.evaluation import reads
from riktig.core.holes.draw import draw_sheet, hole_marks, mark_out, running_marks, walk_marks
from riktig.core.holes.glands import CableEntry, Entries, cable_diameter, entries_of
from riktig.core.holes.make import hole_list, numbered, sheets_of
from riktig.core.holes.model import Hole, HoleSurface, HoleWork, Tool
from riktig.core.holes.order import MarkOut, Round, mark_out_order, shortest_walk, walk_length
from riktig.core.holes.ready import Blocker, blockers_of, crossing_holes, gland_blockers, holes_off_the_sheet
from riktig.core.job import JOB_ENCLOSURE, JOB_OPENINGS, JOB_PRACTICE
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.sizing import SIZING
from riktig.core.terminals import STRIPS

__all__ = [
    "BLOCKERS",
    "CIRCUITS",
    "DOOR",
    "ENTRIES",
    "GLAND_BLOCKERS",
    "HOLES",
    "LAYOUT",
    "METAL_HOLES",
    "NAMES",
    "SHEETS",
    "SIZING",
    "STRIPS",
    "Blocker",
    "CableEntry",
    "Entries",
    "Hole",
    "HoleSurface",
    "HoleWork",
    "MarkOut",
    "Round",
    "Tool",
    "blockers_of",
    "cable_diameter",
    "crossing_holes",
    "draw_sheet",
    "entries_of",
    "gland_blockers",
    "hole_list",
    "hole_marks",
    "holes_off_the_sheet",
    "mark_out",
    "mark_out_order",
    "numbered",
    "running_marks",
    "sheets_of",
    "shortest_walk",
    "walk_length",
    "walk_marks",
]

SHEETS = (reads(JOB_ENCLOSURE) & DOOR).derive("sheets", sheets_of)
METAL_HOLES = (reads(LAYOUT) & DOOR & JOB_ENCLOSURE & JOB_PRACTICE & JOB_OPENINGS & NAMES).derive(
    "metal holes", hole_list
)
"""Those of plate, doors and sides: they wait for no wire."""


def _all_holes(metal: tuple[Hole, ...], entries: Entries) -> tuple[Hole, ...]:
    return (*metal, *entries.holes)


ENTRIES = (reads(STRIPS) & JOB_ENCLOSURE & DOOR & JOB_PRACTICE).derive("entries", entries_of)
HOLES = (reads(METAL_HOLES) & ENTRIES).derive("holes", _all_holes)
BLOCKERS = (reads(CIRCUITS) & SIZING & LAYOUT & DOOR & METAL_HOLES & SHEETS & NAMES).derive("blockers", blockers_of)
GLAND_BLOCKERS = reads(ENTRIES).derive("gland blockers", gland_blockers)
