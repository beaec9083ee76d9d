from .files import read_bytes, read_text, regular_file
from .json_text import parse_json
from .moments import is_day, minutes_between
from .names import file_name
from .texts import LONGEST_TEXT, plain_name, same_person, unfit, without_unfit
from .workbook import Cell, Workbook, read_workbook

__all__ = [
    "LONGEST_TEXT",
    "Cell",
    "Workbook",
    "file_name",
    "is_day",
    "minutes_between",
    "parse_json",
    "plain_name",
    "read_bytes",
    "read_text",
    "read_workbook",
    "regular_file",
    "same_person",
    "unfit",
    "without_unfit",
]
