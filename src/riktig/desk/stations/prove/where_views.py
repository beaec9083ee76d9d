"""Where the two points are: on the whole panel, and close by at reading size."""

import numpy as np
from numpy.typing import NDArray
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QVBoxLayout, QWidget

from riktig.core.door import DOOR, DoorPlan
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Drawing
from riktig.core.ids import WireId
from riktig.core.job import Job
from riktig.core.plate import LAYOUT, Layout
from riktig.core.proving import PIN_PLACES, Test, bounds_of_all, draw_close, draw_outlines, is_on_door, mark_points
from riktig.core.wiring import BARE_PLATE_DRAWING, WIRING
from riktig.desk.canvas import DrawingView
from riktig.desk.theme import Theme
from riktig.desk.widgets import after_paint, plain_label

__all__ = ["WhereViews"]


class WhereViews(QWidget):
    """Two pictures below each other; the closer one only where the points are near each other on the plate."""

    def __init__(self) -> None:
        super().__init__()
        self._drawn: tuple[Layout, DoorPlan, bool] | None = None
        self._bounds: tuple[Drawing, NDArray[np.float64]] | None = None
        self._asked: tuple[Evaluation[Job], Test] | None = None
        self._soon = after_paint(self, self._show)
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
        """Shows the points of a test, and the way of its wire: once the card is painted, which is read first."""
        self._asked = (evaluation, test)
        self._soon.start()

    def _show(self) -> None:
        if self._asked is None:
            return
        evaluation, test = self._asked
        layout, door = evaluation.get(LAYOUT), evaluation.get(DOOR)
        places = evaluation.get(PIN_PLACES)
        points = (test.black.pin, test.red.pin)
        wire = evaluation.get(WIRING).wire(WireId(test.wire))
        with_door = is_on_door(layout, points, places)
        drawn = (layout, door, with_door)
        if self._drawn is None or any(old is not new for old, new in zip(self._drawn, drawn, strict=True)):
            self._drawn = drawn
            self.whole.show_drawing(draw_outlines(layout, door, with_door=with_door))
        self.whole.set_overlay(mark_points(layout, (wire,) if wire else (), points, places), grows=True)
        plate = evaluation.get(BARE_PLATE_DRAWING)
        if self._bounds is None or self._bounds[0] is not plate:
            self._bounds = (plate, bounds_of_all(plate))
        close = draw_close(plate, self._bounds[1], points, places)
        self.close_by.setVisible(close is not None)
        if close:
            self.close_by.show_drawing(close)
            self.close_by.fit()

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.whole.set_theme(theme)
        self.close_by.set_theme(theme)
