"""W08: what lies together in a duct is insulated for it, and signals lie apart from the pulses of drives."""

import re
from collections.abc import Iterable, Mapping, Sequence
from itertools import pairwise, product

import pytest
from tests.shared_plan import plan_for

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Point
from riktig.core.job import (
    Command,
    Direction,
    EndStyle,
    Form,
    Job,
    Rulebook,
    Start,
    Wetting,
    add_load,
    add_signal,
    new_job,
    set_enclosure,
    set_practice,
    set_supply,
)
from riktig.core.keys import DuctKey, WireKey
from riktig.core.plate import LAYOUT, Duct
from riktig.core.rules import RULES, ClauseResult, Verdict
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.core.standards import insulation_volts
from riktig.core.wiring import WIRING, Router, Wire, WireId
from riktig.demo_job import frost_fan, kelp_shed


def quarry(volts: float, **practice: object) -> Job:
    """Two crushers, of no demonstration's shape."""
    job = add_load(new_job("Q-7", "crusher"), "jaw", 7.5)
    job = add_load(job, "screen", 3.0, start=Start.REVERSING)
    job = set_supply(job, voltage_v=volts, voltage_to_neutral_v=round(volts / 3**0.5, 1))
    return with_names_recorded(set_practice(job, **practice))  # type: ignore[arg-type]


def judged(evaluation: Evaluation[Job]) -> ClauseResult:
    return next(result for result in evaluation.get(RULES) if result.code == "W08")


def test_rated_voltages_are_those_of_the_types() -> None:
    """EN 50525-2-31 and UL 1063, from memory: H05V-K 500 V, H07V-K 750 V, MTW 600 V; no code for thin class 2."""
    assert insulation_volts(1.0, flexible=True) == 500
    assert insulation_volts(1.5, flexible=True) == insulation_volts(35.0, flexible=False) == 750
    assert insulation_volts(0.75, flexible=False) is None
    assert insulation_volts(plan_for(frost_fan()).get(WIRING).wires[0].mm2, flexible=True) == 600


def test_at_four_hundred_volts_all_may_lie_together_and_each_duct_is_named() -> None:
    evaluation = plan_for(quarry(400.0))
    result = judged(evaluation)
    assert result.findings == ()
    ducts = {duct for wire in evaluation.get(WIRING).wires for duct in wire.ducts}
    assert {line.partition(":")[0] for line in result.evidence} == ducts
    assert any("up to 400 V" in line for line in result.evidence)


def test_at_six_hundred_and_ninety_volts_a_thin_control_wire_may_not_lie_beside_the_lines() -> None:
    evaluation = plan_for(quarry(690.0))
    result = judged(evaluation)
    wires = {wire.key: wire for wire in evaluation.get(WIRING).wires}
    assert result.verdict is Verdict.FAILS
    for finding in result.findings:
        assert isinstance(finding.where, WireKey)
        assert wires[finding.where.wire].mm2 <= 1.0
        assert "500 V" in finding.message and "690 V" in finding.message
        assert finding.remedy
    said = {finding.message.split(" shares ")[1].split(" ")[0] for finding in result.findings}
    mixed = {
        duct
        for wire in wires.values()
        if wire.mm2 <= 1.0
        for duct in wire.ducts
        if any(duct in other.ducts and other.number.startswith(("L", "M")) for other in wires.values())
    }
    assert mixed and mixed <= said


def test_a_conductor_without_a_rated_voltage_is_for_the_engineer() -> None:
    result = judged(plan_for(quarry(400.0, ends=EndStyle.CRIMPS)))
    assert result.verdict is Verdict.JUDGE
    assert all("no rated voltage" in finding.message for finding in result.findings)


def test_north_american_conductors_are_good_for_six_hundred_volts() -> None:
    job = set_practice(new_job("N", "mill"), rulebook=Rulebook.UL)
    job = add_load(job, "saw", hp=5.0)
    job = set_supply(job, voltage_v=600.0, voltage_to_neutral_v=347.0)
    assert judged(plan_for(with_names_recorded(job))).findings == ()


def dosing(drives: int, fans: int = 0) -> Job:
    """Screws on drives, a valve for each that the controller sets, and fans beside them."""
    job = new_job("D-1", "dosing")
    for n in range(drives):
        job = add_load(job, f"screw {n}", 1.5, start=Start.DRIVE, command=Command.CONTROLLER)
    for n in range(fans):
        job = add_load(job, f"fan {n}", 1.5, run_lamp=True)
    for n in range(drives):
        job = add_signal(
            job, f"set valve {n}", place="silo", wetting=Wetting.DC, form=Form.ANALOGUE, direction=Direction.OUT,
            watts=0.5,
        )  # fmt: skip
    job = set_enclosure(job, width=1200, height=1400, plate_width=1150, plate_height=1350) if fans else job
    return with_names_recorded(job)


