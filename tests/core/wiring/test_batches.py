"""Batches: every wire once, between two areas, in the order of the work, and parted so that they cost least."""

from itertools import product
from random import Random

import pytest
from tests.effort import some, times
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports import schedule
from riktig.core.job import (
    Batching,
    DoorOrder,
    Job,
    Start,
    Wetting,
    WiringOrder,
    add_load,
    add_signal,
    new_job,
    set_practice,
)
from riktig.core.plate import LAYOUT
from riktig.core.schematic import CIRCUITS, NETS, NetClass, with_names_recorded
from riktig.core.wiring import (
    WIRING,
    Prices,
    WiringStage,
    cheapest_parts,
    work_compared,
    work_of_batch,
    work_one_at_a_time,
    work_to_length,
)
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

PRICES = Prices(begin_minutes=3.0, hour=60.0, metre=0.3)


def ferry() -> Job:
    """A reversing winch, a blower in star-delta and a lamp circuit, with a 24 V signal: no shape of a demonstration."""
    job = add_load(new_job("F-1", "ferry ramp"), "winch", 5.5, start=Start.REVERSING)
    job = add_load(job, "blower", 15.0, start=Start.STAR_DELTA)
    return with_names_recorded(add_signal(job, "ramp down", place="quay", wetting=Wetting.DC))


def all_partings(items: list[int]) -> list[list[list[int]]]:
    """Every way to part a few things into groups, made by giving each a group in turn."""
    partings: list[list[list[int]]] = [[]]
    for item in items:
        grown: list[list[list[int]]] = []
        for parting in partings:
            for at in range(len(parting)):
                grown.append([[*g, item] if n == at else list(g) for n, g in enumerate(parting)])
            grown.append([*[list(g) for g in parting], [item]])
        partings = grown
    return partings


def price(parts: list[list[int]], lengths: list[float], mm2: float, prices: Prices) -> float:
    return sum(work_of_batch([lengths[n] for n in part], mm2, prices).cost for part in parts)


def test_no_parting_costs_less_than_the_one_that_is_found() -> None:
    """Against every parting of up to seven wires: sorted runs are not taken for granted."""
    dice = Random(5)
    for _ in range(times(60, 2000)):
        lengths = [float(dice.randrange(200, 3000, 10)) for _ in range(dice.randint(1, 7))]
        lengths += lengths[:1] if len(lengths) < 7 else []
        mm2 = dice.choice((0.75, 2.5, 35.0))
        prices = Prices(dice.choice((0.0, 1.0, 8.0)), dice.choice((5.0, 60.0)), dice.choice((0.0, 0.3, 20.0)))
        found = cheapest_parts(lengths, mm2, prices)
        assert sorted(n for part in found for n in part) == list(range(len(lengths)))
        least = min(price(parts, lengths, mm2, prices) for parts in all_partings(list(range(len(lengths)))))
        assert price(found, lengths, mm2, prices) == pytest.approx(least)


def test_three_ways_of_cutting_by_hand() -> None:
    """Worked on paper: 1000, 1000 and 700 mm of 2.5 mm² at 3 min a batch, 60 an hour, 0.3 a metre and mm²."""
    lengths = [1000.0, 1000.0, 700.0]
    planned, exact = work_of_batch(lengths, 2.5, PRICES), work_to_length(lengths, 2.5, PRICES)
    assert (planned.minutes, planned.waste, planned.cost) == pytest.approx((3.7, 300.0, 3.7 + 0.225))
    assert (exact.minutes, exact.waste, exact.cost) == pytest.approx((4.0, 0.0, 4.0))
    assert work_one_at_a_time(lengths, 2.5, PRICES).minutes == pytest.approx(10.5)


def test_dear_copper_parts_what_cheap_copper_joins() -> None:
    lengths = [2000.0, 1900.0, 400.0]
    assert len(cheapest_parts(lengths, 1.0, PRICES)) == 1
    assert cheapest_parts(lengths, 70.0, PRICES) == [[0, 1], [2]]
    assert len(cheapest_parts(lengths, 70.0, Prices(0.0, 0.0, 1.0))) == 3, "where time costs nothing nothing is wasted"


@pytest.fixture(params=[kelp_shed, frost_fan, wash_drum, ferry], ids=["shed", "fan", "drum", "ferry"])
def evaluation(request: pytest.FixtureRequest) -> Evaluation[Job]:
    return plan_for(request.param())


def test_a_batch_is_of_one_kind_between_two_areas_and_holds_each_wire_once(evaluation: Evaluation[Job]) -> None:
    wiring, layout = evaluation.get(WIRING), evaluation.get(LAYOUT)
    by_key = {wire.key: wire for wire in wiring.wires}
    assert [key for batch in wiring.batches for key in batch.wires] == [wire.key for wire in wiring.wires]
    devices = evaluation.get(CIRCUITS).by_id

    def area(device_id: str) -> str:
        stand = next((s for s in layout.stands if device_id in s.block.devices), None)
        if stand and stand.rail:
            return f"R{stand.rail}"
        return "door" if devices[device_id].zone.value == "door" else "plate"  # type: ignore[index]

    for batch in some(wiring.batches):
        own = [by_key[key] for key in batch.wires]
        assert len({(w.stage, w.mm2, w.colour, w.cut) for w in own}) == 1
        assert {w.cut for w in own} == {batch.cut} == {max(w.length for w in own)}
        assert batch.waste == pytest.approx(sum(w.cut - w.length for w in own))
        for wire in own:
            ends = sorted(area(end.pin.device) for end in (wire.start, wire.end))
            assert sorted(a if a.startswith("R") or a == "plate" else "door" for a in batch.areas) == ends, wire.name


