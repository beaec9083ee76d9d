"""Rails between ducts, blocks on rails: a plan at once, around what the builder has fixed."""

from dataclasses import replace
from math import ceil, floor

from riktig.core.catalogue import Can
from riktig.core.geometry import Rect
from riktig.core.job import INCOMER_ID, DeviceId, Enclosure, EntrySide, PlateFix, Practice, Spot
from riktig.core.plate.blocks import make_blocks
from riktig.core.plate.joins import Assembly, joined
from riktig.core.plate.model import EDGE, Block, Duct, Layout, Rail, RailRow, Stand
from riktig.core.plate.place_blocks import finished
from riktig.core.plate.together import kept_together
from riktig.core.schematic import Circuits, Device
from riktig.core.sizing import Sizing

__all__ = [
    "BAR_GAP",
    "RAIL_FREE",
    "STUD_FOOT",
    "UPRIGHT_PAST_RAIL",
    "arrange",
    "is_beside",
    "is_loose",
    "lay_rows",
    "rail_run",
]

LEAST_RUN = 40.0
"""Rail kept between the ducts whatever their width (chosen by us: so that something can be shown)."""
BAR_GAP = 14.0
"""Between the end of the terminals' rail and the earth bar (chosen by us: a screwdriver)."""
RAIL_FREE = 5.0
"""Kept free at each end of a rail (chosen by us: an end stop, or a screwdriver for the release). Between two blocks
there is only the room that one of them asks for: breakers and terminals stand shoulder to shoulder."""
STUD_FOOT = 30.0
"""Kept at the foot of the plate for its earth studs, mm (chosen by us)."""
BAR_INSET = 4.0
"""Between a bar or stud and the duct or edge beside it (chosen by us)."""
UPRIGHT_PAST_RAIL = 60.0
"""How far the uprights run past the last rail (chosen by us: past the field side of the terminals)."""

Placed = tuple[Block, int, float]
Rows = list[list[Block]]


def arrange(
    circuits: Circuits,
    sizing: Sizing,
    enclosure: Enclosure,
    practice: Practice,
    fix: PlateFix | None,
    joins: tuple[Assembly, ...] = (),
) -> Layout:
    """The whole plate.

    Method:
        Rows from the top: feed, starters, terminals (first where the field cables come in from above); a
        row that is full spills to another rail below it. Ducts run up both sides and between the rails.
        Blocks go left to right in the order of the circuits, screwed ones at the right end, where the rail stops.
        With ``fix`` the rails, ducts and places of the builder hold, and what he has not placed takes
        the first gap of its row.

    Args:
        circuits: All devices and rungs of the job.
        sizing: The part of every device.
        enclosure: The enclosure.
        practice: The practice of the job.
        fix: What is kept of an earlier plan; None plans anew.
        joins: What the builder or the practice joined to blocks.

    Returns:
        A layout, always; what does not fit is in its ``misfits``.
    """
    turned, above = enclosure.field_entry is EntrySide.TOP, _supply_above(circuits, enclosure, fix)
    blocks = make_blocks(circuits, sizing, practice.finger_room, turned=turned, supply_above=above)
    placed_alone = {placement.device for placement in fix.placements} if fix else set()
    run = rail_run(enclosure, practice)
    taken = {device for join in joins for device in join.devices}
    blocks = kept_together(blocks, circuits, run, placed_alone | taken)
    american = practice.rulebook.north_american
    blocks = joined(blocks, joins, most_a=sizing.feeder.needs_a, north_american=american)
    shell = _Shell(blocks, enclosure, practice, circuits.devices, sizing)
    rows = _rows([b for b in blocks if not is_loose(b)], shell)
    if fix is None:
        return _laid(rows, shell)
    rails = _rails(rows, shell, fix)
    placed = _as_fixed(blocks, fix, rails)
    spots = {spot.device: spot for spot in fix.spots}
    done = {block.lead for block, _, _ in placed} | spots.keys()
    for number, row in enumerate(rows, 1):
        for block in row:
            if block.lead not in done:
                _into_gap(block, min(number, len(rails)), placed)
    ducts = tuple(Duct(d.number, Rect(d.x, d.y, d.width, d.height), d.upright) for d in fix.ducts)
    return _standing(rows, rails, placed, spots, ducts, shell)


