"""Combs: what flows into one at its infeed, what carries it, and who decides where that is not known."""

import pytest
from tests.shared_plan import plan_for

from riktig.core.exports import schedule
from riktig.core.job import (
    DeviceId,
    Distribution,
    Job,
    JoinHow,
    Rulebook,
    add_load,
    new_job,
    set_enclosure,
    set_practice,
    set_supply,
)
from riktig.core.keys import DeviceKey
from riktig.core.plate import ASSEMBLIES, LAYOUT, Comb, join_parts
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import NAMES, NETS
from riktig.core.sizing import SIZING
from riktig.core.standards import comb_for


def mill(kws: list[float], *, rulebook: Rulebook = Rulebook.IEC, how: Distribution = Distribution.COMB) -> Job:
    job = set_enclosure(new_job("C", "combs"), width=2000.0, height=2000.0, plate_width=1950.0, plate_height=1950.0)
    for n, kw in enumerate(kws):
        job = add_load(job, f"fan {n}", kw)
    return set_practice(set_supply(job, upstream_a=250.0), distribution=how, rulebook=rulebook)


def combs(job: Job) -> list[tuple[DeviceId, Comb]]:
    stands = plan_for(job).get(LAYOUT).stands
    return [(stand.block.lead, stand.block.comb) for stand in stands if stand.block.comb]


def w05(job: Job) -> ClauseResult:
    return next(result for result in plan_for(job).get(RULES) if result.code == "W05")


@pytest.mark.parametrize(("amps", "mm2"), [(1.0, 10), (63.0, 10), (63.1, 16), (80.0, 16), (80.1, None)])
def test_the_thinnest_that_carries_it(amps: float, mm2: float | None) -> None:
    """Common ratings fed at one end, no standard, from memory: 10 mm² 63 A, 16 mm² 80 A."""
    section = comb_for(amps, north_american=False)
    assert (section.mm2 if section else None) == mm2
    assert comb_for(amps, north_american=True) is None, "a marked part: nothing is assumed of it"


def test_what_its_breakers_let_through_together_flows_into_it() -> None:
    job = mill([4.0, 4.0, 4.0])
    ((lead, comb),) = combs(job)
    join = next(join for join in plan_for(job).get(ASSEMBLIES) if lead in join.devices)
    rated = [plan_for(job).get(SIZING).parts[device].rated_a for device in join.devices]
    assert comb.amps == pytest.approx(min(sum(rated), plan_for(job).get(SIZING).feeder.needs_a))
    assert comb.name == "comb 10 mm²"
    (said,) = [line for line in w05(job).evidence if "comb" in line]
    assert "carries 63 A" in said
    assert f"{comb.amps:g} A can flow" in said


def test_more_than_one_carries_is_parted_into_two() -> None:
    """By hand: a breaker of 15 kW is set to about 29 A, so three of them are more than 80 A."""
    job = mill([15.0] * 5)
    assert plan_for(job).get(SIZING).feeder.needs_a > 80
    found = combs(job)
    assert len(found) > 1
    assert all(comb.section and comb.amps <= comb.section.carries_a for _, comb in found)


def test_one_that_the_builder_overloads_is_for_the_engineer() -> None:
    looped = mill([15.0] * 5, how=Distribution.LOOPS)
    evaluation = plan_for(looped)
    breakers = [device for device in evaluation.get(SIZING).parts if device.endswith(".F")]
    job = join_parts(looped, evaluation.get(LAYOUT), tuple(breakers[-5:]), JoinHow.COMB)
    ((lead, comb),) = combs(job)
    assert comb.section is None
    finding = next(f for f in w05(job).findings if "comb" in f.message)
    assert (finding.verdict, finding.where) == (Verdict.JUDGE, DeviceKey(lead))
    assert f"must carry {comb.amps:g} A" in finding.message


def test_in_north_america_its_marking_decides() -> None:
    job = mill([4.0, 4.0, 4.0], rulebook=Rulebook.UL)
    assert [comb.section for _, comb in combs(job)] == [None]
    assert any("comb" in f.message and f.verdict is Verdict.JUDGE for f in w05(job).findings)


def test_without_a_comb_nothing_is_said_of_one() -> None:
    result = w05(mill([4.0, 4.0, 4.0], how=Distribution.LOOPS))
    assert not any("comb" in line for line in (*result.evidence, *(f.message for f in result.findings)))


def test_a_comb_is_bought_with_its_infeed_and_a_cap_for_either_cut_end() -> None:
    """Common practice, no source: a comb is cut to length, and its cut ends are live."""
    bought = {str(row["description"]): row["quantity"] for row in schedule("bom", plan_for(mill([4.0] * 3))).as_dicts()}
    assert bought["infeed terminal of a comb, 3-pole"] == 1
    assert bought["end cap of a comb, 3-pole"] == 2
    (comb,) = [name for name in bought if name.startswith("comb 10 mm², 3-pole")]
    ((lead, _),) = combs(mill([4.0] * 3))
    wide = plan_for(mill([4.0] * 3)).get(SIZING).parts[lead].width
    assert f"3 × {wide:g} = {3 * wide:g} mm" in comb, "three breakers side by side"
    lines = [net for net in plan_for(mill([4.0] * 3)).get(NETS).nets if any(n.startswith("main.L") for n in net.nodes)]
    assert comb.endswith("joins " + " ".join(plan_for(mill([4.0] * 3)).get(NAMES).number[net.id] for net in lines))
