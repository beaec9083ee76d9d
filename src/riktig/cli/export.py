"""The command ``export``: writes all papers."""

import argparse
import getpass
import sys

from riktig.cli.files import read_job
from riktig.cli.words import now_text
from riktig.core.evaluation import Evaluation
from riktig.core.exports import Issue, export_all, file_stem, photos_in, write_house_exports
from riktig.core.handover import last_issue, write_change_sheet
from riktig.core.store import dump_whole

__all__ = ["export"]


def export(arguments: argparse.Namespace) -> int:
    """Writes all papers into a folder."""
    plan, file = read_job(arguments.file)
    whole = dump_whole(file, indent=True)
    made, who = now_text()[:10], getpass.getuser()
    issued = Issue(made, who, whole, arguments.bom, photos_in(file))
    for path in export_all(plan, file.records(), arguments.folder, issue=issued):
        print(path)
    issue = last_issue(file.records())
    if issue and issue.facts.document:
        sheet = arguments.folder / f"{file_stem(plan.document)}_changes.pdf"
        if write_change_sheet(sheet, Evaluation(file.job_at(issue.facts.document)), plan, issue, made):
            print(sheet)
    house_files = write_house_exports(plan, file.records(), arguments.folder)
    for path in house_files.files:
        print(path)
    for fault in house_files.faults:
        print(f"riktig: {fault}; everything else is written.", file=sys.stderr)
    file.close()
    return 1 if house_files.faults else 0
