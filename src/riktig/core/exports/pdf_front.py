"""What frames a set of papers: its cover, its contents, and the title block of every page."""

from collections.abc import Sequence
from dataclasses import dataclass

from riktig.core.exports.pdf import FOOT, HEAD, MARGIN, MM, PdfPen, SetHead
from riktig.core.geometry import Align, Face, Rect, Text, run_of
from riktig.core.labels import LEADING, FittedText, LetterLimits, fit_text

__all__ = ["GUTTER", "LINES", "Cover", "SheetHead", "draw_contents", "draw_cover", "draw_title_block"]

GUTTER = 8.0
"""Between columns, mm."""
LINES = 34
"""Lines of the contents in a column."""
LEAST = 1.8
"""The smallest capital in a title block, mm (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Cover:
    """What stands on the first page: for whom the set is, and what the nameplate says."""

    reader: str
    nameplate: Sequence[tuple[str, str]]
    heading: str = "Nameplate"


@dataclass(frozen=True, slots=True)
class SheetHead:
    """What is said of one page: its size, mm, its title, and its scale."""

    size: tuple[float, float]
    title: str
    scale: str


def draw_title_block(pen: PdfPen, head: SetHead, sheet: SheetHead, place: tuple[int, int]) -> None:
    """The heading of a page, and the block at its foot."""
    (width, height), (number, count) = sheet.size, place
    right = width - MARGIN
    title = _shortened(sheet.title, right - MARGIN, 4.0, 3.4)
    pen.words(MARGIN, height - MARGIN - 3.4, title.lines[0], title.size, bold=True)
    pen.line(MARGIN, height - MARGIN - 5.6, right, height - MARGIN - 5.6, "line", 0.3)
    page = f"{number} of {count}"
    rows = (
        (("Company", head.company, 3.0), ("Job", head.title, 4.0), ("No.", head.number, 2.2),
         ("Drawing", head.drawing_number, 2.2)),
        (("Revision", head.revision, 1.2), ("Date", head.made, 1.8), ("Drawn", head.drawn, 1.8),
         ("Checked", "", 1.8), ("Standard", head.standard, 3.2), ("Scale", sheet.scale, 1.6), ("Page", page, 1.8)),
    )  # fmt: skip
    top = FOOT - 3.0
    for cells in rows:
        whole, x = sum(share for _, _, share in cells), MARGIN
        for name, value, share in cells:
            wide = (right - MARGIN) * share / whole
            _block_cell(pen, Rect(x, top - 5.0, wide, 5.0), name, value)
            x += wide
        top -= 5.0


def _block_cell(pen: PdfPen, cell: Rect, name: str, value: str) -> None:
    """A cell of a title block: a small name, and what it says beside it."""
    for x1, y1, x2, y2 in (
        (cell.x, cell.y, cell.right, cell.y), (cell.x, cell.bottom, cell.right, cell.bottom),
        (cell.x, cell.y, cell.x, cell.bottom), (cell.right, cell.y, cell.right, cell.bottom),
    ):  # fmt: skip
        pen.line(x1, y1, x2, y2)
    pen.words(cell.x + 1.0, cell.y + 1.6, name, 1.8, "quiet")
    begin = cell.x + 2.4 + run_of(name, mono=False) * 1.8
    _put_lines(pen, _shortened(value, cell.right - begin - 0.8, 4.4, 2.2), begin, cell.y + 2.5)


def _shortened(text: str, width: float, height: float, most: float) -> FittedText:
    """A text in a room; of one that does not fit the beginning: the cover says all of it."""
    fitted, shown = fit_text(text, width, height, most, limits=LetterLimits(LEAST)), text
    while fitted is None and shown:
        shown = shown[:-1]
        fitted = fit_text(f"{shown.rstrip()}…", width, height, LEAST, limits=LetterLimits(LEAST))
    return fitted or FittedText((text,), LEAST)


def _put_lines(pen: PdfPen, fitted: FittedText, x: float, middle: float, role: str = "ink") -> None:
    """Lines of a text about a height, mm from the page's lower left."""
    y = middle + fitted.height / 2 - fitted.size
    for line in fitted.lines:
        pen.words(x, y, line, fitted.size, role)
        y -= LEADING * fitted.size


