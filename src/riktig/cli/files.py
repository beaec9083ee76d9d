"""Job files for the commands: opened for reading, made anew, with the key of whoever is logged in."""

import getpass
import sys
from pathlib import Path

from riktig.cli.words import now_text
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.job import Job
from riktig.core.records import Signer
from riktig.core.store import JobFile, signer_of
from riktig.places import keys_folder

__all__ = ["read_job", "signer_for", "write_new"]


def signer_for(who: str) -> Signer | None:
    """The key of a person on this machine; None, which is said, when there is none."""
    try:
        return signer_of(who, keys_folder())
    except RiktigError as error:
        print(f"riktig: {error}", file=sys.stderr)
        return None


def write_new(path: Path, job: Job, why: str) -> None:
    """Makes a job file and says so."""
    who = getpass.getuser()
    JobFile.create(path, job, who=who, at=now_text(), why=why, signer=signer_for(who)).close()
    print(f"{path} written")


def read_job(path: Path) -> tuple[Evaluation[Job], JobFile]:
    """Opens a job for reading; problems in it are said."""
    file = JobFile(path, read_only=True)
    for problem in file.problems:
        print(f"riktig: {path.name}, {problem}.", file=sys.stderr)
    return Evaluation(file.job()), file
