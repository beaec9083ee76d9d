from .load_words import COLUMNS, LEFT_OUT
from .read_grid import Grid, grid_of_file, grid_of_text
from .read_loads import Column, LoadList, LoadRow, job_from_loads, loads_of, new_loads, read_loads, recognise
from .read_parts import PART_COLUMNS, holes_text, own_parts_schedule, read_holes, read_parts

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
