"""The job file: every edit and record is durable when the call returns, and the file alone is whole.

SQLite with a rollback journal that is emptied after each step and synchronous FULL: what was confirmed is in the one
file, which can be copied, mailed or synchronised between any two steps. Each step looks first and afterwards
whether the file under the name is still ours; if not, the work goes on in a rescue copy beside it.
"""

import contextlib
import sqlite3
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.job import Job
from riktig.core.records import NewRecord, Record, Signer, StoredEntry
from riktig.core.store.bring_up import bring_up
from riktig.core.store.connecting import connect_to_read, connect_to_write
from riktig.core.store.head import head_after
from riktig.core.store.job_json import load_job
from riktig.core.store.lock import FileLock
from riktig.core.store.new_file import make_file
from riktig.core.store.opening import (
    bounded,
    broken_head,
    broken_revisions,
    damaged,
    doubtful_keys,
    see_header,
    see_schema,
    see_whole,
    unreadable_log,
)
from riktig.core.store.rescue_copy import FileState, rescue_places, why_not_ours, write_whole
from riktig.core.store.side_file import put_aside_foreign_journal
from riktig.core.store.writing import Attachment, insert_records, insert_revision, newest, transaction, unwritable

__all__ = ["JobFile", "Revision"]

Write = Callable[[sqlite3.Connection], int]


@dataclass(frozen=True, slots=True)
class Revision:
    """A revision's number, author, time and reason."""

    number: int
    who: str
    at: str
    why: str


