"""What is not on the screen yet, or is shown around the station: derived aside, so that an edit is seen at once."""

import time
from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer

from riktig.core.evaluation import Derived, Evaluation
from riktig.core.holes import HOLES
from riktig.core.job import Job
from riktig.core.labels import INDEX
from riktig.core.proving import TESTS
from riktig.core.rules import RULES
from riktig.core.views import TRACE_LOOKUPS, Snapshot, snapshot, statuses
from riktig.core.work import Progress
from riktig.desk.background import Work
from riktig.desk.session import Session

__all__ = ["Deriver"]

LONG_S = 0.25
"""From here on the interface does not wait for wires, rules and tests (chosen by us: a pause one notices)."""
SOON_MS, QUIET_MS = 20, 400
"""How long nothing must have been edited before the work begins: until the station has been painted, and when the work
is slow until an edit that follows at once is not held up."""

WHOLE: tuple[Derived[Job, object], ...] = (RULES, INDEX, TRACE_LOOKUPS, TESTS, HOLES)
"""With these, everything that the shell shows is there."""


class Deriver(QObject):
    """Derives wires, rules and tests; ``ready`` is called when all of it is true of the job of now.

    The window stays in use meanwhile; an edit ends the work that is under way and begins it anew.
    """

    def __init__(self, session: Session, ready: Callable[[], None], waits: Callable[[], None]) -> None:
        super().__init__()
        self._session, self._ready, self._waits = session, ready, waits
        self._work: Work | None = None
        self._again = False
        self.slow = False
        self._closed = False
        self._plan: Evaluation[Job] | None = None
        self._fork: Evaluation[Job] | None = None
        self._lists: tuple[Job, Snapshot] | None = None
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.setInterval(SOON_MS)
        self._timer.timeout.connect(self._begin)

    @property
    def busy(self) -> bool:
        """Whether the results of now are still being worked out."""
        return self._work is not None or self._timer.isActive()

    @property
    def is_known(self) -> bool:
        """Whether everything is known of the job of now, so that it can be shown at no cost."""
        return not self.busy and all(self._session.evaluation.has(result) for result in WHOLE)

    def lists(self) -> Snapshot:
        """The lists of the job of now, as they were worked out aside; worked out here where they were not."""
        evaluation = self._session.evaluation
        if self._lists is None or self._lists[0] is not evaluation.document:
            self._lists = (evaluation.document, snapshot(evaluation))
        return self._lists[1]

    def ask(self) -> None:
        """Everything that the shell shows, of the job of now."""
        session = self._session
        if self._closed:
            return
        if self._work is not None:
            self._again = True
            self._work.stop()
            self._waits()
            return
        self._plan = session.evaluation
        if self.is_known:
            self._ready()
            return
        self._timer.start(QUIET_MS if self.slow else SOON_MS)
        self._waits()

    def _begin(self) -> None:
        session = self._session
        plan, records = session.evaluation, session.records

        def derive(progress: Progress) -> None:
            fork = plan.fork(lambda: progress.step(0.0, "wires, rules and tests"))
            self._fork = fork
            begun = time.perf_counter()
            statuses(fork, records)
            for result in WHOLE:
                fork.get(result)
            self._lists = (plan.document, snapshot(fork))
            self.slow = time.perf_counter() - begun > LONG_S

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
            work.deleteLater()
        if self._closed:
            return
        if self._again or self._session.evaluation is not self._plan:
            self._again = False
            self.ask()
        else:
            self._ready()

    def close(self) -> None:
        """Ends what is under way; nothing is begun any more."""
        self._closed, self._again = True, False
        self._timer.stop()
        if self._work is not None:
            self._work.end()
            self._work = None
