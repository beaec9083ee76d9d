"""Wires as pictures: the batches as cards, and the way of one wire over the plate."""

from collections.abc import Iterable

from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Point, Poly, Rect, Shape, Text, run_of
from riktig.core.keys import BatchKey, Key, WireKey
from riktig.core.plate import RULER, Layout, box
from riktig.core.standards import conductor_name
from riktig.core.wiring.model import Batch, Wire, WireId, Wiring

__all__ = ["draw_batches", "mini_plate", "route_shapes", "wire_roles"]

CARD, GAP, WIDE = 21.0, 3.0, 152.0
"""So wide that a card is read whole beside the details in a window of 1280 points, mm."""
LONGEST_BAR = 46.0


def draw_batches(wiring: Wiring, finished: dict[str, int], chosen: Key | None = None) -> Drawing:
    """The batches in the order they go in, a card each; the key of each is that of its batch.

    Args:
        wiring: All wires, in the order of their batches.
        finished: Wires of each batch that are finished, by batch number as text.
        chosen: Key of the wire whose batch is marked.
    """
    shapes: list[Shape] = []
    longest = max((batch.cut for batch in wiring.batches), default=1.0)
    by_key = {wire.key: wire for wire in wiring.wires}
    for index, batch in enumerate(wiring.batches):
        rect = Rect(2, 2 + index * (CARD + GAP), WIDE - 4, CARD)
        is_chosen = isinstance(chosen, WireKey) and chosen.wire in batch.wires
        shapes += _card(batch, by_key, rect, longest, finished.get(str(batch.number), 0), is_chosen)
    height = 4 + len(wiring.batches) * (CARD + GAP)
    return Drawing(WIDE, height, tuple(shapes), "Batches")


def _card(
    batch: Batch, by_key: dict[WireId, Wire], rect: Rect, longest: float, finished: int, chosen: bool
) -> list[Shape]:
    key = BatchKey(batch.number)
    x, y = rect.x, rect.y
    count = len(batch.wires)
    title = min(3.3, 46.0 / run_of(batch.stage.value, mono=False))  # it ends before the drawn wires begin
    shapes: list[Shape] = [
        box(rect, "act" if chosen else "hair", 0.7 if chosen else 0.35, "card", key, "card"),
        Text(x + 7, y + 12.5, str(batch.number), 5.4, "third", Face.BOLD, Align.MIDDLE, key=key),
        Text(x + 15, y + 8, batch.stage.value, title, face=Face.BOLD, key=key),
        Text(x + 15, y + 13.2, _between(batch.areas), 2.7, key=key),
        Text(x + 15, y + 17.6, batch.places, 2.7, "second", key=key),
    ]
    left, top = x + 66, y + 2.8
    length = max(LONGEST_BAR * batch.cut / longest, 14.0)
    numbers = list(dict.fromkeys(by_key[k].number for k in batch.wires))
    named = f"{conductor_name(batch.mm2)} {batch.colour}"
    room = rect.right - 3 - (left + 20 + run_of(named, mono=False) * 2.7) - 3
    shown = _as_many(numbers, room / 2.6)
    lines = min(count, 5)
    for n in range(lines):
        shapes += wire_bar(left, top + n * 2.1, length, batch.colour, key)
    shapes += [
        Text(left, y + 18.6, f"{batch.cut:g} mm", 2.7, face=Face.PRINTED, key=key),
        Text(left + 20, y + 18.6, named, 2.7, "second", key=key),
        Text(rect.right - 18, y + 9.5, str(count), 5.0, face=Face.BOLD, align=Align.RIGHT, key=key),
        Text(rect.right - 16.5, y + 9.5, "wire" if count == 1 else "wires", 2.7, "second", key=key),
    ]
    shapes.append(Text(rect.right - 3, y + 16.6, shown, 2.6, "second", Face.PRINTED, Align.RIGHT, key=key))
    bar = Rect(rect.right - 29, y + 11.2, 26, 1.4)
    shapes.append(box(bar, "line", 0.25, "panel", key, "card"))
    if finished:
        done = Rect(bar.x, bar.y, bar.width * finished / count, bar.height)
        shapes.append(box(done, "act", 0, "act", key, "card"))
    shapes.append(Text(rect.right - 3, y + 4.6, f"{finished} of {count} in", 2.4, "third", align=Align.RIGHT, key=key))
    return shapes


