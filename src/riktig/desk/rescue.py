"""The one handler of bugs: rescues the work, writes a report that can be replayed, and says so."""

import contextlib
import json
import sys
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from types import TracebackType

from riktig.core.edits import dump_action
from riktig.core.errors import RiktigError
from riktig.core.store import dump_job
from riktig.desk.session import Session
from riktig.fault_report import free_name, write_report
from riktig.log_file import LOG

__all__ = ["Rescued", "install", "rescue"]

LAST_ACTIONS = 200


@dataclass(frozen=True, slots=True)
class Rescued:
    """Where a report lies, and the job as it was; None when the job could be written nowhere."""

    report: Path
    job: Path | None


def rescue(session: Session, error: BaseException, folder: Path | None = None) -> Rescued:
    """Writes the job as JSON, the last actions as lines for ``riktig edit``, and a report.

    The job file itself is not touched: all that was confirmed is in it already. Nothing of an earlier fault is
    written over.

    Returns:
        What was written, and where.
    """
    beside = session.file.path.parent if session.file else None
    stem = session.file.path.stem if session.file else "job"
    lines: list[str] = []
    kept_at: Path | None = None
    for place in (folder, beside):
        if place is None:
            continue
        with contextlib.suppress(OSError, RiktigError, ValueError):
            copy_path = free_name(place, f"{stem}-rescued", ".json")
            copy_path.write_text(dump_job(session.job, indent=True), encoding="utf-8")
            kept_at = copy_path
            edits = copy_path.with_suffix(".jsonl")
            edits.write_text(_actions_text(session), encoding="utf-8")
            lines += [
                f"The job as it was is in {copy_path}; to go on from it: riktig import {copy_path.name} NEW.riktig",
                f"The last actions are in {edits}; to do them to a copy of the job: riktig edit COPY {edits.name}",
            ]
            break
    lines += ["What the session said last:", *(f"  {text}" for text in session.log)]
    LOG.error("a fault of the program", exc_info=error)
    report = write_report(error, session.clock(), lines, folder=folder or beside, stem=f"{stem}-fault")
    return Rescued(report, kept_at)


def _actions_text(session: Session) -> str:
    """The last actions, an edit a line; what cannot be written down stands as a comment."""
    lines = []
    for action in session.last_actions(LAST_ACTIONS):
        try:
            lines.append(dump_action(action))
        except (TypeError, ValueError):
            lines.append(f"# {json.dumps(type(action).__name__)} has no text form")
    return "".join(f"{line}\n" for line in lines)


def install(session: Session, show: Callable[[str, Path | None], None]) -> None:
    """Sends every fault of the program, slots and painting included, to ``rescue``.

    ``show`` is called with what to say and the rescued job.

    A fault of the same kind at the same place is told and reported once in a session: a clock would tell it for ever.
    """
    told: set[str] = set()

    def handle(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        if issubclass(kind, KeyboardInterrupt):
            sys.__excepthook__(kind, error, trace)
            return
        if isinstance(error, RiktigError):
            session.say(str(error), wrong=True)
            return
        sys.__excepthook__(kind, error, trace)
        last = error.__traceback__
        while last and last.tb_next:
            last = last.tb_next
        place = f"{kind.__name__} {last.tb_frame.f_code.co_filename}:{last.tb_lineno}" if last else kind.__name__
        if place in told:
            return
        told.add(place)
        rescued = rescue(session, error)
        show(
            "Riktig has an internal error. Your job and everything confirmed are safe in the "
            f"file; a copy, the last actions and a report are at {rescued.report}. You can go on; if it happens again, "
            "close and open the job, or go on in a new file from the job as it was.",
            rescued.job,
        )

    sys.excepthook = handle
