"""A whole job file as JSON and back: every revision, the log with its digests and signatures, and what is attached."""

import base64
import sqlite3
from collections.abc import Callable, Mapping
from contextlib import suppress
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Any

import msgspec

from riktig.core.errors import InputFault, RiktigError
from riktig.core.inputs import parse_json
from riktig.core.job import Job
from riktig.core.records import Signer
from riktig.core.records.codec import FIRST_DIGEST
from riktig.core.store.bring_up import bring_up
from riktig.core.store.head import Head, head_after, head_digest, read_head
from riktig.core.store.job_file import JobFile
from riktig.core.store.job_json import dump_job, load_job
from riktig.core.store.rescue_copy import write_whole
from riktig.core.store.schema import APPLICATION_ID, FORMAT, SCHEMA, TRIGGERS
from riktig.core.store.writing import see_free_name, unwritable

__all__ = ["Importer", "dump_whole", "load_whole"]

_TABLES: Mapping[str, tuple[str, tuple[tuple[str, type], ...]]] = {
    "revisions": (
        "revision",
        (("number", int), ("job", str), ("who", str), ("at", str), ("why", str), ("digest", str), ("signer", str),
         ("signature", str)),
    ),
    "log": (
        "log",
        (("seq", int), ("id", str), ("kind", str), ("subject", str), ("facts", str), ("who", str), ("at", str),
         ("revision", int), ("corrects", str), ("digest", str), ("signer", str), ("signature", str)),
    ),
    "attachments": ("attachment", (("name", str), ("kind", str), ("body", bytes))),
}  # fmt: skip
"""By its name in the JSON: the table, and its columns in their order."""


@dataclass(frozen=True, slots=True)
class Importer:
    """Who brings a job in, when, and the key that the new file's end is signed with."""

    who: str
    at: str
    signer: Signer | None = None


def dump_whole(file: JobFile, *, indent: bool = False) -> str:
    """Everything that a job file holds, as JSON; the job of now stands first, as ``dump_job`` has it.

    Args:
        file: An open job file; one of an older format is brought up in a copy.
        indent: Whether it is set out to be read.

    Returns:
        ``{"format": …, "job": {…}, "revisions": […], "log": […], "attachments": […], "head": {…}}``; bodies of
        attachments in Base64. The head says how far revisions and log go.
    """
    db = sqlite3.connect(":memory:")
    try:
        file.copy_into(db)
        bring_up(db)
        rows = {name: _rows_of(db, name) for name in _TABLES}
        head = read_head(db)
    finally:
        db.close()
    whole = msgspec.json.decode(dump_job(file.job())) | rows | {"head": asdict(head)}
    data = msgspec.json.encode(whole)
    return (msgspec.json.format(data, indent=2) if indent else data).decode()


def _rows_of(db: sqlite3.Connection, name: str) -> list[dict[str, object]]:
    table, columns = _TABLES[name]
    order = columns[0][0]
    rows = db.execute(f"SELECT {', '.join(column for column, _ in columns)} FROM {table} ORDER BY {order}")
    return [
        {
            column: base64.b64encode(value).decode() if isinstance(value, bytes) else value
            for (column, _), value in zip(columns, row, strict=True)
        }
        for row in rows
    ]


