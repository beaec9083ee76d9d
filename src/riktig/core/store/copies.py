"""New job files that go on from an older one: from a job that can only be looked at, or that a fault left behind."""

from collections.abc import Callable
from functools import partial
from pathlib import Path

from riktig.core.errors import RiktigError
from riktig.core.inputs import read_text
from riktig.core.records import Signer
from riktig.core.store.job_file import JobFile
from riktig.core.store.job_json import load_job

__all__ = ["go_on_from_text", "go_on_in_copy"]

MOST_COPIES = 1000


def go_on_in_copy(file: JobFile, *, who: str, at: str, signer: Signer | None = None) -> JobFile:
    """Makes a new job file beside an open one, with the job as that one holds it and an empty log.

    Ticks and readings are not taken over: it is not known which of them to believe. They stay in the old file, which
    is not touched.

    Args:
        file: The open file.
        who: The name of the person.
        at: When, as text.
        signer: The key to sign with; None signs nothing.

    Returns:
        The new file, open.

    Raises:
        RiktigError: the job cannot be read, or no file can be made there.
    """
    broken = "; ".join(file.problems[:3])
    why = f"goes on from {file.path.name}" + (f", whose record is not what was written ({broken})" if broken else "")
    make = partial(JobFile.create, job=file.job(), who=who, at=at, why=why, signer=signer)
    return _new_file(file.path, "copy", make)


def go_on_from_text(path: Path, *, who: str, at: str, signer: Signer | None = None) -> JobFile:
    """Makes a new job file beside a job that was written as JSON, with an empty log.

    Args:
        path: Where it is written; an existing file is replaced.
        who: The name of the person.
        at: When, as text.
        signer: The key to sign with; None signs nothing.

    Returns:
        The new file, open.

    Raises:
        RiktigError: it is no job, or no file can be made there.
    """
    job = load_job(read_text(path))
    make = partial(JobFile.create, job=job, who=who, at=at, why=f"goes on from {path.name}", signer=signer)
    return _new_file(path, "goes-on", make)


def _new_file(beside: Path, word: str, make: Callable[[Path], JobFile]) -> JobFile:
    for number in range(1, MOST_COPIES):
        path = beside.with_name(f"{beside.stem}-{word}-{number}.riktig")
        if not path.exists() and not path.is_symlink():
            return make(path)
    raise RiktigError(
        f"There are {MOST_COPIES} copies of {beside.name} already.", hint="Move some of them to another folder."
    )
