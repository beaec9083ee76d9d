"""Old and new as a picture: the label that comes off, the one that goes on, and what hangs on it."""

from riktig.core.exports.renaming import Renaming
from riktig.core.geometry import Align, Drawing, Face, Line, Point, Poly, Rect, Shape, Text, run_of
from riktig.core.keys import Key

__all__ = ["draw_renaming"]

ACROSS, WIDE, HIGH = 2, 114.0, 13.0
TAPE = (19.0, 6.4)


def draw_renaming(changes: tuple[Renaming, ...], title: str) -> Drawing:
    """A row a name, two side by side, read down the left column first; keys are those of what is named.

    Args:
        changes: Old and new.
        title: What the job or the picture is called.
    """
    shapes: list[Shape] = [Text(3, 6, title, 3.4, face=Face.BOLD)]
    rows = -(-len(changes) // ACROSS)
    for place, change in enumerate(changes):
        x, y = 3 + (place // max(rows, 1)) * WIDE, 11 + (place % max(rows, 1)) * HIGH
        shapes += _row(change, x, y)
    if not changes:
        shapes.append(Text(3, 16, "Nothing would change: all is as it would be named today.", 3.0, "second"))
    return Drawing(ACROSS * WIDE + 4, max(14 + rows * HIGH, 60.0), tuple(shapes), title)


def _row(change: Renaming, x: float, y: float) -> list[Shape]:
    old, new = Rect(x, y, *TAPE), Rect(x + TAPE[0] + 9, y, *TAPE)
    middle = y + TAPE[1] / 2
    arrow = (Point(old.right + 6.2, middle - 1.2), Point(old.right + 7.8, middle), Point(old.right + 6.2, middle + 1.2))
    counts = ", ".join(
        _count(number, what)
        for number, what in ((len(change.wires), "wire"), (change.labels, "label"), (change.tests, "test"))
    )
    sheets = ", ".join(map(str, change.sheets[:6])) + (" …" if len(change.sheets) > 6 else "")
    where = f"sheet {sheets}" if sheets else "on no sheet"
    text = f"{where}; the old one is printed" if change.printed else where
    left = new.right + 3
    return [
        *_tape(old, change.old, "third", change.key),
        *_tape(new, change.new, "ink", change.key),
        Line(old.right + 1.2, middle, old.right + 7.4, middle, "act", 0.5, key=change.key),
        Poly(arrow, "act", 0.5, key=change.key),
        Text(left, y + 2.6, counts, 2.4, key=change.key),
        Text(left, y + 6.2, text, 2.2, "second", key=change.key),
    ]


def _tape(rect: Rect, text: str, role: str, key: Key | None) -> list[Shape]:
    corners = tuple(Point(*c) for c in ((rect.x, rect.y), (rect.right, rect.y), (rect.right, rect.bottom),
                                    (rect.x, rect.bottom)))  # fmt: skip
    size = min(3.6, (rect.width - 2.4) / max(run_of(text, mono=True) * 1.06, 1.0))
    x, y = rect.centre
    shapes: list[Shape] = [
        Poly(corners, "line", 0.3, closed=True, fill="card", key=key),
        Text(x, y + 0.36 * size, text, size, role, Face.PRINTED_BOLD, Align.MIDDLE, key=key),
    ]
    if role == "third":
        half = run_of(text, mono=True) * size / 2 + 0.8
        shapes.append(Line(x - half, y, x + half, y, "fails", 0.4, key=key))
    return shapes


def _count(number: int, what: str) -> str:
    return f"{number} {what}" if number == 1 else f"{number} {what}s"
