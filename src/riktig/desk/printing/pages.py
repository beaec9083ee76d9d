"""The pages of a PDF as pictures, for the preview and for the printer; PDFium draws them."""

from pathlib import Path

import pypdfium2 as pdfium
from PySide6.QtCore import QMarginsF, QRectF, QSizeF
from PySide6.QtGui import QImage, QPageLayout, QPageSize, QPainter
from PySide6.QtPrintSupport import QPrinter

__all__ = ["PdfPages", "print_pages"]

POINTS_PER_INCH = 72.0
MOST_DPI = 600
"""A page is drawn no finer than this: A3 at 600 dpi is 210 MB already."""


class PdfPages:
    """A PDF that was written; to be closed when it is no longer looked at.

    Args:
        path: The file.
    """

    def __init__(self, path: Path) -> None:
        self._document = pdfium.PdfDocument(path.read_bytes())
        self.count: int = len(self._document)

    def size(self, page: int) -> tuple[float, float]:
        """Width and height of a page, counted from 0, in points."""
        width, height = self._document[page].get_size()
        return float(width), float(height)

    def picture(self, page: int, dpi: float) -> QImage:
        """A page as a picture.

        Args:
            page: Which, counted from 0.
            dpi: How fine, pixels to the inch.
        """
        bitmap = self._document[page].render(scale=dpi / POINTS_PER_INCH)
        shared = QImage(bitmap.buffer, bitmap.width, bitmap.height, bitmap.stride, QImage.Format.Format_BGR888)
        return shared.copy()  # the buffer goes with the bitmap

    def close(self) -> None:
        """Lets the file go."""
        self._document.close()


def print_pages(pages: PdfPages, printer: QPrinter) -> bool:
    """Prints pages at true size, each on paper of its own size; nothing is scaled to the printer's margins.

    Args:
        pages: The pages.
        printer: Where to; of its range of pages only those are printed.

    Returns:
        Whether the printer took them all.
    """
    first, last = printer.fromPage() or 1, printer.toPage() or pages.count
    wanted = range(max(first, 1) - 1, min(last, pages.count))
    printer.setFullPage(True)
    painter = QPainter()
    for place, page in enumerate(wanted):
        width, height = pages.size(page)
        across = width > height
        size = QPageSize(
            QSizeF(*sorted((width, height))), QPageSize.Unit.Point, "", QPageSize.SizeMatchPolicy.FuzzyMatch
        )
        way = QPageLayout.Orientation.Landscape if across else QPageLayout.Orientation.Portrait
        printer.setPageLayout(QPageLayout(size, way, QMarginsF(0, 0, 0, 0)))
        if not (painter.begin(printer) if place == 0 else printer.newPage()):
            painter.end()
            return False
        dpi = printer.resolution()
        room = QRectF(0, 0, width / POINTS_PER_INCH * dpi, height / POINTS_PER_INCH * dpi)
        painter.drawImage(room, pages.picture(page, min(dpi, MOST_DPI)))
    return painter.end() if painter.isActive() else False
