"""Where every element stands: sheets with columns 0 to 9 and rows A to F.

Laying out and drawing are apart: this file decides places, ``draw_sheets`` makes the marks.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from itertools import pairwise

from riktig.core.catalogue import Behaviour
from riktig.core.evaluation import KeyedCache, Memory
from riktig.core.job import CircuitId, DeviceId, ElementId, PinRef
from riktig.core.schematic.layout.branch_layout import BranchLayout
from riktig.core.schematic.layout.earth_tree import earth_pages
from riktig.core.schematic.layout.frame import ON_LEGEND, symbols_used
from riktig.core.schematic.layout.power_sheets import BUS_GAP, is_bus, power_sheets
from riktig.core.schematic.layout.sheet_model import (
    COLUMN,
    FIRST_X,
    FRAME_RIGHT,
    MOST_COLUMNS,
    RAIL_BOTTOM,
    RAIL_TOP,
    TAP_TOP,
    Arrow,
    DrawnLine,
    LevelLine,
    Sheet,
    SheetElement,
    SheetKind,
    SheetPlace,
    Sheets,
)
from riktig.core.schematic.layout.split_rungs import RungPiece, first_leaf, is_cut, split_rung
from riktig.core.schematic.model.elements import Band, Circuits, Device, Element, Landing, Rung, elements_of

__all__ = ["LADDER_STEP", "lay_out"]

START_X = FIRST_X + 30.0
"""Where the first path of a control sheet stands: room for tags at its left."""
FIRST_LINE = FIRST_X + 20.0
"""Where the first line of a ladder stands: room for its tags above it."""
WIDEST = 2.0 * COLUMN
LADDER_STEP, ON_LADDER = 24.0, 8
"""From one line of a ladder to the next, mm: tag, pins and words of a symbol need so much; and lines on one sheet."""
GAP_COLUMNS = 0.6
"""Between two circuits on one sheet, in columns."""
SMALL = 5
"""Circuits up to so many paths share a sheet with others."""
MOST_SHARED = 7.2
"""Paths that circuits which share a sheet may have together: their captions need room too."""
_LOADS = {Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD, Behaviour.INPUT, Behaviour.WINDING}


def lay_out(circuits: Circuits, memory: Memory | None = None, *, ladder: bool = False) -> Sheets:
    """Places every element on a sheet.

    Power sheets first, then control sheets circuit by circuit, then the earth tree and the symbols used.

    Args:
        circuits: All devices and rungs of the job.
        memory: What earlier computations of the evaluation left; without it the same, only slower.
        ladder: Whether control paths run level, one below the other, each on a line with a number.
    """
    memory = memory or Memory()
    return memory.recent(Sheets, "sheets").get((circuits, ladder), lambda: _laid_out(circuits, memory, ladder))


def _laid_out(circuits: Circuits, memory: Memory, ladder: bool) -> Sheets:
    sheets = power_sheets(circuits, memory)
    control = _control_sheets(circuits, len(sheets), memory, ladder)
    sheets += _with_lines(control) if ladder else control
    legends = -(-len(symbols_used(circuits)) // ON_LEGEND) or 1
    for kind, pages in ((SheetKind.EARTH, earth_pages(circuits)), (SheetKind.LEGEND, legends)):
        for page in range(pages):
            title = kind.value.capitalize() + (f", {page + 1}" if page else "")
            sheets.append(Sheet(len(sheets) + 1, title, kind, (), (), (), (), (), ()))
    joined = _with_arrows(sheets)
    places: dict[ElementId, SheetPlace] = {}
    cache: KeyedCache[dict[ElementId, SheetPlace]] = memory.memo(dict, "places of a sheet")
    for sheet in joined:
        inputs = (sheet.seats, sheet.first_line, sheet.lines)
        places.update(cache.get(sheet.number, inputs, lambda shown=sheet: _places_of(shown)))  # type: ignore[misc]
    touched = {landing.device: sheet.place(x, y) for sheet in reversed(joined) for landing, x, y in sheet.landings}
    return Sheets(tuple(joined), places, touched)


def _places_of(sheet: Sheet) -> dict[ElementId, SheetPlace]:
    return {seat.element.id: sheet.place(seat.x, (seat.top + seat.bottom) / 2) for seat in sheet.seats}


def _with_lines(sheets: list[Sheet]) -> list[Sheet]:
    """Control sheets as a ladder: every level line has a number, on from sheet to sheet."""
    numbered: list[Sheet] = []
    first = 1
    for sheet in sheets:
        at = {round(x, 2) for x, *_ in sheet.captions} | {round(seat.x, 2) for seat in sheet.seats}
        lines = tuple(sorted(at | {round(x, 2) for _, x, _ in sheet.landings}))
        numbered.append(replace(sheet, lines=lines, first_line=first))
        first += len(lines)
    return numbered


@dataclass(frozen=True, slots=True)
class _Part:
    """What of a circuit goes onto one sheet: paths that belong together, and their width in columns."""

    circuit: CircuitId
    tap: Rung | None
    pieces: tuple[RungPiece, ...]
    width: int

    @property
    def rungs(self) -> tuple[Rung, ...]:
        """What is on the sheet, in order."""
        return (*((self.tap,) if self.tap else ()), *(piece.rung for piece in self.pieces))


def _control_sheets(circuits: Circuits, before: int, memory: Memory, ladder: bool) -> list[Sheet]:
    titles = dict(circuits.titles)
    parts: list[_Part] = []
    by_circuit: dict[CircuitId, list[Rung]] = {}
    for rung in circuits.rungs:
        if rung.band in (Band.TAP, Band.CONTROL):
            by_circuit.setdefault(rung.circuit, []).append(rung)
    for circuit, rungs in by_circuit.items():
        parts += _parts(circuit, rungs, memory, ON_LADDER if ladder else MOST_COLUMNS)
    sheets: list[list[_Part]] = []
    taken = 0.0
    for part in parts:
        shares = part.width <= SMALL and sheets and all(sheet.width <= SMALL for sheet in sheets[-1])
        if not shares or taken + GAP_COLUMNS + part.width > (ON_LADDER if ladder else MOST_SHARED):
            sheets.append([])
            taken = -GAP_COLUMNS
        sheets[-1].append(part)
        taken += GAP_COLUMNS + part.width
    devices = circuits.by_id

    def made(number: int, parts: list[_Part]) -> Sheet:
        named = tuple(titles.get(part.circuit, str(part.circuit)) for part in parts)
        inputs = tuple(item for part in parts for item in (part.circuit, *part.rungs, *(p.path for p in part.pieces)))
        return memory.memo(Sheet, "control sheet").get(
            (number, named, ladder, tuple(len(part.pieces) for part in parts)),
            inputs,
            lambda: _control_sheet(number, parts, titles, devices, LADDER_STEP if ladder else WIDEST),
        )

    return [made(before + n + 1, parts) for n, parts in enumerate(sheets)]


def _parts(circuit: CircuitId, rungs: list[Rung], memory: Memory, most: int) -> list[_Part]:
    """A circuit's paths in as many sheets as they need; paths from one node stay beside each other."""
    tap = next((r for r in rungs if r.band is Band.TAP), None)
    rest = [r for r in rungs if r.band is not Band.TAP]
    order = {start: n for n, start in reversed(list(enumerate(r.start for r in rest)))}
    rest.sort(key=lambda r: (tap is None or r.start != tap.end, order[r.start]))
    cache: KeyedCache[tuple[RungPiece, ...]] = memory.memo(tuple, "pieces of a rung")
    pieces = [piece for rung in rest for piece in cache.get(rung.id, (rung,), lambda r=rung: split_rung(r))]  # type: ignore[misc]
    parts: list[_Part] = []
    on_sheet: list[RungPiece] = []
    taken = 0
    for piece in pieces:
        if on_sheet and taken + piece.width > most:
            parts.append(_Part(circuit, tap if not parts else None, tuple(on_sheet), taken))
            on_sheet, taken = [], 0
        on_sheet.append(piece)
        taken += piece.width
    if on_sheet or tap:
        parts.append(_Part(circuit, tap if not parts else None, tuple(on_sheet), max(taken, 1)))
    return parts


