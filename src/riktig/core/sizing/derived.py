"""What this step offers the Plan."""

from operator import attrgetter

from riktig.core.circuit import CIRCUITS
from riktig.core.plan import Derived
from riktig.core.sizing.choose import size_all
from riktig.core.sizing.proposal import propose

__all__ = ["PROPOSAL", "SIZING"]

PROPOSAL = Derived(
    "proposal",
    tuple(
        attrgetter(name)
        for name in ("loads", "supply", "practice", "enclosure", "signals", "sources", "sources_asked", "overrides")
    ),
    propose,
)

SIZING = Derived(
    "sizing",
    (
        CIRCUITS,
        attrgetter("circuits"),
        attrgetter("loads"),
        attrgetter("supply"),
        PROPOSAL,
        attrgetter("parts"),
        attrgetter("picks"),
    ),
    size_all,
)
"""The part and the conductors of everything that is drawn, after the proposal."""