def _as_many(numbers: list[str], room: float) -> str:
    """As many numbers as there is room for, in widths of their size; “…” for the others."""
    for count in range(min(len(numbers), 4), 0, -1):
        text = ", ".join(numbers[:count]) + (" …" if len(numbers) > count else "")
        if run_of(text, mono=True) <= room:
            return text
    return ""


def _between(areas: tuple[str, str]) -> str:
    """“R1 to R3”, “within R2”."""
    first, second = areas
    return f"within {first}" if first == second else f"{first} to {second}"


def wire_roles(colour: str) -> tuple[str, str]:
    """The drawing colours of an insulation and of its stripe; "" where it has none."""
    if colour == "green-yellow":
        return "wire green-yellow", "wire stripe"
    body, _, stripe = colour.partition("-")
    return f"wire {body}", f"wire {stripe}" if stripe else ""


def wire_bar(x: float, y: float, length: float, colour: str, key: Key | None) -> list[Shape]:
    """A made-up wire: bare ends, markers, insulation with an ink edge so that it reads on paper."""
    role, striped = wire_roles(colour)
    shapes: list[Shape] = [
        Line(x - 3, y, x + length + 3, y, "third", 0.7, layer="wire", key=key),
        Line(x, y, x + length, y, "ink", 1.7, layer="wire", key=key),
        Line(x + 0.15, y, x + length - 0.15, y, role, 1.3, layer="wire", key=key),
    ]
    if striped:
        at = x + 1.5
        while at < x + length - 2:
            shapes.append(Line(at, y, at + 1.6, y, striped, 1.3, layer="wire", key=key))
            at += 4.0
    for at in (x + 5, x + length - 9):
        shapes.append(box(Rect(at, y - 0.85, 4, 1.7), "ink", 0.2, "card", key, "wire"))
    return shapes


def route_shapes(wires: Iterable[Wire], *, shift: float = RULER, width: float = 1.6) -> list[Shape]:
    """The way of wires over the plate drawing; the part over the door is dashed.

    Args:
        wires: The wires.
        shift: How far everything is moved, mm.
        width: Outer width, mm.
    """
    shapes: list[Shape] = []
    for wire in wires:
        role = "wire green-yellow" if wire.colour == "green-yellow" else "live"
        points = tuple(Point(p.x + shift, p.y + shift) for p in _square(wire.route))
        if len(points) < 2:
            continue
        shapes.append(Poly(points, role, width, layer="route", key=WireKey(wire.key)))
        for end in (points[0], points[-1]):
            shapes.append(Circle(end.x, end.y, width * 1.5, role, 0, role, "route"))
    return shapes


def _square(points: tuple[Point, ...]) -> list[Point]:
    """Corner points with level and upright steps only; what lies on a straight between two of them is left out."""
    done: list[Point] = []
    for point in points:
        if done and abs(done[-1].x - point.x) > 0.1 and abs(done[-1].y - point.y) > 0.1:
            _add_point(done, Point(point.x, done[-1].y))
        _add_point(done, point)
    return done


def _add_point(done: list[Point], point: Point) -> None:
    """Adds a point; the one before goes when the two runs there are one straight."""
    if len(done) > 1:
        a, b = done[-2], done[-1]
        level = a.y == b.y == point.y and (b.x - a.x) * (point.x - b.x) >= 0
        upright = a.x == b.x == point.x and (b.y - a.y) * (point.y - b.y) >= 0
        if level or upright:
            done[-1] = point
            return
    done.append(point)


def mini_plate(layout: Layout, wires: Iterable[Wire], chosen: frozenset[str]) -> Drawing:
    """A small plate with outlines only, the chosen devices filled, and the way of some wires.

    Args:
        layout: The plate: where everything stands.
        wires: The wires.
        chosen: The wires that are shown.
    """
    shapes: list[Shape] = [box(layout.plate, "line", 2.0, "panel")]
    shapes += [box(duct.rect, "hair", 1.0, "duct") for duct in layout.ducts]
    for seat in layout.seats:
        on = seat.device in chosen
        shapes.append(box(seat.rect, "act" if on else "third", 2.2 if on else 1.0, "chosen" if on else "card"))
    shapes += route_shapes(wires, shift=0.0, width=4.0)
    door = [p.x for wire in wires for p in wire.route]
    right = max([layout.plate.right, *door]) + 6
    return Drawing(right, layout.plate.bottom + 6, tuple(shapes), "Plate")
