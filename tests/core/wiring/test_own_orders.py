"""The builder's own order of wires: kept as he set it, through edits, with what clashes said."""

from collections import Counter
from itertools import pairwise

import networkx as nx
import pytest
from tests.shared_plan import plan_for

from riktig.core.edits import ChangeLoad, DropWireOrder, RemoveLoad, SetOneConductor, SetWireOrder
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.ids import LoadId, PinRef, read_pin
from riktig.core.job import Job, WireOrder, add_load
from riktig.core.plate import LAYOUT, move_block
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import NETS, NetClass, with_names_recorded
from riktig.core.store import dump_job, load_job
from riktig.core.wiring import WIRING, order_of
from riktig.demo_job import kelp_shed

RETURNS = ("s1.T:7", "c3.K:A2", "c1.K:A2", "c2.K:A2")


@pytest.fixture
def evaluation() -> Evaluation[Job]:
    return plan_for(kelp_shed())


def done(evaluation: Evaluation[Job], *edits: object) -> Evaluation[Job]:
    for edit in edits:
        evaluation = plan_for(with_names_recorded(edit.apply(evaluation)))  # type: ignore[attr-defined]
    return evaluation


def joined(evaluation: Evaluation[Job]) -> set[frozenset[PinRef]]:
    return {frozenset((wire.start.pin, wire.end.pin)) for wire in evaluation.get(WIRING).wires}


def pairs(*texts: str) -> set[frozenset[PinRef]]:
    return {frozenset((read_pin(a), read_pin(b))) for a, b in pairwise(texts)}


def found(evaluation: Evaluation[Job], code: str) -> list[str]:
    return [f.message for r in evaluation.get(RULES) if r.code == code for f in r.findings]


def test_the_named_clamps_are_joined_as_he_says_and_the_others_go_on_from_the_last(evaluation: Evaluation[Job]) -> None:
    after = done(evaluation, SetWireOrder(WireOrder((RETURNS,))))
    assert pairs(*RETURNS) <= joined(after)
    assert not pairs(*RETURNS) <= joined(evaluation)
    net = after.get(NETS).of_pin[read_pin(RETURNS[0])]
    own = [wire for wire in after.get(WIRING).wires if wire.net == net.id]
    graph = nx.Graph((wire.start.pin, wire.end.pin) for wire in own)
    assert nx.is_tree(graph), "one wire less than clamps, all of them joined"
    before = [wire for wire in evaluation.get(WIRING).wires if wire.net == net.id]
    assert len(own) == len(before)
    assert sum(w.length for w in own) >= sum(w.length for w in before), "without him it was the shortest"
    assert found(after, "W07") == []


def test_a_second_chain_splits_the_potential(evaluation: Evaluation[Job]) -> None:
    order = WireOrder((("s1.T:7", "c1.K:A2", "c2.K:A2"), ("s1.T:7", "c3.K:A2", "c4.K:A2")))
    after = done(evaluation, SetWireOrder(order))
    assert pairs(*order.chains[0]) | pairs(*order.chains[1]) <= joined(after)


def test_an_order_survives_other_edits_and_the_file(evaluation: Evaluation[Job]) -> None:
    after = done(evaluation, SetWireOrder(WireOrder((RETURNS,))), ChangeLoad(LoadId("m2"), {"kw": 5.5}))
    assert pairs(*RETURNS) <= joined(after)
    longer = plan_for(with_names_recorded(add_load(after.document, "stirrer", 0.75)))
    assert pairs(*RETURNS) <= joined(longer), "new clamps go on behind his"
    assert found(longer, "W07") == []
    assert load_job(dump_job(longer.document)) == longer.document


def test_a_clamp_that_went_is_left_out_and_said(evaluation: Evaluation[Job]) -> None:
    after = done(evaluation, SetWireOrder(WireOrder((RETURNS,))), RemoveLoad(LoadId("m3")))
    assert pairs("s1.T:7", "c1.K:A2", "c2.K:A2") <= joined(after)
    texts = found(after, "W07")
    assert any("c3.K:A2" in text for text in texts)
    assert all(r.verdict is not Verdict.FAILS for r in after.get(RULES) if r.code == "W07")
    back = done(after, DropWireOrder("c1.K:A2"))
    assert found(back, "W07") == []
    assert back.document.wire_orders == ()


def test_a_later_order_of_a_potential_takes_the_place_of_the_earlier(evaluation: Evaluation[Job]) -> None:
    other = ("s1.T:7", "c2.K:A2", "c1.K:A2")
    after = done(evaluation, SetWireOrder(WireOrder((RETURNS,))), SetWireOrder(WireOrder((other,))))
    assert after.document.wire_orders == (WireOrder((other,)),)
    assert pairs(*other) <= joined(after)


def test_a_clamp_for_one_conductor_stands_at_an_end_or_is_said(evaluation: Evaluation[Job]) -> None:
    pin = read_pin("c2.K:A2")

    def landed(plan: Evaluation[Job]) -> int:
        return sum(pin in (wire.start.pin, wire.end.pin) for wire in plan.get(WIRING).wires)

    assert landed(evaluation) == 2
    after = done(evaluation, SetOneConductor("c2.K:A2", True))
    assert landed(after) == 1 or any("want one" in text for text in found(after, "W04"))
    forced = done(after, SetWireOrder(WireOrder((("c1.K:A2", "c2.K:A2", "c3.K:A2"),))))
    assert landed(forced) == 2
    assert any("K6:A2" in text and "want one" in text for text in found(forced, "W04"))
    assert landed(done(forced, DropWireOrder("c2.K:A2"), SetOneConductor("c2.K:A2", False))) == 2


