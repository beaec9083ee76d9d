"""The door: operators and what stands behind them, the isolator's shaft, seen from the front and from behind.

Words: a *leaf* is one door of one or two; a *stack* is what an operator is made up of; a *shaft* couples the
isolator on the plate to its handle on the door.
"""

from functools import partial

from riktig.core.door.clash import Behind, door_misfits, misfits_about_door, swing_reach, things_behind, wiring_room
from riktig.core.door.door_types import (
    HANDLE,
    LEGEND_PLATE,
    NAMEPLATE,
    WIRING_DEPTH,
    DoorPlan,
    Leaf,
    PlacedOperator,
    diagonal,
    leaf_at,
    leaves_of,
    to_door,
    to_plate,
)
from riktig.core.door.draw import draw_door, operator_marks, shadow_marks
from riktig.core.door.edits import (
    add_opening,
    door_for_me,
    drop_opening,
    fix_door,
    in_column,
    in_row,
    lock_on_door,
    move_on_door,
    spread_on_door,
    with_seats,
)
from riktig.core.door.plan import SHAFT_HOLE, on_door, plan_door
from riktig.core.door.section import draw_section
from riktig.core.door.shaft import Engagement, Shaft, engagement_of, shafts_of
from riktig.core.door.stack import Stack, StackItem, may_move, stack_of
from riktig.core.evaluation import reads
from riktig.core.job import JOB_DOOR, JOB_ENCLOSURE, JOB_PRACTICE
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.sizing import SIZING

__all__ = [
    "CIRCUITS",
    "DOOR",
    "DOOR_BEHIND",
    "DOOR_DRAWING",
    "HANDLE",
    "LAYOUT",
    "LEGEND_PLATE",
    "NAMEPLATE",
    "NAMES",
    "SHAFTS",
    "SHAFT_HOLE",
    "SIZING",
    "WIRING_DEPTH",
    "Behind",
    "DoorPlan",
    "Engagement",
    "Leaf",
    "PlacedOperator",
    "Shaft",
    "Stack",
    "StackItem",
    "add_opening",
    "diagonal",
    "door_for_me",
    "door_misfits",
    "draw_door",
    "draw_section",
    "drop_opening",
    "engagement_of",
    "fix_door",
    "in_column",
    "in_row",
    "leaf_at",
    "leaves_of",
    "lock_on_door",
    "may_move",
    "misfits_about_door",
    "move_on_door",
    "on_door",
    "operator_marks",
    "plan_door",
    "shadow_marks",
    "shafts_of",
    "spread_on_door",
    "stack_of",
    "swing_reach",
    "things_behind",
    "to_door",
    "to_plate",
    "wiring_room",
    "with_seats",
]

DOOR = (reads(CIRCUITS) & SIZING & LAYOUT & JOB_ENCLOSURE & JOB_DOOR).derive("door", plan_door)
SHAFTS = (reads(CIRCUITS) & LAYOUT & JOB_ENCLOSURE & JOB_PRACTICE).derive("shafts", shafts_of)
DOOR_DRAWING = (reads(DOOR) & NAMES).derive("door drawing", draw_door)
DOOR_BEHIND = (reads(DOOR) & NAMES).derive("door from behind", partial(draw_door, behind=True))
