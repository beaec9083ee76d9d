"""Loads from a CSV file, as documented in docs/loads-csv.md."""

import csv
import io
from dataclasses import dataclass
from pathlib import Path

from riktig.core.errors import Fault, RiktigError
from riktig.core.job import Job, add_load, new_job, read_current, read_power

__all__ = ["COLUMNS", "LoadRow", "job_from_loads", "read_loads"]

COLUMNS = ("load", "kw", "start", "command", "place", "nameplate_a", "cable_m")
NEEDED = ("load", "kw")
LARGEST_FILE = 2_000_000


@dataclass(frozen=True, slots=True)
class LoadRow:
    """One line of the file."""

    name: str
    kw: float
    place: str
    nameplate_a: float | None
    cable_m: float


def read_loads(path: Path) -> tuple[tuple[LoadRow, ...], tuple[str, ...]]:
    """Reads the loads.

    Commas or semicolons, UTF-8 or UTF-16; what was understood beyond the plain form is said.

    Returns:
        The loads, and notes on how the file was read.

    Raises:
        RiktigError: with every fault and its line.
    """
    text, notes = _text_of(path)
    lines = text.splitlines()
    head = next((line for line in lines if line.strip()), "")
    separator = ";" if head.count(";") > head.count(",") else ","
    if separator == ";":
        notes.append("Read with semicolons between the columns.")
    rows = list(csv.reader(io.StringIO(text), delimiter=separator))
    rows = [row for row in rows if any(cell.strip() for cell in row)]
    columns = [cell.strip().lower() for cell in rows[0]] if rows else []
    missing = [name for name in NEEDED if name not in columns]
    if missing:
        raise RiktigError(
            f"The column {' and '.join(missing)} is missing, so no loads could be read.",
            hint=f"The first line must name the columns: {', '.join(COLUMNS)}. An example is in examples/loads.csv.",
            where=f"{path.name}, line 1",
        )
    unknown = [name for name in columns if name and name not in COLUMNS]
    faults = [
        Fault(f"{path.name}, line 1", f"the column “{name}” is not known.", f"Known are {', '.join(COLUMNS)}.")
        for name in unknown
    ]
    loads = []
    for number, row in enumerate(rows[1:], 2):
        cells = dict(zip(columns, (cell.strip() for cell in row), strict=False))
        try:
            loads.append(_load(cells, f"{path.name}, line {number}"))
        except RiktigError as error:
            faults.append(Fault(error.where, error.message, error.hint))
    if not loads and not faults:
        raise RiktigError("The file names columns but no loads.", hint="Add a line for each motor.", where=path.name)
    if faults:
        raise RiktigError(
            f"{len(faults)} {'place' if len(faults) == 1 else 'places'} in {path.name} cannot be "
            "used; no job was made.",
            where=path.name,
            faults=faults,
        )
    return tuple(loads), tuple(notes)


def _text_of(path: Path) -> tuple[str, list[str]]:
    try:
        raw = path.read_bytes()[: LARGEST_FILE + 1]
    except OSError as error:
        raise RiktigError(
            f"{path.name} cannot be read ({error.strerror}).", hint="Check the name.", where=str(path)
        ) from error
    if len(raw) > LARGEST_FILE:
        raise RiktigError("The file is too large to be a list of loads.", where=path.name)
    if raw.startswith((b"\xff\xfe", b"\xfe\xff")):
        try:
            return raw.decode("utf-16"), ["Read as UTF-16."]
        except UnicodeDecodeError as error:
            raise _not_text(path) from error
    try:
        return raw.decode("utf-8-sig"), []
    except UnicodeDecodeError as error:
        raise _not_text(path) from error


def _not_text(path: Path) -> RiktigError:
    return RiktigError(
        f"{path.name} is not a text file in UTF-8 or UTF-16, so no loads could be read.",
        hint="Save it as CSV in UTF-8.",
        where=path.name,
    )


def _load(cells: dict[str, str], where: str) -> LoadRow:
    name = cells.get("load", "")
    if not name:
        raise RiktigError("the load has no name.", hint="Say what turns.", where=where)
    start = cells.get("start", "") or "direct-on-line"
    if start != "direct-on-line":
        raise RiktigError(
            f"“{start}” is not a way of starting that this edition plans.",
            hint="Use direct-on-line.",
            where=f"{where}, start",
        )
    command = cells.get("command", "") or "start-stop on the door"
    if command != "start-stop on the door":
        raise RiktigError(
            f"“{command}” is not a command that this edition plans.",
            hint="Use: start-stop on the door.",
            where=f"{where}, command",
        )
    length = cells.get("cable_m", "") or "10"
    try:
        metres = float(length.replace(",", "."))
    except ValueError:
        metres = -1.0
    if not 0 <= metres <= 2000:
        raise RiktigError(
            f"“{length}” cannot be a cable length.", hint="Give metres, such as 12.", where=f"{where}, cable_m"
        )
    return LoadRow(
        name,
        read_power(cells.get("kw", ""), where=f"{where}, kw"),
        cells.get("place", ""),
        read_current(cells.get("nameplate_a", ""), where=f"{where}, nameplate_a"),
        metres,
    )


def job_from_loads(rows: tuple[LoadRow, ...], number: str = "", title: str = "") -> Job:
    """A job with these loads and everything else as the house has it."""
    job = new_job(number, title)
    for row in rows:
        job = add_load(job, row.name, row.kw, place=row.place, nameplate_a=row.nameplate_a, cable_m=row.cable_m)
    return job
