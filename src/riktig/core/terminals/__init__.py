"""Terminal strips: what lands inside and outside of each terminal, and the field cables.

Words: a *strip* is a run of terminals with one tag; a terminal's *mark* is printed on it; a
*core* is one conductor of a field cable.
"""

from operator import attrgetter

from riktig.core.circuit import CIRCUITS, NAMES, NETS
from riktig.core.plan import Derived
from riktig.core.sizing import SIZING
from riktig.core.terminals.draw import draw_strip, draw_strips
from riktig.core.terminals.strips import Cable, Core, Strip, Strips, TerminalRow, make_strips
from riktig.core.wiring import WIRING

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

STRIPS = Derived("strips", (CIRCUITS, NETS, NAMES, SIZING, WIRING, attrgetter("loads")), make_strips)
STRIP_DRAWINGS = Derived("strip drawings", (STRIPS,), draw_strips)
