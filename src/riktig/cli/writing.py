"""Commands that make or change a job."""

import argparse
import getpass
import sys
import uuid

from riktig.cli.files import signer_for, write_new
from riktig.cli.words import now_text
from riktig.core.edits import after_edits, counted_words, load_actions
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.imports import job_from_loads, read_loads, read_parts
from riktig.core.inputs import read_text
from riktig.core.job import set_part
from riktig.core.records import NewRecord
from riktig.core.schematic import add_written, with_names_recorded
from riktig.core.store import JobFile, load_job, load_rungs

__all__ = ["add", "edit", "import_job", "new", "plan"]


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


def add(arguments: argparse.Namespace) -> int:
    """Adds a circuit written by hand."""
    written = load_rungs(read_text(arguments.rungs, hint="Choose a rung file."), where=arguments.rungs.name)
    file = JobFile(arguments.file, who=getpass.getuser(), signer=signer_for(getpass.getuser()))
    try:
        job = with_names_recorded(add_written(file.job(), written.title, written.devices, written.rungs))
        file.add_revision(job, who=getpass.getuser(), at=now_text(), why=f"add {written.title}")
    finally:
        file.close()
    print(f"{written.title}: {len(written.rungs)} rungs added to {arguments.file}")
    return 0


def edit(arguments: argparse.Namespace) -> int:
    """Does a list of edits and records, all or none."""
    name = arguments.edits.name
    lines = read_text(arguments.edits, hint="Choose a list of edits.").splitlines()
    actions = load_actions(lines, name)
    who = arguments.who or getpass.getuser()
    signer = None if arguments.dry_run else signer_for(who)
    file = JobFile(arguments.file, who=who, read_only=arguments.dry_run, signer=signer)
    try:
        if file.read_only and not arguments.dry_run:
            raise RiktigError(f"{arguments.file.name} cannot be changed ({file.only_looking}), so nothing was done.")
        before = file.job()
        after = after_edits(
            Evaluation(before), [(where, one) for where, one in actions if not isinstance(one, NewRecord)]
        )
        entries = [one for _, one in actions if isinstance(one, NewRecord)]
        if not arguments.dry_run:
            job = None if after == before else after
            file.add_all(job, entries, who=who, at=now_text(), why=f"list {name}", new_id=lambda: uuid.uuid4().hex)
    finally:
        file.close()
    done = "would be done" if arguments.dry_run else "done"
    print(f"{counted_words([action for _, action in actions])} {done}.")
    return 0


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
        found = search_for(replan, min(max(arguments.seconds, 0.0), 3600.0))
        file.add_revision(
            with_names_recorded(replan.put_into(job, found)), who=getpass.getuser(), at=now_text(), why="plan for me"
        )
        reached = replan.reached(found)
    finally:
        file.close()
    for line in reached.lines():
        print(line)
    return 1 if reached.lacking else 0


def import_job(arguments: argparse.Namespace) -> int:
    """Makes a job file from a JSON job."""
    text = read_text(arguments.json, hint="Choose a JSON job that Riktig exported.")
    write_new(arguments.out, with_names_recorded(load_job(text, where=arguments.json.name)), "import")
    return 0
