"""This bench and the shop's server: what is done here is handed in, what is done elsewhere is shown here."""

import socket
from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, QTimer, Signal

from riktig.core.errors import RiktigError
from riktig.core.production import WORK, stage_states
from riktig.desk.session import Session

if TYPE_CHECKING:
    from riktig.desk.server.line import Line
    from riktig.server.exchange import News, Standing
    from riktig.server.handing_in import UnmergedRevision
    from riktig.server.server_job import ServerJob

__all__ = ["ServerBench"]

AGAIN_MS = 2000
"""How soon a server that could not be reached is tried again (chosen by us)."""
STANDING_MS = 20_000
"""How often a bench says that it is there (chosen by us)."""


class ServerBench(QObject):
    """Keeps the open job and the server alike. A job of a plain file is left alone.

    Args:
        session: The job at hand.
        parent: What it lives with.
    """

    unmerged = Signal(object)
    """Two changed the same part: a ``UnmergedRevision``."""
    stands = Signal()
    """``words`` changed."""

    def __init__(self, session: Session, parent: QObject) -> None:
        super().__init__(parent)
        self.session = session
        self._line: Line | None = None
        self._job: ServerJob | None = None
        self._busy = self._once_more = False
        self._asked: tuple[int, object] | None = None
        self.trouble = ""
        self.words = ""
        self._again = QTimer(self, interval=AGAIN_MS, singleShot=True)
        self._again.timeout.connect(self.ask)
        self._here = QTimer(self, interval=STANDING_MS)
        self._here.timeout.connect(self.ask)
        session.changed.connect(lambda _before, _after: self._follow())
        session.records_changed.connect(self._follow)

    def _follow(self) -> None:
        """Takes up the job that is open now, and hands in what waits."""
        file = self.session.file
        job = None
        if hasattr(file, "waiting"):
            from riktig.server.server_job import ServerJob  # late: only a job of a server needs the database's library

            # What another window of this bench has open is followed in its file.
            job = file if isinstance(file, ServerJob) and not file.held_by else None
        if job is not self._job:
            self.end()
            self._job = job
            if job is not None:
                self._begin(job)
        elif job is not None and job.waiting:
            self.ask()

    def _begin(self, job: "ServerJob") -> None:
        from riktig.desk.server.line import Line  # late, as above

        self._line = Line(job.address, job.signer, self)
        self._line.came.connect(self._came)
        self._line.failed.connect(self._failed)
        self._line.noticed.connect(self.ask)
        self._line.start()
        self._here.start()
        self.ask()

    def end(self) -> None:
        """Ends the line; what waits is kept at this bench."""
        self._again.stop()
        self._here.stop()
        if self._line is not None:
            self._line.end()
        self._line, self._job, self._busy, self._once_more = None, None, False, False
        self._say("", "")

    def ask(self) -> None:
        """Asks the server for what is new, and hands in what waits."""
        if self._line is None or self._job is None:
            return
        if self._busy:
            self._once_more = True
            return
        from riktig.desk.server.line import Request  # late, as above

        waiting = self._job.waiting if not self._job.read_only else type(self._job.waiting)()
        self._busy, self._once_more = True, False
        standing = None if self._job.read_only else self._standing()
        self._line.ask(Request(self._job.known(), waiting, standing))

    def _came(self, news: "News") -> None:
        job, session = self._job, self.session
        self._busy = False
        if job is None:
            return
        back = bool(self.trouble)
        try:
            others = job.take(news)
        except RiktigError as error:
            session.say(str(error), wrong=True)
            self._again.start()
            return
        if others:
            session.follow(job.job(), tuple(job.records()), job.revision())
        if news.merged:
            session.say(
                f"What {', '.join(dict.fromkeys(news.merged))} changed meanwhile and what was changed here are in."
            )
        elif back and not job.waiting:
            session.say("The server is back; what waited here is handed in.")
        self._say("", _words_of(job))
        if news.unmerged is not None:
            self._ask_about(news.unmerged)
        elif self._once_more or job.waiting:
            self.ask()

    def _failed(self, error: RiktigError) -> None:
        self._busy = False
        text = str(error)
        if self.trouble != text:
            self.session.say(text, wrong=True)
        self._say(text, _words_of(self._job) if self._job else "")
        self._again.start()

    def _say(self, trouble: str, words: str) -> None:
        self.trouble = trouble
        self.words = ", ".join(filter(None, (words, "the server cannot be reached" if trouble else "")))
        job = self._job
        if job is not None:
            # What is handed in within the second keeps nothing from being complete.
            apart = self.words if trouble or job.unmerged else ""
            changed, job.out_of_step = bool(apart) != bool(job.out_of_step), apart
            if changed:
                self.session.records_changed.emit()
        self.stands.emit()

    def _ask_about(self, unmerged: "UnmergedRevision") -> None:
        """Asks once for each; who wants to settle it later is not asked again at every tick."""
        question = (unmerged.number, unmerged.both_changed)
        if question != self._asked:
            self._asked = question
            self.unmerged.emit(unmerged)

    def settle(self, unmerged: "UnmergedRevision", keep: list[str]) -> None:
        """Settles what both changed and hands in what comes out.

        Args:
            unmerged: What cannot be merged.
            keep: The paths of the parts that stay as they are here; the others become as they are there.
        """
        job = self._job
        if job is None or job.unmerged is not unmerged:
            return
        from riktig.core.store import load_job, merge_jobs  # late, as above

        there = load_job(unmerged.text, mend=True)
        try:
            both = merge_jobs(load_job(unmerged.waiting.base, mend=True), job.job(), there, keep)
        except RiktigError as error:
            self.session.say(f"Both together make no job: {error}", wrong=True)
            return
        shown = {part.path for part in unmerged.both_changed}
        if any(part.path not in shown for part in both.both_changed):  # the plan was changed while it was asked
            self._asked = None
            self.ask()
            return
        job.settle(both.job if both.job != there else None)
        self.session.follow(job.job(), tuple(job.records()), job.revision())
        self._say(self.trouble, _words_of(job))
        self.ask()

    def _standing(self) -> "Standing":
        """How the job stands, for the shop board; nothing is worked out for it that is not known anyway."""
        from riktig.server.exchange import Standing  # late, as above

        session = self.session
        stage, blocks, minutes = "planning", "", 0.0
        if session.evaluation.has(WORK):
            states = stage_states(session.evaluation.get(WORK), session.progress, session.records)
            open_ = [state for state in states if not state.complete]
            minutes = sum(state.minutes_left for state in open_)
            begun = any(state.finished for state in states)
            stage = open_[0].stage.value if open_ and begun else "built" if not open_ else "to be built"
            blocks = open_[0].shut[0] if open_ and open_[0].shut and not open_[0].may_begin else ""
        job = session.job
        return Standing(socket.gethostname(), session.who, job.number or "-", job.title, stage, blocks, round(minutes))


def _words_of(job: "ServerJob") -> str:
    """What waits, in words; "" for nothing."""
    entries, revisions = len(job.waiting.entries), len(job.waiting.revisions)
    parts = [f"{entries} {'entry' if entries == 1 else 'entries'}"] * bool(entries)
    parts += [f"{revisions} {'change' if revisions == 1 else 'changes'} of the plan"] * bool(revisions)
    count = entries + revisions
    unmerged = ", both changed the same part" if job.unmerged else ""
    return f"{' and '.join(parts)} {'waits' if count == 1 else 'wait'} to be handed in{unmerged}" if count else ""
