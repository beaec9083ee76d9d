"""A label that is cut with “…” where there is no room, and says its whole text when the pointer rests on it."""

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QLabel, QSizePolicy

__all__ = ["ElidedLabel"]

LEAST_PX = 72
"""A narrower one says nothing (chosen by us: six letters)."""


class ElidedLabel(QLabel):
    """A label of one line of plain text in a role of the style sheet, as wide as its text where there is room."""

    def __init__(self, role: str) -> None:
        super().__init__()
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setObjectName(role)
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Preferred)
        self._whole = ""

    def show_text(self, text: str) -> None:
        """Puts a text in."""
        self._whole = text
        self.setAccessibleName(text)
        self.setText(text)
        self.updateGeometry()
        self._fit()

    def sizeHint(self) -> QSize:
        """The room of the whole text."""
        size, metrics = super().sizeHint(), self.fontMetrics()
        around = size.width() - metrics.horizontalAdvance(self.text())
        return QSize(around + metrics.horizontalAdvance(self._whole) + 1, size.height())

    def minimumSizeHint(self) -> QSize:
        """The room of some letters."""
        size = self.sizeHint()
        return QSize(min(size.width(), LEAST_PX), size.height())

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Cuts the text to the room that is left."""
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        metrics = self.fontMetrics()
        around = super().sizeHint().width() - metrics.horizontalAdvance(self.text())
        shown = metrics.elidedText(self._whole, Qt.TextElideMode.ElideRight, max(self.width() - around, 0))
        self.setToolTip(self._whole if shown != self._whole else "")
        if shown != self.text():
            self.setText(shown)
