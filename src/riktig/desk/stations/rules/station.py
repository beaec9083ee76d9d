"""The walk through the panel with every clause, its verdict and evidence, and what people decide about it."""

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QPushButton, QSplitter

from riktig.core.ids import CircuitId
from riktig.core.keys import Key
from riktig.core.records import ClauseJudged, Counted
from riktig.core.rules import (
    RULES,
    WALK_DRAWING,
    ClauseResult,
    Group,
    Verdict,
    circuit_at,
    found_circuits,
    group_of_key,
    is_as_found,
)
from riktig.core.schematic import CIRCUITS
from riktig.core.short_circuit import RATING_DRAWING
from riktig.core.wiring import WIRING
from riktig.desk.canvas import DrawingView
from riktig.desk.session import MANY_PINS, Session
from riktig.desk.stations.rules.clause_list import ClauseList
from riktig.desk.stations.rules.findings_page import FindingsPage
from riktig.desk.stations.rules.market_page import MarketPage
from riktig.desk.stations.rules.short_circuit_page import ShortCircuitPage
from riktig.desk.stations.rules.signing import Signing
from riktig.desk.theme import Theme
from riktig.desk.widgets import PageStack, Station, plain_label

__all__ = ["RulesStation"]

NOTICE = (
    "Riktig judges from what it knows; figures are quoted from memory and must be compared with the printed standards. "
    "Local codes and licensed practice decide."
)


