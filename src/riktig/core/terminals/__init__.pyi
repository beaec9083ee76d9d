from .cables import EARTH_CORE, Cable, Core
from .derived import STRIP_DRAWINGS, STRIPS
from .draw import BLOCKS, draw_blocks, draw_strip, draw_strips, strip_pages
from .jumpers import Jumper, joined_to, jumper_of, jumpers_on, parted_left
from .own_cables import carried, may_share
from .strips import LandedCore, Strip, Strips, TerminalRow, make_strips

__all__ = [
    "BLOCKS",
    "EARTH_CORE",
    "STRIPS",
    "STRIP_DRAWINGS",
    "Cable",
    "Core",
    "Jumper",
    "LandedCore",
    "Strip",
    "Strips",
    "TerminalRow",
    "carried",
    "draw_blocks",
    "draw_strip",
    "draw_strips",
    "joined_to",
    "jumper_of",
    "jumpers_on",
    "make_strips",
    "may_share",
    "parted_left",
    "strip_pages",
]
