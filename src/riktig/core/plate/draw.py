"""Plate and door as true-scale drawings: 1 mm is 1 mm, the datum in the upper left corner."""

from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.geometry import Align, Circle, Drawing, Face, Line, Point, Rect, Shape, Text, run_of
from riktig.core.ids import PinRef
from riktig.core.job import DeviceId
from riktig.core.keys import DeviceKey, DuctKey, Key, PinKey, RailKey
from riktig.core.plate.bar_drawing import draw_bars
from riktig.core.plate.model import Duct, Layout, PlacedDevice, Rail
from riktig.core.plate.outlines import box, dashed
from riktig.core.schematic import Circuits, Names

__all__ = ["RULER", "DuctLevel", "at_ruler", "draw_plate", "grown_by", "rulers"]

RULER = 22.0
"""Room for the rulers left of and above the datum, mm."""
TAG, WORD, PIN = 8.4, 6.4, 5.2
GROWS_FROM, MOST_GROWN = 600.0, 2.0
"""From which length of the plate its texts grow with it, mm, and how far (chosen by us: it is seen whole)."""
NOTES = 90.0
"""Room right of the plate for what is said of each rail, mm."""


@dataclass(frozen=True, slots=True)
class DuctLevel:
    """The fill of a duct as it is drawn: pieces (from, to, share), the limit, and whether families are mixed in it."""

    parts: tuple[tuple[float, float, float], ...]
    limit: float
    mixed: bool = False


@dataclass(frozen=True, slots=True)
class _Names:
    tag: dict[DeviceId, str]
    purpose: dict[DeviceId, str]
    mark: dict[DeviceId, str]
    grown: float


def grown_by(plate: Rect) -> float:
    """How many times larger than on a small plate the texts are, so that a large one can be read when seen whole."""
    return min(max(max(plate.width, plate.height) / GROWS_FROM, 1.0), MOST_GROWN)


def draw_plate(
    layout: Layout, circuits: Circuits, names: Names, fill: dict[str, DuctLevel] | None = None, spare_share: float = 0.0
) -> Drawing:
    """The plate with rulers; keys are ``device:``, ``rail:`` and ``duct:``.

    Args:
        layout: The plate: where everything stands.
        circuits: All devices and rungs of the job.
        names: Tags of devices and numbers of nets.
        fill: How full each duct is along its length, by duct name: drawn as its level.
        spare_share: Share of each rail to hatch as spare where it is free at the end.
    """
    grown = grown_by(layout.plate)
    shown_names = _Names(
        names.tag,
        {d.id: d.purpose.split(", ")[-1] for d in circuits.devices},
        {d.id: d.mark for d in circuits.devices},
        grown,
    )
    shift = Point(RULER, RULER)
    shapes: list[Shape] = [box(at_ruler(layout.plate, shift), fill="panel", layer="plate")]
    shapes += rulers(layout.plate.width, layout.plate.height)
    for duct in layout.ducts:
        shapes += _duct(duct, shift, (fill or {}).get(duct.name), grown)
    for rail in layout.rails:
        shapes += _rail(rail, shift)
        shapes += _spare(layout, rail, shift, spare_share)
    for stand in layout.stands:
        shapes += draw_bars(stand, shift, WORD * min(grown, 1.4))
    for seat in layout.seats:
        shapes += _seat(seat, shown_names, shift)
    seats = {seat.device: seat for seat in layout.seats}
    strips = {d.strip: d for d in reversed(circuits.devices) if d.strip and d.id in seats}
    for first in strips.values():
        at = seats[first.id].rect
        shapes.append(
            Text(
                at.x + RULER - 5,
                at.y + RULER - 4,
                names.tag[first.id],
                (TAG - 1) * grown,
                face=Face.PRINTED_BOLD,
                key=DeviceKey(first.id),
            )
        )
    for rail in layout.rails:
        x, y = layout.plate.width + RULER + 8, rail.y + RULER
        key, free = RailKey(rail.name), f"{layout.free_on(rail):.0f} of {rail.length:g} free"
        size, place = WORD * grown, f"{rail.name} at {rail.y:g} mm"
        shapes += [
            Line(x - 6, y, x - 2, y, "third", 0.4, layer="notes", key=key),
            Text(x, y - 1, place, size, face=Face.BOLD, layer="notes", key=key),
            Text(x, y + 9 * grown, free, size, "second", layer="notes", key=key),
        ]
    page = (layout.plate.width + RULER + NOTES * grown, layout.plate.height + RULER + 4)
    return Drawing(*page, tuple(shapes), "Mounting plate")


def at_ruler(rect: Rect, shift: Point) -> Rect:
    """A rectangle of plate or door, moved to where the rulers leave room for it.

    Args:
        rect: The rectangle, mm from the datum.
        shift: How far everything is moved, mm.
    """
    return rect.moved(shift.x, shift.y)


