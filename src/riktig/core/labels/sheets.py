"""Labels on bought media: each in its place on sheet, strip or roll, from where the begun one was left."""

import csv
from collections.abc import Sequence
from functools import cache
from importlib import resources

from riktig.core.geometry import Drawing, Line, Rect, Shape
from riktig.core.job import LabelForm, LabelSheet
from riktig.core.labels.draw import label_marks
from riktig.core.labels.engraving import engraved
from riktig.core.labels.model import Label, Medium

__all__ = ["known_sheets", "read_sheets", "sheet_pages"]


FILLED = (Medium.WARNING,)
"""Media whose ground is printed too: it tells what they are."""
CUT_MARK = 1.5
"""Length of the mark at both edges of a tape where it is cut, mm (chosen by us)."""
LONGEST_PAGE = 1_000.0
"""A tape is written in pieces of at most this length, mm: every reader of PDF takes such a page (chosen by us)."""


@cache
def known_sheets() -> tuple[LabelSheet, ...]:
    """The media that ship, of common sizes; a house can add its own.

    Source:
        Invented: round sizes as they are sold, no maker's.
    """
    path = resources.files("riktig.core.labels") / "data" / "label_sheets.csv"
    return read_sheets(path.read_text(encoding="utf-8"))


def read_sheets(text: str) -> tuple[LabelSheet, ...]:
    """Media from a table like the one that ships; lines that begin with # say something about it.

    Args:
        text: The table as CSV: its head names the columns, sizes in mm.

    Raises:
        ValueError: a number, a form or a size that cannot be.
        KeyError: a column is missing.
    """
    rows = csv.DictReader(line for line in text.splitlines() if line.strip() and not line.startswith("#"))
    forms = {form.name.lower(): form for form in LabelForm}
    return tuple(
        LabelSheet(
            row["medium"], row["name"], float(row["width"]), float(row["height"]), int(row["columns"]),
            int(row["rows"]), float(row["left"]), float(row["top"]), float(row["across"]), float(row["down"]),
            float(row["paper_width"]), float(row["paper_height"]), form=forms[(row.get("form") or "sheet").strip()],
            characters=int(row.get("characters") or 0), least=float(row.get("least") or 1.6),
        )
        for row in rows
    )  # fmt: skip


def sheet_pages(labels: Sequence[Label], sheet: LabelSheet, *, outlines: bool = True) -> tuple[Drawing, ...]:
    """The labels as they come out of the printer: whole sheets or strips, every label in its place, nothing else.

    The first is the begun one: its used places stay empty. Of a roll the printed piece comes out, with marks where it
    is cut. Texts on plates for engraving come out as outlines.

    Args:
        labels: In the order in which they are printed; each as often as its copies say.
        sheet: What is in the printer.
        outlines: Whether edges are drawn and texts are texts: on the screen, not on what goes into the printer.
    """
    shown = [label for label in labels for _ in range(label.copies)]
    if sheet.form is LabelForm.TAPE:
        return _tape(shown, sheet, outlines=outlines)
    papers: list[list[Shape]] = [[] for _ in range(sheet.sheets_for(len(shown)))]
    for number, label in enumerate(shown, sheet.used):
        paper, place = divmod(number, sheet.places)
        x, y = sheet.place(place)
        papers[paper] += _marks(label, Rect(x, y, sheet.width, sheet.height), outlines=outlines)
    noun = sheet.form.noun
    pages = tuple(
        Drawing(sheet.paper_width, sheet.paper_height, tuple(marks), f"{sheet.name}, {noun} {n} of {len(papers)}")
        for n, marks in enumerate(papers, 1)
    )
    if sheet.form is LabelForm.PLATES and not outlines:
        return tuple(engraved(page) for page in pages)
    return pages


def _marks(label: Label, rect: Rect, *, outlines: bool) -> list[Shape]:
    marks = label_marks(label, rect)
    return [mark for mark in marks if outlines or mark.layer != "label" or label.medium in FILLED]


def _tape(shown: Sequence[Label], sheet: LabelSheet, *, outlines: bool) -> tuple[Drawing, ...]:
    """The printed pieces of a roll; between two labels a mark at both edges says where to cut."""
    across = sheet.across if sheet.columns > 1 else sheet.width
    in_piece = max(int((LONGEST_PAGE - sheet.left) // across), 1)
    pieces = [shown[first : first + in_piece] for first in range(0, len(shown), in_piece)]
    pages = []
    for number, piece in enumerate(pieces, 1):
        length = sheet.left + len(piece) * across
        marks: list[Shape] = []
        for place, label in enumerate(piece):
            x = sheet.left + place * across
            marks += _marks(label, Rect(x, sheet.top, sheet.width, sheet.height), outlines=outlines)
            cut = x + sheet.width + (across - sheet.width) / 2
            marks.append(Line(cut, 0.0, cut, CUT_MARK, "ink", 0.2, layer="cut"))
            marks.append(Line(cut, sheet.paper_height - CUT_MARK, cut, sheet.paper_height, "ink", 0.2, layer="cut"))
        title = f"{sheet.name}, piece {number} of {len(pieces)}: {length:g} mm"
        pages.append(Drawing(length, sheet.paper_height, tuple(marks), title))
    return tuple(pages)
