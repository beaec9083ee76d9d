"""The field for a typed reading."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit

__all__ = ["TypedReading"]


class TypedReading(QLineEdit):
    """A field whose Enter ends with it: it shows the reading, a second Enter accepts."""

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Enter goes no further than the field."""
        super().keyPressEvent(event)
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            event.accept()
