"""The door: operators in groups, in the operator's reading order; the isolator's handle over its shaft."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import ceil, sqrt

from riktig.core.catalogue import Can, Mounting
from riktig.core.door.clash import Behind, door_misfits, things_behind
from riktig.core.door.door_types import NAMEPLATE, WIRING_DEPTH, DoorPlan, Leaf, PlacedOperator, leaves_of, to_door
from riktig.core.door.stack import stack_of
from riktig.core.geometry import Point, Rect
from riktig.core.job import DoorFix, Enclosure
from riktig.core.plate import Layout
from riktig.core.schematic import Circuits, Device, Zone
from riktig.core.sizing import Sizing
from riktig.core.standards import operator_hole

__all__ = ["SHAFT_HOLE", "on_door", "plan_door"]

PITCH_X, PITCH_Y = 60.0, 60.0
"""Operator pitch (IEC 60947-5-1 asks for 30 × 50 with legends, from memory; ours is for gloves)."""
SHAFT_HOLE = 22.3
"""Hole for the shaft's bearing (chosen by us; the same cutter as the operators)."""
TOP_SHARE = 0.35
"""Of the door's height to the first operator, where there is room below it (chosen by us)."""
LEAST_SHARE, UNDER_HANDLE = 0.2, 105.0
"""Of the door's height at least, and from the middle of the handle to the first legend, mm (chosen by us)."""
MARGIN, GROUP_GAP, TO_HANDLE, ROW_GAP = 20.0, 20.0, 24.0, 8.0
"""Kept free at the door's edge, between groups, about the handle and between rows, mm (chosen by us)."""
FIVE = 5.0
"""The grid on which holes stand where there is room, mm (chosen by us: what is quickly read off a rule)."""
BELOW_OPERATORS = 110.0
"""Kept for the nameplate below a column of operators, mm (chosen by us)."""
STUD_INSET = 25.0


@dataclass(frozen=True, slots=True)
class _OperatorGroup:
    """Seats about a group's own corner, and the room they take."""

    seats: tuple[PlacedOperator, ...]
    room: Rect


def on_door(device: Device) -> bool:
    """Whether a device is an operator or lamp of the door."""
    return device.zone is Zone.DOOR and device.kind.mounting is Mounting.DOOR


