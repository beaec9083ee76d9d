"""A copy of an open job file, kept apart so that the work can go on when the file is taken away."""

import contextlib
import os
import sqlite3
import tempfile
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

__all__ = ["FileState", "give_mark", "is_running", "rescue_places", "why_not_ours", "write_whole"]

_HEADER = slice(24, 44)


@dataclass(frozen=True, slots=True)
class FileState:
    """What an open file looked like after our last step: which file it is, how large, and its counters."""

    device: int
    inode: int
    size: int
    counters: bytes

    @classmethod
    def of(cls, handle: int) -> "FileState":
        """Of an open file."""
        stat = os.fstat(handle)
        return cls(stat.st_dev, stat.st_ino, stat.st_size, os.pread(handle, 100, 0)[_HEADER])

    def is_step_after(self, before: "FileState") -> bool:
        """Whether one step of ours lies between the two, and nothing else.

        SQLite counts its steps, and the file's mark stays.
        """
        steps = int.from_bytes(self.counters[:4], "big") - int.from_bytes(before.counters[:4], "big")
        return steps == 1 and self.counters[16:] == before.counters[16:]


def why_not_ours(path: Path, handle: int, last: FileState | None) -> str:
    """What happened to the file that is open as ``handle`` under the name ``path``; "" when it is as we left it."""
    now = FileState.of(handle)
    try:
        named = path.stat(follow_symlinks=False)
    except OSError:
        named = None
    if named is None:
        return "was renamed, moved or deleted"
    if (named.st_dev, named.st_ino) != (now.device, now.inode):
        return "was replaced by another file"
    if now != last:
        return "was written over by another program"
    return ""


def rescue_places(path: Path, handle: int) -> Iterator[Path]:
    """Names for a rescue copy, best first.

    Beside the file's name, beside the file itself, in the home, among the temporary files.
    """
    folders = [path.parent]
    with contextlib.suppress(OSError):
        folders.append(Path(f"/proc/self/fd/{handle}").readlink().parent)
    folders += [Path.home(), Path(tempfile.gettempdir())]
    for folder in dict.fromkeys(folders):
        if not folder.is_dir():
            continue
        for number in range(1, 100):
            name = folder / f"{path.stem}-rescued-{number}{path.suffix}"
            if not os.path.lexists(name):
                yield name
                break


def write_whole(source: sqlite3.Connection, path: Path) -> None:
    """Writes a database to a name that is not taken: whole and durable, or not at all.

    Raises:
        FileExistsError: the name is taken.
        OSError: it cannot be written.
        sqlite3.Error: it cannot be written.
    """
    for left in path.parent.glob(f".{path.name}.new-*"):
        with contextlib.suppress(OSError, ValueError):
            if not is_running(int(left.name.rpartition("-")[2])):
                left.unlink()  # of one that died while it made a job of this name
    part = path.with_name(f".{path.name}.new-{os.getpid()}")
    part.unlink(missing_ok=True)
    try:
        target = sqlite3.connect(part)
        try:
            target.execute("PRAGMA journal_mode = OFF")  # nothing is at the name yet that could be half
            source.backup(target)
            give_mark(target)
        finally:
            target.close()
        _flush(part)
        _give_name(part, path)
        _flush(path.parent)
    finally:
        part.unlink(missing_ok=True)


def give_mark(db: sqlite3.Connection) -> None:
    """Gives a file its own mark, by which its journal is known: any number that no other file is likely to have."""
    mark = int(db.execute("SELECT abs(random()) % 2000000000 + 1").fetchone()[0])
    db.execute(f"PRAGMA schema_version = {mark}")


def _give_name(part: Path, path: Path) -> None:
    """A second name for the whole file, refused when it is taken; then the first goes."""
    try:
        os.link(part, path)
    except FileExistsError:
        raise
    except OSError:  # a file system without links: the name is looked at first
        if os.path.lexists(path):
            raise FileExistsError(path) from None
        part.rename(path)


def _flush(path: Path) -> None:
    handle = os.open(path, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def is_running(process: int) -> bool:
    """Whether a process of this machine is there, whoever it belongs to."""
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True
