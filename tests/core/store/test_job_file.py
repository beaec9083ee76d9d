"""The job file: what was confirmed is there, what is not ours is not touched, bad files are said."""

import os
import shutil
import sqlite3
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.schematic.builders import START, STOP, one_motor
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.inputs import unfit
from riktig.core.job import Insertable, Job, add_load, new_job
from riktig.core.plate import LAYOUT, fix_as_it_is
from riktig.core.records import Operation, Record, WireDone
from riktig.core.schematic import insert_contact, with_names_recorded
from riktig.core.store import APPLICATION_ID, FORMAT, JobFile, dump_job, load_job

EDITS = st.tuples(
    st.sampled_from([STOP, START]),
    st.sampled_from([one for one in Insertable if one is not Insertable.CONTACT]),
    st.booleans(),
)
KEEPABLE = st.text(st.characters(exclude_categories=("Cc", "Cs", "Zl", "Zp")), max_size=20).filter(
    lambda t: not unfit(t)
)
Make = Callable[[Job, str], JobFile]


def record(number: int, subject: str = "a~b") -> Record:
    facts = WireDone(Operation.CUT, length=640.0)
    return Record(f"id-{number}", subject, facts, "Ida", f"2026-11-23T08:00:{number:02d}", 1)


@settings(max_examples=30, deadline=None)
@given(st.lists(EDITS, max_size=4), st.floats(0.06, 400), KEEPABLE)
def test_a_job_written_and_read_is_the_same_job(
    edits: list[tuple[object, Insertable, bool]], kw: float, name: str
) -> None:
    job = add_load(one_motor(), name, kw)
    for at, what, parallel in edits:
        job = insert_contact(job, at, what, name, parallel=parallel)  # type: ignore[arg-type]
    job = with_names_recorded(job)
    job = fix_as_it_is(job, plan_for(job).get(LAYOUT))
    assert load_job(dump_job(job)) == job
    assert dump_job(load_job(dump_job(job))) == dump_job(job)


def test_every_revision_and_record_is_there_after_opening_again(make_file: Make, demo: Job) -> None:
    file = make_file(demo, "a.riktig")
    second = replace(demo, title="another")
    assert file.add_revision(second, who="Ida", at="t", why="title") == 2
    file.add_records([record(1), record(2)])
    path = file.path
    file.close()
    again = JobFile(path, who="Ola")
    assert again.job() == second
    assert [(r.number, r.why) for r in again.revisions()] == [(1, "new job"), (2, "title")]
    assert again.job_at(1) == demo
    assert again.records() == [record(1), record(2)]
    again.close()


def test_writing_a_record_twice_is_writing_it_once(job_file: JobFile) -> None:
    job_file.add_records([record(1)])
    job_file.add_records([record(1), record(2)])
    assert [r.id for r in job_file.records()] == ["id-1", "id-2"]


@pytest.mark.parametrize("statement", ["DELETE FROM log", "UPDATE log SET who = 'Eve'"])
def test_the_log_cannot_be_changed_even_from_outside(job_file: JobFile, statement: str) -> None:
    job_file.add_records([record(1)])
    outside = sqlite3.connect(job_file.path)
    with pytest.raises(sqlite3.IntegrityError, match="append-only"):
        outside.execute(statement)
    outside.close()
    assert len(job_file.records()) == 1


def test_the_file_says_what_it_is_to_any_sqlite_tool(job_file: JobFile) -> None:
    outside = sqlite3.connect(job_file.path)
    assert outside.execute("PRAGMA application_id").fetchone() == (APPLICATION_ID,)
    assert outside.execute("PRAGMA user_version").fetchone() == (FORMAT,)
    outside.close()
    assert sorted(path.name for path in job_file.path.parent.glob("*demo.riktig*")) == [
        ".demo.riktig.lock", "demo.riktig"
    ], "nothing else lies beside it before the first step"  # fmt: skip


def test_a_second_window_opens_for_looking_and_is_told_who_has_it(job_file: JobFile, demo: Job) -> None:
    second = JobFile(job_file.path, who="Ola")
    assert second.read_only
    assert "tester on" in second.held_by
    assert second.job() == demo
    with pytest.raises(RiktigError, match="read-only"):
        second.add_revision(demo, who="Ola", at="t", why="x")
    with pytest.raises(RiktigError, match="read-only"):
        second.add_records([record(1)])
    second.close()
    job_file.close()
    third = JobFile(job_file.path, who="Ola")
    assert not third.read_only
    third.close()


