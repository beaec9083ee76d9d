"""The one handler of bugs: rescues the work, writes a report, and says so."""

import sys
import tempfile
import traceback
from collections.abc import Callable
from pathlib import Path
from types import TracebackType

from riktig import __version__
from riktig.core.errors import RiktigError
from riktig.core.store import dump_job
from riktig.desk.session import Session

__all__ = ["install", "rescue"]


def rescue(session: Session, error: BaseException, folder: Path | None = None) -> Path:
    """Writes the job as JSON and a report of the fault; returns the report's path.

    The job file itself is not touched: all that was confirmed is in it already.
    """
    beside = session.file.path.parent if session.file else None
    for place in (folder, beside, Path(tempfile.gettempdir())):
        if place is None:
            continue
        stem = session.file.path.stem if session.file else "job"
        try:
            kept = place / f"{stem}-rescued.json"
            kept.write_text(dump_job(session.job, indent=True), encoding="utf-8")
            report = place / f"{stem}-fault.txt"
            lines = traceback.format_exception(error)
            report.write_text(
                f"Riktig {__version__}, {session.clock()}\nThe job was rescued to {kept}\n\n{''.join(lines)}",
                encoding="utf-8",
            )
        except OSError:
            continue
        return report
    return Path()


def install(session: Session, show: Callable[[str], None]) -> None:
    """Sends every fault of the program, slots and painting included, to ``rescue``."""

    def handle(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        if issubclass(kind, KeyboardInterrupt):
            sys.__excepthook__(kind, error, trace)
            return
        if isinstance(error, RiktigError):
            session.say(str(error), wrong=True)
            return
        report = rescue(session, error)
        sys.__excepthook__(kind, error, trace)
        show(
            "Riktig made a mistake of its own. Your job and everything confirmed are safe in the "
            f"file; a copy and a report are at {report}. You can go on; if it happens again, "
            "close and open the job."
        )

    sys.excepthook = handle
