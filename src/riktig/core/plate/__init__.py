"""The plate: where everything stands, whether it fits, what is cut.

Words: a *block* is what moves as one; a *seat* is a device's outline on the plate; a *misfit*
says by how many mm a thing does not fit; the *datum* is the upper left corner of plate or door.
"""

from riktig.core.plate.arrange import arrange
from riktig.core.plate.cut_optimiser import Bar, CutPlan, cut_plan, plan_cuts
from riktig.core.plate.derived import CUT_PLAN, CUTS, INSIDE_AIR, LAYOUT
from riktig.core.plate.draw import RULER, DuctLevel, at_ruler, box, draw_plate, grown_by, rulers
from riktig.core.plate.draw_cuts import draw_cuts
from riktig.core.plate.draw_part import draw_part
from riktig.core.plate.edits import (
    fix_as_it_is,
    locked_leads,
    move_block,
    move_stands,
    plan_for_me,
    set_lock,
    set_rails_and_ducts,
    with_layout,
)
from riktig.core.plate.fit import body_of, meets, misfits_about, misfits_of, room_around
from riktig.core.plate.inside_air import InsideAir, Loss, Losses, box_that_cools, inside_air_of, losses_of
from riktig.core.plate.joins import bridged_pins, join_parts, joined, separate_parts
from riktig.core.plate.layers import clamp_marks, heat_marks, mounted_marks, room_marks
from riktig.core.plate.model import DUCT_DEPTH, Block, Duct, Layout, Misfit, Piece, PlacedDevice, Rail, RailRow, Stand
from riktig.core.plate.place_blocks import moved_to, with_block_at, with_rails_and_ducts, with_stands
from riktig.core.plate.rails_and_ducts import RailsAndDucts, duct_changed, rail_changed, with_duct, with_rail, without
from riktig.core.plate.shifts import (
    Edge,
    aligned,
    circuits_alike,
    laid_out_like,
    pushed_aside,
    shifted,
    spread,
    swapped,
)

__all__ = [
    "CUTS",
    "CUT_PLAN",
    "DUCT_DEPTH",
    "INSIDE_AIR",
    "LAYOUT",
    "RULER",
    "Bar",
    "Block",
    "CutPlan",
    "Duct",
    "DuctLevel",
    "Edge",
    "InsideAir",
    "Layout",
    "Loss",
    "Losses",
    "Misfit",
    "Piece",
    "PlacedDevice",
    "Rail",
    "RailRow",
    "RailsAndDucts",
    "Stand",
    "aligned",
    "arrange",
    "at_ruler",
    "body_of",
    "box",
    "box_that_cools",
    "bridged_pins",
    "circuits_alike",
    "clamp_marks",
    "cut_plan",
    "draw_cuts",
    "draw_part",
    "draw_plate",
    "duct_changed",
    "fix_as_it_is",
    "grown_by",
    "heat_marks",
    "inside_air_of",
    "join_parts",
    "joined",
    "laid_out_like",
    "locked_leads",
    "losses_of",
    "meets",
    "misfits_about",
    "misfits_of",
    "mounted_marks",
    "move_block",
    "move_stands",
    "moved_to",
    "plan_cuts",
    "plan_for_me",
    "pushed_aside",
    "rail_changed",
    "room_around",
    "room_marks",
    "rulers",
    "separate_parts",
    "set_lock",
    "set_rails_and_ducts",
    "shifted",
    "spread",
    "swapped",
    "with_block_at",
    "with_duct",
    "with_layout",
    "with_rail",
    "with_rails_and_ducts",
    "with_stands",
    "without",
]
