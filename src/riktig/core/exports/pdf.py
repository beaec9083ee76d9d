"""Drawings on PDF pages, true to scale, and the set of papers with its schedules."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from enum import Enum
from functools import cache
from importlib import resources
from pathlib import Path
from typing import Any

from riktig.core.exports.inks import rgb
from riktig.core.exports.schedules import Schedule
from riktig.core.geometry import CAPITAL, Align, Arc, Circle, Drawing, Face, Line, Poly, Shape, Text

__all__ = ["A3", "A4", "Page", "PaperSheet", "SetHead", "fitting_scale", "missing_glyphs", "write_set", "write_shapes"]

MM = 72 / 25.4
A4 = (297.0, 210.0)
A3 = (420.0, 297.0)
MARGIN = 12.0
HEAD = 14.0
SCALES = (1.0, 0.5, 0.4, 0.25, 0.2, 0.1, 0.05)
_FACES = {
    Face.WORDS: "B612-Regular",
    Face.BOLD: "B612-Bold",
    Face.PRINTED: "B612Mono-Regular",
    Face.PRINTED_BOLD: "B612Mono-Bold",
}
FALLBACK = "DejaVuSans"
LIST = (110.0, 60.0)
"""Least width of a list beside a drawing, and least height of one below it, mm (chosen by us)."""
CELL = 7.4
"""Type size in the cells of a schedule, points."""


@dataclass(frozen=True, slots=True)
class SetHead:
    """What stands at the head of every page."""

    number: str
    title: str
    revision: str
    made: str


class PaperSheet(Enum):
    """What is printed on."""

    A4 = "A4"
    A3 = "A3"


@dataclass(frozen=True, slots=True)
class Page:
    """A drawing on a page; ``to_scale``: only at a standard scale, with a check line.

    ``parts`` is a list that stands on the same sheet, beside the drawing or below it, and goes on overleaf.
    """

    drawing: Drawing
    to_scale: bool = False
    sheet: PaperSheet = PaperSheet.A4
    parts: Schedule | None = None


def page_size(drawing: Drawing, sheet: PaperSheet = PaperSheet.A4) -> tuple[float, float]:
    """The sheet across, or upright for a drawing that is taller than wide, mm."""
    across, down = A4 if sheet is PaperSheet.A4 else A3
    return (down, across) if drawing.height > drawing.width else (across, down)


def fitting_scale(drawing: Drawing, *, to_scale: bool, room: tuple[float, float] | None = None) -> float:
    """The largest scale at which a drawing fits its page, or a room of it, mm; a standard one when asked.

    Args:
        drawing: The drawing, in mm.
        to_scale: Whether it is printed true to scale.
        room: Width and height that are free, mm; None takes the paper's.
    """
    across, down = page_size(drawing)
    width, height = room or (across - 2 * MARGIN, down - 2 * MARGIN - HEAD)
    most = min(width / drawing.width, height / drawing.height)
    if not to_scale:
        return most
    return next((scale for scale in SCALES if scale <= most), most)


def _laid_out(page: Page) -> tuple[tuple[float, float], float, tuple[float, float, float, float]]:
    """The sheet's size, the scale, and where the list stands: x and y of its upper left corner, width and height.

    Of a list beside the drawing and one below it, that which leaves the drawing larger.
    """
    across, down = A4 if page.sheet is PaperSheet.A4 else A3
    best = None
    for size in ((across, down), (down, across)):
        width, height = size[0] - 2 * MARGIN, size[1] - 2 * MARGIN - HEAD
        for room in ((width - LIST[0], height), (width, height - LIST[1])):
            scale = fitting_scale(page.drawing, to_scale=page.to_scale, room=room)
            if best is None or scale > best[1] + 1e-9:
                wide, high = page.drawing.width * scale, page.drawing.height * scale
                beside = room[1] == height
                x, y = (MARGIN + wide + 4, MARGIN + HEAD) if beside else (MARGIN, MARGIN + HEAD + high + 4)
                best = size, scale, (x, y, size[0] - MARGIN - x, size[1] - MARGIN - 4 - y)
    assert best is not None
    return best


@cache
def _registered() -> dict[str, Any]:
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFont

    fonts = {}
    for name in (*_FACES.values(), FALLBACK):
        with resources.as_file(resources.files("riktig") / "assets" / "fonts" / f"{name}.ttf") as file:
            fonts[name] = TTFont(name, str(file))
        pdfmetrics.registerFont(fonts[name])
    return fonts


def _runs(text: str, font: str) -> list[tuple[str, str]]:
    """The text in stretches of one font each: letters the face lacks go to the fallback."""
    known = _registered()[font].face.charToGlyph
    runs: list[tuple[str, str]] = []
    for letter in text:
        name = font if ord(letter) in known else FALLBACK
        if runs and runs[-1][0] == name:
            runs[-1] = (name, runs[-1][1] + letter)
        else:
            runs.append((name, letter))
    return runs


def missing_glyphs(text: str) -> str:
    """Letters that neither face nor fallback has: they would print as a box."""
    fonts = _registered()
    return "".join(
        c
        for c in text
        if ord(c) not in fonts["B612-Regular"].face.charToGlyph and ord(c) not in fonts[FALLBACK].face.charToGlyph
    )


def write_set(
    path: Path,
    head: SetHead,
    pages: Sequence[Page],
    schedules: Sequence[Schedule],
    step: Callable[[float, str], None] = lambda share, text: None,
) -> None:
    """Writes drawings and schedules as one PDF, A4 across; the same input gives the same file.

    Args:
        path: Where it is written; an existing file is replaced.
        head: For the head of every page.
        pages: Drawings, a page each.
        schedules: Tables, from a new page each.
        step: Told how far it is; may raise to stop.
    """
    from reportlab.pdfgen.canvas import Canvas

    _registered()
    canvas = Canvas(str(path), pagesize=(A4[0] * MM, A4[1] * MM), invariant=1)
    canvas.setTitle(f"{head.number} {head.title}".strip() or "Riktig")
    total = len(pages) + len(schedules)
    writer = _Writer(canvas, head)
    for index, page in enumerate(pages):
        step(index / total, page.drawing.title)
        writer.drawing(page)
    for index, schedule in enumerate(schedules, len(pages)):
        step(index / total, schedule.title)
        writer.table(schedule)
    canvas.save()


def write_shapes(path: Path, head: SetHead, pages: Sequence[tuple[tuple[float, float], Sequence[Shape]]]) -> None:
    """Writes pages of marks at true size, mm from the upper left corner of each page; nothing is added to them.

    Args:
        path: Where it is written; an existing file is replaced.
        head: What stands at the head of every page.
        pages: Width and height of a page, mm, and what is on it.
    """
    from reportlab.pdfgen.canvas import Canvas

    _registered()
    canvas = Canvas(str(path), invariant=1)
    canvas.setTitle(f"{head.number} {head.title}".strip() or "Riktig")
    writer = _Writer(canvas, head)
    for size, shapes in pages:
        writer.bare(size, shapes)
    canvas.save()


class _Writer:
    def __init__(self, canvas: Any, head: SetHead) -> None:
        self._canvas, self._head, self._number = canvas, head, 0
        self._size = A4

    def _begin(self, title: str, note: str = "") -> None:
        self._number += 1
        self._canvas.setPageSize((self._size[0] * MM, self._size[1] * MM))
        top = self._size[1] - MARGIN
        self._text(Text(MARGIN, top - 4, title, 3.4, "ink", Face.BOLD))
        text = " · ".join(
            x for x in (self._head.number, self._head.title, f"rev {self._head.revision}", self._head.made) if x
        )
        right, page = self._size[0] - MARGIN, f"{text} · page {self._number}"
        self._text(Text(right, top - 4, page, 2.2, "second", Face.WORDS, Align.RIGHT))
        if note:
            self._text(Text(MARGIN, top - 9, note, 2.2, "second", Face.WORDS))
        self._canvas.setStrokeColorRGB(*rgb("line"))
        self._canvas.setLineWidth(0.3 * MM)
        self._canvas.line(MARGIN * MM, (top - HEAD + 3) * MM, (self._size[0] - MARGIN) * MM, (top - HEAD + 3) * MM)

    def _text(self, text: Text) -> None:
        """A text whose place is in mm from the page's lower left, its turn left out."""
        points = text.size / CAPITAL * MM
        runs = _runs(text.text, _FACES[text.face])
        width = sum(self._canvas.stringWidth(part, font, points) for font, part in runs)
        at = text.x * MM - {Align.LEFT: 0.0, Align.MIDDLE: width / 2, Align.RIGHT: width}[text.align]
        self._canvas.setFillColorRGB(*rgb(text.role))
        for font, part in runs:
            self._canvas.setFont(font, points)
            self._canvas.drawString(at, text.y * MM, part)
            at += self._canvas.stringWidth(part, font, points)

    def drawing(self, page: Page) -> None:
        """A page with one drawing."""
        self._size = page_size(page.drawing, page.sheet)
        room = (self._size[0] - 2 * MARGIN, self._size[1] - 2 * MARGIN - HEAD)
        scale = fitting_scale(page.drawing, to_scale=page.to_scale, room=room)
        place = (0.0, 0.0, 0.0, 0.0)
        if page.parts:
            self._size, scale, place = _laid_out(page)
        note = f"Scale 1 : {1 / scale:g}. The line below measures 100 mm on paper." * page.to_scale
        self._begin(page.drawing.title, note)
        canvas = self._canvas
        canvas.saveState()
        canvas.translate(MARGIN * MM, (self._size[1] - MARGIN - HEAD) * MM)
        canvas.scale(scale, scale)
        for mark in page.drawing.shapes:
            self._mark(mark)
        canvas.restoreState()
        if page.to_scale:
            canvas.setLineWidth(0.2 * MM)
            canvas.line(MARGIN * MM, 8 * MM, (MARGIN + 100) * MM, 8 * MM)
        rest = self._beside(page.parts, place) if page.parts else []
        canvas.showPage()
        if page.parts:
            self._rest(page.parts.title, rest)

    def bare(self, size: tuple[float, float], shapes: Sequence[Shape]) -> None:
        """A page with nothing but marks."""
        self._canvas.setPageSize((size[0] * MM, size[1] * MM))
        self._canvas.saveState()
        self._canvas.translate(0, size[1] * MM)
        for mark in shapes:
            self._mark(mark)
        self._canvas.restoreState()
        self._canvas.showPage()

    def _mark(self, mark: Line | Poly | Circle | Arc | Text) -> None:
        canvas = self._canvas
        if isinstance(mark, Text):
            canvas.saveState()
            canvas.translate(mark.x * MM, -mark.y * MM)
            if not mark.upright:
                canvas.rotate(90)
            if mark.backed:
                width = canvas.stringWidth(mark.text, _FACES[mark.face], mark.size / CAPITAL * MM)
                canvas.setFillColorRGB(1, 1, 1)
                canvas.rect(-width / 2 - 0.5 * MM, -0.5 * MM, width + MM, (mark.size + 1) * MM, stroke=0, fill=1)
            self._text(mark._replace(x=0.0, y=0.0))
            canvas.restoreState()
            return
        canvas.setStrokeColorRGB(*rgb(mark.role))
        canvas.setLineWidth(mark.width * MM)
        canvas.setDash([1.6 * MM, 1.2 * MM] if getattr(mark, "dashed", False) else [])
        fill = getattr(mark, "fill", "")
        if fill:
            canvas.setFillColorRGB(*rgb(fill))
        match mark:
            case Line():
                canvas.line(mark.x1 * MM, -mark.y1 * MM, mark.x2 * MM, -mark.y2 * MM)
            case Poly():
                path = canvas.beginPath()
                path.moveTo(mark.points[0].x * MM, -mark.points[0].y * MM)
                for point in mark.points[1:]:
                    path.lineTo(point.x * MM, -point.y * MM)
                if mark.closed:
                    path.close()
                canvas.drawPath(path, stroke=int(mark.width > 0), fill=int(bool(fill)))
            case Circle():
                canvas.circle(mark.x * MM, -mark.y * MM, mark.radius * MM, stroke=1, fill=int(bool(fill)))
            case Arc():
                r = mark.radius
                canvas.arc(
                    (mark.x - r) * MM,
                    (-mark.y - r) * MM,
                    (mark.x + r) * MM,
                    (-mark.y + r) * MM,
                    -mark.start,
                    -mark.span,
                )

    def table(self, schedule: Schedule) -> None:
        """A schedule over as many pages as it takes, text folded in its cells."""
        self._size = A4
        self._rest(schedule.title, [self._long(schedule, (A4[0] - 2 * MARGIN) * MM)])

    def _beside(self, schedule: Schedule, place: tuple[float, float, float, float]) -> list[Any]:
        """As much of a list as its place on the sheet holds; what is left goes overleaf."""
        x, y, width, height = (length * MM for length in place)
        pieces = self._long(schedule, width).split(width, height)
        if not pieces:
            return [self._long(schedule, (A4[0] - 2 * MARGIN) * MM)]
        _, used = pieces[0].wrapOn(self._canvas, width, height)
        pieces[0].drawOn(self._canvas, x, self._size[1] * MM - y - used)
        return list(pieces[1:])

    def _long(self, schedule: Schedule, width: float) -> Any:
        """A schedule as a table of a width, points."""
        from reportlab.lib.styles import ParagraphStyle
        from reportlab.platypus import LongTable, Paragraph, TableStyle

        cell = ParagraphStyle("cell", fontName=_FACES[Face.WORDS], fontSize=CELL, leading=CELL + 2)
        bold = ParagraphStyle("head", parent=cell, fontName=_FACES[Face.BOLD])
        shown = [i for i, (key, _) in enumerate(schedule.columns) if key not in ("key", "id")]
        rows = [[Paragraph(_safe(schedule.columns[i][1], bold), bold) for i in shown]]
        rows += [[Paragraph(_safe(_said(row[i]), cell), cell) for i in shown] for row in schedule.rows]
        style = TableStyle(
            [
                ("LINEBELOW", (0, 0), (-1, 0), 0.6, rgb("second")),
                ("LINEBELOW", (0, 1), (-1, -1), 0.25, rgb("hair")),
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("LEFTPADDING", (0, 0), (-1, -1), 2),
                ("RIGHTPADDING", (0, 0), (-1, -1), 4),
                ("TOPPADDING", (0, 0), (-1, -1), 1.5),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
            ]
        )
        return LongTable(rows, _widths(schedule, shown, width), style=style, repeatRows=1)

    def _rest(self, title: str, rest: list[Any]) -> None:
        """Tables over as many pages as they take."""
        width, room = (self._size[0] - 2 * MARGIN) * MM, (self._size[1] - 2 * MARGIN - HEAD) * MM
        while rest:
            self._begin(title)
            first, rest = rest[0], rest[1:]
            pieces = first.split(width, room) or [first]
            _, height = pieces[0].wrapOn(self._canvas, width, room)
            pieces[0].drawOn(self._canvas, MARGIN * MM, MARGIN * MM + room - height)
            rest = pieces[1:] + rest
            self._canvas.showPage()


