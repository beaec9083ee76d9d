"""The media, each with how many labels it has, what is to print, and what is left of the sheet."""

from collections.abc import Sequence
from dataclasses import dataclass

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QHeaderView, QTreeWidget, QTreeWidgetItem, QWidget

from riktig.core.labels import Medium
from riktig.desk.theme import grown

__all__ = ["MediaList", "MediumLine"]

WIDTH = 250


@dataclass(frozen=True, slots=True)
class MediumLine:
    """A line of the list: None are the pin cards. ``detail`` is what is counted."""

    medium: Medium | None
    title: str
    detail: str


class MediaList(QTreeWidget):
    """One line a medium; ``turned`` says which one is wanted."""

    turned = Signal(object)

    def __init__(self, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.setAccessibleName("Media")
        self.setColumnCount(2)
        self.setHeaderHidden(True)
        self.setRootIsDecorated(False)
        self.setFixedWidth(grown(WIDTH))
        self.header().setStretchLastSection(True)
        self.header().setSectionResizeMode(0, QHeaderView.ResizeMode.ResizeToContents)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._lines: tuple[MediumLine, ...] = ()
        self.currentItemChanged.connect(self._turn)

    def fill(self, lines: Sequence[MediumLine], chosen: Medium | None) -> None:
        """Shows the media of now, with one of them chosen."""
        self.blockSignals(True)
        if [line.medium for line in self._lines] != [line.medium for line in lines]:
            self.clear()
            for _line in lines:
                item = QTreeWidgetItem(["", ""])
                item.setTextAlignment(1, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
                self.addTopLevelItem(item)
        self._lines = tuple(lines)
        for row, line in enumerate(lines):
            shown = self.topLevelItem(row)
            if shown is not None and (shown.text(0), shown.text(1)) != (line.title, line.detail):
                shown.setText(0, line.title)
                shown.setText(1, line.detail)
                shown.setToolTip(1, line.detail)
        row = next((n for n, line in enumerate(lines) if line.medium is chosen), 0)
        wanted = self.topLevelItem(row)
        if wanted is not None:
            self.setCurrentItem(wanted)
        self.blockSignals(False)

    def _turn(self, item: QTreeWidgetItem | None) -> None:
        row = self.indexOfTopLevelItem(item) if item else -1
        if 0 <= row < len(self._lines):
            self.turned.emit(self._lines[row].medium)
