"""Moves by hand: several at once, pushed aside, swapped, aligned, spread, alike; rails and ducts; assemblies."""

import random
from collections.abc import Callable
from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import box as shape
from tests.core.schematic.builders import one_motor
from tests.effort import some, times
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import schedule
from riktig.core.geometry import Rect
from riktig.core.holes import HOLES
from riktig.core.ids import PinRef
from riktig.core.job import CircuitId, DeviceId, Job, JoinHow, add_load, new_job, set_enclosure
from riktig.core.plate import (
    CUTS,
    LAYOUT,
    Duct,
    Edge,
    Layout,
    Stand,
    aligned,
    circuits_alike,
    duct_changed,
    join_parts,
    laid_out_like,
    misfits_of,
    move_stands,
    moved_to,
    plan_for_me,
    pushed_aside,
    rail_changed,
    separate_parts,
    set_lock,
    set_rails_and_ducts,
    shifted,
    spread,
    swapped,
    with_duct,
    with_rail,
    with_rails_and_ducts,
    with_stands,
    without,
)
from riktig.core.rules import RULES
from riktig.core.schematic import CIRCUITS, with_names_recorded
from riktig.core.wiring import WIRING

F, Q, K = (DeviceId(name) for name in ("c1.F", "c0.Q", "c1.K"))


def roomy(loads: int = 4) -> Job:
    job = new_job()
    for n in range(loads):
        job = add_load(job, f"fan {n}", 1.5)
    return with_names_recorded(set_enclosure(job, width=900.0, height=1000.0, plate_width=850.0, plate_height=950.0))


@pytest.fixture(scope="module")
def job() -> Job:
    return roomy()


@pytest.fixture(scope="module")
def layout(job: Job) -> Layout:
    return plan_for(job).get(LAYOUT)


def stand(layout: Layout, device: DeviceId) -> Stand:
    found = layout.stand_of(device)
    assert found is not None
    return found


def after(job: Job, layout: Layout, moved: tuple[Stand, ...]) -> Layout:
    return plan_for(move_stands(job, layout, moved)).get(LAYOUT)


def test_parts_pushed_aside_fit_and_move_no_further_than_they_must(job: Job, layout: Layout) -> None:
    row = sorted((s for s in layout.stands if s.rail == 1), key=lambda s: s.x)
    first, third = row[0], row[2]
    put = moved_to(layout, first, 1, third.x - layout.rails[0].x1 - first.block.width / 2)
    moved = pushed_aside(layout, put)
    there = after(job, layout, moved)
    assert [m for m in there.misfits if "needs" in m.text and first.block.lead in (m.device, m.against)] == []
    for one in moved[1:]:
        was = stand(layout, one.block.lead)
        # Each touches what pushed it: one millimetre less and they would overlap.
        back = with_stands(there, (Stand(one.block, 1, one.x + (1 if one.x < was.x else -1), one.y),))
        assert any(one.block.lead in (m.device, m.against) for m in back.misfits)


def test_a_locked_neighbour_is_not_pushed(layout: Layout) -> None:
    row = sorted((s for s in layout.stands if s.rail == 1), key=lambda s: s.x)
    put = moved_to(layout, row[0], 1, row[1].x - layout.rails[0].x1 + 4)
    moved = pushed_aside(layout, put, frozenset((row[1].block.lead,)))
    assert row[1].block.lead not in {s.block.lead for s in moved}


def test_two_on_one_rail_swap_within_their_outer_edges(job: Job, layout: Layout) -> None:
    row = sorted((s for s in layout.stands if s.rail == 1), key=lambda s: s.x)
    a, b = row[0], row[1]
    there = after(job, layout, swapped(layout, a.block.lead, b.block.lead))
    new_a, new_b = stand(there, a.block.lead), stand(there, b.block.lead)
    assert new_b.x == a.x
    assert new_a.body.right == pytest.approx(b.body.right)
    assert there.misfits == ()


