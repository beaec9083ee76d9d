"""A whole job from a file to the server and back, word for word."""

import sqlite3
import uuid
from pathlib import Path

from sqlalchemy import insert, select
from sqlalchemy.engine import Engine
from sqlalchemy.exc import IntegrityError

from riktig.core.errors import RiktigError
from riktig.core.records import Signer, StoredEntry
from riktig.core.store import JobFile
from riktig.core.store.bring_up import bring_up
from riktig.core.store.head import head_after
from riktig.core.store.new_file import make_file
from riktig.core.store.writing import insert_as_stored, unwritable
from riktig.server.address import ServerAddress
from riktig.server.connecting import rights_of, server_errors
from riktig.server.exchange import News, read_whole
from riktig.server.handing_in import entry_values, write_head
from riktig.server.tables import ATTACHMENT, ENTRY, JOB, REVISION

__all__ = ["fetch", "names_on", "put", "write_file"]

_OF_REVISION = ("number", "text", "who", "at", "why", "digest", "signer", "signature")


def put(engine: Engine, address: ServerAddress, file: JobFile, *, signer: Signer | None = None) -> None:
    """Puts a job on the server with all its revisions, its log and what is attached.

    Args:
        engine: The way to the server.
        address: The server, and the name that the job is to have there.
        file: The job; it stays as it is. From then on work on the server's, or the two part ways.
        signer: Signs how far it goes.

    Raises:
        RiktigError: a job of that name is there, the name cannot be, or the server says no.
    """
    name = address.job
    if not name or "/" in name or "\\" in name or name.startswith("."):
        raise RiktigError(f"A job on a server cannot be called “{name}”.", hint="Use letters, figures and dashes.")
    db = sqlite3.connect(":memory:")
    try:
        file.copy_into(db)
        bring_up(db)
        revisions = db.execute("SELECT * FROM revision ORDER BY number").fetchall()
        entries = db.execute("SELECT * FROM log ORDER BY seq").fetchall()
        attached = db.execute("SELECT name, kind, body FROM attachment ORDER BY name").fetchall()
        count = int(db.execute("SELECT count FROM head").fetchone()[0])
    finally:
        db.close()
    with server_errors(address), engine.begin() as there:
        rights_of(there, address)
        try:
            there.execute(insert(JOB).values(name=name))
        except IntegrityError as error:
            raise RiktigError(
                f"{address.words.partition('?')[0]} has a job “{name}” already; it was left as it is.",
                hint="Choose another name: ADDRESS?job=NAME.",
            ) from error
        rows = [dict(zip(_OF_REVISION, row, strict=True)) for row in revisions]
        there.execute(insert(REVISION), [row | {"job": name, "token": uuid.uuid4().hex} for row in rows])
        if entries:
            there.execute(insert(ENTRY), [entry_values(name, StoredEntry(*row)) for row in entries])
        for title, kind, body in attached:
            there.execute(insert(ATTACHMENT).values(job=name, name=title, kind=kind, body=body))
        write_head(there, name, count, signer)


def names_on(engine: Engine, address: ServerAddress) -> tuple[str, ...]:
    """The names of all jobs on a server.

    Raises:
        RiktigError: it cannot be reached or says no.
    """
    with server_errors(address), engine.begin() as db:
        rights_of(db, address)
        return tuple(db.execute(select(JOB.c.name).order_by(JOB.c.name)).scalars())


def fetch(engine: Engine, address: ServerAddress, path: Path, *, signer: Signer | None = None) -> None:
    """Makes a job file of a job on the server, with everything; it appears whole or not at all.

    Args:
        engine: The way to the server.
        address: The server and the job.
        path: The new file.
        signer: Signs how far the file goes.

    Raises:
        RiktigError: the server says no, the file is there already or cannot be written.
    """
    write_file(path, read_whole(engine, address), signer)


def write_file(path: Path, whole: News, signer: Signer | None = None) -> None:
    """Makes a job file of everything that the server has of a job.

    Args:
        path: The new file.
        whole: What ``read_whole`` returned.
        signer: Signs how far it goes.

    Raises:
        RiktigError: it is there already, or cannot be written.
    """

    def fill(db: sqlite3.Connection) -> None:
        insert_as_stored(db, whole.revisions, whole.entries, whole.attachments)
        head_after(db, count=len(whole.revisions) + len(whole.entries), signer=signer)

    try:
        path.parent.mkdir(parents=True, exist_ok=True)
    except OSError as error:
        raise unwritable(path, error) from error
    make_file(path, fill)
