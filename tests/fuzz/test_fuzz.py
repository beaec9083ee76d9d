"""Every reader, fed with files that have gone wrong: none breaks, none takes long (long run: ./check --nightly)."""

import random
import shutil
from pathlib import Path

import pytest

from riktig.core.errors import RiktigError
from riktig.core.records import NewRecord, Operation, WireDone
from riktig.core.store import JobFile, dump_job
from riktig.demo_job import wash_drum
from tests.effort import times
from tests.fuzz.readers import READERS
from tests.fuzz.run import fuzz


@pytest.mark.parametrize("name", READERS)
def test_no_mutated_file_breaks_its_reader(name: str) -> None:
    done = fuzz(name, times(40, 10_000), seed=17)
    assert not done.faults, [text for text, _ in done.faults[:5]]
    assert done.read + done.refused == times(40, 10_000)


def test_one_flipped_bit_of_a_job_file_never_shows_another_job_or_another_record(tmp_path: Path) -> None:
    """Refused, or said, or the very same."""
    path, copy = tmp_path / "a.riktig", tmp_path / "b.riktig"
    file = JobFile.create(path, wash_drum(), who="Ida", at="2026-11-29T08:00:00+00:00")
    for number in range(8):
        entry = NewRecord(f"wire {number}", WireDone(Operation.CUT, length=600.0 + number))
        file.add_all(None, [entry], who="Ida", at="t", why="x", new_id=lambda n=number: f"r{n}")  # type: ignore[misc]
    expected = (dump_job(file.job()), file.records(), [(r.number, r.who, r.at, r.why) for r in file.revisions()])
    file.close()
    whole, rng = path.read_bytes(), random.Random(17)
    said = 0
    for _ in range(times(250, 4000)):
        place, bit = rng.randrange(len(whole)), 1 << rng.randrange(8)
        copy.write_bytes(whole[:place] + bytes([whole[place] ^ bit]) + whole[place + 1 :])
        try:
            found = JobFile(copy, read_only=True)
        except RiktigError:
            said += 1
            continue
        try:
            shown = (
                dump_job(found.job()),
                found.records(),
                [(r.number, r.who, r.at, r.why) for r in found.revisions()],
            )
            if found.problems:
                said += 1
            else:
                assert shown == expected, (place, bit)
        finally:
            found.close()
    assert said > times(250, 4000) // 20


@pytest.mark.parametrize(
    "planted",
    [
        "CREATE VIEW v AS WITH RECURSIVE n(x) AS (SELECT 1 UNION ALL SELECT x + 1 FROM n) SELECT count(*) FROM n",
        "CREATE TRIGGER t AFTER INSERT ON log BEGIN SELECT 1; END",
        "CREATE TABLE other (x)",
        "CREATE INDEX i ON log (who)",
        "ALTER TABLE log RENAME TO kept; CREATE VIEW log AS SELECT * FROM kept",
        "ALTER TABLE log ADD COLUMN more TEXT",
    ],
)
def test_what_another_tool_planted_in_a_job_file_is_refused(tmp_path: Path, planted: str) -> None:
    import sqlite3

    path = tmp_path / "a.riktig"
    JobFile.create(path, wash_drum(), who="Ida", at="t").close()
    db = sqlite3.connect(path)
    db.executescript(planted)
    db.close()
    before = path.read_bytes()
    for read_only in (True, False):
        with pytest.raises(RiktigError, match="damaged"):
            JobFile(path, who="Ida", read_only=read_only)
    assert path.read_bytes() == before
    shutil.rmtree(tmp_path, ignore_errors=True)
