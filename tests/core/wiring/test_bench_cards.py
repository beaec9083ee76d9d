"""Cards for the bench: every wire once, nothing too small, nothing over anything else, two and more on a sheet."""

from dataclasses import replace
from pathlib import Path

import pytest
from pypdf import PdfReader
from shapely import box as area
from tests.effort import some
from tests.shared_plan import plan_for

from riktig.core.evaluation import Evaluation
from riktig.core.exports.paper_sets import batch_card_sheets, head_of
from riktig.core.exports.pdf_document import write_set
from riktig.core.geometry import Circle, Drawing, Line, Poly, Shape, Text, bounds_of, scaled
from riktig.core.job import EndStyle, Job, set_practice
from riktig.core.keys import WireKey
from riktig.core.plate import LAYOUT
from riktig.core.wiring import WIRING, WiringStage, bench_cards, bench_sheets, draw_batches
from riktig.demo_job import frost_fan, kelp_shed, wash_drum

PAPER = {"A4": (210.0, 297.0), "Letter": (215.9, 279.4)}


@pytest.fixture(params=[kelp_shed, frost_fan, wash_drum], ids=["shed", "fan", "drum"])
def evaluation(request: pytest.FixtureRequest) -> Evaluation[Job]:
    return plan_for(request.param())


def cards_of(evaluation: Evaluation[Job]) -> list[tuple[int, Drawing]]:
    wiring, layout = evaluation.get(WIRING), evaluation.get(LAYOUT)
    return [(b.number, card) for b in wiring.batches for card in bench_cards(wiring, b, layout, flexible=True)]


def test_every_wire_stands_once_with_both_ends_its_number_and_four_boxes(evaluation: Evaluation[Job]) -> None:
    wires = {wire.key: wire for wire in evaluation.get(WIRING).wires}
    numbered = [
        (mark.key.wire, mark.text)
        for _, card in cards_of(evaluation)
        for mark in card.shapes
        if isinstance(mark, Text) and isinstance(mark.key, WireKey) and not mark.text.endswith(" mm")
    ]
    assert sorted(numbered) == sorted((key, wire.number) for key, wire in wires.items())
    for number, card in cards_of(evaluation):
        texts = [mark.text for mark in card.shapes if isinstance(mark, Text)]
        own = {m.key.wire for m in card.shapes if isinstance(m.key, WireKey)}
        assert str(number) in texts
        for key in own:
            assert wires[key].start.label in texts and wires[key].end.label in texts
            assert f"{wires[key].length:g} mm" in texts


def test_texts_are_read_at_the_bench_and_none_is_over_another_or_off_the_card(evaluation: Evaluation[Job]) -> None:
    for number, card in cards_of(evaluation):
        texts = [mark for mark in card.shapes if isinstance(mark, Text)]
        assert min(mark.size for mark in some(texts)) >= 2.5 - 1e-9, number
        boxes = [(mark.text, area(b.x, b.y, b.right, b.bottom)) for mark in texts for b in [bounds_of(mark)]]
        card_area = area(0, 0, card.width, card.height)
        assert [text for text, shape in boxes if not card_area.covers(shape)] == [], number
        over = [
            (a, b)
            for n, (a, first) in enumerate(boxes)
            for b, second in boxes[n + 1 :]
            if first.intersection(second).area > 0.3
        ]
        assert over == [], number


def test_bars_are_as_long_as_their_wires_beside_each_other(evaluation: Evaluation[Job]) -> None:
    """The thick line of each wire, measured on the card, over its length: the same for the long ones of a batch."""
    wiring = evaluation.get(WIRING)
    lengths = {wire.key: wire.length for wire in wiring.wires}
    measured = 0
    for batch in wiring.batches:
        ratios = []
        for card in bench_cards(wiring, batch, evaluation.get(LAYOUT), flexible=True):
            for mark in card.shapes:
                if (
                    isinstance(mark, Line)
                    and isinstance(mark.key, WireKey)
                    and mark.role == "ink"
                    and mark.y1 == mark.y2
                ):
                    drawn = mark.x2 - mark.x1
                    if drawn > 12.5:  # shorter ones are drawn long enough to be seen
                        ratios.append(drawn / lengths[mark.key.wire])
        measured += len(ratios)
        assert ratios == pytest.approx([ratios[0]] * len(ratios), rel=1e-6) if ratios else True
    assert measured > 10


@pytest.mark.parametrize("job", [kelp_shed(), frost_fan()], ids=["A4", "Letter"])
def test_cards_are_printed_at_true_size_upright_and_not_cut(
    job: Job, tmp_path: Path, request: pytest.FixtureRequest
) -> None:
    evaluation = plan_for(job)
    path = tmp_path / "cards.pdf"
    write_set(path, head_of(job, "2026-11-30"), batch_card_sheets(evaluation), ())
    reader = PdfReader(path)
    wide, high = PAPER[request.node.callspec.id]
    wiring = evaluation.get(WIRING)
    sheets = bench_sheets(wiring, evaluation.get(LAYOUT), flexible=True)
    kits = len(reader.pages) - len(sheets)
    assert 1 <= kits <= 2, "the loom of the door behind them"
    assert len(sheets) < len(wiring.batches)
    for page in reader.pages:
        assert float(page.mediabox.width) / 72 * 25.4 == pytest.approx(wide, abs=0.2)
        assert float(page.mediabox.height) / 72 * 25.4 == pytest.approx(high, abs=0.2)
        assert "Scale\n1 : 1\n" in page.extract_text()
    text = "\n".join(page.extract_text() for page in reader.pages)
    assert all(wire.start.label in text for wire in wiring.wires)


def test_a_crimped_end_says_what_it_is() -> None:
    evaluation = plan_for(set_practice(wash_drum(), ends=EndStyle.CRIMPS))
    texts = {m.text for _, card in cards_of(evaluation) for m in card.shapes if isinstance(m, Text)}
    fittings = {end.fitting for wire in evaluation.get(WIRING).wires for end in (wire.start, wire.end)}
    assert {fitting for fitting in fittings if not fitting.startswith("ferrule ")} <= texts


@pytest.mark.parametrize(
    "mark",
    [Line(1, 2, 3, 4, width=0.5), Circle(1, 2, 3, width=0.5), Text(1, 2, "K1", 3.0), Poly((), width=0.5)],
    ids=["line", "circle", "text", "poly"],
)
def test_a_mark_made_twice_as_large_is_twice_as_far_and_twice_as_thick(mark: Shape) -> None:
    larger = scaled(mark, 2.0)
    for name in ("x", "y", "x1", "y1", "x2", "y2", "radius", "size", "width"):
        if hasattr(mark, name):
            assert getattr(larger, name) == 2 * getattr(mark, name), name
    assert scaled(larger, 0.5) == mark


def test_on_the_cards_of_the_window_no_wire_is_drawn_through_a_text() -> None:
    """Every stage on a card, the longest names too: the bars begin where the texts have ended."""
    wiring = plan_for(kelp_shed()).get(WIRING)
    batches = tuple(
        replace(wiring.batches[n % len(wiring.batches)], number=n + 1, stage=stage)
        for n, stage in enumerate(WiringStage)
    )
    drawing = draw_batches(replace(wiring, batches=batches), {})
    texts = [bounds_of(mark) for mark in drawing.shapes if isinstance(mark, Text)]
    bars = [bounds_of(mark).grown(0.5) for mark in drawing.shapes if isinstance(mark, Line) and mark.layer == "wire"]
    assert len(bars) > len(batches)
    assert [(bar, text) for bar in bars for text in texts if min(bar.overlap(text)) > 0] == []
