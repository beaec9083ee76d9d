"""Dragging a block along its rail and across rails, with what does not fit said at once."""

from collections.abc import Callable

from riktig.core.geometry import Align, Face, Line, Mark, Point, Text
from riktig.core.job import DeviceId
from riktig.core.papers import device_of
from riktig.core.plate import RULER, Block, Layout, body_of, box, room_around, with_block_at
from riktig.desk.canvas import DrawingView, Gesture

__all__ = ["DragBlock", "preview"]

SNAP = 1.0


def preview(layout: Layout, lead: DeviceId) -> list[Mark]:
    """The block where it would stand, its room to the ducts, and by how much it does not fit."""
    found = layout.block_of(lead)
    if found is None:
        return []
    block, number, offset = found
    rail = next(one for one in layout.rails if one.number == number)
    body = body_of(block, rail, offset)
    shown = body.moved(RULER, RULER)
    wrong = [m for m in layout.misfits if lead in (m.device, m.against)]
    role = "fails" if wrong else "act"
    marks: list[Mark] = [box(shown, role, 1.4, "fails soft" if wrong else "chosen")]
    for side, (has, needs) in room_around(block, body, layout.ducts).items():
        x = shown.centre.x
        y1, y2 = (shown.y - has, shown.y) if side == "above" else (shown.bottom, shown.bottom + has)
        short = "fails" if has < needs else "act"
        marks += [
            Line(x, y1, x, y2, short, 0.6),
            Text(x + 2, (y1 + y2) / 2 + 2, f"{has:.0f} of {needs:.0f}", 4.6, short, Face.BOLD),
        ]
    marks.append(Text(shown.x, shown.y - 3, f"{offset:g} mm on {rail.name}", 5.0, role, Face.BOLD))
    for n, misfit in enumerate(wrong[:2]):
        marks.append(
            Text(
                shown.centre.x,
                shown.bottom + 9 + 7 * n,
                misfit.text,
                5.2,
                "fails",
                Face.BOLD,
                Align.MIDDLE,
                backed=True,
            )
        )
    return marks


class DragBlock(Gesture):
    """Previews on the view; one edit when the button is released; Esc means nothing happened."""

    def __init__(
        self, view: DrawingView, layout: Callable[[], Layout], place: Callable[[DeviceId, int, float], None]
    ) -> None:
        self._view, self._layout, self._place = view, layout, place
        self._block: Block | None = None
        self._grip = 0.0
        self._at: tuple[int, float] = (0, 0.0)

    def begin(self, key: str, at: Point) -> bool:
        """A block can be dragged by any of its devices."""
        found = self._layout().block_of(DeviceId(device_of(key)))
        if found is None:
            return False
        self._block, number, offset = found
        rail = next(one for one in self._layout().rails if one.number == number)
        self._grip = at.x - RULER - rail.x1 - offset
        self._at = (number, offset)
        return True

    def move(self, at: Point) -> None:
        """To the rail nearest the pointer, to the millimetre."""
        if self._block is None:
            return
        layout = self._layout()
        rail = min(layout.rails, key=lambda one: abs(one.y + RULER - at.y))
        offset = round((at.x - RULER - self._grip - rail.x1) / SNAP) * SNAP
        self._at = (rail.number, offset)
        there = with_block_at(layout, self._block.lead, *self._at)
        hidden = frozenset(f"device:{member[0]}" for member in self._block.members)
        self._view.set_overlay(preview(there, self._block.lead), hidden)

    def finish(self) -> None:
        """One edit."""
        block, self._block = self._block, None
        self._view.set_overlay(())
        if block:
            self._place(block.lead, *self._at)

    def cancel(self) -> None:
        """Nothing happened."""
        self._block = None
        self._view.set_overlay(())
