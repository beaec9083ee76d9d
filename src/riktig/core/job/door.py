"""The door as the builder left it, and openings of his own. All in mm."""

import math
from dataclasses import dataclass
from enum import Enum

from riktig.core.errors import ImpossibleValueError
from riktig.core.ids import DeviceId

__all__ = ["DoorFix", "DoorPlace", "Opening", "Surface"]


class Surface(Enum):
    """What holes are made in.

    Every surface has its datum in the upper left corner, seen from outside; the mounting plate is seen from the door, a
    gland plate from inside with its front edge below.
    """

    PLATE = "plate"
    DOOR = "door"
    LEFT_DOOR = "left door"
    RIGHT_DOOR = "right door"
    GLAND = "gland plate"
    TOP_GLAND = "top gland plate"
    LEFT_SIDE = "left side"
    RIGHT_SIDE = "right side"


@dataclass(frozen=True, slots=True)
class DoorPlace:
    """The middle of an operator's hole, from the upper left corner of the (left) door, seen from the front.

    Raises:
        ValueError: a place that cannot be.
    """

    device: DeviceId
    x: float
    y: float
    locked: bool = False

    def __post_init__(self) -> None:
        if not (abs(self.x) <= 10_000 and abs(self.y) <= 10_000):
            raise ImpossibleValueError(f"an operator cannot be placed at {self.x:g}, {self.y:g} mm")


@dataclass(frozen=True, slots=True)
class DoorFix:
    """The door as the builder left it. What has no place here is planned around it."""

    places: tuple[DoorPlace, ...]


@dataclass(frozen=True, slots=True)
class Opening:
    """A hole of the builder's own: its middle from the surface's datum, and what is fitted in it.

    ``height`` 0 is a round hole of ``width``. ``rating`` is the class of what is fitted, such as “IP65”.

    Raises:
        ValueError: nothing said of what it is for, or a size that cannot be.
    """

    surface: Surface
    x: float
    y: float
    width: float
    height: float
    purpose: str
    rating: str

    def __post_init__(self) -> None:
        if not self.purpose.strip():
            raise ImpossibleValueError("an opening needs words for what it is for")
        if not (math.isfinite(self.width) and 0.5 <= self.width <= 2000 and 0 <= self.height <= 2000):
            raise ImpossibleValueError(f"an opening of {self.width:g} × {self.height:g} mm cannot be made")
        if not (abs(self.x) <= 10_000 and abs(self.y) <= 10_000):  # false for what is no number, too
            raise ImpossibleValueError("an opening needs a place on its surface")
