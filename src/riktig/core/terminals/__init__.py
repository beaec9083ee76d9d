"""Terminal strips: what lands inside and outside of each terminal, and the field cables.

Words: a *strip* is a run of terminals with one tag; a terminal's *mark* is printed on it; a
*core* is one conductor of a field cable.
"""

from riktig.core.evaluation import reads
from riktig.core.job import JOB_LOADS
from riktig.core.schematic import CIRCUITS, NAMES, NETS
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

STRIPS = (reads(CIRCUITS) & NETS & NAMES & SIZING & WIRING & JOB_LOADS).derive("strips", make_strips)
STRIP_DRAWINGS = reads(STRIPS).derive("strip drawings", draw_strips)
