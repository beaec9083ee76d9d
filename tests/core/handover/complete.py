"""A wash drum of which everything was done: parts, wires, tests, clauses, labels, issue, papers, dispatch, site."""

from collections.abc import Iterable
from functools import cache

from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports import site_items
from riktig.core.handover import issue_entry, papers_entry, site_entry
from riktig.core.job import Job, set_heading
from riktig.core.labels import LABELS, Medium, print_entries
from riktig.core.production import WORK, tick_facts
from riktig.core.proving import LIVE_PLAN, TESTS, Outcome, live_facts, reading_facts
from riktig.core.records import Facts, LiveReleased, NewRecord, Operation, Record
from riktig.core.rules import RULES, Verdict, judgement_facts
from riktig.core.schematic import with_names_recorded
from riktig.core.wiring import WIRING
from riktig.demo_job import wash_drum

__all__ = ["METER", "WHEN", "as_log", "complete_entries", "drum"]

METER = "M-34 4711, calibrated to 2999-12-31"
WHEN = "2026-12-01T08:00:00+00:00"


@cache
def drum() -> Evaluation[Job]:
    """The wash drum with everything on its nameplate that its maker has to say."""
    job = set_heading(
        wash_drum(), maker="Shop", serial="0417-01", drawing_number="KS-0417-10", title="Wash drum", made="2026-12",
        standard="IEC 61439-2",
    )  # fmt: skip
    return plan_for(with_names_recorded(job))


def complete_entries(evaluation: Evaluation[Job]) -> list[NewRecord]:
    """Every entry that a finished panel has, in the order in which it is made."""
    facts_of: list[tuple[str, Facts]] = [
        (wire.key, tick_facts(wire, operation)) for wire in evaluation.get(WIRING).wires for operation in Operation
    ]
    facts_of += [(task.subject, task.facts) for task in evaluation.get(WORK)]
    facts_of += [
        (test.key, reading_facts(test, Outcome.PASSED, ohm=max(test.expected.low, 0.25), meter=METER, zero=0.2))
        for test in evaluation.get(TESTS).tests
    ]
    facts_of.append(("live tests", LiveReleased("Ola")))
    facts_of += [
        (step.key, live_facts(step, Outcome.PASSED, f"{step.low:g}" if step.unit and step.low is not None else "",
                              "23.1" if step.trimmed else "", METER if step.unit else ""))
        for step in evaluation.get(LIVE_PLAN)
    ]  # fmt: skip
    facts_of += [
        (result.code, judgement_facts(result, "looked at"))
        for result in evaluation.get(RULES)
        if result.verdict in (Verdict.JUDGE, Verdict.FAILS)
    ]
    entries = [NewRecord(subject, facts) for subject, facts in facts_of]
    for medium in Medium:
        entries += print_entries(evaluation.get(LABELS), medium)
    job = evaluation.document
    entries.append(issue_entry(job, "for the customer", document=1, entries=len(entries)))
    entries.append(papers_entry(job, 80, "/papers"))
    entries += [site_entry(what, "done") for what, _why in site_items(evaluation)]
    return entries


def as_log(entries: Iterable[NewRecord], who: str = "Ida") -> list[Record]:
    """The entries as a log."""
    return [
        Record(f"r{number}", entry.subject, entry.facts, who, WHEN, 1, entry.corrects)
        for number, entry in enumerate(entries)
    ]
