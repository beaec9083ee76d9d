"""Texts as large as can be read at a zoom: grown where their part has room, else left out and named."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from riktig.core.geometry.display import Align, Circle, Face, Poly, Shape, Text, bounds_of
from riktig.core.geometry.rect import Rect
from riktig.core.keys import Key

__all__ = ["Legible", "legible"]

MOST_GROWN = 3.2
"""How much a text that stands in no part may grow: beyond, it would no longer be near what it names (chosen by us)."""
BOX_LINES = 4.0
"""A box less than so many capitals high or wide is one that a text is written in (chosen by us)."""
PIN_SHIFT = 0.6
"""How far the marking of a pin may move from it, in heights of a capital (chosen by us)."""
GAP = 0.25
"""Between one text and the next, in heights of a capital (chosen by us: a narrow space)."""
ALMOST = 0.97
"""A text this near to the least size is left as it is (chosen by us: a third of a pixel)."""


@dataclass(frozen=True, slots=True)
class Legible:
    """What is to be painted, in painting order, and what was left out, by the thing it names."""

    shapes: tuple[Shape, ...]
    left_out: dict[Key | None, tuple[str, ...]]


def legible(shapes: Iterable[Shape], least: float, page: Rect, standing: Iterable[Text] = ()) -> Legible:
    """The marks of a drawing with no text smaller than can be read.

    A smaller text grows to that size where it fits into the part it names, level or upright, and covers no other text;
    one that stands free grows in its place. All others are left out.

    Args:
        shapes: The marks, in painting order.
        least: The height of a capital that can be read at this zoom, mm.
        page: Where texts that stand free must stay.
        standing: Texts of another list that no text may cover.
    """
    marks = tuple(shapes)
    small = [(n, m) for n, m in enumerate(marks) if isinstance(m, Text) and m.size < least * ALMOST and m.text.strip()]
    if not small:
        return Legible(marks, {})
    taken = _Grid(4 * least)
    for mark in (*standing, *marks):
        if isinstance(mark, Text) and mark.size >= least * ALMOST:
            taken.add(bounds_of(mark))
    outlines = _outlines(marks)
    thin = BOX_LINES * max(mark.size for _, mark in small)
    boxes = _Grid(thin, (b for some in outlines.values() for b in some if min(b.width, b.height) < thin))
    painted: dict[int, Text] = {}
    left_out: dict[Key | None, tuple[str, ...]] = {}
    for number, mark in sorted(small, key=lambda entry: (-entry[1].size, entry[0])):
        own_outlines = outlines.get(mark.key, ()) if mark.key else ()
        room = _room_of(mark, own_outlines) or _box_around(mark, boxes)
        for grown in _grown(mark, least, room, own_outlines):
            box = bounds_of(grown)
            if _holds(room or page, box) and taken.is_free(_with_gap(grown, box)):
                painted[number] = grown
                taken.add(box)
                break
        else:
            left_out[mark.key] = (*left_out.get(mark.key, ()), mark.text)
    dropped = {number for number, _ in small}
    # Grown texts come last: they may reach over the edge of a neighbour, which would cover them.
    left_marks = [mark for n, mark in enumerate(marks) if n not in dropped]
    return Legible((*left_marks, *painted.values()), left_out)


def _outlines(marks: Iterable[Shape]) -> dict[Key | None, list[Rect]]:
    """Circles and closed outlines, by the things they are drawn for."""
    outlines: dict[Key | None, list[Rect]] = {}
    for mark in marks:
        if isinstance(mark, Circle) or (isinstance(mark, Poly) and mark.closed):
            outlines.setdefault(mark.key, []).append(bounds_of(mark))
    return outlines


def _room_of(mark: Text, own: Sequence[Rect]) -> Rect | None:
    """The largest outline of its thing that a text stands in; None where it stands beside it."""
    centre = bounds_of(mark).centre
    around = [room for room in own if room.holds(centre)]
    return max(around, key=lambda room: room.width * room.height, default=None)


def _box_around(mark: Text, boxes: "_Grid") -> Rect | None:
    """The box that a text is written in, whatever it belongs to; None where there is none as low as a line or two."""
    box = bounds_of(mark)
    around = [
        room for room in boxes.at(box) if min(room.width, room.height) < BOX_LINES * mark.size and _holds(room, box)
    ]
    return min(around, key=lambda room: room.width * room.height, default=None)


def _grown(mark: Text, least: float, room: Rect | None, own: Sequence[Rect]) -> Iterator[Text]:
    """A text at the least size in every way it might stand, the likeliest first."""
    centre = bounds_of(mark).centre
    if room is None:
        if least <= MOST_GROWN * mark.size:
            # What stands under its thing grows downwards, away from it.
            under = mark.upright and bool(own) and centre.y > max(outline.bottom for outline in own)
            yield mark._replace(size=least, y=mark.y + (least - mark.size if under else 0.0))
        return
    # The marking of a pin stands at its pin: elsewhere, or on its side, it would be read as another's.
    at_pin = mark.face is Face.PRINTED
    for upright in (mark.upright,) if at_pin else (mark.upright, not mark.upright):
        middle = mark._replace(size=least, align=Align.MIDDLE, upright=upright, x=0.0, y=0.0)
        box = bounds_of(middle)
        if box.width > room.width or box.height > room.height:
            continue
        # As near to where it stood as its part allows, else at one of its ends.
        x = min(max(centre.x, room.x + box.width / 2), room.right - box.width / 2)
        highest, lowest = room.y + box.height / 2, room.bottom - box.height / 2
        nearest = min(max(centre.y, highest), lowest)
        if at_pin and max(abs(x - centre.x), abs(nearest - centre.y)) > PIN_SHIFT * least:
            continue
        for y in (nearest,) if at_pin else (nearest, highest, lowest):
            yield middle._replace(x=x - box.centre.x, y=y - box.centre.y)


def _with_gap(mark: Text, box: Rect) -> Rect:
    """The box of a text with a narrow space at both of its ends."""
    gap = GAP * mark.size
    return box.grown(gap, 0.0) if mark.upright else box.grown(0.0, gap)


def _holds(room: Rect, box: Rect) -> bool:
    slack = 0.01 * max(box.width, box.height)
    return (
        box.x >= room.x - slack
        and box.y >= room.y - slack
        and box.right <= room.right + slack
        and box.bottom <= room.bottom + slack
    )


class _Grid:
    """Boxes, found by the squares of a grid that they touch."""

    def __init__(self, side: float, boxes: Iterable[Rect] = ()) -> None:
        self._side = side
        self._boxes: dict[tuple[int, int], list[Rect]] = {}
        for box in boxes:
            self.add(box)

    def _squares(self, box: Rect) -> Iterator[tuple[int, int]]:
        for column in range(int(box.x // self._side), int(box.right // self._side) + 1):
            for row in range(int(box.y // self._side), int(box.bottom // self._side) + 1):
                yield column, row

    def add(self, box: Rect) -> None:
        """Puts a box in."""
        for square in self._squares(box):
            self._boxes.setdefault(square, []).append(box)

    def at(self, box: Rect) -> Iterator[Rect]:
        """The boxes in the square of the corner of another: those that could hold it."""
        yield from self._boxes.get((int(box.x // self._side), int(box.y // self._side)), ())

    def is_free(self, box: Rect) -> bool:
        """Whether no box stands here."""
        return not any(
            box.x < other.right and other.x < box.right and box.y < other.bottom and other.y < box.bottom
            for square in self._squares(box)
            for other in self._boxes.get(square, ())
        )
