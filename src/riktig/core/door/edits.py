"""Edits of the door: each gives the changed job. The first one fixes every operator where it is."""

from collections.abc import Iterable, Sequence
from dataclasses import replace

from riktig.core.door.clash import Behind, misfits_about_door
from riktig.core.door.door_types import DoorPlan, PlacedOperator
from riktig.core.errors import RiktigError
from riktig.core.job import DeviceId, DoorFix, DoorPlace, Enclosure, Job, Opening
from riktig.core.plate import Layout

__all__ = [
    "add_opening",
    "door_for_me",
    "drop_opening",
    "fix_door",
    "in_column",
    "in_row",
    "lock_on_door",
    "move_on_door",
    "spread_on_door",
    "with_seats",
]


def with_seats(
    plan: DoorPlan,
    moved: Sequence[PlacedOperator],
    layout: Layout,
    enclosure: Enclosure,
    behind: tuple[Behind, ...] | None = None,
) -> DoorPlan:
    """The door with some operators elsewhere, as a preview: only what has to do with them is judged anew.

    Args:
        plan: The doors as they are planned.
        moved: What stands elsewhere now.
        layout: The plate: where everything stands.
        enclosure: The enclosure.
        behind: ``things_behind``, for who has it already.
    """
    new = {seat.device: replace(seat, leaf=plan.leaf_at(seat.x).name) for seat in moved}
    there = replace(plan, seats=tuple(new.get(seat.device, seat) for seat in plan.seats))
    return replace(there, misfits=misfits_about_door(there, layout, enclosure, frozenset(new), behind))


def _fixed(job: Job, plan: DoorPlan, seats: Iterable[PlacedOperator]) -> Job:
    places = tuple(
        DoorPlace(seat.device, round(seat.x, 1), round(seat.y, 1), seat.locked) for seat in seats if not seat.is_shaft
    )
    return replace(job, door=DoorFix(places))


def fix_door(job: Job, plan: DoorPlan) -> Job:
    """Fixes every operator where it is, as soon as the door is worked on: a later edit then moves no hole.

    Args:
        job: The job; it is not changed.
        plan: The doors as they are planned.
    """
    return _fixed(job, plan, plan.seats)


def move_on_door(job: Job, plan: DoorPlan, moved: Iterable[PlacedOperator]) -> Job:
    """Puts operators where they are said to be; all others are fixed where they are.

    A place where one does not fit is allowed: it is shown and judged, not refused.

    Args:
        job: The job; it is not changed.
        plan: The doors as they are planned.
        moved: What stands elsewhere now.

    Raises:
        RiktigError: one is locked, or is the handle, which stands over its shaft.
    """
    new = {seat.device: seat for seat in moved}
    for seat in plan.seats:
        if seat.device in new and seat.is_shaft:
            raise RiktigError(
                "The handle stands over the isolator's shaft, so it was not moved.",
                hint="Move the isolator on the plate; the handle goes with it.",
            )
        if seat.device in new and seat.locked:
            raise RiktigError("This operator is locked where it is.", hint="Unlock it first (L).")
    return _fixed(job, plan, (new.get(seat.device, seat) for seat in plan.seats))


def lock_on_door(job: Job, plan: DoorPlan, devices: frozenset[DeviceId], locked: bool) -> Job:
    """Locks or unlocks operators; all are fixed where they are.

    Args:
        job: The job; it is not changed.
        plan: The doors as they are planned.
        devices: Which devices.
        locked: Whether it stays where it is.
    """
    return _fixed(job, plan, (replace(seat, locked=locked) if seat.device in devices else seat for seat in plan.seats))


def door_for_me(job: Job) -> Job:
    """Gives every operator that is not locked back to the plan."""
    locked_places = tuple(place for place in job.door.places if place.locked) if job.door else ()
    return replace(job, door=DoorFix(locked_places) if locked_places else None)


def in_row(seats: Sequence[PlacedOperator]) -> tuple[PlacedOperator, ...]:
    """Operators at the height of the first."""
    return tuple(seat.at(seat.x, seats[0].y) for seat in seats)


def in_column(seats: Sequence[PlacedOperator]) -> tuple[PlacedOperator, ...]:
    """Operators below each other, as far from the edge as the first."""
    return tuple(seat.at(seats[0].x, seat.y) for seat in seats)


def spread_on_door(seats: Sequence[PlacedOperator]) -> tuple[PlacedOperator, ...]:
    """Operators at equal distances between the outermost, along the way in which they stand apart most."""
    if len(seats) < 3:
        return tuple(seats)
    across = max(s.x for s in seats) - min(s.x for s in seats)
    down = max(s.y for s in seats) - min(s.y for s in seats)
    level = across >= down
    ordered = sorted(seats, key=lambda seat: (seat.x, seat.y) if level else (seat.y, seat.x))
    first, last, gaps = ordered[0], ordered[-1], len(ordered) - 1
    return tuple(
        seat.at(first.x + (last.x - first.x) * n / gaps, seat.y)
        if level
        else seat.at(seat.x, first.y + (last.y - first.y) * n / gaps)
        for n, seat in enumerate(ordered)
    )


def add_opening(job: Job, opening: Opening) -> Job:
    """A hole of the builder's own more.

    Args:
        job: The job; it is not changed.
        opening: The hole to add.
    """
    return replace(job, openings=(*job.openings, opening))


def drop_opening(job: Job, index: int) -> Job:
    """A hole of the builder's own less.

    Args:
        job: The job; it is not changed.
        index: Which, counted from 0.

    Raises:
        RiktigError: there is none of that number.
    """
    if not 0 <= index < len(job.openings):
        raise RiktigError("There is no such opening, so nothing was taken away.")
    return replace(job, openings=tuple(opening for n, opening in enumerate(job.openings) if n != index))
