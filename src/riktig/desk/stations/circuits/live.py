"""The sheets with power on: operated by mouse and key, measured, spoilt, and watched step by step."""

from collections.abc import Callable

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QHideEvent, QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QListWidget, QMenu, QPushButton, QStackedWidget, QVBoxLayout, QWidget

from riktig.core.edits import SetScript
from riktig.core.exports import run_panel_script, schedule
from riktig.core.geometry import Text
from riktig.core.ids import unit_of_element
from riktig.core.job import CircuitId, DeviceId, read_pin
from riktig.core.keys import ElementKey, Key, NetKey
from riktig.core.schematic import CIRCUITS, NAMES, SHEETS
from riktig.core.simulation import LEGEND, Operator, StepResult, Touch, behaviour_of, live_shapes, position_of, why
from riktig.core.views import device_of
from riktig.desk.canvas import SHEET, DrawingView
from riktig.desk.session import Session
from riktig.desk.stations.circuits.live_board import Board
from riktig.desk.stations.circuits.live_faults import fault_menu
from riktig.desk.stations.circuits.live_front import FrontView
from riktig.desk.stations.circuits.live_meter import MeterStrip
from riktig.desk.stations.circuits.live_model import LiveModel
from riktig.desk.stations.circuits.live_place import locks_text, place_of
from riktig.desk.stations.circuits.live_script import ScriptAsked
from riktig.desk.stations.circuits.live_watch import WatchStrip
from riktig.desk.stations.circuits.sheet_pen import sheet_pen
from riktig.desk.theme import Theme
from riktig.desk.widgets import FlowLayout, ScheduleTable, plain_label

__all__ = ["LivePage"]

LISTS_HERE = (
    ("live", "Still live with each switch off"),
    ("restart", "Automatic restarts"),
    ("transfers", "From hand to automatic and back"),
)
TICK_S = 0.25
WIDE_PX = 1200
"""A window so wide has room for the front beside the sheet, with the details open too (chosen by us)."""
KEYS = "Click or Space: operate. H: hold. 1: a second on. R: run. M: meter. Comma and point: step."


def _button(text: str, tip: str, *, stays: bool = False) -> QPushButton:
    """A button with its help; ``stays``: it stays down."""
    button = QPushButton(text)
    button.setCheckable(stays)
    button.setToolTip(tip)
    return button


