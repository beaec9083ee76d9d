"""A job is one file: whole after every step, and when it is taken away the work goes on in a copy that says so."""

import os
import shutil
import sqlite3
import subprocess
import sys
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import pytest
from tests.effort import times

from riktig.core.errors import RiktigError
from riktig.core.records import Operation, Record, WireDone
from riktig.core.store import JobFile
from riktig.core.store.side_file import journal_of
from riktig.demo_job import wash_drum


def tick(number: int) -> Record:
    return Record(f"r{number}", f"wire {number}", WireDone(Operation.CUT, length=600.0 + number), "Ida", "t", 1)


def ids(path: Path) -> list[str]:
    file = JobFile(path, read_only=True)
    found = [record.id for record in file.records()]
    assert not file.problems
    file.close()
    return found


@pytest.fixture
def begun(tmp_path: Path) -> JobFile:
    """A job with three ticks, open."""
    file = JobFile.create(tmp_path / "job.riktig", wash_drum(), who="Ida", at="t")
    for number in range(3):
        file.add_records([tick(number)])
    return file


def renamed(path: Path) -> None:
    path.rename(path.with_name("renamed.riktig"))


def deleted(path: Path) -> None:
    path.unlink()


def replaced(path: Path) -> None:
    """As a tool that synchronises folders does: a file of another name is put in the place of this one."""
    other = JobFile.create(path.with_name("other.riktig"), wash_drum(), who="Eve", at="t")
    other.close()
    path.with_name("other.riktig").replace(path)


def copied_over(path: Path) -> None:
    """As ``cp`` does: the same file, other content."""
    other = path.with_name("other.riktig")
    JobFile.create(other, replace(wash_drum(), title="other"), who="Eve", at="t").close()
    path.write_bytes(other.read_bytes())


def backup_laid_over(path: Path) -> None:
    path.write_bytes(path.with_name("backup").read_bytes())


def cut_short(path: Path) -> None:
    os.truncate(path, 4096)


def made_a_link(path: Path) -> None:
    path.rename(path.with_name("moved.riktig"))
    path.symlink_to(path.with_name("moved.riktig"))


@pytest.mark.parametrize(
    "take",
    [renamed, deleted, replaced, copied_over, backup_laid_over, cut_short, made_a_link],
    ids=lambda one: one.__name__,
)
@pytest.mark.parametrize("ends", ["closed", "killed"])
def test_nothing_is_lost_whatever_is_done_to_the_file(begun: JobFile, take: Callable[[Path], None], ends: str) -> None:
    path = begun.path
    shutil.copy(path, path.with_name("backup"))
    begun.add_records([tick(3)])
    take(path)
    left = path.read_bytes() if path.exists() else b""
    begun.add_records([tick(4)])
    assert begun.path.name == "job-rescued-1.riktig"
    assert begun.rescued_from.startswith("job.riktig was ")
    begun.add_records([tick(5)])
    rescued = begun.path
    if ends == "killed":  # the lock and the connections go as they go with the process
        shutil.copy(rescued, path.with_name("killed.riktig"))
        assert ids(path.with_name("killed.riktig")) == [f"r{n}" for n in range(6)]
    begun.close()
    assert ids(rescued) == [f"r{number}" for number in range(6)]
    assert (path.read_bytes() if path.exists() else b"") == left, "what lies under the name now is another's"
    again = JobFile(rescued, who="Ida")
    assert not again.read_only
    again.close()


def test_a_folder_that_is_renamed_is_followed(begun: JobFile) -> None:
    folder = begun.path.parent
    moved = folder.rename(folder.with_name("moved"))
    begun.add_records([tick(3)])
    assert begun.path == moved / "job-rescued-1.riktig"
    begun.close()
    moved.rename(folder)


def test_a_file_that_is_only_touched_is_still_ours(begun: JobFile) -> None:
    os.utime(begun.path, (1, 1))
    begun.path.chmod(0o600)
    os.link(begun.path, begun.path.with_name("second name"))
    begun.add_records([tick(3)])
    assert begun.rescued_from == ""
    begun.close()


