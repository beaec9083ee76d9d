"""Cells out of a text or a workbook, each row with the place it came from."""

import csv
import io
from dataclasses import dataclass, replace
from pathlib import Path
from zipfile import BadZipFile

from riktig.core.errors import Fault, RiktigError

__all__ = ["Grid", "GridRow", "grid_of_file", "grid_of_text"]

LARGEST_FILE = 2_000_000
UTF_16 = (b"\xff\xfe", b"\xfe\xff")
MOST_ROWS = 2_000
"""Rows looked at: a panel has far fewer loads, a file with more is something else (chosen by us)."""


@dataclass(frozen=True, slots=True)
class GridRow:
    """One row: its number as the file counts it, and its cells, trimmed."""

    number: int
    cells: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Grid:
    """The rows of one sheet that are not empty, and how they were read."""

    name: str
    rows: tuple[GridRow, ...]
    notes: tuple[str, ...] = ()
    faults: tuple[Fault, ...] = ()
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
    try:
        size = path.stat().st_size
        raw = path.read_bytes() if size <= LARGEST_FILE else b""
    except OSError as error:
        raise RiktigError(
            f"{path.name} cannot be read ({error.strerror}).", hint="Check the name.", where=str(path)
        ) from error
    if size > LARGEST_FILE:
        raise RiktigError("The file is too large to be a list of loads.", where=path.name)
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
            if any(cell.strip() for cell in cells):
                rows.append(GridRow(reader.line_num, tuple(cell.strip() for cell in cells)))
            if len(rows) > MOST_ROWS:
                raise _too_long(name)
    except csv.Error as error:
        raise RiktigError(
            f"The text cannot be taken apart into cells ({error}), so no loads could be read.",
            hint="Look for a quotation mark that is not closed.",
            where=f"{name}, line {reader.line_num}",
        ) from error
    return Grid(name, tuple(rows), notes.get(separator, ()))


def _too_long(name: str) -> RiktigError:
    return RiktigError(
        f"{name} has more than {MOST_ROWS} rows; that is no list of loads of one panel, so none was taken.",
        hint="Take the rows of this panel into a list of their own.",
        where=name,
    )


def _workbook(name: str, raw: bytes) -> Grid:
    from openpyxl import load_workbook  # late: slow to import
    from openpyxl.utils.exceptions import InvalidFileException

    try:
        book = load_workbook(io.BytesIO(raw), data_only=True)
    except (InvalidFileException, BadZipFile, KeyError, ValueError, TypeError, OSError) as error:
        raise RiktigError(
            f"{name} is a damaged workbook ({error}), so no loads could be read.",
            hint="Open it in a spreadsheet, save it again as XLSX or CSV.",
            where=name,
        ) from error
    sheet = next((one for one in book.worksheets if one.max_row > 1), book.worksheets[0])
    rows = []
    for number, values in enumerate(sheet.iter_rows(values_only=True), 1):
        cells = tuple("" if v is None else f"{v:.10g}" if isinstance(v, float) else str(v).strip() for v in values)
        if any(cells):
            rows.append(GridRow(number, cells))
        if len(rows) > MOST_ROWS:
            raise _too_long(name)
    merged = tuple(
        Fault(
            f"{name}, {area.coord}",
            "cells are merged here, so it is not clear which row they belong to.",
            "Split them and write the value in every row.",
        )
        for area in sheet.merged_cells.ranges
    )
    notes = (f"Read from the sheet “{sheet.title}”.",) if len(book.worksheets) > 1 else ()
    return Grid(name, tuple(rows), notes, merged, word="row")
