"""Steps under each other: what is done, what must then be so, and a verdict where there is one."""

from collections.abc import Sequence
from dataclasses import dataclass

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QScrollArea, QWidget

from riktig.desk.theme import words_font
from riktig.desk.widgets.small import plain_label, replace_body

__all__ = ["StepList", "StepRow"]


@dataclass(frozen=True, slots=True)
class StepRow:
    """A line of the list; ``passed`` is None where nothing was tried; with ``heading`` it only names what follows."""

    done: str
    expected: str = ""
    otherwise: str = ""
    number: int = 0
    passed: bool | None = None
    heading: bool = False

    @property
    def sign(self) -> str:
        """The verdict as a shape."""
        return {True: "✓", False: "✗", None: ""}[self.passed]


class StepList(QScrollArea):
    """A list of steps one can read from a little way off."""

    def __init__(self, name: str) -> None:
        super().__init__()
        self.setWidgetResizable(True)
        self.setAccessibleName(name)
        self.rows: tuple[StepRow, ...] = ()

    def show_steps(self, rows: Sequence[StepRow]) -> None:
        """Shows these steps."""
        self.rows = tuple(rows)
        body = QWidget()
        grid = QGridLayout(body)
        grid.setColumnStretch(3, 1)
        grid.setHorizontalSpacing(18)
        at = 0
        for row in self.rows:
            if row.heading:
                grid.addWidget(plain_label(row.done, "title"), at, 0, 1, 4)
                at += 1
                continue
            done = plain_label(row.done)
            done.setFont(words_font(10, mono=True))
            cells = (
                plain_label(row.sign, "meets" if row.passed else "fails"),
                plain_label(f"{row.number}", "quiet"),
                done,
                plain_label(f"must be: {row.expected}" if row.expected else "", "second", wraps=True),
            )
            for column, cell in enumerate(cells):
                grid.addWidget(cell, at, column, Qt.AlignmentFlag.AlignTop)
            at += 1
            if row.otherwise:
                grid.addWidget(plain_label(f"but {row.otherwise}", "fails", wraps=True), at, 2, 1, 2)
                at += 1
        grid.setRowStretch(at, 1)
        replace_body(self, body)
