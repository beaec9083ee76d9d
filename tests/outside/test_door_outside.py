"""The door and its metal against things outside the project: published tables, shapely, files read back."""

import re
from itertools import pairwise
from math import atan2, cos, hypot, sin, tan
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pypdf import PdfReader
from pypdf.generic import ContentStream
from shapely import affinity
from shapely.geometry import LineString, Polygon, box
from shapely.ops import unary_union

from riktig.core.door import DOOR, SHAFTS, engagement_of, swing_reach
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import check_bar, template_of, write_template
from riktig.core.exports.machine import sheet_svg
from riktig.core.exports.pdf import PaperSheet as Paper
from riktig.core.exports.pdf import SetHead
from riktig.core.exports.template import tile_shapes
from riktig.core.geometry import Line, Rect
from riktig.core.holes import HOLES, METAL_HOLES, SHEETS, Hole, HoleSurface
from riktig.core.job import EnclosureFields, Job, PracticeFields, set_enclosure, set_practice
from riktig.core.standards import (
    class_keeps,
    conduit_hub,
    gland_for,
    operator_hole,
    operator_pitch,
    self_drilling_point,
    tapped_hole,
)
from riktig.demo_job import demo_job
from tests.core.schematic.builders import one_motor
from tests.effort import share, some, times
from tests.shared_plan import plan_for

HEAD = SetHead("T-1", "test", "A", "")
MM = 72 / 25.4


@pytest.fixture(scope="module")
def shed() -> Evaluation[Job]:
    return plan_for(demo_job())


@pytest.mark.parametrize(
    ("size", "hole", "across", "down"), [("D16", 16.2, 25, 25), ("D22", 22.3, 30, 50), ("D30", 30.5, 50, 65)]
)
def test_cut_outs_and_pitch_are_those_of_the_standard(size: str, hole: float, across: float, down: float) -> None:
    """IEC 60947-5-1 single-hole mounting, from memory: hole and least pitch with legend plates."""
    assert operator_hole(size).value == hole
    assert operator_pitch(size) == (across, down)


@pytest.mark.parametrize("thread", [2.5, 3.0, 3.5, 4.0, 5.0, 6.0, 8.0, 10.0, 12.0, 16.0])
def test_a_tap_drill_is_the_thread_less_its_pitch(thread: float) -> None:
    """ISO 261 coarse pitches, from memory; ISO 2306: the drill is the thread less its pitch, within a tenth."""
    pitch = {2.5: 0.45, 3: 0.5, 3.5: 0.6, 4: 0.7, 5: 0.8, 6: 1.0, 8: 1.25, 10: 1.5, 12: 1.75, 16: 2.0}[thread]
    found = tapped_hole(f"M{thread:g}")
    assert found.tap_drill == pytest.approx(thread - pitch, abs=0.06)
    assert thread < found.clearance < 1.25 * thread


def test_a_self_drilling_point_is_smaller_than_its_thread() -> None:
    """ISO 10666 / DIN 7504, from memory: ST4.8 has a point of 4.1, which leaves the thread something to bite."""
    assert self_drilling_point("ST4.8").value == 4.1


@pytest.mark.parametrize(
    ("diameter", "thread", "hole"),
    [(5.0, "M12", 12.5), (8.0, "M16", 16.5), (12.0, "M20", 20.5), (17.0, "M25", 25.5), (25.0, "M40", 40.5)],
)
def test_glands_have_the_holes_of_their_threads(diameter: float, thread: str, hole: float) -> None:
    """EN 60423 clearance holes, from memory; clamping ranges are common sizes, no source."""
    found = gland_for(diameter)
    assert found is not None
    assert (found.size, found.hole) == (thread, hole)


