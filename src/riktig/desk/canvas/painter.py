"""A display list on a QPainter. The painter's transform maps mm to pixels."""

from collections.abc import Collection, Iterable
from itertools import pairwise

from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import QBrush, QFont, QFontMetricsF, QPainter, QPen, QPolygonF

from riktig.core.geometry import CAPITAL, Align, Arc, Circle, Face, Line, Poly, Shape, Text
from riktig.core.keys import Key
from riktig.desk.theme import FALLBACK, MONO, WORDS, Theme

__all__ = ["mark_font", "paint", "paint_batched"]

_DRAWN_AT = 100


def mark_font(face: Face) -> QFont:
    """The face at a large fixed pixel size; texts are scaled to their height in mm."""
    font = QFont()
    mono = face in (Face.PRINTED, Face.PRINTED_BOLD)
    font.setFamilies([MONO if mono else WORDS, FALLBACK])
    font.setPixelSize(_DRAWN_AT)
    font.setBold(face in (Face.BOLD, Face.PRINTED_BOLD))
    return font


EVERYWHERE = (float("-inf"), float("inf"))


def paint(
    painter: QPainter,
    shapes: Iterable[Shape],
    theme: Theme,
    *,
    chosen: Collection[Key | None] = frozenset(),
    between: tuple[float, float] = EVERYWHERE,
) -> None:
    """Paints marks in order.

    Args:
        painter: Its transform maps mm to pixels.
        shapes: The marks.
        theme: The colours.
        chosen: Marks of these keys are painted in the accent.
        between: The upper and lower end of what is seen, mm; marks that are wholly beyond may be left out.
    """
    top, bottom = between
    fonts: dict[Face, tuple[QFont, QFontMetricsF]] = {}
    tools = _Tools(painter, theme)
    for mark in shapes:
        if between is not EVERYWHERE and _is_beyond(mark, top, bottom):
            continue
        is_chosen = bool(mark.key and mark.key in chosen)
        role = "act" if is_chosen else mark.role
        if isinstance(mark, Text):
            _text(painter, mark, role, theme, fonts)
            tools.forget_pen()
            continue
        width = mark.width * (1.6 if role != mark.role else 1.0)
        tools.take_pen(role, width, dashed=isinstance(mark, Line | Poly) and mark.dashed)
        fill = "" if isinstance(mark, Line | Arc) else mark.fill
        if fill and role != mark.role and fill in ("paper", "part", "card"):
            fill = "chosen"
        tools.take_brush(fill)
        _stroke(painter, mark)


def _is_beyond(mark: Shape, top: float, bottom: float) -> bool:
    """Whether a mark lies wholly above or below what is seen."""
    match mark:
        case Line():
            low, high, reach = min(mark.y1, mark.y2), max(mark.y1, mark.y2), mark.width
        case Text():
            # Of one that stands on its side only this is known at once: no letter is wider than twice its height.
            reach = 2 * mark.size * (1 if mark.upright else len(mark.text) + 1)
            low = high = mark.y
        case Poly():
            ys = [point[1] for point in mark.points]
            low, high, reach = min(ys), max(ys), mark.width
        case _:
            low = high = mark.y
            reach = mark.radius + mark.width
    return high + reach < top or low - reach > bottom


def _stroke(painter: QPainter, mark: Line | Poly | Circle | Arc) -> None:
    """Draws a mark with the pen and brush that are taken."""
    match mark:
        case Line():
            painter.drawLine(QPointF(mark.x1, mark.y1), QPointF(mark.x2, mark.y2))
        case Poly():
            points = QPolygonF([QPointF(p.x, p.y) for p in mark.points])
            if mark.closed:
                painter.drawPolygon(points)
            else:
                painter.drawPolyline(points)
        case Circle():
            painter.drawEllipse(QPointF(mark.x, mark.y), mark.radius, mark.radius)
        case Arc():
            r = mark.radius
            box = QRectF(mark.x - r, mark.y - r, 2 * r, 2 * r)
            painter.drawArc(box, round(-mark.start * 16), round(-mark.span * 16))


