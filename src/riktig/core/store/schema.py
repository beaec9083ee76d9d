"""The job file's schema, documented in docs/file-format.md. Open it with any SQLite tool."""

__all__ = ["APPLICATION_ID", "FORMAT", "SCHEMA"]

APPLICATION_ID = 0x52494B54
"""“RIKT”, in the file's header (PRAGMA application_id)."""
FORMAT = 2
"""Version of the schema and of the job's JSON (PRAGMA user_version). 2: given numbers are texts."""

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
    corrects TEXT NOT NULL DEFAULT ''     -- id of the entry this one takes back
);
CREATE TABLE attachment (
    name TEXT PRIMARY KEY,
    kind TEXT NOT NULL,
    body BLOB NOT NULL
);
CREATE TRIGGER log_is_append_only_u BEFORE UPDATE ON log
    BEGIN SELECT RAISE(ABORT, 'the log is append-only'); END;
CREATE TRIGGER log_is_append_only_d BEFORE DELETE ON log
    BEGIN SELECT RAISE(ABORT, 'the log is append-only'); END;
"""
