"""The answers about a load that are a choice. The words are those shown to the builder."""

from enum import Enum

__all__ = [
    "REVERSING_ONCE",
    "Access",
    "CableLaying",
    "Command",
    "Duty",
    "Fitting",
    "Isolation",
    "LoadKind",
    "Protection",
    "Start",
]


REVERSING_ONCE = "direct-on-line, both ways"
"""What a reversing starter was called in a job up to format 2."""


class LoadKind(Enum):
    """What the load is."""

    MOTOR = "motor"
    HEATER = "heater"
    LIGHTING = "lighting"
    SOCKETS = "socket outlets"
    OTHER = "other load"


class Start(Enum):
    """How a load is started."""

    DIRECT = "direct-on-line"
    REVERSING = "direct-on-line, reversing"
    STAR_DELTA = "star-delta"
    SOFT = "by a soft starter"
    DRIVE = "by a drive"
    CONTACTOR = "by a contactor"
    WAY = "from its own breaker only"

    @classmethod
    def _missing_(cls, value: object) -> "Start | None":
        return cls.REVERSING if value == REVERSING_ONCE else None


class Command(Enum):
    """How a load is commanded, and from where."""

    BUTTONS = "start and stop on the door"
    BOTH_WAYS = "forward, reverse and stop on the door"
    SELECTOR = "a hand–off–auto selector on the door"
    LEVEL = "level floats, with hand–off–auto on the door"
    STATION = "a push-button station in the field"
    CONTROLLER = "the controller"
    ALWAYS = "nothing: it is always on"


class Isolation(Enum):
    """Where one load alone is cut off for work on it."""

    STARTER = "a padlock at its starter"
    LOCAL = "an isolator beside it"
    MAIN = "the main switch only"


class Duty(Enum):
    """How hard the load is on its contactor."""

    NORMAL = "runs through"
    INCHING = "is inched or plugged"


class Protection(Enum):
    """What guards a motor's circuit."""

    BREAKER = "a breaker and an overload relay"
    PROTECTOR = "a motor protector"
    FUSES = "fuses and an overload relay"


class Access(Enum):
    """Who may move the control."""

    ANYONE = "anyone"
    KEY = "the key holder only"


class CableLaying(Enum):
    """How the cable to a load lies outside the panel, which decides what it carries."""

    WALL = "on a wall or an open tray"
    CONDUIT = "in conduit or a closed duct"
    PERFORATED = "on a perforated tray in free air"


class Fitting(Enum):
    """Where the load's part of the work is done."""

    WORKSHOP = "in the workshop"
    SITE = "on site"
