from .connect import wire_all
from .derived import BARE_PLATE_DRAWING, DUCT_USES, PLATE_DRAWING, WIRING
from .draw import draw_batches, mini_plate, route_shapes, wire_roles
from .fill import DUCT_HEIGHT, DUCT_WIDTHS, DuctEntry, DuctUse, fill_limit
from .model import JUMPER, Batch, Crowded, Segment, Wire, WireEnd, WireId, Wiring, WiringStage, wire_key
from .order_chain import best_path
from .routes import Route, Router

__all__ = [
    "BARE_PLATE_DRAWING",
    "DUCT_HEIGHT",
    "DUCT_USES",
    "DUCT_WIDTHS",
    "JUMPER",
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
    "route_shapes",
    "wire_all",
    "wire_key",
    "wire_roles",
]