def lay_rows(rows: Rows, circuits: Circuits, sizing: Sizing, enclosure: Enclosure, practice: Practice) -> Layout:
    """The plate with the blocks in given rows, packed from the left; ducts and rails as they ask."""
    turned = enclosure.field_entry is EntrySide.TOP
    run = rail_run(enclosure, practice)
    blocks = kept_together(
        make_blocks(
            circuits, sizing, practice.finger_room, turned=turned, supply_above=_supply_above(circuits, enclosure, None)
        ),
        circuits,
        run,
        frozenset(),
    )
    filled_rows = [sorted(row, key=lambda block: block.screwed) for row in rows if row]
    return _laid(filled_rows, _Shell(blocks, enclosure, practice, circuits.devices, sizing))


def _supply_above(circuits: Circuits, enclosure: Enclosure, fix: PlateFix | None) -> bool:
    """Whether the terminals of the supply stand by themselves above; not where he put them on the last rail."""
    if enclosure.entry is not EntrySide.TOP or enclosure.field_entry is EntrySide.TOP:
        return False
    of_supply = {device.id for device in circuits.devices if device.strip and device.circuit == INCOMER_ID}
    if fix is None or len(fix.rails) < 2:
        return True
    last = max((rail.y, rail.number) for rail in fix.rails)[1]
    return all(place.rail != last for place in fix.placements if place.device in of_supply)


def rail_run(enclosure: Enclosure, practice: Practice) -> float:
    """What stands side by side on one rail, mm at most."""
    return enclosure.plate_width - 2 * (practice.duct_width + EDGE) - 2 * RAIL_FREE


class _Shell:
    """The plate before anything stands on it, and what is to stand there."""

    def __init__(
        self,
        blocks: tuple[Block, ...],
        enclosure: Enclosure,
        practice: Practice,
        devices: tuple[Device, ...],
        sizing: Sizing,
    ) -> None:
        self.blocks, self.devices, self.sizing = blocks, devices, sizing
        self.plate = Rect(0, 0, enclosure.plate_width, enclosure.plate_height)
        self.depth = enclosure.plate_depth
        self.turned = enclosure.field_entry is EntrySide.TOP
        self.duct = min(practice.duct_width, max((self.plate.width - 2 * EDGE - LEAST_RUN) / 2, 1.0))
        self.left, self.right = EDGE + self.duct, self.plate.width - EDGE - self.duct
        self.beside = max((b.width + BAR_GAP for b in blocks if is_beside(b)), default=0.0)

    @property
    def run(self) -> float:
        return max(self.right - self.left, 1.0)


def _laid(rows: Rows, shell: _Shell) -> Layout:
    rails = _rails(rows, shell, None)
    placed: list[Placed] = []
    for number, row in enumerate(rows, 1):
        _packed(row, number, rails[number - 1].length, placed)
    return _standing(rows, rails, placed, {}, (), shell)


def _standing(
    rows: Rows,
    rails: tuple[Rail, ...],
    placed: list[Placed],
    spots: dict[DeviceId, Spot],
    ducts: tuple[Duct, ...],
    shell: _Shell,
) -> Layout:
    placed.sort(key=lambda placed_block: (placed_block[1], placed_block[2], placed_block[0].lead))
    by_number = {rail.number: rail for rail in rails}
    stands = [_stand(block, by_number[number], offset) for block, number, offset in placed]
    stands += [Stand(b, 0, spots[b.lead].x, spots[b.lead].y) for b in shell.blocks if b.lead in spots]
    stands += _beside_rows([b for b in shell.blocks if is_loose(b) and b.lead not in spots], rails, rows, shell)
    if not ducts:
        rails = tuple(_up_to_screwed(rail, stands) for rail in rails)
        ducts = _ducts_for(rails, [_highest(row) for row in rows], shell)
    bare = Layout(shell.plate, shell.depth, rails, ducts, tuple(stands), (), ())
    return finished(bare, shell.devices, shell.sizing)