def plan_door(
    circuits: Circuits, sizing: Sizing, layout: Layout, enclosure: Enclosure, fix: DoorFix | None
) -> DoorPlan:
    """Places the handle, the operators, the nameplate and the bonds of the door.

    The handle stands over the isolator's shaft. What the builder has put somewhere stays there; the rest goes, group
    by group in the order of the loads, from left to right and then down, clear of what is there.

    Args:
        circuits: All devices and rungs of the job.
        sizing: The part of every device.
        layout: The plate: where everything stands.
        enclosure: The enclosure.
        fix: What is kept of an earlier plan; None plans anew.

    Returns:
        Positions from the (left) door's upper left corner, seen from the front, mm.
    """
    leaves = leaves_of(enclosure)
    face = Rect(0, 0, enclosure.door_width, enclosure.door_height)
    studs = tuple(
        Point(leaf.hinge_x - STUD_INSET if leaf.hinged_right else leaf.hinge_x + STUD_INSET, face.height - STUD_INSET)
        for leaf in leaves
    )
    plan = DoorPlan(face, leaves, (), Rect(0, 0, 0, 0), studs, ())
    seats = _handles(circuits, layout, enclosure, plan)
    low = leaves[0].face
    nameplate = Rect((low.width - NAMEPLATE[0]) / 2, face.height - NAMEPLATE[1] - 25, *NAMEPLATE)
    given = {place.device: place for place in fix.places} if fix else {}
    waiting: dict[str, list[PlacedOperator]] = {}
    for device in circuits.devices:
        if not on_door(device):
            continue
        seat = _bare(device, sizing)
        place = given.get(device.id)
        if place:
            leaf = plan.leaf_at(place.x)
            seats.append(replace(seat, x=place.x, y=place.y, leaf=leaf.name, locked=place.locked))
        else:
            alone = bool(seat.part.kind.cut_out_rim)
            waiting.setdefault(f"{device.circuit} {device.id}" if alone else str(device.circuit), []).append(seat)
    rows = int((face.height * (1 - TOP_SHARE) - BELOW_OPERATORS) // PITCH_Y)
    waiting = _beside_their_own(waiting, seats, plan)
    groups = [_grouped(sorted(group, key=_rank), rows) for group in waiting.values()]
    groups.sort(key=lambda group: not group.seats[0].part.kind.cut_out_rim)
    seats += _placed(groups, seats, plan, nameplate, things_behind(layout, enclosure), enclosure.plate_depth)
    plan = replace(plan, seats=tuple(seats), nameplate=nameplate)
    return replace(plan, misfits=door_misfits(plan, layout, enclosure))


def _beside_their_own(
    waiting: dict[str, list[PlacedOperator]], seats: list[PlacedOperator], plan: DoorPlan
) -> dict[str, list[PlacedOperator]]:
    """Puts a new operator below those of its circuit that have a place already; gives back what still waits."""
    left: dict[str, list[PlacedOperator]] = {}
    for circuit, group in waiting.items():
        for seat in sorted(group, key=_rank):
            circuit_seats = [seat for seat in seats if seat.group == circuit and not seat.is_shaft]
            spot = (
                _below(seat, circuit_seats, seats, plan) if circuit_seats and not seat.part.kind.cut_out_rim else None
            )
            if spot is None:
                left.setdefault(circuit, []).append(seat)
            else:
                seats.append(spot)
    return left


def _below(
    seat: PlacedOperator, own: Sequence[PlacedOperator], seats: Sequence[PlacedOperator], plan: DoorPlan
) -> PlacedOperator | None:
    last = max(own, key=lambda seat: (seat.y, seat.x))
    face = plan.leaf(last.leaf).face
    for n in range(1, 5):
        there = replace(seat.at(last.x, last.y + n * PITCH_Y), leaf=last.leaf)
        body = there.body
        clear = not any(body.grown(ROW_GAP / 2).overlap(other.body)[0] for other in seats)
        if clear and not body.sticks_out_of(face):
            return there
    return None


def _handles(circuits: Circuits, layout: Layout, enclosure: Enclosure, plan: DoorPlan) -> list[PlacedOperator]:
    seats = []
    for device in circuits.devices:
        seat = layout.seat(device.id)
        if device.kind.can(Can.MAIN_SWITCH) and seat:
            at = to_door(seat.rect.centre, enclosure)
            leaf = plan.leaf_at(at.x).name
            group = str(device.circuit)
            seats.append(PlacedOperator(device.id, seat.part, at.x, at.y, SHAFT_HOLE, device.legend, leaf, group))
    return seats


def _bare(device: Device, sizing: Sizing) -> PlacedOperator:
    part = sizing.parts[device.id]
    hole = 0.0 if part.kind.cut_out_rim else operator_hole("D22").value
    depth = stack_of(device.kind, part, device.legend).depth
    return PlacedOperator(device.id, part, 0.0, 0.0, hole, device.legend, group=str(device.circuit), depth=depth)


def _rank(seat: PlacedOperator) -> int:
    return seat.part.kind.door_order


def _grouped(seats: Sequence[PlacedOperator], most_rows: int) -> _OperatorGroup:
    """A group with its lamps on top, by twos, and its operators below them: in one column while that fits the door."""
    lamps = [seat for seat in seats if _rank(seat) == 0]
    others = [seat for seat in seats if _rank(seat) != 0]
    across = 2 if len(lamps) / 2 + len(others) > most_rows else 1
    rows = [lamps[n : n + 2] for n in range(0, len(lamps), 2)]
    rows += [others[n : n + across] for n in range(0, len(others), across)]
    placed: list[PlacedOperator] = []
    y = low = 0.0
    for row in rows:
        above = max(-seat.at(0, 0).body.y for seat in row)
        y = max(y + PITCH_Y, low + ROW_GAP + above) if placed else above
        # What takes more room than the pitch stands in the middle of a row of its own.
        for n, seat in enumerate(row):
            placed.append(seat.at((n - (len(row) - 1) / 2) * PITCH_X, y))
        low = max(seat.at(0, y).body.bottom for seat in row)
    bodies = [seat.body for seat in placed]
    left, right = min(b.x for b in bodies), max(b.right for b in bodies)
    return _OperatorGroup(tuple(placed), Rect(left, 0.0, right - left, max(b.bottom for b in bodies)))


def _placed(
    groups: Sequence[_OperatorGroup],
    there: Sequence[PlacedOperator],
    plan: DoorPlan,
    nameplate: Rect,
    behind: Sequence[Behind],
    plate_depth: float,
) -> list[PlacedOperator]:
    """The groups clear of what stands behind them and well below the top, as far as that can be had."""
    handle = next((seat for seat in there if seat.is_shaft), None)
    first = handle.leaf if handle else plan.leaves[0].name
    leaves = sorted(plan.leaves, key=lambda leaf: leaf.name != first)
    bare = _BareDoor(there, leaves, plan, nameplate, plate_depth, {})
    for things in (behind, ()):
        for grid in (FIVE, 1.0):
            for share in (TOP_SHARE, 0.0):
                placed = _fill(groups, bare, things, share, grid)
                if placed is not None:
                    return placed
    # They do not all fit: below each other from the left, and what does not fit is said.
    made: list[PlacedOperator] = []
    x, y = MARGIN, MARGIN
    for group in groups:
        made += _shifted(group, x, y, leaves[0])
        x += group.room.width + GROUP_GAP
        if x + group.room.width > leaves[0].face.right:
            x, y = MARGIN, y + group.room.height + GROUP_GAP
    return made


@dataclass(frozen=True, slots=True)
class _BareDoor:
    """A door before the groups of operators stand on it."""

    there: Sequence[PlacedOperator]
    """What has its place already."""
    leaves: Sequence[Leaf]
    """In the order in which they are filled."""
    plan: DoorPlan
    nameplate: Rect
    plate_depth: float
    too_deep: dict[tuple[int, str], list[Rect]]
    """Where the corner of a group may not be, by its number and the leaf; the same at every try."""


def _fill(
    groups: Sequence[_OperatorGroup], door: _BareDoor, behind: Sequence[Behind], share: float, grid: float
) -> list[PlacedOperator] | None:
    """The groups in their order, each in the first free room in reading order; None when one finds none.

    ``share`` of a leaf's height stays free at its top; places lie on a ``grid``, mm.
    """
    taken = [seat.body.grown(TO_HANDLE if seat.is_shaft else GROUP_GAP) for seat in door.there]
    taken.append(door.nameplate.grown(GROUP_GAP))
    taken += [Rect(stud.x - 15, stud.y - 15, 30, 30) for stud in door.plan.studs]
    made: list[PlacedOperator] = []
    for number, group in enumerate(groups):
        in_cut_out = bool(group.seats[0].part.kind.cut_out_rim)
        room = group.room
        for leaf in door.leaves:
            top = MARGIN if in_cut_out else max(_top(leaf, door.there, share), MARGIN)
            zones = [
                Rect(t.x - room.width, t.y - room.height, t.width + room.width, t.height + room.height) for t in taken
            ]
            if behind:
                if (number, leaf.name) not in door.too_deep:
                    door.too_deep[number, leaf.name] = _too_deep(group, leaf, behind, door.plate_depth)
                zones += door.too_deep[number, leaf.name]
            at = _free(group, leaf, top, zones, grid)
            if at is not None:
                made += _shifted(group, at.x, at.y, leaf)
                taken.append(Rect(at.x, at.y, room.width, room.height).grown(GROUP_GAP))
                break
        else:
            return None
    return made


def _top(leaf: Leaf, there: Sequence[PlacedOperator], share: float) -> float:
    """Where operators begin: at a share of the door's height, on a tall door nearer to its handle."""
    top = leaf.face.height * share
    for seat in there:
        if seat.is_shaft and seat.leaf == leaf.name and seat.y < leaf.face.centre.y:
            top = min(top, max(seat.y + UNDER_HANDLE, leaf.face.height * LEAST_SHARE))
    return top


def _too_deep(group: _OperatorGroup, leaf: Leaf, behind: Sequence[Behind], plate_depth: float) -> list[Rect]:
    """Where the group's corner may not be, because an operator would meet what stands behind it, or swing into it."""
    zones = []
    for seat in group.seats:
        room_behind = seat.behind.moved(-group.room.x, -group.room.y)
        for thing in behind:
            z = plate_depth - thing.height
            if seat.depth + WIRING_DEPTH <= z:
                continue
            shadow = thing.shadow
            # On its hinge side a thing may be met by an edge that swings out: so much more room is kept there.
            near = min(leaf.from_pivot(shadow.x), leaf.from_pivot(shadow.right))
            out = max(near - sqrt(max(near**2 - max(seat.depth**2 - z**2, 0.0), 0.0)), 0.0)
            shadow = shadow.grown(0, 0, out, 0) if leaf.hinged_right else shadow.grown(out, 0, 0, 0)
            x, y = shadow.x - room_behind.right, shadow.y - room_behind.bottom
            zones.append(Rect(x, y, shadow.width + room_behind.width, shadow.height + room_behind.height))
    return zones


def _free(group: _OperatorGroup, leaf: Leaf, top: float, zones: Sequence[Rect], grid: float) -> Point | None:
    """The first free corner for a group in reading order: the uppermost, and of those the leftmost.

    Holes stand on a grid from the datum, whole fives of mm where there is room: numbers that are quickly scribed.

    Args:
        group: The operators, about their own corner.
        leaf: The door.
        top: The highest place, mm from the top of the door.
        zones: Where the corner may not be; their edges are allowed.
        grid: Places are tried in steps of this, mm.
    """
    face, room, first = leaf.face, group.room, group.seats[0]
    dx, dy = first.x - room.x - face.x, first.y
    lines = {_up(y, dy, grid) for y in (top, *(zone.bottom for zone in zones if zone.bottom > top))}
    for y in sorted(lines):
        if y + room.height > face.bottom - MARGIN:
            return None
        x = _up(face.x + MARGIN, dx, grid)
        spans = sorted((zone.x, zone.right) for zone in zones if zone.y < y - 0.01 and zone.bottom > y + 0.01)
        for begin, end in spans:
            if begin < x - 0.01 and end > x + 0.01:
                x = _up(end, dx, grid)
        inside = any(begin < x - 0.01 and end > x + 0.01 for begin, end in spans)
        if not inside and x + room.width <= face.right - MARGIN:
            return Point(x, y)
    return None


def _up(value: float, offset: float, grid: float) -> float:
    """The next value from here on that is on the grid with its offset."""
    return ceil((value + offset) / grid - 1e-6) * grid - offset


def _shifted(group: _OperatorGroup, x: float, y: float, leaf: Leaf) -> list[PlacedOperator]:
    dx, dy = round(x - group.room.x, 1), round(y - group.room.y, 1)
    return [replace(seat.at(seat.x + dx, seat.y + dy), leaf=leaf.name) for seat in group.seats]
