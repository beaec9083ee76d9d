"""A report of a fault of the program: what happened, where, and what was done before it."""

import contextlib
import tempfile
import traceback
from collections.abc import Sequence
from pathlib import Path

from riktig import __version__
from riktig.places import log_folder

__all__ = ["free_name", "write_report"]


def free_name(folder: Path, stem: str, ending: str) -> Path:
    """A name that is not taken: an earlier report or rescue is never overwritten."""
    for number in range(1, 10_000):
        path = folder / f"{stem}-{number}{ending}"
        if not path.exists() and not path.is_symlink():
            return path
    raise FileExistsError(f"{folder / stem} has too many")


def write_report(
    error: BaseException, at: str, lines: Sequence[str], *, folder: Path | None = None, stem: str = "riktig-fault"
) -> Path:
    """Writes a report and returns its path; an empty path when it could be written nowhere.

    Args:
        error: What went wrong.
        at: When.
        lines: What was done before, and what else helps.
        folder: Where to write it first; then among the user's reports, then among the temporary files.
        stem: What its name begins with.

    Returns:
        The path; an empty one when it could be written nowhere.
    """
    text = "\n".join(
        [f"Riktig {__version__}, {at}", *lines, "", "".join(traceback.format_exception(error, chain=True))]
    )
    for place in (folder, log_folder(), Path(tempfile.gettempdir())):
        if place is None:
            continue
        with contextlib.suppress(OSError):
            place.mkdir(parents=True, exist_ok=True)
            path = free_name(place, stem, ".txt")
            path.write_text(text, encoding="utf-8", errors="backslashreplace")
            return path
    return Path()