def _widths(schedule: Schedule, shown: list[int], width: float) -> list[float]:
    """Column widths: the longest word always fits; what is left goes where texts are long."""
    from reportlab.pdfbase.pdfmetrics import stringWidth

    least, wants = [], []
    for i in shown:
        texts = [schedule.columns[i][1], *(_said(row[i]) for row in schedule.rows)]
        words = [word for text in texts for word in text.split()] or [""]
        font = _FACES[Face.BOLD]
        least.append(max(stringWidth(word, font, CELL) for word in words) + 7)
        wants.append(min(max(stringWidth(text, font, CELL) for text in texts) + 7, 180))
    spare = width - sum(least)
    if spare <= 0:
        return [width * length / sum(least) for length in least]
    more = [max(want - low, 0.01) for want, low in zip(wants, least, strict=True)]
    share = min(spare / sum(more), 1.0)
    widths = [low + share * extra for low, extra in zip(least, more, strict=True)]
    return [share_of_width * width / sum(widths) if share == 1.0 else share_of_width for share_of_width in widths]


def _said(value: object) -> str:
    if isinstance(value, float):
        return f"{value:g}"
    return "" if value is None else str(value)


def _safe(text: str, style: Any) -> str:
    """Text for a cell, with what the face lacks marked for the fallback."""
    out = []
    for font, part in _runs(text, style.fontName):
        part = part.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
        out.append(part if font == style.fontName else f'<font name="{font}">{part}</font>')
    return "".join(out)
