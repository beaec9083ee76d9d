"""The looms of the doors: what crosses each hinge, how far each wire runs beyond it, and what stays on the door."""

from collections.abc import Mapping
from dataclasses import dataclass

from riktig.core.door import DoorPlan, Leaf
from riktig.core.geometry import Point
from riktig.core.job import DeviceId, PinRef, Practice
from riktig.core.schematic import DOOR_BONDS, Device, Zone
from riktig.core.wiring.model import Wire, WireEnd, Wiring
from riktig.core.wiring.network_cables import NetworkCable

__all__ = ["Loom", "LoomWire", "looms_of"]


@dataclass(frozen=True, slots=True)
class LoomWire:
    """A wire over the hinge: its end on the plate, its end on the door, and where that is.

    ``along`` is how far from the hinge it leaves the loom, ``beyond`` its length from the hinge to the clamp, mm.
    """

    wire: Wire
    plate_end: WireEnd
    door_end: WireEnd
    at: Point
    along: float
    beyond: float

    @property
    def bonds(self) -> bool:
        """Whether it is the bond of the door."""
        return self.wire.colour == "green-yellow"


@dataclass(frozen=True, slots=True)
class Loom:
    """The loom of one door: over the hinge, those that leave it first come first; and what stays on the door.

    ``turns_at`` is the height at which it crosses, from the datum of the doors, mm.
    """

    leaf: Leaf
    turns_at: float
    over: tuple[LoomWire, ...]
    links: tuple[Wire, ...]
    cables: tuple[NetworkCable, ...]


def looms_of(
    wiring: Wiring, devices: Mapping[DeviceId, Device], door: DoorPlan, practice: Practice
) -> tuple[Loom, ...]:
    """The loom of every door that has wires.

    Args:
        wiring: All wires.
        devices: All devices.
        door: The doors with what is on them.
        practice: The allowance at each end.
    """
    places = _places(devices, door)
    looms: list[Loom] = []
    for leaf in door.leaves:
        leaf_devices = {device for device, (name, _) in places.items() if name == leaf.name}
        turns_at = leaf.face.centre.y
        over: list[LoomWire] = []
        for wire in wiring.wires:
            on = [end for end in (wire.start, wire.end) if end.pin.device in leaf_devices]
            if len(on) != 1 or not wire.via_door:
                continue
            other = wire.end if on[0] is wire.start else wire.start
            at = places[on[0].pin.device][1]
            along = abs(at.x - leaf.hinge_x)
            beyond = along + abs(at.y - turns_at) + practice.end_allowance
            over.append(LoomWire(wire, other, on[0], at, along, beyond))
        over.sort(key=lambda loom_wire: (loom_wire.along, loom_wire.beyond))
        links = tuple(
            w for w in wiring.wires if w.start.pin.device in leaf_devices and w.end.pin.device in leaf_devices
        )
        cables = tuple(c for c in wiring.network if c.inside and _one_on(leaf_devices, c.start, c.end))
        if over or links or cables:
            looms.append(Loom(leaf, turns_at, tuple(over), links, cables))
    return tuple(looms)


def _one_on(own: set[DeviceId], start: PinRef, end: PinRef) -> bool:
    return (start.device in own) != (end.device in own)


def _places(devices: Mapping[DeviceId, Device], door: DoorPlan) -> dict[DeviceId, tuple[str, Point]]:
    """Which door a device is on, and where there."""
    places = {seat.device: (seat.leaf, Point(seat.x, seat.y)) for seat in door.seats}
    for device in devices.values():
        if device.zone is Zone.DOOR and device.id not in places and door.studs:
            bond = DOOR_BONDS.index(device.role) if device.role in DOOR_BONDS else 0
            at = min(bond, len(door.studs) - 1)
            places[device.id] = (door.leaves[at].name, door.studs[at])
    return places
