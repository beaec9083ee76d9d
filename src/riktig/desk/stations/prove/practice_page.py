"""The practice bench: a simulated panel with something wrong in it, to be found with meter and head."""

from collections.abc import Callable
from dataclasses import dataclass, field

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QComboBox, QCompleter, QLineEdit, QListWidget, QPushButton, QVBoxLayout, QWidget

from riktig.core.evaluation import Evaluation
from riktig.core.ids import PinRef
from riktig.core.job import Job
from riktig.core.proving import (
    DEAD_PANEL,
    HINT_COST,
    NOT_CONNECTED,
    PANEL_FACTS,
    TESTS,
    Faults,
    Lesson,
    Planner,
    Probe,
    ProvingStage,
    Score,
    SwitchState,
    fault_words,
    lesson_faults,
    locate,
    next_probe,
    noted_before,
    ohm_text,
    score_of,
    single_faults,
)
from riktig.core.schematic import NAMES
from riktig.demo_job import demo_job
from riktig.desk.session import Session
from riktig.desk.stations.prove.practice_progress import PracticeProgress
from riktig.desk.theme import grown, words_font
from riktig.desk.widgets import plain_label, row_of
from riktig.devices import SimulatedPanel

__all__ = ["PracticePage"]

SHIPPED = (("This panel", ""), ("Wash drum", "wash-drum"), ("Frost fan", "frost-fan"), ("Kelp shed", "kelp-shed"))
"""The panels that can be practised on, the smallest of those that ship first."""
MOST_STATES = 12
"""Positions of the switches offered (chosen by us: the plain ones and those of the plan's first cards)."""


@dataclass
class _Run:
    """A lesson that is being done."""

    lesson: Lesson
    faults: Faults
    bench: SimulatedPanel
    planner: Planner
    noted: tuple[Probe, ...]
    probes: list[Probe] = field(default_factory=list)
    hints: int = 0


