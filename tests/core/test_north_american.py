"""A North American job is North American to the last line: clauses, sizes, torques, leads of motors, upstream."""

import re
from dataclasses import replace

import pytest

from riktig.core.exports.lists import LISTS, schedule
from riktig.core.job import Job, Override, Rulebook, Start, Supply, add_load, new_job, set_practice
from riktig.core.rules import CLAUSES, RULES, Verdict
from riktig.core.schematic import CIRCUITS, NETS, with_names_recorded
from riktig.core.simulation import Panel
from riktig.core.sizing import PROPOSAL
from riktig.core.standards import COMMON_PRACTICE, clamp_range, clause_source, torque_name
from riktig.core.terminals import STRIPS
from riktig.demo_job import demo_job
from tests.shared_plan import plan_for

EUROPEAN = re.compile(r"\b(IEC|EN|DIN|HD) ?\d")
METHODS = {"60890", "60947-3"}
"""Methods and tests of parts that North America has no figure of its own for: said as such where they are used."""


def mill(hp: float = 10.0, upstream: float = 60.0, **fields: object) -> Job:
    job = set_practice(new_job("T", "mill"), rulebook=Rulebook.UL)
    job = replace(job, supply=Supply(480.0, 277.0, 60.0, neutral=False, upstream_a=upstream), sources_asked=True)
    return with_names_recorded(add_load(job, "mill", hp=hp, **fields))  # type: ignore[arg-type]


@pytest.mark.parametrize("job", [demo_job("frost-fan"), mill(), mill(25.0, start=Start.STAR_DELTA)], ids=range(3))
def test_no_list_cites_a_european_standard(job: Job) -> None:
    evaluation = plan_for(job)
    cited = [
        text
        for name in LISTS
        if name not in ("practice", "loads", "market")
        for row in schedule(name, evaluation).rows
        for text in row
        if isinstance(text, str) and EUROPEAN.search(text) and not any(method in text for method in METHODS)
    ]
    assert cited == []


def test_every_clause_that_has_a_source_has_one_in_both_rulebooks() -> None:
    iec = {r.code: r.clause for r in plan_for(set_practice(mill(), rulebook=Rulebook.IEC)).get(RULES)}
    american = {r.code: r.clause for r in plan_for(mill()).get(RULES)}
    assert len(iec) == len(CLAUSES)
    listed = {code for code in iec if clause_source(code, north_american=False) != COMMON_PRACTICE}
    assert len(listed) > 35
    assert {code: iec[code] for code in listed} == {code: clause_source(code, north_american=False) for code in listed}
    assert {code: american[code] for code in listed} == {
        code: clause_source(code, north_american=True) for code in listed
    }


def test_the_leads_of_motors_are_t1_to_t3_and_t1_to_t6() -> None:
    """NEMA MG 1 section 2, from memory: windings T1-T4, T2-T5, T3-T6; in triangle T1-T6, T2-T4, T3-T5."""
    rows = {row.mark: row for strip in plan_for(mill()).get(STRIPS).strips for row in strip.rows}
    assert rows["T1"].field == "M1:T1"
    assert rows["T1"].number == "M1-T1"
    job = mill(25.0, start=Start.STAR_DELTA)
    of_pin = plan_for(job).get(NETS).of_pin
    pins = {(str(pin.device), pin.marking): net.id for pin, net in of_pin.items()}
    for pole, begins, ends in (("1", "T1", "T6"), ("3", "T2", "T4"), ("5", "T3", "T5")):
        assert pins[("c1.KD", str(int(pole) + 1))] == pins[("c1.M", ends)], f"{begins}-{ends}"


@pytest.mark.parametrize("start", [Start.DIRECT, Start.STAR_DELTA, Start.REVERSING])
def test_a_motor_with_leads_by_t_turns_as_one_with_u_v_w(start: Start) -> None:
    evaluation = plan_for(mill(25.0, start=start))
    circuits = evaluation.get(CIRCUITS)
    panel = Panel(circuits, evaluation.get(NETS), evaluation.document.supply, 120.0)
    motor = next(d for d in circuits.devices if d.kind.is_motor)
    button = next(d.id for d in circuits.devices if d.role == "S.start")
    panel.operator_state.pressed.add(button)
    panel.run_until_stable()
    assert panel.turns(motor.id) == ("star" if start is Start.STAR_DELTA else "forward")
    panel.wait(60.0)
    assert panel.turns(motor.id) == ("delta" if start is Start.STAR_DELTA else "forward")


def test_torques_and_clamps_are_in_the_units_of_the_job() -> None:
    """1 N·m = 8.8507 lb·in (NIST SP 811); 4 mm² lies between 12 and 10 AWG (ASTM B258)."""
    assert torque_name(0.8, awg=True) == "7.1 lb·in"
    assert torque_name(0.8, awg=False) == "0.8 N·m"
    assert clamp_range(0.5, 4.0, awg=True) == "18 to 12 AWG"
    assert clamp_range(0.5, 4.0, awg=False) == "0.5 to 4 mm²"
    wires = schedule("wires", plan_for(mill()))
    keys = [key for key, _ in wires.columns]
    assert "from_torque_lb_in" in keys
    assert all("AWG" in str(row[keys.index("size")]) for row in wires.rows)


def test_a_branch_breaker_is_no_larger_than_what_stands_ahead_of_it() -> None:
    """NEC 430.52: 40 hp at 480 V takes 52 A, 250 % is 130 A, next 150 A; behind 100 A that never opens first."""
    small = plan_for(mill(40.0, 100.0, start=Start.SOFT)).get(PROPOSAL).loads[0]
    large = plan_for(mill(40.0, 200.0, start=Start.SOFT)).get(PROPOSAL).loads[0]
    assert (small.amount("breaker"), large.amount("breaker")) == (100.0, 150.0)


def test_a_larger_one_chosen_by_the_builder_is_a_finding() -> None:
    job = mill(40.0, 100.0, start=Start.SOFT)
    job = replace(job, overrides=(Override(f"{job.loads[0].id}.breaker", 150.0, "as in the last panel"),))
    found = [f.message for r in plan_for(job).get(RULES) for f in r.findings if f.verdict is Verdict.FAILS]
    assert any("100 A stand ahead of it and open first" in message for message in found)
