"""Who has a file: one at a time, said by name, and never held by the dead."""

import json
import os
import socket
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


TAKER = """
import sys, time
from pathlib import Path
from riktig.core.store.lock import FileLock
job, inside, until = Path(sys.argv[1]), Path(sys.argv[2]), time.monotonic() + float(sys.argv[3])
takes = twice = 0
while time.monotonic() < until:
    lock = FileLock(job)
    if lock.take("Ola"):
        continue
    takes += 1
    try:
        inside.open("x").close()
    except FileExistsError:
        twice += 1
    else:
        inside.unlink()
    lock.drop()
print(takes, twice)
"""


def a_file(folder: Path) -> Path:
    path = folder / "a.riktig"
    path.write_bytes(b"a job")
    return path


def lock_path(job: Path) -> Path:
    return job.with_name(f".{job.name}.lock")


def test_a_lock_says_who_has_it_and_goes_when_given_back(tmp_path: Path) -> None:
    job = a_file(tmp_path)
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
    job = a_file(tmp_path)
    holder = subprocess.Popen([sys.executable, "-c", HOLDER, str(job)], stdout=subprocess.PIPE, text=True)
    assert holder.stdout
    assert holder.stdout.readline() == "mine\n"
    lock = FileLock(job)
    assert lock.take("Ida").startswith("Ola on ")
    holder.kill()
    holder.communicate()
    assert lock.take("Ida") == ""
    lock.drop()


@pytest.mark.parametrize("content", [b"", b"not json", b"[]", b'{"who": "Ola"}', b"\xff\xfe"])
def test_a_lock_file_that_cannot_be_read_is_somebodys_all_the_same(tmp_path: Path, content: bytes) -> None:
    job = a_file(tmp_path)
    first, second = FileLock(job), FileLock(job)
    assert first.take("Ida") == ""
    lock_path(job).write_bytes(content)
    assert second.take("Ola") == "another window"
    first.drop()


@pytest.mark.parametrize(
    "note",
    [
        json.dumps({"who": "a ghost", "host": socket.gethostname(), "process": 1}).encode(),
        b"\xff\xfe\x00no text at all",
        b"[" * 100_000,
        b'{"who": "Eve"}',
        b"",
    ],
)
def test_a_note_that_was_left_behind_here_or_says_nothing_locks_nobody_out(tmp_path: Path, note: bytes) -> None:
    path = tmp_path / "a.riktig"
    lock_path(path).write_bytes(note)
    file = JobFile.create(path, wash_drum(), who="Ida", at="t")
    assert not file.read_only
    file.close()


def test_a_note_of_another_machine_counts_as_its_lock_and_says_how_to_go_on(tmp_path: Path) -> None:
    path = tmp_path / "a.riktig"
    JobFile.create(path, wash_drum(), who="Ida", at="t").close()
    lock_path(path).write_text('{"who": "Ola", "host": "another-bench", "process": 1}', encoding="utf-8")
    file = JobFile(path, who="Ida")
    assert file.read_only
    assert "Ola on another-bench" in file.only_looking
    assert "remove that file" in file.only_looking
    file.close()
    assert lock_path(path).exists(), "the note of the other stays"


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


def test_processes_that_take_and_drop_one_lock_in_turn_never_have_it_together(tmp_path: Path) -> None:
    """Each makes a file while it holds the lock; finding one there means that two hold it."""
    job = a_file(tmp_path)
    command = [sys.executable, "-c", TAKER, str(job), str(tmp_path / "inside"), "1.5"]
    takers = [subprocess.Popen(command, stdout=subprocess.PIPE, text=True) for _ in range(4)]
    counts = [tuple(map(int, taker.communicate()[0].split())) for taker in takers]
    assert sum(takes for takes, _ in counts) > 20
    assert sum(twice for _, twice in counts) == 0


@pytest.mark.parametrize("make", ["symlink_to", "hardlink_to"])
def test_through_a_link_it_is_the_same_lock(tmp_path: Path, make: str) -> None:
    job, link = a_file(tmp_path), tmp_path / "other.riktig"
    getattr(link, make)(job)
    first, second = FileLock(job), FileLock(link)
    assert first.take("Ida") == ""
    assert second.take("Ola")
    first.drop()
    assert second.take("Ola") == ""
    second.drop()


def test_a_link_in_the_place_of_the_note_is_not_followed(tmp_path: Path) -> None:
    job, letter = a_file(tmp_path), tmp_path / "letter.txt"
    letter.write_text("dear customer", encoding="utf-8")
    lock_path(job).symlink_to(letter)
    lock = FileLock(job)
    assert lock.take("Ida") == ""
    lock.drop()
    assert letter.read_text(encoding="utf-8") == "dear customer"


def test_a_note_that_was_cut_off_by_a_kill_is_cleared_away(tmp_path: Path) -> None:
    path = tmp_path / "a.riktig"
    JobFile.create(path, wash_drum(), who="Ida", at="t").close()
    gone = subprocess.Popen([sys.executable, "-c", ""])
    gone.wait()
    left, ours = (path.with_name(f".{path.name}.lock.{number}") for number in (gone.pid, os.getppid()))
    for part in (left, ours):
        part.write_text("{")
    JobFile(path, who="Ida").close()
    assert not left.exists()
    assert ours.exists(), "who still runs may be writing it"