def test_two_on_different_rails_swap_places_and_back_again(job: Job, layout: Layout) -> None:
    once = swapped(layout, F, K)
    there = with_stands(layout, once, all_misfits=True)
    assert {stand(there, F).rail, stand(there, K).rail} == {stand(layout, F).rail, stand(layout, K).rail}
    back = with_stands(there, swapped(there, F, K), all_misfits=True)
    assert stand(back, F) == stand(layout, F)
    assert stand(back, K) == stand(layout, K)


@pytest.mark.parametrize("edge", [Edge.LEFT, Edge.MIDDLE, Edge.RIGHT])
def test_parts_come_into_line_with_the_first(layout: Layout, edge: Edge) -> None:
    first, moved = stand(layout, F), aligned([stand(layout, F), stand(layout, K)], edge)
    places: dict[Edge, Callable[[Rect], float]] = {
        Edge.LEFT: lambda r: r.x,
        Edge.MIDDLE: lambda r: r.centre.x,
        Edge.RIGHT: lambda r: r.right,
    }
    place = places[edge]
    assert place(moved[0].body) == pytest.approx(place(first.body), abs=0.01)
    assert moved[0].rail == stand(layout, K).rail


def test_spread_parts_have_equal_gaps_and_the_outer_two_stay(layout: Layout) -> None:
    row = sorted((s for s in layout.stands if s.rail == 1), key=lambda s: s.x)
    wide = [*row[:2], Stand(row[2].block, 1, row[2].x + 60, row[2].y)]
    moved = spread(wide)
    bodies = sorted((s.body for s in (wide[0], *moved, wide[2])), key=lambda r: r.x)
    assert bodies[1].x - bodies[0].right == pytest.approx(bodies[2].x - bodies[1].right, abs=0.02)
    assert [s.block.lead for s in moved] == [wide[1].block.lead]


def test_a_column_is_laid_out_like_another(job: Job, layout: Layout) -> None:
    model = layout
    spaced = with_stands(model, tuple(shifted([stand(model, DeviceId("c1.K"))], 3, 0, model)), all_misfits=True)
    circuits = plan_for(job).get(CIRCUITS)
    assert CircuitId("c2") in circuits_alike(spaced, circuits, CircuitId("c1"))
    wider = with_stands(
        spaced, tuple(Stand(s.block, s.rail, s.x + 300, s.y) for s in spaced.stands if s.block.lead.startswith("c2."))
    )
    moved = {s.block.lead: s for s in laid_out_like(wider, CircuitId("c1"), CircuitId("c2"))}
    for role in ("F", "K"):
        one, other = stand(wider, DeviceId(f"c1.{role}")), moved[DeviceId(f"c2.{role}")]
        assert one.rail == other.rail
    dx = {moved[DeviceId(f"c2.{r}")].x - stand(wider, DeviceId(f"c1.{r}")).x for r in ("F", "K", "FC")}
    assert max(dx) - min(dx) < 0.02, "the same distances"
    there = with_stands(wider, tuple(moved.values()), all_misfits=True)
    assert [m for m in there.misfits if m.device.startswith("c2.") and "beside" in m.text] == []


@pytest.mark.parametrize(
    ("act", "words"),
    [
        (lambda lay: swapped(lay, F, F), "Two different parts"),
        (lambda lay: swapped(lay, F, DeviceId("c0.PE")), "screwed"),
        (lambda lay: aligned([stand(lay, F)], Edge.LEFT), "at least two"),
        (lambda lay: aligned([stand(lay, F), stand(lay, K)], Edge.TOP), "move the rail"),
        (lambda lay: spread([stand(lay, F), stand(lay, K)]), "at least three"),
        (lambda lay: spread([stand(lay, F), stand(lay, K), stand(lay, Q)]), "one rail"),
        (lambda lay: laid_out_like(lay, CircuitId("c1"), CircuitId("c0")), "not the same parts"),
        (lambda lay: without(with_rails_and_ducts(lay, lay.rails[:1], lay.ducts), "R1"), "last rail"),
    ],
)
def test_what_cannot_be_done_says_why(layout: Layout, act: object, words: str) -> None:
    with pytest.raises(RiktigError, match=words):
        act(layout)  # type: ignore[operator]


