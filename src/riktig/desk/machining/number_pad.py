"""Numbers for gloved hands: keys as large as a thumb, and what is typed above them."""

from functools import partial

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QGridLayout, QPushButton, QVBoxLayout, QWidget

from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label

__all__ = ["NumberPad"]

KEY = 58
"""Least side of a key, px (chosen by us: about 15 mm on a common screen, a gloved thumb)."""
LONGEST = 8
BACK, CLEAR = "⌫", "C"


class NumberPad(QWidget):
    """Digits, a point, back and enter; the keyboard's own digits work too."""

    entered = Signal(float)

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.text = ""
        self.shown = plain_label("")
        self.shown.setFont(words_font(26, mono=True, bold=True))
        self.shown.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.shown.setAccessibleName("Reading in mm")
        grid = QGridLayout()
        grid.setSpacing(5)
        self.keys: dict[str, QPushButton] = {}
        for row, line in enumerate(("789", "456", "123", f".0{BACK}")):
            for column, sign in enumerate(line):
                key = QPushButton(sign)
                key.setMinimumSize(KEY, KEY - 14)
                key.setFont(words_font(18, mono=True, bold=True))
                key.setFocusPolicy(Qt.FocusPolicy.NoFocus)
                key.setAccessibleName({BACK: "Back", ".": "Point"}.get(sign, sign))
                key.clicked.connect(partial(self.press, sign))
                grid.addWidget(key, row, column)
                self.keys[sign] = key
        self.enter = QPushButton("Enter the reading")
        self.enter.setObjectName("main")
        self.enter.setMinimumHeight(KEY - 6)
        self.enter.setFont(words_font(14, bold=True))
        self.enter.clicked.connect(self.finish)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.shown)
        layout.addLayout(grid)
        layout.addWidget(self.enter)
        self._show()

    def press(self, sign: str) -> None:
        """One key."""
        if sign == BACK:
            self.text = self.text[:-1]
        elif len(self.text) < LONGEST and not (sign == "." and "." in self.text):
            self.text += sign
        self._show()

    def clear(self) -> None:
        """Nothing is typed."""
        self.text = ""
        self._show()

    def finish(self) -> None:
        """Gives the number away, when there is one."""
        try:
            value = float(self.text)
        except ValueError:
            return
        self.clear()
        self.entered.emit(value)

    def _show(self) -> None:
        self.shown.setText(f"{self.text or '–'} mm")
        self.enter.setEnabled(any(sign.isdigit() for sign in self.text))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Digits, point or comma, Backspace, Enter."""
        text = event.text().replace(",", ".")
        if text and text in "0123456789.":
            self.press(text)
        elif event.key() == Qt.Key.Key_Backspace:
            self.press(BACK)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.finish()
        elif event.key() == Qt.Key.Key_Escape and self.text:
            self.clear()
        else:
            super().keyPressEvent(event)
