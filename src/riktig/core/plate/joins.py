"""Assemblies: parts that a link or a busbar makes one, which stand and move together and need no wire between them."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace

from riktig.core.catalogue import Clamp, Part, Side
from riktig.core.errors import RiktigError
from riktig.core.job import DeviceId, Job, Join, JoinHow, PinRef
from riktig.core.plate.bar_system import HOLDER_HEIGHT, bar_system, current_into
from riktig.core.plate.comb import Comb
from riktig.core.plate.model import Block, Layout
from riktig.core.plate.together import side_by_side
from riktig.core.schematic import Device
from riktig.core.standards import comb_for

__all__ = ["Assembly", "bridged_pins", "join_parts", "joined", "separate_parts"]


SAME_PLACE_MM = 0.01


@dataclass(frozen=True, slots=True)
class Assembly(Join):
    """Parts that are joined, and at how many potentials."""

    lines: int = 0


def joined(
    blocks: tuple[Block, ...], joins: Iterable[Assembly], *, most_a: float, north_american: bool
) -> tuple[Block, ...]:
    """The blocks with those of every assembly made one; an assembly that lacks a part is left apart.

    Args:
        blocks: The blocks as they come from the circuits.
        joins: What the builder joined to blocks.
        most_a: What the feed of busbars must carry at most, A.
        north_american: Whether the panel is built by UL 508A, which decides what a busbar or a comb carries.
    """
    by_lead = {block.lead: block for block in blocks}
    for join in joins:
        parts = [by_lead[lead] for lead in join.devices if lead in by_lead]
        if len(parts) < len(join.devices):
            continue
        if join.how is JoinHow.LINK:
            made = _linked(parts)
        else:
            made = side_by_side(parts, with_room=False)
        if join.how is JoinHow.BUSBAR:
            made = _on_bars(made, max(join.lines, 1), most_a, north_american=north_american)
        if join.how is JoinHow.COMB:
            amps = current_into([part for device, part, _, _ in made.members if device in join.devices], most_a)
            made = replace(made, comb=Comb(amps, comb_for(amps, north_american=north_american)))
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


def _on_bars(block: Block, lines: int, most_a: float, *, north_american: bool) -> Block:
    """What stands side by side on adapters in front of busbars, whose holders are screwed to the plate: no rail.

    What hangs below a part, as an overload below its contactor does, keeps its place beside it.
    """
    heads = [(device, part) for device, part, x, _ in block.members if _is_head(block, device, x)]
    bars = bar_system(heads, lines=lines, most_a=most_a, north_american=north_american)
    at = {adapter.device: adapter for adapter in bars.adapters}
    members: list[tuple[DeviceId, Part, float, float]] = []
    shift = 0.0
    for device, part, x, y in block.members:
        if device in at:
            shift = at[device].x + (at[device].width - part.width) / 2 - x
        members.append((device, part, x + shift, y))
    half = HOLDER_HEIGHT / 2
    return replace(
        block,
        members=tuple(members),
        width=bars.width,
        above=max(block.above, half),
        below=max(block.below, half),
        screwed=True,
        bars=bars,
    )


def _is_head(block: Block, device: DeviceId, x: float) -> bool:
    """Whether a member is the first at its place from the left: it stands on the adapter, what is below it does not."""
    return next(other for other, _, other_x, _ in block.members if abs(other_x - x) < SAME_PLACE_MM) == device


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
