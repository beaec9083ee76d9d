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
    PlacedPhoto,
    SetHead,
    fitting_scale,
    new_canvas,
    page_size,
    room_of,
)
from riktig.core.exports.pdf_front import GUTTER, LINES, Cover, SheetHead, draw_contents, draw_cover, draw_title_block
from riktig.core.exports.pdf_tables import (
    BENCH_CELL,
    CELL,
    beginning_of,
    grouped,
    joined,
    natural_width,
    split_table,
    table_of,
)
from riktig.core.exports.schedule_model import Schedule
from riktig.core.exports.shared_layouts import SharedLayouts
from riktig.core.geometry import Rect, legible

__all__ = ["Cover", "PaperTexts", "write_document", "write_set"]

LEAST_ON_PAPER = 1.86
"""To what texts of a drawing grow on paper, mm; one that is within a thirtieth of it stays, so none is under 1.8 mm
(chosen by us: what is read at arm's length)."""
LIST = (110.0, 60.0)
"""Least width of a list beside a drawing, and least height of one below it, mm (chosen by us)."""
BETWEEN, TITLE = 6.0, 8.0
"""Between one list and the next, and what a heading takes, mm."""
LOWEST = 30.0
"""Less height than this at the foot of a page is left free, mm (chosen by us)."""
FEW_ROWS = 8
"""A list with fewer rows stands in one column (chosen by us)."""


@dataclass(frozen=True, slots=True)
class PaperTexts:
    """What a set consists of."""

    pages: Sequence[Page]
    """Drawings, a page each."""
    schedules: Sequence[Schedule]
    bench: frozenset[str] = frozenset()
    """Names of schedules that are read at the bench: set larger."""
    shared: SharedLayouts = field(default_factory=SharedLayouts, repr=False, compare=False)
    """Layouts that other sets of the same lists and drawings have made."""


@dataclass(slots=True)
class _Sheet:
    """One page before the count of all is known."""

    size: tuple[float, float]
    title: str
    scale: str = ""
    draws: list[Callable[[PdfPen], object]] = field(default_factory=list)
    marks: list[str] = field(default_factory=list)
    """Names of the places on it that the contents lead to."""
    whole: bool = False
    """Whether the drawing is the whole paper, without a title block."""


def write_set(
    path: Path,
    head: SetHead,
    pages: Sequence[Page],
    schedules: Sequence[Schedule],
    step: Callable[[float, str], None] = lambda share, text: None,
    *,
    paper: PaperSheet | None = None,
) -> None:
    """Writes drawings and schedules as one PDF without cover and contents; the same input gives the same file.

    Args:
        path: Where it is written; an existing file is replaced.
        head: For the title block of every page.
        pages: Drawings, a page each.
        schedules: Tables.
        step: Told how far it is; may raise to stop.
        paper: What lists are printed on; None for that of the first drawing, A4 where there is none.
    """
    sheet = paper or (pages[0].sheet if pages else PaperSheet.A4)
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
    _Document(head, paper, texts.shared).write(path, texts, cover, step)


