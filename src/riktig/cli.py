"""The command line: everything the window derives, without a display.

Exit codes: 0 fine, 1 findings that fail, 2 bad input or something that could not be done.
"""

import argparse
import getpass
import json
import sys
import uuid
from collections.abc import Sequence
from dataclasses import asdict
from datetime import datetime
from pathlib import Path

from riktig import __version__
from riktig.core.edits import after_edits, counted_words, load_actions
from riktig.core.errors import RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import SCHEDULES, as_csv, as_json, export_all, run_panel_script, schedule
from riktig.core.imports import job_from_loads, read_loads, read_parts
from riktig.core.inputs import read_text
from riktig.core.job import CircuitId, Job, set_part
from riktig.core.labels import INDEX, find
from riktig.core.records import NewRecord, Signer, StoredEntry, fingerprint
from riktig.core.rules import RULES, Verdict
from riktig.core.schematic import CIRCUITS, add_written, as_written, with_names_recorded
from riktig.core.simulation import read_script
from riktig.core.store import JobFile, WrittenCircuit, dump_rungs, load_job, load_rungs, signer_of
from riktig.core.views import trace_page
from riktig.demo_job import DEMOS, demo_job
from riktig.fault_report import write_report
from riktig.places import keys_folder

__all__ = ["main"]


def main(argv: Sequence[str] | None = None) -> int:
    """Runs one command and returns its exit code."""
    arguments = _parser().parse_args(argv)
    try:
        code: int = arguments.run(arguments)
    except RiktigError as error:
        print(f"riktig: {error}", file=sys.stderr)
        return 2
    except BrokenPipeError:
        return 0
    except Exception as error:  # noqa: BLE001 - the last place where a fault of the program can be reported
        report = write_report(error, _now(), [" ".join(argv or sys.argv[1:])])
        print(
            f"riktig: a fault of Riktig's own ({type(error).__name__}); no file was changed by this step. "
            f"A report is at {report}.",
            file=sys.stderr,
        )
        return 3
    return code


def _signer(who: str) -> Signer | None:
    try:
        return signer_of(who, keys_folder())
    except RiktigError as error:
        print(f"riktig: {error}", file=sys.stderr)
        return None


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="riktig", description="Plans, schedules, judges and proves motor starter panels."
    )
    parser.add_argument("--version", action="version", version=f"riktig {__version__}")
    commands = parser.add_subparsers(dest="command", required=True)

    def command(name: str, run: object, text: str) -> argparse.ArgumentParser:
        sub = commands.add_parser(name, help=text, description=text)
        sub.set_defaults(run=run)
        return sub

    sub = command("demo", _demo, "opens the demonstration job, or writes it to a file")
    sub.add_argument("--write", type=Path, metavar="FILE.riktig")
    sub.add_argument("--shot", type=Path, metavar="OUT.png", help="one picture, no display needed")
    sub.add_argument("--station", default="Brief", help="which station the picture shows")
    sub.add_argument("--job", choices=sorted(DEMOS), default="kelp-shed", help="which demonstration")
    sub.add_argument("--dark", action="store_true", help="the dark bench theme")
    sub = command("open", _open, "opens a job in the window")
    sub.add_argument("file", type=Path, nargs="?", metavar="FILE.riktig")
    sub = command("new", _new, "makes a job")
    sub.add_argument("out", type=Path, metavar="OUT.riktig")
    sub.add_argument("--loads", type=Path, metavar="LOADS.csv")
    sub.add_argument("--number", default="")
    sub.add_argument("--title", default="")
    sub = command("show", _show, "prints a derived list")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("what", choices=sorted(SCHEDULES))
    form = sub.add_mutually_exclusive_group()
    form.add_argument("--json", action="store_true")
    form.add_argument("--csv", action="store_true")
    sub = command("check", _check, "judges the panel; exit 1 when a clause fails")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub = command("export", _export, "writes all papers into a folder")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("folder", type=Path, metavar="DIR")
    sub = command("add", _add, "adds a circuit written by hand to a job (docs/rungs.md)")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("rungs", type=Path, metavar="RUNGS.json")
    sub = command("rungs", _rungs, "prints a circuit as a rung file, to read or to start from")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("circuit", metavar="CIRCUIT", help="its id, such as c2: see show FILE rungs")
    sub = command("trace", _trace, "follows a label back to its source and on to its load")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument(
        "label", metavar="LABEL", help="a tag, pin, terminal, number, cable or load: M1, K1:13, X3:5, 14, WM1"
    )
    sub = command("energise", _energise, "does the steps of a script to the panel with power on")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("--script", type=Path, required=True, metavar="STEPS.json", help="a step a line, or JSON")
    sub.add_argument("--json", action="store_true", help="with the states of everything after each step")
    sub = command("plan", _plan, "seeks a better plate for a job, keeps it, and says what it reached")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("--seconds", type=float, default=20.0, help="for how long (20)")
    sub.add_argument("--parts", type=Path, metavar="PARTS.csv", help="parts of your own to take in first")
    sub = command("edit", _edit, "does a list of edits and records to a job, all or none (docs/edits.md)")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("edits", type=Path, metavar="EDITS.jsonl", help="an edit or a record a line, as JSON")
    sub.add_argument("--dry-run", action="store_true", help="says what would be done and changes nothing")
    sub.add_argument("--who", default="", metavar="NAME", help="who did it (the login name)")
    sub = command("log", _log, "prints what was done and read, and checks that nothing in it was changed")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("--json", action="store_true", help="an object an entry, as they stand in the file")
    sub.add_argument("--check", action="store_true", help="checks only: exit 1 when something in it was changed")
    sub = command("import", _import, "makes a job file from an exported JSON job")
    sub.add_argument("json", type=Path, metavar="JOB.json")
    sub.add_argument("out", type=Path, metavar="OUT.riktig")
    return parser


