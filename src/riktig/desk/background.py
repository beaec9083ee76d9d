"""Slow work off the interface thread, with progress and a way to stop it."""

import threading
from collections.abc import Callable

from PySide6.QtCore import QObject, QThread, Signal

from riktig.core.work import Cancelled, Progress

__all__ = ["Work"]


class Work(QThread):
    """One piece of work: a function of ``Progress`` on a frozen request.

    Signals arrive on the interface thread; exactly one of ``done``, ``failed`` and ``stopped``
    is sent.
    """

    stepped = Signal(float, str)
    done = Signal(object)
    failed = Signal(object)
    stopped = Signal()

    def __init__(self, job: Callable[[Progress], object], parent: QObject | None = None) -> None:
        super().__init__(parent)
        self._job = job
        self._stop = threading.Event()

    def run(self) -> None:
        """Runs on the work's own thread."""
        progress = Progress(self.stepped.emit, self._stop.is_set)
        try:
            result = self._job(progress)
        except Cancelled:
            self.stopped.emit()
        except Exception as error:  # noqa: BLE001 - handed to the interface thread, whole
            self.failed.emit(error)
        else:
            self.done.emit(result)

    def end(self) -> None:
        """Stops the work and waits for it; nothing is sent any more. For when its window closes."""
        self.blockSignals(True)
        self.stop()
        self.wait()

    def stop(self) -> None:
        """Asks the work to stop at its next step."""
        self._stop.set()
