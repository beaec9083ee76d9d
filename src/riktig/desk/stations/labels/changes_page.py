"""What on the panel no longer says what it must: exchanged or taken off, label by label, and ticked."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHeaderView, QPushButton, QTableWidget, QTableWidgetItem, QVBoxLayout, QWidget

from riktig.core.labels import LabelChange, LabelWork
from riktig.desk.theme import grown
from riktig.desk.widgets import plain_label, row_of

__all__ = ["ChangesPage"]

HEADS = ("To do", "Medium", "On the panel", "It must say")


class ChangesPage(QWidget):
    """The list, and a button that ticks what is chosen in it.

    Args:
        tick: Records that these were exchanged or taken off.
        button: Makes a button with its explanation.
    """

    def __init__(
        self, tick: Callable[[Sequence[LabelChange]], None], button: Callable[[str, str], QPushButton]
    ) -> None:
        super().__init__()
        self._tick = tick
        self.changes: tuple[LabelChange, ...] = ()
        self.words = plain_label("", "second", wraps=True)
        self.table = QTableWidget(0, len(HEADS))
        self.table.setAccessibleName("Labels that differ from the panel")
        self.table.setHorizontalHeaderLabels(HEADS)
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QTableWidget.SelectionBehavior.SelectRows)
        self.table.verticalHeader().hide()
        self.table.setWordWrap(True)
        heads = self.table.horizontalHeader()
        heads.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        for column, width in ((0, 150), (1, 140)):
            self.table.setColumnWidth(column, grown(width))
        for column in (2, 3):
            heads.setSectionResizeMode(column, QHeaderView.ResizeMode.Stretch)
        self.done = button("Done on the panel", "The chosen labels were exchanged, or taken off")
        self.done.clicked.connect(self.tick_chosen)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.words)
        layout.addWidget(self.table, 1)
        layout.addLayout(row_of((self.done, None)))

    def show_changes(self, changes: Sequence[LabelChange]) -> None:
        """Shows the changes of now."""
        self.changes = tuple(changes)
        to_print = sum(change.work is LabelWork.PRINT for change in changes)
        left = len(changes) - to_print
        self.words.setText(
            f"{to_print} to print first, {left} to exchange or take off on the panel. Tick each when the new one is on."
            if changes
            else "No label that was printed differs from what the panel needs."
        )
        self.table.setRowCount(len(changes))
        for row, change in enumerate(changes):
            for column, text in enumerate((change.work.value, change.medium, change.was or "–", change.text or "–")):
                self.table.setItem(row, column, QTableWidgetItem(text))
        self.table.resizeRowsToContents()
        self.done.setEnabled(left > 0)

    def tick_chosen(self) -> None:
        """Records that what is chosen was done; what has not been printed yet stays."""
        rows = sorted({index.row() for index in self.table.selectedIndexes()})
        done = [self.changes[row] for row in rows if self.changes[row].work is not LabelWork.PRINT]
        if done:
            self._tick(done)
