"""Workbooks (XLSX) from outside, read row by row within bounds: what a workbook claims to hold is not believed."""

import io
import re
import zipfile
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Protocol

from riktig.core.errors import RiktigError

__all__ = ["Cell", "Workbook", "read_workbook"]

MOST_UNPACKED = 8_000_000
"""What the parts of a workbook may come to unpacked, bytes; a list of a panel has a hundredth."""
MOST_PARTS = 500
FURTHEST_ROW = 20_000
"""Rows looked at, empty ones too."""
_MERGED = re.compile(rb'<(?:\w+:)?mergeCell\s[^>]*?ref="([A-Z]{1,3}[0-9]{1,7}(?::[A-Z]{1,3}[0-9]{1,7})?)"')


@dataclass(frozen=True, slots=True)
class Cell:
    """A cell: its text, and whether it is a formula whose value the workbook does not hold."""

    text: str
    uncounted: bool = False


_EMPTY = Cell("")


class _Sheet(Protocol):
    """What is asked of a sheet that is read row by row."""

    def reset_dimensions(self) -> None: ...

    def iter_rows(self, *, values_only: bool) -> Iterator[tuple[object, ...]]: ...


@dataclass(frozen=True, slots=True)
class Workbook:
    """The first sheet with more than one row: its name, its rows with their numbers, its merged areas."""

    sheet: str
    sheets: int
    rows: tuple[tuple[int, tuple[Cell, ...]], ...]
    merged: tuple[str, ...]


def read_workbook(name: str, raw: bytes, *, most_rows: int, most_columns: int) -> Workbook:
    """The cells of a workbook.

    Args:
        name: What it is called.
        raw: The bytes of the file.
        most_rows: At most so many rows.
        most_columns: At most so many columns.

    Raises:
        RiktigError: it is damaged, unpacks to far more than it should, or has cells beyond the bounds.
    """
    try:
        _see_that_it_unpacks(name, raw)
        return _read(name, raw, most_rows, most_columns)
    except RiktigError:
        raise
    except MemoryError as error:
        raise _too_much(name) from error
    except Exception as error:
        raise RiktigError(
            f"{name} is a damaged workbook ({str(error)[:200] or type(error).__name__}), so nothing could be read.",
            hint="Open it in a spreadsheet, save it again as XLSX or CSV.",
            where=name,
        ) from error


def _see_that_it_unpacks(name: str, raw: bytes) -> None:
    with zipfile.ZipFile(io.BytesIO(raw)) as pack:
        parts = pack.infolist()
        if len(parts) > MOST_PARTS or sum(part.file_size for part in parts) > MOST_UNPACKED:
            raise _too_much(name)
        left = MOST_UNPACKED
        for part in parts:
            with pack.open(part) as stream:
                while block := stream.read(1 << 20):
                    left -= len(block)
                    if left < 0:
                        raise _too_much(name)


def _read(name: str, raw: bytes, most_rows: int, most_columns: int) -> Workbook:
    from openpyxl import load_workbook  # late: slow to import

    # Twice: once with the values that formulas had when it was saved, once with the formulas themselves.
    values = load_workbook(io.BytesIO(raw), data_only=True, read_only=True)
    formulas = load_workbook(io.BytesIO(raw), read_only=True)
    try:
        best: tuple[str, list[tuple[int, tuple[Cell, ...]]]] | None = None
        place = 0
        for number, (shown, written) in enumerate(zip(values.worksheets, formulas.worksheets, strict=True)):
            rows = _rows(name, shown, written, most_rows, most_columns)
            if best is None or (len(rows) > 1 and len(best[1]) <= 1):
                best, place = (str(shown.title), rows), number
            if len(best[1]) > 1:
                break
        if best is None:
            raise RiktigError(f"{name} has no sheet, so nothing could be read.", where=name)
        merged = _merged(raw, getattr(values.worksheets[place], "_worksheet_path", ""))
        return Workbook(best[0], len(values.worksheets), tuple(best[1]), merged)
    finally:
        values.close()
        formulas.close()


def _rows(
    name: str, shown: _Sheet, written: _Sheet, most_rows: int, most_columns: int
) -> list[tuple[int, tuple[Cell, ...]]]:
    for sheet in (shown, written):
        sheet.reset_dimensions()  # what the sheet says of its own size is not asked
    rows: list[tuple[int, tuple[Cell, ...]]] = []
    pairs = zip(shown.iter_rows(values_only=True), written.iter_rows(values_only=True), strict=True)
    for number, (values, formulas) in enumerate(pairs, 1):
        cells = [_cell(value, formula) for value, formula in zip(values, formulas, strict=True)]
        while cells and cells[-1] == _EMPTY:
            cells.pop()
        if number > FURTHEST_ROW or (cells and len(rows) == most_rows):
            raise RiktigError(
                f"{name} has more than {most_rows} rows; that is no list of one panel, so nothing was taken.",
                hint="Take the rows of this panel into a list of their own.",
                where=name,
            )
        if len(cells) > most_columns:
            raise RiktigError(
                f"{name} has more than {most_columns} columns, so nothing was taken.",
                hint="Take the columns that belong to the list into one of their own.",
                where=f"{name}, row {number}",
            )
        if cells:
            rows.append((number, tuple(cells)))
    return rows


def _cell(value: object, formula: object) -> Cell:
    is_formula = isinstance(formula, str) and formula.startswith("=") and formula != value
    if value is None:
        return Cell("", uncounted=is_formula)
    if isinstance(value, float):
        return Cell(f"{value:.10g}")
    return Cell(str(value).strip())


def _merged(raw: bytes, part: str) -> tuple[str, ...]:
    """The merged areas, which the reader by rows leaves out."""
    with zipfile.ZipFile(io.BytesIO(raw)) as pack:
        if part not in pack.namelist():
            return ()
        return tuple(reference.decode() for reference in _MERGED.findall(pack.read(part)))


def _too_much(name: str) -> RiktigError:
    return RiktigError(
        f"{name} unpacks to far more than a list of a panel can be, so nothing was read.",
        hint="Save the list alone as XLSX or CSV.",
        where=name,
    )
