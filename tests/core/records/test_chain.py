"""The chain of the log: a log that was changed by another tool is found, and where."""

import random
import shutil
import sqlite3
from pathlib import Path

import pytest

from riktig.cli import main
from riktig.core.records import Operation, Outcome, ReadingTaken, Record, TakenBack, WireDone
from riktig.core.store import JobFile
from riktig.demo_job import wash_drum

TRIGGERS = ("log_is_append_only_u", "log_is_append_only_d")


def a_log(path: Path, entries: int = 12) -> Path:
    file = JobFile.create(path, wash_drum(), who="Ida", at="t")
    for n in range(entries):
        facts = WireDone(Operation.CUT, length=600.0 + n) if n % 2 else ReadingTaken(Outcome.FAILED, "0.9", "M-34 4711")
        file.add_records([Record(f"r{n}", f"wire {n}", facts, "Ida", f"t{n}", 1)])
    file.add_records([Record("back", "wire 1", TakenBack("cut"), "Ola", "t", 1, corrects="r1")])
    file.close()
    return path


def forged(path: Path, *statements: str) -> Path:
    """The file as another tool leaves it: the triggers dropped, rows changed, the triggers put back."""
    db = sqlite3.connect(path)
    db.execute("PRAGMA synchronous = OFF")
    kept = [db.execute("SELECT sql FROM sqlite_master WHERE name = ?", (name,)).fetchone()[0] for name in TRIGGERS]
    for name in TRIGGERS:
        db.execute(f"DROP TRIGGER {name}")
    for statement in statements:
        db.execute(statement)
    for sql in kept:
        db.execute(sql)
    db.commit()
    db.close()
    return path


def broken(path: Path) -> list[int]:
    file = JobFile(path, read_only=True)
    found = [number for number, _ in file.broken_links()]
    file.close()
    return found


def test_a_log_as_it_was_written_is_whole(tmp_path: Path) -> None:
    assert broken(a_log(tmp_path / "a.riktig")) == []


@pytest.mark.parametrize(
    ("statement", "where"),
    [
        ("UPDATE log SET facts = replace(facts, 'failed', 'passed') WHERE seq = 5", 5),
        ("DELETE FROM log WHERE seq = 4", 5),
        ("DELETE FROM log WHERE seq = 13", 12),
        ("UPDATE log SET who = 'Ola' WHERE seq = 1", 1),
        ("UPDATE log SET corrects = '' WHERE seq = 13", 13),
        ("UPDATE log SET seq = 50 WHERE seq = 13", 50),
        (
            "INSERT INTO log SELECT 99, 'new', kind, subject, facts, who, at, 1, '', digest, '', ''"
            " FROM log WHERE seq = 2",
            99,
        ),
    ],
)
def test_what_another_tool_changed_is_found_where_it_stands(tmp_path: Path, statement: str, where: int) -> None:
    assert where in broken(forged(a_log(tmp_path / "a.riktig"), statement))


def test_one_changed_sign_anywhere_in_the_log_is_found(tmp_path: Path) -> None:
    """200 random forgeries: one character of one field of one entry."""
    whole, rng = a_log(tmp_path / "a.riktig"), random.Random(16)
    fields = ("id", "kind", "subject", "facts", "who", "at", "revision", "corrects", "digest")
    for _ in range(200):
        copy = tmp_path / "b.riktig"
        shutil.copy(whole, copy)
        seq, field = rng.randint(1, 13), rng.choice(fields)
        db = sqlite3.connect(copy)
        (old,) = db.execute(f"SELECT {field} FROM log WHERE seq = ?", (seq,)).fetchone()
        db.close()
        text = str(old)
        at = rng.randrange(len(text) + 1)
        new = text[:at] + rng.choice("abc123") + text[at:]
        forged(copy, f"UPDATE log SET {field} = '{new.replace(chr(39), chr(39) * 2)}' WHERE seq = {seq}")
        assert seq in broken(copy), (seq, field, new)


def test_the_command_prints_the_log_and_says_where_it_is_broken(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    path = a_log(tmp_path / "a.riktig")
    assert main(["log", str(path)]) == 0
    said = capsys.readouterr()
    assert "length 601.0" in said.out
    assert "13 entries, none was changed" in said.err
    forged(path, "UPDATE log SET facts = replace(facts, 'failed', 'passed') WHERE seq = 5")
    assert main(["log", str(path)]) == 1
    assert "entry 5" in capsys.readouterr().err
