"""The scriptable face: exit codes, keys, and faults with their place, without a display."""

import csv
import io
import json
from pathlib import Path

import pytest

from riktig.cli import main
from riktig.core.exports import LISTS
from riktig.core.store import JobFile, load_job
from riktig.core.wiring import WIRING
from riktig.demo_job import DEMOS, demo_job, kelp_shed
from tests.effort import share
from tests.shared_plan import plan_for

ROOT = Path(__file__).parents[1]


@pytest.fixture(autouse=True)
def shared_plans(monkeypatch: pytest.MonkeyPatch) -> None:
    """A hundred lists of one demonstration: it is worked out once."""
    monkeypatch.setattr("riktig.cli.files.Evaluation", plan_for)


@pytest.fixture
def demo_path(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> Path:
    path = tmp_path / "demo.riktig"
    assert main(["demo", "--write", str(path)]) == 0
    capsys.readouterr()
    return path


@pytest.fixture
def drum_path(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> Path:
    path = tmp_path / "drum.riktig"
    assert main(["demo", "--job", "wash-drum", "--write", str(path)]) == 0
    capsys.readouterr()
    return path


def test_the_demonstration_is_written_and_is_the_kelp_shed(demo_path: Path) -> None:
    file = JobFile(demo_path, read_only=True)
    assert file.job() == demo_job()
    file.close()


@pytest.mark.parametrize("what", share(sorted(LISTS), 0))
def test_every_list_is_shown_in_three_forms_with_the_same_rows(
    demo_path: Path, capsys: pytest.CaptureFixture[str], what: str
) -> None:
    assert main(["show", str(demo_path), what, "--json"]) == 0
    rows = json.loads(capsys.readouterr().out)
    assert main(["show", str(demo_path), what, "--csv"]) == 0
    lines = list(csv.DictReader(io.StringIO(capsys.readouterr().out)))
    assert main(["show", str(demo_path), what]) == 0
    table = capsys.readouterr().out.splitlines()
    assert len(rows) == len(lines) == len(table) - 2
    assert what in ("faults", "renumber", "retag", "orders", "neutrals", "network", "ways") or list(rows[0]) == list(
        lines[0]
    )


def test_check_tells_by_its_exit_code_whether_a_clause_fails(
    drum_path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["check", str(drum_path)]) == 0
    assert "no certificate" in capsys.readouterr().out
    bare = tmp_path / "bare.riktig"
    assert main(["new", str(bare), "--loads", str(ROOT / "examples" / "loads.csv")]) == 0
    assert main(["check", str(bare)]) == 1
    assert "Nameplate: maker missing" in capsys.readouterr().out


def test_a_job_goes_out_as_json_and_comes_back_the_same(
    drum_path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert main(["export", str(drum_path), str(tmp_path / "out")]) == 0
    written = [Path(line) for line in capsys.readouterr().out.splitlines()]
    assert all(path.exists() for path in written)
    (exported,) = [path for path in written if path.suffix == ".json"]
    back = tmp_path / "back.riktig"
    assert main(["import", str(exported), str(back)]) == 0
    file = JobFile(back, read_only=True)
    assert file.job() == demo_job("wash-drum") == load_job(exported.read_text(encoding="utf-8"))
    file.close()


@pytest.mark.parametrize(
    ("content", "words"),
    [
        ("load;kw\nfan;0\n", "line 2, kw"),
        ("load,power\nfan,4\n", "has no unit"),
        ("load,kw\nfan,5 hp\n", "stands in a column of kw"),
    ],
)
def test_wrong_loads_end_with_two_and_the_place(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], content: str, words: str
) -> None:
    loads, out = tmp_path / "loads.csv", tmp_path / "out.riktig"
    loads.write_text(content, encoding="utf-8")
    assert main(["new", str(out), "--loads", str(loads)]) == 2
    assert words in capsys.readouterr().err
    assert not out.exists()


@pytest.mark.parametrize(
    ("command", "words"),
    [
        (["show", "{missing}", "wires"], "cannot be read"),
        (["check", "{picture}"], "not a job of Riktig"),
        (["export", "{picture}", "{out}"], "not a job of Riktig"),
        (["import", "{unknown}", "{out}"], "$.job.titel"),
        (["import", "{missing}", "{out}"], "cannot be read"),
        (["demo", "--write", "{picture}"], "exists already"),
    ],
)
def test_bad_input_ends_with_two_and_a_message_not_a_trace(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], command: list[str], words: str
) -> None:
    (tmp_path / "picture").write_bytes(b"\x89PNG" + bytes(100))
    (tmp_path / "unknown").write_text('{"format": 1, "job": {"titel": "x"}}', encoding="utf-8")
    names = {name: tmp_path / name for name in ("missing", "picture", "unknown", "out")}
    assert main([word.format(**names) for word in command]) == 2
    said = capsys.readouterr().err
    assert words in said
    assert "Traceback" not in said


@pytest.mark.parametrize("name", sorted(DEMOS))
def test_each_demonstration_is_written_and_shown_without_a_display(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], name: str
) -> None:
    path = tmp_path / f"{name}.riktig"
    assert main(["demo", "--job", name, "--write", str(path)]) == 0
    capsys.readouterr()
    assert main(["show", str(path), "proposal", "--json"]) == 0
    rows = json.loads(capsys.readouterr().out)
    assert all(row["reason"] and row["source"] and row["confidence"] for row in rows)
    assert main(["show", str(path), "loads", "--csv"]) == 0
    lines = list(csv.DictReader(io.StringIO(capsys.readouterr().out)))
    assert [line["load"] for line in lines] == [load.name for load in DEMOS[name]().loads]


