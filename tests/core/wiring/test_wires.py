"""Wires: n clamps take n-1 wires, no clamp holds more than it may, ends and lengths by hand."""

from collections import Counter, defaultdict
from collections.abc import Callable
from dataclasses import replace
from itertools import pairwise, permutations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from numpy.typing import NDArray
from tests.core.schematic.builders import STOP, one_motor
from tests.effort import some, times
from tests.shared_plan import plan_for

from riktig.core.catalogue import Clamp
from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.job import (
    Batching,
    Colours,
    DoorOrder,
    Insertable,
    Job,
    LoadKind,
    Override,
    PinRef,
    WiringOrder,
    add_load,
    change_load,
    new_job,
    read_pin,
    set_practice,
    set_supply,
)
from riktig.core.keys import BatchKey
from riktig.core.plate import LAYOUT, Duct
from riktig.core.schematic import CIRCUITS, NETS, NetClass, insert_contact, with_names_recorded
from riktig.core.sizing import SIZING
from riktig.core.wiring import (
    WIRING,
    Router,
    Wire,
    Wiring,
    WiringStage,
    best_path,
    draw_batches,
    mini_plate,
    route_shapes,
)
from riktig.demo_job import demo_job


def wiring_of(job: Job) -> Wiring:
    return plan_for(job).get(WIRING)


def test_each_net_of_n_clamps_takes_n_minus_one_wires(two_motors: Job) -> None:
    evaluation = plan_for(two_motors)
    devices = evaluation.get(CIRCUITS).by_id
    wires = Counter(w.net for w in evaluation.get(WIRING).wires)
    for net in some(evaluation.get(NETS).nets):
        clamps = 0
        for pin in net.pins:
            owner, marking = pin
            device = devices[owner]
            clamps += device.kind.pin(marking).clamp in (Clamp.POWER, Clamp.CONTROL) and device.zone.value != "field"
        if net.net_class is NetClass.EARTH:
            assert wires[net.id] == len(evaluation.get(CIRCUITS).earths)
        else:
            assert wires[net.id] == max(clamps - 1, 0), net.id


def test_a_start_stop_starter_takes_the_wires_counted_by_hand() -> None:
    # By hand, control: 7 F2-K1:43-F3:95-F3:97 three, 8 one, 9 S1-S2-K1 two, 10 S2-K1:14-K1:A1 two, 11 one,
    # 12 one, N X1-K1-H1-H2 three; power: 3 + 3 + 1 to F2 + 3 + 3; earths: X1, E1, E2, E3, X2.
    wires = wiring_of(one_motor()).wires
    assert Counter(w.number for w in wires) == {
        "L1": 1,
        "L2": 1,
        "L3": 1,
        "1": 2,
        "2": 1,
        "3": 1,
        "4": 1,
        "5": 1,
        "6": 1,
        "M1-U": 1,
        "M1-V": 1,
        "M1-W": 1,
        "7": 3,
        "8": 1,
        "9": 2,
        "10": 2,
        "11": 1,
        "12": 1,
        "N": 3,
        "PE": 5,
    }


@pytest.mark.parametrize("extra", range(3))
def test_no_clamp_holds_more_than_it_may_and_all_of_one_section(extra: int) -> None:
    job = one_motor()
    for n in range(extra):
        job = with_names_recorded(insert_contact(job, STOP, Insertable.FIELD_CONTACT, f"interlock {n}"))
    evaluation = plan_for(job)
    here = defaultdict(list)
    for wire in evaluation.get(WIRING).wires:
        here[wire.start.pin].append(wire)
        here[wire.end.pin].append(wire)
    for pin, wires in here.items():
        owner, marking = pin
        clamp = evaluation.get(SIZING).parts[owner].clamp(marking)
        assert len(wires) <= clamp.conductors
        assert len({w.mm2 for w in wires}) == 1
    assert evaluation.get(WIRING).crowded == ()


