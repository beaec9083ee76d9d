"""A field cable as the builder planned it: which things share it, how its cores are called, what is bought."""

from dataclasses import dataclass

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import DeviceId

__all__ = ["MOST_CORES", "OwnCable"]

MOST_CORES = 61
"""Of a control cable (common size, from memory)."""


@dataclass(frozen=True, slots=True)
class OwnCable:
    """The cable to one thing in the field, or to several that share it: it is called after the first.

    ``cores`` are pins in the field by their text form with the core that lands there, “c4.B.stop:1” with “3”; what is
    not named has the next free number. ``bought`` is how many cores it has as it is bought, 0: what is sold for those
    that are used.

    Raises:
        ValueError: no device or one twice, a pin or a core twice, or more cores than a cable has.
    """

    devices: tuple[DeviceId, ...]
    cores: tuple[tuple[str, str], ...] = ()
    bought: int = 0

    def __post_init__(self) -> None:
        if not self.devices or len(set(self.devices)) != len(self.devices):
            raise ImpossibleValueError("a cable goes nowhere, or to one device twice")
        pins, names = [pin for pin, _ in self.cores], [name for _, name in self.cores]
        if len(set(pins)) != len(pins) or len(set(names)) != len(names) or not all(names):
            raise ImpossibleValueError("a core of a cable is named twice, or not at all")
        if not 0 <= self.bought <= MOST_CORES:
            raise ImpossibleValueError(f"a cable has up to {MOST_CORES} cores, not {self.bought}")
