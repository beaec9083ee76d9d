"""What this step offers the evaluation."""

from riktig.core.door import DOOR, SHAFTS
from riktig.core.evaluation import reads
from riktig.core.holes import METAL_HOLES
from riktig.core.job import JOB_ENCLOSURE, JOB_PRACTICE
from riktig.core.plate import CUTS
from riktig.core.production.measured import criticals_of

__all__ = ["CRITICALS"]

CRITICALS = (reads(METAL_HOLES) & DOOR & SHAFTS & CUTS & JOB_ENCLOSURE & JOB_PRACTICE).derive("criticals", criticals_of)
