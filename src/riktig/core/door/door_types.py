"""What the plate must know of the door in front of it: where it is, and what reaches back from it. All in mm."""

from dataclasses import dataclass, replace
from math import hypot

from riktig.core.catalogue import Can, Part
from riktig.core.geometry import Point, Rect
from riktig.core.job import DeviceId, Enclosure, HingeSide, Surface
from riktig.core.job.enclosure import DOOR_FOLD_MM
from riktig.core.plate.model import Misfit

__all__ = [
    "HANDLE",
    "LEGEND_PLATE",
    "NAMEPLATE",
    "WIRING_DEPTH",
    "DoorPlan",
    "Leaf",
    "PlacedOperator",
    "diagonal",
    "leaf_at",
    "leaves_of",
    "to_door",
    "to_plate",
]

HANDLE = 66.0
"""Side of the handle's plate on the door (chosen by us; part data will refine it)."""
LEGEND_PLATE = (50.0, 12.0)
"""Of the strip with an operator's legend above it (chosen by us: a common print medium, no source)."""
NAMEPLATE = (100.0, 60.0)
"""Width and height of the nameplate, mm (chosen by us: a common size)."""
LEGEND_LIFT = 17.0
"""From the middle of an operator to the lower edge of its legend plate (chosen by us: half a 30 mm head and a gap)."""
BELOW_MIDDLE = 18.0
"""What an operator takes below its middle, nut and all (chosen by us)."""
MUSHROOM = 60.0
"""Diameter of the yellow plate under a mushroom head (common size, no source)."""
WIRING_DEPTH = 30.0
"""Behind a contact block for its wires (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Leaf:
    """One door: what it is called, its face from the left door's datum, and where its hinge is, same datum."""

    name: str
    face: Rect
    hinge_x: float

    @property
    def hinged_right(self) -> bool:
        """Whether it turns about its right edge, seen from the front."""
        return self.hinge_x > self.face.centre.x

    def from_pivot(self, x: float) -> float:
        """How far a place is from the line the door turns about, which is the box's outer edge."""
        return abs(x - self.hinge_x) + DOOR_FOLD_MM


@dataclass(frozen=True, slots=True)
class PlacedOperator:
    """An operator on the door: the middle of its hole from the (left) door's datum, and its legend.

    ``hole`` is its diameter, 0 for what sits in a cut-out; ``leaf`` the door it is on; ``group`` the circuit it
    belongs to; ``depth`` how far it reaches behind the door, without wires.
    """

    device: DeviceId
    part: Part
    x: float
    y: float
    hole: float
    legend: str
    leaf: str = Surface.DOOR.value
    group: str = ""
    depth: float = 0.0
    locked: bool = False

    @property
    def is_shaft(self) -> bool:
        """Whether it is the handle of an isolator, whose place the plate decides."""
        return self.part.kind.can(Can.MAIN_SWITCH)

    @property
    def cut(self) -> Rect | None:
        """The cut-out it sits in, None for one in a round hole."""
        rim = self.part.kind.cut_out_rim
        if not rim:
            return None
        width, height = self.part.width - 2 * rim, self.part.height - 2 * rim
        return Rect(self.x - width / 2, self.y - height / 2, width, height)

    @property
    def legend_plate(self) -> Rect | None:
        """Where its legend plate is, None when it has none."""
        if not self.legend or self.cut:
            return None
        width, height = LEGEND_PLATE
        lift = HANDLE / 2 + 2 if self.is_shaft else MUSHROOM / 2 + 2 if self.is_mushroom else LEGEND_LIFT
        return Rect(self.x - width / 2, self.y - lift - height, width, height)

    @property
    def is_mushroom(self) -> bool:
        """Whether it is struck with the hand."""
        return self.part.kind.can(Can.MUSHROOM)

    @property
    def body(self) -> Rect:
        """What it takes on the front of the door, legend and all."""
        if self.is_shaft:
            head = _centred(self.x, self.y, HANDLE, HANDLE)
        elif self.is_mushroom:
            head = _centred(self.x, self.y, MUSHROOM, MUSHROOM)
        elif self.cut:
            return _centred(self.x, self.y, self.part.width, self.part.height)
        else:
            wide = max(self.part.width, 30.0)
            head = Rect(self.x - wide / 2, self.y - BELOW_MIDDLE, wide, 2 * BELOW_MIDDLE)
        plate = self.legend_plate
        if plate is None:
            return head
        left, top = min(head.x, plate.x), min(head.y, plate.y)
        return Rect(left, top, max(head.right, plate.right) - left, max(head.bottom, plate.bottom) - top)

    @property
    def behind(self) -> Rect:
        """What it takes behind the door, seen from the front."""
        return _centred(self.x, self.y, self.part.width, self.part.height)

    def at(self, x: float, y: float) -> "PlacedOperator":
        """The same elsewhere."""
        return replace(self, x=round(x, 1), y=round(y, 1))


