"""Lists of loads: columns recognised, doubtful ones shown, faults with their place, nothing half taken."""

import io
from pathlib import Path

import pytest
from openpyxl import Workbook
from tests.shared_plan import plan_for

from riktig.core.edits import AddLoads
from riktig.core.errors import RiktigError
from riktig.core.imports import (
    LoadList,
    grid_of_file,
    grid_of_text,
    job_from_loads,
    loads_of,
    new_loads,
    read_loads,
    recognise,
)
from riktig.core.job import Job, LoadKind, Rulebook, Start, Supply, new_job, set_practice
from riktig.core.schematic import with_names_recorded
from riktig.demo_job import frost_fan, kelp_shed

EXAMPLES = Path(__file__).parents[3] / "examples"


def taken(text: str) -> list[tuple[str, dict[str, object]]]:
    return [(row.name, dict(row.fields)) for row in loads_of(recognise(grid_of_text(text, "pasted")))]


def refused(text: str) -> str:
    with pytest.raises(RiktigError) as caught:
        loads_of(recognise(grid_of_text(text, "pasted")))
    return str(caught.value)


def workbook(path: Path, rows: list[list[object]], merge: str = "") -> Path:
    book = Workbook()
    for row in rows:
        book.active.append(row)
    if merge:
        book.active.merge_cells(merge)
    book.save(path)
    return path


def facts(job: Job) -> list[tuple[object, ...]]:
    return [
        (x.name, x.kw, x.hp, x.nameplate_a, x.phases, x.kind, x.start, x.command, x.place, x.cable_m, x.maintained)
        for x in job.loads
    ]


@pytest.mark.parametrize(("name", "demo"), [("kelp-shed", kelp_shed), ("frost-fan", frost_fan)])
def test_the_shipped_examples_are_the_demonstrations(name: str, demo: object) -> None:
    rows, _ = read_loads(EXAMPLES / f"{name}.csv")
    assert facts(with_names_recorded(job_from_loads(rows))) == facts(demo())  # type: ignore[operator]


def test_a_list_is_added_to_what_the_job_has() -> None:
    job = set_practice(new_job("X"), rulebook=Rulebook.UL)
    rows, _ = read_loads(EXAMPLES / "loads.csv")
    there = AddLoads(new_loads(rows)).apply(plan_for(job))
    assert there.practice is job.practice
    assert there.supply == Supply()
    assert len(there.loads) == 2


@pytest.mark.parametrize(
    ("text", "name", "fields"),
    [
        ("Motor\tkW\npump\t2,2\n", "pump", {"kw": 2.2}),
        ("Motor\tP (kW)\npump\t1 100 W\n", "pump", {"kw": 1.1}),
        ("Load;HP\npump;7-1/2\n", "pump", {"hp": 7.5}),
        ("Load;HP\npump;3/4 hp\n", "pump", {"hp": 0.75}),
        ("What turns,Power with unit\nfan,12.5 A\n", "fan", {"nameplate_a": 12.5}),
        ("name,kw,starter\nfan,15,Y-D\n", "fan", {"kw": 15.0, "start": Start.STAR_DELTA}),
        ("name,kw,starter\nfan,15,VFD\n", "fan", {"kw": 15.0, "start": Start.DRIVE}),
        ("name,kw,-colour\nfan,15,red\n", "fan", {"kw": 15.0}),
        ('name,kw\n"fan, big","1.234,5 W"\n', "fan, big", {"kw": 1.2345}),
    ],
)
def test_what_people_write_is_understood(text: str, name: str, fields: dict[str, object]) -> None:
    (row,) = taken(text)
    assert row == (name, fields)


def test_a_load_that_does_not_turn_has_its_own_breaker_unless_more_is_said() -> None:
    ((_, fields),) = taken("load,kw,kind,phases\nlights,1.2,lights,1\n")
    assert fields["kind"] is LoadKind.LIGHTING
    assert fields["start"] is Start.WAY
    assert fields["run_lamp"] is False


def test_guessed_columns_are_doubtful_until_a_person_decides() -> None:
    found = recognise(grid_of_text("Item\tRating\tColour\npump\t2 kW\tred\n", "pasted"))
    assert [(c.meaning, c.sure) for c in found.columns] == [("load", False), ("power", False), ("", False)]
    assert [c.heading for c in found.doubtful] == ["Item", "Rating", "Colour"]
    with pytest.raises(RiktigError, match="cannot be used"):
        loads_of(found)
    decided = found.with_meaning(2, "-")
    assert [c.heading for c in decided.doubtful] == ["Item", "Rating"]
    assert [row.name for row in loads_of(decided)] == ["pump"]


