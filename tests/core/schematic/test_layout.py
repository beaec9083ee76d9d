"""Layout of the sheets: no label touches another or a line, arrows come in pairs, any path fits in pieces."""

import re

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LineString, STRtree
from shapely import box as shape

from riktig.core.annotation import SHEET_DRAWINGS
from riktig.core.evaluation import Evaluation
from riktig.core.geometry import Drawing, Line, Poly, Text, bounds_of
from riktig.core.job import (
    CircuitId,
    Command,
    DeviceId,
    ElementId,
    Insertable,
    Job,
    Numbering,
    Recipe,
    Start,
    add_load,
    new_job,
    set_practice,
)
from riktig.core.keys import NetKey
from riktig.core.schematic import (
    CIRCUITS,
    NAMES,
    SHEETS,
    Band,
    Branch,
    Element,
    Parallel,
    Pole,
    Rung,
    Series,
    Sheet,
    SheetKind,
    add_circuit,
    elements_of,
    insert_contact,
    lay_out,
    renumber,
    with_names_recorded,
)
from riktig.core.schematic.layout.branch_layout import height_of, width_of
from riktig.core.schematic.layout.ladder_page import LADDER_WIDTH
from riktig.core.schematic.layout.sheet_model import FRAME_BOTTOM, FRAME_RIGHT, MOST_COLUMNS, RAIL_BOTTOM, RAIL_TOP
from riktig.core.schematic.layout.split_rungs import RungPiece, is_cut, split_rung
from riktig.demo_job import DEMOS, demo_job
from tests.core.schematic.builders import STOP, one_motor
from tests.core.schematic.samples import SAMPLES, sample
from tests.effort import share, some, times
from tests.shared_plan import plan_for

KINDS: list[dict[str, object]] = [
    {},
    {"start": Start.STAR_DELTA},
    {"start": Start.REVERSING, "command": Command.BOTH_WAYS},
    {"start": Start.SOFT},
    {"start": Start.DRIVE, "command": Command.CONTROLLER},
    {"command": Command.LEVEL, "level_alarm": True},
    {"command": Command.STATION},
    {"command": Command.SELECTOR},
]


def thirty_starters() -> Job:
    job = new_job("L-30", "thirty")
    for n in range(30):
        job = add_load(job, f"settling tank pump {n}", (0.75, 1.5, 4.0)[n % 3], **KINDS[n % 8])  # type: ignore[arg-type]
    return with_names_recorded(job)


def numbered(name: str, scheme: Numbering) -> Job:
    """A demonstration whose numbers are those of another school."""
    return renumber(set_practice(demo_job(name), numbering=scheme))


def long_path() -> Job:
    """A control path with so many stop buttons that it is cut."""
    job = one_motor()
    for n in range(14):
        job = insert_contact(job, STOP, Insertable.STOP_BUTTON, f"stop {n}")
    return with_names_recorded(job)


def watched_and_protected() -> Job:
    """The kelp shed with a surge protector and a main contactor that drops when a line is missing."""
    return with_names_recorded(add_circuit(add_circuit(demo_job("kelp-shed"), Recipe.SURGE), Recipe.PHASE_MONITOR))


JOBS = {
    "surge protector and phase monitor": watched_and_protected(),
    "a path that is cut": long_path(),
    **{f"demonstration {name}": demo_job(name) for name in DEMOS},
    **SAMPLES,
    "thirty starters": thirty_starters(),
    "by rung": numbered("kelp-shed", Numbering.BY_RUNG),
    "by rung, North American": numbered("frost-fan", Numbering.BY_RUNG),
    "by place": numbered("kelp-shed", Numbering.BY_PLACE),
    "by wire": numbered("kelp-shed", Numbering.BY_WIRE),
}


ALWAYS = [name for name in JOBS if name not in SAMPLES]
"""Jobs of this file, each with something of its own: every check looks at all of them."""


def texts_of(drawing: Drawing) -> list[Text]:
    return [mark for mark in drawing.shapes if isinstance(mark, Text)]


def touching(drawing: Drawing) -> list[tuple[str, str]]:
    """Pairs of texts whose boxes overlap."""
    texts = texts_of(drawing)
    boxes = [shape(b.x, b.y, b.right, b.bottom) for b in map(bounds_of, texts)]
    pairs = STRtree(boxes).query(boxes, predicate="overlaps")
    within = STRtree(boxes).query(boxes, predicate="contains_properly")
    found = {tuple(sorted((int(a), int(b)))) for a, b in [*pairs.T, *within.T] if a != b}
    return [(texts[a].text, texts[b].text) for a, b in sorted(found) if boxes[a].intersection(boxes[b]).area > 0.01]


