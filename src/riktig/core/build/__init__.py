"""The shop floor: what is done to every wire, by whom and when, and what no longer counts.

Words: an *operation* is one thing done to a wire; a *tick* records it; a tick is *out of date*
when what it was true of has changed.
"""

from riktig.core.build.draw_numbers import draw_numbers
from riktig.core.build.mounted import MOUNTED, Mounted, mounted_facts, mounted_of, mounted_subject
from riktig.core.build.numbers import (
    OUTSIDE,
    FieldEnd,
    NumberState,
    Standing,
    field_facts,
    field_subject,
    number_states,
)
from riktig.core.build.ticks import Done, Operation, Progress, Stale, WireState, operations, progress_of, tick_facts

__all__ = [
    "MOUNTED",
    "OUTSIDE",
    "Done",
    "FieldEnd",
    "Mounted",
    "NumberState",
    "Operation",
    "Progress",
    "Stale",
    "Standing",
    "WireState",
    "draw_numbers",
    "field_facts",
    "field_subject",
    "mounted_facts",
    "mounted_of",
    "mounted_subject",
    "number_states",
    "operations",
    "progress_of",
    "tick_facts",
]
