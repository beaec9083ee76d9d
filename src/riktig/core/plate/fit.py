"""Whether things fit, and by how many mm they do not. One check for plan, drag and rules."""

from collections.abc import Iterable, Sequence

from riktig.core.geometry import TOLERANCE_MM, Rect, near_pairs
from riktig.core.job import DeviceId
from riktig.core.keys import DuctKey, RailKey
from riktig.core.plate.model import EDGE, Block, Duct, Layout, Misfit, Rail, Stand

__all__ = ["RAIL_WIDTH", "body_of", "furniture_misfits", "meets", "misfits_about", "misfits_of", "room_around"]

TOUCH = 5.0
"""How far apart a level and an upright duct may be for a wire to go from one into the other, mm (chosen by us)."""
RAIL_WIDTH = 35.0
"""Of the top-hat rail, mm (IEC 60715, TH 35, from memory)."""


def body_of(block: Block, rail: Rail, offset: float) -> Rect:
    """The outline of a block on its rail.

    Args:
        block: The block.
        rail: The rail.
        offset: From the left end of the rail, mm.
    """
    return Rect(rail.x1 + offset, rail.y - block.above, block.width, block.height)


def misfits_of(layout: Layout) -> tuple[Misfit, ...]:
    """Everything that does not fit, worst first.

    Method:
        Beside each other, two blocks keep the larger of the rooms they ask for; above and below,
        a block keeps its room to every duct; no block reaches past its rail, the plate or the door.
    """
    stands = sorted(layout.stands, key=lambda stand: stand.block.lead)
    bodies = [stand.body for stand in stands]
    misfits = list(furniture_misfits(layout))
    most = max((max(s.block.room_left, s.block.room_right) for s in stands), default=0.0)
    for n, m in near_pairs(bodies, bodies, across=most):
        if n < m:
            misfits += _between(stands[n].block, bodies[n], stands[m].block, bodies[m])
    near = _near_ducts(layout, stands, bodies)
    for stand, body, ducts in zip(stands, bodies, near, strict=True):
        misfits += _misfits_alone(layout, stand, body, ducts)
    return _sorted(misfits)


def _near_ducts(layout: Layout, stands: Sequence[Stand], bodies: Sequence[Rect]) -> list[list[Duct]]:
    """Of each block the ducts that it lies over, or that are nearer above or below than any block asks for."""
    most = max((max(stand.block.room_above, stand.block.room_below) for stand in stands), default=0.0)
    near: list[list[Duct]] = [[] for _ in stands]
    for n, m in near_pairs(bodies, [duct.rect for duct in layout.ducts], down=most):
        near[n].append(layout.ducts[m])
    return near


def misfits_about(layout: Layout, leads: frozenset[DeviceId]) -> tuple[Misfit, ...]:
    """The misfits that some blocks take part in: what a drag has to say, at a fraction of the work.

    Args:
        layout: The plate: where everything stands.
        leads: The first devices of the blocks.
    """
    moving = sorted((s for s in layout.stands if s.block.lead in leads), key=lambda stand: stand.block.lead)
    misfits: list[Misfit] = []
    near = _near_ducts(layout, moving, [stand.body for stand in moving])
    for stand, ducts in zip(moving, near, strict=True):
        body = stand.body
        misfits += _misfits_alone(layout, stand, body, ducts)
        for other in layout.stands:
            twice = other.block.lead in leads and other.block.lead <= stand.block.lead
            if twice or other.y >= body.bottom or other.y + other.block.height <= body.y:
                continue
            first, second = sorted((stand, other), key=lambda s: s.block.lead)
            misfits += _between(first.block, first.body, second.block, second.body)
    return _sorted(misfits)


def furniture_misfits(layout: Layout) -> tuple[Misfit, ...]:
    """Rails and ducts that lie over each other or past the plate."""
    misfits: list[Misfit] = []
    ducts = layout.ducts
    rects = [duct.rect for duct in ducts]
    for n, m in near_pairs(rects, rects):
        deep = min(rects[n].overlap(rects[m])) if n < m else 0.0
        if deep:
            text = f"runs {deep:.0f} mm into {ducts[m].name}"
            misfits.append(_named(DuctKey(ducts[n].name), deep, ducts[m].name, text))
    uprights = [duct for duct in ducts if duct.upright]
    for duct in ducts:
        if not duct.upright and uprights and not meets(duct, uprights):
            away, near = min((_gap(duct.rect, upright.rect), upright.name) for upright in uprights)
            text = f"ends {away:.0f} mm from {near}, the nearest upright duct: no wire leaves it"
            misfits.append(_named(DuctKey(duct.name), away, near, text))
        out = duct.rect.sticks_out_of(layout.plate)
        if out:
            misfits.append(_named(DuctKey(duct.name), out, "plate", f"reaches {out:.0f} mm past the plate"))
    strips = [_strip(rail) for rail in layout.rails]
    for rail, strip in zip(layout.rails, strips, strict=True):
        out = strip.sticks_out_of(layout.plate)
        if out:
            misfits.append(_named(RailKey(rail.name), out, "plate", f"reaches {out:.0f} mm past the plate"))
    for n, m in near_pairs(strips, rects):
        deep = min(strips[n].overlap(rects[m]))
        if deep:
            text = f"runs {deep:.0f} mm into {ducts[m].name}"
            misfits.append(_named(RailKey(layout.rails[n].name), deep, ducts[m].name, text))
    return _sorted(misfits)


