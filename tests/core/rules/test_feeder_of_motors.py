"""E24: the feeder of motors by NEC 430.62 and 240.6, worked by hand, from memory."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import Job, Protection, Rulebook, add_load, new_job, set_practice, set_supply
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import with_names_recorded
from riktig.core.standards import nec_branch_percent, nec_rating_above, nec_rating_below


def three_motors(upstream_a: float) -> Job:
    """25, 30 and 30 hp at 460 V: 34, 40 and 40 A by NEC table 430.250, as in the example of its annex D8."""
    job = set_practice(new_job("D-8", "feeder"), rulebook=Rulebook.UL)
    job = set_supply(job, voltage_v=480.0, voltage_to_neutral_v=277.0, frequency_hz=60.0, neutral=False)
    for hp in (25.0, 30.0, 30.0):
        job = add_load(job, f"{hp:g} hp", hp=hp, protection=Protection.BREAKER)
    return with_names_recorded(set_supply(job, upstream_a=upstream_a))


def clause(job: Job) -> ClauseResult:
    return next(result for result in plan_for(job).get(RULES) if result.code == "E24")


def test_the_largest_branch_and_the_sum_by_hand() -> None:
    """40 A × 250 % = 100 A; 100 + 34 + 40 = 174 A; the standard rating not above is 150 A."""
    assert nec_rating_above(40.0 * nec_branch_percent("inverse_time_breaker", phases=3).value) == 100.0
    assert nec_rating_below(100.0 + 34.0 + 40.0) == 150.0
    evidence = " ".join(clause(three_motors(150.0)).evidence)
    assert "by the largest guard that branch may have, 100 A, the feeder at 150 A" in evidence


@pytest.mark.parametrize(
    ("upstream", "verdict"), [(150.0, Verdict.MEETS), (175.0, Verdict.FAILS), (400.0, Verdict.FAILS)]
)
def test_one_rating_more_than_allowed_fails(upstream: float, verdict: Verdict) -> None:
    result = clause(three_motors(upstream))
    if verdict is Verdict.MEETS:
        assert result.verdict in (Verdict.MEETS, Verdict.JUDGE), "by smaller guards as fitted a person decides"
    else:
        assert result.verdict is verdict


def test_a_smaller_feeder_never_makes_it_worse() -> None:
    order = [Verdict.MEETS, Verdict.JUDGE, Verdict.FAILS]
    verdicts = [order.index(clause(three_motors(amps)).verdict) for amps in (100.0, 125.0, 150.0, 175.0, 225.0)]
    assert verdicts == sorted(verdicts)


def test_without_motors_and_in_europe_it_does_not_apply() -> None:
    europe = set_practice(three_motors(150.0), rulebook=Rulebook.IEC)
    assert clause(europe).verdict is Verdict.NOT_APPLICABLE
    empty = set_practice(new_job("E", "empty"), rulebook=Rulebook.UL)
    assert clause(with_names_recorded(empty)).verdict is Verdict.NOT_APPLICABLE
