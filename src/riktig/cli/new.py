"""The command ``new``: makes a job."""

import argparse
import sys

from riktig.cli.files import write_new
from riktig.core.imports import job_from_loads, read_loads
from riktig.core.schematic import with_names_recorded

__all__ = ["new"]


def new(arguments: argparse.Namespace) -> int:
    """Makes a job, from a load list if one is given."""
    rows: tuple[object, ...] = ()
    job = job_from_loads((), arguments.number, arguments.title)
    if arguments.loads:
        rows, notes = read_loads(arguments.loads)
        for note in notes:
            print(f"riktig: {arguments.loads.name}: {note}", file=sys.stderr)
        job = job_from_loads(rows, arguments.number, arguments.title)
    write_new(arguments.out, with_names_recorded(job), "new job")
    return 0
