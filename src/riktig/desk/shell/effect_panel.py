"""What the last change added, removed and changed, station by station; it stays until it is dismissed."""

from collections.abc import Callable

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QTreeWidget, QTreeWidgetItem, QVBoxLayout, QWidget

from riktig.core.job import Job
from riktig.core.views import Effect, Snapshot, effects, summary
from riktig.desk.widgets import FlowLayout, plain_label

__all__ = ["EffectPanel"]

LOW, TALL = 60, 210
"""Least and usual height of the list when it is open, pixels: it never makes the window grow."""
NONE_CHANGED = "no change in values, nets, plate, door, wires, terminals, labels, findings, tests and parts."
MOST_ROWS = 400
"""So many lines of a station are listed; the rest are counted and stand in the change order on paper."""
_KEY = Qt.ItemDataRole.UserRole


class EffectPanel(QWidget):
    """One line with a count a station, and below it, when asked for, every single line with its link."""

    go = Signal(object)
    station_asked = Signal(str)
    print_asked = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setAccessibleName("What the last change did")
        self.name = ""
        self.shown: tuple[Effect, ...] = ()
        self._job: Job | None = None
        self._before: Snapshot | None = None
        self.more = QPushButton("Show all")
        self.more.setCheckable(True)
        self.more.setToolTip("Every single thing that was added, removed or changed; Enter leads to it")
        self.paper = QPushButton("Change order …")
        self.paper.setToolTip("The same list on paper, with room to sign for each line")
        self.away = QPushButton("Dismiss")
        self.away.setToolTip("Puts this line away until the next change")
        self.tree = _LineTree()
        self.tree.hide()
        self._counts = QWidget()
        self._row = FlowLayout(self._counts, gap=8, lead=1)
        top = QHBoxLayout()
        top.addWidget(self._counts, 1)
        for button in (self.more, self.paper, self.away):
            top.addWidget(button, 0, Qt.AlignmentFlag.AlignTop)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(12, 3, 12, 3)
        whole.setSpacing(3)
        whole.addLayout(top)
        whole.addWidget(self.tree)
        self.more.toggled.connect(self._open)
        self.paper.clicked.connect(self.print_asked)
        self.away.clicked.connect(self.hide)
        self.tree.itemActivated.connect(self._activated)
        self.tree.itemClicked.connect(self._activated)
        self.hide()

    def follow(self, job: Job, name: str, lists: Callable[[], Snapshot]) -> None:
        """Compares with what was before, and keeps what is now; called when everything has been worked out.

        Args:
            job: The job of now.
            name: What brought it about, empty when a job was opened.
            lists: Gives the lists of now.
        """
        if job is self._job:
            return
        self._job = job
        before, self._before = self._before, lists()
        if before is None or not name:
            self.hide()
            return
        self.name, self.shown = name, effects(before, self._before)
        self._show_counts()
        self._fill()
        self.show()

    def forget(self) -> None:
        """Begins anew: another job."""
        self._job, self._before, self.shown = None, None, ()
        self.hide()

    def _show_counts(self) -> None:
        for old in self._counts.findChildren(QWidget, options=Qt.FindChildOption.FindDirectChildrenOnly):
            self._row.removeWidget(old)
            old.hide()
            old.deleteLater()
        self._row.addWidget(plain_label(f"{self.name[:1].upper()}{self.name[1:]}:", "second"))
        if not self.shown:
            self._row.addWidget(plain_label(NONE_CHANGED, "quiet"))
        for station, words in summary(self.shown):
            button = QPushButton(f"{station}: {words}")
            button.setFlat(True)
            button.setToolTip(f"Opens {station}")
            button.clicked.connect(lambda _=False, name=station: self.station_asked.emit(name))
            self._row.addWidget(button)
        for button in (self.more, self.paper):
            button.setEnabled(bool(self.shown))

    def _open(self, opened: bool) -> None:
        self.tree.setVisible(opened)
        self.more.setText("Hide list" if opened else "Show all")
        if opened:
            self._fill()
            self.tree.setFocus()

    def _fill(self) -> None:
        """Writes the lines; only when they are seen."""
        if not self.more.isChecked():
            return
        self.tree.clear()
        for station, words in summary(self.shown):
            group = QTreeWidgetItem([f"{station}: {words}"])
            mine = [effect for effect in self.shown if effect.station == station]
            for effect in mine[:MOST_ROWS]:
                line = QTreeWidgetItem([effect.text])
                line.setData(0, _KEY, effect.link)
                line.setToolTip(0, "Enter or a click leads there" if effect.link else "It is not there any more")
                group.addChild(line)
            if len(mine) > MOST_ROWS:
                group.addChild(QTreeWidgetItem([f"and {len(mine) - MOST_ROWS} more, in the change order"]))
            self.tree.addTopLevelItem(group)
            group.setExpanded(True)

    def _activated(self, item: QTreeWidgetItem) -> None:
        key = item.data(0, _KEY)
        if key is not None:
            self.go.emit(key)


class _LineTree(QTreeWidget):
    """The lines, of one column."""

    def __init__(self) -> None:
        super().__init__()
        self.setHeaderHidden(True)
        self.setAccessibleName("Everything that the last change did")
        self.setMinimumHeight(LOW)
        self.setMaximumHeight(TALL)
        self.setSelectionMode(QTreeWidget.SelectionMode.ExtendedSelection)
        self.setUniformRowHeights(True)
