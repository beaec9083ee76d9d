"""The command ``trace``: follows a label through the panel."""

import argparse

from riktig.cli.files import read_job
from riktig.core.errors import RiktigError
from riktig.core.labels import INDEX, find
from riktig.core.views import trace_page

__all__ = ["trace"]


def trace(arguments: argparse.Namespace) -> int:
    """Follows a label back to its source and on to its load."""
    plan, file = read_job(arguments.file)
    file.close()
    entry = next(
        (e for e in find(plan.get(INDEX), arguments.label) if e.label.lower() == arguments.label.lower()), None
    )
    if entry is None:
        raise RiktigError(
            f"Nothing in the job is called {arguments.label}.", hint="See show FILE terminals, wires or bom for labels."
        )
    page = trace_page(plan, entry.key)
    if page is None:
        raise RiktigError(
            f"{arguments.label} stands on no path that could be followed.", hint="Try what it is wired to."
        )
    print(f"Trace of {page.title}")
    columns = zip(page.headings, page.ends, page.columns, strict=True)
    for number, (heading, (before, after), stops) in enumerate(columns, 1):
        print(f"\n{number}  {heading}")
        for line in (before, *(stop.words for stop in stops), after):
            if line:
                print(f"  {line}")
    return 0