class JobFile:
    """One open job file. Not for several threads.

    ``rescued_from`` says what happened when the work had to go on in a copy, "" as long as it did not;
    ``only_looking`` why nothing can be changed, "" when it can; ``problems`` where the file is not what was
    written, ``doubts`` which signatures a person should ask about.

    Args:
        path: ``name.riktig``; of a link, the file it leads to.
        who: Said to others who try to open it.
        read_only: Open without the right to change it.
        signer: Signs what is recorded; None leaves it unsigned.

    Raises:
        RiktigError: not a job file, damaged, from a newer edition, or not readable.
    """

    def __init__(self, path: Path, *, who: str = "", read_only: bool = False, signer: Signer | None = None) -> None:
        see_header(path)
        self.path, self._who, self._signer = path.resolve(), who, signer
        self._lock = FileLock(self.path)
        self.held_by = "" if read_only else self._lock.take(who)
        self.read_only = read_only or bool(self.held_by)
        self.only_looking = f"{self.held_by} has it" if self.held_by else ""
        self.rescued_from = self.put_aside = ""
        self.out_of_step = ""
        """Why a shop's server and this bench may not have the same, in words; "" for the same, and for a plain file."""
        self._mirror: sqlite3.Connection | None = None
        self._db: sqlite3.Connection | None = None
        self._last: FileState | None = None
        self._count = 0
        self.problems: tuple[str, ...] = ()
        self.doubts: tuple[str, ...] = ()
        try:
            self._open()
        except RiktigError:
            self.close()
            raise
        except (sqlite3.Error, ValueError, TypeError, OverflowError, OSError) as error:
            self.close()
            raise damaged(path, error) from error

    @classmethod
    def create(
        cls, path: Path, job: Job, *, who: str, at: str, why: str = "new job", signer: Signer | None = None
    ) -> "JobFile":
        """Makes a new file with a first revision: it appears whole or not at all.

        Raises:
            RiktigError: the file exists, or cannot be written.
        """

        def fill(db: sqlite3.Connection) -> None:
            insert_revision(db, job, who, at, why, signer)
            head_after(db, count=1, signer=signer)

        make_file(path, fill)
        return cls(path, who=who, signer=signer)

    def _open(self) -> None:
        protected = not self.path.stat().st_mode & 0o222
        if protected and not self.read_only:
            self._look_only("the file is write-protected")
        if not self.read_only:
            self.put_aside = put_aside_foreign_journal(self.path)
        self._db = self._connect()
        bounded(self._db)
        see_schema(self._db)
        see_whole(self._db)
        if not self.read_only:
            bring_up(self._db)
        self._see_records()
        self._db.set_progress_handler(None, 0)
        if not self.read_only:
            self._count = int(self._db.execute("SELECT count FROM head").fetchone()[0])
            self._mirror = sqlite3.connect("")
            self._mirror.execute("PRAGMA journal_mode = MEMORY")
            self._db.backup(self._mirror)
            self._last = FileState.of(self._lock.handle)

    def _look_only(self, why: str) -> None:
        self.read_only, self.only_looking = True, why
        self._lock.drop()

    def _connect(self) -> sqlite3.Connection:
        if not self.read_only:
            db = connect_to_write(self.path)
            if db is not None:
                return db
            self._look_only("it cannot be written to")
        return connect_to_read(self.path)

    def _see_records(self) -> None:
        """Reads everything once: what cannot be read is said now and not in the middle of the work."""
        chained = self.has_head
        entries = self.entries()
        for entry in entries:
            for text in (entry.id, entry.kind, entry.subject, entry.facts, entry.who, entry.when, entry.digest):
                if not isinstance(text, str):
                    raise sqlite3.DatabaseError(f"entry {entry.number} of its log cannot be read")
        changed = broken_revisions(self._open_db) if chained else ()
        if changed and changed[-1][0] == self.revision():
            raise sqlite3.DatabaseError(f"revision {changed[-1][0]}: {changed[-1][1]}")
        self.problems = tuple(f"revision {number}: {what}" for number, what in changed)
        self.problems += tuple(f"entry {number}: {what}" for number, what in self.broken_links())
        self.doubts = doubtful_keys(self._open_db, entries) if chained else ()
        if self.problems and not self.read_only:
            self._look_only(f"its record is not what was written ({'; '.join(self.problems[:3])})")

    @property
    def _open_db(self) -> sqlite3.Connection:
        if self._db is None:
            raise ValueError("the file is closed")
        return self._db

    def job(self) -> Job:
        """The newest revision's job.

        Raises:
            RiktigError: it cannot be read.
        """
        row = self._open_db.execute("SELECT job FROM revision ORDER BY number DESC LIMIT 1").fetchone()
        return load_job(str(row[0]), where=str(self.path), mend=True)

    def revision(self) -> int:
        """The newest revision's number.

        Raises:
            RiktigError: the file cannot be read any more.
        """
        try:
            return int(self._open_db.execute("SELECT max(number) FROM revision").fetchone()[0])
        except (sqlite3.Error, TypeError):
            if self._mirror is None:
                raise damaged(self.path, "it was changed while it was open") from None
            return newest(self._mirror)  # what lies under the name now is no job: the next step says so

    def revisions(self) -> list[Revision]:
        """All revisions, oldest first."""
        rows = self._open_db.execute("SELECT number, who, at, why FROM revision ORDER BY number")
        return [Revision(*row) for row in rows]

    def job_at(self, number: int) -> Job:
        """The job of one revision."""
        row = self._open_db.execute("SELECT job FROM revision WHERE number = ?", (number,)).fetchone()
        return load_job(str(row[0]), where=str(self.path), mend=True)

    def entry_count(self) -> int:
        """How many entries the log has."""
        return int(self._open_db.execute("SELECT count(*) FROM log").fetchone()[0])

    def records(self) -> list[Record]:
        """The whole log, oldest first."""
        return [entry.record for entry in self.entries()]

    def entries(self) -> list[StoredEntry]:
        """The whole log as it stands in the file, oldest first."""
        more = ", digest" if self.has_digests else ""
        more += ", signer, signature" if self.has_head else ""
        columns = f"seq, id, kind, subject, facts, who, at, revision, corrects{more}"
        rows = self._open_db.execute(f"SELECT {columns} FROM log ORDER BY seq")
        return [StoredEntry(*row) for row in rows]

    def broken_links(self) -> tuple[tuple[int, str], ...]:
        """Where the log is not what was written: the number of the entry and what is wrong; none of an old format."""
        if not self.has_digests:
            return ()
        entries = self.entries()
        last = self._open_db.execute("SELECT seq FROM sqlite_sequence WHERE name = 'log'").fetchone()
        unreadable = unreadable_log(entries, int(last[0]) if last else 0)
        end = broken_head(self._open_db, entries) if self.has_head else ""
        return (*unreadable, (entries[-1].number if entries else 0, end)) if end else unreadable

    def copy_into(self, db: sqlite3.Connection) -> None:
        """Copies everything that the file holds into another database, such as one in memory."""
        self._open_db.backup(db)

    @property
    def has_digests(self) -> bool:
        """Whether the entries of the log are bound to each other; up to format 2 they were not."""
        return int(self._open_db.execute("PRAGMA user_version").fetchone()[0]) >= 3

    @property
    def has_head(self) -> bool:
        """Whether revisions are bound to each other and the end is signed; up to format 3 they were not."""
        return int(self._open_db.execute("PRAGMA user_version").fetchone()[0]) >= 4

    def add_revision(self, job: Job, *, who: str, at: str, why: str) -> int:
        """Writes a new revision and returns its number; durable on return.

        Raises:
            RiktigError: it could not be written.
        """
        return self._write(lambda db: insert_revision(db, job, who, at, why, self._signer))

    def add_records(self, records: list[Record], attached: Sequence[Attachment] = ()) -> None:
        """Appends to the log, with what is attached, all or none; durable on return. Known ids are left as they are.

        Raises:
            RiktigError: they could not be written.
        """
        self._write(lambda db: insert_records(db, records, self._signer, attached))

    def attachment(self, name: str) -> bytes | None:
        """What is attached under a name; None when nothing is."""
        row = self._open_db.execute("SELECT body FROM attachment WHERE name = ?", (name,)).fetchone()
        return bytes(row[0]) if row else None

    def add_all(
        self, job: Job | None, entries: list[NewRecord], *, who: str, at: str, why: str, new_id: Callable[[], str]
    ) -> int:
        """Writes a new revision (None: the job stays as it is) and entries of the log, all or none.

        Returns:
            The number of the revision in force.

        Raises:
            RiktigError: they could not be written.
        """
        ids = [new_id() for _ in entries]

        def write(db: sqlite3.Connection) -> int:
            number = newest(db) if job is None else insert_revision(db, job, who, at, why, self._signer)
            made = zip(ids, entries, strict=True)
            records = [Record(rid, new.subject, new.facts, who, at, number, new.corrects) for rid, new in made]
            insert_records(db, records, self._signer)
            return number

        return self._write(write)

    def _write(self, write: Write) -> int:
        """One step: in the file under its name when it returns, or in a rescue copy that ``rescued_from`` names."""
        if self.read_only:
            raise RiktigError(
                f"{self.path.name} is open read-only; {self.only_looking or 'it was opened so'}. Nothing was recorded.",
                hint="Close it there, or open a copy.",
                where=str(self.path),
            )
        taken = why_not_ours(self.path, self._lock.handle, self._last)
        if taken:
            self._go_on_in_a_copy(taken)
        number = self._write_to(self._open_db, write)
        taken = self._taken_meanwhile()
        self._repeat_in_mirror(write)
        if taken:
            self._go_on_in_a_copy(taken)
        return number

    def _write_to(self, db: sqlite3.Connection, write: Write) -> int:
        try:
            with transaction(db):
                count = int(db.execute("SELECT count FROM head").fetchone()[0])
                if count != self._count:
                    raise RiktigError(
                        f"{self.path.name} was changed by another program meanwhile, so nothing was recorded.",
                        hint="Close this window and open the job again.",
                        where=str(self.path),
                    )
                number = write(db)
                head_after(db, count=count + 1, signer=self._signer)
        except sqlite3.Error as error:
            raise unwritable(self.path, error) from error
        self._count += 1
        return number

    def _taken_meanwhile(self) -> str:
        """Whether the step went into the file under our name; it was replaced while we wrote when it did not."""
        now = FileState.of(self._lock.handle)
        taken = why_not_ours(self.path, self._lock.handle, now)
        if not taken and self._last is not None and not now.is_step_after(self._last):
            taken = "was written over by another program"
        self._last = now
        return taken

    def _repeat_in_mirror(self, write: Write) -> None:
        if self._mirror is None:
            return
        try:
            with transaction(self._mirror):
                write(self._mirror)
                head_after(self._mirror, count=self._count, signer=self._signer)
        except sqlite3.Error:
            self._mirror.close()
            self._mirror = None  # no room for it: a rescue copy is then made from the file itself

    def _go_on_in_a_copy(self, taken: str) -> None:
        """Turns to a rescue copy of everything that was confirmed.

        Raises:
            RiktigError: none could be written.
        """
        source, failed = self._mirror or self._open_db, ""
        for place in rescue_places(self.path, self._lock.handle):
            try:
                write_whole(source, place)
                fresh = JobFile(place, who=self._who, signer=self._signer)
            except (OSError, sqlite3.Error, RiktigError) as error:
                failed = str(error)
                continue
            old = self.path
            self._drop()
            self.path, self._lock, self._db, self._mirror = fresh.path, fresh._lock, fresh._db, fresh._mirror
            self._last, self._count = fresh._last, fresh._count
            self.rescued_from = f"{old.name} {taken}"
            return
        raise RiktigError(
            f"{self.path.name} {taken}, and no copy could be written in its place ({failed}): the last step is on the "
            "screen but in no file.",
            hint="Make room or put the file back, and press “Retry save”; until then, do not close the window.",
            where=str(self.path),
        )

    def limit_pages(self, pages: int) -> None:
        """Lets the file grow to so many pages only: how tests make a disk full."""
        self._open_db.execute(f"PRAGMA max_page_count = {pages}")

    def close(self) -> None:
        """Closes the file and gives the lock back."""
        ours = self._last is not None and not self.read_only
        if self._db is not None and ours and not why_not_ours(self.path, self._lock.handle, self._last):
            with contextlib.suppress(sqlite3.Error):
                self._db.execute("PRAGMA journal_mode = DELETE")  # nothing stays beside it
        self._drop()

    def _drop(self) -> None:
        for db in (self._db, self._mirror):
            if db is not None:
                db.close()
        self._db = self._mirror = None
        self._lock.drop()
