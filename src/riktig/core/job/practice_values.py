"""The values of the choices where practice differs. The words are those shown to the builder."""

from enum import Enum

__all__ = [
    "Batching",
    "Colours",
    "ControlTap",
    "DoorOrder",
    "EarthScheme",
    "Fixing",
    "MarkerText",
    "OverloadContact",
    "Rulebook",
    "RunLamp",
    "ShaftFitting",
]


class Rulebook(Enum):
    """The rule set that every check follows."""

    IEC = "IEC 60204-1 and IEC 61439"


class Colours(Enum):
    """Conductor colours."""

    RULEBOOK = "power black, control red, neutral light blue"
    THREE_PHASE = "phases brown, black and grey, control red, neutral light blue"


class EarthScheme(Enum):
    """Where the protective conductor of an outgoing circuit lands."""

    BESIDE = "a terminal beside its circuit"
    BAR = "the common earth bar"


class OverloadContact(Enum):
    """Where the overload's opening contact sits in the control path."""

    FIRST = "first, before the stop button"
    RETURN = "on the return side of the coil"


class RunLamp(Enum):
    """What lights the run lamp."""

    AUXILIARY = "an auxiliary contact of the contactor"
    COIL = "the coil's own supply"


class ControlTap(Enum):
    """Where the control supply is taken."""

    BEFORE = "ahead of the motor breaker"
    AFTER = "behind the motor breaker"


class MarkerText(Enum):
    """What a wire marker says."""

    NUMBER = "the number"
    NUMBER_AND_FAR_END = "the number and the far end"


class Fixing(Enum):
    """How rail and duct are fixed to the plate."""

    TAPPED = "drilled and tapped"
    SELF_DRILLING = "self-drilling screws"


class Batching(Enum):
    """To what length the wires of a batch are cut."""

    LONGEST = "to the longest of the batch, trimmed on fitting"
    EXACT = "each to its own length"


class DoorOrder(Enum):
    """When the door is wired."""

    LAST = "after the plate"
    FIRST = "before the plate"


class ShaftFitting(Enum):
    """Where the hole for the isolator's shaft is cut."""

    WORKSHOP = "in the workshop, from the measured centre"
    SITE = "on site, once the panel hangs"
