"""One wire at a time, large: what it is, where it lands, and what has been done to it."""

from collections.abc import Callable, Container

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QInputDialog, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from riktig.core.ids import WireId
from riktig.core.keys import WireKey
from riktig.core.plate import LAYOUT, Layout
from riktig.core.production import Operation, TorqueTool, WireState, stage_of_wire, tick_facts
from riktig.core.records import NewRecord, RedLine, TakenBack, WireDone
from riktig.core.standards import conductor_name, is_awg, torque_name
from riktig.core.wiring import WIRING, Wire, mini_plate
from riktig.desk.bench import common_key
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.theme import Theme, words_font
from riktig.desk.widgets import FittedLabel, plain_label, row_of

__all__ = ["WirePage"]

WIDEST_LIST = 420
"""Of the list of wires, px: beyond, the ends of its lines are reached by scrolling (chosen by us)."""

_DIGITS = (Qt.Key.Key_1, Qt.Key.Key_2, Qt.Key.Key_3, Qt.Key.Key_4, Qt.Key.Key_5, Qt.Key.Key_6)
LIST_PX = 130
"""Least width of that list, px."""


class WirePage(QWidget):
    """One wire at a time, with what is done to it and to its ends.

    Keys: Space ticks the next thing, 1 to 6 tick one, with Shift of the whole batch, Backspace takes the last tick
    back, arrow keys go to the next wire.

    Args:
        session: The job at hand.
        may_tick: Asked before a wire is ticked: whether the gate of its stage lets it, having said so where not.
    """

    moved = Signal()
    """Another wire is at hand."""

    def __init__(self, session: Session, may_tick: Callable[[Wire], bool]) -> None:
        super().__init__()
        self.session, self._may_tick = session, may_tick
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.key = WireId("")
        self._states: tuple[WireState, ...] = ()
        self._stale: frozenset[str] = frozenset()
        self._columns = (0, 0)
        self._drawn: tuple[Layout, Wire] | None = None
        self.tool: TorqueTool | None = None
        """What screws are tightened with, as who is at the bench noted it."""
        self.batch_line = plain_label("", "second", wraps=True)
        row = row_of(())
        row.addWidget(self._make_list(), 2)
        row.addWidget(self._make_card(), 3)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        self.half_done = QPushButton("Half-done")
        self.half_done.setCheckable(True)
        self.half_done.setToolTip("Only the wires that are begun and not finished: where work was left")
        self.half_done.clicked.connect(lambda _=False: self._show_half_done())
        above = row_of((self.batch_line, self.half_done))
        above.setStretch(0, 1)
        layout.addLayout(above)
        layout.addLayout(row, 1)

    def _show_half_done(self) -> None:
        """Shows the half-done wires alone, or all again; what is at hand is what is selected."""
        self.refresh()
        if self.key:
            self.session.select(WireKey(self.key))

    def note_red_line(self, built: str) -> bool:
        """Notes that the wire at hand is built otherwise than drawn; whether that is in the record."""
        state = self._state()
        if state is None or not built.strip():
            return False
        wire = state.wire
        return self.session.record(
            wire.key, RedLine(wire.name, f"{wire.start.label} to {wire.end.label}", built.strip())
        )

    def ask_red_line(self) -> None:
        """Asks how the wire at hand was built."""
        state = self._state()
        if state is None:
            return
        built, given = QInputDialog.getText(self, "Red-line", f"How was {state.wire.name} built instead?")
        if given:
            self.note_red_line(built)

    def _make_list(self) -> QWidget:
        self.list = QListWidget()
        self.list.setAccessibleName("Wires in the order they go in")
        self.list.setUniformItemSizes(True)
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
        red = QPushButton("Red-line …")
        red.setToolTip("It was built otherwise than drawn: note how; the planner answers")
        red.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        red.clicked.connect(lambda _=False: self.ask_red_line())
        ticks.addWidget(red)
        return card

    def refresh(self) -> None:
        """Shows the wires of now and what counts as done."""
        progress = self.session.progress
        begun = tuple(state for state in progress.states if state.done and not state.complete)
        self.half_done.setText(f"Half-done  {len(begun)}" if begun else "Half-done")
        states = begun if self.half_done.isChecked() else progress.states
        if self.half_done.isChecked() and not any(state.wire.key == self.key for state in states) and states:
            self.key = states[0].wire.key
        if progress.of(self.key) is None:
            first = next((state for state in states if state.done and not state.complete), None)
            first = first or next((state for state in states if not state.complete), states[0] if states else None)
            self.key = first.wire.key if first else WireId("")
        self.list.blockSignals(True)
        self._show_lines(states, frozenset(tick.subject for tick in progress.stale))
        row = self._row_of(self.key)
        if row != self.list.currentRow():
            self.list.setCurrentRow(row)
        self.list.blockSignals(False)
        self._show()

    def _show_lines(self, states: tuple[WireState, ...], stale: frozenset[str]) -> None:
        """Shows every wire in its line; after a tick only the line of its wire is written."""
        before, self._states = self._states, states
        was_stale, self._stale = self._stale, stale
        if [state.wire for state in states] == [state.wire for state in before]:
            for row, (state, was) in enumerate(zip(states, before, strict=True)):
                key = state.wire.key
                if state is not was or (key in stale) is not (key in was_stale):
                    self.list.item(row).setText(_line(state, stale, *self._columns))
            return
        self._columns = (
            max((len(state.wire.number) for state in states), default=0),
            max((len(state.wire.start.label) for state in states), default=0),
        )
        self.list.clear()
        for state in states:
            item = QListWidgetItem(_line(state, stale, *self._columns))
            item.setData(Qt.ItemDataRole.UserRole, state.wire.key)
            self.list.addItem(item)
        self.list.setMaximumWidth(min(max(self.list.sizeHintForColumn(0) + 30, 220), WIDEST_LIST))

    def _row_of(self, key: WireId) -> int:
        return next((row for row, state in enumerate(self._states) if state.wire.key == key), -1)

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
        of_batch = (progress.of(key) for key in batch.wires)
        inside = sum(other.complete for other in of_batch if other)
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
            text = short = operation.words.capitalize()
            if operation is Operation.LANDED_START:
                text, short = f"Terminated at {wire.start.label}", f"At {wire.start.label}"
            elif operation is Operation.LANDED_END:
                text, short = f"Terminated at {wire.end.label}", f"At {wire.end.label}"
            who = f"\n✓ {done.who} {done.when[11:16]}" if done else ""
            button.setText(f"{number}   {short}{who}")
            button.setAccessibleName(text)
            button.setToolTip(f"{text}. Key {number}; with Shift the whole batch")
        layout = self.session.evaluation.get(LAYOUT)
        if self._drawn is None or self._drawn[0] is not layout or self._drawn[1] is not wire:
            self._drawn = (layout, wire)
            self.where.show_drawing(
                mini_plate(layout, (wire,), frozenset((wire.start.pin.device, wire.end.pin.device)))
            )

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.where.set_theme(theme)

    def _picked(self, item: QListWidgetItem | None) -> None:
        if item:
            self.key = WireId(str(item.data(Qt.ItemDataRole.UserRole)))
            self._show()
            self.moved.emit()
            self.session.select(WireKey(self.key))

    def go_to_wire(self, key: WireId) -> None:
        """Goes to a wire, which is then what is selected everywhere."""
        self.key = key
        self.session.select(WireKey(key))

    def toggle(self, operation: Operation) -> None:
        """Ticks an operation, or takes its tick back with a correcting entry."""
        state = self._state()
        if state is None:
            return
        if state.has(operation):
            self._take_back(operation)
        else:
            wire = state.wire
            may = self._may_tick(wire) and self._tool_holds(operation)
            if may and self.session.record(wire.key, tick_facts(wire, operation, self._tool_noted(operation))):
                return  # it is shown with the record
        self._show()

    def _tool_holds(self, operation: Operation) -> bool:
        """Whether the calibration of the tool at hand lets a screw be ticked as tight; says so where not."""
        fault = self.tool.fault(self.session.clock()) if self.tool and operation is Operation.TIGHTENED else ""
        if fault:
            self.session.say(f"Nothing was recorded: {fault}. Take another, and note it under your name.", wrong=True)
        return not fault

    def _tool_noted(self, operation: Operation) -> str:
        return self.tool.noted if self.tool and operation is Operation.TIGHTENED else ""

    def toggle_batch(self, operation: Operation) -> None:
        """Ticks an operation of every wire of the batch that has it still before it: cut, or marked, in one go."""
        state = self._state()
        if state is None or not self._may_tick(state.wire) or not self._tool_holds(operation):
            return
        progress = self.session.progress
        batch = next(b for b in self.session.evaluation.get(WIRING).batches if state.wire.key in b.wires)
        open_wires = [s.wire for s in progress.states if s.wire.key in batch.wires and not s.has(operation)]
        tool = self._tool_noted(operation)
        self.session.record_all([NewRecord(wire.key, tick_facts(wire, operation, tool)) for wire in open_wires])
        self._show()

    def tick_next(self) -> None:
        """Ticks the next operation; when the wire is finished, goes to the next one."""
        state = self._state()
        if state and state.next:
            self.toggle(state.next)
        after = self._state()
        if after and after.complete:
            self._go_on(after.wire)

    def _go_on(self, done: Wire) -> None:
        """Goes to the next wire that is not finished, those of the same stage of the bench first."""
        states = self.session.progress.states
        at = next((n for n, state in enumerate(states) if state.wire.key == done.key), 0)
        left = [state.wire for state in (*states[at:], *states[:at]) if not state.complete]
        stage = stage_of_wire(done)
        following = next((wire for wire in left if stage_of_wire(wire) is stage), left[0] if left else None)
        if following:
            row = self._row_of(following.key)
            if row >= 0:
                self.list.setCurrentRow(row)

    def _take_back(self, operation: Operation) -> None:
        for record in reversed(self.session.records):
            facts = record.facts
            if record.subject == self.key and isinstance(facts, WireDone) and facts.operation is operation:
                self.session.record(self.key, TakenBack(operation.words), corrects=record.id)
                return
        self.session.say(f"There is no tick for “{operation.words}”: it holds because the wire has landed.", wrong=True)

    def take_back_last(self) -> None:
        """Takes back the last thing done to this wire."""
        state = self._state()
        if state and state.done:
            self._take_back(state.done[-1][0])

    def step(self, by: int) -> None:
        """Goes to another wire."""
        row = min(max(self.list.currentRow() + by, 0), self.list.count() - 1)
        self.list.setCurrentRow(row)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """The keys of the bench."""
        if not self.bench_key(event):
            super().keyPressEvent(event)

    def bench_key(self, event: QKeyEvent) -> bool:
        """The keys of the bench; True when it was one of them."""
        text = event.text()
        shifted = event.modifiers() & Qt.KeyboardModifier.ShiftModifier
        if shifted and event.key() in _DIGITS:
            self.toggle_batch(list(Operation)[_DIGITS.index(Qt.Key(event.key()))])
        elif text and text in "123456":
            self.toggle(list(Operation)[int(text) - 1])
        else:
            return common_key(event, self.tick_next, self.take_back_last, self.step)
        return True

    def eventFilter(self, watched: object, event: object) -> bool:
        """The list takes the bench keys too."""
        return isinstance(event, QKeyEvent) and event.type() == QKeyEvent.Type.KeyPress and self.bench_key(event)


def _end(wire: Wire, *, first: bool) -> str:
    end = wire.start if first else wire.end
    shared = " shared with its neighbour" if end.shared else ""
    return f"{end.fitting}{shared}\nstrip {end.strip:g} mm, {torque_name(end.torque_n_m, awg=is_awg(wire.mm2))}"


def _line(state: WireState, stale: Container[str], of_number: int, of_start: int) -> str:
    """A wire in the list: how far it is, its number and its ends in columns."""
    wire = state.wire
    begun = f"{len(state.done)}/{len(Operation)}" if state.done else " "
    sign = "✓" if state.complete else "!" if wire.key in stale else begun
    return f"{sign:>3} {wire.number:<{of_number}}  {wire.start.label:<{of_start}}  {wire.end.label}"