def _now() -> str:
    return datetime.now().astimezone().isoformat(timespec="milliseconds")


def _write_new(path: Path, job: Job, why: str) -> None:
    who = getpass.getuser()
    JobFile.create(path, job, who=who, at=_now(), why=why, signer=_signer(who)).close()
    print(f"{path} written")


def _read(path: Path) -> tuple[Evaluation[Job], JobFile]:
    file = JobFile(path, read_only=True)
    for problem in file.problems:
        print(f"riktig: {path.name}, {problem}.", file=sys.stderr)
    return Evaluation(file.job()), file


def _demo(arguments: argparse.Namespace) -> int:
    if arguments.write:
        _write_new(arguments.write, demo_job(arguments.job), "demonstration")
        return 0
    from riktig.desk.app import run_demo  # late: the command line needs no Qt

    return run_demo(arguments.shot, arguments.station, dark=arguments.dark, job=arguments.job)


def _open(arguments: argparse.Namespace) -> int:
    from riktig.desk.app import run_window  # late: the command line needs no Qt

    return run_window(arguments.file)


def _new(arguments: argparse.Namespace) -> int:
    rows: tuple[object, ...] = ()
    job = job_from_loads((), arguments.number, arguments.title)
    if arguments.loads:
        rows, notes = read_loads(arguments.loads)
        for note in notes:
            print(f"riktig: {arguments.loads.name}: {note}", file=sys.stderr)
        job = job_from_loads(rows, arguments.number, arguments.title)
    _write_new(arguments.out, with_names_recorded(job), "new job")
    return 0


def _show(arguments: argparse.Namespace) -> int:
    plan, file = _read(arguments.file)
    table = schedule(arguments.what, plan)
    file.close()
    if arguments.json:
        print(as_json(table))
    elif arguments.csv:
        print(as_csv(table), end="")
    else:
        _print_table([h for _, h in table.columns], [[_cell(v) for v in r] for r in table.rows])
    return 0


def _cell(value: object) -> str:
    return f"{value:g}" if isinstance(value, float) else "" if value is None else str(value)


def _print_table(heads: list[str], rows: list[list[str]]) -> None:
    widths = [max(len(row[i]) for row in [heads, *rows]) for i in range(len(heads))]
    widths = [min(width, 48) for width in widths]
    for row in [heads, ["-" * width for width in widths], *rows]:
        cells = (c[:w].ljust(w) for c, w in zip(row, widths, strict=True))
        print("  ".join(cells).rstrip())


def _check(arguments: argparse.Namespace) -> int:
    plan, file = _read(arguments.file)
    results = plan.get(RULES)
    file.close()
    for result in results:
        print(f"{result.verdict.value:16} {result.code}  {result.title} ({result.clause})")
        for finding in result.findings:
            print(f"{'':18}{finding.message} {finding.remedy}")
    failed = sum(result.verdict is Verdict.FAILS for result in results)
    print(f"{failed} clauses fail. Local codes and licensed practice decide; this is no certificate.")
    return 1 if failed else 0


def _export(arguments: argparse.Namespace) -> int:
    plan, file = _read(arguments.file)
    for path in export_all(plan, file.records(), arguments.folder, made=_now()[:10]):
        print(path)
    file.close()
    return 0


