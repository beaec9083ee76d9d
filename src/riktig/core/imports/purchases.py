"""The purchasing table of a workshop, from CSV or XLSX: order numbers, suppliers, prices, stock, lead times."""

from pathlib import Path

from riktig.core.errors import ImpossibleValueError, InputFault, RiktigError
from riktig.core.imports.read_grid import Grid, GridRow, grid_of_file
from riktig.core.job import Purchase, read_quantity

__all__ = ["PURCHASE_COLUMNS", "purchases_of_grid", "read_purchases"]

PURCHASE_COLUMNS = ("part", "description", "order number", "supplier", "price", "stock", "lead days")
"""As the parts list has them, so that its CSV filled in can be taken in again."""
_ITEM = ("part", "description", "item", "article")
_VALUES = {
    "order number": "order_number", "order no": "order_number", "order code": "order_number",
    "supplier": "supplier", "price": "price", "unit price": "price", "stock": "stock", "on the shelf": "stock",
    "lead days": "lead_days", "lead time": "lead_days", "days": "lead_days",
}  # fmt: skip
MOST_LINES = 2_000


def read_purchases(path: Path) -> tuple[Purchase, ...]:
    """The purchasing table of a CSV or XLSX file.

    Raises:
        RiktigError: the file cannot be read; every line that cannot be used is among its faults.
    """
    return purchases_of_grid(grid_of_file(path))


def purchases_of_grid(grid: Grid) -> tuple[Purchase, ...]:
    """The purchasing table of a list; the first row names the columns. Lines that say nothing of a part are left out.

    Raises:
        RiktigError: a column that is needed is missing, or lines that cannot be used: all of them are said.
    """
    if not grid.rows:
        raise RiktigError("The purchasing table is empty, so nothing was taken in.", where=grid.name)
    heading, *rows = grid.rows
    names = [" ".join(cell.lower().replace("_", " ").replace(",", " ").split()) for cell in heading.cells]
    if not set(names) & set(_ITEM) or not set(names) & set(_VALUES):
        raise RiktigError(
            "The table names no part, or says nothing of it, so nothing was taken in: prices, stock and order numbers "
            "of the panel stay as they were.",
            hint=f"Its first row names the columns: {', '.join(PURCHASE_COLUMNS)}. The parts list as CSV has them all.",
            where=grid.name,
        )
    if len(rows) > MOST_LINES:
        raise RiktigError(f"The table has {len(rows)} lines; {MOST_LINES} can be taken in.", where=grid.name)
    faults: list[InputFault] = [fault for _, fault in grid.faults]
    lines: dict[str, Purchase] = {}
    for row in rows:
        try:
            line = _line(names, row)
        except ValueError as error:
            faults.append(InputFault(grid.where(row), f"{error}."))
            continue
        if line is None:
            continue
        if line.item.casefold() in lines:
            faults.append(InputFault(grid.where(row), f"{line.item} is there twice."))
        lines[line.item.casefold()] = line
    if faults:
        raise RiktigError(
            f"{len(faults)} of {len(rows)} lines cannot be used, so nothing was taken in.",
            hint="Mend them and take the table in again.",
            where=grid.name,
            faults=faults,
        )
    if not lines:
        raise RiktigError("No line of the table says anything of a part, so nothing was taken in.", where=grid.name)
    return tuple(lines.values())


def _line(names: list[str], row: GridRow) -> Purchase | None:
    """What a row says; None where it only names a part."""
    cells = {name: cell.strip() for name, cell in zip(names, row.cells, strict=False) if cell.strip()}
    values: dict[str, object] = {}
    for name, cell in cells.items():
        key = _VALUES.get(name)
        if key in ("order_number", "supplier"):
            values[key] = cell
        elif key:
            values[key] = _number(name, cell, "days" if key == "lead_days" else "")
    if not values:
        return None
    item = next((cells[name] for name in _ITEM if name in cells), "")
    if "lead_days" in values:
        values["lead_days"] = round(float(str(values["lead_days"])))
    return Purchase(item, **values)  # type: ignore[arg-type]


def _number(name: str, cell: str, unit: str) -> float:
    try:
        return read_quantity(cell, unit, name)
    except RiktigError as error:
        raise ImpossibleValueError(str(error).rstrip(".")) from error
