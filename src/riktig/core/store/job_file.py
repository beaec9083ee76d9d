"""The job file: every edit and record is durable when the call returns.

SQLite in WAL mode with synchronous FULL: a crash, a full disk or a kill loses nothing that was
confirmed. What could not be written raises, and the caller says so.
"""

import sqlite3
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import astuple
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.job import Job
from riktig.core.records import NewRecord, Record, StoredEntry, broken_links, stored
from riktig.core.records.codec import FIRST_DIGEST
from riktig.core.store.bring_up import bring_up
from riktig.core.store.job_json import dump_job, load_job
from riktig.core.store.lock import FileLock
from riktig.core.store.schema import APPLICATION_ID, FORMAT, SCHEMA, TRIGGERS

__all__ = ["JobFile", "Revision"]

MAGIC = b"SQLite format 3\x00"


class Revision:
    """A revision's number, author, time and reason."""

    __slots__ = ("at", "number", "who", "why")

    def __init__(self, number: int, who: str, at: str, why: str) -> None:
        self.number, self.who, self.at, self.why = number, who, at, why


class JobFile:
    """One open job file. Not for several threads.

    Args:
        path: ``name.riktig``.
        who: Said to others who try to open it.
        read_only: Open for looking only.

    Raises:
        RiktigError: not a job file, damaged, from a newer edition, or not readable.
    """

    def __init__(self, path: Path, *, who: str = "", read_only: bool = False) -> None:
        self.path = path
        self._lock = FileLock(path)
        self.held_by = "" if read_only else self._lock.take(who)
        self.read_only = read_only or bool(self.held_by)
        try:
            self._check_header()
            self._db = self._connect()
            self._check_schema()
        except RiktigError:
            self._lock.drop()
            raise
        except sqlite3.Error as error:
            self._lock.drop()
            raise _damaged(path, error) from error

    @classmethod
    def create(cls, path: Path, job: Job, *, who: str, at: str, why: str = "new job") -> "JobFile":
        """Makes a new file with a first revision.

        Raises:
            RiktigError: the file exists, or cannot be written.
        """
        if path.exists():
            raise RiktigError(
                f"{path.name} exists already and was left as it is.", hint="Choose another name.", where=str(path)
            )
        try:
            db = sqlite3.connect(path)
            with db:
                db.execute(f"PRAGMA application_id = {APPLICATION_ID}")
                db.execute(f"PRAGMA user_version = {FORMAT}")
                db.executescript(";".join((SCHEMA, *TRIGGERS)))
                db.execute(
                    "INSERT INTO revision (job, who, at, why) VALUES (?, ?, ?, ?)", (dump_job(job), who, at, why)
                )
            db.execute("PRAGMA journal_mode = WAL")
            db.close()
        except sqlite3.Error as error:
            path.unlink(missing_ok=True)
            raise _unwritable(path, error) from error
        return cls(path, who=who)

    def _check_header(self) -> None:
        try:
            with self.path.open("rb") as handle:
                head = handle.read(100)
        except OSError as error:
            raise RiktigError(
                f"{self.path.name} cannot be read ({error.strerror}).",
                hint="Check the name and that you may read it.",
                where=str(self.path),
            ) from error
        if not head:
            raise RiktigError(
                f"{self.path.name} is empty: there is no job in it. It was not changed.",
                hint="Open the job's own file, or start a new job.",
                where=str(self.path),
            )
        if not head.startswith(MAGIC) or int.from_bytes(head[68:72], "big") != APPLICATION_ID:
            raise RiktigError(
                f"{self.path.name} is not a job of Riktig. It was not changed.",
                hint="Job files end in .riktig. To bring in a JSON job, use import.",
                where=str(self.path),
            )
        version = int.from_bytes(head[60:64], "big")
        if version > FORMAT:
            raise RiktigError(
                f"{self.path.name} was written by a newer edition of Riktig (format {version}, "
                f"this one reads {FORMAT}). It was not changed.",
                hint="Open it with that edition.",
                where=str(self.path),
            )

    def _connect(self) -> sqlite3.Connection:
        uri = self.path.resolve().as_uri()
        if not self.read_only:
            db = sqlite3.connect(f"{uri}?mode=rw", uri=True)
            try:
                db.execute("BEGIN IMMEDIATE")
                db.execute("ROLLBACK")
                db.execute("PRAGMA journal_mode = WAL")
                db.execute("PRAGMA synchronous = FULL")
                bring_up(db)
                return db
            except sqlite3.OperationalError as error:
                db.close()
                if "readonly" not in str(error) and "unable to open" not in str(error):
                    raise
                self.read_only = True
                self.held_by = "nobody: the file is write-protected"
        plain = not self.path.with_name(self.path.name + "-wal").exists()
        return sqlite3.connect(f"{uri}?mode=ro{'&immutable=1' if plain else ''}", uri=True)

    def _check_schema(self) -> None:
        problem = self._db.execute("PRAGMA quick_check(1)").fetchone()[0]
        if problem != "ok":
            raise _damaged(self.path, problem)
        if not self._db.execute("SELECT 1 FROM revision LIMIT 1").fetchone():
            raise _damaged(self.path, "it holds no revision")

    def job(self) -> Job:
        """The newest revision's job.

        Raises:
            RiktigError: it cannot be read.
        """
        row = self._db.execute("SELECT job FROM revision ORDER BY number DESC LIMIT 1").fetchone()
        return load_job(row[0], where=str(self.path))

    def revision(self) -> int:
        """The newest revision's number."""
        return int(self._db.execute("SELECT max(number) FROM revision").fetchone()[0])

    def revisions(self) -> list[Revision]:
        """All revisions, oldest first."""
        rows = self._db.execute("SELECT number, who, at, why FROM revision ORDER BY number")
        return [Revision(*row) for row in rows]

    def job_at(self, number: int) -> Job:
        """The job of one revision."""
        row = self._db.execute("SELECT job FROM revision WHERE number = ?", (number,)).fetchone()
        return load_job(row[0], where=str(self.path))

    def records(self) -> list[Record]:
        """The whole log, oldest first."""
        return [entry.record for entry in self.entries()]

    def entries(self) -> list[StoredEntry]:
        """The whole log as it stands in the file, oldest first."""
        digest = "digest" if self.has_digests else "''"
        rows = self._db.execute(
            f"SELECT seq, id, kind, subject, facts, who, at, revision, corrects, {digest} FROM log ORDER BY seq"
        )
        return [StoredEntry(*row) for row in rows]

    def broken_links(self) -> tuple[tuple[int, str], ...]:
        """Where the log is not what was written: the number of the entry and what is wrong; none of an old format."""
        if not self.has_digests:
            return ()
        entries = self.entries()
        found = broken_links(entries)
        last = self._db.execute("SELECT seq FROM sqlite_sequence WHERE name = 'log'").fetchone()
        end = entries[-1].number if entries else 0
        if last and last[0] > end:
            found = (*found, (end, f"{last[0] - end} entries behind it are missing"))
        return found

    @property
    def has_digests(self) -> bool:
        """Whether the entries of the log are bound to each other; up to format 2 they were not."""
        return any(row[1] == "digest" for row in self._db.execute("PRAGMA table_info(log)"))

    def add_revision(self, job: Job, *, who: str, at: str, why: str) -> int:
        """Writes a new revision and returns its number; durable on return.

        Raises:
            RiktigError: it could not be written.
        """
        with self._writing() as db:
            return _insert_revision(db, job, who, at, why)

    def add_records(self, records: list[Record]) -> None:
        """Appends to the log, all or none; durable on return. Known ids are left as they are.

        Raises:
            RiktigError: they could not be written.
        """
        with self._writing() as db:
            _insert_records(db, records)

    def add_all(
        self, job: Job | None, entries: list[NewRecord], *, who: str, at: str, why: str, new_id: Callable[[], str]
    ) -> int:
        """Writes a new revision (None: the job stays as it is) and entries of the log, all or none.

        Returns:
            The number of the revision in force.

        Raises:
            RiktigError: they could not be written.
        """
        with self._writing() as db:
            number = self.revision() if job is None else _insert_revision(db, job, who, at, why)
            records = [Record(new_id(), one.subject, one.facts, who, at, number, one.corrects) for one in entries]
            _insert_records(db, records)
        return number

    @contextmanager
    def _writing(self) -> Iterator[sqlite3.Connection]:
        if self.read_only:
            raise RiktigError(
                f"{self.path.name} is open for looking only; {self.held_by or 'you'} has it. Nothing was recorded.",
                hint="Close it there, or open a copy.",
                where=str(self.path),
            )
        try:
            with self._db:
                yield self._db
        except sqlite3.Error as error:
            raise _unwritable(self.path, error) from error

    def limit_pages(self, pages: int) -> None:
        """Lets the file grow to so many pages only: how tests make a disk full."""
        self._db.execute(f"PRAGMA max_page_count = {pages}")

    def close(self) -> None:
        """Closes the file and gives the lock back."""
        self._db.close()
        self._lock.drop()


