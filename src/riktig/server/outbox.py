"""What a bench has recorded and the server does not have yet: kept in a file of its own until it is handed in."""

import sqlite3
from collections.abc import Iterable, Sequence
from dataclasses import astuple, dataclass, replace
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.records import Record, StoredEntry
from riktig.core.records.codec import dump_facts
from riktig.core.store import Attachment

__all__ = ["Outbox", "Waiting", "WaitingEntry", "WaitingRevision"]

_TABLES = """
CREATE TABLE IF NOT EXISTS revision (
    n INTEGER PRIMARY KEY, token TEXT UNIQUE NOT NULL, number INTEGER NOT NULL, base_number INTEGER NOT NULL,
    base TEXT NOT NULL, job TEXT NOT NULL, who TEXT NOT NULL, at TEXT NOT NULL, why TEXT NOT NULL);
CREATE TABLE IF NOT EXISTS entry (
    n INTEGER PRIMARY KEY, id TEXT UNIQUE NOT NULL, kind TEXT NOT NULL, subject TEXT NOT NULL, facts TEXT NOT NULL,
    who TEXT NOT NULL, at TEXT NOT NULL, revision INTEGER NOT NULL, corrects TEXT NOT NULL);
CREATE TABLE IF NOT EXISTS attachment (name TEXT PRIMARY KEY, kind TEXT NOT NULL, body BLOB NOT NULL);
"""


@dataclass(frozen=True, slots=True)
class WaitingRevision:
    """A revision that was made here: on which text it was made, and the number that it has here meanwhile."""

    n: int
    token: str
    number: int
    base_number: int
    base: str
    job: str
    who: str
    at: str
    why: str


@dataclass(frozen=True, slots=True)
class WaitingEntry:
    """An entry that was made here; ``n`` is its place among all that waits."""

    n: int
    id: str
    kind: str
    subject: str
    facts: str
    who: str
    at: str
    revision: int
    corrects: str

    @property
    def record(self) -> Record:
        """The entry as it is worked with."""
        return StoredEntry(
            0, self.id, self.kind, self.subject, self.facts, self.who, self.at, self.revision, self.corrects
        ).record


@dataclass(frozen=True, slots=True)
class Waiting:
    """All that waits, in the order in which it was made."""

    revisions: tuple[WaitingRevision, ...] = ()
    entries: tuple[WaitingEntry, ...] = ()
    attachments: tuple[Attachment, ...] = ()

    def __bool__(self) -> bool:
        return bool(self.revisions or self.entries or self.attachments)

    def with_more(self, more: "Waiting") -> "Waiting":
        """All of it, and what was put in since.

        Args:
            more: What was put in.
        """
        return Waiting(
            (*self.revisions, *more.revisions), (*self.entries, *more.entries), (*self.attachments, *more.attachments)
        )

    @property
    def steps(self) -> Sequence[WaitingRevision | WaitingEntry]:
        """Revisions and entries in their order."""
        return sorted((*self.revisions, *self.entries), key=lambda step: step.n)


class Outbox:
    """The file of what waits. What was put in is durable on return; it stays until it is taken out.

    Args:
        path: The file; it is made when it is not there.

    Raises:
        RiktigError: it cannot be read or written.
    """

    def __init__(self, path: Path) -> None:
        self._path = path
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
            self._db = sqlite3.connect(path, isolation_level=None)
            self._db.execute("PRAGMA synchronous = FULL")
            self._db.executescript(_TABLES)
        except (sqlite3.Error, OSError) as error:
            raise self._unwritable(error) from error

    def _unwritable(self, error: Exception) -> RiktigError:
        return RiktigError(
            f"{self._path.name}, where this bench keeps what is not handed in yet, cannot be written ({error}): the "
            "last step is on the screen only.",
            hint="Make room and try again; until then, do not close the window.",
            where=str(self._path),
        )

    def waiting(self) -> Waiting:
        """All that waits."""
        rows = {
            table: self._db.execute(f"SELECT * FROM {table} ORDER BY 1").fetchall()
            for table in ("revision", "entry", "attachment")
        }
        return Waiting(
            tuple(WaitingRevision(*row) for row in rows["revision"]),
            tuple(WaitingEntry(*row) for row in rows["entry"]),
            tuple(Attachment(*row) for row in rows["attachment"]),
        )

    def put(
        self, revision: WaitingRevision | None, records: Iterable[Record], attachments: Iterable[Attachment] = ()
    ) -> Waiting:
        """Puts in a revision, then entries, with what is attached: all or none.

        Args:
            revision: The revision; its ``n`` is given here.
            records: The entries.
            attachments: What is attached to them.

        Returns:
            What was put in.

        Raises:
            RiktigError: it cannot be written.
        """
        try:
            self._db.execute("BEGIN IMMEDIATE")
            n = self._next()
            more = Waiting(
                (replace(revision, n=n),) if revision else (),
                tuple(_waiting(place, record) for place, record in enumerate(records, n + 1)),
                tuple(attachments),
            )
            nine = "(?, ?, ?, ?, ?, ?, ?, ?, ?)"
            self._db.executemany(f"INSERT INTO revision VALUES {nine}", map(astuple, more.revisions))
            self._db.executemany(f"INSERT INTO entry VALUES {nine}", map(astuple, more.entries))
            self._db.executemany("INSERT OR IGNORE INTO attachment VALUES (?, ?, ?)", map(astuple, more.attachments))
            self._db.execute("COMMIT")
        except sqlite3.Error as error:
            self._roll_back()
            raise self._unwritable(error) from error
        return more

    def _next(self) -> int:
        last = "SELECT max(n) FROM (SELECT max(n) AS n FROM revision UNION SELECT max(n) FROM entry)"
        return int(self._db.execute(last).fetchone()[0] or 0) + 1

    def _roll_back(self) -> None:
        if self._db.in_transaction:
            self._db.execute("ROLLBACK")

    def take_out(self, tokens: Iterable[str], ids: Iterable[str], names: Iterable[str]) -> None:
        """What the server has now waits no longer.

        Args:
            tokens: Of revisions.
            ids: Of entries.
            names: Of what is attached.

        Raises:
            RiktigError: it cannot be written.
        """
        try:
            self._db.execute("BEGIN IMMEDIATE")
            for table, column, values in (
                ("revision", "token", tokens),
                ("entry", "id", ids),
                ("attachment", "name", names),
            ):
                self._db.executemany(f"DELETE FROM {table} WHERE {column} = ?", [(value,) for value in values])
            self._db.execute("COMMIT")
        except sqlite3.Error as error:
            self._roll_back()
            raise self._unwritable(error) from error

    def settle(self, token: str, base_number: int, base: str, job: str) -> None:
        """A revision stands on another text now, after what both changed was settled.

        Args:
            token: Of the revision.
            base_number: The number of the revision that it stands on.
            base: The text of that.
            job: Its own text now.
        """
        self._db.execute(
            "UPDATE revision SET base_number = ?, base = ?, job = ? WHERE token = ?", (base_number, base, job, token)
        )

    def close(self) -> None:
        """Closes the file."""
        self._db.close()


def _waiting(place: int, record: Record) -> WaitingEntry:
    kind, facts = dump_facts(record.facts)
    return WaitingEntry(
        place, record.id, kind, record.subject, facts, record.who, record.when, record.revision, record.corrects
    )
