"""What is said of the effect of a change: the ticks and readings that it took, and all of it on paper."""

from collections.abc import Sequence
from pathlib import Path
from typing import Protocol

from PySide6.QtWidgets import QFileDialog, QWidget

from riktig.core.exports import file_stem, write_set
from riktig.core.exports.paper_sets import head_of, paper_of
from riktig.core.production import Stale
from riktig.core.views import Effect, change_order
from riktig.desk.session import Session
from riktig.places import jobs_folder

__all__ = ["lost_words", "print_change_order"]


def lost_words(lost: Sequence[Stale], name: str) -> str:
    """Which ticks and readings no longer count.

    Args:
        lost: What a change took.
        name: The change.
    """
    wires = list(dict.fromkeys(tick.name for tick in lost))
    shown = "; ".join(wires[:3]) + (" …" if len(wires) > 3 else "")
    ticks = sum(tick.what != "reading" for tick in lost)
    return (
        f"After “{name}”, {_count(ticks, 'tick')} and {_count(len(lost) - ticks, 'reading')} no longer count: {shown}. "
        "Build and Prove say why."
    )


def _count(number: int, what: str) -> str:
    return f"{number} {what}" if number == 1 else f"{number} {what}s"


class _Window(Protocol):
    session: Session


def print_change_order(window: _Window, differences: tuple[Effect, ...], name: str) -> Path | None:
    """Asks where, and writes the list as a PDF; what cannot be written is said.

    Args:
        window: The window, over which it is asked.
        differences: What is different.
        name: The edit that brought it.

    Returns:
        Where it was written; None when it was not.
    """
    session = window.session
    offered = jobs_folder() / f"{file_stem(session.job)}_change_order.pdf"
    over = window if isinstance(window, QWidget) else None
    chosen, _ = QFileDialog.getSaveFileName(over, "Change order", str(offered), "PDF (*.pdf)")
    if not chosen:
        return None
    path = Path(chosen)
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        head, paper = head_of(session.job, session.clock(), session.who), paper_of(session.job)
        write_set(path, head, (), [change_order(differences, name)], paper=paper)
    except OSError as error:
        session.say(f"{path} cannot be written ({error.strerror}); the list is still here.", wrong=True)
        return None
    session.say(f"The change order is in {path}.")
    return path