def crossed(drawing: Drawing) -> list[str]:
    """Texts that a line or the stroke of a symbol runs through; a number written on its own line is backed."""
    lines = []
    for mark in drawing.shapes:
        if mark.layer in ("frame", "title"):
            continue
        if isinstance(mark, Line):
            lines.append(LineString([(mark.x1, mark.y1), (mark.x2, mark.y2)]))
        elif isinstance(mark, Poly):
            points = [*mark.points, *(mark.points[:1] if mark.closed else ())]
            lines.append(LineString([(p.x, p.y) for p in points]))
    tree = STRtree(lines)
    found = []
    for text in texts_of(drawing):
        box = bounds_of(text)
        inner = shape(box.x, box.y, box.right, box.y + text.size)
        if not text.backed and text.layer not in ("frame", "title"):
            found += [text.text for n in tree.query(inner) if lines[n].intersection(inner).length > 0.05]
    return found


@pytest.mark.parametrize("name", share(JOBS, 0, ALWAYS))
def test_no_two_texts_overlap_and_no_line_runs_through_one(name: str) -> None:
    for drawing in some(plan_for(JOBS[name]).get(SHEET_DRAWINGS)):
        assert touching(drawing) == [], drawing.title
        assert crossed(drawing) == [], drawing.title


def test_a_rung_says_its_number_once_where_numbers_go_by_rung() -> None:
    evaluation = plan_for(JOBS["by rung"])
    said = [
        int(found[1])
        for drawing in evaluation.get(SHEET_DRAWINGS)
        for text in texts_of(drawing)
        if (found := re.search(r"rung (\d+)$", text.text))
    ]
    rungs = evaluation.get(CIRCUITS).rungs
    named = [n for n, rung in enumerate(rungs, 1) if rung.band is Band.CONTROL]
    assert sorted(set(said)) == sorted(said)
    # Where a path leaves no room for its name its number is left out too: in one of eight at most.
    assert len(set(named) - set(said)) <= len(named) / 8
    # What hangs on a rung has its number ahead of its own: rung 52 has 5201 on the same sheet.
    drawn = [[text.text for text in texts_of(drawing)] for drawing in evaluation.get(SHEET_DRAWINGS)]
    (there,) = [texts for texts in drawn if any(text.endswith("rung 52") for text in texts)]
    assert "5201" in there
    plain = [text.text for drawing in plan_for(JOBS["by place"]).get(SHEET_DRAWINGS) for text in texts_of(drawing)]
    assert not any("rung " in text for text in plain)


@pytest.mark.parametrize("name", share(JOBS, 1, ALWAYS))
def test_nothing_is_cut_short_and_nothing_leaves_the_frame(name: str) -> None:
    for drawing in some(plan_for(JOBS[name]).get(SHEET_DRAWINGS)):
        for mark in some(drawing.shapes):
            if mark.layer in ("frame", "title"):
                continue
            box = bounds_of(mark)
            ladder = drawing.width == LADDER_WIDTH
            assert box.x >= 9.0 - 0.01, (drawing.title, mark)
            assert box.right <= (LADDER_WIDTH - 3 if ladder else FRAME_RIGHT) + 0.01, (drawing.title, mark)
            assert box.bottom <= (drawing.height - 14 if ladder else FRAME_BOTTOM) + 0.6, (drawing.title, mark)
            assert not (isinstance(mark, Text) and mark.text.endswith("…")), (drawing.title, mark)


@pytest.mark.parametrize("name", share(JOBS, 2, ALWAYS))
def test_every_arrow_has_its_partner(name: str) -> None:
    sheets = plan_for(JOBS[name]).get(SHEETS).sheets
    arrows = [(sheet.number, arrow) for sheet in sheets for arrow in sheet.arrows]
    for number, arrow in arrows:
        assert arrow.at.sheet == number
        partners = [b for n, b in arrows if n == arrow.to.sheet and b.node == arrow.node and b.to == arrow.at]
        assert any(b.at == arrow.to and b.onward != arrow.onward for b in partners), arrow
    for node in {rail.node for sheet in sheets for rail in sheet.rails if is_cut(rail.node)}:
        ends = [arrow for _, arrow in arrows if arrow.node == node]
        assert len(ends) >= 2, "a path that was cut goes on somewhere"


def test_there_are_arrows_and_paths_that_were_cut_among_the_jobs() -> None:
    sheets = [sheet for name in ALWAYS for sheet in plan_for(JOBS[name]).get(SHEETS).sheets]
    assert any(sheet.arrows for sheet in sheets)
    assert any(is_cut(rail.node) for sheet in sheets for rail in sheet.rails)


