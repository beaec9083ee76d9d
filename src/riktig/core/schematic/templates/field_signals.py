"""What a signal of the Brief is to the controller: a value read or given, a device switched, a sensor of light."""

from collections.abc import Sequence

from riktig.core.job import CircuitId, Direction, Form, Load, Signal, Start, Wetting

__all__ = ["is_switched", "is_value_given", "is_value_read", "sees_light"]

LIGHT = ("photo", "light barrier", "light curtain", "light beam", "retro-reflective", "through-beam")
"""Words in the name of a sensor that say that it feels light."""


def is_value_read(signal: Signal) -> bool:
    """Whether the controller reads a value from a device in the field that the panel's 24 V feeds."""
    return signal.wetting is Wetting.DC and signal.direction is Direction.INTO and signal.form is Form.ANALOGUE


def is_value_given(signal: Signal, loads: Sequence[tuple[CircuitId, Load]]) -> bool:
    """Whether the controller gives a value to a device in the field; a drive's speed goes from card to drive."""
    driven = any(load.id == signal.load and load.start is Start.DRIVE for _, load in loads)
    value = signal.wetting is Wetting.DC and signal.direction is Direction.OUT and signal.form is Form.ANALOGUE
    return value and not driven


def sees_light(signal: Signal) -> bool:
    """Whether the name of a field device says that it feels a beam of light: then it is drawn as a photocell."""
    return any(word in signal.name.lower() for word in LIGHT)


def is_switched(signal: Signal) -> bool:
    """Whether the controller switches a device in the field that the control supply feeds: by a relay."""
    return signal.wetting is Wetting.CONTROL and signal.direction is Direction.OUT and signal.form is Form.DIGITAL
