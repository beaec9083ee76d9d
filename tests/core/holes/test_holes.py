"""Every hole of the panel: which surface, which tool, which class, in which order; and when nothing may be drilled."""

from dataclasses import replace
from itertools import pairwise, permutations
from math import hypot

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.schematic.builders import one_motor
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.door import SHAFTS, add_opening, drop_opening
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.holes import (
    BLOCKERS,
    ENTRIES,
    GLAND_BLOCKERS,
    HOLES,
    METAL_HOLES,
    SHEETS,
    Hole,
    HoleWork,
    Tool,
    cable_diameter,
    crossing_holes,
    mark_out_order,
    shortest_walk,
    walk_length,
)
from riktig.core.job import (
    DoorHoles,
    ElementId,
    EntrySide,
    Job,
    NameplateFixing,
    Opening,
    Param,
    Recipe,
    Rulebook,
    Surface,
    Ventilation,
    add_load,
    set_box,
    set_enclosure,
)
from riktig.core.keys import DeviceKey
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, PLATE_BOND, add_circuit, remove_element, with_names_recorded
from riktig.core.sizing import SIZING
from riktig.demo_job import demo_job


def holes_of(job: Job) -> dict[str, Hole]:
    return {hole.key: hole for hole in plan_for(job).get(HOLES)}


def hole(x: float, y: float, drill: float = 5.0, n: int = 1) -> Hole:
    return Hole(f"P{n}", "plate", x, y, drill, "", f"thing {n}", key=f"k{n}")


@pytest.fixture(scope="module")
def shed() -> Job:
    return demo_job()


@pytest.fixture(scope="module")
def shed_plan(shed: Job) -> Evaluation[Job]:
    return plan_for(shed)


def test_every_surface_has_its_holes_numbered_row_by_row(shed_plan: Evaluation[Job]) -> None:
    holes = shed_plan.get(HOLES)
    for sheet in shed_plan.get(SHEETS):
        mine = [h for h in holes if h.face == sheet.name]
        assert [h.number for h in mine] == [f"{sheet.letters}{n}" for n in range(1, len(mine) + 1)]
        assert [(h.y, h.x) for h in mine] == sorted((h.y, h.x) for h in mine)
        assert all(h.outline.sticks_out_of(sheet.rect) == 0 for h in mine)
    assert len({h.key for h in holes}) == len(holes), "a key is one hole's"
    assert shed_plan.get(BLOCKERS) == () == shed_plan.get(GLAND_BLOCKERS)


@pytest.mark.parametrize(
    ("kind", "tool"),
    [("rail:", Tool.TAP), ("duct:", Tool.TAP), ("device:c1.S.start", Tool.PUNCH), ("gland:", Tool.PUNCH)],
)
def test_tools_are_those_of_the_practice(shed_plan: Evaluation[Job], kind: str, tool: Tool) -> None:
    assert {h.tool for h in shed_plan.get(HOLES) if h.key.startswith(kind)} == {tool}


def test_a_hole_saw_cuts_the_door_where_the_practice_has_it() -> None:
    found = holes_of(one_motor(door_holes=DoorHoles.HOLE_SAW))
    assert found["device:c1.S.start#1"].tool is Tool.HOLE_SAW
    assert found["device:c1.S.start#1"].tool_said == "hole saw 22.3"


def test_a_riveted_nameplate_has_its_four_holes() -> None:
    evaluation = plan_for(one_motor(nameplate=NameplateFixing.RIVETED))
    four = [h for h in evaluation.get(METAL_HOLES) if h.purpose == "nameplate"]
    # By hand: the plate is 100 × 60, holes 5 mm in: 90 × 50 apart, for a 3.2 mm rivet.
    assert len(four) == 4
    assert max(h.x for h in four) - min(h.x for h in four) == 90.0
    assert max(h.y for h in four) - min(h.y for h in four) == 50.0
    assert {h.drill for h in four} == {3.3}
    assert not [h for h in plan_for(one_motor()).get(METAL_HOLES) if h.purpose == "nameplate"]


