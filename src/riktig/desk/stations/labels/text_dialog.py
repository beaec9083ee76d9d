"""A label in the builder's own words: its lines, and why."""

from collections.abc import Sequence

from PySide6.QtWidgets import QComboBox, QDialog, QDialogButtonBox, QFormLayout, QLineEdit, QVBoxLayout, QWidget

from riktig.core.labels import Label, named_lines
from riktig.desk.widgets import plain_label

__all__ = ["TextDialog"]

MOST_FIELDS = 16


class TextDialog(QDialog):
    """Asks for the lines of a label: ``lines`` and ``reason`` are what was entered, ``plain`` that it is Riktig's.

    Args:
        parent: What it stands over.
        labels: The labels of one thing on one medium, each with its name; the first is shown.
    """

    def __init__(self, parent: QWidget, labels: Sequence[tuple[str, Label]]) -> None:
        super().__init__(parent)
        self.setWindowTitle("Text of a label")
        self._labels = tuple(labels)
        self.plain = False
        self.which = QComboBox()
        self.which.setAccessibleName("Which label")
        self.which.addItems([" / ".join(label.lines) for _name, label in labels])
        self.which.setVisible(len(labels) > 1)
        self.fields = [QLineEdit() for _ in range(MOST_FIELDS)]
        self.form = QFormLayout()
        for number, field in enumerate(self.fields, 1):
            field.setAccessibleName(f"Line {number}")
            self.form.addRow(f"Line {number}", field)
        self.why = QLineEdit()
        self.why.setAccessibleName("Why it says something else")
        self.form.addRow("Reason", self.why)
        self.wrong = plain_label("", "fails", wraps=True)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Ok | QDialogButtonBox.StandardButton.Cancel)
        self.plain_button = buttons.addButton("Riktig's text again", QDialogButtonBox.ButtonRole.ResetRole)
        self.plain_button.clicked.connect(self._to_plain)
        buttons.accepted.connect(self.accept)
        buttons.rejected.connect(self.reject)
        layout = QVBoxLayout(self)
        layout.addWidget(self.which)
        layout.addLayout(self.form)
        layout.addWidget(self.wrong)
        layout.addWidget(buttons)
        self.which.currentIndexChanged.connect(self._show)
        self.setMinimumWidth(560)
        self._show()

    def _show(self) -> None:
        """The label that is chosen: the name of its thing cannot be changed here."""
        _name, label = self._labels[max(self.which.currentIndex(), 0)]
        names, count = named_lines(label.medium), len(label.lines)
        for number, field in enumerate(self.fields):
            field.setText(label.lines[number] if number < count else "")
            field.setCursorPosition(0)
            field.setReadOnly(number < names)
            field.setEnabled(number >= names)
            self.form.setRowVisible(number, number < max(count, 2))
        self.why.setText(label.own)
        self.plain_button.setEnabled(bool(label.own))

    @property
    def name(self) -> str:
        """The name of the label that is shown."""
        return self._labels[max(self.which.currentIndex(), 0)][0]

    @property
    def lines(self) -> tuple[str, ...]:
        """What was entered, without empty lines at its end."""
        texts = [field.text().strip() for field in self.fields]
        while texts and not texts[-1]:
            texts.pop()
        return tuple(texts)

    @property
    def reason(self) -> str:
        """Why it says something else."""
        return self.why.text().strip()

    def accept(self) -> None:
        """Takes what was entered, once it has a reason."""
        if not self.reason:
            self.wrong.setText("Not yet: say why it says something else. The reason stands in the rules and on paper.")
            return
        super().accept()

    def _to_plain(self) -> None:
        self.plain = True
        super().accept()
