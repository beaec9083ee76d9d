"""Room to grow: terminals at the end of each strip, and in the ducts (common practice, no source)."""

from math import ceil

import pytest
from tests.shared_plan import plan_for

from riktig.core.errors import ImpossibleValueError
from riktig.core.exports.lists import schedule
from riktig.core.job import Job, StripOrder, set_practice
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NAMES
from riktig.core.terminals import STRIPS
from riktig.core.wiring import DUCT_USES, WIRING, fill_limit
from riktig.demo_job import kelp_shed


def strips(job: Job) -> dict[str, tuple[int, int]]:
    """By tag: plain terminals that something lands on, and spare ones."""
    evaluation = plan_for(job)
    devices = evaluation.get(CIRCUITS).by_id
    count = {}
    for strip in evaluation.get(STRIPS).strips:
        plain = [row for row in strip.rows if devices[row.device].kind_id == "terminal"]
        spare = [row for row in plain if devices[row.device].purpose == "spare"]
        count[strip.tag] = (len(plain) - len(spare), len(spare))
    return count


@pytest.mark.parametrize("order", StripOrder)
@pytest.mark.parametrize("share", [0.1, 0.5])
def test_each_strip_of_a_circuit_ends_with_its_share_of_spare_terminals(order: StripOrder, share: float) -> None:
    found = strips(set_practice(kelp_shed(), spare_terminals=share, strip_order=order))
    with_plain = {tag: counts for tag, counts in found.items() if counts[0] and tag != "X1"}
    assert len(with_plain) > 3
    assert all(spare == ceil(share * used) for used, spare in with_plain.values())
    assert found["X1"][1] == 0


def test_spare_terminals_are_bought_marked_and_carry_no_wire() -> None:
    job = set_practice(kelp_shed(), spare_terminals=0.2)
    evaluation = plan_for(job)
    spare = [d for d in evaluation.get(CIRCUITS).devices if d.purpose == "spare"]
    marks = {(evaluation.get(NAMES).tag[d.id], d.mark) for d in evaluation.get(CIRCUITS).devices if d.strip}
    assert len(marks) == sum(bool(d.strip) for d in evaluation.get(CIRCUITS).devices)
    ends = {end.pin.device for wire in evaluation.get(WIRING).wires for end in (wire.start, wire.end)}
    assert spare and not ends & {d.id for d in spare}

    def terminals(of: Job) -> int:
        rows = schedule("bom", plan_for(of)).rows
        return sum(int(row[2] or 0) for row in rows if str(row[1]).startswith("feed-through terminal"))

    assert terminals(job) == terminals(kelp_shed()) + len(spare)


def test_spare_terminals_fail_no_clause_and_add_no_potential() -> None:
    def judged(job: Job) -> set[str]:
        return {
            f.message
            for result in plan_for(job).get(RULES)
            for f in result.findings
            if f.verdict is Verdict.FAILS and f.code[0] in "CEWN"
        }

    assert judged(set_practice(kelp_shed(), spare_terminals=0.2)) == judged(kelp_shed())


def test_a_duct_that_is_fuller_than_wanted_is_left_to_a_person_until_its_limit() -> None:
    """Half of what the fullest duct holds is asked for: more than other ways can make room for."""
    job = kelp_shed()
    fullest = max(use.share for use in plan_for(job).get(DUCT_USES))
    limit = fill_limit(job.practice).value
    assert 0 < fullest < limit
    for spare, asked in ((0.0, False), (1 - 0.5 * fullest / limit, True), (0.5 * (1 - fullest / limit), False)):
        results = plan_for(set_practice(job, spare_duct=min(spare, 0.9))).get(RULES)
        (findings,) = (result.findings for result in results if result.code == "P01")
        assert bool(findings) is asked
        assert all(f.verdict is Verdict.JUDGE for f in findings)


@pytest.mark.parametrize("name", ["spare_terminals", "spare_duct"])
def test_a_share_that_cannot_be_is_refused(name: str) -> None:
    with pytest.raises(ImpossibleValueError):
        set_practice(kelp_shed(), **{name: 0.95})  # type: ignore[arg-type]
