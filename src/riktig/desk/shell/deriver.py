"""What the shell shows, derived at once when it is quick and aside when it is not."""

import time
from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer

from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.labels import INDEX
from riktig.core.rules import RULES
from riktig.core.views import TRACE_LOOKUPS, statuses
from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.session import Session

__all__ = ["Deriver"]

LONG_S = 0.25
"""From here on the interface does not wait for wires, rules and tests (chosen by us: a pause one notices)."""
QUIET_MS = 400
"""How long nothing must have been edited before slow work begins: an edit that follows at once is not held up."""
MANY_LOADS = 12
"""Loads of a job from which the first derivation is expected to take long."""


class Deriver(QObject):
    """Derives wires, rules and tests; ``ready`` is called when all of it is true of the job of now.

    The window stays in use meanwhile; an edit ends the work that is under way and begins it anew.
    """

    def __init__(self, session: Session, ready: Callable[[], None], waits: Callable[[], None]) -> None:
        super().__init__()
        self._session, self._ready, self._waits = session, ready, waits
        self._work: Work | None = None
        self._again = False
        self._slow = False
        self._plan: Evaluation[Job] | None = None
        self._fork: Evaluation[Job] | None = None
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(QUIET_MS)
        self._timer.timeout.connect(self._begin)

    @property
    def busy(self) -> bool:
        """Whether the results of now are still being worked out."""
        return self._work is not None or self._timer.isActive()

    def ask(self) -> None:
        """Everything that the shell shows, of the job of now."""
        session = self._session
        if self._work is not None:
            self._again = True
            self._work.stop()
            self._waits()
            return
        first = session.evaluation is not self._plan
        self._plan = session.evaluation
        if self._slow or self._timer.isActive() or (first and len(session.job.loads) > MANY_LOADS):
            self._timer.start()
            self._waits()
            return
        begun = time.perf_counter()
        self._ready()
        self._slow = time.perf_counter() - begun > LONG_S and not first

    def _begin(self) -> None:
        session = self._session
        plan, records = session.evaluation, session.records

        def derive(progress: Progress) -> None:
            fork = plan.fork(lambda: progress.step(0.0, "wires, rules and tests"))
            self._fork = fork
            begun = time.perf_counter()
            statuses(fork, records)
            fork.get(RULES)
            self._slow = time.perf_counter() - begun > LONG_S / 2
            fork.get(INDEX)
            fork.get(TRACE_LOOKUPS)

        self._work = Work(derive, self)
        self._work.done.connect(self._done)
        self._work.stopped.connect(self._ended)
        self._work.failed.connect(self._failed)
        self._work.start()
        self._waits()

    def _done(self, _: object) -> None:
        fork, plan = self._fork, self._plan
        if fork is not None and plan is not None and self._session.evaluation is plan:
            plan.adopt(fork)
        self._ended()

    def _failed(self, error: object) -> None:
        self._ended()
        if isinstance(error, BaseException):
            raise error

    def _ended(self) -> None:
        work, self._work, self._fork = self._work, None, None
        if work is not None:
            work.wait()
        if self._again or self._session.evaluation is not self._plan:
            self._again = False
            self.ask()
        else:
            self._ready()

    def close(self) -> None:
        """Ends what is under way."""
        self._again = False
        self._timer.stop()
        if self._work is not None:
            self._work.stop()
            self._work.wait()
            self._work = None
