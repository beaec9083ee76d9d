"""Busbars as they are drawn on the plate: in front of their adapters, behind the parts that stand on them."""

from collections.abc import Iterator

from riktig.core.geometry import Align, Point, Poly, Rect, Shape, Text
from riktig.core.keys import DeviceKey
from riktig.core.plate.bar_system import BAR_PITCH, HOLDER_HEIGHT, HOLDER_WIDTH, INFEED_WIDTH
from riktig.core.plate.model import Stand
from riktig.core.plate.outlines import box

__all__ = ["draw_bars"]

SHOWN_WIDTH = 10.0
"""Width of a bar whose size is not known, mm."""


def draw_bars(stand: Stand, shift: Point, size: float) -> Iterator[Shape]:
    """Bars, holders, adapters and the infeed of a block that stands on busbars; nothing for any other.

    Args:
        stand: The block with its place.
        shift: From the plate's datum to that of the drawing, mm.
        size: Height of the text, mm.
    """
    bars = stand.block.bars
    if bars is None:
        return
    key = DeviceKey(stand.block.lead)
    left, middle = stand.x + shift.x, stand.y + stand.block.above + shift.y
    top = middle - HOLDER_HEIGHT / 2

    def outline(x: float, width: float, fill: str, y: float = top, height: float = HOLDER_HEIGHT) -> Poly:
        return box(Rect(left + x, y, width, height), "line", 0.4, fill, key, "device")

    for adapter in bars.adapters:
        yield outline(adapter.x, adapter.width, "panel")
    yield outline(bars.infeed_x, INFEED_WIDTH, "card")
    # The bars lie behind the adapters; they are drawn in front so that they are seen.
    wide = bars.bar.width if bars.bar else SHOWN_WIDTH
    for line in range(bars.lines):
        y = middle + (line - (bars.lines - 1) / 2) * BAR_PITCH
        yield outline(0.0, bars.width, "rail", y - wide / 2, wide)
    for x in bars.holders:
        yield outline(x, HOLDER_WIDTH, "card")
    x = left + bars.infeed_x + INFEED_WIDTH / 2
    between = (-HOLDER_HEIGHT / 2 + size * 1.2, -BAR_PITCH / 2 + size / 3, BAR_PITCH / 2 + size / 3)
    for y, words in zip(between, ("infeed", bars.bar.name if bars.bar else "no bar", f"{bars.amps:g} A"), strict=True):
        yield Text(x, middle + y, words, size, "second", align=Align.MIDDLE, layer="text", key=key)