def rulers(width: float, height: float) -> list[Shape]:
    """Rulers along two sides, every 10 mm, and the datum cross in the corner.

    Args:
        width: Outer width, mm.
        height: Outer height, mm.
    """
    shapes: list[Shape] = []
    size = PIN * min(grown_by(Rect(0, 0, width, height)), 1.35)
    for along, upright in ((width, False), (height, True)):
        for mm in range(0, int(along) + 1, 10):
            long = 6.0 if mm % 100 == 0 else 4.0 if mm % 50 == 0 else 2.0
            at = RULER + mm
            line = (RULER - 2, at, RULER - 2 - long, at) if upright else (at, RULER - 2, at, RULER - 2 - long)
            shapes.append(Line(*line, role="third", width=0.25, layer="ruler"))
            if mm % 100 == 0:
                x, y = (RULER - 9.5, at - 1.5) if upright else (at + 1.5, RULER - 9.5)
                shapes.append(Text(x, y, str(mm), size, "second", upright=not upright, layer="ruler"))
    cross: list[Shape] = [
        Line(RULER - 5, RULER, RULER + 5, RULER, "fails", 0.4, layer="ruler"),
        Line(RULER, RULER - 5, RULER, RULER + 5, "fails", 0.4, layer="ruler"),
        Circle(RULER, RULER, 3, "fails", 0.4, layer="ruler"),
    ]
    return shapes + cross


