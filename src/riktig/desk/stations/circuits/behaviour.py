"""What a circuit must do by its recipe, step by step, tried on the circuit as it is drawn."""

from collections.abc import Callable

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QGridLayout, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from riktig.core.energise import Behaviour, with_tags
from riktig.core.job import DeviceId
from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label, replace_body, row_of

__all__ = ["BehaviourPage"]


class BehaviourPage(QWidget):
    """The steps of one circuit with their verdicts."""

    def __init__(self, back: Callable[[], None]) -> None:
        super().__init__()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        self.back = QPushButton("Back to the sheets")
        self.back.clicked.connect(back)
        self.title = plain_label("", "", wraps=True)
        self.rows: list[tuple[str, str, str]] = []
        self._area = QScrollArea()
        self._area.setWidgetResizable(True)
        self._area.setAccessibleName("What the circuit must do")
        column.addLayout(row_of([self.back, None]))
        column.addWidget(self.title)
        column.addWidget(self._area, 1)

    def show_behaviour(self, found: Behaviour | None, tags: dict[DeviceId, str]) -> None:
        """Shows the steps; None where the recipe promises nothing."""
        self.rows = []
        body = QWidget()
        grid = QGridLayout(body)
        grid.setColumnStretch(3, 1)
        grid.setHorizontalSpacing(18)
        if found is None:
            self.title.setText("This circuit has no behaviour of its own to try.")
        elif found.broken:
            self.title.setText(
                f"{found.title}: its steps cannot be done. {with_tags(found.broken, found.circuit, tags)}"
            )
        else:
            failed = sum(not step.passed for step in found.steps)
            verdict = (
                "everything is as it must be" if not failed else f"{failed} of {len(found.steps)} steps go otherwise"
            )
            self.title.setText(f"{found.title}, tried on the circuit as it is drawn now: {verdict}.")
        for n, step in enumerate(found.steps if found else (), 1):
            assert found is not None
            done = with_tags(step.done, found.circuit, tags)
            expected = ", ".join(with_tags(one, found.circuit, tags) for one in step.expected)
            otherwise = "; ".join(with_tags(one, found.circuit, tags) for one in step.otherwise)
            sign = "✓" if step.passed else "✗"
            self.rows.append((sign, done, otherwise))
            cells: list[QLabel] = [
                plain_label(sign, "meets" if step.passed else "fails"),
                plain_label(f"{n}", "quiet"),
                plain_label(done),
                plain_label(f"must be: {expected}" if expected else "", "second", wraps=True),
            ]
            cells[2].setFont(words_font(10, mono=True))
            for column, cell in enumerate(cells):
                grid.addWidget(cell, 2 * n, column, Qt.AlignmentFlag.AlignTop)
            if otherwise:
                grid.addWidget(plain_label(f"but {otherwise}", "fails", wraps=True), 2 * n + 1, 2, 1, 2)
        grid.setRowStretch(2 * len(self.rows) + 3, 1)
        replace_body(self._area, body)
