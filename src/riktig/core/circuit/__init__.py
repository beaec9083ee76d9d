"""Recipes to devices and rungs, rungs to nets, nets to numbers, all of it drawn on sheets.

Words: a *rung* is a path between named nodes; an *element* is what it crosses; a *net* is all
pins at one potential, and crossing any device element starts a new one; a *tag* names a device.
"""

from riktig.core.circuit.derived import CIRCUITS, NAMES, NETS, SHEET_DRAWINGS, SHEETS
from riktig.core.circuit.draw_sheets import contact_places
from riktig.core.circuit.edits import insert_contact, remove_element, rename, renumber, settle, take_back
from riktig.core.circuit.expand import expand
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
)
from riktig.core.circuit.nets import Net, NetClass, Nets, find_nets
from riktig.core.circuit.numbers import Names, name_all
from riktig.core.circuit.sheets import Place, Sheet, Sheets, lay_out

__all__ = [
    "CIRCUITS",
    "NAMES",
    "NETS",
    "SHEETS",
    "SHEET_DRAWINGS",
    "Band",
    "Branch",
    "Circuits",
    "Clash",
    "Device",
    "Element",
    "Landing",
    "Names",
    "Net",
    "NetClass",
    "Nets",
    "Parallel",
    "Place",
    "Pole",
    "Rung",
    "Series",
    "Sheet",
    "Sheets",
    "Zone",
    "contact_places",
    "elements_of",
    "expand",
    "find_nets",
    "insert_contact",
    "lay_out",
    "name_all",
    "remove_element",
    "rename",
    "renumber",
    "settle",
    "take_back",
]
