"""The likeliest that may be wrong at once, numbered as in their list: on the plate, and on every sheet they are on."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace

from riktig.core.geometry import Align, Circle, Drawing, Line, Point, Rect, Shape, Text, bounds_of
from riktig.core.ids import DeviceId
from riktig.core.job import PinRef
from riktig.core.keys import DeviceKey, Key, NetKey, PinKey, WireKey
from riktig.core.plate import RULER, box
from riktig.core.proving import Suspect, fault_keys
from riktig.core.schematic import Nets
from riktig.core.views.details_pages import device_of
from riktig.core.wiring import Wiring, route_shapes

__all__ = ["MOST_NUMBERED", "sheets_of_suspects", "suspects_on_plate"]

MOST_NUMBERED = 9
"""Suspects that are drawn: more numbers on one picture are no help (chosen by us)."""
PLATE_LETTERS, SHEET_LETTERS = 9.0, 3.4
"""Of the numbers, mm (chosen by us: read at the size of the screen)."""
FRAME = 0.9
"""Line of a frame around what may be wrong, mm (chosen by us)."""
TRIES = 6
"""How many rows away from its point a number may stand (chosen by us)."""


class _Badges:
    """Numbers on a ground of their own, beside what they are about and never over each other.

    Args:
        letters: Height of the numbers, mm.
    """

    def __init__(self, letters: float) -> None:
        self._letters = letters
        self._taken: list[Rect] = []

    def at(self, point: Point, numbers: tuple[int, ...]) -> list[Shape]:
        """The numbers at a point, with a line to it."""
        text, letters = ", ".join(map(str, numbers)), self._letters
        width, height = bounds_of(Text(0, 0, text, letters)).width + letters, 1.6 * letters
        reach = 1.2 * letters
        places = [
            Rect(point.x + across, point.y + down, width, height)
            for step in range(TRIES)
            for down in (-height - reach - step * height, reach + step * height)
            for across in (reach, -width - reach)
        ]
        ground = next((place for place in places if not any(_meet(place, other) for other in self._taken)), places[0])
        self._taken.append(ground)
        near = Point(min(max(point.x, ground.x), ground.right), min(max(point.y, ground.y), ground.bottom))
        return [
            Line(point.x, point.y, near.x, near.y, "fails", letters / 8),
            box(ground, "fails", letters / 8, "card"),
            Text(ground.centre.x, ground.centre.y + letters / 2, text, letters, "fails", align=Align.MIDDLE),
        ]


def suspects_on_plate(
    plate: Drawing, wiring: Wiring, places: Mapping[PinRef, Point], suspects: Sequence[Suspect]
) -> Drawing:
    """The plate with the way of every wire that may be wrong and a frame around every part, each with its numbers.

    What is on the door is not shown: its wires are, up to the hinge.

    Args:
        plate: The plate with its tags and clamps.
        wiring: All wires.
        places: Where every pin of the plate is.
        suspects: The likeliest first.
    """
    shapes: list[Shape] = []
    badges = _Badges(PLATE_LETTERS)
    for key, numbers in _numbers_at(suspects).items():
        if isinstance(key, WireKey):
            wire = wiring.wire(key.wire)
            if wire is not None:
                route = [mark for mark in route_shapes((wire,), width=3.0) if bounds_of(mark).right <= plate.width]
                shapes += route
                at = places.get(wire.start.pin) or places.get(wire.end.pin)
                if at is not None and at.x + RULER <= plate.width:
                    shapes += badges.at(Point(at.x + RULER, at.y + RULER), numbers)
        elif isinstance(key, PinKey):
            at = places.get(key.pin)
            if at is not None and at.x + RULER <= plate.width:
                centre = Point(at.x + RULER, at.y + RULER)
                shapes.append(Circle(centre.x, centre.y, 6.0, "fails", 2.0))
                shapes += badges.at(centre, numbers)
        else:
            shapes += _framed(plate.shapes, key, numbers, badges)
    return replace(plate, shapes=(*plate.shapes, *shapes), title="What may be wrong, on the plate")


def sheets_of_suspects(
    sheets: Sequence[Drawing], wiring: Wiring, nets: Nets, suspects: Sequence[Suspect]
) -> tuple[Drawing, ...]:
    """The sheets on which anything stands that may be wrong, with the numbers at its conductors and devices.

    Args:
        sheets: All sheets, drawn.
        wiring: All wires.
        nets: What is joined.
        suspects: The likeliest first.
    """
    numbered: dict[Key, tuple[int, ...]] = {}
    for key, numbers in _numbers_at(suspects).items():
        there = _on_sheet(key, wiring, nets)
        if there is not None:
            numbered[there] = tuple(sorted({*numbered.get(there, ()), *numbers}))
    pages = []
    for sheet in sheets:
        badges = _Badges(SHEET_LETTERS)
        marks = [mark for key, numbers in numbered.items() for mark in _marks(sheet.shapes, key, numbers, badges)]
        if marks:
            pages.append(replace(sheet, shapes=(*sheet.shapes, *marks)))
    return tuple(pages)


def _numbers_at(suspects: Iterable[Suspect]) -> dict[Key, tuple[int, ...]]:
    """Of every wire, pin and device that may be wrong the numbers under which it is listed."""
    numbers: dict[Key, tuple[int, ...]] = {}
    for number, suspect in enumerate(suspects, 1):
        if number > MOST_NUMBERED:
            break
        for faults in (suspect.faults, *suspect.alike):
            for key in fault_keys(faults):
                numbers[key] = tuple(dict.fromkeys((*numbers.get(key, ()), number)))
    return numbers


def _on_sheet(key: Key, wiring: Wiring, nets: Nets) -> Key | None:
    """What stands for a wire or a pin on a sheet: its net; a device is itself."""
    if isinstance(key, WireKey):
        wire = wiring.wire(key.wire)
        return NetKey(wire.net) if wire else None
    if isinstance(key, PinKey):
        net = nets.of_pin.get(key.pin)
        return NetKey(net.id) if net else None
    return key


def _marks(shapes: Iterable[Shape], key: Key, numbers: tuple[int, ...], badges: _Badges) -> list[Shape]:
    if not isinstance(key, NetKey):
        return _framed(shapes, key, numbers, badges)
    lines = [mark for mark in shapes if isinstance(mark, Line) and mark.key == key]
    if not lines:
        return []
    longest = max(lines, key=lambda line: abs(line.x2 - line.x1) + abs(line.y2 - line.y1))
    middle = Point((longest.x1 + longest.x2) / 2, (longest.y1 + longest.y2) / 2)
    return [*(line._replace(role="fails", width=FRAME) for line in lines), *badges.at(middle, numbers)]


def _framed(shapes: Iterable[Shape], key: Key, numbers: tuple[int, ...], badges: _Badges) -> list[Shape]:
    """A frame around every place where a device is drawn."""
    device = key.device if isinstance(key, DeviceKey) else DeviceId("")
    areas: dict[Key, Rect] = {}
    for mark in shapes:
        if mark.key is not None and not isinstance(mark.key, NetKey | PinKey) and device_of(mark.key) == device:
            area = bounds_of(mark)
            areas[mark.key] = _around(areas[mark.key], area) if mark.key in areas else area
    marks: list[Shape] = []
    for area in areas.values():
        frame = Rect(area.x - 1.0, area.y - 1.0, area.width + 2.0, area.height + 2.0)
        marks += [box(frame, "fails", FRAME), *badges.at(Point(frame.right, frame.y), numbers)]
    return marks


def _around(first: Rect, second: Rect) -> Rect:
    x, y = min(first.x, second.x), min(first.y, second.y)
    return Rect(x, y, max(first.right, second.right) - x, max(first.bottom, second.bottom) - y)


def _meet(first: Rect, second: Rect) -> bool:
    return first.x < second.right and second.x < first.right and first.y < second.bottom and second.y < first.bottom
