"""The shop floor: what is done to every wire, by whom and when, and what no longer counts.

Words: an *operation* is one thing done to a wire; a *tick* records it; a tick is *out of date*
when what it was true of has changed; a *critical* dimension is measured twice, its *gate* opens when the readings
agree.
"""

from riktig.core.door import DOOR, SHAFTS
from riktig.core.evaluation import reads
from riktig.core.holes import METAL_HOLES
from riktig.core.job import JOB_ENCLOSURE, JOB_PRACTICE
from riktig.core.plate import CUTS
from riktig.core.production.draw_numbers import draw_numbers
from riktig.core.production.machining import (
    HoleState,
    PieceState,
    hole_facts,
    hole_states,
    hole_subject,
    piece_facts,
    piece_states,
    piece_subject,
)
from riktig.core.production.measured import (
    Critical,
    Gate,
    Judged,
    closed_for,
    criticals_of,
    judge,
    judged_all,
    measured_facts,
)
from riktig.core.production.mounted import Mounted, mounted_facts, mounted_of, mounted_subject
from riktig.core.production.numbers import (
    FieldEnd,
    NumberState,
    NumberStatus,
    field_facts,
    field_subject,
    number_states,
)
from riktig.core.production.ticks import (
    BuildProgress,
    Done,
    Operation,
    Stale,
    WireState,
    operations,
    progress_of,
    tick_facts,
)

__all__ = [
    "CRITICALS",
    "CUTS",
    "DOOR",
    "METAL_HOLES",
    "SHAFTS",
    "BuildProgress",
    "Critical",
    "Done",
    "FieldEnd",
    "Gate",
    "HoleState",
    "Judged",
    "Mounted",
    "NumberState",
    "NumberStatus",
    "Operation",
    "PieceState",
    "Stale",
    "WireState",
    "closed_for",
    "criticals_of",
    "draw_numbers",
    "field_facts",
    "field_subject",
    "hole_facts",
    "hole_states",
    "hole_subject",
    "judge",
    "judged_all",
    "measured_facts",
    "mounted_facts",
    "mounted_of",
    "mounted_subject",
    "number_states",
    "operations",
    "piece_facts",
    "piece_states",
    "piece_subject",
    "progress_of",
    "tick_facts",
]

CRITICALS = (reads(METAL_HOLES) & DOOR & SHAFTS & CUTS & JOB_ENCLOSURE & JOB_PRACTICE).derive("criticals", criticals_of)