def _insert_revision(db: sqlite3.Connection, job: Job, who: str, at: str, why: str) -> int:
    row = db.execute("INSERT INTO revision (job, who, at, why) VALUES (?, ?, ?, ?)", (dump_job(job), who, at, why))
    return int(row.lastrowid or 0)


def _insert_records(db: sqlite3.Connection, records: list[Record]) -> None:
    """Each bound to the one before by its digest; one whose id is there already is left out."""
    last = db.execute("SELECT seq, digest FROM log ORDER BY seq DESC LIMIT 1").fetchone()
    number, before = last or (0, FIRST_DIGEST)
    for record in records:
        if db.execute("SELECT 1 FROM log WHERE id = ?", (record.id,)).fetchone():
            continue
        entry = stored(record, number + 1, before)
        db.execute("INSERT INTO log VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)", astuple(entry))
        number, before = entry.number, entry.digest


def _damaged(path: Path, why: object) -> RiktigError:
    return RiktigError(
        f"{path.name} is damaged and cannot be read whole ({why}). It was not changed.",
        hint="Open the last copy or the exported JSON of this job.",
        where=str(path),
    )


def _unwritable(path: Path, error: sqlite3.Error) -> RiktigError:
    full = "full" in str(error)
    return RiktigError(
        f"{'The disk is full' if full else f'{path.name} cannot be written ({error})'}: the last "
        "step is on the screen but not in the file.",
        hint="Make room and try again; until then, do not close the window."
        if full
        else "Check that you may write there, then try again.",
        where=str(path),
    )
