"""The command ``import``: makes a job of a JSON text."""

import argparse
import getpass

from riktig.cli.files import signer_for
from riktig.cli.words import now_text
from riktig.core.inputs import read_text
from riktig.core.schematic import with_names_recorded
from riktig.core.store import Importer, load_whole

__all__ = ["import_job"]


def import_job(arguments: argparse.Namespace) -> int:
    """Makes a job file from a JSON job, with its records when they are in it."""
    text = read_text(arguments.json, hint="Choose a JSON job that Riktig exported.")
    who = getpass.getuser()
    by = Importer(who, now_text(), signer_for(who))
    load_whole(arguments.out, text, by, where=arguments.json.name, prepared=with_names_recorded)
    print(f"{arguments.out} written")
    return 0
