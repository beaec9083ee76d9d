"""What stands on the plate and the door: rails, ducts, seats, holes and pieces. All in mm."""

from dataclasses import dataclass
from enum import Enum

from riktig.core.catalogue import Part
from riktig.core.geometry import Point, Rect
from riktig.core.job import DeviceId

__all__ = ["EDGE", "Block", "DoorPlan", "DoorSeat", "Duct", "Hole", "Layout", "Misfit", "Piece", "Rail", "Row", "Seat"]

EDGE = 10.0
"""Kept free along the plate's edge (chosen by us: the fold and the fixing screws)."""


class Row(Enum):
    """Which rail a block belongs on, from the top: feed in, switch, out to the field."""

    FEED = 1
    STARTERS = 2
    TERMINALS = 3


@dataclass(frozen=True, slots=True)
class Seat:
    """A device on the plate: its outline, its part, and its rail (0: screwed or fixed)."""

    device: DeviceId
    part: Part
    rect: Rect
    rail: int

    def pin_point(self, pin: str) -> Point:
        """Where one of its pins is on the plate."""
        at = self.part.pin_point(self.part.kind.pin(pin))
        return Point(self.rect.x + at.x, self.rect.y + at.y)


@dataclass(frozen=True, slots=True)
class Block:
    """What moves as one: a device, a contactor with its overload, a strip with its end stops.

    ``members`` are devices with their place from the block's left edge and the rail's centre.
    """

    lead: DeviceId
    row: Row
    members: tuple[tuple[DeviceId, Part, float, float], ...]
    width: float
    above: float
    below: float
    room_left: float
    room_right: float
    room_above: float
    room_below: float


@dataclass(frozen=True, slots=True)
class Rail:
    """A rail with its piece name, centre line and ends."""

    number: int
    y: float
    x1: float
    x2: float

    @property
    def name(self) -> str:
        """“R1”."""
        return f"R{self.number}"

    @property
    def length(self) -> float:
        """Cut length."""
        return self.x2 - self.x1


@dataclass(frozen=True, slots=True)
class Duct:
    """A duct with its piece number."""

    number: int
    rect: Rect
    upright: bool

    @property
    def name(self) -> str:
        """“D1”."""
        return f"D{self.number}"

    @property
    def length(self) -> float:
        """Cut length."""
        return self.rect.height if self.upright else self.rect.width


@dataclass(frozen=True, slots=True)
class Misfit:
    """A thing that does not fit: by how many mm, and against what."""

    device: DeviceId
    by: float
    against: str
    text: str


@dataclass(frozen=True, slots=True)
class Layout:
    """The plate: its outline, rails, ducts, blocks at their offsets, and what does not fit."""

    plate: Rect
    rails: tuple[Rail, ...]
    ducts: tuple[Duct, ...]
    blocks: tuple[tuple[Block, int, float], ...]
    """(block, rail number, offset of its left edge from the rail's left end)."""
    seats: tuple[Seat, ...]
    misfits: tuple[Misfit, ...]

    def seat(self, device: DeviceId) -> Seat | None:
        """The seat of a device, None when it does not stand on the plate."""
        return next((seat for seat in self.seats if seat.device == device), None)

    def block_of(self, device: DeviceId) -> tuple[Block, int, float] | None:
        """The block that holds a device, its rail and its offset."""
        for block, rail, offset in self.blocks:
            if any(member[0] == device for member in block.members):
                return block, rail, offset
        return None

    def free_on(self, rail: Rail) -> float:
        """Length of a rail that nothing stands on."""
        used = sum(block.width for block, number, _ in self.blocks if number == rail.number)
        return max(rail.length - used, 0.0)


@dataclass(frozen=True, slots=True)
class DoorSeat:
    """An operator on the door: the middle of its hole from the door's datum, and its legend."""

    device: DeviceId
    part: Part
    x: float
    y: float
    hole: float
    legend: str


@dataclass(frozen=True, slots=True)
class DoorPlan:
    """The door: its face, what is on it, and where the nameplate goes."""

    face: Rect
    seats: tuple[DoorSeat, ...]
    nameplate: Rect
    stud: Point
    hinge_x: float
    misfits: tuple[Misfit, ...]


@dataclass(frozen=True, slots=True)
class Hole:
    """A hole: number, face (“plate” or “door”), place from the datum, drill and tap."""

    number: str
    face: str
    x: float
    y: float
    drill: float
    tap: str
    purpose: str
    note: str = ""


@dataclass(frozen=True, slots=True)
class Piece:
    """A piece to cut: its name (marked on it), what it is cut from, and its length."""

    name: str
    stock: str
    length: float
    place: str
