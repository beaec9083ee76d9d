"""The shop floor: what is done to every wire, by whom and when, and what no longer counts.

Words: an *operation* is one thing done to a wire; a *tick* records it; a tick is *out of date*
when what it was true of has changed.
"""

from riktig.core.build.ticks import Done, Operation, Progress, Stale, WireState, operations, progress_of, tick_facts

__all__ = ["Done", "Operation", "Progress", "Stale", "WireState", "operations", "progress_of", "tick_facts"]
