"""Wires that go another way because the shortest one is full; shares are added up here from the drawn ways alone."""

from collections.abc import Mapping, Sequence
from itertools import pairwise

import pytest
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Point
from riktig.core.job import Job, add_load, new_job, set_enclosure, set_practice
from riktig.core.keys import DuctKey, WireKey
from riktig.core.plate import LAYOUT, Duct
from riktig.core.rules import RULES
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.core.standards import wire_diameter
from riktig.core.views import details_of
from riktig.core.wiring import DUCT_HEIGHT, WIRING, Router, Wire, duct_target
from riktig.demo_job import kelp_shed

Way = Sequence[Point]


def fans(count: int, width: float) -> Job:
    """Fans with lamps on a wide plate, all its ducts alike."""
    job = set_enclosure(new_job("F", "fans"), width=1600, height=1200, plate_width=1550, plate_height=1150)
    for n in range(count):
        job = add_load(job, f"fan {n}", 2.2, run_lamp=True, trip_lamp=True)
    return set_practice(with_names_recorded(job), duct_width=width)


JOBS = {
    "kelp shed, 25 mm": lambda: set_practice(kelp_shed(), duct_width=25.0),
    "kelp shed, 23 mm": lambda: set_practice(kelp_shed(), duct_width=23.0),
    "12 fans, 20 mm": lambda: fans(12, 20.0),
    "16 fans, 25 mm": lambda: fans(16, 25.0),
    "20 fans, 30 mm": lambda: fans(20, 30.0),
}
"""Jobs with a duct that the shortest ways would fill too much, and the width of their ducts."""


def router_of(evaluation: Evaluation[Job]) -> Router:
    job = evaluation.document
    devices = evaluation.get(CIRCUITS).devices
    return Router(evaluation.get(LAYOUT), evaluation.get(DOOR), devices, job.enclosure, job.practice)


def shares(ways: Mapping[Wire, Way], ducts: Sequence[Duct]) -> dict[str, float]:
    """The fullest place of every duct, share of its section: looked at between every two corners of any way."""
    fullest = {}
    for duct in ducts:
        middle = duct.rect.centre
        laid: list[tuple[float, float, float]] = []
        for wire, way in ways.items():
            for p, q in pairwise(way[1:-1]):
                across = (p.x, q.x, middle.x) if duct.upright else (p.y, q.y, middle.y)
                if max(across) - min(across) < 0.01:
                    begin, end = sorted((p.y, q.y) if duct.upright else (p.x, q.x))
                    laid.append((round(begin, 2), round(end, 2), wire_diameter(wire.mm2).value ** 2))
        places = sorted({place for begin, end, _area in laid for place in (begin, end)})
        section = (duct.rect.width if duct.upright else duct.rect.height) * DUCT_HEIGHT
        areas = [sum(area for b, e, area in laid if b <= p and e >= q) for p, q in pairwise(places)]
        fullest[duct.name] = max(areas, default=0.0) / section
    return fullest


@pytest.mark.parametrize("name", JOBS)
def test_wires_leave_a_full_duct_for_one_that_has_room(name: str) -> None:
    job = JOBS[name]()
    evaluation = plan_for(job)
    wires, ducts, most = evaluation.get(WIRING).wires, evaluation.get(LAYOUT).ducts, duct_target(job.practice)
    router = router_of(evaluation)
    shortest = {wire: router.route(wire.start.pin, wire.end.pin) for wire in wires}
    before = shares({wire: route.points for wire, route in shortest.items()}, ducts)
    now = shares({wire: wire.route for wire in wires}, ducts)
    assert max(before.values()) > most >= max(now.values()) - 1e-9
    for wire in wires:
        longer = wire.length - (shortest[wire].length + 2 * job.practice.end_allowance)
        assert 0 <= longer - wire.detour < 10 + 1e-6  # lengths are rounded up to 10 mm
        assert (wire.detour > 0) == (wire.route != shortest[wire].points)


@pytest.mark.parametrize("name", JOBS)
def test_no_wire_goes_further_in_vain(name: str) -> None:
    job = JOBS[name]()
    evaluation = plan_for(job)
    wires, ducts, most = evaluation.get(WIRING).wires, evaluation.get(LAYOUT).ducts, duct_target(job.practice)
    router = router_of(evaluation)
    ways = {wire: wire.route for wire in wires}
    for wire in some([wire for wire in wires if wire.detour]):
        put_back = {**ways, wire: router.route(wire.start.pin, wire.end.pin).points}
        assert max(shares(put_back, ducts).values()) > most


def test_where_nothing_else_has_room_the_rule_says_how_wide_the_duct_must_be() -> None:
    evaluation = plan_for(fans(24, 15.0))
    most = duct_target(evaluation.document.practice)
    now = shares({wire: wire.route for wire in evaluation.get(WIRING).wires}, evaluation.get(LAYOUT).ducts)
    full = {name for name, share in now.items() if share > most}
    result = next(result for result in evaluation.get(RULES) if result.code == "P01")
    assert full
    assert {finding.where.name for finding in result.findings if isinstance(finding.where, DuctKey)} == full


def test_the_rule_and_the_details_name_the_detour() -> None:
    evaluation = plan_for(set_practice(kelp_shed(), duct_width=25.0))
    wire = some([wire for wire in evaluation.get(WIRING).wires if wire.detour])[0]
    evidence = next(result for result in evaluation.get(RULES) if result.code == "P01").evidence
    assert any(wire.number in line and f"{wire.detour:.0f} mm further" in line for line in evidence)
    details = details_of(evaluation, WireKey(wire.key), ())
    assert details is not None
    rows = {row.name: row.value for section in details.sections for row in section.rows}
    assert rows["Detour"] == f"{wire.detour:.0f} mm: the shortest way is full, or beside the pulses of a drive"
