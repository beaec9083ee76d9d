"""A circuit: a recipe with its parameters, and what the builder changed afterwards."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.ids import CircuitId, ElementId, LoadId
from riktig.core.job.load_values import REVERSING_ONCE

__all__ = ["IMPLIED", "INCOMER_ID", "Act", "Change", "Circuit", "Insertable", "OwnDevice", "OwnRung", "Param", "Recipe"]


class Recipe(Enum):
    """What a circuit is made from: the words shown to the builder."""

    INCOMER = "incomer"
    DIRECT_ON_LINE = "direct-on-line"
    REVERSING = "direct-on-line, reversing"
    STAR_DELTA = "star-delta"
    SOFT_START = "soft start with bypass"
    DRIVE = "drive"
    CONTACTOR = "load behind a contactor"
    WAY = "way of its own"
    MAINTAINED = "maintained services"
    CONTROL_SUPPLY = "control transformer"
    DC_SUPPLY = "24 V supply"
    LIMITED_SUPPLY = "limited-energy supply"
    CONTROLLER = "controller with inputs and outputs"
    EMERGENCY_STOP = "emergency stop"
    LEVEL_ALARM = "high-level alarm"
    PHASE_MONITOR = "main contactor, monitored"
    PHASE_LAMPS = "phase lamps"
    THROUGH_FEED = "through-feed"
    VENTILATION = "fan of the box"
    SOCKET = "socket"
    SURGE = "surge protector"
    SIGNALLED_WAYS = "ways with trip lamps"
    LAMP_TEST = "lamp test"
    SEASON_SWITCH = "season switch"
    FOREIGN_INTERLOCK = "interlock from another panel"
    VALVE = "solenoid valve"
    FUSED_BRANCHES = "breaker with two fuses"
    SELECTED_LAMP = "selector with lamp and relay"
    LIT_BUTTON = "illuminated button"
    SCREEN = "door screen"
    NETWORK = "network chain"
    SENSOR_TERMINALS = "input terminals with bridges"
    FREE = "free rungs"
    PLANNED = "sized, not yet drawn"

    @classmethod
    def _missing_(cls, value: object) -> "Recipe | None":
        return cls.REVERSING if value == REVERSING_ONCE else None


INCOMER_ID = CircuitId("c0")
"""The circuit of the incoming supply and the main switch, which every job has."""
IMPLIED = {
    Recipe.CONTROL_SUPPLY: CircuitId("s1"),
    Recipe.DC_SUPPLY: CircuitId("s2"),
    Recipe.LIMITED_SUPPLY: CircuitId("s3"),
    Recipe.CONTROLLER: CircuitId("s4"),
    Recipe.THROUGH_FEED: CircuitId("s5"),
    Recipe.VENTILATION: CircuitId("s6"),
}
"""Circuits that the Brief asks for without saying so; they enter the document when they are changed."""


class Insertable(Enum):
    """What may be put into a control path: kept as the words shown to the builder."""

    STOP_BUTTON = "stop button on the door"
    START_BUTTON = "start button on the door"
    FIELD_CONTACT = "contact in the field, closed at rest"
    FIELD_MAKE = "contact in the field, open at rest"
    SELECTOR = "selector on the door, off – on"
    KEY_SWITCH = "key switch on the door, off – on"
    EMERGENCY_STOP = "emergency stop on the door"
    FLOAT = "float switch, closes as it rises"
    END_SWITCH = "end switch, opens at the end"
    THERMOSTAT = "thermostat on the plate"
    LAMP = "lamp on the door"
    BUZZER = "buzzer on the door"
    RELAY = "coil of a new relay"
    TIMER = "coil of a new timer, late to close"
    FUSE = "fuse"
    CONTACT = "contact of a device that is there"


class Act(Enum):
    """What a change does to the element it is made to."""

    AFTER = "put in after"
    BEFORE = "put in ahead of"
    ACROSS = "put in across"
    INSTEAD = "put in the place of"
    OUT = "taken out"
    MOVED = "moved to after"
    FROM = "start of the rung wired to"
    TO = "end of the rung wired to"
    NAMED = "named"


@dataclass(frozen=True, slots=True)
class Change:
    """One change the builder made to what the recipe gave.

    Args:
        act: What was done.
        element: The element it was done to.
        number: Makes the id of what was put in; counts within the circuit.
        what: What was put in, None when nothing was.
        text: What it is for, or how it is named now.
        to: The device and unit of a contact, the element moved to, or the node wired to.
    """

    act: Act
    element: ElementId
    number: int = 0
    what: Insertable | None = None
    text: str = ""
    to: str = ""


@dataclass(frozen=True, slots=True)
class Param:
    """A parameter of a recipe that is not as the recipe proposes it."""

    name: str
    value: str


@dataclass(frozen=True, slots=True)
class OwnDevice:
    """A device the builder added.

    ``zone`` is “plate”, “door” or “field”; ``mark`` makes it a terminal; ``colour`` is that of a lamp.
    """

    role: str
    kind: str
    zone: str
    purpose: str = ""
    legend: str = ""
    mark: str = ""
    colour: str = ""


@dataclass(frozen=True, slots=True)
class OwnRung:
    """A rung the builder added: from and to named nodes, along a path in words.

    Of several lines, ``start`` and ``end`` name a node for each, parted by “/”. ``band`` is the kind
    of sheet: “control” or “power”.
    """

    role: str
    title: str
    start: str
    path: str
    end: str
    band: str = "control"


@dataclass(frozen=True, slots=True)
class Circuit:
    """One circuit of the job.

    ``load`` is None for what serves no load of the Brief; then ``title`` names it. ``params`` are
    only those that differ from what the recipe proposes. ``devices`` and ``rungs`` are the builder's own.
    ``found`` says that it stood in the panel before, as a survey has it.
    """

    id: CircuitId
    recipe: Recipe
    load: LoadId | None = None
    changes: tuple[Change, ...] = ()
    title: str = ""
    params: tuple[Param, ...] = ()
    devices: tuple[OwnDevice, ...] = ()
    rungs: tuple[OwnRung, ...] = ()
    found: bool = False

    def param(self, name: str, default: str) -> str:
        """The value of a parameter."""
        return next((param.value for param in self.params if param.name == name), default)
