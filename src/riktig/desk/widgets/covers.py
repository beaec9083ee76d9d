"""What lies over a station that has nothing to show yet: while it is worked out, or before there is any load."""

from PySide6.QtCore import QEvent, QObject, Qt
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from riktig.desk.widgets.small import plain_label

__all__ = ["Cover", "EmptyNote"]


class Cover(QWidget):
    """Lies over a whole station; a click goes nowhere meanwhile.

    Args:
        station: What it covers.
        content: What is shown in its middle.
    """

    def __init__(self, station: QWidget, content: QWidget) -> None:
        super().__init__(station)
        self.setObjectName("cover")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        layout = QVBoxLayout(self)
        layout.addStretch(1)
        layout.addWidget(content)
        layout.addStretch(2)
        station.installEventFilter(self)
        self.hide()

    def lay_over(self) -> None:
        """Covers the whole station."""
        station = self.parentWidget()
        if station is not None:
            self.setGeometry(station.rect())
        self.raise_()
        self.show()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Stays as large as the station."""
        if event.type() == QEvent.Type.Resize and self.isVisible():
            self.lay_over()
        return False


class EmptyNote(QWidget):
    """Says in a line what a station waits for, with a button that leads there.

    Args:
        text: What it waits for.
    """

    def __init__(self, text: str) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setAccessibleName(text)
        self.words = plain_label(text, "second", wraps=True)
        self.lead = QPushButton("Add a load in the Brief")
        self.lead.setObjectName("main")
        self.lead.setToolTip("Opens the Brief where motors and other loads are stated")
        policy = self.sizePolicy()
        policy.setVerticalPolicy(QSizePolicy.Policy.Maximum)
        self.setSizePolicy(policy)
        row = QHBoxLayout(self)
        row.setContentsMargins(14, 8, 14, 8)
        row.setSpacing(12)
        row.addWidget(self.words, 1)
        row.addWidget(self.lead, 0, Qt.AlignmentFlag.AlignVCenter)
