"""What is shown of parts, rails and ducts while they move: their place, their room, and by how much they do not fit."""

from collections.abc import Mapping, Sequence
from math import hypot

from riktig.core.geometry import Align, Face, Line, Point, Rect, Shape, Text, run_of
from riktig.core.job import DeviceId
from riktig.core.plate import RULER, Layout, Misfit, Stand, box, room_around
from riktig.core.plate.outlines import dashed

__all__ = ["band_shapes", "furniture_shapes", "measure_shapes", "misfit_shapes", "stand_shapes"]

SAID = 3
"""How many misfits are said beside a part (chosen by us: more cannot be read while dragging)."""


def stand_shapes(
    layout: Layout, leads: Sequence[DeviceId], tags: Mapping[DeviceId, str], size: float = 5.0
) -> list[Shape]:
    """Blocks where they would stand; with one, its room to the ducts as well. ``size`` of what is said, mm."""
    moving = [stand for stand in layout.stands if stand.block.lead in leads]
    worst = [m for m in layout.misfits if m.device in leads or m.against in leads]
    return _shapes_of(layout, moving, worst, tags, size)


def misfit_shapes(layout: Layout, tags: Mapping[DeviceId, str], size: float = 5.0) -> list[Shape]:
    """Every block that does not fit, each by itself.

    Args:
        layout: The plate: where everything stands.
        tags: The tag of each device.
        size: Of what is said, mm.
    """
    wrong: dict[str, list[Misfit]] = {}
    for misfit in layout.misfits:
        wrong.setdefault(misfit.device, []).append(misfit)
        if misfit.against != misfit.device:
            wrong.setdefault(misfit.against, []).append(misfit)
    first = {misfit.device for misfit in layout.misfits}
    stands = sorted((s for s in layout.stands if s.block.lead in first), key=lambda stand: stand.block.lead)
    return [s for stand in stands for s in _shapes_of(layout, [stand], wrong[stand.block.lead], tags, size)]


def _shapes_of(
    layout: Layout, moving: Sequence[Stand], worst: Sequence[Misfit], tags: Mapping[DeviceId, str], size: float
) -> list[Shape]:
    """Some blocks with what does not fit of them."""
    shapes: list[Shape] = []
    misfits = {place for misfit in worst for place in (misfit.device, misfit.against)}
    for stand in moving:
        wrong = stand.block.lead in misfits
        shown = stand.body.moved(RULER, RULER)
        role = "fails" if wrong else "act"
        shapes.append(box(shown, role, 1.4, "fails soft" if wrong else "chosen"))
        if len(moving) == 1:
            shapes += _rooms(layout, stand, shown, size)
            shapes.append(Text(shown.x, shown.y - 3, _place(layout, stand), size, role, Face.BOLD, backed=True))
        shapes.append(
            Text(
                shown.centre.x,
                shown.centre.y + 2,
                tags.get(stand.block.lead, ""),
                min(7.0, shown.width / 4),
                role,
                Face.PRINTED_BOLD,
                Align.MIDDLE,
            )
        )
    if moving and worst:
        foot = max(stand.body.bottom for stand in moving) + RULER
        middle = sum(stand.body.centre.x for stand in moving) / len(moving) + RULER
        shapes += _misfit_words(worst, Point(middle, foot + 2 * size), layout, tags, size)
    return shapes


def _place(layout: Layout, stand: Stand) -> str:
    rail = layout.rail(stand.rail)
    return f"{stand.x - rail.x1:g} mm on {rail.name}" if rail else f"x {stand.x:g}  y {stand.y:g} mm"


def _rooms(layout: Layout, stand: Stand, shown: Rect, size: float) -> list[Shape]:
    shapes: list[Shape] = []
    for side, (has, needs) in room_around(stand.block, stand.body, layout.ducts).items():
        x = shown.centre.x
        y1, y2 = (shown.y - has, shown.y) if side == "above" else (shown.bottom, shown.bottom + has)
        short = "fails" if has < needs else "act"
        shapes += [
            Line(x, y1, x, y2, short, 0.6),
            Text(x + 2, (y1 + y2) / 2 + size / 2, f"{has:.0f} of {needs:.0f}", size, short, Face.BOLD, backed=True),
        ]
    return shapes


