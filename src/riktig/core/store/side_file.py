"""The journal beside a job file: what was about to be written when the program died. SQLite plays it back.

It belongs to one state of one file. A backup that was laid over the file since must not have the journal of the
other played into it; such a journal is put aside under a name of its own. The form of both is SQLite's, published
at sqlite.org/fileformat2.html.
"""

import contextlib
import os
from pathlib import Path

__all__ = ["journal_of", "put_aside_foreign_journal"]

_MAGIC = bytes.fromhex("d9d505f920a163d7")
_COUNTER, _PAGES, _COOKIE = slice(24, 28), slice(28, 32), slice(40, 44)


def journal_of(path: Path) -> Path:
    """Where SQLite keeps the journal of a file."""
    return path.with_name(f"{path.name}-journal")


def put_aside_foreign_journal(path: Path) -> str:
    """Moves away a journal that is not of the file as it stands.

    Returns:
        The name it has now, "" when there was none to move.
    """
    journal = journal_of(path)
    if not os.path.lexists(journal):
        return ""
    if not journal.is_symlink() and _belongs(path, journal):
        return ""
    for number in range(1, 1000):
        aside = path.with_name(f"{path.name}-journal-of-another-{number}")
        with contextlib.suppress(FileExistsError):
            os.link(journal, aside, follow_symlinks=False)
            journal.unlink()
            return aside.name
    return ""


def _belongs(path: Path, journal: Path) -> bool:
    """Whether a journal was begun on this file in the state it is in, or one step before it.

    The first page of the file carries a counter of its changes, its size and a mark of its own, and every change
    begins with keeping that page. The kept page must have the file's mark, and its counter or the one before.
    """
    with path.open("rb") as handle:
        head = handle.read(100)
    with journal.open("rb") as handle:
        begin = handle.read(28)
        if len(begin) < 28 or not begin.startswith(_MAGIC):
            return True  # emptied when its step was done: SQLite does not play it back
        sector, page = int.from_bytes(begin[20:24], "big"), int.from_bytes(begin[24:28], "big")
        if not (512 <= page <= 65536 and 28 <= sector <= 65536):
            return False
        handle.seek(sector)
        while record := handle.read(page + 8):
            if int.from_bytes(record[:4], "big") == 1:
                last_text = record[4:104]
                steps = int.from_bytes(head[_COUNTER], "big") - int.from_bytes(last_text[_COUNTER], "big")
                return last_text[_COOKIE] == head[_COOKIE] and steps in (0, 1) and last_text[_PAGES] == begin[16:20]
    return False
