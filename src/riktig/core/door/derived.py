"""What this step offers the evaluation."""

from functools import partial

from riktig.core.door.draw import draw_door
from riktig.core.door.legends import legends_of
from riktig.core.door.plan import plan_door
from riktig.core.door.shaft import shafts_of
from riktig.core.evaluation import reads
from riktig.core.job import JOB_DOOR, JOB_ENCLOSURE, JOB_LOADS, JOB_PRACTICE
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.sizing import SIZING

__all__ = ["DOOR", "DOOR_BEHIND", "DOOR_DRAWING", "LEGENDS", "SHAFTS"]

DOOR = (reads(CIRCUITS) & SIZING & LAYOUT & JOB_ENCLOSURE & JOB_DOOR).derive("door", plan_door)
SHAFTS = (reads(CIRCUITS) & LAYOUT & JOB_ENCLOSURE & JOB_PRACTICE).derive("shafts", shafts_of)
LEGENDS = (reads(CIRCUITS) & JOB_LOADS & JOB_PRACTICE).derive("legends", legends_of)
DOOR_DRAWING = (reads(DOOR) & NAMES & LEGENDS).derive("door drawing", draw_door)
DOOR_BEHIND = (reads(DOOR) & NAMES & LEGENDS).derive("door from behind", partial(draw_door, behind=True))
