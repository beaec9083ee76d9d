"""What labels are printed on: tapes with cut marks, strips with their letters, plates as outlines, at true size."""

from dataclasses import replace
from io import BytesIO
from itertools import pairwise
from pathlib import Path

import pytest
from fontTools.pens.areaPen import AreaPen
from fontTools.pens.boundsPen import BoundsPen
from fontTools.ttLib import TTFont
from pypdf import PdfReader
from tests.shared_plan import plan_for

from riktig.core.edits import SetLabelSheet
from riktig.core.errors import ImpossibleValueError
from riktig.core.exports import export_drawings
from riktig.core.geometry import Align, Drawing, Face, Line, Poly, Rect, Text, bounds_of, run_of
from riktig.core.job import Job, LabelForm, LabelSheet
from riktig.core.keys import PartKey
from riktig.core.labels import (
    LABELS,
    Label,
    LetterLimits,
    Medium,
    engraved,
    known_sheets,
    misfit_texts,
    printed_lines,
    read_sheets,
    sheet_pages,
)
from riktig.demo_job import frost_fan, kelp_shed

TAPE = next(sheet for sheet in known_sheets() if sheet.form is LabelForm.TAPE and sheet.medium == "device labels")
PLATES = next(sheet for sheet in known_sheets() if sheet.form is LabelForm.PLATES and sheet.medium == "door legends")


def on(job: Job, sheet: LabelSheet) -> tuple[Label, ...]:
    evaluation = plan_for(SetLabelSheet(sheet).apply(plan_for(job)))
    medium = next(medium for medium in Medium if medium.value == sheet.medium)
    return evaluation.get(LABELS).on(medium)


def area_of(points: list[tuple[float, float]]) -> float:
    """Of a closed outline, by the shoelace formula; its sign is which way round it runs."""
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise([*points, points[0]])) / 2