def test_two_wires_in_a_clamp_share_a_twin_ferrule_and_one_gets_its_own() -> None:
    wires = wiring_of(one_motor()).wires
    ends = defaultdict(list)
    for wire in wires:
        for end in (wire.start, wire.end):
            ends[end.pin].append((wire, end))
    for pin, here in some(ends.items()):
        for wire, end in some(here):
            if len(here) == 2:
                assert end.fitting.startswith("ferrule 2 ×")
                assert end.shared == next(w.key for w, _ in here if w.key != wire.key)
            elif ".E." in pin.device:
                assert end.fitting.startswith("ring")
            else:
                assert end.shared is None
                assert end.fitting.startswith(f"ferrule {wire.mm2:g} /")


def test_lengths_follow_the_ducts_by_hand() -> None:
    # F2:2 to K1:43: from the lower clamp down to the middle of D4, along it, down to K1's upper clamp, and 35 mm more
    # at each end, rounded up to 10; worked from the places of the two clamps alone.
    evaluation = plan_for(one_motor())
    from riktig.core.job import DeviceId

    layout = evaluation.get(LAYOUT)
    upper, lower = layout.seat(DeviceId("c1.FC")), layout.seat(DeviceId("c1.K"))
    assert upper is not None
    assert lower is not None
    duct = next(d for d in layout.ducts if d.name == "D4").rect.centre.y
    a, b = upper.pin_point("2"), lower.pin_point("43")
    way = abs(duct - a.y) + abs(a.x - b.x) + abs(b.y - duct)
    wire = next(w for w in evaluation.get(WIRING).wires if (w.start.label, w.end.label) == ("F2:2", "K1:43"))
    assert wire.length == -(-(way + 70) // 10) * 10
    assert wire.ducts == ("D4",)


def test_wires_to_the_door_cross_the_hinge_with_its_loop() -> None:
    short, long = ({w.key: w for w in wiring_of(one_motor(door_loop=loop)).wires} for loop in (300.0, 500.0))
    assert set(short) == set(long)
    crossing = 0
    for key, wire in short.items():
        on_the_door = all(".S." in pin or ".H." in pin for pin in key.split("~"))
        crosses = wire.via_door and not on_the_door
        assert long[key].length - wire.length == (200 if crosses else 0)
        crossing += crosses
    assert crossing == 7, "8, 9, 10, 11, 12, N and the door's bond"


@pytest.mark.parametrize(
    ("stage", "colour"),
    [
        (WiringStage.MAINS, "black"),
        (WiringStage.FEED, "black"),
        (WiringStage.LOAD, "black"),
        (WiringStage.CONTROL, "red"),
        (WiringStage.NEUTRAL, "light blue"),
        (WiringStage.EARTH, "green-yellow"),
    ],
)
def test_colours_follow_the_rulebook(stage: WiringStage, colour: str) -> None:
    wires = wiring_of(one_motor(wiring_order=WiringOrder.SUPPLY_FIRST)).wires
    assert {w.colour for w in wires if w.stage is stage} == {colour}


def test_the_older_phase_colours_are_told_apart_by_line() -> None:
    wires = wiring_of(one_motor(colours=Colours.THREE_PHASE)).wires
    by_number = {w.number: w.colour for w in wires}
    assert [by_number[n] for n in ("L1", "L2", "L3", "M1-U", "M1-V", "M1-W")] == ["brown", "black", "grey"] * 2
    assert by_number["1"] == "brown"


def test_batches_hold_every_wire_once_and_are_cut_to_their_longest() -> None:
    wiring = wiring_of(one_motor())
    keys = [key for batch in wiring.batches for key in batch.wires]
    assert sorted(keys) == sorted(w.key for w in wiring.wires)
    for batch in wiring.batches:
        mine = [w for w in wiring.wires if w.key in batch.wires]
        assert {w.cut for w in mine} == {max(w.length for w in mine)}
        assert batch.waste == pytest.approx(sum(w.cut - w.length for w in mine))
        assert len({(w.mm2, w.colour, w.stage) for w in mine}) == 1


def test_cut_exact_wastes_nothing() -> None:
    wiring = wiring_of(one_motor(batching=Batching.EXACT))
    assert all(w.cut == w.length for w in wiring.wires)
    assert sum(b.waste for b in wiring.batches) == 0


@pytest.mark.parametrize(("order", "first"), [(DoorOrder.LAST, WiringStage.MAINS), (DoorOrder.FIRST, WiringStage.DOOR)])
def test_the_door_is_wired_when_the_practice_says(order: DoorOrder, first: WiringStage) -> None:
    assert wiring_of(one_motor(door_order=order)).batches[0].stage is first
    assert wiring_of(one_motor(door_order=order)).batches[-1].stage is WiringStage.FIELD


def test_each_protective_conductor_has_a_way_of_its_own() -> None:
    job = new_job()
    for n in range(7):
        job = add_load(job, f"fan {n}", 1.1)
    wires = [w for w in wiring_of(with_names_recorded(job)).wires if w.stage is WiringStage.EARTH]
    ends = Counter(end.pin for w in wires for end in (w.start, w.end))
    assert set(ends.values()) == {1}


def table(pins: list[PinRef], length: Callable[[PinRef, PinRef], float]) -> NDArray[np.float64]:
    """The lengths between each two pins."""
    return np.array([[length(a, b) for b in pins] for a in pins])


@settings(max_examples=times(15, 150), deadline=None)
@given(
    st.lists(st.tuples(st.integers(0, 60), st.integers(0, 60)), min_size=2, max_size=6, unique=True),
    st.sets(st.integers(0, 5), max_size=2),
)
def test_the_chain_is_the_shortest_that_spares_the_single_clamps(
    spots: list[tuple[int, int]], chosen: set[int]
) -> None:
    pins = [read_pin(f"p{n}") for n in range(len(spots))]
    at = dict(zip(pins, spots, strict=True))

    def length(a: PinRef, b: PinRef) -> float:
        return abs(at[a][0] - at[b][0]) + abs(at[a][1] - at[b][1])

    single = {read_pin(f"p{n}") for n in chosen if n < len(spots)}
    found = best_path(pins, single, table(pins, length))
    allowed = [p for p in permutations(pins) if not set(p[1:-1]) & single]
    best = min(sum(length(a, b) for a, b in pairwise(p)) for p in allowed)
    assert sum(length(a, b) for a, b in pairwise(found)) == best
    assert not set(found[1:-1]) & single


def test_a_long_chain_is_within_a_tenth_of_the_bound_of_its_tree() -> None:
    pins = [read_pin(f"p{n}") for n in range(24)]
    at = {pin: (n * 37 % 101, n * 53 % 89) for n, pin in enumerate(pins)}

    def length(a: PinRef, b: PinRef) -> float:
        return abs(at[a][0] - at[b][0]) + abs(at[a][1] - at[b][1])

    import networkx as nx

    graph: nx.Graph[object] = nx.Graph()
    graph.add_weighted_edges_from((a, b, length(a, b)) for a in pins for b in pins if a < b)
    tree = nx.minimum_spanning_tree(graph).size(weight="weight")
    found = best_path(pins, set(), table(pins, length))
    assert sorted(found) == sorted(pins)
    assert sum(length(a, b) for a, b in pairwise(found)) <= 1.35 * tree


def passes(wire: Wire, duct: Duct, at: float) -> bool:
    """Whether a wire crosses a cut through a duct, by the corners of its way alone."""
    middle = duct.rect.centre
    for p, q in pairwise(wire.route):
        if duct.upright and p.x == q.x == pytest.approx(middle.x) and min(p.y, q.y) < at < max(p.y, q.y):
            return True
        if not duct.upright and p.y == q.y == pytest.approx(middle.y) and min(p.x, q.x) < at < max(p.x, q.x):
            return True
    return False


def test_duct_fill_counts_every_wire_that_runs_in_the_duct() -> None:
    from riktig.core.standards import wire_diameter

    evaluation = plan_for(one_motor())
    wiring, layout = evaluation.get(WIRING), evaluation.get(LAYOUT)
    for duct in layout.ducts:
        begin, end = (duct.rect.y, duct.rect.bottom) if duct.upright else (duct.rect.x, duct.rect.right)
        fullest = 0.0
        for mm in range(int(begin) + 1, int(end)):
            # Cut through the duct at every millimetre and lay the wires there side by side and on each other.
            here = [w for w in wiring.wires if passes(w, duct, mm + 0.013)]
            fullest = max(fullest, sum(wire_diameter(w.mm2).value ** 2 for w in here) / (30 * 60))
        assert wiring.fill[duct.name] == pytest.approx(fullest, abs=1e-4)
        parts = wiring.segments[duct.name]
        assert (parts[0].begin, parts[-1].end) == (begin, end)
        assert all(one.end == other.begin for one, other in pairwise(parts))
    wide = wiring_of(set_practice(one_motor(), duct_width=60.0))
    assert wide.fill["D5"] < wiring.fill["D5"]


def test_pictures_show_every_batch_and_the_way_of_a_wire() -> None:
    evaluation = plan_for(one_motor())
    wiring = evaluation.get(WIRING)
    cards = draw_batches(wiring, {"1": 2})
    assert {m.key for m in cards.shapes} == {BatchKey(b.number) for b in wiring.batches}
    wire = wiring.wires[0]
    way = route_shapes((wire,), shift=0)[0]
    corners = way.points  # type: ignore[union-attr]
    assert (corners[0], corners[-1]) == (wire.route[0], wire.route[-1])
    assert all(a.x == pytest.approx(b.x) or a.y == pytest.approx(b.y) for a, b in pairwise(corners))

    small = mini_plate(evaluation.get(LAYOUT), wiring.wires, frozenset({"c1.K"}))
    assert small.width >= evaluation.get(LAYOUT).plate.width


def test_the_neutral_of_a_load_is_as_thick_as_its_line_and_that_of_control_is_not() -> None:
    """A single-phase heater of 6 kW: what comes back through its neutral is what its line brings (common practice)."""
    job = add_load(set_supply(new_job("N", "neutral"), neutral=True), "heater", 6.0, kind=LoadKind.HEATER, phases=1)
    evaluation = plan_for(with_names_recorded(job))
    of_pin = evaluation.get(NETS).of_pin
    mm2 = {wire.key: wire.mm2 for wire in evaluation.get(WIRING).wires}
    line = {wire.mm2 for wire in evaluation.get(WIRING).wires if "c1.X.L" in wire.key}
    neutral = {wire.mm2 for wire in evaluation.get(WIRING).wires if "c1.X.N" in wire.key}
    assert line == neutral
    assert len(neutral) == 1
    control = next(w for w in evaluation.get(WIRING).wires if "c1.K:A2" in w.key and "c0.NB" in w.key)
    assert of_pin[control.start.pin].net_class is NetClass.NEUTRAL
    assert mm2[control.key] < min(neutral)


def test_ways_found_before_are_kept_while_everything_stands_where_it_did_and_give_the_same_wires() -> None:
    """The plan of one job through several edits against a fresh one of each: sizes, names, a part that moves."""
    job = one_motor()
    load = job.loads[0].id
    kept = Evaluation(job)
    before = kept.get(WIRING)
    for changed in (
        change_load(job, load, name="another fan"),
        change_load(job, load, kw=3.0),
        set_practice(job, duct_width=60.0),
        set_practice(job, end_allowance=90.0),
        add_load(job, "second", 7.5),
    ):
        kept.move_to(with_names_recorded(changed))
        assert kept.get(WIRING) == Evaluation(kept.document).get(WIRING)
    assert kept.get(WIRING) != before


def test_a_router_is_taken_over_only_while_nothing_it_measured_has_moved() -> None:
    def router(job: Job) -> Router:
        e = plan_for(job)
        return Router(e.get(LAYOUT), e.get(DOOR), e.get(CIRCUITS).devices, job.enclosure, job.practice)

    job = one_motor()
    first = router(job)
    assert router(job).or_same(first) is first
    for moved in (set_practice(job, duct_width=60.0), set_practice(job, door_loop=job.practice.door_loop + 100)):
        other = router(moved)
        assert other.or_same(first) is other


def test_two_operators_of_one_door_are_as_far_apart_as_they_stand_and_others_go_over_the_hinge() -> None:
    """By hand: straight across and down the door; to the plate over its loop, which is longer."""
    job = one_motor()
    evaluation = plan_for(job)
    door = evaluation.get(DOOR)
    router = Router(evaluation.get(LAYOUT), door, evaluation.get(CIRCUITS).devices, job.enclosure, job.practice)
    stop, start, coil = read_pin("c1.S.stop:1"), read_pin("c1.S.start:3"), read_pin("c1.K:A1")
    seats = [door.seat(pin.device) for pin in (stop, start)]
    assert seats[0] is not None
    assert seats[1] is not None
    apart = abs(seats[0].x - seats[1].x) + abs(seats[0].y - seats[1].y)
    assert router.length(stop, start) == pytest.approx(apart, abs=1e-3)
    assert router.lengths((stop, start, coil))[0, 1] == pytest.approx(apart, abs=1e-3)
    assert router.length(stop, coil) > job.practice.door_loop
    assert router.route(stop, coil).via_door
    assert router.route(stop, stop).length == 0.0


@pytest.mark.parametrize("name", ["kelp-shed", "frost-fan"])
def test_a_control_potential_crosses_the_hinge_once(name: str) -> None:
    """However many operators of a door it meets: each further crossing is a wire more in the loom (common practice)."""
    evaluation = plan_for(demo_job(name))
    devices = evaluation.get(CIRCUITS).by_id
    on_door = {device.id for device in devices.values() if device.zone.value == "door"}
    control = {net.id: net for net in evaluation.get(NETS).nets if net.net_class is NetClass.CONTROL}
    crossings = Counter(
        wire.net
        for wire in evaluation.get(WIRING).wires
        if wire.net in control and (wire.start.pin.device in on_door) != (wire.end.pin.device in on_door)
    )
    several = [net for net in crossings if len({pin.device for pin in control[net].pins} & on_door) > 1]
    assert several
    assert {crossings[net] for net in several} == {1}


def test_the_neutral_of_a_load_follows_the_section_that_the_builder_takes() -> None:
    """A single phase returns all of its current by its neutral, whatever section the builder takes for it (IEC
    60364-5-52 524.2, from memory).
    """
    job = add_load(set_supply(new_job(), upstream_a=63.0), "pit heater", 6.0, kind=LoadKind.HEATER, phases=1)
    job = replace(job, overrides=(Override(f"{job.loads[0].id}.section", 16.0, "16 mm² is on the drum"),))
    evaluation = plan_for(with_names_recorded(job))
    (load,) = evaluation.get(SIZING).loads
    own = {device.id for device in evaluation.get(CIRCUITS).devices if device.circuit == load.circuit}
    nets = evaluation.get(NETS).of_pin
    sections = {
        wire.mm2
        for wire in evaluation.get(WIRING).wires
        if nets[wire.net].net_class is NetClass.NEUTRAL and {wire.start.pin.device, wire.end.pin.device} & own
    }
    assert load.section.mm2 == 16.0
    assert sections - {load.control.mm2} == {16.0}