def _control_sheet(
    number: int, parts: list[_Part], titles: dict[CircuitId, str], devices: Mapping[DeviceId, Device], widest: float
) -> Sheet:
    branches = BranchLayout(_loads(parts, devices))
    rails: list[LevelLine] = []
    captions: list[tuple[float, str, str, str]] = []
    needed = sum(part.width for part in parts) + GAP_COLUMNS * (len(parts) - 1)
    step = min(widest, (FRAME_RIGHT - START_X - 14) / max(needed - 0.35, 1))
    x = FIRST_LINE if widest == LADDER_STEP else START_X
    for part in parts:
        if part.tap:
            _tap(branches, part, x, rails)
        title = titles.get(part.circuit, str(part.circuit))
        for n, piece in enumerate(part.pieces):
            goes_on = n > 0 and part.pieces[n - 1].rung is piece.rung
            text = "" if goes_on else piece.rung.title.removeprefix(title).removeprefix(": ")
            captions.append((x, "" if n else title, text, "" if goes_on else piece.rung.id))
            with_tap = part.tap is not None and piece.start == part.tap.end[0]
            branches.put(piece.path, x, RAIL_TOP, RAIL_BOTTOM, step)
            _put_levels(branches, piece, x, rails, devices, with_tap=with_tap)
            x += step * piece.width
        if not part.pieces:
            x += step
        x += step * GAP_COLUMNS
    names = list(dict.fromkeys(titles.get(part.circuit, str(part.circuit)) for part in parts))
    shown = tuple(dict.fromkeys(rung.id for part in parts for rung in part.rungs))
    by_id = {rung.id: rung for part in parts for rung in part.rungs}
    return Sheet(
        number,
        f"{', '.join(names)}: control",
        SheetKind.CONTROL,
        tuple(part.circuit for part in parts),
        tuple(by_id[element_id] for element_id in shown),
        tuple(branches.seats),
        tuple(branches.wires),
        tuple(branches.dots),
        tuple(branches.landings),
        tuple(rails),
        captions=tuple(captions),
    )


