"""Circuit symbols of the European rulebook, drawn between ``top`` and ``bottom`` on the line ``x``.

Source:
    The shapes follow IEC 60617 (make and break contacts, operating devices, switching functions),
    from memory. All contacts are drawn at rest.
"""

from collections.abc import Callable
from functools import partial
from math import cos, pi, sin

from riktig.core.catalogue import Behaviour, Unit
from riktig.core.geometry import Arc, Circle, Line, Point, Poly, Shape
from riktig.core.keys import Key
from riktig.core.schematic.symbols.iec_contacts import (
    INK,
    SIGNS,
    Symbol,
    actuated,
    break_contact,
    breaker_pole,
    contactor_pole,
    fuse_switch_pole,
    isolator_pole,
    make_contact,
    poly,
    stubs,
)

__all__ = ["LINE_GAP", "boxed", "converter", "iec_symbol", "photocell", "sensor", "timed_coil"]

LINE_GAP = 9.5
"""From one line of a group to the next, mm."""


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


def timed_coil(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """The coil of a timer that is late to pull in: a coil with a crossed field at its left."""
    y = (top + bottom) / 2
    left, right = x - 5.5, x - 1.8
    return [
        *coil(x, top, bottom, key),
        Line(right, y - 3, right, y + 3, width=INK, layer="circuit", key=key),
        Line(left, y - 3, right, y + 3, width=INK, layer="circuit", key=key),
        Line(left, y + 3, right, y - 3, width=INK, layer="circuit", key=key),
    ]


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
    box = poly(key, (x - wide, y - high), (x + wide, y - high), (x + wide, y + high), (x - wide, y + high),
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
    return [*_wave(x - 2.2, y - 1.8, key), poly(key, (x - 5, y + 4), (x + 5, y - 4)), *low]


def _in_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [poly(key, (x - 1.6, y - 1.2), (x, y + 1.6), (x + 1.6, y - 1.2), closed=True)]


def _out_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [poly(key, (x - 1.6, y + 1.2), (x, y - 1.6), (x + 1.6, y + 1.2), closed=True)]


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
    return [poly(key, (x, y), (x + 2.6 * c, y - 2.6 * s)) for c, s in blades]


def _foreign_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [poly(key, (x - 1.4, y - 2.4), (x + 0.4, y - 0.3), (x - 0.4, y + 0.3), (x + 1.4, y + 2.4))]


def _semiconductor(x: float, y: float, key: Key | None) -> list[Shape]:
    return [
        poly(key, (x - 1.7, y - 1.7), (x + 1.7, y - 1.7), (x, y + 1.3), closed=True),
        poly(key, (x - 1.7, y + 1.3), (x + 1.7, y + 1.3)),
        poly(key, (x + 0.4, y + 1.3), (x + 1.9, y + 2.8)),
    ]


def sensor(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A sensor with power of its own: a box with the sign of what senses without touch."""
    return boxed(x, top, bottom, key, inside=_sensing_sign)


def photocell(x: float, top: float, bottom: float, key: Key | None) -> list[Shape]:
    """A sensor that feels light: its box with the two arrows of light that falls in (IEC 60617, from memory)."""
    return boxed(x, top, bottom, key, inside=_light_sign)


def _light_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    sensing = [poly(key, (x - 0.4, y + 0.4), (x + 1.6, y - 1.6), (x + 3.6, y + 0.4), (x + 1.6, y + 2.4), closed=True)]
    arrows = [poly(key, (x - 3.6, at), (x - 1.0, at + 1.6)) for at in (y - 2.2, y - 0.4)]
    heads = [poly(key, (x - 2.1, at + 1.7), (x - 1.0, at + 1.6), (x - 1.4, at + 0.6)) for at in (y - 2.2, y - 0.4)]
    return [*sensing, *arrows, *heads]


def _sensing_sign(x: float, y: float, key: Key | None) -> list[Shape]:
    return [poly(key, (x - 2.4, y), (x, y - 2.4), (x + 2.4, y), (x, y + 2.4), closed=True)]


def converter(x: float, last: float, top: float, bottom: float, key: Key | None, *, soft: bool) -> list[Shape]:
    """A drive or a soft starter on all of its lines: one box, from the first line at ``x`` to the last.

    Args:
        x: The first line, mm.
        last: The last line, mm.
        top: Where the lines come in, mm.
        bottom: Where they go out, mm.
        key: What it stands for.
        soft: Whether it only brings its motor up; a drive changes the frequency, its box is parted by a diagonal.
    """
    y, left, right = (top + bottom) / 2, x - 5.0, last + 5.0
    lines = round((last - x) / LINE_GAP) + 1
    ends = [mark for n in range(lines) for mark in stubs(x + n * LINE_GAP, top, bottom, key, 4.0)]
    box = poly(key, (left, y - 4), (right, y - 4), (right, y + 4), (left, y + 4), closed=True, fill="paper")
    if soft:
        return [*ends, box, *_semiconductor((left + right) / 2, y, key)]
    parted = poly(key, (left, y + 4), (right, y - 4))
    return [*ends, box, parted, *_wave(left + 4.6, y - 1.6, key), *_wave(right - 4.6, y + 1.8, key)]


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
    if unit.symbol in SIGNS:
        base = break_contact if unit.behaviour is Behaviour.NC else make_contact
        return partial(actuated, base, unit.symbol)
    if unit.symbol in _PLAIN:
        return _PLAIN[unit.symbol]
    if unit.symbol in _BOXED:
        return partial(boxed, inside=_BOXED[unit.symbol])
    return _BY_BEHAVIOUR[unit.behaviour]
