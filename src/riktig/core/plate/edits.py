"""Edits of the plate: ``Job -> Job``. The first one fixes everything where it stands."""

from dataclasses import replace

from riktig.core.errors import RiktigError
from riktig.core.job import DeviceId, Job, Placement, PlateFix, RailFix
from riktig.core.plate.model import Layout

__all__ = ["fix_as_it_is", "move_block", "plan_for_me", "set_lock"]


def fix_as_it_is(job: Job, layout: Layout) -> Job:
    """Fixes rails and blocks where the plan has them, so that moving one leaves the others."""
    locked = {p.device for p in job.plate.placements if p.locked} if job.plate else set()
    fix = PlateFix(
        tuple(RailFix(rail.number, rail.y) for rail in layout.rails),
        tuple(Placement(block.lead, rail, offset, block.lead in locked) for block, rail, offset in layout.blocks),
    )
    return replace(job, plate=fix)


def move_block(job: Job, layout: Layout, device: DeviceId, rail: int, offset: float) -> Job:
    """Moves the block that holds a device to a rail and offset (mm from the rail's left end).

    A place where it does not fit is allowed: it is shown and judged, not refused.

    Raises:
        RiktigError: the device stands on no rail, is locked, or there is no such rail.
    """
    found = layout.block_of(device)
    if found is None:
        raise RiktigError("This part does not stand on a rail, so it was not moved.")
    if rail not in {one.number for one in layout.rails}:
        raise RiktigError(f"There is no rail R{rail}, so nothing was moved.")
    lead = found[0].lead
    fixed = fix_as_it_is(job, layout)
    if fixed.plate is None:
        return job
    at = next(p for p in fixed.plate.placements if p.device == lead)
    if at.locked:
        raise RiktigError("This part is locked where it stands.", hint="Unlock it first (L).")
    return _with(fixed, replace(at, rail=rail, offset=round(offset, 1)))


def set_lock(job: Job, layout: Layout, device: DeviceId, locked: bool) -> Job:
    """Locks or unlocks the block that holds a device."""
    found = layout.block_of(device)
    if found is None:
        raise RiktigError("This part does not stand on a rail, so it cannot be locked.")
    fixed = fix_as_it_is(job, layout)
    if fixed.plate is None:
        return job
    at = next(p for p in fixed.plate.placements if p.device == found[0].lead)
    return _with(fixed, replace(at, locked=locked))


def plan_for_me(job: Job) -> Job:
    """Gives every block that is not locked back to the plan."""
    if job.plate is None:
        return job
    kept = tuple(p for p in job.plate.placements if p.locked)
    if not kept:
        return replace(job, plate=None)
    return replace(job, plate=replace(job.plate, placements=kept))


def _with(job: Job, placement: Placement) -> Job:
    if job.plate is None:
        return job
    placements = tuple(placement if p.device == placement.device else p for p in job.plate.placements)
    return replace(job, plate=replace(job.plate, placements=placements))
