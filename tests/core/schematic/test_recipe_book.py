"""Every recipe in both rulebooks: derives without a fault, has the nets of a hand count, has words and a picture."""

import pytest

from riktig.core.job import IMPLIED, CircuitId, Job, Recipe, circuit_of
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import (
    CIRCUIT_TEMPLATES,
    CIRCUITS,
    FAULTS,
    NETS,
    Branch,
    CircuitTemplate,
    Element,
    Landing,
    Parallel,
    Series,
    elements_of,
    recipe_picture,
    set_param,
    with_names_recorded,
)
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share, some
from tests.shared_plan import plan_for

MAY_BE_MEANT = {"coil without contact"}
"""A season relay has no contact in a circuit until the builder puts one in."""


@pytest.mark.parametrize("name", SAMPLES)
def test_every_recipe_derives_whole_and_without_a_fault(name: str) -> None:
    evaluation = plan_for(sample(name))
    circuits = evaluation.get(CIRCUITS)
    assert circuits.clashes == ()
    assert circuits.undrawn == ()
    assert [f for f in evaluation.get(FAULTS) if f.kind not in MAY_BE_MEANT] == []
    ids = [device.id for device in circuits.devices]
    assert len(ids) == len(set(ids))
    drawn = [e.id for rung in circuits.rungs for e in elements_of(rung.path)]
    assert len(drawn) == len(set(drawn)), "every contact, coil and lamp stands in one place"


SAID = {name for name in SAMPLES if name.startswith("main contactor") and "rated A" in name and "American" in name}
SAID |= {"distribution blocks, North American"}
SAID |= {f"ways with trip lamps, {what}, North American" for what in ("ways 6", "rated A 16", "rated A 20")}
"""Behind a feeder of 14 AWG a contactor for 40 A and a block for 25 mm² have clamps too large, and that is said;
so is it where three ways of 16 A and more ask for a transformer and a supply larger than there are."""


@pytest.mark.parametrize("name", share([name for name in SAMPLES if name not in SAID], 1))
def test_no_clause_of_the_rulebook_fails(name: str) -> None:
    results = plan_for(sample(name)).get(RULES)
    assert [(r.code, f.message) for r in results for f in r.findings if f.verdict is Verdict.FAILS] == []


HAND_COUNTS = {
    # Lines 3, behind the breaker 3, contactor to overload 3, motor 3, control 1 + 3, lamps 2, N, PE.
    "direct-on-line": 20,
    # As above with one output of both contactors; each way 3 more (button, end switch, interlock), three lamps.
    "both ways": 26,
    # Lines, behind the breaker, to the overload, U1 V1 W1, W2 U2 V2, star point; control 1 + 3 + 5; lamps 2, N, PE.
    "star-delta": 29,
    # Lines, breaker, motor 9; control 1 + 3; the drive's own loop 2; lamps 2; N, PE.
    "drive": 19,
    "soft start": 19,
    "high-level alarm": 6,
    "lamp test": 3,
    "season switch": 5,
    "interlock from another panel": 6,
    "solenoid valve": 6,
    "breaker with two fuses": 5,
    "selector with lamp and relay": 5,
    "illuminated button": 6,
    "door screen": 3,
    # 24 V, 0 V, the door's cable, and a cable to each of two devices.
    "network chain": 5,
    # 24 V, 0 V, and a signal of each of four sensors.
    "input terminals with bridges": 6,
    # The line, control, signals; reset 3, each channel 2; output 2 between and 1 behind; N.
    "emergency stop": 14,
    # Lines 3, behind the monitor's fuses 3, behind the contactor 3, control 1 + 2, lamp 1, N.
    "main contactor, monitored": 14,
    "phase lamps": 7,
    "through-feed": 5,
    "surge protector": 10,
    "ways with trip lamps": 12,
    "socket": 7,
    "socket, fed behind the panel's own switch": 5,
    "socket, fed outside source, separately protected": 5,
    "maintained services": 10,
}
"""Nets that touch a device of the circuit, counted by hand from the drawing of each recipe at 400/230 V."""


