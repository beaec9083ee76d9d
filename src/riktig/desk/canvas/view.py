"""A drawing one can look at: zoom, pan, choose by mouse and key."""

from collections.abc import Callable

from PySide6.QtCore import QPoint, QPointF, Qt, QTimer, Signal
from PySide6.QtGui import QContextMenuEvent, QKeyEvent, QMouseEvent, QWheelEvent
from PySide6.QtWidgets import QWidget

from riktig.core.geometry import Point
from riktig.core.keys import Key
from riktig.desk.canvas.scaled_view import ScaledView

__all__ = ["DrawingView", "Gesture"]

DRAG_PX = 5.0
EDGE_PX = 26.0
"""A drag this near to the edge moves the drawing on."""


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


class DrawingView(ScaledView):
    """Shows one drawing. Keys: + and - zoom, 0 fits, comma and point step through what is on it."""

    chosen = Signal(object)
    clicked = Signal(object)
    """A left click without a drag, when the button is let go."""
    opened = Signal(object)
    """A double click: what it was on is to be worked on."""
    menu_asked = Signal(object, QPoint)
    hovered = Signal(object)

    def __init__(self, name: str, parent: QWidget | None = None) -> None:
        super().__init__(name, parent)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.gesture: Gesture | None = None
        self.hovers = False
        self.has_own_menu = False
        self.modifiers = Qt.KeyboardModifier.NoModifier
        self.on_key: Callable[[QKeyEvent], bool] = lambda event: False
        self._pressed: QPointF | None = None
        self._dragging = False
        self._panning: QPointF | None = None
        self._under: Key | None = None
        self._at = QPointF()
        self._edge_timer = QTimer(self)
        self._edge_timer.setInterval(30)
        self._edge_timer.timeout.connect(self._move_on)

    def use_menu(self, asked: Callable[[Key | None, QPoint], None]) -> None:
        """Gives it a menu of its own, in place of the one that every drawing has."""
        self.has_own_menu = True
        self.menu_asked.connect(asked)

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

    def mouseDoubleClickEvent(self, event: QMouseEvent) -> None:
        """Chooses as one click does, and opens."""
        self.mousePressEvent(event)
        if event.button() == Qt.MouseButton.LeftButton:
            self.opened.emit(self.key_at(event.position()))

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        """The menu key asks for what can be done with what is selected; the right button has asked already."""
        if event.reason() != QContextMenuEvent.Reason.Keyboard:
            return
        key = next(iter(self.selection - {None}), None)
        at = self.centre_of(key) or QPointF(self.rect().center())
        inside = QPointF(min(max(at.x(), 0), self.width()), min(max(at.y(), 0), self.height()))
        self.menu_asked.emit(key, self.mapToGlobal(inside.toPoint()))

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        """Moves the drawing or the thing that is dragged."""
        self._at = event.position()
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
                self._edge_timer.start()
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
        self._edge_timer.stop()
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
            self._edge_timer.stop()
            self.gesture.cancel()
        elif self.on_key(event):
            return
        elif text in ("+", "="):
            self.zoom(1.2)
        elif text == "-":
            self.zoom(1 / 1.2)
        elif text == "0":
            self.fit() if self._whole or not self._fitted else self.fit_whole()
        elif text in (",", "."):
            self._step(1 if text == "." else -1)
        else:
            super().keyPressEvent(event)

    def _move_on(self) -> None:
        """Moves the drawing while a drag is held at the edge and some of the drawing lies beyond it."""
        seen, by, step = self._seen, QPointF(0, 0), 12.0
        if self._at.x() < EDGE_PX and seen.left() > 0:
            by.setX(step)
        elif self._at.x() > self.width() - EDGE_PX and seen.right() < self._drawing.width:
            by.setX(-step)
        if self._at.y() < EDGE_PX and seen.top() > 0:
            by.setY(step)
        elif self._at.y() > self.height() - EDGE_PX and seen.bottom() < self._drawing.height:
            by.setY(-step)
        if self.gesture and self._dragging and (by.x() or by.y()):
            self.pan(by)
            self.gesture.move(self.to_mm(self._at))

    def _step(self, by: int) -> None:
        """Chooses the next thing in reading order."""
        keys = list(dict.fromkeys(mark.key for mark in self._drawing.shapes if mark.key))
        if keys:
            now = next((i for i, key in enumerate(keys) if key in self.selection), -by)
            key = keys[(now + by) % len(keys)]
            self.chosen.emit(key)
            self.reveal(key)