@pytest.mark.parametrize(
    ("text", "where", "words"),
    [
        ("load,kw\nfan,0\n", "line 2, kw", "above 0"),
        ("load,kw\nfan,4000\n", "line 2, kw", "at most 400 kW"),
        ("load,hp\nfan,900\n", "line 2, hp", "at most 500 hp"),
        ('load,kw\nfan,"1,500"\n', "line 2, kw", "read two ways"),
        ("load,kw\nfan,4 hp\n", "line 2, kw", "stands in a column of kw"),
        ("load,kw\nfan,5,5\n", "line 2", "3 cells, the heading has 2"),
        ("load,kw,voltage\nfan,4,0\n", "line 2, voltage_v", "cannot be a voltage"),
        ("load,kw,phases\nfan,4,5\n", "line 2, phases", "not a number of phases"),
        ("load,kw,kw\nfan,4,4\n", "heading", "two columns mean kw"),
        ("load,place\nfan,bay\n", "heading", "no column gives a power"),
        ("load,kw\nfan,\n", "line 2", "neither a power nor a current"),
        ("load,kw\nfan,4\nFan,5\n", "line 3", "stands already in line 2"),
        ("load,kw,maintained\nfan,4,perhaps\n", "line 2, maintained", "neither yes nor no"),
        ("load,kw,start\nfan,4,by rope\n", "line 2, start", "Use one of: direct-on-line"),
    ],
)
def test_what_cannot_be_used_is_named_with_its_place_and_a_remedy(text: str, where: str, words: str) -> None:
    said = refused(text)
    assert where in said
    assert words in said
    assert "no load was taken" in said


def test_every_fault_is_told_at_once() -> None:
    assert refused("load,kw\nfan,0\n,4\npump,abc\n").startswith("pasted: 3 places")


class TestWorkbooks:
    def test_numbers_and_a_title_above_are_read(self, tmp_path: Path) -> None:
        path = workbook(tmp_path / "loads.xlsx", [["Kelp shed"], [], ["Motor", "kW", "Place"], ["pump", 2.2, "pit"]])
        rows, notes = read_loads(path)
        assert [(r.name, dict(r.fields)) for r in rows] == [("pump", {"kw": 2.2, "place": "pit"})]
        assert any("title" in note for note in notes)

    def test_merged_cells_among_the_loads_are_refused_with_their_place(self, tmp_path: Path) -> None:
        rows: list[list[object]] = [["Motor", "kW", "Place"], ["pump", 2, "pit"], ["fan", 4, None]]
        with pytest.raises(RiktigError) as caught:
            read_loads(workbook(tmp_path / "m.xlsx", rows, merge="C2:C3"))
        assert "C2:C3" in str(caught.value)
        assert "merged" in str(caught.value)
        titled: list[list[object]] = [["Kelp shed", None, None], ["Motor", "kW", "Place"], ["pump", 2, "pit"]]
        rows_read, _ = read_loads(workbook(tmp_path / "t.xlsx", titled, merge="A1:C1"))
        assert len(rows_read) == 1

    def test_a_cell_is_named_as_the_spreadsheet_names_it(self, tmp_path: Path) -> None:
        path = workbook(tmp_path / "loads.xlsx", [["Motor", "kW"], ["pump", 2], ["fan", -1]])
        with pytest.raises(RiktigError) as caught:
            read_loads(path)
        assert caught.value.faults[0].where == "loads.xlsx, B3"

    def test_empty_rows_below_do_not_count(self, tmp_path: Path) -> None:
        book = Workbook()
        for row in (["Motor", "kW"], ["pump", 2]):
            book.active.append(row)
        book.active.cell(row=9000, column=1).value = " "
        book.save(tmp_path / "long.xlsx")
        rows, _ = read_loads(tmp_path / "long.xlsx")
        assert [row.name for row in rows] == ["pump"]

    def test_a_damaged_one_is_said(self, tmp_path: Path) -> None:
        whole = workbook(tmp_path / "loads.xlsx", [["Motor", "kW"], ["pump", 2]]).read_bytes()
        broken = tmp_path / "broken.xlsx"
        broken.write_bytes(whole[: len(whole) // 2])
        with pytest.raises(RiktigError, match="damaged workbook"):
            grid_of_file(broken)


def test_thousands_of_rows_are_refused_whole() -> None:
    text = io.StringIO()
    text.write("load,kw\n")
    text.writelines(f"motor {n},4\n" for n in range(5000))
    with pytest.raises(RiktigError, match="more than 2000 rows"):
        grid_of_text(text.getvalue(), "long.csv")
    some = "load,kw\n" + "".join(f"motor {n},4\n" for n in range(300))
    assert "at most 200" in refused(some)


def test_a_quote_that_never_closes_is_said() -> None:
    with pytest.raises(RiktigError, match="taken apart"):
        grid_of_text('load,kw\n"fan,4\n', "pasted")


def test_the_place_of_a_recognised_list_is_kept() -> None:
    found: LoadList = recognise(grid_of_text("\n\nload,kw\nfan,4\n", "pasted"))
    assert [row.number for row in found.rows] == [4]
