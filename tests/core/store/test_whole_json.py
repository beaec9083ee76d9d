"""A job with all its records goes out as JSON and comes back the same; what was changed on the way is noticed."""

import json
import sqlite3
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.job import Job
from riktig.core.proving import TESTS, judge, reading_facts
from riktig.core.records import Operation, Record, WireDone
from riktig.core.schematic import with_names_recorded
from riktig.core.store import Importer, JobFile, dump_job, dump_whole, load_whole
from riktig.core.views import statuses
from riktig.core.wiring import WIRING

BY = Importer("Ida", "2026-11-30T10:00:00+01:00")


@pytest.fixture
def worked_on(tmp_path: Path) -> Path:
    """A job that was edited, partly wired and partly tested, with a photo."""
    job = with_names_recorded(one_motor())
    evaluation = plan_for(job)
    path = tmp_path / "shed.riktig"
    file = JobFile.create(path, job, who="Ida", at="t1")
    file.add_revision(replace(job, title="drying shed"), who="Olav", at="t2", why="title")
    wires = evaluation.get(WIRING).wires[:3]
    ticks = [
        Record(f"t{n}", str(wire.key), WireDone(Operation.CUT, length=wire.cut), "Ida", f"2026-11-2{n}T08:00:00", 2)
        for n, wire in enumerate(wires, 3)
    ]
    test = evaluation.get(TESTS).tests[0]
    facts = reading_facts(test, judge(test, 0.1), ohm=0.1, meter="bench meter 7")
    file.add_records([*ticks, Record("r1", test.key, facts, "Olav", "2026-11-27T09:00:00", 2)])
    file.close()
    db = sqlite3.connect(path)
    db.execute("INSERT INTO attachment VALUES ('clamp.jpg', 'photo', ?)", (b"\xff\xd8\x00picture",))
    db.commit()
    db.close()
    return path


def rows(path: Path) -> dict[str, list[Any]]:
    db = sqlite3.connect(path)
    held = {name: db.execute(f"SELECT * FROM {name}").fetchall() for name in ("revision", "log", "attachment")}
    db.close()
    return held


def text_of(path: Path) -> str:
    file = JobFile(path, read_only=True)
    try:
        return dump_whole(file, indent=True)
    finally:
        file.close()


def test_everything_comes_back_word_for_word(worked_on: Path, tmp_path: Path) -> None:
    back = tmp_path / "back.riktig"
    load_whole(back, text_of(worked_on), BY)
    before, after = rows(worked_on), rows(back)
    assert len(before["revision"]) == 2
    assert len(before["log"]) == 4
    assert len(before["attachment"]) == 1
    assert after == before
    old, new = JobFile(worked_on, read_only=True), JobFile(back, read_only=True)
    assert new.problems == ()
    assert new.job() == old.job()
    assert statuses(plan_for(new.job()), new.records()) == statuses(plan_for(old.job()), old.records())
    old.close()
    new.close()


def test_a_job_changed_in_the_text_is_one_more_revision(worked_on: Path, tmp_path: Path) -> None:
    data = json.loads(text_of(worked_on))
    data["job"]["title"] = "another shed"
    back = tmp_path / "back.riktig"
    load_whole(back, json.dumps(data), BY)
    file = JobFile(back, read_only=True)
    assert file.job().title == "another shed"
    assert [revision.why for revision in file.revisions()] == ["new job", "title", "import"]
    assert len(file.records()) == 4
    file.close()


@pytest.mark.parametrize(
    ("table", "place", "column", "value"),
    [
        ("log", 1, "facts", '{"operation":"cut","length":9999.0}'),
        ("log", 0, "who", "Somebody"),
        ("revisions", 0, "at", "yesterday"),
        ("log", 2, "digest", "0" * 64),
    ],
)
def test_a_record_that_was_changed_on_the_way_is_refused(
    worked_on: Path, tmp_path: Path, table: str, place: int, column: str, value: str
) -> None:
    data = json.loads(text_of(worked_on))
    data[table][place][column] = value
    back = tmp_path / "back.riktig"
    with pytest.raises(RiktigError, match="not what was written"):
        load_whole(back, json.dumps(data), BY)
    assert not back.exists()


@pytest.mark.parametrize("gone", [0, 1, 3])
def test_an_entry_that_was_left_out_is_noticed(worked_on: Path, tmp_path: Path, gone: int) -> None:
    """Each binds the next, and the head the last."""
    data = json.loads(text_of(worked_on))
    del data["log"][gone]
    back = tmp_path / "back.riktig"
    with pytest.raises(RiktigError, match="not what was written"):
        load_whole(back, json.dumps(data), BY)
    assert not back.exists()


@pytest.mark.parametrize(
    "change",
    [
        lambda data: data["log"].append(data["log"][0]),
        lambda data: data["log"][0].pop("at"),
        lambda data: data["log"][0].update(seq="one"),
        lambda data: data["attachments"][0].update(body="§§§"),
        lambda data: data.update(revisions=[]),
        lambda data: data.update(log={"seq": 1}),
    ],
)
def test_a_row_that_cannot_be_is_said_and_no_file_is_made(worked_on: Path, tmp_path: Path, change: Any) -> None:
    data = json.loads(text_of(worked_on))
    change(data)
    back = tmp_path / "back.riktig"
    with pytest.raises(RiktigError):
        load_whole(back, json.dumps(data), BY)
    assert not back.exists()


def test_a_job_without_records_is_taken_as_it_always_was(tmp_path: Path) -> None:
    job: Job = with_names_recorded(one_motor())
    back = tmp_path / "back.riktig"
    load_whole(back, dump_job(job), BY)
    file = JobFile(back, read_only=True)
    assert file.job() == job
    assert [revision.number for revision in file.revisions()] == [1]
    file.close()


def test_a_file_that_is_there_is_left_as_it_is(worked_on: Path) -> None:
    before = worked_on.read_bytes()
    with pytest.raises(RiktigError, match="exists already"):
        load_whole(worked_on, text_of(worked_on), BY)
    assert worked_on.read_bytes() == before
