"""Drags on the door: operators go with the pointer, snap to their neighbours' lines, and say what does not fit."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from riktig.core.door import DoorPlan, PlacedOperator, operator_shapes, things_behind, with_seats
from riktig.core.geometry import Align, Face, Line, Point, Rect, Shape, Text
from riktig.core.job import DeviceId, Enclosure
from riktig.core.keys import DeviceKey, Key
from riktig.core.plate import RULER, Layout, Misfit, box, grown_by
from riktig.core.plate.outlines import dashed
from riktig.core.views import device_of
from riktig.desk.canvas import DrawingView, Gesture

__all__ = ["DoorGesture", "DoorHost", "moved_shapes"]

SNAP = 1.0
CATCH = 4.0
"""How near the line of another operator one must come to snap to it, mm (chosen by us)."""


@dataclass(frozen=True)
class DoorHost:
    """What the gestures ask of the station and tell it."""

    view: DrawingView
    door: Callable[[], DoorPlan]
    layout: Callable[[], Layout]
    enclosure: Callable[[], Enclosure]
    tags: Callable[[], Mapping[DeviceId, str]]
    legends: Callable[[], Mapping[DeviceId, tuple[str, ...]]]
    chosen: Callable[[], Sequence[DeviceId]]
    place: Callable[[Sequence[PlacedOperator]], None]
    choose: Callable[[Sequence[DeviceId]], None]
    mirrored: Callable[[], bool]


def moved_shapes(
    plan: DoorPlan,
    moved: Sequence[PlacedOperator],
    tags: Mapping[DeviceId, str],
    legends: Mapping[DeviceId, tuple[str, ...]],
    size: float,
    lines: Sequence[Shape] = (),
) -> list[Shape]:
    """Operators where they are now, with their places from the datum, and in words what does not fit."""
    shift = Point(RULER, RULER)
    wrong: dict[DeviceId, Misfit] = {}
    for misfit in plan.misfits:
        wrong.setdefault(misfit.device, misfit)
    shapes: list[Shape] = list(lines)
    for seat in moved:
        bad = seat.device in wrong
        body = seat.body.moved(*shift)
        shapes.append(box(body, "fails" if bad else "act", 1.2, "fails soft" if bad else "chosen"))
        shapes += operator_shapes(seat, tags, shift, legends.get(seat.device, ()), grown_by(plan.face), wrong=bad)
    first = moved[0]
    leaf = plan.leaf_at(first.x)
    at = Point(first.x + RULER, first.y + RULER)
    caption = f"→ {first.x - leaf.face.x:g}  ↓ {first.y:g}"
    shapes.append(Text(at.x, at.y + 24 + size, caption, size, "act", Face.PRINTED_BOLD, Align.MIDDLE, backed=True))
    for n, clash in enumerate(list(wrong.values())[:2]):
        text = clash.said(tags)
        y = at.y + 24 + size * (2.6 + 1.5 * n)
        shapes.append(Text(at.x, y, text, size, "fails", Face.BOLD, Align.MIDDLE, backed=True))
    return shapes


class DoorGesture(Gesture):
    """An operator, several that are chosen, or a frame round some."""

    def __init__(self, host: DoorHost) -> None:
        self._host = host
        self._moving: tuple[PlacedOperator, ...] = ()
        self._moved: tuple[PlacedOperator, ...] = ()
        self._from = Point(0, 0)
        self._frame: tuple[Point, Point] | None = None
        self._hidden: frozenset[Key | None] = frozenset()

    def begin(self, key: Key | None, at: Point) -> bool:
        """Takes hold of an operator, or begins a frame.

        Returns:
            Whether something was taken hold of.
        """
        host = self._host
        if host.mirrored():
            return False
        door = host.door()
        owner = device_of(key)
        seat = door.seat(owner) if owner else None
        self._moved, self._frame = (), None
        if seat is None or seat.is_shaft:
            self._moving = ()
            self._frame = (at, at)
            return True
        chosen = set(host.chosen())
        together = chosen if seat.device in chosen else {seat.device}
        rest = tuple(s for s in door.seats if s.device in together and s.device != seat.device and not s.is_shaft)
        self._moving = (seat, *rest)
        self._hidden = frozenset(DeviceKey(seat.device) for seat in self._moving)
        self._from = at
        others = [s for s in door.seats if s.device not in together]
        self._layout, self._box = host.layout(), host.enclosure()
        self._things = things_behind(self._layout, self._box)
        self._xs, self._ys = sorted({s.x for s in others}), sorted({s.y for s in others})
        return True

    def move(self, at: Point) -> None:
        """The pointer is here now."""
        host = self._host
        if self._frame:
            self._frame = (self._frame[0], at)
            host.view.set_overlay([dashed(box(self._rect(0.0), "act", 0.6))])
            return
        if not self._moving:
            return
        first = self._moving[0]
        x = _caught(first.x + at.x - self._from.x, self._xs)
        y = _caught(first.y + at.y - self._from.y, self._ys)
        dx, dy = x - first.x, y - first.y
        self._moved = tuple(seat.at(seat.x + dx, seat.y + dy) for seat in self._moving)
        plan = with_seats(host.door(), self._moved, self._layout, self._box, self._things)
        lines: list[Shape] = []
        if x in self._xs:
            lines.append(Line(x + RULER, RULER, x + RULER, plan.face.height + RULER, "act", 0.5, dashed=True))
        if y in self._ys:
            lines.append(Line(RULER, y + RULER, plan.face.width + RULER, y + RULER, "act", 0.5, dashed=True))
        shapes = moved_shapes(plan, self._moved, host.tags(), host.legends(), host.view.legible(), lines)
        host.view.set_overlay(shapes, self._hidden)

    def _rect(self, shift: float) -> Rect:
        a, b = self._frame or (Point(0, 0), Point(0, 0))
        return Rect(min(a.x, b.x) - shift, min(a.y, b.y) - shift, abs(a.x - b.x), abs(a.y - b.y))

    def finish(self) -> None:
        """One edit, or the choice of what lies in the frame."""
        host, moved = self._host, self._moved
        if self._frame:
            rect = self._rect(RULER)
            seats = host.door().seats
            host.choose([s.device for s in seats if rect.holds(Point(s.x, s.y)) and not s.is_shaft])
        self.cancel()
        if moved:
            host.place(moved)

    def cancel(self) -> None:
        """Nothing happened."""
        self._moving, self._moved, self._frame = (), (), None
        self._host.view.set_overlay(())


def _caught(value: float, lines: Sequence[float]) -> float:
    """The nearest line of another operator, or the whole millimetre."""
    near = min(lines, key=lambda line: abs(line - value), default=None)
    if near is not None and abs(near - value) <= CATCH:
        return near
    return round(value / SNAP) * SNAP
