"""Busbars with 60 mm between them: what carries them, what stands on them, and what they carry."""

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.shared_plan import plan_for

from riktig.core.catalogue import Kind, Part
from riktig.core.door import things_behind
from riktig.core.exports import schedule
from riktig.core.geometry import Poly
from riktig.core.job import DeviceId, Distribution, LoadKind, Rulebook, add_load, new_job, set_enclosure, set_practice
from riktig.core.keys import DeviceKey
from riktig.core.plate import ASSEMBLIES, LAYOUT, BarSystem, bar_system
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, NETS
from riktig.core.short_circuit import SHORT_CIRCUIT, Limit
from riktig.core.sizing import SIZING
from riktig.core.standards import busbar_current, busbar_for
from riktig.core.wiring import BARE_PLATE_DRAWING, WIRING


def breaker() -> Part:
    job = add_load(new_job("B", "bars"), "fan", 1.5)
    evaluation = plan_for(job)
    device = next(d.id for d in evaluation.get(CIRCUITS).devices if d.kind_id == "motor_breaker")
    return evaluation.get(SIZING).parts[device]


def contactor_kind() -> Kind:
    evaluation = plan_for(add_load(new_job("B", "bars"), "fan", 1.5))
    return next(d.kind for d in evaluation.get(CIRCUITS).devices if d.kind_id == "contactor")


def made(widths: list[float], *, most_a: float = 1000.0, american: bool = False) -> BarSystem:
    parts = [(DeviceId(f"c{n}.F"), replace(breaker(), width=width)) for n, width in enumerate(widths, 1)]
    return bar_system(parts, lines=3, most_a=most_a, north_american=american)


@pytest.mark.parametrize(
    ("width", "thick", "amps"),
    # DIN 43671, bare copper, one bar, 35 °C round it, 65 °C of the bar, from memory.
    [(20, 5, 274), (25, 5, 327), (30, 5, 379), (20, 10, 427), (30, 10, 573)],
)
def test_a_bar_carries_what_the_table_says(width: float, thick: float, amps: float) -> None:
    figure = busbar_current(width, thick, north_american=False)
    assert figure is not None
    assert figure.value == amps
    assert "DIN 43671" in figure.source


def test_in_north_america_a_square_inch_carries_a_thousand_amperes() -> None:
    """UL 508A, busbars without a test of their heating, from memory. By hand: 30 × 10 mm are 0.465 square inches."""
    figure = busbar_current(30, 10, north_american=True)
    assert figure is not None
    assert figure.value == pytest.approx(465, abs=0.1)
    smallest = busbar_for(200, north_american=True)
    assert smallest is not None
    assert smallest.name == "30 × 5", "150 mm² carry 232 A, 125 mm² only 194 A"
    assert busbar_for(466, north_american=True) is None


def test_a_bar_that_is_not_in_the_table_has_no_figure() -> None:
    assert busbar_current(21, 5, north_american=False) is None


@given(st.lists(st.sampled_from([17.5, 45.0, 52.5, 54.0, 70.0, 90.0, 106.0]), min_size=2, max_size=14))
def test_every_part_has_an_adapter_and_no_two_holders_are_too_far_apart(widths: list[float]) -> None:
    bars = made(widths)
    assert [a.device for a in bars.adapters] == [f"c{n}.F" for n in range(1, len(widths) + 1)]
    for adapter, width in zip(bars.adapters, widths, strict=True):
        assert width <= adapter.width < max(width + 9, 18.1)
        assert adapter.width % 9 == 0
    things = sorted(
        [(a.x, a.x + a.width) for a in bars.adapters]
        + [(x, x + 20) for x in bars.holders]
        + [(bars.infeed_x, bars.infeed_x + 54)]
    )
    assert all(left[1] <= right[0] for left, right in pairwise(things)), "nothing stands in another's place"
    assert things[0][0] == 0
    assert things[-1][1] == bars.width
    assert max(right - left for left, right in pairwise(bars.holders)) <= 350


def test_bars_carry_no_more_than_their_feed_lets_flow() -> None:
    alone = made([45.0, 45.0])
    assert alone.amps == 2 * breaker().rated_a
    assert made([45.0, 45.0], most_a=3.0).amps == 3.0


