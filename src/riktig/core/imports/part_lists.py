"""Parts of one's own from a list and back: CSV or XLSX, a part a line."""

from dataclasses import fields
from pathlib import Path

from riktig.core.catalogue import placeable_kinds
from riktig.core.errors import ImpossibleValueError, InputFault, RiktigError
from riktig.core.exports.schedule_model import Schedule
from riktig.core.imports.read_grid import Grid, GridRow, grid_of_file
from riktig.core.job import OwnHole, OwnPart, read_quantity

__all__ = ["PART_COLUMNS", "holes_text", "own_parts_schedule", "parts_of_grid", "read_holes", "read_parts"]

PART_COLUMNS = tuple(field.name for field in fields(OwnPart))
"""The columns, in their order; ref, kind, width, height and depth are needed."""
NEEDED = ("ref", "kind")
MOST_PARTS = 500
"""Parts of one's own in one job (chosen by us: a list of more is another catalogue)."""


def read_holes(text: str) -> tuple[OwnHole, ...]:
    """Holes as they are written: “M4 8,8 84,8”, a thread and the places after it; several threads may follow.

    Raises:
        ValueError: it cannot be read.
    """
    holes: list[OwnHole] = []
    thread = "M4"
    for word in text.replace(";", " ").split():
        if word[:1] in "Mm":
            thread = word.upper()
            continue
        x, comma, y = word.partition(",")
        try:
            holes.append(OwnHole(float(x), float(y), thread))
        except ValueError as error:
            raise ImpossibleValueError(
                f"“{word}” is not a place such as 8,8" if comma else f"“{word}” is no hole"
            ) from error
    return tuple(holes)


def holes_text(holes: tuple[OwnHole, ...]) -> str:
    """The holes as ``read_holes`` reads them."""
    words: list[str] = []
    thread = ""
    for hole in holes:
        if hole.thread != thread:
            thread = hole.thread
            words.append(thread)
        words.append(f"{hole.x:g},{hole.y:g}")
    return " ".join(words)


def read_parts(path: Path) -> tuple[OwnPart, ...]:
    """The parts of a CSV or XLSX file.

    Raises:
        RiktigError: the file cannot be read; every line that cannot be used is among its faults.
    """
    return parts_of_grid(grid_of_file(path))


def parts_of_grid(grid: Grid) -> tuple[OwnPart, ...]:
    """The parts of a list; the first row names the columns.

    Raises:
        RiktigError: a column that is needed is missing, or lines that cannot be used: all of them are said.
    """
    if not grid.rows:
        raise RiktigError("The list is empty, so no part was taken in.", where=grid.name)
    heading, *rows = grid.rows
    names = [cell.strip().lower().replace(" ", "_") for cell in heading.cells]
    missing = [name for name in NEEDED if name not in names]
    if missing:
        raise RiktigError(
            f"The list has no column {' and '.join(missing)}, so no part was taken in.",
            hint=f"Its columns are: {', '.join(PART_COLUMNS)}.",
            where=grid.name,
        )
    if len(rows) > MOST_PARTS:
        raise RiktigError(f"The list has {len(rows)} parts; {MOST_PARTS} can be taken in.", where=grid.name)
    faults: list[InputFault] = [fault for _, fault in grid.faults]
    own_parts: dict[str, OwnPart] = {}
    for row in rows:
        try:
            part = _part(names, row)
        except ValueError as error:
            faults.append(InputFault(grid.where(row), f"{error}."))
            continue
        if part.ref in own_parts:
            faults.append(InputFault(grid.where(row), f"{part.ref} is there twice."))
        own_parts[part.ref] = part
    if faults:
        raise RiktigError(
            f"{len(faults)} of {len(rows)} lines cannot be used, so no part was taken in.",
            hint="Mend them and take the list in again.",
            where=grid.name,
            faults=faults,
        )
    return tuple(own_parts.values())


def _part(names: list[str], row: GridRow) -> OwnPart:
    values: dict[str, object] = {}
    for name, cell in zip(names, row.cells, strict=False):
        if name not in PART_COLUMNS or not cell.strip():
            continue
        if name == "holes":
            values[name] = read_holes(cell)
        elif name in ("ref", "kind", "description", "colour", "tested_with"):
            values[name] = cell.strip()
        else:
            values[name] = _number(name, cell)
    kind = str(values.get("kind", ""))
    if kind not in {placeable_kind.id for placeable_kind in placeable_kinds()}:
        raise ImpossibleValueError(f"“{kind}” is no kind of part" if kind else "the kind is missing")
    return OwnPart(**{"ref": "", **values})  # type: ignore[arg-type]


_UNITS = {
    "loss_w": "W", "rated_a": "A", "torque_n_m": "N·m", "min_mm2": "mm²", "max_mm2": "mm²", "breaking_ka": "kA",
    "marked_ka": "kA", "energy_ka2s": "kA²s", "peak_ka": "kA",
}  # fmt: skip


def _number(name: str, cell: str) -> float:
    unit = _UNITS.get(name, "mm")
    try:
        return read_quantity(cell, unit, name.replace("_", " "))
    except RiktigError as error:
        raise ImpossibleValueError(str(error).rstrip(".")) from error


def own_parts_schedule(parts: tuple[OwnPart, ...]) -> Schedule:
    """The parts as a list that ``read_parts`` reads."""
    rows = tuple(
        tuple(holes_text(part.holes) if name == "holes" else getattr(part, name) for name in PART_COLUMNS)
        for part in parts
    )
    return Schedule("own parts", "Parts of one's own", tuple((name, name) for name in PART_COLUMNS), rows)