def _duct(duct: Duct, shift: Point, level: DuctLevel | None, grown: float) -> list[Shape]:
    rect = at_ruler(duct.rect, shift)
    key = DuctKey(duct.name)
    shapes: list[Shape] = [box(rect, "line", 0.5, "duct", key, "duct")]
    shapes += _level(duct, rect, level, shift, key) if level else []
    for n in range(int(duct.length // 8)):
        d = 4 + n * 8
        if duct.upright:
            y = rect.y + d
            shapes += [
                Line(rect.x, y, rect.x + 4, y, "line", 0.3, layer="duct"),
                Line(rect.right - 4, y, rect.right, y, "line", 0.3, layer="duct"),
            ]
        else:
            x = rect.x + d
            shapes += [
                Line(x, rect.y, x, rect.y + 4, "line", 0.3, layer="duct"),
                Line(x, rect.bottom - 4, x, rect.bottom, "line", 0.3, layer="duct"),
            ]
    share = max((part[2] for part in level.parts), default=0.0) if level else 0.0
    role = "judgement" if level and share > level.limit else "ink"
    text = duct.name + (f"  {share:.0%}" if share > 0 else "") + ("  mixed" if level and level.mixed else "")
    at = rect.centre
    shapes.append(
        Text(
            at.x + (2 if duct.upright else 0),
            at.y + (0 if duct.upright else 2),
            text,
            min(WORD * grown, 0.5 * (duct.rect.width if duct.upright else duct.rect.height)),
            role,
            Face.WORDS,
            Align.MIDDLE,
            not duct.upright,
            "text",
            key,
        )
    )
    return shapes


def _level(duct: Duct, rect: Rect, level: DuctLevel, shift: Point, key: Key | None) -> list[Shape]:
    """The fill, piece by piece: a level duct from its floor, an upright one from its middle to both sides."""
    shapes: list[Shape] = []
    for begin, end, share in level.parts:
        shown = min(share, 1.0)
        if shown <= 0.005:
            continue
        role = "judgement" if share > level.limit else "duct level"
        if duct.upright:
            wide = (rect.width - 2) * shown
            part = Rect(rect.centre.x - wide / 2, begin + shift.y, wide, end - begin)
        else:
            high = (rect.height - 2) * shown
            part = Rect(begin + shift.x, rect.bottom - 1 - high, end - begin, high)
        shapes.append(box(part, role, 0, role, key, "fill"))
    return shapes


def _rail(rail: Rail, shift: Point) -> list[Shape]:
    rect = Rect(rail.x1, rail.y - 17.5, rail.length, 35).moved(shift.x, shift.y)
    key = RailKey(rail.name)
    shapes: list[Shape] = [
        box(rect, "line", 0.4, "rail", key, "rail"),
        Line(rect.x, rect.y + 5, rect.right, rect.y + 5, "line", 0.25, layer="rail"),
        Line(rect.x, rect.bottom - 5, rect.right, rect.bottom - 5, "line", 0.25, layer="rail"),
        Text(rect.right - 2, rect.bottom + 6, rail.name, WORD, "second", align=Align.RIGHT, layer="text", key=key),
    ]
    return shapes


def _spare(layout: Layout, rail: Rail, shift: Point, share: float) -> list[Shape]:
    """The free end of a rail, as far as it serves the spare that is asked for."""
    ends = [stand.body.right - rail.x1 for stand in layout.stands if stand.rail == rail.number]
    free = rail.length - max(ends, default=0.0)
    want = min(free - 4, share * rail.length)
    if want < 12:
        return []
    rect = Rect(rail.x2 - want, rail.y - 22, want - 2, 44).moved(shift.x, shift.y)
    return [
        dashed(box(rect, "act", 0.3, "", RailKey(rail.name), "spare")),
        Text(rect.centre.x, rect.centre.y + 2, "spare", WORD, "act", align=Align.MIDDLE, layer="spare"),
    ]


def _seat(seat: PlacedDevice, names: _Names, shift: Point) -> list[Shape]:
    rect = at_ruler(seat.rect, shift)
    key = DeviceKey(seat.device)
    kind = seat.part.kind
    tag = names.tag[seat.device]
    if kind.can(Can.TERMINAL):
        return _terminal(rect, seat, names, key)
    if kind.can(Can.EARTH_BAR) or kind.can(Can.EARTH_STUD):
        return _earth(rect, seat, tag, key)
    shapes: list[Shape] = [box(rect, "ink", 0.6, "part", key, "device")]
    shown = {p.name for p in seat.part.kind.pins}
    crowded = seat.part.kind.can(Can.CROWDED_FRONT)
    for pin in seat.part.kind.pins:
        at = seat.pin_point(pin.name)
        x, y = at.x + shift.x, at.y + shift.y
        shapes.append(Circle(x, y, 1.5, "second", 0.35, "card", "pins", PinKey(PinRef(seat.device, pin.name))))
        if pin.name in shown and not (crowded and len(pin.name) > 1) and rect.width > 30:
            down = at.y < seat.rect.centre.y
            shapes.append(
                Text(
                    x,
                    y + (7 if down else -3),
                    pin.name,
                    PIN - 1.0,
                    "second",
                    Face.PRINTED,
                    Align.MIDDLE,
                    layer="pins",
                    key=key,
                )
            )
    middle = rect.centre
    lines = not kind.can(Can.GUARDS_CONTROL) and rect.height >= 24 + 12 * names.grown
    wish = TAG if rect.width > 30 else 6.0
    size = max(wish, min(wish * names.grown, 0.85 * rect.width / max(run_of(tag, mono=True), 0.5)))
    shapes.append(
        Text(
            middle.x,
            middle.y + (1 if lines else 2.5),
            tag,
            size,
            "ink",
            Face.PRINTED_BOLD,
            Align.MIDDLE,
            layer="text",
            key=key,
        )
    )
    if lines:
        word = names.purpose[seat.device]
        shapes.append(
            Text(
                middle.x,
                middle.y + min(10.5 * names.grown, rect.height / 2 - 3),
                word,
                min(WORD * names.grown, rect.width * 1.3 / max(len(word), 1)),
                "second",
                Face.WORDS,
                Align.MIDDLE,
                layer="text",
                key=key,
            )
        )
    return shapes


def _terminal(rect: Rect, seat: PlacedDevice, names: _Names, key: Key | None) -> list[Shape]:
    fill = f"terminal {seat.part.colour}"
    x = rect.centre.x
    return [
        box(rect, "ink", 0.35, fill, key, "device"),
        Circle(x, rect.y + 6, 1.5, "second", 0.3, "card", "pins", PinKey(PinRef(seat.device, "i"))),
        Circle(x, rect.bottom - 6, 1.5, "second", 0.3, "card", "pins", PinKey(PinRef(seat.device, "f"))),
        Text(
            x + 1.8, rect.centre.y, names.mark[seat.device], 4.4, "ink", Face.PRINTED, Align.MIDDLE, False, "text", key
        ),
    ]


def _earth(rect: Rect, seat: PlacedDevice, tag: str, key: Key | None) -> list[Shape]:
    if seat.part.kind.can(Can.EARTH_STUD):
        middle = rect.centre
        return [
            Circle(middle.x, middle.y, rect.width / 2, "ink", 0.5, "wire green-yellow", "device", key),
            Circle(middle.x, middle.y, 2, "ink", 0.35, "card", "device", key),
            Text(middle.x, rect.y - 3, tag, PIN, "ink", Face.PRINTED_BOLD, Align.MIDDLE, layer="text", key=key),
        ]
    shapes: list[Shape] = [box(rect, "ink", 0.5, "wire green-yellow", key, "device")]
    for pin in seat.part.kind.pins:
        x = rect.x + pin.across * rect.width
        shapes.append(Circle(x, rect.y + 6, 2.2, "ink", 0.35, "card", "pins", PinKey(PinRef(seat.device, pin.name))))
    shapes.append(Text(rect.x, rect.y - 3, tag, TAG - 1, "ink", Face.PRINTED_BOLD, key=key))
    return shapes
