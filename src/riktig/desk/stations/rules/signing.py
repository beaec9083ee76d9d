"""What people decide at the Rules station: judgements, deviations, withdrawals, comparisons, findings of their own."""

from riktig.core.inputs import same_person
from riktig.core.job import SignedBy
from riktig.core.keys import Key
from riktig.core.production import may_not_sign
from riktig.core.records import (
    ClauseCompared,
    ClauseJudged,
    Counted,
    FindingNoted,
    FindingSettled,
    NewRecord,
    TakenBack,
)
from riktig.core.rules import (
    ClauseResult,
    NotedFinding,
    Verdict,
    comparison_facts,
    comparisons_of,
    judgement_facts,
    judgements_of,
    signers_of,
)
from riktig.desk.session import Session

__all__ = ["Signing"]

NEEDS_TWO = 2


class Signing:
    """Asks who may, records it, and says why not.

    Args:
        session: The job at hand.
    """

    def __init__(self, session: Session) -> None:
        self._session = session

    def judgement_of(self, result: ClauseResult) -> Counted[ClauseJudged] | None:
        """The judgement signed for a clause, while its evidence is still the same and enough people have signed."""
        judgement = judgements_of((result,), self._session.records).get(result.code)
        return judgement if judgement and judgement.counts and not self.waits_for_second(result) else None

    def earlier(self, result: ClauseResult) -> Counted[ClauseJudged] | None:
        """The last judgement of a clause, whether it counts or not."""
        return judgements_of((result,), self._session.records).get(result.code)

    def waits_for_second(self, result: ClauseResult) -> str:
        """Who has signed a deviation that needs two; "" where it needs no second person, or has one."""
        two = self._session.job.practice.deviation_signed_by is SignedBy.TWO
        if not two or result.verdict is not Verdict.FAILS:
            return ""
        signers = signers_of(result, self._session.records)
        return signers[0] if len(signers) == 1 else ""

    def comparison_of(self, result: ClauseResult) -> Counted[ClauseCompared] | None:
        """With which print a clause was compared, while it still cites the same."""
        compared = comparisons_of((result,), self._session.records).get(result.code)
        return compared if compared and compared.counts else None

    def sign(self, result: ClauseResult, reason: str) -> None:
        """Records a judgement; it holds while the evidence stays the same."""
        first = self.waits_for_second(result)
        refused = may_not_sign(self._session.who, self._session.job.people)
        if not refused and first and same_person(first, self._session.who):
            refused = f"{first} has signed it, and a deviation needs two people"
        if refused:
            self._session.say(f"Nothing was signed: {refused}.", wrong=True)
            return
        self._session.record(result.code, judgement_facts(result, reason))

    def withdraw(self, result: ClauseResult, reason: str) -> None:
        """Takes a signature back; the clause waits for a judgement again, or fails without a deviation."""
        signed = self.earlier(result)
        refused = may_not_sign(self._session.who, self._session.job.people)
        if signed is None or not signed.counts or refused:
            self._session.say(f"Nothing was withdrawn: {refused or 'nobody has signed it'}.", wrong=True)
            return
        back = TakenBack(f"judgement of {result.title}", reason)
        self._session.record_all([NewRecord(result.code, back, signed.record.id)])

    def compare(self, result: ClauseResult, edition: str) -> None:
        """Records that what a clause cites was compared with a print."""
        if not self._session.who.strip():
            self._session.say("Nothing was recorded: nobody has said who compared.", wrong=True)
            return
        self._session.record(result.code, comparison_facts(result, edition))

    def note(self, text: str, key: Key | None, label: str, code: str = "") -> None:
        """Notes a finding of somebody's own, on what is chosen or on the panel as a whole."""
        if not text.strip() or not self._session.who.strip():
            why = "nobody has said who found it" if text.strip() else "it says nothing"
            self._session.say(f"The finding was not kept: {why}.", wrong=True)
            return
        self._session.record(str(key) if key else "panel", FindingNoted(text.strip(), label, code))

    def settle(self, noted: NotedFinding, how: str) -> None:
        """Says what was done about a finding; it stays on the list."""
        refused = may_not_sign(self._session.who, self._session.job.people)
        if refused or not how.strip():
            self._session.say(f"The finding stays open: {refused or 'it was not said what was done'}.", wrong=True)
            return
        self._session.record(noted.record.subject, FindingSettled(noted.record.id, noted.facts.text, how.strip()))
