"""Lists that come in: load lists and part lists, pasted, as CSV or as XLSX.

Words: a *grid* is the cells of a list with the place that each came from; a *column* is what a heading was recognised
as.
"""

from riktig.core.imports.load_words import COLUMNS, LEFT_OUT
from riktig.core.imports.read_grid import Grid, grid_of_file, grid_of_text
from riktig.core.imports.read_loads import (
    Column,
    LoadList,
    LoadRow,
    job_from_loads,
    loads_of,
    new_loads,
    read_loads,
    recognise,
)
from riktig.core.imports.read_parts import PART_COLUMNS, holes_text, own_parts_schedule, read_holes, read_parts

__all__ = [
    "COLUMNS",
    "LEFT_OUT",
    "PART_COLUMNS",
    "Column",
    "Grid",
    "LoadList",
    "LoadRow",
    "grid_of_file",
    "grid_of_text",
    "holes_text",
    "job_from_loads",
    "loads_of",
    "new_loads",
    "own_parts_schedule",
    "read_holes",
    "read_loads",
    "read_parts",
    "recognise",
]
