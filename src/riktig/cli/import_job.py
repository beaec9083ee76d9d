"""The command ``import``: makes a job of a JSON text."""

import argparse

from riktig.cli.files import write_new
from riktig.core.inputs import read_text
from riktig.core.schematic import with_names_recorded
from riktig.core.store import load_job

__all__ = ["import_job"]


def import_job(arguments: argparse.Namespace) -> int:
    """Makes a job file from a JSON job."""
    text = read_text(arguments.json, hint="Choose a JSON job that Riktig exported.")
    write_new(arguments.out, with_names_recorded(load_job(text, where=arguments.json.name)), "import")
    return 0
