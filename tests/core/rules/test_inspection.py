"""What people add to the clauses: two signatures where the practice asks for two, comparisons with print, findings."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.exports.record import inspection_record, judgement_record
from riktig.core.handover import missing_words
from riktig.core.job import Job, Rulebook, SignedBy, set_practice, set_supply
from riktig.core.records import FindingNoted, FindingSettled, Record, TakenBack
from riktig.core.rules import (
    RULES,
    ClauseResult,
    Finding,
    Verdict,
    comparison_facts,
    comparisons_of,
    findings_noted,
    judgement_facts,
    signers_of,
    stand_of_clauses,
)
from riktig.core.rules.model import with_the_rest
from riktig.demo_job import wash_drum

WHEN = "2026-12-01T10:00:00"


def weak(**practice: object) -> Job:
    """The wash drum on a supply that gives more than it bears."""
    return set_practice(set_supply(wash_drum(), fault_ka=25.0), **practice)  # type: ignore[arg-type]


def rating(job: Job) -> ClauseResult:
    return next(result for result in plan_for(job).get(RULES) if result.code == "E07")


def signed(result: ClauseResult, *names: str) -> list[Record]:
    facts = judgement_facts(result, "fuses upstream")
    return [Record(f"r{n}", result.code, facts, name, WHEN, n) for n, name in enumerate(names, 1)]


@pytest.mark.parametrize(
    ("by", "names", "accepted"),
    [
        (SignedBy.ONE, (), False), (SignedBy.ONE, ("Ida",), True),
        (SignedBy.TWO, ("Ida",), False), (SignedBy.TWO, ("Ida", "Ida"), False), (SignedBy.TWO, ("Ida", "IDA "), False),
        (SignedBy.TWO, ("Ida", "Per"), True), (SignedBy.TWO, ("Ida", "Per", "Ida"), True),
    ],
)  # fmt: skip
def test_nobody_signs_twice_what_needs_two(by: SignedBy, names: tuple[str, ...], accepted: bool) -> None:
    job = weak(deviation_signed_by=by)
    result, records = rating(job), signed(rating(job), *names)
    stand = stand_of_clauses((result,), records, by)
    assert bool(stand.deviating) is accepted
    assert bool(stand.failing) is not accepted
    line = "clause “Short-circuit rating” fails, a deviation is signed"
    assert (line in missing_words(plan_for(job), records)) is accepted


def test_a_signature_taken_back_or_on_other_evidence_is_none() -> None:
    result = rating(weak())
    records = signed(result, "Ida", "Per")
    back = Record("r9", result.code, TakenBack("judgement", "another machine"), "Per", WHEN, 9, "r2")
    assert signers_of(result, records) == ("Ida", "Per")
    assert signers_of(result, [*records, back]) == ("Ida",)
    other = rating(set_supply(weak(), fault_ka=30.0))
    assert signers_of(other, records) == ()


def test_what_only_a_person_decides_needs_one_whatever_the_practice() -> None:
    result = next(r for r in plan_for(wash_drum()).get(RULES) if r.code == "M08")
    stand = stand_of_clauses((result,), signed(result, "Ida"), SignedBy.TWO)
    assert stand.judged == (result,)


def test_a_comparison_with_print_counts_while_the_clause_cites_the_same() -> None:
    results = {r.code: r for r in plan_for(wash_drum()).get(RULES)}
    facts = comparison_facts(results["E02"], "EN 60204-1:2018, print of 2019")
    log = [Record("p1", "E02", facts, "Ida", WHEN, 1)]
    (compared,) = comparisons_of(results.values(), log).values()
    assert compared.counts
    assert compared.facts.edition == "EN 60204-1:2018, print of 2019"
    american = plan_for(set_practice(wash_drum(), rulebook=Rulebook.UL)).get(RULES)
    (other,) = comparisons_of(american, log).values()
    assert "it now rests on NFPA 79" in other.why_not, "another book was read"
    rows = judgement_record(plan_for(wash_drum()), log).rows
    assert (
        "E02",
        "Main switch",
        "compared with print: EN 60204-1:2018, print of 2019",
        "Ida",
        WHEN[:16],
        "counts",
    ) in rows


def test_a_finding_at_the_panel_is_open_until_somebody_says_what_was_done() -> None:
    job = wash_drum()
    note = Record("f1", "device:c1.K", FindingNoted("the cover is cracked", "K1"), "Ida", WHEN, 1)
    other = Record("f2", "panel", FindingNoted("a screw lies in the box"), "Ida", WHEN, 2)
    settled = Record("f3", "device:c1.K", FindingSettled("f1", "the cover is cracked", "cover changed"), "Per", WHEN, 3)
    assert [n.is_open for n in findings_noted([note, other])] == [True, True]
    first, second = findings_noted([note, other, settled])
    assert (first.how, first.is_open, second.is_open) == ("cover changed", False, True)
    missing = missing_words(plan_for(job), [note, other, settled])
    assert "finding “a screw lies in the box” is open" in missing
    assert not any("cracked" in line for line in missing)
    back = Record("f4", "panel", TakenBack("finding", "it was the lamp's"), "Ida", WHEN, 4, "f2")
    assert len(findings_noted([note, other, settled, back])) == 1
    reopened = Record("f5", "device:c1.K", TakenBack("settled", "cracked again"), "Per", WHEN, 5, "f3")
    assert findings_noted([note, settled, reopened])[0].is_open
    rows = inspection_record(plan_for(job), [note, other, settled]).rows
    assert [(row[0], row[1], row[5], row[6]) for row in rows] == [
        ("the cover is cracked", "K1", "cover changed", "Per"), ("a screw lies in the box", "", "open", ""),
    ]  # fmt: skip


def test_a_deviation_that_becomes_a_judgement_is_signed_anew() -> None:
    result = rating(weak())
    passed = replace(result, findings=())
    assert signers_of(passed, signed(result, "Ida")) == ()


@pytest.mark.parametrize(
    ("count", "shown", "last"),
    [(0, 0, ""), (6, 6, "5"), (7, 6, "5 And 1 more like it."), (40, 6, "5 And 34 more like it.")],
)
def test_what_is_not_named_is_counted(count: int, shown: int, last: str) -> None:
    findings = with_the_rest([Finding("E31", Verdict.FAILS, str(n), None, "", "") for n in range(count)], 6)
    assert len(findings) == shown
    assert (findings[-1].message if findings else "") == last
