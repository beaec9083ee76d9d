"""The work at hand as one card over the whole screen: read from two metres, with both hands busy."""

import time
from collections.abc import Callable
from dataclasses import dataclass

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from riktig.core.geometry import Drawing
from riktig.desk.bench.bench_keys import common_key
from riktig.desk.canvas import DrawingView
from riktig.desk.theme import DARK, Theme, style_sheet, words_font
from riktig.desk.widgets import FittedLabel, plain_label

__all__ = ["BenchCard", "BenchWords"]

TWICE_S = 1.0
"""The same code read again within this is one scan (chosen by us: a scanner held still reads twice)."""


@dataclass(frozen=True, slots=True)
class BenchWords:
    """What stands on the card.

    ``head`` is the stage and how far it is, ``name`` what is at hand, ``next`` what is done now; ``ends`` two columns
    of a large word and a smaller text, ``lines`` how it is done where there are no ends; ``steps`` the operations with
    whether each is done.
    """

    head: str
    name: str
    next: str
    ends: tuple[tuple[str, str], ...] = ()
    lines: tuple[str, ...] = ()
    steps: tuple[tuple[str, bool], ...] = ()
    caution: str = ""


class BenchCard(QWidget):
    """The card. Space, Page Down (a foot switch) and the large button do the next thing.

    Keys: Backspace takes back, arrows go to another, F11 or Escape closes. Everything else is taken for a code that a
    scanner types, up to Enter.

    Args:
        words: Gives what stands on the card now.
        picture: Gives the picture of what is at hand.
        clock: Seconds that only go up.
    """

    def __init__(
        self,
        words: Callable[[], BenchWords],
        picture: Callable[[], Drawing],
        clock: Callable[[], float] = time.monotonic,
    ) -> None:
        super().__init__(None, Qt.WindowType.Window)
        self._words, self._picture, self._clock = words, picture, clock
        self.setWindowTitle("Bench card")
        self.setObjectName("paper")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.do_next: Callable[[], None] = lambda: None
        self.do_batch: Callable[[], None] = lambda: None
        self.take_back: Callable[[], None] = lambda: None
        self.step: Callable[[int], None] = lambda by: None
        self.scanned: Callable[[str], str] = lambda code: ""
        self._code, self._last = "", ("", -TWICE_S)
        self.head = FittedLabel(20.0, 14.0)
        self.name = FittedLabel(120.0, 30.0, mono=True, bold=True)
        self.next = FittedLabel(64.0, 24.0, bold=True)
        self.next.setObjectName("act")
        self.ends = [(FittedLabel(64.0, 24.0, mono=True, bold=True), FittedLabel(24.0, 14.0)) for _ in range(2)]
        self.lines = plain_label("", wraps=True)
        self.lines.setFont(words_font(24))
        self.steps = FittedLabel(24.0, 14.0)
        self.said = plain_label("", "judgement", wraps=True)
        self.said.setFont(words_font(22))
        self.view = DrawingView("Where it is on the panel")
        self.view.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.done = _large("Done", "Space, or the foot switch", lambda: self.do_next())
        self.done.setObjectName("main")
        self.batch = _large("Whole batch", "The next operation of every wire of the batch: B", lambda: self.do_batch())
        self.back = _large("Take back", "Backspace", lambda: self.take_back())
        self.speak = _large("Speak", "Says aloud what to touch and what came", lambda: None)
        self.speak.setCheckable(True)
        self.speak.hide()
        self._lay_out()
        self.set_theme(DARK)

    def _lay_out(self) -> None:
        left = QVBoxLayout()
        left.setSpacing(14)
        left.addWidget(self.head)
        left.addWidget(self.name)
        left.addWidget(self.next)
        grid = QGridLayout()
        for column, (large, small) in enumerate(self.ends):
            grid.addWidget(large, 0, column)
            grid.addWidget(small, 1, column)
            grid.setColumnStretch(column, 1)
        left.addLayout(grid)
        left.addWidget(self.lines)
        left.addStretch(1)
        left.addWidget(self.said)
        left.addWidget(self.steps)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(28, 20, 28, 20)
        above = QHBoxLayout()
        above.setSpacing(24)
        above.addLayout(left, 3)
        above.addWidget(self.view, 2)
        whole.addLayout(above, 1)
        buttons = QHBoxLayout()
        buttons.setSpacing(16)
        buttons.addWidget(self.back, 1)
        buttons.addWidget(self.batch, 1)
        buttons.addWidget(self.speak, 1)
        buttons.addWidget(self.done, 2)
        whole.addLayout(buttons)

    def show_now(self, said: str = "") -> None:
        """Shows what is at hand, with a message where there is one."""
        words = self._words()
        self.head.setText(words.head)
        self.name.setText(words.name)
        self.next.setText(words.next)
        for n, (large, small) in enumerate(self.ends):
            shown = words.ends[n] if n < len(words.ends) else ("", "")
            large.setText(shown[0])
            small.setText(shown[1])
            large.setVisible(bool(shown[0]))
            small.setVisible(bool(shown[1]))
        self.lines.setText("\n".join(words.lines))
        self.lines.setVisible(bool(words.lines))
        self.steps.setText("    ".join(f"{'✓' if is_done else '○'} {step}" for step, is_done in words.steps))
        self.batch.setVisible(bool(words.steps))
        self.said.setText(said or words.caution)
        self.view.show_drawing(self._picture())

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme; the bench has the dark one, whatever the window has."""
        self.setStyleSheet(style_sheet(theme))
        self.view.set_theme(theme)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """Keys of the bench; what else is typed is a code."""
        key = event.key()
        if key in (Qt.Key.Key_Escape, Qt.Key.Key_F11):
            self.close()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._take_code()
        elif self._code and event.text().isprintable() and event.text():
            self._code += event.text()
        elif common_key(event, self.do_next, self.take_back, self.step):
            self.show_now()
        elif event.text() and event.text().isprintable():
            self._code = event.text()
        else:
            super().keyPressEvent(event)

    def _take_code(self) -> None:
        code, self._code = self._code, ""
        if not code:
            return
        before, at = self._last
        now = self._clock()
        self._last = (code, now)
        if code == before and now - at < TWICE_S:
            return
        self.show_now(self.scanned(code))


def _large(text: str, tip: str, done: Callable[[], None]) -> QPushButton:
    button = QPushButton(text)
    button.setFont(words_font(24, bold=True))
    button.setMinimumHeight(84)
    button.setToolTip(tip)
    button.setAccessibleDescription(tip)
    button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    button.clicked.connect(lambda _=False: done())
    return button
