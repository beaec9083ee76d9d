"""Moves of several blocks at once: pushed aside, swapped, aligned, spread, laid out like another circuit.

Each says where the blocks would stand, for the preview as for the edit; nothing here judges whether they fit.
"""

from collections.abc import Iterable, Sequence
from dataclasses import replace
from enum import Enum

from riktig.core.errors import RiktigError
from riktig.core.geometry import TOLERANCE_MM
from riktig.core.ids import circuit_of, role_of
from riktig.core.job import CircuitId, DeviceId
from riktig.core.plate.model import Block, Layout, Rail, Stand
from riktig.core.schematic import Circuits

__all__ = ["Edge", "aligned", "circuits_alike", "laid_out_like", "pushed_aside", "shifted", "spread", "swapped"]


class Edge(Enum):
    """What of several blocks is brought into line; the first chosen stays."""

    LEFT = "left edges"
    MIDDLE = "middles"
    RIGHT = "right edges"
    TOP = "upper edges"
    BOTTOM = "lower edges"


def _room(left: Block, right: Block) -> float:
    return max(left.room_right, right.room_left)


def shifted(stands: Iterable[Stand], dx: float, dy: float, layout: Layout) -> tuple[Stand, ...]:
    """Blocks moved together; those on rails go to the rail that is nearest to where they would come.

    Args:
        stands: The blocks with their places.
        dx: To the right, mm.
        dy: Down, mm.
        layout: The plate: where everything stands.
    """
    moved = []
    for stand in stands:
        if stand.rail and layout.rails:
            line = stand.y + stand.block.above + dy
            rail = min(layout.rails, key=lambda other: abs(other.y - line))
            moved.append(Stand(stand.block, rail.number, round(stand.x + dx, 2), round(rail.y - stand.block.above, 2)))
        else:
            moved.append(replace(stand, x=round(stand.x + dx, 2), y=round(stand.y + dy, 2)))
    return tuple(moved)


def pushed_aside(layout: Layout, stand: Stand, locked: frozenset[DeviceId] = frozenset()) -> tuple[Stand, ...]:
    """A block put in at its place, and its neighbours on the rail moved as far as they must and no further.

    A locked neighbour stays, and what would push it stays in its way: that is for the judgement to say.

    Args:
        layout: The plate: where everything stands.
        stand: The block with its place.
        locked: What stays where it is.
    """
    there = [s for s in layout.stands if s.rail == stand.rail and s.rail and s.block.lead != stand.block.lead]
    middle = stand.body.centre.x
    moved = [stand]
    at = stand
    for other in sorted((s for s in there if s.body.centre.x >= middle), key=lambda s: s.x):
        least = at.body.right + _room(at.block, other.block)
        if other.x < least - TOLERANCE_MM and other.block.lead not in locked:
            other = replace(other, x=round(least, 2))
            moved.append(other)
        at = other
    at = stand
    for other in sorted((s for s in there if s.body.centre.x < middle), key=lambda s: -s.body.right):
        most = at.x - _room(other.block, at.block) - other.block.width
        if other.x > most + TOLERANCE_MM and other.block.lead not in locked:
            other = replace(other, x=round(most, 2))
            moved.append(other)
        at = other
    return tuple(moved)


def swapped(layout: Layout, device: DeviceId, other: DeviceId) -> tuple[Stand, ...]:
    """Two blocks in each other's place; on one rail they keep the outer edges of the two.

    Args:
        layout: The plate: where everything stands.
        device: One device.
        other: The other device.

    Raises:
        RiktigError: one of them does not stand on the plate, or a screwed one would come onto a rail.
    """
    a, b = layout.stand_of(device), layout.stand_of(other)
    if a is None or b is None or a is b:
        raise RiktigError("Two different parts of the plate are needed to change places.")
    if (a.rail == 0) != (b.rail == 0):
        raise RiktigError("One of the two is screwed to the plate and the other stands on a rail: they cannot swap.")
    if a.x > b.x:
        a, b = b, a
    if a.rail == b.rail and a.rail:
        return (replace(b, x=a.x), replace(a, x=round(b.body.right - a.block.width, 2)))
    to_a, to_b = a.y + a.block.above, b.y + b.block.above
    return (
        replace(b, rail=a.rail, x=a.x, y=round(to_a - b.block.above, 2)),
        replace(a, rail=b.rail, x=b.x, y=round(to_b - a.block.above, 2)),
    )


