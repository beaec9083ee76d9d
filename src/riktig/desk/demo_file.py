"""A fresh copy of the demonstration job to try things on."""

import tempfile
from pathlib import Path

from riktig.core.store import JobFile
from riktig.demo_job import demo_job
from riktig.desk.session import Session

__all__ = ["demo_file"]


def demo_file(session: Session) -> JobFile:
    """Writes the demonstration job into a folder of its own and opens it."""
    folder = Path(tempfile.mkdtemp(prefix="riktig-demo-"))
    path = folder / "KS-0417.riktig"
    return JobFile.create(path, demo_job(), who=session.who, at=session.clock(), why="demo")
