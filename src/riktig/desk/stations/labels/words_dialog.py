"""The house's table of words: what stands on labels in the language of the job, and what is abbreviated."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QFormLayout,
    QHeaderView,
    QLineEdit,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from riktig.core.errors import ImpossibleValueError
from riktig.core.job import LabelWord, Practice
from riktig.desk.theme import grown
from riktig.desk.widgets import plain_label

__all__ = ["WordsDialog"]

HEADS = ("Riktig says", "On the label", "Language")


class WordsDialog(QDialog):
    """Asks for the table. ``language`` and ``rows`` are what was entered.

    Args:
        parent: What it stands over.
        practice: With the table of now.
        missing: Texts that the table does not say in the language of now.
    """

    def __init__(self, parent: QWidget, practice: Practice, missing: Sequence[str]) -> None:
        super().__init__(parent)
        self.setWindowTitle("Words on labels")
        self._missing = tuple(missing)
        self.rows: tuple[LabelWord, ...] = practice.label_words
        self.code = QLineEdit(practice.label_language)
        self.code.setAccessibleName("Language of the labels")
        self.code.setPlaceholderText("a code such as de; empty for Riktig's own words")
        form = QFormLayout()
        form.addRow("Language of the labels", self.code)
        self.table = QTableWidget(0, len(HEADS))
        self.table.setAccessibleName("Words on labels")
        self.table.setHorizontalHeaderLabels(HEADS)
        self.table.verticalHeader().hide()
        heads = self.table.horizontalHeader()
        heads.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        for column in (0, 1):
            heads.setSectionResizeMode(column, QHeaderView.ResizeMode.Stretch)
        self.table.setColumnWidth(2, grown(90))
        self.wrong = plain_label("", "fails", wraps=True)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        self.more = buttons.addButton("Another row", QDialogButtonBox.ButtonRole.ActionRole)
        self.add_missing = buttons.addButton(
            f"Add the {len(missing)} that are missing", QDialogButtonBox.ButtonRole.ActionRole
        )
        self.add_missing.setVisible(bool(missing))
        self.more.clicked.connect(lambda: self._add(LabelWord("-", "", self.code.text().strip()), empty=True))
        self.add_missing.clicked.connect(self._add_missing)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        words = (
            "A row with a language is a translation, for jobs whose labels are in it. A row without one is an "
            "abbreviation: it is taken only where the whole text does not fit. Tags and numbers stay as they are."
        )
        layout.addWidget(plain_label(words, "second", wraps=True))
        layout.addLayout(form)
        layout.addWidget(self.table, 1)
        layout.addWidget(self.wrong)
        layout.addWidget(buttons)
        self.resize(820, 560)
        for row in practice.label_words:
            self._add(row)

    @property
    def language(self) -> str:
        """The code of the language, "" for Riktig's own words."""
        return self.code.text().strip().lower()

    def _add(self, row: LabelWord, *, empty: bool = False) -> None:
        at = self.table.rowCount()
        self.table.insertRow(at)
        for column, text in enumerate(("" if empty else row.words, row.instead, row.language)):
            self.table.setItem(at, column, QTableWidgetItem(text))
        self.table.scrollToBottom()

    def _add_missing(self) -> None:
        for text in self._missing:
            self._add(LabelWord(text, "", self.language))
        self.add_missing.setEnabled(False)

    def _text(self, row: int, column: int) -> str:
        item = self.table.item(row, column)
        return item.text().strip() if item else ""

    def accept(self) -> None:
        """Takes the table; rows without words, or with nothing to put in their place, are left out."""
        rows: list[LabelWord] = []
        try:
            for number in range(self.table.rowCount()):
                words, instead, language = (self._text(number, column) for column in range(len(HEADS)))
                if words and instead:
                    rows.append(LabelWord(words, instead, language.lower()))
            if self.language:
                LabelWord("x", "x", self.language)
        except ImpossibleValueError as error:
            self.wrong.setText(f"Not yet: {error}.")
            return
        self.rows = tuple(rows)
        super().accept()
