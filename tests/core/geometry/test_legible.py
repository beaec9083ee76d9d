"""No text smaller than can be read: grown where its part has room, else left out and named."""

from hypothesis import given
from hypothesis import strategies as st

from riktig.core.geometry import Align, Circle, Face, Point, Poly, Rect, Shape, Text, bounds_of, legible
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey

PAGE = Rect(0, 0, 400, 300)
K1, K2 = DeviceKey(DeviceId("c1.K")), DeviceKey(DeviceId("c2.K"))


def part(x: float, y: float, width: float, height: float, key: DeviceKey) -> Poly:
    corners = ((x, y), (x + width, y), (x + width, y + height), (x, y + height))
    return Poly(tuple(Point(*corner) for corner in corners), closed=True, key=key)


def name(x: float, y: float, text: str, key: DeviceKey, size: float = 3.0) -> Text:
    return Text(x, y, text, size, align=Align.MIDDLE, key=key)


def texts(shapes: tuple[Shape, ...]) -> dict[str, Text]:
    return {mark.text: mark for mark in shapes if isinstance(mark, Text)}


def test_what_can_be_read_stays_as_it_is() -> None:
    shapes = (part(0, 0, 45, 80, K1), name(22, 40, "K1", K1, size=9.0))
    result = legible(shapes, 9.0, PAGE)
    assert result.shapes == shapes
    assert not result.left_out


def test_a_name_grows_within_its_part_and_stays_inside() -> None:
    result = legible((part(0, 0, 45, 80, K1), name(22, 4, "K1", K1)), 9.0, PAGE)
    grown = texts(result.shapes)["K1"]
    assert grown.size == 9.0
    box = bounds_of(grown)
    assert box.x >= 0 and box.right <= 45 and box.y >= 0 and box.bottom <= 80


def test_in_a_narrow_part_it_stands_upright() -> None:
    result = legible((part(0, 0, 18, 85, K1), name(9, 40, "F12", K1)), 9.0, PAGE)
    assert not texts(result.shapes)["F12"].upright


def test_what_has_no_room_is_left_out_and_named() -> None:
    shapes = (part(0, 0, 6, 45, K1), name(3, 20, "PE", K1, size=1.5), part(50, 0, 45, 80, K2), name(72, 40, "K2", K2))
    result = legible(shapes, 9.0, PAGE)
    assert set(texts(result.shapes)) == {"K2"}
    assert result.left_out == {K1: ("PE",)}


def test_of_two_that_would_cover_each_other_the_larger_stays() -> None:
    shapes = (part(0, 0, 30, 14, K1), name(15, 6, "motor", K1, size=2.0), name(15, 12, "F9", K1, size=3.0))
    result = legible(shapes, 9.0, PAGE)
    assert set(texts(result.shapes)) == {"F9"}
    assert result.left_out == {K1: ("motor",)}


def test_a_text_under_its_thing_grows_away_from_it() -> None:
    lamp = Circle(50, 50, 11, key=K1)
    under = name(50, 50 + 11 + 5.0, "H1", K1, size=3.0)
    grown = texts(legible((lamp, under), 9.0, PAGE).shapes)["H1"]
    assert bounds_of(grown).y >= bounds_of(under).y - 0.01
    assert bounds_of(grown).y >= 61


def test_a_far_too_small_text_that_stands_free_is_left_out() -> None:
    result = legible((Text(50, 50, "note", 1.0),), 9.0, PAGE)
    assert texts(result.shapes) == {}
    assert result.left_out == {None: ("note",)}


def test_no_text_covers_one_of_another_list() -> None:
    heat = Text(22, 76, "5.0 W", 9.0, align=Align.MIDDLE)
    low = (part(0, 0, 45, 80, K1), name(22, 76, "motor", K1))
    box = bounds_of(texts(legible(low, 9.0, PAGE, (heat,)).shapes)["motor"])
    other = bounds_of(heat)
    assert box.bottom <= other.y or box.y >= other.bottom or box.right <= other.x or box.x >= other.right


@given(
    st.lists(
        st.tuples(
            st.floats(5, 380), st.floats(5, 280), st.floats(0.5, 12), st.sampled_from(("K1", "overload", "A", "X2: 14"))
        ),
        max_size=25,
    ),
    st.floats(1, 20),
)
def test_every_text_is_either_readable_or_named_and_grown_ones_cover_none(
    placed: list[tuple[float, float, float, str]], least: float
) -> None:
    marks = tuple(Text(x, y, f"{text}{n}", size) for n, (x, y, size, text) in enumerate(placed))
    result = legible(marks, least, PAGE)
    shown = texts(result.shapes)
    named = [text for some in result.left_out.values() for text in some]
    assert sorted([*shown, *named]) == sorted(mark.text for mark in marks)
    assert all(mark.size >= 0.97 * least for mark in shown.values())
    grown = [mark for mark in shown.values() if mark not in marks]
    for mark in grown:
        box = bounds_of(mark)
        for other in shown.values():
            if other is not mark:
                far = bounds_of(other)
                assert box.right <= far.x or far.right <= box.x or box.bottom <= far.y or far.bottom <= box.y


def test_the_marking_of_a_pin_stands_at_its_pin_or_not_at_all() -> None:
    """A breaker of one pole at half size: 1 at its upper clamp, 2 at its lower; 13 would be in the place of 1."""
    pins = [Text(x, y, text, 4.2, face=Face.PRINTED, align=Align.MIDDLE, key=K1) for x, y, text in PINS]
    result = legible((part(0, 0, 18, 85, K1), *pins), 14.0, PAGE)
    shown = texts(result.shapes)
    assert {"1", "2"} <= set(shown)
    assert all(mark.upright for mark in shown.values())
    for pin in pins:
        if pin.text in shown:
            was, now = bounds_of(pin).centre, bounds_of(shown[pin.text]).centre
            assert max(abs(was.x - now.x), abs(was.y - now.y)) <= 0.6 * 14


PINS = ((9.0, 9.0, "1"), (9.0, 80.0, "2"), (9.0, 16.0, "13"), (16.0, 40.0, "14"))
