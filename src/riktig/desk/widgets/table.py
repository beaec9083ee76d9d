"""A schedule as a table: choose a row and the whole window follows."""

import heapq
from typing import Any

from PySide6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, Qt, Signal
from PySide6.QtGui import QFont, QFontMetrics
from PySide6.QtWidgets import QAbstractItemView, QTableView, QWidget

from riktig.core.exports import Schedule
from riktig.desk.theme import words_font

__all__ = ["ScheduleTable"]

Index = QModelIndex | QPersistentModelIndex
_NOWHERE = QModelIndex()
_PRINTED = {"number", "from", "to", "inside", "field", "hole", "piece", "black", "red", "tags"}


MEASURED = 6
"""Texts of a column that are measured: the one with most letters is not always the widest (chosen by us)."""
CELL_ROOM, HEAD_ROOM = 14, 22
"""Beside a text, in pixels: the margins of a cell, and of a head with room for more."""


def shown_text(value: object) -> str:
    """How a cell of a schedule is shown."""
    return f"{value:g}" if isinstance(value, float) else str(value or "")


class _Model(QAbstractTableModel):
    def __init__(self) -> None:
        super().__init__()
        self.schedule = Schedule("", "", (), ())
        self._mono = words_font(10, mono=True)

    def show(self, schedule: Schedule) -> None:
        self.beginResetModel()
        self.schedule = schedule
        self.endResetModel()

    def rowCount(self, parent: Index = _NOWHERE) -> int:
        return 0 if parent.isValid() else len(self.schedule.rows)

    def columnCount(self, parent: Index = _NOWHERE) -> int:
        return 0 if parent.isValid() else len(self.schedule.columns)

    def data(self, index: Index, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        value = self.schedule.rows[index.row()][index.column()]
        if role == Qt.ItemDataRole.DisplayRole:
            return shown_text(value)
        if role == Qt.ItemDataRole.TextAlignmentRole and isinstance(value, int | float):
            return int(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        if role == Qt.ItemDataRole.FontRole:
            return self.font_of(self.schedule.columns[index.column()][0])
        return None

    def font_of(self, key: str) -> QFont | None:
        """The font of a column, None for that of the table."""
        return self._mono if key in _PRINTED else None

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = Qt.ItemDataRole.DisplayRole) -> Any:
        if role == Qt.ItemDataRole.DisplayRole and orientation == Qt.Orientation.Horizontal:
            return self.schedule.columns[section][1]
        return None


class ScheduleTable(QTableView):
    """Shows a schedule; ``row_chosen`` carries the value of its key column."""

    row_chosen = Signal(str)

    def __init__(self, name: str, key: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self._key = key
        self._model = _Model()
        self.setModel(self._model)
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.setTabKeyNavigation(False)  # Tab leaves the table; arrows go through it
        self.verticalHeader().hide()
        self.setShowGrid(False)
        self.setAlternatingRowColors(True)
        self.selectionModel().currentRowChanged.connect(self._chosen)
        self._quiet = False

    def show_schedule(self, schedule: Schedule) -> None:
        """Puts a schedule in; the key column itself is not shown."""
        self._quiet = True
        self._model.show(schedule)
        for index, (key, _) in enumerate(schedule.columns):
            self.setColumnHidden(index, key in ("key", "id"))
        self._fit_columns()
        self._quiet = False

    def _fit_columns(self) -> None:
        """Columns as wide as their widest text; of long lists the few longest texts are measured, not all."""
        head = QFontMetrics(self.horizontalHeader().font())
        for index, (key, title) in enumerate(self._model.schedule.columns):
            if self.isColumnHidden(index):
                continue
            metrics = QFontMetrics(self._model.font_of(key) or self.font())
            texts = {shown_text(row[index]) for row in self._model.schedule.rows}
            longest = heapq.nlargest(MEASURED, texts, key=len)
            width = max(map(metrics.horizontalAdvance, longest), default=0)
            self.setColumnWidth(index, max(width + CELL_ROOM, head.horizontalAdvance(title) + HEAD_ROOM))

    def choose(self, value: str) -> None:
        """Marks the row whose key has this value."""
        keys = [key for key, _ in self._model.schedule.columns]
        if self._key not in keys:
            return
        column = keys.index(self._key)
        for row, cells in enumerate(self._model.schedule.rows):
            if str(cells[column]) == value:
                self._quiet = True
                self.selectRow(row)
                self._quiet = False
                return
        self.clearSelection()

    def _chosen(self, now: QModelIndex, before: QModelIndex) -> None:
        if now.isValid() and not self._quiet:
            keys = [key for key, _ in self._model.schedule.columns]
            if self._key in keys:
                cells = self._model.schedule.rows[now.row()]
                self.row_chosen.emit(str(cells[keys.index(self._key)]))