@pytest.mark.parametrize("name", share(JOBS, 3, ALWAYS))
def test_every_element_has_one_place_and_its_number_is_written_once_a_sheet(name: str) -> None:
    evaluation = plan_for(JOBS[name])
    sheets, circuits = evaluation.get(SHEETS), evaluation.get(CIRCUITS)
    named = {NetKey(net): number for net, number in evaluation.get(NAMES).number.items()}
    drawn = [seat.element.id for sheet in sheets.sheets for seat in sheet.seats]
    assert len(drawn) == len(set(drawn))
    wanted = {e.id for r in circuits.rungs for e in elements_of(r.path)}
    earthed = {e.id for r in circuits.rungs if r.start == ("PE",) for e in elements_of(r.path)}
    assert wanted - set(drawn) <= earthed, "only a protective conductor may stand on the earth tree alone"
    for sheet, drawing in zip(sheets.sheets, evaluation.get(SHEET_DRAWINGS), strict=True):
        numbers = [mark.key for mark in texts_of(drawing) if mark.key in named and mark.text == named[mark.key]]
        if sheet.is_ladder:
            shown = [mark for mark in texts_of(drawing) if mark.key in named and mark.text == named[mark.key]]
            on_lines = [(mark.key, _line_of(sheet, mark.y)) for mark in shown]
            repeated_there = [place for place in set(on_lines) if on_lines.count(place) > 1]
            assert len(repeated_there) <= len(sheet.rails), "once on each line, and at the uprights"
        elif sheet.kind is SheetKind.CONTROL:
            repeated = {key for key in numbers if numbers.count(key) > 1}
            assert len(repeated) <= len(sheet.rails)


def _line_of(sheet: Sheet, y: float) -> int:
    return min(range(len(sheet.lines)), key=lambda n: abs(sheet.lines[n] - y))


def test_loads_stand_in_a_row_above_the_return() -> None:
    sheet = next(s for s in plan_for(one_motor()).get(SHEETS).sheets if s.kind is SheetKind.CONTROL)
    coils = [seat for seat in sheet.seats if seat.element.poles[0].unit in ("A1-A2", "X1-X2")]
    assert len(coils) == 3
    assert {seat.bottom for seat in coils} == {RAIL_BOTTOM}


def test_what_belongs_together_stays_on_one_sheet() -> None:
    sheets = plan_for(thirty_starters()).get(SHEETS).sheets
    for number in range(0, 30, 8):
        circuit = f"c{number + 1}"
        mine = [s.number for s in sheets if s.kind is SheetKind.CONTROL and circuit in s.circuits]
        assert len(mine) == 1, "a plain starter is not torn apart"


def test_every_net_of_a_power_path_shows_its_number() -> None:
    evaluation = plan_for(one_motor())
    power = {mark.text for mark in texts_of(evaluation.get(SHEET_DRAWINGS)[0])}
    behind = [evaluation.get(NAMES).number[net] for net in evaluation.get(NAMES).number if net.device == "c1.F"]
    assert behind
    assert set(behind) <= power


def leaf(n: int) -> Element:
    return Element(ElementId(f"c9.D{n}/1-2"), (Pole(DeviceId(f"c9.D{n}"), "1-2"),))


def counted_anew(tree: Branch, count: list[int]) -> Branch:
    match tree:
        case Series(parts):
            return Series(tuple(counted_anew(part, count) for part in parts))
        case Parallel(parts):
            return Parallel(tuple(counted_anew(part, count) for part in parts))
        case _:
            count[0] += 1
            return leaf(count[0])


TREES = st.recursive(
    st.just(leaf(0)),
    lambda inner: st.one_of(
        st.lists(inner, min_size=1, max_size=12).map(lambda parts: Series(tuple(parts))),
        st.lists(inner, min_size=2, max_size=10).map(lambda parts: Parallel(tuple(parts))),
    ),
    max_leaves=120,
)


def rung_of(path: Branch) -> Rung:
    whole = path if isinstance(path, Series) else Series((path,))
    return Rung("c9.run", CircuitId("c9"), Band.CONTROL, "run", ("a",), ("b",), whole)


def ways(pieces: tuple[RungPiece, ...]) -> set[frozenset[str]]:
    return {frozenset((piece.start, piece.end)) for piece in pieces}


@given(TREES)
@settings(max_examples=times(60, 500), deadline=None)
def test_a_path_of_any_shape_is_cut_into_pieces_that_fit_and_loses_nothing(tree: Branch) -> None:
    path = counted_anew(tree, [0])
    pieces = split_rung(rung_of(path))
    found = [e.id for piece in pieces for e in elements_of(piece.path)]
    assert sorted(found) == sorted(e.id for e in elements_of(path))
    for piece in pieces:
        assert width_of(piece.path) <= MOST_COLUMNS
        assert height_of(piece.path, 0.8) <= RAIL_BOTTOM - RAIL_TOP + 1e-6
    nodes = [node for piece in pieces for node in (piece.start, piece.end)]
    assert nodes[0] == "a"
    assert "b" in nodes
    for node in set(nodes) - {"a", "b"}:
        assert nodes.count(node) >= 2, "no place where the path was cut is left hanging"


def test_a_path_that_fits_stays_whole() -> None:
    path = Series((leaf(1), Parallel((leaf(2), leaf(3))), leaf(4)))
    assert split_rung(rung_of(path)) == (RungPiece(rung_of(path), "a", path, "b"),)


def test_the_same_circuits_are_laid_out_alike_whatever_was_laid_out_before() -> None:
    first = lay_out(Evaluation(sample("star-delta")).get(CIRCUITS))
    lay_out(Evaluation(sample("both ways")).get(CIRCUITS))
    assert lay_out(Evaluation(sample("star-delta")).get(CIRCUITS)) == first
