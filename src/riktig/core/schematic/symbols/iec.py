"""Circuit symbols of the European rulebook, drawn between ``top`` and ``bottom`` on the line ``x``.

Source:
    The shapes follow IEC 60617 (make and break contacts, operating devices, switching functions),
    from memory. All contacts are drawn at rest.
"""

from collections.abc import Callable
from functools import partial
from math import cos, pi, sin

from riktig.core.catalogue import Behaviour, Unit
from riktig.core.geometry import Align, Arc, Circle, Line, Point, Poly, Shape, Text
from riktig.core.keys import Key

__all__ = ["HALF", "INK", "Symbol", "boxed", "iec_symbol", "stubs"]

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


def _actuated(base: Symbol, sign: str, x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A contact with the sign of what moves it at its left, joined by a dashed line."""
    y = (top + bottom) / 2
    start = x + 1.4 if base is break_contact else x - REACH / 2
    left = x - 9.0
    link = Line(start, y, left, y, width=0.2, dashed=True, layer="circuit", key=key)
    return [*base(x, top, bottom, key), link, *_SIGNS[sign](left, y, key)]


def _poly(key: Key | None, *points: tuple[float, float], closed: bool = False, fill: str = "") -> Poly:
    return Poly(tuple(Point(*p) for p in points), width=INK, closed=closed, fill=fill, layer="circuit", key=key)


def _push(x: float, y: float, key: Key | None) -> list[Shape]:
    return [_poly(key, (x + 1.2, y - 2), (x, y - 2), (x, y + 2), (x + 1.2, y + 2))]


def _turn(x: float, y: float, key: Key | None) -> list[Shape]:
    return [_poly(key, (x + 1.6, y - 2), (x, y - 2), (x, y + 2), (x - 1.6, y + 2))]


def _key_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [
        Circle(x, y, 1.5, width=INK, layer="circuit", key=key),
        _poly(key, (x, y + 1.5), (x, y + 3), (x + 1, y + 3)),
    ]


def _mushroom(x: float, y: float, key: Key | None) -> list[Shape]:
    return [Arc(x + 1.6, y, 2.6, 125, 110, width=INK, layer="circuit", key=key), _poly(key, (x, y - 2.1), (x, y + 2.1))]


def _float(x: float, y: float, key: Key | None) -> list[Shape]:
    return [
        _poly(key, (x, y), (x, y + 2.2)),
        Circle(x, y + 3.2, 1.1, width=INK, layer="circuit", key=key),
        _poly(key, (x - 2.4, y + 3.2), (x - 1.1, y + 3.2)),
        _poly(key, (x + 1.1, y + 3.2), (x + 2.4, y + 3.2)),
    ]


def _limit(x: float, y: float, key: Key | None) -> list[Shape]:
    return [_poly(key, (x, y - 1.8), (x + 2.4, y), (x, y + 1.8), closed=True)]


def _temperature(x: float, y: float, key: Key | None) -> list[Shape]:
    return [Text(x - 1.6, y + 1.2, "θ", 3.0, align=Align.MIDDLE, key=key)]


def _heat(x: float, y: float, key: Key | None) -> list[Shape]:
    left = x - 1.0
    step = ((1.0, -2), (1.0, -0.8), (2.2, -0.8), (2.2, 0.8), (1.0, 0.8), (1.0, 2))
    return [
        _poly(key, (left, y - 2), (left + 3, y - 2), (left + 3, y + 2), (left, y + 2), closed=True, fill="paper"),
        Poly(tuple(Point(left + dx, y + dy) for dx, dy in step), width=0.25, layer="circuit", key=key),
    ]


def _delay(x: float, y: float, key: Key | None) -> list[Shape]:
    return [Arc(x + 1.6, y, 2.2, 110, 140, width=INK, layer="circuit", key=key)]


_SIGNS: dict[str, Callable[[float, float, Key | None], list[Shape]]] = {
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


def heater(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A thermal overload's heater in one phase."""
    y = (top + bottom) / 2
    step = (
        Point(x, top),
        Point(x, y - 2.5),
        Point(x + 2.6, y - 2.5),
        Point(x + 2.6, y + 2.5),
        Point(x, y + 2.5),
        Point(x, bottom),
    )
    return [Poly(step, width=INK, layer="circuit", key=key)]


def coil(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A coil."""
    y = (top + bottom) / 2
    box = (Point(x - 5.5, y - 3), Point(x + 5.5, y - 3), Point(x + 5.5, y + 3), Point(x - 5.5, y + 3))
    return [*stubs(x, top, bottom, key, 3), Poly(box, width=INK, closed=True, fill="paper", layer="circuit", key=key)]


def lamp(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A signal lamp."""
    y, d = (top + bottom) / 2, 4.0 * 0.7071
    return [
        *stubs(x, top, bottom, key, 4),
        Circle(x, y, 4.0, width=INK, fill="paper", layer="circuit", key=key),
        Line(x - d, y - d, x + d, y + d, width=INK, layer="circuit", key=key),
        Line(x - d, y + d, x + d, y - d, width=INK, layer="circuit", key=key),
    ]


def joint(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A terminal."""
    y = (top + bottom) / 2
    return [*stubs(x, top, bottom, key, 1.1), Circle(x, y, 1.1, width=INK, fill="paper", layer="circuit", key=key)]


Sign = Callable[[float, float, Key | None], list[Shape]]


def boxed(
    x: float,
    top: float,
    bottom: float,
    key: Key | None,
    *,
    inside: Sign | None = None,
    half: tuple[float, float] = (5.0, 4.0),
) -> list[Shape]:
    """A box on the line, with a sign in it; ``half`` is half its width and half its height, mm."""
    y = (top + bottom) / 2
    wide, high = half
    box = _poly(key, (x - wide, y - high), (x + wide, y - high), (x + wide, y + high), (x - wide, y + high),
                closed=True, fill="paper")  # fmt: skip
    return [*stubs(x, top, bottom, key, high), box, *(inside(x, y, key) if inside else [])]


def fuse(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A fuse: a slim box that the line runs through."""
    y = (top + bottom) / 2
    return [
        *boxed(x, top, bottom, key, half=(1.6, 4.2)),
        Line(x, y - 4.2, x, y + 4.2, width=INK, layer="circuit", key=key),
    ]


def link(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A link that is opened to measure: a bar between two rings."""
    y = (top + bottom) / 2
    rings = [Circle(x, y + dy, 0.9, width=INK, fill="paper", layer="circuit", key=key) for dy in (-3, 3)]
    return [
        *stubs(x, top, bottom, key, 3.9),
        *rings,
        Line(x + 0.9, y - 3, x + 0.9, y + 3, width=0.7, layer="circuit", key=key),
    ]


def winding(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A winding of a transformer: three half rings, the core beside it."""
    y = (top + bottom) / 2
    arcs = [Arc(x, y + dy, 1.6, 90, -180, width=INK, layer="circuit", key=key) for dy in (-3.2, 0, 3.2)]
    return [
        *stubs(x, top, bottom, key, 4.8),
        *arcs,
        Line(x - 1.8, y - 4.8, x - 1.8, y + 4.8, width=0.6, layer="circuit", key=key),
    ]


def _direct_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [
        Line(x - 2.4, y - 0.8, x + 2.4, y - 0.8, width=INK, layer="circuit", key=key),
        *(
            Line(x + dx, y + 0.8, x + dx + 1.2, y + 0.8, width=INK, layer="circuit", key=key)
            for dx in (-2.4, -0.6, 1.2)
        ),
    ]


def _wave(x: float, y: float, key: Key | None) -> list[Shape]:
    points = tuple(Point(x - 2.4 + 0.4 * n, y - sin(2 * pi * n / 12)) for n in range(13))
    return [Poly(points, width=INK, layer="circuit", key=key)]


def _rectifier_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    low = _direct_sign(x + 2.2, y + 2.0, key)
    return [*_wave(x - 2.2, y - 1.8, key), _poly(key, (x - 5, y + 4), (x + 5, y - 4)), *low]


def _in_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [_poly(key, (x - 1.6, y - 1.2), (x, y + 1.6), (x + 1.6, y - 1.2), closed=True)]


def _out_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [_poly(key, (x - 1.6, y + 1.2), (x, y - 1.6), (x + 1.6, y + 1.2), closed=True)]


def _resistor(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    y = (top + bottom) / 2
    bars = [Line(x - 2, y + dy, x + 2, y + dy, width=0.25, layer="circuit", key=key) for dy in (-2.2, 0, 2.2)]
    return [*boxed(x, top, bottom, key, half=(2.0, 4.4)), *bars]


def buzzer(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A buzzer: a half dome on its bar."""
    y = (top + bottom) / 2
    return [
        *stubs(x, top, bottom, key, 3.2),
        Arc(x - 2, y, 3.2, 90, -180, width=INK, layer="circuit", key=key),
        Line(x - 2, y - 3.2, x - 2, y + 3.2, width=INK, layer="circuit", key=key),
        Line(x - 2, y - 3.2, x, y - 3.2, width=INK, layer="circuit", key=key),
        Line(x - 2, y + 3.2, x, y + 3.2, width=INK, layer="circuit", key=key),
    ]


def socket(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A socket: a half ring open to the plug."""
    y = (top + bottom) / 2
    return [
        *stubs(x, top, bottom, key, 3.4),
        Arc(x, y, 3.4, 90, -180, width=INK, layer="circuit", key=key),
        Line(x - 2.4, y, x, y, width=INK, layer="circuit", key=key),
        Line(x, y - 3.4, x, y + 3.4, width=INK, layer="circuit", key=key),
    ]


def _fan_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    blades = [(cos(a), sin(a)) for a in (pi / 2, 7 * pi / 6, 11 * pi / 6)]
    return [_poly(key, (x, y), (x + 2.6 * c, y - 2.6 * s)) for c, s in blades]


def _foreign_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [_poly(key, (x - 1.4, y - 2.4), (x + 0.4, y - 0.3), (x - 0.4, y + 0.3), (x + 1.4, y + 2.4))]


def _semiconductor(x: float, y: float, key: Key | None) -> list[Shape]:
    return [
        _poly(key, (x - 1.7, y - 1.7), (x + 1.7, y - 1.7), (x, y + 1.3), closed=True),
        _poly(key, (x - 1.7, y + 1.3), (x + 1.7, y + 1.3)),
        _poly(key, (x + 0.4, y + 1.3), (x + 1.9, y + 2.8)),
    ]


_BOXED: dict[str, Callable[[float, float, Key | None], list[Shape]] | None] = {
    "box": None,
    "rectifier": _rectifier_sign,
    "direct": _direct_sign,
    "signal": _direct_sign,
    "fan": _fan_sign,
    "foreign": _foreign_sign,
    "soft": _semiconductor,
    "drive": _wave,
    "output": _out_sign,
}
_PLAIN: dict[str, Symbol] = {
    "isolator": isolator_pole,
    "breaker": breaker_pole,
    "fuse switch": fuse_switch_pole,
    "contactor": contactor_pole,
    "fuse": fuse,
    "link": link,
    "winding": winding,
    "source winding": winding,
    "resistor": _resistor,
    "buzzer": buzzer,
    "socket": socket,
    "lamp": lamp,
    "test": lamp,
    "coil": coil,
}
_BY_BEHAVIOUR: dict[Behaviour, Symbol] = {
    Behaviour.NO: make_contact,
    Behaviour.NC: break_contact,
    Behaviour.COIL: coil,
    Behaviour.LAMP: lamp,
    Behaviour.JOINT: joint,
    Behaviour.HEATER: heater,
    Behaviour.POLE: breaker_pole,
    Behaviour.INPUT: partial(boxed, inside=_in_sign),
    Behaviour.LOAD: boxed,
    Behaviour.SOURCE: boxed,
    Behaviour.WINDING: winding,
}


def iec_symbol(unit: Unit) -> Symbol:
    """The symbol of a unit after IEC 60617."""
    if unit.symbol in _SIGNS:
        base = break_contact if unit.behaviour is Behaviour.NC else make_contact
        return partial(_actuated, base, unit.symbol)
    if unit.symbol in _PLAIN:
        return _PLAIN[unit.symbol]
    if unit.symbol in _BOXED:
        return partial(boxed, inside=_BOXED[unit.symbol])
    return _BY_BEHAVIOUR[unit.behaviour]
