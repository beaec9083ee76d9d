"""Waiting in tests: events are served, and threads that work get the interpreter.

``QTest.qWait`` keeps the interpreter while it sleeps (seen with PySide6 6.x: a thread got 5 ms of every 35), so that
5 s of work aside took minutes.
"""

import time

from PySide6.QtCore import QCoreApplication, QEvent

__all__ = ["let_pass"]

SLEEP_S = 0.004


def let_pass(ms: float) -> None:
    """Serves events for so long, ms; at least once."""
    until = time.monotonic() + ms / 1000.0
    while True:
        QCoreApplication.processEvents()
        QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
        left = until - time.monotonic()
        if left <= 0:
            return
        time.sleep(min(left, SLEEP_S))
