"""What this step offers the Plan."""

from operator import attrgetter

from riktig.core.circuit import CIRCUITS, NAMES, NETS, Circuits, Names
from riktig.core.geometry import Drawing
from riktig.core.job import Practice
from riktig.core.plan import Derived
from riktig.core.plate import DOOR, LAYOUT, Layout, draw_plate
from riktig.core.sizing import SIZING
from riktig.core.wiring.connect import wire_all
from riktig.core.wiring.model import Wiring

__all__ = ["PLATE_DRAWING", "WIRING"]

WIRING = Derived(
    "wiring", (CIRCUITS, NETS, NAMES, SIZING, LAYOUT, DOOR, attrgetter("enclosure"), attrgetter("practice")), wire_all
)


def _draw(layout: Layout, circuits: Circuits, names: Names, wiring: Wiring, practice: Practice) -> Drawing:
    return draw_plate(layout, circuits, names, wiring.fill, practice.spare_share)


PLATE_DRAWING = Derived("plate drawing", (LAYOUT, CIRCUITS, NAMES, WIRING, attrgetter("practice")), _draw)
