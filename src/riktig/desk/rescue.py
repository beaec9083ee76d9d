"""The one handler of bugs: rescues the work, writes a report that can be replayed, and says so."""

import contextlib
import json
import sys
from collections.abc import Callable
from pathlib import Path
from types import TracebackType

from riktig.core.edits import dump_action
from riktig.core.errors import RiktigError
from riktig.core.store import dump_job
from riktig.desk.session import Session
from riktig.fault_report import free_name, write_report

__all__ = ["install", "rescue"]

LAST_ACTIONS = 200


def rescue(session: Session, error: BaseException, folder: Path | None = None) -> Path:
    """Writes the job as JSON, the last actions as lines for ``riktig edit``, and a report; returns the report's path.

    The job file itself is not touched: all that was confirmed is in it already. Nothing of an earlier fault is
    written over.
    """
    beside = session.file.path.parent if session.file else None
    stem = session.file.path.stem if session.file else "job"
    lines: list[str] = []
    for place in (folder, beside):
        if place is None:
            continue
        with contextlib.suppress(OSError, RiktigError, ValueError):
            kept = free_name(place, f"{stem}-rescued", ".json")
            kept.write_text(dump_job(session.job, indent=True), encoding="utf-8")
            edits = kept.with_suffix(".jsonl")
            edits.write_text(_actions_text(session), encoding="utf-8")
            lines += [
                f"The job as it was is in {kept}; to go on from it: riktig import {kept.name} NEW.riktig",
                f"The last actions are in {edits}; to do them to a copy of the job: riktig edit COPY {edits.name}",
            ]
            break
    lines += ["What the session said last:", *(f"  {text}" for text in session.log)]
    return write_report(error, session.clock(), lines, folder=folder or beside, stem=f"{stem}-fault")


def _actions_text(session: Session) -> str:
    """The last actions, an edit a line; what cannot be written down stands as a comment."""
    lines = []
    for action in session.last_actions(LAST_ACTIONS):
        try:
            lines.append(dump_action(action))
        except (TypeError, ValueError):
            lines.append(f"# {json.dumps(type(action).__name__)} has no text form")
    return "".join(f"{line}\n" for line in lines)


def install(session: Session, show: Callable[[str], None]) -> None:
    """Sends every fault of the program, slots and painting included, to ``rescue``.

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
        report = rescue(session, error)
        show(
            "Riktig made a mistake of its own. Your job and everything confirmed are safe in the "
            f"file; a copy, the last actions and a report are at {report}. You can go on; if it happens again, "
            "close and open the job."
        )

    sys.excepthook = handle
