"""Connections to a job file: one that writes, or one that only looks and leaves no trace."""

import shutil
import sqlite3
import stat
import tempfile
from pathlib import Path

from riktig.core.store.side_file import journal_of, put_aside_foreign_journal

__all__ = ["connect_to_read", "connect_to_write"]


def connect_to_write(path: Path) -> sqlite3.Connection | None:
    """A connection that writes durably; None when the file cannot be written to.

    Raises:
        sqlite3.Error: it is no sound file.
    """
    db = sqlite3.connect(f"{path.as_uri()}?mode=rw", uri=True)
    try:
        db.execute("BEGIN IMMEDIATE")
        db.execute("ROLLBACK")
        # The journal is emptied after each step and stays until the file is closed: a third of the time of one
        # that is made anew each time, and as safe (docs/reliability.md).
        db.execute("PRAGMA journal_mode = PERSIST")
        db.execute("PRAGMA synchronous = FULL")
        return db
    except sqlite3.DatabaseError as error:
        db.close()
        refused = "readonly" in str(error) or "unable to open" in str(error)
        if not (refused and isinstance(error, sqlite3.OperationalError)):
            raise
        return None


def connect_to_read(path: Path) -> sqlite3.Connection:
    """A connection that only looks; of a file whose writer died in the middle of a step, to a copy played back.

    Raises:
        sqlite3.Error: it is no sound file.
    """
    uri = path.as_uri()
    db = sqlite3.connect(f"{uri}?mode=ro", uri=True)
    try:
        db.execute("SELECT count(*) FROM sqlite_schema")
        return db
    except sqlite3.OperationalError:
        db.close()
    logged = path.with_name(f"{path.name}-wal").exists()
    if logged or journal_of(path).exists():
        return _played_back(path)
    return sqlite3.connect(f"{uri}?mode=ro&immutable=1", uri=True)


def _played_back(path: Path) -> sqlite3.Connection:
    """A file whose writer died in the middle of a step, read without writing to it: in memory, its journal played."""
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder) / path.name
        for name in (path, journal_of(path), path.with_name(f"{path.name}-wal")):
            if name.exists() and stat.S_ISREG(name.lstat().st_mode):
                shutil.copyfile(name, Path(folder) / name.name)
        put_aside_foreign_journal(copy)
        connection = sqlite3.connect(":memory:")
        source = sqlite3.connect(copy)
        try:
            source.backup(connection)
        finally:
            source.close()
    return connection
