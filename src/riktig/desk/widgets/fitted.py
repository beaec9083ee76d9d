"""A label of one line whose letters are as large as its room allows."""

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QFont, QFontMetrics, QResizeEvent
from PySide6.QtWidgets import QLabel, QSizePolicy

from riktig.desk.theme import words_font

__all__ = ["FittedLabel"]


class FittedLabel(QLabel):
    """Text in one face; ``largest`` and ``least`` are its sizes, pt: smaller it never gets."""

    def __init__(self, largest: float, least: float, *, mono: bool = False, bold: bool = False) -> None:
        super().__init__()
        self._mono, self._bold = mono, bold
        self.setTextFormat(Qt.TextFormat.PlainText)
        self._sizes = [
            size for size in (largest, 90.0, 64.0, 48.0, 40.0, 30.0, 24.0, 20.0, least) if least <= size <= largest
        ]
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Preferred)
        self.setFont(self._face(largest))

    def setText(self, text: str) -> None:
        """Shows a text."""
        super().setText(text)
        self._fit()

    def minimumSizeHint(self) -> QSize:
        """The room of its least letters."""
        return self._room(self._sizes[-1])

    def sizeHint(self) -> QSize:
        """The room of its largest letters."""
        return self._room(self._sizes[0])

    def resizeEvent(self, event: QResizeEvent) -> None:
        """Chooses the letters anew."""
        super().resizeEvent(event)
        self._fit()

    def _room(self, size: float) -> QSize:
        metrics = QFontMetrics(self._face(size))
        return QSize(metrics.horizontalAdvance(self.text()) + 2, metrics.height())

    def _fit(self) -> None:
        rooms = ((size, self._room(size)) for size in self._sizes)
        fits = (s for s, room in rooms if room.width() <= self.width() and room.height() <= self.height() + 1)
        face = self._face(next(fits, self._sizes[-1]))
        if abs(self.font().pointSizeF() - face.pointSizeF()) > 0.1:
            self.setFont(face)

    def _face(self, size: float) -> QFont:
        return words_font(size, mono=self._mono, bold=self._bold)
