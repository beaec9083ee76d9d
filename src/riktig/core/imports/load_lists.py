"""Loads from a list: pasted, CSV or XLSX; the columns recognised, the doubtful ones shown."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Any, cast

from riktig.core.edits import AddLoads, LoadToAdd
from riktig.core.errors import InputFault, RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.imports.load_words import ANSWERS, COLUMNS, LEFT_OUT, YES_NO, meaning_of
from riktig.core.imports.read_grid import Grid, GridRow, grid_of_file
from riktig.core.job import (
    Command,
    Job,
    LoadFields,
    LoadKind,
    Start,
    new_job,
    read_count,
    read_current,
    read_power,
    read_power_hp,
    read_quantity,
)

__all__ = ["Column", "LoadList", "LoadRow", "job_from_loads", "loads_of", "new_loads", "read_loads", "recognise"]

MOST_LOADS = 200
"""Loads of one panel (chosen by us: far above what one panel holds)."""


@dataclass(frozen=True, slots=True)
class Column:
    """One column: its heading, the field it fills ("" unknown, “-” left out), and whether that is certain."""

    heading: str
    meaning: str
    sure: bool


@dataclass(frozen=True, slots=True)
class LoadList:
    """A list as it was recognised, before anything is taken from it."""

    grid: Grid
    columns: tuple[Column, ...]
    rows: tuple[GridRow, ...]
    notes: tuple[str, ...]

    @property
    def doubtful(self) -> tuple[Column, ...]:
        """Columns that were guessed or not known."""
        return tuple(column for column in self.columns if column.heading and not column.sure)

    def with_meaning(self, index: int, meaning: str) -> "LoadList":
        """The list with the meaning of a column decided by a person."""
        columns = list(self.columns)
        columns[index] = replace(columns[index], meaning=meaning, sure=True)
        return replace(self, columns=tuple(columns))


@dataclass(frozen=True, slots=True)
class LoadRow:
    """One load of the list: its name and the fields of ``Load`` that were given."""

    name: str
    fields: tuple[tuple[str, Any], ...]


def recognise(grid: Grid) -> LoadList:
    """Finds the heading and what each column means.

    Method:
        The heading is the first row with two or more headings that are known.

    Raises:
        RiktigError: there is no such row.
    """
    for place, row in enumerate(grid.rows[:20]):
        read_cells = [meaning_of(cell) if cell else ("", True) for cell in row.cells]
        meanings = [meaning for meaning, _ in read_cells if meaning]
        if len(meanings) >= 2 and "load" in meanings:
            columns = tuple(
                Column(cell, meaning, sure) for cell, (meaning, sure) in zip(row.cells, read_cells, strict=True)
            )
            notes = list(grid.notes)
            if place:
                notes.append(f"The rows above {grid.word} {row.number} were read as a title.")
            return LoadList(grid, columns, grid.rows[place + 1 :], tuple(notes))
    raise RiktigError(
        "The columns load and kw (or hp, power, nameplate_a) are missing, so no loads could be read.",
        hint=f"One row must name the columns: {', '.join(COLUMNS)}. An example is in examples/loads.csv.",
        where=f"{grid.name}, {grid.word} 1",
    )


def loads_of(load_list: LoadList) -> tuple[LoadRow, ...]:
    """Every load of the list, or none.

    Raises:
        RiktigError: with every fault and its place.
    """
    grid, faults = load_list.grid, [*_unusable(load_list), *_columns(load_list)]
    rows: list[LoadRow] = []
    if len(load_list.rows) > MOST_LOADS:
        raise RiktigError(
            f"{grid.name} lists {len(load_list.rows)} loads; one panel holds at most {MOST_LOADS}, so none was taken.",
            hint="Take the rows of this panel into a list of their own.",
            where=grid.name,
        )
    for row in load_list.rows if not faults else ():
        if any(row.cells[len(load_list.columns) :]):
            faults.append(
                InputFault(
                    grid.where(row),
                    f"it has {len(row.cells)} cells, the heading has {len(load_list.columns)}.",
                    "A decimal comma in a list separated by commas makes two cells of one: write a point.",
                )
            )
            continue
        load, wrong = _row(load_list, row)
        faults += wrong
        if load:
            rows.append(load)
    names: dict[str, int] = {}
    for load_row, row in zip(rows, load_list.rows, strict=False):
        first = names.setdefault(load_row.name.lower(), row.number)
        if first != row.number and not faults:
            faults.append(
                InputFault(
                    grid.where(row),
                    f"“{load_row.name}” stands already in {grid.word} {first}.",
                    "Give each load a name of its own: it goes on the labels.",
                )
            )
    if not rows and not faults:
        raise RiktigError("The list names columns but no loads.", hint="Add a row for each load.", where=grid.name)
    if faults:
        raise RiktigError(
            f"{len(faults)} {'place' if len(faults) == 1 else 'places'} in {grid.name} cannot be used; no load was "
            "taken.",
            where=grid.name,
            faults=faults,
        )
    return tuple(rows)


def _unusable(load_list: LoadList) -> list[InputFault]:
    """What is wrong with cells counts where the loads stand; in a title above it does no harm."""
    first = load_list.rows[0].number if load_list.rows else 0
    return [fault for row, fault in load_list.grid.faults if row >= first]


def _columns(load_list: LoadList) -> list[InputFault]:
    where = f"{load_list.grid.name}, heading"
    known = f"Known are {', '.join(COLUMNS)}; put a minus before a heading to leave its column out."
    faults = [
        InputFault(where, f"the column “{column.heading}” is not known.", known)
        for column in load_list.columns
        if column.heading and not column.meaning
    ]
    meanings = [column.meaning for column in load_list.columns if column.meaning not in ("", LEFT_OUT)]
    faults += [
        InputFault(where, f"two columns mean {meaning}.", "Leave one out.")
        for meaning in dict.fromkeys(meanings)
        if meanings.count(meaning) > 1
    ]
    if "load" not in meanings:
        faults.append(InputFault(where, "no column names the loads.", "Say which column is the load."))
    if not {"kw", "hp", "power", "nameplate_a"} & set(meanings):
        faults.append(InputFault(where, "no column gives a power or a current.", "Head one kW, hp or nameplate_a."))
    return faults


def _row(load_list: LoadList, row: GridRow) -> tuple[LoadRow | None, list[InputFault]]:
    fields: dict[str, Any] = {}
    faults: list[InputFault] = []
    for index, (column, cell) in enumerate(zip(load_list.columns, row.cells, strict=False)):
        if column.meaning in ("", LEFT_OUT) or not cell:
            continue
        where = load_list.grid.where(row, index)
        if load_list.grid.word == "line":
            where = f"{where}, {column.meaning}"
        try:
            fields |= _cell(column.meaning, cell, where)
        except RiktigError as error:
            faults.append(InputFault(error.where, error.message, error.hint))
    name = fields.pop("load", "")
    place = load_list.grid.where(row)
    if not name:
        faults.append(InputFault(place, "the load has no name.", "Say what turns."))
    elif not faults and not {"kw", "hp", "nameplate_a"} & fields.keys():
        faults.append(InputFault(place, f"the {name} has neither a power nor a current.", "Give one of them."))
    if faults:
        return None, faults
    _complete(fields)
    return LoadRow(name, tuple(fields.items())), []


def _complete(fields: dict[str, Any]) -> None:
    """What a customer means by saying no more: a load that does not turn has its own breaker only."""
    if fields.get("kind", LoadKind.MOTOR) is not LoadKind.MOTOR:
        fields.setdefault("start", Start.WAY)
        fields.setdefault("run_lamp", False)
        fields.setdefault("trip_lamp", False)
    if fields.get("start") is Start.WAY:
        fields.setdefault("command", Command.ALWAYS)
    if fields.get("start") is Start.REVERSING:
        fields.setdefault("command", Command.BOTH_WAYS)


def _cell(meaning: str, cell: str, where: str) -> dict[str, Any]:
    """One cell as a field of a load."""
    if meaning in ANSWERS:
        plain = " ".join(cell.lower().replace("–", "-").replace("_", " ").split())
        if plain not in ANSWERS[meaning]:
            options = dict.fromkeys(value.value for value in ANSWERS[meaning].values())
            raise RiktigError(
                f"“{cell}” is not an answer for {meaning}.", hint=f"Use one of: {'; '.join(options)}.", where=where
            )
        return {meaning: ANSWERS[meaning][plain]}
    if meaning == "maintained":
        if cell.lower() not in YES_NO:
            raise RiktigError(f"“{cell}” is neither yes nor no.", hint="Write yes or no.", where=where)
        return {meaning: YES_NO[cell.lower()]}
    if meaning in ("load", "place", "reason"):
        return {meaning: cell}
    if meaning == "phases":
        return {meaning: _phases(cell, where)}
    return _quantity(meaning, cell, where)


def _phases(cell: str, where: str) -> int:
    plain = cell.lower().rstrip("~ ").removesuffix("ph").removesuffix("-phase").strip()
    options = {"1": 1, "one": 1, "single": 1, "l+n": 1, "2": 2, "two": 2, "l+l": 2, "3": 3, "three": 3, "3.0": 3}
    if plain not in options:
        raise RiktigError(f"“{cell}” is not a number of phases.", hint="Write 1, 2 or 3.", where=where)
    return options[plain]


def _quantity(meaning: str, cell: str, where: str) -> dict[str, Any]:
    lower = cell.lower().rstrip()
    unit = "hp" if lower.endswith("hp") else "kw" if lower.endswith("w") else "a" if lower.endswith("a") else ""
    heading_unit = {"kw": "kw", "hp": "hp", "nameplate_a": "a"}.get(meaning, "")
    if meaning == "power":
        if not unit:
            raise RiktigError(
                f"“{cell}” has no unit, so the power is not known.", hint="Write kW, hp or A behind it.", where=where
            )
        return _quantity({"kw": "kw", "hp": "hp", "a": "nameplate_a"}[unit], cell, where)
    if heading_unit and unit and unit != heading_unit:
        raise RiktigError(
            f"“{cell}” stands in a column of {heading_unit if heading_unit != 'a' else 'A'}.",
            hint="Change it to that unit, or head the column “power with unit”.",
            where=where,
        )
    readers: dict[str, Callable[[], Any]] = {
        "kw": lambda: read_power(cell, where=where),
        "hp": lambda: read_power_hp(cell, where=where),
        "nameplate_a": lambda: read_current(cell, where=where),
        "voltage_v": lambda: _between(cell, "V", "voltage", 12, 1000, where),
        "cable_m": lambda: _between(cell, "m", "cable length", 0, 2000, where),
        "cables_together": lambda: read_count(cell, "number of cables together", 1, 40, where),
        "service_factor": lambda: _between(cell, "", "service factor", 1, 2, where),
    }
    return {meaning: readers[meaning]()}


def _between(cell: str, unit: str, what: str, low: float, high: float, where: str) -> float:
    value = read_quantity(cell, unit, what, where)
    if not low <= value <= high:
        raise RiktigError(
            f"“{cell}” cannot be a {what}.",
            hint=f"It lies between {low:g} and {high:g} {unit}.".replace(" .", "."),
            where=where,
        )
    return value


def read_loads(path: Path) -> tuple[tuple[LoadRow, ...], tuple[str, ...]]:
    """Reads a file of loads in one go; what was guessed is among the notes.

    Returns:
        The loads, and notes on how the file was read.

    Raises:
        RiktigError: with every fault and its place; then nothing was taken.
    """
    load_list = recognise(grid_of_file(path))
    guessed = [f"“{c.heading}” was read as {c.meaning}." for c in load_list.doubtful if c.meaning]
    return loads_of(load_list), (*load_list.notes, *guessed)


def new_loads(rows: tuple[LoadRow, ...]) -> tuple[LoadToAdd, ...]:
    """The loads of a list as they are added to a job."""
    return tuple(LoadToAdd(row.name, cast(LoadFields, dict(row.fields))) for row in rows)


def job_from_loads(rows: tuple[LoadRow, ...], number: str = "", title: str = "") -> Job:
    """A new job with these loads, everything else as the house has it.

    Args:
        rows: The rows of the list.
        number: The number.
        title: What the job or the picture is called.
    """
    return AddLoads(new_loads(rows)).apply(Evaluation(new_job(number, title)))
