"""Rails between ducts, blocks on rails: a plan at once, around what the builder has fixed."""

from riktig.core.circuit import Circuits, Device
from riktig.core.geometry import Rect
from riktig.core.job import DeviceId, Enclosure, PlateFix, Practice
from riktig.core.plate.blocks import is_bar, make_blocks
from riktig.core.plate.fit import misfits_of
from riktig.core.plate.model import EDGE, Block, Duct, Layout, Rail, Row, Seat
from riktig.core.sizing import Sizing

__all__ = ["GAP", "arrange", "with_block_at"]

LEAST_RUN = 40.0
"""Rail kept between the ducts whatever their width (chosen by us: so that something can be shown)."""
BAR_GAP = 14.0
"""Between the end of the terminals' rail and the earth bar (chosen by us: a screwdriver)."""
GAP = 5.0
"""Between blocks that ask for no room (chosen by us: a screwdriver's width for the release)."""

STUD_FOOT = 30.0
"""Kept at the foot of the plate for its earth studs, mm (chosen by us)."""
Placed = tuple[Block, int, float]


def arrange(
    circuits: Circuits, sizing: Sizing, enclosure: Enclosure, practice: Practice, fix: PlateFix | None
) -> Layout:
    """The whole plate.

    Method:
        Rows from the top: feed, starters, terminals; a row that is full spills to another rail
        below it. Ducts run up both sides and between the rails. Blocks go left to right in the
        order of the circuits. With ``fix`` the rails and placements of the builder hold, and
        what he has not placed takes the first gap of its row.

    Returns:
        A layout, always; what does not fit is in its ``misfits``.
    """
    blocks = make_blocks(circuits, sizing, practice.finger_room)
    plate = Rect(0, 0, enclosure.plate_width, enclosure.plate_height)
    width = min(practice.duct_width, (plate.width - 2 * EDGE - LEAST_RUN) / 2)
    left, right = EDGE + width, plate.width - EDGE - width
    run = max(right - left, 1.0)
    bars = [d for d in circuits.devices if is_bar(d)]
    beside = max((sizing.parts[bar.id].width + BAR_GAP for bar in bars), default=0.0)
    rows = _rows(blocks, run, run - beside)
    rails = _rails(rows, left, right, beside, width, fix)
    placed: list[Placed] = []
    if fix:
        placed = _as_fixed(blocks, fix, rails)
        done = {block.lead for block, _, _ in placed}
        for number, row in enumerate(rows, 1):
            for block in row:
                if block.lead not in done:
                    _into_gap(block, min(number, len(rails)), placed)
    else:
        for number, row in enumerate(rows, 1):
            _left_to_right(row, number, placed)
    placed.sort(key=lambda one: (one[1], one[2], one[0].lead))
    ducts = _ducts(rails, rows, plate, width)
    return _finished(plate, rails, ducts, tuple(placed), practice, circuits.devices, sizing)


def with_block_at(layout: Layout, lead: DeviceId, rail: int, offset: float) -> Layout:
    """The layout with one block elsewhere, as a preview: the same check as the plan's own."""
    blocks = tuple(
        (block, rail, offset) if block.lead == lead else (block, number, at) for block, number, at in layout.blocks
    )
    seats = _seats(layout.rails, blocks)
    fixed = tuple(seat for seat in layout.seats if seat.rail == 0 and not _in(blocks, seat))
    misfits = misfits_of(layout.plate, layout.rails, layout.ducts, blocks)
    return Layout(layout.plate, layout.rails, layout.ducts, blocks, seats + fixed, misfits)


def _in(blocks: tuple[Placed, ...], seat: Seat) -> bool:
    return any(member[0] == seat.device for block, _, _ in blocks for member in block.members)


def _needs(block: Block) -> float:
    return block.width + max(block.room_left, GAP)


def _rows(blocks: tuple[Block, ...], run: float, last_run: float) -> list[list[Block]]:
    rows: list[list[Block]] = []
    for which in Row:
        current: list[Block] = []
        used = 0.0
        limit = last_run if which is Row.TERMINALS else run
        for block in blocks:
            if block.row is not which:
                continue
            if current and used + _needs(block) > limit:
                rows.append(current)
                current, used = [], 0.0
            current.append(block)
            used += _needs(block)
        if current:
            rows.append(current)
    return rows


