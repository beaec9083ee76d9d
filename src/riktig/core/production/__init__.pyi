from .derived import CRITICALS
from .machining import (
    HoleState,
    PieceState,
    hole_facts,
    hole_states,
    hole_subject,
    piece_facts,
    piece_states,
    piece_subject,
)
from .measured import Critical, Gate, Judged, closed_for, criticals_of, judge, judged_all, measured_facts
from .mounted import Mounted, mounted_facts, mounted_of, mounted_subject
from .number_drawing import draw_numbers
from .numbers import FieldEnd, NumberState, NumberStatus, field_facts, field_subject, number_states
from .ticks import BuildProgress, Done, Operation, Stale, WireState, operations, progress_of, tick_facts

__all__ = [
    "CRITICALS",
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
