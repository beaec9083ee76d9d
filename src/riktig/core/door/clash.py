"""What does not fit on the door and behind it: with the door closed, and while it swings on its hinge."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from math import sqrt

import numpy as np

from riktig.core.door.door_types import HANDLE, WIRING_DEPTH, DoorPlan, Leaf, PlacedOperator, to_door
from riktig.core.geometry import Point, Rect
from riktig.core.job import DeviceId, Enclosure
from riktig.core.job.enclosure import DOOR_FOLD_MM
from riktig.core.plate import DUCT_DEPTH, RAISED, Layout, Misfit
from riktig.core.standards import operator_hole, operator_pitch

__all__ = ["Behind", "door_misfits", "misfits_about_door", "swing_reach", "things_behind", "wiring_room"]


LEGENDS = 40.0
"""What the legend plates of two neighbours add to how far they reach towards each other, at most, mm (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Behind:
    """A thing on the plate as the door sees it.

    Its key for ``Misfit``, its shadow on the door, and how far it stands off the plate, mm.
    """

    name: str
    shadow: Rect
    height: float


def things_behind(layout: Layout, enclosure: Enclosure) -> tuple[Behind, ...]:
    """Every part, busbar system and duct of the plate, projected square onto the door.

    Args:
        layout: The plate: where everything stands.
        enclosure: The enclosure.
    """
    origin = to_door(Point(0, 0), enclosure)
    behinds = [Behind(f"{{{seat.device}}}", seat.rect.moved(*origin), seat.depth) for seat in layout.seats]
    on_bars = [stand for stand in layout.stands if stand.block.bars]
    behinds += [Behind(f"the busbars of {{{s.block.lead}}}", s.body.moved(*origin), RAISED) for s in on_bars]
    behinds += [Behind(duct.name, duct.rect.moved(*origin), DUCT_DEPTH) for duct in layout.ducts]
    return tuple(behinds)


def swing_reach(far: float, depth: float, z: float) -> float:
    """How far from the pivot the inner edge of a stack comes, at a depth behind the door, while the door opens, mm.

    The edge stands ``far`` from the pivot and ``depth`` behind the door; it moves on a circle about the pivot, so at
    depth ``z`` it is √(far² + depth² − z²) away.

    Args:
        far: How far the door opens, degrees or mm as the door has it.
        depth: Outer depth, mm.
        z: How far in front of the plate, mm.
    """
    return sqrt(max(far * far + depth * depth - z * z, 0.0))


def wiring_room(seat: PlacedOperator, behind: Iterable[Behind], plate_depth: float) -> float:
    """What is left behind an operator for its wires with the door closed, mm; negative: it does not close.

    Args:
        seat: Where the operator stands on the door.
        behind: What stands behind the doors.
        plate_depth: Room between the plate and the closed door, mm.
    """
    room_behind = seat.behind
    front = max((thing.height for thing in behind if thing.shadow.overlap(room_behind)[0]), default=0.0)
    return plate_depth - front - seat.depth


def door_misfits(plan: DoorPlan, layout: Layout, enclosure: Enclosure) -> tuple[Misfit, ...]:
    """Everything that does not fit on the door and behind it.

    Args:
        plan: The doors as they are planned.
        layout: The plate: where everything stands.
        enclosure: The enclosure.
    """
    return misfits_about_door(plan, layout, enclosure, frozenset(seat.device for seat in plan.seats))


def misfits_about_door(
    plan: DoorPlan,
    layout: Layout,
    enclosure: Enclosure,
    devices: frozenset[DeviceId],
    behind: tuple[Behind, ...] | None = None,
) -> tuple[Misfit, ...]:
    """What does not fit of some operators: against the door's edge, each other, and what stands behind.

    Args:
        plan: The doors as they are planned.
        layout: The plate: where everything stands.
        enclosure: The enclosure.
        devices: Which devices.
        behind: ``things_behind``, for who has it already.
    """
    behind = things_behind(layout, enclosure) if behind is None else behind
    known: dict[DeviceId, Rect] = {}
    misfits: list[Misfit] = []
    shadows = np.array([(thing.shadow.y, thing.shadow.bottom, thing.height) for thing in behind]).reshape(-1, 3)
    reach = np.array([_reach(seat) for seat in plan.seats]).reshape(-1, 3)
    for seat in plan.seats:
        if seat.device not in devices:
            continue
        # The outline is worked out for near neighbours only: a drag judges one among many, sixty times a second.
        x, y, far = _reach(seat)
        close = (abs(reach[:, 0] - x) < reach[:, 2] + far) & (abs(reach[:, 1] - y) < reach[:, 2] + far)
        near = [plan.seats[n] for n in np.flatnonzero(close)]
        bodies = [(other, known.setdefault(other.device, known.get(other.device) or other.body)) for other in near]
        body = known[seat.device]
        leaf = plan.leaf(seat.leaf)
        out = body.sticks_out_of(leaf.face)
        if out:
            misfits.append(Misfit(seat.device, out, "door", f"reaches {out:.0f} mm past the {leaf.name}'s edge"))
        misfits += _on_the_front(seat, body, bodies, plan, devices)
        if not seat.is_shaft:
            room_behind = seat.behind
            level = np.minimum(room_behind.bottom, shadows[:, 1]) - np.maximum(room_behind.y, shadows[:, 0]) > 0.01
            # What leaves room for its wires when the door is closed is in no one's way while it swings.
            level &= shadows[:, 2] + seat.depth + WIRING_DEPTH > enclosure.plate_depth
            misfits += _behind(seat, leaf, [behind[n] for n in np.flatnonzero(level)], enclosure)
    return tuple(misfits)


def _on_the_front(
    seat: PlacedOperator,
    body: Rect,
    bodies: Sequence[tuple[PlacedOperator, Rect]],
    plan: DoorPlan,
    devices: frozenset[DeviceId],
) -> Iterator[Misfit]:
    """Neighbours that are too near: each pair once."""
    over = min(body.overlap(plan.nameplate))
    if over > 0:
        yield Misfit(seat.device, over, "nameplate", f"reaches {over:.0f} mm into the nameplate")
    for stud in plan.studs:
        over = min(body.overlap(Rect(stud.x - 8, stud.y - 8, 16, 16)))
        if over > 0:
            yield Misfit(seat.device, over, "bond", f"reaches {over:.0f} mm into the door's bond")
    for other, theirs in bodies:
        if other.device == seat.device or (other.device in devices and other.device < seat.device):
            continue
        short = min(body.overlap(theirs))
        if short <= 0:
            short = _short_of_pitch(seat, other)
        if short > 0.05:
            what = f"stands {short:.0f} mm too near {{{other.device}}}"
            yield Misfit(seat.device, short, other.device, what)


def _reach(seat: PlacedOperator) -> tuple[float, float, float]:
    """The middle of an operator, and how far its outline reaches from there: its part, its handle or its legend, mm."""
    return seat.x, seat.y, (max(seat.part.width, seat.part.height, HANDLE) + LEGENDS) / 2


def _short_of_pitch(seat: PlacedOperator, other: PlacedOperator) -> float:
    """What lacks of the standard's pitch between two operators in round holes."""
    dx, dy = abs(seat.x - other.x), abs(seat.y - other.y)
    if not seat.hole == other.hole == operator_hole("D22").value:
        return 0.0
    across, down = operator_pitch("D22", legends=bool(seat.legend or other.legend))
    return 0.0 if dx >= across or dy >= down else min(across - dx, down - dy)


def _behind(seat: PlacedOperator, leaf: Leaf, behind: Iterable[Behind], enclosure: Enclosure) -> Iterator[Misfit]:
    """What is in the way of one operator among the things behind it at its height."""
    room_behind = seat.behind
    near, far = sorted((leaf.from_pivot(room_behind.x), leaf.from_pivot(room_behind.right)))
    for thing in behind:
        shadow = thing.shadow
        z = enclosure.plate_depth - thing.height
        short = seat.depth + WIRING_DEPTH - z
        if short > 0.01 and room_behind.overlap(shadow)[0]:
            yield Misfit(seat.device, short, thing.name, f"needs {short:.0f} mm more depth in front of {thing.name}")
            continue
        first, last = sorted((leaf.from_pivot(shadow.x), leaf.from_pivot(shadow.right)))
        if z < seat.depth and last > near:
            into = swing_reach(far, seat.depth, z) - max(first, far)
            if into > 0.01 and first >= far - 0.01:
                text = f"swings {into:.0f} mm into {thing.name} as the door opens"
                yield Misfit(seat.device, into, thing.name, text)
    lip = (enclosure.width if enclosure.doors == 1 else enclosure.width / 2) - DOOR_FOLD_MM
    into = swing_reach(far, seat.depth, 0.0) - lip
    if far <= lip and into > 0.01:
        yield Misfit(seat.device, into, "box", f"swings {into:.0f} mm into the box's edge as the door opens")
