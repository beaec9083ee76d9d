"""A job that is open elsewhere is followed: what is ticked, read and changed there is shown here within a second."""

from PySide6.QtCore import QObject, QTimer

from riktig.core.errors import RiktigError
from riktig.desk.session import Session

__all__ = ["Follower"]

EVERY_MS = 700
"""How often the file is looked at (chosen by us: within a second)."""


class Follower(QObject):
    """Looks at the file of a job that can only be looked at, and takes over what came.

    Args:
        session: The job at hand; one that can be changed here is left alone.
        parent: What it lives with.
    """

    def __init__(self, session: Session, parent: QObject) -> None:
        super().__init__(parent)
        self._session = session
        self._timer = QTimer(self, interval=EVERY_MS)
        self._timer.timeout.connect(self.look)
        session.changed.connect(self._start_or_stop)

    def _start_or_stop(self) -> None:
        if self._session.read_only:
            self._timer.start()
        else:
            self._timer.stop()

    def look(self) -> bool:
        """Takes over what another window wrote since; whether there was anything.

        A file that cannot be read just now is looked at again the next time.
        """
        session = self._session
        if session.file is None or not session.read_only:
            return False
        try:
            if session.file.revision() == session.shown_revision and session.file.entry_count() == len(session.records):
                return False
            number = session.file.revision()
            job = session.file.job_at(number)
            records = tuple(session.file.records())
        except (RiktigError, ValueError, OSError):
            return False
        session.follow(job, records, number)
        return True
