"""What watches the supply: leads of surge protectors, lamps of phases, sockets behind the main contactor."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can
from riktig.core.job import (
    DeviceId,
    Job,
    OwnPart,
    Param,
    Recipe,
    Start,
    add_load,
    circuit_inputs,
    new_job,
    pick_part,
    set_enclosure,
    set_part,
    set_supply,
)
from riktig.core.proving import LIVE_PLAN
from riktig.core.rules import RULES, VIEW, ClauseResult, Verdict
from riktig.core.rules.supply_watch import surge_leads
from riktig.core.schematic import CIRCUITS, NAMES, add_circuit, all_circuits, with_names_recorded
from riktig.core.simulation import behaviour_of
from riktig.core.wiring import WiringStage


def plant(*recipes: Recipe | tuple[Recipe, Param], motors: int = 2) -> Job:
    job = set_enclosure(new_job("W", "watched"), width=1000.0, height=1400.0, plate_width=950.0, plate_height=1350.0)
    job = set_supply(job, upstream_a=40.0)
    for n in range(motors):
        job = add_load(job, f"fan {n}", 1.5)
    for recipe in recipes:
        kind, params = (recipe[0], (recipe[1],)) if isinstance(recipe, tuple) else (recipe, ())
        job = add_circuit(job, kind, "more", params)
    return with_names_recorded(job)


def clause(job: Job, code: str) -> ClauseResult:
    return next(r for r in plan_for(job).get(RULES) if r.code == code)


def test_the_leads_of_a_surge_protector_are_measured_on_the_wires_as_they_run() -> None:
    """The longest wire of each stretch: to its fuses, from them to it, and from it to earth."""
    view = plan_for(plant(Recipe.SURGE)).get(VIEW)
    stretches = [0.0, 0.0, 0.0]
    for wire in view.wiring.wires:
        ends = {wire.start.pin.device, wire.end.pin.device}
        if ends & {"c100.F", "c100.SP"} and "c100.FC" not in ends and wire.stage is not WiringStage.DOOR:
            earth = wire.colour == "green-yellow"
            place = 2 if earth else 1 if ends == {"c100.F", "c100.SP"} else 0 if "c100.F" in ends else None
            if place is not None:
                stretches[place] = max(stretches[place], wire.length)
    assert all(stretches)
    result = surge_leads(view)
    assert result.evidence == (f"{view.tag(DeviceId('c100.SP'))}: leads of {sum(stretches) / 1000:.1f} m together",)
    assert [f.verdict for f in result.findings] == [Verdict.JUDGE] * int(sum(stretches) > 500)


@pytest.mark.parametrize(("mm", "findings"), [(160.0, 0), (170.0, 1)])
def test_half_a_metre_is_the_limit_for_all_of_them_together(mm: float, findings: int) -> None:
    view = plan_for(plant(Recipe.SURGE)).get(VIEW)
    short = tuple(replace(wire, length=mm) for wire in view.wiring.wires)
    result = surge_leads(replace(view, wiring=replace(view.wiring, wires=short)))
    assert len(result.findings) == findings


def test_without_a_surge_protector_nothing_is_claimed() -> None:
    result = clause(plant(), "E17")
    assert not result.findings
    assert result.evidence == ("no surge protector is drawn",)


@pytest.mark.parametrize(
    ("recipes", "motors", "findings"),
    [
        ((Recipe.PHASE_LAMPS,), 2, 1),
        ((Recipe.PHASE_LAMPS,), 0, 0),
        ((Recipe.PHASE_LAMPS, Recipe.PHASE_MONITOR), 2, 0),
        ((), 2, 0),
    ],
)
def test_lamps_alone_do_not_see_a_lost_phase(recipes: tuple[Recipe, ...], motors: int, findings: int) -> None:
    """A motor that runs on two lines gives a voltage back on the third (common practice, no source)."""
    result = clause(plant(*recipes, motors=motors), "C17")
    assert [f.verdict for f in result.findings] == [Verdict.JUDGE] * findings


@pytest.mark.parametrize(
    ("fed", "monitor", "findings"),
    [
        ("behind the panel's own switch", True, 1),
        ("behind the panel's own switch", False, 0),
        ("maintained, ahead of the main switch", True, 0),
    ],
)
def test_a_socket_that_the_main_contactor_drops_is_judged(fed: str, monitor: bool, findings: int) -> None:
    recipes: list[Recipe | tuple[Recipe, Param]] = [(Recipe.SOCKET, Param("fed", fed))]
    recipes += [Recipe.PHASE_MONITOR] if monitor else []
    result = clause(plant(*recipes), "C18")
    assert [f.verdict for f in result.findings] == [Verdict.JUDGE] * findings
    assert result.evidence[0].startswith("1 sockets")


def test_ways_of_the_brief_are_no_sockets_of_the_panel() -> None:
    job = add_load(plant(Recipe.PHASE_MONITOR), "lamps", nameplate_a=4.0, phases=1, start=Start.WAY)
    assert not clause(with_names_recorded(job), "C18").findings


def test_each_motor_has_something_that_sees_a_lost_phase_or_a_person_judges() -> None:
    """An overload relay of the catalogue sees it (IEC 60947-4-1 8.2.1.5, from memory); of one's own its data say."""
    job = plant(motors=1)
    tags = plan_for(job).get(NAMES).tag
    relay = next(d for d in plan_for(job).get(CIRCUITS).devices if d.kind.can(Can.OVERLOAD))
    assert clause(job, "C17").evidence[1].endswith(f"by {tags[relay.id]}")
    assert "compare with their data" in clause(job, "C17").evidence[-1]
    own = OwnPart("OWN-OL", "overload", "", 45, 60, 80, rated_a=4.0)
    (finding,) = clause(pick_part(set_part(job, own), relay.id, "OWN-OL"), "C17").findings
    assert finding.verdict is Verdict.JUDGE
    assert "its data say" in finding.message
    watched = plant(Recipe.PHASE_MONITOR, motors=1)
    assert "the supply is watched by" in clause(watched, "C17").evidence[1]


