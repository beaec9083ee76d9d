"""The door: operators in columns, one a load; the isolator's handle over its shaft."""

from riktig.core.catalogue import Mounting
from riktig.core.circuit import Circuits, Device, Zone
from riktig.core.geometry import Point, Rect
from riktig.core.job import Enclosure, HingeSide, Practice
from riktig.core.job.enclosure import DOOR_FOLD_MM
from riktig.core.plate.model import DoorPlan, DoorSeat, Layout, Misfit
from riktig.core.sizing import Sizing
from riktig.core.standards import operator_hole

__all__ = ["HANDLE", "SHAFT_HOLE", "WIRING_DEPTH", "on_door", "plan_door", "to_door"]

PITCH_X, PITCH_Y = 60.0, 60.0
"""Operator pitch (IEC 60947-5-1 asks for 30 × 50 with legends, from memory; ours is roomier)."""
HANDLE = 66.0
"""Side of the handle's plate on the door (chosen by us; part data will refine it)."""
SHAFT_HOLE = 22.3
"""Hole for the shaft's bearing (chosen by us; the same cutter as the operators)."""
WIRING_DEPTH = 30.0
"""Behind a contact block for its wires (common practice, no source)."""
NAMEPLATE = (100.0, 60.0)
TOP_SHARE, TO_HANDLE, LEGEND_ROOM = 0.35, 55.0, 45.0
"""Of the door's height to the first operator; from the handle to one; least from the edge, mm (chosen by us)."""

_ORDER = {"lamp": 0, "start_button": 1, "stop_button": 2}


def to_door(point: Point, enclosure: Enclosure) -> Point:
    """A point of the plate, projected square onto the door, from the door's datum."""
    dx = (enclosure.width - enclosure.plate_width) / 2 - DOOR_FOLD_MM
    dy = (enclosure.height - enclosure.plate_height) / 2 - DOOR_FOLD_MM
    return Point(round(point.x + dx, 1), round(point.y + dy, 1))


def on_door(device: Device) -> bool:
    """Whether a device is an operator or lamp of the door."""
    return device.zone is Zone.DOOR and device.kind.mounting is Mounting.DOOR


def plan_door(circuits: Circuits, sizing: Sizing, layout: Layout, enclosure: Enclosure, practice: Practice) -> DoorPlan:
    """Places the handle, the operators, the nameplate and the bond of the door.

    Returns:
        Positions from the door's upper left corner, seen from the front, mm.
    """
    face = Rect(0, 0, enclosure.door_width, enclosure.door_height)
    seats: list[DoorSeat] = []
    handles: list[Point] = []
    for device in circuits.devices:
        seat = layout.seat(device.id)
        if device.kind.family == "isolator" and seat:
            at = to_door(seat.rect.centre, enclosure)
            seats.append(DoorSeat(device.id, seat.part, at.x, at.y, SHAFT_HOLE, device.legend))
            handles.append(at)
    hole = operator_hole("D22").value
    columns = [
        sorted((d for d in circuits.devices if on_door(d) and d.circuit == circuit), key=_rank)
        for circuit in dict.fromkeys(d.circuit for d in circuits.devices if on_door(d))
    ]
    top = _top_of_operators(face, handles, max((_rows_of(column) for column in columns), default=1))
    for index, column in enumerate(columns):
        # The first stays in the middle and others come beside it, so that a new load moves no hole.
        side = (index + 1) // 2 * (1 if index % 2 else -1)
        x = face.width / 2 + side * PITCH_X * 2
        lamps = [d for d in column if d.kind_id == "lamp"]
        rows = max(-(-len(lamps) // 2), 1)
        for n, device in enumerate(lamps):
            beside = min(len(lamps) - n // 2 * 2, 2)
            dx = (n % 2 - (beside - 1) / 2) * PITCH_X * 1.2
            seats.append(_seat(device, sizing, x + dx, top + n // 2 * PITCH_Y, hole))
        for n, device in enumerate(d for d in column if d.kind_id != "lamp"):
            seats.append(_seat(device, sizing, x, top + (n + rows) * PITCH_Y, hole))
    hinge_right = enclosure.hinge is HingeSide.RIGHT
    stud = Point(face.width - 25 if hinge_right else 25, face.height - 25)
    plate = Rect((face.width - NAMEPLATE[0]) / 2, face.height - NAMEPLATE[1] - 25, *NAMEPLATE)
    return DoorPlan(
        face,
        tuple(seats),
        plate,
        stud,
        face.width if hinge_right else 0.0,
        _misfits(tuple(seats), face, layout, enclosure),
    )


def _rows_of(column: list[Device]) -> int:
    """How many operators of a column stand above each other: lamps by twos, the others each by itself."""
    lamps = sum(device.kind_id == "lamp" for device in column)
    return max(-(-lamps // 2), 1) + len(column) - lamps


def _top_of_operators(face: Rect, handles: list[Point], rows: int) -> float:
    """Where the uppermost operators stand: below the handle while it is in the upper half, else above it."""
    top = face.height * TOP_SHARE
    deep = (rows - 1) * PITCH_Y
    for at in handles:
        below = at.y + HANDLE / 2 + TO_HANDLE
        if at.y <= face.height / 2:
            top = max(top, below)
        else:
            top = max(min(top, at.y - HANDLE / 2 - TO_HANDLE - deep), LEGEND_ROOM)
    return top


def _rank(device: Device) -> int:
    return _ORDER.get(device.kind_id, 9)


def _seat(device: Device, sizing: Sizing, x: float, y: float, hole: float) -> DoorSeat:
    part = sizing.parts[device.id]
    return DoorSeat(device.id, part, round(x, 1), round(y, 1), hole, device.legend)


def _misfits(seats: tuple[DoorSeat, ...], face: Rect, layout: Layout, enclosure: Enclosure) -> tuple[Misfit, ...]:
    found: list[Misfit] = []
    shadows = []
    for behind in layout.seats:
        at = to_door(Point(behind.rect.x, behind.rect.y), enclosure)
        shadows.append((behind, Rect(at.x, at.y, behind.rect.width, behind.rect.height)))
    for seat in seats:
        half = seat.part.width / 2
        body = Rect(seat.x - half, seat.y - seat.part.height / 2, seat.part.width, seat.part.height)
        out = body.sticks_out_of(face)
        if out:
            text = f"reaches {out:.0f} mm past the door's edge"
            found.append(Misfit(seat.device, out, "door", text))
        if seat.part.kind.family == "isolator":
            continue
        for behind, shadow in shadows:
            short = seat.part.depth + WIRING_DEPTH + behind.part.depth - enclosure.plate_depth
            if short > 0 and shadow.overlap(body)[0]:
                text = f"needs {short:.0f} mm more depth in front of what stands behind it"
                found.append(Misfit(seat.device, short, behind.device, text))
    return tuple(found)