def test_of_a_roll_the_printed_piece_comes_out_with_a_cut_mark_after_each_label() -> None:
    """By hand: 31 mm from label to label; a page of a metre takes 32 of them."""
    labels = tuple(label for label in on(kelp_shed(), TAPE) if not misfit_texts(label))
    count = sum(label.copies for label in labels)
    pages = sheet_pages(labels, TAPE)
    assert len(pages) == -(-count // 32)
    assert [page.width for page in pages] == pytest.approx([32 * 31.0] * (len(pages) - 1) + [(count % 32 or 32) * 31.0])
    assert {page.height for page in pages} == {12.0}
    marks = [shape for page in pages for shape in page.shapes if isinstance(shape, Line) and shape.layer == "cut"]
    assert len(marks) == 2 * count, "one at each edge of the tape"
    assert sorted({round(mark.x1 % 31.0, 3) for mark in marks}) == [30.5], "in the middle of the gap"


def test_letters_that_a_sleeve_does_not_take_are_refused_by_name() -> None:
    marker = Label(Medium.WIRE, ("M12U1500",), 1, "", PartKey("x"), on_sheet=(15.0, 4.0), limits=LetterLimits(1.2, 8))
    assert misfit_texts(marker) == ()
    assert misfit_texts(replace(marker, limits=LetterLimits(1.2, 7))) == ("M12U1500",)


def test_a_medium_says_how_small_its_letters_may_be() -> None:
    """By hand: 14 letters of 0.855 heights on 11.2 mm are 0.92 mm high, with 2 % for other faces."""
    marker = Label(Medium.WIRE, ("K1213K1314ABCD",), 1, "", PartKey("x"), limits=LetterLimits(0.9))
    assert misfit_texts(marker) == ()
    assert misfit_texts(replace(marker, limits=LetterLimits(1.2)))


@pytest.mark.parametrize("job", [kelp_shed, frost_fan], ids=["shed", "fan"])
def test_engraved_plates_are_closed_outlines_inside_their_plates(job: object) -> None:
    labels = tuple(label for label in on(job(), PLATES) if not misfit_texts(label))  # type: ignore[operator]
    pages = sheet_pages(labels, PLATES, outlines=False)
    assert not [shape for page in pages for shape in page.shapes if isinstance(shape, Text)]
    plates = [PLATES.place(number) for number in range(PLATES.places)]
    counted = 0
    for page in pages:
        outlines = [s for s in page.shapes if isinstance(s, Poly) and s.layer == "engraving"]
        for outline in outlines:
            assert outline.closed
            assert len(outline.points) >= 3
            assert abs(area_of([(p.x, p.y) for p in outline.points])) > 0.005, "no outline that encloses nothing"
            box = bounds_of(outline)
            assert any(
                x - 0.01 <= box.x and box.right <= x + 50.01 and y - 0.01 <= box.y and box.bottom <= y + 12.01
                for x, y in plates
            )
        counted += len(outlines)
    assert counted > 100


@pytest.mark.parametrize("letter", "RBO8gq%i")
def test_an_outline_encloses_what_the_letter_of_the_font_does(letter: str) -> None:
    """Outside: fontTools measures area and bounds of the same glyph by its own pens, from its curves."""
    path = Path(__file__).parents[3] / "src" / "riktig" / "assets" / "fonts" / "B612Mono-Bold.ttf"
    font = TTFont(path)
    glyphs, name, units = font.getGlyphSet(), font.getBestCmap()[ord(letter)], font["head"].unitsPerEm
    area, bounds = AreaPen(glyphs), BoundsPen(glyphs)
    glyphs[name].draw(area)
    glyphs[name].draw(bounds)
    size = 10.0
    scale = size / units / 0.76
    text = Text(0.0, 0.0, letter, size, face=Face.PRINTED_BOLD, align=Align.LEFT)
    outlines = [shape for shape in engraved(Drawing(20, 20, (text,), "")).shapes if isinstance(shape, Poly)]
    enclosed = sum(area_of([(p.x, -p.y) for p in outline.points]) for outline in outlines)
    assert enclosed == pytest.approx(area.value * scale * scale, rel=0.01)
    boxes = [bounds_of(outline) for outline in outlines]
    low_x, low_y, high_x, high_y = (value * scale for value in bounds.bounds)
    assert min(box.x for box in boxes) == pytest.approx(low_x, abs=0.05)
    assert max(box.right for box in boxes) == pytest.approx(high_x, abs=0.05)
    assert -max(box.bottom for box in boxes) == pytest.approx(low_y, abs=0.05)
    assert -min(box.y for box in boxes) == pytest.approx(high_y, abs=0.05)


@pytest.mark.parametrize("sheet", known_sheets(), ids=lambda sheet: f"{sheet.medium} {sheet.name}")
def test_every_page_of_every_medium_has_its_true_size(sheet: LabelSheet, tmp_path: Path) -> None:
    """Outside: pypdf reads the page; a point is 1/72 inch. No text is wider than its label."""
    evaluation = plan_for(SetLabelSheet(sheet).apply(plan_for(kelp_shed())))
    medium = next(medium for medium in Medium if medium.value == sheet.medium)
    labels = tuple(label for label in evaluation.get(LABELS).on(medium) if not misfit_texts(label))[:40]
    pages = sheet_pages(labels, sheet, outlines=False)
    path = tmp_path / "labels.pdf"
    export_drawings(evaluation, pages, path, to_scale=True, whole=True)
    read = PdfReader(BytesIO(path.read_bytes()))
    sizes = [(float(page.mediabox.width) / 72 * 25.4, float(page.mediabox.height) / 72 * 25.4) for page in read.pages]
    assert len(sizes) == len(pages)
    for (width, height), page in zip(sizes, pages, strict=True):
        assert (width, height) == pytest.approx((page.width, page.height), abs=0.1)
    places = [Rect(*sheet.place(n), sheet.width, sheet.height) for n in range(sheet.places)]
    for page in pages:
        for shape in page.shapes:
            if isinstance(shape, Text):
                box = bounds_of(shape)
                assert any(
                    room.x - 0.05 <= box.x and box.right <= room.right + 0.05 for room in places
                    if room.y - 0.05 <= box.y and box.bottom <= room.bottom + 0.8
                ), shape.text  # fmt: skip


def test_a_house_writes_its_media_into_a_table() -> None:
    text = (
        "# ours, since last spring\n\n"
        "medium,name,width,height,columns,rows,left,top,across,down,paper_width,paper_height,form,characters,least\n"
        "wire markers,ring strip,10,4,30,1,2,2,10.5,4,330,8,clips,5,1.3\n"
    )
    (sheet,) = read_sheets(text)
    assert (sheet.form, sheet.characters, sheet.least, sheet.places) == (LabelForm.CLIPS, 5, 1.3, 30)


@pytest.mark.parametrize(
    ("row", "error"),
    [
        ("wire markers,x,10,4,30,1,2,2,10.5,4,100,8,clips,5,1.3", ImpossibleValueError),
        ("wire markers,x,ten,4,30,1,2,2,10.5,4,330,8,clips,5,1.3", ValueError),
        ("wire markers,x,10,4,30,1,2,2,10.5,4,330,8,ropes,5,1.3", KeyError),
        ("wire markers,x,10,4,30,1,2,2,10.5,4,330,8,clips,-1,1.3", ImpossibleValueError),
        ("wire markers,x,10,4,30,1,2,2,10.5,4,330,8,clips,5,0.1", ImpossibleValueError),
    ],
)
def test_a_row_that_cannot_be_is_refused(row: str, error: type[Exception]) -> None:
    head = "medium,name,width,height,columns,rows,left,top,across,down,paper_width,paper_height,form,characters,least\n"
    with pytest.raises(error):
        read_sheets(head + row)


def test_a_letter_outside_the_fixed_face_is_as_wide_as_it_is_printed() -> None:
    """Cyrillic comes from the fallback, which is wider than the fixed face: it must not run over its label."""
    assert run_of("ЖЖ", mono=True) > 1.5 * run_of("XX", mono=True)
    marker = Label(Medium.WIRE, ("ЖЖЖЖЖЖЖ",), 1, "", PartKey("x"))
    assert misfit_texts(marker) == ("ЖЖЖЖЖЖЖ",)
    assert printed_lines(marker) == ("ЖЖЖЖЖЖЖ",)
