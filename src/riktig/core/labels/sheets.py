"""Labels on bought sheets: each in its place on the paper, from where the begun sheet was left."""

import csv
from collections.abc import Sequence
from functools import cache
from importlib import resources

from riktig.core.geometry import Drawing, Rect, Shape
from riktig.core.job import LabelSheet
from riktig.core.labels.draw import label_marks
from riktig.core.labels.make import Label, Medium

__all__ = ["known_sheets", "sheet_pages"]


FILLED = (Medium.WARNING,)
"""Media whose ground is printed too: it tells what they are."""


@cache
def known_sheets() -> tuple[LabelSheet, ...]:
    """The sheets that ship, of common sizes; a job can have others.

    Source:
        Invented: round sizes as they are sold, no maker's.
    """
    path = resources.files("riktig.core.labels") / "data" / "label_sheets.csv"
    rows = csv.DictReader(path.read_text(encoding="utf-8").splitlines()[1:])
    return tuple(
        LabelSheet(
            row["medium"], row["name"], float(row["width"]), float(row["height"]), int(row["columns"]),
            int(row["rows"]), float(row["left"]), float(row["top"]), float(row["across"]), float(row["down"]),
            float(row["paper_width"]), float(row["paper_height"]),
        )
        for row in rows
    )  # fmt: skip


def sheet_pages(labels: Sequence[Label], sheet: LabelSheet, *, outlines: bool = True) -> tuple[Drawing, ...]:
    """The labels as they come out of the printer: whole papers, every label in its place, nothing else on them.

    The first paper is the begun sheet: its used places stay empty.

    Args:
        labels: In the order in which they are printed; each as often as its copies say.
        sheet: What is in the printer.
        outlines: Whether the edge of each label is drawn: on the screen, not on paper that is cut already.
    """
    shown = [label for label in labels for _ in range(label.copies)]
    papers: list[list[Shape]] = [[] for _ in range(sheet.sheets_for(len(shown)))]
    for number, label in enumerate(shown, sheet.used):
        paper, place = divmod(number, sheet.places)
        x, y = sheet.place(place)
        marks = label_marks(label, Rect(x, y, sheet.width, sheet.height))
        papers[paper] += [mark for mark in marks if outlines or mark.layer != "label" or label.medium in FILLED]
    return tuple(
        Drawing(sheet.paper_width, sheet.paper_height, tuple(marks), f"{sheet.name}, sheet {n} of {len(papers)}")
        for n, marks in enumerate(papers, 1)
    )
