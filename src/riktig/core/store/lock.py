"""Who has a job file open: a lock the system drops by itself when the process dies."""

import fcntl
import json
import os
import socket
from pathlib import Path
from typing import IO

__all__ = ["FileLock"]


class FileLock:
    """An advisory lock beside the job file, ``.name.riktig.lock``, saying who holds it."""

    def __init__(self, job_file: Path) -> None:
        self._path = job_file.with_name(f".{job_file.name}.lock")
        self._handle: IO[str] | None = None

    def take(self, who: str) -> str:
        """Takes the lock; returns "" when it is ours, else who has it."""
        try:
            handle = self._path.open("a+", encoding="utf-8")
        except OSError:
            return "this place, which cannot be written to"
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            handle.seek(0)
            said = handle.read()
            handle.close()
            return _holder(said)
        handle.seek(0)
        handle.truncate()
        json.dump({"who": who, "host": socket.gethostname(), "process": os.getpid()}, handle)
        handle.flush()
        self._handle = handle
        return ""

    def drop(self) -> None:
        """Gives the lock back."""
        if self._handle:
            self._path.unlink(missing_ok=True)
            self._handle.close()
            self._handle = None


def _holder(said: str) -> str:
    try:
        data = json.loads(said)
        return f"{data['who']} on {data['host']} (process {data['process']})"
    except (ValueError, KeyError, TypeError):
        return "another window"
