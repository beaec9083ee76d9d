"""Second opinions: graph library, geometry library, and readers of the files we write."""

import re
from itertools import pairwise
from pathlib import Path

import ezdxf
import networkx as nx
import openpyxl
import pytest
from pypdf import PdfReader
from shapely import box as shape

from riktig.core.catalogue import Can, Side
from riktig.core.door import DOOR
from riktig.core.evaluation import Evaluation
from riktig.core.exports import Issue, export_all, schedule
from riktig.core.exports.lists import WRITTEN
from riktig.core.geometry import Point, Rect
from riktig.core.holes import HOLES
from riktig.core.job import Insertable, Job, PinRef, RunLamp, add_load
from riktig.core.plate import LAYOUT, Layout
from riktig.core.schematic import CIRCUITS, NETS, insert_contact, with_names_recorded
from riktig.core.wiring import WIRING, Router
from riktig.demo_job import DEMOS
from tests.core.schematic.builders import START, STOP, one_motor
from tests.effort import some
from tests.outside.test_circuits_outside import components
from tests.shared_plan import plan_for


def jobs() -> dict[str, Job]:
    job = one_motor()
    return {
        "demonstration": job,
        "lamp beside the coil": one_motor(run_lamp=RunLamp.COIL),
        "with a field contact": with_names_recorded(insert_contact(job, STOP, Insertable.FIELD_CONTACT, "guard")),
        "with two starts": with_names_recorded(
            insert_contact(job, START, Insertable.START_BUTTON, "second", parallel=True)
        ),
        "three motors": with_names_recorded(add_load(add_load(job, "pump", 1.5), "belt", 7.5)),
    }


@pytest.mark.parametrize("name", jobs())
def test_nets_are_the_connected_components_of_the_drawn_circuit(name: str) -> None:
    """Built anew with networkx: every piece of drawn line is an edge, a device element is a gap."""
    evaluation = plan_for(jobs()[name])
    drawn = components(evaluation.get(CIRCUITS))
    assert {frozenset(map(str, net.pins)) for net in evaluation.get(NETS).nets} == drawn


@pytest.mark.parametrize("name", jobs())
def test_the_wires_of_a_net_join_exactly_its_clamps(name: str) -> None:
    evaluation = plan_for(jobs()[name])
    graph = nx.Graph((w.start.pin, w.end.pin) for w in evaluation.get(WIRING).wires)
    of_pin = evaluation.get(NETS).of_pin
    for component in nx.connected_components(graph):
        assert len({of_pin[pin].id for pin in component}) == 1
    assert nx.is_forest(graph)


TOUCHING_MM = 0.5
"""Ducts so near each other are joined: what a saw cut leaves."""


def duct_graph(layout: Layout, pins: dict[PinRef, tuple[Point, Side]]) -> "nx.Graph[object]":
    """The ducts as a graph, made from the drawing of the plate alone.

    Their middle lines, where they cross, and straight down or up from each pin to the nearest level duct on its side.
    """
    graph: nx.Graph[object] = nx.Graph()
    levels = [duct.rect for duct in layout.ducts if not duct.upright]
    uprights = [duct.rect for duct in layout.ducts if duct.upright]
    stops: dict[Rect, list[tuple[float, float]]] = {rect: [] for rect in (*levels, *uprights)}
    for level in levels:
        for upright in uprights:
            across = shape(upright.x, upright.y, upright.right, upright.bottom).buffer(TOUCHING_MM)
            if shape(level.x, level.y, level.right, level.bottom).intersects(across):
                at = (upright.centre.x, level.centre.y)
                stops[level].append(at)
                stops[upright].append(at)
    for pin, (at, side) in pins.items():
        on_side = [r for r in levels if (r.centre.y < at.y) == (side is Side.TOP)] or levels
        level = min(on_side, key=lambda rect: abs(rect.centre.y - at.y))
        way_in = (at.x, level.centre.y)
        stops[level].append(way_in)
        graph.add_edge(pin, way_in, weight=abs(at.y - level.centre.y))
    for rect, places in stops.items():
        for one, other in pairwise(sorted(places, key=lambda place: place[rect in uprights])):
            graph.add_edge(one, other, weight=abs(one[0] - other[0]) + abs(one[1] - other[1]))
    return graph


@pytest.mark.parametrize("job", [one_motor(), *(make() for make in DEMOS.values())], ids=["one motor", *DEMOS])
def test_ways_through_the_ducts_are_the_shortest_by_another_library(job: Job) -> None:
    evaluation = plan_for(job)
    layout, devices = evaluation.get(LAYOUT), evaluation.get(CIRCUITS).by_id
    router = Router(layout, evaluation.get(DOOR), tuple(devices.values()), job.enclosure, job.practice)
    wires = [wire for wire in evaluation.get(WIRING).wires if not wire.via_door]
    pins: dict[PinRef, tuple[Point, Side]] = {}
    for pin in {end for wire in wires for end in (wire.start.pin, wire.end.pin)}:
        seat, kind = layout.seat(pin.device), devices[pin.device].kind
        if seat is not None and not kind.can(Can.EARTH_STUD):
            pins[pin] = (seat.pin_point(pin.marking), seat.side_of(kind.pin(pin.marking)))
    graph = duct_graph(layout, pins)
    for wire in some(wire for wire in wires if {wire.start.pin, wire.end.pin} <= pins.keys()):
        shortest = nx.dijkstra_path_length(graph, wire.start.pin, wire.end.pin)
        assert router.length(wire.start.pin, wire.end.pin) == pytest.approx(shortest, abs=1e-3)


