"""What is entered with a task: how many parts came and their numbers, or the reading of a contact."""

import math
from collections.abc import Callable

from PySide6.QtWidgets import QFormLayout, QLineEdit, QSpinBox, QWidget

from riktig.core.production import TaskState, judge_contact, received
from riktig.core.records import ContactRead, Facts, PartReceived
from riktig.desk.widgets import plain_label

__all__ = ["EntryRow"]

OPEN_WORDS = ("ol", "open", "inf")
"""What stands for an open circuit."""


class EntryRow(QWidget):
    """The fields of a task that is more than a tick; hidden for the others.

    ``wrong`` says what is wrong with what was entered, after ``facts_of`` gave None.

    Args:
        entered: Called at Enter in the last field.
    """

    def __init__(self, entered: Callable[[], None]) -> None:
        super().__init__()
        self.wrong = ""
        self.quantity = QSpinBox()
        self.quantity.setRange(0, 99_999)
        self.quantity.setAccessibleName("How many are there in all")
        self.serials, self.batch = _line("Serial numbers", "as on the part"), _line("Batch", "as on the box")
        self.meter = _line("Instrument and its serial number", "name and serial number, as its calibration has them")
        self.zero, self.ohm = _line("Leads short-circuited, Ω", "e.g. 0.2"), _line("Reading, Ω", "e.g. 0.3, or OL")
        self.form = QFormLayout(self)
        self.form.setContentsMargins(0, 0, 0, 0)
        self.form.setRowWrapPolicy(QFormLayout.RowWrapPolicy.WrapLongRows)
        self._rows = (
            ("There in all", self.quantity), ("Serial numbers", self.serials), ("Batch", self.batch),
            ("Instrument", self.meter), ("Leads alone, Ω", self.zero), ("Reading, Ω", self.ohm),
        )  # fmt: skip
        for name, field in self._rows:
            self.form.addRow(plain_label(name), field)
        self.ohm.returnPressed.connect(entered)
        self.batch.returnPressed.connect(entered)
        self._shown: object = None

    def show_for(self, task: TaskState | None) -> None:
        """Shows the fields of a task; what was entered for another is cleared, instrument and leads stay."""
        facts = task.task.facts if task else None
        parts, contact = isinstance(facts, PartReceived), isinstance(facts, ContactRead)
        for name, field in self._rows:
            of_part = field in (self.quantity, self.serials, self.batch)
            lamp = isinstance(facts, ContactRead) and facts.expected == "lights"
            shown = (parts and of_part) or (contact and not of_part and not (lamp and name != "Instrument"))
            self.form.setRowVisible(field, shown)
        self.setVisible(parts or contact)
        if task is None or task.task is self._shown:
            return
        self._shown = task.task
        self.ohm.clear()
        self.serials.clear()
        self.batch.clear()
        if isinstance(facts, PartReceived):
            self.quantity.setValue(facts.wanted)

    def facts_of(self, task: TaskState) -> Facts | None:
        """What is recorded of a task with what was entered; None where that cannot be, ``wrong`` saying why."""
        facts = task.task.facts
        if isinstance(facts, PartReceived):
            return received(facts, self.quantity.value(), self.serials.text(), self.batch.text())
        if isinstance(facts, ContactRead):
            return self._reading(facts)
        return facts

    def _reading(self, facts: ContactRead) -> ContactRead | None:
        meter = self.meter.text().strip()
        if not meter:
            self.wrong = "Nothing was recorded: a reading needs its instrument. Enter it with its serial number."
            return None
        if facts.expected == "lights":
            return ContactRead(facts.operator, facts.contact, facts.position, facts.expected, meter=meter)
        zero, ohm = _number(self.zero.text()), _number(self.ohm.text())
        if zero is None or ohm is None:
            self.wrong = "Nothing was recorded: enter what the leads read short-circuited, and the reading or OL."
            return None
        try:
            verdict = judge_contact(facts.expected, ohm, zero)
        except ValueError as error:
            self.wrong = f"Nothing was recorded: {error}."
            return None
        read = "inf" if math.isinf(ohm) else f"{ohm:g}"
        return ContactRead(
            facts.operator, facts.contact, facts.position, facts.expected, read, zero, meter, verdict.why
        )


def _line(name: str, example: str) -> QLineEdit:
    field = QLineEdit()
    field.setAccessibleName(name)
    field.setToolTip(example)
    return field


def _number(text: str) -> float | None:
    """A reading as it is typed; a comma is a decimal point, “OL” an open circuit."""
    text = text.strip().casefold().replace(",", ".")
    if text in OPEN_WORDS:
        return math.inf
    try:
        value = float(text)
    except ValueError:
        return None
    return value if math.isfinite(value) and value >= 0 else None
