"""Grouped clauses with verdict, evidence and what was found; what fails stands open with its remedy."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QHBoxLayout, QInputDialog, QPushButton, QScrollArea, QVBoxLayout, QWidget

from riktig.core.edits import ApplyRemedy
from riktig.core.keys import Key
from riktig.core.records import ClauseCompared, ClauseJudged, Counted
from riktig.core.rules import ClauseResult, Finding, Group, QuickFix, Verdict, found_circuits, is_as_found
from riktig.core.wiring import WIRING
from riktig.desk.session import Session
from riktig.desk.stations.rules.signing import Signing
from riktig.desk.theme import words_font
from riktig.desk.widgets import plain_label, replace_body

__all__ = ["ClauseList"]

_SIGNS = {
    Verdict.FAILS: ("✗", "fails"),
    Verdict.JUDGE: ("?", "judgement"),
    Verdict.MEETS: ("✓", "meets"),
    Verdict.NOT_APPLICABLE: ("–", "quiet"),
}
_QUESTION = {
    Verdict.FAILS: "it fails. Why may it stay so, who accepted it, and on what evidence?",
    Verdict.JUDGE: "what did you compare, and what do you decide?",
}
LONGEST_EVIDENCE = 170
"""Letters of the evidence in the list; the whole is said where the pointer rests (chosen by us: two lines)."""

Was = Callable[[ClauseResult], Verdict | None]


@dataclass(frozen=True, slots=True)
class _Decided:
    """What people said of a clause: the judgement that counts, who waits for a second, the print it was read in."""

    signed: Counted[ClauseJudged] | None
    first: str
    compared: Counted[ClauseCompared] | None


@dataclass(slots=True)
class _Row:
    """A clause as it is shown."""

    result: ClauseResult
    decided: _Decided
    widget: QWidget
    layout: QVBoxLayout


class ClauseList(QScrollArea):
    """The clauses, one below the other, in the order of the walk.

    Args:
        session: The job at hand.
        signing: What people decide.
        was: The verdict of a clause at the last look, where it was another.
    """

    def __init__(self, session: Session, signing: Signing, was: Was) -> None:
        super().__init__()
        self._session, self._signing, self._was = session, signing, was
        self._order: list[str] = []
        self._rows: list[_Row] = []
        self.setWidgetResizable(True)
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setAccessibleName("Rulebook")

    @property
    def codes(self) -> tuple[str, ...]:
        """The clauses that are shown, in order."""
        return tuple(self._order)

    def show_results(self, results: Sequence[ClauseResult], *, anew: bool = False) -> None:
        """Shows some clauses; those that are there already are written anew only where something is another.

        Args:
            results: In the order of the walk.
            anew: Whether the whole list is written anew.
        """
        order = [result.code for result in results]
        if order == self._order and not anew:
            for result, row in zip(results, self._rows, strict=True):
                self._show_in(row, result)
            return
        self._order = order
        body = QWidget()
        body.setObjectName("paper")
        layout = QVBoxLayout(body)
        layout.setContentsMargins(4, 0, 12, 8)
        layout.setSpacing(4)
        self._rows = []
        for group in Group:
            shown = [result for result in results if result.group is group]
            if not shown:
                continue
            head = plain_label(group.value)
            head.setFont(words_font(11, bold=True))
            head.setContentsMargins(0, 7, 0, 1)
            layout.addWidget(head)
            for result in shown:
                row = self._row(result, layout)
                self._rows.append(row)
                layout.addWidget(row.widget)
        if not results:
            layout.addWidget(plain_label("Nothing here: every clause is met, signed for, or does not apply.", "quiet"))
        layout.addStretch(1)
        replace_body(self, body)

    def _row(self, result: ClauseResult, layout: QVBoxLayout) -> _Row:
        decided = self._decided_of(result)
        return _Row(result, decided, self._clause(result, decided.compared), layout)

    def _decided_of(self, result: ClauseResult) -> _Decided:
        signing = self._signing
        return _Decided(signing.judgement_of(result), signing.waits_for_second(result), signing.comparison_of(result))

    def _show_in(self, row: _Row, result: ClauseResult) -> None:
        """Writes a clause anew where its verdict or what people said of it is another."""
        decided = self._decided_of(result)
        if row.result == result and row.decided == decided:
            return
        old = row.widget
        row.result, row.decided, row.widget = result, decided, self._clause(result, decided.compared)
        row.layout.replaceWidget(old, row.widget)
        old.hide()
        old.deleteLater()

    def _clause(self, result: ClauseResult, compared: Counted[ClauseCompared] | None) -> QWidget:
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(8, 1, 0, 1)
        line.setSpacing(8)
        sign, role = _SIGNS[result.verdict]
        mark = plain_label(sign, role)
        mark.setFont(words_font(12, bold=True))
        mark.setFixedWidth(18)
        line.addWidget(mark, 0, Qt.AlignmentFlag.AlignTop)
        words = QVBoxLayout()
        words.setSpacing(1)
        top = QHBoxLayout()
        top.setSpacing(10)
        top.addWidget(plain_label(result.title))
        top.addWidget(plain_label(result.verdict.value, role))
        before = self._was(result)
        if before is not None:
            top.addWidget(plain_label(f"was: {before.value}", "second"))
        read = f"; compared with {compared.facts.edition}, {compared.record.who}" if compared else ""
        clause = plain_label(f"{result.clause}{read}", "quiet", wraps=True)  # a long one breaks; the page is no wider
        clause.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
        top.addWidget(clause, 1)
        top.addWidget(self._compare_button(result, compared), 0, Qt.AlignmentFlag.AlignTop)
        words.addLayout(top)
        evidence = "; ".join(result.grounds)
        shown = evidence if len(evidence) < LONGEST_EVIDENCE else evidence[: LONGEST_EVIDENCE - 3] + "…"
        label = plain_label(shown, "quiet", wraps=True)
        label.setToolTip("\n".join(result.grounds))
        words.addWidget(label)
        for finding in result.findings:
            words.addWidget(self._finding(result, finding))
        line.addLayout(words, 1)
        return row

    def _compare_button(self, result: ClauseResult, compared: Counted[ClauseCompared] | None) -> QPushButton:
        button = QPushButton("✓ print" if compared else "Print …")
        button.setFlat(True)
        button.setAccessibleName(f"Compare “{result.title}” with the printed standard")
        button.setToolTip(
            f"Compared with {compared.facts.edition} by {compared.record.who}, {compared.record.when[:10]}"
            if compared
            else "Say with which print of the standard this clause was compared"
        )
        button.clicked.connect(partial(self._ask_print, result))
        return button

    def _finding(self, result: ClauseResult, finding: Finding) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        line = QHBoxLayout(card)
        line.setContentsMargins(9, 5, 9, 5)
        words = QVBoxLayout()
        job, wiring = self._session.job, self._session.evaluation.get(WIRING)
        old = "As found: " if is_as_found(finding, found_circuits(job), wiring) else ""
        words.addWidget(plain_label(f"{old}{finding.message}", wraps=True))
        words.addWidget(plain_label(self._decided(result, finding), "second", wraps=True))
        line.addLayout(words, 1)
        show = QPushButton("Show")
        show.clicked.connect(partial(self._show, finding.where))
        line.addWidget(show)
        if finding.quick_fix:
            quick_fix = QPushButton(finding.quick_fix.text)
            quick_fix.setObjectName("main")
            quick_fix.clicked.connect(partial(self._quick_fix, finding.quick_fix))
            line.addWidget(quick_fix)
        if self._signing.judgement_of(result) is not None:
            back = QPushButton("Withdraw …")
            back.setToolTip("Takes the signature back, and says why; both stay on record")
            back.clicked.connect(partial(self._ask_why_back, result))
            line.addWidget(back)
        elif result.verdict is not Verdict.MEETS:
            fails = result.verdict is Verdict.FAILS
            second = "Second signature …" if self._signing.waits_for_second(result) else "Deviation …"
            sign = QPushButton(second if fails else "Sign …")
            sign.setToolTip(
                "Accepts that it fails, with a reason that is printed" if fails else "A person judges, and says why"
            )
            sign.clicked.connect(partial(self._ask, result))
            line.addWidget(sign)
        return card

    def _decided(self, result: ClauseResult, finding: Finding) -> str:
        """What somebody decided about a finding, or what would mend it."""
        signed = self._signing.judgement_of(result)
        if signed:
            what = "Deviation accepted" if signed.facts.deviation else "Signed"
            return f"{what} by {signed.record.who}, {signed.record.when[:10]}: {signed.facts.reason}"
        if first := self._signing.waits_for_second(result):
            return f"{finding.remedy} {first} has accepted it; the practice asks for a second person."
        if earlier := self._signing.earlier(result):
            return (
                f"{finding.remedy} {earlier.record.who} signed it on {earlier.record.when[:10]}, but {earlier.why_not}."
            )
        return finding.remedy

    def _show(self, key: Key | None, checked: bool = False) -> None:
        self._session.select(key)

    def _quick_fix(self, quick_fix: QuickFix, checked: bool = False) -> None:
        self._session.edit(quick_fix.text, ApplyRemedy(quick_fix))

    def _ask(self, result: ClauseResult, checked: bool = False) -> None:
        text, done = QInputDialog.getText(self, "Judgement", f"{result.title}: {_QUESTION[result.verdict]}")
        if done and text.strip():
            self._signing.sign(result, text.strip())

    def _ask_why_back(self, result: ClauseResult, checked: bool = False) -> None:
        text, done = QInputDialog.getText(self, "Withdraw", f"{result.title}: why is the signature taken back?")
        if done and text.strip():
            self._signing.withdraw(result, text.strip())

    def _ask_print(self, result: ClauseResult, checked: bool = False) -> None:
        question = f"{result.title} rests on {result.clause}. Which standard, edition and print was it compared with?"
        text, done = QInputDialog.getText(self, "Compared with print", question)
        if done and text.strip():
            self._signing.compare(result, text.strip())
