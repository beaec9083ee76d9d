"""Who has a job file open: a lock that the system drops by itself when the process dies."""

import contextlib
import json
import os
import socket
from pathlib import Path
from typing import IO

import portalocker

__all__ = ["FileLock"]


class FileLock:
    """An advisory lock on the job file itself, and a note beside it, ``.name.riktig.lock``, that says who holds it.

    The lock is on the file and not on its name: through a link or after a renaming it is the same lock. The
    note is words only; one that was left behind locks nobody out.
    """

    def __init__(self, job_file: Path) -> None:
        self._file = job_file
        self._note = job_file.with_name(f".{job_file.name}.lock")
        self._handle: IO[bytes] | None = None

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
            return self._holder()
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
        with part.open("x", encoding="utf-8") as handle:
            json.dump(holder, handle)
        part.replace(self._note)

    def _holder(self) -> str:
        try:
            data = json.loads(self._note.read_text(encoding="utf-8"))
            return f"{data['who']} on {data['host']} (process {data['process']})"
        except (OSError, ValueError, KeyError, TypeError):
            return "another window"