def _rails(
    rows: list[list[Block]], left: float, right: float, beside: float, width: float, fix: PlateFix | None
) -> tuple[Rail, ...]:
    """The rails; those for terminals end where the earth bar begins."""

    def end(number: int) -> float:
        row = rows[number - 1] if number <= len(rows) else []
        return max(right - beside, left + LEAST_RUN / 2) if row and row[0].row is Row.TERMINALS else right

    if fix and fix.rails:
        return tuple(Rail(one.number, one.y, left, end(one.number)) for one in fix.rails)
    rails: list[Rail] = []
    y = EDGE + width
    for number, row in enumerate(rows, 1):
        y += max(block.above + block.room_above for block in row)
        rails.append(Rail(number, round(y, 1), left, end(number)))
        y += max(block.below + block.room_below for block in row) + width
    return tuple(rails)


def _ducts(rails: tuple[Rail, ...], rows: list[list[Block]], plate: Rect, width: float) -> tuple[Duct, ...]:
    """Uprights at both sides, a level duct above every rail."""
    last = rails[-1].y if rails else plate.height / 2
    foot = min(plate.height - STUD_FOOT, last + 60)
    if not rails:
        return ()
    uprights = [
        Duct(1, Rect(EDGE, EDGE, width, foot - EDGE), True),
        Duct(2, Rect(plate.width - EDGE - width, EDGE, width, foot - EDGE), True),
    ]
    levels = []
    left = EDGE + width
    for index, rail in enumerate(rails):
        row = rows[min(index, len(rows) - 1)]
        y = rail.y - max(block.above + block.room_above for block in row) - width
        levels.append(Duct(3 + index, Rect(left, round(y, 1), plate.width - 2 * left, width), False))
    return (*uprights, *levels)


def _left_to_right(row: list[Block], number: int, placed: list[Placed]) -> None:
    x = 0.0
    for block in row:
        x += max(block.room_left, GAP)
        placed.append((block, number, round(x, 1)))
        x += block.width + block.room_right


def _as_fixed(blocks: tuple[Block, ...], fix: PlateFix, rails: tuple[Rail, ...]) -> list[Placed]:
    at = {one.device: one for one in fix.placements}
    known = {rail.number for rail in rails}
    return [
        (block, at[block.lead].rail, at[block.lead].offset)
        for block in blocks
        if block.lead in at and at[block.lead].rail in known
    ]


def _into_gap(block: Block, number: int, placed: list[Placed]) -> None:
    """Sets a block into the first gap of its rail, or after the last block."""
    there = sorted((at, at + one.width) for one, rail, at in placed if rail == number)
    x = max(block.room_left, GAP)
    for begin, end in there:
        if x + block.width + GAP <= begin:
            break
        x = max(x, end + max(block.room_left, GAP))
    placed.append((block, number, round(x, 1)))


def _seats(rails: tuple[Rail, ...], placed: tuple[Placed, ...]) -> tuple[Seat, ...]:
    by_number = {rail.number: rail for rail in rails}
    return tuple(
        Seat(
            device,
            part,
            Rect(
                round(by_number[number].x1 + offset + dx, 2),
                round(by_number[number].y + dy, 2),
                part.width,
                part.height,
            ),
            number,
        )
        for block, number, offset in placed
        for device, part, dx, dy in block.members
    )


def _finished(
    plate: Rect,
    rails: tuple[Rail, ...],
    ducts: tuple[Duct, ...],
    placed: tuple[Placed, ...],
    practice: Practice,
    devices: tuple[Device, ...],
    sizing: Sizing,
) -> Layout:
    seats = list(_seats(rails, placed))
    bar_y = rails[-1].y if rails else plate.height / 2
    for device in devices:
        part = sizing.parts[device.id]
        if is_bar(device):
            x = plate.width - EDGE - practice.duct_width - part.width - 4
            rect = Rect(x, bar_y - part.height / 2, part.width, part.height)
            seats.append(Seat(device.id, part, rect, 0))
            bar_y += part.height + BAR_GAP
        if device.id.endswith("E.plate"):
            x = plate.width - EDGE - part.width - 4
        elif device.id.endswith("E.box"):
            x = EDGE + 4
        else:
            continue
        y = plate.height - EDGE - part.height - 2
        seats.append(Seat(device.id, part, Rect(x, y, part.width, part.height), 0))
    return Layout(plate, rails, ducts, placed, tuple(seats), misfits_of(plate, rails, ducts, placed))
