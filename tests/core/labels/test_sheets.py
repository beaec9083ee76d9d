"""Sheets of labels: every label in its place to 0.1 mm on the printed page, from where the begun sheet was left."""

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise
from pathlib import Path

import pypdfium2
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.shared_plan import plan_for

from riktig.core.edits import DropLabelSheet, SetLabelSheet, UseLabels
from riktig.core.errors import ImpossibleValueError, RiktigError
from riktig.core.evaluation import Evaluation
from riktig.core.exports import export_drawings
from riktig.core.geometry import Drawing, Poly, Rect, Text, bounds_of
from riktig.core.job import Job, LabelSheet
from riktig.core.labels import LABELS, Medium, known_sheets, misfit_texts, sheet_pages
from riktig.core.store import dump_job, load_job
from riktig.demo_job import kelp_shed

TAGS = LabelSheet("cable tags", "A4, 60 × 12", 60, 12, 3, 22, 12, 16.5, 63, 12)


def on(job: Job, sheet: LabelSheet) -> Evaluation[Job]:
    return plan_for(SetLabelSheet(sheet).apply(plan_for(job)))


def outlines(page: Drawing) -> list[Rect]:
    return [bounds_of(shape) for shape in page.shapes if isinstance(shape, Poly) and shape.layer == "label"]


@pytest.mark.parametrize("sheet", known_sheets(), ids=lambda sheet: f"{sheet.medium} {sheet.name}")
def test_every_sheet_that_ships_lies_on_its_paper_and_holds_the_labels_of_the_shed(sheet: LabelSheet) -> None:
    assert sheet.medium in {medium.value for medium in Medium}
    medium = next(medium for medium in Medium if medium.value == sheet.medium)
    labels = on(kelp_shed(), sheet).get(LABELS).on(medium)
    assert labels
    fitting = [label for label in labels if not misfit_texts(label)]
    assert len(fitting) >= 0.9 * len(labels), [misfit_texts(label) for label in labels if misfit_texts(label)]
    for page in sheet_pages(fitting, sheet):
        areas = outlines(page)
        assert all(
            a.x >= 0 and a.right <= page.width + 0.06 and a.y >= 0 and a.bottom <= page.height + 0.06 for a in areas
        )
        assert all(a.width == pytest.approx(sheet.width) and a.height == pytest.approx(sheet.height) for a in areas)
        ordered = sorted(areas, key=lambda a: (round(a.y, 2), a.x))
        for left, right in pairwise(ordered):
            assert left.bottom <= right.y + 0.06 or left.right <= right.x + 0.06, "one over the other"


def test_places_are_counted_row_by_row_from_the_begun_one() -> None:
    """By hand: place 4 of 3 across is the second of the second row: 12 + 63 and 16.5 + 12."""
    labels = on(kelp_shed(), TAGS).get(LABELS).on(Medium.CABLE)
    count = sum(label.copies for label in labels)
    first, *rest = sheet_pages(labels, replace(TAGS, used=4))
    assert (outlines(first)[0].x, outlines(first)[0].y) == pytest.approx((75.0, 28.5))
    assert sum(len(outlines(page)) for page in (first, *rest)) == count
    assert len(outlines(first)) == min(count, 66 - 4)