def test_a_screen_sits_in_a_cut_out_that_says_when_it_is_square() -> None:
    box = set_box(one_motor(), 500.0, 600.0, 250.0)
    evaluation = plan_for(
        with_names_recorded(add_circuit(box, Recipe.SCREEN, "door screen", (Param("door lamp", "fault"),)))
    )
    cut = next(h for h in evaluation.get(METAL_HOLES) if h.tool is Tool.CUT)
    # By hand: the screen is 200 × 150, its frame covers 6 mm all round: 188 × 138; its diagonal √(188² + 138²) = 233.2.
    assert (cut.width, cut.height, cut.drill) == (188.0, 138.0, 0.0)
    assert cut.note == "square when both diagonals are 233.2 mm"
    assert cut.operations == (HoleWork.MARKED, HoleWork.MADE, HoleWork.DEBURRED)
    assert cut.tool_said == "cut out 188 × 138"
    assert [one for one in evaluation.get(BLOCKERS) if one.face == "door"] == []


def test_every_cable_has_a_gland_that_holds_it(shed_plan: Evaluation[Job]) -> None:
    entries = shed_plan.get(ENTRIES)
    assert len(entries.entries) == len({entry.cable for entry in entries.entries}) == 15
    assert all(entry.fitting and entry.hole for entry in entries.entries)
    assert {entry.hole.face for entry in entries.entries if entry.hole} == {"gland plate"}


def test_supply_from_above_and_field_from_below_have_a_gland_plate_each() -> None:
    job = set_enclosure(one_motor(), entry=EntrySide.TOP, field_entry=EntrySide.BOTTOM)
    faces = {h.purpose.split(", ")[1]: h.face for h in plan_for(job).get(HOLES) if h.key.startswith("gland")}
    assert faces == {"W1": "top gland plate", "WM1": "gland plate"}


def test_by_the_north_american_rulebook_they_are_hubs() -> None:
    found = [h for h in plan_for(one_motor(rulebook=Rulebook.UL)).get(HOLES) if h.key.startswith("gland")]
    assert found
    assert all(h.purpose.startswith("hub ") and " in," in h.purpose for h in found)


def test_the_thickness_of_a_cable_is_reckoned_from_its_cores() -> None:
    # By hand: five cores of 2.5 mm² (4.1 mm each, EN 50525 upper limit, from memory) lie in 2.7 diameters: 11.1 mm,
    # and 1.8 mm of sheath on each side: 14.7 mm.
    assert cable_diameter(5, 2.5) == pytest.approx(2.7 * 4.1 + 3.6, abs=0.35)
    assert cable_diameter(1, 2.5) < cable_diameter(3, 2.5) < cable_diameter(4, 2.5) < cable_diameter(12, 2.5)


def test_more_cables_than_the_gland_plate_holds_are_said() -> None:
    job = set_box(one_motor(), 200.0, 1000.0, 100.0)
    for n in range(6):
        job = add_load(job, f"fan {n}", 4.0)
    blockers = plan_for(with_names_recorded(job)).get(GLAND_BLOCKERS)
    assert blockers
    assert "no room for the gland of" in blockers[0].text


def test_an_opening_of_ones_own_is_a_hole_with_its_class_and_can_be_taken_out(shed: Job) -> None:
    socket = Opening(Surface.LEFT_SIDE, 200.0, 300.0, 22.5, 0.0, "breather", "IP54")
    job = add_opening(shed, socket)
    evaluation = plan_for(job)
    made = next(h for h in evaluation.get(METAL_HOLES) if h.purpose == "breather")
    assert (made.face, made.number, made.x, made.y, made.drill, made.tool) == (
        "left side",
        "SL1",
        200.0,
        300.0,
        22.5,
        Tool.PUNCH,
    )
    result = next(r for r in evaluation.get(RULES) if r.code == "P06")
    assert [f.message for f in result.findings] == [
        "breather in the left side is IP54; the enclosure is IP65 and falls with it."
    ]
    assert drop_opening(job, 0) == shed
    with pytest.raises(RiktigError):
        drop_opening(shed, 0)


