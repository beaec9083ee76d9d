"""The command ``export``: writes all papers."""

import argparse

from riktig.cli.files import read_job
from riktig.cli.words import now_text
from riktig.core.exports import export_all
from riktig.core.store import dump_whole

__all__ = ["export"]


def export(arguments: argparse.Namespace) -> int:
    """Writes all papers into a folder."""
    plan, file = read_job(arguments.file)
    whole = dump_whole(file, indent=True)
    for path in export_all(plan, file.records(), arguments.folder, made=now_text()[:10], whole=whole):
        print(path)
    file.close()
    return 0