def test_a_rescue_that_cannot_be_written_is_said(begun: JobFile, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("riktig.core.store.job_file.rescue_places", lambda path, handle: iter(()))
    begun.path.unlink()
    with pytest.raises(RiktigError, match="in no file"):
        begun.add_records([tick(3)])
    monkeypatch.undo()
    begun.add_records([tick(3)])
    assert ids(begun.path) == ["r0", "r1", "r2", "r3"]
    begun.close()


def test_a_copy_of_the_file_alone_is_whole_after_every_step(begun: JobFile, tmp_path: Path) -> None:
    looking = JobFile(begun.path, read_only=True)  # an onlooker does not keep anything beside it
    for number in range(3, 9):
        begun.add_records([tick(number)])
        copy = tmp_path / "mail" / "job.riktig"
        copy.parent.mkdir(exist_ok=True)
        shutil.copy(begun.path, copy)
        assert ids(copy) == [f"r{n}" for n in range(number + 1)]
    looking.close()
    begun.close()
    assert [p.name for p in tmp_path.iterdir() if p.name.startswith("job")] == ["job.riktig"]


KILLED_IN_A_STEP = """
import os, sqlite3, sys
from tests.effort import times
db = sqlite3.connect(sys.argv[1])
db.execute("PRAGMA journal_mode = PERSIST")
db.execute("PRAGMA cache_size = 1")
db.execute("BEGIN IMMEDIATE")
for number in range(300):  # more than fits in the memory: pages go to the file before the step is done
    db.execute("INSERT INTO attachment VALUES (?, 'x', ?)", (f"a{number}", bytes(4000)))
db.execute("UPDATE head SET count = count + 1")
os.kill(os.getpid(), 9)
"""


def killed_in_a_step(path: Path) -> None:
    subprocess.run([sys.executable, "-c", KILLED_IN_A_STEP, str(path)], check=False)
    assert journal_of(path).stat().st_size > 4096


def test_a_step_that_was_cut_off_is_taken_back_by_who_opens_next(begun: JobFile) -> None:
    path = begun.path
    begun.close()
    killed_in_a_step(path)
    assert ids(path) == ["r0", "r1", "r2"], "for looking, without writing"
    file = JobFile(path, who="Ida")
    assert not file.read_only
    assert [record.id for record in file.records()] == ["r0", "r1", "r2"]
    file.close()
    db = sqlite3.connect(path)
    assert db.execute("SELECT count(*) FROM attachment").fetchone() == (0,)
    db.close()


@pytest.mark.parametrize("whose", ["monday's backup", "another job"])
def test_a_journal_is_not_played_into_a_file_it_is_not_of(begun: JobFile, tmp_path: Path, whose: str) -> None:
    path, backup = begun.path, tmp_path / "backup"
    if whose == "another job":
        other = JobFile.create(backup, wash_drum(), who="Eve", at="t")
        for number in range(3, 6):
            other.add_records([tick(number)])
        other.close()
    else:
        shutil.copy(path, backup)
        for number in range(10, 14):
            begun.add_records([tick(number)])
    begun.close()
    expected = ids(backup)
    killed_in_a_step(path)
    shutil.copy(backup, path)
    assert ids(path) == expected
    file = JobFile(path, who="Ida")
    assert not file.read_only
    assert [record.id for record in file.records()] == expected
    assert file.put_aside == "job.riktig-journal-of-another-1"
    file.close()


def test_a_new_job_killed_while_it_is_made_leaves_its_name_free(tmp_path: Path) -> None:
    """Killed at many moments: the file is there whole, or not there and can be made."""
    path = tmp_path / "new.riktig"
    maker = (
        "import os, sys, threading, time; from pathlib import Path\n"
        "from riktig.core.store import JobFile; from riktig.demo_job import wash_drum\n"
        "job = wash_drum()\n"
        "threading.Timer(float(sys.argv[2]), lambda: os.kill(os.getpid(), 9)).start()\n"
        "JobFile.create(Path(sys.argv[1]), job, who='Ida', at='t')\n"
        "time.sleep(1)\n"
    )
    turns = times(3, 8)
    for turn in range(turns):
        subprocess.run([sys.executable, "-c", maker, str(path), str(turn * 0.012 / turns)], check=False)
        if path.exists():
            assert ids(path) == []
            path.unlink()
        JobFile.create(path, wash_drum(), who="Ida", at="t").close()
        assert sorted(one.name for one in tmp_path.iterdir()) == ["new.riktig"]
        path.unlink()


def test_two_writers_never_overwrite_each_others_revision(begun: JobFile) -> None:
    """Where a file system knows no locks, the second writer is told."""
    db = sqlite3.connect(begun.path)
    db.execute("UPDATE head SET count = count + 1")
    db.commit()
    db.close()
    begun.add_revision(wash_drum(), who="Ida", at="t", why="title")
    assert "written over by another program" in begun.rescued_from
    begun.close()


def test_a_job_opened_through_a_link_is_the_job_it_leads_to(begun: JobFile, tmp_path: Path) -> None:
    link, hard = tmp_path / "link.riktig", tmp_path / "hard.riktig"
    link.symlink_to(begun.path)
    os.link(begun.path, hard)
    for name in (link, hard):
        second = JobFile(name, who="Ola")
        assert second.read_only
        second.close()
    begun.close()
    through = JobFile(link, who="Ola")
    through.add_records([tick(3)])
    assert through.path == tmp_path / "job.riktig"
    through.close()
