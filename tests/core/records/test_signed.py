"""A record proves itself: signed entries, a signed end, and 200 forgeries by one who knows how the file is made."""

import random
import shutil
import sqlite3
from dataclasses import replace
from pathlib import Path

import pytest
from tests.shared_plan import plan_for

from riktig.cli import main
from riktig.core.errors import RiktigError
from riktig.core.proving import TESTS, reading_facts
from riktig.core.records import NewRecord, Operation, Outcome, Signer, StoredEntry, WireDone, digest_of, new_private_key
from riktig.core.records.codec import FIRST_DIGEST
from riktig.core.store import JobFile, signer_of
from riktig.core.store.head import head_digest
from riktig.core.store.schema import TRIGGERS
from riktig.demo_job import wash_drum

IDA = Signer(bytes(range(32)))


def signed_file(path: Path, signer: Signer | None = IDA) -> Path:
    file = JobFile.create(path, wash_drum(), who="Ida", at="t", signer=signer)
    tests = plan_for(wash_drum()).get(TESTS).tests
    for number in range(12):
        test = tests[number]
        outcome, ohm = (Outcome.FAILED, 9.0) if number % 4 == 1 else (Outcome.PASSED, 0.2)
        entry = (
            NewRecord(test.key, reading_facts(test, outcome, ohm=ohm, meter="typed"))
            if number % 2
            else NewRecord(test.wire, WireDone(Operation.CUT, length=600.0 + number))
        )
        file.add_all(None, [entry], who="Ida", at="t", why="x", new_id=lambda n=number: f"r{n}")  # type: ignore[misc]
    file.close()
    return path


def problems(path: Path) -> tuple[str, ...]:
    try:
        file = JobFile(path, read_only=True)
    except RiktigError as error:
        return (str(error),)
    found = (*file.problems, *file.doubts)
    file.close()
    return found


def test_a_signed_file_is_whole_and_opens_for_writing(tmp_path: Path) -> None:
    path = signed_file(tmp_path / "a.riktig")
    assert problems(path) == ()
    file = JobFile(path, who="Ida", signer=IDA)
    assert not file.read_only
    assert {entry.signer for entry in file.entries()} == {IDA.public}
    file.close()


WAYS = ("passed", "cut off", "taken out", "another hand", "another key", "put in", "unsigned", "digests")


def make_digests_anew(db: sqlite3.Connection, rng: random.Random, what: str, at: int) -> None:
    """Every digest that one can make without the key; ``at`` is where a log goes on under another key."""
    eve = Signer(rng.randbytes(32))
    if what != "digests":
        before = FIRST_DIGEST
        columns = "seq, id, kind, subject, facts, who, at, revision, corrects, digest, signer, signature"
        for row in db.execute(f"SELECT {columns} FROM log ORDER BY seq").fetchall():
            entry = StoredEntry(*row)
            if what == "another key" and entry.number >= at:
                entry = replace(entry, signer=eve.public, signature="")
            digest = digest_of(entry, before)
            mark = eve.sign(digest) if entry.signer == eve.public else entry.signature
            db.execute(
                "UPDATE log SET digest = ?, signer = ?, signature = ? WHERE seq = ?",
                (digest, entry.signer, mark, entry.number),
            )
            before = digest
    last, of_log = db.execute("SELECT seq, digest FROM log ORDER BY seq DESC LIMIT 1").fetchone()
    number, of_job = db.execute("SELECT number, digest FROM revision ORDER BY number DESC LIMIT 1").fetchone()
    (count,) = db.execute("SELECT count FROM head").fetchone()
    digest = head_digest(count, last, of_log, number, of_job)
    if rng.random() < 0.7:
        db.execute("UPDATE head SET entries = ?, digest = ?", (last, digest))
        if rng.random() < 0.5:
            db.execute("UPDATE head SET signer = ?, signature = ?", (eve.public, eve.sign(digest)))


