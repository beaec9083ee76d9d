"""Wires that a supply from elsewhere feeds, against what protects it there."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.job import (
    Job,
    Param,
    Recipe,
    Rulebook,
    add_load,
    add_source,
    change_source,
    new_job,
    set_enclosure,
    set_practice,
)
from riktig.core.rules import RULES, Finding, Verdict, findings_of
from riktig.core.schematic import NETS, NetClass, add_circuit, with_names_recorded
from riktig.core.wiring import WIRING


def fed(amps: float, recipe: Recipe, ambient_c: float = 40.0, rulebook: Rulebook = Rulebook.IEC) -> Job:
    job = set_practice(new_job("E", "elsewhere"), rulebook=rulebook)
    job = set_enclosure(add_load(job, "fan", 1.5), ambient_c=ambient_c)
    job = add_source(job, "duct panel", 230.0, "the boiler house")
    job = change_source(job, job.sources[0].id, protected_a=amps)
    params = (Param("fed", "outside source, separately protected"),) if recipe is Recipe.SOCKET else ()
    return with_names_recorded(add_circuit(job, recipe, "more", params))


def found(job: Job) -> list[Finding]:
    return [f for f in findings_of(plan_for(job).get(RULES)) if f.code == "W05"]


@pytest.mark.parametrize("recipe", [Recipe.FOREIGN_INTERLOCK, Recipe.SOCKET])
@pytest.mark.parametrize(
    ("amps", "ambient_c", "mm2"),
    # IEC 60204-1 Table 6, B1 at 40 °C, from memory: 1 mm² 10.3 A, 1.5 mm² 13.5 A, 2.5 mm² 18.3 A; 0.71 of it at 55 °C.
    [(6.0, 40.0, 1.0), (13.0, 40.0, 1.5), (16.0, 40.0, 2.5), (10.0, 55.0, 2.5)],
)
def test_its_wires_carry_what_protects_it(recipe: Recipe, amps: float, ambient_c: float, mm2: float) -> None:
    job = fed(amps, recipe, ambient_c)
    evaluation = plan_for(job)
    assert not found(job)
    own = {net.id for net in evaluation.get(NETS).nets if net.net_class is NetClass.EXCEPTED}
    wires = [wire for wire in evaluation.get(WIRING).wires if wire.net in own]
    assert wires
    assert min(wire.mm2 for wire in wires) >= mm2


@pytest.mark.parametrize("rulebook", list(Rulebook))
def test_where_nobody_has_said_what_protects_it_a_person_judges(rulebook: Rulebook) -> None:
    (finding,) = found(fed(0.0, Recipe.FOREIGN_INTERLOCK, rulebook=rulebook))
    assert finding.verdict is Verdict.JUDGE
    assert "what protects it is not said" in finding.message
    assert not found(fed(6.0, Recipe.FOREIGN_INTERLOCK, rulebook=rulebook))


def test_a_protection_that_nobody_has_is_refused() -> None:
    job = fed(6.0, Recipe.FOREIGN_INTERLOCK)
    for amps in (-1.0, 5000.0):
        with pytest.raises(ValueError, match="cannot be planned"):
            change_source(job, job.sources[0].id, protected_a=amps)
