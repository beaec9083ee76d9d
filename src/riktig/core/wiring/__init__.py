"""Nets to wires: which clamp to which, by which way, how long, with what on the ends.

Words: a *stage* is what a wire belongs to; a *batch* is cut and marked together; a *fitting* is
what goes on an end; the *door loop* is the slack that lets the door open.
"""

from riktig.core.wiring.connect import wire_all
from riktig.core.wiring.derived import DUCT_USES, PLATE_DRAWING, WIRING
from riktig.core.wiring.draw import draw_batches, mini_plate, route_marks
from riktig.core.wiring.fill import DUCT_HEIGHT, DUCT_WIDTHS, DuctEntry, DuctUse, fill_limit
from riktig.core.wiring.model import Batch, Crowded, Segment, Wire, WireEnd, WireId, Wiring, WiringStage, wire_key
from riktig.core.wiring.order_chain import best_path
from riktig.core.wiring.routes import Route, Router

__all__ = [
    "DUCT_HEIGHT",
    "DUCT_USES",
    "DUCT_WIDTHS",
    "PLATE_DRAWING",
    "WIRING",
    "Batch",
    "Crowded",
    "DuctEntry",
    "DuctUse",
    "Route",
    "Router",
    "Segment",
    "Wire",
    "WireEnd",
    "WireId",
    "Wiring",
    "WiringStage",
    "best_path",
    "draw_batches",
    "fill_limit",
    "mini_plate",
    "route_marks",
    "wire_all",
    "wire_key",
]
