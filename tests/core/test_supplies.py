"""Supplies other than three phases of a star: what arrives, what is drawn, which voltages, colours and plates."""

from dataclasses import replace
from itertools import combinations

import pytest

from riktig.core.job import (
    Command,
    ControlSupply,
    Job,
    LoadKind,
    Recipe,
    Rulebook,
    Start,
    Supply,
    SupplySystem,
    add_load,
    change_load,
    new_job,
    set_practice,
)
from riktig.core.labels import LABELS, Medium
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NETS, SHEETS, add_circuit
from riktig.core.simulation import Panel
from riktig.core.sizing import PROPOSAL
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING
from tests.shared_plan import plan_for

ONE = Supply(230.0, 230.0, upstream_a=25.0, system=SupplySystem.ONE)
TWO = Supply(400.0, 230.0, neutral=False, upstream_a=25.0, system=SupplySystem.TWO)
SPLIT = Supply(240.0, 120.0, 60.0, upstream_a=50.0, system=SupplySystem.TWO)
HIGH = Supply(240.0, 120.0, 60.0, upstream_a=50.0, system=SupplySystem.HIGH_LEG)
CORNER = Supply(240.0, 120.0, 60.0, neutral=False, upstream_a=40.0, system=SupplySystem.CORNER)
NOT_OF_THE_SUPPLY = ("E24", "M01", "P0", "B03")
"""Nameplate, box and the feeder's most: not what is asked here."""


def job_on(supply: Supply) -> Job:
    job = replace(new_job("T", "shop"), supply=supply, sources_asked=True)
    if supply.frequency_hz == 60:
        job = set_practice(job, rulebook=Rulebook.UL)
    return job


def with_lamp(job: Job, name: str = "lamps", phase: int = 0) -> Job:
    job = add_load(job, name, 0.2, start=Start.WAY, command=Command.ALWAYS, run_lamp=False, trip_lamp=False)
    return change_load(job, job.loads[-1].id, kind=LoadKind.LIGHTING, phases=1, phase=phase)


def of_one_line(supply: Supply) -> Job:
    return with_lamp(add_load(job_on(supply), "pump", 0.37, phases=1))


def of_two_lines(supply: Supply) -> Job:
    return add_load(job_on(supply), "heater", 2.0, phases=2, kind=LoadKind.HEATER, start=Start.CONTACTOR)


def of_three_lines(supply: Supply) -> Job:
    job = add_load(job_on(supply), "mill", 2.2)
    return add_load(job, "carriage", 1.5, start=Start.REVERSING, command=Command.BOTH_WAYS)


JOBS = {
    "one": of_one_line(ONE),
    "one, direct": set_practice(of_one_line(ONE), control_supply=ControlSupply.DIRECT),
    "one, 24 V": set_practice(of_one_line(ONE), control_supply=ControlSupply.DC),
    "two": of_two_lines(TWO),
    "split": with_lamp(with_lamp(of_two_lines(SPLIT)), "more lamps"),
    "high leg": with_lamp(with_lamp(of_three_lines(HIGH)), "more lamps"),
    "corner": of_three_lines(CORNER),
    "one, passed on": of_one_line(replace(ONE, through_a=10.0)),
}
RECIPES = (
    Recipe.PHASE_MONITOR, Recipe.SURGE, Recipe.PHASE_LAMPS, Recipe.MAINTAINED, Recipe.SOCKET, Recipe.EMERGENCY_STOP,
)  # fmt: skip


