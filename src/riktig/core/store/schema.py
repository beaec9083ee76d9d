"""The job file's schema, documented in docs/file-format.md. Open it with any SQLite tool."""

__all__ = ["APPLICATION_ID", "FORMAT", "JOB_FORMAT", "SCHEMA", "TRIGGERS"]

APPLICATION_ID = 0x52494B54
"""“RIKT”, in the file's header (PRAGMA application_id)."""
FORMAT = 3
"""Version of the file (PRAGMA user_version). 3: entries of the log carry digests; their facts are numbers where
they were texts."""
JOB_FORMAT = 2
"""Version of the job's JSON. 2: given numbers are texts."""

SCHEMA = """
CREATE TABLE revision (
    number  INTEGER PRIMARY KEY,          -- 1, 2, 3 ... never reused
    job     TEXT NOT NULL,                -- the whole job as JSON
    who     TEXT NOT NULL,
    at      TEXT NOT NULL,                -- ISO 8601 with zone
    why     TEXT NOT NULL                 -- the name of the edit, or "undo: ..."
);
CREATE TABLE log (
    seq      INTEGER PRIMARY KEY AUTOINCREMENT,
    id       TEXT NOT NULL UNIQUE,        -- made by the recorder: writing twice is writing once
    kind     TEXT NOT NULL,               -- tick, reading, judgement, signature ...
    subject  TEXT NOT NULL,               -- the stable key of what it is about
    facts    TEXT NOT NULL,               -- JSON object of texts
    who      TEXT NOT NULL,
    at       TEXT NOT NULL,
    revision INTEGER NOT NULL,            -- of the job that was in force
    corrects TEXT NOT NULL DEFAULT '',    -- id of the entry this one takes back
    digest   TEXT NOT NULL DEFAULT ''     -- SHA-256 of this entry and the digest before it
);
CREATE TABLE attachment (
    name TEXT PRIMARY KEY,
    kind TEXT NOT NULL,
    body BLOB NOT NULL
);
"""
TRIGGERS = tuple(
    f"CREATE TRIGGER log_is_append_only_{name} BEFORE {act} ON log"
    " BEGIN SELECT RAISE(ABORT, 'the log is append-only'); END"
    for name, act in (("u", "UPDATE"), ("d", "DELETE"))
)
"""What keeps the log from being changed by whoever opens the file with another tool."""
