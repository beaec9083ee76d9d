"""Batches as cards, or the list from end to end."""

from PySide6.QtWidgets import QStackedWidget

from riktig.core.job import Batching
from riktig.core.papers import Schedule, schedule
from riktig.core.wiring import WIRING, draw_batches
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme
from riktig.desk.widgets import ScheduleTable, Station, plain_label

__all__ = ["WiresStation"]

_LIST = ("order", "number", "from", "to", "mm2", "colour", "length_mm", "cut_mm", "from_end", "to_end", "batch", "key")


class WiresStation(Station):
    """A card a batch; a chosen card lists its wires."""

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.cards = DrawingView("Batches of wires")
        self.cards.pages = True
        self.cards.chosen.connect(self._card)
        self.table = ScheduleTable("Wires, from and to", "key")
        self.table.row_chosen.connect(lambda key: session.select(f"wire:{key}"))
        self.batches = self.button("Batches", "What is cut and marked together", checkable=True)
        self.listed = self.button("From – to", "Every wire with both ends", checkable=True)
        self.batches.setChecked(True)
        self.batches.clicked.connect(lambda: self.turn(cards=True))
        self.listed.clicked.connect(lambda: self.turn(cards=False))
        self.words = plain_label("", "second")
        self.hint = plain_label("", "quiet", wraps=True)
        self.stack = QStackedWidget()
        self.stack.addWidget(self.cards)
        self.stack.addWidget(self.table)
        self.only = 0
        self.add_bar((self.batches, self.listed, None, self.words))
        self.add_body(self.stack)
        self.add_body(self.hint, 0)

    def turn(self, *, cards: bool, only: int = 0) -> None:
        """Shows the cards, or the list of all wires or of one batch."""
        self.batches.setChecked(cards)
        self.listed.setChecked(not cards)
        self.only = only
        self.stack.setCurrentWidget(self.cards if cards else self.table)
        self.refresh()

    def _card(self, key: str) -> None:
        if key.startswith("batch:"):
            self.turn(cards=False, only=int(key.removeprefix("batch:")))

    def refresh(self) -> None:
        """Shows the wires of now."""
        plan = self.session.plan
        wiring, progress = plan.get(WIRING), self.session.progress
        done = {s.wire.key for s in progress.states if s.complete}
        finished = {str(b.number): sum(k in done for k in b.wires) for b in wiring.batches}
        self.cards.show_drawing(draw_batches(wiring, finished, self.session.selection))
        whole = schedule("wires", plan)
        keys = [key for key, _ in whole.columns]
        kept = [keys.index(key) for key in _LIST]
        batch = keys.index("batch")
        rows = tuple(tuple(row[i] for i in kept) for row in whole.rows if not self.only or row[batch] == self.only)
        columns = tuple(whole.columns[i] for i in kept)
        self.table.show_schedule(Schedule("wires", whole.title, columns, rows))
        cut = sum(wire.cut for wire in wiring.wires) / 1000
        waste = sum(b.waste for b in wiring.batches) / 1000
        self.words.setText(f"{len(wiring.wires)} wires  ·  {cut:.1f} m to cut  ·  {waste:.1f} m trimmed off")
        crowded = [f"{c.label}: {c.text}" for c in wiring.crowded]
        if crowded:
            self.hint.setText("See to: " + "; ".join(crowded[:3]))
        elif self.only and not self.batches.isChecked():
            self.hint.setText(f"Batch {self.only}. Press “From – to” for all wires.")
        elif self.session.job.practice.batching is Batching.LONGEST:
            self.hint.setText(
                "Cut every wire of a batch to its longest run, mark both ends together, trim when "
                "it is in. Choose a card to list its wires."
            )
        else:
            self.hint.setText("Each wire is cut to its own length. Choose a card.")

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.cards.set_theme(theme)

    def show_selection(self, key: str) -> None:
        """Marks the chosen wire in the list, or its batch's card."""
        if key.startswith("wire:"):
            self.table.choose(key.removeprefix("wire:"))
            if self.batches.isChecked():
                self.refresh()
