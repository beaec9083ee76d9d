"""What this step offers the Plan. The drawing with duct fill is offered by ``wiring``."""

from riktig.core.evaluation import reads
from riktig.core.job import JOB_ENCLOSURE, JOB_JOINS, JOB_LID_GAP, JOB_PLATE, JOB_PRACTICE, JOB_SHELF
from riktig.core.plate.cut_optimiser import cut_plan
from riktig.core.plate.first_layout import arrange
from riktig.core.plate.pieces import cut_list
from riktig.core.schematic import CIRCUITS
from riktig.core.sizing import SIZING

__all__ = ["CUTS", "CUT_PLAN", "LAYOUT"]

LAYOUT = (reads(CIRCUITS) & SIZING & JOB_ENCLOSURE & JOB_PRACTICE & JOB_PLATE & JOB_JOINS).derive("layout", arrange)
CUTS = (reads(LAYOUT) & JOB_LID_GAP).derive("cuts", cut_list)
CUT_PLAN = (reads(CUTS) & JOB_SHELF & JOB_PRACTICE).derive("cut plan", cut_plan)
