"""Files read from outside: regular files only, up to a size, never waiting."""

import os
import stat
from pathlib import Path

from riktig.core.errors import RiktigError

__all__ = ["read_bytes", "read_text", "regular_file"]

LARGEST = 20_000_000
"""No list, script or job that Riktig writes comes near this, bytes (chosen by us)."""


def regular_file(path: Path, *, hint: str = "Choose a file.") -> os.stat_result:
    """What the system says of a file that can be read to its end.

    Args:
        path: Where it is written; an existing file is replaced.
        hint: What the user can do when it fails.

    Raises:
        RiktigError: there is no such file, or it is a folder, a pipe or a device, which may never end.
    """
    try:
        status = path.stat()
    except (OSError, ValueError) as error:  # ValueError: a zero byte in the name
        raise _unreadable(path, error, hint) from error
    if not stat.S_ISREG(status.st_mode):
        what = "a folder" if stat.S_ISDIR(status.st_mode) else "no file but a pipe or a device"
        raise RiktigError(f"{path.name or path} is {what}, so nothing was read.", hint=hint, where=str(path))
    return status


def read_bytes(path: Path, *, most: int = LARGEST, hint: str = "Choose a file.") -> bytes:
    """All of a regular file.

    Args:
        path: The file; a link to one will do.
        most: How many bytes it may have.
        hint: What to do when it cannot be read.

    Raises:
        RiktigError: it is not a regular file, cannot be read, or is larger than ``most``.
    """
    regular_file(path, hint=hint)
    try:
        # Without waiting: between the look and the opening a pipe may have taken the file's place.
        handle = os.open(path, os.O_RDONLY | os.O_NONBLOCK | os.O_CLOEXEC)
        try:
            if not stat.S_ISREG(os.fstat(handle).st_mode):
                raise RiktigError(f"{path.name} is not a file, so nothing was read.", hint=hint, where=str(path))
            with open(handle, "rb", closefd=False) as stream:
                data = stream.read(most + 1)
        finally:
            os.close(handle)
    except OSError as error:
        raise _unreadable(path, error, hint) from error
    if len(data) > most:
        raise RiktigError(
            f"{path.name} is too large: it has more than {most / 1e6:g} MB, so nothing was read.",
            hint=hint,
            where=str(path),
        )
    return data


def read_text(path: Path, *, most: int = LARGEST, hint: str = "Choose a text file.") -> str:
    """All of a text file in UTF-8.

    Args:
        path: Where it is written; an existing file is replaced.
        most: At most so many bytes.
        hint: What the user can do when it fails.

    Raises:
        RiktigError: it cannot be read, is too large, or is no text in UTF-8.
    """
    data = read_bytes(path, most=most, hint=hint)
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = data.count(b"\n", 0, error.start) + 1
        raise RiktigError(
            f"{path.name} cannot be read: it is no text in UTF-8, so nothing was taken in.",
            hint=hint,
            where=f"{path}, line {line}",
        ) from error


def _unreadable(path: Path, error: OSError | ValueError, hint: str) -> RiktigError:
    why = error.strerror if isinstance(error, OSError) and error.strerror else str(error)
    return RiktigError(f"{path.name or path} cannot be read ({why}).", hint=hint, where=str(path))
