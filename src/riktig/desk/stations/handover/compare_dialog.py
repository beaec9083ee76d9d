"""Two issues, or an issue and the job of now, side by side: what is new and what is gone."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QComboBox,
    QDialog,
    QHeaderView,
    QPushButton,
    QStackedWidget,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from riktig.core.evaluation import Evaluation
from riktig.core.exports import Schedule
from riktig.core.geometry import Drawing
from riktig.core.handover import compare_drawings, compare_jobs
from riktig.core.job import Job
from riktig.desk.canvas import DrawingView
from riktig.desk.theme import Theme, grown
from riktig.desk.widgets import plain_label, row_of

__all__ = ["CompareDialog"]


class CompareDialog(QDialog):
    """Chooses two states, and shows the lists and the drawings in which they differ.

    Args:
        parent: What it stands over.
        states: The states by their names, the earliest first, each with what gives its job.
        theme: The colours of the window.
    """

    def __init__(self, parent: QWidget, states: Sequence[tuple[str, Callable[[], Job]]], theme: Theme) -> None:
        super().__init__(parent)
        self.setWindowTitle("Compare")
        self._states = tuple(states)
        self._jobs: dict[str, Evaluation[Job]] = {}
        self.drawings: tuple[Drawing, ...] = ()
        self.before, self.after = QComboBox(), QComboBox()
        for box, name in ((self.before, "Earlier"), (self.after, "Later")):
            box.setAccessibleName(name)
            box.addItems([words for words, _job in states])
        self.after.setCurrentIndex(len(states) - 1)
        self.before.setCurrentIndex(max(len(states) - 2, 0))
        self.go = QPushButton("Compare")
        self.go.setObjectName("main")
        self.go.clicked.connect(self.compare)
        self.sheet = QComboBox()
        self.sheet.setAccessibleName("What is shown")
        self.sheet.activated.connect(self._show)
        self.words = plain_label("", "second", wraps=True)
        self.table = QTableWidget(0, 4)
        self.table.setAccessibleName("What has changed")
        self.table.setHorizontalHeaderLabels(("List", "Change", "Before", "After"))
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.verticalHeader().hide()
        self.table.setWordWrap(True)
        heads = self.table.horizontalHeader()
        heads.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        for column, width in ((0, 150), (1, 80)):
            self.table.setColumnWidth(column, grown(width))
        for column in (2, 3):
            heads.setSectionResizeMode(column, QHeaderView.ResizeMode.Stretch)
        self.view = DrawingView("Drawings compared")
        self.view.set_theme(theme)
        self.pages = QStackedWidget()
        self.pages.addWidget(self.table)
        self.pages.addWidget(self.view)
        close = QPushButton("Close")
        close.clicked.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.addLayout(row_of((self.before, self.after, self.go, self.sheet, None, close)))
        layout.addWidget(self.words)
        layout.addWidget(self.pages, 1)
        self.resize(1040, 700)
        self._say("Choose two states. What is new is drawn in green, what is gone dashed in red.")

    def _say(self, words: str) -> None:
        self.words.setText(words)

    def _evaluation(self, box: QComboBox) -> Evaluation[Job]:
        name = box.currentText()
        if name not in self._jobs:
            self._jobs[name] = Evaluation(dict(self._states)[name]())
        return self._jobs[name]

    def compare(self) -> None:
        """Works out what differs, and shows the lists first."""
        before, after = self._evaluation(self.before), self._evaluation(self.after)
        changes: Schedule = compare_jobs(before, after)
        self.drawings = compare_drawings(before, after)
        self.sheet.clear()
        self.sheet.addItems(["Lists", *(drawing.title or "drawing" for drawing in self.drawings)])
        self.table.setRowCount(len(changes.rows))
        for row, cells in enumerate(changes.rows):
            for column, cell in enumerate(cells):
                self.table.setItem(row, column, QTableWidgetItem(str(cell)))
        self.table.resizeRowsToContents()
        count = len(changes.rows)
        self._say(
            f"{count} rows of the lists differ, and {len(self.drawings)} drawings."
            if count or self.drawings
            else "Nothing differs in the lists and drawings that are compared."
        )
        self._show()

    def _show(self) -> None:
        at = self.sheet.currentIndex()
        if at > 0:
            self.view.show_drawing(self.drawings[at - 1])
        self.pages.setCurrentWidget(self.view if at > 0 else self.table)
