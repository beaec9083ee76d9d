from .bar_system import BAR_PITCH, HOLDER_WIDTH, INFEED_WIDTH, RAISED, Adapter, BarSystem, bar_system
from .comb import Comb
from .cut_drawing import draw_cuts
from .cut_optimiser import Bar, CutPlan, cut_plan, plan_cuts
from .derived import ASSEMBLIES, CUT_PLAN, CUTS, LAYOUT
from .draw import RULER, DuctLevel, at_ruler, draw_plate, grown_by, rulers
from .edits import (
    fix_as_it_is,
    locked_leads,
    move_block,
    move_stands,
    plan_for_me,
    set_lock,
    set_rails_and_ducts,
    with_layout,
)
from .first_layout import arrange
from .fit import body_of, meets, misfits_about, misfits_of, room_around
from .joins import Assembly, bridged_pins, join_parts, joined, separate_parts
from .layers import clamp_shapes, heat_shapes, mounted_shapes, room_shapes
from .model import DUCT_DEPTH, Block, Duct, Layout, Misfit, Piece, PlacedDevice, Rail, RailRow, Stand
from .outlines import box
from .part_drawing import draw_part
from .place_blocks import moved_to, with_block_at, with_rails_and_ducts, with_stands
from .rails_and_ducts import RailsAndDucts, duct_changed, rail_changed, with_duct, with_rail, without
from .shifts import Edge, aligned, circuits_alike, laid_out_like, pushed_aside, shifted, spread, swapped
from .together import apart, groups_of

__all__ = [
    "ASSEMBLIES",
    "BAR_PITCH",
    "CUTS",
    "CUT_PLAN",
    "DUCT_DEPTH",
    "HOLDER_WIDTH",
    "INFEED_WIDTH",
    "LAYOUT",
    "RAISED",
    "RULER",
    "Adapter",
    "Assembly",
    "Bar",
    "BarSystem",
    "Block",
    "Comb",
    "CutPlan",
    "Duct",
    "DuctLevel",
    "Edge",
    "Layout",
    "Misfit",
    "Piece",
    "PlacedDevice",
    "Rail",
    "RailRow",
    "RailsAndDucts",
    "Stand",
    "aligned",
    "apart",
    "arrange",
    "at_ruler",
    "bar_system",
    "body_of",
    "box",
    "bridged_pins",
    "circuits_alike",
    "clamp_shapes",
    "cut_plan",
    "draw_cuts",
    "draw_part",
    "draw_plate",
    "duct_changed",
    "fix_as_it_is",
    "groups_of",
    "grown_by",
    "heat_shapes",
    "join_parts",
    "joined",
    "laid_out_like",
    "locked_leads",
    "meets",
    "misfits_about",
    "misfits_of",
    "mounted_shapes",
    "move_block",
    "move_stands",
    "moved_to",
    "plan_cuts",
    "plan_for_me",
    "pushed_aside",
    "rail_changed",
    "room_around",
    "room_shapes",
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
