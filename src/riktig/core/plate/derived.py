"""What this step offers the Plan. The drawing with duct fill is offered by ``wiring``."""

from operator import attrgetter

from riktig.core.circuit import CIRCUITS
from riktig.core.plan import Derived
from riktig.core.plate.arrange import arrange
from riktig.core.plate.pieces import cut_list
from riktig.core.plate.stock import cut_plan
from riktig.core.plate.warmth import losses_of, warmth_of
from riktig.core.sizing import PROPOSAL, SIZING

__all__ = ["CUTS", "CUT_PLAN", "LAYOUT", "WARMTH"]

_PRACTICE = attrgetter("practice")
LAYOUT = Derived(
    "layout", (CIRCUITS, SIZING, attrgetter("enclosure"), _PRACTICE, attrgetter("plate"), attrgetter("joins")), arrange
)
_LOSSES = Derived("losses", (CIRCUITS, SIZING), losses_of)
WARMTH = Derived("warmth", (_LOSSES, PROPOSAL, attrgetter("enclosure")), warmth_of)
CUTS = Derived("cuts", (LAYOUT, attrgetter("practice.lid_gap")), cut_list)
CUT_PLAN = Derived("cut plan", (CUTS, attrgetter("shelf"), _PRACTICE), cut_plan)