@pytest.mark.parametrize(
    ("conductors", "inch2", "size"),
    [
        (1, 0.161, "1/2 in"),
        (1, 0.163, "3/4 in"),
        (2, 0.094, "1/2 in"),
        (2, 0.096, "3/4 in"),
        (3, 0.121, "1/2 in"),
        (3, 0.123, "3/4 in"),
        (9, 0.212, "3/4 in"),
        (4, 99.0, None),
    ],
)
def test_how_far_a_conduit_is_filled(conductors: int, inch2: float, size: str | None) -> None:
    """NFPA 70 Chapter 9 Table 1: 53, 31 and 40 % for one, two and more; Table 4, EMT, whole area of 1/2 in 0.304 in²,
    of 3/4 in 0.533 in²; knockouts UL 514A-50; from memory.
    """
    hub = conduit_hub(conductors, inch2 * 25.4**2)
    assert (hub.size if hub else None) == size
    assert conduit_hub(3, 0.1 * 25.4**2).hole == 22.2  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("fitting", "enclosure", "keeps"),
    [
        # IEC 60529: each digit by itself.
        ("IP65", "IP65", True),
        ("IP66", "IP65", True),
        ("IP54", "IP65", False),
        ("IP68", "IP69", False),
        ("IP45", "IP54", False),
        # NEMA 250, from memory: 4 covers 12 and 3R, 12 does not cover 3R, only 4X and 6P cover 4X.
        ("Type 4", "Type 12", False),
        ("Type 4", "NEMA 3R", True),
        ("Type 12", "Type 3R", False),
        ("Type 4", "Type 4X", False),
        ("IP66, Type 1, 12, 4, 4X", "IP66 / Type 4X", True),
        ("IP54, Type 4X", "IP66 / Type 4X", False),
        # What cannot be compared is no verdict.
        ("IP65", "Type 12", None),
        ("IP65", "splash-proof", None),
        ("", "IP65", None),
    ],
)
def test_a_fitting_keeps_the_class_of_its_box(fitting: str, enclosure: str, keeps: bool | None) -> None:
    assert class_keeps(fitting, enclosure) is keeps


@given(lean=st.floats(0.0, 0.2), free=st.floats(10.0, 500.0))
def test_the_handle_misses_by_the_tangent_of_the_lean(lean: float, free: float) -> None:
    """A shaft that leans by an angle meets the door's plane off by the tangent times its length: so many mm a metre."""
    from dataclasses import replace

    job = one_motor()
    shaft = replace(plan_for(job).get(SHAFTS)[0], free=free)
    assert engagement_of(shaft, job.practice, skew=1000 * tan(lean)).by_wall == pytest.approx(free * tan(lean))


class TestSwing:
    """A stack on an opening door against a part behind it: turned by shapely in small steps."""

    @given(
        near=st.floats(20.0, 300.0),
        wide=st.floats(10.0, 200.0),
        deep=st.floats(20.0, 150.0),
        first=st.floats(0.0, 120.0),
        z=st.floats(1.0, 200.0),
    )
    @settings(max_examples=times(40, 400), deadline=None)
    def test_the_reach_is_what_turning_finds(
        self, near: float, wide: float, deep: float, first: float, z: float
    ) -> None:
        far = near + wide
        stack = box(near, 0.0, far, deep)
        part = box(far + first, z, far + first + 30.0, z + 300.0)
        met = False
        step = 0.0005
        turn = 0.0
        while turn < atan2(deep, near) and not met:  # by then all of the stack is in the plane of the door
            # Inside is y > 0 and the door opens towards y < 0: the stack turns clockwise about the pivot.
            met = affinity.rotate(stack, -turn, origin=(0, 0), use_radians=True).intersects(part)
            turn += step
        ours = z < deep and swing_reach(far, deep, z) > far + first
        edge = abs(swing_reach(far, deep, min(z, deep)) - (far + first))
        if edge > 0.25 and abs(z - deep) > 0.25:
            assert ours == met

    def test_the_corner_is_on_its_circle(self) -> None:
        far, deep = 300.0, 80.0
        for turn in (0.0, 0.1, 0.2):
            x, z = far * cos(turn) + deep * sin(turn), -far * sin(turn) + deep * cos(turn)
            assert swing_reach(far, deep, z) == pytest.approx(x)


