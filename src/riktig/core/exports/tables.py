"""Schedules as CSV, XLSX and JSON."""

import csv
import io
import json
from collections.abc import Sequence
from pathlib import Path

from riktig.core.exports.schedule_model import Schedule

RUN = ("=", "+", "-", "@", "\t", "\r", "\n", "|")
"""What a cell begins with that spreadsheets run as a formula."""
__all__ = ["RUN", "as_csv", "as_json", "write_xlsx"]


def as_csv(schedule: Schedule) -> str:
    """Comma separated, keys in the first line, a point for decimals."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow([key for key, _ in schedule.columns])
    writer.writerows([[_safe(value) for value in row] for row in schedule.rows])
    return out.getvalue()


def _safe(value: object) -> object:
    """A text that a spreadsheet would run as a formula has an apostrophe before it; our own reader takes it off again.

    A text cell of CSV cannot be told from a formula otherwise (OWASP on CSV injection, from memory).
    """
    if value is None:
        return ""
    return f"'{value}" if isinstance(value, str) and value.lstrip(" ")[:1] in RUN else value


def as_json(schedule: Schedule) -> str:
    """A list of objects, one a row."""
    return json.dumps(schedule.as_dicts(), ensure_ascii=False, indent=1)


def write_xlsx(path: Path, schedules: Sequence[Schedule]) -> None:
    """One workbook, a sheet a schedule, the heading row frozen.

    Args:
        path: Where it is written; an existing file is replaced.
        schedules: The lists, a sheet each.
    """
    from openpyxl import Workbook  # late: slow to import
    from openpyxl.styles import Font
    from openpyxl.utils import get_column_letter

    book = Workbook()
    book.remove(book.active)
    for schedule in schedules:
        sheet = book.create_sheet(schedule.title[:31])
        sheet.append([heading for _, heading in schedule.columns])
        for cell in sheet[1]:
            cell.font = Font(bold=True)
        for row in schedule.rows:
            sheet.append(list(row))
            for cell in sheet[sheet.max_row]:
                if cell.data_type in ("f", "e"):
                    cell.data_type = "s"  # a text, whatever it begins with: nothing in it is run
        sheet.freeze_panes = "A2"
        for index, (_, heading) in enumerate(schedule.columns, 1):
            longest = max([len(heading), *(len(str(r[index - 1])) for r in schedule.rows)])
            sheet.column_dimensions[get_column_letter(index)].width = min(longest + 2, 60)
    book.save(path)
