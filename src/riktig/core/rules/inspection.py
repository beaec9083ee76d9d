"""What an inspector adds: findings in his own words, and which clauses were compared with the printed standard."""

from collections.abc import Iterable
from dataclasses import dataclass

from riktig.core.records import (
    ClauseCompared,
    Counted,
    FindingNoted,
    FindingSettled,
    Record,
    Slot,
    counted,
    log_of,
    slot_of,
)
from riktig.core.rules.model import ClauseResult

__all__ = ["NotedFinding", "comparison_facts", "comparisons_of", "findings_noted"]


@dataclass(frozen=True, slots=True)
class NotedFinding:
    """A finding that somebody noted at the panel, and how it was settled; None while it is open."""

    record: Record
    facts: FindingNoted
    settled: Record | None

    @property
    def is_open(self) -> bool:
        """Whether nobody has settled it."""
        return self.settled is None

    @property
    def how(self) -> str:
        """What was done about it; empty while it is open."""
        facts = self.settled.facts if self.settled else None
        return facts.how if isinstance(facts, FindingSettled) else ""


def findings_noted(records: Iterable[Record]) -> tuple[NotedFinding, ...]:
    """Every finding that was noted and not taken back, oldest first.

    Args:
        records: The log, oldest first.
    """
    log = log_of(records)
    settled = {how.finding: record for record, how in log.said(FindingSettled)}
    return tuple(NotedFinding(record, noted, settled.get(record.id)) for record, noted in log.said(FindingNoted))


def comparison_facts(result: ClauseResult, edition: str) -> ClauseCompared:
    """What a comparison says: what the clause cites, and the print that was read.

    Args:
        result: The judgement of one clause.
        edition: The standard, its edition and its print, in the words of whoever read it.
    """
    return ClauseCompared(result.clause, edition, result.title)


def comparisons_of(results: Iterable[ClauseResult], records: Iterable[Record]) -> dict[str, Counted[ClauseCompared]]:
    """The last comparison of each clause by its code; it counts while the clause cites the same.

    Args:
        results: The judgement of every clause.
        records: The log, oldest first.
    """
    present: dict[Slot, ClauseCompared] = {}
    for result in results:
        facts = comparison_facts(result, "")
        present[slot_of(result.code, facts)] = facts
    return {item.record.subject: item for item in counted(records, ClauseCompared, present)}