def is_loose(block: Block) -> bool:
    """Whether it has a place of its own rather than one in a row: an earth bar, a stud."""
    return block.screwed and block.row is RailRow.TERMINALS


def is_beside(block: Block) -> bool:
    """Whether it stands beside the terminals: an earth bar."""
    return is_loose(block) and block.members[0][1].kind.can(Can.EARTH_BAR)


def _needs_of(block: Block) -> float:
    """Rail a block takes with the room it asks for beside it, mm."""
    return block.width + max(block.room_left, block.room_right)


def _rows(blocks: list[Block], shell: _Shell) -> Rows:
    rows: Rows = []
    order = (RailRow.TERMINALS, RailRow.FEED, RailRow.STARTERS) if shell.turned else tuple(RailRow)
    for which in order:
        current: list[Block] = []
        used = 0.0
        limit = shell.run - shell.beside if which is RailRow.TERMINALS else shell.run
        for block in blocks:
            if block.row is not which:
                continue
            if current and used + _needs_of(block) > limit:
                rows.append(current)
                current, used = [], 0.0
            current.append(block)
            used += _needs_of(block)
        if current:
            rows.append(current)
    return [sorted(row, key=lambda block: block.screwed) for row in rows]


def _is_strips(row: list[Block]) -> bool:
    return bool(row) and row[0].row is RailRow.TERMINALS


def _rails(rows: Rows, shell: _Shell, fix: PlateFix | None) -> tuple[Rail, ...]:
    """The rails; those for terminals end where the earth bar begins."""

    def end(number: int) -> float:
        strips = number <= len(rows) and _is_strips(rows[number - 1])
        return max(shell.right - shell.beside, shell.left + LEAST_RUN / 2) if strips else shell.right

    if fix and fix.rails:
        return tuple(
            Rail(
                rail.number,
                rail.y,
                shell.left if rail.x1 is None else rail.x1,
                end(rail.number) if rail.x2 is None else rail.x2,
            )
            for rail in fix.rails
        )
    rails: list[Rail] = []
    y = EDGE
    for number, row in enumerate(rows, 1):
        y += 0.0 if _is_strips(row) and row[0].turned else shell.duct
        y += _highest(row)
        rails.append(Rail(number, round(y, 1), shell.left, end(number)))
        y += max(block.below + block.room_below for block in row)
    return tuple(rails)


def _highest(row: list[Block]) -> float:
    return max(block.above + block.room_above for block in row)


def _up_to_screwed(rail: Rail, stands: list[Stand]) -> Rail:
    """The rail, cut where the screwed blocks at its end begin."""
    screwed = [s.x for s in stands if s.rail == 0 and s.y < rail.y < s.body.bottom and rail.x1 <= s.x < rail.x2]
    return (
        replace(rail, x2=max(min([*screwed, rail.x2]) - (RAIL_FREE if screwed else 0.0), rail.x1)) if screwed else rail
    )


