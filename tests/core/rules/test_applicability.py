"""“Meets” is said only of what was looked at: a clause that finds nothing to look at does not apply, and says why."""

import re

import pytest
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share
from tests.shared_plan import plan_for

from riktig.core.job import Rulebook, add_load, new_job, set_practice
from riktig.core.rules import RULES, VIEW, ClauseResult, Verdict
from riktig.core.rules.applicability import why_not_applicable
from riktig.core.schematic import with_names_recorded
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

OF_NOTHING = re.compile(r"^(0 of 0|0 coils|0 lamps looked|0 motors followed|0 tanks|0 pairs|0 sockets|no jumpers)")


def results(name: str) -> dict[str, ClauseResult]:
    job = {"drum": wash_drum, "fan": frost_fan, "shed": kelp_shed}[name]()
    return {result.code: result for result in plan_for(job).get(RULES)}


def test_an_empty_panel_meets_nothing_of_loads() -> None:
    """By hand: without a load there is no overload, coil, lamp, socket, start or float to look at."""
    empty = {r.code: r for r in plan_for(with_names_recorded(new_job())).get(RULES)}
    for code in ("E04", "E05", "E10", "E15", "C01", "C06", "C07", "C13", "C14", "C15", "C20", "C21", "C22", "N03"):
        assert empty[code].verdict is Verdict.NOT_APPLICABLE, code
        assert empty[code].not_applicable


@pytest.mark.parametrize(
    ("name", "code", "verdict"),
    [
        ("drum", "E16", Verdict.NOT_APPLICABLE), ("fan", "E16", Verdict.MEETS),
        ("drum", "E20", Verdict.MEETS), ("fan", "E20", Verdict.NOT_APPLICABLE),
        ("drum", "E18", Verdict.NOT_APPLICABLE), ("fan", "E18", Verdict.MEETS), ("shed", "E18", Verdict.MEETS),
        ("drum", "C21", Verdict.NOT_APPLICABLE), ("shed", "C21", Verdict.MEETS),
        ("shed", "E15", Verdict.MEETS), ("fan", "E15", Verdict.NOT_APPLICABLE),
        ("drum", "N03", Verdict.NOT_APPLICABLE), ("shed", "N03", Verdict.MEETS),
        ("shed", "W10", Verdict.MEETS), ("drum", "W10", Verdict.NOT_APPLICABLE),
    ],
)  # fmt: skip
def test_a_clause_applies_where_there_is_something_to_look_at(name: str, code: str, verdict: Verdict) -> None:
    assert results(name)[code].verdict is verdict


@pytest.mark.parametrize("name", share(SAMPLES, 0)[::4])
def test_no_clause_of_any_job_meets_on_nothing(name: str) -> None:
    for result in plan_for(sample(name)).get(RULES):
        if result.verdict is Verdict.MEETS:
            assert result.evidence, result.code
            assert not OF_NOTHING.match(result.evidence[0]), (result.code, result.evidence)


def test_what_was_found_counts_whatever_the_table_says() -> None:
    """A clause that does not apply but found something stands with its findings."""
    view = plan_for(wash_drum()).get(VIEW)
    assert why_not_applicable("E16", view)
    assert why_not_applicable("X99", view) == ""
    for result in plan_for(with_names_recorded(add_load(new_job(), "fan", 1.5))).get(RULES):
        assert not (result.findings and result.verdict is Verdict.NOT_APPLICABLE)


def test_no_clause_of_a_north_american_job_cites_a_european_standard() -> None:
    """ISO 13849-1 and IEC 61131-3 are cited by NFPA 79 and by the controllers themselves."""
    for job in (frost_fan(), with_names_recorded(set_practice(kelp_shed(), rulebook=Rulebook.UL))):
        for result in plan_for(job).get(RULES):
            cited = result.clause.replace("ISO 13849-1", "")
            assert "IEC" not in cited, (result.code, result.clause)
            assert "EN " not in cited, (result.code, result.clause)
