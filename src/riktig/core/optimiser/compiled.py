"""The one place where numeric functions are compiled, with their types kept.

numba is an extra: without it the same functions run as they are written, some three hundred times slower, with the same
result to the last bit, for they draw no random numbers of their own.
"""

import hashlib
import os
from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import TypeVar, cast

try:
    import numba
except ImportError:  # the planner then runs as it is written
    numba = None

__all__ = ["compiled", "inlined", "sources_digest"]

Function = TypeVar("Function", bound=Callable[..., object])


def compiled(function: Function) -> Function:
    """The same function as machine code: kept on disk, and running beside the interface's thread.

    What is kept belongs to the sources it was compiled from: a change in any file of the function's folder, or
    another numba, compiles anew. numba itself looks only at the file that holds the function, so a function
    that calls one of another file would go on with the old one.
    """
    return _compiled(function, "never")


def inlined(function: Function) -> Function:
    """The same for a small function that is called often.

    Its code goes into its callers, which spares the counting of references to every table it is handed.
    """
    return _compiled(function, "always")


def _compiled(function: Function, inline: str) -> Function:
    if numba is None:
        return function
    folder = _kept_in(Path(function.__code__.co_filename).parent)
    if folder is None:
        return cast(Function, numba.njit(nogil=True, inline=inline)(function))
    before = numba.config.CACHE_DIR
    numba.config.CACHE_DIR = str(folder)  # read once, where the function is wrapped
    try:
        return cast(Function, numba.njit(cache=True, nogil=True, inline=inline)(function))
    finally:
        numba.config.CACHE_DIR = before


def sources_digest(folder: Path) -> str:
    """A digest of every source file in a folder and of the compiler's version."""
    digest = hashlib.sha256(getattr(numba, "__version__", "none").encode())
    for path in sorted(folder.glob("*.py")):
        digest.update(path.name.encode() + b"\0" + path.read_bytes() + b"\0")
    return digest.hexdigest()[:16]


@cache
def _kept_in(sources: Path) -> Path | None:
    """Where machine code of these sources is kept: beside them, or with the user's own; None where neither can be."""
    name = f"compiled-{sources_digest(sources)}"
    home = Path(os.environ.get("XDG_CACHE_HOME") or Path.home() / ".cache")
    for place in (sources / "__pycache__" / name, home / "riktig" / name):
        try:
            place.mkdir(parents=True, exist_ok=True)
        except OSError:
            continue
        if os.access(place, os.W_OK):
            return place
    return None
