"""Batches as cards, the list from end to end, or the numbers with their ends by place."""

from collections.abc import Sequence

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QSplitter, QStackedWidget, QVBoxLayout, QWidget

from riktig.core.edits import Edit
from riktig.core.exports import Schedule, kit_cards, schedule
from riktig.core.geometry import Drawing, Shape, moved
from riktig.core.ids import WireId
from riktig.core.job import Batching, CodesOn, EndStyle
from riktig.core.keys import BatchKey, Key, NetKey, PinKey, WireKey
from riktig.core.plate import LAYOUT
from riktig.core.production import (
    NumberState,
    NumberStatus,
    batch_code,
    draw_numbers,
    field_facts,
    field_subject,
    number_states,
)
from riktig.core.records import FieldEndDone, NewRecord, TakenBack
from riktig.core.schematic import CIRCUITS, CONDUCTOR_ENDS, NAMES, NETS, Net, NetClass, PinLabels
from riktig.core.wiring import WIRING, bench_cards, draw_batches, work_compared
from riktig.desk.canvas import PAGES, DrawingView
from riktig.desk.session import Session
from riktig.desk.stations.wires.list_filter import WireFilter
from riktig.desk.stations.wires.order import OrderAsked
from riktig.desk.theme import Theme
from riktig.desk.widgets import ScheduleTable, Station, plain_label

__all__ = ["WiresStation"]


def _below_each_other(cards: Sequence[Drawing], title: str) -> Drawing:
    """Cards as one drawing."""
    shapes: list[Shape] = []
    below = width = 0.0
    for card in cards:
        shapes += [moved(mark, 0.0, below) for mark in card.shapes]
        below, width = below + card.height + 2.0, card.width
    return Drawing(max(width, 100.0), max(below, 40.0), tuple(shapes), title)


_LIST = (
    "order", "number", "from", "to", "mm2", "colour", "length_mm", "cut_mm", "from_end", "to_end", "stage", "batch",
    "key",
)  # fmt: skip


