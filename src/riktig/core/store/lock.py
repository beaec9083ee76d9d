"""Who has a job file open: a lock that the system drops by itself when the process dies."""

import contextlib
import glob
import json
import os
import socket
import stat
from pathlib import Path
from typing import IO

import portalocker

from riktig.core.store.rescue_copy import is_running

__all__ = ["FileLock"]

LONGEST_NOTE = 4_000


class FileLock:
    """An advisory lock on the job file itself, and a note beside it, ``.name.riktig.lock``, that says who holds it.

    The lock is on the file and not on its name: through a link or after a renaming it is the same lock. The
    note is words; one that was left behind on this machine locks nobody out. Where the folder is shared with
    other machines the lock may not be seen there: a note of another machine counts as its lock.
    """

    def __init__(self, job_file: Path) -> None:
        self._file = job_file
        self._note = job_file.with_name(f".{job_file.name}.lock")
        self._handle: IO[bytes] | None = None

    @property
    def handle(self) -> int:
        """The open file's number, while the lock is ours.

        Raises:
            ValueError: it is not.
        """
        if self._handle is None:
            raise ValueError("the lock is not held")
        return self._handle.fileno()

    def take(self, who: str) -> str:
        """Takes the lock; returns "" when it is ours or there is nothing to lock, else who has it."""
        try:
            handle = self._file.open("rb")
        except OSError:
            return ""  # what is wrong with the file is said where it is read
        try:
            portalocker.lock(handle, portalocker.LOCK_EX | portalocker.LOCK_NB)
        except portalocker.LockException:
            handle.close()
            return self._holder() or "another window"
        elsewhere = self._holder(elsewhere=True)
        if elsewhere:
            handle.close()
            return f"{elsewhere}, as {self._note.name} beside it says (remove that file if nobody is at work there)"
        self._handle = handle
        try:
            self._write_note({"who": who, "host": socket.gethostname(), "process": os.getpid()})
        except OSError:
            self.drop()
            return "this place, which cannot be written to"
        return ""

    def drop(self) -> None:
        """Gives the lock back."""
        if self._handle:
            with contextlib.suppress(OSError):
                self._note.unlink(missing_ok=True)  # while the lock is still ours: never another's note
            self._handle.close()
            self._handle = None

    def _write_note(self, holder: dict[str, str | int]) -> None:
        """Puts the note in place whole; a link that stands there is replaced, never followed."""
        part = self._note.with_name(f"{self._note.name}.{os.getpid()}")
        part.unlink(missing_ok=True)
        for left in self._note.parent.glob(f"{glob.escape(self._note.name)}.*"):
            with contextlib.suppress(OSError, ValueError):
                if not is_running(int(left.suffix[1:])):
                    left.unlink()  # of one that was killed while it wrote its note
        with part.open("x", encoding="utf-8") as handle:
            json.dump(holder, handle)
        part.replace(self._note)

    def _holder(self, *, elsewhere: bool = False) -> str:
        """Who the note names; "" when it names nobody, or, with ``elsewhere``, somebody on this machine."""
        try:
            note = self._note.stat(follow_symlinks=False)
            if not stat.S_ISREG(note.st_mode) or note.st_size > LONGEST_NOTE:
                return ""
            data = json.loads(self._note.read_text(encoding="utf-8"))
            who, host, process = str(data["who"]), str(data["host"]), int(data["process"])
        except (OSError, ValueError, KeyError, TypeError, RecursionError):
            return ""
        if elsewhere and host == socket.gethostname():
            return ""
        return f"{who} on {host} (process {process})"
