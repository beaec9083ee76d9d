"""The bench card: two points, what should be read, the reading, the verdict."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QKeyEvent
from PySide6.QtWidgets import QInputDialog, QLabel, QPushButton, QScrollArea, QVBoxLayout, QWidget

from riktig.core.errors import RiktigError
from riktig.core.ids import WireId
from riktig.core.plate import LAYOUT
from riktig.core.proving import (
    FUNCTION,
    STILL_LIVE,
    TESTS,
    CountedReading,
    Outcome,
    ProvingStage,
    Test,
    judge,
    ohm_text,
    read_ohm,
    reading_facts,
    shut_because,
)
from riktig.core.wiring import WIRING, mini_plate
from riktig.desk.canvas import DrawingView
from riktig.desk.session import Session
from riktig.desk.stations.prove.function import FunctionAsked
from riktig.desk.stations.prove.typed import TypedReading
from riktig.desk.theme import Theme, grown, words_font
from riktig.desk.widgets import FittedLabel, Station, flowing, plain_label, row_of
from riktig.devices import BenchMeter

__all__ = ["ProveStation"]


class ProveStation(Station):
    """Keys: a figure begins a reading, Enter accepts it, F fails, S skips, Backspace goes back.

    Space shows what the simulated meter would read, for practice; such a reading is never recorded.
    """

    needs = (TESTS,)

    waits_for = "Nothing to test yet. There is a test for every wire that the circuits need."

    def __init__(self, session: Session, meter: BenchMeter) -> None:
        super().__init__(session)
        self.meter = meter
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.test_key = ""
        self.ohm: float | None = None
        self.by_hand = False
        self._history: list[str] = []
        self.stage_buttons: dict[ProvingStage, QPushButton] = {}
        for stage in ProvingStage:
            button = self.button(stage.value, f"Goes to the tests of {stage.value}")
            button.clicked.connect(lambda _=False, s=stage: self.go_to_stage(s))
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            self.stage_buttons[stage] = button
        self.add_bar(tuple(self.stage_buttons.values()))
        row = row_of((), gap=12)
        row.addWidget(self._card(), 3)
        row.addWidget(self._side(), 1)
        self.add_body(row)
        self.keys: dict[str, QPushButton] = {}
        for name, text, act in (
            ("take", "Space  practice reading", self.take),
            ("accept", "Enter  accept", self.accept),
            ("fail", "F  fail, say what is wrong", self.ask_fail),
            ("skip", "S  skip, say why", self.ask_skip),
            ("back", "Backspace  back", self.back),
        ):
            button = QPushButton(text)
            button.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            button.clicked.connect(act)
            self.keys[name] = button
        self.add_body(flowing(tuple(self.keys.values())), 0)
        self.cut_off = plain_label("", "judgement", wraps=True)
        self.add_body(self.cut_off, 0)
        self.add_body(
            plain_label(
                "Isolated, locked off and proved dead: prove the tester before and after. Local codes "
                "and licensed practice decide.",
                "judgement",
                wraps=True,
            ),
            0,
        )

    def _card(self) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.title = plain_label("", "title")
        self.count = plain_label("", "second")
        self.switches = plain_label("", "second", wraps=True)
        self.points: list[tuple[QLabel, QLabel]] = []
        points = row_of((), gap=16)
        for name in ("black probe", "red probe"):
            column = QVBoxLayout()
            column.setSpacing(0)
            column.addWidget(plain_label(f"■ {name}", "fails" if name[0] == "r" else "second"))
            label = FittedLabel(50.0, 24.0, mono=True, bold=True)
            place = plain_label("", "second", wraps=True)
            column.addWidget(label)
            column.addWidget(place)
            column.addStretch(1)
            points.addLayout(column, 1)
            self.points.append((label, place))
        self.expected = FittedLabel(32.0, 14.0)
        self.why = plain_label("", "second", wraps=True)
        self.reading = FittedLabel(40.0, 24.0, bold=True)
        self.verdict = plain_label("", wraps=True)
        self.verdict.setFont(words_font(17, bold=True))
        self.typed = TypedReading()
        self.typed.setPlaceholderText("0.3, 1.2 k or open")
        self.typed.setToolTip("What your meter shows, in ohm: 0.3, 1.2 k or open")
        self.typed.setAccessibleName("Typed reading in ohm")
        self.typed.setMaximumWidth(grown(260))
        self.typed.setMinimumWidth(self.typed.fontMetrics().horizontalAdvance(self.typed.placeholderText()) + 20)
        self.typed.returnPressed.connect(self._typed)
        layout = QVBoxLayout(card)
        layout.setContentsMargins(20, 12, 20, 14)
        layout.setSpacing(8)
        layout.addLayout(row_of((self.title, None, self.count)))
        layout.addLayout(points)
        readings = row_of((), gap=16)
        left, right = QVBoxLayout(), QVBoxLayout()
        item: QWidget
        for item in (plain_label("Should read", "second"), self.expected):
            left.addWidget(item)
        for item in (plain_label("Reads", "second"), self.reading, self.typed):
            right.addWidget(item)
        left.addStretch(1)
        right.addStretch(1)
        readings.addLayout(left, 1)
        readings.addLayout(right, 1)
        layout.addLayout(readings)
        layout.addWidget(self.why)
        layout.addWidget(self.verdict)
        layout.addStretch(1)
        layout.addWidget(self.switches)
        return card

    def _side(self) -> QWidget:
        side = QWidget()
        layout = QVBoxLayout(side)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(plain_label("Where", "quiet"))
        self.where = DrawingView("Where the two points are")
        self.where.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.where.setMinimumSize(130, 160)
        layout.addWidget(self.where, 3)
        layout.addWidget(plain_label("Just done", "quiet"))
        self.done = plain_label("", wraps=True)
        self.done.setAlignment(Qt.AlignmentFlag.AlignTop)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setAccessibleName("Just done, and what must be read again")
        area.setWidget(self.done)
        layout.addWidget(area, 2)
        return side

    def refresh(self) -> None:
        """Shows the plan of now; the card keeps its test while it is still in the plan."""
        results = self.session.results
        keys = [test.key for test, _ in results.readings]
        if self.test_key not in keys:
            following = results.next()
            self.test_key = following.key if following else (keys[0] if keys else "")
            self.ohm = None
        for stage, button in self.stage_buttons.items():
            shut = shut_because(results, stage)
            total = len([t for t, _ in results.readings if t.stage is stage])
            passed = results.count(Outcome.PASSED, stage)
            button.setText(f"{stage.value}  " + ("shut" if shut else f"{passed} of {total}"))
            button.setEnabled(bool(shut) or total > 0)
            button.setToolTip(shut or f"{passed} of {total} passed")
        self.cut_off.setText(self.session.evaluation.get(STILL_LIVE))
        self._show()

    def current_test(self) -> Test | None:
        """The test on the card."""
        return next((t for t, _ in self.session.results.readings if t.key == self.test_key), None)

    def _last(self) -> CountedReading | None:
        return next((r for t, r in self.session.results.readings if t.key == self.test_key), None)

    def _show(self) -> None:
        test, results = self.current_test(), self.session.results
        if test is None:
            self.title.setText("Nothing to test yet")
            return
        same = [t for t, _ in results.readings if t.stage is test.stage]
        self.title.setText(test.title)
        at = next(i for i, t in enumerate(same, 1) if t.key == test.key)
        self.count.setText(f"{test.stage.value}: {at} of {len(same)}")
        for (label, place), point in zip(self.points, (test.black, test.red), strict=True):
            label.setText(point.label)
            place.setText(point.place)
        self.expected.setText(test.expected.text)
        self.why.setText(test.expected.why)
        self.switches.setText(test.switches)
        self._show_reading(test)
        owners = frozenset(p.pin.device for p in (test.black, test.red))
        wire = self.session.evaluation.get(WIRING).wire(WireId(test.wire))
        layout = self.session.evaluation.get(LAYOUT)
        self.where.show_drawing(mini_plate(layout, (wire,) if wire else (), owners))
        recent = [(t, r) for t, r in results.readings if r]
        recent.sort(key=lambda counted: counted[1].when if counted[1] else "", reverse=True)
        signs = {Outcome.PASSED: "✓", Outcome.FAILED: "✗", Outcome.SKIPPED: "–"}
        lines = [f"{signs.get(r.outcome, '')} {t.black.label} to {t.red.label}   {r.text}" for t, r in recent[:7] if r]
        stale = [f"Measure again: {s.name}, {s.why}" for s in results.stale]
        self.done.setText("\n".join([*stale, *lines]))

    def _show_reading(self, test: Test) -> None:
        last = self._last()
        if self.ohm is not None:
            self.reading.setText(ohm_text(self.ohm))
            if not self.by_hand:
                self._say_verdict(
                    f"For practice: what a {self.meter.name} shows. It is not recorded; type what your meter shows.",
                    "judgement",
                )
                return
            good = judge(test, self.ohm) is Outcome.PASSED
            self._say_verdict(
                "✓ As expected. Enter accepts."
                if good
                else "✗ Not as expected. F records the failure; or type a new reading.",
                "meets" if good else "fails",
            )
        elif last is not None:
            self.reading.setText(last.text)
            role = {"passed": "meets", "failed": "fails"}.get(last.outcome.value, "judgement")
            self._say_verdict(
                f"{last.outcome.value.capitalize()}, {last.who}, {last.when[:16].replace('T', ' ')}", role
            )
        else:
            self.reading.setText("–")
            self._say_verdict("Touch both points, then type what your meter shows.", "second")

    def _say_verdict(self, text: str, role: str) -> None:
        self.verdict.setText(text)
        for label in (self.verdict, self.reading):
            label.setObjectName(role)
            label.style().unpolish(label)
            label.style().polish(label)

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.where.set_theme(theme)

    def go_to_stage(self, stage: ProvingStage) -> None:
        """Goes to the first test to do of a stage; a live one says why it is shut."""
        results = self.session.results
        shut = shut_because(results, stage)
        if shut:
            self.session.say(shut, wrong=True)
            if stage is ProvingStage.FUNCTION:
                self.show_function(shut)
            return
        tests = [t for t, _ in results.readings if t.stage is stage]
        following = results.next(stage=stage) or (tests[0] if tests else None)
        if following:
            self._go(following.key)

    def show_function(self, shut: str) -> None:
        """Lists the function tests that wait behind the dead ones, with the caution; nothing is led here."""
        steps = self.session.evaluation.get(FUNCTION)
        self.planned = FunctionAsked(steps, shut, self)
        self.planned.open()

    def _go(self, key: str) -> None:
        self.test_key, self.ohm, self.by_hand = key, None, False
        self.typed.clear()
        self._show()
        self.setFocus()

    def take(self) -> None:
        """Shows what the simulated meter reads, for practice."""
        test = self.current_test()
        if test:
            self.ohm = self.meter.read(test, self.session.evaluation.get(WIRING))
            self.by_hand = False
            self._show()

    def _typed(self) -> None:
        try:
            self.ohm = read_ohm(self.typed.text())
        except RiktigError as error:
            self.session.say(str(error), wrong=True)
            return
        self.by_hand = True
        self._show()
        self.setFocus()

    def _record(self, outcome: Outcome, reason: str = "") -> None:
        test = self.current_test()
        if test is None:
            return
        ohm = self.ohm if self.by_hand else None
        facts = reading_facts(test, outcome, ohm=ohm, meter="" if ohm is None else "typed", reason=reason)
        if self.session.record(test.key, facts):
            self._history.append(test.key)
            if outcome is Outcome.FAILED:
                self.ohm = None
                self._show()
                return
            following = self.session.results.next(after=test.key)
            self._go(following.key if following else test.key)

    def accept(self) -> None:
        """Records the reading and goes on; a wrong reading is not accepted."""
        test = self.current_test()
        if test is None or self.ohm is None:
            self.session.say("Type what your meter shows first.", wrong=True)
        elif not self.by_hand:
            self.session.say(
                "This is a practice reading of the simulated meter, which proves nothing, so it was not recorded. "
                "Type what your meter shows.",
                wrong=True,
            )
        elif judge(test, self.ohm) is not Outcome.PASSED:
            self.session.say(
                f"{ohm_text(self.ohm)} is not {test.expected.text}: it cannot pass. Find the cause "
                "and read again, or press F to record the failure.",
                wrong=True,
            )
        else:
            self._record(Outcome.PASSED)

    def ask_fail(self) -> None:
        """Records the failure; asks what is wrong where the reading does not say it."""
        test = self.current_test()
        if test is None:
            return
        if self.by_hand and self.ohm is not None and judge(test, self.ohm) is Outcome.FAILED:
            self.fail()
            return
        good = self.by_hand and self.ohm is not None
        asked = "The reading is as expected. What is wrong?" if good else "There is no reading. What is wrong?"
        text, done = QInputDialog.getText(self, "Fail", asked)
        if done and text.strip():
            self.fail(text.strip())

    def fail(self, reason: str = "") -> None:
        """Records the failure with its reading, or with words where there is none; the test stays to be done."""
        test = self.current_test()
        bad = self.by_hand and self.ohm is not None and test is not None and judge(test, self.ohm) is Outcome.FAILED
        if not bad and not reason:
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
            self._go(self._history.pop())

    def keyPressEvent(self, event: QKeyEvent) -> None:
        """The keys of the bench card."""
        acts = {
            Qt.Key.Key_Space: self.take,
            Qt.Key.Key_Return: self.accept,
            Qt.Key.Key_Enter: self.accept,
            Qt.Key.Key_F: self.ask_fail,
            Qt.Key.Key_S: self.ask_skip,
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
        """The card itself, whose keys are those of the bench."""
        return self
