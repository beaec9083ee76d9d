"""Field devices: each is drawn with its terminals, wires and tests, or left out by name."""

from dataclasses import replace
from itertools import product

import pytest

from riktig.core.ids import role_of
from riktig.core.job import (
    Command,
    ControlSupply,
    Direction,
    Form,
    Job,
    SignalFields,
    Supply,
    Wetting,
    add_load,
    add_signal,
    add_source,
    new_job,
    set_practice,
)
from riktig.core.proving import TESTS
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NETS, Element, Zone, elements_of
from riktig.core.simulation import Panel
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING
from tests.effort import share
from tests.shared_plan import plan_for


def yard(command: Command = Command.CONTROLLER) -> Job:
    job = replace(new_job("T", "yard"), supply=Supply(upstream_a=32.0), sources_asked=True)
    return add_load(add_source(job, "other panel", 24.0, "the gate"), "pump", 1.5, command=command)


def named(job: Job) -> list[str]:
    """What the rulebook says of field devices that are in no circuit."""
    results = plan_for(job).get(RULES)
    return [f.message for r in results if r.code == "B05" for f in r.findings]


def failing(job: Job) -> list[str]:
    results = plan_for(job).get(RULES)
    found = [f for r in results for f in r.findings if f.verdict is Verdict.FAILS]
    return [f"{f.code} {f.message}" for f in found if f.code[0] != "P" and f.code not in ("M01", "B03")]


EVERY = [
    (*kind, watts)
    for kind in product(Direction, Form, Wetting, (True, False))
    for watts in ((0.0, 1.5) if kind[:3] == (Direction.INTO, Form.DIGITAL, Wetting.DC) else (0.0,))
]


@pytest.mark.parametrize("command", [Command.CONTROLLER, Command.BUTTONS])
@pytest.mark.parametrize(("direction", "form", "wetting", "of_load", "watts"), share(EVERY, 1))
def test_every_kind_of_field_device_is_drawn_or_named(
    command: Command, direction: Direction, form: Form, wetting: Wetting, of_load: bool, watts: float
) -> None:
    base = yard(command)
    fields = SignalFields(direction=direction, form=form, wetting=wetting, watts=watts)
    if of_load:
        fields["load"] = base.loads[0].id
    job = add_signal(base, "brass probe", **fields)
    devices = plan_for(job).get(CIRCUITS).devices
    drawn = [d for d in devices if d.zone is Zone.FIELD and "brass probe" in d.purpose]
    assert bool(drawn) is not any("brass probe" in message for message in named(job))
    if drawn:
        cores = [c for cable in plan_for(job).get(STRIPS).cables if cable.device == drawn[0].id for c in cable.cores]
        assert len(cores) == len(drawn[0].kind.pins), "every conductor of its cable lands"


def test_a_value_of_another_panel_pulls_no_relay() -> None:
    base = yard()
    job = add_signal(base, "tide", form=Form.ANALOGUE, wetting=Wetting.FOREIGN, load=base.loads[0].id)
    assert not any("tide" in d.purpose for d in plan_for(job).get(CIRCUITS).devices)
    assert len(named(job)) == 1


def test_a_sensor_that_draws_current_has_its_0_v() -> None:
    evaluation = plan_for(add_signal(yard(), "photocell", wetting=Wetting.DC, watts=1.5))
    cable = next(c for c in evaluation.get(STRIPS).cables if c.to.endswith("photocell"))
    assert [core.field_end.rpartition(":")[2] for core in cable.cores] == ["P", "M", "O"]
    sensor = next(d for d in evaluation.get(CIRCUITS).devices if d.id == cable.device)
    assert "dc.zero" in evaluation.get(NETS).of_pin[sensor.pin("M")].nodes
    panel = Panel(evaluation.get(CIRCUITS), evaluation.get(NETS))
    panel.run_until_stable()
    card = next(d for d in evaluation.get(CIRCUITS).devices if d.kind_id == "inputs")
    assert panel.is_fed(sensor.id, "P-M")
    assert not panel.is_fed(card.id, "I0-M")
    panel.operator_state.pressed.add(sensor.id)
    panel.run_until_stable()
    assert panel.is_fed(card.id, "I0-M")


def test_of_four_floats_with_one_name_the_fourth_is_named() -> None:
    job = yard(Command.LEVEL)
    for _ in range(4):
        job = add_signal(job, "float", load=job.loads[0].id)
    assert len(named(job)) == 2, "stop and start are drawn; without an alarm the rest is not"


def test_a_float_whose_name_is_part_of_another_is_not_taken_for_it() -> None:
    job = yard(Command.LEVEL)
    for name in ("low float", "start float", "high float", "float"):
        job = add_signal(job, name, load=job.loads[0].id)
    assert any("The float " in message for message in named(job))


def test_permissives_are_in_series_and_only_what_feels_a_demand_starts_in_auto() -> None:
    """Two contacts that let a fan run stand ahead of its selector, in hand too (IEC 60204-1 9.3, from memory)."""
    job = yard(Command.SELECTOR)
    for name in ("thermostat", "door contact", "flow contact"):
        job = add_signal(job, name, load=job.loads[0].id)
    rung = next(r for r in plan_for(job).get(CIRCUITS).rungs if r.id.endswith(".run"))
    in_line = {role_of(part.device) for part in rung.path.parts if isinstance(part, Element)}
    assert {"let1", "let2"} <= in_line
    assert "auto1" not in in_line
    assert "auto2" not in {role_of(element.device) for element in elements_of(rung.path)}


@pytest.mark.parametrize("control", [ControlSupply.TRANSFORMER, ControlSupply.DIRECT, ControlSupply.DC])
def test_a_yard_with_every_kind_meets_its_rulebook(control: ControlSupply) -> None:
    job = set_practice(add_load(yard(), "mill", 1.5), control_supply=control)
    for name, fields in (
        ("photocell", SignalFields(wetting=Wetting.DC, watts=1.5)),
        ("tank level", SignalFields(wetting=Wetting.DC, form=Form.ANALOGUE)),
        ("damper", SignalFields(wetting=Wetting.DC, form=Form.ANALOGUE, direction=Direction.OUT)),
        ("horn", SignalFields(direction=Direction.OUT)),
        ("flap valve", SignalFields(direction=Direction.OUT)),
        ("guard", SignalFields(wetting=Wetting.LIMITED, load=job.loads[1].id)),
    ):
        job = add_signal(job, name, **fields)
    assert failing(job) == []
    assert named(job) == []


def test_terminals_of_one_potential_are_bridged_by_a_jumper_that_is_bought_and_tested() -> None:
    job = yard()
    for n in range(4):
        job = add_signal(job, f"gate {n + 1}", wetting=Wetting.DC)
    evaluation = plan_for(job)
    (jumper,) = evaluation.get(WIRING).jumpers
    assert len(jumper) == 4
    inner = [w for w in evaluation.get(WIRING).wires for e in (w.start, w.end) if e.pin in jumper]
    assert len(inner) == 1, "one wire feeds all four"
    assert sum(t.title.startswith("Jumper ") for t in evaluation.get(TESTS).tests) == 3
    assert not any(f.startswith("W04") for f in failing(job))