def test_control_and_other_supplies_are_not_taken_for_the_main_supply(evaluation: Evaluation[Job]) -> None:
    """By what the net is, looked up here: lines only are mains and feeds, 24 V is control, orange is of its own."""
    nets = {net.id: net for net in evaluation.get(NETS).nets}
    for wire in some(evaluation.get(WIRING).wires):
        kind = nets[wire.net].net_class
        if wire.stage in (WiringStage.MAINS, WiringStage.FEED):
            assert kind in (NetClass.POWER, NetClass.NEUTRAL), wire.name
        elif wire.stage is WiringStage.LOAD:
            assert kind is NetClass.POWER, wire.name
        if kind is NetClass.DC:
            assert wire.stage in (WiringStage.DC, WiringStage.DOOR, WiringStage.FIELD), wire.name
        if kind is NetClass.EARTH:
            assert wire.stage is WiringStage.EARTH, wire.name


def test_field_terminals_come_last_and_on_top(evaluation: Evaluation[Job]) -> None:
    wires = evaluation.get(WIRING).wires
    strips = {d.id for d in evaluation.get(CIRCUITS).devices if d.strip}
    incoming = {d.circuit for d in evaluation.get(CIRCUITS).devices if d.kind.id in ("isolator", "isolator_door")}
    incoming |= {wire.circuit for wire in wires if wire.stage is WiringStage.MAINS}
    stages = [wire.stage for wire in wires]
    assert stages == sorted(stages, key=list(WiringStage).index)
    late = [w for w in wires if w.stage is WiringStage.FIELD]
    assert wires[-len(late) :] == tuple(late) and late
    for wire in late:
        assert {wire.start.pin.device, wire.end.pin.device} & strips
        assert not wire.via_door


@pytest.mark.parametrize(("order", "door"), list(product(WiringOrder, DoorOrder)))
def test_every_order_of_the_work_has_each_wire_once_and_its_own_beginning(order: WiringOrder, door: DoorOrder) -> None:
    wires = plan_for(set_practice(ferry(), wiring_order=order, door_order=door)).get(WIRING).wires
    usual = plan_for(ferry()).get(WIRING).wires
    assert sorted(w.key for w in wires) == sorted(w.key for w in usual)
    first = WiringStage.CONTROL if order is WiringOrder.CONTROL_FIRST else WiringStage.MAINS
    assert wires[0].stage is (WiringStage.DOOR if door is DoorOrder.FIRST else first)
    on_plate = [w for w in wires if w.stage is not WiringStage.DOOR]
    assert on_plate[0].stage is first


def test_circuit_by_circuit_finishes_one_before_the_next_and_its_power_first() -> None:
    wires = plan_for(set_practice(ferry(), wiring_order=WiringOrder.BY_CIRCUIT)).get(WIRING).wires
    inside = [w for w in wires if w.stage.name in ("FEED", "LOAD", "NEUTRAL", "CONTROL", "DC", "EXCEPTED")]
    circuits = [w.circuit for w in inside]
    runs = [c for n, c in enumerate(circuits) if n == 0 or circuits[n - 1] != c]
    assert len(runs) == len(set(runs)) > 3, "no circuit is left and taken up again"
    for circuit in runs:
        power = [w.stage in (WiringStage.FEED, WiringStage.LOAD) for w in inside if w.circuit == circuit]
        assert power == sorted(power, reverse=True)


def test_what_batches_save_is_said(evaluation: Evaluation[Job]) -> None:
    wiring, practice = evaluation.get(WIRING), evaluation.document.practice
    work = work_compared(wiring.wires, wiring.batches, practice)
    assert work.planned.cost <= work.one_at_a_time.cost
    assert work.planned.cost <= work.exact.cost + 1e-9 or work.planned.waste == 0
    assert work.exact.waste == work.one_at_a_time.waste == 0
    rows = schedule("cutting", evaluation).as_dicts()
    assert [row["trimmed_m"] for row in rows] == [round(sum(b.waste for b in wiring.batches) / 1000, 1), 0, 0]
    assert rows[2]["minutes"] == round(len(wiring.wires) * (practice.batch_minutes + 0.5))
    listed = schedule("batches", evaluation).as_dicts()
    assert sum(int(str(row["wires"])) for row in listed) == len(wiring.wires)


def test_cut_to_exact_lengths_nothing_is_trimmed_and_an_area_is_one_batch() -> None:
    exact = plan_for(set_practice(ferry(), batching=Batching.EXACT)).get(WIRING)
    assert all(wire.cut == wire.length for wire in exact.wires)
    assert sum(batch.waste for batch in exact.batches) == 0
    kinds = [(b.stage, b.mm2, b.colour, b.areas) for b in exact.batches]
    assert len(kinds) == len(set(kinds))
