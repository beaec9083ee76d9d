"""Contacts of the European rulebook with what moves them, drawn between ``top`` and ``bottom`` on the line ``x``.

Source:
    The shapes follow IEC 60617 (make and break contacts, operating devices, switching functions),
    from memory. All contacts are drawn at rest.
"""

from collections.abc import Callable

from riktig.core.geometry import Align, Arc, Circle, Line, Point, Poly, Shape, Text
from riktig.core.keys import Key

__all__ = [
    "HALF",
    "INK",
    "SIGNS",
    "Symbol",
    "actuated",
    "break_contact",
    "breaker_pole",
    "contactor_pole",
    "fuse_switch_pole",
    "isolator_pole",
    "make_contact",
    "poly",
    "residual_pole",
    "stubs",
]

HALF = 5.0
"""Half the height of a contact, mm: above and below it the line runs on."""
REACH = 4.0
INK = 0.35

Symbol = Callable[[float, float, float, Key | None], list[Shape]]


def stubs(x: float, top: float, bottom: float, key: Key | None, half: float = HALF) -> list[Shape]:
    """The line above and below a symbol of that half height."""
    y = (top + bottom) / 2
    return [
        Line(x, top, x, y - half, width=INK, layer="circuit", key=key),
        Line(x, y + half, x, bottom, width=INK, layer="circuit", key=key),
    ]


def _blade(x: float, y: float, key: Key | None) -> Line:
    return Line(x, y + HALF, x - REACH, y - HALF + 0.8, width=INK, layer="circuit", key=key)