def _add(arguments: argparse.Namespace) -> int:
    written = load_rungs(read_text(arguments.rungs, hint="Choose a rung file."), where=arguments.rungs.name)
    file = JobFile(arguments.file, who=getpass.getuser(), signer=_signer(getpass.getuser()))
    try:
        job = with_names_recorded(add_written(file.job(), written.title, written.devices, written.rungs))
        file.add_revision(job, who=getpass.getuser(), at=_now(), why=f"add {written.title}")
    finally:
        file.close()
    print(f"{written.title}: {len(written.rungs)} rungs added to {arguments.file}")
    return 0


def _rungs(arguments: argparse.Namespace) -> int:
    plan, file = _read(arguments.file)
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


def _trace(arguments: argparse.Namespace) -> int:
    plan, file = _read(arguments.file)
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


def _energise(arguments: argparse.Namespace) -> int:
    plan, file = _read(arguments.file)
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


def _edit(arguments: argparse.Namespace) -> int:
    name = arguments.edits.name
    lines = read_text(arguments.edits, hint="Choose a list of edits.").splitlines()
    actions = load_actions(lines, name)
    who = arguments.who or getpass.getuser()
    signer = None if arguments.dry_run else _signer(who)
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
            file.add_all(job, entries, who=who, at=_now(), why=f"list {name}", new_id=lambda: uuid.uuid4().hex)
    finally:
        file.close()
    done = "would be done" if arguments.dry_run else "done"
    print(f"{counted_words([action for _, action in actions])} {done}.")
    return 0


def _log(arguments: argparse.Namespace) -> int:
    file = JobFile(arguments.file, read_only=True)
    try:
        entries, broken, doubts, chained = file.entries(), file.problems, file.doubts, file.has_digests
    finally:
        file.close()
    if arguments.json:
        rows = [{**asdict(entry), "facts": json.loads(entry.facts)} for entry in entries]
        print(json.dumps(rows, ensure_ascii=False, indent=1))
    else:
        heads = ["No.", "When", "Who", "Kind", "About", "Said", "Takes back", "Signed with"]
        rows_of_text = [
            [str(e.number), e.when[:19], e.who, e.kind, e.subject, said_in(e.facts), e.corrects[:8], key_words(e)]
            for e in entries
        ]
        if not arguments.check:
            _print_table(heads, rows_of_text)
    for what in (*broken, *doubts):
        print(f"riktig: {what}.", file=sys.stderr)
    if broken:
        print("riktig: The log is not what was written. Compare it with a copy before you rely on it.", file=sys.stderr)
        return 1
    state = "none was changed" if chained else "an older format, which cannot tell whether one was changed"
    print(f"riktig: {len(entries)} entries, {state}.", file=sys.stderr)
    unsigned = sum(not entry.signer for entry in entries)
    for who, key in sorted({(entry.who, entry.signer) for entry in entries if entry.signer}):
        print(f"riktig: {who} signed with the key {fingerprint(key)}; ask {who} for it.", file=sys.stderr)
    if unsigned:
        print(f"riktig: {unsigned} of them are not signed, so anybody may have written them.", file=sys.stderr)
    return 0


def key_words(entry: StoredEntry) -> str:
    """The beginning of the key an entry is signed with, or “–”."""
    return fingerprint(entry.signer) if entry.signer else "–"


def said_in(facts: str) -> str:
    """The facts of an entry on one line."""
    try:
        return ", ".join(f"{name} {value}" for name, value in json.loads(facts).items())
    except (ValueError, AttributeError):
        return facts


def _plan(arguments: argparse.Namespace) -> int:
    from riktig.core.optimiser.replan import replan_of  # late: what it is compiled with takes half a second
    from riktig.timed_search import search_for

    file = JobFile(arguments.file, who=getpass.getuser(), signer=_signer(getpass.getuser()))
    try:
        if file.read_only:
            raise RiktigError(f"{arguments.file.name} cannot be changed ({file.only_looking}), so nothing was planned.")
        job = file.job()
        for part in read_parts(arguments.parts) if arguments.parts else ():
            job = set_part(job, part)
        replan = replan_of(Evaluation(job))
        found = search_for(replan, min(max(arguments.seconds, 0.0), 3600.0))
        file.add_revision(
            with_names_recorded(replan.put_into(job, found)), who=getpass.getuser(), at=_now(), why="plan for me"
        )
        reached = replan.reached(found)
    finally:
        file.close()
    for line in reached.lines():
        print(line)
    return 1 if reached.lacking else 0


def _import(arguments: argparse.Namespace) -> int:
    text = read_text(arguments.json, hint="Choose a JSON job that Riktig exported.")
    _write_new(arguments.out, with_names_recorded(load_job(text, where=arguments.json.name)), "import")
    return 0


if __name__ == "__main__":
    sys.exit(main())
