"""A talk with somebody on site: one question at a time in words that anybody understands, and what may be wrong."""

from collections.abc import Callable

from PySide6.QtWidgets import (
    QComboBox,
    QDialog,
    QDialogButtonBox,
    QLineEdit,
    QListWidget,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from riktig.core.job import CircuitId
from riktig.core.proving import (
    ENERGISED,
    PANEL_FACTS,
    Sighting,
    TelephoneTable,
    likely_causes,
    next_question,
    telephone_table,
    what_nobody_does,
)
from riktig.core.records import PhoneTalk
from riktig.desk.session import Session
from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label, row_of

__all__ = ["TelephoneDialog"]

MOST_CAUSES = 8
"""Causes listed (chosen by us: a talk, no list)."""
NOTHING_MORE = "Nothing more can be told from outside: a skilled person must look."


class TelephoneDialog(QDialog):
    """Asks for what does not run, then question by question; the talk is kept on the record of the job.

    Args:
        session: The job of the panel that is spoken about, as built.
        parent: The station.
    """

    def __init__(self, session: Session, parent: QWidget | None = None) -> None:
        super().__init__(parent)
        self.session = session
        job = session.job
        self.setWindowTitle(f"By telephone: {job.number} {job.serial}".strip())
        self.answers: dict[str, bool] = {}
        self.asked: list[tuple[Sighting, str]] = []
        self._unsure: set[str] = set()
        self._table: TelephoneTable | None = None
        self.caller = QLineEdit()
        self.caller.setPlaceholderText("who is on site")
        self.caller.setAccessibleName("Who is on site")
        self.about = QComboBox()
        self.about.setAccessibleName("What does not run")
        loads = {load.id: load.name for load in job.loads}
        for circuit in session.job.circuits:
            if circuit.load in loads:
                self.about.addItem(loads[circuit.load], circuit.id)
        self.about.currentIndexChanged.connect(lambda _index: self.begin())
        self.question = plain_label("", wraps=True)
        self.question.setFont(words_font(17, bold=True))
        self.yes = _button("Yes", "What was asked is so", lambda: self.answer(seen=True))
        self.no = _button("No", "What was asked is not so", lambda: self.answer(seen=False))
        self.unsure = _button("Not known", "Asks another question", self.skip)
        self.list = QListWidget()
        self.list.setAccessibleName("What may be wrong")
        self.list.setWordWrap(True)
        self.skilled = plain_label("", wraps=True)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        buttons.rejected.connect(self.reject)
        keep = buttons.addButton("Keep this talk", QDialogButtonBox.ButtonRole.ActionRole)
        keep.clicked.connect(lambda _=False: self.keep())
        layout = QVBoxLayout(self)
        layout.addLayout(row_of((self.caller, self.about, None)))
        layout.addWidget(
            plain_label("Tell them first: " + " ".join(what_nobody_does(job.practice.reset_by)), "fails", wraps=True)
        )
        layout.addWidget(plain_label("Ask", "quiet"))
        layout.addWidget(self.question)
        layout.addLayout(row_of((self.yes, self.no, self.unsure, None)))
        layout.addWidget(plain_label("What may be wrong", "quiet"))
        layout.addWidget(self.list, 1)
        layout.addWidget(self.skilled)
        layout.addWidget(buttons)
        self.resize(620, 560)
        self.begin()

    def begin(self) -> None:
        """Begins the talk about a load anew."""
        self.answers, self.asked, self._unsure = {}, [], set()
        circuit = self.about.currentData()
        self._table = None
        if circuit is not None:
            evaluation = self.session.evaluation
            facts, energised = evaluation.get(PANEL_FACTS), evaluation.get(ENERGISED)
            self._table = telephone_table(facts, energised, CircuitId(str(circuit)))
        self._show()

    def _next(self) -> Sighting | None:
        if self._table is None:
            return None
        known = {**self.answers, **dict.fromkeys(self._unsure, False)}
        question = next_question(self._table, self.answers)
        if question is None or question.key not in known:
            return question
        left = (s for s in self._table.sightings if s.key not in known)
        return next(left, None)

    def _show(self) -> None:
        question = self._next()
        self.question.setText(question.question if question else NOTHING_MORE)
        for button in (self.yes, self.no, self.unsure):
            button.setEnabled(question is not None)
        causes = likely_causes(self._table, self.answers) if self._table else ()
        self.list.clear()
        for likely in causes[:MOST_CAUSES]:
            self.list.addItem(f"{likely.share:.0%}  {likely.cause.words}")
        if not causes:
            self.list.addItem("Nothing that is known here fits all answers: a skilled person must look.")
        self.skilled.setText(f"A skilled person: {causes[0].cause.skilled}" if causes else "")

    def answer(self, *, seen: bool) -> None:
        """Takes an answer, and asks on."""
        question = self._next()
        if question is not None:
            self.answers[question.key] = seen
            self.asked.append((question, "yes" if seen else "no"))
            self._show()

    def skip(self) -> None:
        """Leaves a question, and asks another."""
        question = self._next()
        if question is not None:
            self._unsure.add(question.key)
            self.asked.append((question, "not known"))
            self._show()

    def keep(self) -> None:
        """Keeps the talk on the record of the job."""
        causes = likely_causes(self._table, self.answers) if self._table else ()
        lines = " / ".join(f"{sighting.question} {answer}" for sighting, answer in self.asked)
        concluded = "; ".join(f"{likely.share:.0%} {likely.cause.words}" for likely in causes[:3])
        facts = PhoneTalk(self.about.currentText(), self.caller.text().strip(), lines, concluded)
        if self.session.record(f"talk:{self.about.currentData()}", facts):
            self.session.say(f"The talk about {facts.about} is kept.")
            self.accept()


def _button(text: str, tip: str, done: Callable[[], None]) -> QPushButton:
    button = QPushButton(text)
    button.setToolTip(tip)
    button.setAutoDefault(False)
    button.clicked.connect(lambda _=False: done())
    return button