@pytest.mark.parametrize(
    ("label", "title"),
    [
        ("M3", "M3, rake carriage"),
        ("WM3", "M3, rake carriage"),
        ("M3-U", "potential M3-U"),
        ("X5:U", "X5:U, rake carriage, U"),
        ("K7:13", "K7:13"),
        ("%IX0.0", "A2:I0"),
        ("rake carriage", "M3, rake carriage"),
    ],
)
def test_a_trace_begins_at_any_label(
    demo_path: Path, capsys: pytest.CaptureFixture[str], label: str, title: str
) -> None:
    assert main(["trace", str(demo_path), label]) == 0
    said = capsys.readouterr().out
    assert said.startswith(f"Trace of {title}")
    assert "X1:L" in said and "sheet" in said


@pytest.mark.parametrize(("name", "count"), [("kelp-shed", 8), ("frost-fan", 3), ("loads", 2)])
def test_the_shipped_lists_make_jobs_and_their_guesses_are_said(
    tmp_path: Path, capsys: pytest.CaptureFixture[str], name: str, count: int
) -> None:
    out = tmp_path / "out.riktig"
    assert main(["new", str(out), "--loads", str(ROOT / "examples" / f"{name}.csv"), "--number", "N-1"]) == 0
    capsys.readouterr()
    assert main(["show", str(out), "loads", "--json"]) == 0
    assert len(json.loads(capsys.readouterr().out)) == count
    guessed = tmp_path / "guessed.csv"
    guessed.write_text("Item,Rating\nfan,4 kW\n", encoding="utf-8")
    assert main(["new", str(tmp_path / "g.riktig"), "--loads", str(guessed)]) == 0
    assert "“Rating” was read as power" in capsys.readouterr().err


@pytest.mark.parametrize("command", ["demo", "check", "riktig", ".ci/run", "tools/setup_env.sh"])
def test_the_commands_of_the_readme_are_there(command: str) -> None:
    path = ROOT / command
    assert path.exists()
    assert command.endswith(".sh") or path.stat().st_mode & 0o111
    assert path.read_text(encoding="utf-8").startswith("#!/usr/bin/env bash")


def test_the_readme_begins_with_the_two_commands_and_shows_pictures() -> None:
    text = (ROOT / "README.md").read_text(encoding="utf-8")
    head = text[:1500]
    assert "./demo" in head
    assert "./check" in head
    pictures = sorted((ROOT / "docs" / "screenshots").glob("*.png"))
    assert 10 <= len(pictures) < 20
    assert all(f"docs/screenshots/{picture.name}" in text for picture in pictures)


@pytest.mark.parametrize("name", ["riktig.desktop", "riktig.xml", "riktig.png"])
def test_desktop_integration_is_in_the_tree(name: str) -> None:
    assert (ROOT / "src" / "riktig" / "assets" / "desktop" / name).exists()


RUNGS = {
    "rungs format": 1,
    "title": "bay light",
    "devices": [{"role": "H", "kind": "lamp", "place": "door", "purpose": "light on", "legend": "LIGHT ON"}],
    "rungs": [{"role": "lamp", "title": "light", "from": "c1.control", "path": "H", "to": "N"}],
}


