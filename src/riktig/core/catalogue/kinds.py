"""Kinds of parts: what every contactor, every breaker has in common."""

import tomllib
from dataclasses import dataclass
from enum import Enum
from functools import cache
from importlib import resources

__all__ = ["Behaviour", "Clamp", "Kind", "Mounting", "Pin", "Side", "Unit", "kind", "kinds"]


class Behaviour(Enum):
    """What a unit does between its pins. ``JOINT`` keeps the potential; all others end it."""

    POLE = "pole"
    NO = "no"
    NC = "nc"
    COIL = "coil"
    LAMP = "lamp"
    HEATER = "heater"
    JOINT = "joint"
    WINDING = "winding"


class Clamp(Enum):
    """What lands on a pin: ``PLUG`` takes no wire, ``FIELD`` a core from outside."""

    POWER = "power"
    CONTROL = "control"
    PLUG = "plug"
    FIELD = "field"


class Side(Enum):
    """Where on the front of a part a pin is reached."""

    TOP = "top"
    BOTTOM = "bottom"


class Mounting(Enum):
    """How a part is held: ``UNDER`` is plugged under the contactor it belongs to; ``FIXED`` is
    part of the enclosure; ``FIELD`` stands outside the panel."""

    RAIL = "rail"
    UNDER = "under"
    SCREWED = "screwed"
    DOOR = "door"
    FIXED = "fixed"
    FIELD = "field"


@dataclass(frozen=True, slots=True)
class Pin:
    """A pin: its marking, its place across the front (0 left .. 1 right), side and clamp."""

    name: str
    across: float
    side: Side
    clamp: Clamp


@dataclass(frozen=True, slots=True)
class Unit:
    """What joins pins inside a device: a contact, a coil, a pole."""

    name: str
    pins: tuple[str, ...]
    behaviour: Behaviour


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of part, with its class letter."""

    id: str
    letter: str
    name: str
    mounting: Mounting
    pins: tuple[Pin, ...]
    units: tuple[Unit, ...]
    like: str = ""

    @property
    def is_motor(self) -> bool:
        """Whether it turns: a motor in the field."""
        return self.letter == "M" and self.mounting is Mounting.FIELD

    @property
    def family(self) -> str:
        """The kind whose parts and behaviour it shares: its own id, or that of what it is wired like."""
        return self.like or self.id

    def unit(self, name: str) -> Unit:
        """The unit of that name.

        Raises:
            KeyError: the kind has none.
        """
        for unit in self.units:
            if unit.name == name:
                return unit
        raise KeyError(f"{self.id} has no {name}")

    def pin(self, name: str) -> Pin:
        """The pin with that marking.

        Raises:
            KeyError: the kind has none.
        """
        for pin in self.pins:
            if pin.name == name:
                return pin
        raise KeyError(f"{self.id} has no pin {name}")


@cache
def kinds() -> tuple[Kind, ...]:
    """All kinds, as shipped."""
    path = resources.files("riktig.core.catalogue") / "data" / "kinds.toml"
    return tuple(
        Kind(
            name,
            row["letter"],
            row["name"],
            Mounting(row["mounting"]),
            tuple(Pin(n, float(a), Side(s), Clamp(c)) for n, a, s, c in row["pins"]),
            tuple(Unit(n, tuple(pins), Behaviour(b)) for n, pins, b in row["units"]),
            row.get("like", ""),
        )
        for name, row in tomllib.loads(path.read_text(encoding="utf-8")).items()
    )


@cache
def kind(kind_id: str) -> Kind:
    """The kind with that id.

    Raises:
        KeyError: there is none.
    """
    for one in kinds():
        if one.id == kind_id:
            return one
    raise KeyError(kind_id)
