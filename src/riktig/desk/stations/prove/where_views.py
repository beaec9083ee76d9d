"""Where the two points are: on the whole panel, and close by at reading size."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QVBoxLayout, QWidget

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.ids import WireId
from riktig.core.job import Job
from riktig.core.plate import LAYOUT
from riktig.core.proving import PIN_PLACES, Test, draw_close, draw_where
from riktig.core.wiring import BARE_PLATE_DRAWING, WIRING
from riktig.desk.canvas import DrawingView
from riktig.desk.theme import Theme
from riktig.desk.widgets import plain_label

__all__ = ["WhereViews"]


class WhereViews(QWidget):
    """Two pictures below each other; the closer one only where the points are near each other on the plate."""

    def __init__(self) -> None:
        super().__init__()
        self.whole, self.close_by = DrawingView("Where the two points are"), DrawingView("The two points close by")
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(plain_label("Where", "quiet"))
        for view in (self.whole, self.close_by):
            view.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            view.setMinimumSize(130, 110)
        layout.addWidget(self.whole, 2)
        layout.addWidget(self.close_by, 3)

    def show_test(self, evaluation: Evaluation[Job], test: Test) -> None:
        """Shows the points of a test, and the way of its wire."""
        layout, door = evaluation.get(LAYOUT), evaluation.get(DOOR)
        places = evaluation.get(PIN_PLACES)
        points = (test.black.pin, test.red.pin)
        wire = evaluation.get(WIRING).wire(WireId(test.wire))
        self.whole.show_drawing(draw_where(layout, door, (wire,) if wire else (), points, places))
        close = draw_close(evaluation.get(BARE_PLATE_DRAWING), points, places)
        self.close_by.setVisible(close is not None)
        if close:
            self.close_by.show_drawing(close)
            self.close_by.fit()

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.whole.set_theme(theme)
        self.close_by.set_theme(theme)
