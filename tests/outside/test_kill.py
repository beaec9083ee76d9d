"""Kill -9 in the middle of ticking and reading: every confirmed record is there afterwards."""

import subprocess
import sys
import time
from pathlib import Path

from riktig.core.store import JobFile
from riktig.demo_job import wash_drum
from tests.effort import times

KILLS = times(25, 1000)

# The writer says each record's id only after the session has said that it is recorded.
WRITER = """
import os, sys
from pathlib import Path
from riktig.core.records import Operation, Outcome, ReadingTaken, Record, WireDone
from riktig.core.store import JobFile

path, start = Path(sys.argv[1]), int(sys.argv[2])
file = JobFile(path, who="Ida")
print("ready", flush=True)
n = start
while True:
    facts = WireDone(Operation.CUT, length=640.0) if n % 2 else ReadingTaken(Outcome.PASSED, "0.2", "M-34 4711")
    record = Record(f"r{n}", f"wire {n}", facts, "Ida", f"t{n}", 1)
    file.add_records([record])
    os.write(1, f"{n}\\n".encode())
    n += 1
"""


def test_every_confirmed_record_survives_many_kills(tmp_path: Path) -> None:
    path = tmp_path / "killed.riktig"
    JobFile.create(path, wash_drum(), who="Ida", at="t").close()
    writer = tmp_path / "writer.py"
    writer.write_text(WRITER, encoding="utf-8")
    confirmed: set[str] = set()
    start = 0
    for round_ in range(KILLS):
        process = subprocess.Popen([sys.executable, str(writer), str(path), str(start)], stdout=subprocess.PIPE)
        assert process.stdout
        assert process.stdout.readline() == b"ready\n"
        time.sleep(0.002 + round_ % 7 * 0.003)
        process.kill()
        rest, _ = process.communicate()
        lines = rest.decode().split("\n")[:-1]
        confirmed.update(f"r{line}" for line in lines)
        start += len(lines) + 2
        if round_ % 10 == 9:
            check(path, confirmed)
    check(path, confirmed)
    assert len(confirmed) > KILLS


def check(path: Path, confirmed: set[str]) -> None:
    """The file opens for writing, holds its job, and every confirmed record once."""
    file = JobFile(path, who="Ola")
    assert not file.read_only, "the lock of a dead process is no lock"
    assert file.job() == wash_drum()
    ids = [record.id for record in file.records()]
    assert len(ids) == len(set(ids))
    assert confirmed <= set(ids)
    file.close()
