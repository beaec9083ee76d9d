"""A strip as it is built from the left, and below it each cable as it opens into its cores, terminal by terminal.

Read a row from the field to the panel: the core with its name and where it comes from, the terminal, the number and
where the wire inside goes. Terminals that no cable reaches stand last.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from riktig.core.geometry import Align, Drawing, Face, Line, Point, Poly, Rect, Shape, Text, moved, run_of
from riktig.core.keys import DeviceKey
from riktig.core.plate import box
from riktig.core.terminals.cables import Cable
from riktig.core.terminals.strips import LandedCore, Strip, Strips, TerminalRow
from riktig.core.wiring import JUMPER, wire_roles

__all__ = ["BLOCKS", "PAGE_HEIGHT", "draw_blocks", "draw_strip", "draw_strips", "strip_pages"]

WIDTH = 208.0
ROW = 8.6
SHEATH_X, OPENS_AT, FAN_TO = 6.0, 48.0, 66.0
"""Where the sheath begins, where it is stripped, and where its cores lie one below the other, mm."""
TILE_X, TILE = 112.0, 26.0
NUMBER_AT, INSIDE_X = 151.0, 166.0
CAPTION, SMALL = 3.2, 2.6
CARD_HEAD, CARD_GAP = 12.0, 6.0
BLOCK_WIDE, BLOCK_TALL, BLOCKS_IN_LINE = 8.2, 12.0, 24
"""Of the strip as it is built: a block, and how many stand in one line."""
BLOCKS = "blocks"
"""The layer of the blocks of a strip as it is built, in their order."""
PAGE_HEIGHT = 262.0
"""Cards fill a page up to this height, mm: on A4 upright they are printed little smaller than drawn."""


@dataclass(frozen=True, slots=True)
class _Card:
    """Marks from the upper left corner on, and their height, mm; ``begins`` a strip of its own."""

    shapes: tuple[Shape, ...]
    height: float
    begins: bool = False


def draw_strip(strip: Strip, strips: Strips) -> Drawing:
    """One strip with its cables; keys are ``device:`` and the id.

    Args:
        strip: The strip.
        strips: The terminal strips and the cables that land on them.
    """
    return _stacked(_cards(strip, strips), f"Terminal strip {strip.tag}")


def draw_blocks(strip: Strip, in_line: int = 12) -> Drawing:
    """The blocks of a strip as they are pushed on from the left, with their jumpers, without cables.

    Args:
        strip: The strip.
        in_line: How many blocks stand in a line before it goes on below.
    """
    shapes: list[Shape] = [Text(SHEATH_X, 8, strip.tag, 5.5, face=Face.PRINTED_BOLD)]
    blocks, height = _block_lines(strip, 20.0, in_line)
    wide = SHEATH_X + min(len(strip.rows), in_line) * BLOCK_WIDE + SHEATH_X
    return Drawing(max(wide, 70.0), height, (*shapes, *blocks), f"Strip {strip.tag}")


def draw_strips(strips: Strips) -> tuple[Drawing, ...]:
    """All strips, a drawing each."""
    return tuple(draw_strip(strip, strips) for strip in strips.strips)


def strip_pages(strips: Strips, height: float = PAGE_HEIGHT) -> tuple[Drawing, ...]:
    """All strips and cables one after the other on pages; a cable is never parted, a strip begins with its heading.

    Args:
        strips: The terminal strips and the cables that land on them.
        height: Of a page, mm; a cable taller than that has a page of its own.
    """
    pages: list[list[_Card]] = [[]]
    for strip in strips.strips:
        cards = _cards(strip, strips)
        for place, card in enumerate(cards):
            with_next = card.height + (cards[place + 1].height if card.begins and place + 1 < len(cards) else 0.0)
            used = sum(other.height + CARD_GAP for other in pages[-1])
            if pages[-1] and used + with_next > height:
                pages.append([])
            pages[-1].append(card)
    return tuple(_stacked(page, "Terminals and field cables") for page in pages if page)


def _stacked(cards: Sequence[_Card], title: str) -> Drawing:
    shapes: list[Shape] = []
    y = 4.0
    for card in cards:
        shapes += [moved(mark, 0.0, y) for mark in card.shapes]
        y += card.height + CARD_GAP
    return Drawing(WIDTH, y, tuple(shapes), title)


def _cards(strip: Strip, strips: Strips) -> list[_Card]:
    cards = [_strip_card(strip)]
    for cable in strips.cables:
        lands = [(row, core) for row in strip.rows for core in row.cores if core.cable == cable.tag]
        if lands:
            cards.append(_cable_card(cable, lands))
    bare = [row for row in strip.rows if not row.cores]
    if bare:
        cards.append(_bare_card(bare))
    return cards


def _strip_card(strip: Strip) -> _Card:
    """The heading of a strip, and its blocks in the order in which they are pushed on, from the left."""
    shapes: list[Shape] = [
        Text(SHEATH_X, 5.5, strip.tag, 5.5, face=Face.PRINTED_BOLD),
        Text(SHEATH_X + 5 + run_of(strip.tag, mono=True) * 5.5, 5.5, strip.purpose, CAPTION, "second"),
        Text(WIDTH - 6, 5.5, f"{len(strip.rows)} terminals, built from the left", SMALL, "second", align=Align.RIGHT),
    ]
    blocks, y = _block_lines(strip, 17.0, BLOCKS_IN_LINE)
    return _Card((*shapes, *blocks), y - 5.0, begins=True)


def _block_lines(strip: Strip, y: float, in_line: int) -> tuple[list[Shape], float]:
    """The blocks of a strip in lines on their rail, and where the next line would begin."""
    shapes: list[Shape] = []
    for begin in range(0, len(strip.rows), in_line):
        line = strip.rows[begin : begin + in_line]
        shapes.append(box(Rect(SHEATH_X - 2, y + 3.5, len(line) * BLOCK_WIDE + 4, 5), "second", 0.25, "rail"))
        for place, row in enumerate(line):
            shapes += _block(row, SHEATH_X + place * BLOCK_WIDE, y, begin + place + 1)
        shapes += _jumpers(line, y)
        y += BLOCK_TALL + 11.0
    return shapes, y


def _block(row: TerminalRow, x: float, y: float, number: int) -> list[Shape]:
    key = DeviceKey(row.device)
    middle = x + BLOCK_WIDE / 2
    size = min(CAPTION, (BLOCK_WIDE - 1.2) / max(run_of(row.mark, mono=True), 0.1))
    turned = size < SMALL
    return [
        box(Rect(x, y, BLOCK_WIDE, BLOCK_TALL), "ink", 0.3, f"terminal {row.colour}", key, BLOCKS),
        Text(
            middle + (1.0 if turned else 0.0),
            y + BLOCK_TALL / 2 + (0.0 if turned else size * 0.4),
            row.mark,
            SMALL if turned else size,
            face=Face.PRINTED_BOLD,
            align=Align.MIDDLE,
            upright=not turned,
            key=key,
        ),
        Text(middle, y + BLOCK_TALL + 3.6, str(number), SMALL, "second", align=Align.MIDDLE, key=key),
    ]


def _jumpers(line: Sequence[TerminalRow], top: float) -> list[Shape]:
    """A comb above the blocks that a jumper bridges, with a tooth on each; one behind another lies at its height."""
    at: dict[str, list[float]] = {}
    for place, row in enumerate(line):
        if row.jumper.startswith(JUMPER):
            at.setdefault(row.jumper, []).append(SHEATH_X + (place + 0.5) * BLOCK_WIDE)
    shapes: list[Shape] = []
    reach: list[float] = []
    """Where the last comb of each height ends."""
    for middles in at.values():
        level = next((height for height, end in enumerate(reach) if end < middles[0]), len(reach))
        reach[level : level + 1] = [middles[-1]]
        y = top - 1.6 - 1.6 * (level % 3)
        shapes.append(Line(middles[0], y, middles[-1], y, "second", 0.9, layer="terminal"))
        shapes += [Line(x, y, x, top + 1.0, "second", 0.9, layer="terminal") for x in middles]
    return shapes


def _cable_card(cable: Cable, lands: Sequence[tuple[TerminalRow, LandedCore]]) -> _Card:
    """A cable from the field: its sheath, stripped, and a row for each of its cores."""
    key = DeviceKey(cable.device)
    height = CARD_HEAD + len(lands) * ROW
    middle = CARD_HEAD + len(lands) * ROW / 2
    length = f", {cable.length_m:g} m" if cable.length_m else ""
    left = run_of(cable.tag, mono=True) * 4.4 + run_of(f"{cable.make_up}{length}", mono=False) * CAPTION
    goes_to = f"to {cable.to}"
    size = min(CAPTION, (WIDTH - SHEATH_X - 16 - left) / max(run_of(goes_to, mono=False), 1.0))
    shapes: list[Shape] = [
        Line(SHEATH_X, 2.0, WIDTH - 6, 2.0, "hair", 0.25),
        Text(SHEATH_X, 8.4, cable.tag, 4.4, face=Face.PRINTED_BOLD, key=key),
        Text(SHEATH_X + 3 + run_of(cable.tag, mono=True) * 4.4, 8.4, f"{cable.make_up}{length}", CAPTION, key=key),
        Text(WIDTH - 6, 8.4, goes_to, max(size, 2.2), "second", align=Align.RIGHT, key=key),
        Poly(
            (
                Point(SHEATH_X, middle - 2.6),
                Point(OPENS_AT, middle - 2.6),
                Point(OPENS_AT, middle + 2.6),
                Point(SHEATH_X, middle + 2.6),
            ),
            "ink",
            0.35,
            closed=True,
            fill="second",
            layer="cable",
            key=key,
        ),
    ]
    for place, (row, core) in enumerate(lands):
        y = CARD_HEAD + (place + 0.5) * ROW
        leaves = middle + (place - (len(lands) - 1) / 2) * min(4.4 / max(len(lands), 1), 1.4)
        role = _core_role(core.name)
        run = (Point(OPENS_AT, leaves), Point(OPENS_AT + 4, leaves), Point(FAN_TO, y), Point(TILE_X, y))
        shapes += [Poly(run, "ink", 1.5, layer="wire"), Poly(run, role, 1.1, layer="wire")]
        name = f"core {core.name}" if core.name.isdigit() else core.name
        shapes += [
            Text(FAN_TO + 1, y - 1.9, name, SMALL, "second", backed=True, key=DeviceKey(row.device)),
            Text(
                TILE_X - 2, y - 1.9, core.field_end, CAPTION, face=Face.PRINTED, align=Align.RIGHT, backed=True, key=key
            ),
        ]
        others = dict.fromkeys(other.cable for other in row.cores if other.cable != cable.tag)
        shapes += _landing(row, y, f"also {', '.join(others)}" if others else "")
    return _Card(tuple(shapes), height)


def _bare_card(rows: Sequence[TerminalRow]) -> _Card:
    """The terminals that no cable reaches."""
    shapes: list[Shape] = [
        Line(SHEATH_X, 2.0, WIDTH - 6, 2.0, "hair", 0.25),
        Text(SHEATH_X, 8.4, "No cable lands on these", CAPTION, "second"),
    ]
    for place, row in enumerate(rows):
        shapes += _landing(row, CARD_HEAD + (place + 0.5) * ROW, "")
    return _Card(tuple(shapes), CARD_HEAD + len(rows) * ROW)


def _landing(row: TerminalRow, y: float, note: str) -> list[Shape]:
    """The terminal of a row, the wire inside and where that goes."""
    key = DeviceKey(row.device)
    shapes: list[Shape] = []
    if row.wire:
        wire, _ = wire_roles(row.wire_colour or "black")
        ends = (TILE_X + TILE, y, INSIDE_X - 1.5, y)
        shapes += [Line(*ends, "ink", 1.5, layer="wire"), Line(*ends, wire, 1.1, layer="wire")]
    shapes += [
        box(Rect(TILE_X, y - ROW * 0.42, TILE, ROW * 0.84), "ink", 0.35, f"terminal {row.colour}", key, "terminal"),
        Text(TILE_X + 6, y + 1.4, row.mark, 3.8, face=Face.PRINTED_BOLD, key=key),
        Text(TILE_X + TILE - 2, y + 1.1, str(row.position), SMALL, "second", align=Align.RIGHT, key=key),
        Text(NUMBER_AT, y - 1.9, row.number, CAPTION, face=Face.PRINTED_BOLD, align=Align.MIDDLE, backed=True, key=key),
    ]
    inside = row.inside or ("" if row.wire or row.jumper else "nothing inside")
    room, size = WIDTH - 6 - INSIDE_X, CAPTION
    if inside and run_of(inside, mono=True) * size > room:
        size = max(room / run_of(inside, mono=True), SMALL)
    lines = _wrapped(inside, room, size)
    for number, line in enumerate(lines):
        at = y + 1.1 + (number - (len(lines) - 1) / 2) * 3.2
        shapes.append(Text(INSIDE_X, at, line, size, face=Face.PRINTED, key=key))
    if note:
        shapes.append(Text(TILE_X + 6, y + ROW * 0.42 + 2.4, note, SMALL, "second", key=key))
    return shapes


def _wrapped(text: str, room: float, size: float) -> list[str]:
    """A text in as many lines as it takes, broken behind commas."""
    lines: list[str] = []
    for part in text.split(", ") if text else ():
        longer = f"{lines[-1]}, {part}" if lines else part
        if lines and run_of(longer, mono=True) * size <= room:
            lines[-1] = longer
        else:
            lines.append(part)
    return lines


def _core_role(core: str) -> str:
    roles = {"blue": "wire light blue"}
    return roles.get(core, f"wire {core}" if not core.isdigit() else "wire black")
