"""Whether a file is a job file, whole and as Riktig writes it, before anything in it is believed."""

import re
import sqlite3
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.inputs import regular_file
from riktig.core.records import StoredEntry, broken_links, signature_fault
from riktig.core.records.codec import FIRST_DIGEST
from riktig.core.store.head import RevisionText, head_digest, read_head, revision_digest
from riktig.core.store.schema import APPLICATION_ID, FORMAT, SCHEMA, TABLES_BEFORE_4, TRIGGERS

__all__ = [
    "bounded",
    "broken_head",
    "broken_revisions",
    "damaged",
    "see_header",
    "see_schema",
    "see_whole",
    "unreadable_log",
]

MAGIC = b"SQLite format 3\x00"
LARGEST_FILE = 1_000_000_000
"""A job file of years of work has a hundredth, bytes."""
LONGEST_VALUE = 64_000_000
"""Of one value in the file, bytes."""
MOST_STEPS = 400_000_000
"""Of SQLite's machine while a file is opened: some ten seconds."""
_GUARD = re.compile(
    r"CREATE TRIGGER log_is_append_only_[ud] BEFORE (UPDATE|DELETE) ON log"
    r" BEGIN SELECT RAISE\(ABORT, 'the log is append-only'\); END"
)


def see_header(path: Path) -> None:
    """Looks at the first bytes only.

    Raises:
        RiktigError: it is not a job file, is empty or too large, or was written by a newer edition.
    """
    size = regular_file(path, hint="Check the name and that you may read it.").st_size
    try:
        with path.open("rb") as handle:
            head = handle.read(100)
    except OSError as error:
        raise RiktigError(
            f"{path.name} cannot be read ({error.strerror}).",
            hint="Check the name and that you may read it.",
            where=str(path),
        ) from error
    if not head:
        raise RiktigError(
            f"{path.name} is empty: there is no job in it. It was not changed.",
            hint="Open the job's own file, or start a new job.",
            where=str(path),
        )
    if not head.startswith(MAGIC) or int.from_bytes(head[68:72], "big") != APPLICATION_ID:
        raise RiktigError(
            f"{path.name} is not a job of Riktig. It was not changed.",
            hint="Job files end in .riktig. To bring in a JSON job, use import.",
            where=str(path),
        )
    version = int.from_bytes(head[60:64], "big")
    if version > FORMAT:
        raise RiktigError(
            f"{path.name} was written by a newer edition of Riktig (format {version}, "
            f"this one reads {FORMAT}). It was not changed.",
            hint="Open it with that edition.",
            where=str(path),
        )
    if size > LARGEST_FILE:
        raise damaged(path, f"it has {size / 1e9:.1f} GB, and no job has that much")


def damaged(path: Path, why: object) -> RiktigError:
    """The error for a file that cannot be read whole."""
    return RiktigError(
        f"{path.name} is damaged and cannot be read whole ({why}). It was not changed.",
        hint="Open the last copy or the exported JSON of this job.",
        where=str(path),
    )


