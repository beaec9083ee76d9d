"""A drawing to scale on the screen: zoomed, scrolled, with what is chosen in it; the layer below is cached."""

from collections.abc import Sequence
from math import isclose

from PySide6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QHelpEvent, QHideEvent, QPainter, QPaintEvent, QPixmap, QResizeEvent, QShowEvent, QTransform
from PySide6.QtWidgets import QScrollBar, QToolTip, QWidget

from riktig.core.geometry import CAPITAL, Drawing, Legible, Point, Rect, Shape, Text, bounds_of, hit, legible
from riktig.core.keys import Key
from riktig.desk.canvas.opening import FITS, LEAST_PX, Opening
from riktig.desk.canvas.painter import paint, paint_batched
from riktig.desk.theme import LIGHT, Theme

__all__ = ["ScaledView"]

REACH_PX = 5.0
BORDER_PX = 8.0


class ScaledView(QWidget):
    """Shows one drawing as large as its ``opening`` asks, then as it is zoomed and moved."""

    drawn = Signal()
    """Another drawing is shown, or the view itself is shown or hidden."""

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self.setMinimumSize(200, 160)
        self.theme = LIGHT
        self.opening: Opening = FITS
        self.overlay: Sequence[Shape] = ()
        self._overlay_grows = False
        self.laid: Sequence[Shape] = ()
        self.selection: frozenset[Key | None] = frozenset()
        self.scale, self._offset = 1.0, QPointF(0, 0)
        self._home: Rect | None = None
        self._drawing = Drawing(100, 100, ())
        self._hidden: frozenset[Key | None] = frozenset()
        self._layer: QPixmap | None = None
        self._fitted, self._whole = True, False
        self._fitted_in = QSize()
        self._left_out: dict[Key | None, tuple[str, ...]] = {}
        self._readable: dict[int, tuple[Sequence[Shape], float, Sequence[Text], Legible]] = {}
        self._bars = (QScrollBar(Qt.Orientation.Horizontal, self), QScrollBar(Qt.Orientation.Vertical, self))
        for bar, what in zip(self._bars, ("across", "up and down"), strict=True):
            bar.setAccessibleName(f"{name}, {what}")
            bar.setCursor(Qt.CursorShape.ArrowCursor)
            bar.hide()
            bar.valueChanged.connect(self._scrolled)

    def show_drawing(self, drawing: Drawing) -> None:
        """Puts a drawing in; zoom and place stay unless the size of the page changed."""
        if drawing is self._drawing:
            return
        resized = (drawing.width, drawing.height) != (self._drawing.width, self._drawing.height)
        self._drawing = drawing
        self.setAccessibleDescription(drawing.title)
        opens_at = self.opening.scale(drawing, self._home, self.width(), self.height())
        other = self._fitted and not self._whole and self.opening.natural
        if resized or (other and not isclose(opens_at, self.scale, rel_tol=0.01)):
            self.fit()
        self._forget()
        self.drawn.emit()

    @property
    def drawing(self) -> Drawing:
        """What is shown."""
        return self._drawing

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.theme = theme
        self._forget()

    def select(self, keys: frozenset[Key | None]) -> None:
        """Marks what is selected."""
        if keys != self.selection:
            self.selection = keys
            self._forget()

    def set_overlay(
        self, shapes: Sequence[Shape], hidden: frozenset[Key | None] = frozenset(), *, grows: bool = False
    ) -> None:
        """Marks painted over the cached layer, and keys taken out of it while they move.

        Args:
            shapes: The marks.
            hidden: What is not painted below them.
            grows: Whether their texts are painted as large as can be read at the zoom.
        """
        self.overlay, self._overlay_grows = shapes, grows
        if hidden != self._hidden:
            self._hidden = hidden
            self._forget()
        self.update()

    def set_laid(self, shapes: Sequence[Shape]) -> None:
        """Marks laid over the drawing and kept with it in the cached layer, such as thousands of wires."""
        if shapes != self.laid:
            self.laid = shapes
            self._forget()

    def _forget(self) -> None:
        self._layer = None
        self._set_bars()
        self.update()

    def _set_bars(self) -> None:
        """Scroll bars where some of the drawing is out of sight."""
        page = (self._drawing.width * self.scale + 2 * BORDER_PX, self._drawing.height * self.scale + 2 * BORDER_PX)
        seen, at = (self.width(), self.height()), (BORDER_PX - self._offset.x(), BORDER_PX - self._offset.y())
        thick = self._bars[1].sizeHint().width()
        shown = [page[n] > seen[n] + 1 for n in (0, 1)]
        for n, bar in enumerate(self._bars):
            bar.setVisible(shown[n])
            room = thick if shown[1 - n] else 0
            value = round(at[n])
            bar.blockSignals(True)
            bar.setRange(min(0, value), max(round(page[n] - seen[n]) + room, value))
            bar.setPageStep(seen[n])
            bar.setSingleStep(40)
            bar.setValue(value)
            bar.blockSignals(False)
        self._bars[0].setGeometry(0, self.height() - thick, self.width() - (thick if shown[1] else 0), thick)
        self._bars[1].setGeometry(self.width() - thick, 0, thick, self.height() - (thick if shown[0] else 0))

    def _scrolled(self) -> None:
        self._offset = QPointF(*(BORDER_PX - bar.value() for bar in self._bars))
        self._fitted = False
        self._layer = None
        self.update()

    def set_home(self, part: Rect | None) -> None:
        """What is shown when nobody has zoomed: the part of a large drawing that matters; None: all of it."""
        if part != self._home:
            self._home = part
            if self._fitted:
                self.fit()

    def fit(self) -> None:
        """Shows the drawing as it opens: see ``opening``."""
        self._whole = False
        self._show(self.opening.scale(self._drawing, self._home, self.width(), self.height()))

    def fit_whole(self) -> None:
        """Shows all of it, however small."""
        self._whole = True
        self._show(FITS.scale(self._drawing, None, self.width(), self.height()))

    def _show(self, scale: float) -> None:
        self.scale, self._fitted = scale, True
        self._fitted_in = QSize()
        part = self._home if self._home and not self._whole else Rect(0, 0, self._drawing.width, self._drawing.height)
        left, top = (self.width() - part.width * scale) / 2, (self.height() - part.height * scale) / 2
        self._offset = QPointF(
            max(left, BORDER_PX) - part.x * scale,
            (BORDER_PX if self.opening.top else max(top, BORDER_PX)) - part.y * scale,
        )
        self._forget()

    def zoom(self, factor: float, about: QPointF | None = None) -> None:
        """Zooms about a place of the widget."""
        about = about or QPointF(self.width() / 2, self.height() / 2)
        scale = min(max(self.scale * factor, 0.1), 60.0)
        factor = scale / self.scale
        self._offset = about - (about - self._offset) * factor
        self.scale = scale
        self._fitted = False
        self._forget()

    def pan(self, by: QPointF) -> None:
        """Moves the drawing by so many pixels."""
        self._offset += by
        self._fitted = False
        self._forget()

    def legible(self) -> float:
        """The height of a capital that can be read at this zoom, mm: what is said while one drags is never tiny."""
        return max(LEAST_PX * CAPITAL / self.scale, 4.6)

    def readable(self, shapes: Sequence[Shape], standing: Sequence[Text] = ()) -> Sequence[Shape]:
        """Marks as they are painted: with texts that can be read at this zoom, where the opening asks for it.

        Args:
            shapes: The marks.
            standing: Texts that no other may cover.
        """
        if not self.opening.grows:
            return shapes
        entry = self._readable.get(id(shapes))
        if entry is not None and entry[0] is shapes and entry[1:3] == (self.scale, standing):
            self._left_out |= entry[3].left_out
            return entry[3].shapes
        least = LEAST_PX * CAPITAL / self.scale
        page = Rect(0, 0, self._drawing.width, self._drawing.height).grown(least / 2)
        shown = legible(shapes, least, page, standing)
        self._left_out |= shown.left_out
        if len(self._readable) > 3:
            self._readable.clear()
        self._readable[id(shapes)] = (shapes, self.scale, standing, shown)
        return shown.shapes

    @property
    def _seen(self) -> QRectF:
        """The part of the drawing that is seen, mm."""
        corner = self.to_mm(QPointF(0, 0))
        return QRectF(corner.x, corner.y, self.width() / self.scale, self.height() / self.scale)

    def to_mm(self, at: QPointF) -> Point:
        """The point of the drawing under a place of the widget."""
        spot = (at - self._offset) / self.scale
        return Point(spot.x(), spot.y())

    def to_px(self, at: Point) -> QPointF:
        """The place of the widget over a point of the drawing."""
        return QPointF(at.x, at.y) * self.scale + self._offset

    def key_at(self, at: QPointF) -> Key | None:
        """The key of what is under a place of the widget."""
        return hit(self._drawing.shapes, self.to_mm(at), REACH_PX / self.scale)

    def centre_of(self, key: Key | None) -> QPointF | None:
        """Where a thing is on the widget, to scroll to it or to click it."""
        area = self.area_of(key)
        return area.center() if area else None

    def area_of(self, key: Key | None) -> QRectF | None:
        """What a thing covers on the widget, by the largest of its shapes."""
        boxes = [bounds_of(m) for m in self._drawing.shapes if m.key == key]
        if not boxes:
            return None
        largest = max(boxes, key=lambda box: box.width * box.height)
        return QRectF(self.to_px(Point(largest.x, largest.y)), self.to_px(Point(largest.right, largest.bottom)))

    def reveal(self, key: Key | None) -> None:
        """Moves the drawing so that a thing can be seen."""
        at = self.centre_of(key)
        if at is not None:
            self.reveal_point(self.to_mm(at))

    def reveal_point(self, point: Point) -> None:
        """Moves the drawing so that a point of it can be seen; down only, when its whole width shows."""
        at = self.to_px(point)
        if not QRectF(self.rect()).adjusted(20, 20, -20, -20).contains(at):
            by = QPointF(self.width() / 2, self.height() / 2) - at
            self.pan(QPointF(0, by.y()) if self.opening.top and self._fitted else by)

    def _matrix(self) -> QTransform:
        return QTransform(self.scale, 0, 0, self.scale, self._offset.x(), self._offset.y())

    def _draw_layer(self) -> QPixmap:
        ratio = self.devicePixelRatioF()
        layer = QPixmap(self.size() * ratio)
        layer.setDevicePixelRatio(ratio)
        layer.fill(self.theme.colour("paper"))
        painter = QPainter(layer)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setTransform(self._matrix(), True)
        shapes = self._drawing.shapes
        if self._hidden:
            shapes = tuple(mark for mark in shapes if mark.key not in self._hidden)
        self._left_out = {}
        laid = self.readable(self.laid)
        standing = tuple(mark for mark in laid if isinstance(mark, Text))
        seen = self._seen
        between = (seen.top(), seen.bottom())
        paint(painter, self.readable(shapes, standing), self.theme, chosen=self.selection, between=between)
        paint_batched(painter, laid, self.theme)
        painter.end()
        return layer

    def paintEvent(self, event: QPaintEvent) -> None:
        """Blits the cached layer and paints what moves."""
        if self._fitted_in.isEmpty():
            self._fitted_in = self.window().size()
        if self._layer is None:
            self._layer = self._draw_layer()
        painter = QPainter(self)
        painter.drawPixmap(0, 0, self._layer)
        if self.overlay:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setTransform(self._matrix(), True)
            seen = self._seen
            marks = self.readable(self.overlay) if self._overlay_grows else self.overlay
            paint(painter, marks, self.theme, chosen=self.selection, between=(seen.top(), seen.bottom()))
            painter.resetTransform()
        if self.hasFocus():
            painter.setPen(self.theme.colour("act"))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        painter.end()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Fits again when nobody has zoomed: but not when something opens beside it, so that nothing jumps."""
        window = self.window().size()
        beside = window == self._fitted_in and event.oldSize().height() == self.height()
        if self._fitted and not beside:
            self.fit_whole() if self._whole else self.fit()
        elif self._fitted and self.opening.natural:
            self._keep_in_sight()
        self._forget()

    def _keep_in_sight(self) -> None:
        """Moves pages aside by what it has lost to something that opened beside it, no further."""
        opens_at = self.opening.scale(self._drawing, self._home, self.width(), self.height())
        if opens_at < self.scale and self._drawing.width * self.scale > self.width() - 2 * BORDER_PX:
            self._offset.setY(self._offset.y() * opens_at / self.scale)
            self.scale = opens_at
        wide = self._drawing.width * self.scale
        if self._home is None and self._offset.x() + wide > self.width() - BORDER_PX:
            self._offset.setX(max(self.width() - BORDER_PX - wide, BORDER_PX))

    def showEvent(self, event: QShowEvent) -> None:
        """Fits into the room that it comes back to."""
        if self._fitted:
            self.fit_whole() if self._whole else self.fit()
        super().showEvent(event)
        self.drawn.emit()

    def hideEvent(self, event: QHideEvent) -> None:
        """Another page is shown now."""
        super().hideEvent(event)
        self.drawn.emit()

    def say_chosen(self, name: str) -> None:
        """Says what is selected in words, for those who do not see the mark."""
        title = self._drawing.title
        self.setAccessibleDescription(f"{title}. Selected: {name}" if name else title)

    def event(self, event: QEvent) -> bool:
        """A help event says what was left out of the thing under the pointer."""
        if isinstance(event, QHelpEvent):
            texts = self._left_out.get(self.key_at(QPointF(event.pos())), ())
            QToolTip.showText(event.globalPos(), " ".join(texts), self)
            return True
        return super().event(event)