def test_a_rail_takes_its_parts_along_and_only_them(job: Job, layout: Layout) -> None:
    rails, ducts = rail_changed(layout, 2, y=layout.rails[1].y + 7)
    there = plan_for(set_rails_and_ducts(job, layout, rails, ducts)).get(LAYOUT)
    for one in some(layout.stands):
        assert stand(there, one.block.lead).y - one.y == pytest.approx(7 if one.rail == 2 else 0)


def test_a_rail_with_parts_is_not_taken_away_and_a_locked_one_not_moved(job: Job, layout: Layout) -> None:
    with pytest.raises(RiktigError, match="Parts stand on R2"):
        set_rails_and_ducts(job, layout, *without(layout, "R2"))
    locked = set_lock(job, layout, F, True)
    number = stand(layout, F).rail
    with pytest.raises(RiktigError, match="locked part stands on"):
        set_rails_and_ducts(locked, layout, *rail_changed(layout, number, y=300.0))
    with pytest.raises(RiktigError, match="no length"):
        set_rails_and_ducts(job, layout, layout.rails, (*layout.ducts[:-1], _thin(layout)))


def _thin(layout: Layout) -> Duct:
    from dataclasses import replace

    return replace(layout.ducts[-1], rect=Rect(40, 40, 0.5, 30))


def test_a_duct_across_parts_is_said_against_each_of_them(job: Job, layout: Layout) -> None:
    body = stand(layout, K).body
    across = duct_changed(layout, 4, Rect(body.x - 20, body.centre.y - 10, 300, 30))
    there = with_rails_and_ducts(layout, *across)
    assert any(m.device == K and m.against == "D4" for m in there.misfits)
    uprights = with_rails_and_ducts(layout, *duct_changed(layout, 1, Rect(10, 10, 60, 500)))
    assert {m.device for m in uprights.misfits} >= {"D1"} or any("D1" in m.against for m in uprights.misfits)


def test_added_rails_and_ducts_get_the_next_number_and_span_the_plate(layout: Layout) -> None:
    rails, ducts = with_rail(layout, 700.0)
    assert rails[-1].name == f"R{len(layout.rails) + 1}"
    assert rails[-1].length == layout.rails[0].length
    _, more = with_duct(layout, 0, 600, 30, upright=False)
    left, right = (d.rect for d in layout.ducts if d.upright)
    assert (more[-1].rect.x, more[-1].rect.right) == (left.right, right.x)
    assert ducts == layout.ducts


def overlaps(layout: Layout) -> list[tuple[str, str]]:
    """Pairs of seats, and seats and ducts, that shapely finds over each other by more than a square millimetre."""
    seats = [(str(s.device), shape(s.rect.x, s.rect.y, s.rect.right, s.rect.bottom)) for s in layout.seats]
    ducts = [(d.name, shape(d.rect.x, d.rect.y, d.rect.right, d.rect.bottom)) for d in layout.ducts]
    pairs = [*combinations(seats, 2), *((one, duct) for one in seats for duct in ducts)]
    return [(a, b) for (a, one), (b, other) in pairs if one.intersection(other).area > 1]


GESTURES = st.lists(st.tuples(st.integers(0, 6), st.integers(0, 10_000)), min_size=1, max_size=6)