class LivePage(QWidget):
    """One sheet, live. ``back`` leaves it, ``turned`` asks for another; ``wires_known``: wires are worked out."""

    turned = Signal(int)

    def __init__(self, session: Session, back: Callable[[], None], wires_known: Callable[[], bool]) -> None:
        super().__init__()
        self._session, self._back, self._wires_known = session, back, wires_known
        self.model = LiveModel(session)
        self.sheet = 0
        self._shown_for: tuple[object, ...] = ()
        self.view = DrawingView("Live circuit sheet")
        self.view.opening = SHEET
        self.view.hovers = True
        self.view.hovered.connect(self.show_hovered)
        self.view.chosen.connect(self._chosen)
        self.view.on_key = self._key
        self.view.setToolTip(KEYS)
        self.rest = _button("Reset", "Power on again, nothing operated, no faults")
        self.second, self.ten = QPushButton("+1 s"), QPushButton("+10 s")
        self.run = _button("Run", "Lets time run: timers run out, carriages travel (R)", stays=True)
        self.hold = _button(
            "Hold", "Buttons stay pressed until they are pressed again (H for the chosen one)", stays=True
        )
        self.measure = _button("Meter", "Click on the sheet to place the probes (M)", stays=True)
        self.spoil = _button("Fault …", "Adds a fault to the selected device, or removes all faults")
        self.scripts = _button("Script …", "Watches what a circuit must do, or a script of your own, step by step")
        self.lists = _button("Lists …", "What stays live with each switch off; what starts again by itself")
        self.clock = plain_label("0.0 s", "second")
        self.rest.clicked.connect(self.from_rest)
        self.second.clicked.connect(lambda: self.wait(1.0))
        self.ten.clicked.connect(lambda: self.wait(10.0))
        self.run.toggled.connect(self._run)
        self.hold.toggled.connect(self._hold)
        self.measure.toggled.connect(self._measure)
        self.spoil.clicked.connect(self._faults)
        self.scripts.clicked.connect(lambda: self._under(self.scripts, self.script_menu()))
        self.lists.clicked.connect(lambda: self._under(self.lists, self.list_menu()))
        self.table = ScheduleTable("List", "id")
        self.table.row_chosen.connect(lambda net: session.select(NetKey(read_pin(net))) if net else None)
        self.front = FrontView(session, self.model, self._chosen)
        self.shows_front = _button("Front", "The front of the panel: lamps that are lit, what is pressed", stays=True)
        self.shows_front.setChecked(True)
        self.shows_front.toggled.connect(self._show_front)
        self.seen = QStackedWidget()
        self.seen.addWidget(self.view)
        self.seen.addWidget(self.table)
        self.board = Board(session, self.model, self.show_state)
        self.meter = MeterStrip(session, self.model)
        self.watched = WatchStrip(self.model, self._stepped, self.end_watch)
        self.log = QListWidget()
        self.log.setAccessibleName("Event log")
        self.log.setMinimumWidth(250)
        self.hint = plain_label(LEGEND, "quiet", wraps=True)
        self._timer = QTimer(self)
        self._timer.setInterval(int(TICK_S * 1000))
        self._timer.timeout.connect(self._tick)
        self._lay_out()

    def _lay_out(self) -> None:
        bar = QWidget()
        row = FlowLayout(bar, gap=6, lead=6)
        first = (self.rest, self.second, self.ten, self.run, self.hold, self.measure)
        for button in (*first, self.spoil, self.scripts, self.lists, self.shows_front, self.clock):
            row.addWidget(button)
        below = QHBoxLayout()
        below.setSpacing(10)
        below.addWidget(self.board.side)
        below.addWidget(self.board, 3)
        below.addWidget(self.log, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(bar)
        column.addWidget(self.meter)
        column.addWidget(self.watched)
        middle = QHBoxLayout()
        middle.addWidget(self.seen, 5)
        middle.addWidget(self.front, 2)
        column.addLayout(middle, 5)
        column.addWidget(self.hint)
        column.addLayout(below, 2)
        self.meter.hide()
        self.watched.hide()

    def show_sheet(self, index: int) -> None:
        """Shows a sheet of the circuits of now, live."""
        evaluation = self._session.evaluation
        self.model.follow(wires=self._wires_known())
        sheets = evaluation.get(SHEETS).sheets
        self.sheet = min(index, len(sheets) - 1)
        self.view.show_drawing(sheet_pen(self._session).drawing(self.sheet))
        sheet = sheets[self.sheet]
        shown_for = (sheet.circuits, self.model.panel)
        if shown_for != self._shown_for:
            self._shown_for = shown_for
            self.board.show_for(sheet.circuits)
            self.front.show_for(sheet.circuits)
        self.show_state()

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        self.view.set_theme(theme)
        self.front.set_theme(theme)
        self.board.theme = theme
        for tank in self.board.tanks:
            tank.theme = theme
            tank.update()

    def show_state(self) -> None:
        """Shows the state of now on the sheet, the board, the log and the meter."""
        model = self.model
        sheet = self._session.evaluation.get(SHEETS).sheets[self.sheet]
        texts = [mark for mark in self.view.drawing.shapes if isinstance(mark, Text)]
        self.view.set_overlay([*live_shapes(model.panel, sheet, model.roles, model.moved), *texts])
        self.front.show_state()
        self.board.show_state()
        self.clock.setText(
            f"{model.panel.clock_s:.1f} s" + (f"  ·  {len(model.faults)} faults in" if model.faults else "")
        )
        events = model.panel.events[-60:]
        self.log.clear()
        for event in reversed(events):
            self.log.addItem(f"{event.at_s:8.3f}  {'✗ ' if event.wrong else ''}{model.tagged(event.text)}")
        tanks = [fault for tank in model.tanks for fault in tank.faults()]
        wrong = next((model.tagged(event.text) for event in reversed(events) if event.wrong), "")
        self.hint.setText(" ".join([*tanks, wrong]) if tanks or wrong else LEGEND)
        if self.meter.isVisible():
            self.meter.read()

    def wait(self, seconds: float) -> None:
        """Lets time pass."""
        self.model.wait(seconds)
        self.show_state()

    def from_rest(self) -> None:
        """Power on anew."""
        self.run.setChecked(False)
        self.model.rest()
        self.show_sheet(self.sheet)

    def _run(self, on: bool) -> None:
        (self._timer.start if on else self._timer.stop)()

    def _tick(self) -> None:
        """Time passes only while it is watched, and only for the circuits of now."""
        if not self.isVisible():
            self.run.setChecked(False)
        elif self.model.follow(wires=self._wires_known()):
            self.show_sheet(self.sheet)
        else:
            self.wait(TICK_S)

    def hideEvent(self, event: QHideEvent) -> None:
        """Time stands when the page is left, by whatever way."""
        self.run.setChecked(False)

    def _show_front(self) -> None:
        wide = self.window().width() >= WIDE_PX
        self.front.setVisible(self.shows_front.isChecked() and wide)
        self.shows_front.setEnabled(wide)

    def resizeEvent(self, event: QResizeEvent) -> None:
        """In a narrow window the sheet needs all of the width."""
        super().resizeEvent(event)
        self._show_front()

    def _hold(self, on: bool) -> None:
        self.board.hold = on

    def _measure(self, on: bool) -> None:
        self.meter.setVisible(on)
        if on:
            self.model.follow(wires=self._wires_known())
            self.meter.read()

    def _faults(self) -> None:
        self._under(self.spoil, fault_menu(self, self._session, self.model, lambda: self.show_sheet(self.sheet)))

    def _under(self, button: QPushButton, menu: QMenu) -> None:
        menu.popup(button.mapToGlobal(button.rect().bottomLeft()))
        if menu.actions():
            menu.setActiveAction(menu.actions()[0])

    def list_menu(self) -> QMenu:
        """The lists that the live circuit offers."""
        menu = QMenu(self)
        for name, text in LISTS_HERE:
            menu.addAction(text).triggered.connect(lambda _=False, n=name: self.show_list(n))
        owner = device_of(self._session.selection)
        if owner and owner in self.model.panel.network.devices:
            text = self.model.tagged(f"Isolation points for {{{owner}}}")
            menu.addAction(text).triggered.connect(lambda: self.say_locks(owner))
        menu.addAction("Back to the drawing").triggered.connect(lambda: self.seen.setCurrentWidget(self.view))
        return menu

    def show_list(self, name: str) -> None:
        """Shows a list in place of the sheet."""
        schedule_found = schedule(name, self._session.evaluation)
        self.table.show_schedule(schedule_found)
        self.seen.setCurrentWidget(self.table)
        self.hint.setText(f"{schedule_found.title}. Lists … leads back to the sheet.")

    def say_locks(self, device: DeviceId) -> None:
        """Says which switches must be off and locked to work on a device."""
        self.hint.setText(self.model.tagged(locks_text(self._session.evaluation, device)))

    def script_menu(self) -> QMenu:
        """What can be watched: the circuits of the sheet, then scripts of the builder's own."""
        menu = QMenu(self)
        evaluation = self._session.evaluation
        titles = dict(evaluation.get(CIRCUITS).titles)
        for circuit in evaluation.get(SHEETS).sheets[self.sheet].circuits:
            action = menu.addAction(f"What “{titles.get(circuit, circuit)}” must do")
            action.triggered.connect(lambda _=False, c=circuit: self.watch_circuit(c))
        menu.addSeparator()
        for script in self._session.job.scripts:
            action = menu.addAction(script.name)
            action.triggered.connect(lambda _=False, s=script: self.watch(s.name, s.steps, CircuitId("")))
            menu.addAction(f"Change “{script.name}” …").triggered.connect(
                lambda _=False, s=script: self.write_script(s.name, "\n".join(s.steps))
            )
        menu.addAction("Write one …").triggered.connect(lambda: self.write_script())
        return menu

    def watch_circuit(self, circuit: CircuitId) -> None:
        """Watches what a circuit must do by its recipe; says so where that is nothing."""
        outcome = behaviour_of(self._session.job, self._session.evaluation.get(CIRCUITS), circuit)
        if outcome is None or outcome.broken:
            self._session.say(outcome.broken if outcome else "This circuit has no behaviour of its own to try.")
            return
        self.watch(outcome.title, tuple(f"{s.done}: {', '.join(s.expected)}" for s in outcome.steps), circuit)

    def write_script(self, name: str = "", text: str = "") -> None:
        """Asks for a script of the builder's own and keeps it with the job."""
        dialog = ScriptAsked(self, name, text, self.refuse_unreadable)
        if dialog.exec():
            steps, title = dialog.steps(), dialog.name.text()
            self._session.edit(f"script {title}", SetScript(title, steps))

    def refuse_unreadable(self, steps: tuple[str, ...]) -> None:
        """Tries the steps on a panel of its own.

        Raises:
            RiktigError: one that cannot be read, with its number.
        """
        run_panel_script(self._session.evaluation, steps)

    def _chosen(self, key: Key | None) -> None:
        """Operates what is clicked, or touches it with the next probe."""
        if self.measure.isChecked():
            self.meter.touch(self.model.pins_of(key))
            return
        self._session.select(key)
        self.operate()

    def show_hovered(self, key: Key | None) -> None:
        """What the conductor under the pointer carries, from which source; whether a contact is the sole path."""
        words = self.model.path_of(key) if isinstance(key, ElementKey) else ""
        if isinstance(key, NetKey):
            words = self.model.said_of(key.net)
        if words:
            self.hint.setText(words)

    def operator(self) -> Operator | None:
        """What of the chosen thing can be operated."""
        key = self._session.selection
        owner = device_of(key)
        operators = [operator for operator in self.model.operators if operator.device and operator.device == owner]
        unit = unit_of_element(key.element) if isinstance(key, ElementKey) else ""
        return next((operator for operator in operators if operator.unit == unit), operators[0] if operators else None)

    def operate(self, *, hold: bool = False) -> None:
        """Moves the chosen thing to its next position; a button is pressed and let go, or held."""
        operator = self.operator()
        if operator is None or operator.touch is Touch.SIGNAL:
            self._say_why()
            return
        now = position_of(self.model.panel, operator)
        after = operator.positions[(operator.positions.index(now) + 1) % len(operator.positions)]
        if operator.touch is Touch.SWITCH:
            after = "on" if now != "on" else "off"
        first = len(self.model.panel.events)
        self.model.do(operator, after)
        if operator.touch is Touch.HOLD and not (hold or self.hold.isChecked()) and after != operator.positions[0]:
            self.model.do(operator, operator.positions[0])
        self.model.look(first, operator.device)
        self.show_state()

    def _say_why(self) -> None:
        """What cannot be operated says why it is as it is."""
        owner = device_of(self._session.selection)
        if owner and owner in self.model.panel.network.devices:
            self._session.say(self.model.tagged(why(self.model.panel, owner)) + ".")

    def _key(self, event: QKeyEvent) -> bool:
        text = event.text().lower()
        if event.key() == Qt.Key.Key_Escape:
            self._back()
        elif text == " ":
            self.operate()
        elif text == "h":
            self.operate(hold=True)
        elif text == "1":
            self.wait(1.0)
        elif text == "r":
            self.run.toggle()
        elif text == "m":
            self.measure.toggle()
        elif text in (",", "."):
            return self._step_on(1 if text == "." else -1)
        else:
            return False
        return True

    def _step_on(self, by: int) -> bool:
        """Chooses the next thing of the sheet without operating it."""
        keys = list(dict.fromkeys(m.key for m in self.view.drawing.shapes if isinstance(m.key, ElementKey)))
        if keys:
            now = next((n for n, key in enumerate(keys) if key == self._session.selection), -by)
            key = keys[(now + by) % len(keys)]
            self._session.select(key)
            self.show_hovered(key)
        return True

    def watch(self, title: str, steps: tuple[str, ...], circuit: CircuitId) -> None:
        """Begins to watch a script, from rest."""
        self.model.rest()
        sheets = self._session.evaluation.get(SHEETS).sheets
        sheet_numbers = [n for n, sheet in enumerate(sheets) if circuit in sheet.circuits]
        self.seen.setCurrentWidget(self.view)
        self.turned.emit(sheet_numbers[-1] if sheet_numbers else self.sheet)
        self.watched.begin(title, steps, circuit, self._session.evaluation.get(NAMES).tag)
        self.watched.show()

    def end_watch(self) -> None:
        """Leaves the script where it is."""
        self.watched.hide()

    def _stepped(self, result: StepResult) -> None:
        self.model.look()
        self.model.moved = frozenset(event.device for event in result.events if event.device)
        place = place_of(self.model.moved, self._session.evaluation.get(SHEETS).sheets, self.sheet)
        if place and place[0] != self.sheet:
            self.turned.emit(place[0])
        self.show_state()
        if place:
            self.view.reveal(place[1])
