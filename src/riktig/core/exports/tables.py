"""Schedules as CSV, XLSX and JSON."""

import csv
import io
import json
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from riktig.core.exports.pdf import SetHead
from riktig.core.exports.schedule_model import Schedule

RUN = ("=", "+", "-", "@", "\t", "\r", "\n", "|")
"""What a cell begins with that spreadsheets run as a formula."""
PORTRAIT = 95
"""Characters of a row up to which a sheet is printed upright (chosen by us)."""
__all__ = ["RUN", "as_csv", "as_json", "write_xlsx"]


def as_csv(schedule: Schedule, *, marked: bool = False) -> str:
    """Comma separated, keys in the first line, a point for decimals.

    Args:
        schedule: The list.
        marked: Begun with the mark by which some spreadsheets know UTF-8.
    """
    out = io.StringIO("\ufeff" if marked else "")
    out.seek(0, io.SEEK_END)
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


def write_xlsx(path: Path, schedules: Sequence[Schedule], head: SetHead | None = None) -> None:
    """One workbook, a sheet a schedule: filters, the heading row frozen and repeated in print, as wide as the page.

    Args:
        path: Where it is written; an existing file is replaced.
        schedules: The lists, a sheet each.
        head: Job, revision and date, for the first sheet and the head of every printed page.
    """
    from openpyxl import Workbook  # late: slow to import
    from openpyxl.styles import Font
    from openpyxl.utils import get_column_letter

    book = Workbook()
    book.remove(book.active)
    if head:
        book.properties.title, book.properties.creator = head.file_title, head.drawn or head.company or "Riktig"
        book.properties.subject = f"revision {head.revision}"
        _write_head(book.create_sheet("About"), head, schedules)
    for schedule in schedules:
        sheet = book.create_sheet(schedule.title[:31])
        sheet.append([heading for _, heading in schedule.columns])
        for cell in sheet[1]:
            cell.font = Font(bold=True)
        for number, row in enumerate(schedule.rows, 2):  # the sheet's own count goes through all its cells
            sheet.append(list(row))
            _only_texts(sheet, number, len(row))
        sheet.freeze_panes = "A2"
        widths = []
        for index, (_, heading) in enumerate(schedule.columns, 1):
            longest = max([len(heading), *(len(str(r[index - 1])) for r in schedule.rows)])
            widths.append(min(longest + 2, 60))
            sheet.column_dimensions[get_column_letter(index)].width = widths[-1]
        last = f"{get_column_letter(len(schedule.columns))}{sheet.max_row}"
        sheet.auto_filter.ref = f"A1:{last}"
        sheet.print_area = f"A1:{last}"
        sheet.print_title_rows = "1:1"
        sheet.page_setup.orientation = "landscape" if sum(widths) > PORTRAIT else "portrait"
        sheet.sheet_properties.pageSetUpPr.fitToPage = True
        sheet.page_setup.fitToWidth, sheet.page_setup.fitToHeight = 1, 0
        if head:
            sheet.oddHeader.left.text = _plain(f"{head.number} {head.title}")
            sheet.oddHeader.right.text = _plain(f"{schedule.title}, revision {head.revision}")
            sheet.oddFooter.left.text = _plain(head.made)
            sheet.oddFooter.right.text = "&P of &N"
    book.save(path)


def _write_head(sheet: Any, head: SetHead, schedules: Sequence[Schedule]) -> None:
    """What the workbook is of, and what stands in it."""
    from openpyxl.styles import Font
    from openpyxl.worksheet.hyperlink import Hyperlink

    for name, value in (
        ("Job", head.number), ("Title", head.title), ("Revision", head.revision), ("Date", head.made),
        ("Company", head.company), ("Customer", head.client), ("Drawing", head.drawing_number),
        ("Standard", head.standard),
    ):  # fmt: skip
        sheet.append([name, value])
    sheet.append([])
    sheet.append(["List", "Rows"])
    for schedule in schedules:
        sheet.append([schedule.title, len(schedule.rows)])
        link = sheet.cell(sheet.max_row, 1)
        link.hyperlink = Hyperlink(link.coordinate, location=f"'{schedule.title[:31]}'!A1")
        link.style = "Hyperlink"
    for row in range(1, sheet.max_row + 1):
        _only_texts(sheet, row, 2)
        if row <= 8:
            sheet.cell(row, 1).font = Font(bold=True)
    sheet.column_dimensions["A"].width, sheet.column_dimensions["B"].width = 44, 44


def _only_texts(sheet: Any, row: int, columns: int) -> None:
    """What begins like a formula is a text: nothing in a cell is run."""
    for column in range(1, columns + 1):
        cell = sheet.cell(row, column)
        if cell.data_type in ("f", "e"):
            cell.data_type = "s"


def _plain(text: str) -> str:
    """A text for the head of a printed page, where “&” begins a command."""
    return text.replace("&", "&&")
