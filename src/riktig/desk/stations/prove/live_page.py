"""The steps under voltage: shut until the dead tests are passed or signed for; each step is on record."""

from collections.abc import Callable
from typing import TypeAlias

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLineEdit, QListWidget, QListWidgetItem, QPushButton, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.production import WORK, BuildStage, StageState, WorkTask, may_not_sign, stage_states
from riktig.core.proving import (
    ENERGISED,
    LIVE_PLAN,
    LIVE_SCRIPTS,
    SWITCH_BOX,
    LiveGate,
    LiveResult,
    LiveStep,
    Outcome,
    ProvingStage,
    live_facts,
    live_gate,
    live_results,
    places_in,
    read_value,
    seen_after,
)
from riktig.core.records import LiveReleased, ReadingTaken
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.desk.session import Session
from riktig.desk.stations.prove.seen_row import SeenRow
from riktig.desk.stations.prove.switch_box_dialog import SwitchBoxDialog
from riktig.desk.theme import LIGHT, Theme, grown, words_font
from riktig.desk.widgets import FittedLabel, plain_label, row_of

__all__ = ["LivePage"]

CAUTION = (
    "Under voltage: a qualified person, somebody who stands by, arc protection as the risk asks, motors uncoupled or "
    "their movement safe. Local codes and licensed practice decide."
)
FIELD = "Field contacts are imitated at their terminals, motors are replaced by lamps or stay uncoupled."
MEASURED = ("V", "ms")
"""What takes an instrument; a dial is read with one's eyes."""
RELEASE = "live tests"
_SIGNS = {Outcome.PASSED: "✓", Outcome.FAILED: "✗", Outcome.SKIPPED: "–", Outcome.OPEN: " "}


_BesideReadings: TypeAlias = tuple[tuple[WorkTask, ...], tuple[LiveStep, ...], int, StageState | None, list[LiveResult]]


