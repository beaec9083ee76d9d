"""Schedules as CSV, XLSX and JSON."""

import csv
import io
import json
from collections.abc import Sequence
from pathlib import Path

from riktig.core.papers.schedule import Schedule

__all__ = ["as_csv", "as_json", "write_xlsx"]


def as_csv(schedule: Schedule) -> str:
    """Comma separated, keys in the first line, a point for decimals."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow([key for key, _ in schedule.columns])
    writer.writerows([["" if v is None else v for v in row] for row in schedule.rows])
    return out.getvalue()


def as_json(schedule: Schedule) -> str:
    """A list of objects, one a row."""
    return json.dumps(schedule.as_dicts(), ensure_ascii=False, indent=1)


def write_xlsx(path: Path, schedules: Sequence[Schedule]) -> None:
    """One workbook, a sheet a schedule, the heading row frozen."""
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
            sheet.append([_plain(value) for value in row])
        sheet.freeze_panes = "A2"
        for index, (_, heading) in enumerate(schedule.columns, 1):
            longest = max([len(heading), *(len(str(r[index - 1])) for r in schedule.rows)])
            sheet.column_dimensions[get_column_letter(index)].width = min(longest + 2, 60)
    book.save(path)


def _plain(value: object) -> object:
    """Text that begins like a formula stays text."""
    if isinstance(value, str) and value[:1] in "=+-@" and value:
        return "'" + value
    return value
