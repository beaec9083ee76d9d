"""Plan for me, while the builder watches: better plans come up, and the best is one edit at the end."""

import time
from typing import Any

from PySide6.QtCore import QObject, QTimer, Signal

from riktig.core.edits import SetPlate
from riktig.core.evaluation import Evaluation
from riktig.core.work import Cancelled
from riktig.core.work import Progress as Steps
from riktig.desk.background import Work
from riktig.desk.session import Session

__all__ = ["SECONDS", "PlanRun"]

SECONDS = 20.0
"""For how long a plan is sought (chosen by us: as long as one watches)."""
SHOW_MS = 250
"""How often a better plan is shown."""


class PlanRun(QObject):
    """One search at a time. ``better`` brings the layout of a better plan and what to say of it.

    ``ended`` brings the ``Reached`` of the plan that was put into the job, or None when nothing was.
    """

    better = Signal(object, str)
    ended = Signal(object)
    found = Signal(object)
    ready = Signal(object)

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self.work: Work | None = None
        self._replan: Any = None
        self.best: Any = None
        self._known: dict[bytes, float] = {}
        self._started, self._seconds = 0.0, SECONDS
        self._keep = True
        self._shown: Any = None
        self._timer = QTimer(self)
        self._timer.setInterval(SHOW_MS)
        self._timer.timeout.connect(self._show)
        self.found.connect(self._take)
        self.ready.connect(self._begin)

    @property
    def running(self) -> bool:
        """Whether a plan is being sought."""
        return self.work is not None

    def start(self, seconds: float = 0.0) -> None:
        """Begins a search on the job of now."""
        if self.work is not None:
            return
        self._replan = self.best = self._shown = None
        self._keep, self._seconds, self._started = True, seconds or SECONDS, time.monotonic()
        fork = self._session.evaluation.fork(lambda: None)
        self.work = Work(lambda progress: self._search(fork, progress), self)
        self.work.done.connect(lambda best: self._finish())
        self.work.stopped.connect(self._finish)
        self.work.failed.connect(self._failed)
        self.work.start()
        self._timer.start()

    def stop(self, *, keep: bool = True) -> None:
        """Ends the search; the best so far is kept, unless the job has moved on meanwhile."""
        if self.work is not None:
            self._keep = keep
            if not keep:
                self._timer.stop()  # what is found is of a job that is no more: nothing of it is drawn
            self.work.stop()

    def wait(self) -> None:
        """Ends the search, keeping nothing, and waits for it: before the window closes."""
        if self.work is not None:
            self._keep = False
            self.work.stop()
            self.work.wait()

    def _search(self, fork: Evaluation[Any], progress: Steps) -> object:
        from riktig.core.optimiser.replan import replan_of  # late: what it is compiled with takes half a second
        from riktig.timed_search import search_for

        replan = replan_of(fork)
        self.ready.emit(replan)

        def stopped() -> bool:
            try:
                progress.step(0.0, "")
            except Cancelled:
                return True
            return False

        return search_for(replan, self._seconds, self.found.emit, stopped)

    def _begin(self, replan: object) -> None:
        self._replan = replan
        self._started = time.monotonic()

    def _take(self, plan_found: Any) -> None:
        if self.best is None or plan_found.cost < self.best.cost:
            self.best = plan_found

    def _show(self) -> None:
        if self._replan is None or not self._keep:
            return
        best, before = self.best or self._replan.before, self._replan.before
        gone = min(time.monotonic() - self._started, self._seconds)
        text = (
            f"Planning: {gone:.0f} of {self._seconds:.0f} s. Wire on the plate {best.wire / 1000:.1f} m, "
            f"it was {before.wire / 1000:.1f} m. Stop keeps the best so far."
        )
        layout = None if best is self._shown else self._replan.layout(best)
        self._shown = best
        self.better.emit(layout, text)

    def _end(self) -> None:
        self._timer.stop()
        if self.work is not None:
            self.work.wait()
            self.work.deleteLater()
        self.work = None

    def _finish(self) -> None:
        self._end()
        if self._replan is None or not self._keep:
            self.ended.emit(None)
            return
        replan, best = self._replan, self.best or self._replan.before
        same = replan.problem.same_as
        reached = replan.reached(best, self._known.get(same, float("inf")))
        self._known[same] = reached.best_known
        if best.cost < replan.before.cost or best.proven:
            self._session.edit("plan for me", SetPlate(replan.put_into(self._session.job, best).plate))
        self.ended.emit(reached)

    def _failed(self, error: Exception) -> None:
        self._end()
        self.ended.emit(None)
        raise error
