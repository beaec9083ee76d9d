"""What a laid-out sheet is made of: places, seats, wires, rails and arrows, in mm."""

from dataclasses import dataclass, field, replace
from enum import Enum

from riktig.core.job import CircuitId, DeviceId, ElementId, PinRef
from riktig.core.schematic.model.elements import Element, Landing, Rung
from riktig.core.schematic.symbols.iec import LINE_GAP

__all__ = [
    "COLUMN",
    "FIRST_X",
    "FIRST_Y",
    "FRAME_BOTTOM",
    "FRAME_RIGHT",
    "LINE_GAP",
    "MOST_COLUMNS",
    "RAIL_BOTTOM",
    "RAIL_TOP",
    "ROW",
    "SHEET_HEIGHT",
    "SHEET_WIDTH",
    "TAP_TOP",
    "TITLE_BLOCK",
    "Arrow",
    "Bus",
    "DrawnLine",
    "LevelLine",
    "Sheet",
    "SheetElement",
    "SheetKind",
    "SheetPlace",
    "Sheets",
    "place_at",
]

COLUMN, ROW = 23.0, 25.0
FIRST_X, FIRST_Y = 9.0, 9.0
FRAME_RIGHT, FRAME_BOTTOM = FIRST_X + 10 * COLUMN, FIRST_Y + 6 * ROW
TITLE_BLOCK = 16.5
SHEET_WIDTH, SHEET_HEIGHT = FRAME_RIGHT + 3, FRAME_BOTTOM + TITLE_BLOCK + 3
RAIL_TOP, RAIL_BOTTOM = 33.0, 137.0
TAP_TOP = 13.0
MOST_COLUMNS = 7
"""Paths side by side on one control sheet, so that no label meets its neighbour."""


class SheetKind(Enum):
    """What a sheet shows."""

    POWER = "power"
    CONTROL = "control"
    EARTH = "earth tree"
    LEGEND = "symbols used"


@dataclass(frozen=True, slots=True)
class SheetPlace:
    """Sheet, column and row; written “2.3” (sheet and column) or “2.3.C”."""

    sheet: int
    column: int
    row: str
    line: int = 0
    """Of a ladder: its line, numbered on from sheet to sheet, which is its column too; it names the place alone."""

    def __str__(self) -> str:
        return f"{self.sheet}.{self.column}" if not self.line else f"line {self.line}"

    @property
    def full(self) -> str:
        """With the row; of a ladder sheet and line."""
        return f"{self.sheet}.{self.column}.{self.row}" if not self.line else f"{self.sheet}.{self.line}"

    @property
    def words(self) -> str:
        """“sheet 2.3.C”, “line 12, sheet 2”."""
        return f"{self}, sheet {self.sheet}" if self.line else f"sheet {self.full}"


@dataclass(frozen=True, slots=True)
class SheetElement:
    """An element on its sheet: the line of its first pole, and the span it stands in."""

    element: Element
    x: float
    top: float
    bottom: float


@dataclass(frozen=True, slots=True)
class DrawnLine:
    """A drawn connection: from point to point, level or upright."""

    x1: float
    y1: float
    x2: float
    y2: float


@dataclass(frozen=True, slots=True)
class LevelLine:
    """A stretch of a named node, level at ``y``; a group of lines is said by its first node."""

    node: str
    x1: float
    x2: float
    y: float
    top: bool
    pin: PinRef | None = None
    """A pin of its net: the number is the net's."""


@dataclass(frozen=True, slots=True)
class Arrow:
    """Where a node goes on: it stands at ``at``, and its partner at ``to``; ``onward`` when this is the earlier."""

    node: str
    x: float
    y: float
    at: SheetPlace
    to: SheetPlace
    onward: bool


@dataclass(frozen=True, slots=True)
class Bus:
    """The lines that run across a power sheet: their nodes, from and to, and the height of the first, mm."""

    nodes: tuple[str, ...]
    x1: float
    x2: float
    y: float


@dataclass(frozen=True, slots=True)
class Sheet:
    """One sheet: what stands on it. ``circuits`` are those with anything on it; ``captions`` name its paths."""

    number: int
    title: str
    kind: SheetKind
    circuits: tuple[CircuitId, ...]
    rungs: tuple[Rung, ...]
    seats: tuple[SheetElement, ...]
    wires: tuple[DrawnLine, ...]
    dots: tuple[tuple[float, float], ...]
    landings: tuple[tuple[Landing, float, float], ...]
    rails: tuple[LevelLine, ...] = ()
    bus: Bus | None = None
    arrows: tuple[Arrow, ...] = ()
    captions: tuple[tuple[float, str, str, str], ...] = ()
    """Where each stands (x mm), the circuit's name, what the path is for, and its rung's id; all but x may be empty."""
    lines: tuple[float, ...] = ()
    """Of a ladder, whose paths run level: where each of its lines stands (x mm, before it is turned), rising."""
    first_line: int = 0
    """The number of the first of them."""

    @property
    def is_ladder(self) -> bool:
        """Whether its paths run level, one below the other."""
        return bool(self.lines)

    def place(self, x: float, y: float) -> SheetPlace:
        """The address of a point of the sheet."""
        at = place_at(self.number, x, y)
        if not self.lines:
            return at
        nearest = min(range(len(self.lines)), key=lambda n: abs(self.lines[n] - x))
        line = self.first_line + nearest
        return replace(at, column=line, line=line)


@dataclass(frozen=True, slots=True)
class Sheets:
    """All sheets, and the place of each element and of each pin that a path only touches."""

    sheets: tuple[Sheet, ...]
    places: dict[ElementId, SheetPlace]
    touched: dict[DeviceId, SheetPlace] = field(default_factory=dict)


def place_at(sheet: int, x: float, y: float) -> SheetPlace:
    """The address of a point of a sheet."""
    column = min(max(int((x - FIRST_X) // COLUMN), 0), 9)
    return SheetPlace(sheet, column, "ABCDEF"[min(max(int((y - FIRST_Y) // ROW), 0), 5)])
