"""The circuits against a graph library and a DXF reader: nets of recipes and of random rungs, texts of all sheets."""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from pathlib import Path
from typing import cast

import ezdxf
import networkx as nx
import pytest
from ezdxf.entities.text import Text as DxfText
from hypothesis import given, settings
from hypothesis import strategies as st

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.catalogue import Kind
from riktig.core.exports import as_svg, write_dxf
from riktig.core.geometry import Text
from riktig.core.job import CircuitId, DeviceId, ElementId
from riktig.core.schematic import (
    CIRCUITS,
    NETS,
    Band,
    Branch,
    Circuits,
    Device,
    Element,
    Landing,
    Parallel,
    Pole,
    Rung,
    Series,
    Zone,
    elements_of,
    find_nets,
)
from riktig.demo_job import DEMOS, demo_job
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import some, times
from tests.shared_plan import plan_for

Kinds = Mapping[DeviceId, Kind]


def draw(
    graph: "nx.Graph[object]", kinds: Kinds, branch: Branch, left: Sequence[object], right: Sequence[object]
) -> None:
    """Every piece of drawn line is an edge, what a path crosses is a gap."""
    match branch:
        case Element():
            for n, pole in enumerate(branch.poles):
                pins = kinds[pole.device].unit(pole.unit).pins
                first, last = (pins[-1], pins[0]) if pole.flipped else (pins[0], pins[-1])
                graph.add_edge(left[n], f"{pole.device}:{first}")
                graph.add_edge(right[branch.leads_to(n)], f"{pole.device}:{last}")
        case Landing():
            for n, pin in enumerate(branch.pins):
                graph.add_edge(left[n], f"{branch.device}:{pin}")
            graph.add_edges_from(zip(left, right, strict=True))
        case Series(()):
            graph.add_edges_from(zip(left, right, strict=True))
        case Series(parts):
            between = [[(id(branch), n, k) for k in range(len(left))] for n in range(len(parts) - 1)]
            stops: list[Sequence[object]] = [left, *between, right]
            for part, (a, b) in zip(parts, pairwise(stops), strict=True):
                draw(graph, kinds, part, a, b)
        case Parallel(parts):
            for part in parts:
                draw(graph, kinds, part, left, right)


def lines_of(rung: Rung) -> int:
    lines = max(len(rung.start), len(rung.end), *(len(e.poles) for e in elements_of(rung.path)), 1)
    return max(lines, *(len(p.pins) for p in rung.path.parts if isinstance(p, Landing)), 1)


def components(circuits: Circuits) -> set[frozenset[str]]:
    """Nets built anew with networkx: the connected pieces of what is drawn."""
    kinds = {d.id: d.kind for d in circuits.devices}
    graph: nx.Graph[object] = nx.Graph()
    for rung in circuits.rungs:
        ends = [
            [("node", nodes[n]) if nodes else ("loose", rung.id, which, n) for n in range(lines_of(rung))]
            for which, nodes in enumerate((rung.start, rung.end))
        ]
        draw(graph, kinds, rung.path, ends[0], ends[1])
    for device in circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour.value == "joint":
                nx.add_path(graph, [f"{device.id}:{pin}" for pin in unit.pins])
    graph.add_edges_from((("node", "PE"), str(pin)) for pin in circuits.earths)
    found = {frozenset(n for n in c if isinstance(n, str)) for c in nx.connected_components(graph)}
    return found - {frozenset()}


@pytest.mark.parametrize("name", SAMPLES)
def test_the_nets_of_every_recipe_are_the_connected_components(name: str) -> None:
    evaluation = plan_for(sample(name))
    met = {tuple(map(str, net.pins)) for net in evaluation.get(NETS).nets}
    drawn = components(evaluation.get(CIRCUITS))
    assert {frozenset(pins) for pins in met} == {c for c in drawn if c & {p for pins in met for p in pins}}
    touched = {f"{p.device}:{pin}" for p, pin in poles(evaluation.get(CIRCUITS))}
    assert touched <= {pin for pins in met for pin in pins}, "every pin that a path goes through has its net"


