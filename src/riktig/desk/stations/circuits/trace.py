"""A trace, walked with the arrow keys: along a way, across to the next, Enter to where it stands."""

from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QFileDialog, QPushButton, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.exports import export_drawings, file_stem
from riktig.core.geometry import Point, Poly
from riktig.core.keys import Key
from riktig.core.views import Stop, TracePage, trace_page
from riktig.desk.canvas import PAGES, DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import plain_label, row_of

__all__ = ["TraceView"]

_MOVES = {Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1), Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0)}
_KEYS = "Up and down walk along a way, left and right change the way, Enter shows the step on its sheet, Esc goes back."


class TraceView(QWidget):
    """Shows one trace. ``back`` returns to the sheets, ``shown`` leads to where a step stands on them."""

    def __init__(self, session: Session, back: Callable[[], None], shown: Callable[[Key | None], None]) -> None:
        super().__init__()
        self._session, self._back, self._shown = session, back, shown
        self.page: TracePage | None = None
        self.key: Key | None = None
        self.at = (0, 0)
        self.back = QPushButton("Back to the sheets")
        self.back.clicked.connect(back)
        self.save = QPushButton("Print to PDF …")
        self.save.setToolTip("Writes this page as a PDF of one sheet")
        self.save.clicked.connect(self._ask_file)
        self.view = DrawingView("Trace")
        self.view.opening = PAGES
        self.view.on_key = self._key
        self.view.chosen.connect(self._chosen)
        self.words = plain_label("", "second", wraps=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addLayout(row_of([self.back, self.save, None]))
        column.addWidget(self.view, 1)
        column.addWidget(self.words)
        column.addWidget(plain_label(_KEYS, "quiet", wraps=True))

    def follow(self, key: Key | None) -> bool:
        """Shows the trace of what a key names, standing on what was asked for; False when there is none."""
        page = trace_page(self._session.evaluation, key) if key else None
        if page is None:
            return False
        fresh = key != self.key
        self.page, self.key = page, key
        self.view.show_drawing(page.drawing)
        if fresh:
            self.view.fit()
            asked_stops = [(c, r) for c, stops in enumerate(page.columns) for r, stop in enumerate(stops) if stop.asked]
            self._stand(asked_stops[0] if asked_stops else (0, 0))
        else:
            self.walk(0, 0)
        return True

    def _ask_file(self) -> None:
        name = f"{file_stem(self._session.job)}_trace.pdf"
        path, _ = QFileDialog.getSaveFileName(self, "Print the trace", name, "PDF (*.pdf)")
        if path:
            self.save_as(Path(path))

    def save_as(self, path: Path) -> None:
        """Writes the trace as a PDF of one page."""
        if self.page is None:
            return
        try:
            export_drawings(self._session.evaluation, [self.page.drawing], path)
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            return
        self._session.say(f"The trace is in {path}.")

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.view.set_theme(theme)

    def stop(self) -> Stop | None:
        """The step one stands on."""
        if self.page is None or not self.page.columns or not self.page.columns[self.at[0]]:
            return None
        return self.page.columns[self.at[0]][self.at[1]]

    def walk(self, across: int, along: int) -> None:
        """Goes a way over or a step on; at an end one stays."""
        if self.page is None:
            return
        column = min(max(self.at[0] + across, 0), len(self.page.columns) - 1)
        last = max(len(self.page.columns[column]) - 1, 0)
        self._stand((column, min(max(self.at[1] + along, 0), last)))

    def _stand(self, at: tuple[int, int]) -> None:
        self.at = at
        stop = self.stop()
        if stop is None:
            return
        box = stop.box.grown(1.2)
        corners = (Point(box.x, box.y), Point(box.right, box.y), Point(box.right, box.bottom), Point(box.x, box.bottom))
        self.view.set_overlay([Poly(corners, "act", 0.8, closed=True, dashed=True)])
        self.view.reveal_point(stop.box.centre)
        self.words.setText(" ".join(stop.words.split()))
        self._session.select(stop.key)

    def _chosen(self, key: Key | None) -> None:
        """A click on a step stands there; one on a number chooses the potential."""
        columns = self.page.columns if self.page else ()
        stops = [(c, r) for c, stops in enumerate(columns) for r, stop in enumerate(stops) if stop.key == key]
        if stops:
            self._stand(self.at if self.at in stops else stops[0])
        else:
            self._session.select(key)

    def _key(self, event: QKeyEvent) -> bool:
        stop = self.stop()
        move = _MOVES.get(Qt.Key(event.key()))
        if move:
            self.walk(*move)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and stop:
            self._shown(stop.key)
        elif event.key() == Qt.Key.Key_Escape:
            self._back()
        else:
            return False
        return True