def _misfit_words(
    misfits: Sequence[Misfit], at: Point, layout: Layout, tags: Mapping[DeviceId, str], size: float
) -> list[Shape]:
    half = size * max(run_of(m.said(tags), mono=False) for m in misfits[:SAID]) / 2
    x = min(max(at.x, half + 4), max(layout.plate.width + 2 * RULER + 60 - half, half + 4))
    y = min(at.y, layout.plate.height + RULER - 1.6 * size * SAID)
    return [
        Text(x, y + 1.6 * size * n, m.said(tags), size, "fails", Face.BOLD, Align.MIDDLE, backed=True)
        for n, m in enumerate(misfits[:SAID])
    ]


def furniture_shapes(layout: Layout, name: str, tags: Mapping[DeviceId, str], size: float = 5.0) -> list[Shape]:
    """A rail or duct where it would be, with what stands on it and what it runs into."""
    rail = next((own_rail for own_rail in layout.rails if own_rail.name == name), None)
    duct = layout.duct(name)
    shapes: list[Shape] = []
    wrong = [m for m in layout.misfits if name in (m.device, m.against)]
    role = "fails" if wrong else "act"
    if rail:
        rect = Rect(rail.x1, rail.y - 17.5, max(rail.length, 1), 35)
        on_it = [stand for stand in layout.stands if stand.rail == rail.number]
        shapes += [dashed(box(stand.body.moved(RULER, RULER), "act", 0.8)) for stand in on_it]
        text = f"{name} at {rail.y:g} mm, from {rail.x1:g} to {rail.x2:g}: {rail.length:g} mm long"
    elif duct:
        rect = duct.rect
        wide = rect.width if duct.upright else rect.height
        text = f"{name} at x {rect.x:g}  y {rect.y:g} mm: {duct.length:g} long, {wide:g} wide"
    else:
        return []
    shown = rect.moved(RULER, RULER)
    shapes += [
        box(shown, role, 1.4, "fails soft" if wrong else "chosen"),
        Text(max(shown.x, RULER), shown.y - 3, text, size, role, Face.BOLD, backed=True),
    ]
    return shapes + (
        _misfit_words(wrong, Point(shown.centre.x, shown.bottom + 2 * size), layout, tags, size) if wrong else []
    )


def measure_shapes(a: Point, b: Point, size: float = 6.0) -> list[Shape]:
    """A measure between two points of the drawing: along, down and straight, mm."""
    along, down = abs(b.x - a.x), abs(b.y - a.y)
    middle = Point((a.x + b.x) / 2, (a.y + b.y) / 2)
    text = f"{along:.1f} along, {down:.1f} down: {hypot(along, down):.1f} mm"
    ends = [Line(p.x - 4, p.y, p.x + 4, p.y, "act", 0.6) for p in (a, b)]
    ends += [Line(p.x, p.y - 4, p.x, p.y + 4, "act", 0.6) for p in (a, b)]
    return [
        *ends,
        Line(a.x, a.y, b.x, b.y, "act", 0.9),
        Line(a.x, a.y, b.x, a.y, "act", 0.4, dashed=True),
        Line(b.x, a.y, b.x, b.y, "act", 0.4, dashed=True),
        Text(middle.x, middle.y - 3, text, size, "act", Face.BOLD, Align.MIDDLE, backed=True),
    ]


def band_shapes(a: Point, b: Point) -> list[Shape]:
    """The frame that is drawn round parts to choose them."""
    rect = Rect(min(a.x, b.x), min(a.y, b.y), abs(a.x - b.x), abs(a.y - b.y))
    return [dashed(box(rect, "act", 0.6))]