@pytest.mark.parametrize("rating", ["", "splash-proof"])
def test_a_class_that_nothing_can_be_held_against_is_for_the_engineer(rating: str) -> None:
    job = with_names_recorded(set_enclosure(one_motor(), rating=rating))
    result = next(r for r in plan_for(job).get(RULES) if r.code == "P06")
    assert result.verdict is Verdict.JUDGE
    assert "cannot be held against" in result.findings[0].message


def test_a_fan_that_cools_the_box_needs_its_cut_out() -> None:
    cooled = with_names_recorded(set_enclosure(one_motor(), ventilation=Ventilation.FAN, rating="IP54"))

    def said(job: Job) -> list[str]:
        return [f.message for r in plan_for(job).get(RULES) if r.code == "P03" for f in r.findings]

    assert said(cooled) == [], "a fan is drawn, with its cut-out"
    drawn = next(d for d in plan_for(cooled).get(CIRCUITS).devices if d.kind_id == "filter_fan")
    assert any(hole.where == DeviceKey(drawn.id) for hole in plan_for(cooled).get(HOLES))
    bare = remove_element(cooled, ElementId(f"{drawn.id}/L-N"))
    assert said(bare) == ["The box is cooled by filter and fan, but neither fan nor filter has a cut-out."]
    fan = Opening(Surface.LEFT_SIDE, 100.0, 450.0, 125.0, 125.0, "filter fan", "IP54")
    assert said(add_opening(bare, fan)) == []


def test_an_opening_without_a_class_needs_a_person_to_judge(shed: Job) -> None:
    job = add_opening(shed, Opening(Surface.DOOR, 800.0, 1000.0, 6.0, 0.0, "cable tie", ""))
    result = next(r for r in plan_for(job).get(RULES) if r.code == "P06")
    assert result.verdict is Verdict.JUDGE


@pytest.mark.parametrize(
    ("surface", "x", "y", "said"),
    [
        (Surface.DOOR, 968.0, 700.0, "reaches 9 mm past the edge of the door"),
        (Surface.LEFT_DOOR, 100.0, 100.0, "which this box does not have"),
    ],
)
def test_an_opening_off_the_sheet_or_in_another_hole_blocks_the_drill(
    shed: Job, surface: Surface, x: float, y: float, said: str
) -> None:
    job = add_opening(shed, Opening(surface, x, y, 22.5, 0.0, "socket", "IP65"))
    assert any(said in one.text for one in plan_for(job).get(BLOCKERS))


def test_an_opening_in_the_hole_of_the_switch_blocks_the_drill(shed: Job) -> None:
    shaft = plan_for(shed).get(SHAFTS)[0].on_door
    job = add_opening(shed, Opening(Surface.DOOR, shaft.x, shaft.y + 8, 22.5, 0.0, "socket", "IP65"))
    assert any("into each other" in one.text for one in plan_for(job).get(BLOCKERS))


@pytest.mark.parametrize(
    "bad", [{"width": 0.1}, {"width": float("nan")}, {"purpose": " "}, {"x": float("inf")}, {"height": -1.0}]
)
def test_an_opening_that_cannot_be_made_is_refused(bad: dict[str, object]) -> None:
    good = Opening(Surface.DOOR, 10.0, 10.0, 20.0, 0.0, "socket", "IP65")
    with pytest.raises(ValueError, match=r"."):
        replace(good, **bad)  # type: ignore[arg-type]


