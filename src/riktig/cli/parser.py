"""What can be asked on the command line."""

import argparse
from collections.abc import Sequence
from pathlib import Path

from riktig import __version__
from riktig.core.errors import RiktigError
from riktig.core.exports.lists import LISTS

__all__ = ["DEMO_NAMES", "parser"]

DEMO_NAMES = ("frost-fan", "kelp-shed", "wash-drum")
"""The demonstrations, see ``demo_job``: named here so that no command loads them for nothing."""


class _AtOnce(argparse.Action):
    """An option that does something itself and ends the program, as --version does."""

    def __init__(self, option_strings: Sequence[str], dest: str, help: str | None = None) -> None:
        super().__init__(option_strings, dest, nargs=0, default=argparse.SUPPRESS, help=help)

    def __call__(
        self, parser: argparse.ArgumentParser, namespace: object, values: object, option_string: str | None = None
    ) -> None:
        from riktig.cli import desktop  # late: seldom needed

        if option_string == "--man":
            print(desktop.man_page())
            parser.exit(0)
        try:
            parser.exit(desktop.install_desktop() if option_string == "--install-desktop" else desktop.remove_desktop())
        except RiktigError as error:
            parser.exit(2, f"riktig: {error}\n")


def parser() -> argparse.ArgumentParser:
    """Every command with its arguments; ``run`` says which function of which module here does it."""
    whole = argparse.ArgumentParser(
        prog="riktig", description="Plans, schedules, judges and proves motor starter panels."
    )
    whole.add_argument("--version", action="version", version=f"riktig {__version__}")
    whole.add_argument("--install-desktop", action=_AtOnce, help="puts Riktig into the menu of your desktop")
    whole.add_argument("--remove-desktop", action=_AtOnce, help="takes it out again; jobs and settings stay")
    whole.add_argument("--man", action=_AtOnce, help="prints the man page")
    commands = whole.add_subparsers(dest="command", required=True)

    def command(name: str, run: str, text: str) -> argparse.ArgumentParser:
        sub = commands.add_parser(name, help=text, description=text)
        sub.set_defaults(run=run)
        return sub

    sub = command("demo", "windows.demo", "opens the demonstration job, or writes it to a file")
    sub.add_argument("--write", type=Path, metavar="FILE.riktig")
    sub.add_argument("--shot", type=Path, metavar="OUT.png", help="one picture, no display needed")
    sub.add_argument("--station", default="Brief", help="which station the picture shows")
    sub.add_argument("--job", choices=DEMO_NAMES, default="kelp-shed", help="which demonstration")
    sub.add_argument("--dark", action="store_true", help="the dark bench theme")
    sub = command("open", "windows.open_window", "opens a job in the window")
    sub.add_argument("file", nargs="?", metavar="FILE.riktig", help="a job file, or an address: see put")
    sub = command("new", "new.new", "makes a job")
    sub.add_argument("out", type=Path, metavar="OUT.riktig")
    sub.add_argument("--loads", type=Path, metavar="LOADS.csv")
    sub.add_argument("--number", default="")
    sub.add_argument("--title", default="")
    sub = command("show", "show.show", "prints a derived list")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("what", choices=sorted(LISTS))
    form = sub.add_mutually_exclusive_group()
    form.add_argument("--json", action="store_true")
    form.add_argument("--csv", action="store_true")
    sub = command("check", "check.check", "judges the panel; exit 1 when a clause fails")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub = command("export", "export.export", "writes all papers into a folder")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("folder", type=Path, metavar="DIR")
    sub.add_argument("--bom", action="store_true", help="CSV files begin with the UTF-8 mark some spreadsheets need")
    sub = command("add", "add.add", "adds a circuit written by hand to a job (docs/rungs.md)")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("rungs", type=Path, metavar="RUNGS.json")
    sub = command("rungs", "rungs.rungs", "prints a circuit as a rung file, to read or to start from")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("circuit", metavar="CIRCUIT", help="its id, such as c2: see show FILE rungs")
    sub = command("trace", "trace.trace", "follows a label back to its source and on to its load")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument(
        "label", metavar="LABEL", help="a tag, pin, terminal, number, cable or load: M1, K1:13, X3:5, 14, WM1"
    )
    sub = command("energise", "energise.energise", "does the steps of a script to the panel with power on")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("--script", type=Path, required=True, metavar="STEPS.json", help="a step a line, or JSON")
    sub.add_argument("--json", action="store_true", help="with the states of everything after each step")
    sub = command("plan", "plan.plan", "seeks a better plate for a job, keeps it, and says what it reached")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("--seconds", type=float, default=20.0, help="for how long (20)")
    sub.add_argument("--parts", type=Path, metavar="PARTS.csv", help="parts of your own to take in first")
    sub = command("edit", "edit.edit", "does a list of edits and records to a job, all or none (docs/edits.md)")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("edits", type=Path, metavar="EDITS.jsonl", help="an edit or a record a line, as JSON")
    sub.add_argument("--dry-run", action="store_true", help="says what would be done and changes nothing")
    sub.add_argument("--who", default="", metavar="NAME", help="who did it (the login name)")
    sub = command("log", "log.log", "prints what was done and read, and checks that nothing in it was changed")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("--json", action="store_true", help="an object an entry, as they stand in the file")
    sub.add_argument("--check", action="store_true", help="checks only: exit 1 when something in it was changed")
    sub = command("missing", "hand_over.missing", "says what is missing; exit 1 when something is, before it leaves")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("--json", action="store_true")
    sub = command("compare", "hand_over.compare", "says what differs between two jobs, or a job and one of its issues")
    sub.add_argument("before", type=Path, metavar="BEFORE.riktig")
    sub.add_argument("after", type=Path, metavar="AFTER.riktig", nargs="?", help="left out: the job of now")
    sub.add_argument("--issue", default="", metavar="LETTER", help="the earlier is this issue of BEFORE")
    sub = command("series", "hand_over.series", "makes a job file for each further panel of one design")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("serials", nargs="+", metavar="SERIAL")
    sub.add_argument("--folder", type=Path, help="where to (beside the file)")
    sub = command("pack", "hand_over.pack", "writes the evidence of a panel into one archive, or checks one")
    sub.add_argument("file", type=Path, metavar="FILE", help="a job file; with --check an archive")
    sub.add_argument("out", type=Path, nargs="?", metavar="OUT.zip")
    sub.add_argument("--check", action="store_true", help="exit 1 when the archive is not what was packed")
    sub = command("find", "hand_over.find", "finds jobs by serial number, number, title, customer, tag or load")
    sub.add_argument("words", nargs="+", metavar="WORD")
    sub.add_argument("--folder", type=Path, help="where jobs are (the folder of jobs)")
    sub = command("schema", "hand_over.schema", "prints the JSON Schema of a job")
    sub = command("import", "import_job.import_job", "makes a job file from an exported JSON job")
    sub.add_argument("json", type=Path, metavar="JOB.json")
    sub.add_argument("out", type=Path, metavar="OUT.riktig")
    sub = command("survey", "survey.survey", "reads the survey of a panel without papers (docs/survey.md)")
    sub.add_argument("sheet", type=Path, nargs="?", metavar="SURVEY.csv")
    sub.add_argument("--rungs", type=Path, metavar="OUT.json", help="writes the circuits found, for riktig add")
    sub.add_argument("--kinds", action="store_true", help="lists the kinds of parts and their clamps")
    address = "postgresql://NAME@HOST/DATABASE?job=JOB (docs/server.md)"
    sub = command("put", "server.put_job", "puts a job with all its records on the shop's server")
    sub.add_argument("file", type=Path, metavar="FILE.riktig")
    sub.add_argument("address", metavar="ADDRESS", help=address)
    sub = command("fetch", "server.fetch_job", "makes a job file of a job on the shop's server")
    sub.add_argument("address", metavar="ADDRESS", help=address)
    sub.add_argument("out", type=Path, metavar="OUT.riktig")
    sub = command("board", "server.board", "prints all jobs of the shop's server: stage, what blocks, who is on what")
    sub.add_argument("address", metavar="ADDRESS", help=address)
    return whole