class WiresStation(Station):
    """A card a batch; a chosen card lists its wires."""

    needs = (WIRING,)

    waits_for = "No wires yet. They are worked out from the circuits and from where each part stands."

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.cards = DrawingView("Batches of wires")
        self.cards.opening = PAGES
        self.cards.chosen.connect(self._card)
        self.table = ScheduleTable("Wires, from and to", "key")
        self.table.row_chosen.connect(lambda key: session.select(WireKey(WireId(key))))
        self.batches = self.button("Batches", "What is cut and marked together", checkable=True)
        self.listed = self.button("From – to", "Every wire with both ends", checkable=True)
        self.numbers = self.button("Numbers", "Every number: its ends by place, pulled wires and links", checkable=True)
        self.ends_of_number = DrawingView("Numbers and their ends")
        self.ends_of_number.opening = PAGES
        self.ends_of_number.chosen.connect(self._number)
        self.ends_of_number.on_key = self._tally_key
        self.which = self.button("Outstanding only", "Hides finished numbers", checkable=True)
        self.field = self.button(
            "Site ends terminated", "Ticks this number as done in the field, or takes it back (Space)"
        )
        self.kits = self.button(
            "Kits", "The loom of each door, neutrals in one piece, and the cables of a network", checkable=True
        )
        self.kits.clicked.connect(self.show_kits)
        self.kit_cards = DrawingView("Loom, neutrals and network, as cards")
        self.kit_cards.opening = PAGES
        self.kit_cards.chosen.connect(self._on_bench)
        self.order = self.button(
            "Order …",
            "The order in which the clamps of the chosen wire's potential are joined: move, split, or one only",
        )
        self.order.clicked.connect(self.ask_order)
        self.which.clicked.connect(self.refresh)
        self.field.clicked.connect(self.tick_field)
        self.batches.setChecked(True)
        self.batches.clicked.connect(lambda: self.turn(cards=True))
        self.listed.clicked.connect(lambda: self.turn(cards=False))
        self.numbers.clicked.connect(self.show_numbers)
        self.words = plain_label("", "second")
        self.hint = plain_label("", "quiet", wraps=True)
        self.stack = QStackedWidget()
        self.stack.addWidget(self.cards)
        self.bench = DrawingView("Cards of the batch for the bench")
        self.bench.opening = PAGES
        self.bench.chosen.connect(self._on_bench)
        self.unfinished = self.button("Outstanding", "Hides wires that are finished in Build", checkable=True)
        self.unfinished.clicked.connect(self.refresh)
        self.filter = WireFilter(self.unfinished, self.refresh, self._filter)
        self.listing = QSplitter(Qt.Orientation.Vertical)
        self.listing.addWidget(self.bench)
        listed = QWidget()
        below = QVBoxLayout(listed)
        below.setContentsMargins(0, 0, 0, 0)
        below.addWidget(self.filter)
        below.addWidget(self.table, 1)
        self.listing.addWidget(listed)
        self.listing.setSizes([440, 200])
        self.listing.setChildrenCollapsible(False)
        self.stack.addWidget(self.listing)
        self.stack.addWidget(self.ends_of_number)
        self.stack.addWidget(self.kit_cards)
        self.only = 0
        self._asked: OrderAsked | None = None
        self.add_bar(
            (self.batches, self.listed, self.numbers, self.kits, self.order, self.which, self.field, None, self.words)
        )
        self.add_body(self.stack)
        self.add_body(self.hint, 0)

    def turn(self, *, cards: bool, only: int = 0) -> None:
        """Shows the cards, or the list of all wires or of one batch."""
        self.batches.setChecked(cards)
        self.listed.setChecked(not cards)
        self.only = only
        self.bench.setVisible(bool(only))
        self._show(self.cards if cards else self.listing)

    def show_numbers(self) -> None:
        """Shows every number with its ends by place."""
        self.batches.setChecked(False)
        self.listed.setChecked(False)
        self._show(self.ends_of_number)

    def show_kits(self) -> None:
        """Shows what is made ready away from the plate."""
        self.batches.setChecked(False)
        self.listed.setChecked(False)
        self._show(self.kit_cards)

    def _show(self, page: QWidget) -> None:
        self.stack.setCurrentWidget(page)
        self.kits.setChecked(page is self.kit_cards)
        self.numbers.setChecked(page is self.ends_of_number)
        self.refresh()

    def states(self) -> tuple[NumberState, ...]:
        """Every number with what is done."""
        plan, session = self.session.evaluation, self.session
        return number_states(plan.get(CONDUCTOR_ENDS), plan.get(NAMES), session.progress, session.records)

    def _number(self, key: Key | None) -> None:
        self.session.select(key)

    def _tally_key(self, event: QKeyEvent) -> bool:
        if event.key() != Qt.Key.Key_Space:
            return False
        self.tick_field()
        return True

    def tick_field(self) -> None:
        """Ticks the ends of the chosen number in the field; when all are ticked, takes that back."""
        state = next(
            (number_state for number_state in self.states() if NetKey(number_state.net) == self.session.selection), None
        )
        if state is None or not state.field:
            self.session.say("Choose a number that has an end in the field: then it can be ticked as done there.")
            return
        undone = [end.ends for end in state.field if end.done is None]
        if undone:
            self.session.record_all(
                [NewRecord(field_subject(state.net, end), field_facts(state.number, end)) for end in undone]
            )
            return
        subjects = {field_subject(state.net, end.ends) for end in state.field}
        last = {
            r.subject: r for r in self.session.records if isinstance(r.facts, FieldEndDone) and r.subject in subjects
        }
        self.session.record_all(
            [NewRecord(r.subject, TakenBack("field end", "taken back"), r.id) for r in last.values()]
        )

    def ask_order(self) -> None:
        """Asks for the order in which the clamps of the chosen wire's or number's potential are joined."""
        net = self._net_chosen()
        if net is None:
            self.session.say("Choose a wire or a number first: then the order of its potential can be set.")
            return
        if net.net_class is NetClass.EARTH:
            self.session.say("Protective conductors have no order: each runs to a clamp of its own on the earth bar.")
            return
        dialog = OrderAsked(self.session, net.id, self.theme, self)
        dialog.accepted.connect(lambda: self._use_order(dialog.edits))
        if self._asked is not None:
            self._asked.deleteLater()
        self._asked = dialog
        dialog.open()

    def _use_order(self, edits: Sequence[Edit]) -> None:
        step = f"order {self.session.history.count}"
        for edit in edits:
            self.session.edit("Set the order of connection", edit, merge=step)

    def _net_chosen(self) -> Net | None:
        evaluation, key = self.session.evaluation, self.session.selection
        of_pin = evaluation.get(NETS).of_pin
        match key:
            case WireKey(wire):
                known = evaluation.get(WIRING).by_key.get(wire)
                return of_pin.get(known.net) if known else None
            case NetKey(pin) | PinKey(pin):
                return of_pin.get(pin)
        return None

    def _show_tally(self) -> None:
        states = self.states()
        left = [state for state in states if state.standing is not NumberStatus.COMPLETE]
        evaluation = self.session.evaluation
        shown = left if self.which.isChecked() else states
        label = PinLabels(evaluation.get(CIRCUITS), evaluation.get(NAMES))
        self.ends_of_number.show_drawing(draw_numbers(shown, label, self.session.selection))
        pulled, links = (
            sum(state.ends_of_number.pulled for state in states),
            sum(state.ends_of_number.links for state in states),
        )
        begun = sum(state.standing is NumberStatus.PART for state in states)
        self.hint.setText(
            f"{len(states) - len(left)} complete, {begun} in part, {len(left) - begun} not begun. Solid: "
            f"wire within one place ({links}). Dashed: wire to another place ({pulled}). A terminal or a bar counts as "
            "one end. Tick the wires of the panel in Build."
        )

    def _card(self, key: Key | None) -> None:
        if isinstance(key, BatchKey):
            self.turn(cards=False, only=key.number)

    def _on_bench(self, key: Key | None) -> None:
        if isinstance(key, WireKey):
            self.session.select(key)

    def _show_bench(self) -> None:
        """The cards of the chosen batch, one below the other, as they are printed."""
        evaluation = self.session.evaluation
        wiring, layout = evaluation.get(WIRING), evaluation.get(LAYOUT)
        batch = next((b for b in wiring.batches if b.number == self.only), None)
        self.bench.setVisible(batch is not None)
        if batch is None:
            return
        job = self.session.job
        code = batch_code(job.number, batch.number) if job.practice.codes is CodesOn.LABELS else ""
        cards = bench_cards(wiring, batch, layout, flexible=job.practice.ends is EndStyle.FERRULES, code=code)
        self.bench.show_drawing(_below_each_other(cards, f"Batch {batch.number}"))

    def _filter(self) -> None:
        text = self.filter.words.text()
        count = self.table.filter_by(text)
        if text:
            self.hint.setText(f"{count} wires hold “{text}”. A press on a head sorts by that column.")
        else:
            self.refresh()

    def _show_kits(self) -> None:
        cards = kit_cards(self.session.evaluation)
        self.kit_cards.show_drawing(_below_each_other(cards, "Looms, neutrals and network"))
        self.hint.setText(
            "Made ready at the bench: each loom with its door from behind, neutrals that run together in one piece, "
            "network cables ready made. “Print …” prints the cards."
            if cards
            else "Nothing is made ready away from the plate: no door has wires, no neutrals run together, no network."
        )

    def refresh(self) -> None:
        """Shows the wires of now."""
        is_ends_page = self.stack.currentWidget() is self.ends_of_number
        self.words.hide()  # first, so that the bar is never wider than the window
        self.which.setVisible(is_ends_page)
        self.field.setVisible(is_ends_page)
        self.words.setVisible(not is_ends_page)
        if is_ends_page:
            self._show_tally()
            return
        if self.stack.currentWidget() is self.kit_cards:
            self._show_kits()
            return
        evaluation = self.session.evaluation
        wiring, progress = evaluation.get(WIRING), self.session.progress
        done = {s.wire.key for s in progress.states if s.complete}
        finished = {str(b.number): sum(k in done for k in b.wires) for b in wiring.batches}
        self.cards.show_drawing(draw_batches(wiring, finished, self.session.selection))
        whole = schedule("wires", evaluation)
        keys = [key for key, _ in whole.columns]
        shown_columns = [keys.index(key) for key in _LIST]
        batch = keys.index("batch")
        self.filter.offer(wiring)
        hidden = self.filter.hidden(wiring) | (done if self.unfinished.isChecked() else set[WireId]())
        rows = tuple(
            tuple(row[i] for i in shown_columns)
            for row in whole.rows
            if (not self.only or row[batch] == self.only) and str(row[keys.index("key")]) not in hidden
        )
        columns = tuple(whole.columns[i] for i in shown_columns)
        self.table.show_schedule(Schedule("wires", whole.title, columns, rows))
        self._show_bench()
        cut = sum(wire.cut for wire in wiring.wires) / 1000
        waste = sum(b.waste for b in wiring.batches) / 1000
        work = work_compared(wiring.wires, wiring.batches, self.session.job.practice)
        hours, alone = work.planned.minutes / 60, work.one_at_a_time.minutes / 60
        self.words.setText(f"{len(wiring.wires)} wires  ·  {cut:.1f} m to cut  ·  {waste:.1f} m trimmed off")
        self.words.setToolTip(
            "\n".join(
                f"{way}: {minutes} min, {trimmed} m trimmed off"
                for way, minutes, trimmed, _ in schedule("cutting", evaluation).rows
            )
        )
        left_out = len(self.filter.hidden(wiring)) if not self.batches.isChecked() else 0
        crowded = [f"{c.label}: {c.text}" for c in wiring.crowded]
        if crowded:
            self.hint.setText("See to: " + "; ".join(crowded[:3]))
        elif left_out:
            self.hint.setText(f"{len(rows)} wires are shown. A press on a head sorts by that column.")
        elif self.only and not self.batches.isChecked():
            self.hint.setText(f"Batch {self.only}. Press “From – to” for all wires.")
        elif self.session.job.practice.batching is Batching.LONGEST:
            self.hint.setText(
                "Cut every wire of a batch to its longest run, mark both ends together, trim when it is in. "
                f"Cutting takes {hours:.1f} h so, {alone:.1f} h one wire at a time. Choose a card to list its wires."
            )
        else:
            self.hint.setText("Each wire is cut to its own length. Choose a card.")

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.cards.set_theme(theme)
        self.bench.set_theme(theme)
        self.ends_of_number.set_theme(theme)
        self.kit_cards.set_theme(theme)

    def show_selection(self, key: Key | None) -> None:
        """Marks the chosen wire in the list, its batch's card, or the number it carries."""
        if self.stack.currentWidget() is self.ends_of_number:
            self._show_tally()
            self.ends_of_number.select(frozenset({key}))
            return
        if isinstance(key, WireKey):
            self.table.choose(key.wire)
            if self.batches.isChecked():
                self.refresh()
