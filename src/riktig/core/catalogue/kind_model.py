"""What a kind of part is: its pins and units, what it can do, and how it is built in."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum

from riktig.core.catalogue.capabilities import Can

__all__ = ["Behaviour", "Clamp", "Draw", "Kind", "Mounting", "Pin", "Quickness", "Side", "TimerSetting", "Unit"]


class Behaviour(Enum):
    """What a unit does between its pins. ``JOINT`` keeps the potential; all others end it.

    ``POLE`` is closed at rest and opened by its own handle; ``INPUT`` is an electronic input;
    ``SOURCE`` makes a potential of its own: a secondary winding, a direct-current output.
    """

    POLE = "pole"
    NO = "no"
    NC = "nc"
    COIL = "coil"
    LAMP = "lamp"
    HEATER = "heater"
    JOINT = "joint"
    WINDING = "winding"
    LOAD = "load"
    INPUT = "input"
    SOURCE = "source"


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
    """How a part is held.

    ``UNDER`` is plugged under the contactor it belongs to; ``FIXED`` is part of the enclosure; ``FIELD`` stands outside
    the panel.
    """

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


_MOVED_IN = {"13-14": ("hand", "on"), "23-24": ("auto",)}
"""In which positions of a switch that is turned its contacts are moved, by their names; the others in “on”."""


@dataclass(frozen=True, slots=True)
class Unit:
    """What joins pins inside a device: a contact, a coil, a pole. ``symbol`` says what moves or marks it."""

    name: str
    pins: tuple[str, ...]
    behaviour: Behaviour
    symbol: str = ""

    @property
    def moved_in(self) -> tuple[str, ...]:
        """The positions in which it is moved, as a contact of a switch that is turned."""
        return _MOVED_IN.get(self.name, ("on",))


@dataclass(frozen=True, slots=True)
class Draw:
    """One consumer: apparent power at its own voltage, VA; what an ohm-meter reads, ohm (0: that of its power).

    ``dc`` is whether it works on 24 V. ``pick`` and ``hold`` are the shares of its voltage at which
    it comes in and drops out.
    """

    va: float
    ohm: float = 0.0
    dc: bool = False
    pick: float = 0.8
    hold: float = 0.4


@dataclass(frozen=True, slots=True)
class Quickness:
    """Seconds from the coil fed until its first contacts open and its last close, and the same when it falls."""

    leaves: float
    arrives: float
    falls: float
    rests: float


@dataclass(frozen=True, slots=True)
class TimerSetting:
    """Seconds until a timer's contacts move, and the pause between star and delta."""

    delay_s: float
    pause_s: float


@dataclass(frozen=True, slots=True)
class Kind:
    """A kind of part, with its class letter. The data file says what each field means."""

    id: str
    letter: str
    name: str
    mounting: Mounting
    pins: tuple[Pin, ...]
    units: tuple[Unit, ...]
    like: str = ""
    row: str = "starters"
    """Where on the plate it stands when it stands on a rail."""
    block: bool = False
    """Whether an auxiliary block of four contacts sits on its front."""
    signals: bool = False
    """Whether a contact block stands at its side that says that it is off or has tripped."""
    abilities: frozenset[Can] = frozenset()
    door_order: int = 4
    head: str = ""
    """The front of an operator of 22 mm, "" for anything else."""
    cut_out_rim: float = 0.0
    """How far its frame covers the cut-out it sits in, mm; 0 for what sits in a round hole."""
    positions: tuple[str, ...] = ()
    """Where it can be moved or turned to by hand or by what it watches, at rest first."""
    draw: Draw | None = None
    quick: Quickness | None = None
    timer: TimerSetting | None = None
    at_rest: str = ""
    """Why it gives off no heat while the loads run, "" when it does."""
    sized_as: str = ""
    """Which chosen part of a load's proposal it is, "" when it is none."""
    primary: tuple[tuple[str, str], ...] = ()
    """Pins of a potential of its own, each with the pin behind it on the side that is fed."""
    dc_pins: tuple[str, ...] = ()
    own_loops: tuple[str, ...] = ()
    """Units whose loop the device feeds itself."""
    point_pin: int | None = None
    """Of a card of a controller: which pin of a unit is the point."""
    function: str = ""
    """What an operator does, as the table of colours calls it."""
    north_american_name: str = ""
    """What it is called there where it has another name, “” where it has the same."""
    plugs_onto: Can | None = None
    """What the device that it is plugged under must be able to do; None when it is plugged under nothing."""
    is_protective: bool = field(init=False, repr=False, compare=False)
    """Whether it opens by itself on too much current: a breaker, a fuse, a motor protector."""
    has_coil: bool = field(init=False, repr=False, compare=False)
    """Whether its contacts follow a coil of its own."""
    _pins: Mapping[str, Pin] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        # Asked hundreds of thousands of times while a panel is derived, so worked out once a kind.
        breaks = ("breaker", "fuse", "fuse switch")
        guards = any(unit.behaviour is Behaviour.POLE and unit.symbol in breaks for unit in self.units)
        object.__setattr__(self, "is_protective", guards)
        object.__setattr__(self, "has_coil", any(unit.behaviour is Behaviour.COIL for unit in self.units))
        object.__setattr__(self, "_pins", {pin.name: pin for pin in reversed(self.pins)})

    def closing_positions(self, unit: Unit) -> tuple[str, ...]:
        """In which of its positions a contact of a switch that is turned is closed; empty for anything else.

        Args:
            unit: One of its contacts.
        """
        if not self.can(Can.TURNED) or unit.behaviour not in (Behaviour.NO, Behaviour.NC):
            return ()
        closes = unit.behaviour is Behaviour.NO
        return tuple(position for position in self.positions if (position in unit.moved_in) is closes)

    def can(self, ability: Can) -> bool:
        """Whether it has a capability."""
        return ability in self.abilities

    def called(self, *, north_american: bool) -> str:
        """Its name in the market that the panel goes to."""
        return (north_american and self.north_american_name) or self.name

    def primary_of(self, pin: str) -> str:
        """The pin behind a potential of its own, "" where nothing lies behind."""
        return dict(self.primary).get(pin, "")

    def shares_parts_with(self, other: "Kind") -> bool:
        """Whether the same parts do for both: one is wired like the other."""
        return self.family == other.family

    @property
    def needs_earth(self) -> bool:
        """Whether it has a clamp for a protective conductor, and so needs one."""
        return any(pin.name == "PE" for pin in self.pins)

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
        known = self._pins.get(name)
        if known is None:
            raise KeyError(f"{self.id} has no pin {name}")
        return known
