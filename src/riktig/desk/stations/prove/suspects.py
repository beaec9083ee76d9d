"""What may be wrong, from the readings so far: the likeliest first, what to do about it, where to touch next."""

from collections.abc import Callable

from PySide6.QtCore import Qt, Signal
from PySide6.QtWidgets import QListWidget, QListWidgetItem, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from riktig.core.proving import NextProbe, Suspect
from riktig.desk.widgets import plain_label

__all__ = ["SuspectsPanel"]

MOST_SHOWN = 30
"""Suspects listed (chosen by us: more are no list to read)."""
ALIKE_SHOWN = 4


class SuspectsPanel(QWidget):
    """The list of suspects, and the button to the next probe.

    Args:
        go_next: Goes to the next probe.
        show_all: Shows all suspects on plate and sheets.
    """

    chosen = Signal(object)
    """The suspect that was chosen."""

    def __init__(self, go_next: Callable[[], None], show_all: Callable[[], None]) -> None:
        super().__init__()
        self.suspects: tuple[Suspect, ...] = ()
        self.head = plain_label("", wraps=True)
        self.list = QListWidget()
        self.list.setAccessibleName("What may be wrong")
        self.list.setWordWrap(True)
        self.list.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.list.currentRowChanged.connect(self._picked)
        self.what_to_do = plain_label("", "second", wraps=True)
        self.next = QPushButton("Next probe")
        self.next.setToolTip("The reading that narrows most what may be wrong")
        self.next.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.next.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.next.clicked.connect(lambda _=False: go_next())
        self.everywhere = QPushButton("On plate and sheets …")
        self.everywhere.setToolTip("The likeliest of these at once, numbered as in this list")
        self.everywhere.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.everywhere.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.everywhere.clicked.connect(lambda _=False: show_all())
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(plain_label("What may be wrong", "quiet"))
        layout.addWidget(self.head)
        layout.addWidget(self.list, 1)
        layout.addWidget(self.what_to_do)
        layout.addWidget(self.next)
        layout.addWidget(self.everywhere)
        self._words: Callable[[Suspect], tuple[str, str]] = lambda suspect: ("", "")

    def show_suspects(
        self,
        suspects: tuple[Suspect, ...],
        words: Callable[[Suspect], tuple[str, str]],
        probe: NextProbe | None,
        probe_words: str,
    ) -> None:
        """Shows what may be wrong.

        Args:
            suspects: The likeliest first.
            words: Says a suspect, and what to do about it.
            probe: The reading that tells most; None where none tells them apart.
            probe_words: Its points.
        """
        self.suspects, self._words = suspects, words
        count = len(suspects)
        if not count:
            self.head.setText(
                "No single fault and no two explain all these readings. Read again where they contradict each other."
            )
        elif count == 1:
            self.head.setText("One thing explains all readings:")
        else:
            self.head.setText(f"{count} things explain all readings, the likeliest first:")
        self.list.clear()
        for number, suspect in enumerate(suspects[:MOST_SHOWN], 1):
            more = f", or {len(suspect.alike)} places like it" if suspect.alike else ""
            share = f"{number}.  {suspect.weight:.0%}  " if count > 1 else ""
            item = QListWidgetItem(f"{share}{words(suspect)[0]}{more}")
            self.list.addItem(item)
        self.everywhere.setEnabled(bool(count))
        self.next.setEnabled(probe is not None)
        nothing = "No reading tells these apart: look" if count > 1 else "Nothing more to read: look there"
        self.next.setText(f"Next probe: {probe_words}" if probe else nothing)
        self.what_to_do.setText(words(suspects[0])[1] if suspects else "")

    def _picked(self, row: int) -> None:
        if 0 <= row < len(self.suspects):
            self.what_to_do.setText(self._words(self.suspects[row])[1])
            self.chosen.emit(self.suspects[row])