class TestClashOnRandomDoors:
    @given(
        spots=st.lists(st.tuples(st.floats(30, 340), st.floats(60, 540)), min_size=4, max_size=4),
        depth=st.floats(90, 250),
        left=st.booleans(),
    )
    @settings(max_examples=times(20, 200), deadline=None)
    def test_what_is_said_to_lack_depth_is_what_boxes_that_overlap_lack(
        self, spots: list[tuple[float, float]], depth: float, left: bool
    ) -> None:
        """Brute force in three dimensions: every stack with its wires a box, every part and duct a box."""
        from dataclasses import replace

        from riktig.core.door import move_on_door
        from riktig.core.job import HingeSide
        from riktig.core.plate import LAYOUT

        job = set_enclosure(one_motor(), plate_depth=round(depth, 1), hinge=HingeSide.LEFT if left else HingeSide.RIGHT)
        door = plan_for(job).get(DOOR)
        seats = [seat for seat in door.seats if not seat.is_shaft]
        moved = [seat.at(x, y) for seat, (x, y) in zip(seats, spots, strict=True)]
        evaluation = plan_for(move_on_door(job, door, moved))
        layout = evaluation.get(LAYOUT)
        said = {(m.device, m.against): m.by for m in evaluation.get(DOOR).misfits if "more depth" in m.text}
        solids: list[tuple[str, Rect, float]] = [(f"{{{s.device}}}", s.rect, s.part.depth) for s in layout.seats]
        solids += [(d.name, d.rect, 60.0) for d in layout.ducts]
        expected = {}
        for seat in evaluation.get(DOOR).seats:
            if seat.is_shaft:
                continue
            # Door datum 15 mm in the box, plate datum 25 mm: 10 mm apart both ways.
            cx, cy = seat.x - 10.0, seat.y - 10.0
            a = box(
                cx - seat.part.width / 2, cy - seat.part.height / 2, cx + seat.part.width / 2, cy + seat.part.height / 2
            )
            for name, rect, high in solids:
                b = box(rect.x, rect.y, rect.right, rect.bottom)
                short = seat.depth + 30.0 + high - job.enclosure.plate_depth
                over = a.intersection(b)
                if (
                    short > 0.02
                    and over.area > 1e-3
                    and min(over.bounds[2] - over.bounds[0], over.bounds[3] - over.bounds[1]) > 0.02
                ):
                    expected[seat.device, name] = short
        assert said.keys() == expected.keys()
        for key, short in expected.items():
            assert said[key] == pytest.approx(short)
        assert replace(door, misfits=()).from_behind().from_behind() == replace(door, misfits=())


def strokes(page: object) -> list[tuple[str, list[float]]]:
    """The drawing operators of a page in points from its lower left corner, its one translation taken in."""
    found: list[tuple[str, list[float]]] = []
    matrix = [1.0, 0.0, 0.0, 1.0, 0.0, 0.0]
    stack: list[list[float]] = []
    for operands, operator in ContentStream(page["/Contents"].get_object(), page.pdf).operations:  # type: ignore[index, attr-defined]
        name = operator.decode()
        numbers = [float(one) for one in operands if isinstance(one, (int, float))]
        if name == "q":
            stack.append(list(matrix))
        elif name == "Q":
            matrix = stack.pop()
        elif name == "cm":
            a, b, c, d, e, f = numbers
            m = matrix
            matrix = [
                a * m[0] + b * m[2], a * m[1] + b * m[3], c * m[0] + d * m[2], c * m[1] + d * m[3],
                e * m[0] + f * m[2] + m[4], e * m[1] + f * m[3] + m[5],
            ]  # fmt: skip
        elif name in ("m", "l", "c"):
            points = []
            for x, y in zip(numbers[::2], numbers[1::2], strict=True):
                points += [matrix[0] * x + matrix[2] * y + matrix[4], matrix[1] * x + matrix[3] * y + matrix[5]]
            found.append((name, points))
    return found


