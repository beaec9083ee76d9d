"""What this step offers the Plan. The drawing with duct fill is offered by ``wiring``."""

from riktig.core.evaluation import reads
from riktig.core.job import JOB_ENCLOSURE, JOB_JOINS, JOB_LID_GAP, JOB_PLATE, JOB_PRACTICE, JOB_SHELF
from riktig.core.plate.cut_optimiser import cut_plan
from riktig.core.plate.first_layout import arrange
from riktig.core.plate.pieces import cut_list
from riktig.core.plate.shared_feed import assemblies
from riktig.core.schematic import CIRCUITS, NETS
from riktig.core.sizing import SIZING

__all__ = ["ASSEMBLIES", "CUTS", "CUT_PLAN", "LAYOUT"]

ASSEMBLIES = (reads(JOB_JOINS) & CIRCUITS & NETS & SIZING & JOB_PRACTICE & JOB_ENCLOSURE).derive(
    "assemblies", assemblies
)
"""What the builder joined, and what practice has fed by a comb or a bar."""
LAYOUT = (reads(CIRCUITS) & SIZING & JOB_ENCLOSURE & JOB_PRACTICE & JOB_PLATE & ASSEMBLIES).derive("layout", arrange)
CUTS = (reads(LAYOUT) & JOB_LID_GAP).derive("cuts", cut_list)
CUT_PLAN = (reads(CUTS) & JOB_SHELF & JOB_PRACTICE).derive("cut plan", cut_plan)
