"""Which wires may go without markers: those that are seen from end to end, and no more than can be told apart."""

from riktig.core.wiring import Wire

__all__ = ["MOST_UNMARKED", "why_marked"]

MOST_UNMARKED = 10
"""Common practice, no source: so few are told apart by looking."""


def why_marked(wire: Wire) -> str:
    """Why a wire needs its markers; "" for one that is seen from end to end.

    Args:
        wire: The wire.
    """
    if wire.via_door:
        return "goes through the loom of the door"
    if wire.ducts:
        return f"runs in duct {wire.ducts[0]}"
    return ""