def forge(path: Path, rng: random.Random) -> str:
    """As one would who has read our documents: the triggers dropped, entries changed, every digest made anew, but
    without the key.
    """
    db = sqlite3.connect(path)
    db.execute("PRAGMA synchronous = OFF")
    kept = [row[0] for row in db.execute("SELECT sql FROM sqlite_master WHERE type = 'trigger'")]
    assert set(kept) == set(TRIGGERS)
    for (name,) in db.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'").fetchall():
        db.execute(f"DROP TRIGGER {name}")
    what = rng.choice(WAYS)
    at = rng.randrange(1, 12)
    if what == "passed":
        db.execute("UPDATE log SET facts = replace(facts, 'failed', 'passed') WHERE seq IN (2, 6, 10)")
    elif what == "cut off":
        db.execute("DELETE FROM log WHERE seq > ?", (at,))
        db.execute("UPDATE sqlite_sequence SET seq = ? WHERE name = 'log'", (at,))
    elif what == "taken out":
        db.execute("DELETE FROM log WHERE seq = ?", (at,))
        if rng.random() < 0.5:
            db.execute("UPDATE log SET seq = seq - 1 WHERE seq > ?", (at,))
            db.execute("UPDATE sqlite_sequence SET seq = 11 WHERE name = 'log'")
    elif what == "another hand":
        db.execute("UPDATE log SET who = 'Ola' WHERE seq = ?", (at,))
    elif what == "put in":
        db.execute(
            "INSERT INTO log SELECT 13, 'new', kind, subject, facts, who, at, revision, '', '', signer, signature"
            " FROM log WHERE seq = ?",
            (at,),
        )
    elif what == "unsigned":
        changed = "facts = replace(facts, '0.2', '0.1'), signer = '', signature = ''"
        db.execute(f"UPDATE log SET {changed} WHERE seq > ?", (at,))
    elif what == "digests":
        db.execute("UPDATE log SET digest = ? WHERE seq = ?", (rng.randbytes(32).hex(), at))
    make_digests_anew(db, rng, what, at)
    for sql in kept:
        db.execute(sql)
    db.commit()
    db.close()
    return what


def test_two_hundred_forgeries_are_found_on_opening(tmp_path: Path) -> None:
    whole, copy, rng = signed_file(tmp_path / "a.riktig"), tmp_path / "b.riktig", random.Random(17)
    for number in range(200):
        shutil.copy(whole, copy)
        what = forge(copy, rng)
        assert problems(copy), (number, what)


def test_a_forged_job_opens_for_looking_only_and_says_where(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = signed_file(tmp_path / "a.riktig")
    db = sqlite3.connect(path)
    (sql,) = db.execute("SELECT sql FROM sqlite_master WHERE name = 'log_is_append_only_u'").fetchone()
    db.execute("DROP TRIGGER log_is_append_only_u")
    db.execute("UPDATE log SET facts = replace(facts, 'failed', 'passed') WHERE seq = 6")
    db.execute(sql)
    db.commit()
    db.close()
    file = JobFile(path, who="Ida")
    assert file.read_only
    assert "entry 6" in file.only_looking
    file.close()
    assert main(["log", str(path), "--check"]) == 1
    assert "entry 6: it was changed" in capsys.readouterr().err


def test_insert_or_replace_rewrites_nothing(tmp_path: Path) -> None:
    path = signed_file(tmp_path / "a.riktig")
    db = sqlite3.connect(path)
    for statement in (
        "INSERT OR REPLACE INTO log SELECT seq, id, kind, subject, '{}', who, at, revision, corrects, digest, signer,"
        " signature FROM log WHERE seq = 3",
        "INSERT OR REPLACE INTO revision SELECT number, '{}', who, at, why, digest, signer, signature FROM revision",
        "UPDATE revision SET who = 'Eve'",
        "DELETE FROM revision",
    ):
        with pytest.raises(sqlite3.IntegrityError, match="append-only"):
            db.execute(statement)
    db.close()
    assert problems(path) == ()


def test_the_log_says_who_signed_and_what_nobody_did(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["log", str(signed_file(tmp_path / "a.riktig")), "--check"]) == 0
    said = capsys.readouterr()
    assert said.out == ""
    # The public key of the seed 00 01 … 1f is a known pair, from memory.
    assert "Ida signed with the key 03a1 07bf f3ce 10be" in said.err
    assert main(["log", str(signed_file(tmp_path / "b.riktig", None))]) == 0
    assert "12 of them are not signed" in capsys.readouterr().err


def test_a_person_has_one_key_however_the_name_is_written(tmp_path: Path) -> None:
    first = signer_of("Ida", tmp_path / "keys")
    assert signer_of("ida ", tmp_path / "keys").public == first.public
    assert signer_of("I\u200bDA", tmp_path / "keys").public == first.public
    assert signer_of("Ola", tmp_path / "keys").public != first.public
    assert {path.stat().st_mode & 0o777 for path in (tmp_path / "keys").iterdir()} == {0o600}
    assert "private" not in repr(first)


def test_a_key_that_cannot_be_used_is_said(tmp_path: Path) -> None:
    signer_of("Ida", tmp_path)
    (path,) = tmp_path.iterdir()
    path.write_bytes(b"short")
    with pytest.raises(RiktigError, match="not signed"):
        signer_of("Ida", tmp_path)
    assert len(new_private_key()) == 32
