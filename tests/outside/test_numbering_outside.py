"""Every numbering scheme against one made by hand on a graph of networkx: walk, count devices crossed."""

from collections import Counter

import networkx as nx
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from riktig.core.job import CircuitId, DeviceId, ElementId, Numbering, PinRef, Practice, set_practice
from riktig.core.schematic import (
    NAMES,
    NETS,
    Band,
    Circuits,
    Device,
    Element,
    GivenNames,
    Pole,
    Rung,
    Series,
    Zone,
    elements_of,
    find_nets,
    lay_out,
    name_all,
    with_names_recorded,
)
from riktig.core.wiring import WIRING
from riktig.demo_job import DEMOS, demo_job
from tests.outside.test_circuits_outside import components, networks
from tests.shared_plan import plan_for


def by_hand(circuits: Circuits, scheme: Numbering) -> dict[frozenset[str], str]:
    """The number of each potential as one would write it in pencil, walking path by path.

    Source: the schemes are common practice, no source; what a potential is, and that each device
    crossed begins a new one, is IEC 61082-1 (from memory).
    """
    whole = {pin: part for part in components(circuits) for pin in part}
    units = {(d.id, u.name): u.pins for d in circuits.devices for u in d.kind.units}
    places = lay_out(circuits).places
    found: dict[frozenset[str], str] = {}
    counts: Counter[str] = Counter()
    for path, rung in enumerate(circuits.rungs, 1):
        for element in elements_of(rung.path):
            (pole,) = element.poles
            pins = units[pole.device, pole.unit]
            for pin in reversed(pins) if pole.flipped else pins:
                here = whole[f"{pole.device}:{pin}"]
                if here in found or (len(here) == 2 and len({p.split(":")[0] for p in here}) == 1):
                    continue
                place = places[element.id]
                begins = {
                    Numbering.BY_RUNG: f"{path}",
                    Numbering.BY_SHEET: f"{place.sheet}",
                    Numbering.HOUSE: f"{place.sheet}",
                    Numbering.BY_PLACE: f"{place.sheet}.{place.column}",
                    Numbering.BY_GROUP: "3",
                }.get(scheme, "")
                counts[begins] += 1
                n = counts[begins]
                if scheme is Numbering.BY_PLACE:
                    found[here] = begins + ("" if n == 1 else "bcdefghjkmnpqrstuvwxyz"[n - 2])
                else:
                    found[here] = f"{begins}{n:02d}" if begins else str(n)
    return found


@pytest.mark.parametrize("scheme", list(Numbering))
@given(circuits=networks())
@settings(max_examples=40, deadline=None)
def test_random_circuits_are_numbered_as_by_hand(scheme: Numbering, circuits: Circuits) -> None:
    nets = find_nets(circuits)
    names = name_all(circuits, nets, GivenNames(Practice(numbering=scheme)))
    mine = {frozenset(map(str, net.pins)): names.number[net.id] for net in nets.nets if net.id in names.number}
    assert mine == by_hand(circuits, scheme)
    assert len(set(mine.values())) == len(mine)


@given(length=st.integers(1, 20))
@settings(max_examples=20, deadline=None)
def test_along_a_plain_path_the_number_is_the_count_of_devices_crossed(length: int) -> None:
    """A chain: the length of the shortest path of networkx from its beginning, plus one, is the number."""
    cid = CircuitId("c1")
    devices = tuple(Device(DeviceId(f"c1.F{n}"), cid, "fuse", Zone.PLATE, "") for n in range(length))
    unit = devices[0].kind.units[0]
    chain = tuple(Element(ElementId(f"{d.id}/{unit.name}"), (Pole(d.id, unit.name),)) for d in devices)
    circuits = Circuits(devices, (Rung("r", cid, Band.CONTROL, "", ("live",), ("back",), Series(chain)),), ())
    nets = find_nets(circuits)
    graph: nx.Graph[PinRef] = nx.Graph()
    ends = [[nets.of_pin[d.pin(pin)].id for pin in (unit.pins[0], unit.pins[-1])] for d in devices]
    graph.add_edges_from((a, b) for a, b in ends)
    crossed = nx.single_source_shortest_path_length(graph, nets.of_pin[devices[0].pin(unit.pins[0])].id)
    names = name_all(circuits, nets, GivenNames(Practice()))
    assert {net: str(count + 1) for net, count in crossed.items()} == names.number


@pytest.mark.parametrize("name", sorted(DEMOS))
@pytest.mark.parametrize("scheme", list(Numbering))
def test_the_same_nets_are_shown_with_every_scheme(name: str, scheme: Numbering) -> None:
    job = with_names_recorded(set_practice(demo_job(name), numbering=scheme))
    plan, before = plan_for(job), plan_for(demo_job(name))
    assert [net.pins for net in plan.get(NETS).nets] == [net.pins for net in before.get(NETS).nets]
    numbers = plan.get(NAMES).number
    assert set(numbers) == set(before.get(NAMES).number), "every potential that had a number has one"
    counted = [n for n in numbers.values() if n not in ("N", "PE")]
    assert len(counted) == len(set(counted)), "and no two have the same"


@pytest.mark.parametrize("name", sorted(DEMOS))
def test_every_wire_has_a_number_of_its_own_and_says_its_potential(name: str) -> None:
    job = with_names_recorded(set_practice(demo_job(name), numbering=Numbering.BY_WIRE))
    evaluation = plan_for(job)
    wires, numbers = evaluation.get(WIRING).wires, evaluation.get(NAMES).number
    assert len({wire.number for wire in wires}) == len(wires)
    assert all(wire.number.rpartition(".")[0] == numbers[wire.net] for wire in wires)


@given(st.integers(1, 30))
@settings(max_examples=10, deadline=None)
def test_ranges_begin_anew_with_every_circuit(step: int) -> None:
    """Common practice, no source: each circuit from the next multiple of the range on, so that the rest is free."""
    job = with_names_recorded(set_practice(demo_job("frost-fan"), number_step=step))
    blocks: dict[int, set[str]] = {}
    for one in job.numbers:
        block = (int(one.number) - 1) // step
        blocks.setdefault(block, set()).add(str(one.pins[0]).split(".")[0])
    assert all(len(owners) == 1 for owners in blocks.values()), "no range is shared by two circuits"