def draw_cover(head: SetHead, cover: Cover, size: tuple[float, float], count: int, pen: PdfPen) -> None:
    """Job, reader, what the nameplate says, and a table for revisions to be signed."""
    width, height = size
    middle, top = width / 2, height - 42.0
    pen.words(MARGIN, top, head.number, 9.0, bold=True)
    title = _shortened(head.title, middle - MARGIN - 8, 30.0, 5.0)
    _put_lines(pen, title, MARGIN, top - 6 - title.height / 2)
    below = top - 20 - title.height
    for name, value in (
        ("For", head.client), ("Made by", head.company), ("Drawing", head.drawing_number),
        ("Revision", head.revision), ("Date", head.made), ("Standard", head.standard), ("Pages", f"{count}"),
    ):  # fmt: skip
        if value:
            below -= _named_line(pen, (MARGIN, below), (name, value), (26.0, middle - MARGIN - 34))
    pen.words(middle, top, cover.heading, 3.4, bold=True)
    below = top - 8
    for name, value in cover.nameplate:
        below -= _named_line(pen, (middle, below), (name, value), (56.0, width - MARGIN - middle - 56))
    _revisions(pen, head, width)


def _named_line(pen: PdfPen, at: tuple[float, float], words: tuple[str, str], room: tuple[float, float]) -> float:
    """What something is called, and beside it what it is, in as many lines as it takes; how high it is, mm."""
    (x, y), (name, value), (indent, width) = at, words, room
    pen.words(x, y, name, 2.2, "quiet")
    fitted = _shortened(value or "not stated", width, 14.0, 2.6)
    _put_lines(pen, fitted, x + indent, y + fitted.size - fitted.height / 2, "ink" if value else "judgement")
    return 6.2 + fitted.height - fitted.size


def _revisions(pen: PdfPen, head: SetHead, width: float) -> None:
    """The revision that this is, and rows for what is changed by hand until the next issue."""
    columns = (("Revision", 20.0), ("Date", 30.0), ("What was changed", 0.0), ("Drawn", 32.0), ("Checked", 32.0))
    spare = width - 2 * MARGIN - sum(wide for _, wide in columns)
    base, row = FOOT + 6.0, 7.0
    pen.words(MARGIN, base + 4 * row + 3, "Revisions", 3.0, bold=True)
    texts = ((head.revision, head.made, "", head.drawn, ""), ("",) * 5, ("",) * 5)
    for number in range(5):
        pen.line(MARGIN, base + number * row, width - MARGIN, base + number * row)
    x = MARGIN
    for column, (name, wide) in enumerate(columns):
        room = wide or spare
        pen.line(x, base, x, base + 4 * row)
        pen.words(x + 1.5, base + 3 * row + 2.4, name, 2.0, "quiet")
        for number, cells in enumerate(texts):
            pen.words(x + 1.5, base + (2 - number) * row + 2.2, cells[column], 2.4)
        x += room
    pen.line(x, base, x, base + 4 * row)


def draw_contents(entries: Sequence[tuple[str, str, int]], ahead: int, size: tuple[float, float], pen: PdfPen) -> None:
    """Titles with their pages, in two columns; each leads to its page."""
    width, height = size
    column = (width - 2 * MARGIN - GUTTER) / 2
    line = (height - MARGIN - HEAD - FOOT - 4) / LINES
    for place, (name, title, page) in enumerate(entries):
        x = MARGIN + (place // LINES) * (column + GUTTER)
        y = height - MARGIN - HEAD - 4 - (place % LINES) * line
        shown = _shortened(title, column - 16, line - 1.0, 2.6)
        pen.words(x, y, shown.lines[0], shown.size)
        pen.text(Text(x + column, y, str(page + ahead), 2.6, "ink", Face.WORDS, Align.RIGHT))
        pen.line(x, y - 1.3, x + column, y - 1.3, "hair", 0.15)
        pen.canvas.linkRect("", name, (x * MM, (y - 1.3) * MM, (x + column) * MM, (y + 3) * MM), relative=0)
