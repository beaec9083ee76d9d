"""Drags on the plate: parts along and across rails, rails and ducts moved and resized, measuring, a frame to choose."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from PySide6.QtCore import Qt

from riktig.core.geometry import Point, Rect, Shape
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, DuctKey, Key, RailKey
from riktig.core.plate import (
    RULER,
    Layout,
    RailsAndDucts,
    Stand,
    duct_changed,
    pushed_aside,
    rail_changed,
    shifted,
    with_rails_and_ducts,
    with_stands,
)
from riktig.core.views import device_of
from riktig.desk.canvas import DrawingView, Gesture
from riktig.desk.stations.plate.preview import band_shapes, furniture_shapes, measure_shapes, stand_shapes

__all__ = ["Host", "PlateGesture"]

SNAP = 1.0
GRIP = 12.0
"""How near the end of a rail or duct one must take hold of it to make it longer, mm (chosen by us)."""
CATCH = 4.0
"""How near an edge the measure snaps to it, mm (chosen by us)."""


@dataclass(frozen=True)
class Host:
    """What the gestures ask of the station and tell it."""

    view: DrawingView
    layout: Callable[[], Layout]
    tags: Callable[[], Mapping[DeviceId, str]]
    locked: Callable[[], frozenset[DeviceId]]
    chosen: Callable[[], Sequence[DeviceId]]
    place: Callable[[Sequence[Stand]], None]
    furnish: Callable[[str, RailsAndDucts], None]
    choose: Callable[[Sequence[DeviceId]], None]
    measuring: Callable[[], bool]


class PlateGesture(Gesture):
    """Finds what is taken hold of and hands the drag to the gesture for it."""

    def __init__(self, host: Host) -> None:
        self._host = host
        self._now: Gesture | None = None

    def begin(self, key: Key | None, at: Point) -> bool:
        """A part, a rail, a duct, or nothing: then a frame."""
        host, layout = self._host, self._host.layout()
        where = Point(at.x - RULER, at.y - RULER)
        owner = device_of(key)
        if host.measuring():
            self._now = _Measure(host, at)
        elif isinstance(key, RailKey) or (isinstance(key, DuctKey) and layout.duct(key.name)):
            self._now = _Furnish(host, key.name, where)
        else:
            stand = layout.stand_of(owner) if owner else None
            self._now = _Move(host, stand, where) if stand else _Band(host, at)
        return True

    def move(self, at: Point) -> None:
        """The pointer is here now."""
        if self._now:
            self._now.move(at)

    def finish(self) -> None:
        """One edit."""
        now, self._now = self._now, None
        self._host.view.set_overlay(())
        if now:
            now.finish()

    def cancel(self) -> None:
        """Nothing happened."""
        self._now = None
        self._host.view.set_overlay(())


class _Move(Gesture):
    """Parts go with the pointer; with Shift the neighbours on the rail make room."""

    def __init__(self, host: Host, stand: Stand, at: Point) -> None:
        self._host, self._from = host, at
        self._layout = host.layout()
        leads = [stand.block.lead, *(lead for lead in host.chosen() if lead != stand.block.lead)]
        together = leads if stand.block.lead in host.chosen() else leads[:1]
        self._stands = [s for lead in together for s in self._layout.stands if s.block.lead == lead]
        self._hidden: frozenset[Key | None] = frozenset(
            DeviceKey(device) for s in self._stands for device in s.block.devices
        )
        self._moved: tuple[Stand, ...] = ()

    def move(self, at: Point) -> None:
        lead = self._stands[0]
        rail = self._layout.rail(lead.rail)
        dx, dy = at.x - RULER - self._from.x, at.y - RULER - self._from.y
        origin = rail.x1 if rail else 0.0
        dx = round((lead.x + dx - origin) / SNAP) * SNAP + origin - lead.x
        if not rail:
            dy = round((lead.y + dy) / SNAP) * SNAP - lead.y
        moved = shifted(self._stands, dx, dy, self._layout)
        aside = bool(self._host.view.modifiers & Qt.KeyboardModifier.ShiftModifier)
        if aside and len(moved) == 1:
            moved = pushed_aside(self._layout, moved[0], self._host.locked())
        self._moved = moved
        there = with_stands(self._layout, moved)
        leads = [stand.block.lead for stand in moved]
        hidden = self._hidden
        if len(moved) > len(self._stands):
            hidden = hidden | {DeviceKey(device) for s in moved for device in s.block.devices}
        self._host.view.set_overlay(stand_shapes(there, leads, self._host.tags(), self._host.view.legible()), hidden)

    def finish(self) -> None:
        if self._moved:
            self._host.place(self._moved)


class _Furnish(Gesture):
    """A rail or duct goes with the pointer, or its end does when one took hold of it there."""

    def __init__(self, host: Host, name: str, at: Point) -> None:
        self._host, self._name, self._from = host, name, at
        self._layout = host.layout()
        self._rail = next((rail for rail in self._layout.rails if rail.name == name), None)
        self._duct = self._layout.duct(name)
        self._new: RailsAndDucts | None = None

    def move(self, at: Point) -> None:
        dx = round((at.x - RULER - self._from.x) / SNAP) * SNAP
        dy = round((at.y - RULER - self._from.y) / SNAP) * SNAP
        self._new = self._furniture(dx, dy)
        if self._new is None:
            return
        there = with_rails_and_ducts(self._layout, *self._new)
        self._host.view.set_overlay(furniture_shapes(there, self._name, self._host.tags(), self._host.view.legible()))

    def _furniture(self, dx: float, dy: float) -> RailsAndDucts | None:
        layout, grip = self._layout, self._from
        if self._rail:
            rail = self._rail
            if grip.x > rail.x2 - GRIP:
                return rail_changed(layout, rail.number, x2=rail.x2 + dx)
            if grip.x < rail.x1 + GRIP:
                return rail_changed(layout, rail.number, x1=rail.x1 + dx)
            return rail_changed(layout, rail.number, y=rail.y + dy)
        if self._duct is None:
            return None
        duct, rect = self._duct, self._duct.rect
        begin, end = (rect.y, rect.bottom) if duct.upright else (rect.x, rect.right)
        where = grip.y if duct.upright else grip.x
        by = dy if duct.upright else dx
        if where > end - GRIP:
            longer = Rect(rect.x, rect.y, rect.width, max(rect.height + by, 1)) if duct.upright else None
            return duct_changed(layout, duct.number, longer or replace(rect, width=max(rect.width + by, 1)))
        if where < begin + GRIP:
            by = min(by, duct.length - 1)
            shorter = replace(rect, y=rect.y + by, height=rect.height - by) if duct.upright else None
            return duct_changed(layout, duct.number, shorter or replace(rect, x=rect.x + by, width=rect.width - by))
        return duct_changed(layout, duct.number, rect.moved(dx, 0) if duct.upright else rect.moved(0, dy))

    def finish(self) -> None:
        if self._new:
            self._host.furnish(self._name, self._new)


class _Measure(Gesture):
    """A measure from where the button went down; its ends catch on edges."""

    def __init__(self, host: Host, at: Point) -> None:
        self._host = host
        layout = host.layout()
        rects = [seat.rect for seat in layout.seats] + [duct.rect for duct in layout.ducts] + [layout.plate]
        self._xs = sorted({x + RULER for rect in rects for x in (rect.x, rect.centre.x, rect.right)})
        lines = [rail.y for rail in layout.rails]
        self._ys = sorted({y + RULER for rect in rects for y in (rect.y, rect.bottom)} | {y + RULER for y in lines})
        self._a = self._caught(at)
        self._shown: list[Shape] = []

    def _caught(self, at: Point) -> Point:
        x = min(self._xs, key=lambda line: abs(line - at.x))
        y = min(self._ys, key=lambda line: abs(line - at.y))
        return Point(x if abs(x - at.x) <= CATCH else at.x, y if abs(y - at.y) <= CATCH else at.y)

    def move(self, at: Point) -> None:
        self._shown = measure_shapes(self._a, self._caught(at), self._host.view.legible())
        self._host.view.set_overlay(self._shown)

    def finish(self) -> None:
        self._host.view.set_overlay(self._shown)


class _Band(Gesture):
    """A frame drawn on the empty plate chooses every part that lies in it."""

    def __init__(self, host: Host, at: Point) -> None:
        self._host, self._a, self._b = host, at, at

    def move(self, at: Point) -> None:
        self._b = at
        self._host.view.set_overlay(band_shapes(self._a, at))

    def finish(self) -> None:
        a, b = self._a, self._b
        left, top = min(a.x, b.x) - RULER, min(a.y, b.y) - RULER
        frame = Rect(left, top, abs(a.x - b.x), abs(a.y - b.y))
        stands = self._host.layout().stands
        self._host.choose([s.block.lead for s in stands if not s.body.sticks_out_of(frame)])