@given(used=st.integers(0, 65), runs=st.lists(st.integers(0, 200), max_size=6), shelf=st.integers(0, 40))
def test_what_is_printed_in_several_runs_takes_as_much_as_in_one(used: int, runs: Sequence[int], shelf: int) -> None:
    begun = replace(TAGS, used=used, sheets=shelf)
    at_once = begun.after(sum(runs))
    several = begun
    for count in runs:
        several = several.after(count)
    assert several == at_once
    whole = begun.labels_left
    assert whole is not None
    if sum(runs) <= whole:
        assert at_once.labels_left == whole - sum(runs)


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"columns": 4}, "beyond the sheet"), ({"rows": 24}, "beyond the sheet"), ({"across": 59.0}, "apart"),
        ({"down": 5.0}, "apart"), ({"used": 66}, "begun sheet"), ({"used": -1}, "begun sheet"),
        ({"columns": 0}, "cannot lie"), ({"width": 0.5}, "cannot be"), ({"width": float("nan")}, "cannot be"),
        ({"paper_width": 1e9}, "cannot be"), ({"sheets": -2}, "shelf"), ({"name": " "}, "name"),
        ({"rows": 10**9}, "cannot lie"),
    ],
)  # fmt: skip
def test_a_sheet_that_cannot_be_is_refused_by_what_is_wrong(changed: dict[str, float], words: str) -> None:
    with pytest.raises(ImpossibleValueError, match=words):
        replace(TAGS, **changed)  # type: ignore[arg-type]


def test_the_job_keeps_its_sheets_one_a_medium_and_gives_them_up() -> None:
    evaluation = on(kelp_shed(), replace(TAGS, used=3, sheets=2))
    again = on(evaluation.document, replace(TAGS, name="others"))
    assert [sheet.name for sheet in again.document.label_sheets] == ["others"]
    assert load_job(dump_job(evaluation.document)).label_sheets == evaluation.document.label_sheets
    used = UseLabels("cable tags", 70).apply(evaluation)
    assert (used.label_sheets[0].used, used.label_sheets[0].sheets) == (7, 1)
    assert DropLabelSheet("cable tags").apply(evaluation).label_sheets == ()
    with pytest.raises(RiktigError, match="no labels called"):
        SetLabelSheet(replace(TAGS, medium="flags")).apply(evaluation)


def test_a_text_that_the_sheet_does_not_hold_is_refused_by_name() -> None:
    narrow = LabelSheet("device labels", "narrow", 10, 6, 10, 20, 10, 10, 10, 6)
    labels = on(kelp_shed(), narrow).get(LABELS).on(Medium.DEVICE)
    assert all(label.size == (10, 6) for label in labels)
    assert any("control transformer" in text for label in labels for text in misfit_texts(label))


def test_on_paper_every_label_lies_where_it_should_to_a_tenth_of_a_millimetre(tmp_path: Path) -> None:
    """The rendered page, not our drawing of it: ink lies inside the place of each label, and nowhere else."""
    evaluation = on(kelp_shed(), replace(TAGS, used=2))
    labels = evaluation.get(LABELS).on(Medium.CABLE)
    pages = sheet_pages(labels, replace(TAGS, used=2), outlines=False)
    path = tmp_path / "tags.pdf"
    export_drawings(evaluation, pages, path, to_scale=True, whole=True)
    pdf = pypdfium2.PdfDocument(path)
    assert len(pdf) == len(pages)
    page = pdf[0]
    assert (page.get_width() / 72 * 25.4, page.get_height() / 72 * 25.4) == pytest.approx((210.0, 297.0), abs=0.1)
    dots = 10.0
    picture = page.render(scale=dots * 25.4 / 72, grayscale=True).to_numpy().squeeze() < 250
    count = sum(label.copies for label in labels)
    seen = picture.copy()
    for number in range(TAGS.places):
        x, y = TAGS.place(number)
        area = (slice(round(y * dots), round((y + TAGS.height) * dots)), slice(round(x * dots), round((x + 60) * dots)))
        assert picture[area].any() == (2 <= number < 2 + count), number
        seen[area] = False
    assert not seen.any(), "no head, no title block, no edge: nothing beside the labels"


def test_letters_are_never_below_what_can_be_read() -> None:
    for sheet in known_sheets():
        medium = next(medium for medium in Medium if medium.value == sheet.medium)
        labels = [label for label in on(kelp_shed(), sheet).get(LABELS).on(medium) if not misfit_texts(label)]
        texts = [shape for page in sheet_pages(labels, sheet) for shape in page.shapes if isinstance(shape, Text)]
        assert min(text.size for text in texts) >= sheet.least - 1e-9
