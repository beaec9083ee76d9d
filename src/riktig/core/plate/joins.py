"""Assemblies: parts that a link or a busbar makes one, which stand and move together and need no wire between them."""

from collections.abc import Iterable, Mapping
from dataclasses import replace

from riktig.core.catalogue import Clamp, Part, Side
from riktig.core.errors import RiktigError
from riktig.core.job import DeviceId, Job, Join, JoinHow, PinRef
from riktig.core.plate.model import Block, Layout
from riktig.core.plate.together import side_by_side
from riktig.core.schematic import Device

__all__ = ["bridged_pins", "join_parts", "joined", "separate_parts"]


def joined(blocks: tuple[Block, ...], joins: Iterable[Join]) -> tuple[Block, ...]:
    """The blocks with those of every assembly made one; an assembly that lacks a part is left apart.

    Args:
        blocks: The blocks as they come from the circuits.
        joins: What the builder joined to blocks.
    """
    by_lead = {block.lead: block for block in blocks}
    for join in joins:
        parts = [by_lead[lead] for lead in join.devices if lead in by_lead]
        if len(parts) < len(join.devices):
            continue
        made = _linked(parts) if join.how is JoinHow.LINK else _side_by_side(parts, join.how)
        for block in parts:
            del by_lead[block.lead]
        by_lead[made.lead] = made
    order = {block.lead: n for n, block in enumerate(blocks)}
    return tuple(sorted(by_lead.values(), key=lambda block: order[block.lead]))


def _linked(parts: list[Block]) -> Block:
    """One under the other on the rail of the first, in one line."""
    first = parts[0]
    width = max(block.width for block in parts)
    members: list[tuple[DeviceId, Part, float, float]] = []
    foot = -first.above
    for block in parts:
        for device, part, dx, dy in block.members:
            members.append((device, part, dx + (width - block.width) / 2, dy + foot + block.above))
        foot += block.height
    return replace(
        first,
        members=tuple(members),
        width=width,
        below=foot,
        room_left=max(block.room_left for block in parts),
        room_right=max(block.room_right for block in parts),
        room_below=parts[-1].room_below,
        screwed=any(block.screwed for block in parts),
    )


def _side_by_side(parts: list[Block], how: JoinHow) -> Block:
    """Side by side without gaps; a busbar is screwed to the plate, so there is no rail, a comb goes into the clamps."""
    block = side_by_side(parts, with_room=False)
    return replace(block, screwed=True) if how is JoinHow.BUSBAR else block


def bridged_pins(joins: Iterable[Join], devices: Mapping[DeviceId, Device]) -> dict[PinRef, int]:
    """The power pins that an assembly joins where they are at one potential, by the number of the assembly.

    Args:
        joins: What the builder joined to blocks.
        devices: All devices by their ids.
    """
    places: dict[PinRef, int] = {}
    for number, join in enumerate(joins):
        landed = [devices[lead] for lead in join.devices if lead in devices]
        if len(landed) < len(join.devices):
            continue
        for place, device in enumerate(landed):
            sides = {Side.TOP}
            if join.how is JoinHow.LINK:
                sides = {Side.BOTTOM} if place == 0 else {Side.TOP, Side.BOTTOM}
                sides = {Side.TOP} if place == len(landed) - 1 else sides
            for pin in device.kind.pins:
                if pin.clamp is Clamp.POWER and pin.side in sides:
                    places[PinRef(device.id, pin.name)] = number
    return places


def join_parts(job: Job, layout: Layout, leads: tuple[DeviceId, ...], how: JoinHow) -> Job:
    """Makes parts one assembly.

    Args:
        job: The job; it is not changed.
        layout: The plate: where everything stands.
        leads: The first devices of the blocks.
        how: How they are joined.

    Raises:
        RiktigError: fewer than two, a part that is not on the plate, or one that is in an assembly already.
    """
    if len(leads) < 2:
        raise RiktigError("Choose at least two parts: hold Ctrl and click.")
    stands = [layout.stand_of(lead) for lead in leads]
    if any(stand is None for stand in stands):
        raise RiktigError("A part that does not stand on the plate cannot be joined.")
    taken = {device for join in job.joins for device in join.devices}
    if taken & set(leads):
        raise RiktigError(
            "One of the parts is in an assembly already: nothing was joined.", hint="Take it apart first."
        )
    if any(stand and len(stand.block.members) > 2 for stand in stands):
        raise RiktigError("A strip of terminals cannot be joined to anything.")
    return replace(_forget(job, leads), joins=(*job.joins, Join(leads, how)))


def separate_parts(job: Job, device: DeviceId) -> Job:
    """Takes the assembly apart that a part is in.

    Args:
        job: The job; it is not changed.
        device: Which device.

    Raises:
        RiktigError: it is in none.
    """
    other_joins = tuple(join for join in job.joins if device not in join.devices)
    if len(other_joins) == len(job.joins):
        raise RiktigError("This part is in no assembly.")
    gone = next(join for join in job.joins if device in join.devices)
    return replace(_forget(job, gone.devices), joins=other_joins)


def _forget(job: Job, leads: tuple[DeviceId, ...]) -> Job:
    """The job without the places of some parts but the first: they go where the assembly or the plan has them."""
    if job.plate is None:
        return job
    gone = set(leads[1:])
    plate = replace(
        job.plate,
        placements=tuple(placement for placement in job.plate.placements if placement.device not in gone),
        spots=tuple(spot for spot in job.plate.spots if spot.device not in gone),
    )
    return replace(job, plate=plate)
