"""The recipe book as cards: a small picture, when to use it, what can be chosen, and the circuit goes in."""

from collections.abc import Callable

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import QComboBox, QLineEdit, QPushButton, QScrollArea, QToolButton, QVBoxLayout, QWidget

from riktig.core.job import Param
from riktig.core.schematic import CIRCUIT_TEMPLATES, CircuitTemplate, recipe_picture
from riktig.desk.canvas import thumb
from riktig.desk.theme import Theme
from riktig.desk.widgets import FlowLayout, plain_label, row_of

__all__ = ["RecipeChooser"]

CARD = QSize(196, 118)
Add = Callable[[CircuitTemplate, str, tuple[Param, ...]], None]


class RecipeChooser(QWidget):
    """Cards of all recipes; the chosen one asks for its name and parameters below, or leads to the Brief."""

    def __init__(self, add: Add, back: Callable[[], None], to_brief: Callable[[], None]) -> None:
        super().__init__()
        self._add, self._to_brief = add, to_brief
        self.entry: CircuitTemplate | None = None
        self.cards: dict[str, QToolButton] = {}
        self._painted = ""
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        self.back = QPushButton("Back to the sheets")
        self.back.clicked.connect(back)
        words = plain_label(
            "First the circuits that are added here, then those that follow from the Brief: starters, ways, supplies.",
            "second",
            wraps=True,
        )
        column.addLayout(row_of([self.back, None]))
        column.addWidget(words)
        body = QWidget()
        self._flow = FlowLayout(body, gap=10, lead=10)
        for entry in sorted(CIRCUIT_TEMPLATES, key=lambda template: template.make is None):
            self._flow.addWidget(self._card(entry))
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setWidget(body)
        column.addWidget(area, 1)
        self.when = plain_label("Choose a circuit.", "", wraps=True)
        self.title = QLineEdit()
        self.title.setPlaceholderText("its name on this job, such as “settling tank”")
        self.title.setAccessibleName("Name of the circuit")
        self.title.setMinimumWidth(340)
        self.go = QPushButton("Add this circuit")
        self.go.setObjectName("main")
        self.go.clicked.connect(self.add)
        self.title.returnPressed.connect(self.add)
        self._params = QWidget()
        self._param_row = FlowLayout(self._params, gap=10, lead=4)
        self.choices: dict[str, QComboBox] = {}
        column.addWidget(self.when)
        column.addWidget(self._params)
        column.addLayout(row_of([self.title, None, self.go]))
        self._show(None)

    def _card(self, entry: CircuitTemplate) -> QToolButton:
        card = QToolButton()
        card.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
        card.setIconSize(CARD)
        card.setText(entry.recipe.value[:1].upper() + entry.recipe.value[1:])
        card.setToolTip(entry.when)
        card.setAccessibleName(entry.recipe.value)
        card.setAccessibleDescription(entry.when)
        card.setCheckable(True)
        card.setFixedSize(CARD.width() + 34, CARD.height() + 40)
        card.clicked.connect(lambda _=False, e=entry: self.choose(e))
        self.cards[entry.recipe.value] = card
        return card

    def paint_pictures(self, theme: Theme, *, north_american: bool) -> None:
        """Paints the pictures in the symbols of the rulebook, once a theme and rulebook."""
        state = f"{theme.name}{north_american}"
        if state == self._painted:
            return
        self._painted = state
        for entry in CIRCUIT_TEMPLATES:
            card = self.cards.get(entry.recipe.value)
            if card:
                drawing = recipe_picture(entry.recipe, north_american=north_american)
                card.setIcon(thumb(drawing, CARD, theme, self.devicePixelRatioF()))

    def choose(self, entry: CircuitTemplate) -> None:
        """Takes a recipe and asks for its parameters."""
        self._show(entry)
        self.title.setFocus()

    def _show(self, entry: CircuitTemplate | None) -> None:
        self.entry = entry
        for name, card in self.cards.items():
            card.setChecked(entry is not None and name == entry.recipe.value)
        while self._param_row.count():
            item = self._param_row.takeAt(0)
            widget = item.widget() if item else None
            if widget:
                widget.hide()
                widget.deleteLater()
        self.choices = {}
        for parameter in entry.params if entry else ():
            box = QComboBox()
            box.addItems(parameter.choices)
            box.setAccessibleName(parameter.name)
            self.choices[parameter.name] = box
            cell = QWidget()
            cell.setLayout(row_of([plain_label(f"{parameter.name[:1].upper()}{parameter.name[1:]}"), box]))
            self._param_row.addWidget(cell)
        self.go.setEnabled(entry is not None)
        is_asked_for = entry is not None and entry.make is None
        self.title.setVisible(entry is not None and not is_asked_for)
        self._params.setVisible(bool(self.choices) and not is_asked_for)
        self.go.setText("Ask for it in the Brief" if is_asked_for else "Add this circuit")
        words = f"{entry.recipe.value[:1].upper()}{entry.recipe.value[1:]}. {entry.when}" if entry else ""
        if entry is not None and is_asked_for and entry.params:
            chosen = ", ".join(parameter.name for parameter in entry.params)
            words += f" Once it is there, “Circuit …” offers: {chosen}."
        self.when.setText(words or "Choose a circuit: what it is for and what can be chosen about it appears here.")

    def add(self) -> None:
        """Hands the circuit over with what differs from what the recipe proposes."""
        if self.entry is None:
            return
        if self.entry.make is None:
            self._show(None)
            self._to_brief()
            return
        params = tuple(
            Param(param.name, self.choices[param.name].currentText())
            for param in self.entry.params
            if self.choices[param.name].currentText() != param.default
        )
        entry, title = self.entry, self.title.text()
        self.title.clear()
        self._show(None)
        self._add(entry, title, params)
