"""What the choices of practice do to the wires: combs and bars, earths through the rail, ends, order, strips."""

from dataclasses import replace
from itertools import pairwise

import pytest
from tests.shared_plan import plan_for

from riktig.core.catalogue import Can
from riktig.core.evaluation import Evaluation
from riktig.core.exports.lists import schedule
from riktig.core.geometry import Rect
from riktig.core.job import (
    INCOMER_ID,
    ControlSupply,
    DeviceId,
    Distribution,
    EarthScheme,
    EndStyle,
    Job,
    StripOrder,
    Supply,
    WiringOrder,
    add_load,
    new_job,
    set_enclosure,
    set_practice,
)
from riktig.core.optimiser import now_of
from riktig.core.optimiser.replan import replan_of
from riktig.core.plate import ASSEMBLIES, LAYOUT, Layout
from riktig.core.proving import TESTS, ProvingStage
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING, WiringStage


def barn(count: int = 4, kw: float = 1.5) -> Job:
    """So many alike motors on a small supply: their breakers are of one size."""
    job = replace(new_job("T", "barn"), supply=Supply(upstream_a=32.0), sources_asked=True)
    for n in range(count):
        job = add_load(job, f"belt {n + 1}", kw)
    job = set_enclosure(job, width=800.0, height=1000.0, plate_width=750.0, plate_height=950.0)
    return set_practice(job, control_supply=ControlSupply.DIRECT)


def outline(layout: Layout, device: DeviceId) -> Rect:
    seat = layout.seat(device)
    assert seat is not None
    return seat.rect


def bought(job: Job) -> dict[str, float]:
    rows = schedule("bom", plan_for(job)).rows
    return {str(row[1]): float(row[2]) for row in rows if isinstance(row[2], int | float)}


def failing(job: Job) -> set[str]:
    results = plan_for(job).get(RULES)
    return {f"{f.code} {f.message}" for r in results for f in r.findings if f.verdict is Verdict.FAILS}


def motor_breakers(evaluation: Evaluation[Job]) -> list[DeviceId]:
    return [d.id for d in evaluation.get(CIRCUITS).devices if d.kind_id == "motor_breaker"]


@pytest.mark.parametrize(
    ("how", "what"), [(Distribution.COMB, "comb 10 mm², 3-pole, 4 × "), (Distribution.BAR, "copper busbar 20 × 5")]
)
def test_breakers_on_a_comb_or_bar_stand_side_by_side_and_take_one_feed_a_line(how: Distribution, what: str) -> None:
    """Common practice, no source: a comb takes the place of the loops, which vanish from the wire list."""
    job = set_practice(barn(), distribution=how)
    evaluation = plan_for(job)
    wiring, layout = evaluation.get(WIRING), evaluation.get(LAYOUT)
    breakers = motor_breakers(evaluation)
    ends = [
        (w, e) for w in wiring.wires for e in (w.start, w.end) if e.pin.device in breakers and e.pin.marking in "135"
    ]
    switch = next(d.id for d in evaluation.get(CIRCUITS).devices if d.kind.can(Can.MAIN_SWITCH))
    inlets = [w for w, _ in ends if switch in (w.start.pin.device, w.end.pin.device)]
    assert len({end.pin for _, end in ends}) == len(inlets) == 3, "one a line"
    assert all("infeed" in wire.start.label + wire.end.label for wire in inlets)
    joined = evaluation.get(ASSEMBLIES)[0].devices
    assert set(breakers) <= set(joined)
    outlines = [outline(layout, device) for device in joined]
    if how is Distribution.COMB:
        assert all(b.x == pytest.approx(a.right) for a, b in pairwise(outlines))
    else:
        gaps = [b.x - a.right for a, b in pairwise(outlines)]
        assert all(0 <= gap < 9 + 20 for gap in gaps), "adapters come in half places of 9 mm, a holder takes 20"
    assert any(name.startswith(what) for name in bought(job))
    assert {code[:3] for code in failing(job)} <= {code[:3] for code in failing(barn())}


def test_the_feed_of_a_comb_carries_all_that_hang_on_it() -> None:
    """IEC 60204-1 7.2.8, from memory: what is thinner than its protection asks carries the sum of what is behind it."""
    job = set_practice(barn(6, 4.0), distribution=Distribution.COMB)
    feeds = [w for w in plan_for(job).get(WIRING).wires if "infeed" in w.start.label + w.end.label]
    assert feeds
    assert {wire.mm2 for wire in feeds} != {min(w.mm2 for w in plan_for(job).get(WIRING).wires)}
    assert not any(code.startswith("W05") for code in failing(job))


