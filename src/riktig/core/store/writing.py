"""What one step writes into a job file."""

import sqlite3
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from dataclasses import astuple, dataclass
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.job import Job
from riktig.core.records import SIMULATED, LiveStepDone, Outcome, ReadingTaken, Record, Signer, StoredEntry, stored
from riktig.core.records.codec import FIRST_DIGEST
from riktig.core.store.head import RevisionText, revision_digest
from riktig.core.store.job_json import dump_job

__all__ = [
    "Attachment", "insert_as_stored", "insert_records", "insert_revision", "newest", "see_free_name",
    "see_that_it_may_be", "transaction", "unwritable",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class Attachment:
    """What is kept beside the log: its name in the file, what it is, such as “image/jpeg”, and its bytes."""

    name: str
    kind: str
    body: bytes


@contextmanager
def transaction(db: sqlite3.Connection) -> Iterator[None]:
    """All of what is done inside, or nothing; durable on return."""
    db.execute("BEGIN IMMEDIATE")
    try:
        yield
        db.commit()
    except BaseException:
        db.rollback()
        raise


def newest(db: sqlite3.Connection) -> int:
    """The number of the newest revision."""
    return int(db.execute("SELECT max(number) FROM revision").fetchone()[0])


def insert_revision(db: sqlite3.Connection, job: Job, who: str, at: str, why: str, signer: Signer | None) -> int:
    """A revision more, bound to the one before; returns its number."""
    last = db.execute("SELECT number, digest FROM revision ORDER BY number DESC LIMIT 1").fetchone()
    number, before = (last[0] + 1, last[1]) if last else (1, FIRST_DIGEST)
    text = dump_job(job)
    key = signer.public if signer else ""
    digest = revision_digest(RevisionText(number, text, who, at, why), before, key)
    signature = signer.sign(digest) if signer else ""
    row = (number, text, who, at, why, digest, key, signature)
    db.execute("INSERT INTO revision VALUES (?, ?, ?, ?, ?, ?, ?, ?)", row)
    return int(number)


SETTINGS = "Settings"
"""The stage whose steps are done on the dead panel."""


def insert_records(
    db: sqlite3.Connection, records: list[Record], signer: Signer | None, attached: Iterable[Attachment] = ()
) -> int:
    """Each bound to the one before by its digest; one whose id is there already is left out.

    What is attached stands under its name; what is there under that name already stays as it is.
    """
    rows = [astuple(item) for item in attached]
    db.executemany("INSERT OR IGNORE INTO attachment VALUES (?, ?, ?)", rows)
    last = db.execute("SELECT seq, digest FROM log ORDER BY seq DESC LIMIT 1").fetchone()
    number, before = last or (0, FIRST_DIGEST)
    for record in records:
        if db.execute("SELECT 1 FROM log WHERE id = ?", (record.id,)).fetchone():
            continue
        see_that_it_may_be(record, lambda: _is_released(db))
        entry = stored(record, number + 1, before, signer)
        db.execute("INSERT INTO log VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)", astuple(entry))
        number, before = entry.number, entry.digest
    return 0


def see_that_it_may_be(record: Record, is_released: Callable[[], bool]) -> None:
    """What no record may say: a reading of no instrument, or a step under voltage that nobody opened.

    Args:
        record: The record.
        is_released: Says whether the live tests are open.

    Raises:
        RiktigError: it may not be recorded.
    """
    if isinstance(record.facts, ReadingTaken):
        _see_that_it_was_read(record.facts)
    elif isinstance(record.facts, LiveStepDone) and record.facts.stage != SETTINGS:
        _see_that_it_was_released(record.facts, is_released())


def _is_released(db: sqlite3.Connection) -> bool:
    taken = "SELECT 1 FROM log AS back WHERE back.corrects = log.id"
    query = f"SELECT 1 FROM log WHERE kind = 'live released' AND NOT EXISTS ({taken})"
    return db.execute(query).fetchone() is not None


def insert_as_stored(
    db: sqlite3.Connection,
    revisions: Iterable[tuple[int, str, str, str, str, str, str, str]],
    entries: Iterable[StoredEntry],
    attached: Iterable[Attachment],
) -> int:
    """Rows of another copy of the same job, word for word with their digests and signatures.

    Args:
        db: The file.
        revisions: Number, job, who, at, why, digest, signer, signature.
        entries: Of the log.
        attached: What is attached.

    Returns:
        The number of the newest revision.
    """
    db.executemany("INSERT INTO revision VALUES (?, ?, ?, ?, ?, ?, ?, ?)", revisions)
    db.executemany("INSERT INTO log VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)", map(astuple, entries))
    db.executemany("INSERT OR IGNORE INTO attachment VALUES (?, ?, ?)", map(astuple, attached))
    return newest(db)


def _see_that_it_was_read(facts: ReadingTaken) -> None:
    """No instrument, no reading; and without a reading no test has passed.

    Raises:
        RiktigError: it was simulated, says no instrument, or passes on nothing.
    """
    if SIMULATED in facts.meter:
        raise RiktigError(
            "A simulated reading proves nothing, so it was not recorded.", hint="Type what your meter shows."
        )
    if facts.ohm and not facts.meter.strip():
        raise RiktigError(
            "A reading without its instrument is none, so it was not recorded.",
            hint="Say which meter it was taken with, its serial number and calibration.",
        )
    if facts.outcome is Outcome.PASSED and not facts.ohm:
        raise RiktigError(
            "A test passes by a reading, and there is none, so nothing was recorded.",
            hint="Read it, or record why it is skipped.",
        )


def _see_that_it_was_released(facts: LiveStepDone, is_released: bool) -> None:
    """No step under voltage before somebody has opened the live tests, nor a measured one without its instrument.

    Raises:
        RiktigError: nobody has, or it says no instrument.
    """
    if not is_released:
        raise RiktigError(
            "The live tests are shut, so nothing was recorded.",
            hint="Pass the dead tests, or sign for what is open, and say who stands by.",
        )
    if facts.value and (not facts.meter.strip() or SIMULATED in facts.meter):
        raise RiktigError(
            "A reading without its instrument is none, so it was not recorded.",
            hint="Say which meter it was taken with, its serial number and calibration.",
        )


def unwritable(path: Path, error: sqlite3.Error | OSError) -> RiktigError:
    """The error for a step that could not be written."""
    full = "full" in str(error) or "too large" in str(error) or getattr(error, "errno", 0) in (27, 28, 122)
    return RiktigError(
        f"{'The disk is full' if full else f'{path.name} cannot be written ({error})'}: the last "
        "step is on the screen but not in the file.",
        hint="Make room and try again; until then, do not close the window."
        if full
        else "Check that you may write there, then try again.",
        where=str(path),
    )


def see_free_name(path: Path) -> None:
    """Sees that no other file has the name but for large and small letters.

    Raises:
        RiktigError: one has.
    """
    taken = _same_but_for_case(path)
    if taken:
        raise RiktigError(
            f"{taken} is there already, and {path.name} differs from it in large and small letters only: "
            "on other systems the two would be one file.",
            hint="Choose another number.",
            where=str(path),
        )


def _same_but_for_case(path: Path) -> str:
    """A name beside ``path`` that differs from it in large and small letters only; "" when there is none."""
    try:
        names = [entry.name for entry in path.parent.iterdir()]
    except OSError:  # the folder cannot be read: making the file will say so
        return ""
    folded = path.name.casefold()
    return next((name for name in sorted(names) if name != path.name and name.casefold() == folded), "")
