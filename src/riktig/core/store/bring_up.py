"""A job file of an earlier format brought up to this one, whole or not at all."""

import sqlite3

from riktig.core.records import StoredEntry, digest_of
from riktig.core.records.codec import FIRST_DIGEST
from riktig.core.store.head import RevisionText, head_after, revision_digest
from riktig.core.store.rescue_copy import give_mark
from riktig.core.store.schema import FORMAT, HEAD, LOG, REVISION, TRIGGERS

__all__ = ["bring_up"]


def bring_up(db: sqlite3.Connection) -> None:
    """Brings an older file up to this format in one transaction; a file of this format is not touched.

    Up to format 2 the log had no digests, up to format 3 the revisions had none: each is given the one it would
    have had. A log that has digests keeps them, right or wrong. What stands in the entries is not changed.

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
        _log(db, has_digests=version >= 3)
        _revisions(db)
        db.execute(HEAD)
        head_after(db, count=1, signer=None)
        for statement in TRIGGERS:
            db.execute(statement)
        db.execute(f"PRAGMA user_version = {FORMAT}")
    give_mark(db)


def _log(db: sqlite3.Connection, *, has_digests: bool) -> None:
    columns = "seq, id, kind, subject, facts, who, at, revision, corrects" + (", digest" if has_digests else "")
    rows = db.execute(f"SELECT {columns} FROM log ORDER BY seq").fetchall()
    last = db.execute("SELECT seq FROM sqlite_sequence WHERE name = 'log'").fetchone()
    db.execute("DROP TABLE log")
    db.execute(LOG)
    before = FIRST_DIGEST
    for row in rows:
        before = row[9] if has_digests else digest_of(StoredEntry(*row), before)
        db.execute("INSERT INTO log VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, '', '')", (*row[:9], before))
    if has_digests and last and last[0] > (rows[-1][0] if rows else 0):
        # Entries that are missing at the end stay missed. Before format 3 one written twice used up a number.
        db.execute("DELETE FROM sqlite_sequence WHERE name = 'log'")
        db.execute("INSERT INTO sqlite_sequence VALUES ('log', ?)", (last[0],))


def _revisions(db: sqlite3.Connection) -> None:
    rows = db.execute("SELECT number, job, who, at, why FROM revision ORDER BY number").fetchall()
    db.execute("DROP TABLE revision")
    db.execute(REVISION)
    before = FIRST_DIGEST
    for row in rows:
        before = revision_digest(RevisionText(*row[:5]), before)
        db.execute("INSERT INTO revision VALUES (?, ?, ?, ?, ?, ?, '', '')", (*row, before))
