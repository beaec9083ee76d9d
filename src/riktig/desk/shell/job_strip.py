"""The strip on top: what job this is, undo and redo, the theme, and the finder."""

from collections.abc import Callable

from PySide6.QtCore import QEvent, QObject, QPoint, Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QHBoxLayout, QLineEdit, QListWidget, QListWidgetItem, QToolButton, QWidget

from riktig.core.job import Job
from riktig.core.labels import IndexEntry
from riktig.desk.theme import words_font
from riktig.desk.widgets import ElidedLabel, plain_label

__all__ = ["Finder", "JobStrip"]


class Finder(QLineEdit):
    """Type a tag, a pin, a number or a word; arrow keys and Enter go there."""

    found = Signal(object)

    def __init__(self, search: Callable[[str], tuple[IndexEntry, ...]]) -> None:
        super().__init__()
        self._search = search
        self.setPlaceholderText("Find a tag, pin, wire …   /")
        self.setAccessibleName("Finder")
        self.setFont(words_font(10))
        self.setMinimumWidth(216)
        self.hits = QListWidget()
        self.hits.setWindowFlags(Qt.WindowType.ToolTip)
        self.hits.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.hits.setAccessibleName("Found")
        self.hits.itemClicked.connect(self._go)
        self.textEdited.connect(self._look)
        self.installEventFilter(self)

    def _look(self, text: str) -> None:
        entries = self._search(text)
        self.hits.clear()
        for entry in entries:
            item = QListWidgetItem(f"{entry.label}    {entry.what}")
            item.setData(Qt.ItemDataRole.UserRole, entry.key)
            self.hits.addItem(item)
        if not entries:
            self.hits.hide()
            return
        self.hits.setCurrentRow(0)
        self.hits.move(self.mapToGlobal(QPoint(0, self.height() + 2)))
        rows = min(len(entries), 12)
        self.hits.resize(max(self.width(), 380), rows * self.hits.sizeHintForRow(0) + 6)
        self.hits.show()

    def _go(self, item: QListWidgetItem | None = None) -> None:
        item = item or self.hits.currentItem()
        self.hits.hide()
        if item and self.text():
            self.found.emit(item.data(Qt.ItemDataRole.UserRole))
            self.selectAll()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        """Arrow keys move in the list, Enter goes, Esc closes it."""
        if event.type() == QEvent.Type.FocusOut:
            self.hits.hide()
        if not isinstance(event, QKeyEvent) or event.type() != QEvent.Type.KeyPress:
            return False
        if event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up) and self.hits.isVisible():
            by = 1 if event.key() == Qt.Key.Key_Down else -1
            row = self.hits.currentRow() + by
            self.hits.setCurrentRow(min(max(row, 0), self.hits.count() - 1))
            return True
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._go()
            return True
        if event.key() == Qt.Key.Key_Escape:
            self.hits.hide()
            self.clear()
        return False


class JobStrip(QWidget):
    """Number, title, revision, supply and rulebook of the job."""

    undo_asked = Signal()
    redo_asked = Signal()
    theme_asked = Signal()
    jobs_asked = Signal()

    def __init__(self, search: Callable[[str], tuple[IndexEntry, ...]]) -> None:
        super().__init__()
        self.setObjectName("strip")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.number = plain_label("", "title")
        self.title = ElidedLabel("second")
        self.pills = [ElidedLabel("pill") for _ in range(3)]
        for pill in self.pills:
            pill.hide()
        self.undo = self._tool("Undo", self.undo_asked)
        self.redo = self._tool("Redo", self.redo_asked)
        self.dark = self._tool("Dark", self.theme_asked)
        self.dark.setToolTip("Light desk or dark bench (Ctrl+T)")
        self.jobs = self._tool("Jobs", self.jobs_asked)
        self.jobs.setToolTip("Start or open another job (Ctrl+O)")
        self.finder = Finder(search)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(14, 6, 14, 6)
        layout.setSpacing(6)
        layout.addWidget(self.number)
        layout.addWidget(self.title)
        layout.addSpacing(4)
        for pill in self.pills:
            layout.addWidget(pill)
        layout.addStretch(1)
        for button in (self.jobs, self.undo, self.redo, self.dark):
            layout.addWidget(button)
        layout.addWidget(self.finder)
        self.show_steps("", "")

    def _tool(self, text: str, signal: object) -> QToolButton:
        button = QToolButton()
        button.setText(text)
        button.setAccessibleName(text)
        button.clicked.connect(signal)
        return button

    def show_job(self, job: Job) -> None:
        """The heading of the job."""
        self.number.setText(job.number or "New job")
        self.title.show_text(job.title)
        supply = job.supply
        texts = (
            f"rev {job.revision}",
            f"{supply.voltage_name}  {supply.system_name}  {supply.frequency_hz:g} Hz",
            job.practice.rulebook.value.split(" and ")[0],
        )
        for pill, caption in zip(self.pills, texts, strict=True):
            pill.show_text(caption)
            pill.show()

    def show_steps(self, undo: str, redo: str) -> None:
        """What undo and redo would do."""
        self.undo.setEnabled(bool(undo))
        self.redo.setEnabled(bool(redo))
        self.undo.setToolTip(f"Undo: {undo} (Ctrl+Z)" if undo else "Nothing to undo")
        self.redo.setToolTip(f"Redo: {redo} (Ctrl+Shift+Z)" if redo else "Nothing to redo")