@pytest.mark.parametrize("name", HAND_COUNTS)
def test_the_circuit_has_as_many_nets_as_counted_by_hand(name: str) -> None:
    job = sample(name)
    circuit = job.circuits[-1].id
    nets = plan_for(job).get(NETS).nets
    mine = [net for net in nets if any(circuit_of(pin.device) == circuit for pin in net.pins)]
    assert len(mine) == HAND_COUNTS[name], [net.pins for net in mine]


@pytest.mark.parametrize("entry", CIRCUIT_TEMPLATES, ids=lambda e: e.recipe.value)
def test_every_entry_says_when_to_use_it_and_has_a_picture_in_both_rulebooks(entry: CircuitTemplate) -> None:
    assert 10 < len(entry.when) < 90
    assert entry.when.endswith(".")
    for north_american in (False, True):
        if entry.make is not None and entry.recipe is not Recipe.FREE:
            drawing = recipe_picture(entry.recipe, north_american=north_american)
            assert len(drawing.shapes) > 8
            assert 15 < drawing.width < 260


@pytest.mark.parametrize("entry", [e for e in CIRCUIT_TEMPLATES if e.params], ids=lambda e: e.recipe.value)
def test_a_parameter_there_and_back_leaves_the_same_circuit(entry: CircuitTemplate) -> None:
    loads = {
        Recipe.DIRECT_ON_LINE: "direct-on-line",
        Recipe.REVERSING: "both ways",
        Recipe.STAR_DELTA: "star-delta",
        Recipe.SOFT_START: "soft start",
        Recipe.DRIVE: "drive",
        Recipe.CONTACTOR: "heater between two lines",
        Recipe.CONTROLLER: "drive by the controller",
    }
    job = sample(loads.get(entry.recipe, entry.recipe.value if entry.make else "direct-on-line"))
    implied = IMPLIED.get(entry.recipe)  # it enters the document with the first choice, and stays there
    circuit = implied or next(c.id for c in job.circuits if c.recipe is entry.recipe)
    before = plan_for(job).get(CIRCUITS)
    for parameter in some(entry.params):
        for value in some(parameter.choices[1:]):
            there = with_names_recorded(set_param(job, circuit, parameter.name, value))
            assert there.circuits != job.circuits
            back = set_param(there, circuit, parameter.name, parameter.default)
            assert back.circuits == job.circuits or implied in {c.id for c in back.circuits}
            assert plan_for(back).get(CIRCUITS) == before


def phases_at_the_motor(job: Job, circuit: str, contactor: str) -> list[str]:
    """Which line each terminal of the motor is on when one contactor is in, followed along the drawn path."""
    rung = next(r for r in plan_for(job).get(CIRCUITS).rungs if r.id == f"{circuit}.power")

    def walk(branch: Branch, order: list[str]) -> list[str]:
        match branch:
            case Element(poles=poles):
                after = list(order)
                for n in range(len(poles)):
                    after[branch.leads_to(n)] = order[n]
                return after
            case Landing():
                return order
            case Series(parts):
                for part in parts:
                    order = walk(part, order)
                return order
            case Parallel(parts):
                return next(walk(p, order) for p in parts if any(e.device == contactor for e in elements_of(p)))

    return walk(rung.path, ["L1", "L2", "L3"])


@pytest.mark.parametrize(("contactor", "wanted"), [("K", ["L1", "L2", "L3"]), ("KR", ["L1", "L3", "L2"])])
@pytest.mark.parametrize("name", ["both ways", "both ways by a protector", "both ways, North American"])
def test_the_phases_are_exchanged_once_and_only_backwards(name: str, contactor: str, wanted: list[str]) -> None:
    """Forward L1 L2 L3, reverse L1 L3 L2: common practice, no source."""
    job = sample(name)
    circuit = job.circuits[-1].id
    assert phases_at_the_motor(job, circuit, f"{circuit}.{contactor}") == wanted


def test_the_supply_of_every_sample_enters_by_the_incomer_alone() -> None:
    for name, job in some(SAMPLES.items()):
        assert [c.id for c in job.circuits if c.recipe is Recipe.INCOMER] == [CircuitId("c0")], name
