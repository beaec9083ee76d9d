"""The command ``plan``: seeks a better plate."""

import argparse
import getpass

from riktig.cli.files import signer_for
from riktig.cli.words import now_text
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.imports import read_parts
from riktig.core.job import set_part
from riktig.core.schematic import with_names_recorded
from riktig.core.store import JobFile

__all__ = ["plan"]


def plan(arguments: argparse.Namespace) -> int:
    """Seeks a better plate and keeps it; 1 when something does not fit."""
    from riktig.core.optimiser.replan import replan_of  # late: what it is compiled with takes half a second
    from riktig.timed_search import search_for

    file = JobFile(arguments.file, who=getpass.getuser(), signer=signer_for(getpass.getuser()))
    try:
        if file.read_only:
            raise RiktigError(f"{arguments.file.name} cannot be changed ({file.only_looking}), so nothing was planned.")
        job = file.job()
        for part in read_parts(arguments.parts) if arguments.parts else ():
            job = set_part(job, part)
        replan = replan_of(Evaluation(job))
        plan_found = search_for(replan, min(max(arguments.seconds, 0.0), 3600.0))
        file.add_revision(
            with_names_recorded(replan.put_into(job, plan_found)),
            who=getpass.getuser(),
            at=now_text(),
            why="plan for me",
        )
        reached = replan.reached(plan_found)
    finally:
        file.close()
    for line in reached.lines():
        print(line)
    return 1 if reached.lacking else 0
