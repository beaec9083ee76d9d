"""The sheet of labels in the printer: one that ships or one's own sizes, where it begins, what is on the shelf."""

from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QDoubleSpinBox,
    QFormLayout,
    QHBoxLayout,
    QLineEdit,
    QSpinBox,
    QVBoxLayout,
    QWidget,
)

from riktig.core.errors import ImpossibleValueError, RiktigError
from riktig.core.job import LabelForm, LabelSheet
from riktig.core.labels import Medium, known_sheets
from riktig.desk.house_media import house_media, keep_medium
from riktig.desk.widgets import plain_label

__all__ = ["SheetDialog"]

SIZES = (
    ("width", "Label, width"), ("height", "Label, height"), ("left", "First label from the left edge"),
    ("top", "First label from the upper edge"), ("across", "From label to label, across"),
    ("down", "From label to label, down"), ("paper_width", "Sheet, strip or roll, length"),
    ("paper_height", "Sheet, strip or roll, width"), ("least", "Smallest capital"),
)  # fmt: skip
COUNTS = (
    ("columns", "Labels across"), ("rows", "Labels down"), ("used", "Used of the begun one"),
    ("characters", "Most letters in a line"),
)  # fmt: skip
UNCOUNTED = -1


class SheetDialog(QDialog):
    """Asks for the sheet of one medium. ``sheet`` is what was entered, ``plain`` that it is plain paper again.

    Args:
        parent: The window.
        medium: Which labels.
        now: The sheet of now; None for plain paper.
    """

    def __init__(self, parent: QWidget, medium: Medium, now: LabelSheet | None) -> None:
        super().__init__(parent)
        self.setWindowTitle(f"Sheet for {medium.value}")
        self._medium = medium
        self.sheet: LabelSheet | None = None
        self.plain = False
        self.known = QComboBox()
        self.wrong = plain_label("", "fails", wraps=True)
        self.known.setAccessibleName("Media that ship, and the house's own")
        self.known.addItem("sizes of your own", None)
        for sheet in self._offered():
            self.known.addItem(sheet.name, sheet)
        self.known.activated.connect(lambda _index: self._take(self.known.currentData()))
        self.name = QLineEdit()
        self.name.setAccessibleName("Name of the sheet")
        self.sizes = {key: QDoubleSpinBox() for key, _words in SIZES}
        self.counts = {key: QSpinBox() for key, _words in COUNTS}
        self.shelf = QSpinBox()
        self.shelf.setRange(UNCOUNTED, 10_000)
        self.shelf.setSpecialValueText("not counted")
        self.shelf.setAccessibleName("Sheets on the shelf, with the begun one")
        self.form_of = QComboBox()
        self.form_of.setAccessibleName("What it is")
        for known_form in LabelForm:
            self.form_of.addItem(known_form.value, known_form)
        head, form, right = QFormLayout(), QFormLayout(), QFormLayout()
        head.addRow("Medium", self.known)
        head.addRow("Name", self.name)
        head.addRow("What it is", self.form_of)
        for key, words in SIZES:
            field = self.sizes[key]
            field.setRange(0, 50_000)
            field.setDecimals(2)
            field.setSuffix(" mm")
            field.setAccessibleName(words)
            form.addRow(words, field)
        for key, words in COUNTS:
            self.counts[key].setRange(0, 10_000)
            self.counts[key].setAccessibleName(words)
            right.addRow(words, self.counts[key])
        right.addRow("On the shelf", self.shelf)
        self.keep = QCheckBox("Keep it for other jobs")
        right.addRow(self.keep)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        self.plain_button = buttons.addButton("Plain paper", QDialogButtonBox.ButtonRole.ResetRole)
        self.plain_button.setToolTip("Labels stand beside each other on A4 or Letter, to be cut out")
        self.plain_button.clicked.connect(self._to_plain)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.addLayout(head)
        sides = QHBoxLayout()
        sides.addLayout(form)
        sides.addLayout(right)
        layout.addLayout(sides)
        layout.addWidget(self.wrong)
        layout.addWidget(buttons)
        self._take(now or next(iter(self._offered()), None))

    def _offered(self) -> tuple[LabelSheet, ...]:
        """What ships for this medium, then what the house has."""
        try:
            own_media = house_media()
        except RiktigError as error:
            self.wrong.setText(str(error))
            own_media = ()
        return tuple(sheet for sheet in (*known_sheets(), *own_media) if sheet.medium == self._medium.value)

    def _take(self, sheet: LabelSheet | None) -> None:
        """Shows a sheet in the fields."""
        if sheet is None:
            return
        self.known.setCurrentIndex(max(self.known.findText(sheet.name), 0))
        self.name.setText(sheet.name)
        for key, field in self.sizes.items():
            field.setValue(getattr(sheet, key))
        for key, count in self.counts.items():
            count.setValue(getattr(sheet, key))
        self.form_of.setCurrentIndex(self.form_of.findText(sheet.form.value))
        self.shelf.setValue(UNCOUNTED if sheet.sheets is None else sheet.sheets)

    def accept(self) -> None:
        """Takes what was entered, or says what is wrong with it."""
        size = {key: field.value() for key, field in self.sizes.items()}
        count = {key: field.value() for key, field in self.counts.items()}
        try:
            self.sheet = LabelSheet(
                self._medium.value, self.name.text().strip(), size["width"], size["height"], count["columns"],
                count["rows"], size["left"], size["top"], size["across"], size["down"], size["paper_width"],
                size["paper_height"], count["used"], None if self.shelf.value() == UNCOUNTED else self.shelf.value(),
                list(LabelForm)[self.form_of.currentIndex()], count["characters"], size["least"],
            )  # fmt: skip
            if self.keep.isChecked():
                keep_medium(self.sheet)
        except ImpossibleValueError as error:
            self.wrong.setText(f"Not yet: {error}.")
            return
        except RiktigError as error:
            self.wrong.setText(str(error))
            self.keep.setChecked(False)
            return
        super().accept()

    def _to_plain(self) -> None:
        self.plain = True
        super().accept()
