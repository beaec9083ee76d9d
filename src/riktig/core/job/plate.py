"""Where things stand, once the builder has taken a hand in it. All in mm from the plate's datum."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import DeviceId

__all__ = ["DuctFix", "Join", "JoinHow", "Placement", "PlateFix", "RailFix", "Spot"]


@dataclass(frozen=True, slots=True)
class RailFix:
    """A rail (number from 1) with its centre line at ``y``; without ends it runs as the plan has it."""

    number: int
    y: float
    x1: float | None = None
    x2: float | None = None


@dataclass(frozen=True, slots=True)
class DuctFix:
    """A duct (number from 1): left upper corner, width and height."""

    number: int
    x: float
    y: float
    width: float
    height: float
    upright: bool


@dataclass(frozen=True, slots=True)
class Placement:
    """A device's left edge on a rail: ``offset`` in mm from the rail's left end."""

    device: DeviceId
    rail: int
    offset: float
    locked: bool = False


@dataclass(frozen=True, slots=True)
class Spot:
    """A device that is screwed to the plate: the left upper corner of what moves with it."""

    device: DeviceId
    x: float
    y: float
    locked: bool = False


@dataclass(frozen=True, slots=True)
class PlateFix:
    """The plate as the builder left it. What has no place here is planned around it; no ducts: as the rails ask."""

    rails: tuple[RailFix, ...]
    placements: tuple[Placement, ...]
    ducts: tuple[DuctFix, ...] = ()
    spots: tuple[Spot, ...] = ()


class JoinHow(Enum):
    """What makes several parts one: a link module between breaker and contactor, or a busbar they sit on."""

    LINK = "linked under each other"
    BUSBAR = "side by side on a busbar"


@dataclass(frozen=True, slots=True)
class Join:
    """Parts that stand and move as one, the upper or left one first, and need no wire where they are joined.

    Raises:
        ValueError: fewer than two, or one of them twice.
    """

    devices: tuple[DeviceId, ...]
    how: JoinHow

    def __post_init__(self) -> None:
        if len(set(self.devices)) != len(self.devices) or len(self.devices) < 2:
            raise ImpossibleValueError("an assembly needs at least two different parts")