def circles(page: object) -> list[tuple[float, float, float]]:
    """Middles and radii, mm from the page's upper left corner, of everything that is drawn as four curves."""
    high = float(page.mediabox.height)  # type: ignore[attr-defined]
    found, run = [], []
    for name, points in strokes(page):
        if name == "c":
            run.append(points[-2:])
            if len(run) == 4:
                xs, ys = [p[0] for p in run], [p[1] for p in run]
                x, y = (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2
                found.append((x / MM, (high - y) / MM, (max(xs) - min(xs)) / 2 / MM))
                run = []
        else:
            run = []
    return found


class TestTemplate:
    @pytest.fixture(params=["plate", "door", "gland plate"])
    def face(self, request: pytest.FixtureRequest) -> str:
        return str(request.param)

    @pytest.mark.parametrize("paper", share(Paper, 0))
    def test_a_hundred_is_a_hundred_and_every_hole_is_once_on_its_sheet(
        self, shed: Evaluation[Job], face: str, paper: Paper, tmp_path: Path
    ) -> None:
        """The PDF is read back by pypdf and measured."""
        sheet = next(one for one in shed.get(SHEETS) if one.name == face)
        holes = [h for h in shed.get(HOLES) if h.face == face]
        template = template_of(sheet, holes, paper)
        write_template(tmp_path / "t.pdf", HEAD, [template], bare=True)
        pages = PdfReader(tmp_path / "t.pdf").pages
        assert len(pages) == len(template.tiles)
        seen: list[Hole] = []
        for page, tile in zip(pages, template.tiles, strict=True):
            assert (float(page.mediabox.width) / MM, float(page.mediabox.height) / MM) == pytest.approx(template.paper)
            lines = [p for (_, p) in strokes(page)]
            pairs = [(a[-2:], b[-2:]) for a, b in pairwise(lines)]
            bars = [abs(b[0] - a[0]) / MM for a, b in pairs if a[1] == b[1]]
            assert any(abs(bar - 100.0) < 0.005 for bar in bars), "the check bar"
            found = circles(page)
            text = page.extract_text()
            for hole in tile.holes:
                x, y = hole.x - tile.part.x + 18.0, hole.y - tile.part.y + 18.0
                if hole.drill:
                    near = [c for c in found if hypot(c[0] - x, c[1] - y) < 0.01 and abs(c[2] - hole.drill / 2) < 0.01]
                    assert len(near) == 1, hole
                assert len(re.findall(rf"\b{hole.number}\b", text)) == 1
                seen.append(hole)
            others = {h.number for h in holes} - {h.number for h in tile.holes}
            assert not [n for n in others if re.search(rf"\b{n}\b", text)]
        assert sorted(h.number for h in seen) == sorted(h.number for h in holes)

    @given(
        wide=st.floats(60, 1400),
        high=st.floats(60, 1900),
        spots=st.lists(st.tuples(st.floats(0, 1), st.floats(0, 1), st.floats(3, 60)), max_size=25),
    )
    @settings(max_examples=times(25, 200), deadline=None)
    def test_the_sheets_cover_the_surface_without_overlap(
        self, wide: float, high: float, spots: list[tuple[float, float, float]]
    ) -> None:
        holes = [
            Hole(f"P{n}", "plate", x * wide, y * high, d, "", "x", key=str(n)) for n, (x, y, d) in enumerate(spots)
        ]
        template = template_of(HoleSurface("plate", wide, high, "P"), holes)
        parts = [box(t.part.x, t.part.y, t.part.right, t.part.bottom) for t in template.tiles]
        assert sum(part.area for part in parts) == pytest.approx(wide * high)
        whole = Polygon([(0, 0), (wide, 0), (wide, high), (0, high)])
        assert all(whole.buffer(0.01).contains(part) for part in parts)
        across, down = template.paper
        assert all(t.part.width <= across - 36 + 0.01 and t.part.height <= down - 58 + 0.01 for t in template.tiles)
        assert sorted(h.key for t in template.tiles for h in t.holes) == sorted(h.key for h in holes)
        assert all(t.part.grown(0.01).holds(h.at) for t in template.tiles for h in t.holes)

    def test_no_cut_goes_through_a_hole_where_there_is_another_way(self, shed: Evaluation[Job]) -> None:
        for sheet in some(shed.get(SHEETS)):
            holes = [h for h in shed.get(HOLES) if h.face == sheet.name]
            template = template_of(sheet, holes)
            cut = [h for h in holes for x in template.xs[1:-1] if h.outline.x < x < h.outline.right]
            cut += [h for h in holes for y in template.ys[1:-1] if h.outline.y < y < h.outline.bottom]
            assert cut == []

    def test_a_cut_out_larger_than_a_sheet_goes_on_over_its_neighbours(self, tmp_path: Path) -> None:
        """What all sheets show of its edges, laid together by shapely, is its whole rim; its number is there once."""
        cut = Hole("DH1", "door", 300.0, 300.0, 0.0, "", "A1", width=400.0, height=300.0, key="k")
        template = template_of(HoleSurface("door", 600.0, 600.0, "DH"), [cut])
        write_template(tmp_path / "t.pdf", HEAD, [template], bare=True)
        whole = "".join(page.extract_text() for page in PdfReader(tmp_path / "t.pdf").pages)
        assert len(re.findall(r"\bDH1\b", whole)) == 1
        laid = []
        for tile in template.tiles:
            dx, dy = tile.part.x - 18.0, tile.part.y - 18.0
            sheet = box(tile.part.x, tile.part.y, tile.part.right, tile.part.bottom)
            for m in tile_shapes(template, tile):
                if isinstance(m, Line) and m.layer == "hole" and m.width == 0.35:
                    laid.append(LineString([(m.x1 + dx, m.y1 + dy), (m.x2 + dx, m.y2 + dy)]).intersection(sheet))
        rim = unary_union(laid)
        assert rim.length == pytest.approx(2 * (400.0 + 300.0))
        assert rim.bounds == pytest.approx((100.0, 150.0, 500.0, 450.0))

    def test_a_hole_outside_makes_no_template_and_says_which(self) -> None:
        stray = Hole("P9", "plate", 900.0, 20.0, 5.0, "", "K9", key="k")
        with pytest.raises(RiktigError, match="P9 for K9 lies outside"):
            template_of(HoleSurface("plate", 300.0, 300.0, "P"), [stray])

    @pytest.mark.parametrize(
        ("read", "true"), [(100.0, True), (100.3, True), (99.7, True), (99.6, False), (97.0, False), (103.1, False)]
    )
    def test_a_print_that_is_not_true_is_refused(self, read: float, true: bool) -> None:
        found, said = check_bar(read)
        assert found is true
        if read == 97.0:
            assert "97.0% of its size" in said
            assert "print at 100 %" in said

    @pytest.mark.parametrize("read", [0.0, -5.0, 5000.0, float("nan")])
    def test_a_bar_that_cannot_be_is_refused(self, read: float) -> None:
        with pytest.raises(ValueError, match="not printed"):
            check_bar(read)


def test_the_svg_for_a_machine_has_every_hole_at_its_place(shed: Evaluation[Job]) -> None:
    """Read as XML: one user unit is one millimetre."""
    from xml.etree import ElementTree

    sheet = next(one for one in shed.get(SHEETS) if one.name == "door")
    holes = {h.number: h for h in shed.get(METAL_HOLES) if h.face == "door"}
    root = ElementTree.fromstring(sheet_svg(sheet, holes.values()))
    assert root.attrib["width"] == f"{sheet.width:g}mm"
    assert root.attrib["viewBox"] == f"0 0 {sheet.width:g} {sheet.height:g}"
    found = {one.attrib["data-hole"]: one for one in root.iter() if "data-hole" in one.attrib}
    assert found.keys() == holes.keys()
    for number, one in found.items():
        hole = holes[number]
        assert (float(one.attrib["cx"]), float(one.attrib["cy"]), 2 * float(one.attrib["r"])) == pytest.approx(
            (hole.x, hole.y, hole.drill), abs=0.01
        )


def test_a_practice_that_cannot_be_is_refused() -> None:
    practices: tuple[PracticeFields, ...] = (
        {"wall_skew": -1.0},
        {"handle_tolerance": 99.0},
        {"reading_tolerance": 11.0},
        {"long_piece": -5.0},
    )
    for bad in practices:
        with pytest.raises(ValueError, match="must be 0 to"):
            set_practice(one_motor(), **bad)
    enclosures: tuple[EnclosureFields, ...] = ({"doors": 3}, {"plate_left": -1.0}, {"door_top": 2000.0})
    for box_ in enclosures:
        with pytest.raises(ValueError, match="cannot be"):
            set_enclosure(one_motor(), **box_)
