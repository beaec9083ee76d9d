"""Where every pin of the panel is for somebody who stands before it with two probes."""

from collections.abc import Mapping

from riktig.core.door import DoorPlan
from riktig.core.geometry import Point
from riktig.core.ids import DeviceId, PinRef
from riktig.core.plate import Layout
from riktig.core.schematic import DOOR_BONDS, Circuits, Zone

__all__ = ["pin_places"]

DOOR_MM = 800.0
"""From the plate's edge to a door that stands open, mm (chosen by us)."""


def pin_places(circuits: Circuits, layout: Layout, door: DoorPlan) -> Mapping[PinRef, Point]:
    """The place of every pin inside the panel, mm from the plate's datum.

    Doors stand open to the right of the plate, and are seen from behind.

    Args:
        circuits: All devices and rungs of the job.
        layout: The plate: where everything stands.
        door: The doors with their operators.
    """
    seats = {seat.device: seat for seat in layout.seats}
    behind = door.from_behind()
    on_door: dict[DeviceId, Point] = {seat.device: Point(seat.x, seat.y) for seat in behind.seats}
    shift = layout.plate.right + DOOR_MM
    places: dict[PinRef, Point] = {}
    for device in circuits.devices:
        if device.zone is Zone.FIELD:
            continue
        seat = seats.get(device.id)
        at = on_door.get(device.id)
        if at is None and device.role in DOOR_BONDS and behind.studs:
            at = behind.studs[min(DOOR_BONDS.index(device.role), len(behind.studs) - 1)]
        if seat is not None:
            places.update((PinRef(device.id, pin.name), seat.pin_point(pin.name)) for pin in seat.part.kind.pins)
        elif at is not None:
            places.update((device.pin(pin.name), Point(shift + at.x, at.y)) for pin in device.kind.pins)
    return places
