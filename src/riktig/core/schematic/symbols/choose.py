"""Which symbol a unit has by the rulebook of the job, and the signs that stand at the end of a path."""

from dataclasses import dataclass
from functools import cache

from riktig.core.catalogue import Behaviour, Can, Kind, Unit, kind
from riktig.core.geometry import Align, Circle, Face, Line, Point, Poly, Shape, Text
from riktig.core.keys import Key
from riktig.core.schematic.symbols.american import american_symbol
from riktig.core.schematic.symbols.iec import iec_symbol, photocell, sensor, timed_coil
from riktig.core.schematic.symbols.iec_contacts import INK, Symbol, residual_pole

__all__ = [
    "box_sign",
    "earth_sign",
    "motor_sign",
    "phases_sign",
    "surge_sign",
    "symbol_of",
    "symbol_words",
    "transformer_sign",
]


def symbol_of(kind_id: str, unit: str, north_american: bool = False) -> Symbol:
    """The symbol of one unit of a kind, by the rulebook."""
    known_kind = kind(kind_id)
    symbol_unit = known_kind.unit(unit)
    special = _special(known_kind, symbol_unit)
    if special and not (north_american and special.has_american):
        return special.symbol
    return american_symbol(symbol_unit) if north_american else iec_symbol(symbol_unit)


@dataclass(frozen=True, slots=True)
class _Special:
    """A symbol that a unit has by what its kind can do. ``has_american``: IEEE 315 draws it like others of its sort."""

    symbol: Symbol
    words: str
    has_american: bool = False


def _special(of: Kind, unit: Unit) -> _Special | None:
    if of.can(Can.RESIDUAL) and unit.behaviour is Behaviour.POLE:
        return _Special(residual_pole, "residual-current breaker", has_american=True)
    if of.can(Can.TIMED) and unit.behaviour is Behaviour.COIL:
        return _Special(timed_coil, "coil of a timer, late to pull in", has_american=True)
    if of.can(Can.SENSOR) and unit.behaviour is Behaviour.LOAD:
        return _Special(photocell, "photocell") if of.can(Can.SEES_LIGHT) else _Special(sensor, "sensor")
    return None


_WORDS = {
    "push": "push-button",
    "turn": "selector",
    "key": "key switch",
    "mushroom": "emergency stop",
    "float": "float switch",
    "limit": "moved by what travels or by a door",
    "temperature": "thermostat",
    "trip": "tripped by a protective device",
    "delay": "of a timer",
    "isolator": "isolator",
    "breaker": "breaker",
    "fuse switch": "fuse switch",
    "fuse": "fuse",
    "contactor": "main pole of a contactor",
    "link": "link, opened to measure",
    "winding": "winding of a transformer",
    "source winding": "winding of a transformer",
    "buzzer": "buzzer",
    "socket": "socket",
    "resistor": "heater",
    "lamp": "lamp",
    "test": "lamp, its test input",
    "box": "load or device",
    "rectifier": "supply, from alternating to direct current",
    "direct": "direct-current output",
    "signal": "analogue output",
    "fan": "fan",
    "foreign": "supply from elsewhere",
    "soft": "soft starter",
    "drive": "drive",
    "output": "controller output",
    "coil": "valve or coil",
}
_BEHAVIOUR_WORDS = {
    "no": "make contact",
    "nc": "break contact",
    "coil": "coil",
    "lamp": "lamp",
    "joint": "terminal",
    "heater": "overload, one phase",
    "pole": "breaker",
    "input": "controller input",
    "load": "load",
    "source": "source",
    "winding": "winding",
}


@cache
def symbol_words(kind_id: str, unit: str) -> str:
    """What a symbol says, for the sheet of symbols used."""
    known_kind = kind(kind_id)
    symbol_unit = known_kind.unit(unit)
    special = _special(known_kind, symbol_unit)
    if special:
        return special.words
    text = _WORDS.get(symbol_unit.symbol, "")
    base = _BEHAVIOUR_WORDS[symbol_unit.behaviour.value]
    if symbol_unit.symbol in ("push", "turn", "key", "mushroom", "float", "limit", "temperature", "trip", "delay"):
        return f"{base}, {text}"
    return text or base


