"""Whether things fit, and by how many mm they do not. One check for plan, drag and rules."""

from itertools import combinations

from riktig.core.geometry import TOLERANCE_MM, Rect
from riktig.core.plate.model import EDGE, Block, Duct, Misfit, Rail

__all__ = ["body_of", "misfits_of", "room_around"]

Placed = tuple[Block, int, float]


def body_of(block: Block, rail: Rail, offset: float) -> Rect:
    """The outline of a block on its rail."""
    return Rect(rail.x1 + offset, rail.y - block.above, block.width, block.above + block.below)


def misfits_of(
    plate: Rect, rails: tuple[Rail, ...], ducts: tuple[Duct, ...], placed: tuple[Placed, ...]
) -> tuple[Misfit, ...]:
    """Everything that does not fit, worst first.

    Method:
        Beside each other, two blocks keep the larger of the rooms they ask for; above and below,
        a block keeps its room to every duct; no block reaches past its rail or the plate.
    """
    by_number = {rail.number: rail for rail in rails}
    found: list[Misfit] = []
    bodies = [
        (block, body_of(block, by_number[n], at), by_number[n])
        for block, n, at in sorted(placed, key=lambda one: one[0].lead)
    ]
    for (one, a, _), (other, b, _) in combinations(bodies, 2):
        if a.y < b.bottom and b.y < a.bottom:
            found += _between(one, a, other, b)
    for block, body, rail in bodies:
        out = max(rail.x1 - body.x, body.right - rail.x2)
        if out > TOLERANCE_MM:
            found.append(_misfit(block, out, rail.name, f"reaches {out:.0f} mm past {rail.name}"))
        under = body.bottom - (plate.height - EDGE / 2)
        if under > TOLERANCE_MM:
            found.append(_misfit(block, under, "plate", f"reaches {under:.0f} mm below the plate"))
        for duct in ducts:
            found += _to_duct(block, body, duct)
    return tuple(sorted(found, key=lambda one: (-one.by, one.device, one.against)))


def _misfit(block: Block, by: float, against: str, text: str) -> Misfit:
    return Misfit(block.lead, round(by, 1), against, text)


def _between(one: Block, a: Rect, other: Block, b: Rect) -> list[Misfit]:
    left, right = (one, other) if a.x <= b.x else (other, one)
    room = max(left.room_right, right.room_left)
    grown = a.grown(0, 0, room, 0) if left is one else a.grown(room, 0, 0, 0)
    across, down = grown.overlap(b)
    if not across:
        return []
    by = min(across, down)
    text = f"needs {by:.1f} mm more room beside its neighbour"
    return [_misfit(one, by, other.lead, text)]


def _to_duct(block: Block, body: Rect, duct: Duct) -> list[Misfit]:
    above, below = duct.rect.bottom <= body.centre.y, duct.rect.y >= body.centre.y
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
    """Room above and below a block to the ducts: (what there is, what it asks for)."""
    levels = [d.rect for d in ducts if not d.upright]
    above = [body.y - r.bottom for r in levels if r.bottom <= body.centre.y]
    below = [r.y - body.bottom for r in levels if r.y >= body.centre.y]
    rooms: dict[str, tuple[float, float]] = {}
    if above:
        rooms["above"] = (min(above), block.room_above)
    if below:
        rooms["below"] = (min(below), block.room_below)
    return rooms
