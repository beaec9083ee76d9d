"""A drawing as a small picture, for buttons."""

from PySide6.QtCore import QSize
from PySide6.QtGui import QIcon, QPainter, QPixmap

from riktig.core.geometry import Drawing
from riktig.desk.canvas.painter import paint
from riktig.desk.theme import Theme

__all__ = ["thumb"]


def thumb(drawing: Drawing, size: QSize, theme: Theme, ratio: float = 1.0) -> QIcon:
    """The whole drawing, as large as it fits, on the paper of the theme."""
    picture = QPixmap(size * ratio)
    picture.setDevicePixelRatio(ratio)
    picture.fill(theme.colour("paper"))
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    scale = min(size.width() / max(drawing.width, 1), size.height() / max(drawing.height, 1))
    painter.translate((size.width() - drawing.width * scale) / 2, (size.height() - drawing.height * scale) / 2)
    painter.scale(scale, scale)
    paint(painter, drawing.shapes, theme)
    painter.end()
    return QIcon(picture)
