"""A list of loads before it is taken in: what each column was taken for, the doubtful ones marked."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from riktig.core.imports import COLUMNS, LEFT_OUT, LoadList
from riktig.desk.widgets import plain_label, row_of

__all__ = ["ListPart"]

SHOWN_ROWS = 6


class ListPart(QWidget):
    """The first rows under a choice of meaning for each column."""

    taken = Signal(object)
    closed = Signal()

    def __init__(self, load_list: LoadList) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.found = load_list
        layout = QVBoxLayout(self)
        layout.setContentsMargins(10, 8, 10, 8)
        layout.setSpacing(6)
        count = len(load_list.rows)
        layout.addWidget(
            plain_label(f"{load_list.grid.name}: {count} row{'' if count == 1 else 's'}. {' '.join(load_list.notes)}")
        )
        self._doubt = plain_label("", "judgement", wraps=True)
        layout.addWidget(self._doubt)
        self.table = self._table()
        layout.addWidget(self.table)
        take = QPushButton(f"Import {count} loads" if count > 1 else "Import the load")
        take.setObjectName("main")
        take.clicked.connect(lambda: self.taken.emit(self.found))
        leave = QPushButton("Cancel")
        leave.clicked.connect(self.closed)
        self.setFocusProxy(take)
        layout.addLayout(row_of([take, leave, None]))
        self._say()

    def _table(self) -> QTableWidget:
        load_list = self.found
        table = QTableWidget(min(len(load_list.rows), SHOWN_ROWS) + 1, len(load_list.columns))
        table.setAccessibleName("What the columns mean")
        table.setHorizontalHeaderLabels([column.heading or "(no heading)" for column in load_list.columns])
        table.verticalHeader().hide()
        table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        options = [("not known", ""), ("left out", LEFT_OUT), *((name.replace("_", " "), name) for name in COLUMNS)]
        for index, column in enumerate(load_list.columns):
            pick = QComboBox()
            pick.setAccessibleName(f"Meaning of the column {column.heading}")
            for text, value in options:
                pick.addItem(text, value)
            pick.setCurrentIndex([value for _, value in options].index(column.meaning))
            pick.activated.connect(lambda at, i=index: self._decide(i, options[at][1]))
            table.setCellWidget(0, index, pick)
            for row, cells in enumerate(load_list.rows[:SHOWN_ROWS], 1):
                text = cells.cells[index] if index < len(cells.cells) else ""
                table.setItem(row, index, QTableWidgetItem(text))
        table.resizeColumnsToContents()
        table.resizeRowsToContents()
        rows = sum(table.rowHeight(n) for n in range(table.rowCount()))
        table.setFixedHeight(rows + table.horizontalHeader().sizeHint().height() + 18)
        return table

    def _decide(self, index: int, meaning: str) -> None:
        self.found = self.found.with_meaning(index, meaning)
        self._say()

    def _say(self) -> None:
        guessed = [f"“{c.heading}” is taken as {c.meaning.replace('_', ' ')}" for c in self.found.doubtful if c.meaning]
        unknown = [f"“{c.heading}” is not known" for c in self.found.doubtful if not c.meaning]
        text = "; ".join([*guessed, *unknown])
        self._doubt.setText(f"Look at it: {text}." if text else "")
        self._doubt.setVisible(bool(text))
