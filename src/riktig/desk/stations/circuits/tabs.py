"""A button a sheet."""

from collections.abc import Callable, Sequence

from PySide6.QtWidgets import QPushButton, QWidget

from riktig.core.schematic import Sheet
from riktig.desk.widgets import FlowLayout

__all__ = ["SheetTabs"]

MOST_TABS = 24
"""Sheets up to which each has a button of its own; beyond, the overview shows them all."""


class SheetTabs(QWidget):
    """Buttons for the first sheets; ``turn`` is called with the place of the one that is pressed."""

    def __init__(self, turn: Callable[[int], None]) -> None:
        super().__init__()
        self._turn = turn
        self._flow = FlowLayout(self, gap=4, lead=4)
        self._shown: tuple[str, ...] = ()

    def show_sheets(self, sheets: Sequence[Sheet], now: int) -> None:
        """Made again only when the sheets are others."""
        few = sheets[:MOST_TABS]
        titles = tuple(f"{sheet.number} {sheet.title}" for sheet in few)
        if titles != self._shown:
            self._shown = titles
            while self._flow.count():
                item = self._flow.takeAt(0)
                widget = item.widget() if item else None
                if widget:
                    widget.hide()
                    widget.deleteLater()
            for index, sheet in enumerate(few):
                tab = QPushButton(str(sheet.number) if len(few) > 8 else f"Sheet {sheet.number}")
                tab.setToolTip(sheet.title)
                tab.setCheckable(True)
                tab.setAccessibleName(f"Sheet {sheet.number}, {sheet.title}")
                tab.clicked.connect(lambda _=False, i=index: self._turn(i))
                self._flow.addWidget(tab)
        for index in range(self._flow.count()):
            item = self._flow.itemAt(index)
            widget = item.widget() if item else None
            if isinstance(widget, QPushButton):
                widget.setChecked(index == now)
