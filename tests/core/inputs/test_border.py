"""The border: what is no file, no text, no JSON or no workbook is refused with its place, quickly."""

import io
import json
import os
import time
import zipfile
from pathlib import Path
from typing import Any

import pytest
from openpyxl import Workbook

from riktig.cli import main
from riktig.core.errors import RiktigError
from riktig.core.imports import grid_of_file, read_loads
from riktig.core.inputs import file_name, parse_json, read_bytes, read_text, same_person, unfit, without_unfit


def quick(act: object) -> RiktigError:
    """The error, which must come within two seconds."""
    begin = time.monotonic()
    with pytest.raises(RiktigError) as caught:
        act()  # type: ignore[operator]
    assert time.monotonic() - begin < 2.0
    return caught.value


@pytest.mark.parametrize("what", ["pipe", "device", "folder", "nothing", "zero byte"])
def test_only_a_regular_file_is_read_and_nothing_is_waited_for(tmp_path: Path, what: str) -> None:
    path = tmp_path / "x"
    if what == "pipe":
        os.mkfifo(path)
    elif what == "folder":
        path.mkdir()
    elif what == "device":
        path = Path("/dev/zero")
    elif what == "zero byte":
        path = tmp_path / "a\x00b"
    for act in (lambda: read_bytes(path), lambda: grid_of_file(path)):
        assert quick(act).hint
    if what != "zero byte":
        for command in (["check"], ["log"], ["import", str(tmp_path / "o")], ["edit", str(path)]):
            assert main([command[0], str(path), *command[1:]]) == 2


def test_a_file_that_grows_without_end_is_read_no_further_than_it_may(tmp_path: Path) -> None:
    path = tmp_path / "big"
    path.write_bytes(b"x" * 3000)
    assert "too large" in str(quick(lambda: read_bytes(path, most=2000)))


def test_text_that_is_no_utf_8_says_its_line(tmp_path: Path) -> None:
    path = tmp_path / "a.txt"
    path.write_bytes(b"one\ntwo\n\xff\n")
    assert quick(lambda: read_text(path)).where.endswith("line 3")


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ('{"a": 1, "a": 2}', "stands twice"),
        ("[" * 100_000, "too deep"),
        ("[" * 80 + "]" * 80, "too deep"),
        (f'{{"hp": {"9" * 5000}}}', "5000 figures"),
        ('{"a": NaN}', "no number"),
        ('{"a": 1e999}', "beyond all numbers"),
        ('{"a": "\\ud800"}', "lone surrogate"),
        ('{"a": "\\u0000"}', "control character"),
        ('{"a\\u0007": 1}', "control character"),
        ("{", "cannot be read as JSON"),
    ],
)
def test_json_says_each_thing_once_and_nothing_that_cannot_be_kept(text: str, words: str) -> None:
    assert words in str(quick(lambda: parse_json(text, what="a list")))


@pytest.mark.parametrize("text", ["é", "24 V − 0 V", "ø ☃ 漢字", "a" * 400, "line\none"])
def test_a_text_that_can_be_kept_is_kept(text: str) -> None:
    assert unfit(text, lines=True) == ""
    assert without_unfit(text, lines=True) == text


UNFIT = ["a\nb", "\x1b[31m", "\ud800", "\u202eexe.fdp", "a" * 401, "\ufffe", "x\u2028y", "\x7f"]


@pytest.mark.parametrize("text", UNFIT)
def test_a_text_that_no_paper_can_hold_is_refused(text: str) -> None:
    assert unfit(text)
    assert unfit(without_unfit(text)[:400]) == ""


def test_one_person_is_one_person_however_the_name_is_written() -> None:
    for other in ("ida", " Ida ", "I\u200bda", "IDA", "\uff29da"):
        assert same_person("Ida", other), other
    assert not same_person("Ida", "Ola")