def _strip(rail: Rail) -> Rect:
    """What a rail covers of the plate."""
    return Rect(rail.x1, rail.y - RAIL_WIDTH / 2, max(rail.length, 0.0), RAIL_WIDTH)


def meets(level: Duct, uprights: list[Duct]) -> list[Duct]:
    """The upright ducts that a level one touches, so that wires go from one into the other.

    Args:
        level: The level duct.
        uprights: The upright ducts.
    """
    around = level.rect.grown(TOUCH)
    return [upright for upright in uprights if min(upright.rect.overlap(around))]


def _gap(a: Rect, b: Rect) -> float:
    """How far two rectangles are apart, mm."""
    across = max(b.x - a.right, a.x - b.right, 0.0)
    return max(across, b.y - a.bottom, a.y - b.bottom, 0.0)


def _sorted(misfits: Iterable[Misfit]) -> tuple[Misfit, ...]:
    return tuple(sorted(misfits, key=lambda misfit: (-misfit.by, misfit.device, misfit.against)))


def _named(piece: RailKey | DuctKey, by: float, against: str, text: str) -> Misfit:
    return Misfit(DeviceId(piece.name), round(by, 1), against, text, piece)


def _misfit(block: Block, by: float, against: str, text: str) -> Misfit:
    return Misfit(block.lead, round(by, 1), against, text)


def _misfits_alone(layout: Layout, stand: Stand, body: Rect, ducts: Iterable[Duct]) -> list[Misfit]:
    """What one block has against its rail, the plate, the door and the ducts near it."""
    block, misfits = stand.block, list[Misfit]()
    rail = layout.rail(stand.rail)
    if rail:
        out = max(rail.x1 - body.x, body.right - rail.x2)
        if out > TOLERANCE_MM:
            misfits.append(_misfit(block, out, rail.name, f"reaches {out:.0f} mm past {rail.name}"))
    else:
        out = body.sticks_out_of(layout.plate)
        if out:
            misfits.append(_misfit(block, out, "plate", f"reaches {out:.0f} mm past the plate"))
        for other in layout.rails:
            deep = min(body.overlap(_strip(other)))
            if deep:
                misfits.append(_misfit(block, deep, other.name, f"is screwed {deep:.0f} mm over {other.name}"))
    under = body.bottom - (layout.plate.height - EDGE / 2)
    if rail and under > TOLERANCE_MM:
        misfits.append(_misfit(block, under, "plate", f"reaches {under:.0f} mm below the plate"))
    short = block.depth - layout.depth
    if short > TOLERANCE_MM:
        misfits.append(_misfit(block, short, "door", f"is {short:.0f} mm too deep for the door to close"))
    middle = body.y + body.height / 2
    for duct in ducts:
        misfits += _to_duct(block, body, duct, middle)
    return misfits


def _between(block: Block, a: Rect, other: Block, b: Rect) -> list[Misfit]:
    left, right = (block, other) if a.x <= b.x else (other, block)
    room = max(left.room_right, right.room_left)
    grown = a.grown(0, 0, room, 0) if left is block else a.grown(room, 0, 0, 0)
    across, down = grown.overlap(b)
    if not across:
        return []
    by = min(across, down)
    text = f"needs {by:.1f} mm more room beside {{{other.lead}}}"
    return [_misfit(block, by, other.lead, text)]


def _to_duct(block: Block, body: Rect, duct: Duct, middle: float) -> list[Misfit]:
    above, below = duct.rect.bottom <= middle, duct.rect.y >= middle
    if duct.upright:
        across, _ = body.overlap(duct.rect)
        if not across:
            return []
        return [_misfit(block, across, duct.name, f"stands {across:.0f} mm in {duct.name}")]
    if min(body.right, duct.rect.right) - max(body.x, duct.rect.x) <= TOLERANCE_MM:
        return []
    if above:
        room, needs = body.y - duct.rect.bottom, block.room_above
    elif below:
        room, needs = duct.rect.y - body.bottom, block.room_below
    else:
        room, needs = -min(body.overlap(duct.rect)), 0.0
    short = needs - room
    if short <= TOLERANCE_MM:
        return []
    side = "above" if above else "below"
    text = f"needs {short:.0f} mm more {side} it than {duct.name} leaves"
    return [_misfit(block, short, duct.name, text)]


def room_around(block: Block, body: Rect, ducts: tuple[Duct, ...]) -> dict[str, tuple[float, float]]:
    """Room above and below a block to the ducts: (what there is, what it asks for).

    Args:
        block: The block.
        body: The outline of the block, mm.
        ducts: The ducts to be.
    """
    levels, middle = [d.rect for d in ducts if not d.upright], body.centre.y
    above = [body.y - bottom for r in levels if (bottom := r.bottom) <= middle]
    below = [r.y - body.bottom for r in levels if r.y >= middle]
    rooms: dict[str, tuple[float, float]] = {}
    if above:
        rooms["above"] = (min(above), block.room_above)
    if below:
        rooms["below"] = (min(below), block.room_below)
    return rooms