@pytest.mark.parametrize("switched_by", ["a selector on the door", "the main switch alone"])
@pytest.mark.parametrize("monitor", ["yes", "no"])
def test_a_door_that_is_opened_lets_the_main_contactor_go(switched_by: str, monitor: str) -> None:
    """By hand: the switch is in the path of the coil, so that nothing behind the contactor stays in."""
    chosen = {"holds": "all loads", "door switch": "yes", "switched by": switched_by, "monitor": monitor}
    params = tuple(Param(name, value) for name, value in chosen.items())
    job = with_names_recorded(add_circuit(add_load(new_job("D", "door"), "saw", 3.0), Recipe.PHASE_MONITOR, "", params))
    evaluation = plan_for(job)
    circuit = next(c for c in job.circuits if c.recipe is Recipe.PHASE_MONITOR)
    found = behaviour_of(job, evaluation.get(CIRCUITS), circuit.id)
    assert found is not None
    assert found.passed, [(s.done, s.otherwise) for s in found.steps if not s.passed]
    assert sum(step.done.startswith("press S.door") for step in found.steps) > 0
    names = evaluation.get(NAMES).tag
    (switch,) = (d.id for d in evaluation.get(CIRCUITS).devices if d.kind.id == "door_switch")
    (contactor,) = (d.id for d in evaluation.get(CIRCUITS).devices if d.purpose.endswith("main contactor"))
    lives = evaluation.get(LIVE_PLAN)
    opened = [step for step in lives if names[switch] in step.done]
    assert opened, "and it is a step under voltage at the panel"
    assert any(names[contactor] in words for step in opened for words in step.expected)
    load = next(c for c in all_circuits(circuit_inputs(job)) if c.load == job.loads[0].id)
    starter = behaviour_of(job, evaluation.get(CIRCUITS), load.id)
    assert starter is not None
    assert starter.passed, "the starter is tried with the door shut"
