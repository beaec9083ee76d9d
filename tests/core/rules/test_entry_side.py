"""P11: terminals stand where their cables come in; the site list names what is fitted beside a load."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.exports.lists import schedule
from riktig.core.job import (
    CircuitId,
    DeviceId,
    EntrySide,
    Isolation,
    Job,
    OwnDevice,
    OwnRung,
    Recipe,
    Start,
    add_load,
    new_job,
    set_enclosure,
)
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import NAMES, add_circuit, add_device, add_rung, set_param, with_names_recorded
from riktig.core.simulation import RESTARTS
from riktig.demo_job import DEMOS, demo_job


def clause(job: Job, code: str) -> ClauseResult:
    return next(r for r in plan_for(job).get(RULES) if r.code == code)


@pytest.mark.parametrize("name", DEMOS)
def test_a_planned_plate_has_its_terminals_where_the_cables_come_in(name: str) -> None:
    result = clause(demo_job(name), "P11")
    assert not result.findings and len(result.evidence) >= 2


@pytest.mark.parametrize("name", DEMOS)
def test_cables_that_come_in_at_the_other_side_cross_the_plate_and_a_person_decides(name: str) -> None:
    """Common practice, no source. The plate is kept as planned; only the answer in the Brief changes."""
    job = demo_job(name)
    other = EntrySide.TOP if job.enclosure.field_entry is EntrySide.BOTTOM else EntrySide.BOTTOM
    found = clause(set_enclosure(job, field_entry=other), "P11").findings
    assert found and all(f.verdict is Verdict.JUDGE for f in found)


@pytest.mark.parametrize("side", EntrySide)
def test_a_first_layout_follows_the_side_that_the_brief_gives(side: EntrySide) -> None:
    job = add_load(add_load(new_job("E", "entry"), "saw", 3.0), "fan", 1.1)
    job = set_enclosure(job, field_entry=side, entry=side, width=800.0, height=1000.0)
    assert not clause(with_names_recorded(job), "P11").findings


def site(job: Job) -> str:
    return " ".join(str(row[1]) for row in schedule("site", plan_for(job)).rows)


def test_an_isolator_beside_the_load_is_work_for_the_site() -> None:
    """IEC 60204-1 5.5 and 5.6, from memory; a leading contact for a drive: common practice, no source."""
    here = add_load(new_job("E", "entry"), "saw", 3.0, isolation=Isolation.LOCAL)
    assert "saw: fit a lockable isolator beside it, for at least 6." in site(here).replace("Saw", "saw")
    assert "opens first" not in site(here)
    drive = add_load(new_job("E", "entry"), "saw", 3.0, isolation=Isolation.LOCAL, start=Start.DRIVE)
    assert "opens first and stops the drive" in site(drive)
    assert "isolator beside" not in site(add_load(new_job("E", "entry"), "saw", 3.0))


def test_an_operator_says_whether_it_springs_back() -> None:
    rows = schedule("operators", plan_for(demo_job("kelp-shed"))).rows
    let_go = {str(row[3]).split(",")[0].split(" ")[0]: row[9] for row in rows if row[9]}
    assert set(let_go.values()) == {"stays", "springs back"}
    assert all(row[9] == "springs back" for row in rows if str(row[3]).startswith("push-button"))
    assert all(row[9] == "stays" for row in rows if "selector" in str(row[3]))


def main_contactor(switched_by: str) -> Job:
    job = add_circuit(add_load(new_job("E", "entry"), "saw", 3.0), Recipe.PHASE_MONITOR)
    circuit = next(c.id for c in job.circuits if c.recipe is Recipe.PHASE_MONITOR)
    job = set_param(set_param(job, circuit, "holds", "all loads"), circuit, "switched by", switched_by)
    return with_names_recorded(job)


@pytest.mark.parametrize("switched_by", ["a selector on the door", "the main switch alone"])
def test_a_main_contactor_comes_in_by_a_selector_or_with_the_main_switch(switched_by: str) -> None:
    evaluation = plan_for(main_contactor(switched_by))
    c11 = next(r for r in evaluation.get(RULES) if r.code == "C11")
    assert not c11.findings
    doors = {str(row[1]) for row in schedule("operators", evaluation).rows}
    assert ("SUPPLY OFF – ON" in doors) is (switched_by == "a selector on the door")
    assert evaluation.get(RESTARTS)


def test_both_ways_are_offered_to_the_builder() -> None:
    from riktig.core.schematic import circuit_template_of

    offered = {p.name: p.choices for p in circuit_template_of(Recipe.PHASE_MONITOR).params}
    assert offered["switched by"] == ("a selector on the door", "the main switch alone")


def doubtful(count: int) -> Job:
    """A panel with further earth studs on its plate, for parts that the builder does not trust."""
    job = add_load(new_job("E", "entry"), "saw", 3.0)
    for n in range(count):
        job = add_device(job, CircuitId("c1"), OwnDevice(f"E{n}", "stud", "plate", f"rail {n}"))
        job = add_rung(job, CircuitId("c1"), OwnRung(f"e{n}", f"rail {n}", "PE", f"@E{n}:1", "", "power"))
    return with_names_recorded(job)


@pytest.mark.parametrize("count", [1, 2, 4])
def test_a_further_earth_stud_has_its_place_its_hole_its_wire_and_its_test(count: int) -> None:
    """It hangs on the one tree of the protective conductor (IEC 60204-1 8.2.3, from memory)."""
    evaluation = plan_for(doubtful(count))
    tags = {evaluation.get(NAMES).tag[DeviceId(f"c1.E{n}")] for n in range(count)}
    for row in evaluation.get(RULES):
        assert not [f.message for f in row.findings if any(tag in f.message.split() for tag in tags)], row.code
    wires = [str(row) for row in schedule("wires", evaluation).rows]
    tests = [str(row) for row in schedule("tests", evaluation).rows]
    holes = [str(row) for row in schedule("holes", evaluation).rows]
    for tag in tags:
        assert sum(f"'{tag}:1'" in row for row in wires) == 1
        assert any(f"Bond of {tag}:1" in row for row in tests)
        assert any(f"'{tag}'" in row for row in holes)
