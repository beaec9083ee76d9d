"""What a circuit must do by its recipe, step by step, tried on the circuit as it is drawn."""

from collections.abc import Callable

from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.job import DeviceId
from riktig.core.simulation import ScriptOutcome, with_tags
from riktig.desk.widgets import StepList, StepRow, plain_label, row_of

__all__ = ["BehaviourPage"]


class BehaviourPage(QWidget):
    """The steps of one circuit with their verdicts."""

    def __init__(self, back: Callable[[], None], watch: Callable[[ScriptOutcome], None]) -> None:
        super().__init__()
        self._found: ScriptOutcome | None = None
        self.watch = QPushButton("Watch it")
        self.watch.setToolTip("Does the steps one by one on the live sheets")
        self.watch.clicked.connect(lambda: watch(self._found) if self._found else None)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        self.back = QPushButton("Back to the sheets")
        self.back.clicked.connect(back)
        self.title = plain_label("", "", wraps=True)
        self.steps = StepList("What the circuit must do")
        column.addLayout(row_of([self.back, self.watch, None]))
        column.addWidget(self.title)
        column.addWidget(self.steps, 1)

    def show_behaviour(self, outcome: ScriptOutcome | None, tags: dict[DeviceId, str]) -> None:
        """Shows the steps; None where the recipe promises nothing."""
        self._found = outcome
        self.watch.setEnabled(outcome is not None and not outcome.broken)
        if outcome is None:
            self.title.setText("This circuit has no behaviour of its own to try.")
            self.steps.show_steps(())
            return

        def tagged(parts: tuple[str, ...], between: str) -> str:
            return between.join(with_tags(part, outcome.circuit, tags) for part in parts)

        if outcome.broken:
            self.title.setText(f"{outcome.title}: its steps cannot be done. {tagged((outcome.broken,), '')}")
        else:
            failed = sum(not step.passed for step in outcome.steps)
            verdict = (
                f"{failed} of {len(outcome.steps)} steps do not do what they should"
                if failed
                else "everything is correct"
            )
            self.title.setText(f"{outcome.title}, tried on the circuit as it is drawn now: {verdict}.")
        self.steps.show_steps(
            [
                StepRow(
                    tagged((step.done,), ""), tagged(step.expected, ", "), tagged(step.otherwise, "; "), n, step.passed
                )
                for n, step in enumerate(outcome.steps, 1)
            ]
        )