def parties(wires: Iterable[Wire]) -> tuple[list[Wire], list[Wire]]:
    """The wires of values and those behind drives, told by the marks of their clamps."""
    values, pulses = [], []
    potentials: dict[object, set[str]] = {}
    for wire in wires:
        clamps = {end.label.partition(":")[2] for end in (wire.start, wire.end)}
        potentials.setdefault(wire.net, set()).update(clamps)
        if any(re.fullmatch(r"U\d+:[UVW]", end.label) for end in (wire.start, wire.end)):
            pulses.append(wire)
    for wire in wires:
        if potentials[wire.net] & {f"{kind}{n}" for kind in ("AO", "AI", "C") for n in range(4)}:
            values.append(wire)
    return values, pulses


def together(first: Sequence[Point], second: Sequence[Point], duct: Duct) -> float:
    """How far two ways run side by side in a duct, mm: from corner to corner, without what the plan keeps of it."""
    middle, length = duct.rect.centre, 0.0
    for (p, q), (r, s) in product(pairwise(first[1:-1]), pairwise(second[1:-1])):
        across = [point.x - middle.x if duct.upright else point.y - middle.y for point in (p, q, r, s)]
        if max(map(abs, across)) > 0.01:
            continue
        along = [sorted((a.y, b.y) if duct.upright else (a.x, b.x)) for a, b in ((p, q), (r, s))]
        length += max(min(along[0][1], along[1][1]) - max(along[0][0], along[1][0]), 0.0)
    return length


@pytest.mark.parametrize(("drives", "fans"), [(1, 0), (3, 4), (4, 8)])
def test_a_duct_is_named_where_a_signal_lies_beside_the_pulses_of_a_drive(drives: int, fans: int) -> None:
    evaluation = plan_for(dosing(drives, fans))
    values, pulses = parties(evaluation.get(WIRING).wires)
    assert len(values) == 4 * drives
    assert len(pulses) == 3 * drives
    longest = {
        duct.name: most
        for duct in evaluation.get(LAYOUT).ducts
        if (most := max(together(a.route, b.route, duct) for a, b in product(values, pulses))) > 0.1
    }
    found = {f.where.name: f for f in judged(evaluation).findings if isinstance(f.where, DuctKey)}
    assert set(found) == set(longest)
    for duct, finding in found.items():
        assert finding.verdict is Verdict.JUDGE
        said = re.search(r" lies (\d+) mm beside ", finding.message)
        assert said is not None
        assert float(said[1]) == pytest.approx(longest[duct], abs=1.0)


@pytest.mark.parametrize(("drives", "fans"), [(2, 3), (3, 4), (4, 8)])
def test_signals_and_pulses_are_led_apart_where_the_ducts_allow(drives: int, fans: int) -> None:
    """Beside the shortest ways: less of it lies together, no wire goes 2 m further, and none for nothing."""
    evaluation = plan_for(dosing(drives, fans))
    layout, job = evaluation.get(LAYOUT), evaluation.document
    values, pulses = parties(evaluation.get(WIRING).wires)
    devices = evaluation.get(CIRCUITS).devices
    router = Router(layout, evaluation.get(DOOR), devices, job.enclosure, job.practice)
    shortest = {wire.key: router.route(wire.start.pin, wire.end.pin) for wire in (*values, *pulses)}

    def whole(ways: Mapping[WireId, Sequence[Point]]) -> float:
        pairs = product(values, pulses, layout.ducts)
        return sum(together(ways[a.key], ways[b.key], duct) for a, b, duct in pairs)

    planned = {wire.key: wire.route for wire in (*values, *pulses)}
    apart, before = whole(planned), whole({key: route.points for key, route in shortest.items()})
    assert apart < 0.5 * before
    moved = [wire for wire in (*values, *pulses) if wire.route != shortest[wire.key].points]
    assert moved
    for wire in moved:
        assert 0 <= wire.detour <= 2000.0
        assert whole({**planned, wire.key: shortest[wire.key].points}) > apart


def test_the_demonstrations_do_not_fail() -> None:
    for job in (kelp_shed(), frost_fan()):
        result = judged(plan_for(job))
        assert result.verdict is not Verdict.FAILS
        assert len(result.evidence) > 3
