"""Layers that are laid over the plate: heat, the room that parts need, and their clamps."""

from math import sqrt

from riktig.core.geometry import Align, Circle, Face, Line, Mark, Rect, Text
from riktig.core.plate.draw import RULER, box
from riktig.core.plate.model import Layout
from riktig.core.plate.warmth import Losses

__all__ = ["clamp_marks", "heat_marks", "room_marks"]

MM_PER_ROOT_W = 7.0
"""Radius of the ring of a part that loses one watt, mm: the ring's area goes with the loss (chosen by us)."""
LEAST_W = 0.5
"""Below this a part is cold and gets no ring, W (chosen by us)."""


def heat_marks(layout: Layout, losses: Losses) -> list[Mark]:
    """A ring on every warm part, its area by its loss, with the watts in it."""
    seats = {seat.device: seat for seat in layout.seats}
    marks: list[Mark] = []
    for device, loss in losses:
        seat = seats.get(device)
        if seat is None or loss < LEAST_W:
            continue
        at = seat.rect.centre
        x, y = at.x + RULER, at.y + RULER
        size = 6.0 if seat.rect.width > 30 else 4.5
        said = f"{loss:.0f} W" if loss >= 10 else f"{loss:.1f} W"
        marks += [
            Circle(x, y, MM_PER_ROOT_W * sqrt(loss), "live", 1.2),
            Text(x, y + seat.rect.height / 4, said, size, "live", Face.BOLD, Align.MIDDLE, backed=True),
        ]
    return marks


def room_marks(layout: Layout) -> list[Mark]:
    """The room that every part needs around it for heat, arcs and hands, as a dashed outline."""
    marks: list[Mark] = []
    for seat in layout.seats:
        part, rect = seat.part, seat.rect
        if not (part.room_left or part.room_right or part.room_top or part.room_bottom):
            continue
        around = Rect(
            rect.x - part.room_left + RULER,
            rect.y - part.room_top + RULER,
            rect.width + part.room_left + part.room_right,
            rect.height + part.room_top + part.room_bottom,
        )
        marks.append(box(around, "act", 0.6, dashed=True))
    return marks


def clamp_marks(layout: Layout) -> list[Mark]:
    """A cross at every clamp that takes a wire."""
    marks: list[Mark] = []
    for seat in layout.seats:
        for pin in seat.part.kind.pins:
            at = seat.pin_point(pin.name)
            x, y = at.x + RULER, at.y + RULER
            marks += [Line(x - 2, y - 2, x + 2, y + 2, "fails", 0.5), Line(x - 2, y + 2, x + 2, y - 2, "fails", 0.5)]
    return marks
