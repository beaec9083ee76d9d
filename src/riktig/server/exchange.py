"""One bench and the server tell each other what the other does not have: all of it, or nothing."""

from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.dialects.postgresql import insert as insert_unless_there
from sqlalchemy.engine import Connection, Engine, RowMapping

from riktig.core.records import Signer, StoredEntry
from riktig.core.records.codec import FIRST_DIGEST
from riktig.core.store import Attachment
from riktig.server.address import ServerAddress
from riktig.server.connecting import RefusedError, rights_of, server_errors
from riktig.server.handing_in import HandedIn, UnmergedRevision, hand_in, write_head
from riktig.server.outbox import Waiting
from riktig.server.tables import ATTACHMENT, BENCH, ENTRY, HEAD, JOB, REVISION, STANDING

__all__ = ["Known", "News", "RevisionRow", "Standing", "exchange", "read_whole"]

RevisionRow = tuple[int, str, str, str, str, str, str, str]
"""Number, job, who, at, why, digest, signer, signature: as a job file has it."""


_OF_ENTRY = (
    "seq", "id", "kind", "subject", "facts", "who", "at", "revision", "corrects", "digest", "signer", "signature",
)  # fmt: skip
"""The columns of an entry as a job file has them."""


@dataclass(frozen=True, slots=True)
class Known:
    """What a bench has of a job: its newest revision and entry, their digests, and the names of what is attached."""

    revision: int = 0
    of_job: str = FIRST_DIGEST
    entry: int = 0
    of_log: str = FIRST_DIGEST
    attachments: frozenset[str] = frozenset()


@dataclass(frozen=True, slots=True)
class News:
    """What came of an exchange: what the server took, what this bench did not have, and what both changed."""

    tokens: tuple[str, ...] = ()
    ids: tuple[str, ...] = ()
    attached: tuple[str, ...] = ()
    revisions: tuple[RevisionRow, ...] = ()
    entries: tuple[StoredEntry, ...] = ()
    attachments: tuple[Attachment, ...] = ()
    unmerged: UnmergedRevision | None = None
    rights: frozenset[str] = frozenset()
    merged: tuple[str, ...] = ()
    """Who changed the plan meanwhile, where a revision of this bench was brought together with his."""


@dataclass(frozen=True, slots=True)
class Standing:
    """How a job stands, as a bench says it for the shop board, and who is at the bench."""

    bench: str
    who: str
    number: str = ""
    title: str = ""
    stage: str = ""
    blocks: str = ""
    minutes_left: int = 0


def exchange(
    engine: Engine,
    address: ServerAddress,
    known: Known,
    waiting: Waiting,
    *,
    signer: Signer | None = None,
    standing: Standing | None = None,
) -> News:
    """Hands in what waits and brings what is new, in one step of the database.

    What was handed in before, and whose confirmation was lost, is not handed in twice. A revision made on an older one
    than the newest is brought together with that where both changed different parts; else it
    stays and the parts are named: entries are handed in all the same.

    Args:
        engine: The way to the server.
        address: The server and the job.
        known: What the bench has.
        waiting: What it hands in.
        signer: Signs what is handed in.
        standing: How the job stands here, for the shop board.

    Raises:
        NoServerError: the server cannot be reached: everything waits on.
        RefusedError: it says no, has no such job, or has another history of it.
    """
    with server_errors(address), engine.begin() as db:
        rights = rights_of(db, address)
        head = _head_of(db, address, locked=bool(waiting))
        _see_one_history(db, address, known)
        handed = HandedIn()
        if waiting:
            hand_in(db, address.job, waiting, signer, handed)
            write_head(db, address.job, int(head["count"]) + 1, signer)
        if standing:
            _say_standing(db, address.job, standing)
        return News(
            tuple(handed.tokens),
            tuple(handed.ids),
            tuple(item.name for item in waiting.attachments),
            *_since(db, address.job, known),
            unmerged=handed.unmerged,
            rights=rights,
            merged=tuple(handed.merged),
        )


def read_whole(engine: Engine, address: ServerAddress) -> News:
    """Everything that the server has of a job.

    Raises:
        NoServerError: the server cannot be reached.
        RefusedError: it says no, or has no such job.
    """
    return exchange(engine, address, Known(), Waiting())


def _head_of(db: Connection, address: ServerAddress, *, locked: bool) -> RowMapping:
    query = select(HEAD).where(HEAD.c.job == address.job)
    row = db.execute(query.with_for_update() if locked else query).mappings().first()
    if row is None:
        names = db.execute(select(JOB.c.name).order_by(JOB.c.name).limit(8)).scalars().all()
        raise RefusedError(
            f"{address.words.partition('?')[0]} has no job “{address.job}”.",
            hint=f"There are: {', '.join(names)}." if names else "Put one there: riktig put JOB.riktig ADDRESS.",
        )
    return row


def _see_one_history(db: Connection, address: ServerAddress, known: Known) -> None:
    """Sees that what the bench has is how the server's begins.

    Raises:
        RefusedError: it is another job of the same name, or the server was set back to an earlier state.
    """
    ends = (
        (REVISION, REVISION.c.number, known.revision, known.of_job),
        (ENTRY, ENTRY.c.seq, known.entry, known.of_log),
    )
    for table, column, number, digest in ends:
        there = db.execute(select(table.c.digest).where(table.c.job == address.job, column == number)).scalar()
        if number and there != digest:
            raise RefusedError(
                f"{address.words} has another history than this bench: it is not the same job, or the server was set "
                "back. Nothing was handed in, and what this bench has stays as it is.",
                hint="Export this job here, then fetch the server's under another name and compare the two.",
            )


def _say_standing(db: Connection, job: str, standing: Standing) -> None:
    bench = {"job": job, "bench": standing.bench, "who": standing.who, "seen": func.now()}
    row = insert_unless_there(BENCH).values(bench)
    db.execute(row.on_conflict_do_update(index_elements=["job", "bench"], set_=bench))
    if not standing.number:
        return
    head = db.execute(select(HEAD.c.entries, HEAD.c.revisions).where(HEAD.c.job == job)).one()
    values = {
        "job": job, "number": standing.number, "title": standing.title, "stage": standing.stage,
        "blocks": standing.blocks, "minutes_left": standing.minutes_left, "revision": head.revisions,
        "entries": head.entries, "at": func.now(),
    }  # fmt: skip
    written = insert_unless_there(STANDING).values(values)
    db.execute(written.on_conflict_do_update(index_elements=["job"], set_=values))


def _since(
    db: Connection, job: str, known: Known
) -> tuple[tuple[RevisionRow, ...], tuple[StoredEntry, ...], tuple[Attachment, ...]]:
    """What the bench does not have."""
    r, e, a = REVISION.c, ENTRY.c, ATTACHMENT.c
    revisions = db.execute(
        select(r.number, r.text, r.who, r.at, r.why, r.digest, r.signer, r.signature)
        .where(r.job == job, r.number > known.revision)
        .order_by(r.number)
    )
    entries = db.execute(
        select(*(e[name] for name in _OF_ENTRY)).where(e.job == job, e.seq > known.entry).order_by(e.seq)
    )
    attachments = db.execute(
        select(a.name, a.kind, a.body).where(a.job == job, a.name.not_in(known.attachments)).order_by(a.name)
    )
    return (
        tuple(tuple(row) for row in revisions),
        tuple(StoredEntry(*row) for row in entries),
        tuple(Attachment(row[0], row[1], bytes(row[2])) for row in attachments),
    )
