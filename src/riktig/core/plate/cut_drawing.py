"""The bars to cut, drawn as they lie on the saw: every piece with its name and where it begins."""

from collections.abc import Mapping, Sequence

from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Rect, Shape, Text, run_of
from riktig.core.keys import PartKey, PieceKey
from riktig.core.plate.cut_optimiser import Bar, CutPlan
from riktig.core.plate.outlines import box

__all__ = ["draw_cuts"]

LONG, HIGH, LEFT = 200.0, 8.0, 40.0
"""Length of the longest bar and height of every bar on the sheet, and the room left of them, mm."""


def draw_cuts(plan: CutPlan, screws: Mapping[str, Sequence[float]] | None = None) -> Drawing:
    """All bars, stock by stock, with cutting marks in mm from the bar's left end and what is left of each.

    Args:
        plan: The bars with their pieces.
        screws: By the name of a piece, where its screws go, mm from its left or upper end; they are drawn as rings.
    """
    longest = max((bar.length for bar in plan.bars), default=1.0)
    shapes: list[Shape] = []
    y, stock = 6.0, ""
    for bar in plan.bars:
        if bar.stock != stock:
            stock = bar.stock
            new = sum(1 for new_bar in plan.bars if new_bar.stock == stock and new_bar.source.startswith("new"))
            text = f"{stock}: {new} new {'bar' if new == 1 else 'bars'}"
            shapes.append(Text(4, y + 5, text, 3.6, face=Face.BOLD))
            y += 9
        shapes += _bar(bar, y, LONG / longest, screws or {})
        y += HIGH + 9
    for piece in plan.too_long:
        text = f"{piece.name} is {piece.length:g} mm long: no bar of {piece.stock} is. Make it of two pieces."
        shapes.append(Text(4, y + 5, text, 3.4, "fails", Face.BOLD))
        y += 8
    return Drawing(LEFT + LONG + 30, y + 4, tuple(shapes), "Cut list")


def _bar(bar: Bar, y: float, scale: float, screws: Mapping[str, Sequence[float]]) -> list[Shape]:
    whole = Rect(LEFT, y, bar.length * scale, HIGH)
    role = "out of date" if not bar.source.startswith("new") else "second"
    shapes: list[Shape] = [
        box(whole, "line", 0.4, "panel", PartKey(f"bar {bar.source}"), "bar"),
        Text(LEFT - 3, y + 3.6, bar.source, 2.8, role, align=Align.RIGHT, key=PartKey(f"bar {bar.source}")),
        Text(LEFT - 3, y + 7.6, f"{bar.length:g} mm", 2.6, "third", align=Align.RIGHT),
    ]
    for piece, start in zip(bar.pieces, bar.starts, strict=True):
        rect = Rect(LEFT + start * scale, y, piece.length * scale, HIGH)
        fill = "rail" if piece.name.startswith("R") else "card" if "lid" in piece.name else "duct"
        key = PieceKey(piece.name)
        long = f"{piece.name} · {piece.length:g}"
        name = long if run_of(long, mono=True) * 3.2 < 0.9 * rect.width else piece.name
        size = min(3.2, 0.9 * rect.width / run_of(name, mono=True))
        shapes += [
            box(rect, "ink", 0.4, fill, key, "piece"),
            Text(rect.centre.x, y + 4.2, name, size, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key),
            Line(rect.right, y - 1.5, rect.right, y + HIGH + 1.5, "fails", 0.35, layer="cut", key=key),
        ]
        shapes += [
            Circle(rect.x + at * scale, y + HIGH - 1.0, 0.5, "ink", 0.25, "card", key=key)
            for at in screws.get(piece.name, ())
        ]
        if name != long and rect.width > 9:
            text = f"{piece.length:g}"
            shapes.append(Text(rect.centre.x, y + 7.4, text, 2.4, "second", align=Align.MIDDLE, key=key))
        at = f"{start + piece.length:g}"
        shapes.append(Text(rect.right, y + HIGH + 4.4, at, 2.3, "third", align=Align.MIDDLE, layer="cut"))
    if bar.left * scale > 12:
        middle = whole.right - bar.left * scale / 2
        shapes.append(Text(middle, y + 5.2, f"left {bar.left:g}", 2.6, "third", align=Align.MIDDLE))
    return shapes
