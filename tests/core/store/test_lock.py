"""Who has a file: one at a time, said by name, and never held by the dead."""

import json
import os
import subprocess
import sys
import time
from pathlib import Path

import pytest

from riktig.core.store import JobFile
from riktig.core.store.lock import FileLock
from riktig.demo_job import wash_drum

HOLDER = """
import sys, time
from pathlib import Path
from riktig.core.store.lock import FileLock
lock = FileLock(Path(sys.argv[1]))
print(lock.take("Ola") or "mine", flush=True)
time.sleep(60)
"""


def lock_path(job: Path) -> Path:
    return job.with_name(f".{job.name}.lock")


def test_a_lock_says_who_has_it_and_goes_when_given_back(tmp_path: Path) -> None:
    job = tmp_path / "a.riktig"
    first, second = FileLock(job), FileLock(job)
    assert first.take("Ida") == ""
    said = json.loads(lock_path(job).read_text(encoding="utf-8"))
    assert (said["who"], said["process"]) == ("Ida", os.getpid())
    assert second.take("Ola").startswith("Ida on ")
    first.drop()
    assert not lock_path(job).exists()
    assert second.take("Ola") == ""
    second.drop()


def test_the_lock_of_a_killed_process_is_free_at_once(tmp_path: Path) -> None:
    job = tmp_path / "a.riktig"
    holder = subprocess.Popen([sys.executable, "-c", HOLDER, str(job)], stdout=subprocess.PIPE, text=True)
    assert holder.stdout
    assert holder.stdout.readline() == "mine\n"
    lock = FileLock(job)
    assert lock.take("Ida").startswith("Ola on ")
    holder.kill()
    holder.communicate()
    assert lock.take("Ida") == ""
    lock.drop()


@pytest.mark.parametrize("content", ["", "not json", "[]", '{"who": "Ola"}'])
def test_a_lock_file_that_cannot_be_read_is_somebodys_all_the_same(tmp_path: Path, content: str) -> None:
    job = tmp_path / "a.riktig"
    first, second = FileLock(job), FileLock(job)
    assert first.take("Ida") == ""
    lock_path(job).write_text(content, encoding="utf-8")
    assert second.take("Ola") == "another window"
    first.drop()


def test_a_leftover_lock_file_locks_nobody_out(tmp_path: Path) -> None:
    path = tmp_path / "a.riktig"
    lock_path(path).write_text('{"who": "a ghost", "host": "h", "process": 1}', encoding="utf-8")
    file = JobFile.create(path, wash_drum(), who="Ida", at="t")
    assert not file.read_only
    file.close()


def test_looking_only_takes_no_lock(tmp_path: Path) -> None:
    path = tmp_path / "a.riktig"
    JobFile.create(path, wash_drum(), who="Ida", at="t").close()
    looking = JobFile(path, read_only=True)
    writing = JobFile(path, who="Ola")
    assert looking.read_only
    assert not writing.read_only
    assert writing.add_revision(wash_drum(), who="Ola", at=str(time.time_ns()), why="again") == 2
    writing.close()
    looking.close()
