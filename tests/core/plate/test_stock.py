"""Bars: least new stock, proven, then the longest offcut; kerf, trim and the shelf; against brute force."""

import random
from collections.abc import Iterator
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.core.schematic.builders import one_motor
from tests.shared_plan import plan_for

from riktig.core.errors import RiktigError
from riktig.core.geometry import Poly, Text, bounds_of
from riktig.core.job import Offcut, Practice, set_practice
from riktig.core.keys import PieceKey
from riktig.core.plate import CUT_PLAN, CUTS, CutPlan, Piece, cut_plan, draw_cuts, plan_cuts
from riktig.core.store import dump_job, load_job
from riktig.demo_job import demo_job

RAIL = "rail 35 × 7.5"


def pieces(*lengths: float) -> list[Piece]:
    return [Piece(f"R{n}", RAIL, length, "") for n, length in enumerate(lengths, 1)]


def splits(lengths: list[float]) -> Iterator[list[list[float]]]:
    """All ways to put pieces into bars, each once."""
    if not lengths:
        yield []
        return
    first, rest = lengths[0], lengths[1:]
    for done in splits(rest):
        yield [[first], *done]
        for n, bar in enumerate(done):
            yield [*done[:n], [first, *bar], *done[n + 1 :]]


def brute(lengths: list[float], bar: float, kerf: float, trim: float) -> tuple[int, float]:
    """The fewest bars and, with those, the longest rest, by trying everything."""
    best = (99, 0.0)
    for bars in splits(lengths):
        used = [sum(one) + kerf * len(one) for one in bars]
        if all(one <= bar - trim + kerf + 1e-9 for one in used):
            rest = max(bar - trim - one for one in used)
            best = min(best, (len(bars), -max(rest, 0.0)))
    return best[0], -best[1]


@settings(max_examples=120, deadline=None)
@given(
    st.lists(st.integers(80, 990), min_size=1, max_size=7),
    st.sampled_from([0.0, 2.0, 3.5]),
    st.sampled_from([0.0, 5.0]),
)
def test_brute_force_on_small_lists_finds_as_few_bars_and_as_long_a_rest(
    lengths: list[int], kerf: float, trim: float
) -> None:
    plan = plan_cuts(pieces(*map(float, lengths)), bar=1000.0, kerf=kerf, trim=trim)
    bars, rest = brute([float(one) for one in lengths], 1000.0, kerf, trim)
    assert plan.new_bars == bars
    assert plan.proven
    assert max(bar.left for bar in plan.bars) == pytest.approx(rest, abs=0.011)


def whole(plan: CutPlan, want: list[Piece], kerf: float, trim: float) -> None:
    """Every piece once, no two over each other, a kerf between, nothing in the trim or past the end."""
    assert sorted(p.name for bar in plan.bars for p in bar.pieces) == sorted(p.name for p in want)
    for bar in plan.bars:
        spans = [(start, start + piece.length) for piece, start in zip(bar.pieces, bar.starts, strict=True)]
        assert spans[0][0] == (trim if bar.source.startswith("new") else 0.0)
        assert all(b[0] - a[1] == pytest.approx(kerf, abs=0.011) for a, b in pairwise(spans))
        assert spans[-1][1] <= bar.length + 0.01
        assert bar.left == pytest.approx(max(bar.length - spans[-1][1] - kerf, 0.0), abs=0.011)


@settings(max_examples=40, deadline=None)
@given(
    st.lists(st.sampled_from([250.0, 270.0, 405.5, 620.0, 810.0, 1330.0]), min_size=1, max_size=40),
    st.lists(st.sampled_from([260.0, 500.0, 830.0, 1400.0]), max_size=4),
)
def test_every_piece_is_cut_once_and_the_shelf_comes_first(lengths: list[float], shelf: list[float]) -> None:
    want = pieces(*lengths)
    offcuts = [Offcut(RAIL, length, f"S{n}") for n, length in enumerate(shelf)]
    plan = plan_cuts(want, offcuts)
    whole(plan, want, 2.0, 5.0)
    assert plan.proven
    assert plan.new_bars <= plan_cuts(want).new_bars, "what lies on the shelf never costs a bar"
    taken = [bar.source for bar in plan.bars if not bar.source.startswith("new")]
    assert len(taken) == len(set(taken)), "an offcut is used once"