@pytest.mark.parametrize(
    ("supply", "between", "to_earth"),
    [
        (Supply(400.0, 230.0), 400, (230.9, 230.9, 230.9)),
        (ONE, None, (230,)),
        (SPLIT, 240, (120, 120)),
        (Supply(208.0, 120.0, 60.0, system=SupplySystem.TWO), 208, (120, 120)),
        (HIGH, 240, (120, 207.8, 120)),
        (CORNER, 240, (240, 0, 240)),
    ],
)
def test_voltages_are_those_of_the_handbooks(
    supply: Supply, between: float | None, to_earth: tuple[float, ...]
) -> None:
    """A high leg has 208 V to the neutral of a 240/120 V delta; NEC 110.15 and handbooks, from memory."""
    phasors = supply.phasors()
    assert [abs(v) for v in phasors] == pytest.approx(to_earth, abs=0.2)
    assert [abs(a - b) for a, b in combinations(phasors, 2)] == pytest.approx(
        [between] * (len(phasors) * (len(phasors) - 1) // 2), abs=0.2
    )


@pytest.mark.parametrize("name", JOBS)
def test_nothing_fails_and_only_what_arrives_is_drawn(name: str) -> None:
    job = JOBS[name]
    evaluation = plan_for(job)
    failing = [f for r in evaluation.get(RULES) for f in r.findings if f.verdict is Verdict.FAILS]
    assert [f.message for f in failing if not f.code.startswith(NOT_OF_THE_SUPPLY)] == []
    incoming = next(s for s in evaluation.get(STRIPS).strips if s.purpose == "incoming supply")
    lines = job.supply.system.lines
    assert [row.mark for row in incoming.rows] == [
        *("L1", "L2", "L3")[:lines], *(["N"] if job.supply.neutral else []), "PE",
    ]  # fmt: skip
    assert not any(
        f"L{n}" in node for net in evaluation.get(NETS).nets for node in net.nodes for n in range(lines + 1, 4)
    )
    buses = {sheet.bus.nodes for sheet in evaluation.get(SHEETS).sheets if sheet.bus}
    assert {len(names) for names in buses} == {lines}


@pytest.mark.parametrize("recipe", RECIPES)
@pytest.mark.parametrize("name", ["one", "two"])
def test_every_circuit_that_can_be_added_works_on_fewer_lines(name: str, recipe: Recipe) -> None:
    evaluation = plan_for(add_circuit(JOBS[name], recipe))
    failing = [f for r in evaluation.get(RULES) for f in r.findings if f.verdict is Verdict.FAILS]
    assert [f.message for f in failing if not f.code.startswith(NOT_OF_THE_SUPPLY)] == []


@pytest.mark.parametrize("supply", [HIGH, CORNER])
def test_motors_turn_the_right_way_on_a_delta(supply: Supply) -> None:
    evaluation = plan_for(of_three_lines(supply))
    circuits = evaluation.get(CIRCUITS)
    panel = Panel(circuits, evaluation.get(NETS), supply, 120.0)
    motors = [d.id for d in circuits.devices if d.kind.is_motor]
    panel.operator_state.pressed |= {d.id for d in circuits.devices if d.role == "S.start"}
    panel.run_until_stable()
    assert [panel.turns(motor) for motor in motors] == ["forward", "forward"]


def test_no_lamp_hangs_on_the_high_leg() -> None:
    """NEC 110.15, from memory: the line with 208 V to ground feeds nothing between line and neutral, and is orange."""
    job = JOBS["high leg"]
    evaluation = plan_for(job)
    lines = dict(evaluation.get(PROPOSAL).incoming.on_line)
    assert [lines[load.id] for load in job.loads if load.phases == 1] == [(0,), (2,)]
    orange = {w.net for w in evaluation.get(WIRING).wires if w.colour == "orange"}
    nets = {net.id: net for net in evaluation.get(NETS).nets}
    assert orange
    assert {nets[net].line for net in orange} == {1}
    plates = [label.lines[1] for label in evaluation.get(LABELS).labels if label.medium is Medium.WARNING]
    assert "L2 has 208 V to ground." in plates


def test_the_earthed_corner_is_white_and_nothing_small_is_fused_on_it() -> None:
    """NEC 200.6 and 240.22, from memory: an earthed conductor is white and has no fuse of its own."""
    evaluation = plan_for(JOBS["corner"])
    nets = {net.id: net for net in evaluation.get(NETS).nets}
    power = [w for w in evaluation.get(WIRING).wires if nets[w.net].net_class.value == "power"]
    assert {w.colour for w in power if nets[w.net].line == 1} == {"white"}
    fuses = {d.id for d in evaluation.get(CIRCUITS).devices if d.kind_id == "fuse_two"}
    landed = {nets[w.net].line for w in power for end in (w.start, w.end) if end.pin.device in fuses}
    assert 1 not in landed


@pytest.mark.parametrize(
    ("supply", "said"),
    [
        (replace(ONE, neutral=False), "needs its neutral"),
        (replace(CORNER, neutral=True), "has no neutral"),
        (replace(HIGH, voltage_to_neutral_v=139.0), "middle of one side of a delta"),
    ],
)
def test_a_supply_that_cannot_be_is_questioned(supply: Supply, said: str) -> None:
    assert any(said in issue.text for issue in plan_for(job_on(supply)).get(PROPOSAL).issues)


def test_a_load_that_needs_more_lines_than_arrive_is_said_and_not_drawn() -> None:
    evaluation = plan_for(add_load(JOBS["one"], "big fan", 4.0))
    assert any("works on 3 lines, but the supply brings 1" in issue.text for issue in evaluation.get(PROPOSAL).issues)
    assert not any(d.circuit == "c3" for d in evaluation.get(CIRCUITS).devices)


NAMED = [(ONE, "1/N/PE"), (TWO, "2/PE"), (SPLIT, "2/N/PE"), (HIGH, "3/N/PE, L2 high"), (CORNER, "3/PE, L2 earthed")]


@pytest.mark.parametrize(("supply", "name"), NAMED)
def test_the_nameplate_says_what_arrives(supply: Supply, name: str) -> None:
    texts = [line for label in plan_for(job_on(supply)).get(LABELS).labels for line in label.lines]
    assert any(f"{name} {supply.voltage_name}" in line for line in texts)