class _Tools:
    """Pens and brushes of one drawing: thousands of marks share a dozen, and most follow one of their own look."""

    def __init__(self, painter: QPainter, theme: Theme) -> None:
        self._painter, self._theme = painter, theme
        self._pens: dict[tuple[str, float, bool], QPen] = {}
        self._brushes: dict[str, QBrush] = {"": QBrush(Qt.BrushStyle.NoBrush)}
        self._pen: tuple[str, float, bool] | None = None
        self._brush: str | None = None

    def take_pen(self, role: str, width: float, *, dashed: bool) -> None:
        """Draws lines in a role, so many mm wide; none with no width."""
        look = (role, width, dashed)
        if look == self._pen:
            return
        pen = self._pens.get(look)
        if pen is None:
            pen = QPen(self._theme.colour(role), width) if width else QPen(Qt.PenStyle.NoPen)
            pen.setCapStyle(Qt.PenCapStyle.FlatCap)
            if dashed and width:
                pen.setDashPattern([max(1.6 / width, 1), max(1.2 / width, 1)])
            self._pens[look] = pen
        self._painter.setPen(pen)
        self._pen = look

    def take_brush(self, role: str) -> None:
        """Fills in a role; "" for nothing."""
        if role != self._brush:
            brush = self._brushes.get(role)
            if brush is None:
                brush = self._brushes[role] = QBrush(self._theme.colour(role))
            self._painter.setBrush(brush)
            self._brush = role

    def forget_pen(self) -> None:
        """Somebody else has set the pen."""
        self._pen = None


def paint_batched(painter: QPainter, shapes: Iterable[Shape], theme: Theme) -> None:
    """Paints marks, runs of strokes and dots of one look in one go: thousands of wires at a fraction of the time.

    Only what is neither filled, closed nor dashed is gathered; of those the order among each other is lost.
    """
    strokes: dict[tuple[str, float], list[QLineF]] = {}
    dots: dict[tuple[str, float], QPolygonF] = {}
    rest: list[Shape] = []
    for mark in shapes:
        if isinstance(mark, Poly) and not (mark.closed or mark.fill or mark.dashed):
            lines = strokes.setdefault((mark.role, mark.width), [])
            lines += [QLineF(a.x, a.y, b.x, b.y) for a, b in pairwise(mark.points)]
        elif isinstance(mark, Circle) and mark.fill == mark.role:
            dots.setdefault((mark.fill, mark.radius * 2), QPolygonF()).append(QPointF(mark.x, mark.y))
        else:
            rest.append(mark)
    for (role, width), lines in strokes.items():
        painter.setPen(QPen(theme.colour(role), width, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
        painter.drawLines(lines)
    for (role, width), points in dots.items():
        painter.setPen(QPen(theme.colour(role), width, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        painter.drawPoints(points)
    paint(painter, rest, theme)


def _text(
    painter: QPainter, mark: Text, role: str, theme: Theme, fonts: dict[Face, tuple[QFont, QFontMetricsF]]
) -> None:
    if mark.face not in fonts:
        font = mark_font(mark.face)
        fonts[mark.face] = (font, QFontMetricsF(font))
    font, metrics = fonts[mark.face]
    scale = mark.size / CAPITAL / _DRAWN_AT
    run = metrics.horizontalAdvance(mark.text)
    shift = {Align.LEFT: 0.0, Align.MIDDLE: run / 2, Align.RIGHT: run}[mark.align]
    painter.save()
    painter.translate(mark.x, mark.y)
    if not mark.upright:
        painter.rotate(-90)
    painter.scale(scale, scale)
    painter.setFont(font)
    if mark.backed:
        height = _DRAWN_AT * CAPITAL
        painter.fillRect(QRectF(-shift - 14, -height - 14, run + 28, height + 28), theme.colour("paper"))
    painter.setPen(theme.colour(role))
    painter.drawText(QPointF(-shift, 0), mark.text)
    painter.restore()
