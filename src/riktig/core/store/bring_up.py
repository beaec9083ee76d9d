"""A job file of an earlier format brought up to this one, whole or not at all."""

import sqlite3

from riktig.core.records.codec import FIRST_DIGEST, StoredEntry, digest_of
from riktig.core.store.schema import FORMAT, TRIGGERS

__all__ = ["bring_up"]


def bring_up(db: sqlite3.Connection) -> None:
    """Brings an older file up to this format in one transaction; a file of this format is not touched.

    Up to format 2 the log had no digests: each entry is given the one it would have had. What stands in the
    entries is not changed.

    Raises:
        sqlite3.Error: it could not be written; the file is as it was.
    """
    version = int(db.execute("PRAGMA user_version").fetchone()[0])
    if version >= FORMAT:
        return
    with db:
        db.execute("BEGIN IMMEDIATE")
        for name in ("log_is_append_only_u", "log_is_append_only_d"):
            db.execute(f"DROP TRIGGER IF EXISTS {name}")
        columns = [row[1] for row in db.execute("PRAGMA table_info(log)")]
        if "digest" not in columns:
            db.execute("ALTER TABLE log ADD COLUMN digest TEXT NOT NULL DEFAULT ''")
        before, rows = (
            FIRST_DIGEST,
            db.execute(
                "SELECT seq, id, kind, subject, facts, who, at, revision, corrects FROM log ORDER BY seq"
            ).fetchall(),
        )
        for row in rows:
            before = digest_of(StoredEntry(*row), before)
            db.execute("UPDATE log SET digest = ? WHERE seq = ?", (before, row[0]))
        # Entries that were written twice used up a number each in older files: those are not missing.
        db.execute("UPDATE sqlite_sequence SET seq = coalesce((SELECT max(seq) FROM log), 0) WHERE name = 'log'")
        for statement in TRIGGERS:
            db.execute(statement)
        db.execute(f"PRAGMA user_version = {FORMAT}")
