"""How large this screen shows a millimetre: a bank card is held against it, once."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QDialog, QDialogButtonBox, QSlider, QVBoxLayout, QWidget

from riktig.desk.measured_devices import CARD_MM
from riktig.desk.widgets import plain_label

__all__ = ["ScreenDialog"]

STEPS = 100
"""Of the slider to the pixel a millimetre."""
LOW, HIGH = 2.0, 14.0


class _Card(QWidget):
    """The outline of a card as large as it is thought to be."""

    def __init__(self) -> None:
        super().__init__()
        self.pixels = 4.0
        self.setMinimumSize(680, 430)
        self.setAccessibleName("Outline of a card")

    def paintEvent(self, event: QPaintEvent) -> None:
        """Draws the outline in the upper left corner, where a card is easily held."""
        painter = QPainter(self)
        painter.setPen(QPen(self.palette().windowText().color(), 1))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        width, height = (side * self.pixels for side in CARD_MM)
        painter.drawRoundedRect(QRectF(8, 8, width, height), 3.2 * self.pixels, 3.2 * self.pixels)
        painter.end()
        super().paintEvent(event)


class ScreenDialog(QDialog):
    """Asks until the outline is as large as the card; ``pixels`` to the millimetre.

    Args:
        parent: What it stands over.
        now: What is thought of now, pixels to the millimetre.
    """

    def __init__(self, parent: QWidget, now: float) -> None:
        super().__init__(parent)
        self.setWindowTitle("Size of this screen")
        self._card = _Card()
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setAccessibleName("Size of the outline")
        self.slider.setRange(int(LOW * STEPS), int(HIGH * STEPS))
        self.slider.valueChanged.connect(self._show)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        words = "Hold a bank card against the outline and move the slider until both are of one size."
        layout.addWidget(plain_label(words, wraps=True))
        layout.addWidget(self._card, 1)
        layout.addWidget(self.slider)
        layout.addWidget(buttons)
        self.slider.setValue(round(now * STEPS))
        self._show()

    @property
    def pixels(self) -> float:
        """What was found: pixels to the millimetre."""
        return self.slider.value() / STEPS

    def _show(self) -> None:
        self._card.pixels = self.pixels
        self._card.update()
