"""Codes on labels and cards: rendered as they print, read back by a foreign decoder, understood by bench and finder."""

from pathlib import Path

import pypdfium2
import pytest
import zxingcpp
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports import export_drawings
from riktig.core.geometry import LEAST_MODULE, Drawing, Poly, Rect, bounds_of, code_fits, code_marks
from riktig.core.job import CodesOn, Job, set_heading, set_practice
from riktig.core.labels import INDEX, LABELS, Medium, find, label_pages, misfit_texts, print_entries, to_print_again
from riktig.core.labels.draw import label_marks
from riktig.core.plate import LAYOUT
from riktig.core.production import ScanKind, batch_code, progress_of, read_scan
from riktig.core.records import Record
from riktig.core.schematic import NAMES
from riktig.core.terminals import STRIPS
from riktig.core.wiring import WIRING, bench_cards
from riktig.demo_job import kelp_shed, wash_drum

DOTS_PER_MM = 300 / 25.4
"""An office printer."""


def coded(job: Job) -> Job:
    return set_practice(job, codes=CodesOn.LABELS)


def read_back(drawings: tuple[Drawing, ...], evaluation: Evaluation[Job], folder: Path) -> list[str]:
    """Every code of some pages, as a decoder that is none of ours reads it off the printed page at 300 dpi."""
    path = folder / "page.pdf"
    export_drawings(evaluation, drawings, path, to_scale=True)
    texts: list[str] = []
    pdf = pypdfium2.PdfDocument(path)
    for page in pdf:
        picture = page.render(scale=DOTS_PER_MM * 25.4 / 72, grayscale=True).to_numpy()
        texts += [code.text for code in zxingcpp.read_barcodes(picture)]
    return texts


@pytest.mark.parametrize("medium", [Medium.DEVICE, Medium.CABLE, Medium.NAMEPLATE])
def test_every_code_of_a_medium_is_read_back_from_the_printed_page(medium: Medium, tmp_path: Path) -> None:
    evaluation = plan_for(coded(wash_drum()))
    labels = evaluation.get(LABELS)
    wanted = sorted(label.code for label in labels.on(medium) for _ in range(label.copies) if label.code)
    assert wanted
    assert sorted(read_back(label_pages(labels, medium), evaluation, tmp_path)) == wanted


def test_the_code_of_a_batch_card_is_read_back_and_means_that_batch(tmp_path: Path) -> None:
    evaluation = plan_for(kelp_shed())
    wiring = evaluation.get(WIRING)
    for batch in wiring.batches[:3]:
        code = batch_code("KS-0418", batch.number)
        cards = bench_cards(wiring, batch, evaluation.get(LAYOUT), flexible=True, code=code)
        texts = read_back(cards, evaluation, tmp_path)
        assert texts == [code] * len(cards)
        scan = read_scan(texts[0], "KS-0418", progress_of(wiring, ()), wiring.batches, {})
        assert (scan.kind, scan.batch) == (ScanKind.BATCH, batch.number)


def test_the_code_of_every_device_and_cable_leads_there_at_the_bench_and_in_the_finder() -> None:
    """A photocell B1 is no batch B1: codes of things carry the sign of IEC 81346 for a product."""
    evaluation = plan_for(coded(kelp_shed()))
    names, wiring, index = evaluation.get(NAMES), evaluation.get(WIRING), evaluation.get(INDEX)
    cables = {cable.tag: cable.device for cable in evaluation.get(STRIPS).cables}
    things = cables | {tag: device for device, tag in names.tag.items()}
    progress = progress_of(wiring, ())
    labels = evaluation.get(LABELS)
    for label in (*labels.on(Medium.DEVICE), *labels.on(Medium.CABLE)):
        scan = read_scan(label.code, "KS-0418", progress, wiring.batches, things)
        assert scan.kind is ScanKind.DEVICE, label.code
        assert scan.device is not None
        tag = label.code.rpartition("/-")[2]
        assert names.tag[scan.device] == tag or cables.get(tag) == scan.device
        assert find(index, label.code)[0].label == tag
    other = read_scan("KS-0001/-K1", "KS-0418", progress, wiring.batches, things)
    assert "belongs to the job KS-0001" in other.said
    nothing = read_scan("KS-0418/-K999", "KS-0418", progress, wiring.batches, things)
    assert "Nothing in this panel is called “K999”" in nothing.said


def test_no_code_stands_where_the_practice_wants_none() -> None:
    labels = plan_for(wash_drum()).get(LABELS)
    assert not any(label.code for label in labels.labels)
    marks = [mark for label in labels.labels for mark in label_marks(label, Rect(0, 0, *label.size))]
    assert not any(isinstance(mark, Poly) and mark.layer == "code" for mark in marks)


@pytest.mark.parametrize("medium", [Medium.DEVICE, Medium.CABLE, Medium.NAMEPLATE])
def test_code_and_words_stand_beside_each_other_inside_the_label(medium: Medium) -> None:
    for label in plan_for(coded(kelp_shed())).get(LABELS).on(medium):
        assert misfit_texts(label) == (), label.lines
        rect = Rect(0, 0, *label.size)
        marks = label_marks(label, rect)
        dark = [bounds_of(mark) for mark in marks if isinstance(mark, Poly) and mark.layer == "code"]
        words = [bounds_of(mark) for mark in marks if type(mark).__name__ == "Text"]
        assert dark
        assert min(area.height for area in dark) >= LEAST_MODULE
        assert max(area.right for area in dark) <= rect.right
        assert max(area.right for area in words) <= min(area.x for area in dark)


def test_a_code_that_would_be_too_fine_is_refused_by_name() -> None:
    """By hand: 25 modules and twice 4 of white at 0.25 mm are 8.25 mm; 10 signs go into 21 modules, 60 do not."""
    assert code_fits("KS-0418/-K1", 7.25)
    assert not code_fits("KS-0418/-K1", 7.0)
    job = set_heading(coded(wash_drum()), number="A JOB NUMBER OF FAR TOO MANY LETTERS AND WORDS FOR ANY LABEL" * 4)
    label = plan_for(job).get(LABELS).on(Medium.CABLE)[0]
    assert label.code in misfit_texts(label)


@pytest.mark.parametrize("text", ["A", "KS-0418/-K1", "Ω/-Ж1", "=1+1", "x" * 200])
def test_dark_modules_are_those_of_the_standard_and_leave_the_border_white(text: str) -> None:
    square = Rect(10, 20, 30, 30)
    marks = code_marks(text, square)
    areas = [bounds_of(mark) for mark in marks]
    module = min(area.height for area in areas)
    assert all(area.x >= square.x + 3.9 * module and area.right <= square.right - 3.9 * module for area in areas)
    assert all(area.y >= square.y + 3.9 * module and area.bottom <= square.bottom - 3.9 * module for area in areas)


def test_a_label_whose_code_changed_is_printed_again() -> None:
    job = coded(wash_drum())
    labels = plan_for(job).get(LABELS)
    log = [
        Record(f"r{n}", entry.subject, entry.facts, "Ida", "2026-12-01T08:00:00", n)
        for n, entry in enumerate(print_entries(labels, Medium.DEVICE), 1)
    ]
    assert to_print_again(labels, Medium.DEVICE, log) == ()
    other = plan_for(set_heading(job, number="KS-0499")).get(LABELS)
    assert len(to_print_again(other, Medium.DEVICE, log)) == len(other.on(Medium.DEVICE))
