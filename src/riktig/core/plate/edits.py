"""Edits of the plate: each gives the changed job. The first one fixes everything where it stands."""

from collections.abc import Iterable
from dataclasses import replace

from riktig.core.errors import RiktigError
from riktig.core.job import DeviceId, DuctFix, Job, Placement, PlateFix, RailFix, Spot
from riktig.core.plate.model import Duct, Layout, Rail, Stand
from riktig.core.plate.place_blocks import moved_to, with_rails_and_ducts

__all__ = [
    "fix_as_it_is",
    "locked_leads",
    "move_block",
    "move_stands",
    "plan_for_me",
    "set_lock",
    "set_rails_and_ducts",
    "with_layout",
]


def locked_leads(job: Job) -> frozenset[DeviceId]:
    """The blocks that stay where they are."""
    if job.plate is None:
        return frozenset()
    on_rails = {placement.device for placement in job.plate.placements if placement.locked}
    return frozenset(on_rails | {spot.device for spot in job.plate.spots if spot.locked})


def with_layout(job: Job, layout: Layout, locked: frozenset[DeviceId]) -> Job:
    """The job with everything fixed as a layout has it, some of it locked.

    Args:
        job: The job; it is not changed.
        layout: The plate: where everything stands.
        locked: What stays where it is.
    """
    fix = PlateFix(
        tuple(RailFix(rail.number, rail.y, rail.x1, rail.x2) for rail in layout.rails),
        tuple(Placement(block.lead, rail, offset, block.lead in locked) for block, rail, offset in layout.blocks),
        tuple(DuctFix(d.number, d.rect.x, d.rect.y, d.rect.width, d.rect.height, d.upright) for d in layout.ducts),
        tuple(Spot(s.block.lead, s.x, s.y, s.block.lead in locked) for s in layout.stands if not s.rail),
    )
    return replace(job, plate=fix)


def fix_as_it_is(job: Job, layout: Layout) -> Job:
    """Fixes rails, ducts and blocks where the plan has them, so that moving one leaves the others.

    Args:
        job: The job; it is not changed.
        layout: The plate: where everything stands.
    """
    return with_layout(job, layout, locked_leads(job))


def move_block(job: Job, layout: Layout, device: DeviceId, rail: int, offset: float) -> Job:
    """Moves the block that holds a device to a rail and offset (mm from the rail's left end).

    A place where it does not fit is allowed: it is shown and judged, not refused.

    Args:
        job: The job; it is not changed.
        layout: The plate: where everything stands.
        device: Which device.
        rail: The number of the rail, from 1 at the top.
        offset: From the left end of the rail, mm.

    Raises:
        RiktigError: the device stands on no rail, is locked, or there is no such rail.
    """
    stand = layout.stand_of(device)
    if stand is None:
        raise RiktigError("This part does not stand on a rail, so it was not moved.")
    if layout.rail(rail) is None:
        raise RiktigError(f"There is no rail R{rail}, so nothing was moved.")
    return move_stands(job, layout, (moved_to(layout, stand, rail, round(offset, 1)),))


def move_stands(job: Job, layout: Layout, moved: Iterable[Stand]) -> Job:
    """Puts blocks where they are said to stand; all others are fixed where they are.

    Args:
        job: The job; it is not changed.
        layout: The plate: where everything stands.
        moved: What stands elsewhere now.

    Raises:
        RiktigError: one of them is locked.
    """
    new = {stand.block.lead: stand for stand in moved}
    locked = locked_leads(job)
    if locked & new.keys():
        raise RiktigError("This part is locked where it stands.", hint="Unlock it first (L).")
    stands = tuple(new.get(stand.block.lead, stand) for stand in layout.stands)
    return with_layout(job, replace(layout, stands=stands), locked)


def set_rails_and_ducts(job: Job, layout: Layout, rails: tuple[Rail, ...], ducts: tuple[Duct, ...]) -> Job:
    """Puts rails and ducts where they are said to be; what stands on a rail goes with it.

    Args:
        job: The job; it is not changed.
        layout: The plate: where everything stands.
        rails: The rails to be.
        ducts: The ducts to be.

    Raises:
        RiktigError: a rail or duct of no length, or a rail that locked parts stand on was moved.
    """
    lengths = {rail.name: rail.length for rail in rails} | {duct.name: duct.length for duct in ducts}
    for name, length in lengths.items():
        if length < 1:
            raise RiktigError(f"{name} would have no length, so nothing was changed.", hint="Remove it instead.")
    rail_of = {rail.number: rail for rail in rails}
    locked = locked_leads(job)
    for stand in layout.stands:
        was, now = layout.rail(stand.rail), rail_of.get(stand.rail)
        if was and now is None:
            raise RiktigError(
                f"Parts stand on {was.name}, so it was not taken away.", hint="Move them to another rail first."
            )
        if was and now and stand.block.lead in locked and (was.x1, was.y) != (now.x1, now.y):
            raise RiktigError(f"A locked part stands on {was.name}, so it was not moved.", hint="Unlock it first (L).")
    return with_layout(job, with_rails_and_ducts(layout, rails, ducts), locked)


def set_lock(job: Job, layout: Layout, device: DeviceId, locked: bool) -> Job:
    """Locks or unlocks the block that holds a device.

    Args:
        job: The job; it is not changed.
        layout: The plate: where everything stands.
        device: Which device.
        locked: Whether it stays where it is.

    Raises:
        RiktigError: the device does not stand on the plate.
    """
    stand = layout.stand_of(device)
    if stand is None:
        raise RiktigError("This part does not stand on a rail, so it cannot be locked.")
    leads = locked_leads(job)
    return with_layout(job, layout, leads | {stand.block.lead} if locked else leads - {stand.block.lead})


def plan_for_me(job: Job) -> Job:
    """Gives every block that is not locked back to the plan; with locks, rails and ducts stay for them."""
    if job.plate is None:
        return job
    locked_parts = tuple(p for p in job.plate.placements if p.locked)
    spots = tuple(s for s in job.plate.spots if s.locked)
    if not locked_parts and not spots:
        return replace(job, plate=None)
    return replace(job, plate=replace(job.plate, placements=locked_parts, spots=spots))