class PracticePage(QWidget):
    """Lessons by difficulty. It has no way to the job's record: its readings and its score are its own.

    Args:
        session: The job whose panel is imitated.
        progress: How far its user has come.
    """

    def __init__(self, session: Session, progress: PracticeProgress) -> None:
        super().__init__()
        self.session, self.progress = session, progress
        self.run: _Run | None = None
        self.seed = 0
        self._shipped: dict[str, Evaluation[Job]] = {}
        self.panel_of = QComboBox()
        self.panel_of.setAccessibleName("Panel to practise on")
        for words, name in SHIPPED:
            self.panel_of.addItem(words, name)
        self.panel_of.currentIndexChanged.connect(lambda _index: self.refresh())
        self.banner = plain_label("", "judgement", wraps=True)
        self.banner.setFont(words_font(13, bold=True))
        self.lesson = QComboBox()
        self.lesson.setAccessibleName("Lesson")
        for number, lesson in enumerate(Lesson, 1):
            self.lesson.addItem(f"{number}  {lesson.value}", lesson)
        self.lesson.currentIndexChanged.connect(lambda _index: self._show())
        begin = _button("Begin", "Puts something wrong into the simulated panel", self.begin)
        begin.setObjectName("main")
        self.how_far = plain_label("", "second", wraps=True)
        self.told = plain_label("", wraps=True)
        self.told.setFont(words_font(13))
        self.black, self.red = QLineEdit(), QLineEdit()
        for line, name in ((self.black, "black probe, such as K1:13"), (self.red, "red probe, such as S2:4")):
            line.setPlaceholderText(name)
            line.setAccessibleName(name)
        self.red.returnPressed.connect(self.touch)
        self.switches = QComboBox()
        self.switches.setAccessibleName("How the switches stand")
        self.switches.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.reading = plain_label("–")
        self.reading.setFont(words_font(26, bold=True))
        self.list = QListWidget()
        self.list.setAccessibleName("Readings")
        self.list.setMinimumHeight(grown(60))
        self.answer = QComboBox()
        self.answer.setEditable(True)
        self.answer.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
        self.answer.setAccessibleName("What is wrong")
        written = self.answer.lineEdit()
        if written:
            written.setAccessibleName("What is wrong")
        self.answer.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.said = plain_label("", wraps=True)
        self.said.setFont(words_font(13, bold=True))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self.banner)
        layout.addLayout(row_of((self.panel_of, self.lesson, begin, None)))
        layout.addWidget(self.how_far)
        layout.addWidget(self.told)
        layout.addLayout(row_of((self.black, self.red, _button("Touch", "Reads between the two points", self.touch))))
        switches = row_of((plain_label("Switches", "second"),))
        switches.addWidget(self.switches, 1)
        layout.addLayout(switches)
        layout.addWidget(self.reading)
        hint = _button(f"Hint (costs {HINT_COST})", "How many things may be wrong, and where to touch next", self.hint)
        answers = row_of(())
        answers.addWidget(self.answer, 1)
        answers.addWidget(_button("It is this", "Says what is wrong", self.name_it))
        layout.addLayout(answers)
        layout.addLayout(
            row_of((hint, _button("Show me", "Shows what is wrong: it does not count", self.give_up), None))
        )
        layout.addWidget(self.said)
        layout.addWidget(self.list, 1)

    def refresh(self) -> None:
        """Says whose panel is imitated; a panel that was wired otherwise since ends the lesson."""
        number = self.session.job.number
        self.banner.setText(f"PRACTICE BENCH. A simulated panel: nothing is read of {number}, nothing is recorded.")
        if self.run and self.run.planner.panel is not self._evaluation().get(DEAD_PANEL):
            self.run = None
        self._show()

    def _evaluation(self) -> Evaluation[Job]:
        """Of the panel that is imitated: the job's own, or one of those that ship."""
        name = str(self.panel_of.currentData())
        if not name:
            return self.session.evaluation
        if name not in self._shipped:
            self._shipped[name] = Evaluation(demo_job(name))
        return self._shipped[name]

    def _lesson(self) -> Lesson:
        lesson = self.lesson.currentData()
        assert isinstance(lesson, Lesson)
        return lesson

    def begin(self) -> None:
        """Begins a lesson: something is put in, and what a tester noted before is told."""
        evaluation, lesson = self._evaluation(), self._lesson()
        tests = [test for test in evaluation.get(TESTS).tests if test.stage is not ProvingStage.INSULATION]
        panel = evaluation.get(DEAD_PANEL)
        self.seed += 1
        faults = lesson_faults(panel, tests, lesson, self.seed)
        bench = SimulatedPanel(panel, self.seed, faults)
        noted = noted_before(tests, lambda test: bench.ohm(test.state, test.black.pin, test.red.pin))
        planner = Planner(evaluation.get(PANEL_FACTS), panel)
        self.run = _Run(lesson, faults, bench, planner, noted) if faults else None
        self.said.setText("" if faults else "This panel has nothing of this kind.")
        states = dict.fromkeys([planner.off, planner.on, *(test.state for test in tests)])
        self.switches.clear()
        for state in list(states)[:MOST_STATES]:
            self.switches.addItem(_stands(planner.words(state)), state)
        choices = sorted({self._words((fault,)) for fault in single_faults(panel)}) if faults else []
        self.answer.clear()
        self.answer.addItems(choices)
        self.answer.setCurrentText("")
        completer = self.answer.completer()
        if completer:
            completer.setFilterMode(Qt.MatchFlag.MatchContains)
            completer.setCompletionMode(QCompleter.CompletionMode.PopupCompletion)
        self._show()

    def _label(self, pin: PinRef) -> str:
        return self.run.planner.point(pin).label if self.run else str(pin)

    def _words(self, faults: Faults) -> str:
        return fault_words(faults, self._label, self._evaluation().get(NAMES).tag)

    def _show(self) -> None:
        self.how_far.setText(self.progress.words(self._lesson()))
        run = self.run
        self.list.clear()
        if run is None:
            self.told.setText("Begin a lesson: a tester has read the cards in their order, until one failed.")
            self.reading.setText("–")
            return
        last = run.noted[-1]
        points = f"{self._label(last.black)} to {self._label(last.red)}"
        read = f"{points} reads {ohm_text(last.ohm)}"
        switches = _stands(run.planner.words(last.state))
        self.told.setText(f"{len(run.noted)} cards were read, the last one failed: {read}. Switches: {switches}")
        for probe in run.probes:
            points = f"{self._label(probe.black)} to {self._label(probe.red)}"
            self.list.addItem(f"{points}   {ohm_text(probe.ohm)}   {_stands(run.planner.words(probe.state))}")

    def touch(self) -> None:
        """Reads between the two points that are written."""
        run = self.run
        if run is None:
            self.said.setText("Begin a lesson first.")
            return
        pins = {run.planner.point(pin).label: pin for pin in run.planner.panel.pins}
        black, red = (pins.get(line.text().strip()) for line in (self.black, self.red))
        if black is None or red is None:
            missing = self.black.text() if black is None else self.red.text()
            self.said.setText(f"Nothing on this panel is called “{missing.strip()[:30]}”.")
            return
        state = self.switches.currentData()
        assert isinstance(state, SwitchState)
        probe = Probe(state, black, red, run.bench.ohm(state, black, red))
        run.probes.append(probe)
        self.said.setText("")
        self._show()
        self.reading.setText(ohm_text(probe.ohm))

    def hint(self) -> None:
        """Says how many things may be wrong, and puts the probe that tells most into the fields."""
        run = self.run
        if run is None:
            return
        run.hints += 1
        probes = [*run.noted, *run.probes]
        suspects = locate(run.planner.panel, probes)
        probe = next_probe(run.planner.panel, suspects, probes, [run.planner.off, run.planner.on])
        self.said.setText(f"{len(suspects)} things can be wrong." + (" Touch the two points." if probe else ""))
        if probe:
            self.black.setText(self._label(probe.black))
            self.red.setText(self._label(probe.red))
            self.switches.setCurrentIndex(0 if probe.state == run.planner.off else 1)

    def name_it(self) -> None:
        """Takes an answer; of two things at once each is named by itself."""
        run = self.run
        if run is None or not self.answer.currentText().strip():
            return
        named = self.answer.currentText().strip()
        truth = {self._words((fault,)) for fault in run.faults} | {self._words(run.faults)}
        alike = [s for s in locate(run.planner.panel, [*run.noted, *run.probes]) if run.faults in (s.faults, *s.alike)]
        truth |= {self._words(faults) for suspect in alike for faults in (suspect.faults, *suspect.alike)}
        if named not in truth:
            run.hints += 1
            self.said.setText(f"No. That costs {HINT_COST}.")
            return
        self._ended(score_of(run.planner.panel, run.noted, len(run.probes), run.hints, found=True))

    def give_up(self) -> None:
        """Shows what is wrong; the lesson does not count."""
        run = self.run
        if run is not None:
            self._ended(score_of(run.planner.panel, run.noted, len(run.probes), run.hints, found=False))

    def _ended(self, score: Score) -> None:
        run = self.run
        assert run is not None
        self.progress.add(run.lesson, score)
        words = self._words(run.faults)
        cost = f"{score.probes} probes, {score.hints} hints: a cost of {score.cost}, where {score.best} is the least."
        self.said.setText(f"{'Found' if score.found else 'It was'}: {words}. {cost}")
        self.run = None
        self._show()


def _stands(words: str) -> str:
    """How the switches stand, without what is so of every reading."""
    return words.removesuffix(NOT_CONNECTED).rstrip(". ")


def _button(text: str, tip: str, done: Callable[[], None]) -> QPushButton:
    button = QPushButton(text)
    button.setToolTip(tip)
    button.clicked.connect(lambda _=False: done())
    return button