def test_file_names_are_safe_and_no_two_jobs_have_one() -> None:
    numbers = ["KS-1", "KS 1", "KS/1", "KS:1", "KS\\1", "../KS-1", "con", "COM1", "nul.txt", "", ".", "..", "-x"]
    numbers += ["a" * 300, "a" * 299 + "b", "\ud800", "KS-1.", "é", "e\u0301"]
    names = [file_name(number) for number in numbers]
    assert len({name.casefold() for name in names}) == len(names)
    for name in names:
        assert name.strip(". -") == name
        assert not set(name) & set('\\/:*?"<>|\n')
        assert len(name.encode()) < 200


def workbook(fill: object) -> bytes:
    book = Workbook()
    fill(book.active)  # type: ignore[operator]
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def in_file(tmp_path: Path, data: bytes) -> Path:
    path = tmp_path / "loads.xlsx"
    path.write_bytes(data)
    return path


def test_a_cell_at_the_far_corner_costs_nothing(tmp_path: Path) -> None:
    def fill(sheet: Any) -> None:
        sheet["A1"], sheet["B1"], sheet["XFD1048576"] = "load", "kw", "x"

    assert "rows" in str(quick(lambda: grid_of_file(in_file(tmp_path, workbook(fill)))))


def test_a_bomb_is_seen_before_it_is_unpacked(tmp_path: Path) -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as pack:
        pack.writestr("xl/worksheets/sheet1.xml", bytes(60_000_000))
    assert len(out.getvalue()) < 400_000
    assert "unpacks to far more" in str(quick(lambda: grid_of_file(in_file(tmp_path, out.getvalue()))))


def test_entities_that_double_themselves_are_refused(tmp_path: Path) -> None:
    sound = workbook(lambda sheet: sheet.append(["load", "kw"]))
    bomb = '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa">' + "".join(
        f'<!ENTITY {b} "{("&" + a + ";") * 10}">' for a, b in zip("abcdefgh", "bcdefghi", strict=True)
    ) + "]><worksheet>&i;</worksheet>"  # fmt: skip
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(sound)) as source, zipfile.ZipFile(out, "w") as target:
        for part in source.infolist():
            data = bomb.encode() if "sheet1" in part.filename else source.read(part)
            target.writestr(part.filename, data)
    assert "damaged" in str(quick(lambda: grid_of_file(in_file(tmp_path, out.getvalue()))))


def test_a_formula_whose_value_is_not_kept_is_said_and_nothing_becomes_the_default(tmp_path: Path) -> None:
    def fill(sheet: Any) -> None:
        sheet.append(["load", "kw", "start"])
        sheet.append(["drum", 4, '="star-"&"delta"'])

    error = quick(lambda: read_loads(in_file(tmp_path, workbook(fill))))
    assert [fault.where for fault in error.faults] == ["loads.xlsx, C2"]
    assert "formula" in error.faults[0].message


def test_merged_cells_among_the_loads_are_said_with_their_place(tmp_path: Path) -> None:
    def fill(sheet: Any) -> None:
        for row in (["load", "kw"], ["drum", 4], ["pump", 2]):
            sheet.append(row)
        sheet.merge_cells("B2:B3")

    assert "loads.xlsx, B2:B3" in {f.where for f in quick(lambda: read_loads(in_file(tmp_path, workbook(fill)))).faults}


def test_a_list_with_very_many_columns_is_refused(tmp_path: Path) -> None:
    path = tmp_path / "wide.csv"
    path.write_text("load,kw" + "," * 900_000 + "\n", encoding="utf-8")
    assert "columns" in str(quick(lambda: read_loads(path)))


@pytest.mark.parametrize("power", ["9" * 400, "9" * 5000, "1/" + "9" * 400, "1e400"])
def test_a_power_of_very_many_figures_is_refused_with_its_place(tmp_path: Path, power: str) -> None:
    path = tmp_path / "hp.csv"
    path.write_text(f"load,hp\ndrum,{power}\n", encoding="utf-8")
    error = quick(lambda: read_loads(path))
    assert len(str(error)) < 2000


def test_the_place_of_a_fault_in_json_is_its_line_and_column() -> None:
    assert quick(lambda: parse_json('{\n "a": }', what="a list", where="x.json")).where == "x.json, line 2, column 7"
    assert json.loads("{}") == parse_json("{}", what="a list")
