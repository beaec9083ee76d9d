"""Lock-off: whatever switch, relay or program could close, and every source by name.

Second opinion: for every part, with the locks open and the sources cut, networkx finds no way from any source to it;
and without any one of the locks it finds one.
"""

from collections.abc import Iterator

import networkx as nx
import pytest

from riktig.core.catalogue import Can
from riktig.core.evaluation import Evaluation
from riktig.core.job import DeviceId, Job, add_load, new_job
from riktig.core.schematic import CIRCUITS, NAMES, NETS, Circuits, Zone, with_names_recorded
from riktig.core.simulation import MAINS, LockOff, lock_off, lock_off_text, panel_of
from riktig.core.simulation.network import Network
from riktig.demo_job import DEMOS
from tests.effort import some
from tests.shared_plan import plan_for


def built(job: Job) -> tuple[Circuits, Network, dict[DeviceId, str]]:
    evaluation: Evaluation[Job] = plan_for(job)
    circuits = evaluation.get(CIRCUITS)
    return circuits, panel_of(job, circuits, evaluation.get(NETS)).network, dict(evaluation.get(NAMES).tag)


SHED = built(DEMOS["kelp-shed"]())


def of(tag: str) -> tuple[DeviceId, LockOff, dict[DeviceId, str]]:
    circuits, network, tags = SHED
    (device,) = [did for did, one in tags.items() if one == tag]
    return device, lock_off(circuits, network, device), tags


@pytest.mark.parametrize(
    ("tag", "locks", "cut"),
    [
        ("M2", {"F9"}, set()),  # dead at rest: the contactor is out
        ("K6", {"F9", "F10"}, set()),  # its poles and its coil
        ("K5", {"F7"}, {"W2"}),  # a relay whose coil another panel feeds
        ("B1", {"F5"}, set()),  # a field contact of the controller, behind the 24 V supply
        ("T2", {"F3"}, set()),
        ("W1", set(), {MAINS}),
    ],
)
def test_the_locks_of_the_shed_are_what_an_electrician_would_lock(tag: str, locks: set[str], cut: set[str]) -> None:
    """Read off the sheets by hand."""
    _, found, tags = of(tag)
    assert {tags[one] for one in found.switches} == locks
    assert {tags.get(DeviceId(one), one) for one in found.sources} == cut


def test_the_capacitors_of_a_drive_are_said_for_its_motor_and_itself() -> None:
    for tag in ("M5", "U1"):
        _, found, tags = of(tag)
        assert [tags[one] for one in found.stored] == ["U1"]
        assert "its capacitors stay charged" in lock_off_text(found, SHED[0], DeviceId("x"))


def joined(circuits: Circuits, network: Network, opened: set[DeviceId]) -> "nx.Graph[int]":
    graph: nx.Graph[int] = nx.Graph()
    graph.add_nodes_from(range(network.count))
    graph.add_edges_from((one.a, one.b) for one in network.contacts if one.device not in opened)
    graph.add_edges_from((one.a, one.b) for one in network.consumers)
    points: dict[DeviceId, list[int]] = {}
    for pin, point in network.point.items():
        points.setdefault(pin.device, []).append(point)
    able = (Can.TRANSFORMS, Can.MAKES_DC, Can.VARIES_SPEED, Can.STARTS_SOFTLY, Can.GIVES_LEVELS)
    for number, device in enumerate(circuits.devices):
        if any(device.kind.can(one) for one in able):  # what feeds it makes what it gives: one node inside
            graph.add_edges_from((-1 - number, point) for point in points.get(device.id, ()))
    return graph


def sources(circuits: Circuits, network: Network) -> Iterator[tuple[str, int]]:
    foreign = {str(device.id) for device in circuits.devices if device.kind.can(Can.FOREIGN_SUPPLY)}
    for pole in network.poles:
        if pole.system in foreign or (pole.system == MAINS and not pole.is_zero):
            yield pole.system, pole.point


@pytest.mark.parametrize("name", DEMOS)
def test_with_the_locks_open_nothing_reaches_the_part_and_each_lock_is_needed(name: str) -> None:
    circuits, network, _ = built(DEMOS[name]())
    hot = list(sources(circuits, network))
    zeros = {pole.point for pole in network.poles if pole.is_zero} - {point for _, point in hot}
    for device in some(circuits.devices):
        found = lock_off(circuits, network, device.id)
        starts = {network.point[pin] for pin in network.point if pin.device == device.id} - zeros

        def reach(opened: set[DeviceId], starts: set[int] = starts) -> set[str]:
            graph = joined(circuits, network, opened)
            graph.remove_nodes_from(zeros)
            near = set().union(*(nx.node_connected_component(graph, one) for one in starts)) if starts else set()
            return {system for system, point in hot if point in near}

        locks = set(found.switches)
        assert reach(locks) <= set(found.sources), device.id
        if not found.sources:
            for one in locks:
                assert reach(locks - {one}), (device.id, one)


def test_nothing_is_never_the_answer() -> None:
    circuits, network, _ = SHED
    for device in some(circuits.devices):
        text = lock_off_text(lock_off(circuits, network, device.id), circuits, device.id)
        assert "lock" in text
        assert "nothing" not in text
        assert text.endswith("prove it dead, with a tester proved before and after. Local codes decide.")


def test_a_load_that_is_dead_at_rest_has_its_breaker_to_lock_however_it_is_started() -> None:
    from riktig.core.job import Start

    for start in some(Start):
        job = with_names_recorded(add_load(new_job("L", "lock"), "fan", 4.0, start=start))
        circuits, network, _ = built(job)
        driven = [d for d in circuits.devices if d.circuit == "c1" and d.zone is Zone.FIELD]
        for motor in some(driven):
            found = lock_off(circuits, network, motor.id)
            assert found.switches, start
            assert {one.partition(".")[0] for one in found.switches} == {motor.circuit}, start
