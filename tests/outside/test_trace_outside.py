"""Ways back to a source against shortest paths of networkx, on a graph drawn anew from the rungs."""

import networkx as nx
import pytest

from riktig.core.catalogue import Behaviour
from riktig.core.job import Job
from riktig.core.schematic import CIRCUITS, NETS, TRACER, Circuits, Nets, elements_of, trace
from riktig.demo_job import DEMOS, demo_job
from tests.effort import some
from tests.shared_plan import plan_for

PASSES = (Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER)


def potentials(circuits: Circuits, nets: Nets) -> "nx.Graph[object]":
    """Potentials joined by whatever parts them, one device each; transformers and supplies join both sides."""
    graph: nx.Graph[object] = nx.Graph()
    graph.add_nodes_from(net.id for net in nets.nets)
    drawn = {(p.device, p.unit) for rung in circuits.rungs for e in elements_of(rung.path) for p in e.poles}
    behind = {("transformer", "5"): "1", ("transformer", "7"): "3"}
    behind |= {
        (kind, out): into for kind in ("dc_supply", "limited_dc_supply") for out, into in (("P", "L"), ("M", "N"))
    }
    for device in circuits.devices:
        pairs = [
            (unit.pins[0], unit.pins[-1])
            for unit in device.kind.units
            if unit.behaviour in PASSES and (device.id, unit.name) in drawn
        ]
        pairs += [(out, into) for (kind, out), into in behind.items() if kind == device.kind_id]
        for one, other in pairs:
            a, b = nets.of_pin.get(device.pin(one)), nets.of_pin.get(device.pin(other))
            if a and b:
                graph.add_edge(a.id, b.id)
    return graph


@pytest.fixture(params=sorted(DEMOS), scope="module")
def job(request: pytest.FixtureRequest) -> Job:
    return demo_job(request.param)


def test_every_way_is_joined_and_as_short_as_any(job: Job) -> None:
    evaluation = plan_for(job)
    circuits, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
    graph = potentials(circuits, nets)
    supply = next(device for device in circuits.devices if device.kind_id == "supply")
    sources = {nets.of_pin[supply.pin(pin)].id for pin in ("L1", "L2", "L3", "N") if supply.pin(pin) in nets.of_pin}
    shortest = nx.multi_source_dijkstra_path_length(graph, sources)
    tried = 0
    for device in circuits.devices:
        for unit in device.kind.units:
            start = nets.of_pin.get(device.pin(unit.pins[0]))
            if unit.behaviour not in (Behaviour.COIL, Behaviour.LAMP) or start is None or start.id not in shortest:
                continue
            way = trace(evaluation.get(TRACER), device.id, unit.name).paths[0]
            at = next(n for n, step in enumerate(way.steps) if step.asked)
            feed = [
                step
                for step in way.steps[:at]
                if nets.of_pin[step.crossing.enters] != nets.of_pin[step.crossing.leaves]
            ]
            assert way.begins is not None
            assert len(feed) <= shortest[start.id] + 1, device.id
            assert len(feed) >= shortest[start.id], device.id
            tried += 1
    assert tried > 2


def test_each_step_begins_at_the_potential_where_the_one_before_ends(job: Job) -> None:
    evaluation = plan_for(job)
    circuits, nets = evaluation.get(CIRCUITS), evaluation.get(NETS)
    assert any(trace(evaluation.get(TRACER), device.id).paths for device in circuits.devices)
    for device in some(circuits.devices):
        for way in trace(evaluation.get(TRACER), device.id).paths:
            for one, other in zip(way.steps, way.steps[1:], strict=False):
                assert nets.of_pin[one.crossing.leaves] is nets.of_pin[other.crossing.enters], (device.id, way.why)
            if way.begins and way.steps:
                assert nets.of_pin[way.begins] is nets.of_pin[way.steps[0].crossing.enters], (device.id, way.why)
