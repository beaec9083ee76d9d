"""Every kind of mark in every kind of drawing file, and what the PDF writer does with text."""

from pathlib import Path
from typing import cast
from xml.etree import ElementTree

import ezdxf
import pytest
from ezdxf.entities.lwpolyline import LWPolyline
from pypdf import PdfReader

from riktig.core.exports import Page, Schedule, SetHead, as_csv, as_svg, write_dxf, write_set, write_xlsx
from riktig.core.geometry import Align, Arc, Circle, Drawing, Face, Line, Point, Poly, Text

BOX = (Point(10, 10), Point(30, 10), Point(30, 20), Point(10, 20))
DRAWING = Drawing(
    100,
    60,
    (
        Line(0, 0, 100, 60, dashed=True, layer="lines"),
        Poly(BOX, closed=True, fill="part", layer="boxes"),
        Poly(BOX, layer="boxes"),
        Circle(50, 30, 11.15, layer="holes"),
        Arc(50, 30, 5, 90, -180, layer="arcs"),
        Text(20, 40, "K1:13", 3.0, face=Face.PRINTED_BOLD, align=Align.MIDDLE),
        Text(80, 40, "rotor ≤ Ω", 2.5, upright=False, align=Align.RIGHT, backed=True),
    ),
    "All marks",
)
HEAD = SetHead("KS-1", "Test", "A", "2026-11-23")


def test_dxf_keeps_places_radii_layers_and_turns_y_upwards(tmp_path: Path) -> None:
    write_dxf(tmp_path / "a.dxf", DRAWING)
    space = ezdxf.filemanagement.readfile(tmp_path / "a.dxf").modelspace()
    (line,) = space.query("LINE")
    assert (line.dxf.start.x, line.dxf.start.y, line.dxf.end.x, line.dxf.end.y) == (0, 60, 100, 0)
    assert (line.dxf.layer, line.dxf.linetype) == ("lines", "DASHED")
    (circle,) = space.query("CIRCLE")
    assert (circle.dxf.center.x, circle.dxf.center.y, circle.dxf.radius) == (50, 30, 11.15)
    (arc,) = space.query("ARC")
    assert (arc.dxf.start_angle % 360, arc.dxf.end_angle % 360) == (270, 90)
    assert sorted(cast(LWPolyline, p).closed for p in space.query("LWPOLYLINE")) == [False, True]
    words = {t.dxf.text: t.dxf.rotation for t in space.query("TEXT")}
    assert words == {"K1:13": 0, "rotor ≤ Ω": 90}


def test_svg_has_an_element_a_mark_in_its_layer() -> None:
    root = ElementTree.fromstring(as_svg(DRAWING))
    tags = [child.tag.split("}")[1] for group in root for child in group]
    assert sorted(tags) == ["circle", "line", "path", "polygon", "polyline", "text", "text"]
    (circle,) = root.iter("{http://www.w3.org/2000/svg}circle")
    assert (circle.get("cx"), circle.get("cy"), circle.get("r")) == ("50", "30", "11.15")
    path = next(root.iter("{http://www.w3.org/2000/svg}path"))
    assert path.get("d") == "M50 35 A5 5 0 0 0 50 25"


@pytest.mark.parametrize(("size", "upright"), [((100, 60), False), ((60, 100), True)])
def test_a_page_lies_as_its_drawing_does(tmp_path: Path, size: tuple[float, float], upright: bool) -> None:
    write_set(tmp_path / "a.pdf", HEAD, [Page(Drawing(*size, DRAWING.shapes, "x"), to_scale=True)], [])
    (page,) = PdfReader(tmp_path / "a.pdf").pages
    width, height = float(page.mediabox.width), float(page.mediabox.height)
    assert (height > width) is upright
    assert {round(width), round(height)} == {595, 842}
    assert "Scale\n1 : 1\n" in page.extract_text()


def test_letters_the_face_lacks_are_set_in_the_fallback(tmp_path: Path) -> None:
    table = Schedule("t", "Łódź & <b>", (("a", "A"),), (("İzmir ≤ 3",), ("x < y & z",), (None,), (1.5,)))
    write_set(tmp_path / "a.pdf", HEAD, [], [table])
    text = PdfReader(tmp_path / "a.pdf").pages[0].extract_text()
    assert "Łódź & <b>" in text.replace("\n", "")
    assert "x < y & z" in text
    assert "1.5" in text


def test_a_long_schedule_runs_over_as_many_pages_as_it_takes(tmp_path: Path) -> None:
    rows = tuple((n, f"wire {n}", "word " * (n % 9)) for n in range(300))
    table = Schedule("t", "Long", (("n", "N"), ("what", "What"), ("text", "Text")), rows)
    steps: list[float] = []
    write_set(tmp_path / "a.pdf", HEAD, [], [table], lambda share, text: steps.append(share))
    pages = [p.extract_text() for p in PdfReader(tmp_path / "a.pdf").pages]
    assert len(pages) > 2
    assert all("Long" in text and "What" in text for text in pages), "title and heading on every page"
    whole = "".join(pages)
    assert all(f"wire {n}" in whole for n in range(300))
    assert steps == sorted(steps)
    assert (steps[0], steps[-1]) == (0.0, 1.0)


def test_text_that_begins_like_a_formula_stays_text_in_the_workbook(tmp_path: Path) -> None:
    import openpyxl

    write_xlsx(tmp_path / "a.xlsx", [Schedule("t", "T", (("a", "A"),), (("=1+1",), ("-K1",), (3.5,)))])
    cells = [row[0].value for row in openpyxl.load_workbook(tmp_path / "a.xlsx")["T"].iter_rows(min_row=2)]
    assert cells == ["=1+1", "-K1", 3.5]


def test_a_workbook_has_filters_an_index_and_prints_as_wide_as_the_page(tmp_path: Path) -> None:
    rows = tuple((n, f"=1+{n}", "long " * 20) for n in range(40))
    table = Schedule("t", "Wires", (("n", "N"), ("what", "What"), ("text", "Text")), rows)
    write_xlsx(tmp_path / "a.xlsx", [table], HEAD)
    import openpyxl

    book = openpyxl.load_workbook(tmp_path / "a.xlsx")
    assert book.sheetnames == ["About", "Wires"]
    about = {str(row[0].value): row[1].value for row in book["About"].iter_rows(max_row=8)}
    assert (about["Job"], about["Revision"], about["Date"]) == ("KS-1", "A", "2026-11-23")
    assert book["About"].cell(11, 1).hyperlink.location == "'Wires'!A1"
    sheet = book["Wires"]
    assert sheet.auto_filter.ref == "A1:C41"
    assert sheet.print_area == "'Wires'!$A$1:$C$41"
    assert sheet.print_title_rows == "$1:$1"
    assert (sheet.page_setup.fitToWidth, sheet.page_setup.fitToHeight) == (1, 0)
    assert sheet.sheet_properties.pageSetUpPr.fitToPage
    assert sheet["B2"].data_type == "s"
    assert "revision A" in sheet.oddHeader.right.text


def test_csv_begins_with_the_mark_of_utf8_by_choice_only() -> None:
    table = Schedule("t", "T", (("a", "A"),), (("Ω",),))
    assert as_csv(table) == "a\nΩ\n"
    assert as_csv(table, marked=True) == "\ufeffa\nΩ\n"
