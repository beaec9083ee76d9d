"""Where every element stands: sheets with columns 0 to 9 and rows A to F.

Laying out and drawing are apart: this file decides places, ``draw_sheets`` makes the marks.
"""

from dataclasses import dataclass, replace
from itertools import pairwise

from riktig.core.circuit.model import Band, Circuits, Element, Landing, Rung
from riktig.core.circuit.pad import Pad, width_of
from riktig.core.circuit.power_sheets import POWER_TOP, is_bus, power_sheets
from riktig.core.circuit.sheet_model import (
    COLUMN,
    FIRST_X,
    FRAME_RIGHT,
    RAIL_BOTTOM,
    RAIL_TOP,
    TAP_TOP,
    Arrow,
    Place,
    Rail,
    Seat,
    Sheet,
    SheetKind,
    Sheets,
    Wire,
    place_at,
)
from riktig.core.job import CircuitId, pin_id

__all__ = ["lay_out"]

START_X = FIRST_X + 27.0
"""Where the first path of a control sheet stands: room for tags at its left."""
MOST_COLUMNS = 7
"""Paths side by side on one control sheet, so that no label meets its neighbour."""
WIDEST = 2.1 * COLUMN
GAP_COLUMNS = 0.6
"""Between two circuits on one sheet, in columns."""
SMALL = 4
"""Circuits up to so many paths share a sheet with others."""


def lay_out(circuits: Circuits) -> Sheets:
    """Places every element: power sheets first, then control sheets circuit by circuit, then the symbols used."""
    sheets = power_sheets(circuits)
    sheets += _control_sheets(circuits, len(sheets))
    sheets.append(Sheet(len(sheets) + 1, SheetKind.LEGEND.value.capitalize(), SheetKind.LEGEND, (), (), (), (), (), ()))
    joined = _with_arrows(sheets)
    places = {
        seat.element.id: place_at(sheet.number, seat.x, (seat.top + seat.bottom) / 2)
        for sheet in joined
        for seat in sheet.seats
    }
    touched = {
        landing.device: place_at(sheet.number, x, y) for sheet in reversed(joined) for landing, x, y in sheet.landings
    }
    return Sheets(tuple(joined), places, touched)


@dataclass(frozen=True, slots=True)
class _Part:
    """What of a circuit goes onto one sheet: paths that belong together, and their width in columns."""

    circuit: CircuitId
    tap: Rung | None
    rungs: tuple[Rung, ...]
    width: int


def _control_sheets(circuits: Circuits, before: int) -> list[Sheet]:
    titles = dict(circuits.titles)
    parts: list[_Part] = []
    by_circuit: dict[CircuitId, list[Rung]] = {}
    for rung in circuits.rungs:
        if rung.band in (Band.TAP, Band.CONTROL):
            by_circuit.setdefault(rung.circuit, []).append(rung)
    for circuit, rungs in by_circuit.items():
        parts += _parts(circuit, rungs)
    sheets: list[list[_Part]] = []
    taken = 0.0
    for part in parts:
        shares = part.width <= SMALL and sheets and all(one.width <= SMALL for one in sheets[-1])
        if not shares or taken + GAP_COLUMNS + part.width > MOST_COLUMNS:
            sheets.append([])
            taken = -GAP_COLUMNS
        sheets[-1].append(part)
        taken += GAP_COLUMNS + part.width
    return [_control_sheet(before + n + 1, here, titles) for n, here in enumerate(sheets)]


def _parts(circuit: CircuitId, rungs: list[Rung]) -> list[_Part]:
    """A circuit's paths in as many sheets as they need; paths from one node stay beside each other."""
    tap = next((r for r in rungs if r.band is Band.TAP), None)
    rest = [r for r in rungs if r.band is not Band.TAP]
    order = {start: n for n, start in reversed(list(enumerate(r.start for r in rest)))}
    rest.sort(key=lambda r: (tap is None or r.start != tap.end, order[r.start]))
    parts: list[_Part] = []
    here: list[Rung] = []
    taken = 0
    for rung in rest:
        wide = width_of(rung.path)
        if here and taken + wide > MOST_COLUMNS:
            parts.append(_Part(circuit, tap if not parts else None, tuple(here), taken))
            here, taken = [], 0
        here.append(rung)
        taken += wide
    if here or tap:
        parts.append(_Part(circuit, tap if not parts else None, tuple(here), max(taken, 1)))
    return parts


