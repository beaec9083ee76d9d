"""From where blocks stand to where every device is, and what then does not fit."""

from dataclasses import replace

from riktig.core.geometry import Point, Rect
from riktig.core.job import DeviceId
from riktig.core.plate.fit import misfits_about, misfits_of
from riktig.core.plate.model import EDGE, Duct, Layout, PlacedDevice, Rail, Stand
from riktig.core.schematic import BOX_BOND, Device
from riktig.core.sizing import Sizing

__all__ = ["finished", "moved_to", "with_block_at", "with_rails_and_ducts", "with_stands"]

"""Ends the id of the earth stud of the enclosure, which no plan moves."""
STUD_INSET = Point(EDGE + 4, EDGE + 2)
"""Of the enclosure's stud, from the plate's lower left corner (chosen by us)."""


def finished(bare: Layout, devices: tuple[Device, ...], sizing: Sizing) -> Layout:
    """A layout of rails, ducts and stands with the seats of all devices and everything that does not fit.

    Args:
        bare: The layout; its seats and misfits are not read.
        devices: All devices of the job.
        sizing: The part of every device.
    """
    stands = tuple(sorted(bare.stands, key=lambda s: (s.rail == 0, s.rail, s.x, s.block.lead)))
    seats = list(_seats(stands))
    for device in devices:
        if device.role == BOX_BOND:
            part = sizing.parts[device.id]
            y = bare.plate.height - STUD_INSET.y - part.height
            seats.append(PlacedDevice(device.id, part, Rect(STUD_INSET.x, y, part.width, part.height), 0))
    layout = replace(bare, stands=stands, seats=tuple(seats), misfits=())
    return replace(layout, misfits=misfits_of(layout))


def with_stands(layout: Layout, moved: tuple[Stand, ...], *, all_misfits: bool = False) -> Layout:
    """The layout with some blocks elsewhere, as a preview: the same check as the plan's own.

    Args:
        layout: The plate: where everything stands.
        moved: What stands elsewhere now.
        all_misfits: Judge the whole plate anew; otherwise only what has to do with the moved blocks.
    """
    new = {stand.block.lead: stand for stand in moved}
    stands = tuple(new.get(stand.block.lead, stand) for stand in layout.stands)
    fresh = {seat.device: seat for seat in _seats(moved)}
    seats = tuple(fresh.get(seat.device, seat) for seat in layout.seats)
    there = replace(layout, stands=stands, seats=seats)
    return replace(there, misfits=misfits_of(there) if all_misfits else misfits_about(there, frozenset(new)))


def with_rails_and_ducts(layout: Layout, rails: tuple[Rail, ...], ducts: tuple[Duct, ...]) -> Layout:
    """The layout with rails and ducts elsewhere; what stands on a rail goes with it.

    Args:
        layout: The plate: where everything stands.
        rails: The rails to be.
        ducts: The ducts to be.
    """
    old = {rail.number: rail for rail in layout.rails}
    new = {rail.number: rail for rail in rails}
    moved = []
    for stand in layout.stands:
        if stand.rail in old and stand.rail in new:
            dx, dy = new[stand.rail].x1 - old[stand.rail].x1, new[stand.rail].y - old[stand.rail].y
            moved.append(replace(stand, x=round(stand.x + dx, 2), y=round(stand.y + dy, 2)))
    there = replace(layout, rails=rails, ducts=ducts)
    return with_stands(there, tuple(moved), all_misfits=True)


def moved_to(layout: Layout, stand: Stand, rail: int, offset: float) -> Stand:
    """A block on a rail at an offset; one that is screwed keeps to the line of the rail but stands by itself.

    Args:
        layout: The plate: where everything stands.
        stand: The block with its place.
        rail: The number of the rail, from 1 at the top.
        offset: From the left end of the rail, mm.

    Raises:
        KeyError: there is no such rail.
    """
    at = layout.rail(rail)
    if at is None:
        raise KeyError(rail)
    number = 0 if stand.block.screwed else rail
    return Stand(stand.block, number, round(at.x1 + offset, 2), round(at.y - stand.block.above, 2))


def with_block_at(layout: Layout, lead: DeviceId, rail: int, offset: float) -> Layout:
    """The layout with one block elsewhere on the rails, judged whole.

    Args:
        layout: The plate: where everything stands.
        lead: The first device of the block.
        rail: The number of the rail, from 1 at the top.
        offset: From the left end of the rail, mm.
    """
    stand = next(stand for stand in layout.stands if stand.block.lead == lead)
    return with_stands(layout, (moved_to(layout, stand, rail, offset),), all_misfits=True)


def _seats(stands: tuple[Stand, ...]) -> list[PlacedDevice]:
    seats = []
    for stand in stands:
        block = stand.block
        middle = stand.y + block.above
        for device, part, dx, dy in block.members:
            x = block.width - dx - part.width if block.turned else dx
            y = -dy - part.height if block.turned else dy
            rect = Rect(round(stand.x + x, 2), round(middle + y, 2), part.width, part.height)
            seats.append(PlacedDevice(device, part, rect, stand.rail, block.turned, block.raised))
    return seats
