"""A label printer to learn on: the strip as it comes out, with what goes wrong on real ones. Nothing is recorded."""

from collections.abc import Sequence

from PySide6.QtWidgets import QComboBox, QDialog, QPushButton, QVBoxLayout, QWidget

from riktig.core.geometry import Drawing, Line, Rect, Shape, moved
from riktig.core.labels import Label, label_marks
from riktig.core.plate import box
from riktig.desk.canvas import PAGES, DrawingView
from riktig.desk.theme import Theme
from riktig.desk.widgets import plain_label, row_of
from riktig.devices.label_printer import LabelPrinterStandIn, PrinterFault, StripPiece

__all__ = ["PrinterDialog", "draw_strip_of_labels"]

ACROSS_MM = 184.0
"""The strip is shown in lines of this length, mm (chosen by us: as wide as a sheet)."""
BETWEEN = 3.0


def draw_strip_of_labels(labels: Sequence[Label], pieces: Sequence[StripPiece]) -> Drawing:
    """The strip as it lies in the tray, in lines below each other; what is spoilt is crossed out.

    Args:
        labels: As they were sent to the printer, one for each copy.
        pieces: What came out.
    """
    shapes: list[Shape] = []
    x = y = line = 0.0
    for piece in pieces:
        label = labels[piece.number - 1]
        _width, height = label.size
        if x and x + piece.length > ACROSS_MM:
            x, y, line = 0.0, y + line + BETWEEN, 0.0
        line = max(line, height)
        room = Rect(x, y, piece.length, height)
        shapes += [moved(mark, 0.0, 0.0) for mark in label_marks(label, Rect(x, y, *label.size))]
        shapes.append(box(room, "ink", 0.3))
        if piece.spoilt:
            shapes.append(Line(x, y, room.right, room.bottom, "fails", 0.6))
            shapes.append(Line(x, room.bottom, room.right, y, "fails", 0.6))
        x += piece.length
    return Drawing(ACROSS_MM, max(y + line, 20.0), tuple(shapes), "strip of labels")


class PrinterDialog(QDialog):
    """Prints the labels that are shown on a printer that is only imagined.

    Args:
        parent: What it stands over.
        labels: What is shown in the station.
        theme: The colours of the window.
    """

    def __init__(self, parent: QWidget, labels: Sequence[Label], theme: Theme) -> None:
        super().__init__(parent)
        self.setWindowTitle("Practice printer: nothing is printed or recorded")
        self._labels = [label for label in labels for _ in range(label.copies)]
        self.printer = LabelPrinterStandIn()
        self.next = 0
        self.fault = QComboBox()
        self.fault.setAccessibleName("What goes wrong")
        self.fault.addItems([fault.value for fault in PrinterFault])
        self.words = plain_label("", "second", wraps=True)
        self.view = DrawingView("Strip of labels")
        self.view.opening = PAGES
        self.view.set_theme(theme)
        self.start = QPushButton("Print on it")
        self.start.setObjectName("main")
        self.start.clicked.connect(self.print_rest)
        self.roll = QPushButton("New roll")
        self.roll.setToolTip("A roll of 8 m; what jammed is cleared")
        self.roll.clicked.connect(self.put_in_roll)
        close = QPushButton("Close")
        close.clicked.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.addLayout(row_of((self.fault, self.start, self.roll, None, close)))
        layout.addWidget(self.words)
        layout.addWidget(self.view, 1)
        self.resize(900, 620)
        self._say(())

    def print_rest(self) -> None:
        """Prints what has not come out well yet, from the first label that was spoilt or is missing."""
        self.printer.fault = list(PrinterFault)[self.fault.currentIndex()]
        rest = self._labels[self.next :]
        pieces = self.printer.print_labels([label.size[0] for label in rest])
        self.view.show_drawing(draw_strip_of_labels(rest, pieces))
        good = next((piece.number - 1 for piece in pieces if piece.spoilt), len(pieces))
        self.next += good
        self._say(pieces)

    def put_in_roll(self) -> None:
        """A new roll; the printer works again."""
        self.printer.put_in_roll(8000.0)
        self.fault.setCurrentIndex(0)
        self._say(())

    def _say(self, pieces: Sequence[StripPiece]) -> None:
        left = len(self._labels) - self.next
        spoilt = sum(piece.spoilt for piece in pieces)
        tape = f"{self.printer.tape_mm:.0f} mm of tape"
        words = f"{len(self._labels)} labels sent, {self.next} good, {left} to print; {tape}."
        if spoilt:
            words += f" {spoilt} are spoilt: throw them away, and print on from there, or they end up on the panel."
        elif pieces and left:
            words += " It stopped: put in a new roll, and print on."
        self.words.setText(words)
        self.start.setText("Print the rest" if self.next else "Print on it")
        self.start.setEnabled(left > 0)
