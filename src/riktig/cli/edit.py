"""The command ``edit``: does a list of edits and records."""

import argparse
import getpass
import uuid

from riktig.cli.files import signer_for
from riktig.cli.words import now_text
from riktig.core.edits import after_edits, counted_words, load_actions
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.inputs import read_text
from riktig.core.records import NewRecord
from riktig.core.store import JobFile

__all__ = ["edit"]


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
            Evaluation(before), [(where, action) for where, action in actions if not isinstance(action, NewRecord)]
        )
        entries = [action for _, action in actions if isinstance(action, NewRecord)]
        if not arguments.dry_run:
            job = None if after == before else after
            file.add_all(job, entries, who=who, at=now_text(), why=f"list {name}", new_id=lambda: uuid.uuid4().hex)
    finally:
        file.close()
    done = "would be done" if arguments.dry_run else "done"
    print(f"{counted_words([action for _, action in actions])} {done}.")
    return 0
