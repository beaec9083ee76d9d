"""Every clause with its verdict, evidence, remedy, and a person's judgement where it needs one."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFrame, QHBoxLayout, QInputDialog, QPushButton, QScrollArea, QVBoxLayout, QWidget

from riktig.core.edits import ApplyRemedy
from riktig.core.keys import Key
from riktig.core.production import may_not_sign
from riktig.core.records import ClauseJudged, Counted, NewRecord, TakenBack
from riktig.core.rules import RULES, ClauseResult, Finding, Group, QuickFix, Verdict, judgement_facts, judgements_of
from riktig.core.short_circuit import RATING_DRAWING
from riktig.desk.session import Session
from riktig.desk.stations.rules.market_page import MarketPage
from riktig.desk.stations.rules.short_circuit_page import ShortCircuitPage
from riktig.desk.theme import Theme, words_font
from riktig.desk.widgets import PageStack, Station, plain_label, replace_body

__all__ = ["RulesStation"]

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


@dataclass(slots=True)
class _Row:
    """A clause as it is shown."""

    result: ClauseResult
    signed: Counted[ClauseJudged] | None
    widget: QWidget
    layout: QVBoxLayout


class RulesStation(Station):
    """Grouped clauses; what fails stands open with its remedy."""

    needs = (RULES, RATING_DRAWING)

    waits_for = "Nothing to judge yet. The rulebook is applied to circuits, plate, door and wires as they are."

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._order: list[tuple[Group, str]] = []
        self._rows: list[_Row] = []
        self._seen: dict[str, Verdict] = {}
        """The verdicts at the last look, by the code of the clause; of which file."""
        self._seen_of: object = None
        self._page = QScrollArea()
        self._page.setWidgetResizable(True)
        self._page.setFrameShape(QFrame.Shape.NoFrame)
        self._page.setAccessibleName("Rulebook")
        self.words = plain_label("", "second")
        self.pages = PageStack()
        self.pages.addWidget(self._page)
        self.short_circuit = ShortCircuitPage(session)
        self.pages.addWidget(self.short_circuit)
        self.clauses = self.button("Clauses", "Every clause with its verdict and evidence")
        self.rating = self.button("Short circuit", "What the panel may be connected to, and which part decides it")
        self.only_open = self.button("Only what is open", "Leaves out the clauses that are met or signed for")
        self.only_open.setCheckable(True)
        self.only_open.toggled.connect(lambda _on: self._write(self.session.evaluation.get(RULES)))
        self.market = MarketPage(session)
        self.pages.addWidget(self.market)
        self.other = self.button("Other market", "What would have to change to sell it by the other rulebook")
        for number, button in enumerate((self.clauses, self.rating, self.other)):
            button.setCheckable(True)
            button.clicked.connect(lambda _=False, page=number: self.show_page(page))
        self.clauses.setChecked(True)
        self.looked = self.button("Seen", "From now on says which verdicts have changed")
        self.looked.clicked.connect(lambda _=False: self.take_as_seen())
        self.add_bar((self.clauses, self.rating, self.other, self.only_open, self.looked, self.words, None))
        self.add_body(self.pages)
        self.add_body(
            plain_label(
                "Riktig judges from what it knows; figures are quoted from memory and must be "
                "compared with the printed standards. Local codes and licensed practice decide.",
                "quiet",
                wraps=True,
            ),
            0,
        )

    def show_page(self, page: int) -> None:
        """Turns to the clauses, the short circuit or the other market."""
        self.pages.setCurrentIndex(page)
        for number, button in enumerate((self.clauses, self.rating, self.other)):
            button.setChecked(number == page)
        self.only_open.setVisible(page == 0)
        self.looked.setVisible(page == 0)
        self.refresh()

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.short_circuit.set_theme(theme)

    def refresh(self) -> None:
        """Shows the verdicts of now."""
        if self.pages.currentWidget() is self.short_circuit:
            self.short_circuit.refresh()
        elif self.pages.currentWidget() is self.market:
            self.market.refresh()
        results = self.session.evaluation.get(RULES)
        if self._seen_of is not self.session.file or not self._seen:
            self._seen_of, self._seen = self.session.file, {result.code: result.verdict for result in results}
        changed = sum(self._was(result) is not None for result in results)
        told = f"  ·  {changed} changed since the last look" if changed else ""
        self.words.setText(self.session.job.practice.rulebook.value + f"  ·  {len(results)} clauses{told}")
        order = [(result.group, result.code) for result in results]
        if order == self._order and not self.only_open.isChecked():
            for result, row in zip(results, self._rows, strict=True):
                self._show_in(row, result)
            return
        self._order = order
        self._write(results)

    def _was(self, result: ClauseResult) -> Verdict | None:
        """The verdict at the last look, where it was another."""
        before = self._seen.get(result.code)
        return before if before is not None and before is not result.verdict else None

    def take_as_seen(self) -> None:
        """Takes the verdicts of now as looked at."""
        results = self.session.evaluation.get(RULES)
        self._seen = {result.code: result.verdict for result in results}
        self._write(results)
        self.refresh()

    def _write(self, results: Sequence[ClauseResult]) -> None:
        """The whole page anew: another rulebook has other clauses."""
        rows: dict[int, _Row] = {}
        body = QWidget()
        body.setObjectName("paper")
        layout = QVBoxLayout(body)
        layout.setContentsMargins(4, 0, 12, 8)
        layout.setSpacing(4)
        whole = {id(result) for result in results if not self.only_open.isChecked() or self._is_open(result)}
        for group in Group:
            shown = [result for result in results if result.group is group and id(result) in whole]
            if not shown:
                continue
            head = plain_label(group.value)
            head.setFont(words_font(11, bold=True))
            head.setContentsMargins(0, 7, 0, 1)
            layout.addWidget(head)
            for result in shown:
                signed = self.judgement_of(result)
                rows[id(result)] = _Row(result, signed, self._clause(result), layout)
                layout.addWidget(rows[id(result)].widget)
        layout.addStretch(1)
        self._rows = [rows[id(result)] for result in results if id(result) in rows]
        replace_body(self._page, body)

    def _is_open(self, result: ClauseResult) -> bool:
        """Whether it fails, or waits for a judgement that nobody has signed."""
        return result.verdict in (Verdict.FAILS, Verdict.JUDGE) and self.judgement_of(result) is None

    def _show_in(self, row: _Row, result: ClauseResult) -> None:
        """Writes a clause anew where its verdict or its judgement is another."""
        signed = self.judgement_of(result)
        if row.result == result and row.signed == signed:
            return
        old, row.result, row.signed, row.widget = row.widget, result, signed, self._clause(result)
        row.layout.replaceWidget(old, row.widget)
        old.hide()
        old.deleteLater()

    def _clause(self, result: ClauseResult) -> QWidget:
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
        clause = plain_label(result.clause, "quiet", wraps=True)  # a long one breaks; the page is never wider
        clause.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignTop)
        top.addWidget(clause, 1)
        words.addLayout(top)
        evidence = "; ".join(result.grounds)
        shown = evidence if len(evidence) < 170 else evidence[:167] + "…"
        label = plain_label(shown, "quiet", wraps=True)
        label.setToolTip("\n".join(result.grounds))
        words.addWidget(label)
        for finding in result.findings:
            words.addWidget(self._finding(result, finding))
        line.addLayout(words, 1)
        return row

    def _finding(self, result: ClauseResult, finding: Finding) -> QWidget:
        card = QWidget()
        card.setObjectName("card")
        card.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        line = QHBoxLayout(card)
        line.setContentsMargins(9, 5, 9, 5)
        words = QVBoxLayout()
        words.addWidget(plain_label(finding.message, wraps=True))
        signed = self.judgement_of(result)
        text = finding.remedy
        if signed:
            what = "Deviation accepted" if signed.facts.deviation else "Signed"
            text = f"{what} by {signed.record.who}, {signed.record.when[:10]}: {signed.facts.reason}"
        elif earlier := judgements_of((result,), self.session.records).get(result.code):
            text = f"{text} {earlier.record.who} signed it on {earlier.record.when[:10]}, but {earlier.why_not}."
        words.addWidget(plain_label(text, "second", wraps=True))
        line.addLayout(words, 1)
        show = QPushButton("Show")
        show.clicked.connect(partial(self._show, finding.where))
        line.addWidget(show)
        if finding.quick_fix:
            quick_fix = QPushButton(finding.quick_fix.text)
            quick_fix.setObjectName("main")
            quick_fix.clicked.connect(partial(self._quick_fix, finding.quick_fix))
            line.addWidget(quick_fix)
        if signed is not None:
            back = QPushButton("Withdraw …")
            back.setToolTip("Takes the signature back, and says why; both stay on record")
            back.clicked.connect(partial(self._ask_why_back, result))
            line.addWidget(back)
        elif result.verdict is not Verdict.MEETS:
            fails = result.verdict is Verdict.FAILS
            sign = QPushButton("Deviation …" if fails else "Sign …")
            sign.setToolTip(
                "Accepts that it fails, with a reason that is printed" if fails else "A person judges, and says why"
            )
            sign.clicked.connect(partial(self._ask, result))
            line.addWidget(sign)
        return card

    def _show(self, key: Key | None, checked: bool = False) -> None:
        self.session.select(key)

    def _quick_fix(self, quick_fix: QuickFix, checked: bool = False) -> None:
        self.session.edit(quick_fix.text, ApplyRemedy(quick_fix))

    def judgement_of(self, result: ClauseResult) -> Counted[ClauseJudged] | None:
        """The judgement signed for a clause, while its evidence is still the same."""
        judgement = judgements_of((result,), self.session.records).get(result.code)
        return judgement if judgement and judgement.counts else None

    def _ask(self, result: ClauseResult, checked: bool = False) -> None:
        text, done = QInputDialog.getText(self, "Judgement", f"{result.title}: {_QUESTION[result.verdict]}")
        if done and text.strip():
            self.sign(result, text.strip())

    def _ask_why_back(self, result: ClauseResult, checked: bool = False) -> None:
        text, done = QInputDialog.getText(self, "Withdraw", f"{result.title}: why is the signature taken back?")
        if done and text.strip():
            self.withdraw(result, text.strip())

    def withdraw(self, result: ClauseResult, reason: str) -> None:
        """Takes a signature back; the clause waits for a judgement again, or fails without a deviation."""
        signed = self.judgement_of(result)
        refused = may_not_sign(self.session.who, self.session.job.people)
        if signed is None or refused:
            self.session.say(f"Nothing was withdrawn: {refused or 'nobody has signed it'}.", wrong=True)
            return
        back = TakenBack(f"judgement of {result.title}", reason)
        self.session.record_all([NewRecord(result.code, back, signed.record.id)])

    def sign(self, result: ClauseResult, reason: str) -> None:
        """Records a judgement; it holds while the evidence stays the same."""
        refused = may_not_sign(self.session.who, self.session.job.people)
        if refused:
            self.session.say(f"Nothing was signed: {refused}.", wrong=True)
            return
        self.session.record(result.code, judgement_facts(result, reason))
