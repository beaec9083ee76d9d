"""Every hole of the panel: where, how large, with which tool, in which order, on what paper.

Words: a *sheet* is a surface that holes are made in, a *tool* what is taken in hand for one, a *round* a walk with
one tool; the *datum* is the upper left corner of each sheet.
"""

from operator import attrgetter

from riktig.core.circuit import CIRCUITS, NAMES
from riktig.core.door import DOOR
from riktig.core.holes.draw import draw_sheet, hole_marks, mark_out, running_marks, walk_marks
from riktig.core.holes.glands import Entries, Entry, cable_diameter, entries_of
from riktig.core.holes.make import hole_list, numbered, sheets_of
from riktig.core.holes.model import Hole, HoleWork, Sheet, Tool
from riktig.core.holes.order import MarkOut, Round, mark_out_order, shortest_walk, walk_length
from riktig.core.holes.ready import Blocker, blockers_of, crossing_holes, gland_blockers, holes_off_the_sheet
from riktig.core.plan import Derived
from riktig.core.plate import LAYOUT
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
    "Derived",
    "Entries",
    "Entry",
    "Hole",
    "HoleWork",
    "MarkOut",
    "Round",
    "Sheet",
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

_BOX, _PRACTICE = attrgetter("enclosure"), attrgetter("practice")
SHEETS = Derived("sheets", (_BOX, DOOR), sheets_of)
METAL_HOLES = Derived("metal holes", (LAYOUT, DOOR, _BOX, _PRACTICE, attrgetter("openings"), NAMES), hole_list)
"""Those of plate, doors and sides: they wait for no wire."""


def _all_holes(metal: tuple[Hole, ...], entries: Entries) -> tuple[Hole, ...]:
    return (*metal, *entries.holes)


ENTRIES = Derived("entries", (STRIPS, _BOX, DOOR, _PRACTICE), entries_of)
HOLES = Derived("holes", (METAL_HOLES, ENTRIES), _all_holes)
BLOCKERS = Derived("blockers", (CIRCUITS, SIZING, LAYOUT, DOOR, METAL_HOLES, SHEETS, NAMES), blockers_of)
GLAND_BLOCKERS = Derived("gland blockers", (ENTRIES,), gland_blockers)
