"""A script watched step by step on the live sheet: what is done, what must follow, and whether it did."""

from collections.abc import Callable, Mapping

from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.job import CircuitId, DeviceId
from riktig.core.simulation import Runner, StepResult, with_tags
from riktig.desk.stations.circuits.live_model import LiveModel
from riktig.desk.widgets import plain_label, row_of

__all__ = ["WatchStrip"]


class WatchStrip(QWidget):
    """One script. ``stepped`` is called with what happened after every step."""

    def __init__(self, model: LiveModel, stepped: Callable[[StepResult], None], ended: Callable[[], None]) -> None:
        super().__init__()
        self._model, self._stepped, self._ended = model, stepped, ended
        self._runner: Runner | None = None
        self._steps: tuple[str, ...] = ()
        self._tags: Mapping[DeviceId, str] = {}
        self.at = 0
        self.results: list[StepResult] = []
        self.title = plain_label("")
        self.said = plain_label("", "second", wraps=True)
        self.next = QPushButton("Next step")
        self.all = QPushButton("All steps")
        self.end = QPushButton("End")
        self.next.clicked.connect(self.step)
        self.all.clicked.connect(self.run)
        self.end.clicked.connect(self._ended)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        column.addLayout(row_of([self.next, self.all, self.end, self.title, None]))
        column.addWidget(self.said)

    def begin(self, title: str, steps: tuple[str, ...], circuit: CircuitId, tags: Mapping[DeviceId, str]) -> None:
        """Begins a script on the panel as it stands at rest."""
        self._steps, self._tags, self.at, self.results = steps, tags, 0, []
        names = {tag: device_id for device_id, tag in tags.items()}
        self._runner = Runner(self._model.panel, circuit, names)
        self._name = title
        self._say()

    def _tagged(self, text: str) -> str:
        return with_tags(text, self._runner.circuit, dict(self._tags)) if self._runner else text

    def _say(self) -> None:
        failed = sum(not result.passed for result in self.results)
        verdict = f", {failed} wrong" if failed else ", all correct" if self.results else ""
        self.title.setText(f"{self._name}: step {self.at} of {len(self._steps)}{verdict}")
        self.next.setEnabled(self.at < len(self._steps))
        self.all.setEnabled(self.at < len(self._steps))
        if self.results:
            last = self.results[-1]
            text = f"{'✓' if last.passed else '✗'}  {self._tagged(last.done)}: {self._tagged(', '.join(last.expected))}"
            if not last.passed:
                text += ".  " + "; ".join(self._tagged(text_of_fault) for text_of_fault in last.otherwise)
                text += ".  Why: " + "; ".join(self._model.tagged(reason) for reason in last.why)
            self.said.setText(text)
        else:
            first = self._tagged(self._steps[0]) if self._steps else "it has no steps"
            self.said.setText(f"First: {first}")

    def step(self) -> None:
        """Does the next step and looks."""
        if self._runner is None or self.at >= len(self._steps):
            return
        try:
            result = self._runner.step(self._steps[self.at])
        except RiktigError as error:
            result = StepResult(self._steps[self.at], (), (str(error),))
        self.at += 1
        self.results.append(result)
        self._stepped(result)
        self._say()

    def run(self) -> None:
        """Does all steps that are left."""
        while self.at < len(self._steps):
            self.step()