def _control_sheet(number: int, here: list[_Part], titles: dict[CircuitId, str]) -> Sheet:
    pad = Pad()
    rails: list[Rail] = []
    needed = sum(part.width for part in here) + GAP_COLUMNS * (len(here) - 1)
    step = min(WIDEST, (FRAME_RIGHT - START_X - 14) / max(needed - 0.35, 1))
    x = START_X
    for part in here:
        if part.tap:
            _tap(pad, part, x, rails)
        for rung in part.rungs:
            _put_rung(pad, rung, x, step, rails, with_tap=part.tap is not None and rung.start == part.tap.end)
            x += step * width_of(rung.path)
        x += step * GAP_COLUMNS
    names = list(dict.fromkeys(titles.get(part.circuit, str(part.circuit)) for part in here))
    shown = tuple(r for part in here for r in ((part.tap,) if part.tap else ()) + part.rungs)
    return Sheet(
        number, f"{', '.join(names)}: control", SheetKind.CONTROL, tuple(part.circuit for part in here), shown,
        tuple(pad.seats), tuple(pad.wires), tuple(pad.dots), tuple(pad.landings), tuple(rails),
    )  # fmt: skip


def _tap(pad: Pad, part: _Part, x: float, rails: list[Rail]) -> None:
    assert part.tap is not None
    elements = [p for p in part.tap.path.parts if isinstance(p, Element)]
    landing = next((p for p in part.tap.path.parts if isinstance(p, Landing)), None)
    for one in elements:
        pad.seats.append(Seat(one, x, TAP_TOP, RAIL_TOP))
    pin = pin_id(landing.device, landing.pins[0]) if landing else None
    node = part.tap.start[0] if part.tap.start else f"pin:{pin}"
    rails.append(Rail(node, x, x, TAP_TOP, True, pin))


def _put_rung(pad: Pad, rung: Rung, x: float, step: float, rails: list[Rail], *, with_tap: bool) -> None:
    pad.put(rung.path, x, RAIL_TOP, RAIL_BOTTOM, step)
    for nodes, y, top in ((rung.start, RAIL_TOP, True), (rung.end, RAIL_BOTTOM, False)):
        if not nodes:
            continue
        at = next((n for n in range(len(rails) - 1, -1, -1) if rails[n].y == y and rails[n].top is top), None)
        last = rails[at] if at is not None else None
        if at is not None and last and last.node == nodes[0]:
            rails[at] = replace(last, x2=x)
            pad.wires.append(Wire(last.x2, y, x, y))
            pad.dots += [(last.x2, y), (x, y)]
        else:
            rails.append(Rail(nodes[0], x, x, y, top))
            if with_tap and top:
                pad.dots.append((x, y))


def _with_arrows(sheets: list[Sheet]) -> list[Sheet]:
    """Arrows where a node goes on: each stretch of it points back to the one before and on to the next."""
    points: dict[str, list[tuple[int, float, float, float]]] = {}
    for index, sheet in enumerate(sheets):
        for names, x1, x2 in sheet.buses:
            points.setdefault(names[0].split(".")[0], []).append((index, x1, x2, 0.0))
        for rail in sheet.rails:
            key = rail.node.split(".")[0] if is_bus(rail.node) else rail.node
            points.setdefault(key, []).append((index, rail.x1, rail.x2, rail.y))
    _pins_ahead(sheets, points)
    arrows: dict[int, list[Arrow]] = {}
    for node, stretches in points.items():
        for (i, _, right, y), (j, left, _, y2) in pairwise(stretches):
            here, there = _spot(sheets[i], right, y), _spot(sheets[j], left, y2)
            arrows.setdefault(i, []).append(Arrow(node, right, y, here, there, True))
            arrows.setdefault(j, []).append(Arrow(node, left, y2, there, here, False))
    return [replace(sheet, arrows=tuple(arrows.get(n, ()))) for n, sheet in enumerate(sheets)]


def _pins_ahead(sheets: list[Sheet], points: dict[str, list[tuple[int, float, float, float]]]) -> None:
    """The other end of a tap that is taken behind a breaker: at the breaker itself, on its power sheet."""
    for key in [name for name in points if name.startswith("pin:")]:
        owner, pin = key.removeprefix("pin:").rsplit(":", 1)
        for index, sheet in enumerate(sheets):
            for seat in sheet.seats:
                for pole in seat.element.poles[:1]:
                    if pole.device == owner and pole.unit.endswith(f"-{pin}"):
                        points[key].insert(0, (index, seat.x, seat.x, seat.bottom))


def _spot(sheet: Sheet, x: float, y: float) -> Place:
    return place_at(sheet.number, x, y or POWER_TOP - 10)
