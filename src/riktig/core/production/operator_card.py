"""How an operator is put together, as a picture: its items from front to back, and its blocks from behind."""

from riktig.core.door import PlacedOperator, StackItem, stack_of
from riktig.core.geometry import Align, Circle, Drawing, Face, Rect, Shape, Text, run_of
from riktig.core.keys import DeviceKey, Key
from riktig.core.plate import box

__all__ = ["draw_operator"]

WIDE, ROW, AXIS = 112.0, 12.0, 23.0
"""Width of the card, height of an item's row, and the middle line through all items, mm."""
LINE = 6.2
"""From line to line of words, mm."""
NAME = 4.4
"""Size of the words beside an item, mm."""
WAYS = ("right", "middle", "left")
"""The places of blocks as they are seen from behind: what is left from the front is right."""


def draw_operator(seat: PlacedOperator, tag: str) -> Drawing:
    """The assembly card of an operator.

    Its items stand below each other in the order they go on, the front on top, the sheet of the door between those in
    front and those behind it. Below, the places of its blocks as they are seen from behind, layer by layer.

    Args:
        seat: The operator on the door.
        tag: What it is called.
    """
    key = DeviceKey(seat.device)
    stack = stack_of(seat.part.kind, seat.part, seat.legend)
    front = [item for item in stack.items if not item.layer and "behind" not in item.what]
    back = [item for item in stack.items if item not in front]
    shapes: list[Shape] = []
    y = 6.0
    for number, item in enumerate(front, 1):
        made, height = _item(item, number, y, key)
        shapes += made
        y += height
    shapes += [
        box(Rect(4, y + 1, 2 * (AXIS - 4), 2.4), "ink", 0.3, "rail"),
        Text(2 * AXIS + 4, y + 3.6, "door", NAME - 0.6, "second"),
    ]
    y += 8.0
    for number, item in enumerate(back, len(front) + 1):
        made, height = _item(item, number, y, key)
        shapes += made
        y += height
    if stack.blocks:
        shapes += _blocks(stack.blocks, y + 8, key)
        y += 12 + 17.0 * max(block.layer for block in stack.blocks)
    return Drawing(WIDE, y + 6, tuple(shapes), f"Assembly of {tag}")


def _item(item: StackItem, number: int, y: float, key: Key) -> tuple[list[Shape], float]:
    """An item from the side, its number in a ring, its name beside it in lines; and how tall its row is."""
    lines = _wrapped(item.what, WIDE - 2 * AXIS - 14) + (["-".join(item.pins)] if item.pins else [])
    height = max(ROW, LINE * len(lines) + 3)
    wide, tall = _outline(item)
    middle = y + height / 2
    shapes: list[Shape] = [
        box(Rect(AXIS - wide / 2, middle - tall / 2, wide, tall), "ink", 0.4, "part", key),
        Circle(2 * AXIS + 4, middle, 3.6, "act", 0.5, "card", key=key),
        Text(2 * AXIS + 4, middle + 1.4, str(number), 4.0, "act", Face.BOLD, Align.MIDDLE, key=key),
    ]
    first = middle + NAME * 0.36 - (len(lines) - 1) * LINE / 2
    for n, line in enumerate(lines):
        face = Face.PRINTED_BOLD if item.pins and n == len(lines) - 1 else Face.WORDS
        shapes.append(Text(2 * AXIS + 10, first + n * LINE, line, NAME, face=face, key=key))
    return shapes, height


def _outline(item: StackItem) -> tuple[float, float]:
    """How wide and how tall an item is drawn, mm."""
    if item.layer:
        return 14.0, 9.5
    what = item.what
    if what.startswith("legend"):
        return 38.0, 1.8
    if what.startswith("seal"):
        return 27.0, 1.6
    if "nut" in what:
        return 30.0, 4.0
    return 25.0, 9.0


def _blocks(blocks: tuple[StackItem, ...], y: float, key: Key) -> list[Shape]:
    """The places of the blocks from behind, a row a layer; empty places are outlines."""
    shapes: list[Shape] = [Text(4, y, "Blocks, seen from behind", NAME - 0.4, "second")]
    for layer in range(1, max(block.layer for block in blocks) + 1):
        top = y + 3 + (layer - 1) * 17
        for place, way in enumerate(WAYS):
            rect = Rect(4 + place * 35, top, 33, 14)
            block = next((block for block in blocks if block.layer == layer and block.way == way), None)
            shapes.append(box(rect, "ink" if block else "hair", 0.4, "part" if block else "", key))
            if block:
                what, pins = block.what, "-".join(block.pins)
                shapes += [
                    Text(rect.centre.x, top + 5.8, what, NAME - 0.6, align=Align.MIDDLE, key=key),
                    Text(rect.centre.x, top + 11.6, pins, NAME, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key),
                ]
    return shapes


def _wrapped(text: str, width: float) -> list[str]:
    """Words in lines of a width, mm."""
    lines: list[str] = []
    for word in text.split():
        longer = f"{lines[-1]} {word}" if lines else word
        if lines and run_of(longer, mono=False) * NAME <= width:
            lines[-1] = longer
        else:
            lines.append(word)
    return lines
