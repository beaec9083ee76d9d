"""No output harms: nothing a spreadsheet runs, files that other programs read, an export whole or not there."""

import csv
import io
from pathlib import Path
from xml.etree import ElementTree

import ezdxf.filemanagement
import pytest
from openpyxl import load_workbook
from pypdf import PdfReader
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.exports import as_csv, export_all
from riktig.core.exports.dxf import dxf_text
from riktig.core.exports.schedule_model import Schedule
from riktig.core.exports.tables import write_xlsx
from riktig.core.imports import grid_of_file
from riktig.core.inputs import read_text
from riktig.core.job import Job, add_load, new_job, set_heading
from riktig.core.schematic import with_names_recorded
from riktig.core.store import load_job
from riktig.core.work import Cancelled, Progress

BAD = ["=1+1", "+49 30", "-X1", "@SUM(A1)", "\t=1", "=cmd|' /C calc'!A0", "  =2", "#N/A", "|x", "'quoted"]


def table(texts: list[str]) -> Schedule:
    return Schedule("list", "List", (("text", "Text"), ("number", "Number")), tuple((text, -5.0) for text in texts))


def runs(cell: str) -> bool:
    """Whether a spreadsheet takes the cell for a formula: by its first sign, numbers aside (OWASP, from memory)."""
    if cell.replace(".", "").replace("-", "").isdigit():
        return False
    return cell.lstrip(" ")[:1] in ("=", "+", "-", "@", "\t", "\r")


def test_no_cell_of_csv_runs_and_our_own_reader_gives_the_text_back(tmp_path: Path) -> None:
    rows = list(csv.reader(io.StringIO(as_csv(table(BAD)))))
    assert not [cell for row in rows for cell in row if runs(cell)]
    assert rows[1][1] == "-5.0", "a number is a number"
    path = tmp_path / "list.csv"
    path.write_text(as_csv(table(BAD)), encoding="utf-8")
    back = [row.cells[0] for row in grid_of_file(path).rows[1:]]
    assert back == [text.strip() for text in BAD]


def test_no_cell_of_a_workbook_is_a_formula_and_no_text_has_an_apostrophe_more(tmp_path: Path) -> None:
    path = tmp_path / "list.xlsx"
    write_xlsx(path, [table(BAD)])
    sheet = load_workbook(path)["List"]
    cells = [sheet.cell(row, 1) for row in range(2, len(BAD) + 2)]
    assert [cell.data_type for cell in cells] == ["s"] * len(BAD)
    assert [cell.value for cell in cells] == BAD
    assert sheet.cell(2, 2).value == -5


@pytest.fixture(scope="module")
def odd_job() -> Job:
    job = set_heading(new_job("=KS 0001/2"), title="+drum & <pump> “é” ]]>", client="@all", maker="-x", serial="'1")
    for name in ("=HYPERLINK(1)", "-pump & <b>bold</b>", "^J %%d fan"):
        job = add_load(job, name, 1.5)
    return with_names_recorded(job)


@pytest.fixture(scope="module")
def exported(odd_job: Job, tmp_path_factory: pytest.TempPathFactory) -> list[Path]:
    return export_all(plan_for(odd_job), (), tmp_path_factory.mktemp("papers") / "out")


def test_every_csv_of_a_job_with_odd_names_is_safe(exported: list[Path]) -> None:
    found = [path for path in exported if path.suffix == ".csv"]
    assert len(found) > 20
    for path in found:
        for row in csv.reader(io.StringIO(path.read_text(encoding="utf-8"))):
            assert not [cell for cell in row if runs(cell)], path.name


def test_other_programs_read_every_paper(exported: list[Path]) -> None:
    """openpyxl, ezdxf, an XML parser, pypdf."""
    for path in some(exported):
        if path.suffix == ".xlsx":
            for sheet in some(load_workbook(path).worksheets):
                assert not [cell for row in sheet.iter_rows() for cell in row if cell.data_type == "f"]
        elif path.suffix == ".dxf":
            assert not ezdxf.filemanagement.readfile(path).audit().errors
        elif path.suffix == ".svg":
            ElementTree.parse(path)
        elif path.suffix == ".pdf":
            assert len(PdfReader(path).pages) > 0


def test_the_json_gives_back_the_very_same_job(exported: list[Path], odd_job: Job) -> None:
    (path,) = [path for path in exported if path.suffix == ".json"]
    assert load_job(read_text(path)) == odd_job


def test_a_line_break_or_a_caret_is_no_end_of_a_dxf_text() -> None:
    assert dxf_text("a\nb^Jc\u2028d") == "a b^ Jc d"


def names(folder: Path) -> list[str]:
    return sorted(str(path.relative_to(folder)) for path in folder.rglob("*"))


def test_an_export_that_is_stopped_or_fails_leaves_what_was_there(
    demo: Job, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    old = tmp_path / "KS-0417_rev_B_papers.pdf"
    old.write_text("last week's", encoding="utf-8")
    before = names(tmp_path)

    def fails(*_: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("riktig.core.exports.export.write_xlsx", fails)
    with pytest.raises(RiktigError, match="none was changed"):
        export_all(plan_for(demo), (), tmp_path)
    assert names(tmp_path) == before
    assert old.read_text(encoding="utf-8") == "last week's"
    monkeypatch.undo()
    with pytest.raises(Cancelled):
        export_all(plan_for(demo), (), tmp_path, progress=Progress(lambda share, text: None, lambda: True))
    assert names(tmp_path) == before


def test_no_link_among_the_papers_is_followed(demo: Job, tmp_path: Path) -> None:
    letter, other, out = tmp_path / "letter.txt", tmp_path / "other", tmp_path / "out"
    letter.write_text("dear customer", encoding="utf-8")
    other.mkdir()
    out.mkdir()
    for name in (".KS-0417_rev_B_papers.pdf.part", "KS-0417_rev_B_papers.pdf"):
        (out / name).symlink_to(letter)
    export_all(plan_for(demo), (), out)
    assert letter.read_text(encoding="utf-8") == "dear customer"
    assert not (out / "KS-0417_rev_B_papers.pdf").is_symlink()
    linked = tmp_path / "linked"
    linked.mkdir()
    (linked / "csv").symlink_to(other)
    with pytest.raises(RiktigError, match="is a link"):
        export_all(plan_for(demo), (), linked)
    assert names(other) == []
