"""What this step offers the Plan."""

from collections.abc import Sequence
from operator import attrgetter

from riktig.core.circuit.draw_sheets import SheetPen
from riktig.core.circuit.expand import expand
from riktig.core.circuit.faults import find_faults
from riktig.core.circuit.nets import find_nets
from riktig.core.circuit.numbers import name_all
from riktig.core.circuit.sheets import lay_out
from riktig.core.circuit.tally import tally_all
from riktig.core.geometry import Drawing
from riktig.core.plan import Derived

__all__ = ["CIRCUITS", "FAULTS", "NAMES", "NETS", "SHEETS", "SHEET_DRAWINGS", "SHEET_PEN", "TALLY"]

_READS = ("circuits", "loads", "supply", "practice", "signals", "enclosure.doors")
CIRCUITS = Derived("circuits", tuple(attrgetter(name) for name in _READS), expand)
NETS = Derived("nets", (CIRCUITS,), find_nets)
NAMES = Derived(
    "names", (CIRCUITS, NETS, *map(attrgetter, ("practice", "tags", "numbers", "last_number", "printed"))), name_all
)
TALLY = Derived("tally", (CIRCUITS, NETS), tally_all)
FAULTS = Derived("faults", (CIRCUITS, NETS), find_faults)
SHEETS = Derived("sheets", (CIRCUITS,), lay_out)
_HEADING = tuple(attrgetter(name) for name in ("number", "title", "client", "drawing_number", "revision"))
SHEET_PEN = Derived("sheet pen", (SHEETS, CIRCUITS, NETS, NAMES, attrgetter("practice"), *_HEADING), SheetPen)
"""Draws one sheet at a time: what is on the screen does not wait for the others."""


def _all_drawings(pen: SheetPen) -> Sequence[Drawing]:
    return pen.all()


SHEET_DRAWINGS = Derived("sheet drawings", (SHEET_PEN,), _all_drawings)
