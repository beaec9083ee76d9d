"""Values as chips: each shows its reasons when chosen, and can be given another amount."""

from collections.abc import Iterable

from PySide6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from riktig.core.edits import SetOwnValue
from riktig.core.errors import RiktigError
from riktig.core.job import read_quantity
from riktig.core.keys import Key, ValueKey
from riktig.core.sizing import Value
from riktig.desk.session import Session
from riktig.desk.stations.brief.fields import Answer, sentence
from riktig.desk.theme import words_font
from riktig.desk.widgets import FlowLayout

__all__ = ["Chips"]


class Chips(QWidget):
    """A row of values that breaks like text, and below it the line in which one can be changed."""

    def __init__(self, session: Session, of: str) -> None:
        super().__init__()
        self._session, self._of = session, of
        self._values: tuple[Value, ...] = ()
        self._chips: dict[str, QPushButton] = {}
        self._layout = QVBoxLayout(self)
        self._layout.setContentsMargins(0, 0, 0, 0)
        self._layout.setSpacing(5)
        self._row: QWidget | None = None
        self._editor: QWidget | None = None
        self._open = ""
        self.amount: Answer | None = None
        self.reason: Answer | None = None

    def show_values(self, values: Iterable[Value]) -> None:
        """Shows values; untouched when they are the same."""
        values = tuple(values)
        if values == self._values:
            return
        self._values = values
        if [value.key for value in values] == list(self._chips):
            for value in values:
                self._say(self._chips[value.key], value)
        else:
            self._build()
        if self._open:
            self._edit(self._open)

    def _build(self) -> None:
        """New chips; the one that had the focus has it again."""
        had = next((key for key, chip in self._chips.items() if chip.hasFocus()), "")
        row = QWidget()
        flow = FlowLayout(row, gap=6, lead=5)
        self._chips = {}
        for value in self._values:
            chip = QPushButton()
            chip.setFont(words_font(10))
            self._say(chip, value)
            chip.clicked.connect(lambda _=False, key=value.key: self._pressed(key))
            self._chips[value.key] = chip
            flow.addWidget(chip)
        if self._row is not None:
            self._layout.replaceWidget(self._row, row)
            self._row.hide()
            self._row.deleteLater()
        else:
            self._layout.insertWidget(0, row)
        self._row = row
        if had in self._chips:
            self._chips[had].setFocus()

    def _say(self, chip: QPushButton, value: Value) -> None:
        """Writes a value on its chip."""
        chip.setText(_value_words(value))
        chip.setToolTip(value.shortfall or "Show it, and why; Enter again to give another")
        chip.setAccessibleName(f"{self._of}: {value.name} {value.text}")
        look = "short" if value.shortfall else "yours" if value.overridden else "chip"
        if chip.objectName() != look:
            chip.setObjectName(look)
            chip.style().unpolish(chip)
            chip.style().polish(chip)

    def show_selection(self, key: Key | None) -> None:
        """Opens the line to change the value that is selected, and closes it for another."""
        wanted = key.value if isinstance(key, ValueKey) else ""
        if wanted != self._open:
            self._edit(wanted)

    def _pressed(self, key: str) -> None:
        self._session.select(ValueKey(key))
        self._edit(key)

    def _edit(self, key: str) -> None:
        """The line “Use … instead, because …” for a value that may be changed."""
        value = next((own_value for own_value in self._values if own_value.key == key and own_value.settable), None)
        if self._editor is not None:
            self._editor.hide()
            self._editor.deleteLater()
            self._editor, self.amount, self.reason = None, None, None
        self._open = value.key if value else ""
        if value is None:
            return
        self.amount = Answer(f"{value.name}, your value", "", lambda text: True, 70)
        self.reason = Answer(f"{value.name}, your reason", value.reason, lambda text: True, 240)
        self.reason.setPlaceholderText("the reason, for the next person")
        use = QPushButton("Use mine")
        use.clicked.connect(lambda: self._take(value))
        parts: list[str | QWidget] = [f"{value.name}:", "use", self.amount, f"{value.unit} instead, because"]
        parts += [self.reason, use]
        if value.overridden:
            back = QPushButton(f"Back to Riktig's {value.proposed:g} {value.unit}".strip())
            back.clicked.connect(lambda: self._back(value))
            parts.append(back)
        self._editor = sentence(*parts, points=10.5)
        self._layout.addWidget(self._editor)

    def _take(self, value: Value) -> None:
        assert self.amount is not None and self.reason is not None
        try:
            amount = read_quantity(self.amount.text(), value.unit, value.name.lower())
        except RiktigError as error:
            self._session.say(str(error), wrong=True)
            self.amount.setFocus()
            return
        reason = self.reason.text()
        self._session.edit(f"own value for {value.name.lower()}, {self._of}", SetOwnValue(value.key, amount, reason))

    def _back(self, value: Value) -> None:
        self._session.edit(f"{value.name.lower()} as Riktig proposes, {self._of}", SetOwnValue(value.key))


def _value_words(value: Value) -> str:
    signs = (" ✎ yours" if value.overridden else "") + (" ?" if value.unsure else "")
    wrong = f" ✗ {value.shortfall}" if value.shortfall else ""
    return f"{value.name}  {value.text}{signs}{wrong}"
