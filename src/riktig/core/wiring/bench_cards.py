"""A batch as a card for the bench: half a sheet with its wires drawn at scale, where each lands, and boxes to tick.

Each card holds a few wires, so that every text is read at arm's length; a larger batch has several. The bar of a wire
is as long as it is cut, beside the others of the batch; what is trimmed off when it is in is drawn hollow.
"""

from collections.abc import Callable, Iterable, Sequence

from riktig.core.geometry import Align, Drawing, Face, Line, Rect, Shape, Text, code_marks, moved, run_of, scaled
from riktig.core.keys import BatchKey, WireKey
from riktig.core.plate import Layout, box
from riktig.core.standards import conductor_name, conductor_type
from riktig.core.wiring.draw import mini_plate, wire_bar
from riktig.core.wiring.model import Batch, Wire, WireEnd, Wiring

__all__ = ["CARD_WIDTH", "LEAST", "bench_cards", "bench_sheets", "stacked"]

CARD_WIDTH = 186.0
"""As wide as both A4 and Letter have room for, mm."""
LEAST_CARD, SHEET = 58.0, 238.0
"""A card is at least so high; cards stand one below the other on a sheet up to this height, mm (chosen by us)."""
BETWEEN = 2.0
MOST = 7
"""Wires on a card (chosen by us: a hand holds so many)."""
TOP, STEP = 33.0, 11.9
FROM_X, BAR_X, BAR, TO_X = 3.0, 37.0, 40.0, 82.0
TICKS_X, TICK, TICK_STEP = 114.0, 4.4, 8.4
TICKS = ("cut", "mark", "strip", "land")
PLATE_X, PLATE_WIDTH = 150.0, 33.0
LEAST = 2.5
"""Height of a capital that is read at the bench, mm (chosen by us)."""
WIDEST_LABEL = 31.0


def no_code(batch: int) -> str:
    """No code on any card."""
    return ""


CODE = 21.0
"""The side of a card's code, mm (chosen by us: read from half a metre)."""


def bench_cards(wiring: Wiring, batch: Batch, layout: Layout, *, flexible: bool, code: str = "") -> tuple[Drawing, ...]:
    """The cards of one batch.

    Args:
        wiring: All wires.
        batch: The batch.
        layout: The plate: where each part stands.
        flexible: Whether conductors are of class 5, with ferrules.
        code: What a scanner reads off the card; "" without one.
    """
    by_key = {wire.key: wire for wire in wiring.wires}
    wires = [by_key[key] for key in batch.wires]
    parts = [wires[at : at + MOST] for at in range(0, len(wires), MOST)]
    cards: list[Drawing] = []
    for n, part in enumerate(parts, 1):
        height = max(TOP + STEP * len(part) + 2.0, LEAST_CARD)
        shapes = (
            box(Rect(0.5, 0.5, CARD_WIDTH - 1, height - 1), "line", 0.35, "card", BatchKey(batch.number), "card"),
            *_head(batch, (n, len(parts)), flexible, code),
            *(mark for row, wire in enumerate(part) for mark in _row(wire, TOP + row * STEP, batch.cut)),
            *_plate(part, layout, height),
        )
        cards.append(Drawing(CARD_WIDTH, height, shapes, f"Batch {batch.number}"))
    return tuple(cards)


def bench_sheets(
    wiring: Wiring, layout: Layout, *, flexible: bool, code: Callable[[int], str] = no_code
) -> tuple[Drawing, ...]:
    """The cards of all batches, as many below each other as a sheet holds, to be cut apart.

    Args:
        wiring: All wires.
        layout: The plate: where each part stands.
        flexible: Whether conductors are of class 5, with ferrules.
        code: What a scanner reads off the card of a batch, by its number.
    """
    return stacked(
        card
        for batch in wiring.batches
        for card in bench_cards(wiring, batch, layout, flexible=flexible, code=code(batch.number))
    )


def stacked(cards: Iterable[Drawing]) -> tuple[Drawing, ...]:
    """Sheets with as many cards below each other as they hold.

    Args:
        cards: All of the width of a card.
    """
    sheets: list[list[Shape]] = []
    below = SHEET
    for card in cards:
        if below + BETWEEN + card.height > SHEET:
            sheets.append([])
            below = -BETWEEN
        else:
            y = below + BETWEEN / 2
            sheets[-1].append(Line(0, y, CARD_WIDTH, y, "hair", 0.2, dashed=True))
        sheets[-1] += [moved(mark, 0.0, below + BETWEEN) for mark in card.shapes]
        below += BETWEEN + card.height
    return tuple(Drawing(CARD_WIDTH, SHEET, tuple(shapes), "Cards for the bench") for shapes in sheets)


