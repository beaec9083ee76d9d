"""Which labels of a medium are shown and printed: all, what changed, a place, a batch, what is chosen."""

from collections.abc import Iterable, Sequence

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QComboBox, QWidget

from riktig.core.handover import issues_of
from riktig.core.keys import Key
from riktig.core.labels import Label, Labels, Medium, changed_since, print_runs, to_print_again
from riktig.core.records import Record
from riktig.desk.widgets import FlowLayout

__all__ = ["CHANGED", "CHOSEN", "ChoiceBar"]

ALL, CHANGED, CHOSEN = "all labels", "to print again", "only what is chosen"


def _moments(records: Sequence[Record]) -> dict[str, str]:
    """Earlier prints and issues by their words, such as “changed since 2026-12-01 10:20, Ida”, with their moment."""
    moments = {
        f"changed since {run.when[:16].replace('T', ' ')}, {run.who or 'nobody named'}": run.when
        for run in print_runs(records)
    }
    for issue in issues_of(records):
        moments[f"changed since issue {issue.facts.letter}, {issue.record.when[:10]}"] = issue.record.when
    return moments


class ChoiceBar(QWidget):
    """Lists to choose from; ``changed`` when another choice was made."""

    changed = Signal()

    def __init__(self) -> None:
        super().__init__()
        self.which, self.place = QComboBox(), QComboBox()
        self.stage, self.batch = QComboBox(), QComboBox()
        row = FlowLayout(self, gap=6, lead=4)
        boxes = ((self.which, "Which labels"), (self.place, "Place"), (self.stage, "Stage"), (self.batch, "Batch"))
        for box, name in boxes:
            box.setAccessibleName(name)
            box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToContents)
            box.activated.connect(lambda _index: self.changed.emit())
            row.addWidget(box)
        self._since: dict[str, str] = {}

    def fill(self, labels: Sequence[Label], records: Sequence[Record], again: int) -> None:
        """Shows what can be chosen of the labels of a medium.

        Args:
            labels: Of the medium.
            records: The log, oldest first.
            again: How many of them must be printed again.
        """
        self._since = _moments(records)
        which = [ALL, *([CHANGED] if again else []), CHOSEN, *self._since]
        _refill(self.which, which)
        _refill(self.place, ["every place", *sorted({label.place for label in labels if label.place})])
        batches = sorted({label.batch for label in labels if label.batch})
        _refill(self.batch, ["every batch", *(f"batch B{number:02}" for number in batches)])
        stages = list(dict.fromkeys(label.stage for label in labels if label.stage))
        _refill(self.stage, ["every stage", *stages])
        self.stage.setVisible(bool(stages))
        self.place.setVisible(self.place.count() > 2)
        self.batch.setVisible(bool(batches))

    def choose(self, which: str) -> None:
        """Chooses one of the first list by its words, as a click on it does."""
        self.which.setCurrentText(which)
        self.changed.emit()

    def chosen(self, labels: Labels, medium: Medium, records: Iterable[Record], key: Key | None) -> tuple[Label, ...]:
        """The labels that are wanted, in their order.

        Args:
            labels: All labels of the panel.
            medium: The medium that is shown.
            records: The log, oldest first.
            key: What is chosen in the window.
        """
        which = self.which.currentText()
        if which == CHANGED:
            wanted = to_print_again(labels, medium, records)
        elif which in self._since:
            wanted = changed_since(labels, medium, records, self._since[which])
        else:
            wanted = labels.on(medium)
        if which == CHOSEN:
            wanted = tuple(label for label in wanted if label.key == key)
        place, batch = self.place.currentText(), self.batch.currentText()
        if self.place.currentIndex() > 0:
            wanted = tuple(label for label in wanted if label.place == place)
        if self.stage.currentIndex() > 0:
            stage = self.stage.currentText()
            wanted = tuple(label for label in wanted if label.stage == stage)
        if self.batch.currentIndex() > 0:
            wanted = tuple(label for label in wanted if f"batch B{label.batch:02}" == batch)
        return wanted

    @property
    def is_whole(self) -> bool:
        """Whether nothing is left out."""
        return self.which.currentText() in ("", ALL) and not any(
            box.currentIndex() > 0 for box in (self.place, self.stage, self.batch)
        )


def _refill(box: QComboBox, texts: Sequence[str]) -> None:
    if [box.itemText(n) for n in range(box.count())] == list(texts):
        return
    now = box.currentText()
    box.clear()
    box.addItems(list(texts))
    box.setCurrentIndex(max(box.findText(now), 0))
