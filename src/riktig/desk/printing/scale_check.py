"""A page with a bar of 100 mm, printed, measured and entered: a printer that scales gets no label and no template."""

from PySide6.QtCore import QLineF, QRectF, Qt
from PySide6.QtGui import QPainter, QPen
from PySide6.QtPrintSupport import QPrinter
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QDoubleSpinBox,
    QFormLayout,
    QLabel,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from riktig.desk.measured_devices import BAR_MM, keep_printed_bar, printed_bar, scales
from riktig.desk.widgets import plain_label

__all__ = ["ScaleCheck", "print_bar", "why_not_true"]

MM_PER_INCH = 25.4


def why_not_true(printer: str) -> str:
    """Why labels and templates do not go to a printer: it scales, or nobody has measured it; "" when it is true.

    Args:
        printer: Its name.
    """
    measured = printed_bar(printer)
    if not measured:
        return f"Nobody has measured yet whether {printer} prints at true size."
    if scales(measured):
        return (
            f"{printer} prints {BAR_MM:g} mm as {measured:g} mm: labels and templates would be wrong. Set it to 100 % "
            "(“actual size”), print the bar again and measure it."
        )
    return ""


def print_bar(printer: QPrinter) -> bool:
    """Prints a page with the bar, level and upright, at true size.

    Args:
        printer: Where to.

    Returns:
        Whether the printer took it.
    """
    printer.setFullPage(True)
    painter = QPainter()
    if not painter.begin(printer):
        return False
    dots = printer.resolution() / MM_PER_INCH
    painter.setPen(QPen(Qt.GlobalColor.black, 0.3 * dots))
    left, top, long = 40 * dots, 60 * dots, BAR_MM * dots
    painter.drawLine(QLineF(left, top, left + long, top))
    painter.drawLine(QLineF(left, top, left, top + long))
    for at in (0.0, long):
        painter.drawLine(QLineF(left + at, top - 3 * dots, left + at, top + 3 * dots))
        painter.drawLine(QLineF(left - 3 * dots, top + at, left + 3 * dots, top + at))
    room = QRectF(left, top - 25 * dots, 120 * dots, 15 * dots)
    painter.drawText(room, Qt.AlignmentFlag.AlignLeft, f"Both bars are {BAR_MM:g} mm. Measure them and enter it.")
    return painter.end()


class ScaleCheck(QDialog):
    """Asks how long the bar came out; ``measured`` is the worse of both ways, 0 while nothing was entered.

    Args:
        parent: What it stands over.
        printer: Where the bar is printed.
    """

    def __init__(self, parent: QWidget, printer: QPrinter) -> None:
        super().__init__(parent)
        self._printer, self._name = printer, printer.printerName()
        self.measured = 0.0
        self.setWindowTitle(f"Scale of {self._name or 'the printer'}")
        self.words: QLabel = plain_label(
            f"Print the page, measure both bars with a steel rule, and enter what you read. Each is {BAR_MM:g} mm.",
            wraps=True,
        )
        self.page = QPushButton("Print the page")
        self.page.setAutoDefault(False)
        self.page.clicked.connect(self._print_page)
        self.across, self.down = QDoubleSpinBox(), QDoubleSpinBox()
        form = QFormLayout()
        for field, words in ((self.across, "The level bar reads"), (self.down, "The upright bar reads")):
            field.setRange(0.0, 200.0)
            field.setDecimals(1)
            field.setSuffix(" mm")
            field.setAccessibleName(words)
            form.addRow(words, field)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.addWidget(self.words)
        layout.addWidget(self.page)
        layout.addLayout(form)
        layout.addWidget(buttons)

    def _print_page(self) -> None:
        taken = print_bar(self._printer)
        self.words.setText(
            "The page is out. Measure both bars with a steel rule, and enter what you read."
            if taken
            else "The printer took no page. See whether it is on and has paper, then print again."
        )

    def accept(self) -> None:
        """Keeps what was read, for this printer."""
        readings = (self.across.value(), self.down.value())
        if not all(readings):
            self.words.setText("Not yet: both bars are measured, for printers scale one way and not the other.")
            return
        self.measured = max(readings, key=lambda length: abs(length - BAR_MM))
        keep_printed_bar(self._name, self.measured)
        super().accept()