@dataclass(frozen=True, slots=True)
class DoorPlan:
    """The door or doors: their faces, what is on them, where the nameplate and the bonds go, what does not fit.

    Everything is measured from the left door's datum; ``face`` holds all doors.
    """

    face: Rect
    leaves: tuple[Leaf, ...]
    seats: tuple[PlacedOperator, ...]
    nameplate: Rect
    studs: tuple[Point, ...]
    misfits: tuple[Misfit, ...]

    @property
    def hinge_x(self) -> float:
        """Where the loom crosses: the hinge of the door with the most operators."""
        counted = {leaf.name: sum(seat.leaf == leaf.name for seat in self.seats) for leaf in self.leaves}
        return max(self.leaves, key=lambda leaf: counted[leaf.name]).hinge_x

    def leaf(self, name: str) -> Leaf:
        """The door of that name.

        Raises:
            KeyError: there is none.
        """
        for leaf in self.leaves:
            if leaf.name == name:
                return leaf
        raise KeyError(name)

    def leaf_at(self, x: float) -> Leaf:
        """The door a place is on, or the nearest."""
        return leaf_at(self.leaves, x)

    def seat(self, device: DeviceId) -> PlacedOperator | None:
        """Where a device is on the door."""
        return next((seat for seat in self.seats if seat.device == device), None)

    def from_behind(self) -> "DoorPlan":
        """The same door as one sees it when it stands open: left and right changed over."""
        wide = self.face.width

        def turned(rect: Rect) -> Rect:
            return Rect(round(wide - rect.right, 4), rect.y, rect.width, rect.height)

        return replace(
            self,
            leaves=tuple(
                replace(leaf, face=turned(leaf.face), hinge_x=round(wide - leaf.hinge_x, 4)) for leaf in self.leaves
            ),
            seats=tuple(replace(seat, x=round(wide - seat.x, 4)) for seat in self.seats),
            nameplate=turned(self.nameplate),
            studs=tuple(Point(round(wide - stud.x, 4), stud.y) for stud in self.studs),
        )


def _centred(x: float, y: float, width: float, height: float) -> Rect:
    return Rect(x - width / 2, y - height / 2, width, height)


def leaves_of(enclosure: Enclosure) -> tuple[Leaf, ...]:
    """The doors of a box: one, or two that open to both sides."""
    width, height = enclosure.door_width, enclosure.door_height
    if enclosure.doors == 1:
        right = enclosure.hinge is HingeSide.RIGHT
        return (Leaf(Surface.DOOR.value, Rect(0, 0, width, height), width if right else 0.0),)
    half = max(enclosure.width / 2 - 2 * DOOR_FOLD_MM, 1.0)
    left = Leaf(Surface.LEFT_DOOR.value, Rect(0, 0, half, height), 0.0)
    return (left, Leaf(Surface.RIGHT_DOOR.value, Rect(width - half, 0, half, height), width))


def leaf_at(leaves: tuple[Leaf, ...], x: float) -> Leaf:
    """The door a place across all doors is on, or the nearest.

    Args:
        leaves: The doors.
        x: From the datum to the right, mm.
    """
    return min(leaves, key=lambda leaf: abs(x - leaf.face.centre.x) - leaf.face.width / 2)


def to_door(point: Point, enclosure: Enclosure) -> Point:
    """A point of the plate, projected square onto the door, from the door's datum.

    Both datums are measured from the box's upper left corner, so the way goes plate, box, door.

    Args:
        point: A place, mm from the datum.
        enclosure: The enclosure.
    """
    (px, py), (dx, dy) = enclosure.plate_datum, enclosure.door_datum
    return Point(round(point.x + px - dx, 1), round(point.y + py - dy, 1))


def to_plate(point: Point, enclosure: Enclosure) -> Point:
    """A point of the door, projected square onto the plate, from the plate's datum.

    Args:
        point: A place, mm from the datum.
        enclosure: The enclosure.
    """
    origin = to_door(Point(0, 0), enclosure)
    return Point(round(point.x - origin.x, 1), round(point.y - origin.y, 1))


def diagonal(width: float, height: float) -> float:
    """Both diagonals of a square cut-out: when they differ it is out of square.

    Args:
        width: Outer width, mm.
        height: Outer height, mm.
    """
    return hypot(width, height)
