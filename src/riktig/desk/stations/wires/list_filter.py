"""What of the wire list is shown: by place, stage and colour, by words, and only what is outstanding."""

from collections.abc import Callable

from PySide6.QtWidgets import QComboBox, QLineEdit, QPushButton, QWidget

from riktig.core.wiring import WireId, Wiring
from riktig.desk.widgets.small import flowing, row_of

__all__ = ["WireFilter"]

ALL_PLACES, ALL_STAGES, ALL_COLOURS = "Every place", "Every stage", "Every colour"


class WireFilter(QWidget):
    """The line above the wire list.

    Args:
        outstanding: The button that hides what is finished; it stands at the end of the line.
        changed: Called when another place, stage or colour is chosen.
        words_changed: Called when other words are asked for.
    """

    def __init__(
        self, outstanding: QPushButton, changed: Callable[[], None], words_changed: Callable[[], None]
    ) -> None:
        super().__init__()
        self.words = QLineEdit()
        self.words.setPlaceholderText("Filter …")
        self.words.setToolTip("Words that a row must hold: a stage, a colour, a number, a tag")
        self.words.setAccessibleName("Filter of the list")
        self.words.setClearButtonEnabled(True)
        self.words.setMaximumWidth(320)
        self.words.textChanged.connect(words_changed)
        self.place = _choice(ALL_PLACES, "Wires with an end on a rail, on the plate beside them, or on a door", changed)
        self.stage = _choice(ALL_STAGES, "Wires of one stage of the work", changed)
        self.colour = _choice(ALL_COLOURS, "Wires of one colour", changed)
        self.words.setMinimumWidth(160)
        line = row_of((flowing((self.words, self.place, self.stage, self.colour, outstanding)),))
        line.setContentsMargins(0, 0, 0, 0)
        self.setLayout(line)

    def offer(self, wiring: Wiring) -> None:
        """Offers what the wires have; what is chosen stays while there is such a wire."""
        _fill(self.place, ALL_PLACES, sorted({area for batch in wiring.batches for area in batch.areas}))
        _fill(self.stage, ALL_STAGES, list(dict.fromkeys(batch.stage.value for batch in wiring.batches)))
        _fill(self.colour, ALL_COLOURS, sorted({batch.colour for batch in wiring.batches}))

    def hidden(self, wiring: Wiring) -> set[WireId]:
        """The wires that place, stage and colour leave out."""
        return {
            key
            for batch in wiring.batches
            if (self.place.currentIndex() > 0 and self.place.currentText() not in batch.areas)
            or (self.stage.currentIndex() > 0 and self.stage.currentText() != batch.stage.value)
            or (self.colour.currentIndex() > 0 and self.colour.currentText() != batch.colour)
            for key in batch.wires
        }


def _choice(everything: str, tip: str, changed: Callable[[], None]) -> QComboBox:
    box = QComboBox()
    box.addItem(everything)
    box.setToolTip(tip)
    box.setAccessibleName(tip)
    box.currentIndexChanged.connect(lambda _index: changed())
    return box


def _fill(box: QComboBox, everything: str, values: list[str]) -> None:
    wanted = [everything, *values]
    if [box.itemText(n) for n in range(box.count())] == wanted:
        return
    chosen = box.currentText()
    box.blockSignals(True)
    box.clear()
    box.addItems(wanted)
    box.setCurrentIndex(max(box.findText(chosen), 0))
    box.blockSignals(False)
