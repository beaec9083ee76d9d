"""A disk that is full, a file that may not grow: every step is in the file, or is said not to be."""

import random
import subprocess
import sys
from pathlib import Path

from riktig.core.store import JobFile
from riktig.demo_job import wash_drum
from tests.effort import times

TRIES = times(6, 100)

# Ticks and edits in turn until one is refused; says how many it was told are in the file.
WRITER = """
import resource, signal, sys
from dataclasses import replace
from pathlib import Path
from riktig.core.errors import RiktigError
from riktig.core.records import Operation, Record, WireDone
from riktig.core.store import JobFile

path, kind, room = Path(sys.argv[1]), sys.argv[2], int(sys.argv[3])
file = JobFile(path, who="Ida")
job = file.job()
signal.signal(signal.SIGXFSZ, signal.SIG_IGN)
if kind == "size":
    most = path.stat().st_size + room
    resource.setrlimit(resource.RLIMIT_FSIZE, (most, most))
else:
    file.limit_pages(path.stat().st_size // 4096 + room // 4096)
for n in range(120):
    try:
        if n % 9 == 4:
            job = replace(job, title=f"title {n}")
            file.add_revision(job, who="Ida", at="t", why=f"edit {n}")
            print("edit", n, flush=True)
        else:
            file.add_records([Record(f"r{n}", f"wire {n}", WireDone(Operation.CUT, length=640.0), "Ida", f"t{n}", 1)])
            print("tick", n, flush=True)
    except RiktigError as error:
        print("refused", str(error).replace(chr(10), " "), flush=True)
        break
"""


def test_a_full_disk_loses_nothing_that_was_confirmed(tmp_path: Path) -> None:
    writer = tmp_path / "writer.py"
    writer.write_text(WRITER, encoding="utf-8")
    rng, refused = random.Random(17), 0
    for number in range(TRIES):
        path = tmp_path / f"full{number}.riktig"
        JobFile.create(path, wash_drum(), who="Ida", at="t").close()
        kind = ("size", "pages")[number % 2]
        done = subprocess.run(
            [sys.executable, str(writer), str(path), kind, str(rng.randrange(90_000))],
            capture_output=True, text=True, check=False, timeout=120,
        )  # fmt: skip
        assert done.returncode == 0, done.stderr
        lines = [line.split(" ", 1) for line in done.stdout.splitlines()]
        told = [int(what) for kind_, what in lines if kind_ == "tick"]
        edits = [int(what) for kind_, what in lines if kind_ == "edit"]
        if lines[-1][0] == "refused":
            refused += 1
            assert path.name in lines[-1][1], "it says which file"
        file = JobFile(path, who="Ola")
        assert not file.read_only
        assert not file.problems
        assert {record.id for record in file.records()} == {f"r{n}" for n in told}
        assert [revision.why for revision in file.revisions()][1:] == [f"edit {n}" for n in edits]
        file.close()
    assert refused > TRIES // 2, "most of these disks were full before the end"