def poles(circuits: Circuits) -> list[tuple[Pole, str]]:
    kinds = {d.id: d.kind for d in circuits.devices}
    return [
        (pole, pin)
        for rung in circuits.rungs
        for element in elements_of(rung.path)
        for pole in element.poles
        for pin in (lambda pins: (pins[0], pins[-1]))(kinds[pole.device].unit(pole.unit).pins)
    ]


RELAYS = 14
UNITS = ("A1-A2", "13-14", "21-22", "33-34", "43-44")
NODES = ("live", "back", "n1", "n2", "n3")


@st.composite
def networks(draw: st.DrawFn) -> Circuits:
    """Random rungs over a few relays: each contact once, series and parallel as it comes."""
    free = [(f"c1.K{n}", unit) for n in range(RELAYS) for unit in UNITS]
    order = draw(st.permutations(free))
    left = list(order)

    def element() -> Element:
        device, unit = left.pop()
        return Element(ElementId(f"{device}/{unit}"), (Pole(DeviceId(device), unit, draw(st.booleans())),))

    def branch(depth: int) -> Branch:
        if depth == 0 or len(left) < 10 or draw(st.booleans()):
            return element()
        parts = tuple(branch(depth - 1) for _ in range(draw(st.integers(2, 3))))
        return Series(parts) if draw(st.booleans()) else Parallel(parts)

    rungs = []
    for n in range(draw(st.integers(1, 6))):
        if len(left) < 12:
            break
        path = Series(tuple(branch(3) for _ in range(draw(st.integers(1, 3)))))
        start, end = draw(st.sampled_from(NODES)), draw(st.sampled_from(NODES))
        rungs.append(Rung(f"c1.r{n}", CircuitId("c1"), Band.CONTROL, "", (start,), (end,), path))
    devices = tuple(Device(DeviceId(f"c1.K{n}"), CircuitId("c1"), "relay", Zone.PLATE, "") for n in range(RELAYS))
    return Circuits(devices, tuple(rungs), ())


@given(networks())
@settings(max_examples=times(80, 800), deadline=None)
def test_the_nets_of_random_rungs_are_the_connected_components(circuits: Circuits) -> None:
    found = {frozenset(map(str, net.pins)) for net in find_nets(circuits).nets}
    assert found == components(circuits)


@pytest.mark.parametrize("name", sorted(DEMOS))
def test_a_sheet_read_back_from_dxf_has_the_same_texts_in_the_same_places(name: str, tmp_path: Path) -> None:
    for number, drawing in some(enumerate(plan_for(demo_job(name)).get(SHEET_DRAWINGS))):
        path = tmp_path / f"{number}.dxf"
        write_dxf(path, drawing)
        document = ezdxf.filemanagement.readfile(path)
        assert not document.audit().errors
        read = sorted(
            (t.dxf.text, round(t.get_placement()[1].x, 3), round(t.get_placement()[1].y, 3), t.dxf.layer)
            for t in (cast(DxfText, one) for one in document.modelspace().query("TEXT"))
        )
        written = sorted(
            (m.text, round(m.x, 3), round(drawing.height - m.y, 3), m.layer)
            for m in drawing.shapes
            if isinstance(m, Text)
        )
        assert read == written
        assert {"frame", "text", "circuit"} & {layer.dxf.name for layer in document.layers}


def test_a_sheet_as_svg_has_the_same_texts() -> None:
    from xml.etree import ElementTree

    for drawing in some(plan_for(demo_job("wash-drum")).get(SHEET_DRAWINGS)):
        root = ElementTree.fromstring(as_svg(drawing))
        read = [e.text for e in root.iter("{http://www.w3.org/2000/svg}text")]
        assert sorted(t or "" for t in read) == sorted(m.text for m in drawing.shapes if isinstance(m, Text))
