"""Where things stand, once the builder has taken a hand in it. All in mm from the plate's datum."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import DeviceId

__all__ = ["DuctFix", "Join", "JoinHow", "Placement", "PlateFix", "RailFix", "Spot"]


FURTHEST = 10_000.0
"""No plate is larger, and nothing stands further from it, mm (chosen by us)."""
MOST_NUMBER = 500
"""No plate has more rails or ducts (chosen by us)."""


def _see_number(what: str, number: int) -> None:
    if not 1 <= number <= MOST_NUMBER:
        raise ImpossibleValueError(f"there is no {what} number {number}")


def _see_places(what: str, *places: float | None) -> None:
    for place in places:
        if place is not None and not abs(place) <= FURTHEST:  # false for what is no number, too
            raise ImpossibleValueError(f"{what} cannot be placed at {place:g} mm")


@dataclass(frozen=True, slots=True)
class RailFix:
    """A rail (number from 1) with its centre line at ``y``; without ends it runs as the plan has it.

    Raises:
        ValueError: a number or a place that no rail can have.
    """

    number: int
    y: float
    x1: float | None = None
    x2: float | None = None

    def __post_init__(self) -> None:
        _see_number("rail", self.number)
        _see_places(f"rail R{self.number}", self.y, self.x1, self.x2)


@dataclass(frozen=True, slots=True)
class DuctFix:
    """A duct (number from 1): left upper corner, width and height.

    Raises:
        ValueError: a number, a place or a size that no duct can have.
    """

    number: int
    x: float
    y: float
    width: float
    height: float
    upright: bool

    def __post_init__(self) -> None:
        _see_number("duct", self.number)
        _see_places(f"duct D{self.number}", self.x, self.y)
        if not (1 <= self.width <= FURTHEST and 1 <= self.height <= FURTHEST):
            raise ImpossibleValueError(f"a duct of {self.width:g} × {self.height:g} mm cannot be made")


@dataclass(frozen=True, slots=True)
class Placement:
    """A device's left edge on a rail: ``offset`` in mm from the rail's left end.

    Raises:
        ValueError: a rail or a place that cannot be.
    """

    device: DeviceId
    rail: int
    offset: float
    locked: bool = False

    def __post_init__(self) -> None:
        _see_number("rail", self.rail)
        _see_places("a device on its rail", self.offset)


@dataclass(frozen=True, slots=True)
class Spot:
    """A device that is screwed to the plate: the left upper corner of what moves with it.

    Raises:
        ValueError: a place that cannot be.
    """

    device: DeviceId
    x: float
    y: float
    locked: bool = False

    def __post_init__(self) -> None:
        _see_places("a device on the plate", self.x, self.y)


@dataclass(frozen=True, slots=True)
class PlateFix:
    """The plate as the builder left it. What has no place here is planned around it; no ducts: as the rails ask."""

    rails: tuple[RailFix, ...]
    placements: tuple[Placement, ...]
    ducts: tuple[DuctFix, ...] = ()
    spots: tuple[Spot, ...] = ()


class JoinHow(Enum):
    """What makes parts one: a link between breaker and contactor, a busbar below them, a comb in their clamps."""

    LINK = "linked under each other"
    BUSBAR = "side by side on a busbar"
    COMB = "side by side, fed by a comb"


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