def test_eighty_pieces_of_a_panel_are_proven() -> None:
    chance = random.Random(5)
    plan = plan_cuts(pieces(*(chance.choice((310.0, 455.0, 780.0, 820.0)) for _ in range(80))))
    assert plan.proven
    assert plan.new_bars == plan.least


def test_stocks_are_not_mixed_and_offcuts_serve_their_own() -> None:
    want = [*pieces(500.0), Piece("D1", "slotted duct 30 × 60", 500.0, "")]
    plan = plan_cuts(want, [Offcut("slotted duct 30 × 60", 600.0, "left of the last job")])
    assert {(bar.stock, bar.source) for bar in plan.bars} == {
        (RAIL, "new bar 1"),
        ("slotted duct 30 × 60", "left of the last job"),
    }


def test_a_piece_longer_than_stock_says_what_to_do() -> None:
    with pytest.raises(RiktigError, match="R1 is 1996 mm long") as caught:
        plan_cuts(pieces(1996.0))
    assert "two pieces" in str(caught.value)
    assert plan_cuts(pieces(1995.0)).new_bars == 1, "a bar less its trim is just enough"
    assert plan_cuts(pieces(2100.0), [Offcut(RAIL, 2100.0)]).new_bars == 0, "unless the shelf has one"


def test_in_a_job_too_long_pieces_are_set_aside_and_drawn_as_such() -> None:
    plan = cut_plan(tuple(pieces(500.0, 2500.0)), (), Practice())
    assert [piece.name for piece in plan.too_long] == ["R2"]
    said = [m.text for m in draw_cuts(plan).shapes if isinstance(m, Text) and m.role == "fails"]
    assert said == ["R2 is 2500 mm long: no bar of rail 35 × 7.5 is. Make it of two pieces."]


def test_the_job_has_its_bars_by_its_practice_and_the_file_its_shelf() -> None:
    evaluation = plan_for(demo_job("kelp-shed"))
    whole(evaluation.get(CUT_PLAN), list(evaluation.get(CUTS)), 2.0, 5.0)
    assert evaluation.get(CUT_PLAN).proven
    short = plan_for(set_practice(one_motor(), bar_length=1000.0, saw_kerf=0.0, bar_trim=0.0))
    assert {bar.length for bar in short.get(CUT_PLAN).bars} == {1000.0}
    from dataclasses import replace

    kept = replace(one_motor(), shelf=(Offcut(RAIL, 700.0, "A"),))
    assert load_job(dump_job(kept)) == kept
    assert "A" in {bar.source for bar in plan_for(kept).get(CUT_PLAN).bars}


@pytest.mark.parametrize(("stock", "length"), [("", 100.0), (RAIL, 0.0), (RAIL, 20_000.0)])
def test_what_cannot_lie_on_the_shelf_is_refused(stock: str, length: float) -> None:
    with pytest.raises(ValueError, match="offcut"):
        Offcut(stock, length)


def test_bars_are_drawn_to_scale_with_every_piece_and_the_place_of_every_cut() -> None:
    plan = plan_cuts(pieces(800.0, 600.0, 400.0))
    shapes = draw_cuts(plan).shapes
    bar = next(bounds_of(m) for m in shapes if isinstance(m, Poly) and m.layer == "bar")
    boxes = {m.key: bounds_of(m) for m in shapes if isinstance(m, Poly) and m.layer == "piece"}
    for piece, start in zip(plan.bars[0].pieces, plan.bars[0].starts, strict=True):
        rect = boxes[PieceKey(piece.name)]
        assert (rect.x - bar.x) / bar.width == pytest.approx(start / 2000)
        assert rect.width / bar.width == pytest.approx(piece.length / 2000)
    words = [m.text for m in shapes if isinstance(m, Text)]
    assert {"805", "1407", "1809", "left 189"} <= set(words), "trim 5, then each piece and a kerf of 2"
