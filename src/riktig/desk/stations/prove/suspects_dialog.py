"""All that may be wrong at once: numbered on the plate and on the sheets, with its words beside the pictures."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QDialog, QFrame, QHBoxLayout, QScrollArea, QStackedWidget, QVBoxLayout, QWidget

from riktig.core.geometry import Drawing
from riktig.desk.canvas import DrawingView
from riktig.desk.theme import Theme, grown
from riktig.desk.widgets import plain_label

__all__ = ["SuspectsDialog"]

LIST_PX = 260
"""How wide the words beside the pictures are (chosen by us)."""


class SuspectsDialog(QDialog):
    """The pictures, a page each, and what the numbers stand for.

    Args:
        drawings: The plate first, then the sheets.
        words: What may be wrong, in the order of the numbers.
        count: How much may be wrong in all: only the likeliest are drawn.
        theme: The theme of the window.
        parent: The window it opens over.
    """

    def __init__(
        self, drawings: Sequence[Drawing], words: Sequence[str], count: int, theme: Theme, parent: QWidget
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle("What may be wrong, on plate and sheets")
        self.resize(max(parent.width() - 40, 600), max(parent.height() - 60, 400))
        self.views: list[DrawingView] = []
        self.which = QComboBox()
        self.which.setAccessibleName("Plate or sheet")
        self.pages = QStackedWidget()
        self.which.currentIndexChanged.connect(self.pages.setCurrentIndex)
        for number, drawing in enumerate(drawings):
            view = DrawingView(drawing.title)
            view.set_theme(theme)
            view.show_drawing(drawing)
            self.views.append(view)
            self.pages.addWidget(view)
            self.which.addItem(drawing.title if number else "Plate")
        beside = QVBoxLayout()
        likeliest = f"The {len(words)} likeliest of {count}" if count > len(words) else "The likeliest first"
        self.head = plain_label(f"{likeliest}. What is on the door is shown on the sheets.", "quiet", wraps=True)
        self.head.setFixedWidth(grown(LIST_PX) + 20)
        beside.addWidget(self.which)
        beside.addWidget(self.head)
        self.words = plain_label("\n\n".join(f"{n}.  {text}" for n, text in enumerate(words, 1)), wraps=True)
        self.words.setAlignment(Qt.AlignmentFlag.AlignTop)
        listed = QScrollArea()
        listed.setFrameShape(QFrame.Shape.NoFrame)
        listed.setWidgetResizable(True)
        listed.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        listed.setFixedWidth(grown(LIST_PX) + 20)
        listed.setWidget(self.words)
        for ground in (listed.viewport(), self.words):  # the ground of the dialog, light or dark, shows through
            ground.setAutoFillBackground(False)
        beside.addWidget(listed, 1)
        layout = QHBoxLayout(self)
        layout.addWidget(self.pages, 1)
        layout.addLayout(beside)
