"""What waits at a bench goes into the tables of the server, inside one step of the database."""

from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import ColumnElement, Select, Table, insert, select, update
from sqlalchemy.dialects.postgresql import insert as insert_unless_there
from sqlalchemy.engine import Connection

from riktig.core.records import Record, Signer, StoredEntry, stored
from riktig.core.records.codec import FIRST_DIGEST
from riktig.core.store import BothChanged, dump_job, load_job, merge_jobs
from riktig.core.store.head import RevisionText, head_digest, revision_digest
from riktig.server.outbox import Waiting, WaitingEntry, WaitingRevision
from riktig.server.tables import ATTACHMENT, ENTRY, HEAD, REVISION

__all__ = ["HandedIn", "UnmergedRevision", "entry_values", "hand_in", "write_head"]


@dataclass(frozen=True, slots=True)
class UnmergedRevision:
    """What was changed here and the newest revision on the server, which changed the same parts otherwise.

    ``waiting`` is the first revision that cannot be merged; ``both_changed`` is of all that waits,
    which is settled at once.
    """

    waiting: WaitingRevision
    number: int
    text: str
    who: str
    both_changed: tuple[BothChanged, ...]


@dataclass
class HandedIn:
    """What the server took: tokens of revisions, ids of entries; with whom revisions were brought together."""

    tokens: list[str] = field(default_factory=list)
    ids: list[str] = field(default_factory=list)
    merged: list[str] = field(default_factory=list)
    unmerged: UnmergedRevision | None = None
    numbers: dict[int, int] = field(default_factory=dict)
    """By the number that a revision has at the bench, the one that the server gave it."""


def hand_in(db: Connection, job: str, waiting: Waiting, signer: Signer | None, handed: HandedIn) -> None:
    """Writes what waits, in the order in which it was made.

    Args:
        db: Inside a step, with the head of the job locked.
        job: Its name.
        waiting: What waits.
        signer: Signs it.
        handed: What was taken is added here.
    """
    for item in waiting.attachments:
        row = insert_unless_there(ATTACHMENT).values(job=job, name=item.name, kind=item.kind, body=item.body)
        db.execute(row.on_conflict_do_nothing())
    there = set(_there(db, ENTRY, ENTRY.c.job == job, ENTRY.c.id, [entry.id for entry in waiting.entries]))
    _Steps(db, job, signer, handed, there).all(waiting)


class _Steps:
    """Revisions and entries, each bound to the one before by its digest."""

    def __init__(self, db: Connection, job: str, signer: Signer | None, handed: HandedIn, there: set[str]) -> None:
        self._db, self._job, self._signer, self._handed, self._there = db, job, signer, handed, there
        last = db.execute(_newest(ENTRY, job, ENTRY.c.seq)).mappings().first()
        self._entry: tuple[int, str] = (int(last["seq"]), str(last["digest"])) if last else (0, FIRST_DIGEST)
        self._last = dict(db.execute(_newest(REVISION, job, REVISION.c.number)).mappings().one())
        self._rows: list[dict[str, object]] = []
        self._end_here = ""

    def all(self, waiting: Waiting) -> None:
        self._end_here = waiting.revisions[-1].job if waiting.revisions else ""
        tokens = [each.token for each in waiting.revisions]
        known = set(_there(self._db, REVISION, REVISION.c.job == self._job, REVISION.c.token, tokens))
        for step in waiting.steps:
            if isinstance(step, WaitingEntry):
                self._take_entry(step)
            elif step.token in known:
                query = select(REVISION.c.number).where(REVISION.c.token == step.token)
                self._took(step, int(self._db.execute(query).scalar_one()))
            elif self._handed.unmerged is None:
                self._take_revision(step)
        if self._rows:
            self._db.execute(insert(ENTRY), self._rows)

    def _took(self, step: WaitingRevision, number: int) -> None:
        self._handed.numbers[step.number] = number
        self._handed.tokens.append(step.token)

    def _take_entry(self, step: WaitingEntry) -> None:
        self._handed.ids.append(step.id)
        if step.id in self._there:
            return
        record = step.record
        number = min(self._handed.numbers.get(step.revision, step.revision), int(self._last["number"]))
        record = Record(record.id, record.subject, record.facts, record.who, record.when, number, record.corrects)
        entry = stored(record, self._entry[0] + 1, self._entry[1], self._signer)
        self._entry = entry.number, entry.digest
        self._rows.append(entry_values(self._job, entry))

    def _take_revision(self, step: WaitingRevision) -> None:
        newest, text = str(self._last["text"]), step.job
        if newest != step.base:
            base, here, there = (load_job(each, mend=True) for each in (step.base, step.job, newest))
            merged = merge_jobs(base, here, there)
            who = str(self._last["who"])
            if merged.both_changed:  # all that waits is settled at once, so all of it is said
                whole = merge_jobs(base, load_job(self._end_here, mend=True), there).both_changed
                self._handed.unmerged = UnmergedRevision(step, int(self._last["number"]), newest, who, whole)
                return
            text = dump_job(merged.job)
            self._handed.merged.append(who)
        number = int(self._last["number"]) + 1
        key = self._signer.public if self._signer else ""
        revision = RevisionText(number, text, step.who, step.at, step.why)
        digest = revision_digest(revision, str(self._last["digest"]), key)
        self._last = {
            "job": self._job, "number": number, "text": text, "who": step.who, "at": step.at, "why": step.why,
            "digest": digest, "signer": key, "signature": self._signer.sign(digest) if self._signer else "",
            "token": step.token,
        }  # fmt: skip
        self._db.execute(insert(REVISION).values(self._last))
        self._took(step, number)


def _there(
    db: Connection, table: Table, of: ColumnElement[bool], column: ColumnElement[str], values: list[str]
) -> list[str]:
    if not values:
        return []
    return list(db.execute(select(column).select_from(table).where(of, column.in_(values))).scalars())


def _newest(table: Table, job: str, column: ColumnElement[int]) -> Select[Any]:
    return select(table).where(table.c.job == job).order_by(column.desc()).limit(1)


def entry_values(job: str, entry: StoredEntry) -> dict[str, object]:
    """A row of the log.

    Args:
        job: The name of its job.
        entry: The entry.
    """
    return {
        "job": job, "seq": entry.number, "id": entry.id, "kind": entry.kind, "subject": entry.subject,
        "facts": entry.facts, "who": entry.who, "at": entry.when, "revision": entry.revision,
        "corrects": entry.corrects, "digest": entry.digest, "signer": entry.signer, "signature": entry.signature,
    }  # fmt: skip


def write_head(db: Connection, job: str, count: int, signer: Signer | None) -> None:
    """Says anew how far a job goes; every bench that has it open hears of it.

    Args:
        db: Inside a step.
        job: Its name.
        count: How many steps were written.
        signer: Signs it.
    """
    entry = db.execute(_newest(ENTRY, job, ENTRY.c.seq)).mappings().first()
    revision = db.execute(_newest(REVISION, job, REVISION.c.number)).mappings().one()
    entries, of_log = (int(entry["seq"]), str(entry["digest"])) if entry else (0, FIRST_DIGEST)
    number = int(revision["number"])
    digest = head_digest(count, entries, of_log, number, str(revision["digest"]))
    key, signature = (signer.public, signer.sign(digest)) if signer else ("", "")
    values = {
        "job": job, "count": count, "entries": entries, "revisions": number, "digest": digest, "signer": key,
        "signature": signature,
    }  # fmt: skip
    if db.execute(update(HEAD).where(HEAD.c.job == job).values(values)).rowcount == 0:
        db.execute(insert(HEAD).values(values))