def load_whole(
    path: Path, text: str, by: Importer, *, where: str = "", prepared: Callable[[Job], Job] = lambda job: job
) -> None:
    """Makes a job file of a job's JSON, with all its records when they are in it.

    Revisions and log are taken over word for word with their digests, which are checked. A job that was changed in the
    text becomes one more revision. A text without records makes a file with a first revision.

    Args:
        path: The new file; it appears whole or not at all.
        text: The JSON.
        by: Who brings it in.
        where: What the text came from, for messages.
        prepared: Done to the job ahead of everything, such as giving tags to what has none.

    Raises:
        RiktigError: the text is no job, a row of it cannot be, its log is not what was written, or the file is there
            or cannot be written.
    """
    job = prepared(load_job(text, where=where))
    data = parse_json(text, what="a job", where=where, hint="Choose a file that Riktig exported.")
    if not isinstance(data, dict) or not any(name in data for name in _TABLES):
        JobFile.create(path, job, who=by.who, at=by.at, why="import", signer=by.signer).close()
        return
    see_free_name(path)
    rows = {name: _read_rows(data, name, where) for name in _TABLES}
    if not rows["revisions"]:
        raise _wrong(where, [InputFault("$.revisions", "there is no revision, so the log belongs to nothing.")])
    if not _goes_as_far(data.get("head"), rows):
        raise _not_as_written("it does not go as far as its head says", where)
    db = sqlite3.connect(":memory:")
    try:
        db.executescript(";".join((*SCHEMA, *TRIGGERS)))
        with db:
            db.execute(f"PRAGMA application_id = {APPLICATION_ID}")
            db.execute(f"PRAGMA user_version = {FORMAT}")
            for name, (table, columns) in _TABLES.items():
                marks = ", ".join("?" * len(columns))
                db.executemany(f"INSERT INTO {table} VALUES ({marks})", rows[name])
            head_after(db, count=1 + len(rows["log"]) + len(rows["revisions"]), signer=by.signer)
        write_whole(db, path)
    except FileExistsError as error:
        raise RiktigError(
            f"{path.name} exists already and was left as it is.", hint="Choose another name.", where=str(path)
        ) from error
    except sqlite3.IntegrityError as error:
        raise _wrong(where, [InputFault("$.log", f"an entry or revision stands there twice ({error}).")]) from error
    except (sqlite3.Error, OSError) as error:
        raise unwritable(path, error) from error
    finally:
        db.close()
    _see_and_go_on(path, job, by, where)


def _see_and_go_on(path: Path, job: Job, by: Importer, where: str) -> None:
    """Refuses a file whose log does not prove itself; a job changed by hand is one more revision."""
    try:
        file = JobFile(path, who=by.who, signer=by.signer)
    except RiktigError:
        _take_away(path)
        raise
    try:
        problems = file.problems
        if not problems and file.job() != job:
            file.add_revision(job, who=by.who, at=by.at, why="import")
    finally:
        file.close()
    if problems:
        _take_away(path)
        raise _not_as_written("; ".join(problems[:3]), where)


def _goes_as_far(head: object, rows: Mapping[str, list[tuple[object, ...]]]) -> bool:
    """Whether revisions and log end where the head says."""
    try:
        told = msgspec.convert(head, Head)
    except msgspec.ValidationError:
        return False
    log, revisions = rows["log"], rows["revisions"]
    entries, of_log = (log[-1][0], log[-1][9]) if log else (0, FIRST_DIGEST)
    number, of_job = revisions[-1][0], revisions[-1][5]
    return told.digest == head_digest(told.count, int(str(entries)), str(of_log), int(str(number)), str(of_job))


def _not_as_written(what: str, where: str) -> RiktigError:
    return RiktigError(
        f"The record in it is not what was written ({what}), so no file was made.",
        hint="Export the job again. To take the job without its record, remove “log”, “revisions” and "
        "“attachments” from the text.",
        where=where,
    )


def _take_away(path: Path) -> None:
    """Removes a file of ours that is not to be used."""
    with suppress(OSError):
        path.unlink()


def _read_rows(data: dict[str, Any], name: str, where: str) -> list[tuple[object, ...]]:
    _, columns = _TABLES[name]
    listed = data.get(name, [])
    if not isinstance(listed, list):
        raise _wrong(where, [InputFault(f"$.{name}", "this is no list.")])
    rows, faults = [], []
    for number, row in enumerate(listed):
        at = f"$.{name}[{number}]"
        if not isinstance(row, dict) or set(row) != {column for column, _ in columns}:
            faults.append(InputFault(at, f"it must have {', '.join(column for column, _ in columns)}."))
            continue
        values = []
        for column, kind in columns:
            value = row[column]
            if kind is bytes and isinstance(value, str):
                with suppress(ValueError):
                    value = base64.b64decode(value, validate=True)
            if type(value) is not kind:
                faults.append(InputFault(f"{at}.{column}", "it cannot be read."))
            values.append(value)
        rows.append(tuple(values))
    if faults:
        raise _wrong(where, faults)
    return rows


def _wrong(where: str, faults: list[InputFault]) -> RiktigError:
    count = len(faults)
    return RiktigError(
        f"The record of the job cannot be read: {count} {'place is' if count == 1 else 'places are'} wrong.",
        hint="Export the job again; no file was made.",
        where=where,
        faults=faults,
    )
