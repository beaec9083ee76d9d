"""What an inspector found at the panel in his own words, beside what the clauses found: open until it is settled."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QHBoxLayout,
    QHeaderView,
    QLineEdit,
    QPushButton,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from riktig.core.keys import DeviceKey, Key, WireKey
from riktig.core.rules import NotedFinding, findings_noted
from riktig.core.schematic import NAMES
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.stations.rules.signing import Signing
from riktig.desk.theme import grown
from riktig.desk.widgets import plain_label

__all__ = ["FindingsPage"]

HEADS = ("Finding", "At", "Found by", "Settled")


class FindingsPage(QWidget):
    """The list, a line to write a finding of one's own, and a line to say how the chosen one was settled.

    Args:
        session: The job at hand.
        signing: What people decide.
    """

    def __init__(self, session: Session, signing: Signing) -> None:
        super().__init__()
        self._session, self._signing = session, signing
        self._noted: tuple[NotedFinding, ...] = ()
        self.words = plain_label("", "second", wraps=True)
        self.text = QLineEdit()
        self.text.setAccessibleName("Finding in your own words")
        self.text.setPlaceholderText("What did you find? It is noted at what is chosen, or at the panel as a whole")
        self.text.returnPressed.connect(self.note)
        self.keep = QPushButton("Note")
        self.keep.clicked.connect(self.note)
        self.table = QTableWidget(0, len(HEADS))
        self.table.setAccessibleName("Findings at the panel")
        self.table.setHorizontalHeaderLabels(HEADS)
        self.table.setEditTriggers(QTableWidget.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QTableWidget.SelectionBehavior.SelectRows)
        self.table.verticalHeader().hide()
        heads = self.table.horizontalHeader()
        heads.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        heads.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        for column, width in ((1, 90), (2, 170), (3, 210)):
            self.table.setColumnWidth(column, grown(width))
        self.table.setWordWrap(True)
        self.how = QLineEdit()
        self.how.setAccessibleName("How the chosen finding was settled")
        self.how.setPlaceholderText("What was done about the chosen finding?")
        self.how.returnPressed.connect(self.settle)
        self.done = QPushButton("Settle")
        self.done.clicked.connect(self.settle)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.words)
        layout.addLayout(_line(self.text, self.keep))
        layout.addWidget(self.table, 1)
        layout.addLayout(_line(self.how, self.done))

    def refresh(self) -> None:
        """Shows the findings of now."""
        self._noted = findings_noted(self._session.records)
        left = sum(noted.is_open for noted in self._noted)
        key = self._session.selection
        at = self._label(key) or "the panel as a whole"
        self.words.setText(f"{len(self._noted)} findings, {left} open. A new one is noted at: {at}.")
        self.table.setRowCount(len(self._noted))
        for row, noted in enumerate(self._noted):
            settled = f"{noted.how}, {noted.settled.who}" if noted.settled else "open"
            found_by = f"{noted.record.who}, {noted.record.when[:10]}"
            texts = (noted.facts.text, noted.facts.at or "panel", found_by, settled)
            for column, text in enumerate(texts):
                item = QTableWidgetItem(text)
                item.setToolTip(text)
                self.table.setItem(row, column, item)
        self.table.resizeRowsToContents()

    def note(self) -> None:
        """Keeps the finding that is written in the line."""
        key = self._session.selection
        label = self._label(key)
        before = len(self._session.records)
        self._signing.note(self.text.text(), key if label else None, label)
        if len(self._session.records) > before:
            self.text.clear()
        self.refresh()

    def settle(self) -> None:
        """Says how the chosen finding was settled."""
        row = self.table.currentRow()
        if not 0 <= row < len(self._noted) or not self._noted[row].is_open:
            self._session.say("No open finding is chosen, so none was settled.", wrong=True)
            return
        before = len(self._session.records)
        self._signing.settle(self._noted[row], self.how.text())
        if len(self._session.records) > before:
            self.how.clear()
        self.refresh()

    def _label(self, key: Key | None) -> str:
        """What is chosen, in words; empty where it is no part and no wire."""
        if isinstance(key, DeviceKey):
            return self._session.evaluation.get(NAMES).tag.get(key.device, "")
        if isinstance(key, WireKey):
            wire = self._session.evaluation.get(WIRING).by_key.get(key.wire)
            return f"wire {wire.name}" if wire else ""
        return ""


def _line(field: QLineEdit, button: QPushButton) -> QHBoxLayout:
    line = QHBoxLayout()
    line.addWidget(field, 1)
    line.addWidget(button)
    return line
