"""The command ``show``: prints a derived list."""

import argparse

from riktig.cli.files import read_job
from riktig.cli.words import cell_text, print_table
from riktig.core.exports import as_csv, as_json, schedule

__all__ = ["show"]


def show(arguments: argparse.Namespace) -> int:
    """Prints a derived list, as a table, CSV or JSON."""
    plan, file = read_job(arguments.file)
    table = schedule(arguments.what, plan)
    file.close()
    if arguments.json:
        print(as_json(table))
    elif arguments.csv:
        print(as_csv(table), end="")
    else:
        print_table([h for _, h in table.columns], [[cell_text(v) for v in r] for r in table.rows])
    return 0