def wrong_files(folder: Path, good: Path) -> dict[str, Path]:
    made = {
        name: folder / f"{name}.riktig" for name in ("empty", "cut", "picture", "text", "newer", "other", "damaged")
    }
    made["empty"].write_bytes(b"")
    whole = good.read_bytes()
    made["cut"].write_bytes(whole[: len(whole) // 2])
    made["picture"].write_bytes(b"\x89PNG\r\n\x1a\n" + bytes(200))
    made["text"].write_text("load;kw\n", encoding="utf-8")
    shutil.copy(good, made["newer"])
    for name, pragma in (("newer", f"user_version = {FORMAT + 1}"),):
        db = sqlite3.connect(made[name])
        db.execute(f"PRAGMA {pragma}")
        db.commit()
        db.execute("PRAGMA journal_mode = DELETE")
        db.close()
    db = sqlite3.connect(made["other"])
    db.execute("CREATE TABLE t (x)")
    db.commit()
    db.close()
    holed = bytearray(whole)
    holed[4096:8192] = bytes(4096)
    made["damaged"].write_bytes(holed)
    made["missing"] = folder / "missing.riktig"
    return made


@pytest.mark.parametrize(
    ("which", "words"),
    [
        ("empty", "is empty"),
        ("cut", "damaged"),
        ("picture", "not a job of Riktig"),
        ("text", "not a job of Riktig"),
        ("newer", "newer edition"),
        ("other", "not a job of Riktig"),
        ("damaged", "damaged"),
        ("missing", "cannot be read"),
    ],
)
def test_a_file_that_is_no_job_gets_a_clear_message_and_is_not_touched(
    make_file: Make, demo: Job, tmp_path: Path, which: str, words: str
) -> None:
    good = make_file(demo, "good.riktig")
    good.close()
    path = wrong_files(tmp_path, good.path)[which]
    before = path.read_bytes() if path.exists() else b""
    with pytest.raises(RiktigError, match=words) as caught:
        JobFile(path, who="Ida")
    assert caught.value.hint
    assert caught.value.where == str(path)
    assert (path.read_bytes() if path.exists() else b"") == before
    assert not path.with_name(f".{path.name}.lock").exists()


def test_a_full_disk_is_said_and_everything_confirmed_before_is_there(make_file: Make, demo: Job) -> None:
    file = make_file(demo, "full.riktig")
    file.limit_pages(1)
    written = 0
    with pytest.raises(RiktigError, match="disk is full") as caught:
        for number in range(500):
            file.add_records([record(number)])
            written += 1
    assert "Make room" in caught.value.hint
    path = file.path
    file.close()
    again = JobFile(path, who="Ida")
    assert len(again.records()) == written
    again.close()


@contextmanager
def not_as_root() -> Iterator[None]:
    """Root may write everywhere: act as somebody else for a while."""
    root = os.geteuid() == 0
    if root:
        os.seteuid(65534)
    try:
        yield
    finally:
        if root:
            os.seteuid(0)


def test_a_write_protected_file_opens_for_looking(demo: Job) -> None:
    folder = Path(tempfile.mkdtemp())
    file = JobFile.create(folder / "locked.riktig", demo, who="tester", at="t")
    path = file.path
    file.close()
    path.chmod(0o444)
    folder.chmod(0o555)
    with not_as_root():
        opened = JobFile(path, who="Ola")
        assert opened.read_only
        assert opened.job() == demo
        with pytest.raises(RiktigError, match="read-only"):
            opened.add_records([record(1)])
        opened.close()
    shutil.rmtree(folder, ignore_errors=True)


def test_a_name_that_is_taken_is_not_written_over(make_file: Make, demo: Job) -> None:
    make_file(demo, "a.riktig").close()
    with pytest.raises(RiktigError, match="exists already"):
        make_file(new_job(), "a.riktig")


@pytest.mark.parametrize(
    ("text", "place"),
    [
        ("{", "line 1, column 2"),
        ("[1, 2]", "$"),
        ('{"format": 99, "job": {}}', "$.format"),
        ('{"format": 1, "job": {"titel": "x"}}', "$.job.titel"),
        ('{"format": 1, "job": {"supply": {"voltage_v": "much"}}}', "$.job.supply.voltage_v"),
        ('{"format": 1, "job": {"loads": [{"id": "m1", "name": "fan", "kw": -3}]}}', "$.job.loads[0]"),
        ('{"format": 1, "job": {"circuits": [{"id": "c1", "recipe": "magic"}]}}', "$.job.circuits[0].recipe"),
        (
            '{"format": 1, "job": {"plate": {"rails": [{"number": 1, "y": 1, "z": 2}], "placements": []}}}',
            "$.job.plate.rails[0].z",
        ),
    ],
)
def test_a_wrong_json_job_names_the_place_of_the_fault(text: str, place: str) -> None:
    with pytest.raises(RiktigError) as caught:
        load_job(text)
    places = {caught.value.where, *(fault.where for fault in caught.value.faults)}
    assert place in places
    assert caught.value.hint


def test_all_unknown_fields_are_said_at_once() -> None:
    with pytest.raises(RiktigError) as caught:
        load_job('{"format": 1, "job": {"a": 1, "b": 2, "supply": {"c": 3}}}')
    assert {f.where for f in caught.value.faults} == {"$.job.a", "$.job.b", "$.job.supply.c"}


def test_a_file_that_sqlite_finds_unsound_is_refused_though_every_row_can_be_read(tmp_path: Path) -> None:
    """A free list that counts pages which are not there: only a look through the whole file finds it."""
    path = tmp_path / "unsound.riktig"
    JobFile.create(path, new_job("A", "sound"), who="Ida", at="t").close()
    data = bytearray(path.read_bytes())
    data[36:40] = (5).to_bytes(4, "big")  # the count of free pages (SQLite's file format, section 1.3)
    path.write_bytes(data)
    db = sqlite3.connect(path)
    assert db.execute("SELECT count(*) FROM revision").fetchone() == (1,)
    db.close()
    with pytest.raises(RiktigError, match="damaged"):
        JobFile(path)
    assert path.read_bytes() == bytes(data), "it is not touched"
