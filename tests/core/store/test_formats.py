"""A file of every earlier format opens, keeps every record, and is brought up to this one whole or not at all.

The files under tests/data/formats were written by the editions of their time, with an entry of every kind there was.
"""

import shutil
import sqlite3
from collections import Counter
from pathlib import Path

import pytest
from tests.shared_plan import plan_for

from riktig.cli import main
from riktig.core.evaluation import Evaluation
from riktig.core.holes import METAL_HOLES
from riktig.core.job import Job
from riktig.core.plate import CUTS, LAYOUT
from riktig.core.production import CRITICALS, Gate, hole_states, judged_all, mounted_of, piece_states, progress_of
from riktig.core.proving import TESTS, results_of
from riktig.core.records import Operation, OtherEntry, Outcome, Record, TakenBack, WireDone
from riktig.core.rules import RULES, judgements_of
from riktig.core.store import FORMAT, JobFile
from riktig.core.wiring import WIRING

FORMATS = Path(__file__).parents[2] / "data" / "formats"


def opened(tmp_path: Path, name: str, *, read_only: bool = False) -> JobFile:
    path = tmp_path / name
    shutil.copy(FORMATS / name, path)
    path.chmod(0o644)
    return JobFile(path, who="Ida", read_only=read_only)


@pytest.mark.parametrize("read_only", [False, True])
@pytest.mark.parametrize(("name", "count"), [("format1.riktig", 20), ("format2.riktig", 35), ("format3.riktig", 35)])
def test_every_entry_of_an_earlier_format_is_kept_and_understood(
    tmp_path: Path, name: str, count: int, read_only: bool
) -> None:
    file = opened(tmp_path, name, read_only=read_only)
    records = file.records()
    assert len(records) == count
    assert not [record for record in records if isinstance(record.facts, OtherEntry)]
    assert file.job().number == "KS-0417"
    file.close()


def test_what_counted_then_counts_now(tmp_path: Path) -> None:
    file = opened(tmp_path, "format2.riktig")
    records = file.records()
    evaluation: Evaluation[Job] = plan_for(file.job())
    progress = progress_of(evaluation.get(WIRING), records)
    assert (progress.complete, progress.count(Operation.CUT), progress.stale) == (2, 3, ())
    results = results_of(evaluation.get(TESTS), records)
    readings = {test.key: reading for test, reading in results.readings if reading}
    assert {reading.outcome for reading in readings.values()} == {Outcome.SKIPPED, Outcome.FAILED}
    assert readings["bond:c0.E.box:1"].text == "open"
    (stale,) = results.stale  # 0.2 Ω, leads and all, passed then; the limit of a bond is 0.1 Ω now
    assert (stale.subject, stale.why) == ("bond:c0.E.door:1", "below 0.1 Ω is expected now")
    hole = hole_states(evaluation.get(METAL_HOLES), records)[0]
    assert len(hole.done) == len(hole.hole.operations)
    assert piece_states(evaluation.get(CUTS), records)[0].done is not None
    gates = Counter(one.gate for one in judged_all(evaluation.get(CRITICALS), records, evaluation.document.practice))
    assert gates[Gate.OPEN] == 1
    assert len(mounted_of(evaluation.get(LAYOUT), records)) == 1, "of two parts mounted one was taken back"
    (judged,) = judgements_of(evaluation.get(RULES), records).values()
    assert not judged.counts, "it was signed on a clause that named no part; now each part has its limit"
    file.close()


@pytest.mark.parametrize("name", ["format1.riktig", "format2.riktig", "format3.riktig"])
def test_brought_up_it_has_a_chain_and_takes_new_entries(tmp_path: Path, name: str) -> None:
    file = opened(tmp_path, name)
    assert file.has_digests
    file.add_records([Record("new", "w", WireDone(Operation.CUT, length=5.0), "Ida", "t", 1)])
    assert file.broken_links() == ()
    assert file.records()[-1].facts == WireDone(Operation.CUT, length=5.0)
    file.close()
    db = sqlite3.connect(tmp_path / name)
    assert db.execute("PRAGMA user_version").fetchone() == (FORMAT,)
    with pytest.raises(sqlite3.IntegrityError):
        db.execute("DELETE FROM log")
    db.close()


def test_looked_at_only_it_is_not_touched(tmp_path: Path) -> None:
    file = opened(tmp_path, "format1.riktig", read_only=True)
    assert file.broken_links() == ()
    assert not file.has_digests
    file.close()
    assert (tmp_path / "format1.riktig").read_bytes() == (FORMATS / "format1.riktig").read_bytes()
    assert main(["log", str(tmp_path / "format1.riktig")]) == 0


def test_an_entry_of_a_kind_not_known_is_kept_as_it_is(tmp_path: Path) -> None:
    file = opened(tmp_path, "format2.riktig")
    file.close()
    db = sqlite3.connect(tmp_path / "format2.riktig")
    db.execute(
        "INSERT INTO log VALUES (99, 'x', 'smelt', 'w', '{\"of\": \"burning\"}', 'Ida', 't', 1, '', 'd', '', '')"
    )
    db.commit()
    db.close()
    file = JobFile(tmp_path / "format2.riktig", read_only=True)
    assert file.records()[-1].facts == OtherEntry("smelt", '{"of": "burning"}')
    assert sum(isinstance(record.facts, TakenBack) for record in file.records()) == 2
    file.close()