def test_a_part_without_a_rating_counts_as_all_that_the_feed_lets_flow() -> None:
    """What is not known must not make a bar look idle."""
    known, unknown = breaker(), replace(breaker(), rated_a=0.0)
    parts = [(DeviceId("c1.F"), known), (DeviceId("c2.F"), unknown)]
    assert bar_system(parts, lines=3, most_a=200.0, north_american=False).amps == 200.0
    no_guard = replace(known, kind=contactor_kind())
    parts = [(DeviceId("c1.F"), known), (DeviceId("c2.K"), no_guard)]
    assert bar_system(parts, lines=3, most_a=200.0, north_american=False).amps == 200.0


def test_single_pole_breakers_on_three_lines_take_three_bars() -> None:
    job = set_enclosure(new_job("B", "bars"), width=1200.0, height=1200.0, plate_width=1150.0, plate_height=1150.0)
    for n in range(3):
        job = add_load(job, f"heater {n}", 1.0, kind=LoadKind.HEATER, phases=1)
    evaluation = plan_for(set_practice(job, distribution=Distribution.BAR))
    nets, devices = evaluation.get(NETS), evaluation.get(CIRCUITS).by_id
    system = next(stand for stand in evaluation.get(LAYOUT).stands if stand.block.bars)
    feeds = {
        net.id
        for device in system.block.devices
        for pin in devices[device].pins.values()
        if (net := nets.of_pin.get(pin)) and any(node.startswith("main.L") for node in net.nodes)
    }
    assert len(feeds) == 3
    assert max(len(devices[device].kind.units) for device in system.block.devices) < 3, "none has three poles"
    assert system.block.bars is not None
    assert system.block.bars.lines == 3


@pytest.mark.parametrize("how", [Distribution.BAR, Distribution.COMB])
def test_what_busbars_and_combs_bear_counts_in_the_short_circuit_rating(how: Distribution) -> None:
    """UL 508A SB4.1, a bus bar: 10 kA; IEC 61439-1 10.11.2, no proof up to 10 kA. Both from memory."""
    job = set_enclosure(new_job("B", "bars"), width=1200.0, height=1200.0, plate_width=1150.0, plate_height=1150.0)
    for n in range(4):
        job = add_load(job, f"fan {n}", 4.0)
    job = set_practice(job, distribution=how)
    name = {Distribution.BAR: "busbar system", Distribution.COMB: "comb"}[how]

    def of_feed(fault_ka: float, rulebook: Rulebook) -> Limit:
        asked = replace(set_practice(job, rulebook=rulebook), supply=replace(job.supply, fault_ka=fault_ka))
        return next(x for x in plan_for(asked).get(SHORT_CIRCUIT).rating.limits if f"The {name} of" in x.why)

    assert of_feed(6.0, Rulebook.IEC).ka == 10
    assert of_feed(25.0, Rulebook.IEC).ka is None, "above 10 kA its maker is to be asked"
    assert of_feed(25.0, Rulebook.UL).ka == 10
    looped = plan_for(set_practice(job, distribution=Distribution.LOOPS)).get(SHORT_CIRCUIT)
    assert not any(name in limit.why for limit in looped.rating.limits)


def test_the_door_knows_that_busbars_stand_in_front_of_the_plate() -> None:
    job = set_enclosure(new_job("B", "bars"), width=1200.0, height=1200.0, plate_width=1150.0, plate_height=1150.0)
    for n in range(4):
        job = add_load(job, f"fan {n}", 4.0)
    job = set_practice(job, distribution=Distribution.BAR)
    layout = plan_for(job).get(LAYOUT)
    stand = next(stand for stand in layout.stands if stand.block.bars)
    bars = [thing for thing in things_behind(layout, job.enclosure) if "busbars" in thing.name]
    assert [(thing.shadow.width, thing.height) for thing in bars] == [(stand.block.width, 50)]


def barn() -> tuple[list[BarSystem], str]:
    job = set_enclosure(new_job("B", "bars"), width=1200.0, height=1200.0, plate_width=1150.0, plate_height=1150.0)
    for n in range(4):
        job = add_load(job, f"fan {n}", 4.0)
    evaluation = plan_for(set_practice(job, distribution=Distribution.BAR))
    systems = [stand.block.bars for stand in evaluation.get(LAYOUT).stands if stand.block.bars]
    clause = next(result for result in evaluation.get(RULES) if result.code == "W05")
    return systems, " ".join(clause.evidence)


def test_the_rules_say_what_the_bars_carry() -> None:
    systems, evidence = barn()
    assert len(systems) == 1
    assert systems[0].lines == 3
    assert "copper busbar 20 × 5" in evidence
    assert "274 A" in evidence


