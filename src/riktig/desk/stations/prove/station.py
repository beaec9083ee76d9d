"""Proof of the panel: one reading at a time with the meter at hand, and what may be wrong when one is wrong."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QInputDialog, QPushButton, QStackedWidget, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.proving import (
    STILL_LIVE,
    TESTS,
    CountedReading,
    Instrument,
    Outcome,
    ProvingStage,
    SwitchState,
    Test,
    draw_switches,
    judge,
    minutes_of,
    ohm_text,
    read_ohm,
    reading_facts,
    without_leads,
)
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.desk.session import MANY_PINS, Session
from riktig.desk.stations.prove.bench_control import ProveBench
from riktig.desk.stations.prove.card import NO_METER, ProofCard, Verdict, verdict_of
from riktig.desk.stations.prove.done_list import DoneList
from riktig.desk.stations.prove.fault_finder import FaultFinder
from riktig.desk.stations.prove.instruments import InstrumentDialog
from riktig.desk.stations.prove.live_page import LivePage
from riktig.desk.stations.prove.practice_page import PracticePage
from riktig.desk.stations.prove.practice_progress import PracticeProgress
from riktig.desk.stations.prove.stage_buttons import show_stages
from riktig.desk.stations.prove.where_views import WhereViews
from riktig.desk.theme import Theme
from riktig.desk.widgets import PageStack, Station, flowing, plain_label, row_of
from riktig.devices import BenchMeter, MeterLink
from riktig.places import practice_file

__all__ = ["ProveStation"]

HAZARD = (
    "Isolated, locked off and proved dead: prove the tester before and after. Local codes and licensed practice decide."
)


class ProveStation(Station):
    """Keys: a figure begins a reading, Enter accepts it, R reads the connected meter, F fails, S skips, Backspace back.

    M says which meter is at hand, W what may be wrong, F11 opens the card over the whole screen.
    """

    needs = (TESTS,)
    aside_from = MANY_PINS

    waits_for = "Nothing to test yet. There is a test for every wire that the circuits need."

    def __init__(self, session: Session, meter: BenchMeter) -> None:
        super().__init__(session)
        self.meter = meter
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.test_key, self._going_on = "", False
        self.ohm: float | None = None
        self.instrument: Instrument | None = None
        self.link: MeterLink | None = None
        self._history: list[str] = []
        self.stands = SwitchState()
        """How the switches stood at the card before."""
        self.stage_buttons: dict[ProvingStage, QPushButton] = {}
        for stage in ProvingStage:
            button = self.button(stage.value, f"Goes to the tests of {stage.value}")
            button.clicked.connect(lambda _=False, s=stage: self.go_to_stage(s))
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            self.stage_buttons[stage] = button
        self.meter_button = self.button("", "Which meter is at hand: M")
        self.meter_button.clicked.connect(lambda _=False: self.ask_meter())
        large = self.button("Bench card", "The test at hand over the whole screen, read from two metres (F11)")
        large.setShortcut("F11")
        large.clicked.connect(lambda _=False: self.bench.open())
        learn = self.button("Practice …", "A simulated panel with something wrong in it: nothing of it is recorded")
        learn.clicked.connect(lambda _=False: self.open_practice())
        for extra in (self.meter_button, large, learn):
            extra.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.add_bar((*self.stage_buttons.values(), self.meter_button, large, learn))
        self.card = ProofCard(self._typed)
        self.typed = self.card.typed
        self.finder = FaultFinder(session, self)
        dead, row = QWidget(), row_of((), gap=12)
        row.addWidget(self.card, 3)
        row.addWidget(self._side(), 2)
        dead.setLayout(row)
        row.setContentsMargins(0, 0, 0, 0)
        self.live = LivePage(session, self.show_suspects)
        self.practice = PracticePage(session, PracticeProgress(practice_file()))
        self.pages = PageStack()
        for page in (dead, self.live, self.practice):
            self.pages.addWidget(page)
        self.add_body(self.pages)
        self.keys: dict[str, QPushButton] = {}
        for name, text, act in (
            ("accept", "Enter  accept", self.accept),
            ("read", "R  read the meter", self.read_meter),
            ("fail", "F  fail, say what is wrong", self.ask_fail),
            ("wrong", "W  what may be wrong", self.show_suspects),
            ("skip", "S  skip, say why", self.ask_skip),
            ("back", "Backspace  back", self.back),
        ):
            button = QPushButton(text)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(act)
            self.keys[name] = button
        self.key_row = flowing(tuple(self.keys.values()))
        self.add_body(self.key_row, 0)
        self.pages.currentChanged.connect(lambda page: self.key_row.setVisible(page == 0))
        self.cut_off = plain_label("", "judgement", wraps=True)
        self.add_body(self.cut_off, 0)
        self.add_body(plain_label(HAZARD, "judgement", wraps=True), 0)
        self.bench: ProveBench = ProveBench(self)
        self.finder.go_to_proposed = self._go_to_proposed

    def _side(self) -> QWidget:
        side = QWidget()
        layout = QVBoxLayout(side)
        layout.setContentsMargins(0, 0, 0, 0)
        self.where = WhereViews()
        layout.addWidget(self.where, 4)
        self.done = DoneList()
        self.below = QStackedWidget()
        self.below.addWidget(self.done)
        self.below.addWidget(self.finder.panel)
        layout.addWidget(self.below, 3)
        return side

    def refresh(self) -> None:
        """Shows the plan of now; the card keeps its test while it is still in the plan."""
        results = self.session.results
        if self.test_key not in results.by_key:
            following = results.next()
            self.test_key = following.key if following else next(iter(results.by_key), "")
            self.ohm = None
        show_stages(self.stage_buttons, self.session, self.live.gate_now().shut)
        if self.pages.currentWidget() is self.live:
            self.live.refresh()
        self.cut_off.setText(self.session.evaluation.get(STILL_LIVE))
        self.cut_off.setVisible(bool(self.cut_off.text()))
        if not self._going_on:
            self._show()

    def current_test(self) -> Test | None:
        """The test on the card: of the plan, or the one the fault finder proposes."""
        if self.finder.proposed is not None and self.finder.proposed.key == self.test_key:
            return self.finder.proposed
        return self.session.results.by_key.get(self.test_key, (None, None))[0]

    def _last(self) -> CountedReading | None:
        return self.session.results.by_key.get(self.test_key, (None, None))[1]

    def _show(self) -> None:
        test, results = self.current_test(), self.session.results
        self.meter_button.setText(self.instrument.name if self.instrument else "Which meter …")
        self.keys["read"].setEnabled(self.link is not None)
        if test is None:
            self.card.show_nothing("Nothing to test yet")
            return
        evaluation = self.session.evaluation
        same = [t.key for t, _ in results.readings if t.stage is test.stage]
        at = same.index(test.key) + 1 if test.key in same else 0
        left = [t for t, r in results.readings if r is None or r.outcome is Outcome.FAILED]
        count = f"{test.stage.value}: {at} of {len(same)}" if at else "proposed"
        switches = draw_switches(evaluation.get(CIRCUITS), evaluation.get(NAMES).tag, test.state, self.stands)
        self.card.show_test(test, f"{count}   {minutes_of(left):.0f} min left in all", switches)
        self.card.show_verdict(self._verdict(test))
        self.where.show_test(evaluation, test)
        self.done.show_results(results)

    def _verdict(self, test: Test) -> Verdict:
        return verdict_of(test, self.ohm, self.instrument, self._last())

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.where.set_theme(theme)
        self.card.set_theme(theme)
        self.live.theme = self.finder.theme = theme

    def go_to_stage(self, stage: ProvingStage) -> None:
        """Goes to the first test to do of a stage; a live one says why it is shut."""
        if stage.by_steps:
            self.pages.setCurrentWidget(self.live)
            self.live.meter = self.instrument.noted if self.instrument else ""
            self.live.refresh(stage)
            return
        results = self.session.results
        tests = [t for t, _ in results.readings if t.stage is stage]
        following = results.next(stage=stage) or (tests[0] if tests else None)
        if following:
            self.go_to(following.key)

    def go_to(self, key: str) -> None:
        """Goes to a test; what its switches need differently from the one before is lit up."""
        self.pages.setCurrentIndex(0)
        if self.finder.proposed is None or key != self.finder.proposed.key:
            self.below.setCurrentIndex(0)
        before = self.current_test()
        self.stands = before.state if before else SwitchState()
        self.test_key, self.ohm = key, None
        self.typed.clear()
        self._show()
        self.setFocus()

    def open_practice(self) -> None:
        """Opens the practice bench, which has no way to the record of the job."""
        self.pages.setCurrentWidget(self.practice)
        self.practice.refresh()

    def ask_meter(self) -> None:
        """Asks which meter is at hand."""
        self.asking = InstrumentDialog(self.session.clock(), self.take_meter, self)
        self.asking.open()

    def take_meter(self, instrument: Instrument, link: MeterLink | None = None) -> None:
        """Takes a meter into the hand; one that is simulated or out of calibration is refused and said."""
        fault = instrument.fault(self.session.clock())
        if fault:
            self.session.say(fault, wrong=True)
            return
        if self.link is not None:
            self.link.close()
        self.instrument, self.link = instrument, link
        self._show()

    def read_meter(self) -> None:
        """Reads the connected meter once."""
        if self.link is None:
            self.session.say("No meter is connected: press M, or type what yours shows.", wrong=True)
            return
        try:
            self._take(self.link.read_ohm())
        except RiktigError as error:
            self.session.say(f"{error} {error.hint}", wrong=True)

    def verdict_now(self) -> Verdict | None:
        """What is said of the reading of the test on the card; None without a test."""
        test = self.current_test()
        return self._verdict(test) if test else None

    def _go_to_proposed(self) -> None:
        if self.finder.proposed is not None:
            self.go_to(self.finder.proposed.key)

    def take_typed(self, text: str) -> None:
        """Takes a reading that was typed elsewhere."""
        self.typed.setText(text)
        self._typed()

    def step(self, by: int) -> None:
        """Goes to another test of the plan."""
        keys = [test.key for test, _ in self.session.results.readings]
        if self.test_key in keys:
            self.go_to(keys[min(max(keys.index(self.test_key) + by, 0), len(keys) - 1)])

    def _typed(self) -> None:
        try:
            self._take(read_ohm(self.typed.text()))
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        self.setFocus()

    def _take(self, ohm: float) -> None:
        if self.instrument is None:
            self.session.say(NO_METER, wrong=True)
            return
        self.ohm = ohm
        self._show()

    def _record(self, outcome: Outcome, reason: str = "") -> None:
        test = self.current_test()
        if test is None:
            return
        if self.finder.proposed is test:
            self._noted(test)
            return
        meter = self.instrument
        ohm = self.ohm if meter else None
        noted, zero = (meter.noted, meter.zero) if meter and ohm is not None else ("", 0.0)
        facts = reading_facts(test, outcome, ohm=ohm, meter=noted, reason=reason, zero=zero)
        self._going_on = outcome is not Outcome.FAILED
        recorded = self.session.record(test.key, facts)
        self._going_on = False
        if recorded:
            self._history.append(test.key)
            if outcome is Outcome.FAILED:
                self.ohm = None
                self._show()
                return
            following = self.session.results.next(after=test.key)
            self.go_to(following.key if following else test.key)

    def _noted(self, test: Test) -> None:
        """A reading that the fault finder proposed: it narrows the suspects, and is no test of the plan."""
        if self.ohm is None or self.instrument is None:
            self.session.say(NO_METER if self.instrument is None else "Type what your meter shows first.", wrong=True)
            return
        self.finder.take(test, without_leads(self.ohm, self.instrument.zero))
        self.show_suspects()

    def accept(self) -> None:
        """Records the reading and goes on; a wrong reading is not accepted."""
        test = self.current_test()
        if test is None or self.ohm is None or self.instrument is None:
            self.session.say(NO_METER if self.instrument is None else "Type what your meter shows first.", wrong=True)
        elif self.finder.proposed is not test and judge(test, self.ohm, self.instrument.zero) is not Outcome.PASSED:
            reads = ohm_text(without_leads(self.ohm, self.instrument.zero))
            self.session.say(
                f"{reads} is not {test.expected.text}: it cannot pass. Find the cause and read again, or press F to "
                "record the failure.",
                wrong=True,
            )
        else:
            self._record(Outcome.PASSED)

    def _is_wrong(self, test: Test) -> bool:
        zero = self.instrument.zero if self.instrument else 0.0
        return self.ohm is not None and judge(test, self.ohm, zero) is Outcome.FAILED

    def ask_fail(self) -> None:
        """Records the failure; asks what is wrong where the reading does not say it."""
        test = self.current_test()
        if test is None:
            return
        if self._is_wrong(test):
            self.fail()
            return
        read = "There is no reading." if self.ohm is None else "The reading is as expected."
        text, done = QInputDialog.getText(self, "Fail", f"{read} What is wrong?")
        if done and text.strip():
            self.fail(text.strip())

    def fail(self, reason: str = "") -> None:
        """Records the failure with its reading, or with words where there is none; the test stays to be done."""
        test = self.current_test()
        if not (test is not None and self._is_wrong(test)) and not reason:
            self.session.say("A failure needs a reading that is not as expected, or words.", wrong=True)
            return
        self._record(Outcome.FAILED, reason)

    def ask_skip(self) -> None:
        """Asks why, and records the skip."""
        text, done = QInputDialog.getText(self, "Skip", "Why is this test skipped?")
        if done and text.strip():
            self.skip(text.strip())

    def skip(self, reason: str) -> None:
        """Records a skip with its reason; live stages stay shut."""
        self.ohm = None
        self._record(Outcome.SKIPPED, reason)

    def back(self) -> None:
        """Goes back to the test before."""
        if self._history:
            self.go_to(self._history.pop())

    def show_suspects(self) -> None:
        """Says what may be wrong, from all readings that count and the one on the card."""
        test = self.current_test()
        zero = self.instrument.zero if self.instrument else 0.0
        shown = (test, without_leads(self.ohm, zero)) if test is not None and self.ohm is not None else None
        if self.finder.look(self.session.results, shown):
            self.pages.setCurrentIndex(0)
            self.below.setCurrentWidget(self.finder.panel)
        else:
            self.below.setCurrentIndex(0)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """The keys of the bench card."""
        acts = {
            Qt.Key.Key_Return: self.accept,
            Qt.Key.Key_Enter: self.accept,
            Qt.Key.Key_R: self.read_meter,
            Qt.Key.Key_F: self.ask_fail,
            Qt.Key.Key_S: self.ask_skip,
            Qt.Key.Key_M: self.ask_meter,
            Qt.Key.Key_W: self.show_suspects,
            Qt.Key.Key_Backspace: self.back,
        }
        act = acts.get(Qt.Key(event.key()))
        if event.text().isdecimal() or event.text() in (".", ","):
            self.typed.setFocus()
            self.typed.setText(event.text())
        elif act and not event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            act()
        else:
            super().keyPressEvent(event)

    def work_place(self) -> QWidget | None:
        """The card, whose keys are those of the bench."""
        return self
