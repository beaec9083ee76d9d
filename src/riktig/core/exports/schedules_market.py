"""What would have to change to sell the panel in the other market: every clause of both rulebooks side by side."""

from collections.abc import Callable

from riktig.core.evaluation import Evaluation
from riktig.core.exports.schedule_model import Schedule, Value
from riktig.core.job import Job, Rulebook, set_practice
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import with_names_recorded

__all__ = ["SCHEDULES"]

MOST_TOLD = 3
"""Findings of a clause that are told whole (chosen by us: the rest is told when the job is turned to that market)."""
_ORDER = (Verdict.FAILS, Verdict.JUDGE, Verdict.MEETS, Verdict.NOT_APPLICABLE)


def _market(evaluation: Evaluation[Job]) -> Schedule:
    """The same job judged by the other rulebook; what fails there stands first.

    The whole panel is worked out anew with the parts and sections of the other market: it takes as long as opening it.
    """
    job = evaluation.document
    other = Rulebook.IEC if job.practice.rulebook.north_american else Rulebook.UL
    there = Evaluation(with_names_recorded(set_practice(job, rulebook=other))).get(RULES)
    here = {result.code: result for result in evaluation.get(RULES)}
    ranked = sorted(there, key=lambda result: _ORDER.index(result.verdict))
    rows = tuple(_row(here[result.code], result) for result in ranked)
    columns = (
        ("code", "Code"), ("title", "Clause"), ("here", "By this rulebook"), ("source_here", "Source"),
        ("there", "By the other"), ("source_there", "Source there"), ("change", "What would have to change"),
    )  # fmt: skip
    return Schedule("market", f"The same job judged by {other.value}", columns, rows)


def _row(here: ClauseResult, there: ClauseResult) -> tuple[Value, ...]:
    messages = list(dict.fromkeys(finding.message for finding in there.findings))
    remedies = dict.fromkeys(finding.remedy for finding in there.findings[:MOST_TOLD])
    more = [f"And {len(messages) - MOST_TOLD} more."] if len(messages) > MOST_TOLD else []
    change = " ".join([*messages[:MOST_TOLD], *more, *remedies])
    return (there.code, there.title, here.verdict.value, here.clause, there.verdict.value, there.clause, change)


SCHEDULES: dict[str, Callable[[Evaluation[Job]], Schedule]] = {"market": _market}
