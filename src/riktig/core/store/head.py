"""How far a job file goes.

Counted, bound to the last revision and the last entry, and signed, so that nothing can be cut off at the end without a
trace.
"""

import hashlib
import json
import sqlite3
from dataclasses import dataclass
from typing import NamedTuple

from riktig.core.records import Signer
from riktig.core.records.codec import FIRST_DIGEST

__all__ = ["Head", "RevisionText", "head_after", "head_digest", "read_head", "revision_digest"]


@dataclass(frozen=True, slots=True)
class Head:
    """The row of “head”: steps written, last entry of the log, newest revision, and what binds and signs them."""

    count: int
    entries: int
    revisions: int
    digest: str
    signer: str
    signature: str


def read_head(db: sqlite3.Connection) -> Head:
    """The head as it stands in the file.

    Raises:
        sqlite3.DatabaseError: there is not exactly one.
    """
    rows = db.execute("SELECT count, entries, revisions, digest, signer, signature FROM head").fetchall()
    if len(rows) != 1:
        raise sqlite3.DatabaseError(f"it has {len(rows)} heads")
    return Head(*rows[0])


def head_after(db: sqlite3.Connection, *, count: int, signer: Signer | None) -> None:
    """Writes the head anew, for what the transaction has written so far."""
    entries, of_log = db.execute("SELECT seq, digest FROM log ORDER BY seq DESC LIMIT 1").fetchone() or (
        0,
        FIRST_DIGEST,
    )
    revisions, of_job = db.execute("SELECT number, digest FROM revision ORDER BY number DESC LIMIT 1").fetchone()
    digest = head_digest(count, entries, of_log, revisions, of_job)
    key, signature = (signer.public, signer.sign(digest)) if signer else ("", "")
    db.execute("DELETE FROM head")
    db.execute("INSERT INTO head VALUES (?, ?, ?, ?, ?, ?)", (count, entries, revisions, digest, key, signature))


def head_digest(count: int, entries: int, of_log: str, revisions: int, of_job: str) -> str:
    """SHA-256 over all five, in hexadecimal."""
    return _sha256([count, entries, of_log, revisions, of_job])


class RevisionText(NamedTuple):
    """A revision as it is kept: its number, the job as JSON text, who confirmed it, when and why."""

    number: int
    job: str
    who: str
    at: str
    why: str


def revision_digest(revision: RevisionText, before: str, signer: str = "") -> str:
    """SHA-256 over a revision and the digest of the one before, in hexadecimal.

    Args:
        revision: The revision as it is kept.
        before: The digest of the revision before; "" for the first.
        signer: The key of who signed it; "" when nobody did.
    """
    return _sha256([before, *revision, *([signer] if signer else [])])


def _sha256(content: list[object]) -> str:
    return hashlib.sha256(json.dumps(content, ensure_ascii=True).encode()).hexdigest()
