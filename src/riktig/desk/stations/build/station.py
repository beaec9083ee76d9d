"""The work at the bench, stage by stage: each with its gate, its tasks and the panel as it stands."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import (
    QInputDialog,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from riktig.core.ids import DeviceId
from riktig.core.keys import DeviceKey, Key, WireKey
from riktig.core.production import (
    WORK,
    BuildStage,
    Operation,
    StageState,
    TorqueTool,
    gate_facts,
    gate_subject,
    may_not,
    person_called,
    stage_of_record,
    stage_of_wire,
    stage_states,
    wires_of_stage,
)
from riktig.core.records import Outcome, ReadingTaken
from riktig.core.wiring import WIRING, Wire
from riktig.desk.session import MANY_PINS, Session
from riktig.desk.stations.build.bench_control import BenchControl
from riktig.desk.stations.build.change_page import ChangePage
from riktig.desk.stations.build.people import PeopleAsked
from riktig.desk.stations.build.progress_page import ProgressPage
from riktig.desk.stations.build.stage_list import StageList, minutes_words
from riktig.desk.stations.build.task_page import TaskPage
from riktig.desk.stations.build.wire_page import WirePage
from riktig.desk.theme import Theme, grown
from riktig.desk.widgets import Station, plain_label, row_of

__all__ = ["BuildStation"]

DEAD = "Isolate the supply, lock off and prove dead before working inside. Local codes and licensed practice decide."
STRANDS = "Strip without nicking a strand, leave none beside the clamp, tug each end once."
STALE_HEIGHT = 96
"""Room for what no longer counts; more of it scrolls (chosen by us: four lines)."""
LEAST_WIDE = 390
"""Of a page, px: in a narrower window the stages give way to their signs (chosen by us)."""


class BuildStation(Station):
    """The stages of the work, from the delivered parts to the visual inspection.

    Keys: Space or a foot switch (Page Down) does the next thing, Backspace takes the last back, arrow keys go to
    another; 1 to 6 tick one operation of a wire, with Shift of its whole batch. A scanned number or tag goes there.
    """

    needs = (WORK,)
    aside_from = MANY_PINS

    waits_for = "Nothing to build yet. Here the panel is built stage by stage, and each task is ticked as it is done."

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._people: PeopleAsked | None = None
        self.bench = BenchControl(self)
        self.stage: BuildStage | None = None
        self.states: tuple[StageState, ...] = ()
        self.scan = QLineEdit()
        self.scan.setPlaceholderText("Scan or type a number or tag, Enter")
        self.scan.setAccessibleName("Scan a wire number or a tag")
        self.scan.setMinimumWidth(self.scan.fontMetrics().horizontalAdvance(self.scan.placeholderText()) + 24)
        self.scan.setMaximumWidth(300)
        self.scan.returnPressed.connect(self._scanned)
        self.words = plain_label("", "second")
        self.person = self.button("", "Who is at the bench: by initials, or by the scan of a badge (F4)")
        self.person.clicked.connect(self.ask_who)
        card = self.button("Bench card", "The work at hand over the whole screen, read from two metres (F11)")
        card.setShortcut("F11")
        card.clicked.connect(lambda _=False: self.bench.open())
        self.changed = self.button("Changes", "Change orders as work, and red-lines from the bench", checkable=True)
        self.changed.clicked.connect(lambda _=False: self.turn_to(self.changed))
        self.how_far = self.button("Progress", "The panel as it stands, and the work beside its plan", checkable=True)
        self.how_far.clicked.connect(lambda _=False: self.turn_to(self.how_far))
        self.add_bar((self.scan, self.person, card, self.changed, self.how_far, None, self.words))
        self.stages = StageList()
        self.stages.stage_chosen.connect(self.show_stage)
        self.stages.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.wires = WirePage(session, self._may_tick_wire)
        self.wires.moved.connect(self._wire_moved)
        self.tasks = TaskPage(session, self.may_begin)
        self.tasks.pick_device = lambda key: session.select(key) if isinstance(key, DeviceKey) else None
        self.tasks.tested = self._tested
        self.tasks.go_elsewhere = self.asked.emit
        self.pages = QStackedWidget()
        self.pages.addWidget(self.tasks)
        self.pages.addWidget(self.wires)
        self.changes = ChangePage(session, self.asked.emit)
        self.pages.addWidget(self.changes)
        self.progress = ProgressPage(session, self._tested, session.select)
        self.pages.addWidget(self.progress)
        self.gate_words = plain_label("", "judgement", wraps=True)
        self.pass_gate = self.button("Begin all the same …", "Passes this gate: your name and your reason are kept")
        self.pass_gate.clicked.connect(self.ask_to_pass)
        self.gate = QWidget()
        gate_line = row_of((self.gate_words, self.pass_gate))
        gate_line.setStretch(0, 1)
        self.gate.setLayout(gate_line)
        beside = QWidget()
        beside.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Expanding)  # the stages keep their names
        beside.setMinimumWidth(grown(LEAST_WIDE))
        right = QVBoxLayout(beside)
        right.setContentsMargins(0, 0, 0, 0)
        right.addWidget(self.gate)
        right.addWidget(self.pages, 1)
        row = row_of((self.stages, beside), gap=12)
        row.setStretch(1, 1)
        self.add_body(row)
        self.stale_words = plain_label("", "second", wraps=True)
        self.stale_area = QScrollArea()
        self.stale_area.setWidgetResizable(True)
        self.stale_area.setAccessibleName("Records no longer valid, and why")
        self.stale_area.setWidget(self.stale_words)
        self.stale_area.setMaximumHeight(STALE_HEIGHT)
        self.add_body(self.stale_area, 0)
        self.caution = plain_label(DEAD, "judgement", wraps=True)
        self.add_body(self.caution, 0)
        self.hint = plain_label("", "quiet", wraps=True)
        self.add_body(self.hint, 0)

    def refresh(self) -> None:
        """Shows the work of now and what counts as done."""
        session = self.session
        self.states = stage_states(
            session.evaluation.get(WORK), session.progress, session.records, session.job.practice.door_order
        )
        if self.stage is None:
            self.stage = self._first_open()
        if self.stage.is_wiring:
            self.wires.refresh()
            self.stage = self.stage_of_wire_at_hand() or self.stage
        self._show_heads()
        self.person.setText(session.who or "Who is here?")
        self.person.setShortcut("F4")  # a new text takes the old shortcut away
        state = self.state_of(self.stage)
        wiring = self.stage.is_wiring
        open_count = self.changes.open_count
        self.changed.setText(f"Changes  {open_count}" if open_count else "Changes")
        if self.changed.isChecked():
            self.pages.setCurrentWidget(self.changes)
            self.gate.hide()
            self.changes.refresh()
        elif self.how_far.isChecked():
            self.pages.setCurrentWidget(self.progress)
            self.gate.hide()
            self.progress.show_stages(self.states)
        else:
            self.pages.setCurrentWidget(self.wires if wiring else self.tasks)
        if not wiring:
            self.tasks.show_stage(state, self.states)
        lines = [f"{tick.name}: {tick.what} no longer counts, {tick.why}." for tick in session.progress.stale]
        lines += [
            f"{task.task.title}: no longer counts, {task.stale}."
            for stage in self.states
            for task in stage.tasks
            if task.stale and task.done is None
        ]
        self.stale_words.setText("\n".join(lines))
        self.stale_area.setVisible(bool(lines))
        if self.bench.card.isVisible():
            self.bench.card.show_now()
        self.caution.setText(f"{DEAD} {STRANDS}" if wiring else DEAD)
        self.hint.setText(
            "Space or foot switch: tick the next   1 … 5: tick one, with Shift of the whole batch   "
            "Backspace: take back   Up, Down: another wire"
            if wiring
            else "Space or foot switch: done, and on to the next   Backspace: take back   Up, Down: another task"
        )

    def turn_to(self, page: QPushButton) -> None:
        """Shows one of the pages that belong to no stage, or the stage again where its button was let go."""
        for other in (self.changed, self.how_far):
            if other is not page:
                other.setChecked(False)
        self.refresh()

    def _show_heads(self) -> None:
        """The list of stages, the words above and the gate, for the stage at hand."""
        assert self.stage is not None  # refresh chose one
        state = self.state_of(self.stage)
        left = minutes_words(sum(stage.minutes_left for stage in self.states))
        self.stages.show_stages(self.states, self.stage)
        self.words.setText(f"{state.finished} of {state.count}  ·  {left} left in all")
        self._show_gate(state)

    def stage_of_wire_at_hand(self) -> BuildStage | None:
        """The stage of the wire at hand, None when there is none."""
        state = self.session.progress.of(self.wires.key)
        return stage_of_wire(state.wire) if state else None

    def _wire_moved(self) -> None:
        stage = self.stage_of_wire_at_hand()
        if stage and stage is not self.stage:
            self.stage = stage
            self._show_heads()

    def _first_open(self) -> BuildStage:
        """Where work was left: the stage of the last entry, else one that is begun, else the first open one."""
        wires = self.session.evaluation.get(WIRING).by_key
        stages = (stage_of_record(record, wires) for record in reversed(self.session.records))
        left = next((stage for stage in stages if stage), None)
        if left and not self.state_of(left).complete:
            return left
        begun = [state for state in self.states if state.finished and not state.complete and state.may_begin]
        is_open = [state for state in self.states if not state.complete and state.may_begin]
        return (begun or is_open or list(self.states))[0].stage

    def state_of(self, stage: BuildStage) -> StageState:
        """How far a stage is."""
        return next(state for state in self.states if state.stage is stage)

    def _show_gate(self, state: StageState) -> None:
        text, first = "", "; ".join(line.partition(";")[0] for line in state.shut)
        if state.passed and state.shut:
            text = f"Begun with a shut gate by {state.passed.who}: {state.passed.reason}. Not finished: {first}."
        elif state.shut and not state.complete:
            text = f"The gate is shut. First finish {first}."
        self.gate_words.setText(text)
        self.gate_words.setToolTip("\n".join(state.shut))
        self.gate.setVisible(bool(text))
        self.pass_gate.setVisible(not state.may_begin)

    def show_stage(self, stage: BuildStage) -> None:
        """Turns to a stage; of the wires to the first of it that is not finished."""
        self.stage = stage
        self.changed.setChecked(False)
        self.how_far.setChecked(False)
        if stage.is_wiring:
            stage_wires = wires_of_stage(stage, self.session.progress)
            first = next(
                (state for state in stage_wires if not state.complete), stage_wires[0] if stage_wires else None
            )
            if first:
                self.wires.go_to_wire(first.wire.key)
        self.refresh()

    def may_begin(self, stage: BuildStage) -> bool:
        """Whether the gate of a stage lets work in it be ticked; says what keeps it shut where not."""
        session = self.session
        refused = may_not(session.who, stage, session.job.people, session.job.practice, session.records)
        if refused:
            session.say(f"Nothing was recorded: {refused}.", wrong=True)
            return False
        state = next((state for state in self.states if state.stage is stage), None)
        if state is None or state.may_begin:
            return True
        self.session.say(f"Nothing was recorded: {stage.value} comes after {'; '.join(state.shut)}.", wrong=True)
        return False

    def _may_tick_wire(self, wire: Wire) -> bool:
        return self.may_begin(stage_of_wire(wire))

    def ask_to_pass(self) -> None:
        """Asks for the reason, and passes the gate of the stage that is shown."""
        if self.stage is None:
            return
        question = f"Why does {self.session.who or 'nobody'} begin “{self.stage.value}” now?"
        reason, given = QInputDialog.getText(self, "Begin with a shut gate", question)
        if given:
            self.pass_with(reason)

    def pass_with(self, reason: str) -> bool:
        """Passes the gate of the stage that is shown, for a reason; whether it is in the record."""
        stage = self.stage
        if stage is None:
            return False
        people = self.session.job.people
        if not self.session.who.strip() or (people and person_called(people, self.session.who) is None):
            name = self.session.who.strip() or "nobody"
            self.session.say(f"The gate stays shut: {name} is not among the people of this job.", wrong=True)
            return False
        try:
            facts = gate_facts(self.state_of(stage), reason)
        except ValueError as error:
            self.session.say(f"The gate stays shut: {error}.", wrong=True)
            return False
        return self.session.record(gate_subject(stage), facts)

    def _tested(self) -> frozenset[DeviceId]:
        """The devices all of whose tests have passed."""
        if not self.session.records.standing(ReadingTaken):
            return frozenset()  # most ticks fall before the first reading: tests need not be looked through for them
        passed: dict[DeviceId, bool] = {}
        progress = self.session.progress
        for test, reading in self.session.results.readings:
            state = progress.of(test.wire) if test.wire else None
            for end in (state.wire.start, state.wire.end) if state else ():
                is_passed = reading is not None and reading.outcome is Outcome.PASSED
                passed[end.pin.device] = passed.get(end.pin.device, True) and is_passed
        return frozenset(device for device, all_passed in passed.items() if all_passed)

    def _take_tool(self, tool: TorqueTool) -> None:
        self.wires.tool = tool
        self.session.say(f"Screws are tightened with {tool.noted}.")

    def ask_who(self) -> None:
        """Asks who is at the bench."""
        if self._people is not None:
            self._people.deleteLater()
        self._people = PeopleAsked(self.session, self, self.refresh, self._take_tool)
        self._people.open()
        self._people.called.setFocus()

    def _scanned(self) -> None:
        code = self.scan.text()
        self.scan.clear()
        wrong = self.bench.take_code(code)
        if wrong:
            self.session.say(wrong, wrong=True)
        else:
            self.setFocus()

    def shut(self) -> None:
        """The window closes, and the card with it."""
        self.bench.card.close()

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.stages.set_theme(theme)
        self.wires.set_theme(theme)
        self.tasks.set_theme(theme)
        self.changes.set_theme(theme)
        self.progress.set_theme(theme)

    def show_selection(self, key: Key | None) -> None:
        """Goes to the chosen wire."""
        state = self.session.progress.of(key.wire) if isinstance(key, WireKey) else None
        if state and state.wire.key != self.wires.key:
            self.wires.key = state.wire.key
            self.stage = stage_of_wire(state.wire)
            self.refresh()

    def work_place(self) -> QWidget | None:
        """The list of the page, whose keys are those of the bench."""
        if self.changed.isChecked():
            return self.changes.lines
        return self.wires.list if self.stage and self.stage.is_wiring else self.tasks.list

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """The keys of the bench."""
        page = self.wires if self.stage and self.stage.is_wiring else self.tasks
        if self.changed.isChecked() or self.how_far.isChecked() or not page.bench_key(event):
            super().keyPressEvent(event)

    def toggle(self, operation: Operation) -> None:
        """Ticks an operation of the wire at hand, or takes it back."""
        self.wires.toggle(operation)