def bounded(db: sqlite3.Connection) -> None:
    """Bounds what a file made by somebody else can make SQLite do."""
    db.setlimit(sqlite3.SQLITE_LIMIT_LENGTH, LONGEST_VALUE)
    db.execute("PRAGMA trusted_schema = OFF")
    db.execute("PRAGMA cell_size_check = ON")
    steps = [0]

    def count() -> int:
        steps[0] += 1
        return int(steps[0] > MOST_STEPS // 100_000)

    db.set_progress_handler(count, 100_000)


def see_schema(db: sqlite3.Connection) -> None:
    """Sees that the file has our tables and nothing else: a view or a trigger could show what is not there.

    Raises:
        sqlite3.DatabaseError: it has not.
    """
    rows = db.execute("SELECT type, name, sql FROM sqlite_schema").fetchall()
    rows = [row for row in rows if not str(row[1]).startswith("sqlite_")]
    version = int(db.execute("PRAGMA user_version").fetchone()[0])
    if version == FORMAT:
        if {row[2] for row in rows} != {*SCHEMA, *TRIGGERS}:
            raise sqlite3.DatabaseError("its tables are not as Riktig makes them")
        return
    for kind, name, sql in rows:
        if kind == "trigger" and _GUARD.fullmatch(" ".join(str(sql).split())):
            continue
        if kind != "table" or name not in TABLES_BEFORE_4:
            raise sqlite3.DatabaseError(f"it has a {kind} “{name}”, which Riktig does not make")
        columns = [row[1] for row in db.execute(f"PRAGMA table_xinfo({name})")]
        wanted = [*TABLES_BEFORE_4[name]] + (["digest"] if name == "log" and version == 3 else [])
        if columns != wanted or "CHECK" in str(sql).upper() or "GENERATED" in str(sql).upper():
            raise sqlite3.DatabaseError(f"its table “{name}” is not as Riktig makes it")


def see_whole(db: sqlite3.Connection) -> None:
    """Sees that SQLite finds the file sound and that it holds a job.

    Raises:
        sqlite3.DatabaseError: it is not, or does not.
    """
    problem = db.execute("PRAGMA integrity_check(1)").fetchone()[0]
    if problem != "ok":
        raise sqlite3.DatabaseError(str(problem))
    if not db.execute("SELECT 1 FROM revision LIMIT 1").fetchone():
        raise sqlite3.DatabaseError("it holds no revision")


def unreadable_log(entries: list[StoredEntry], last_given: int) -> tuple[tuple[int, str], ...]:
    """Where the log is not what was written: an entry changed, taken out or put in, or not signed by its signer."""
    broken = list(broken_links(entries))
    expected = 1
    for entry in entries:
        if entry.number != expected:
            broken.append((entry.number, f"{entry.number - expected} entries before it are missing"))
        expected = entry.number + 1
        fault = signature_fault(entry)
        if fault:
            broken.append((entry.number, fault))
    if last_given >= expected:
        broken.append((expected - 1, f"{last_given - expected + 1} entries behind it are missing"))
    return tuple(sorted(broken))


def doubtful_keys(db: sqlite3.Connection, entries: list[StoredEntry]) -> tuple[str, ...]:
    """What a person should ask about: nothing is broken, but a name stands under two keys or under none.

    One who works on two machines has two keys; one who forges has one of his own.
    """
    keys: dict[str, str] = {}
    faults: list[str] = []
    for entry in entries:
        known = keys.setdefault(entry.who, entry.signer)
        if known and not entry.signer:
            faults.append(f"entry {entry.number}: it is not signed, and {entry.who} had signed before")
        elif known != entry.signer:
            keys[entry.who] = entry.signer
            if known:
                faults.append(f"entry {entry.number}: it is signed with another key than {entry.who} had before")
    head = read_head(db)
    revisions = db.execute("SELECT signer FROM revision ORDER BY number").fetchall()
    if not head.signer and entries and entries[-1].signer and revisions[-1][0]:
        faults.append("its end is not signed, and what stands before it is")
    elif head.signer and head.signer not in {*(entry.signer for entry in entries), *(row[0] for row in revisions)}:
        faults.append("its end is signed with a key that signed nothing else in it")
    return tuple(faults)


def broken_revisions(db: sqlite3.Connection) -> tuple[tuple[int, str], ...]:
    """The revisions that are not what was written, or not signed by their signer."""
    faults: list[tuple[int, str]] = []
    before, expected = FIRST_DIGEST, 1
    rows = db.execute("SELECT number, job, who, at, why, digest, signer, signature FROM revision ORDER BY number")
    for number, job, who, at, why, digest, signer, signature in rows:
        if digest != revision_digest(RevisionText(number, job, who, at, why), before, signer) or number != expected:
            faults.append((int(number), "it is not what was written"))
        elif fault := signature_fault(_signed(digest, signer, signature)):
            faults.append((int(number), fault))
        before, expected = digest, number + 1
    return tuple(faults)


def _signed(digest: str, signer: str, signature: str) -> StoredEntry:
    return StoredEntry(0, "", "", "", "", "", "", 0, "", digest, signer, signature)


def broken_head(db: sqlite3.Connection, entries: list[StoredEntry]) -> str:
    """What is wrong with the head, "" when it fits the last revision and the last entry."""
    head = read_head(db)
    number, of_job = db.execute("SELECT number, digest FROM revision ORDER BY number DESC LIMIT 1").fetchone()
    last, of_log = (entries[-1].number, entries[-1].digest) if entries else (0, FIRST_DIGEST)
    if head.digest != head_digest(head.count, last, of_log, number, of_job):
        return "its end is not what was written: something was cut off or put in"
    if signature_fault(_signed(head.digest, head.signer, head.signature)):
        return "its end is not signed by who is said to have signed it"
    return ""
