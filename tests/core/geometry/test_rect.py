"""Rectangles."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from riktig.core.geometry import Point, Rect, close

SIZES = st.floats(0, 500, allow_nan=False)
RECTS = st.builds(Rect, SIZES, SIZES, SIZES, SIZES)


def test_a_rectangle_cannot_have_a_negative_side() -> None:
    with pytest.raises(ValueError, match="cannot be -1"):
        Rect(0, 0, -1, 5)


@pytest.mark.parametrize(
    ("other", "overlap"),
    [
        (Rect(5, 5, 10, 10), (5, 5)),
        (Rect(10, 0, 5, 5), (0, 0)),
        (Rect(9.995, 0, 5, 5), (0, 0)),
        (Rect(2, 2, 3, 4), (3, 4)),
        (Rect(50, 50, 1, 1), (0, 0)),
    ],
    ids=["corner", "touching", "within the tolerance", "inside", "apart"],
)
def test_overlap_is_how_far_two_reach_into_each_other(other: Rect, overlap: tuple[float, float]) -> None:
    assert Rect(0, 0, 10, 10).overlap(other) == overlap


@given(RECTS, RECTS)
def test_overlap_is_the_same_from_both_sides(a: Rect, b: Rect) -> None:
    assert a.overlap(b) == b.overlap(a)


@given(RECTS, st.floats(-100, 100), st.floats(-100, 100))
def test_moving_keeps_the_size(rect: Rect, dx: float, dy: float) -> None:
    moved = rect.moved(dx, dy)
    assert (moved.width, moved.height) == (rect.width, rect.height)
    assert close(moved.x - rect.x, dx)


def test_sticking_out_is_the_furthest_side() -> None:
    outer = Rect(0, 0, 100, 100)
    assert Rect(-3, 0, 50, 107).sticks_out_of(outer) == 7
    assert Rect(0, 0, 100, 100).sticks_out_of(outer) == 0


def test_growing_adds_room_on_each_side() -> None:
    assert Rect(10, 10, 10, 10).grown(1) == Rect(9, 9, 12, 12)
    assert Rect(10, 10, 10, 10).grown(1, 2, 3, 4) == Rect(9, 8, 14, 16)
    assert Rect(0, 0, 4, 4).holds(Point(4, 0))
