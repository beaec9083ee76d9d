"""What this step offers the Plan."""

from operator import attrgetter

from riktig.core.circuit import CIRCUITS
from riktig.core.plan import Derived
from riktig.core.sizing.choose import size_all

__all__ = ["SIZING"]

SIZING = Derived(
    "sizing",
    (CIRCUITS, attrgetter("circuits"), attrgetter("loads"), attrgetter("supply"), attrgetter("enclosure")),
    size_all,
)
