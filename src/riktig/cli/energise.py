"""The command ``energise``: does a script with power on."""

import argparse
import json

from riktig.cli.files import read_job
from riktig.core.exports import run_panel_script
from riktig.core.inputs import read_text
from riktig.core.simulation import read_script

__all__ = ["energise"]


def energise(arguments: argparse.Namespace) -> int:
    """Does a script with power on; 1 when a step did otherwise."""
    plan, file = read_job(arguments.file)
    file.close()
    results = run_panel_script(plan, read_script(read_text(arguments.script, hint="Choose a script.")))
    if arguments.json:
        print(json.dumps(results, ensure_ascii=False, indent=1))
    else:
        for row in results["steps"]:
            print(f"{'as it must' if row['passed'] else 'OTHERWISE ':11} {row['done']}: {', '.join(row['expected'])}")
            for line in (*row["otherwise"], *row["why"]):
                print(f"{'':12}{line}")
    return 0 if all(row["passed"] for row in results["steps"]) else 1