@settings(max_examples=times(20, 200), deadline=None)
@given(GESTURES)
def test_whatever_gestures_do_no_overlap_goes_unsaid_and_undo_is_exact(gestures: list[tuple[int, int]]) -> None:
    job, undo = ROOMY, [ROOMY]
    shown = [Evaluation(job).get(LAYOUT)]
    for what, seed in some(gestures):
        chance = random.Random(seed)
        layout = Evaluation(job).get(LAYOUT)
        try:
            job = with_names_recorded(_gesture(job, layout, what, chance))
        except RiktigError:
            continue
        there = Evaluation(job).get(LAYOUT)
        said = {name for m in there.misfits for name in (m.device, m.against)}
        owner = {device: s.block.lead for s in there.stands for device in s.block.devices}
        for a, b in overlaps(there):
            names = {owner.get(DeviceId(a), DeviceId(a)), owner.get(DeviceId(b), DeviceId(b))}
            loose = {"c0.E.box"} & {a, b}
            assert loose or len(names) == 1 or names & said, f"{a} over {b} goes unsaid"
        undo.append(job)
        shown.append(there)
    while undo:
        assert Evaluation(undo.pop()).get(LAYOUT) == shown.pop()


def _gesture(job: Job, layout: Layout, what: int, chance: random.Random) -> Job:
    one, other = chance.sample(layout.stands, 2)
    dx, dy = chance.uniform(-400, 400), chance.uniform(-300, 300)
    match what:
        case 0:
            return move_stands(job, layout, shifted([one], dx, dy, layout))
        case 1:
            return move_stands(job, layout, shifted([one, other], dx, dy, layout))
        case 2:
            return move_stands(job, layout, swapped(layout, one.block.lead, other.block.lead))
        case 3:
            put = shifted([one], dx, dy, layout)[0]
            return move_stands(job, layout, pushed_aside(layout, put))
        case 4:
            rail = chance.choice(layout.rails)
            return set_rails_and_ducts(job, layout, *rail_changed(layout, rail.number, y=rail.y + dy, x2=rail.x2 + dx))
        case 5:
            duct = chance.choice(layout.ducts)
            return set_rails_and_ducts(job, layout, *duct_changed(layout, duct.number, duct.rect.moved(dx, dy)))
        case _:
            return plan_for_me(job)


ROOMY = roomy(3)


@settings(max_examples=times(20, 200), deadline=None)
@given(st.integers(0, 100_000))
def test_clearances_agree_with_shapely_on_random_plates(seed: int) -> None:
    """Two blocks on one rail keep the larger of their rooms: shapely measures the distance between them."""
    chance = random.Random(seed)
    layout = plan_for(ROOMY).get(LAYOUT)
    rail = chance.choice(layout.rails)
    moved = tuple(
        moved_to(layout, s, rail.number, round(chance.uniform(0, rail.length), 1))
        for s in chance.sample([s for s in layout.stands if s.rail], 3)
    )
    there = with_stands(layout, moved, all_misfits=True)
    said = {frozenset((m.device, m.against)) for m in misfits_of(there) if "room beside" in m.text}
    for a, b in some(combinations(there.stands, 2)):
        left, right = (a, b) if a.x <= b.x else (b, a)
        one, two = (shape(s.body.x, s.body.y, s.body.right, s.body.bottom) for s in (left, right))
        level = left.y < right.body.bottom - 0.02 and right.y < left.body.bottom - 0.02
        room = max(left.block.room_right, right.block.room_left)
        near = level and (one.intersection(two).area > 0.02 or one.distance(two) < room - 0.02)
        assert (frozenset((a.block.lead, b.block.lead)) in said) == near