def test_bars_that_no_size_is_enough_for_are_for_the_engineer() -> None:
    job = set_enclosure(new_job("B", "bars"), width=2400.0, height=2000.0, plate_width=2350.0, plate_height=1950.0)
    for n in range(5):
        job = add_load(job, f"mill {n}", 75.0)
    job = set_practice(job, distribution=Distribution.BAR, rulebook=Rulebook.UL)
    evaluation = plan_for(job)
    systems = [stand.block.bars for stand in evaluation.get(LAYOUT).stands if stand.block.bars]
    assert any(system.bar is None for system in systems)
    clause = next(result for result in evaluation.get(RULES) if result.code == "W05")
    assert any(f.verdict is Verdict.JUDGE and "busbars" in f.message for f in clause.findings)


def test_no_breaker_is_left_alone_behind_a_full_run_of_bars() -> None:
    """One alone would take the feed of the whole run in its own small clamp."""
    alone: list[DeviceId] = []
    for count in range(8, 15):
        job = set_enclosure(new_job("B", "bars"), width=800.0, height=1800.0, plate_width=750.0, plate_height=1750.0)
        for n in range(count):
            job = add_load(job, f"fan {n}", 1.5)
        evaluation = plan_for(set_practice(job, distribution=Distribution.BAR))
        on_bars = {device for join in evaluation.get(ASSEMBLIES) for device in join.devices}
        breakers = [d.id for d in evaluation.get(CIRCUITS).devices if d.kind_id == "motor_breaker"]
        assert len(breakers) == count
        alone += [device for device in breakers if device not in on_bars]
    assert not alone


def test_the_bars_are_drawn_sixty_apart_and_over_the_whole_system() -> None:
    job = set_enclosure(new_job("B", "bars"), width=1200.0, height=1200.0, plate_width=1150.0, plate_height=1150.0)
    for n in range(4):
        job = add_load(job, f"fan {n}", 4.0)
    evaluation = plan_for(set_practice(job, distribution=Distribution.BAR))
    stand = next(stand for stand in evaluation.get(LAYOUT).stands if stand.block.bars)
    assert stand.block.bars is not None
    drawn = [
        shape for shape in evaluation.get(BARE_PLATE_DRAWING).shapes
        if isinstance(shape, Poly) and shape.fill == "rail" and shape.key == DeviceKey(stand.block.lead)
    ]  # fmt: skip
    middles = sorted((shape.points[0].y + shape.points[2].y) / 2 for shape in drawn)
    assert [b - a for a, b in pairwise(middles)] == pytest.approx([60, 60])
    assert {round(shape.points[2].x - shape.points[0].x, 6) for shape in drawn} == {stand.block.bars.width}
    assert {round(shape.points[2].y - shape.points[0].y, 6) for shape in drawn} == {20}


@pytest.mark.parametrize("kind", [LoadKind.MOTOR, LoadKind.HEATER])
def test_the_feed_lands_on_the_infeed_of_the_bars_and_is_as_long_as_its_way_there(kind: LoadKind) -> None:
    """The infeed is at the left end of the system, in front of the bars: not at the clamp of any breaker."""
    job = set_enclosure(new_job("B", "bars"), width=1200.0, height=1200.0, plate_width=1150.0, plate_height=1150.0)
    for n in range(4):
        job = add_load(job, f"load {n}", 4.0, kind=kind)
    evaluation = plan_for(set_practice(job, distribution=Distribution.BAR))
    (stand,) = [stand for stand in evaluation.get(LAYOUT).stands if stand.block.bars]
    bars = stand.block.bars
    assert bars is not None
    feeds = [
        (wire, end, at)
        for wire in evaluation.get(WIRING).wires
        for end, at in ((wire.start, wire.route[0]), (wire.end, wire.route[-1]))
        if end.label.endswith("infeed")
    ]
    assert len(feeds) == bars.lines
    left = stand.x + bars.infeed_x
    middle = stand.y + stand.block.above
    for wire, end, at in feeds:
        assert end.pin.device in stand.block.devices
        assert end.torque_n_m == 0, "the infeed has clamps of its own, of which nothing is known"
        assert left < at.x < left + 54, "the infeed is 54 mm wide"
        assert at.y == middle + 60, "the bar that is farthest down: the wire reaches whichever it must"
        way = sum(abs(a.x - b.x) + abs(a.y - b.y) for a, b in pairwise(wire.route))
        assert wire.length >= way
    rows = [row for row in schedule("wires", evaluation).as_dicts() if "infeed" in f"{row['from']} {row['to']}"]
    assert len(rows) == bars.lines
    assert all("as the part says" in (row["from_torque_n_m"], row["to_torque_n_m"]) for row in rows)
