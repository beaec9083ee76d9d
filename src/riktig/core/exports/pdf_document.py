"""A set of papers as one PDF: cover, contents with links, title blocks, drawings, and lists that flow on."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path
from typing import Any

from riktig.core.exports.pdf import (
    FOOT,
    HEAD,
    MARGIN,
    MM,
    Page,
    PaperSheet,
    PdfPen,
    SetHead,
    fitting_scale,
    new_canvas,
    page_size,
    room_of,
)
from riktig.core.exports.pdf_tables import BENCH_CELL, CELL, natural_width, split_table, table_of
from riktig.core.exports.schedule_model import Schedule
from riktig.core.geometry import Align, Face, Rect, Text, legible, run_of
from riktig.core.labels import fit_text

__all__ = ["Cover", "PaperTexts", "write_document", "write_set"]

LEAST_ON_PAPER = 1.8
"""The smallest capital of a drawing on paper, mm (chosen by us: what is read at arm's length)."""
LIST = (110.0, 60.0)
"""Least width of a list beside a drawing, and least height of one below it, mm (chosen by us)."""
GUTTER, BETWEEN, TITLE = 8.0, 6.0, 8.0
"""Between columns of a list, between one list and the next, and what a heading takes, mm."""
LOWEST = 30.0
"""Less height than this at the foot of a page is left free, mm (chosen by us)."""
LINES = 34
"""Lines of the contents in a column."""


@dataclass(frozen=True, slots=True)
class Cover:
    """What stands on the first page: for whom the set is, and what the nameplate says."""

    reader: str
    nameplate: Sequence[tuple[str, str]]


@dataclass(frozen=True, slots=True)
class PaperTexts:
    """What a set consists of."""

    pages: Sequence[Page]
    """Drawings, a page each."""
    schedules: Sequence[Schedule]
    bench: frozenset[str] = frozenset()
    """Names of schedules that are read at the bench: set larger."""


@dataclass(slots=True)
class _Sheet:
    """One page before the count of all is known."""

    size: tuple[float, float]
    title: str
    scale: str = ""
    draws: list[Callable[[PdfPen], object]] = field(default_factory=list)
    marks: list[str] = field(default_factory=list)
    """Names of the places on it that the contents lead to."""


def write_set(
    path: Path,
    head: SetHead,
    pages: Sequence[Page],
    schedules: Sequence[Schedule],
    step: Callable[[float, str], None] = lambda share, text: None,
) -> None:
    """Writes drawings and schedules as one PDF without cover and contents; the same input gives the same file.

    Args:
        path: Where it is written; an existing file is replaced.
        head: For the title block of every page.
        pages: Drawings, a page each.
        schedules: Tables.
        step: Told how far it is; may raise to stop.
    """
    sheet = pages[0].sheet if pages else PaperSheet.A4
    _Document(head, sheet).write(path, PaperTexts(pages, schedules), None, step)


def write_document(
    path: Path,
    head: SetHead,
    texts: PaperTexts,
    cover: Cover,
    paper: PaperSheet = PaperSheet.A4,
    step: Callable[[float, str], None] = lambda share, text: None,
) -> None:
    """Writes a set with cover and contents as one PDF; the same input gives the same file.

    Args:
        path: Where it is written; an existing file is replaced.
        head: For the title block of every page.
        texts: What it consists of.
        cover: The first page.
        paper: What lists, cover and contents are printed on.
        step: Told how far it is; may raise to stop.
    """
    _Document(head, paper).write(path, texts, cover, step)


class _Document:
    def __init__(self, head: SetHead, paper: PaperSheet) -> None:
        self._head, self._paper = head, paper
        self._sheets: list[_Sheet] = []
        self._entries: list[tuple[str, str, int]] = []
        """Of the contents: the name of the place, its title, and its page from the first drawing on."""
        self._low = 0.0
        """How far down the last page of lists is filled, mm from its top; 0: no list may go on there."""

    def write(self, path: Path, texts: PaperTexts, cover: Cover | None, step: Callable[[float, str], None]) -> None:
        """Lays all pages out, counts them, and draws them."""
        total = len(texts.pages) + len(texts.schedules)
        for index, page in enumerate(texts.pages):
            step(0.8 * index / total, page.drawing.title)
            self._drawing(page, bench=bool(page.parts))
        for index, schedule in enumerate(texts.schedules, len(texts.pages)):
            step(0.8 * index / total, schedule.title)
            self._list(schedule, BENCH_CELL if schedule.name in texts.bench else CELL)
        ahead = self._front(cover) if cover else []
        canvas = new_canvas(path, self._head)
        pen = PdfPen(canvas)
        sheets = [*ahead, *self._sheets]
        for number, sheet in enumerate(sheets, 1):
            step(0.8 + 0.2 * number / len(sheets), sheet.title)
            canvas.setPageSize((sheet.size[0] * MM, sheet.size[1] * MM))
            for mark in sheet.marks:
                canvas.bookmarkPage(mark)
                title = next((title for name, title, _ in self._entries if name == mark), sheet.title)
                canvas.addOutlineEntry(title, mark, 0)
            for draw in sheet.draws:
                draw(pen)
            self._title_block(pen, sheet, number, len(sheets))
            canvas.showPage()
        canvas.save()

    def _sheet(self, size: tuple[float, float], title: str, scale: str = "") -> _Sheet:
        sheet = _Sheet(size, title, scale)
        self._sheets.append(sheet)
        self._low = 0.0
        return sheet

    def _enter(self, title: str) -> None:
        """A place that the contents lead to, on the last page."""
        name = f"p{len(self._entries)}"
        self._sheets[-1].marks.append(name)
        self._entries.append((name, title, len(self._sheets)))

    def _drawing(self, page: Page, *, bench: bool) -> None:
        """A page with one drawing, and its list."""
        size, place = page_size(page.drawing, page.sheet, to_scale=page.to_scale), (0.0, 0.0, 0.0, 0.0)
        scale = fitting_scale(page.drawing, to_scale=page.to_scale, room=room_of(size))
        if page.parts:
            size, scale, place = _laid_out(page)
        drawing = page.drawing
        sheet = self._sheet(size, drawing.title, f"1 : {1 / scale:g}" if page.to_scale else "none")
        self._enter(drawing.title)
        shapes = drawing.shapes
        if not page.as_it_is:
            around = Rect(0, 0, drawing.width, drawing.height)
            shapes = legible(shapes, LEAST_ON_PAPER / scale, around).shapes
        top = size[1] - MARGIN - HEAD
        sheet.draws.append(lambda pen: pen.marks(shapes, MARGIN, top, scale))
        if page.to_scale:
            sheet.draws.append(_check_line)
        if page.parts:
            self._beside(sheet, page.parts, place, BENCH_CELL if bench else CELL)

    def _beside(self, sheet: _Sheet, schedule: Schedule, place: tuple[float, float, float, float], cell: float) -> None:
        """As much of a list as its place on the sheet holds; what is left goes overleaf."""
        x, y, width, height = place
        first, rest = split_table(table_of(schedule, width * MM, cell=cell), width * MM, height * MM)
        if first is None:
            self._list(schedule, cell)
            return
        sheet.draws.append(partial(_put, first, x, sheet.size[1] - y, width))
        if rest is not None:
            self._rest(rest, width, schedule.title, sheet.size)

    def _rest(self, table: Any, width: float, title: str, size: tuple[float, float]) -> None:
        """What goes on of a list beside a drawing: on pages of the same size, as wide as it was, in columns."""
        room, high = room_of(size)
        count = max(int((room + GUTTER) // (width + GUTTER)), 1)
        rest: Any | None = table
        while rest is not None:
            sheet = self._sheet(size, f"{title}, continued")
            for column in range(count):
                if rest is None:
                    break
                first, rest = split_table(rest, width * MM, high * MM)
                if first is None:
                    first, rest = rest, None
                x = MARGIN + column * (width + GUTTER)
                sheet.draws.append(partial(_put, first, x, size[1] - MARGIN - HEAD, width))

    def _list(self, schedule: Schedule, cell: float) -> None:
        """A schedule below the one before where there is room, in as many columns as it is narrow."""
        size = self._paper.size
        room, high = room_of(size)
        count = max(min(int((room + GUTTER) // (natural_width(schedule, cell=cell) / MM + GUTTER)), 4), 1)
        if len(schedule.rows) < 8:
            count = 1
        width = (room - GUTTER * (count - 1)) / count
        table = table_of(schedule, width * MM, cell=cell)
        _, tall = table.wrap(width * MM, 1e6)
        least = TITLE + min(tall / MM / count, 24.0) + 2
        if not self._sheets or not self._low or self._low + BETWEEN + least > high:
            self._sheet(size, schedule.title)
        else:
            self._low += BETWEEN
        self._enter(schedule.title)
        rest: Any | None = table
        while rest is not None:
            sheet, top = self._sheets[-1], self._low
            if top:  # the heading of a page is that of the first list on it
                sheet.draws.append(partial(_heading, schedule.title, size[1] - MARGIN - HEAD - top))
                top += TITLE
            rest, used = self._columns(sheet, rest, (width, high - top, count), top)
            self._low = top + used
            if rest is not None:
                self._sheet(size, f"{schedule.title}, continued")
        if self._low > high - LOWEST:
            self._low = 0.0

    def _columns(
        self, sheet: _Sheet, table: Any, room: tuple[float, float, int], top: float
    ) -> tuple[Any | None, float]:
        """Fills the columns of a page: what goes on, and how much height was used, mm."""
        width, high, count = room
        _, tall = table.wrap(width * MM, 1e6)
        even = tall / MM / count + (14.0 if count > 1 else 0.0)
        each, used = min(high, even) if count > 1 else high, 0.0
        rest: Any | None = table
        for column in range(count):
            if rest is None:
                break
            first, rest = split_table(rest, width * MM, each * MM)
            if first is None:  # a row that is taller than the page is not parted
                first, rest = rest, None
            assert first is not None
            _, height = first.wrap(width * MM, 1e6)
            used = max(used, height / MM)
            x = MARGIN + column * (width + GUTTER)
            sheet.draws.append(partial(_put, first, x, sheet.size[1] - MARGIN - HEAD - top, width))
        return rest, used

    def _front(self, cover: Cover) -> list[_Sheet]:
        """Cover and contents."""
        size = self._paper.size
        per_page = 2 * LINES
        contents = [self._entries[at : at + per_page] for at in range(0, len(self._entries), per_page)] or [[]]
        ahead = 1 + len(contents)
        first = _Sheet(size, cover.reader, marks=["cover"])
        first.draws.append(partial(_cover, self._head, cover, size, len(self._sheets) + ahead))
        sheets = [first]
        for entries in contents:
            sheet = _Sheet(size, "Contents")
            sheet.draws.append(partial(_contents, entries, ahead, size))
            sheets.append(sheet)
        return sheets

    def _title_block(self, pen: PdfPen, sheet: _Sheet, number: int, count: int) -> None:
        """The heading of a page, and the block at its foot."""
        head, (width, height) = self._head, sheet.size
        right = width - MARGIN
        title = fit_text(sheet.title, right - MARGIN, 5.0, 3.4, least=1.8)
        if number > 1 or sheet.title != "":
            pen.words(
                MARGIN,
                height - MARGIN - 3.4,
                title.lines[0] if title else sheet.title,
                title.size if title else 1.8,
                bold=True,
            )
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
    fitted = fit_text(value, cell.right - begin - 0.8, 4.4, 2.2, least=1.8)
    if fitted is None:
        shorter = value
        while shorter and fitted is None:
            shorter = shorter[:-1]
            fitted = fit_text(f"{shorter}…", cell.right - begin - 0.8, 4.4, 1.8, least=1.8)
    for n, line in enumerate(fitted.lines if fitted and value else ()):
        size = fitted.size if fitted else 1.8
        middle = cell.y + 2.5 - (len(fitted.lines) if fitted else 1) * size / 2
        pen.words(begin, middle + (len(fitted.lines) - 1 - n if fitted else 0) * 1.35 * size, line, size)


def _heading(title: str, y: float, pen: PdfPen) -> None:
    pen.words(MARGIN, y - 4.6, title, 3.0, bold=True)


def _put(table: Any, x: float, top: float, width: float, pen: PdfPen) -> None:
    """Draws a table whose upper left corner lies at a place, mm from the page's lower left."""
    _, height = table.wrapOn(pen.canvas, width * MM, 1e6)
    table.drawOn(pen.canvas, x * MM, top * MM - height)


def _check_line(pen: PdfPen) -> None:
    y = FOOT - 1.4
    pen.line(MARGIN, y, MARGIN + 100, y, "second")
    pen.line(MARGIN, y - 0.8, MARGIN, y + 0.8, "second")
    pen.line(MARGIN + 100, y - 0.8, MARGIN + 100, y + 0.8, "second")
    pen.words(MARGIN + 102, y - 0.8, "100 mm on paper", 1.8, "second")


def _cover(head: SetHead, cover: Cover, size: tuple[float, float], count: int, pen: PdfPen) -> None:
    """Job, reader, what the nameplate says, and a table for revisions to be signed."""
    width, height = size
    middle, top = width / 2, height - 42.0
    pen.words(MARGIN, top, head.number, 9.0, bold=True)
    title = fit_text(head.title, middle - MARGIN - 8, 24.0, 5.0) if head.title else None
    for n, line in enumerate(title.lines if title else ()):
        pen.words(MARGIN, top - 13 - n * 7, line, title.size if title else 5.0)
    below = top - 13 - 7 * (len(title.lines) if title else 0) - 6
    for name, value in (
        ("For", head.client), ("Made by", head.company), ("Drawing", head.drawing_number),
        ("Revision", head.revision), ("Date", head.made), ("Standard", head.standard), ("Pages", f"{count}"),
    ):  # fmt: skip
        if value:
            pen.words(MARGIN, below, name, 2.2, "quiet")
            pen.words(MARGIN + 26, below, value, 2.6)
            below -= 6.2
    pen.words(middle, top, "Nameplate", 3.4, bold=True)
    y = top - 8
    for name, value in cover.nameplate:
        pen.words(middle, y, name, 2.2, "quiet")
        fitted = fit_text(value or "not stated", width - MARGIN - middle - 56, 9.0, 2.6, least=1.8)
        for n, line in enumerate(fitted.lines if fitted else (value,)):
            role = "ink" if value else "judgement"
            pen.text(Text(middle + 56, y - n * 4.0, line, fitted.size if fitted else 1.8, role, Face.WORDS))
        y -= 6.2 + (4.0 * (len(fitted.lines) - 1) if fitted else 0.0)
    _revisions(pen, head, width)


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


def _contents(entries: Sequence[tuple[str, str, int]], ahead: int, size: tuple[float, float], pen: PdfPen) -> None:
    """Titles with their pages, in two columns; each leads to its page."""
    width, height = size
    column = (width - 2 * MARGIN - GUTTER) / 2
    line = (height - MARGIN - HEAD - FOOT - 4) / LINES
    for place, (name, title, page) in enumerate(entries):
        x = MARGIN + (place // LINES) * (column + GUTTER)
        y = height - MARGIN - HEAD - 4 - (place % LINES) * line
        fitted = fit_text(title, column - 16, line, 2.6, least=1.8)
        shown = fitted.lines[0] if fitted and len(fitted.lines) == 1 else title
        pen.words(x, y, shown, fitted.size if fitted and len(fitted.lines) == 1 else 1.8)
        pen.text(Text(x + column, y, str(page + ahead), 2.6, "ink", Face.WORDS, Align.RIGHT))
        pen.line(x, y - 1.3, x + column, y - 1.3, "hair", 0.15)
        pen.canvas.linkRect("", name, (x * MM, (y - 1.3) * MM, (x + column) * MM, (y + 3) * MM), relative=0)


def _laid_out(page: Page) -> tuple[tuple[float, float], float, tuple[float, float, float, float]]:
    """The sheet's size, the scale, and where the list stands: x and y of its upper left corner, width and height.

    Of a list beside the drawing and one below it, that which leaves the drawing larger.
    """
    across, down = page.sheet.size
    best = None
    for size in ((across, down), (down, across)):
        width, height = room_of(size)
        for room in ((width - LIST[0], height), (width, height - LIST[1])):
            scale = fitting_scale(page.drawing, to_scale=page.to_scale, room=room)
            if best is None or scale > best[1] + 1e-9:
                wide, high = page.drawing.width * scale, page.drawing.height * scale
                beside = room[1] == height
                x, y = (MARGIN + wide + 4, MARGIN + HEAD) if beside else (MARGIN, MARGIN + HEAD + high + 4)
                best = size, scale, (x, y, size[0] - MARGIN - x, size[1] - FOOT - y)
    assert best is not None
    return best