def test_a_circuit_written_by_hand_is_added_and_printed_again(
    drum_path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "bay.json"
    file.write_text(json.dumps(RUNGS), encoding="utf-8")
    assert main(["add", str(drum_path), str(file)]) == 0
    assert "1 rungs added" in capsys.readouterr().out
    assert main(["show", str(drum_path), "rungs", "--json"]) == 0
    rows = json.loads(capsys.readouterr().out)
    mine = next(row for row in rows if row["name"] == "Bay light")
    assert (mine["from"], mine["path"], mine["to"]) == ("c1.control", "H:X1-X2", "N")
    assert main(["rungs", str(drum_path), mine["circuit"]]) == 0
    printed = json.loads(capsys.readouterr().out)
    assert printed["rungs"] == [RUNGS["rungs"][0] | {"path": "H:X1-X2"}]  # type: ignore[index]


def test_the_example_of_the_rung_file_page_can_be_read_as_it_stands(tmp_path: Path) -> None:
    page = (Path(__file__).parent.parent / "docs" / "rungs.md").read_text(encoding="utf-8")
    file, job = tmp_path / "page.json", tmp_path / "shed.riktig"
    file.write_text(page.split("```json")[1].split("```")[0], encoding="utf-8")
    assert main(["demo", "--write", str(job)]) == 0
    assert main(["add", str(job), str(file)]) == 0


@pytest.mark.parametrize(
    ("text", "words"),
    [("{", "cannot be read as JSON"), (json.dumps(RUNGS).replace('"H"', '"H7:1-2"'), "$.rungs[0].path")],
)
def test_a_rung_file_that_is_wrong_is_refused_with_its_place(
    drum_path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str], text: str, words: str
) -> None:
    file = tmp_path / "bad.json"
    file.write_text(text, encoding="utf-8")
    assert main(["add", str(drum_path), str(file)]) == 2
    assert words in capsys.readouterr().err
    assert main(["rungs", str(drum_path), "c77"]) == 2
    assert "There is no circuit c77" in capsys.readouterr().err


def test_a_label_is_traced(demo_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["trace", str(demo_path), "m5"]) == 0
    out = capsys.readouterr().out
    assert "What energises K11" in out
    assert "%QX0.0" in out
    assert main(["trace", str(demo_path), "nothing"]) == 2


def test_a_number_is_traced_with_what_to_measure(demo_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    """By hand: 27 of the shed is dead until the other panel lets the fan run, and while its stop is pressed."""
    assert main(["trace", str(demo_path), "27"]) == 0
    out = capsys.readouterr().out
    told = out[out.index("To measure, by a skilled person") :].splitlines()
    assert "at rest, everything on: dead" in told[1]
    assert any("then press S1: dead" in line for line in told)
    assert any(line.endswith("230 V AC") for line in told)


def test_a_script_is_done_to_the_panel_with_the_states_after_each_step(
    demo_path: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    script = tmp_path / "steps.json"
    script.write_text(json.dumps({"steps": ["press S6: K7 in, M3 forward", "release S6", "press S5: K7 out"]}), "utf-8")
    assert main(["energise", str(demo_path), "--script", str(script), "--json"]) == 0
    found = json.loads(capsys.readouterr().out)["steps"]
    assert [row["passed"] for row in found] == [True, True, True]
    assert "K7" in found[0]["states"]["on"]
    assert found[0]["states"]["motors"]["M3"] == "forward"
    assert found[2]["states"]["motors"]["M3"] == "off"
    assert found[0]["states"]["live_v"]["M3-U"] == pytest.approx(230.9)
    script.write_text("press S6: K8 in\n", encoding="utf-8")
    assert main(["energise", str(demo_path), "--script", str(script)]) == 1
    assert "K8 is not fed" in capsys.readouterr().out
    script.write_text("press K99: K8 in\n", encoding="utf-8")
    assert main(["energise", str(demo_path), "--script", str(script)]) == 2
    assert "step 1" in capsys.readouterr().err


def test_a_plate_is_planned_and_kept(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "shed.riktig"
    JobFile.create(path, kelp_shed(), who="Ida", at="t").close()
    before = plan_for(JobFile(path, read_only=True).job())
    assert main(["plan", str(path), "--seconds", "0.5"]) == 0
    said = capsys.readouterr().out
    assert "wire on the plate" in said
    assert "proven" in said
    job = JobFile(path, read_only=True).job()
    assert job.plate is not None
    metres = [sum(w.length for w in plan.get(WIRING).wires) for plan in (before, plan_for(job))]
    assert metres[1] < metres[0]
    parts = tmp_path / "parts.csv"
    parts.write_text("ref,kind\nX,teapot\n", encoding="utf-8")
    assert main(["plan", str(path), "--parts", str(parts)]) == 2
    assert "teapot" in capsys.readouterr().err


def test_a_survey_is_read_and_its_circuits_go_into_a_job(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    sheet = Path(__file__).parents[1] / "examples" / "survey.csv"
    found, job = tmp_path / "found.json", tmp_path / "old.riktig"
    assert main(["survey", str(sheet), "--rungs", str(found)]) == 1
    out = capsys.readouterr().out
    assert "5 parts, 9 wires, 7 potentials" in out
    assert "not known" in out
    assert main(["new", str(job)]) == 0
    assert main(["add", str(job), str(found)]) == 0
    assert main(["survey"]) == 2
    assert main(["survey", "--kinds"]) == 0
    assert "contactor" in capsys.readouterr().out
    assert main(["survey", str(sheet), "--rungs", str(tmp_path)]) == 2
