from .along import along_pieces
from .derived import BLOCKERS, ENTRIES, GLAND_BLOCKERS, HOLES, METAL_HOLES, SHEETS
from .draw import draw_sheet, hole_shapes, mark_out, running_shapes, walk_shapes
from .glands import CableEntry, Entries, cable_diameter, entries_of
from .make import hole_list, numbered, sheets_of
from .model import Hole, HoleSurface, HoleWork, Tool
from .order import MarkOut, Round, mark_out_order, shortest_walk, walk_length
from .ready import Blocker, MetalWork, blockers_of, crossing_holes, gland_blockers, holes_off_the_sheet

__all__ = [
    "BLOCKERS",
    "ENTRIES",
    "GLAND_BLOCKERS",
    "HOLES",
    "METAL_HOLES",
    "SHEETS",
    "Blocker",
    "CableEntry",
    "Entries",
    "Hole",
    "HoleSurface",
    "HoleWork",
    "MarkOut",
    "MetalWork",
    "Round",
    "Tool",
    "along_pieces",
    "blockers_of",
    "cable_diameter",
    "crossing_holes",
    "draw_sheet",
    "entries_of",
    "gland_blockers",
    "hole_list",
    "hole_shapes",
    "holes_off_the_sheet",
    "mark_out",
    "mark_out_order",
    "numbered",
    "running_shapes",
    "sheets_of",
    "shortest_walk",
    "walk_length",
    "walk_shapes",
]
