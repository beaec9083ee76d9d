"""Feeder, branch and supplementary protection of a North American job (UL 508A, UL 489, UL 1077; from memory)."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import every_part_of, parts_of
from riktig.core.exports import schedule
from riktig.core.job import (
    Job,
    OwnPart,
    Protection,
    Recipe,
    Rulebook,
    Start,
    add_load,
    new_job,
    pick_part,
    set_part,
    set_practice,
    set_supply,
)
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import CIRCUITS, NAMES, add_circuit, with_names_recorded
from riktig.core.sizing import SIZING


def american() -> Job:
    """A job with every kind of guard that the templates know, on 208 V and 120 V to neutral."""
    job = set_practice(new_job(), rulebook=Rulebook.UL)
    job = set_supply(job, voltage_v=208.0, voltage_to_neutral_v=120.0, frequency_hz=60.0, upstream_a=100.0)
    job = add_load(job, "bilge fan", 2.2, protection=Protection.FUSES)
    job = add_load(job, "pump", 1.5, protection=Protection.PROTECTOR)
    job = add_load(job, "defrost", 1.5, start=Start.WAY, phases=1)
    job = add_load(job, "mixer", 4.0)
    for recipe in (Recipe.SIGNALLED_WAYS, Recipe.SOCKET, Recipe.MAINTAINED, Recipe.SURGE, Recipe.PHASE_LAMPS):
        job = add_circuit(job, recipe)
    return with_names_recorded(job)


def judged(job: Job) -> ClauseResult:
    return next(r for r in plan_for(job).get(RULES) if r.code == "E16")


def guards(job: Job) -> dict[str, str]:
    """The kind of every protective device, by its id."""
    return {str(d.id): d.kind_id for d in plan_for(job).get(CIRCUITS).devices if d.kind.is_protective}


def test_what_is_proposed_may_stand_where_it_stands() -> None:
    clause = judged(american())
    assert not clause.findings
    roles = {line.rpartition(" ")[2] for line in clause.evidence}
    assert roles == {"feeder", "branch"}
    assert len(clause.evidence) >= 14


@pytest.mark.parametrize("kind", ["breaker_signal", "rcd_breaker", "way_breaker", "motor_protector", "fuse"])
def test_a_part_of_the_other_market_in_a_branch_fails(kind: str) -> None:
    """European miniature breakers are supplementary protectors there at best (UL 1077, from memory)."""
    job = american()
    on_lines = [line.split()[0] for line in judged(job).evidence]
    evaluation = plan_for(job)
    tag = evaluation.get(NAMES).tag
    device = next(d for d in evaluation.get(CIRCUITS).devices if d.kind_id == kind and tag[d.id] in on_lines)
    other = parts_of(kind, north_american=False)[-1]
    assert not other.north_american
    clause = judged(pick_part(job, device.id, other.ref))
    assert [f.verdict for f in clause.findings] == [Verdict.FAILS]
    assert other.ref in clause.findings[0].message


def test_a_supplementary_link_guards_control_but_no_branch() -> None:
    job = american()
    assert {p.serves for p in parts_of("control_fuse", north_american=True)} == {"supplementary"}
    parts = plan_for(job).get(SIZING).parts
    assert "supplementary" in {part.serves for part in parts.values()}, "behind the control transformer"
    assert not judged(job).findings


def test_of_a_part_of_ones_own_a_person_judges() -> None:
    job = american()
    device = next(d for d in plan_for(job).get(CIRCUITS).devices if d.kind_id == "way_breaker")
    own = OwnPart("OWN-20", "way_breaker", "", 18, 85, 72, rated_a=20, min_mm2=1, max_mm2=16)
    clause = judged(pick_part(set_part(job, own), device.id, "OWN-20"))
    assert [f.verdict for f in clause.findings] == [Verdict.JUDGE]


def test_an_iec_job_knows_no_such_roles_and_no_such_parts() -> None:
    job = with_names_recorded(add_load(new_job(), "fan", 1.5))
    clause = judged(job)
    assert clause.verdict is Verdict.NOT_APPLICABLE
    assert "North American" in clause.grounds[0]
    assert not any(part.north_american for part in plan_for(job).get(SIZING).parts.values())


@pytest.mark.parametrize("rulebook", list(Rulebook))
def test_each_market_has_its_own_protective_parts(rulebook: Rulebook) -> None:
    for kind in ("control_breaker", "way_breaker", "breaker_two", "fuse", "fuse_two", "fuse_three", "fuse_switch"):
        offered = parts_of(kind, north_american=rulebook.north_american)
        assert offered
        assert {part.north_american for part in offered} == {rulebook.north_american}
        assert [part.rated_a for part in offered] == sorted(part.rated_a for part in offered)
        assert set(offered) < set(every_part_of(kind)), "a builder may pick of both"


def test_the_parts_list_has_the_handle_inside_and_the_links_of_the_fuse_switch() -> None:
    job = american()
    rows = schedule("bom", plan_for(job)).rows
    handles = [row for row in rows if str(row[1]).startswith("handle inside for ISO-")]
    assert [(row[2], row[4]) for row in handles] == [(1, "Q1")]
    # 2.2 kW is 3 hp: 10.6 A at 208 V (NEC Table 430.250); 175 % of it is 18.6 A, next fuse 20 A (240.6(A)).
    links = [row for row in rows if str(row[1]).startswith("fuse-link")]
    assert [(row[1], row[2]) for row in links] == [("fuse-link 20 A class J", 3)]
    assert not any(str(row[1]).startswith("handle inside") for row in schedule("bom", plan_for(iec_job())).rows)


def iec_job() -> Job:
    return with_names_recorded(add_load(new_job(), "fan", 1.5))
