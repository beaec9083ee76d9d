"""The border: everything that comes in from outside passes here before anything else looks at it.

A file must be a regular file of a bearable size; a text must be one that every paper and file can hold; JSON
must say each thing once. What does not pass is refused with its place; nothing is taken in by half.
"""

from riktig.core.inputs.files import read_bytes, read_text, regular_file
from riktig.core.inputs.json_text import parse_json
from riktig.core.inputs.names import file_name
from riktig.core.inputs.texts import LONGEST_TEXT, plain_name, same_person, unfit, without_unfit
from riktig.core.inputs.workbook import Cell, Workbook, read_workbook

__all__ = [
    "LONGEST_TEXT",
    "Cell",
    "Workbook",
    "file_name",
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
