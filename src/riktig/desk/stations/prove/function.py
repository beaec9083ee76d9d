"""What the function tests will be: to read and to prepare, not to be led through."""

from collections.abc import Sequence
from itertools import groupby

from PySide6.QtWidgets import QDialog, QDialogButtonBox, QVBoxLayout, QWidget

from riktig.core.proving import FunctionStep
from riktig.desk.widgets import StepList, StepRow, plain_label

__all__ = ["FunctionAsked"]

CAUTION = (
    "These tests are made under voltage, by a qualified person, with the motors uncoupled or their movement safe. "
    "Local codes and licensed practice decide."
)


class FunctionAsked(QDialog):
    """The steps of every circuit under the caution and the reason why they are shut."""

    def __init__(self, steps: Sequence[FunctionStep], shut: str, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Function, planned")
        self.resize(760, 560)
        self.steps = StepList("Function tests, planned")
        rows: list[StepRow] = []
        for title, function_steps in groupby(steps, key=lambda step: step.title):
            rows.append(StepRow(title, heading=True))
            rows += [StepRow(step.done, ", ".join(step.expected), number=step.number) for step in function_steps]
        self.steps.show_steps(rows)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        buttons.rejected.connect(self.reject)
        column = QVBoxLayout(self)
        column.addWidget(plain_label(shut, "fails", wraps=True))
        column.addWidget(plain_label(CAUTION, "judgement", wraps=True))
        column.addWidget(self.steps, 1)
        column.addWidget(buttons)