class TestAssemblies:
    def test_a_breaker_linked_to_its_contactor_moves_as_one_and_needs_no_wire_between(self) -> None:
        job = one_motor()
        layout = plan_for(job).get(LAYOUT)
        linked = join_parts(job, layout, (F, K), JoinHow.LINK)
        evaluation = plan_for(linked)
        one = evaluation.get(LAYOUT).stand_of(K)
        assert one is not None
        assert set(one.block.devices) == {F, K, DeviceId("c1.FO")}
        seats = {s.device: s.rect for s in evaluation.get(LAYOUT).seats}
        assert seats[K].y == pytest.approx(seats[F].bottom)
        before, after_ = ({w.key for w in plan_for(j).get(WIRING).wires} for j in (job, linked))
        assert {"c1.F:2~c1.K:1", "c1.F:4~c1.K:3", "c1.F:6~c1.K:5"} <= before - after_
        assert len(before) - len(after_) == 3
        assert all(result.code != "W04" or not result.findings for result in evaluation.get(RULES))
        assert {row[1]: row[2] for row in schedule("bom", evaluation).rows}["link module, one above the other"] == 1
        assert separate_parts(linked, K).joins == ()

    def test_breakers_on_a_busbar_are_fed_once(self) -> None:
        job = roomy(3)
        leads = tuple(DeviceId(f"c{n}.F") for n in (1, 2, 3))
        barred = join_parts(job, plan_for(job).get(LAYOUT), leads, JoinHow.BUSBAR)
        evaluation = plan_for(barred)
        block = evaluation.get(LAYOUT).stand_of(leads[1])
        assert block is not None
        assert block.rail == 0, "the busbar is screwed to the plate"
        # By hand: two holders of 20, an infeed of 54 and three adapters of 54 (six half places of 9) for 54 wide parts.
        assert block.block.width == 20 + 54 + 3 * 54 + 20
        bars_of = block.block.bars
        assert bars_of is not None
        assert [adapter.x for adapter in bars_of.adapters] == [74, 128, 182]
        seats = [s for s in evaluation.get(LAYOUT).seats if s.device in leads]
        assert {s.depth - s.part.depth for s in seats} == {50}, "they stand farther from the plate than on a rail"
        assert block.block.height >= 200, "an adapter is as high as the holders"
        bars = [h for h in evaluation.get(HOLES) if h.purpose.startswith("busbar of")]
        assert len(bars) == 4
        assert all(block.x < h.x < block.body.right and block.y < h.y < block.body.bottom for h in bars)
        bom = {row[1]: row[2] for row in schedule("bom", evaluation).rows}
        # DIN 43671, from memory: 20 × 5 carries 274 A; three bars are cut to the length of the system.
        assert bom["copper busbar 20 × 5"] == pytest.approx(3 * 0.256)
        assert bom["adapter 54 mm wide for 3 busbars 60 mm apart"] == 3
        assert bom["holder for 3 busbars 60 mm apart"] == 2
        assert sorted(c.name for c in evaluation.get(CUTS) if "busbar" in c.stock) == ["B1.1", "B1.2", "B1.3"]
        for pin in ("1", "3", "5"):
            ends = [
                w
                for w in evaluation.get(WIRING).wires
                if {w.start.pin, w.end.pin} & {PinRef(lead, pin) for lead in leads}
            ]
            assert len(ends) == 1, "one wire a phase feeds all three"

    @pytest.mark.parametrize(
        ("leads", "words"),
        [
            ((F,), "at least two"),
            ((F, DeviceId("c1.M")), "not stand on the plate"),
            ((F, DeviceId("c0.X.L1")), "strip"),
        ],
    )
    def test_what_cannot_be_joined_says_why(self, leads: tuple[DeviceId, ...], words: str) -> None:
        job = one_motor()
        with pytest.raises(RiktigError, match=words):
            join_parts(job, plan_for(job).get(LAYOUT), leads, JoinHow.LINK)

    def test_a_part_is_in_one_assembly_only(self) -> None:
        job = one_motor()
        linked = join_parts(job, plan_for(job).get(LAYOUT), (F, K), JoinHow.LINK)
        with pytest.raises(RiktigError, match="already"):
            join_parts(linked, plan_for(linked).get(LAYOUT), (F, Q), JoinHow.BUSBAR)
        with pytest.raises(RiktigError, match="no assembly"):
            separate_parts(job, F)