def _ducts_for(rails: tuple[Rail, ...], highest: list[float], shell: _Shell) -> tuple[Duct, ...]:
    """Uprights at both sides, a level duct above every rail but that of terminals that stand head down.

    Args:
        rails: The rails to be.
        highest: How far the blocks of each row and their room reach above its rail, mm.
        shell: The room that the plate gives.
    """
    if not rails:
        return ()
    plate, width = shell.plate, shell.duct
    # On a plate too small for it, furniture has next to no size: what stands on it says by how much it lacks room.
    foot = max(min(plate.height - STUD_FOOT, rails[-1].y + UPRIGHT_PAST_RAIL), EDGE + 1.0)
    uprights = [
        Duct(1, Rect(EDGE, EDGE, width, foot - EDGE), True),
        Duct(2, Rect(plate.width - EDGE - width, EDGE, width, foot - EDGE), True),
    ]
    levels: list[Duct] = []
    left = EDGE + width
    for index, rail in enumerate(rails):
        if shell.turned and index == 0:
            continue
        y = rail.y - highest[min(index, len(highest) - 1)] - width
        levels.append(Duct(3 + len(levels), Rect(left, round(y, 1), max(plate.width - 2 * left, 1.0), width), False))
    return (*uprights, *levels)


def _packed(row: list[Block], number: int, run: float, placed: list[Placed]) -> None:
    """A row from the left on; screwed blocks at the right end of the ``run``, mm, with the free rail before them."""
    x, before = 0.0, RAIL_FREE
    made: list[Placed] = []
    for block in row:
        x = ceil(10 * (x + max(block.room_left, before)) - 1e-6) / 10
        made.append((block, number, x))
        x, before = x + block.width, block.room_right
    free = max(floor(10 * (run - x - before) + 1e-6) / 10, 0.0)
    placed += [(block, number, at + free if block.screwed else at) for block, number, at in made]


def _as_fixed(blocks: tuple[Block, ...], fix: PlateFix, rails: tuple[Rail, ...]) -> list[Placed]:
    at = {placement.device: placement for placement in fix.placements}
    known = {rail.number for rail in rails}
    return [
        (block, at[block.lead].rail, at[block.lead].offset)
        for block in blocks
        if block.lead in at and at[block.lead].rail in known
    ]


def _into_gap(block: Block, number: int, placed: list[Placed]) -> None:
    """Sets a block into the first gap of its rail, or after the last block."""
    there = sorted([(at, other) for other, rail, at in placed if rail == number], key=lambda stand: stand[0])
    x = max(block.room_left, RAIL_FREE)
    for begin, other in there:
        if x + block.width + max(block.room_right, other.room_left) <= begin:
            break
        x = max(x, begin + other.width + max(block.room_left, other.room_right))
    placed.append((block, number, round(x, 1)))


def _stand(block: Block, rail: Rail, offset: float) -> Stand:
    number = 0 if block.screwed else rail.number
    return Stand(block, number, round(rail.x1 + offset, 2), round(rail.y - block.above, 2))


def _beside_rows(loose: list[Block], rails: tuple[Rail, ...], rows: Rows, shell: _Shell) -> list[Stand]:
    """Earth bars in a stack beside the terminals, the plate's studs at its foot."""
    plate, width = shell.plate, shell.duct
    strips = next((n for n, row in enumerate(rows) if _is_strips(row)), len(rows))
    turned = strips < len(rows) and rows[strips][0].turned
    bar_y = rails[0 if turned else -1].y if rails else plate.height / 2
    bars = [block for block in loose if is_beside(block)]
    foot = bar_y + sum(block.height + BAR_GAP for block in bars) - BAR_GAP - max((b.above for b in bars), default=0.0)
    if bars and bar_y < plate.height - EDGE:
        bar_y -= max(foot - (plate.height - EDGE), 0.0)  # a high stack grows upwards beside the terminals
    made: list[Stand] = []
    for block in loose:
        if is_beside(block):
            x = plate.width - EDGE - width - block.width - BAR_INSET
            made.append(Stand(block, 0, round(x, 2), round(bar_y - block.above, 2)))
            bar_y += block.height + BAR_GAP
        else:
            studs = sum(not is_beside(stand.block) for stand in made)  # side by side, the plate's own at the right
            x = plate.width - EDGE - block.width - BAR_INSET - studs * (block.width + BAR_GAP)
            made.append(Stand(block, 0, x, plate.height - EDGE - block.height - BAR_INSET / 2))
    return made
