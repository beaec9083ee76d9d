"""The details: everything about what is selected, with its reasons and where it is."""

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QPainter, QPaintEvent
from PySide6.QtWidgets import (
    QApplication,
    QFrame,
    QGridLayout,
    QLabel,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from riktig.core.geometry import Drawing
from riktig.core.keys import Key
from riktig.core.standards import Why
from riktig.core.views import Details, DetailsRow, DetailsSection
from riktig.desk.canvas import paint
from riktig.desk.theme import LIGHT, Theme, words_font
from riktig.desk.widgets import plain_label, replace_body

__all__ = ["DetailsPanel", "MiniDrawing"]


class MiniDrawing(QWidget):
    """A small drawing that only shows, as large as its width allows."""

    def __init__(self, name: str, most: int = 230) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.theme: Theme = LIGHT
        self._drawing = Drawing(10, 10, ())
        self._most = most
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)

    def show_drawing(self, drawing: Drawing) -> None:
        """Puts a drawing in."""
        self._drawing = drawing
        wide = max(self.width(), 240)
        self.setFixedHeight(min(int(wide * drawing.height / max(drawing.width, 1)), self._most))
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        """Paints the drawing, fitted."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        scale = min(self.width() / self._drawing.width, self.height() / self._drawing.height)
        painter.translate((self.width() - self._drawing.width * scale) / 2, 0)
        painter.scale(scale, scale)
        paint(painter, self._drawing.shapes, self.theme)
        painter.end()


class DetailsPanel(QScrollArea):
    """Shows the details of a thing; ``link`` carries the key a line leads to."""

    link = Signal(object)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("details")
        self.setAccessibleName("Details")
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setFixedWidth(306)
        self.theme: Theme = LIGHT
        self._put_away = False
        self._wanted = False
        self.hide()

    def turn(self) -> None:
        """Shows or hides it; put away by hand, it stays away until it is asked for again."""
        self._put_away = self.isVisible()
        self._wanted = not self._put_away
        self.setVisible(self._wanted)

    def open_for(self, key: Key | None) -> None:
        """Opens for what is selected and folds away without; not while a button is down.

        What is dragged would move away from the pointer.
        """
        self._wanted = key is not None and not self._put_away
        self._turn_when_free()

    def _turn_when_free(self) -> None:
        if QApplication.mouseButtons() == Qt.MouseButton.NoButton:
            self.setVisible(self._wanted)
        else:
            QTimer.singleShot(30, self, self._turn_when_free)

    def show_details(self, details: Details | None, plate: Drawing | None) -> None:
        """Shows what is selected, or what one can do when nothing is."""
        body = QWidget()
        layout = QVBoxLayout(body)
        layout.setContentsMargins(16, 12, 14, 12)
        layout.setSpacing(6)
        if details is None:
            layout.addWidget(plain_label("Details", "title"))
            layout.addWidget(
                plain_label(
                    "Select a device, terminal, wire or hole to see what it is, where it is, what it connects "
                    "to, its build and test record, and why it was chosen.",
                    "second",
                    wraps=True,
                )
            )
        else:
            self._fill(layout, details, plate)
        layout.addStretch(1)
        replace_body(self, body)

    def show_waiting(self) -> None:
        """Says that what is known of the selection is still being worked out."""
        body = QWidget()
        layout = QVBoxLayout(body)
        layout.setContentsMargins(16, 12, 14, 12)
        layout.addWidget(plain_label("Details", "title"))
        layout.addWidget(plain_label("Wires, rules and tests are being worked out …", "second", wraps=True))
        layout.addStretch(1)
        replace_body(self, body)

    def _fill(self, layout: QVBoxLayout, details: Details, plate: Drawing | None) -> None:
        title = plain_label(details.title, "large", wraps=True)
        title.setFont(words_font(17 if len(details.title) < 15 else 13, mono=True, bold=True))
        layout.addWidget(title)
        layout.addWidget(plain_label(details.kind, "quiet"))
        if details.text:
            layout.addWidget(plain_label(details.text, wraps=True))
        for section in details.sections:
            layout.addWidget(_line())
            layout.addLayout(self._section(section))
        if plate and details.wires:
            layout.addWidget(_line())
            layout.addWidget(plain_label("On the plate", "quiet"))
            mini = MiniDrawing("Where it is on the plate")
            mini.theme = self.theme
            mini.show_drawing(plate)
            layout.addWidget(mini)
        for why in details.whys:
            layout.addWidget(_line())
            self._why(layout, why)

    def _section(self, section: DetailsSection) -> QGridLayout:
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(3)
        grid.addWidget(plain_label(section.title, "quiet"), 0, 0, 1, 2)
        for n, row in enumerate(section.rows, 1):
            grid.addWidget(plain_label(row.name, "second"), n, 0, Qt.AlignmentFlag.AlignTop)
            grid.addWidget(self._value(row), n, 1)
        grid.setColumnStretch(1, 1)
        return grid

    def _value(self, row: DetailsRow) -> QWidget:
        if not row.link:
            label = plain_label(row.value, wraps=True)
            label.setAlignment(Qt.AlignmentFlag.AlignRight)
            return label
        button = QPushButton(row.value)
        button.setFlat(True)
        button.setCursor(Qt.CursorShape.PointingHandCursor)
        button.setAccessibleName(f"{row.name}: {row.value}, go there")
        button.setStyleSheet("text-align: right;")
        button.clicked.connect(lambda _=False, key=row.link: self.link.emit(key))
        return button

    def _why(self, layout: QVBoxLayout, why: Why) -> None:
        heading = plain_label(why.title)
        heading.setFont(words_font(10, bold=True))
        layout.addWidget(heading)
        layout.addWidget(plain_label(why.reason, wraps=True))
        if why.lines:
            card = QLabel("\n".join(why.lines))
            card.setTextFormat(Qt.TextFormat.PlainText)
            card.setWordWrap(True)
            card.setObjectName("card")
            card.setMargin(7)
            layout.addWidget(card)
        text = why.source if why.confidence == "sure" else f"{why.source} ({why.confidence})"
        layout.addWidget(plain_label(text, "quiet", wraps=True))


def _line() -> QFrame:
    line = QFrame()
    line.setFrameShape(QFrame.Shape.HLine)
    line.setObjectName("quiet")
    return line
