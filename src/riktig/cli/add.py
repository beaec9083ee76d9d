"""The command ``add``: adds a circuit written by hand."""

import argparse
import getpass

from riktig.cli.files import signer_for
from riktig.cli.words import now_text
from riktig.core.inputs import read_text
from riktig.core.schematic import add_written, names_taken, taken_words, with_names_recorded
from riktig.core.store import JobFile, load_rungs

__all__ = ["add"]


def add(arguments: argparse.Namespace) -> int:
    """Adds a circuit written by hand."""
    written = load_rungs(read_text(arguments.rungs, hint="Choose a rung file."), where=arguments.rungs.name)
    file = JobFile(arguments.file, who=getpass.getuser(), signer=signer_for(getpass.getuser()))
    try:
        before = file.job()
        taken = names_taken(before, written.found)
        job = with_names_recorded(add_written(before, written.title, written.devices, written.rungs, written.found))
        file.add_revision(job, who=getpass.getuser(), at=now_text(), why=f"add {written.title}")
    finally:
        file.close()
    print(f"{written.title}: {len(written.rungs)} rungs added to {arguments.file}")
    if taken:
        print(taken_words(taken))
    return 0