def make_contact(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A contact open at rest."""
    y = (top + bottom) / 2
    return [*stubs(x, top, bottom, key), _blade(x, y, key)]


def break_contact(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A contact closed at rest: the blade passes its seat."""
    y = (top + bottom) / 2
    return [
        *stubs(x, top, bottom, key),
        Line(x, y - HALF, x + 3.4, y - HALF, width=INK, layer="circuit", key=key),
        Line(x, y + HALF, x + 2.8, y - HALF - 1.2, width=INK, layer="circuit", key=key),
    ]


def actuated(base: Symbol, sign: str, x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A contact with the sign of what moves it at its left, joined by a dashed line."""
    y = (top + bottom) / 2
    start = x + 1.4 if base is break_contact else x - REACH / 2
    left = x - 9.0
    link = Line(start, y, left, y, width=0.2, dashed=True, layer="circuit", key=key)
    return [*base(x, top, bottom, key), link, *SIGNS[sign](left, y, key)]


def poly(key: Key | None, *points: tuple[float, float], closed: bool = False, fill: str = "") -> Poly:
    """A run of strokes through points, as all symbols are drawn.

    Args:
        key: What it stands for.
        points: Where it runs, mm.
        closed: Whether it returns to its first point.
        fill: The ink of its inside, empty for none.
    """
    return Poly(tuple(Point(*p) for p in points), width=INK, closed=closed, fill=fill, layer="circuit", key=key)


def _push(x: float, y: float, key: Key | None) -> list[Shape]:
    return [poly(key, (x + 1.2, y - 2), (x, y - 2), (x, y + 2), (x + 1.2, y + 2))]


def _turn(x: float, y: float, key: Key | None) -> list[Shape]:
    return [poly(key, (x + 1.6, y - 2), (x, y - 2), (x, y + 2), (x - 1.6, y + 2))]


def _key_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [Circle(x, y, 1.5, width=INK, layer="circuit", key=key), poly(key, (x, y + 1.5), (x, y + 3), (x + 1, y + 3))]


def _mushroom(x: float, y: float, key: Key | None) -> list[Shape]:
    return [Arc(x + 1.6, y, 2.6, 125, 110, width=INK, layer="circuit", key=key), poly(key, (x, y - 2.1), (x, y + 2.1))]


def _float(x: float, y: float, key: Key | None) -> list[Shape]:
    return [
        poly(key, (x, y), (x, y + 2.2)),
        Circle(x, y + 3.2, 1.1, width=INK, layer="circuit", key=key),
        poly(key, (x - 2.4, y + 3.2), (x - 1.1, y + 3.2)),
        poly(key, (x + 1.1, y + 3.2), (x + 2.4, y + 3.2)),
    ]


def _limit(x: float, y: float, key: Key | None) -> list[Shape]:
    return [poly(key, (x, y - 1.8), (x + 2.4, y), (x, y + 1.8), closed=True)]


def _temperature(x: float, y: float, key: Key | None) -> list[Shape]:
    return [Text(x - 1.6, y + 1.2, "θ", 3.0, align=Align.MIDDLE, key=key)]


def _heat(x: float, y: float, key: Key | None) -> list[Shape]:
    left = x - 1.0
    step = ((1.0, -2), (1.0, -0.8), (2.2, -0.8), (2.2, 0.8), (1.0, 0.8), (1.0, 2))
    return [
        poly(key, (left, y - 2), (left + 3, y - 2), (left + 3, y + 2), (left, y + 2), closed=True, fill="paper"),
        Poly(tuple(Point(left + dx, y + dy) for dx, dy in step), width=0.25, layer="circuit", key=key),
    ]


def _delay(x: float, y: float, key: Key | None) -> list[Shape]:
    return [Arc(x + 1.6, y, 2.2, 110, 140, width=INK, layer="circuit", key=key)]


SIGNS: dict[str, Callable[[float, float, Key | None], list[Shape]]] = {
    "push": _push,
    "turn": _turn,
    "key": _key_sign,
    "mushroom": _mushroom,
    "float": _float,
    "limit": _limit,
    "temperature": _temperature,
    "trip": _heat,
    "delay": _delay,
}


def breaker_pole(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A breaker: a make contact with a cross at its seat."""
    y = (top + bottom) / 2 - HALF
    return [
        *make_contact(x, top, bottom, key),
        Line(x - 1.2, y - 1.2, x + 1.2, y + 1.2, width=INK, layer="circuit", key=key),
        Line(x - 1.2, y + 1.2, x + 1.2, y - 1.2, width=INK, layer="circuit", key=key),
    ]


def residual_pole(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A pole of a residual-current breaker: a breaker, and below it the ring that all its conductors pass through."""
    y = (top + bottom) / 2
    low = min(y + HALF + 1.8, bottom - 1.7)
    ring = Circle(x, low, 1.6, width=INK, layer="circuit", key=key)
    tie = Line(x - 1.6, low, x - REACH / 2, y, width=0.2, dashed=True, layer="circuit", key=key)
    return [*breaker_pole(x, top, bottom, key), ring, tie]


def fuse_switch_pole(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A fuse switch: a make contact whose blade carries a fuse, a slim box along it."""
    shapes = make_contact(x, top, bottom, key)
    blade = next(m for m in shapes if isinstance(m, Line) and m.x1 != m.x2)
    dx, dy = blade.x2 - blade.x1, blade.y2 - blade.y1
    across = 1.1 / (dx * dx + dy * dy) ** 0.5
    corners = tuple(
        Point(blade.x1 + part * dx + side * -dy * across, blade.y1 + part * dy + side * dx * across)
        for part, side in ((0.3, -1), (0.3, 1), (0.75, 1), (0.75, -1))
    )
    return [*shapes, Poly(corners, width=INK, closed=True, layer="circuit", key=key)]


def isolator_pole(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A switch-disconnector: a make contact with a bar and a ring at its seat."""
    y = (top + bottom) / 2 - HALF
    return [
        *make_contact(x, top, bottom, key),
        Line(x - 1.6, y, x + 1.6, y, width=INK, layer="circuit", key=key),
        Circle(x, y - 0.9, 0.9, width=INK, layer="circuit", key=key),
    ]


def contactor_pole(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A contactor's main pole: a make contact with a half ring at its seat."""
    y = (top + bottom) / 2 - HALF
    arc = Arc(x, y - 1.2, 1.2, 90, -180, width=INK, layer="circuit", key=key)
    return [*make_contact(x, top, bottom, key), arc]
