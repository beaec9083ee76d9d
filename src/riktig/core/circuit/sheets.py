"""Where every element stands: sheets with columns 0 to 9 and rows A to F.

Laying out and drawing are apart: this file decides places, ``draw_sheets`` makes the marks.
"""

from dataclasses import dataclass

from riktig.core.circuit.model import Band, Branch, Circuits, Element, Landing, Parallel, Rung, Series
from riktig.core.circuit.recipes import MAIN
from riktig.core.job import CircuitId, DeviceId, ElementId

__all__ = [
    "COLUMN",
    "FIRST_X",
    "FIRST_Y",
    "INCOMING_TOP",
    "LINE_GAP",
    "ROW",
    "SHEET_HEIGHT",
    "SHEET_WIDTH",
    "Crossing",
    "Place",
    "Seat",
    "Sheet",
    "Sheets",
    "Wire",
    "lay_out",
]

COLUMN, ROW = 23.0, 25.0
FIRST_X, FIRST_Y = 9.0, 9.0
SHEET_WIDTH, SHEET_HEIGHT = FIRST_X + 10 * COLUMN + 3, FIRST_Y + 6 * ROW + 3
LINE_GAP = 9.5
RAIL_TOP, RAIL_BOTTOM = 34.0, 136.0
TAP_TOP = 11.0
LOADS_A_SHEET = 3
BRANCH = 4.5
TERMINAL_HEIGHT = 0.4
"""A terminal in a path against a contact."""
POWER_TOP, POWER_BOTTOM = 67.0, 131.0
BELOW = POWER_BOTTOM + 4
BUS_TOP, BUS_GAP = 50.0, 4.0
INCOMING_TOP = 15.0
INCOMER_X = FIRST_X + COLUMN * 1.4
FIRST_LOAD_X = FIRST_X + COLUMN * 4.2
LOAD_STEP = COLUMN * 2.2
LINE_STEP = 2.6
CHAIN_HEIGHT = 5.2
"""Elements that fit under each other in paths that go on from one another."""
PATH_GAP = 2 * LINE_GAP + 30.0
"""From one path of three lines to the next beside it: room for its tag."""


@dataclass(frozen=True, slots=True)
class Place:
    """Sheet, column and row; written “2.3” (sheet and column) or “2.3.C”."""

    sheet: int
    column: int
    row: str

    def __str__(self) -> str:
        return f"{self.sheet}.{self.column}"

    @property
    def full(self) -> str:
        """With the row."""
        return f"{self.sheet}.{self.column}.{self.row}"


@dataclass(frozen=True, slots=True)
class Seat:
    """An element on its sheet: the line of its first pole, and the span it stands in."""

    element: Element
    x: float
    top: float
    bottom: float


@dataclass(frozen=True, slots=True)
class Wire:
    """A drawn connection: from point to point, level or upright; ``dot`` marks a joint."""

    x1: float
    y1: float
    x2: float
    y2: float
    node: str = ""


@dataclass(frozen=True, slots=True)
class Crossing:
    """A place between two elements where the number of the net is written: the pin after it."""

    x: float
    y: float
    device: DeviceId
    pin: str


@dataclass(frozen=True, slots=True)
class Sheet:
    """One sheet: what stands on it. ``circuit`` is None for the power sheets."""

    number: int
    title: str
    circuit: CircuitId | None
    rungs: tuple[Rung, ...]
    seats: tuple[Seat, ...]
    wires: tuple[Wire, ...]
    dots: tuple[tuple[float, float], ...]
    landings: tuple[tuple[Landing, float, float], ...]


@dataclass(frozen=True, slots=True)
class Sheets:
    """All sheets, and the place of each element."""

    sheets: tuple[Sheet, ...]
    places: dict[ElementId, Place]


