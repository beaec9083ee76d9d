"""One wire at a time, large: what it is, where it lands, and what has been done to it."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QLineEdit, QListWidget, QListWidgetItem, QPushButton, QScrollArea, QVBoxLayout, QWidget

from riktig.core.geometry import Drawing
from riktig.core.ids import WireId
from riktig.core.keys import Key, WireKey
from riktig.core.plate import LAYOUT
from riktig.core.production import Operation, WireState, tick_facts
from riktig.core.records import TakenBack, WireDone
from riktig.core.standards import conductor_name, is_awg, torque_name
from riktig.core.wiring import WIRING, Wire, mini_plate
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme, words_font
from riktig.desk.widgets import FittedLabel, Station, plain_label, row_of

__all__ = ["BuildStation"]

STALE_HEIGHT = 96
"""Room for what no longer counts; more of it scrolls (chosen by us: four lines)."""

WIDEST_LIST = 420
"""Of the list of wires, px: beyond, the ends of its lines are reached by scrolling (chosen by us)."""

LIST_PX = 130
"""Least width of that list, px."""


class BuildStation(Station):
    """One wire at a time, with what is done to it and to its ends.

    Keys: Space ticks the next thing, 1 to 5 tick one, Backspace takes the last tick back, arrow keys go to the next
    wire; a scanned number goes to its wire.
    """

    needs = (WIRING,)

    waits_for = "Nothing to wire yet. Here each wire is ticked as it is cut, marked, terminated and tightened."

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.key = WireId("")
        self.batch_line = plain_label("", "second", wraps=True)
        self.scan = QLineEdit()
        self.scan.setPlaceholderText("Scan or type a number, Enter")
        self.scan.setAccessibleName("Scan a wire number")
        self.scan.setMaximumWidth(230)
        self.scan.setMinimumWidth(self.scan.fontMetrics().horizontalAdvance(self.scan.placeholderText()) + 24)
        self.scan.returnPressed.connect(self._scanned)
        bar = row_of(())
        bar.addWidget(self.batch_line, 1)
        bar.addWidget(self.scan)
        self.add_body(bar, 0)
        self.add_body(
            plain_label(
                "Isolate the supply, lock off and prove dead before working inside. Local codes and "
                "licensed practice decide.",
                "judgement",
                wraps=True,
            ),
            0,
        )
        row = row_of(())
        row.addWidget(self._make_list(), 2)
        row.addWidget(self._make_card(), 3)
        self.add_body(row)
        self.stale_words = plain_label("", "second", wraps=True)
        self.stale_area = QScrollArea()
        self.stale_area.setWidgetResizable(True)
        self.stale_area.setAccessibleName("Records no longer valid, and why")
        self.stale_area.setWidget(self.stale_words)
        self.stale_area.setMaximumHeight(STALE_HEIGHT)
        self.add_body(self.stale_area, 0)
        self.add_body(
            plain_label(
                "Space: tick the next   1 … 5: tick one   Backspace: take the last tick back   Up, Down: another wire",
                "quiet",
                wraps=True,
            ),
            0,
        )

    def _make_list(self) -> QWidget:
        self.list = QListWidget()
        self.list.setAccessibleName("Wires in the order they go in")
        self.list.setFont(words_font(10, mono=True))
        self.list.setMinimumWidth(LIST_PX)
        self.list.currentItemChanged.connect(self._picked)
        self.list.installEventFilter(self)
        return self.list

    def _make_card(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.number = FittedLabel(40.0, 20.0, mono=True, bold=True)
        self.conductor = plain_label("", "second", wraps=True)
        self.conductor.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self.conductor.setFont(words_font(15))
        self.start, self.end = (FittedLabel(30.0, 16.0, mono=True, bold=True) for _ in range(2))
        self.start_end = plain_label("", "second", wraps=True)
        self.end_end = plain_label("", "second", wraps=True)
        for label in (self.start_end, self.end_end):
            label.setFont(words_font(12))
        self.where = DrawingView("Where the wire runs")
        self.where.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.where.setMinimumSize(72, 160)
        self.buttons: dict[Operation, QPushButton] = {}
        ticks = QVBoxLayout()
        ticks.setSpacing(5)
        for number, operation in enumerate(Operation, 1):
            button = QPushButton()
            button.setFont(words_font(11))
            button.setCheckable(True)
            button.setMinimumHeight(34)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(lambda _=False, o=operation: self.toggle(o))
            button.setToolTip(f"Key {number}")
            self.buttons[operation] = button
            ticks.addWidget(button)
        layout = QVBoxLayout(card)
        layout.setContentsMargins(18, 10, 18, 12)
        layout.setSpacing(4)
        heading = row_of((self.number,))
        heading.addWidget(self.conductor, 1)
        layout.addLayout(heading)
        ends = row_of(())
        for label, fitting in ((self.start, self.start_end), (self.end, self.end_end)):
            column = QVBoxLayout()
            column.addWidget(label)
            column.addWidget(fitting)
            ends.addLayout(column, 1)
        layout.addLayout(ends)
        low = row_of(())
        low.addLayout(ticks, 1)
        low.addWidget(self.where, 1)
        layout.addLayout(low, 1)
        return card

    def refresh(self) -> None:
        """Shows the wires of now and what counts as done."""
        progress = self.session.progress
        keys = [state.wire.key for state in progress.states]
        if self.key not in keys:
            first = next((s for s in progress.states if not s.complete), None)
            self.key = first.wire.key if first else (keys[0] if keys else WireId(""))
        stale = {tick.subject for tick in progress.stale}
        self.list.blockSignals(True)
        self.list.clear()
        wires = [state.wire for state in progress.states]
        of_number = max((len(wire.number) for wire in wires), default=0)
        of_start = max((len(wire.start.label) for wire in wires), default=0)
        for state in progress.states:
            wire = state.wire
            sign = (
                "✓" if state.complete else "!" if wire.key in stale else (f"{len(state.done)}/5" if state.done else " ")
            )
            ends = f"{wire.start.label:<{of_start}}  {wire.end.label}"
            item = QListWidgetItem(f"{sign:>3} {wire.number:<{of_number}}  {ends}")
            item.setData(Qt.ItemDataRole.UserRole, wire.key)
            self.list.addItem(item)
            if wire.key == self.key:
                self.list.setCurrentItem(item)
        self.list.blockSignals(False)
        self.list.setMaximumWidth(min(max(self.list.sizeHintForColumn(0) + 30, 220), WIDEST_LIST))
        self._show()
        lines = [f"{tick.name}: {tick.what} no longer counts, {tick.why}." for tick in progress.stale]
        self.stale_words.setText("\n".join(lines))
        self.stale_area.setVisible(bool(lines))

    def _state(self) -> WireState | None:
        return self.session.progress.of(self.key)

    def _show(self) -> None:
        state = self._state()
        if state is None:
            self.number.setText("")
            return
        wire, progress = state.wire, self.session.progress
        batches = self.session.evaluation.get(WIRING).batches
        batch = next(b for b in batches if wire.key in b.wires)
        inside = sum(s.complete for s in progress.states if s.wire.key in batch.wires)
        self.batch_line.setText(
            f"Batch {batch.number} of {len(batches)}, {batch.name}: {inside} of "
            f"{len(batch.wires)} in   ·   {progress.complete} of {len(progress.states)} in all"
        )
        self.number.setText(wire.number)
        self.conductor.setText(f"{conductor_name(wire.mm2)} {wire.colour}, cut {wire.cut:g} mm")
        self.start.setText(wire.start.label)
        self.end.setText(wire.end.label)
        self.start_end.setText(_end(wire, first=True))
        self.end_end.setText(_end(wire, first=False))
        for number, (operation, button) in enumerate(self.buttons.items(), 1):
            done = dict(state.done).get(operation)
            button.setChecked(done is not None)
            text = operation.words.capitalize()
            if operation is Operation.LANDED_START:
                text = f"Terminated at {wire.start.label}"
            elif operation is Operation.LANDED_END:
                text = f"Terminated at {wire.end.label}"
            who = f"\n✓ {done.who} {done.when[11:16]}" if done else ""
            button.setText(f"{number}   {text}{who}")
            button.setAccessibleName(text)
        owners = frozenset(e.pin.device for e in (wire.start, wire.end))
        self.where.show_drawing(self._mini(wire, owners))

    def _mini(self, wire: Wire, owners: frozenset[str]) -> Drawing:
        return mini_plate(self.session.evaluation.get(LAYOUT), (wire,), owners)

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.where.set_theme(theme)

    def show_selection(self, key: Key | None) -> None:
        """Goes to the chosen wire."""
        if isinstance(key, WireKey) and key.wire != self.key and self.session.progress.of(key.wire):
            self.key = key.wire
            self.refresh()

    def _picked(self, item: QListWidgetItem | None) -> None:
        if item:
            self.key = WireId(str(item.data(Qt.ItemDataRole.UserRole)))
            self._show()
            self.session.select(WireKey(self.key))

    def _scanned(self) -> None:
        text = self.scan.text().strip()
        states = self.session.progress.states
        wire_states = [s for s in states if s.wire.number == text]
        todo = [s for s in wire_states if not s.complete] or wire_states
        self.scan.clear()
        if not todo:
            self.session.say(f"No wire carries the number “{text}”.", wrong=True)
            return
        self.key = todo[0].wire.key
        self.refresh()
        self.setFocus()

    def toggle(self, operation: Operation) -> None:
        """Ticks an operation, or takes its tick back with a correcting entry."""
        state = self._state()
        if state is None:
            return
        if state.has(operation):
            self._take_back(operation)
        else:
            wire = state.wire
            self.session.record(wire.key, tick_facts(wire, operation))
        self._show()

    def tick_next(self) -> None:
        """Ticks the next operation; when the wire is finished, goes to the next one."""
        state = self._state()
        if state and state.next:
            self.toggle(state.next)
        after = self._state()
        if after and after.complete:
            self.step(1)

    def _take_back(self, operation: Operation) -> None:
        for record in reversed(self.session.records):
            facts = record.facts
            if record.subject == self.key and isinstance(facts, WireDone) and facts.operation is operation:
                self.session.record(self.key, TakenBack(operation.words), corrects=record.id)
                return

    def take_back_last(self) -> None:
        """Takes back the last thing done to this wire."""
        state = self._state()
        if state and state.done:
            self._take_back(state.done[-1][0])

    def step(self, by: int) -> None:
        """Goes to another wire."""
        row = min(max(self.list.currentRow() + by, 0), self.list.count() - 1)
        self.list.setCurrentRow(row)

    def work_place(self) -> QWidget | None:
        """The list, whose keys are those of the bench."""
        return self.list

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """The keys of the bench."""
        if not self._bench_key(event):
            super().keyPressEvent(event)

    def _bench_key(self, event: QKeyEvent) -> bool:
        text = event.text()
        if event.key() == Qt.Key.Key_Space:
            self.tick_next()
        elif text and text in "12345":
            self.toggle(list(Operation)[int(text) - 1])
        elif event.key() == Qt.Key.Key_Backspace:
            self.take_back_last()
        elif event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Right):
            self.step(1)
        elif event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Left):
            self.step(-1)
        else:
            return False
        return True

    def eventFilter(self, watched: object, event: object) -> bool:
        """The list takes the bench keys too."""
        return isinstance(event, QKeyEvent) and event.type() == QKeyEvent.Type.KeyPress and self._bench_key(event)


def _end(wire: Wire, *, first: bool) -> str:
    end = wire.start if first else wire.end
    shared = " shared with its neighbour" if end.shared else ""
    return f"{end.fitting}{shared}\nstrip {end.strip:g} mm, {torque_name(end.torque_n_m, awg=is_awg(wire.mm2))}"