class LivePage(QWidget):
    """The gate, the list of steps and the step at hand.

    Args:
        session: The job at hand.
        find_fault: Looks for what may be wrong.
    """

    def __init__(self, session: Session, find_fault: Callable[[], None]) -> None:
        super().__init__()
        self.session = session
        self.theme: Theme = LIGHT
        self.stage = ProvingStage.ENERGISE
        self.results: tuple[LiveResult, ...] = ()
        self.meter = ""
        self._known: (
            tuple[tuple[WorkTask, ...], tuple[LiveStep, ...], int, StageState | None, list[LiveResult]] | None
        ) = None
        """The gate beside readings, and what it was worked out of."""
        self.shut = plain_label("", "fails", wraps=True)
        self.stands_by, self.reason = QLineEdit(), QLineEdit()
        self.stands_by.setAccessibleName("Who stands by")
        self.stands_by.setPlaceholderText("who stands by")
        self.reason.setAccessibleName("Why although something is open")
        self.reason.setPlaceholderText("why although something is open")
        self.release = _button("Open the live tests", "Who signs for it stands on record", self.open_live)
        self.gate = QWidget()
        gate = QVBoxLayout(self.gate)
        gate.setContentsMargins(0, 0, 0, 0)
        gate.addWidget(self.shut)
        gate.addLayout(row_of((self.stands_by, self.reason, self.release)))
        self.list = QListWidget()
        self.list.setAccessibleName("Steps under voltage")
        self.list.setMinimumWidth(grown(120))
        self.list.setMinimumHeight(grown(120))
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.currentRowChanged.connect(lambda _row: self._show_step())
        self.title = plain_label("", "second", wraps=True)
        self.done = plain_label("", wraps=True)
        self.done.setFont(words_font(20, bold=True))
        self.expected = plain_label("", wraps=True)
        self.expected.setFont(words_font(15))
        self.field = plain_label(FIELD, "second", wraps=True)
        self.seen = SeenRow()
        self.seen.changed.connect(self._take_seen)
        self.said = FittedLabel(24.0, 12.0, bold=True)
        self.value, self.found = QLineEdit(), QLineEdit()
        for field, name in ((self.found, "as found, V"), (self.value, "measured, V")):
            field.setAccessibleName(name)
            field.setPlaceholderText(name)
            field.setMaximumWidth(grown(160))
            field.returnPressed.connect(self.passed)
        self.remark = QLineEdit()
        self.remark.setAccessibleName("What came instead")
        self.remark.setPlaceholderText("what came instead")
        self.yes = _button("As expected", "Records the step as passed, and goes to the next", self.passed)
        self.yes.setObjectName("main")
        self.no = _button("Otherwise", "Records what came instead: the step stays to be done", self.failed)
        self.wrong = _button("What may be wrong", "Faults that explain what came", find_fault)
        self.box = _button("Switch box …", "What stands in for floats and sensors at the terminals", self.show_box)
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        column = QVBoxLayout(card)
        column.addWidget(self.title)
        column.addWidget(self.done)
        column.addWidget(plain_label("Then", "quiet"))
        column.addWidget(self.expected)
        column.addWidget(self.field)
        column.addWidget(self.said)
        column.addLayout(row_of((self.found, self.value, None)))
        column.addWidget(self.seen)
        column.addWidget(self.remark)
        column.addLayout(row_of((self.yes, self.no, self.wrong, self.box, None)))
        column.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        self.caution = plain_label(CAUTION, "judgement", wraps=True)
        layout.addWidget(self.caution)
        layout.addWidget(self.gate)
        row = row_of((), gap=12)
        row.addWidget(self.list, 2)
        row.addWidget(card, 3)
        layout.addLayout(row, 1)

    def gate_now(self) -> LiveGate:
        """What keeps the live tests shut now."""
        inspection, settings = self._beside_readings()
        return live_gate(self.session.results, inspection, self.session.records, settings)

    def _beside_readings(self) -> tuple[StageState | None, list[LiveResult]]:
        """The visual inspection and the settings; no reading changes them, and a reading is taken every few seconds."""
        session, evaluation = self.session, self.session.evaluation
        work, plan = evaluation.get(WORK), evaluation.get(LIVE_PLAN)
        others = len(session.records) - len(session.records.standing(ReadingTaken))
        if self._known is None or self._known[0] is not work or self._known[1:3] != (plan, others):
            states = stage_states(work, session.progress, session.records)
            inspection = next((state for state in states if state.stage is BuildStage.INSPECTION), None)
            every = live_results(plan, session.records)
            settings = [result for result in every if result.step.stage is ProvingStage.SETTINGS]
            self._known = (work, plan, others, inspection, settings)
        return self._known[3], self._known[4]

    def refresh(self, stage: ProvingStage | None = None) -> None:
        """Shows the steps of a stage, and the gate before them."""
        self.stage = stage or self.stage
        gate = self.gate_now()
        self.caution.setVisible(self.stage.live)
        self.gate.setVisible(bool(gate.shut) and self.stage.live)
        self.shut.setText(f"Shut. {gate.shut}" if gate.shut else "")
        for widget in (self.stands_by, self.reason, self.release):
            widget.setVisible(gate.may_release)
        self.reason.setVisible(gate.may_release and bool(gate.open_work))
        every = live_results(self.session.evaluation.get(LIVE_PLAN), self.session.records)
        self.results = tuple(result for result in every if result.step.stage is self.stage)
        row = -1 if stage else self.list.currentRow()
        self.list.blockSignals(True)
        self.list.clear()
        for result in self.results:
            sign = "!" if result.stale else _SIGNS[result.outcome]
            title = f"{result.step.title}: " if self.stage is ProvingStage.FUNCTION else ""
            self.list.addItem(QListWidgetItem(f"{sign}  {title}{result.step.done}"))
        following = next((n for n, r in enumerate(self.results) if r.outcome is not Outcome.PASSED), 0)
        self.list.setCurrentRow(row if 0 <= row < len(self.results) else following)
        self.list.blockSignals(False)
        self._show_step()

    @property
    def at_hand(self) -> LiveResult | None:
        """The step at hand."""
        row = self.list.currentRow()
        return self.results[row] if 0 <= row < len(self.results) else None

    def _show_step(self) -> None:
        result, is_open = self.at_hand, not (self.stage.live and self.gate_now().shut)
        for widget in (self.yes, self.no, self.value, self.found, self.remark):
            widget.setEnabled(is_open and result is not None)
        if result is None:
            self.done.setText("Nothing to do here")
            return
        step = result.step
        self.title.setText(step.title)
        self.done.setText(step.done)
        self.expected.setText("\n".join(step.expected))
        self.field.setVisible(step.stage is ProvingStage.FUNCTION)
        self.field.setText(" ".join([*places_in(self.session.evaluation.get(SWITCH_BOX), step.done), FIELD]))
        self.box.setVisible(step.stage is ProvingStage.FUNCTION)
        self.wrong.setVisible(step.stage is ProvingStage.FUNCTION)
        self._show_seen(step)
        self.value.setVisible(bool(step.unit))
        self.found.setVisible(step.trimmed)
        self.value.setPlaceholderText(f"as left, {step.unit}" if step.trimmed else f"read, {step.unit}")
        self.found.setPlaceholderText(f"as found, {step.unit}")
        last_time = ""
        if result.said:
            what = result.said.value + (f" {result.said.unit}" if result.said.value else "")
            last_time = (
                f"{_SIGNS[result.outcome]} {what or result.said.reason}  {result.who} {result.when[11:16]}".strip()
            )
        self.said.setText(last_time or (f"Again: {result.stale}" if result.stale else ""))

    def _show_seen(self, step: LiveStep) -> None:
        evaluation = self.session.evaluation
        expected_sights = seen_after(evaluation.get(ENERGISED), evaluation.get(LIVE_SCRIPTS), step)
        watched = [device for device in evaluation.get(CIRCUITS).devices if device.id in expected_sights]
        self.seen.show_devices(watched, evaluation.get(NAMES).tag, expected_sights)

    def _take_seen(self) -> None:
        self.remark.setText(self.seen.otherwise)

    def show_box(self) -> None:
        """Opens the proposal of a switch box."""
        self.box_dialog = SwitchBoxDialog(self.session.evaluation.get(SWITCH_BOX), self.theme, self)
        self.box_dialog.open()

    def open_live(self) -> None:
        """Opens the live tests: who stands by is asked, and a reason where something is open; who may sign signs."""
        gate, session = self.gate_now(), self.session
        refused = may_not_sign(session.who, session.job.people)
        stands_by, reason = self.stands_by.text().strip(), self.reason.text().strip()
        if not gate.may_release:
            session.say(gate.shut, wrong=True)
        elif not stands_by:
            session.say("Say who stands by: nobody works under voltage alone.", wrong=True)
        elif gate.open_work and (not reason or refused):
            session.say(f"Something is open: {refused or 'say why it may be begun all the same'}.", wrong=True)
        elif session.record(RELEASE, LiveReleased(stands_by, reason, "; ".join(gate.open_work))):
            self.refresh()

    def passed(self) -> None:
        """Records the step as passed, where what was measured is as expected."""
        result = self.at_hand
        if result is None or not self._is_open():
            return
        value = self._volts(self.value) if result.step.unit else 0.0
        as_found = self._volts(self.found) if result.step.trimmed else 0.0
        if value is None or as_found is None:
            return
        if result.step.unit and not result.step.passes(value):
            self.session.say(
                f"{value:g} {result.step.unit} is not as expected: record what came with “Otherwise”.", wrong=True
            )
            return
        self._record(result, Outcome.PASSED)

    def failed(self) -> None:
        """Records what came instead."""
        result = self.at_hand
        if result is None or not self._is_open():
            return
        if not self.remark.text().strip() and not self.value.text().strip():
            self.session.say("Say what came instead, or what was measured.", wrong=True)
            return
        if any(field.text().strip() and self._volts(field) is None for field in (self.value, self.found)):
            return
        self._record(result, Outcome.FAILED)

    def _is_open(self) -> bool:
        shut = self.gate_now().shut if self.stage.live else ""
        if shut:
            self.session.say(f"Shut. {shut}", wrong=True)
        return not shut

    def _volts(self, field: QLineEdit) -> float | None:
        try:
            return read_value(field.text())
        except RiktigError as error:
            self.session.say(f"{error}", wrong=True)
            return None

    def _record(self, result: LiveResult, outcome: Outcome) -> None:
        step = result.step
        if step.unit in MEASURED and not self.meter:
            self.session.say("No reading without its meter: press M on a dead test and say what it is.", wrong=True)
            return
        value = _figure(self.value) if step.unit else ""
        as_found = _figure(self.found) if step.trimmed else ""
        meter = self.meter if step.unit in MEASURED else ""
        facts = live_facts(step, outcome, value, as_found, meter, self.remark.text().strip())
        row = self.list.currentRow()
        if self.session.record(step.key, facts):
            for field in (self.value, self.found, self.remark):
                field.clear()
            self.refresh()
            self.list.setCurrentRow(min(row + (outcome is Outcome.PASSED), self.list.count() - 1))


def _figure(field: QLineEdit) -> str:
    """What was typed, as a figure without its unit; empty where nothing was."""
    return f"{read_value(field.text()):g}" if field.text().strip() else ""


def _button(text: str, tip: str, done: Callable[[], None]) -> QPushButton:
    button = QPushButton(text)
    button.setToolTip(tip)
    button.clicked.connect(lambda _=False: done())
    return button