@pytest.mark.parametrize("name", ["demonstration", "with a field contact"])
def test_nothing_on_the_plate_overlaps_by_the_geometry_library(name: str) -> None:
    layout = plan_for(jobs()[name]).get(LAYOUT)
    shapes = {s.device: shape(s.rect.x, s.rect.y, s.rect.right, s.rect.bottom) for s in layout.seats}
    ducts = [shape(d.rect.x, d.rect.y, d.rect.right, d.rect.bottom) for d in layout.ducts]
    plate = shape(0, 0, layout.plate.width, layout.plate.height)
    for device, one in some(shapes.items()):
        assert plate.contains(one)
        assert all(one.intersection(d).area == 0 for d in ducts)
        assert all(one.intersection(o).area < 0.5 for d, o in shapes.items() if d != device)


@pytest.fixture(scope="module")
def papers(tmp_path_factory: pytest.TempPathFactory) -> dict[str, Path]:
    from riktig.demo_job import wash_drum

    folder = tmp_path_factory.mktemp("papers")
    return {p.name: p for p in export_all(plan_for(wash_drum()), (), folder, issue=Issue("2026-11-23"))}


@pytest.mark.parametrize("face", ["plate", "door", "gland plate"])
def test_the_dxf_read_back_is_true_to_a_hundredth_of_a_millimetre(
    papers: dict[str, Path], evaluation: Evaluation[Job], face: str
) -> None:
    """Read by ezdxf: every hole of the list on the layer of its tool, and no other; the outline of the surface."""
    document = ezdxf.readfile(papers[f"KS-0417_rev_B_{face.replace(' ', '_')}.dxf"])  # type: ignore[attr-defined]
    assert document.units == 4, "millimetres"
    assert not document.audit().errors
    space = document.modelspace()
    found = sorted(
        (c.dxf.layer.split("_")[0], c.dxf.center.x, c.dxf.center.y, c.dxf.radius) for c in space.query("CIRCLE")
    )
    wanted = sorted((h.tool.name, h.x, -h.y, h.drill / 2) for h in evaluation.get(HOLES) if h.face == face)
    assert [one[0] for one in found] == [one[0] for one in wanted]
    for one, other in zip(found, wanted, strict=True):
        assert one[1:] == pytest.approx(other[1:], abs=0.01)
    words = {t.dxf.text for t in space.query("TEXT[layer=='NUMBERS']")}
    assert words == {h.number for h in evaluation.get(HOLES) if h.face == face}
    box = evaluation.document.enclosure
    outline = space.query("LWPOLYLINE[layer=='OUTLINE']")[0]
    xs, ys = zip(*[(p[0], p[1]) for p in outline.get_points()], strict=True)
    size = {"plate": (box.plate_width, box.plate_height), "door": (box.door_width, box.door_height)}
    wide, high = max(xs) - min(xs), max(ys) - min(ys)
    assert (wide, high) == pytest.approx(size.get(face, (wide, high)))


def test_the_pdf_read_back_has_every_sheet_and_schedule(papers: dict[str, Path], evaluation: Evaluation[Job]) -> None:
    reader = PdfReader(papers["KS-0417_rev_B_papers.pdf"])
    pages = [page.extract_text() for page in reader.pages]
    whole = "\n".join(pages)
    for title in (
        "Sheet 1",
        "Sheet 2",
        "Mounting plate",
        "Door, from the front, mark-out",
        "Terminals and field cables",
        "Wires, from and to",
        "Cut list",
        "Holes from the datum",
        "Dead tests",
    ):
        assert title in whole, title
    assert "KS-0417" in pages[0]
    assert "Revision\nB\n" in pages[0]
    wires = next(text for text in pages if "Wires, from and to" in text and "Contents" not in text)
    assert all(w.start.label in wires for w in evaluation.get(WIRING).wires[:5])
    fonts = {
        str(f["/BaseFont"])
        for page in reader.pages
        for f in (font.get_object() for font in page["/Resources"]["/Font"].values())  # type: ignore[index]
    }
    assert all("B612" in name or "DejaVu" in name or name == "/Helvetica" for name in fonts), fonts


def test_the_plate_is_printed_at_the_scale_it_says(papers: dict[str, Path]) -> None:
    """The plate's outline on its page, measured in points, is its size in mm times the scale."""
    reader = PdfReader(papers["KS-0417_rev_B_papers.pdf"])
    page = next(p for p in reader.pages if "Mounting plate" in p.extract_text() and "Contents" not in p.extract_text())
    said = re.search(r"Scale\n1 : ([0-9.]+)\n", page.extract_text())
    assert said
    scale = 1 / float(said[1])
    content = page.get_contents()
    assert content is not None
    matrix = [line.split() for line in content.get_data().decode("latin-1").splitlines() if line.endswith(" cm")]
    scales = {float(row[0]) for row in matrix if row[0] == row[3]}
    assert any(s == pytest.approx(scale, abs=1e-6) for s in scales)


def test_the_workbook_read_back_holds_every_schedule(papers: dict[str, Path], evaluation: Evaluation[Job]) -> None:
    book = openpyxl.load_workbook(papers["KS-0417_rev_B_schedules.xlsx"])
    for name in WRITTEN:
        table = schedule(name, evaluation)
        sheet = book[table.title[:31]]
        assert [cell.value for cell in sheet[1]] == [heading for _, heading in table.columns]
        assert sheet.max_row == len(table.rows) + 1
    numbers = [row[1].value for row in book["Wires, from and to"].iter_rows(min_row=2)]
    assert numbers == [w.number for w in evaluation.get(WIRING).wires]
