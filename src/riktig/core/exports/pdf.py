"""What stands on PDF pages: paper, scale, and marks and texts drawn in millimetres."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import Enum
from io import BytesIO
from pathlib import Path
from typing import Any

from riktig.core.exports.fonts import FACES, registered, runs_of
from riktig.core.exports.inks import rgb
from riktig.core.exports.schedule_model import Schedule
from riktig.core.geometry import CAPITAL, Align, Arc, Circle, Drawing, Face, Line, Poly, Rect, Shape, Text

__all__ = [
    "MM",
    "Page",
    "PaperSheet",
    "PdfPen",
    "PlacedPhoto",
    "SetHead",
    "fitting_scale",
    "page_size",
    "room_of",
    "write_shapes",
]

MM = 72 / 25.4
MARGIN, HEAD, FOOT = 12.0, 8.0, 20.0
"""What is left white around a page, and what its heading and its title block take, mm (chosen by us)."""
SCALES = (1.0, 0.5, 0.4, 0.25, 0.2, 0.1, 0.05)


@dataclass(frozen=True, slots=True)
class SetHead:
    """What stands in the title block of every page."""

    number: str
    title: str
    revision: str
    made: str
    company: str = ""
    client: str = ""
    drawing_number: str = ""
    drawn: str = ""
    standard: str = ""

    @property
    def file_title(self) -> str:
        """The title of the document."""
        return f"{self.number} {self.title}".strip() or "Riktig"


class PaperSheet(Enum):
    """What is printed on."""

    A4 = "A4"
    A3 = "A3"
    LETTER = "Letter"
    TABLOID = "Tabloid"

    @property
    def size(self) -> tuple[float, float]:
        """Across, mm: ISO 216, and ANSI/ASME Y14.1 A and B."""
        return {
            PaperSheet.A4: (297.0, 210.0),
            PaperSheet.A3: (420.0, 297.0),
            PaperSheet.LETTER: (279.4, 215.9),
            PaperSheet.TABLOID: (431.8, 279.4),
        }[self]

    @property
    def larger(self) -> "PaperSheet":
        """The sheet of twice the size that the same printers take."""
        return {PaperSheet.A4: PaperSheet.A3, PaperSheet.LETTER: PaperSheet.TABLOID}.get(self, self)


@dataclass(frozen=True, slots=True)
class PlacedPhoto:
    """A photo on a drawing: the room it is to fill as far as its shape lets it, mm, and the JPEG file."""

    room: Rect
    jpeg: bytes


@dataclass(frozen=True, slots=True)
class Page:
    """A drawing on a page; ``to_scale``: only at a standard scale, with a check line.

    ``parts`` is a list that stands on the same sheet, beside the drawing or below it, and goes on overleaf. Texts that
    would be too small on paper are set larger where they have room, else left out, unless the drawing is printed
    ``as_it_is``: labels, whose texts were fitted before.
    """

    drawing: Drawing
    to_scale: bool = False
    sheet: PaperSheet = PaperSheet.A4
    parts: Schedule | None = None
    as_it_is: bool = False
    whole: bool = False
    """The drawing is the paper itself, edge to edge: a sheet of labels, without a head or a title block."""
    photos: tuple[PlacedPhoto, ...] = ()
    """Photos on the drawing."""


def room_of(size: tuple[float, float]) -> tuple[float, float]:
    """Width and height that are free on a page of a size, mm."""
    return size[0] - 2 * MARGIN, size[1] - MARGIN - HEAD - FOOT


def page_size(drawing: Drawing, sheet: PaperSheet = PaperSheet.A4, *, to_scale: bool = False) -> tuple[float, float]:
    """The sheet across or upright, whichever leaves the drawing larger, mm."""
    across, down = sheet.size
    sizes = ((down, across), (across, down)) if drawing.height > drawing.width else ((across, down), (down, across))
    return max(sizes, key=lambda size: fitting_scale(drawing, to_scale=to_scale, room=room_of(size)))


def fitting_scale(drawing: Drawing, *, to_scale: bool, room: tuple[float, float] | None = None) -> float:
    """The largest scale at which a drawing fits its page, or a room of it, mm; a standard one when asked.

    Args:
        drawing: The drawing, in mm.
        to_scale: Whether it is printed true to scale.
        room: Width and height that are free, mm; None takes those of A4.
    """
    width, height = room or room_of(page_size(drawing, to_scale=to_scale))
    most = min(width / drawing.width, height / drawing.height)
    if not to_scale:
        return most
    return next((scale for scale in SCALES if scale <= most + 1e-9), most)


def write_shapes(path: Path, head: SetHead, pages: Sequence[tuple[tuple[float, float], Sequence[Shape]]]) -> None:
    """Writes pages of marks at true size, mm from the upper left corner of each page; nothing is added to them.

    Args:
        path: Where it is written; an existing file is replaced.
        head: What the document says of itself.
        pages: Width and height of a page, mm, and what is on it.
    """
    canvas = new_canvas(path, head)
    pen = PdfPen(canvas)
    for size, shapes in pages:
        canvas.setPageSize((size[0] * MM, size[1] * MM))
        pen.marks(shapes, 0.0, size[1])
        canvas.showPage()
    canvas.save()


def new_canvas(path: Path, head: SetHead) -> Any:
    """A PDF to draw on, with title, author and subject; the same input gives the same file."""
    from reportlab.pdfgen.canvas import Canvas

    registered()
    across, down = PaperSheet.A4.size
    registered()
    first = FACES[Face.WORDS]  # else Helvetica stands in the file, which is not embedded
    canvas = Canvas(str(path), pagesize=(across * MM, down * MM), invariant=1, initialFontName=first)
    canvas.setTitle(head.file_title)
    canvas.setAuthor(head.drawn or head.company or "Riktig")
    canvas.setSubject(", ".join(x for x in (f"revision {head.revision}" if head.revision else "", head.made) if x))
    canvas.setCreator("Riktig")
    return canvas


class PdfPen:
    """Draws marks and texts on a canvas of ReportLab."""

    def __init__(self, canvas: Any) -> None:
        self.canvas = canvas

    def marks(self, shapes: Sequence[Shape], x: float, y: float, scale: float = 1.0) -> None:
        """Draws marks whose upper left corner lies at a place, mm from the page's lower left, at a scale."""
        self.canvas.saveState()
        self.canvas.translate(x * MM, y * MM)
        self.canvas.scale(scale, scale)
        for mark in shapes:
            self._mark(mark)
        self.canvas.restoreState()

    def photo(self, photo: PlacedPhoto, x: float, y: float, scale: float = 1.0) -> None:
        """A photo of a drawing whose upper left corner lies at a place, as large as its room lets it."""
        from reportlab.lib.utils import ImageReader

        picture = ImageReader(BytesIO(photo.jpeg))
        wide, high = picture.getSize()
        room = photo.room
        share = min(room.width / wide, room.height / high) * scale * MM
        left, top = (x + room.x * scale) * MM, (y - room.y * scale) * MM
        self.canvas.drawImage(picture, left, top - high * share, wide * share, high * share)

    def text(self, text: Text) -> None:
        """A text whose place is in mm from the page's lower left, its turn left out."""
        points = text.size / CAPITAL * MM
        runs = runs_of(text.text, FACES[text.face])
        width = sum(self.canvas.stringWidth(part, font, points) for font, part in runs)
        at = text.x * MM - {Align.LEFT: 0.0, Align.MIDDLE: width / 2, Align.RIGHT: width}[text.align]
        self.canvas.setFillColorRGB(*rgb(text.role))
        for font, part in runs:
            self.canvas.setFont(font, points)
            self.canvas.drawString(at, text.y * MM, part)
            at += self.canvas.stringWidth(part, font, points)

    def words(self, x: float, y: float, text: str, size: float, role: str = "ink", *, bold: bool = False) -> None:
        """Words from a place to the right, mm from the page's lower left."""
        self.text(Text(x, y, text, size, role, Face.BOLD if bold else Face.WORDS))

    def line(self, x1: float, y1: float, x2: float, y2: float, role: str = "line", width: float = 0.2) -> None:
        """A line, mm from the page's lower left."""
        self.canvas.setStrokeColorRGB(*rgb(role))
        self.canvas.setLineWidth(width * MM)
        self.canvas.setDash([])
        self.canvas.line(x1 * MM, y1 * MM, x2 * MM, y2 * MM)

    def _mark(self, mark: Line | Poly | Circle | Arc | Text) -> None:
        canvas = self.canvas
        if isinstance(mark, Text):
            canvas.saveState()
            canvas.translate(mark.x * MM, -mark.y * MM)
            if not mark.upright:
                canvas.rotate(90)
            if mark.backed:
                width = canvas.stringWidth(mark.text, FACES[mark.face], mark.size / CAPITAL * MM)
                left = {Align.LEFT: 0.0, Align.MIDDLE: width / 2, Align.RIGHT: width}[mark.align]
                canvas.setFillColorRGB(1, 1, 1)
                canvas.rect(-left - 0.5 * MM, -0.5 * MM, width + MM, (mark.size + 1) * MM, stroke=0, fill=1)
            self.text(mark._replace(x=0.0, y=0.0))
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
                box = [(mark.x - r) * MM, (-mark.y - r) * MM, (mark.x + r) * MM, (-mark.y + r) * MM]
                canvas.arc(*box, -mark.start, -mark.span)
