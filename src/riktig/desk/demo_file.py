"""A fresh copy of the demonstration job to try things on."""

import tempfile
from pathlib import Path

from riktig.core.store import JobFile
from riktig.demo_job import demo_job
from riktig.desk.session import Session

__all__ = ["demo_file"]


def demo_file(session: Session, name: str = "kelp-shed") -> JobFile:
    """Writes the demonstration of that name into a folder of its own and opens it.

    Returns:
        The file, open.
    """
    folder = Path(tempfile.mkdtemp(prefix="riktig-demo-"))
    job = demo_job(name)
    path = folder / f"{job.number}.riktig"
    return JobFile.create(path, job, who=session.who, at=session.clock(), why="demo", signer=session.signer)
