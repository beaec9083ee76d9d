"""What this step offers the evaluation."""

from riktig.core.evaluation import reads
from riktig.core.job import JOB_CABLES, JOB_LOADS, JOB_PRACTICE, Load, OwnCable, Practice
from riktig.core.schematic import CIRCUITS, NAMES, NETS
from riktig.core.sizing import SIZING
from riktig.core.terminals.draw import draw_strips
from riktig.core.terminals.strips import PlannedCables, make_strips
from riktig.core.wiring import WIRING

__all__ = ["STRIPS", "STRIP_DRAWINGS"]


def _planned(loads: tuple[Load, ...], own: tuple[OwnCable, ...], practice: Practice) -> PlannedCables:
    return PlannedCables(loads, own, practice.field_cables)


PLANNED_CABLES = (reads(JOB_LOADS) & JOB_CABLES & JOB_PRACTICE).derive("planned cables", _planned)
STRIPS = (reads(CIRCUITS) & NETS & NAMES & SIZING & WIRING & PLANNED_CABLES).derive("strips", make_strips)
STRIP_DRAWINGS = reads(STRIPS).derive("strip drawings", draw_strips)