def test_terminals_earth_through_their_rail_and_each_is_still_tested() -> None:
    job = set_practice(barn(), earths=EarthScheme.RAIL)
    evaluation = plan_for(job)
    earths = [d.id for d in evaluation.get(CIRCUITS).devices if d.role == "X.PE" and d.circuit != INCOMER_ID]
    layout = evaluation.get(LAYOUT)
    rails = {seat.rail for device in earths if (seat := layout.seat(device))}
    wired = [w for w in evaluation.get(WIRING).wires if w.end.pin.device in earths]
    assert len(wired) == len(rails), "one bond a rail"
    bonds = {str(t.red.pin.device) for t in evaluation.get(TESTS).tests if t.stage is ProvingStage.BONDS}
    assert set(earths) <= bonds
    assert failing(job) <= failing(barn())


def test_a_thick_protective_conductor_does_not_go_through_the_rail() -> None:
    """IEC 60947-7-2 and EN 60715, from memory: a steel rail 35 × 7.5 stands for 16 mm² of copper."""
    job = add_load(set_practice(barn(), earths=EarthScheme.RAIL), "crusher", 55.0)
    job = replace(job, supply=Supply(upstream_a=250.0))
    wires = plan_for(job).get(WIRING).wires
    crusher = [w for w in wires if w.end.pin.device == "c5.X.PE"]
    assert crusher[0].mm2 > 16
    assert len(crusher) == 1


def test_crimped_ends_need_no_ferrule_and_another_wire() -> None:
    names = bought(set_practice(barn(), ends=EndStyle.CRIMPS))
    assert not any(name.startswith("ferrule") for name in names)
    assert any(name.startswith("crimped pin") for name in names)
    assert any(name.startswith("stranded wire") for name in names)
    assert not any(name.startswith("flexible wire") for name in names)


def test_the_plate_is_wired_in_the_order_of_the_practice() -> None:
    def stages(order: WiringOrder) -> list[WiringStage]:
        wires = plan_for(set_practice(barn(), wiring_order=order)).get(WIRING).wires
        return list(dict.fromkeys(wire.stage for wire in wires))

    thick = plan_for(set_practice(barn(), wiring_order=WiringOrder.THICK_FIRST))
    wires = thick.get(WIRING).wires
    strips = {d.id for d in thick.get(CIRCUITS).devices if d.strip}
    assert wires[0].mm2 == max(wire.mm2 for wire in wires)
    for stage in stages(WiringOrder.THICK_FIRST):
        sections = [wire.mm2 for wire in wires if wire.stage is stage]
        assert sections == sorted(sections, reverse=True), "within a stage the thick ones first"
    assert {wires[-1].start.pin.device, wires[-1].end.pin.device} & strips, "field terminals last"
    assert stages(WiringOrder.SUPPLY_FIRST)[:2] == [WiringStage.MAINS, WiringStage.FEED]
    assert stages(WiringOrder.CONTROL_FIRST)[0] is WiringStage.CONTROL


def test_strips_by_function_have_their_earths_together_and_no_two_labels_alike() -> None:
    for job in (barn(), with_names_recorded(barn())):
        evaluation = plan_for(set_practice(job, strip_order=StripOrder.BY_FUNCTION))
        strips = {strip.purpose: strip for strip in evaluation.get(STRIPS).strips}
        assert len(strips["protective conductors"].rows) == 4
        assert all(row.field.endswith(":PE") for row in strips["protective conductors"].rows)
        tags = [strip.tag for strip in strips.values()]
        assert len(set(tags)) == len(tags)
        labels = [f"{strip.tag}:{row.mark}" for strip in strips.values() for row in strip.rows]
        assert len(set(labels)) == len(labels)


def test_a_planned_plate_keeps_the_comb_in_one_piece() -> None:
    evaluation = plan_for(set_practice(barn(), distribution=Distribution.COMB))
    replan = replan_of(evaluation)
    layout = replan.layout(now_of(replan.problem))
    outlines = sorted((outline(layout, d) for d in motor_breakers(evaluation)), key=lambda rect: rect.x)
    assert all(b.x == pytest.approx(a.right) and b.y == a.y for a, b in pairwise(outlines))
