from .circuit_edits import add_circuit, remove_circuit
from .derived import CIRCUITS, CONDUCTOR_ENDS, FAULTS, NAMES, NETS, SHEETS, TRACER
from .drawing.draw_sheets import SheetInputs, SheetPen, contact_places, sheets_with
from .drawing.draw_wires import ends_of, net_lines, net_shapes
from .drawing.sheet_notes import PinConductor, SheetNotes
from .edits import (
    Insertion,
    add_device,
    add_rung,
    free_contacts,
    insert_contact,
    insert_element,
    move_element,
    name_element,
    named_nodes,
    reapply_change,
    remove_element,
    rewire,
    set_param,
    take_back,
    with_names_recorded,
)
from .faults.find import CircuitFault
from .found_names import names_taken, taken_words, with_found_names
from .hand_written import add_written, as_written
from .layout.frame import cell_frame, line_frame, without_title_block
from .layout.ladder_page import turned
from .layout.power_sheets import POWER_BOTTOM
from .layout.sheet_model import LINE_GAP, Sheet, SheetElement, SheetKind, SheetPlace, Sheets
from .layout.sheets import lay_out
from .model.controller_cards import io_address
from .model.elements import (
    Band,
    Branch,
    Circuits,
    Clash,
    Device,
    Element,
    Landing,
    Parallel,
    Pole,
    Rung,
    Series,
    Zone,
    elements_of,
    outside_device,
    touched,
)
from .model.roles import (
    ALARM,
    BOX_BOND,
    BYPASS,
    DOOR_BONDS,
    INCOMING_CABLE,
    INCOMING_EARTH,
    LOADS,
    MAIN_CONTACTOR,
    MOTOR,
    OUT_WHILE_RUNNING,
    PLATE_BOND,
    REVERSE,
    STAR,
    TRIANGLE,
)
from .name_edits import numbers_on_paper, record_printed, rename, renumber, tag_anew
from .netlist.conductor_ends import DOOR, PLATE, ConductorEnds, EndsInPlace, conductor_ends_of, place_of
from .netlist.net_joins import joined_nets, reached
from .netlist.nets import Net, NetClass, Nets, find_nets
from .netlist.source_reach import SourceReach, source_reach
from .netlist.trace import Trace, Tracer, TraceStep, Way, trace, trace_line
from .netlist.unit_graph import PASS
from .numbering.numbers import GivenNames, Names, PinLabels, name_all, names_of, wire_number
from .numbering.tags import by_tags, device_places
from .template_pictures import recipe_picture
from .templates.behaviour_scripts import ahead_of, script_of
from .templates.circuit_templates import CIRCUIT_TEMPLATES, CircuitTemplate, Parameter, circuit_template_of
from .templates.expand import expand
from .templates.feed_loops import roughly_carries
from .templates.function_strips import EARTHS, NEUTRALS
from .templates.implied_circuits import all_circuits
from .templates.inserts import INSERTS
from .templates.load_lines import lines_of
from .templates.own_strips import inserted_spare
from .templates.supply_context import SupplyContext, control_source, supply_context
from .templates.way_breakers import way_breaker

__all__ = [
    "ALARM",
    "BOX_BOND",
    "BYPASS",
    "CIRCUITS",
    "CIRCUIT_TEMPLATES",
    "CONDUCTOR_ENDS",
    "DOOR",
    "DOOR_BONDS",
    "EARTHS",
    "FAULTS",
    "INCOMING_CABLE",
    "INCOMING_EARTH",
    "INSERTS",
    "LINE_GAP",
    "LOADS",
    "MAIN_CONTACTOR",
    "MOTOR",
    "NAMES",
    "NETS",
    "NEUTRALS",
    "OUT_WHILE_RUNNING",
    "PASS",
    "PLATE",
    "PLATE_BOND",
    "POWER_BOTTOM",
    "REVERSE",
    "SHEETS",
    "STAR",
    "TRACER",
    "TRIANGLE",
    "Band",
    "Branch",
    "CircuitFault",
    "CircuitTemplate",
    "Circuits",
    "Clash",
    "ConductorEnds",
    "Device",
    "Element",
    "EndsInPlace",
    "GivenNames",
    "Insertion",
    "Landing",
    "Names",
    "Net",
    "NetClass",
    "Nets",
    "Parallel",
    "Parameter",
    "PinConductor",
    "PinLabels",
    "Pole",
    "Rung",
    "Series",
    "Sheet",
    "SheetElement",
    "SheetInputs",
    "SheetKind",
    "SheetNotes",
    "SheetPen",
    "SheetPlace",
    "Sheets",
    "SourceReach",
    "SupplyContext",
    "Trace",
    "TraceStep",
    "Tracer",
    "Way",
    "Zone",
    "add_circuit",
    "add_device",
    "add_rung",
    "add_written",
    "ahead_of",
    "all_circuits",
    "as_written",
    "by_tags",
    "cell_frame",
    "circuit_template_of",
    "conductor_ends_of",
    "contact_places",
    "control_source",
    "device_places",
    "elements_of",
    "ends_of",
    "expand",
    "find_nets",
    "free_contacts",
    "insert_contact",
    "insert_element",
    "inserted_spare",
    "io_address",
    "joined_nets",
    "lay_out",
    "line_frame",
    "lines_of",
    "move_element",
    "name_all",
    "name_element",
    "named_nodes",
    "names_of",
    "names_taken",
    "net_lines",
    "net_shapes",
    "numbers_on_paper",
    "outside_device",
    "place_of",
    "reached",
    "reapply_change",
    "recipe_picture",
    "record_printed",
    "remove_circuit",
    "remove_element",
    "rename",
    "renumber",
    "rewire",
    "roughly_carries",
    "script_of",
    "set_param",
    "sheets_with",
    "source_reach",
    "supply_context",
    "tag_anew",
    "take_back",
    "taken_words",
    "touched",
    "trace",
    "trace_line",
    "turned",
    "way_breaker",
    "wire_number",
    "with_found_names",
    "with_names_recorded",
    "without_title_block",
]