@given(
    spots=st.lists(
        st.tuples(st.floats(0, 400), st.floats(0, 400), st.floats(2, 40), st.booleans()), min_size=2, max_size=12
    )
)
@settings(max_examples=80, deadline=None)
def test_holes_that_leave_too_little_metal_are_all_found_and_no_others(
    spots: list[tuple[float, float, float, bool]],
) -> None:
    """Shapely measures the metal between the true shapes; 3 mm must stay."""
    from shapely.geometry import Point as Dot
    from shapely.geometry import box

    holes, shapes = [], []
    for n, (x, y, size, square) in enumerate(spots):
        one = hole(x, y, size, n)
        shape = Dot(x, y).buffer(size / 2, quad_segs=64)
        if square:
            one = replace(one, drill=0.0, width=size, height=size)
            shape = box(x - size / 2, y - size / 2, x + size / 2, y + size / 2)
        holes.append(one)
        shapes.append(shape)
    found = {
        frozenset(b.text.split("holes for ")[1].split(" cut ")[0].split(" leave ")[0].split(" and "))
        for b in crossing_holes(holes)
    }
    for n, one in some(enumerate(holes)):
        for m in range(n + 1, len(holes)):
            other = holes[m]
            apart = shapes[n].distance(shapes[m])
            # A round hole beside a cut-out is held for the square round it: on the safe side by its corner.
            mixed = one.is_cut_out != other.is_cut_out
            pair = frozenset((one.purpose, other.purpose))
            if apart < 2.9:
                assert pair in found
            elif apart > 3.1 and not mixed:
                assert pair not in found


class TestOrder:
    def test_every_hole_is_in_each_order_once_and_every_tool_taken_up_once(self, shed_plan: Evaluation[Job]) -> None:
        for face in ("plate", "door", "gland plate"):
            mine = [h for h in shed_plan.get(HOLES) if h.face == face]
            order = mark_out_order(mine, face)
            assert sorted(h.number for h in order.marking) == sorted(h.number for h in mine)
            assert sorted(h.number for one in order.rounds for h in one.holes) == sorted(h.number for h in mine)
            tools = [one.tool for one in order.rounds]
            assert len(tools) == len(set(tools))
            assert all(h.tool_said == one.tool for one in order.rounds for h in one.holes)
            assert order.walk <= order.row_by_row

    @given(st.lists(st.tuples(st.integers(0, 900), st.integers(0, 900)), min_size=2, max_size=7, unique=True))
    @settings(max_examples=40, deadline=None)
    def test_a_few_holes_are_walked_in_the_shortest_of_all_orders(self, spots: list[tuple[int, int]]) -> None:
        holes = [hole(x, y, n=n) for n, (x, y) in enumerate(spots)]

        def way(order: tuple[Hole, ...]) -> float:
            return hypot(order[0].x, order[0].y) + walk_length(order)

        ours = way(shortest_walk(holes, (0.0, 0.0)))
        assert ours == pytest.approx(min(way(one) for one in permutations(holes)))

    def test_many_holes_are_walked_in_no_more_than_a_tenth_over_what_long_search_finds(self) -> None:
        """Against networkx' simulated annealing on a closed tour with a free link back to the datum."""
        import networkx as nx
        import numpy as np

        spread = np.random.default_rng(7).uniform(0, 1000, (45, 2))
        holes = [hole(float(x), float(y), n=n) for n, (x, y) in enumerate(spread, 1)]
        ours = shortest_walk(holes, (0.0, 0.0))
        mine = hypot(ours[0].x, ours[0].y) + walk_length(ours)
        points = [(0.0, 0.0), *((h.x, h.y) for h in holes)]
        graph: nx.DiGraph[int] = nx.DiGraph()
        for i, a in enumerate(points):
            for j, b in enumerate(points):
                if i != j:
                    graph.add_edge(i, j, weight=0.0 if j == 0 else hypot(a[0] - b[0], a[1] - b[1]))
        best = float("inf")
        for seed in range(3):
            tour = nx.approximation.threshold_accepting_tsp(graph, "greedy", source=0, seed=seed, max_iterations=30)
            best = min(best, sum(graph[a][b]["weight"] for a, b in pairwise(tour)))
        assert mine <= best * 1.1


def test_the_stud_that_bonds_the_plate_has_its_tapped_hole() -> None:
    evaluation = plan_for(one_motor())
    stud = next(d for d in evaluation.get(CIRCUITS).devices if d.role == PLATE_BOND)
    holes = [hole for hole in evaluation.get(HOLES) if hole.where == DeviceKey(stud.id)]
    assert [hole.tap for hole in holes] == [evaluation.get(SIZING).parts[stud.id].screw]
    assert holes[0].tool is Tool.TAP
