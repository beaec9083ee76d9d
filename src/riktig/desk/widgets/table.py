"""A schedule as a table: choose a row and the whole window follows."""

import heapq
import re
from typing import Any

from PySide6.QtCore import QAbstractTableModel, QModelIndex, QPersistentModelIndex, QSortFilterProxyModel, Qt, Signal
from PySide6.QtGui import QFont, QFontMetrics
from PySide6.QtWidgets import QAbstractItemView, QTableView, QWidget

from riktig.core.exports import Schedule
from riktig.desk.theme import words_font

__all__ = ["ScheduleTable"]

Index = QModelIndex | QPersistentModelIndex
_NOWHERE = QModelIndex()
_FIGURES = re.compile(r"([0-9]+(?:\.[0-9]+)?)")
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


class _Shown(QSortFilterProxyModel):
    """The rows that hold all the words, in the order of the column that was pressed."""

    def __init__(self, model: _Model) -> None:
        super().__init__()
        self.setSourceModel(model)
        self._rows = model
        self._words: tuple[str, ...] = ()

    def filter_by(self, text: str) -> None:
        self._words = tuple(text.casefold().split())
        self.invalidate()

    def filterAcceptsRow(self, row: int, parent: Index) -> bool:
        if not self._words:
            return True
        schedule = self._rows.schedule
        shown = (
            shown_text(cell)
            for cell, (key, _) in zip(schedule.rows[row], schedule.columns, strict=True)
            if key != "key"
        )
        text = " ".join(shown).casefold()
        return all(word in text for word in self._words)

    def lessThan(self, left: Index, right: Index) -> bool:
        first, second = (self._rows.schedule.rows[at.row()][at.column()] for at in (left, right))
        return _sort_key(first) < _sort_key(second)


def _sort_key(value: object) -> tuple[tuple[int, float, str], ...]:
    """Numbers by their size, in texts too: F2 stands before F10; an empty cell first."""
    if isinstance(value, int | float):
        return ((0, float(value), ""),)
    parts = (part for part in _FIGURES.split(shown_text(value)) if part)
    return tuple((0, float(part), "") if part[0].isdecimal() else (1, 0.0, part.casefold()) for part in parts)


class ScheduleTable(QTableView):
    """Shows a schedule; ``row_chosen`` carries the value of its key column.

    A press on a head sorts by that column, once more the other way, and once more not at all.
    """

    row_chosen = Signal(str)

    def __init__(self, name: str, key: str, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName(name)
        self._key = key
        self._model = _Model()
        self._shown = _Shown(self._model)
        self.setModel(self._shown)
        self.horizontalHeader().setSortIndicatorClearable(True)
        self.horizontalHeader().setSortIndicator(-1, Qt.SortOrder.AscendingOrder)
        self.setSortingEnabled(True)
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

    def filter_by(self, text: str) -> int:
        """Shows the rows that hold all words of a text, in any column.

        Returns:
            How many these are.
        """
        self._shown.filter_by(text)
        return self._shown.rowCount()

    @property
    def chosen_row(self) -> int:
        """The row of the schedule that is chosen, whatever the order on the screen; -1 for none."""
        return self._shown.mapToSource(self.currentIndex()).row()

    def choose(self, value: str) -> None:
        """Marks the row whose key has this value."""
        keys = [key for key, _ in self._model.schedule.columns]
        if self._key not in keys:
            return
        column = keys.index(self._key)
        for row, cells in enumerate(self._model.schedule.rows):
            if str(cells[column]) == value:
                at = self._shown.mapFromSource(self._model.index(row, 0))
                if not at.isValid():
                    break  # it is filtered out
                self._quiet = True
                self.selectRow(at.row())
                self._quiet = False
                return
        self.clearSelection()

    def _chosen(self, now: QModelIndex, before: QModelIndex) -> None:
        if now.isValid() and not self._quiet:
            keys = [key for key, _ in self._model.schedule.columns]
            if self._key in keys:
                cells = self._model.schedule.rows[self._shown.mapToSource(now).row()]
                self.row_chosen.emit(str(cells[keys.index(self._key)]))