def _loads(parts: list[_Part], devices: Mapping[DeviceId, Device]) -> set[ElementId]:
    """The elements that take the current: they stand in a row above the return."""
    return {
        element.id
        for part in parts
        for rung in part.rungs
        for element in elements_of(rung.path)
        if devices[element.device].kind.unit(element.poles[0].unit).behaviour in _LOADS
    }


def _tap(branches: BranchLayout, part: _Part, x: float, rails: list[LevelLine]) -> None:
    assert part.tap is not None
    elements = [p for p in part.tap.path.parts if isinstance(p, Element)]
    landing = next((p for p in part.tap.path.parts if isinstance(p, Landing)), None)
    for element in elements:
        branches.seats.append(SheetElement(element, x, TAP_TOP, RAIL_TOP))
    pin = PinRef(landing.device, landing.pins[0]) if landing else None
    node = part.tap.start[0] if part.tap.start else f"pin:{pin}"
    rails.append(LevelLine(node, x, x, TAP_TOP, True, pin))


def _put_levels(
    branches: BranchLayout,
    piece: RungPiece,
    x: float,
    rails: list[LevelLine],
    devices: Mapping[DeviceId, Device],
    *,
    with_tap: bool,
) -> None:
    """The levels that a piece at ``x`` begins and ends at: a level that is there goes on to it."""
    for node, y, top in ((piece.start, RAIL_TOP, True), (piece.end, RAIL_BOTTOM, False)):
        if not node:
            continue
        at = next((n for n in range(len(rails) - 1, -1, -1) if rails[n].y == y and rails[n].top is top), None)
        last = rails[at] if at is not None else None
        if at is not None and last and last.node == node:
            rails[at] = replace(last, x2=x)
            branches.wires.append(DrawnLine(last.x2, y, x, y))
            branches.dots += [(last.x2, y), (x, y)]
        else:
            rails.append(LevelLine(node, x, x, y, top, _pin_at(piece, devices, first=top) if is_cut(node) else None))
            if with_tap and top:
                branches.dots.append((x, y))


def _pin_at(piece: RungPiece, devices: Mapping[DeviceId, Device], *, first: bool) -> PinRef | None:
    """The pin that a piece begins or ends with: the number of a place where a path was cut is that of its net."""
    parts = piece.path.parts if first else piece.path.parts[::-1]
    leaf = next((leaf_found for part in parts if (leaf_found := first_leaf(part))), None)
    if leaf is None or isinstance(leaf, Landing):
        return PinRef(leaf.device, leaf.pins[0]) if leaf else None
    pole = leaf.poles[0]
    pins = devices[pole.device].kind.unit(pole.unit).pins
    return PinRef(pole.device, pins[0] if first != pole.flipped else pins[-1])


def _with_arrows(sheets: list[Sheet]) -> list[Sheet]:
    """Arrows where a node goes on: each stretch of it points back to the one before and on to the next."""
    points: dict[str, list[tuple[int, float, float, float]]] = {}
    for index, sheet in enumerate(sheets):
        if sheet.bus:
            at = sheet.bus.y + BUS_GAP
            points.setdefault(sheet.bus.nodes[0].split(".")[0], []).append((index, sheet.bus.x1, sheet.bus.x2, at))
        for rail in sheet.rails:
            key = rail.node.split(".")[0] if is_bus(rail.node) else rail.node
            points.setdefault(key, []).append((index, rail.x1, rail.x2, rail.y))
    _pins_ahead(sheets, points)
    arrows: dict[int, list[Arrow]] = {}
    for node, stretches in points.items():
        for (i, _, right, y), (j, left, _, y2) in pairwise(stretches):
            sheet_place, there = sheets[i].place(right, y), sheets[j].place(left, y2)
            arrows.setdefault(i, []).append(Arrow(node, right, y, sheet_place, there, True))
            arrows.setdefault(j, []).append(Arrow(node, left, y2, there, sheet_place, False))
    return [replace(sheet, arrows=tuple(arrows[n])) if n in arrows else sheet for n, sheet in enumerate(sheets)]


def _pins_ahead(sheets: list[Sheet], points: dict[str, list[tuple[int, float, float, float]]]) -> None:
    """The other end of a tap that is taken behind a breaker: at the breaker itself, on its power sheet."""
    if not any(name.startswith("pin:") for name in points):
        return
    for index, sheet in enumerate(sheets):
        for seat in sheet.seats:
            for pole in seat.element.poles[:1]:
                for pin in pole.unit.split("-"):
                    key = f"pin:{PinRef(pole.device, pin)}"
                    if key in points and sheet.kind is SheetKind.POWER:
                        points[key].insert(0, (index, seat.x, seat.x, seat.bottom))
