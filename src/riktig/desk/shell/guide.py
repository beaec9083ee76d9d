"""The user guide in a window of its own, to be read beside the work."""

import re
from pathlib import Path

from PySide6.QtWidgets import QDialog, QLineEdit, QPushButton, QTextBrowser, QVBoxLayout, QWidget

from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["GUIDE", "GuideWindow", "guide_text"]

GUIDE = Path(__file__).resolve().parents[2] / "assets" / "user-guide.md"


def guide_text() -> str:
    """The guide as it ships; links to papers for developers, which do not ship, are words only."""
    text = GUIDE.read_text(encoding="utf-8")
    return re.sub(r" ?\((?:\[[^]]*\]\([^)]*\.md\)|docs/[\w-]+\.md)\)", "", text)


class GuideWindow(QDialog):
    """Shows the guide, and finds words in it.

    Args:
        parent: What it stands over; both can be used at once.
    """

    def __init__(self, parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("User guide")
        self.setModal(False)
        self.page = QTextBrowser()
        self.page.setAccessibleName("User guide")
        self.page.setOpenLinks(False)
        self.page.document().setDefaultFont(words_font(11))
        self.page.setMarkdown(guide_text())
        self.words = QLineEdit()
        self.words.setPlaceholderText("Find in the guide")
        self.words.setAccessibleName("Find in the guide")
        self.words.returnPressed.connect(self.find_next)
        self.said = plain_label("", "quiet")
        close = QPushButton("Close")
        close.setAutoDefault(False)
        close.clicked.connect(self.close)
        layout = QVBoxLayout(self)
        layout.addLayout(row_of((self.words, self.said, None, close)))
        layout.addWidget(self.page, 1)
        self.resize(720, 700)
        self.words.setFocus()

    def find_next(self) -> None:
        """Goes to the next place with the words, from the top again at the end."""
        text = self.words.text().strip()
        if not text:
            return
        if not self.page.find(text):
            self.page.moveCursor(self.page.textCursor().MoveOperation.Start)
            if not self.page.find(text):
                self.said.setText(f"The guide does not say “{text}”.")
                return
        self.said.setText("")
