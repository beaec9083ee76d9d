"""The commands of hand-over, run as somebody does, on files of the demonstrations."""

import importlib
import json
import sys
from collections.abc import Callable
from pathlib import Path

import jsonschema
import pytest

from riktig.cli import hand_over, main
from riktig.core.exports import HouseExport, house_exports, write_house_exports
from riktig.core.handover import issue_entry
from riktig.core.job import ApprovalMarks, Job, change_load, set_heading, set_marks
from riktig.core.store import JobFile, dump_job
from riktig.demo_job import wash_drum
from tests.core.handover.complete import as_log, complete_entries, drum
from tests.shared_plan import plan_for

AT = "2026-12-01T08:00:00+00:00"


@pytest.fixture
def path(tmp_path: Path) -> Path:
    file = JobFile.create(tmp_path / "drum.riktig", drum().document, who="Ida", at=AT)
    file.add_records(as_log([issue_entry(drum().document, "consent", document=1, entries=0)]))
    job = drum().document
    file.add_revision(change_load(job, job.loads[0].id, kw=5.5), who="Ida", at=AT, why="power")
    file.close()
    return tmp_path / "drum.riktig"


def test_missing_says_what_and_where(path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["missing", str(path)]) == 1
    assert "31 of 31 wires are not finished (Build)" in capsys.readouterr().out
    assert main(["missing", str(path), "--json"]) == 1
    rows = json.loads(capsys.readouterr().out)
    assert {"text", "station", "key", "for"} == set(rows[0])
    done = JobFile.create(tmp_path / "done.riktig", drum().document, who="Ida", at=AT)
    done.add_records(as_log(complete_entries(drum())))
    done.close()
    assert main(["missing", str(tmp_path / "done.riktig")]) == 0


def test_compare_with_an_issue_and_with_another_job(
    path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    letter = drum().document.revision
    assert main(["compare", str(path), "--issue", letter]) == 0
    out = capsys.readouterr().out
    assert "Loads: changed: wash drum: kW 4" in out
    assert main(["compare", str(path), str(path)]) == 0
    assert "0 differences" in capsys.readouterr().out
    assert main(["compare", str(path), "--issue", "Q"]) == 2
    assert main(["compare", str(path)]) == 2


def test_the_number_of_a_mark_is_not_that_of_the_next_panel(make_file: Callable[[Job, str], JobFile]) -> None:
    job = set_marks(wash_drum(), enclosure="type 4X", panel="declared", number="P-1042", date="2026-12-01")
    first = make_file(job, "marked.riktig")
    first.close()
    assert main(["series", str(first.path), "0417-09"]) == 0
    (made,) = first.path.parent.glob("*0417-09.riktig")
    second = JobFile(made)
    assert second.job().marks == ApprovalMarks("type 4X", "declared"), "each has a number and a date of its own"
    second.close()


def test_a_series_is_built_from_one_design_with_a_record_each(path: Path, tmp_path: Path) -> None:
    assert main(["series", str(path), "0417-02", "0417-03", "--folder", str(tmp_path)]) == 0
    made = sorted(tmp_path.glob("*0417-0[23].riktig"))
    assert len(made) == 2
    for number, name in enumerate(made, 2):
        file = JobFile(name)
        assert file.job().serial == f"0417-0{number}"
        assert file.records() == []
        assert "issue" in file.revisions()[0].why
        assert file.job().loads[0].kw == 5.5, "the design as it is now"
        file.close()
    assert main(["series", str(path), "0417-01", "--folder", str(tmp_path)]) == 2, "that one has its file"
    assert main(["series", str(path), "0417-02", "--folder", str(tmp_path)]) == 2, "nothing is written over"


def test_evidence_is_packed_and_checked(path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    out = tmp_path / "evidence.zip"
    assert main(["pack", str(path), str(out)]) == 0
    assert main(["pack", str(out), "--check"]) == 0
    assert "is what was packed" in capsys.readouterr().out
    data = out.read_bytes()
    out.write_bytes(data[:5000] + bytes([data[5000] ^ 1]) + data[5001:])
    assert main(["pack", str(out), "--check"]) in (1, 2)
    assert main(["pack", str(path), "--check"]) == 2, "a job is no archive"


def test_find_looks_through_a_folder(
    path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(hand_over, "index_file", lambda: tmp_path / "cache" / "index.sqlite")
    assert main(["find", "0417-01", "--folder", str(path.parent)]) == 0
    assert str(path) in capsys.readouterr().out
    assert main(["find", "no", "such", "panel", "--folder", str(path.parent)]) == 1
    assert main(["find", "x", "--folder", str(tmp_path / "nowhere")]) == 2


def test_the_schema_is_printed_and_holds(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["schema"]) == 0
    schema = json.loads(capsys.readouterr().out)
    jsonschema.validate(json.loads(dump_job(wash_drum())), schema)


class TestHouseExports:
    def test_the_example_writes_a_line_a_terminal(self, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
        monkeypatch.syspath_prepend(str(Path(__file__).parents[1] / "examples" / "house_export"))
        house_export = importlib.import_module("house_export")

        own = write_house_exports(drum(), (), tmp_path, {"terminal-lines": lambda: house_export.write})
        assert own.faults == ()
        lines = own.files[0].read_text(encoding="utf-8").splitlines()
        assert lines[0].split("\t")[0] == "X1"
        sys.modules.pop("house_export")

    def test_one_that_fails_costs_nothing_else(self, tmp_path: Path) -> None:
        def broken(*_given: object) -> list[Path]:
            raise KeyError("their own fault")

        def outside(*_given: object) -> list[Path]:
            return [tmp_path / "elsewhere.txt"]

        def good(_evaluation: object, _records: object, folder: Path) -> list[Path]:
            (folder / "x.txt").write_text("x", encoding="utf-8")
            return [folder / "x.txt"]

        offered: dict[str, Callable[[], HouseExport]] = {"a": lambda: broken, "b": lambda: outside, "c": lambda: good}
        own = write_house_exports(plan_for(set_heading(wash_drum())), (), tmp_path, offered)
        assert [path.name for path in own.files] == ["x.txt"]
        assert len(own.faults) == 2
        assert "their own fault" in own.faults[0]

    def test_none_is_offered_here(self) -> None:
        assert house_exports() == {}
