"""The command ``check``: judges a panel."""

import argparse

from riktig.cli.files import read_job
from riktig.core.rules import RULES, Verdict

__all__ = ["check"]


def check(arguments: argparse.Namespace) -> int:
    """Prints the judgement of every clause; 1 when one fails."""
    plan, file = read_job(arguments.file)
    results = plan.get(RULES)
    file.close()
    for result in results:
        print(f"{result.verdict.value:16} {result.code}  {result.title} ({result.clause})")
        for finding in result.findings:
            print(f"{'':18}{finding.message} {finding.remedy}")
    failed = sum(result.verdict is Verdict.FAILS for result in results)
    print(f"{failed} clauses fail. Local codes and licensed practice decide; this is no certificate.")
    return 1 if failed else 0
