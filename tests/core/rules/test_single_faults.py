"""Every clause finds what breaks it, on a demonstration that was sound before; nothing sound is called broken."""

from collections import Counter
from dataclasses import replace

import pytest
from tests.core.rules.single_faults import DEMOS, FAULTS, Fault, sound, spoilt
from tests.shared_plan import plan_for

from riktig.core.rules import CLAUSES, RULES, ClauseResult, Verdict, View, apply_mend
from riktig.core.rules.applicability import why_not_applicable
from riktig.core.schematic import with_names_recorded

ORDER = [Verdict.NOT_APPLICABLE, Verdict.MEETS, Verdict.JUDGE, Verdict.FAILS]
"""From what asks for nothing to what must be mended."""
ALWAYS_BY_A_PERSON = {"C13", "M06", "M07", "M08"}
"""Asked for wherever something moves, and met by no panel: only a person decides."""


CLAUSE_OF = {clause(sound("drum")).code: clause for clause in CLAUSES}


def judged(view: View, code: str) -> ClauseResult:
    """One clause alone: a panel as spoilt is whole only in what that clause looks at."""
    result = CLAUSE_OF[code](view)
    return replace(result, not_applicable=result.not_applicable or why_not_applicable(code, view))


@pytest.mark.parametrize("fault", FAULTS, ids=lambda fault: f"{fault.code} {fault.name}")
def test_a_single_fault_is_found_by_its_clause(fault: Fault) -> None:
    before, after = judged(sound(fault.demo), fault.code), judged(spoilt(fault), fault.code)
    assert ORDER.index(before.verdict) < ORDER.index(after.verdict)
    assert after.verdict is fault.verdict, [finding.message for finding in after.findings]
    assert all(finding.message and finding.remedy for finding in after.findings)


MENDED = {"C23", "E24", "E35", "P12", "W13"}
"""Of the newer clauses those that offer to mend what is wrong themselves."""


@pytest.mark.parametrize(
    "fault",
    [fault for fault in FAULTS if fault.code in MENDED and fault.in_job and not fault.in_view],
    ids=lambda fault: f"{fault.code} {fault.name}",
)
def test_a_remedy_that_is_offered_mends(fault: Fault) -> None:
    assert fault.in_job
    job = with_names_recorded(fault.in_job(DEMOS[fault.demo]()))
    result = next(r for r in plan_for(job).get(RULES) if r.code == fault.code)
    fixes = [finding.quick_fix for finding in result.findings if finding.quick_fix]
    if fault.verdict is Verdict.FAILS or fault.code == "W13":
        assert fixes, fault.name
    for _ in range(3):
        if fixes:
            job = with_names_recorded(apply_mend(job, fixes[0]))
        result = next(r for r in plan_for(job).get(RULES) if r.code == fault.code)
        fixes = [finding.quick_fix for finding in result.findings if finding.quick_fix]
    assert not fixes
    assert result.verdict is not Verdict.FAILS


def test_every_clause_is_broken_by_some_fault() -> None:
    codes = {result.code for result in plan_for(DEMOS["drum"]()).get(RULES)}
    assert codes - {fault.code for fault in FAULTS} == ALWAYS_BY_A_PERSON
    assert len(FAULTS) >= 60
    assert max(Counter(fault.name for fault in FAULTS).values()) == 1


@pytest.mark.parametrize("demo", DEMOS)
def test_no_unbroken_demonstration_fails(demo: str) -> None:
    assert [r.code for r in plan_for(DEMOS[demo]()).get(RULES) if r.verdict is Verdict.FAILS] == []


def test_every_clause_is_met_or_signed_for_by_a_demonstration() -> None:
    """What breaks has been whole: each clause meets, or waits for a person, in one of the three; or does not apply."""
    verdicts = {demo: {r.code: r.verdict for r in plan_for(make()).get(RULES)} for demo, make in DEMOS.items()}
    for code in verdicts["drum"]:
        seen = {verdicts[demo][code] for demo in DEMOS}
        assert seen & {Verdict.MEETS, Verdict.NOT_APPLICABLE} or code in ALWAYS_BY_A_PERSON, code


def test_the_order_of_the_clauses_changes_no_verdict() -> None:
    view = sound("shed")
    forwards = {result.code: result for clause in CLAUSES for result in (clause(view),)}
    fresh = spoilt(Fault("nothing", "shed", "", Verdict.MEETS, in_view=lambda v: v))
    backwards = {result.code: result for clause in reversed(CLAUSES) for result in (clause(fresh),)}
    assert forwards == backwards
