"""What stands on the plate: rails, ducts, seats and pieces. All in mm."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import Enum

from riktig.core.catalogue import Part, Pin, Side
from riktig.core.geometry import Point, Rect
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, DuctKey, Key, RailKey
from riktig.core.plate.bar_system import RAISED, BarSystem
from riktig.core.plate.comb import Comb
from riktig.core.schematic import by_tags

__all__ = [
    "DUCT_DEPTH",
    "EDGE",
    "Block",
    "Duct",
    "Layout",
    "Misfit",
    "Piece",
    "PlacedDevice",
    "Rail",
    "RailRow",
    "Stand",
]

DUCT_DEPTH = 60.0
"""Of a duct with its lid, from the plate (chosen by us: a common size)."""
EDGE = 10.0
"""Kept free along the plate's edge (chosen by us: the fold and the fixing screws)."""


class RailRow(Enum):
    """Which rail a block belongs on, from the top: feed in, switch, out to the field."""

    FEED = 1
    STARTERS = 2
    TERMINALS = 3


@dataclass(frozen=True, slots=True)
class PlacedDevice:
    """A device on the plate: its outline, its part, and its rail (0: screwed or fixed).

    ``turned`` stands head down, as a strip of terminals does whose cables come in from above; ``raised`` is how much
    farther from the plate it stands than on a rail, mm.
    """

    device: DeviceId
    part: Part
    rect: Rect
    rail: int
    turned: bool = False
    raised: float = 0.0

    @property
    def depth(self) -> float:
        """From the plate's face to its front, mm."""
        return self.part.depth + self.raised

    def pin_point(self, pin: str) -> Point:
        """Where one of its pins is on the plate."""
        at = self.part.pin_point(self.part.kind.pin(pin))
        if self.turned:
            return Point(self.rect.right - at.x, self.rect.bottom - at.y)
        return Point(self.rect.x + at.x, self.rect.y + at.y)

    def side_of(self, pin: Pin) -> Side:
        """The side of the plate a pin looks to."""
        if not self.turned:
            return pin.side
        return Side.BOTTOM if pin.side is Side.TOP else Side.TOP


@dataclass(frozen=True, slots=True)
class Block:
    """What moves as one: a device, a contactor with its overload, a strip with its end stops.

    ``members`` are devices with their place from the block's left edge and the rail's centre. What is
    ``screwed`` needs no rail; ``turned`` stands head down. ``bars`` is what its parts stand on where they are fed by
    busbars, ``comb`` what joins their inlets where it is a comb.
    """

    lead: DeviceId
    row: RailRow
    members: tuple[tuple[DeviceId, Part, float, float], ...]
    width: float
    above: float
    below: float
    room_left: float
    room_right: float
    room_above: float
    room_below: float
    screwed: bool = False
    turned: bool = False
    bars: BarSystem | None = None
    comb: Comb | None = None

    @property
    def raised(self) -> float:
        """How much farther from the plate its parts stand than on a rail, mm."""
        return RAISED if self.bars else 0.0

    @property
    def height(self) -> float:
        """Of its whole outline, mm."""
        return self.above + self.below

    @property
    def depth(self) -> float:
        """From the plate's face to the front of its deepest part, mm."""
        return max(part.depth for _, part, _, _ in self.members) + self.raised

    @property
    def devices(self) -> tuple[DeviceId, ...]:
        """What moves with it."""
        return tuple(device for device, _, _, _ in self.members)


@dataclass(frozen=True, slots=True)
class Stand:
    """Where a block stands: its rail (0: screwed to the plate) and the left upper corner of its outline."""

    block: Block
    rail: int
    x: float
    y: float

    @property
    def body(self) -> Rect:
        """Its outline on the plate."""
        return Rect(self.x, self.y, self.block.width, self.block.height)


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
    """A thing that does not fit: by how many mm, and against what.

    ``device`` is the lead of a block, or the name of a rail or duct, which ``piece`` then is the key of; ids in
    braces in ``text`` are for ``by_tags``.
    """

    device: DeviceId
    by: float
    against: str
    text: str
    piece: RailKey | DuctKey | None = None

    @property
    def key(self) -> Key:
        """What to select to see it."""
        return self.piece or DeviceKey(self.device)

    def said(self, tags: Mapping[DeviceId, str]) -> str:
        """The whole sentence without its full stop, devices by their tags."""
        return by_tags(f"{{{self.device}}} {self.text}", tags)


@dataclass(frozen=True, slots=True)
class Layout:
    """The plate: its outline, rails, ducts, where blocks and devices stand, and what does not fit.

    ``depth`` is from the plate's face to the inside of the door, mm.
    """

    plate: Rect
    depth: float
    rails: tuple[Rail, ...]
    ducts: tuple[Duct, ...]
    stands: tuple[Stand, ...]
    seats: tuple[PlacedDevice, ...]
    misfits: tuple[Misfit, ...]
    _seat_of: Mapping[DeviceId, PlacedDevice] = field(init=False, repr=False, compare=False)
    _stand_of: Mapping[DeviceId, Stand] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        seats = {seat.device: seat for seat in reversed(self.seats)}
        object.__setattr__(self, "_seat_of", seats)
        stands = {device: stand for stand in reversed(self.stands) for device in stand.block.devices}
        object.__setattr__(self, "_stand_of", stands)

    @property
    def blocks(self) -> tuple[tuple[Block, int, float], ...]:
        """What stands on rails: (block, rail number, offset of its left edge from the rail's left end)."""
        left = {rail.number: rail.x1 for rail in self.rails}
        return tuple((s.block, s.rail, round(s.x - left[s.rail], 2)) for s in self.stands if s.rail)

    def rail(self, number: int) -> Rail | None:
        """The rail of that number."""
        return next((rail for rail in self.rails if rail.number == number), None)

    def duct(self, name: str) -> Duct | None:
        """The duct of that name."""
        return next((duct for duct in self.ducts if duct.name == name), None)

    def stand_of(self, device: DeviceId) -> Stand | None:
        """Where the block that holds a device stands."""
        return self._stand_of.get(device)

    def seat(self, device: DeviceId) -> PlacedDevice | None:
        """The seat of a device, None when it does not stand on the plate."""
        return self._seat_of.get(device)

    def block_of(self, device: DeviceId) -> tuple[Block, int, float] | None:
        """The block that holds a device, its rail and its offset; None if it stands on no rail."""
        stand = self.stand_of(device)
        rail = self.rail(stand.rail) if stand else None
        return (stand.block, stand.rail, round(stand.x - rail.x1, 2)) if stand and rail else None

    def free_on(self, rail: Rail) -> float:
        """Length of a rail that nothing stands on."""
        return max(rail.length - sum(s.block.width for s in self.stands if s.rail == rail.number), 0.0)


@dataclass(frozen=True, slots=True)
class Piece:
    """A piece to cut: its name (marked on it), what it is cut from, and its length."""

    name: str
    stock: str
    length: float
    place: str
