"""Layers that are laid over the plate: heat, the room that parts need, and their clamps."""

from collections.abc import Mapping

from riktig.core.geometry import Align, Face, Line, Rect, Shape, Text, run_of
from riktig.core.job import DeviceId
from riktig.core.plate.draw import RULER, grown_by
from riktig.core.plate.model import Layout
from riktig.core.plate.outlines import box, dashed
from riktig.core.sizing import Losses

__all__ = ["clamp_shapes", "heat_shapes", "mounted_shapes", "room_shapes"]

WARM_W_DM2 = (2.0, 5.0, 10.0)
"""From which loss per dm² of its front a part is tinted weakly, more, strongly, W (chosen by us)."""
LEAST_W = 0.5
"""Below this a part is cold and says nothing, W (chosen by us)."""


def heat_shapes(layout: Layout, losses: Losses) -> list[Shape]:
    """A tint on every warm part, the stronger the more it loses for its size, with its watts.

    Args:
        layout: The plate: where everything stands.
        losses: The heat of every device, W.
    """
    seats = {seat.device: seat for seat in layout.seats}
    shapes: list[Shape] = []
    for loss in losses:
        seat = seats.get(loss.device)
        if seat is None or loss.watts < LEAST_W:
            continue
        rect = seat.rect.moved(RULER, RULER)
        dense = loss.watts / (rect.width * rect.height / 1e4)
        step = sum(dense >= limit for limit in WARM_W_DM2)
        text = f"{loss.watts:.0f} W" if loss.watts >= 10 else f"{loss.watts:.1f} W"
        size = max(4.5, min(6.0 * grown_by(layout.plate), 0.9 * rect.width / run_of(text, mono=False)))
        if step:
            shapes.append(box(rect, "live", 0.3 + 0.3 * step, f"warm {step}", layer="heat"))
        y = rect.bottom - min(0.06 * rect.height, 4.0)
        shapes.append(Text(rect.centre.x, y, text, size, "live", Face.BOLD, Align.MIDDLE, layer="heat", backed=True))
    return shapes


def room_shapes(layout: Layout) -> list[Shape]:
    """The room that every part needs around it for heat, arcs and hands, as a dashed outline."""
    shapes: list[Shape] = []
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
        shapes.append(dashed(box(around, "act", 0.6)))
    return shapes


def mounted_shapes(layout: Layout, moved: Mapping[DeviceId, float]) -> list[Shape]:
    """A tick on what is mounted, and by how much what the plan has moved since stands elsewhere.

    Args:
        layout: The plate: where everything stands.
        moved: Leads of mounted blocks and how far the plan has moved since, mm.
    """
    shapes: list[Shape] = []
    for stand in layout.stands:
        if stand.block.lead not in moved:
            continue
        rect, by = stand.body.moved(RULER, RULER), moved[stand.block.lead]
        role = "meets" if by < 0.5 else "out of date"
        x, y = rect.right - 7, rect.y + 6
        shapes += [
            box(rect, role, 1.4, layer="mounted"),
            Line(x - 3, y, x - 0.5, y + 3, role, 1.2, layer="mounted"),
            Line(x - 0.5, y + 3, x + 4, y - 3.5, role, 1.2, layer="mounted"),
        ]
        if by >= 0.5:
            text = f"mounted {by:.0f} mm from here"
            shapes.append(
                Text(
                    rect.centre.x,
                    rect.bottom + 6,
                    text,
                    5.0,
                    role,
                    Face.BOLD,
                    Align.MIDDLE,
                    backed=True,
                    layer="mounted",
                )
            )
    return shapes


def clamp_shapes(layout: Layout) -> list[Shape]:
    """A cross at every clamp that takes a wire."""
    shapes: list[Shape] = []
    for seat in layout.seats:
        for pin in seat.part.kind.pins:
            at = seat.pin_point(pin.name)
            x, y = at.x + RULER, at.y + RULER
            shapes += [Line(x - 2, y - 2, x + 2, y + 2, "fails", 0.5), Line(x - 2, y + 2, x + 2, y - 2, "fails", 0.5)]
    return shapes
