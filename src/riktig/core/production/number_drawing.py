"""The list of numbers as a picture: ends by place, a link between neighbours, a pulled wire from place to place."""

from collections.abc import Callable, Iterable, Sequence
from itertools import pairwise

from riktig.core.geometry import Align, Circle, Drawing, Face, Point, Poly, Rect, Shape, Text, run_of
from riktig.core.job import PinRef
from riktig.core.keys import Key, NetKey, PinKey
from riktig.core.production.numbers import NumberState, NumberStatus
from riktig.core.schematic import DOOR, PLATE, EndsInPlace

__all__ = ["draw_numbers"]

WIDE, HEAD, LINE = 236.0, 9.0, 6.4
CHIP, SIZE, GAP = 4.6, 2.3, 2.6
COLUMNS = {PLATE: (34.0, 104.0), DOOR: (112.0, 150.0), "": (158.0, 204.0)}
"""From and to of the columns: plate, door, field, mm."""


def draw_numbers(states: Sequence[NumberState], label: Callable[[PinRef], str], chosen: Key | None = None) -> Drawing:
    """A row a number; its key is that of the potential, an end's that of its pin.

    Args:
        states: What is shown, in order.
        label: How a pin is called: “K1:13”.
        chosen: Key of the potential that is marked.
    """
    shapes: list[Shape] = []
    titles = (("Number", 4.0), ("On the plate", 34.0), ("On the door", 112.0), ("In the field", 158.0))
    for text, x in titles:
        shapes.append(Text(x, 6, text, 2.6, "second", Face.BOLD))
    y = HEAD
    for state in states:
        y = _row(shapes, state, label, y, chosen == NetKey(state.net))
    if not states:
        shapes.append(Text(4, HEAD + 6, "No number is left in this list.", 3.2, "second"))
    return Drawing(WIDE, max(y + 3, 30.0), tuple(shapes), "Numbers")


def _row(shapes: list[Shape], state: NumberState, label: Callable[[PinRef], str], y: float, chosen: bool) -> float:
    key = NetKey(state.net)
    by_column: dict[str, list[EndsInPlace]] = {PLATE: [], DOOR: [], "": []}
    for ends in state.ends_of_number.places:
        by_column[ends.place if ends.place in by_column else ""].append(ends)
    laid = {column: _chips(ends, label, *COLUMNS[column], y + 2.2) for column, ends in by_column.items() if ends}
    lines = max([1, *(count for _, count in laid.values())])
    height = max(2.4 + lines * LINE, 10.6)
    back = Rect(2, y, WIDE - 4, height)
    corners = tuple(Point(*c) for c in ((back.x, y), (back.right, y), (back.right, back.bottom), (back.x, back.bottom)))
    shapes.append(Poly(corners, "act" if chosen else "hair", 0.7 if chosen else 0.3, closed=True, fill="card", key=key))
    size = min(4.4, 17.0 / max(run_of(state.number, mono=True), 1.0))
    shapes.append(Text(12, y + 6.6, state.number, size, face=Face.PRINTED_BOLD, key=key))
    shapes += _sign(7.0, y + 5.0, state.standing, key)
    first: dict[str, Rect] = {}
    for column, (chips, _) in laid.items():
        first[column] = chips[0][1]
        for (_, before), (joined, rect) in pairwise(chips):
            shapes.append(_joint(before, rect, pulled=not joined))
        for (_, rect), (pin, text) in zip(chips, _named(by_column[column], label), strict=True):
            shapes += _chip(rect, text, PinKey(pin))
    shapes += _pulled(first, {column: chips[-1][1] for column, (chips, _) in laid.items()}, y)
    caption = f"{state.ends_of_number.pulled} pulled, {_count(state.ends_of_number.links)}"
    shapes.append(Text(WIDE - 4, y + 4.6, caption, 2.3, "second", align=Align.RIGHT, key=key))
    if state.wires:
        done = f"{state.finished} of {len(state.wires)} in"
        shapes.append(Text(WIDE - 4, y + 8.6, done, 2.3, "third", align=Align.RIGHT, key=key))
    fields = [field_end for field_end in state.field if field_end.done]
    if fields:
        shapes.append(Text(204, y + height - 0.9, f"{len(fields)} of {len(state.field)} done", 1.9, "meets",
                          align=Align.RIGHT, key=key))  # fmt: skip
    return y + height + 1.2