class _Document:
    def __init__(self, head: SetHead, paper: PaperSheet, shared: SharedLayouts | None = None) -> None:
        self._shared = shared or SharedLayouts()
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
            if not sheet.whole:
                place = (number, len(sheets))
                draw_title_block(pen, self._head, SheetHead(sheet.size, sheet.title, sheet.scale), place)
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
        if page.whole:
            paper, height = page.drawing, page.drawing.height
            sheet = self._sheet((paper.width, height), paper.title, "1 : 1")
            sheet.whole = True
            self._enter(paper.title)
            sheet.draws.append(lambda pen: pen.marks(paper.shapes, 0.0, height, 1.0))
            return
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
            least = LEAST_ON_PAPER / scale
            shapes = self._shared.once(
                drawing, ("legible", least), lambda: legible(drawing.shapes, least, around).shapes
            )
        top = size[1] - MARGIN - HEAD
        sheet.draws.append(lambda pen: pen.marks(shapes, MARGIN, top, scale))
        for photo in page.photos:
            sheet.draws.append(partial(_draw_photo, photo, MARGIN, top, scale))
        if page.to_scale:
            sheet.draws.append(_check_line)
        if page.parts:
            self._table_beside(sheet, page.parts, place, BENCH_CELL if bench else CELL)

    def _table_beside(
        self, sheet: _Sheet, schedule: Schedule, place: tuple[float, float, float, float], cell: float
    ) -> None:
        """As much of a list as its place on the sheet holds; what is left goes overleaf."""
        x, y, width, height = place
        first, rest = split_table(table_of(schedule, width * MM, cell=cell), width * MM, height * MM)
        if first is None:
            self._list(schedule, cell)
            return
        sheet.draws.append(partial(_place_table, first, x, sheet.size[1] - y, width))
        if rest is not None:
            self._table_on_next_sheets(rest, width, schedule.title, sheet.size)

    def _table_on_next_sheets(self, table: Any, width: float, title: str, size: tuple[float, float]) -> None:
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
                sheet.draws.append(partial(_place_table, first, x, size[1] - MARGIN - HEAD, width))

    def _list(self, schedule: Schedule, cell: float) -> None:
        """A schedule below the one before where there is room, in as many columns as it is narrow."""
        size = self._paper.size
        room, high = room_of(size)
        parts = self._shared.once(schedule, ("parts",), lambda: grouped(joined(schedule)))
        widest = self._shared.once(
            schedule, ("widest", cell), lambda: max(natural_width(part, cell=cell) for _, part in parts) / MM
        )
        count = max(min(int((room + GUTTER) // (widest + GUTTER)), 4), 1) if len(schedule.rows) >= FEW_ROWS else 1
        width = (room - GUTTER * (count - 1)) / count
        for number, (common, part) in enumerate(parts):
            make = partial(table_of, part, width * MM, cell=cell, common=common, among=[part for _, part in parts])
            table = self._shared.once(part, ("table", width, cell), make)
            least = (TITLE if number == 0 else 0) + beginning_of(table, width * MM) / MM + 2
            if not self._sheets or not self._low or self._low + BETWEEN + least > high:
                self._sheet(size, f"{schedule.title}, continued" if number else schedule.title)
            else:
                self._low += BETWEEN
            if number == 0:
                self._enter(schedule.title)
            self._flow(table, schedule.title if number == 0 else "", (width, high, count))

    def _flow(self, table: Any, title: str, room: tuple[float, float, int]) -> None:
        """A table from where the last page is filled, over as many pages as it takes."""
        width, high, count = room
        size = self._paper.size
        rest: Any | None = table
        while rest is not None:
            sheet, top = self._sheets[-1], self._low
            if top and title:  # the heading of a page is that of the first list on it
                sheet.draws.append(partial(_heading, title, size[1] - MARGIN - HEAD - top))
                top += TITLE
            rest, used = self._columns(sheet, rest, (width, high - top, count), top)
            self._low = top + used
            if rest is not None:
                self._sheet(size, f"{self._last_title}, continued")
        if self._low > high - LOWEST:
            self._low = 0.0

    @property
    def _last_title(self) -> str:
        """Of the list that is being laid out."""
        return self._entries[-1][1]

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
            first, further = split_table(rest, width * MM, each * MM)
            if first is None and each < high:
                first, further = split_table(rest, width * MM, high * MM)
            if first is None and (top or column):
                break  # its next row is taller than what is left here: it goes on overleaf
            # A row that is taller than a whole page is not parted.
            first, rest = (first, further) if first is not None else (rest, None)
            assert first is not None
            _, height = first.wrap(width * MM, 1e6)
            used = max(used, height / MM)
            x = MARGIN + column * (width + GUTTER)
            sheet.draws.append(partial(_place_table, first, x, sheet.size[1] - MARGIN - HEAD - top, width))
        return rest, used

    def _front(self, cover: Cover) -> list[_Sheet]:
        """Cover and contents."""
        size = self._paper.size
        per_page = 2 * LINES
        contents = [self._entries[at : at + per_page] for at in range(0, len(self._entries), per_page)] or [[]]
        ahead = 1 + len(contents)
        first = _Sheet(size, cover.reader, marks=["cover"])
        first.draws.append(partial(draw_cover, self._head, cover, size, len(self._sheets) + ahead))
        sheets = [first]
        for entries in contents:
            sheet = _Sheet(size, "Contents")
            sheet.draws.append(partial(draw_contents, entries, ahead, size))
            sheets.append(sheet)
        return sheets


def _heading(title: str, y: float, pen: PdfPen) -> None:
    pen.words(MARGIN, y - 4.6, title, 3.0, bold=True)


def _place_table(table: Any, x: float, top: float, width: float, pen: PdfPen) -> None:
    """Draws a table whose upper left corner lies at a place, mm from the page's lower left."""
    _, height = table.wrapOn(pen.canvas, width * MM, 1e6)
    table.drawOn(pen.canvas, x * MM, top * MM - height)


def _draw_photo(photo: PlacedPhoto, x: float, y: float, scale: float, pen: PdfPen) -> None:
    pen.photo(photo, x, y, scale)


def _check_line(pen: PdfPen) -> None:
    y = FOOT - 1.4
    pen.line(MARGIN, y, MARGIN + 100, y, "second")
    pen.line(MARGIN, y - 0.8, MARGIN, y + 0.8, "second")
    pen.line(MARGIN + 100, y - 0.8, MARGIN + 100, y + 0.8, "second")
    pen.words(MARGIN + 102, y - 0.8, "100 mm on paper", 1.8, "second")


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
