"""Commands that read a job: lists, judgement, papers, traces, the panel with power on."""

import argparse
import json

from riktig.cli.files import read_job
from riktig.cli.words import cell_text, now_text, print_table
from riktig.core.errors import RiktigError
from riktig.core.exports import as_csv, as_json, export_all, run_panel_script, schedule
from riktig.core.inputs import read_text
from riktig.core.job import CircuitId
from riktig.core.labels import INDEX, find
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, as_written
from riktig.core.simulation import read_script
from riktig.core.store import WrittenCircuit, dump_rungs
from riktig.core.views import trace_page

__all__ = ["check", "energise", "export", "rungs", "show", "trace"]


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


def export(arguments: argparse.Namespace) -> int:
    """Writes all papers into a folder."""
    plan, file = read_job(arguments.file)
    for path in export_all(plan, file.records(), arguments.folder, made=now_text()[:10]):
        print(path)
    file.close()
    return 0


def rungs(arguments: argparse.Namespace) -> int:
    """Prints a circuit as a rung file."""
    plan, file = read_job(arguments.file)
    file.close()
    circuits = plan.get(CIRCUITS)
    titles = {str(cid): title for cid, title in circuits.titles}
    if arguments.circuit not in titles:
        raise RiktigError(
            f"There is no circuit {arguments.circuit}.", hint=f"There are {', '.join(titles)}.", where="CIRCUIT"
        )
    devices, rungs = as_written(circuits, CircuitId(arguments.circuit))
    print(dump_rungs(WrittenCircuit(titles[arguments.circuit], devices, rungs)))
    return 0


def trace(arguments: argparse.Namespace) -> int:
    """Follows a label back to its source and on to its load."""
    plan, file = read_job(arguments.file)
    file.close()
    found = next(
        (e for e in find(plan.get(INDEX), arguments.label) if e.label.lower() == arguments.label.lower()), None
    )
    if found is None:
        raise RiktigError(
            f"Nothing in the job is called {arguments.label}.", hint="See show FILE terminals, wires or bom for labels."
        )
    page = trace_page(plan, found.key)
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
