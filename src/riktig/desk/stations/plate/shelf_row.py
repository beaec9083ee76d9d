"""The shelf: offcuts of earlier jobs, put in and taken out beside the cut list."""

from PySide6.QtWidgets import QComboBox, QDoubleSpinBox, QLineEdit, QPushButton, QWidget

from riktig.core.edits import AddOffcut, RemoveOffcut
from riktig.core.job import Offcut
from riktig.core.plate import CUTS
from riktig.desk.session import Session
from riktig.desk.widgets import plain_label, row_of

__all__ = ["ShelfRow"]


class ShelfRow(QWidget):
    """Of what, how long, what is written on it; and the offcuts there are, to take one out again."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.stock, self.length, self.mark = QComboBox(), QDoubleSpinBox(), QLineEdit()
        self.stock.setMinimumContentsLength(20)
        self.stock.setAccessibleName("The offcut is of")
        self.length.setAccessibleName("Length of the offcut")
        self.length.setRange(1, 10_000)
        self.length.setDecimals(1)
        self.length.setSuffix(" mm")
        self.length.setValue(500)
        self.mark.setAccessibleName("What is written on the offcut")
        self.mark.setPlaceholderText("written on it")
        self.mark.setMaximumWidth(120)
        self.add = QPushButton("Put on the shelf")
        self.add.clicked.connect(self._add)
        self.there = QComboBox()
        self.there.setAccessibleName("Offcuts on the shelf")
        self.drop = QPushButton("Take off")
        self.drop.clicked.connect(self._drop)
        words = plain_label("Offcut", "second")
        row = row_of([words, self.stock, self.length, self.mark, self.add, None, self.there, self.drop])
        row.setContentsMargins(0, 0, 0, 0)
        self.setLayout(row)

    def refresh(self) -> None:
        """Shows what the cut list is cut from, and what lies on the shelf."""
        now = self.stock.currentText()
        self.stock.clear()
        self.stock.addItems(list(dict.fromkeys(piece.stock for piece in self._session.evaluation.get(CUTS))))
        self.stock.setCurrentText(now)
        self.there.clear()
        for offcut in self._session.job.shelf:
            self.there.addItem(f"{offcut.stock}, {offcut.length:g} mm {offcut.mark}".strip())
        self.there.setVisible(bool(self._session.job.shelf))
        self.drop.setVisible(bool(self._session.job.shelf))

    def _add(self) -> None:
        stock, length, mark = self.stock.currentText(), self.length.value(), self.mark.text().strip()
        self._session.edit("offcut on the shelf", AddOffcut(Offcut(stock, length, mark)))
        self.refresh()

    def _drop(self) -> None:
        self._session.edit("offcut off the shelf", RemoveOffcut(self.there.currentIndex()))
        self.refresh()