def earth_sign(x: float, y: float) -> list[Shape]:
    """Protective earth, drawn (no shipped face has the sign)."""
    bars = [
        Line(x - w, y + n * 1.3, x + w, y + n * 1.3, width=INK, layer="circuit") for n, w in enumerate((3.2, 2.0, 0.8))
    ]
    ring = Circle(x, y + 0.6, 4.4, width=0.25, layer="circuit")
    return [Line(x, y - 3.4, x, y, width=INK, layer="circuit"), *bars, ring]


def motor_sign(x: float, y: float, tag: str, key: Key | None) -> list[Shape]:
    """A three-phase motor: a circle with its letter; ``x, y`` is the middle."""
    return [
        Circle(x, y, 9.0, width=0.45, fill="paper", layer="circuit", key=key),
        Text(x, y - 0.6, "M", 4.0, face=Face.BOLD, align=Align.MIDDLE, key=key),
        Text(x, y + 4.6, "3 ~", 2.8, align=Align.MIDDLE, key=key),
        Text(x + 10.5, y + 6.5, tag, 3.0, face=Face.PRINTED_BOLD, key=key),
    ]


def transformer_sign(lines: tuple[float, float], top: float, y: float, tag: str, key: Key | None) -> list[Shape]:
    """A transformer at the end of its primary's lines: two rings that cross; its secondary is drawn elsewhere.

    Args:
        lines: Where the two lines of its primary stand, mm.
        top: Where they come in, mm.
        y: The middle of its sign, mm.
        tag: Its tag.
        key: What it stands for.
    """
    middle, ring = sum(lines) / 2, 3.6
    upper = y - 2.4
    legs = [
        Line(x, top, middle + side * 2.4, upper - 2.7, width=INK, layer="circuit")
        for x, side in zip(lines, (-1, 1), strict=True)
    ]
    rings = [Circle(middle, at, ring, width=0.45, layer="circuit", key=key) for at in (upper, y + 2.4)]
    return [*legs, *rings, Text(middle + 5.0, y + 1.2, tag, 3.2, face=Face.PRINTED_BOLD, key=key)]


def surge_sign(x: float, y: float, gap: float, tag: str, key: Key | None) -> list[Shape]:
    """A surge protector on three lines: an arrester from each line to what leads on to earth (IEC 60617, from memory).

    Args:
        x: The middle line, mm.
        y: The middle of its box, mm.
        gap: From one line to the next, mm.
        tag: Its tag.
        key: What it stands for.
    """
    shapes: list[Shape] = [_box(x, y, gap + 3.0, key)]
    for line in (x - gap, x, x + gap):
        head = (Point(line - 1.0, y - 2.2), Point(line, y - 0.4), Point(line + 1.0, y - 2.2))
        shapes += [
            Line(line, y - 5, line, y - 0.4, width=INK, layer="circuit", key=key),
            Poly(head, width=INK, layer="circuit", key=key),
        ]
    plate = y + 0.6
    return [
        *shapes,
        Line(x - gap - 1.2, plate, x + gap + 1.2, plate, width=INK, layer="circuit", key=key),
        Text(x, y + 4.2, tag, 2.7, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key),
    ]


def phases_sign(x: float, y: float, half: float, tag: str, key: Key | None) -> list[Shape]:
    """A relay that drops when a line is missing: its box says “m < 3” (IEC 60617, from memory).

    Args:
        x: The middle of its box, mm.
        y: The same, downwards, mm.
        half: Half of its width, mm.
        tag: Its tag.
        key: What it stands for.
    """
    return [
        _box(x, y, half, key),
        Text(x, y - 0.8, "m < 3", 2.7, align=Align.MIDDLE, key=key),
        Text(x, y + 4.0, tag, 2.7, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key),
    ]


def box_sign(x: float, y: float, tag: str, words: list[str], key: Key | None, half: float = 9.0) -> list[Shape]:
    """A device at the end of a path: a box with its name; ``x, y`` is the middle."""
    return [
        _box(x, y, half, key),
        Text(x, y + 1.0, tag, 3.0, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key),
        *(Text(x, y + 8.4 + 3 * n, line, 2.3, "second", align=Align.MIDDLE, key=key) for n, line in enumerate(words)),
    ]


def _box(x: float, y: float, half: float, key: Key | None) -> Poly:
    corners = (Point(x - half, y - 5), Point(x + half, y - 5), Point(x + half, y + 5), Point(x - half, y + 5))
    return Poly(corners, width=0.45, closed=True, fill="paper", layer="circuit", key=key)
