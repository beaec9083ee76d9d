"""The details: everything about what is selected, with its reasons and where it is."""

from collections.abc import Callable

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QIcon, QImage, QPainter, QPaintEvent, QPixmap
from PySide6.QtWidgets import (
    QApplication,
    QDialog,
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
from riktig.core.views import Details, DetailsRow, DetailsSection, Photo
from riktig.desk.canvas import paint
from riktig.desk.theme import LIGHT, Theme, words_font
from riktig.desk.widgets import plain_label, replace_body

__all__ = ["DetailsPanel", "MiniDrawing"]

PHOTO_PX = 250
"""How wide a photo stands among the details."""


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
        self.photo_of: Callable[[Photo], QImage | None] = lambda photo: None
        self._small: dict[Photo, QPixmap] = {}
        self._shown: tuple[Details | None, Drawing | None, Theme] | None = None
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
        shown = (details, plate, self.theme)
        if shown == self._shown and not (details and details.photos):  # a photo may be found or lost meanwhile
            return
        self._shown = shown
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
        self._shown = None
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
        if details.reason:
            layout.addWidget(_line())
            layout.addWidget(plain_label("Design reason", "quiet"))
            layout.addWidget(plain_label(details.reason.text, wraps=True))
            if details.reason.by:
                layout.addWidget(plain_label(details.reason.by, "second", wraps=True))
        if details.notes:
            layout.addWidget(_line())
            layout.addWidget(plain_label("Notes", "quiet"))
        for note in details.notes:
            layout.addWidget(plain_label(note.text, wraps=True))
            layout.addWidget(plain_label(note.by, "second", wraps=True))
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
        if details.photos:
            layout.addWidget(_line())
            layout.addWidget(plain_label("Photos", "quiet"))
        for photo in details.photos:
            self._photo(layout, photo, details.title)
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

    def _photo(self, layout: QVBoxLayout, photo: Photo, title: str) -> None:
        """A small picture that opens the whole one."""
        if photo not in self._small:
            picture = self.photo_of(photo)
            if picture is not None:
                smooth = Qt.TransformationMode.SmoothTransformation
                self._small[photo] = QPixmap.fromImage(picture.scaledToWidth(PHOTO_PX, smooth))
        small = self._small.get(photo)
        if small is None:
            text = f"{photo.text}: the picture is missing, or is not the one that was recorded."
            layout.addWidget(plain_label(text, "fails", wraps=True))
            return
        button = QPushButton()
        button.setFlat(True)
        button.setIcon(QIcon(small))
        button.setIconSize(small.size())
        button.setFixedHeight(small.height() + 6)
        button.setToolTip("Shows the photo large")
        button.setAccessibleName(f"Photo of {title}, {photo.text}")
        button.clicked.connect(lambda: _show_large(self, self.photo_of(photo), f"{title}, {photo.text}"))
        layout.addWidget(button)
        layout.addWidget(plain_label(photo.text, "quiet", wraps=True))

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


def _show_large(parent: QWidget, picture: QImage | None, title: str) -> None:
    """A photo in a window of its own, as large as the screen has room for."""
    if picture is None:
        return
    page = QDialog(parent.window())
    page.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    page.setWindowTitle(title)
    room = page.screen().availableSize() * 0.85
    label = QLabel()
    label.setAccessibleName(title)
    fits = picture.width() <= room.width() and picture.height() <= room.height()
    large = picture if fits else picture.scaled(room, Qt.AspectRatioMode.KeepAspectRatio)
    label.setPixmap(QPixmap.fromImage(large))
    layout = QVBoxLayout(page)
    layout.setContentsMargins(0, 0, 0, 0)
    layout.addWidget(label)
    page.open()


def _line() -> QFrame:
    line = QFrame()
    line.setFrameShape(QFrame.Shape.HLine)
    line.setObjectName("quiet")
    return line