@pytest.mark.parametrize(
    "chains", [(("s1.T:7", "c1.K:13"),), (("s1.T:7", "c99.K:A2"),)], ids=["two potentials", "no such clamp"]
)
def test_clamps_that_are_not_on_one_potential_are_refused(
    evaluation: Evaluation[Job], chains: tuple[tuple[str, ...], ...]
) -> None:
    with pytest.raises(RiktigError, match="not on one potential"):
        SetWireOrder(WireOrder(chains)).apply(evaluation)


@pytest.mark.parametrize(
    "chains",
    [(), (("a:1",),), (("a:1", "a:1"),), (("a:1", "b:1"), ("c:1", "b:1")), (("a:1", "b:1"), ("a:1", "b:1"))],
    ids=["empty", "one clamp", "twice", "reached from two", "twice over chains"],
)
def test_an_order_that_cannot_be_is_refused(chains: tuple[tuple[str, ...], ...]) -> None:
    with pytest.raises(ValueError, match=r"chain|clamp|order"):
        WireOrder(chains)


def test_rows_and_chains_are_two_ways_to_say_the_same() -> None:
    order = WireOrder((("a:1", "b:1", "c:1"), ("b:1", "d:1"), ("e:1", "f:1")))
    assert order.rows == (("a:1", None), ("b:1", "a:1"), ("c:1", "b:1"), ("d:1", "b:1"), ("e:1", None), ("f:1", "e:1"))
    assert WireOrder.of_rows(order.rows) == order


def test_the_order_of_now_gives_the_same_wires(evaluation: Evaluation[Job]) -> None:
    """Whatever the planner joined, chains, bars and blocks, is read off as an order that gives it back."""
    before, of_pin = evaluation.get(WIRING), evaluation.get(NETS).of_pin
    nets = {wire.net for wire in before.wires if of_pin[wire.net].net_class is not NetClass.EARTH}
    assert len(nets) > 30
    for net in sorted(nets)[::5]:
        order = order_of(wire for wire in before.wires if wire.net == net)
        assert order is not None
        after = done(evaluation, SetWireOrder(order))
        assert joined(after) == joined(evaluation), net
        lengths = {wire.key: wire.length for wire in before.wires}
        assert {wire.key: wire.length for wire in after.get(WIRING).wires} == lengths


def test_protective_conductors_have_no_order(evaluation: Evaluation[Job]) -> None:
    of_pin = evaluation.get(NETS).of_pin
    order = order_of(w for w in evaluation.get(WIRING).wires if of_pin[w.net].net_class is NetClass.EARTH)
    assert order is not None
    with pytest.raises(RiktigError, match="Protective conductors"):
        SetWireOrder(order).apply(evaluation)


def test_a_clamp_that_a_bridge_joins_later_gives_its_place_to_the_one_with_the_wire(
    evaluation: Evaluation[Job],
) -> None:
    wiring = evaluation.get(WIRING)
    bridged = [pin for pin, name in wiring.joined.items() if name.startswith("jumper")]
    of_pin = evaluation.get(NETS).of_pin
    net = of_pin[bridged[0]]
    alike = [pin for pin in bridged if wiring.joined[pin] == wiring.joined[bridged[0]]]
    own = [wire for wire in wiring.wires if wire.net == net.id]
    ends = {end.pin for wire in own for end in (wire.start, wire.end)}
    idle = next(pin for pin in alike if pin not in ends)
    other = next(pin for pin in sorted(ends) if pin not in alike)
    after = done(evaluation, SetWireOrder(WireOrder(((str(other), str(idle)),))))
    first = next(pin for pin in alike if pin in ends)
    assert frozenset((other, first)) in joined(after)
    assert found(after, "W07") == []


def test_a_new_circuit_takes_a_free_way_of_the_block(evaluation: Evaluation[Job]) -> None:
    net = evaluation.get(NETS).of_pin[read_pin("c6.F:1")]
    order = order_of(wire for wire in evaluation.get(WIRING).wires if wire.net == net.id)
    assert order is not None
    begun = done(evaluation, SetWireOrder(order))
    longer = plan_for(with_names_recorded(add_load(begun.document, "stirrer", 0.75)))
    (net,) = {net for net in longer.get(NETS).nets if net.id == longer.get(NETS).of_pin[read_pin("c6.F:1")].id}
    own = [wire for wire in longer.get(WIRING).wires if wire.net == net.id]
    counts = Counter(end.pin for wire in own for end in (wire.start, wire.end))
    fresh = [pin for pin in counts if str(pin) not in dict(order.rows)]
    assert len(fresh) == 2
    assert {counts[pin] for pin in fresh} == {1}
    assert sum(pin.device == "c0.XD1" for pin in fresh) == 1, "a way of the block that was free"
    assert found(longer, "W07") == []
    assert len(own) == len([w for w in begun.get(WIRING).wires if w.net == net.id]) + 1


@pytest.mark.parametrize("by", [0.5, 40.0])
def test_wires_after_one_moved_part_are_those_of_a_fresh_plan(evaluation: Evaluation[Job], by: float) -> None:
    """Ways and chains between clamps that stayed are kept: that may save time and change nothing."""
    evaluation.get(WIRING)
    for stand in [stand for stand in evaluation.get(LAYOUT).stands if stand.rail][::9]:
        layout = evaluation.get(LAYOUT)
        moved = move_block(evaluation.document, layout, stand.block.lead, stand.rail, stand.x + by)
        evaluation.move_to(moved)
        assert evaluation.get(WIRING) == Evaluation(moved).get(WIRING), stand.block.lead
