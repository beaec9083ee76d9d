"""Marks: what is under a point, and how much room a mark takes."""

import pytest

from riktig.core.geometry import Align, Arc, Circle, Face, Line, Point, Poly, Shape, Text, bounds_of, hit
from riktig.core.keys import read_key

BOX = (Point(0, 0), Point(20, 0), Point(20, 10), Point(0, 10))


@pytest.mark.parametrize(
    ("mark", "corners"),
    [
        (Line(4, 9, 1, 2), (1, 2, 4, 9)),
        (Poly(BOX, closed=True), (0, 0, 20, 10)),
        (Circle(5, 5, 2), (3, 3, 7, 7)),
        (Arc(5, 5, 1, 0, 90), (4, 4, 6, 6)),
        (Text(10, 10, "ab", 2.0, face=Face.PRINTED, align=Align.MIDDLE), (8.29, 8.0, 11.71, 10.4)),
    ],
    ids=["line", "poly", "circle", "arc", "text"],
)
def test_bounds_hold_the_mark(mark: Shape, corners: tuple[float, ...]) -> None:
    box = bounds_of(mark)
    assert (box.x, box.y, box.right, box.bottom) == pytest.approx(corners)


def test_of_several_things_under_the_pointer_the_smallest_is_chosen() -> None:
    shapes = (
        Poly(BOX, closed=True, key=read_key("device:K1")),
        Circle(5, 5, 1.5, key=read_key("pin:K1:A1")),
        Line(0, 5, 20, 5),
    )
    assert hit(shapes, Point(5, 5)) == read_key("pin:K1:A1")
    assert hit(shapes, Point(15, 5)) == read_key("device:K1")
    assert hit(shapes, Point(40, 40)) is None
