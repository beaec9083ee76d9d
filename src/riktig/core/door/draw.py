"""The door as a true-scale drawing, from the front and from behind."""

from collections.abc import Iterable, Mapping
from math import hypot

from riktig.core.catalogue import Can
from riktig.core.door.door_types import HANDLE, DoorPlan, PlacedOperator
from riktig.core.door.stack import Stack, stack_of
from riktig.core.geometry import Align, Arc, Circle, Drawing, Face, Line, Point, Poly, Rect, Shape, Text
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, Key, PartKey
from riktig.core.plate import RULER, at_ruler, box, grown_by, rulers
from riktig.core.plate.outlines import dashed
from riktig.core.schematic import Names

__all__ = ["draw_door", "operator_shapes", "shadow_shapes"]

TAG, WORD, LEGEND = 7.4, 6.4, 4.0
MOST_TAG = 10.5
"""Of a tag under an operator: what is left above the next legend plate, mm (chosen by us)."""
HALF_ROOT = 0.7071
NUT, STUD = 14.0, 7.0
BLOCK = (10.0, 22.0)
"""Of a contact block as it is drawn from behind, mm (a common size, no source)."""


def draw_door(
    door: DoorPlan, names: Names, legends: Mapping[DeviceId, tuple[str, ...]], *, behind: bool = False
) -> Drawing:
    """The doors with rulers, from the front or as they look when they stand open; keys are ``device:``.

    From behind, left and right are changed over, and the datum is in the upper right corner: it stays the same corner.

    Args:
        door: The doors with what is fitted in them.
        names: Tags of devices and numbers of nets.
        legends: The lines of the legend of every operator.
        behind: Whether the door is seen from behind.
    """
    shown = door.from_behind() if behind else door
    shift = Point(RULER, RULER)
    wide, high = door.face.width, door.face.height
    shapes: list[Shape] = [box(at_ruler(leaf.face, shift), fill="panel", layer="door") for leaf in shown.leaves]
    scale = rulers(wide, high)
    shapes += [_mirrored(mark, wide + 2 * RULER) for mark in scale] if behind else scale
    for leaf in shown.leaves:
        x = leaf.hinge_x + RULER
        for y in (high * 0.15, high * 0.85):
            shapes.append(box(Rect(x - 2, y + RULER - 14, 4, 28), "second", 0.4, "rail", layer="door"))
        datum = leaf.face.right if behind else leaf.face.x
        shapes += _cross(Point(datum + RULER, RULER))
    grown = grown_by(door.face)
    for seat in shown.seats:
        shapes += (
            _back(seat, names.tag, shift, grown)
            if behind
            else operator_shapes(seat, names.tag, shift, legends.get(seat.device, ()), grown)
        )
    plate = at_ruler(shown.nameplate, shift)
    outline = box(plate, "second", 0.4, "" if behind else "card", PartKey("nameplate"), "door")
    shapes.append(dashed(outline) if behind else outline)
    shapes.append(
        Text(
            plate.centre.x,
            plate.centre.y + 2,
            "nameplate",
            WORD,
            "second",
            align=Align.MIDDLE,
            key=PartKey("nameplate"),
        )
    )
    for stud in shown.studs:
        at = Point(stud.x + RULER, stud.y + RULER)
        shapes += [
            Circle(*at, STUD, "ink", 0.4, "wire green-yellow", "door", PartKey("door bond")),
            Circle(*at, 2.5, "ink", 0.35, "card", "door", PartKey("door bond")),
        ]
    title = f"Door{'s' if len(door.leaves) > 1 else ''}, from {'behind' if behind else 'the front'}"
    return Drawing(wide + 2 * RULER, high + RULER + 6, tuple(shapes), title)


def _cross(at: Point) -> list[Shape]:
    return [
        Line(at.x - 5, at.y, at.x + 5, at.y, "fails", 0.4, layer="ruler"),
        Line(at.x, at.y - 5, at.x, at.y + 5, "fails", 0.4, layer="ruler"),
    ]


def _mirrored(mark: Shape, width: float) -> Shape:
    """A mark of the rulers with left and right changed over; its text still reads."""
    match mark:
        case Line():
            return mark._replace(x1=width - mark.x1, x2=width - mark.x2)
        case Circle() | Arc():
            return mark._replace(x=width - mark.x)
        case Text():
            turned = {Align.LEFT: Align.RIGHT, Align.RIGHT: Align.LEFT, Align.MIDDLE: Align.MIDDLE}
            return mark._replace(x=width - mark.x, align=turned[mark.align])
        case Poly():
            return mark._replace(points=tuple(Point(width - p.x, p.y) for p in mark.points))


