"""What this step offers the Plan."""

from riktig.core.door import DOOR
from riktig.core.evaluation import reads
from riktig.core.geometry import Drawing
from riktig.core.job import (
    JOB_ENCLOSURE,
    JOB_JUMPERS,
    JOB_ONE_CONDUCTOR,
    JOB_PRACTICE,
    JOB_SUPPLY,
    JOB_WIRE_ORDERS,
    Practice,
)
from riktig.core.plate import ASSEMBLIES, LAYOUT, DuctLevel, Layout, draw_plate
from riktig.core.schematic import CIRCUITS, NAMES, NETS, Circuits, Names
from riktig.core.sizing import SIZING
from riktig.core.wiring.connect import wire_all
from riktig.core.wiring.fill import DuctUse, duct_uses
from riktig.core.wiring.inputs import WiringInputs

__all__ = ["BARE_PLATE_DRAWING", "DUCT_USES", "PLATE_DRAWING", "WIRING"]

WIRING_INPUTS = (
    reads(CIRCUITS)
    & NETS
    & NAMES
    & SIZING
    & LAYOUT
    & DOOR
    & JOB_ENCLOSURE
    & JOB_PRACTICE
    & JOB_SUPPLY
    & ASSEMBLIES
    & JOB_WIRE_ORDERS
    & JOB_ONE_CONDUCTOR
    & JOB_JUMPERS
).derive("wiring inputs", WiringInputs)
WIRING = reads(WIRING_INPUTS).derive_with_memory("wiring", lambda memory, inputs: wire_all(inputs, memory))


DUCT_USES = (reads(WIRING) & LAYOUT & NETS & JOB_PRACTICE).derive("duct uses", duct_uses)


def _draw(layout: Layout, circuits: Circuits, names: Names, uses: tuple[DuctUse, ...], practice: Practice) -> Drawing:
    levels = {
        use.name: DuctLevel(tuple((part.begin, part.end, part.share) for part in use.segments), use.limit, use.shared)
        for use in uses
    }
    return draw_plate(layout, circuits, names, levels, practice.spare_share)


BARE_PLATE_DRAWING = (reads(LAYOUT) & CIRCUITS & NAMES & JOB_PRACTICE).derive(
    "bare plate drawing",
    lambda layout, circuits, names, practice: draw_plate(layout, circuits, names, None, practice.spare_share),
)
"""Without the fill of the ducts, which takes all wires."""
PLATE_DRAWING = (reads(LAYOUT) & CIRCUITS & NAMES & DUCT_USES & JOB_PRACTICE).derive("plate drawing", _draw)
