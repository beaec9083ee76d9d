from .load_lists import Column, LoadList, LoadRow, job_from_loads, loads_of, new_loads, read_loads, recognise
from .load_words import COLUMNS, LEFT_OUT
from .part_lists import PART_COLUMNS, holes_text, own_parts_schedule, read_holes, read_parts
from .purchases import PURCHASE_COLUMNS, purchases_of_grid, read_purchases
from .read_grid import Grid, grid_of_file, grid_of_text

__all__ = [
    "COLUMNS",
    "LEFT_OUT",
    "PART_COLUMNS",
    "PURCHASE_COLUMNS",
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
    "purchases_of_grid",
    "read_holes",
    "read_loads",
    "read_parts",
    "read_purchases",
    "recognise",
]