def operator_shapes(
    seat: PlacedOperator,
    tags: Mapping[DeviceId, str],
    shift: Point,
    lines: tuple[str, ...],
    grown: float = 1.0,
    *,
    wrong: bool = False,
) -> list[Shape]:
    """One operator from the front: its head, its legend plate and its tag.

    Args:
        seat: Where the operator stands on the door.
        tags: The tag of every device.
        shift: How far everything is moved, mm.
        lines: Of its legend.
        grown: How many times larger texts are than on a small plate.
        wrong: Whether it does not fit.
    """
    x, y = seat.x + shift.x, seat.y + shift.y
    key = DeviceKey(seat.device)
    role = "fails" if wrong else "ink"
    shapes = _legend(seat, lines, shift, key, role)
    size = min(TAG * grown, MOST_TAG)
    tag_at = Point(x, y + 17 + size)
    if seat.is_shaft:
        half = HANDLE / 2
        shapes += [
            box(Rect(x - half, y - half, HANDLE, HANDLE), role, 0.5, "card", key, "door"),
            Circle(x, y, 22, role, 0.5, "part", "door", key),
            box(Rect(x - 6, y - 24, 12, 48), role, 0.5, "second", key, "door"),
        ]
        tag_at = Point(x, y + half + 2 + size)
    elif seat.cut:
        body, cut = at_ruler(seat.body, shift), at_ruler(seat.cut, shift)
        shapes += [box(body, role, 0.6, "part", key, "door"), dashed(box(cut, "second", 0.4, "card", key, "door"))]
        if seat.part.kind.can(Can.VENTILATES):
            count = max(int(cut.height // 12), 1)
            step = cut.height / (count + 1)
            for n in range(1, count + 1):
                line = cut.y + n * step
                shapes.append(Line(cut.x + 6, line, cut.right - 6, line, "second", 0.6, layer="door", key=key))
        else:
            text = seat.legend or seat.part.kind.name
            shapes.append(Text(x, body.bottom - 8, text, LEGEND, "second", align=Align.MIDDLE, key=key))
        tag_at = Point(x, body.bottom + 2 + size)
    else:
        shapes += _head(seat, x, y, key, role)
        if seat.is_mushroom:
            tag_at = Point(x, y + 32 + size)
    shapes.append(Text(*tag_at, tags[seat.device], size, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key))
    if seat.locked:
        shapes.append(Circle(x - 17, y - 12, 2.2, "act", 0.5, "act", "text", key))
    return shapes


def _legend(seat: PlacedOperator, lines: tuple[str, ...], shift: Point, key: Key | None, role: str) -> list[Shape]:
    plate = seat.legend_plate
    if plate is None:
        return []
    at = at_ruler(plate, shift)
    if len(lines) == 1:
        words = lines[0].split()
        # Two lines of nearly the same length read better than one small one.
        cut = min(range(len(words) + 1), key=lambda n: max(len(" ".join(words[:n])), len(" ".join(words[n:]))))
        lines = tuple(line for line in (" ".join(words[:cut]), " ".join(words[cut:])) if line)
    longest = max((len(line) for line in lines), default=1)
    size = min(LEGEND, (at.width - 3) / max(longest, 1) / 0.92, (at.height - 2) / (1.5 * max(len(lines), 1)))
    shapes: list[Shape] = [box(at, role if role == "fails" else "second", 0.35, "card", key, "legend")]
    top = at.centre.y + size / 2 - (len(lines) - 1) * (size + 1.4) / 2
    for n, line in enumerate(lines):
        shapes.append(
            Text(
                at.centre.x,
                top + n * (size + 1.4),
                line,
                size,
                face=Face.PRINTED,
                align=Align.MIDDLE,
                layer="legend",
                key=key,
            )
        )
    return shapes


def _head(seat: PlacedOperator, x: float, y: float, key: Key | None, role: str) -> list[Shape]:
    kind = seat.part.kind
    lens = f"lens {seat.part.colour}" if seat.part.colour else "part"
    shapes: list[Shape] = [Circle(x, y, 15, role, 0.5, "card", "door", key)]
    if seat.is_mushroom:
        return [
            Circle(x, y, 30, role, 0.5, "lens yellow", "door", key),
            Circle(x, y, 20, role, 0.6, "lens red", "door", key),
            Arc(x, y, 12, 200, 140, "card", 1.2, "door", key),
        ]
    if kind.can(Can.SHOWS):
        d = 11 * HALF_ROOT
        return [
            *shapes,
            Circle(x, y, 11, role, 0.4, lens, "door", key),
            Line(x - d, y - d, x + d, y + d, "ink", 0.3, layer="door", key=key),
            Line(x - d, y + d, x + d, y - d, "ink", 0.3, layer="door", key=key),
        ]
    if kind.can(Can.TURNED):
        shapes.append(Circle(x, y, 12, role, 0.4, "part", "door", key))
        knob = Rect(x - 2.5, y - 11, 5, 22) if kind.can(Can.KNOB) else Rect(x - 1.2, y - 7, 2.4, 14)
        shapes.append(box(knob, role, 0.4, "second", key, "door"))
        return shapes
    if kind.can(Can.SOUNDS):
        shapes.append(Circle(x, y, 12, role, 0.4, "part", "door", key))
        for r in (3.0, 6.0, 9.0):
            shapes.append(Circle(x, y, r, "second", 0.35, "", "door", key))
        return shapes
    if kind.can(Can.SOCKET_IN_DOOR):
        return [*shapes, box(Rect(x - 8, y - 7, 16, 14), role, 0.4, "part", key, "door")]
    return [*shapes, Circle(x, y, 12, role, 0.4, lens, "door", key)]


def _back(seat: PlacedOperator, tags: Mapping[DeviceId, str], shift: Point, grown: float) -> list[Shape]:
    """One operator from behind: its nut, its blocks with their terminals, its depth."""
    x, y = seat.x + shift.x, seat.y + shift.y
    key = DeviceKey(seat.device)
    size = TAG * min(grown, 1.4)
    stack = stack_of(seat.part.kind, seat.part, seat.legend)
    if seat.is_shaft:
        shapes: list[Shape] = [
            Circle(x, y, NUT, "ink", 0.5, "card", "door", key),
            box(Rect(x - 4, y - 4, 8, 8), "ink", 0.6, "second", key, "door"),
            Text(x + NUT + 4, y + 3, f"{tags[seat.device]} shaft", size, face=Face.PRINTED_BOLD, key=key),
        ]
        return shapes
    if seat.cut:
        body = at_ruler(seat.behind, shift)
        middle = body.centre
        return [
            box(body, "ink", 0.5, "part", key, "door"),
            Text(middle.x, middle.y, tags[seat.device], size, "ink", Face.PRINTED_BOLD, Align.MIDDLE, key=key),
            Text(middle.x, middle.y + 9, f"{seat.depth:g} deep", WORD, "second", align=Align.MIDDLE, key=key),
        ]
    shapes = [Circle(x, y, NUT, "ink", 0.5, "card", "door", key)]
    if not stack.blocks:
        shapes.append(Circle(x, y, 10, "ink", 0.4, "part", "door", key))
    shapes += _blocks(stack, x, y, key)
    shapes.append(Text(x, y - NUT - 4, tags[seat.device], size, face=Face.PRINTED_BOLD, align=Align.MIDDLE, key=key))
    shapes.append(Text(x, y + NUT + 8, f"{seat.depth:g} deep", 4.6, "second", align=Align.MIDDLE, key=key))
    return shapes


def _blocks(stack: Stack, x: float, y: float, key: Key | None) -> Iterable[Shape]:
    wide, high = BLOCK
    where = {"left": -wide, "middle": 0.0, "right": wide}
    for block in sorted(stack.blocks, key=lambda block: block.layer):
        dx = where[block.way]
        lift = 2.0 * (block.layer - 1)
        rect = Rect(x + dx - wide / 2, y - high / 2 - lift, wide, high)
        yield box(rect, "ink", 0.4, "card" if block.what.startswith("lamp") else "part", key, "door")
        pins = block.pins[:2]
        kind = block.what.split()[0]
        for pin, at in zip(pins, (rect.y + 4.6, rect.bottom - 1.6), strict=False):
            yield Text(rect.centre.x, at, pin, 3.2, "ink", Face.PRINTED, Align.MIDDLE, key=key)
        symbol = kind if kind in ("NO", "NC") else "⊗"
        yield Text(rect.centre.x, rect.centre.y + 1.4, symbol, 3.2, "second", align=Align.MIDDLE, key=key)


def shadow_shapes(shadows: Iterable[tuple[str, Rect]], shift: Point) -> list[Shape]:
    """What stands behind the closed door, dashed: (words, shadow on the door).

    Args:
        shadows: What stands behind, by name, with its outline, mm.
        shift: How far everything is moved, mm.
    """
    shapes: list[Shape] = []
    for name, rect in shadows:
        at = at_ruler(rect, shift)
        shapes.append(dashed(box(at, "third", 0.4, layer="behind")))
        size = min(5.2, at.width / max(len(name), 1))
        if hypot(at.width, at.height) > 20:
            shapes.append(
                Text(at.centre.x, at.bottom - 2, name, size, "third", Face.PRINTED, Align.MIDDLE, layer="behind")
            )
    return shapes
