"""Plate and door: where everything stands, whether it fits, what is cut and drilled.

Words: a *block* is what moves as one; a *seat* is a device's outline on the plate; a *misfit*
says by how many mm a thing does not fit; the *datum* is the upper left corner of plate or door.
"""

from riktig.core.plate.arrange import arrange, with_block_at
from riktig.core.plate.derived import CUTS, DOOR, DOOR_DRAWING, HOLES, LAYOUT, LOSSES
from riktig.core.plate.door import WIRING_DEPTH, on_door, to_door
from riktig.core.plate.draw import RULER, box, draw_cuts, draw_door, draw_plate, mark_out
from riktig.core.plate.edits import fix_as_it_is, move_block, plan_for_me, set_lock
from riktig.core.plate.fit import body_of, misfits_of, room_around
from riktig.core.plate.layers import clamp_marks, heat_marks, room_marks
from riktig.core.plate.model import Block, DoorPlan, DoorSeat, Duct, Hole, Layout, Misfit, Piece, Rail, Row, Seat
from riktig.core.plate.warmth import Losses, rated_losses

__all__ = [
    "CUTS",
    "DOOR",
    "DOOR_DRAWING",
    "HOLES",
    "LAYOUT",
    "LOSSES",
    "RULER",
    "WIRING_DEPTH",
    "Block",
    "DoorPlan",
    "DoorSeat",
    "Duct",
    "Hole",
    "Layout",
    "Losses",
    "Misfit",
    "Piece",
    "Rail",
    "Row",
    "Seat",
    "arrange",
    "body_of",
    "box",
    "clamp_marks",
    "draw_cuts",
    "draw_door",
    "draw_plate",
    "fix_as_it_is",
    "heat_marks",
    "mark_out",
    "misfits_of",
    "move_block",
    "on_door",
    "plan_for_me",
    "rated_losses",
    "room_around",
    "room_marks",
    "set_lock",
    "to_door",
    "with_block_at",
]
