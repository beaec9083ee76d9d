"""The door as a true-scale drawing, from the front."""

from riktig.core.circuit import Circuits, Names
from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Mark, Point, Rect, Text
from riktig.core.plate.door import HANDLE
from riktig.core.plate.draw import RULER, TAG, WORD, at_ruler, box, rulers
from riktig.core.plate.model import DoorPlan, DoorSeat

__all__ = ["draw_door"]


def draw_door(door: DoorPlan, circuits: Circuits, names: Names) -> Drawing:
    """The door from the front, with rulers; keys are ``device:``."""
    shift = Point(RULER, RULER)
    legend = {d.id: d.legend for d in circuits.devices}
    marks: list[Mark] = [box(at_ruler(door.face, shift), fill="panel", layer="door")]
    marks += rulers(door.face.width, door.face.height)
    x = door.hinge_x + RULER
    for y in (door.face.height * 0.15, door.face.height * 0.85):
        marks.append(box(Rect(x - 2, y + RULER - 14, 4, 28), "second", 0.4, "rail", layer="door"))
    for seat in door.seats:
        marks += _operator(seat, names.tag[seat.device], legend[seat.device], shift)
    plate = at_ruler(door.nameplate, shift)
    marks += [
        box(plate, "second", 0.4, "card", "nameplate", "door"),
        Text(plate.centre.x, plate.centre.y + 2, "nameplate", WORD, "second", align=Align.MIDDLE, key="nameplate"),
        Circle(door.stud.x + RULER, door.stud.y + RULER, 7, "ink", 0.4, "wire green-yellow", "door", "door bond"),
    ]
    size = (door.face.width + RULER + 6, door.face.height + RULER + 4)
    return Drawing(*size, tuple(marks), "Door, from the front")


def _operator(seat: DoorSeat, tag: str, legend: str, shift: Point) -> list[Mark]:
    x, y = seat.x + shift.x, seat.y + shift.y
    key = f"device:{seat.device}"
    if seat.part.kind.family == "isolator":
        half = HANDLE / 2
        return [
            box(Rect(x - half, y - half, HANDLE, HANDLE), "ink", 0.5, "card", key, "door"),
            Circle(x, y, 22, "ink", 0.5, "part", "door", key),
            box(Rect(x - 6, y - 24, 12, 48), "ink", 0.5, "second", key, "door"),
            Text(x, y - half - 4, legend, WORD, face=Face.PRINTED, align=Align.MIDDLE, key=key),
            Text(x + half + 4, y + 3, tag, TAG, face=Face.PRINTED_BOLD, key=key),
        ]
    lens = "lens " + (seat.part.colour or "green")
    lamp = seat.part.kind.id == "lamp"
    marks: list[Mark] = [
        Circle(x, y, 15, "ink", 0.5, "card", "door", key),
        Circle(x, y, 11 if lamp else 12, "ink", 0.4, lens, "door", key),
        Text(x, y - 19, legend, 4.4, face=Face.PRINTED, align=Align.MIDDLE, key=key),
        Text(x + 18, y + 3, tag, TAG - 1, face=Face.PRINTED_BOLD, key=key),
    ]
    if lamp:
        d = 11 * 0.7071
        marks += [
            Line(x - d, y - d, x + d, y + d, "ink", 0.3, layer="door", key=key),
            Line(x - d, y + d, x + d, y - d, "ink", 0.3, layer="door", key=key),
        ]
    return marks
