"""What people decided about clauses, and whether the evidence is still what lay before them."""

from collections.abc import Iterable

from riktig.core.records import ClauseJudged, Counted, Record, Slot, counted, slot_of
from riktig.core.rules.model import ClauseResult

__all__ = ["judgement_facts", "judgements_of"]


def judgement_facts(result: ClauseResult, reason: str) -> ClauseJudged:
    """What a judgement says: the reason, and the evidence it was made on.

    Args:
        result: The judgement of one clause.
        reason: Why, in the words of whoever did it.
    """
    return ClauseJudged(reason, "; ".join(result.evidence), result.title)


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
