"""The route card: the stations in the order of work, with a drawn stamp and one line each."""

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QEnterEvent, QFocusEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QVBoxLayout, QWidget

from riktig.core.views import STATIONS, Stamp, Status
from riktig.desk.theme import LIGHT, Theme, grown, words_font

__all__ = ["RouteCard"]

_ROLES = {Stamp.BLANK: "third", Stamp.BEGUN: "act", Stamp.CLEAR: "act", Stamp.FIX: "fails", Stamp.STALE: "out of date"}


class _Stop(QWidget):
    """One station on the card."""

    pressed = Signal(str)
    moved = Signal(int)

    def __init__(self, index: int) -> None:
        super().__init__()
        self.index, self.name = index, STATIONS[index]
        self.theme = LIGHT
        self.status = Status(self.name, Stamp.BLANK, "")
        self.current = False
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self._tell()

    def _tell(self) -> None:
        self.setAccessibleName(self.name)
        self.setAccessibleDescription(f"{self.status.stamp.value}: {self.status.line}")

    def show_status(self, status: Status) -> None:
        self.status = status
        self._tell()
        self.update()

    def sizeHint(self) -> QSize:
        line = self.fontMetrics().height()
        return QSize(190, int(line * 2.6))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        theme, box = self.theme, QRectF(self.rect())
        if self.current:
            painter.fillRect(box, theme.colour("paper"))
            painter.fillRect(QRectF(0, 3, 3, box.height() - 6), theme.colour("act"))
        x, y = 26.0, box.height() / 2
        painter.setPen(QPen(theme.colour("line"), 1.6))
        top = y if self.index == 0 else 0.0
        foot = y if self.index == len(STATIONS) - 1 else box.height()
        painter.drawLine(QPointF(x, top), QPointF(x, foot))
        _stamp(painter, QPointF(x, y), self.status.stamp, theme)
        words = words_font(10.5, bold=self.current)
        painter.setFont(words)
        painter.setPen(theme.colour("act" if self.current else "ink"))
        painter.drawText(QRectF(44, 2, box.width() - 46, y - 2), Qt.AlignmentFlag.AlignBottom, self.name)
        painter.setFont(words_font(9))
        role = "third" if self.status.stamp in (Stamp.BLANK, Stamp.BEGUN, Stamp.CLEAR) else (_ROLES[self.status.stamp])
        painter.setPen(theme.colour(role))
        painter.drawText(QRectF(44, y, box.width() - 46, y), Qt.AlignmentFlag.AlignTop, self.status.line)
        if self.hasFocus():
            painter.setPen(QPen(theme.colour("act"), 1.5))
            painter.drawRect(box.adjusted(4, 2, -4, -2))
        painter.end()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.pressed.emit(self.name)

    def enterEvent(self, event: QEnterEvent) -> None:
        self.setToolTip(f"{self.name}: {self.status.stamp.value}, {self.status.line}")

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.pressed.emit(self.name)
        elif event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            self.moved.emit(1 if event.key() == Qt.Key.Key_Down else -1)
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent) -> None:
        self.update()

    def focusOutEvent(self, event: QFocusEvent) -> None:
        self.update()


def _stamp(painter: QPainter, at: QPointF, stamp: Stamp, theme: Theme) -> None:
    """Shape first: ring, half, tick, triangle, clock. Colour second."""
    colour, r = theme.colour(_ROLES[stamp]), 8.0
    painter.setPen(QPen(colour, 1.6))
    painter.setBrush(theme.colour("panel"))
    if stamp is Stamp.FIX:
        top = QPolygonF([at + QPointF(0, -9), at + QPointF(9, 7), at + QPointF(-9, 7)])
        painter.setBrush(colour)
        painter.drawPolygon(top)
        painter.setPen(QPen(theme.colour("on act"), 2))
        painter.drawLine(at + QPointF(0, -4), at + QPointF(0, 1.5))
        painter.drawPoint(at + QPointF(0, 4.6))
        return
    if stamp is Stamp.CLEAR:
        painter.setBrush(colour)
        painter.drawEllipse(at, r, r)
        painter.setPen(QPen(theme.colour("on act"), 2))
        painter.drawPolyline(QPolygonF([at + QPointF(-3.6, 0.2), at + QPointF(-1, 3), at + QPointF(4, -3)]))
        return
    painter.drawEllipse(at, r, r)
    if stamp is Stamp.BEGUN:
        painter.setBrush(colour)
        painter.drawPie(QRectF(at.x() - r, at.y() - r, 2 * r, 2 * r), -90 * 16, 180 * 16)
    elif stamp is Stamp.STALE:
        painter.drawLine(at, at + QPointF(0, -5))
        painter.drawLine(at, at + QPointF(3.6, 2))


class RouteCard(QWidget):
    """All stations; ``chosen`` carries the name of the one to go to."""

    chosen = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("route")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setAccessibleName("Route card")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 6, 1, 6)
        layout.setSpacing(0)
        self.stops = [_Stop(index) for index in range(len(STATIONS))]
        for stop in self.stops:
            stop.pressed.connect(self.chosen)
            stop.moved.connect(self._step)
            layout.addWidget(stop, 1)
        self.setFixedWidth(grown(198))

    def _step(self, by: int) -> None:
        stop_now = next((i for i, stop in enumerate(self.stops) if stop.hasFocus()), 0)
        self.stops[(stop_now + by) % len(self.stops)].setFocus()

    def take_focus(self) -> None:
        """The focus goes to the station that is open, or to the first."""
        next((stop for stop in self.stops if stop.current), self.stops[0]).setFocus()

    def show_statuses(self, statuses: tuple[Status, ...]) -> None:
        """Stamps and lines."""
        for stop, status in zip(self.stops, statuses, strict=True):
            stop.show_status(status)

    def show_current(self, name: str) -> None:
        """Marks the station that is open."""
        for stop in self.stops:
            stop.current = stop.name == name
            stop.update()

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        for stop in self.stops:
            stop.theme = theme
            stop.update()
