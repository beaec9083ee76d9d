"""Ruler, row letters, title block, and the sheet of symbols used."""

from dataclasses import dataclass

from riktig.core.geometry import Align, Drawing, Face, Line, Point, Poly, Shape, Text, bounds_of, run_of
from riktig.core.schematic.layout.ladder_page import LADDER_WIDTH, MARGIN, frame_bottom
from riktig.core.schematic.layout.sheet_model import (
    COLUMN,
    FIRST_X,
    FIRST_Y,
    FRAME_BOTTOM,
    FRAME_RIGHT,
    ROW,
    SHEET_HEIGHT,
    Sheet,
)
from riktig.core.schematic.model.elements import Circuits, elements_of
from riktig.core.schematic.symbols.choose import symbol_of, symbol_words

__all__ = [
    "ON_LEGEND",
    "SMALL",
    "TITLE_LAYER",
    "Heading",
    "broken",
    "cell_frame",
    "frame_shapes",
    "legend_shapes",
    "line_frame",
    "symbols_used",
    "without_title_block",
]

SMALL = 2.6
LINE_STEP, MOST_LINES = 3.4, 3
"""Of a text in the title block: from line to line, mm, and how many there is room for."""
ON_LEGEND = 30
"""Symbols on one sheet of symbols used."""
UPRIGHT_SAYS = (
    "2.3: sheet and column; 2.3.C adds the row. A number in colour is a place where something goes on.",
    "Under a coil: its contacts and where they are; spare ones last. Beside a contact: where its coil is.",
)
LADDER_SAYS = (
    "The lines of a ladder are numbered at the left, on from sheet to sheet; 2.3 on a power sheet is sheet and column.",
    "At the right of a coil: the lines of its contacts. In brackets beside a contact: the line of its coil.",
)
"""What the sheet of symbols says of references."""
LINE_UP, LINE_DOWN = 13.5, 9.0
"""Of a frame around a line of a ladder, mm."""
BLOCK_TOP = FRAME_BOTTOM + 1.5
BLOCK_BOTTOM = SHEET_HEIGHT - 2.0


@dataclass(frozen=True, slots=True)
class Heading:
    """What the title block says of the job."""

    number: str
    title: str
    client: str
    drawing_number: str
    revision: str


def frame_shapes(sheet: Sheet, heading: Heading, count: int) -> list[Shape]:
    """The frame with columns 0 to 9 and rows A to F, and the title block below it; of a ladder the block alone."""
    if sheet.is_ladder:
        right = LADDER_WIDTH - 3
        low = frame_bottom(sheet)
        around = ((MARGIN, MARGIN), (right, MARGIN), (right, low), (MARGIN, low))
        border = Poly(tuple(Point(*c) for c in around), "second", 0.3, closed=True, layer="frame")
        return [border, *_title_block(sheet, heading, count, right, low - FRAME_BOTTOM)]
    corners = ((FIRST_X, FIRST_Y), (FRAME_RIGHT, FIRST_Y), (FRAME_RIGHT, FRAME_BOTTOM), (FIRST_X, FRAME_BOTTOM))
    shapes: list[Shape] = [Poly(tuple(Point(*c) for c in corners), "second", 0.3, closed=True, layer="frame")]
    for n in range(10):
        x = FIRST_X + n * COLUMN
        shapes.append(Text(x + COLUMN / 2, FIRST_Y - 2.2, str(n), SMALL, "second", align=Align.MIDDLE, layer="frame"))
        if n:
            shapes.append(Line(x, FIRST_Y, x, FIRST_Y + 1.6, "second", layer="frame"))
    for n, letter in enumerate("ABCDEF"):
        y = FIRST_Y + n * ROW
        shapes.append(Text(FIRST_X - 3, y + ROW / 2 + 1, letter, SMALL, "second", align=Align.MIDDLE, layer="frame"))
        if n:
            shapes.append(Line(FIRST_X, y, FIRST_X + 1.6, y, "second", layer="frame"))
    return shapes + _title_block(sheet, heading, count)


TITLE_LAYER = "title"
"""Of the block with job and sheet at the foot: pages with a title block of their own leave it out."""


def without_title_block(drawing: Drawing) -> Drawing:
    """A sheet without the block at its foot, for a page that has one of its own.

    Args:
        drawing: The sheet.
    """
    shapes = tuple(mark for mark in drawing.shapes if mark.layer != TITLE_LAYER)
    if len(shapes) == len(drawing.shapes):
        return drawing
    bottom = max((bounds_of(mark).bottom for mark in shapes), default=drawing.height)
    return Drawing(drawing.width, min(bottom + MARGIN, drawing.height), shapes, drawing.title)


def cell_frame(column: int, row: str = "") -> Poly:
    """A frame around a place of a sheet: a column and a row, or the whole column.

    Args:
        column: The column, 0 to 9.
        row: The row, A to F.
    """
    x = FIRST_X + column * COLUMN
    at = "ABCDEF".find(row) if row else -1
    top, bottom = (FIRST_Y + at * ROW, FIRST_Y + (at + 1) * ROW) if at >= 0 else (FIRST_Y, FRAME_BOTTOM)
    corners = ((x, top), (x + COLUMN, top), (x + COLUMN, bottom), (x, bottom))
    return Poly(tuple(Point(*c) for c in corners), "act", 0.7, closed=True, dashed=True)