def place_at(sheet: int, x: float, y: float) -> Place:
    """The address of a point of a sheet."""
    column = min(max(int((x - FIRST_X) // COLUMN), 0), 9)
    return Place(sheet, column, "ABCDEF"[min(max(int((y - FIRST_Y) // ROW), 0), 5)])


class _Pad:
    """Collects what stands on a sheet while it is laid out."""

    def __init__(self) -> None:
        self.seats: list[Seat] = []
        self.wires: list[Wire] = []
        self.dots: list[tuple[float, float]] = []
        self.landings: list[tuple[Landing, float, float]] = []

    def put(self, branch: Branch, x: float, top: float, bottom: float, step: float) -> None:
        """Sets a tree between two heights; each leaf takes ``step`` across."""
        match branch:
            case Element():
                self.seats.append(Seat(branch, x, top, bottom))
            case Landing():
                self.landings.append((branch, x, top))
                self.wires += [Wire(x + n * LINE_GAP, top, x + n * LINE_GAP, bottom) for n in range(len(branch.pins))]
            case Series(parts):
                heights = [_height(part) for part in parts]
                unit = (bottom - top) / (sum(heights) or 1)
                y = top
                for part, height in zip(parts, heights, strict=True):
                    self.put(part, x, y, y + unit * height, step)
                    y += unit * height
            case Parallel(parts) if _lines(branch) > 1:
                self._exchanged(parts, x, top, bottom, step)
            case Parallel(parts):
                self._side_by_side(parts, x, top, bottom, step)

    def _exchanged(self, parts: tuple[Branch, ...], x: float, top: float, bottom: float, step: float) -> None:
        """Paths of several lines side by side: each line branches at a height of its own, so that none is hidden."""
        lines = _lines(parts[0])
        upper, lower = top + lines * LINE_STEP, bottom - lines * LINE_STEP
        for line in range(lines):
            at = x + line * LINE_GAP
            self.wires += [Wire(at, top, at, upper), Wire(at, lower, at, bottom)]
        for index, part in enumerate(parts):
            across = x + index * PATH_GAP
            self.put(part, across, upper, lower, step)
            if not index:
                continue
            for line in range(lines):
                at, out = across + line * LINE_GAP, _leads_to(part, line)
                above, below = top + (line + 0.5) * LINE_STEP, lower + (out + 0.5) * LINE_STEP
                self.wires += [
                    Wire(x + line * LINE_GAP, above, at, above),
                    Wire(at, above, at, upper),
                    Wire(at, lower, at, below),
                    Wire(x + out * LINE_GAP, below, at, below),
                ]
                self.dots += [(x + line * LINE_GAP, above), (x + out * LINE_GAP, below)]

    def put_chain(self, first: Rung, others: list[Rung], x: float) -> None:
        """Power paths that go on from each other's named ends: the first goes on straight, a second beside it."""
        unit = (POWER_BOTTOM - POWER_TOP) / CHAIN_HEIGHT
        bottom = POWER_TOP + unit * _height(first.path)
        self.put(first.path, x, POWER_TOP, bottom, LINE_GAP)
        ends: dict[tuple[str, ...], tuple[float, float]] = {first.end: (x, bottom)}
        taken: set[tuple[str, ...]] = set()
        farthest = x
        for rung in others:
            from_x, from_y = ends[rung.start]
            top = from_y + 3 * LINE_STEP
            at = from_x
            if rung.start in taken:
                farthest += PATH_GAP
                at = farthest
            for line in range(3):
                y = from_y + (line + 0.5) * LINE_STEP
                old, new = from_x + line * LINE_GAP, at + line * LINE_GAP
                if at == from_x:
                    self.wires.append(Wire(old, from_y, old, top))
                else:
                    self.wires += [Wire(old, y, new, y), Wire(new, y, new, top)]
                    self.dots.append((old, y))
            taken.add(rung.start)
            below = top + unit * _height(rung.path) if rung.end else POWER_BOTTOM
            self.put(rung.path, at, top, below, LINE_GAP)
            if len(set(rung.end)) == 1:
                self.wires.append(Wire(at, below, at + 2 * LINE_GAP, below))
            elif rung.end:
                ends[rung.end] = (at, below)

    def _side_by_side(self, parts: tuple[Branch, ...], x: float, top: float, bottom: float, step: float) -> None:
        upper, lower = top + BRANCH, bottom - BRANCH
        self.wires += [Wire(x, top, x, upper), Wire(x, lower, x, bottom)]
        across = last = x
        for index, part in enumerate(parts):
            self.put(part, across, upper, lower, step)
            if index:
                self.wires += [Wire(last, upper, across, upper), Wire(last, lower, across, lower)]
            last = across
            across += step * _width(part)
        self.dots += [(x, upper), (x, lower)]


def _height(branch: Branch) -> float:
    match branch:
        case Element(poles=poles):
            return TERMINAL_HEIGHT if poles[0].unit == "i-f" else 1
        case Landing():
            return 0.3
        case Series(parts):
            return sum(_height(part) for part in parts)
        case Parallel(parts):
            return max(_height(part) for part in parts) + 0.4


def _lines(branch: Branch) -> int:
    match branch:
        case Element(poles=poles):
            return len(poles)
        case Landing(pins=pins):
            return len(pins)
        case Series(parts) | Parallel(parts):
            return max((_lines(part) for part in parts), default=1)


def _leads_to(branch: Branch, line: int) -> int:
    """The line on which a path that begins on ``line`` ends."""
    match branch:
        case Element():
            return branch.leads_to(line)
        case Series(parts):
            for part in parts:
                line = _leads_to(part, line)
    return line


def _slots(rung: Rung) -> int:
    """Places for a motor that a power path takes on its sheet: two where two contactors stand side by side."""
    return max((len(p.parts) for p in rung.path.parts if isinstance(p, Parallel)), default=1)


def _width(branch: Branch) -> int:
    match branch:
        case Element() | Landing():
            return 1
        case Series(parts):
            return max((_width(part) for part in parts), default=1)
        case Parallel(parts):
            return sum(_width(part) for part in parts)


def lay_out(circuits: Circuits) -> Sheets:
    """Places every element: power sheets first, then a control sheet for each load's circuit."""
    sheets: list[Sheet] = []
    power = [r for r in circuits.rungs if r.band is Band.POWER and r.start == MAIN]
    beyond: dict[CircuitId, list[Rung]] = {}
    for rung in circuits.rungs:
        if rung.band is Band.POWER and len(rung.start) == 3 and rung.start != MAIN:
            beyond.setdefault(rung.circuit, []).append(rung)
    incoming = [r for r in circuits.rungs if r.band is Band.INCOMING]
    for here in _shared_out(power, beyond):
        sheets.append(_power_sheet(len(sheets) + 1, [] if sheets else incoming, here, beyond, circuits))
    for circuit in dict.fromkeys(r.circuit for r in power):
        rungs = [r for r in circuits.rungs if r.circuit == circuit]
        tap = next(r for r in rungs if r.band is Band.TAP)
        control = [r for r in rungs if r.band is Band.CONTROL]
        sheets.append(_control_sheet(len(sheets) + 1, circuit, tap, control))
    places = {
        seat.element.id: place_at(sheet.number, seat.x, (seat.top + seat.bottom) / 2)
        for sheet in sheets
        for seat in sheet.seats
    }
    return Sheets(tuple(sheets), places)


def _shared_out(power: list[Rung], beyond: dict[CircuitId, list[Rung]]) -> list[list[Rung]]:
    """The power paths sheet by sheet, in order, as many as have room; one sheet at least, for the supply."""
    sheets: list[list[Rung]] = [[]]
    for rung in power:
        taken = sum(LOADS_A_SHEET if one.circuit in beyond else _slots(one) for one in sheets[-1])
        if sheets[-1] and taken + (LOADS_A_SHEET if rung.circuit in beyond else _slots(rung)) > LOADS_A_SHEET:
            sheets.append([])
        sheets[-1].append(rung)
    return sheets


def _power_sheet(
    number: int, incoming: list[Rung], power: list[Rung], beyond: dict[CircuitId, list[Rung]], circuits: Circuits
) -> Sheet:
    pad = _Pad()
    for rung in incoming:
        if len(rung.end) == 3:
            pad.put(rung.path, INCOMER_X, INCOMING_TOP, BUS_TOP - 2, LINE_GAP)
        elif rung.end and rung.end[0] in ("N", "PE"):
            x = INCOMER_X + LINE_GAP * (3 if rung.end == ("N",) else 4)
            elements = [p for p in rung.path.parts if isinstance(p, Element)]
            first = next(s for s in pad.seats if len(s.element.poles) == 3)
            for one in elements:
                pad.seats.append(Seat(one, x, first.top, first.bottom))
            pad.wires.append(Wire(x, INCOMING_TOP + 1, x, first.top))
    taken = 0
    for rung in power:
        x = FIRST_LOAD_X + taken * LOAD_STEP
        taken += _slots(rung)
        if rung.circuit in beyond:
            pad.put_chain(rung, beyond[rung.circuit], x)
        else:
            pad.put(rung.path, x, POWER_TOP, POWER_BOTTOM, LINE_GAP)
        earth = next(
            (r for r in circuits.rungs if r.circuit == rung.circuit and r.band is Band.POWER and r.start == ("PE",)),
            None,
        )
        for part in earth.path.parts if earth else ():
            if isinstance(part, Element):
                pad.seats.append(Seat(part, x + 3.2 * LINE_GAP, BELOW, BELOW + 10))
    title = "Incoming supply and motors" if incoming else "Motors"
    return Sheet(
        number,
        title,
        None,
        (*incoming, *power),
        tuple(pad.seats),
        tuple(pad.wires),
        tuple(pad.dots),
        tuple(pad.landings),
    )


def _control_sheet(number: int, circuit: CircuitId, tap: Rung, control: list[Rung]) -> Sheet:
    pad = _Pad()
    needed = sum(_width(r.path) for r in control)
    step = COLUMN * min(2.1, 8.6 / max(needed, 1))
    x = FIRST_X + COLUMN * 1.4
    feed = [p for p in tap.path.parts if isinstance(p, Element)]
    for one in feed:
        pad.seats.append(Seat(one, x, TAP_TOP, RAIL_TOP))
    first = x
    last = x
    for rung in control:
        pad.put(rung.path, x, RAIL_TOP, RAIL_BOTTOM, step)
        pad.dots += [(x, RAIL_TOP), (x, RAIL_BOTTOM)]
        last = x
        x += step * _width(rung.path)
    pad.wires += [
        Wire(first, RAIL_TOP, last, RAIL_TOP, "live"),
        Wire(first - 8, RAIL_BOTTOM, max(last, first + COLUMN) + 8, RAIL_BOTTOM, "return"),
    ]
    title = control[0].title.split(":")[0] if control else tap.title
    return Sheet(
        number,
        f"{title}, control",
        circuit,
        (tap, *control),
        tuple(pad.seats),
        tuple(pad.wires),
        tuple(pad.dots),
        tuple(pad.landings),
    )