def _head(batch: Batch, which: tuple[int, int], flexible: bool, code: str) -> Iterable[Shape]:
    """Number, stage, between where, conductor and cut length, and what the boxes are for."""
    key = BatchKey(batch.number)
    number, count = which
    first, second = batch.areas
    between = f"within {first}" if first == second else f"{first} to {second}"
    conductor = f"{conductor_name(batch.mm2)} {batch.colour}, {conductor_type(batch.mm2, flexible=flexible)}"
    yield Text(4, 15, str(batch.number), 9.0, face=Face.BOLD, key=key)
    left = 8 + run_of(str(batch.number), mono=False) * 9.0
    yield Text(left, 8.5, batch.stage.value, 4.2, face=Face.BOLD, key=key)
    yield Text(left, 15, between, 3.4, key=key)
    yield Text(left, 21, conductor, 3.2, key=key)
    right = CARD_WIDTH - 4
    if code:
        yield from code_marks(code, Rect(CARD_WIDTH - CODE - 2, 2, CODE, CODE), key)
        right -= CODE
    yield Text(right, 13, f"{batch.cut:g} mm", 7.0, face=Face.PRINTED_BOLD, align=Align.RIGHT, key=key)
    text = f"{len(batch.wires)} wires" if len(batch.wires) > 1 else "1 wire"
    text += f", {batch.total / 1000:.2f} m" + (f", card {number} of {count}" if count > 1 else "")
    yield Text(right, 20.5, text, 3.0, "second", align=Align.RIGHT, key=key)
    yield Line(3, 25, CARD_WIDTH - 3, 25, "hair", 0.3)
    for n, word in enumerate(TICKS):
        yield Text(TICKS_X + n * TICK_STEP + TICK / 2, TOP - 2.0, word, LEAST, "second", align=Align.MIDDLE)


def _row(wire: Wire, y: float, longest: float) -> Iterable[Shape]:
    key = WireKey(wire.key)
    whole = max(BAR * wire.cut / longest, 16.0)
    drawn_length = max(whole * wire.length / wire.cut, 12.0)
    middle = y + 4.2
    yield from _end(wire.start, FROM_X, y)
    if drawn_length < whole - 0.5:
        yield box(
            Rect(BAR_X + drawn_length, middle - 0.9, whole - drawn_length, 1.8), "third", 0.25, "card", key, "wire"
        )
    yield from (_thick(mark) for mark in wire_bar(BAR_X, middle, drawn_length, wire.colour, key))
    yield Text(BAR_X + drawn_length / 2, y + 1.6, wire.number, 3.2, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key)
    yield Text(BAR_X + whole / 2, y + 9.2, f"{wire.length:g} mm", LEAST, "second", align=Align.MIDDLE, key=key)
    yield from _end(wire.end, TO_X, y)
    for n in range(len(TICKS)):
        yield box(Rect(TICKS_X + n * TICK_STEP, y + 1.6, TICK, TICK), "ink", 0.3, "card", key, "card")


def _thick(mark: Shape) -> Shape:
    """A line of a drawn wire, half as thick again as on the small cards of the window."""
    return mark._replace(width=mark.width * 1.6) if isinstance(mark, Line) else mark


def _end(end: WireEnd, x: float, y: float) -> Iterable[Shape]:
    """Where an end lands and what goes on it; a ferrule by its size and colour alone."""
    fitting = end.fitting.removeprefix("ferrule ")
    yield Text(x, y + 4.6, end.label, _fitted(end.label, 3.6, mono=True), face=Face.PRINTED_BOLD)
    yield Text(x, y + 9.2, fitting, _fitted(fitting, LEAST, mono=False), "second")


def _fitted(text: str, size: float, *, mono: bool) -> float:
    """The size of a text, smaller where it would run beyond its column."""
    return min(size, WIDEST_LABEL / max(run_of(text, mono=mono), 1.0))


def _plate(wires: Sequence[Wire], layout: Layout, height: float) -> Iterable[Shape]:
    """The plate in small: the parts where the ends land, and the lanes between them."""
    owners = frozenset(end.pin.device for wire in wires for end in (wire.start, wire.end))
    plate = mini_plate(layout, wires, owners)
    factor = min(PLATE_WIDTH / plate.width, (height - TOP + 4.0) / plate.height)
    for mark in plate.shapes:
        yield moved(scaled(mark, factor), PLATE_X, TOP - 6.0)
