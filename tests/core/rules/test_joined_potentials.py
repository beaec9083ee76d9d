"""Every potential is joined: against networkx, with each wire taken out in turn, and at a plugged point by name."""

from dataclasses import replace

import networkx as nx
import pytest
from tests.core.schematic.builders import one_motor
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import times
from tests.shared_plan import plan_for

from riktig.core.catalogue import Behaviour, Clamp
from riktig.core.evaluation import Evaluation
from riktig.core.ids import CircuitId, PinRef
from riktig.core.job import Job, OwnDevice, OwnRung
from riktig.core.keys import PinKey
from riktig.core.rules import RULES, Finding, Verdict
from riktig.core.rules.derived import VIEW
from riktig.core.rules.joined_potentials import parts_of, potentials_joined
from riktig.core.schematic import CIRCUITS, NETS, NetClass, Zone, add_device, add_rung, with_names_recorded
from riktig.core.wiring import WIRING
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

JOBS = {"shed": kelp_shed, "fan": frost_fan, "drum": wash_drum}
TRIED = [*JOBS, *list(SAMPLES)[:: times(9, 1)]]


def evaluated(name: str) -> Evaluation[Job]:
    return plan_for(JOBS[name]() if name in JOBS else with_names_recorded(sample(name)))


def found(evaluation: Evaluation[Job]) -> tuple[Finding, ...]:
    return next(result.findings for result in evaluation.get(RULES) if result.code == "W07")


def graph_of(evaluation: Evaluation[Job]) -> "nx.Graph[PinRef]":
    """All clamps inside the panel, joined by wires, jumpers, combs, plugs and the joints of terminals and bars."""
    graph: nx.Graph[PinRef] = nx.Graph()
    devices, wiring = evaluation.get(CIRCUITS).by_id, evaluation.get(WIRING)
    graph.add_edges_from((wire.start.pin, wire.end.pin) for wire in wiring.wires)
    for net in evaluation.get(NETS).nets:
        graph.add_nodes_from(net.pins)
        joined: dict[str, PinRef] = {}
        plugged = [p for p in net.pins if devices[p.device].kind.pin(p.marking).clamp is Clamp.PLUG]
        graph.add_edges_from((plugged[0], pin) for pin in plugged[1:])
        for pin in net.pins:
            if pin in wiring.joined:
                graph.add_edge(joined.setdefault(wiring.joined[pin], pin), pin)
    for device in devices.values():
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.JOINT:
                ends = [device.pin(name) for name in unit.pins]
                graph.add_edges_from((ends[0], end) for end in ends[1:])
    return graph


@pytest.mark.parametrize("name", TRIED)
def test_the_groups_are_those_of_a_graph_library_and_there_is_one_a_potential(name: str) -> None:
    evaluation = evaluated(name)
    assert found(evaluation) == ()
    graph, devices = graph_of(evaluation), evaluation.get(CIRCUITS).by_id
    parts = parts_of(evaluation.get(VIEW))
    for net in evaluation.get(NETS).nets:
        inside = {
            pin
            for pin in net.pins
            if devices[pin.device].zone is not Zone.FIELD
            and devices[pin.device].kind.pin(pin.marking).clamp is not Clamp.FIELD
        }
        groups = {frozenset(nx.node_connected_component(graph, pin)) & inside for pin in inside}
        assert {frozenset(group) for group in parts.get(net.id, [])} == groups, net.id
        if net.net_class is not NetClass.EARTH:
            assert len(groups) <= 1, net.id


@pytest.mark.parametrize("name", ["drum", "fan"])
def test_every_wire_that_is_left_out_is_missed_by_name(name: str) -> None:
    evaluation = evaluated(name)
    view = evaluation.get(VIEW)
    earths = {net.id for net in evaluation.get(NETS).nets if net.net_class is NetClass.EARTH}
    tried = 0
    for wire in view.wiring.wires:
        if wire.net in earths:
            continue
        rest = tuple(other for other in view.wiring.wires if other is not wire)
        result = potentials_joined(replace(view, wiring=replace(view.wiring, wires=rest)))
        assert result.findings, wire.name
        labels = (wire.start.label, wire.end.label)
        pins = {pin for net in view.nets.nets if net.id == wire.net for pin in net.pins}
        assert all(isinstance(f.where, PinKey) and f.where.pin in pins for f in result.findings), labels
        tried += 1
    assert tried > 20


def test_a_wire_to_a_plugged_point_is_an_error_by_name() -> None:
    """The overload is plugged below the contactor: no wire lands between them, and that is said, not passed over."""
    lamp = OwnDevice("H.x", "lamp", "door", "extra")
    job = add_device(one_motor(), CircuitId("c1"), lamp)
    rung = OwnRung("r1", "extra lamp", "main.L1", "K:1-2 H.x:X1-X2", "N")
    (said,) = found(plan_for(with_names_recorded(add_rung(job, CircuitId("c1"), rung))))
    assert said.verdict is Verdict.FAILS
    assert said.message == "H3:X1 is to be joined to K1:2 and F3:1, which are plugged together and take no wire."
    assert said.where is not None
    assert str(said.where) == "pin:c1.H.x:X1"
    past = OwnRung("r1", "extra lamp", "main.L1", "FO:1-2 H.x:X1-X2", "N")
    (other,) = found(plan_for(with_names_recorded(add_rung(job, CircuitId("c1"), past))))
    assert other.message.startswith("Q1:2 is to be joined to K1:2 and F3:1, "), "the line was to land at the plug too"
    free = OwnRung("r1", "extra lamp", "c1.control", "H.x:X1-X2", "N")
    assert found(plan_for(with_names_recorded(add_rung(job, CircuitId("c1"), free)))) == ()
