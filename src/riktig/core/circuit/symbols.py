"""Circuit symbols as marks, drawn between ``top`` and ``bottom`` on the line ``x``.

Source:
    The shapes follow IEC 60617 (make and break contacts, operating devices, switching functions),
    from memory. All contacts are drawn at rest.
"""

from collections.abc import Callable

from riktig.core.catalogue import kind
from riktig.core.geometry import Align, Arc, Circle, Face, Line, Mark, Point, Poly, Text

__all__ = ["HALF", "Symbol", "earth_sign", "symbol_of"]

HALF = 5.0
"""Half the height of a contact, mm: above and below it the line runs on."""
REACH = 4.0
INK = 0.35

Symbol = Callable[[float, float, float, str], list[Mark]]


def _stubs(x: float, top: float, bottom: float, key: str, half: float = HALF) -> list[Mark]:
    y = (top + bottom) / 2
    return [
        Line(x, top, x, y - half, width=INK, layer="circuit", key=key),
        Line(x, y + half, x, bottom, width=INK, layer="circuit", key=key),
    ]


def _blade(x: float, y: float, key: str) -> Line:
    return Line(x, y + HALF, x - REACH, y - HALF + 0.8, width=INK, layer="circuit", key=key)


def make_contact(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A contact open at rest."""
    y = (top + bottom) / 2
    return [*_stubs(x, top, bottom, key), _blade(x, y, key)]


def break_contact(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A contact closed at rest: the blade passes its seat."""
    y = (top + bottom) / 2
    return [
        *_stubs(x, top, bottom, key),
        Line(x, y - HALF, x + 3.4, y - HALF, width=INK, layer="circuit", key=key),
        Line(x, y + HALF, x + 2.8, y - HALF - 1.2, width=INK, layer="circuit", key=key),
    ]


def _pressed_by_hand(x: float, y: float, key: str, *, closed: bool) -> list[Mark]:
    start = x + 1.4 if closed else x - REACH / 2
    left = x - 9.0
    return [
        Line(start, y, left, y, width=0.2, dashed=True, layer="circuit", key=key),
        Poly(
            (Point(left + 1.2, y - 2), Point(left, y - 2), Point(left, y + 2), Point(left + 1.2, y + 2)),
            width=INK,
            layer="circuit",
            key=key,
        ),
    ]


def start_button(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A push-button with a make contact."""
    y = (top + bottom) / 2
    return [*make_contact(x, top, bottom, key), *_pressed_by_hand(x, y, key, closed=False)]


def stop_button(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A push-button with a break contact."""
    y = (top + bottom) / 2
    return [*break_contact(x, top, bottom, key), *_pressed_by_hand(x, y, key, closed=True)]


def _tripped_by_heat(x: float, y: float, key: str, *, closed: bool) -> list[Mark]:
    start = x + 1.4 if closed else x - REACH / 2
    left = x - 10.0
    box = (Point(left, y - 2), Point(left + 3, y - 2), Point(left + 3, y + 2), Point(left, y + 2))
    inner = (
        Point(left + 1.0, y - 2),
        Point(left + 1.0, y - 0.8),
        Point(left + 2.2, y - 0.8),
        Point(left + 2.2, y + 0.8),
        Point(left + 1.0, y + 0.8),
        Point(left + 1.0, y + 2),
    )
    return [
        Line(start, y, left + 3, y, width=0.2, dashed=True, layer="circuit", key=key),
        Poly(box, width=INK, closed=True, layer="circuit", key=key),
        Poly(inner, width=0.25, layer="circuit", key=key),
    ]


def overload_break(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """The overload's break contact."""
    y = (top + bottom) / 2
    return [*break_contact(x, top, bottom, key), *_tripped_by_heat(x, y, key, closed=True)]


def overload_make(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """The overload's make contact."""
    y = (top + bottom) / 2
    return [*make_contact(x, top, bottom, key), *_tripped_by_heat(x, y, key, closed=False)]


def breaker_pole(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A breaker: a make contact with a cross at its seat."""
    y = (top + bottom) / 2 - HALF
    return [
        *make_contact(x, top, bottom, key),
        Line(x - 1.2, y - 1.2, x + 1.2, y + 1.2, width=INK, layer="circuit", key=key),
        Line(x - 1.2, y + 1.2, x + 1.2, y - 1.2, width=INK, layer="circuit", key=key),
    ]


def fuse_switch_pole(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A fuse switch: a make contact whose blade carries a fuse, a slim box along it."""
    marks = make_contact(x, top, bottom, key)
    blade = next(m for m in marks if isinstance(m, Line) and m.x1 != m.x2)
    dx, dy = blade.x2 - blade.x1, blade.y2 - blade.y1
    across = 1.1 / (dx * dx + dy * dy) ** 0.5
    corners = tuple(
        Point(blade.x1 + part * dx + side * -dy * across, blade.y1 + part * dy + side * dx * across)
        for part, side in ((0.3, -1), (0.3, 1), (0.75, 1), (0.75, -1))
    )
    return [*marks, Poly(corners, width=INK, closed=True, layer="circuit", key=key)]


def isolator_pole(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A switch-disconnector: a make contact with a bar and a ring at its seat."""
    y = (top + bottom) / 2 - HALF
    return [
        *make_contact(x, top, bottom, key),
        Line(x - 1.6, y, x + 1.6, y, width=INK, layer="circuit", key=key),
        Circle(x, y - 0.9, 0.9, width=INK, layer="circuit", key=key),
    ]


def contactor_pole(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A contactor's main pole: a make contact with a half ring at its seat."""
    y = (top + bottom) / 2 - HALF
    arc = Arc(x, y - 1.2, 1.2, 90, -180, width=INK, layer="circuit", key=key)
    return [*make_contact(x, top, bottom, key), arc]


def heater(x: float, top: float, bottom: float, key: str) -> list[Mark]:
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


def coil(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A coil."""
    y = (top + bottom) / 2
    box = (Point(x - 5.5, y - 3), Point(x + 5.5, y - 3), Point(x + 5.5, y + 3), Point(x - 5.5, y + 3))
    return [*_stubs(x, top, bottom, key, 3), Poly(box, width=INK, closed=True, fill="paper", layer="circuit", key=key)]


def lamp(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A signal lamp."""
    y, d = (top + bottom) / 2, 4.0 * 0.7071
    return [
        *_stubs(x, top, bottom, key, 4),
        Circle(x, y, 4.0, width=INK, fill="paper", layer="circuit", key=key),
        Line(x - d, y - d, x + d, y + d, width=INK, layer="circuit", key=key),
        Line(x - d, y + d, x + d, y - d, width=INK, layer="circuit", key=key),
    ]


def joint(x: float, top: float, bottom: float, key: str) -> list[Mark]:
    """A terminal."""
    y = (top + bottom) / 2
    return [*_stubs(x, top, bottom, key, 1.1), Circle(x, y, 1.1, width=INK, fill="paper", layer="circuit", key=key)]


def earth_sign(x: float, y: float) -> list[Mark]:
    """Protective earth, drawn (no shipped face has the sign)."""
    bars = [
        Line(x - w, y + n * 1.3, x + w, y + n * 1.3, width=INK, layer="circuit") for n, w in enumerate((3.2, 2.0, 0.8))
    ]
    ring = Circle(x, y + 0.6, 4.4, width=0.25, layer="circuit")
    return [Line(x, y - 3.4, x, y, width=INK, layer="circuit"), *bars, ring]


def motor_sign(x: float, y: float, tag: str, key: str) -> list[Mark]:
    """A three-phase motor: a circle with its letter; ``x, y`` is the middle."""
    return [
        Circle(x, y, 9.0, width=0.45, fill="paper", layer="circuit", key=key),
        Text(x, y - 0.6, "M", 4.0, face=Face.BOLD, align=Align.MIDDLE, key=key),
        Text(x, y + 4.6, "3 ~", 2.8, align=Align.MIDDLE, key=key),
        Text(x + 10.5, y + 6.5, tag, 3.0, face=Face.PRINTED_BOLD, key=key),
    ]


_BY_KIND: dict[str, Symbol] = {
    "isolator": isolator_pole,
    "motor_breaker": breaker_pole,
    "fuse_switch": fuse_switch_pole,
    "panel_breaker": breaker_pole,
    "way_breaker": breaker_pole,
    "control_breaker": breaker_pole,
    "start_button": start_button,
    "stop_button": stop_button,
    "lamp": lamp,
    "terminal": joint,
    "neutral_terminal": joint,
    "earth_terminal": joint,
    "field_contact": break_contact,
}
_BY_UNIT: dict[tuple[str, str], Symbol] = {
    ("contactor", "A1-A2"): coil,
    ("contactor", "13-14"): make_contact,
    ("contactor", "43-44"): make_contact,
    ("contactor", "21-22"): break_contact,
    ("contactor", "31-32"): break_contact,
    ("contactor", "1-2"): contactor_pole,
    ("contactor", "3-4"): contactor_pole,
    ("contactor", "5-6"): contactor_pole,
    ("motor_protector", "1-2"): breaker_pole,
    ("motor_protector", "3-4"): breaker_pole,
    ("motor_protector", "5-6"): breaker_pole,
    ("motor_protector", "13-14"): make_contact,
    ("motor_protector", "21-22"): break_contact,
    ("timer", "A1-A2"): coil,
    ("timer", "17-18"): make_contact,
    ("timer", "17-28"): make_contact,
    ("overload", "95-96"): overload_break,
    ("overload", "97-98"): overload_make,
}


def symbol_of(kind_id: str, unit: str) -> Symbol:
    """The symbol of one unit of a kind; the overload's poles are heaters."""
    family = kind(kind_id).family
    return _BY_UNIT.get((family, unit)) or _BY_KIND.get(family, heater)