class RulesStation(Station):
    """The picture of the walk above the clauses; pages for the short circuit, the other market, and findings."""

    needs = (RULES, RATING_DRAWING, WALK_DRAWING)
    aside_from = MANY_PINS

    waits_for = "Nothing to judge yet. The rulebook is applied to circuits, plate, door and wires as they are."

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._seen: dict[str, Verdict] = {}
        """The verdicts at the last look, by the code of the clause; of which file."""
        self._seen_of: object = None
        self._place: Group | CircuitId | None = None
        """What was clicked in the picture: the list shows what is about it."""
        self.signing = Signing(session)
        self.list = ClauseList(session, self.signing, self._was)
        self.walk = DrawingView("Walk through the panel")
        self.walk.clicked.connect(self.show_place)
        self.words = plain_label("", "second")
        self.pages = PageStack()
        split = QSplitter(Qt.Orientation.Vertical)
        split.addWidget(self.walk)
        split.addWidget(self.list)
        split.setSizes([300, 330])
        split.setStretchFactor(1, 1)
        self.short_circuit, self.market = ShortCircuitPage(session), MarketPage(session)
        self.findings = FindingsPage(session, self.signing)
        for page in (split, self.short_circuit, self.market, self.findings):
            self.pages.addWidget(page)
        self.clauses = self.button("Clauses", "The walk through the panel, and every clause with its evidence")
        self.rating = self.button("Short circuit", "What the panel may be connected to, and which part decides it")
        self.other = self.button("Other market", "What would have to change to sell it by the other rulebook")
        self.own = self.button("At the panel", "What somebody found at the panel, in his own words")
        for number, button in enumerate(self._turns):
            button.setCheckable(True)
            button.clicked.connect(lambda _=False, page=number: self.show_page(page))
        self.clauses.setChecked(True)
        self.only_open = self.button("Only what is open", "Leaves out the clauses that are met or signed for")
        self.only_open.setCheckable(True)
        self.only_open.toggled.connect(lambda _on: self.refresh())
        self.only_new = self.button("Without the old panel", "Leaves out what is about circuits that a survey found")
        self.only_new.setCheckable(True)
        self.only_new.toggled.connect(lambda _on: self.refresh())
        self.looked = self.button("Seen", "From now on says which verdicts have changed")
        self.looked.clicked.connect(lambda _=False: self.take_as_seen())
        self.whole = self.button("Whole panel", "Shows every clause again")
        self.whole.clicked.connect(lambda _=False: self.show_place(None))
        self.whole.hide()
        self.add_bar((*self._turns, self.only_open, self.only_new, self.looked, self.whole, self.words, None))
        self.add_body(self.pages)
        self.add_body(plain_label(NOTICE, "quiet", wraps=True), 0)

    @property
    def _turns(self) -> tuple[QPushButton, ...]:
        return self.clauses, self.rating, self.other, self.own

    def show_page(self, page: int) -> None:
        """Turns to the clauses, the short circuit, the other market or the findings at the panel."""
        self.pages.setCurrentIndex(page)
        for number, button in enumerate(self._turns):
            button.setChecked(number == page)
        for button in (self.only_open, self.looked):
            button.setVisible(page == 0)
        self.whole.setVisible(page == 0 and self._place is not None)
        self._offer_only_new()
        self.refresh()

    def _offer_only_new(self) -> None:
        """Only in a job with an old panel there is something to leave out."""
        offered = bool(found_circuits(self.session.job))
        self.only_new.setVisible(offered and self.pages.currentIndex() == 0)
        if not offered and self.only_new.isChecked():
            self.only_new.setChecked(False)

    def show_place(self, key: Key | None) -> None:
        """Shows what is about a place of the picture alone: a group of clauses, a circuit; None: everything."""
        group = group_of_key(key)
        self._place = group or circuit_at(key, self.session.evaluation.get(WIRING))
        self.whole.setVisible(self._place is not None)
        if group is None and key is not None:
            self.session.select(key)
        self.refresh()
        self.list.verticalScrollBar().setValue(0)

    def set_theme(self, theme: Theme) -> None:
        """Turns to another theme."""
        super().set_theme(theme)
        self.short_circuit.set_theme(theme)
        self.walk.set_theme(theme)

    def refresh(self) -> None:
        """Shows the verdicts of now."""
        page = self.pages.currentWidget()
        if page is self.short_circuit:
            self.short_circuit.refresh()
        elif page is self.market:
            self.market.refresh()
        elif page is self.findings:
            self.findings.refresh()
        self._offer_only_new()
        results = self.session.evaluation.get(RULES)
        if self._seen_of is not self.session.file or not self._seen:
            self._seen_of, self._seen = self.session.file, {result.code: result.verdict for result in results}
        changed = sum(self._was(result) is not None for result in results)
        told = f"  ·  {changed} changed since the last look" if changed else ""
        shown = [result for result in results if self._is_shown(result)]
        at = f"  ·  {len(shown)} about {self._place_name()}" if self._place else ""
        self.words.setText(f"{self.session.job.practice.rulebook.value}  ·  {len(results)} clauses{at}{told}")
        if page is not self.pages.widget(0):
            return
        self.walk.show_drawing(self.session.evaluation.get(WALK_DRAWING))
        self.list.show_results(shown)

    def _is_shown(self, result: ClauseResult) -> bool:
        if self.only_open.isChecked() and not self._is_open(result):
            return False
        if self.only_new.isChecked() and self._is_old(result):
            return False
        if self._place is None or isinstance(self._place, Group):
            return self._place in (None, result.group)
        wiring = self.session.evaluation.get(WIRING)
        return any(circuit_at(finding.where, wiring) == self._place for finding in result.findings)

    def _is_old(self, result: ClauseResult) -> bool:
        """Whether all that was found is about circuits that stood in the panel before."""
        circuits_found, wiring = found_circuits(self.session.job), self.session.evaluation.get(WIRING)
        return bool(result.findings) and all(
            is_as_found(finding, circuits_found, wiring) for finding in result.findings
        )

    def _place_name(self) -> str:
        if isinstance(self._place, Group):
            return f"“{self._place.value}”"
        titles = dict(self.session.evaluation.get(CIRCUITS).titles)
        return f"“{titles.get(self._place, '') if self._place else ''}”"

    def _is_open(self, result: ClauseResult) -> bool:
        """Whether it fails, or waits for a judgement that nobody has signed."""
        return result.verdict in (Verdict.FAILS, Verdict.JUDGE) and self.judgement_of(result) is None

    def _was(self, result: ClauseResult) -> Verdict | None:
        """The verdict at the last look, where it was another."""
        before = self._seen.get(result.code)
        return before if before is not None and before is not result.verdict else None

    def take_as_seen(self) -> None:
        """Takes the verdicts of now as looked at."""
        results = self.session.evaluation.get(RULES)
        self._seen = {result.code: result.verdict for result in results}
        self.list.show_results([result for result in results if self._is_shown(result)], anew=True)
        self.refresh()

    def judgement_of(self, result: ClauseResult) -> Counted[ClauseJudged] | None:
        """The judgement signed for a clause, while its evidence is still the same."""
        return self.signing.judgement_of(result)

    def sign(self, result: ClauseResult, reason: str) -> None:
        """Records a judgement; it holds while the evidence stays the same."""
        self.signing.sign(result, reason)

    def withdraw(self, result: ClauseResult, reason: str) -> None:
        """Takes a signature back."""
        self.signing.withdraw(result, reason)
