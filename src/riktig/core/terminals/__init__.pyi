from .derived import STRIP_DRAWINGS, STRIPS
from .draw import draw_strip, draw_strips
from .strips import Cable, Core, Strip, Strips, TerminalRow, make_strips

__all__ = [
    "STRIPS",
    "STRIP_DRAWINGS",
    "Cable",
    "Core",
    "Strip",
    "Strips",
    "TerminalRow",
    "draw_strip",
    "draw_strips",
    "make_strips",
]
