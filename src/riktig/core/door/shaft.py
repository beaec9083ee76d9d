"""The isolator's shaft: where it meets the door, how long it is cut, and how much a wall may be out of square."""

from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.door.door_types import leaf_at, leaves_of, to_door
from riktig.core.geometry import Point
from riktig.core.job import DeviceId, Enclosure, Practice
from riktig.core.plate import Layout
from riktig.core.schematic import Circuits
from riktig.core.standards import Why

__all__ = ["Engagement", "Shaft", "engagement_of", "shafts_of"]


@dataclass(frozen=True, slots=True)
class Shaft:
    """A shaft: its centre on the plate and on the door, each from its datum, and the length to cut, mm.

    ``inside`` is how far it goes into the switch; ``free`` what stands between switch and handle, over which a lean
    tells; ``leaf`` the door it goes through, from whose own datum ``on_leaf`` is measured.
    """

    device: DeviceId
    on_plate: Point
    on_door: Point
    leaf: str
    on_leaf: Point
    free: float
    length: float
    inside: float
    inner_handle: bool
    why: Why


@dataclass(frozen=True, slots=True)
class Engagement:
    """By how much the handle misses the shaft: from the wall, from the measured centre, both at worst; mm.

    ``most_skew`` is the wall out of square, mm/m, that the handle would just take.
    """

    by_wall: float
    by_centre: float
    tolerance: float
    most_skew: float

    @property
    def misses(self) -> float:
        """How far the shaft stands from the handle's middle, at worst."""
        return self.by_wall + self.by_centre

    @property
    def engages(self) -> bool:
        """Whether the handle takes it."""
        return self.misses <= self.tolerance + 1e-9

    @property
    def said(self) -> str:
        """In one sentence."""
        head = f"The handle misses by {self.misses:.1f} mm at worst; it takes {self.tolerance:g} mm"
        if self.engages:
            return f"{head}, which is a wall {self.most_skew:.0f} mm/m out of square."
        return f"{head}: shim the panel square, or cut the hole on site."


def shafts_of(circuits: Circuits, layout: Layout, enclosure: Enclosure, practice: Practice) -> tuple[Shaft, ...]:
    """The shaft of every isolator that is worked from the door.

    Args:
        circuits: All devices and rungs of the job.
        layout: The plate: where everything stands.
        enclosure: The enclosure.
        practice: The practice of the job.
    """
    shafts = []
    (px, py), (dx, dy) = enclosure.plate_datum, enclosure.door_datum
    for device in circuits.devices:
        seat = layout.seat(device.id)
        if not device.kind.can(Can.MAIN_SWITCH) or seat is None:
            continue
        centre = seat.rect.centre
        at = to_door(centre, enclosure)
        leaf = leaf_at(leaves_of(enclosure), at.x)
        free = enclosure.plate_depth - seat.depth
        sheet, inner, outer = enclosure.door_thickness, practice.shaft_in_switch, practice.shaft_in_handle
        length = max(round(free + sheet + inner + outer, 1), 0.0)
        why = Why(
            "Shaft of the isolator",
            "The centre goes from the plate over the box to the door, through the datums of both; the shaft bridges "
            "what is between switch and handle.",
            (
                f"across {centre.x:g} + {px:g} − {dx:g} = {at.x:g} mm",
                f"down {centre.y:g} + {py:g} − {dy:g} = {at.y:g} mm",
                f"between switch and door {enclosure.plate_depth:g} − {seat.depth:g} = {free:g} mm",
                f"length {free:g} + door {sheet:g} + in the switch {inner:g} + in the handle {outer:g} = {length:g} mm",
            ),
        )
        on_leaf = Point(round(at.x - leaf.face.x, 1), at.y)
        inside = device.kind.can(Can.HANDLE_INSIDE)
        shafts.append(Shaft(device.id, centre, at, leaf.name, on_leaf, free + sheet, length, inner, inside, why))
    return tuple(shafts)


def engagement_of(shaft: Shaft, practice: Practice, skew: float | None = None, off: float = 0.0) -> Engagement:
    """By how much the handle misses.

    The box goes with the wall, its door does not: the shaft leans by so many mm a metre over the length between
    switch and handle. A measured centre that is off adds to that, at worst in the same direction.

    Args:
        shaft: The shaft.
        practice: The practice of the job.
        skew: The wall out of square, mm/m; None: what the practice reckons with.
        off: How far the centre was measured from where it was computed, mm.
    """
    lean = practice.wall_skew if skew is None else skew
    left = max(practice.handle_tolerance - abs(off), 0.0)
    return Engagement(
        max(shaft.free, 0.0) * lean / 1000.0,
        abs(off),
        practice.handle_tolerance,
        left / shaft.free * 1000.0 if shaft.free > 0 else 0.0,
    )
