"""What this step offers the evaluation."""

from riktig.core.door import DOOR, SHAFTS
from riktig.core.evaluation import reads
from riktig.core.holes import HOLES, METAL_HOLES
from riktig.core.job import JOB_ENCLOSURE, JOB_PRACTICE
from riktig.core.plate import CUTS, LAYOUT
from riktig.core.production.inspection import clauses_to_look_at
from riktig.core.production.measured import criticals_of
from riktig.core.production.work_plan import WorkInputs, make_work
from riktig.core.rules import RULES
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.simulation import RATINGS
from riktig.core.sizing import SIZING
from riktig.core.terminals import STRIPS
from riktig.core.wiring import DUCT_USES, WIRING

__all__ = ["CRITICALS", "WORK"]

CRITICALS = (reads(METAL_HOLES) & DOOR & SHAFTS & CUTS & JOB_ENCLOSURE & JOB_PRACTICE).derive("criticals", criticals_of)
_LOOKED_AT = reads(RULES).derive("clauses at the panel", clauses_to_look_at)
WORK_INPUTS = (
    reads(CIRCUITS)
    & NAMES
    & SIZING
    & LAYOUT
    & DOOR
    & HOLES
    & CUTS
    & DUCT_USES
    & STRIPS
    & JOB_PRACTICE
    & WIRING
    & RATINGS
    & _LOOKED_AT
).derive("work inputs", WorkInputs)
WORK = reads(WORK_INPUTS).derive("work", make_work)
"""All tasks of the bench but those of wires."""