def aligned(stands: Sequence[Stand], edge: Edge) -> tuple[Stand, ...]:
    """Blocks brought into line with the first; up and down only those that are screwed can move.

    Args:
        stands: The blocks with their places.
        edge: Which edges are brought in line.

    Raises:
        RiktigError: fewer than two, or nothing that could move.
    """
    if len(stands) < 2:
        raise RiktigError("Choose at least two parts: hold Ctrl and click.")
    first = stands[0].body
    if edge in (Edge.TOP, Edge.BOTTOM):
        free = [s for s in stands[1:] if not s.rail]
        if not free:
            raise RiktigError("What stands on a rail cannot be moved up or down: move the rail.")
        return tuple(
            replace(s, y=round(first.y if edge is Edge.TOP else first.bottom - s.block.height, 2)) for s in free
        )
    share = {Edge.LEFT: 0.0, Edge.MIDDLE: 0.5, Edge.RIGHT: 1.0}[edge]
    line = first.x + share * first.width
    return tuple(replace(s, x=round(line - share * s.block.width, 2)) for s in stands[1:])


def spread(stands: Sequence[Stand]) -> tuple[Stand, ...]:
    """Blocks of one row with equal gaps between the outermost two.

    Raises:
        RiktigError: fewer than three, or not of one rail.
    """
    if len(stands) < 3:
        raise RiktigError("Choose at least three parts to spread evenly: hold Ctrl and click.")
    if len({s.rail for s in stands}) > 1:
        raise RiktigError("Only parts of one rail can be spread evenly.")
    row = sorted(stands, key=lambda s: s.x)
    free = row[-1].body.right - row[0].x - sum(s.block.width for s in row)
    gap, x, moved = free / (len(row) - 1), row[0].x, []
    for stand in row:
        moved.append(replace(stand, x=round(x, 2)))
        x += stand.block.width + gap
    return tuple(moved[1:-1])


def circuits_alike(layout: Layout, circuits: Circuits, model: CircuitId) -> tuple[CircuitId, ...]:
    """The circuits that could be laid out like one: those with parts of the same roles on the plate.

    Args:
        layout: The plate: where everything stands.
        circuits: All devices and rungs of the job.
        model: The circuit that is laid out already.
    """
    roles = set(_roles(layout, model))
    others = dict.fromkeys(d.circuit for d in circuits.devices if d.circuit != model)
    return tuple(other for other in others if roles and roles <= set(_roles(layout, other)))


def laid_out_like(layout: Layout, model: CircuitId, circuit: CircuitId) -> tuple[Stand, ...]:
    """The parts of a circuit on the same rails and at the same distances as those of a model, one column further.

    Method:
        The column is shifted to the right of the model, past whatever else stands there, by the least that
        makes room on every rail; when there is none to the right, to the left.

    Args:
        layout: The plate: where everything stands.
        model: The circuit that is laid out already.
        circuit: Which circuit.

    Raises:
        RiktigError: the circuit has not all the parts of the model.
    """
    want, have = _roles(layout, model), _roles(layout, circuit)
    if not want or not want.keys() <= have.keys():
        raise RiktigError("The two circuits have not the same parts, so one cannot be laid out like the other.")
    moving = {have[role].block.lead for role in want}
    others = [s for s in layout.stands if s.block.lead not in moving]
    steps = sorted(_steps(want, have, others), key=lambda dx: (dx < 0, abs(dx)))
    for dx in steps:
        made = tuple(_shifted_like(have[role], want[role], dx) for role in want)
        if all(_is_clear(s, others, layout.rail(s.rail)) for s in made):
            return made
    raise RiktigError("There is no column left with room for all its parts.", hint="Make room beside the model first.")


def _roles(layout: Layout, circuit: CircuitId) -> dict[str, Stand]:
    """The blocks of a circuit by what they are in it: their role."""
    return {role_of(s.block.lead): s for s in layout.stands if circuit_of(s.block.lead) == circuit}


def _shifted_like(stand: Stand, model: Stand, dx: float) -> Stand:
    line = model.y + model.block.above
    return replace(stand, rail=model.rail, x=round(model.x + dx, 2), y=round(line - stand.block.above, 2))


def _steps(want: dict[str, Stand], have: dict[str, Stand], others: list[Stand]) -> set[float]:
    """Shifts that bring some part against a neighbour, to the right or the left."""
    steps: set[float] = set()
    for role, model in want.items():
        block = have[role].block
        for other in others:
            if other.rail == model.rail:
                steps.add(round(other.body.right + _room(other.block, block) - model.x, 2))
                steps.add(round(other.x - _room(block, other.block) - block.width - model.x, 2))
    return steps


def _is_clear(stand: Stand, others: list[Stand], rail: Rail | None) -> bool:
    body = stand.body
    if rail and (body.x < rail.x1 - TOLERANCE_MM or body.right > rail.x2 + TOLERANCE_MM):
        return False
    for other in others:
        left, right = (stand, other) if stand.x <= other.x else (other, stand)
        room = _room(left.block, right.block)
        apart = right.x - left.body.right >= room - TOLERANCE_MM
        over = body.y < other.body.bottom - TOLERANCE_MM and other.y < body.bottom - TOLERANCE_MM
        if over and not apart:
            return False
    return True