def _count(links: int) -> str:
    return "1 link" if links == 1 else f"{links} links"


def _named(groups: Iterable[EndsInPlace], label: Callable[[PinRef], str]) -> list[tuple[PinRef, str]]:
    return [(pin, label(pin)) for ends in groups for pin in ends.pins]


def _chips(
    groups: Iterable[EndsInPlace], label: Callable[[PinRef], str], left: float, right: float, top: float
) -> tuple[list[tuple[bool, Rect]], int]:
    """Where each end of a column stands, whether a link joins it to the one before, and how many lines they take."""
    chips: list[tuple[bool, Rect]] = []
    x, y, lines = left, top, 1
    for ends in groups:
        for place, pin in enumerate(ends.pins):
            width = run_of(label(pin), mono=True) * SIZE + 2.0
            if x > left and x + width > right:
                x, y, lines = left, y + LINE, lines + 1
            chips.append((place > 0, Rect(x, y, width, CHIP)))
            x += width + GAP
    return chips, lines


def _chip(rect: Rect, text: str, key: Key | None) -> list[Shape]:
    corners = ((rect.x, rect.y), (rect.right, rect.y), (rect.right, rect.bottom), (rect.x, rect.bottom))
    return [
        Poly(tuple(Point(*c) for c in corners), "line", 0.25, closed=True, fill="panel", key=key),
        Text(rect.x + rect.width / 2, rect.y + 3.2, text, SIZE, face=Face.PRINTED, align=Align.MIDDLE, key=key),
    ]


def _joint(before: Rect, after: Rect, *, pulled: bool) -> Shape:
    """A link, or a pulled wire, drawn to the next end; down and back where the line is full."""
    middle = before.y + CHIP / 2
    role, width = ("act", 0.6) if pulled else ("ink", 0.8)
    if after.y == before.y:
        way: tuple[tuple[float, float], ...] = ((before.right, middle), (after.x, middle))
        return Poly(tuple(Point(*c) for c in way), role, width, dashed=pulled)
    low, down = before.bottom + (after.y - before.bottom) / 2, after.y + CHIP / 2
    way = ((before.right, middle), (before.right + 1.2, middle), (before.right + 1.2, low), (after.x - 1.6, low),
           (after.x - 1.6, down), (after.x, down))  # fmt: skip
    return Poly(tuple(Point(*c) for c in way), role, width, dashed=pulled)


def _pulled(first: dict[str, Rect], last: dict[str, Rect], y: float) -> list[Shape]:
    """Wires from place to place: dashed, from the end of one column to the beginning of the next."""
    shapes: list[Shape] = []
    there = [column for column in (PLATE, DOOR, "") if column in first]
    for near, other in pairwise(there):
        a, b = last[near], first[other]
        x = b.x - 3.0
        way = ((a.right, a.y + CHIP / 2), (x, a.y + CHIP / 2), (x, b.y + CHIP / 2), (b.x, b.y + CHIP / 2))
        shapes.append(Poly(tuple(Point(*c) for c in way), "act", 0.6, dashed=True))
    return shapes


def _sign(x: float, y: float, standing: NumberStatus, key: Key | None) -> list[Shape]:
    """None: an empty ring; part: half full; complete: a full one with a tick."""
    shapes: list[Shape] = [Circle(x, y, 2.3, "second", 0.5, "card", key=key)]
    if standing is NumberStatus.PART:
        half = tuple(Point(x - 2.3 * c, y + 2.3 * s) for c, s in ((0, -1), (0.71, -0.71), (1, 0), (0.71, 0.71), (0, 1)))
        shapes.append(Poly(half, "act", 0.2, closed=True, fill="act", key=key))
    elif standing is NumberStatus.COMPLETE:
        tick = (Point(x - 1.1, y + 0.1), Point(x - 0.3, y + 1.0), Point(x + 1.2, y - 1.0))
        shapes += [Circle(x, y, 2.3, "act", 0.5, "act", key=key), Poly(tick, "card", 0.7)]
    return shapes
