"""What this step offers the Plan."""

from operator import attrgetter

from riktig.core.circuit.draw_sheets import draw_sheet
from riktig.core.circuit.expand import expand
from riktig.core.circuit.model import Circuits
from riktig.core.circuit.nets import Nets, find_nets
from riktig.core.circuit.numbers import Names, name_all
from riktig.core.circuit.sheets import Sheets, lay_out
from riktig.core.geometry import Drawing
from riktig.core.plan import Derived

__all__ = ["CIRCUITS", "NAMES", "NETS", "SHEETS", "SHEET_DRAWINGS"]

CIRCUITS = Derived(
    "circuits", tuple(attrgetter(name) for name in ("circuits", "loads", "supply", "practice", "signals")), expand
)
NETS = Derived("nets", (CIRCUITS,), find_nets)
NAMES = Derived(
    "names", (CIRCUITS, NETS, attrgetter("tags"), attrgetter("numbers"), attrgetter("last_number")), name_all
)
SHEETS = Derived("sheets", (CIRCUITS,), lay_out)


def _draw_all(sheets: Sheets, circuits: Circuits, nets: Nets, names: Names) -> tuple[Drawing, ...]:
    return tuple(draw_sheet(sheet, sheets, circuits, nets, names) for sheet in sheets.sheets)


SHEET_DRAWINGS = Derived("sheet drawings", (SHEETS, CIRCUITS, NETS, NAMES), _draw_all)
