"""Devices gathered into what moves as one."""

from dataclasses import replace

from riktig.core.catalogue import Can, Mounting, Part
from riktig.core.job import INCOMER_ID, DeviceId
from riktig.core.plate.model import Block, RailRow
from riktig.core.schematic import BOX_BOND, Circuits, Device, Zone
from riktig.core.sizing import Sizing
from riktig.core.standards import wire_diameter

__all__ = ["END_STOP", "is_bar", "is_plate_stud", "make_blocks"]

END_STOP = 9.5
"""Width of an end stop at each end of a terminal strip (common size, no source)."""
"""Ends the id of the earth stud of the plate."""
BEND_DIAMETERS = 4.0
"""Radius a conductor is bent to, in outside diameters (EN 50565-1, from memory, fairly sure)."""
FIELD_ROOM = 40.0
"""Kept free on the field side of the terminals for the field cables (common practice, no source)."""


def is_bar(device: Device) -> bool:
    """Whether a device is a bar that stands beside the terminals, screwed to the plate."""
    return device.kind.can(Can.EARTH_BAR)


def is_plate_stud(device: Device) -> bool:
    """Whether a device is an earth stud on the plate: the plate's own bond, or one more that the builder added."""
    return device.kind.can(Can.EARTH_STUD) and device.zone is Zone.PLATE and device.role != BOX_BOND


def make_blocks(
    circuits: Circuits, sizing: Sizing, finger_room: float, *, turned: bool = False, supply_above: bool = False
) -> tuple[Block, ...]:
    """All blocks that stand on the plate, in the order of the circuits.

    Args:
        circuits: All devices and rungs of the job.
        sizing: The part of every device.
        finger_room: Least room between a clamp's edge and a duct, mm.
        turned: Whether the field cables come in from above, so that strips stand head down.
        supply_above: Whether only the supply comes in from above: its strip stands head down in the row of the feed.
    """
    blocks: list[Block] = []
    strips: set[str] = set()
    under = {d.under: d for d in circuits.devices if d.under}
    for device in circuits.devices:
        mounting = device.kind.mounting
        part = sizing.parts[device.id]
        if min(part.width, part.height, part.depth) <= 0:
            continue
        if device.strip:
            if device.strip not in strips:
                strips.add(device.strip)
                members = [d for d in circuits.devices if d.strip == device.strip]
                apart = supply_above and device.circuit == INCOMER_ID
                strip = _strip(members, sizing, finger_room, turned or apart)
                blocks.append(replace(strip, row=RailRow.FEED) if apart else strip)
        elif mounting is Mounting.RAIL or (mounting is Mounting.SCREWED and not is_bar(device)):
            below = under.get(device.id)
            blocks.append(_single(device, part, below, sizing, finger_room))
        elif is_bar(device) or is_plate_stud(device):
            blocks.append(_bar(device.id, part))
    return tuple(blocks)


def _single(device: Device, part: Part, under: Device | None, sizing: Sizing, finger_room: float) -> Block:
    half = part.height / 2
    members = [(device.id, part, 0.0, -half)]
    below, room_below, width = half, part.room_bottom, part.width
    bend = _bend(device, part, sizing)
    if under and sizing.parts[under.id].height > 0:
        plugged = sizing.parts[under.id]
        members.append((under.id, plugged, (part.width - plugged.width) / 2, half))
        below, room_below = half + plugged.height, plugged.room_bottom
        width = max(width, plugged.width)
    return Block(
        device.id,
        RailRow[device.kind.row.upper()],
        tuple(members),
        width,
        half,
        below,
        part.room_left,
        part.room_right,
        max(part.room_top, finger_room, bend),
        max(room_below, finger_room, bend),
        part.is_screwed,
    )


def _bend(device: Device, part: Part, sizing: Sizing) -> float:
    """Room for the conductors that land on a part to bend, mm: no more than its thickest would need."""
    if not part.bend:
        return 0.0
    size = sizing.load_of(device.circuit)
    mm2 = size.section.mm2 if size else sizing.feeder.mm2
    return round(min(part.bend, BEND_DIAMETERS * wire_diameter(mm2).value), 1)


def _bar(device: DeviceId, part: Part) -> Block:
    half = part.height / 2
    members = ((device, part, 0.0, -half),)
    return Block(device, RailRow.TERMINALS, members, part.width, half, half, 0.0, 0.0, 0.0, 0.0, screwed=True)


def _strip(members: list[Device], sizing: Sizing, finger_room: float, turned: bool) -> Block:
    x = END_STOP
    placed = []
    for device in members:
        part = sizing.parts[device.id]
        placed.append((device.id, part, x, -part.height / 2))
        x += part.width
    half = max(part.height for _, part, _, _ in placed) / 2
    above, below = (FIELD_ROOM, finger_room) if turned else (finger_room, FIELD_ROOM)
    return Block(
        members[0].id, RailRow.TERMINALS, tuple(placed), x + END_STOP, half, half, 0.0, 0.0, above, below, turned=turned
    )
