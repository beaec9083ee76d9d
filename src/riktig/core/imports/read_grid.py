"""Cells out of a text or a workbook, each row with the place it came from."""

import csv
import io
from dataclasses import dataclass, replace
from pathlib import Path

from riktig.core.errors import InputFault, RiktigError
from riktig.core.exports.tables import RUN
from riktig.core.inputs import read_bytes, read_workbook, unfit

__all__ = ["Grid", "GridRow", "grid_of_file", "grid_of_text"]

LARGEST_FILE = 2_000_000
UTF_16 = (b"\xff\xfe", b"\xfe\xff")
MOST_ROWS = 2_000
"""Rows looked at: a panel has far fewer loads, a file with more is something else (chosen by us)."""
MOST_COLUMNS = 200
"""Columns looked at (chosen by us)."""
LONGEST_CELL = 4_000
"""Letters of one cell; a field of a load takes far fewer, and says so itself."""


@dataclass(frozen=True, slots=True)
class GridRow:
    """One row: its number as the file counts it, and its cells, trimmed."""

    number: int
    cells: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Grid:
    """The rows of one sheet that are not empty, how they were read, and what is wrong in which row."""

    name: str
    rows: tuple[GridRow, ...]
    notes: tuple[str, ...] = ()
    faults: tuple[tuple[int, InputFault], ...] = ()
    word: str = "line"

    def where(self, row: GridRow, column: int | None = None) -> str:
        """“loads.csv, line 3” or “loads.xlsx, B3”."""
        if self.word == "line" or column is None:
            return f"{self.name}, {self.word} {row.number}"
        return f"{self.name}, {_letters(column)}{row.number}"


def _letters(column: int) -> str:
    text = ""
    number = column + 1
    while number:
        number, left = divmod(number - 1, 26)
        text = chr(65 + left) + text
    return text


def grid_of_file(path: Path) -> Grid:
    """The cells of a CSV, TSV or XLSX file.

    Raises:
        RiktigError: it cannot be read, is too large, or is neither text nor a workbook.
    """
    raw = read_bytes(path, most=LARGEST_FILE, hint="Choose a list: CSV, TSV or XLSX.")
    if raw.startswith(b"PK\x03\x04"):
        return _workbook(path.name, raw)
    grid = grid_of_text(_text(raw, path.name), path.name)
    wide = raw.startswith(UTF_16)
    return replace(grid, notes=("Read as UTF-16.", *grid.notes)) if wide else grid


def _text(raw: bytes, name: str) -> str:
    encoding = "utf-16" if raw.startswith(UTF_16) else "utf-8-sig"
    try:
        return raw.decode(encoding)
    except UnicodeDecodeError as error:
        raise RiktigError(
            f"{name} is not a text file in UTF-8 or UTF-16, nor a workbook, so no loads could be read.",
            hint="Save it as XLSX, or as CSV in UTF-8.",
            where=name,
        ) from error


def grid_of_text(text: str, name: str) -> Grid:
    """The cells of a text: separated by tabs (pasted), semicolons or commas.

    Args:
        text: The text.
        name: What it is called.

    Raises:
        RiktigError: too many rows, or quotes that never close.
    """
    head = next((line for line in text.splitlines() if line.strip()), "")
    separator = max("\t;,", key=head.count)
    notes = {";": ("Read with semicolons between the columns.",), "\t": ("Read with tabs between the columns.",)}
    rows = []
    reader = csv.reader(io.StringIO(text), delimiter=separator, strict=True)
    try:
        for cells in reader:
            if len(cells) > MOST_COLUMNS:
                raise _too_wide(name, reader.line_num)
            if any(cell.strip() for cell in cells):
                rows.append(GridRow(reader.line_num, tuple(_told(cell) for cell in cells)))
            if len(rows) > MOST_ROWS:
                raise _too_long(name)
    except csv.Error as error:
        raise RiktigError(
            f"The text cannot be taken apart into cells ({error}), so no loads could be read.",
            hint="Look for a quotation mark that is not closed.",
            where=f"{name}, line {reader.line_num}",
        ) from error
    return _without_empty(Grid(name, tuple(rows), notes.get(separator, ())))


def _too_long(name: str) -> RiktigError:
    return RiktigError(
        f"{name} has more than {MOST_ROWS} rows; that is no list of loads of one panel, so none was taken.",
        hint="Take the rows of this panel into a list of their own.",
        where=name,
    )


def _too_wide(name: str, line: int) -> RiktigError:
    return RiktigError(
        f"{name} has more than {MOST_COLUMNS} columns; that is no list of one panel, so nothing was taken.",
        hint="Take the columns that belong to the list into one of their own.",
        where=f"{name}, line {line}",
    )


def _told(cell: str) -> str:
    """A cell's text without what keeps a spreadsheet from running it: the apostrophe our own lists put there."""
    text = cell.strip()
    return text[1:].strip() if text[:1] == "'" and text[1:].lstrip(" ").startswith(RUN) else text


def _workbook(name: str, raw: bytes) -> Grid:
    book = read_workbook(name, raw, most_rows=MOST_ROWS, most_columns=MOST_COLUMNS)
    faults = [
        (
            int("".join(sign for sign in area.rpartition(":")[2] if sign.isdigit())),
            InputFault(
                f"{name}, {area}",
                "cells are merged here, so it is not clear which row they belong to.",
                "Split them and write the value in every row.",
            ),
        )
        for area in book.merged
    ]
    rows = []
    for number, cells in book.rows:
        for column, cell in enumerate(cells):
            if cell.uncounted:
                fault = InputFault(
                    f"{name}, {_letters(column)}{number}",
                    "this is a formula whose value is not in the workbook.",
                    "Open it in a spreadsheet and save it again, or write the value.",
                )
                faults.append((number, fault))
        rows.append(GridRow(number, tuple(cell.text for cell in cells)))
    notes = (f"Read from the sheet “{book.sheet}”.",) if book.sheets > 1 else ()
    return _without_empty(Grid(name, tuple(rows), notes, tuple(faults), word="row"))


def _without_empty(grid: Grid) -> Grid:
    """The grid, with a fault for every cell whose text cannot be kept."""
    faults = [
        (row.number, InputFault(grid.where(row, column), f"this text {why}.", "Write it anew."))
        for row in grid.rows
        for column, cell in enumerate(row.cells)
        if (why := unfit(cell, lines=True, longest=LONGEST_CELL))
    ]
    return replace(grid, faults=(*grid.faults, *faults)) if faults else grid
