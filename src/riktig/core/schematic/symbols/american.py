"""Circuit symbols of the North American rulebook, on the same upright line as the European ones.

Source:
    The shapes follow IEEE 315 (ANSI Y32.2) and NEMA ICS 19, from memory. All contacts at rest.
"""

from collections.abc import Callable
from functools import partial
from math import cos, pi, sin

from riktig.core.catalogue import Behaviour, Unit
from riktig.core.geometry import Align, Arc, Circle, Line, Point, Poly, Shape, Text
from riktig.core.keys import Key
from riktig.core.schematic.symbols.iec import iec_symbol
from riktig.core.schematic.symbols.iec_contacts import INK, Symbol, stubs

__all__ = ["american_symbol"]

BAR = 3.0
GAP = 1.3
RING = 0.9
SEAT = 3.6
"""Half the distance between the two rings of a switch, mm."""


def _line(key: Key | None, x1: float, y1: float, x2: float, y2: float, width: float = INK) -> Line:
    return Line(x1, y1, x2, y2, width=width, layer="circuit", key=key)


def relay_make(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A relay contact open at rest: two bars across the line."""
    y = (top + bottom) / 2
    return [*stubs(x, top, bottom, key, GAP), *(_line(key, x - BAR, y + dy, x + BAR, y + dy) for dy in (-GAP, GAP))]


def relay_break(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A relay contact closed at rest: two bars and a stroke through both."""
    y = (top + bottom) / 2
    return [*relay_make(x, top, bottom, key), _line(key, x - 3.4, y + 3.2, x + 3.4, y - 3.2)]


def _rings(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    y = (top + bottom) / 2
    rings = [Circle(x, y + dy, RING, width=INK, fill="paper", layer="circuit", key=key) for dy in (-SEAT, SEAT)]
    return [*stubs(x, top, bottom, key, SEAT + RING), *rings]


def push_make(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A push-button open at rest: a bar held off two rings, its stem at the left."""
    y = (top + bottom) / 2
    bar = x - 2.8
    return [*_rings(x, top, bottom, key), _line(key, bar, y - 4.6, bar, y + 4.6), _line(key, bar, y, bar - 3.4, y)]


def push_break(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A push-button closed at rest: the bar lies against two rings."""
    y = (top + bottom) / 2
    bar = x + 1.0
    return [*_rings(x, top, bottom, key), _line(key, bar, y - 4.6, bar, y + 4.6), _line(key, bar, y, x - 6.0, y)]


def _mushroom(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    y = (top + bottom) / 2
    head = Arc(x - 4.0, y, 3.0, 115, 130, width=INK, layer="circuit", key=key)
    return [*push_break(x, top, bottom, key), head]


def _switched(
    sign: Callable[[float, float, Key | None], list[Shape]],
    closed: bool,
    x: float,
    top: float,
    bottom: float,
    key: Key | None,
) -> list[Shape]:
    """A blade between two rings with the sign of what moves it at its middle."""
    y = (top + bottom) / 2
    end = (x - 0.9, y - SEAT + 0.6) if closed else (x - 3.6, y - SEAT + 0.8)
    middle = ((x + end[0]) / 2 - 0.2, y)
    return [*_rings(x, top, bottom, key), _line(key, x, y + SEAT - RING, *end), *sign(middle[0], middle[1], key)]


def _stem(x: float, y: float, key: Key | None) -> list[Shape]:
    return [_line(key, x, y, x - 5, y)]


def _float(x: float, y: float, key: Key | None) -> list[Shape]:
    return [*_stem(x, y, key), Circle(x - 6.3, y, 1.3, width=INK, layer="circuit", key=key)]


def _limit(x: float, y: float, key: Key | None) -> list[Shape]:
    wedge = (Point(x, y - 1.4), Point(x - 3.0, y), Point(x, y + 1.0))
    return [Poly(wedge, width=INK, layer="circuit", key=key)]


def _temperature(x: float, y: float, key: Key | None) -> list[Shape]:
    step = (Point(x, y), Point(x - 2, y), Point(x - 2, y + 2), Point(x - 4, y + 2), Point(x - 4, y), Point(x - 6, y))
    return [Poly(step, width=INK, layer="circuit", key=key)]


def _turn(x: float, y: float, key: Key | None) -> list[Shape]:
    return [*_stem(x, y, key), _line(key, x - 5, y - 1.6, x - 5, y + 1.6)]


def _key_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [*_stem(x, y, key), Circle(x - 6.2, y, 1.2, width=INK, layer="circuit", key=key),
            _line(key, x - 6.2, y + 1.2, x - 6.2, y + 2.6)]  # fmt: skip


def _delay(x: float, y: float, key: Key | None) -> list[Shape]:
    head = (Point(x - 6, y - 1.4), Point(x - 4.4, y), Point(x - 6, y + 1.4))
    return [*_stem(x, y, key), Poly(head, width=INK, layer="circuit", key=key)]


def _tripped(closed: bool, x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    y = (top + bottom) / 2
    base = relay_break if closed else relay_make
    return [*base(x, top, bottom, key), Text(x - 4.2, y + 0.9, "OL", 2.4, align=Align.RIGHT, key=key)]


def breaker(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A breaker: an arc held off two rings."""
    y = (top + bottom) / 2
    return [*_rings(x, top, bottom, key), Arc(x + 2.6, y, 5.0, 128, 104, width=INK, layer="circuit", key=key)]


def disconnect(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A disconnect: an open blade on a ring."""
    y = (top + bottom) / 2
    return [*_rings(x, top, bottom, key), _line(key, x, y + SEAT - RING, x - 3.8, y - SEAT + 0.6)]


def fuse(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A fuse: a wave on the line."""
    y = (top + bottom) / 2
    points = tuple(Point(x + 1.6 * sin(2 * pi * n / 12), y - 3.6 + 0.6 * n) for n in range(13))
    return [*stubs(x, top, bottom, key, 3.6), Poly(points, width=INK, layer="circuit", key=key)]


def fused_disconnect(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A disconnect with a fuse below it."""
    middle = top + (bottom - top) * 0.52
    return [*disconnect(x, top, middle, key), *fuse(x, middle, bottom, key)]


def coil(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A coil: a circle."""
    y = (top + bottom) / 2
    ring = Circle(x, y, 4.0, width=INK, fill="paper", layer="circuit", key=key)
    return [*stubs(x, top, bottom, key, 4.0), ring]


def lamp(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A lamp: a circle with four rays."""
    y = (top + bottom) / 2
    rays = [
        _line(key, x + 3.4 * cos(a), y + 3.4 * sin(a), x + 5.2 * cos(a), y + 5.2 * sin(a))
        for a in (pi / 4, 3 * pi / 4, 5 * pi / 4, 7 * pi / 4)
    ]
    ring = Circle(x, y, 3.4, width=INK, fill="paper", layer="circuit", key=key)
    return [*stubs(x, top, bottom, key, 3.4), ring, *rays]


def heater(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """An overload's heater: two hooks that face each other."""
    y = (top + bottom) / 2
    return [
        *stubs(x, top, bottom, key, 3.4),
        Arc(x, y - 1.7, 1.7, 90, 180, width=INK, layer="circuit", key=key),
        Arc(x, y + 1.7, 1.7, 90, -180, width=INK, layer="circuit", key=key),
    ]


_SWITCHES = {
    "float": _float,
    "limit": _limit,
    "temperature": _temperature,
    "turn": _turn,
    "key": _key_sign,
    "delay": _delay,
}
_PLAIN: dict[str, Symbol] = {
    "isolator": disconnect,
    "breaker": breaker,
    "fuse": fuse,
    "fuse switch": fused_disconnect,
    "contactor": relay_make,
    "mushroom": _mushroom,
    "coil": coil,
    "lamp": lamp,
    "test": lamp,
}
_BY_BEHAVIOUR: dict[Behaviour, Symbol] = {
    Behaviour.NO: relay_make,
    Behaviour.NC: relay_break,
    Behaviour.COIL: coil,
    Behaviour.LAMP: lamp,
    Behaviour.HEATER: heater,
    Behaviour.POLE: breaker,
}


def american_symbol(unit: Unit) -> Symbol:
    """The symbol of a unit after IEEE 315; where it has none of its own, that of IEC 60617."""
    closed = unit.behaviour is Behaviour.NC
    if unit.symbol == "push":
        return push_break if closed else push_make
    if unit.symbol == "trip":
        return partial(_tripped, closed)
    if unit.symbol in _SWITCHES:
        return partial(_switched, _SWITCHES[unit.symbol], closed)
    if unit.symbol in _PLAIN:
        return _PLAIN[unit.symbol]
    if not unit.symbol and unit.behaviour in _BY_BEHAVIOUR:
        return _BY_BEHAVIOUR[unit.behaviour]
    return iec_symbol(unit)
