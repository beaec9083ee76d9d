"""What this step offers the evaluation."""

from riktig.core.evaluation import reads
from riktig.core.job import JOB_LOADS
from riktig.core.schematic import CIRCUITS, NAMES, NETS
from riktig.core.sizing import SIZING
from riktig.core.terminals.draw import draw_strips
from riktig.core.terminals.strips import make_strips
from riktig.core.wiring import WIRING

__all__ = ["STRIPS", "STRIP_DRAWINGS"]

STRIPS = (reads(CIRCUITS) & NETS & NAMES & SIZING & WIRING & JOB_LOADS).derive("strips", make_strips)
STRIP_DRAWINGS = reads(STRIPS).derive("strip drawings", draw_strips)
