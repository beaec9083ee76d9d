from .load_lists import Column, LoadList, LoadRow, job_from_loads, loads_of, new_loads, read_loads, recognise
from .load_words import COLUMNS, LEFT_OUT
from .part_lists import PART_COLUMNS, holes_text, own_parts_schedule, read_holes, read_parts
from .purchases import PURCHASE_COLUMNS, purchases_of_grid, read_purchases
from .read_grid import Grid, grid_of_file, grid_of_text
from .survey_found import FoundPotentials, SurveyFinding, circuit_found, survey_findings
from .survey_sheet import (
    SURVEY_COLUMNS,
    Survey,
    SurveyedPart,
    SurveyedSource,
    SurveyedWire,
    read_survey,
    survey_of_grid,
)

__all__ = [
    "COLUMNS",
    "LEFT_OUT",
    "PART_COLUMNS",
    "PURCHASE_COLUMNS",
    "SURVEY_COLUMNS",
    "Column",
    "FoundPotentials",
    "Grid",
    "LoadList",
    "LoadRow",
    "Survey",
    "SurveyFinding",
    "SurveyedPart",
    "SurveyedSource",
    "SurveyedWire",
    "circuit_found",
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
    "read_survey",
    "recognise",
    "survey_findings",
    "survey_of_grid",
]
