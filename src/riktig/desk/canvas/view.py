"""A drawing one can look at: zoom, pan, choose by mouse and key; the layer below is cached."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import QPoint, QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPixmap, QResizeEvent, QTransform, QWheelEvent
from PySide6.QtWidgets import QWidget

from riktig.core.geometry import Drawing, Point, Rect, Shape, bounds_of, hit
from riktig.core.keys import Key
from riktig.desk.canvas.painter import paint, paint_batched
from riktig.desk.theme import LIGHT, Theme

__all__ = ["DrawingView", "Gesture"]

REACH_PX = 5.0
DRAG_PX = 5.0
LEGIBLE_PX = 9.0
"""Height of a capital in 12 px type."""


class Gesture:
    """A drag: begin, move, finish or cancel. It previews on the view and edits once, at the end."""

    def begin(self, key: Key | None, at: Point) -> bool:
        """Whether a drag of this thing may start."""
        return False

    def move(self, at: Point) -> None:
        """The pointer is here now."""

    def finish(self) -> None:
        """The button was released: make the edit."""

    def cancel(self) -> None:
        """Esc: nothing happened."""


class DrawingView(QWidget):
    """Shows one drawing. Keys: + and - zoom, 0 fits, comma and point step through what is on it."""

    chosen = Signal(object)
    clicked = Signal(object)
    """A left click without a drag, when the button is let go."""
    menu_asked = Signal(object, QPoint)
    hovered = Signal(object)

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setMinimumSize(240, 200)
        self.theme = LIGHT
        self.gesture: Gesture | None = None
        self.pages = False
        self._home: Rect | None = None
        self._drawing = Drawing(100, 100, ())
        self.overlay: Sequence[Shape] = ()
        self.laid: Sequence[Shape] = ()
        self._hidden: frozenset[Key | None] = frozenset()
        self.selection: frozenset[Key | None] = frozenset()
        self._layer: QPixmap | None = None
        self.scale, self._offset = 1.0, QPointF(0, 0)
        self._fitted = True
        self._pressed: QPointF | None = None
        self._dragging = False
        self._panning: QPointF | None = None
        self._under: Key | None = None
        self.hovers = False
        self.modifiers = Qt.KeyboardModifier.NoModifier
        self.on_key: Callable[[QKeyEvent], bool] = lambda event: False

    def show_drawing(self, drawing: Drawing) -> None:
        """Puts a drawing in; zoom and place stay unless the size of the page changed."""
        if drawing is self._drawing:
            return
        resized = (drawing.width, drawing.height) != (self._drawing.width, self._drawing.height)
        self._drawing = drawing
        self.setAccessibleDescription(drawing.title)
        if resized or self._fitted:
            self.fit()
        self._forget()

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

    def set_overlay(self, shapes: Sequence[Shape], hidden: frozenset[Key | None] = frozenset()) -> None:
        """Marks painted over the cached layer, and keys taken out of it while they move."""
        self.overlay = shapes
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
        self.update()

    def set_home(self, part: Rect | None) -> None:
        """What is shown when nobody has zoomed: the part of a large drawing that matters; None: all of it."""
        if part != self._home:
            self._home = part
            if self._fitted:
                self.fit()

    def fit(self) -> None:
        """Shows the whole drawing or its home, or its full width when it is pages long."""
        if self._home and not self.pages:
            self._fit_to(self._home)
            return
        across = (self.width() - 16) / max(self._drawing.width, 1)
        down = (self.height() - 16) / max(self._drawing.height, 1)
        self.scale = min(across, 4.2) if self.pages else min(across, down)
        self._offset = QPointF(
            max((self.width() - self._drawing.width * self.scale) / 2, 8),
            8.0 if self.pages else max((self.height() - self._drawing.height * self.scale) / 2, 8),
        )
        self._fitted = True
        self._forget()

    def _fit_to(self, part: Rect) -> None:
        scale = min((self.width() - 16) / max(part.width, 1), (self.height() - 16) / max(part.height, 1))
        middle = QPointF(part.centre.x, part.centre.y) * scale
        self.scale, self._fitted = scale, True
        self._offset = QPointF(self.width() / 2, self.height() / 2) - middle
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
        return max(LEGIBLE_PX / self.scale, 4.6)

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
        boxes = [bounds_of(m) for m in self._drawing.shapes if m.key == key]
        if not boxes:
            return None
        largest = max(boxes, key=lambda box: box.width * box.height)
        return self.to_px(largest.centre)

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
            self.pan(QPointF(0, by.y()) if self.pages and self._fitted else by)

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
        paint(painter, shapes, self.theme, chosen=self.selection)
        paint_batched(painter, self.laid, self.theme)
        painter.end()
        return layer

    def paintEvent(self, event: QPaintEvent) -> None:
        """Blits the cached layer and paints what moves."""
        if self._layer is None:
            self._layer = self._draw_layer()
        painter = QPainter(self)
        painter.drawPixmap(0, 0, self._layer)
        if self.overlay:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setTransform(self._matrix(), True)
            paint(painter, self.overlay, self.theme, chosen=self.selection)
            painter.resetTransform()
        if self.hasFocus():
            painter.setPen(self.theme.colour("act"))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        painter.end()

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Fits again when the whole was shown."""
        if self._fitted:
            self.fit()
        self._forget()

    def wheelEvent(self, event: QWheelEvent) -> None:
        """Ctrl and wheel zoom; the wheel alone moves up and down, with Shift across."""
        turn = event.angleDelta().y() or event.angleDelta().x()
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.zoom(1.0015**turn, event.position())
        elif event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self.pan(QPointF(turn / 2, 0))
        else:
            self.pan(QPointF(0, turn / 2))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        """Left chooses and may begin a drag, also where there is nothing; the middle button moves the drawing."""
        self.setFocus()
        if event.button() == Qt.MouseButton.MiddleButton:
            self._panning = event.position()
            return
        key = self.key_at(event.position())
        self.modifiers = event.modifiers()
        self.chosen.emit(key)
        if event.button() == Qt.MouseButton.RightButton:
            self.menu_asked.emit(key, event.globalPosition().toPoint())
        elif event.button() == Qt.MouseButton.LeftButton and self.gesture:
            self._pressed = event.position()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Moves the drawing or the thing that is dragged."""
        if self._panning is not None:
            self.pan(event.position() - self._panning)
            self._panning = event.position()
        elif self._pressed is not None and self.gesture:
            self.modifiers = event.modifiers()
            if not self._dragging:
                far = (event.position() - self._pressed).manhattanLength() > DRAG_PX
                if not far:
                    return
                key = self.key_at(self._pressed)
                self._dragging = self.gesture.begin(key, self.to_mm(self._pressed))
                if not self._dragging:
                    self._pressed = None
                    return
            self.gesture.move(self.to_mm(event.position()))
        elif self.hovers:
            key = self.key_at(event.position())
            if key != self._under:
                self._under = key
                self.hovered.emit(key)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        """Ends the drag with one edit."""
        still = self._pressed
        self._panning = self._pressed = None
        if self._dragging and self.gesture:
            self._dragging = False
            self.gesture.finish()
        elif still is not None:
            self.clicked.emit(self.key_at(still))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Zoom, fit, step through the drawing; Esc ends a drag with nothing done."""
        text = event.text()
        if event.key() == Qt.Key.Key_Escape and self._dragging and self.gesture:
            self._dragging, self._pressed = False, None
            self.gesture.cancel()
        elif self.on_key(event):
            return
        elif text in ("+", "="):
            self.zoom(1.2)
        elif text == "-":
            self.zoom(1 / 1.2)
        elif text == "0":
            self.fit()
        elif text in (",", "."):
            self._step(1 if text == "." else -1)
        else:
            super().keyPressEvent(event)

    def _step(self, by: int) -> None:
        """Chooses the next thing in reading order."""
        keys = list(dict.fromkeys(mark.key for mark in self._drawing.shapes if mark.key))
        if keys:
            now = next((i for i, key in enumerate(keys) if key in self.selection), -by)
            key = keys[(now + by) % len(keys)]
            self.chosen.emit(key)
            self.reveal(key)
