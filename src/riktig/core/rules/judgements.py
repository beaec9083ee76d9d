"""What people decided about clauses, and whether the evidence is still what lay before them."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.inputs import same_person
from riktig.core.job import SignedBy
from riktig.core.records import ClauseJudged, Counted, Record, Slot, counted, log_of, slot_of
from riktig.core.rules.model import ClauseResult, Verdict

__all__ = ["StandOfClauses", "judgement_facts", "judgements_of", "signers_of", "stand_of_clauses"]

NEEDS_TWO = 2


@dataclass(frozen=True, slots=True)
class StandOfClauses:
    """How the clauses stand with what people decided: what fails, what was accepted, what waits for somebody.

    ``failing`` fails without a deviation, ``deviating`` with one; ``waiting`` needs a judgement that nobody has signed
    on the present evidence, ``judged`` has one.
    """

    failing: tuple[ClauseResult, ...]
    deviating: tuple[ClauseResult, ...]
    waiting: tuple[ClauseResult, ...]
    judged: tuple[ClauseResult, ...]

    @property
    def is_open(self) -> bool:
        """Whether anything fails without a deviation, or waits for a judgement."""
        return bool(self.failing or self.waiting)


def stand_of_clauses(
    results: Iterable[ClauseResult], records: Iterable[Record], signed_by: SignedBy = SignedBy.ONE
) -> StandOfClauses:
    """The clauses with what people decided about them.

    Args:
        results: The judgement of every clause.
        records: The log, oldest first.
        signed_by: How many people have to accept what fails.
    """
    every, log = tuple(results), log_of(records)
    counts = {code for code, judged in judgements_of(every, log).items() if judged.counts}
    if signed_by is SignedBy.TWO:
        failing = [result for result in every if result.verdict is Verdict.FAILS and result.code in counts]
        counts -= {result.code for result in failing if len(signers_of(result, log)) < NEEDS_TWO}

    def of(verdict: Verdict, *, signed: bool) -> tuple[ClauseResult, ...]:
        return tuple(r for r in every if r.verdict is verdict and (r.code in counts) is signed)

    return StandOfClauses(
        of(Verdict.FAILS, signed=False), of(Verdict.FAILS, signed=True),
        of(Verdict.JUDGE, signed=False), of(Verdict.JUDGE, signed=True),
    )  # fmt: skip


def signers_of(result: ClauseResult, records: Iterable[Record]) -> tuple[str, ...]:
    """Who signed a clause on the evidence of now, each person once, in the order in which they did.

    Args:
        result: The judgement of one clause.
        records: The log, oldest first.
    """
    present = judgement_facts(result, "")
    names: list[str] = []
    for record in log_of(records).about(result.code):
        facts = record.facts
        if not isinstance(facts, ClauseJudged):
            continue
        same = facts.evidence == present.evidence and facts.deviation == present.deviation
        if same and not any(same_person(name, record.who) for name in names):
            names.append(record.who)
    return tuple(names)


def judgement_facts(result: ClauseResult, reason: str) -> ClauseJudged:
    """What a judgement says: the reason, and the evidence it was made on; of a clause that fails also what fails.

    Args:
        result: The judgement of one clause.
        reason: Why, in the words of whoever did it.
    """
    deviation = result.verdict is Verdict.FAILS
    messages = tuple(finding.message for finding in result.findings) if deviation else ()
    return ClauseJudged(reason, "; ".join((*result.evidence, *messages)), result.title, deviation)


def judgements_of(results: Iterable[ClauseResult], records: Iterable[Record]) -> dict[str, Counted[ClauseJudged]]:
    """The last judgement of each clause by its code; it counts while the evidence is the same.

    Args:
        results: The judgement of every clause.
        records: The log, oldest first.
    """
    present: dict[Slot, ClauseJudged] = {}
    for result in results:
        facts = judgement_facts(result, "")
        present[slot_of(result.code, facts)] = facts
    return {item.record.subject: item for item in counted(records, ClauseJudged, present)}
