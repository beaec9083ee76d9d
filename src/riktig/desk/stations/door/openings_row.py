"""Holes of the builder's own: a socket, a breather, a cable through the side, with the class of what is fitted."""

from PySide6.QtWidgets import QComboBox, QDoubleSpinBox, QLineEdit, QPushButton, QVBoxLayout, QWidget

from riktig.core.edits import AddOpening, RemoveOpening
from riktig.core.errors import ImpossibleValueError
from riktig.core.holes import SHEETS
from riktig.core.job import Opening, Surface
from riktig.desk.session import Session
from riktig.desk.theme import grown
from riktig.desk.widgets import flowing, plain_label

__all__ = ["OpeningsRow"]


class OpeningsRow(QWidget):
    """Which surface, what for, where, how large, which class; and those there are, to take one out again."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.surface, self.there = QComboBox(), QComboBox()
        self.surface.setAccessibleName("Opening in the")
        self.there.setAccessibleName("Openings of your own")
        self.purpose, self.rating = QLineEdit(), QLineEdit()
        self.purpose.setPlaceholderText("what for")
        self.purpose.setAccessibleName("What the opening is for")
        self.purpose.setMaximumWidth(grown(80))  # all of the row stands in one line beside open details at 1280 px
        self.rating.setPlaceholderText("IP65")
        self.rating.setMinimumWidth(58)
        self.rating.setAccessibleName("Class of what is fitted")
        self.fields: dict[str, QDoubleSpinBox] = {}
        row: list[QWidget | None] = [plain_label("Opening", "second"), self.surface, self.purpose]
        for name, sign, value in (("x", "→ ", 50.0), ("y", "↓ ", 50.0), ("width", "⌀ ", 22.5), ("height", "× ", 0.0)):
            box = QDoubleSpinBox()
            box.setRange(0, 3000)
            box.setDecimals(1)
            box.setPrefix(sign)
            box.setValue(value)
            box.setMaximumWidth(grown(84))
            box.setAccessibleName(f"Opening {name}")
            box.setToolTip(f"Opening {name}, mm")
            self.fields[name] = box
            row.append(box)
        self.fields["height"].setSpecialValueText("round")
        self.add = QPushButton("Add")
        self.add.clicked.connect(self._add)
        self.drop = QPushButton("Delete")
        self.drop.clicked.connect(self._drop)
        self.rating.setMaximumWidth(grown(58))
        for pick in (self.surface, self.there):
            pick.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
            pick.setMinimumContentsLength(9)
        shown = QVBoxLayout(self)
        shown.setContentsMargins(0, 0, 0, 0)
        shown.setSpacing(4)
        shown.addWidget(flowing([*row, self.rating, self.add], gap=5))
        shown.addWidget(flowing([self.there, self.drop], gap=5))

    def refresh(self) -> None:
        """Shows the surfaces there are, and the openings."""
        names = [sheet.name for sheet in self._session.evaluation.get(SHEETS)]
        if [self.surface.itemText(n) for n in range(self.surface.count())] != names:
            now = self.surface.currentText()
            self.surface.clear()
            self.surface.addItems(names)
            self.surface.setCurrentText(now if now in names else names[1])
        self.there.clear()
        for opening in self._session.job.openings:
            self.there.addItem(f"{opening.purpose}, {opening.surface.value}")
        for widget in (self.there, self.drop):
            widget.setVisible(bool(self._session.job.openings))

    def _add(self) -> None:
        values = {name: box.value() for name, box in self.fields.items()}
        try:
            opening = Opening(
                Surface(self.surface.currentText()),
                purpose=self.purpose.text().strip(),
                rating=self.rating.text().strip(),
                **values,
            )
        except ImpossibleValueError as error:
            self._session.say(f"That cannot be made: {error}. Nothing was added.", wrong=True)
            return
        if self._session.edit(f"opening for {opening.purpose}", AddOpening(opening)):
            self.purpose.clear()

    def _drop(self) -> None:
        at = self.there.currentIndex()
        self._session.edit("opening out", RemoveOpening(at))
