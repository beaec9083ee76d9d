"""The colour of every wire against what it carries (IEC 60204-1 13.2, NFPA 79 13.2, from memory)."""

from dataclasses import replace

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import (
    Colours,
    ControlSupply,
    Job,
    MaintainedColour,
    Recipe,
    Rulebook,
    SupplySystem,
    Wetting,
    add_load,
    add_signal,
    new_job,
    set_practice,
    set_supply,
)
from riktig.core.rules import RULES, VIEW, ClauseResult, Finding, Verdict
from riktig.core.rules.colours import wire_colours
from riktig.core.schematic import add_circuit, with_names_recorded


def panel(rulebook: Rulebook = Rulebook.IEC, **practice: object) -> Job:
    """Motors, 24 V, ways, what stays live, a panel further on: a wire of every meaning."""
    job = set_practice(new_job("C", "colours"), rulebook=rulebook, **practice)  # type: ignore[arg-type]
    job = set_supply(job, upstream_a=63.0, through_a=20.0)
    for n in range(2):
        job = add_load(job, f"fan {n}", 1.5)
    job = add_signal(job, "level", watts=3.0, wetting=Wetting.DC)
    for recipe in (Recipe.MAINTAINED, Recipe.SIGNALLED_WAYS, Recipe.FOREIGN_INTERLOCK):
        job = add_circuit(job, recipe)
    return job


def clause(job: Job) -> ClauseResult:
    return next(r for r in plan_for(with_names_recorded(job)).get(RULES) if r.code == "W03")


def failing(job: Job) -> list[Finding]:
    return [f for f in clause(job).findings if f.verdict is Verdict.FAILS]


@pytest.mark.parametrize("maintained", list(MaintainedColour))
@pytest.mark.parametrize("control", [ControlSupply.TRANSFORMER, ControlSupply.DC])
@pytest.mark.parametrize("rulebook", list(Rulebook))
def test_the_rulebooks_colours_mean_one_thing_each(
    rulebook: Rulebook, control: ControlSupply, maintained: MaintainedColour
) -> None:
    job = panel(rulebook, control_supply=control, maintained_colour=maintained)
    assert not failing(job)
    said = {line.partition(":")[0] for line in clause(job).evidence}
    assert {"earth", "neutral", "power", "control", "direct current", "what stays live"} - said <= {"control"}


@pytest.mark.parametrize("system", list(SupplySystem))
@pytest.mark.parametrize("rulebook", list(Rulebook))
def test_so_on_every_supply(rulebook: Rulebook, system: SupplySystem) -> None:
    job = set_supply(add_load(panel(rulebook), "lamp", nameplate_a=1.0, phases=1), system=system)
    wrong = [f.message for f in failing(job)]
    high_leg = system is SupplySystem.HIGH_LEG and rulebook is Rulebook.UL
    assert len(wrong) == int(high_leg), "orange is the high leg there, and what stays live"


HOUSE = ("black", "black", "black", "light blue", "red", "blue")


@pytest.mark.parametrize(
    ("place", "colour", "words"),
    [
        (0, "light blue", "colour of a neutral"),
        (4, "light blue", "colour of a neutral"),
        (3, "black", "colour of this panel's neutral"),
        (4, "orange", "what stays live"),
        (5, "orange", "what stays live"),
        (2, "orange", "what stays live"),
    ],
)
def test_a_house_table_that_says_two_things_by_one_colour_fails(place: int, colour: str, words: str) -> None:
    own = (*HOUSE[:place], colour, *HOUSE[place + 1 :])
    found = failing(panel(colours=Colours.HOUSE, house_colours=own))
    assert found
    assert any(words in f.message for f in found)
    assert all(f.quick_fix for f in found)
    assert not failing(panel(colours=Colours.HOUSE, house_colours=HOUSE))


@pytest.mark.parametrize(("colour", "rulebook"), [("white", Rulebook.UL), ("grey", Rulebook.UL)])
def test_a_live_wire_in_white_or_grey_fails_in_north_america(colour: str, rulebook: Rulebook) -> None:
    """NEC 200.7, from memory: white and grey are for grounded conductors."""
    own = (colour, "black", "black", "white", "red", "blue")
    assert failing(panel(rulebook, colours=Colours.HOUSE, house_colours=own))
    assert failing(panel(rulebook, colours=Colours.THREE_PHASE)), "brown, black, grey"
    assert not failing(panel(colours=Colours.THREE_PHASE)), "by IEC 60445 they are the phases"


@pytest.mark.parametrize("colour", ["green-yellow", "green"])
def test_a_wire_as_it_is_counts_not_the_table(colour: str) -> None:
    """One wire of power re-coloured, one earth in black: both are found on the wires themselves."""
    view = plan_for(with_names_recorded(panel())).get(VIEW)
    wires = list(view.wiring.wires)
    power = next(n for n, wire in enumerate(wires) if wire.colour == "black")
    earth = next(n for n, wire in enumerate(wires) if wire.colour == "green-yellow")
    for place, worn in ((power, colour), (earth, "black")):
        changed = [*wires[:place], replace(wires[place], colour=worn), *wires[place + 1 :]]
        result = wire_colours(replace(view, wiring=replace(view.wiring, wires=tuple(changed))))
        (found,) = [f for f in result.findings if f.verdict is Verdict.FAILS]
        assert "protective conductor" in found.message
