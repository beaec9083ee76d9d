"""What was read last, and what must be read again."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QScrollArea, QVBoxLayout, QWidget

from riktig.core.proving import Outcome, Results
from riktig.desk.widgets import plain_label

__all__ = ["DoneList"]

LAST = 7
"""Readings listed (chosen by us: a glance)."""
_SIGNS = {Outcome.PASSED: "✓", Outcome.FAILED: "✗", Outcome.SKIPPED: "–"}


class DoneList(QWidget):
    """A few lines."""

    def __init__(self) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(plain_label("Just done", "quiet"))
        self.label = plain_label("", wraps=True)
        self.label.setAlignment(Qt.AlignmentFlag.AlignTop)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setAccessibleName("Just done, and what must be read again")
        area.setWidget(self.label)
        column.addWidget(area)

    def show_results(self, results: Results) -> None:
        """Shows what is out of date, then the last readings."""
        recent = [(test, reading) for test, reading in results.readings if reading]
        recent.sort(key=lambda counted: counted[1].when if counted[1] else "", reverse=True)
        lines = [
            f"{_SIGNS.get(reading.outcome, '')} {test.black.label} to {test.red.label}   {reading.text}"
            for test, reading in recent[:LAST]
            if reading
        ]
        stale = [f"Measure again: {old.name}, {old.why}" for old in results.stale]
        self.label.setText("\n".join([*stale, *lines]))
