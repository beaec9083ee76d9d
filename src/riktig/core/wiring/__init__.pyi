from .apart import beside_mm, pulse_nets
from .batch_costs import Prices, Work, cheapest_parts, work_of_batch, work_one_at_a_time, work_to_length
from .batches import prices_of, work_compared
from .bench_cards import bench_cards, bench_sheets, stacked
from .colour_legend import ColourUse, colour_legend, draw_colour_legend
from .colours import analogue_nets
from .connect import wire_all
from .derived import BARE_PLATE_DRAWING, DUCT_USES, PLATE_DRAWING, WIRING
from .draw import draw_batches, mini_plate, route_shapes, wire_roles
from .drums import Drum, drums_of
from .fill import DUCT_HEIGHT, DUCT_WIDTHS, DuctEntry, DuctUse, duct_target, fill_limit, spans_of
from .joined import can_be_jumped
from .kit_cards import loom_cards, network_cards, neutral_cards
from .loom import Loom, LoomWire, looms_of
from .model import JUMPER, Batch, Crowded, Segment, Wire, WireEnd, WireId, Wiring, WiringStage, WorkCompared, wire_key
from .network_cables import NetworkCable
from .neutral_kits import NeutralKit, neutral_kits
from .order_chain import best_path
from .own_orders import order_of
from .routes import Route, Router, over_hinge
from .stages import areas_of

__all__ = [
    "BARE_PLATE_DRAWING",
    "DUCT_HEIGHT",
    "DUCT_USES",
    "DUCT_WIDTHS",
    "JUMPER",
    "PLATE_DRAWING",
    "WIRING",
    "Batch",
    "ColourUse",
    "Crowded",
    "Drum",
    "DuctEntry",
    "DuctUse",
    "Loom",
    "LoomWire",
    "NetworkCable",
    "NeutralKit",
    "Prices",
    "Route",
    "Router",
    "Segment",
    "Wire",
    "WireEnd",
    "WireId",
    "Wiring",
    "WiringStage",
    "Work",
    "WorkCompared",
    "analogue_nets",
    "areas_of",
    "bench_cards",
    "bench_sheets",
    "beside_mm",
    "best_path",
    "can_be_jumped",
    "cheapest_parts",
    "colour_legend",
    "draw_batches",
    "draw_colour_legend",
    "drums_of",
    "duct_target",
    "fill_limit",
    "loom_cards",
    "looms_of",
    "mini_plate",
    "network_cards",
    "neutral_cards",
    "neutral_kits",
    "order_of",
    "over_hinge",
    "prices_of",
    "pulse_nets",
    "route_shapes",
    "spans_of",
    "stacked",
    "wire_all",
    "wire_key",
    "wire_roles",
    "work_compared",
    "work_of_batch",
    "work_one_at_a_time",
    "work_to_length",
]
