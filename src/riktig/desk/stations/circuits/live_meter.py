"""Two probes and what the meter reads between them."""

from PySide6.QtWidgets import QComboBox, QLineEdit, QPushButton, QVBoxLayout, QWidget

from riktig.core.job import PinRef
from riktig.core.schematic import CIRCUITS, NAMES, PinLabels
from riktig.core.simulation import MeterReading
from riktig.desk.session import Session
from riktig.desk.stations.circuits.live_model import LiveModel
from riktig.desk.theme import grown, words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["MeterStrip"]


class MeterStrip(QWidget):
    """Black and red, typed as on the panel (“K1:A1”, a number) or chosen on the sheet, one after the other."""

    def __init__(self, session: Session, model: LiveModel) -> None:
        super().__init__()
        self._session, self._model = session, model
        self.reading: MeterReading | None = None
        self.black, self.red = QLineEdit(), QLineEdit()
        for field, name in ((self.black, "Black probe"), (self.red, "Red probe")):
            field.setPlaceholderText(f"{name.split()[0].lower()}: K1:A1")
            field.setAccessibleName(name)
            field.setFixedWidth(grown(130))
            field.editingFinished.connect(self.read)
        self.what = QComboBox()
        self.what.addItems(["V", "Ω"])
        self.what.setAccessibleName("Volts or ohms")
        self.what.currentIndexChanged.connect(self.read)
        self.swap = QPushButton("Swap")
        self.swap.setToolTip("Exchanges the probes")
        self.swap.clicked.connect(self._swap)
        self.shown = plain_label("–")
        self.shown.setFont(words_font(20, mono=True, bold=True))
        self.shown.setAccessibleName("Reading")
        self.way = plain_label("", "second", wraps=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        column.addLayout(row_of([plain_label("Meter"), self.black, self.red, self.what, self.swap, self.shown, None]))
        column.addWidget(self.way)
        self._next_is_red = False

    def _swap(self) -> None:
        black, red = self.black.text(), self.red.text()
        self.black.setText(red)
        self.red.setText(black)
        self.read()

    def touch(self, pins: tuple[PinRef, ...]) -> None:
        """Puts the next probe on the first of some pins, or on the next of them when it is there already."""
        label = self._labels()
        texts = [label[pin] for pin in pins if pin in label]
        if not texts:
            return
        field = self.red if self._next_is_red else self.black
        other = self.black if self._next_is_red else self.red
        text = next((other_text for other_text in texts if other_text != other.text()), texts[0])
        field.setText(text)
        self._next_is_red = not self._next_is_red
        self.read()

    def _labels(self) -> dict[PinRef, str]:
        evaluation = self._session.evaluation
        called = PinLabels(evaluation.get(CIRCUITS), evaluation.get(NAMES))
        return {pin: called(pin) for pin in self._model.panel.network.point}

    def _pin(self, text: str) -> PinRef | None:
        """The pin that a text names: as it stands on the panel, or the first of a number."""
        wanted = text.strip().lower()
        pin = next((pin for pin, label in self._labels().items() if label.lower() == wanted), None)
        if pin is None:
            numbers = self._session.evaluation.get(NAMES).number
            pin = next((net for net, number in numbers.items() if number.lower() == wanted), None)
        return pin

    def read(self) -> None:
        """Reads between the probes in the state of now."""
        self.reading = None
        if not self.black.text().strip() or not self.red.text().strip():
            self.shown.setText("–")
            self.way.setText("Choose two places on the sheet, one after the other, or type them.")
            return
        black, red = self._pin(self.black.text()), self._pin(self.red.text())
        for field, pin in ((self.black, black), (self.red, red)):
            field.setProperty("wrong", pin is None)
            field.style().unpolish(field)
            field.style().polish(field)
        if black is None or red is None:
            unknown = self.black.text() if black is None else self.red.text()
            self.shown.setText("–")
            self.way.setText(
                f"Nothing is called {unknown}, so there is nothing to touch. Type it as on the sheet: K1:A1."
            )
            return
        meter = self._model.meter
        self.reading = meter.ohms(black, red) if self.what.currentText() == "Ω" else meter.volts(black, red)
        self.shown.setText(self.reading.text)
        if self.reading.refused:
            text = "Live: an ohm-meter is for dead circuits. Switch off, lock, and prove it dead first."
        elif self.reading.value is None:
            text = "No path between the probes."
        else:
            way = " – ".join(self._model.tagged(point) for point in self.reading.way) or "directly"
            text = f"Way: {way}" + (", and parallel paths" if self.reading.others else "")
        self.way.setText(text)
