"""A job of the shop's server at one bench: a job file of its own, and what is not handed in yet."""

import uuid
from collections.abc import Callable, Iterable, Sequence
from contextlib import suppress
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.job import Job
from riktig.core.records import (
    AsBuiltClosed,
    ClauseCompared,
    ClauseJudged,
    FindingNoted,
    FindingSettled,
    JobIssued,
    LiveReleased,
    NewRecord,
    PanelDispatched,
    Record,
    Signer,
    taken_back,
)
from riktig.core.records.codec import FIRST_DIGEST
from riktig.core.store import Attachment, JobFile, Revision, dump_job, load_job
from riktig.core.store.writing import insert_as_stored, see_that_it_may_be
from riktig.server.address import ServerAddress
from riktig.server.exchange import Known, News
from riktig.server.handing_in import UnmergedRevision
from riktig.server.outbox import Outbox, Waiting, WaitingRevision

__all__ = ["ServerJob", "right_for"]


class ServerJob(JobFile):
    """One job of the server, open at this bench. Not for several threads; it never waits for the network.

    What the server has stands in the file, word for word. What is recorded or changed here is durable at this bench
    when the call returns, and waits until ``exchange`` has handed it in and ``take`` has written what came of it.

    Args:
        path: The bench's own file of the job; what waits lies beside it.
        address: Where the job is.
        who: Who works here.
        signer: Signs what is recorded.

    Raises:
        RiktigError: a file cannot be read.
    """

    def __init__(self, path: Path, address: ServerAddress, *, who: str = "", signer: Signer | None = None) -> None:
        super().__init__(path, who=who, signer=signer)
        self.address, self.signer = address, signer
        self._outbox = Outbox(outbox_of(path))
        self.waiting: Waiting = self._outbox.waiting()
        self.unmerged: UnmergedRevision | None = None
        self._handed_in: list[Record] | None = None
        """The log of the file as it was read once: to read thousands of entries anew takes half a second."""
        self.rights: frozenset[str] | None = None
        """What one may do here as the server said last; None before it has."""

    def job(self) -> Job:
        """The newest job, whether the server has it yet or not."""
        if self.waiting.revisions:
            return load_job(self.waiting.revisions[-1].job, where=str(self.path), mend=True)
        return super().job()

    def revision(self) -> int:
        """The newest revision's number; one that waits may get another."""
        return super().revision() + len(self.waiting.revisions)

    def revisions(self) -> list[Revision]:
        """All revisions, oldest first."""
        waiting = [Revision(each.number, each.who, each.at, each.why) for each in self.waiting.revisions]
        return [*super().revisions(), *waiting]

    def job_at(self, number: int) -> Job:
        """The job of one revision."""
        for each in self.waiting.revisions:
            if each.number == number:
                return load_job(each.job, where=str(self.path), mend=True)
        return super().job_at(number)

    def records(self) -> list[Record]:
        """The whole log, what waits last."""
        if self._handed_in is None:
            self._handed_in = super().records()
        return [*self._handed_in, *(entry.record for entry in self.waiting.entries)]

    def entry_count(self) -> int:
        """How many entries the log has, with those that wait."""
        return super().entry_count() + len(self.waiting.entries)

    def attachment(self, name: str) -> bytes | None:
        """What is attached under a name; None when nothing is."""
        waiting = next((item.body for item in self.waiting.attachments if item.name == name), None)
        return waiting if waiting is not None else super().attachment(name)

    def add_revision(self, job: Job, *, who: str, at: str, why: str) -> int:
        """Keeps a new revision at this bench and returns its number here; durable on return.

        Raises:
            RiktigError: it could not be written.
        """
        return self._keep(job, [], who=who, at=at, why=why)

    def add_records(self, records: list[Record], attached: Sequence[Attachment] = ()) -> None:
        """Keeps entries at this bench, with what is attached, all or none; durable on return.

        Raises:
            RiktigError: they could not be written, or may not be recorded.
        """
        self._keep(None, records, attached=attached)

    def add_all(
        self, job: Job | None, entries: list[NewRecord], *, who: str, at: str, why: str, new_id: Callable[[], str]
    ) -> int:
        """Keeps a new revision (None: the job stays as it is) and entries at this bench, all or none.

        Returns:
            The number of the revision in force here.

        Raises:
            RiktigError: they could not be written, or may not be recorded.
        """
        number = self.revision() + (job is not None)
        records = [Record(new_id(), new.subject, new.facts, who, at, number, new.corrects) for new in entries]
        return self._keep(job, records, who=who, at=at, why=why)

    def _keep(
        self,
        job: Job | None,
        records: Sequence[Record],
        attached: Sequence[Attachment] = (),
        *,
        who: str = "",
        at: str = "",
        why: str = "",
    ) -> int:
        self._see_that_it_can_change()
        self._see_rights(["plans"] * (job is not None) + [right_for(record) for record in records])
        waits = {entry.id for entry in self.waiting.entries} if records else set()
        fresh = [record for record in records if record.id not in waits and not self._has(record.id)]
        for record in fresh:
            see_that_it_may_be(record, self._is_released)
        number = self.revision()
        waiting = None
        if job is not None:
            newest = self.waiting.revisions[-1].job if self.waiting.revisions else dump_job(super().job())
            waiting = WaitingRevision(0, uuid.uuid4().hex, number + 1, number, newest, dump_job(job), who, at, why)
            number += 1
        self.waiting = self.waiting.with_more(self._outbox.put(waiting, fresh, attached))
        return number

    def _see_that_it_can_change(self) -> None:
        if self.read_only:
            raise RiktigError(
                f"{self.path.name} is open read-only; {self.only_looking or 'it was opened so'}. Nothing was recorded.",
                hint="Close it there, or export a copy.",
                where=str(self.path),
            )

    @property
    def refuses_plan(self) -> str:
        """Why the plan cannot be changed by this login, "" where it can or nobody has said yet."""
        if self.rights is None or "plans" in self.rights:
            return ""
        return _not_given("plans")

    def _see_rights(self, asked: Iterable[str]) -> None:
        """Refuses what the server would refuse: it would keep everything else from being handed in."""
        for right in asked:
            if self.rights is not None and right not in self.rights:
                raise RiktigError(
                    _not_given(right), hint="Who looks after the server gives rights; docs/server.md says how."
                )

    def _has(self, record: str) -> bool:
        return self._open_db.execute("SELECT 1 FROM log WHERE id = ?", (record,)).fetchone() is not None

    def _is_released(self) -> bool:
        records = self.records()
        gone = taken_back(records)
        return any(isinstance(record.facts, LiveReleased) and record.id not in gone for record in records)

    def known(self) -> Known:
        """What this bench has of what the server has."""
        db = self._open_db
        revision = db.execute("SELECT number, digest FROM revision ORDER BY number DESC LIMIT 1").fetchone()
        entry = db.execute("SELECT seq, digest FROM log ORDER BY seq DESC LIMIT 1").fetchone() or (0, FIRST_DIGEST)
        names = db.execute("SELECT name FROM attachment").fetchall()
        attached = frozenset(str(name) for (name,) in names)
        return Known(int(revision[0]), str(revision[1]), int(entry[0]), str(entry[1]), attached)

    def take(self, news: News) -> bool:
        """Writes what came of an exchange; whether there was anything that this bench did not have.

        Args:
            news: What ``exchange`` returned.

        Raises:
            RiktigError: it could not be written: it comes again with the next exchange.
        """
        self.rights, self.unmerged = news.rights, news.unmerged
        fresh = bool(news.revisions or news.entries or news.attachments)
        if fresh:
            looks_on, self.read_only = self.read_only, False  # who may only look is shown what others do
            try:
                self._write(lambda db: insert_as_stored(db, news.revisions, news.entries, news.attachments))
            finally:
                self.read_only = looks_on
            if self._handed_in is not None:
                self._handed_in += [entry.record for entry in news.entries]
        if news.tokens or news.ids or news.attached:
            self._outbox.take_out(news.tokens, news.ids, news.attached)
            self.waiting = self._outbox.waiting()
        mine = set(news.ids)
        return (
            bool(news.merged) or len(news.revisions) > len(news.tokens) or any(e.id not in mine for e in news.entries)
        )

    def settle(self, job: Job | None) -> None:
        """Settles what both changed: this job, made on the newest of the server, instead of those that wait.

        Args:
            job: What the two were brought together as; None leaves the server's as it is.
        """
        unmerged = self.unmerged
        if unmerged is None:
            return
        first, *later = self.waiting.revisions
        self._outbox.take_out([each.token for each in (later if job else (first, *later))], [], [])
        if job:
            self._outbox.settle(first.token, unmerged.number, unmerged.text, dump_job(job))
        self.waiting, self.unmerged = self._outbox.waiting(), None

    def close(self) -> None:
        """Closes the file; what waits is kept for the next time."""
        with suppress(AttributeError):  # it could not even be opened
            self._outbox.close()
        super().close()


_SIGNED = (ClauseJudged, LiveReleased, JobIssued, PanelDispatched, AsBuiltClosed)
_INSPECTED = (FindingNoted, FindingSettled, ClauseCompared)


def right_for(record: Record) -> str:
    """What the login of whoever records it must be given; the function of that name in ``tables.sql`` asks the same.

    Args:
        record: The record.
    """
    if isinstance(record.facts, _SIGNED):
        return "signs"
    return "inspects" if isinstance(record.facts, _INSPECTED) else "builds"


_WORDS = {
    "plans": "change the plan", "builds": "record work and readings", "inspects": "record findings",
    "signs": "sign, open the live tests, issue or hand over",
}  # fmt: skip


def _not_given(right: str) -> str:
    return f"This login may not {_WORDS[right]} on the server, so nothing was changed."


def outbox_of(path: Path) -> Path:
    """Where what waits lies, beside the bench's file of the job."""
    return path.with_suffix(".waiting")
