"""Undo within a field: while something is typed it takes back the typing, otherwise the last change of the job."""

from PySide6.QtCore import QEvent, QObject, QTimer
from PySide6.QtGui import QKeyEvent, QKeySequence
from PySide6.QtWidgets import QAbstractSpinBox, QApplication, QLineEdit, QWidget

__all__ = ["FieldUndo"]


class FieldUndo(QObject):
    """Watches the field that has the focus, and no other widget: a filter on the application would slow every event."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self._watched: QWidget | None = None
        app = QApplication.instance()
        if isinstance(app, QApplication):
            app.focusChanged.connect(self._focus_moved)

    def _focus_moved(self, _: QWidget | None, now: QWidget | None) -> None:
        if self._watched is not None:
            self._watched.removeEventFilter(self)
            self._watched.destroyed.disconnect(self._gone)
        self._watched = now if _line_of(now) is not None else None
        if self._watched is not None:
            self._watched.installEventFilter(self)
            self._watched.destroyed.connect(self._gone)
            self._begin()

    def _gone(self) -> None:
        self._watched = None

    def _begin(self) -> None:
        """Nothing has been typed into the field from here on."""
        line = _line_of(self._watched)
        if line is not None:
            line.setModified(False)

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Leaves Undo and Redo to the window while nothing is typed that is not taken over yet."""
        if not isinstance(event, QKeyEvent):
            return False
        line = _line_of(watched)
        if line is None:
            return False
        steps = (QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo)
        if event.type() is QEvent.Type.ShortcutOverride and any(event.matches(step) for step in steps):
            if not line.isModified():
                event.ignore()
                return True
        elif event.type() is QEvent.Type.KeyPress and event.text() in ("\r", "\n"):
            QTimer.singleShot(0, self, self._begin)  # after what Enter does: what was typed is taken over
        return False


def _line_of(widget: object) -> QLineEdit | None:
    """The line that is typed into: a field itself, or that of a field with steps."""
    if isinstance(widget, QLineEdit):
        return widget
    if isinstance(widget, QAbstractSpinBox):
        line = widget.findChild(QLineEdit)
        return line if isinstance(line, QLineEdit) else None
    return None
