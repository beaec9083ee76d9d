"""What would have to change to sell the panel in the other market: every clause by both rulebooks."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QCursor
from PySide6.QtWidgets import QApplication, QTableWidget, QTableWidgetItem, QVBoxLayout, QWidget

from riktig.core.exports import schedule
from riktig.desk.session import Session
from riktig.desk.theme import grown, words_font
from riktig.desk.widgets import plain_label

__all__ = ["MarketPage"]

SHOWN = ("title", "here", "there", "source_there", "change")


class MarketPage(QWidget):
    """A table, worked out when the page is opened: the whole panel is sized and judged once more.

    Args:
        session: The job at hand.
    """

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._shown: object = None
        self.head = plain_label("", wraps=True)
        self.head.setFont(words_font(15, bold=True))
        self.table = QTableWidget(0, len(SHOWN))
        self.table.setAccessibleName("Clauses by both rulebooks")
        self.table.setHorizontalHeaderLabels(["Clause", "Here", "There", "Source there", "What would have to change"])
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.verticalHeader().hide()
        self.table.horizontalHeader().setStretchLastSection(True)
        for column, width in ((0, 190), (1, 120), (2, 120), (3, 190)):
            self.table.setColumnWidth(column, grown(width))
        self.table.setWordWrap(True)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.head)
        layout.addWidget(self.table, 1)

    def refresh(self) -> None:
        """Shows the job of now, where it is another than was shown."""
        job = self._session.job
        if job is self._shown:
            return
        QApplication.setOverrideCursor(QCursor(Qt.CursorShape.WaitCursor))
        try:
            market = schedule("market", self._session.evaluation)
        finally:
            QApplication.restoreOverrideCursor()
        self._shown = job
        rows = market.as_dicts()
        failing = sum(row["there"] == "fails" for row in rows)
        self.head.setText(f"{market.title}: {failing} clauses fail there.")
        self.table.setRowCount(len(rows))
        for number, row in enumerate(rows):
            for column, key in enumerate(SHOWN):
                item = QTableWidgetItem(str(row[key] or ""))
                item.setToolTip(item.text())
                self.table.setItem(number, column, item)
        self.table.resizeRowsToContents()
