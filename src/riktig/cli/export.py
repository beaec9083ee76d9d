"""The command ``export``: writes all papers."""

import argparse
import getpass

from riktig.cli.files import read_job
from riktig.cli.words import now_text
from riktig.core.exports import Issue, export_all
from riktig.core.store import dump_whole

__all__ = ["export"]


def export(arguments: argparse.Namespace) -> int:
    """Writes all papers into a folder."""
    plan, file = read_job(arguments.file)
    whole = dump_whole(file, indent=True)
    made, who = now_text()[:10], getpass.getuser()
    for path in export_all(plan, file.records(), arguments.folder, issue=Issue(made, who, whole, arguments.bom)):
        print(path)
    file.close()
    return 0