def line_frame(sheet: Sheet, line: int) -> Poly | None:
    """A frame around a line of a ladder; None where the sheet has no such line.

    Args:
        sheet: The sheet.
        line: Its number.
    """
    at = line - sheet.first_line
    if not 0 <= at < len(sheet.lines):
        return None
    top, bottom, right = sheet.lines[at] - LINE_UP, sheet.lines[at] + LINE_DOWN, LADDER_WIDTH - 4
    corners = ((MARGIN + 1, top), (right, top), (right, bottom), (MARGIN + 1, bottom))
    return Poly(tuple(Point(*c) for c in corners), "act", 0.7, closed=True, dashed=True)


def _title_block(
    sheet: Sheet, heading: Heading, count: int, right: float = FRAME_RIGHT, lower: float = 0.0
) -> list[Shape]:
    """The title block up to ``right``, mm, ``lower`` than on an upright sheet."""
    top, bottom = BLOCK_TOP + lower, BLOCK_BOTTOM + lower
    corners = ((FIRST_X, top), (right, top), (right, bottom), (FIRST_X, bottom))
    shapes: list[Shape] = [Poly(tuple(Point(*c) for c in corners), "second", 0.3, closed=True, layer=TITLE_LAYER)]
    title_cells = (
        ("Job", f"{heading.number}  {heading.client}".strip()),
        ("Title", heading.title),
        ("Sheet", sheet.title),
        ("Drawing", heading.drawing_number),
        ("Revision, sheet", f"{heading.revision}   {sheet.number} of {count}"),
    )
    order = (0, 1, 2, 3, 4)
    whole = right - FIRST_X
    cells = (*(whole * share for share in (0.0, 0.2, 0.452, 0.748, 0.87)), whole)
    for n in order:
        x, width = FIRST_X + cells[n], cells[n + 1] - cells[n]
        if n:
            shapes.append(Line(x, top, x, bottom, "second", layer=TITLE_LAYER))
        what, text = title_cells[n]
        shapes.append(Text(x + 1.6, top + 3.6, what, SMALL, "third", layer=TITLE_LAYER))
        face = Face.BOLD if n == 2 else Face.WORDS
        for k, line in enumerate(reversed(_fitted(text, width - 3.2))):
            shapes.append(Text(x + 1.6, bottom - 1.5 - k * LINE_STEP, line, SMALL, face=face, layer=TITLE_LAYER))
    return shapes


def _fitted(text: str, width: float) -> list[str]:
    """A text in as many lines as there is room for; what still does not fit ends in “…”."""
    lines = [""]
    for word in text.split():
        longer = f"{lines[-1]} {word}".strip()
        if SMALL * run_of(longer, mono=False) <= width or not lines[-1]:
            lines[-1] = longer
        elif len(lines) < MOST_LINES:
            lines.append(word)
        else:
            lines[-1] = lines[-1].rstrip(" ,:") + "…"
            break
    return lines


def legend_shapes(circuits: Circuits, page: int, *, north_american: bool) -> list[Shape]:
    """A page of the symbols that the sheets use, each once, with what it says; and the other signs of the drawing."""
    shapes: list[Shape] = [
        Text(FIRST_X + 6, FIRST_Y + 9, "Symbols used on these sheets", 3.4, face=Face.BOLD),
        Text(
            FIRST_X + 6,
            FIRST_Y + 14.5,
            "Drawn at rest: nothing pressed, nothing energised, breakers and protectors off.",
            SMALL,
            "second",
        ),
    ]
    used = symbols_used(circuits)[page * ON_LEGEND : (page + 1) * ON_LEGEND]
    columns, high = 5, 19.0
    for n, (words, kind_id, unit) in enumerate(used):
        x = FIRST_X + 15 + (n % columns) * 44.8
        y = FIRST_Y + 21 + (n // columns) * high
        shapes += symbol_of(kind_id, unit, north_american)(x, y, y + 13.0, None)
        for k, part in enumerate(broken(words, 12)[:5]):
            shapes.append(Text(x + 7.5, y + 3.4 + k * 3.3, part, SMALL, "second"))
    y = FRAME_BOTTOM - 13
    for k, line in enumerate(
        (
            *(LADDER_SAYS if north_american else UPRIGHT_SAYS),
            "“door” and “field” say where a device stands; without a word it stands on the plate.",
        )
    ):
        shapes.append(Text(FIRST_X + 6, y + k * 4.2, line, SMALL, "second"))
    return shapes


def symbols_used(circuits: Circuits) -> list[tuple[str, str, str]]:
    """The symbols in use: words, and a kind and unit to draw them from."""
    kinds = {device.id: device.kind_id for device in circuits.devices}
    cells: dict[str, tuple[str, str, str]] = {}
    for rung in circuits.rungs:
        for element in elements_of(rung.path):
            for pole in element.poles[:1]:
                words = symbol_words(kinds[pole.device], pole.unit)
                cells.setdefault(words, (words, kinds[pole.device], pole.unit))
    return [cells[words] for words in sorted(cells)]


def broken(text: str, most: int) -> list[str]:
    """A text in lines of at most ``most`` characters, broken between words where it can be."""
    lines = [""]
    for word in text.split():
        if lines[-1] and len(lines[-1]) + 1 + len(word) > most:
            lines.append(word)
        else:
            lines[-1] = f"{lines[-1]} {word}".strip()
    return lines
