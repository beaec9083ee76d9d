"""The job file's schema, documented in docs/file-format.md. Open it with any SQLite tool."""

__all__ = ["APPLICATION_ID", "FORMAT", "JOB_FORMAT", "SCHEMA", "TABLES_BEFORE_4", "TRIGGERS"]

APPLICATION_ID = 0x52494B54
"""“RIKT”, in the file's header (PRAGMA application_id)."""
FORMAT = 4
"""Version of the file (PRAGMA user_version). 3: entries of the log carry digests; their facts are numbers where
they were texts. 4: revisions carry digests too, entries signatures, and “head” says how far the file goes."""
JOB_FORMAT = 3
"""Version of the job's JSON. 2: given numbers are texts. 3: “direct-on-line, both ways” is called reversing."""

REVISION = """CREATE TABLE revision (
    number  INTEGER PRIMARY KEY,          -- 1, 2, 3 ... never reused
    job     TEXT NOT NULL,                -- the whole job as JSON
    who     TEXT NOT NULL,
    at      TEXT NOT NULL,                -- ISO 8601 with zone
    why     TEXT NOT NULL,                -- the name of the edit, or "undo: ..."
    digest  TEXT NOT NULL,                -- SHA-256 of this revision and the digest before it
    signer  TEXT NOT NULL,                -- public key (Ed25519) of who signed the digest, or empty
    signature TEXT NOT NULL               -- the signature of the digest, or empty
)"""
LOG = """CREATE TABLE log (
    seq      INTEGER PRIMARY KEY AUTOINCREMENT,
    id       TEXT NOT NULL UNIQUE,        -- made by the recorder: writing twice is writing once
    kind     TEXT NOT NULL,               -- tick, reading, judgement, signature ...
    subject  TEXT NOT NULL,               -- the stable key of what it is about
    facts    TEXT NOT NULL,               -- JSON object
    who      TEXT NOT NULL,
    at       TEXT NOT NULL,
    revision INTEGER NOT NULL,            -- of the job that was in force
    corrects TEXT NOT NULL,               -- id of the entry this one takes back, or empty
    digest   TEXT NOT NULL,               -- SHA-256 of this entry and the digest before it
    signer   TEXT NOT NULL,               -- public key (Ed25519) of who signed the digest, or empty
    signature TEXT NOT NULL               -- the signature of the digest, or empty
)"""
ATTACHMENT = """CREATE TABLE attachment (
    name TEXT PRIMARY KEY,
    kind TEXT NOT NULL,
    body BLOB NOT NULL
)"""
HEAD = """CREATE TABLE head (
    count     INTEGER NOT NULL,           -- one more with every step written
    entries   INTEGER NOT NULL,           -- how far the log goes
    revisions INTEGER NOT NULL,           -- the newest revision
    digest    TEXT NOT NULL,              -- SHA-256 of the three and of the last digests of both
    signer    TEXT NOT NULL,
    signature TEXT NOT NULL
)"""
SCHEMA = (REVISION, LOG, ATTACHMENT, HEAD)


def _only_appended(table: str) -> tuple[str, ...]:
    trigger = f"BEGIN SELECT RAISE(ABORT, 'the {table} is append-only'); END"
    twice = {"log": "SELECT 1 FROM log WHERE seq = NEW.seq OR id = NEW.id"}.get(
        table, f"SELECT 1 FROM {table} WHERE number = NEW.number"
    )
    return (
        f"CREATE TRIGGER {table}_is_append_only_u BEFORE UPDATE ON {table} {trigger}",
        f"CREATE TRIGGER {table}_is_append_only_d BEFORE DELETE ON {table} {trigger}",
        f"CREATE TRIGGER {table}_is_append_only_i BEFORE INSERT ON {table} WHEN EXISTS ({twice}) {trigger}",
    )


TRIGGERS = (*_only_appended("log"), *_only_appended("revision"))
"""What keeps both from being changed by whoever opens the file with another tool. The third of each is for
“INSERT OR REPLACE”, which deletes without asking the second."""
TABLES_BEFORE_4 = {
    "revision": ("number", "job", "who", "at", "why"),
    "log": ("seq", "id", "kind", "subject", "facts", "who", "at", "revision", "corrects"),
    "attachment": ("name", "kind", "body"),
}
"""The tables of formats 1 to 3 and their columns; in format 3 the log had “digest” besides."""
