"""Recipes to devices and rungs, rungs to nets, nets to numbers, all of it drawn on sheets.

Words: a *rung* is a path between named nodes; an *element* is what it crosses; a *net* is all
pins at one potential, and crossing any device element starts a new one; a *tag* names a device.
"""

from riktig.core.circuit.book import BOOK, Entry, Parameter, entry_of
from riktig.core.circuit.cards import io_address
from riktig.core.circuit.derived import CIRCUITS, FAULTS, NAMES, NETS, SHEET_DRAWINGS, SHEET_PEN, SHEETS, TALLY, TRACER
from riktig.core.circuit.draw_frame import cell_frame
from riktig.core.circuit.draw_sheets import SheetPen, contact_places, sheets_with
from riktig.core.circuit.draw_wires import ends_of, net_lines, net_marks
from riktig.core.circuit.edits import (
    add_circuit,
    add_device,
    add_rung,
    free_contacts,
    insert_contact,
    mark_printed,
    move_element,
    name_element,
    named_nodes,
    numbers_on_paper,
    put_in,
    rehang,
    remove_circuit,
    remove_element,
    rename,
    renumber,
    retag,
    rewire,
    set_param,
    settle,
    take_back,
)
from riktig.core.circuit.expand import all_circuits, expand
from riktig.core.circuit.faults import Fault
from riktig.core.circuit.footing import Footing, control_source, footing
from riktig.core.circuit.inserts import INSERTS
from riktig.core.circuit.lines import lines_of
from riktig.core.circuit.model import (
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
from riktig.core.circuit.nets import Net, NetClass, Nets, find_nets
from riktig.core.circuit.numbers import Names, PinLabels, name_all, names_of, wire_number
from riktig.core.circuit.pictures import recipe_picture
from riktig.core.circuit.power_sheets import POWER_BOTTOM
from riktig.core.circuit.scripts import ahead_of, script_of
from riktig.core.circuit.sheet_model import LINE_GAP, Place, Seat, Sheet, SheetKind, Sheets
from riktig.core.circuit.sheets import lay_out
from riktig.core.circuit.supplies import DOOR_BONDS
from riktig.core.circuit.tags import by_tags, device_places
from riktig.core.circuit.tally import DOOR, PLATE, Ends, Tally, place_of, tally_all
from riktig.core.circuit.trace import Step, Trace, Tracer, Way, trace, trace_line
from riktig.core.circuit.written import add_written, as_written

__all__ = [
    "BOOK",
    "CIRCUITS",
    "DOOR",
    "DOOR_BONDS",
    "FAULTS",
    "INSERTS",
    "LINE_GAP",
    "NAMES",
    "NETS",
    "PLATE",
    "POWER_BOTTOM",
    "SHEETS",
    "SHEET_DRAWINGS",
    "SHEET_PEN",
    "TALLY",
    "TRACER",
    "Band",
    "Branch",
    "Circuits",
    "Clash",
    "Device",
    "Element",
    "Ends",
    "Entry",
    "Fault",
    "Footing",
    "Landing",
    "Names",
    "Net",
    "NetClass",
    "Nets",
    "Parallel",
    "Parameter",
    "PinLabels",
    "Place",
    "Pole",
    "Rung",
    "Seat",
    "Series",
    "Sheet",
    "SheetKind",
    "SheetPen",
    "Sheets",
    "Step",
    "Tally",
    "Trace",
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
    "contact_places",
    "control_source",
    "device_places",
    "elements_of",
    "ends_of",
    "entry_of",
    "expand",
    "find_nets",
    "footing",
    "free_contacts",
    "insert_contact",
    "io_address",
    "lay_out",
    "lines_of",
    "mark_printed",
    "move_element",
    "name_all",
    "name_element",
    "named_nodes",
    "names_of",
    "net_lines",
    "net_marks",
    "numbers_on_paper",
    "outside_device",
    "place_of",
    "put_in",
    "recipe_picture",
    "rehang",
    "remove_circuit",
    "remove_element",
    "rename",
    "renumber",
    "retag",
    "rewire",
    "script_of",
    "set_param",
    "settle",
    "sheets_with",
    "take_back",
    "tally_all",
    "touched",
    "trace",
    "trace_line",
    "wire_number",
]
