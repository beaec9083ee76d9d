"""A plate to be planned, as numbers: what stands where is open, what is locked is not."""

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import NamedTuple

import numpy as np

from riktig.core.catalogue import Can, Mounting, Side
from riktig.core.door.door_types import WIRING_DEPTH, DoorPlan, to_door
from riktig.core.geometry import Point
from riktig.core.ids import role_of
from riktig.core.job import IMPLIED, INCOMER_ID, DeviceId, Enclosure, EntrySide, PinRef, Practice
from riktig.core.optimiser.tables import BEHIND, COLUMN, RAIL, UNIT, WIRE, Numbers, Order, PlateFigures, Question, Table
from riktig.core.plate.first_layout import BAR_GAP, RAIL_FREE, STUD_FOOT, UPRIGHT_PAST_RAIL, is_beside, is_loose
from riktig.core.plate.model import EDGE, Block, Layout, RailRow, Stand
from riktig.core.schematic import Circuits, Device, Zone
from riktig.core.sizing import Losses

__all__ = ["PanelToPlan", "Problem", "Tie", "problem_of"]


STIFF_MM2 = 6.0
"""A wire of this section counts twice its length: it is dear, and hard to lay (chosen by us)."""


class Tie(NamedTuple):
    """A wire as the plan of now has it: its two pins, and its section, mm²."""

    a: PinRef
    b: PinRef
    mm2: float = 0.0


@dataclass(frozen=True, eq=False, slots=True)
class Problem:
    """The plate as tables for ``kernel``, and what its units and rows are.

    Shapes: ``strips`` (rows,), ``group`` (free,), ``member`` (circuits, roles); ``now`` is the plan of now. ``free``
    units are numbered first.
    """

    blocks: tuple[Block, ...]
    free: int
    question: Question
    strips: Numbers
    group: Numbers
    member: Numbers
    now: Order
    layout: Layout
    outside: int
    """Wires with an end that the plan does not move, such as those within the door."""
    enclosure: Enclosure
    practice: Practice
    locked: frozenset[DeviceId] = field(default_factory=frozenset)

    @property
    def is_fixed(self) -> bool:
        """Whether rails and ducts stay where they are, because of locks."""
        return self.question.plate.fixed > 0

    @property
    def same_as(self) -> bytes:
        """Equal for two problems that ask the same."""
        *tables, plate = self.question
        return b"|".join([*(table.tobytes() for table in tables), self.strips.tobytes(), repr(plate).encode()])


@dataclass(frozen=True, slots=True, eq=False)
class PanelToPlan:
    """The panel as it stands, as far as its plate is planned after it."""

    layout: Layout
    circuits: Circuits
    door: DoorPlan
    losses: Losses
    """The heat of every device, W."""
    enclosure: Enclosure
    practice: Practice
    ties: tuple[Tie, ...] = ()
    """The wires of the layout: which pins are joined."""
    low_voltage: frozenset[PinRef] = frozenset()
    """Pins that carry extra-low voltage."""


def problem_of(panel: PanelToPlan, locked: frozenset[DeviceId] = frozenset(), *, bundled: bool = True) -> Problem:
    """The problem that a layout is one answer to.

    Args:
        panel: The panel as it stands.
        locked: Leads of blocks that stay; with any, rails and ducts stay too.
        bundled: Wires between the same sides of the same two units as one, in their middle: quicker, and a
            few mm off; not for figures that must be exact.
    """
    layout, circuits, enclosure, practice = panel.layout, panel.circuits, panel.enclosure, panel.practice
    devices = circuits.by_id
    turned = any(stand.block.turned and stand.block.row is RailRow.TERMINALS for stand in layout.stands)
    rows = _rows_of(layout, turned, spare_rows=0 if locked else 1)
    at = {lead: (r, k) for r, row in enumerate(rows.leads) for k, lead in enumerate(row)}
    stands = {stand.block.lead: stand for stand in layout.stands}
    free = [lead for row in rows.leads for lead in row if lead not in locked]
    still = [s.block.lead for s in layout.stands if s.block.lead not in free]
    leads = [*free, *still]
    index = {lead: k for k, lead in enumerate(leads)}
    warm = {loss.device: loss.watts for loss in panel.losses}
    low = {pin.device for pin in panel.low_voltage}
    unit = np.zeros(len(leads), UNIT)
    for lead, k in index.items():
        stand = stands[lead]
        in_row = lead in at
        fixed_row = -1 if lead in free else at[lead][0] if in_row else rows.strips_row
        unit[k] = _unit(stand, devices, warm, low, fixed_row, takes_rail=in_row)
    behind = _behind(panel.door, enclosure)
    plate = PlateFigures(
        width=layout.plate.width,
        height=layout.plate.height,
        edge=EDGE,
        duct=_duct_width(layout, practice),
        rail_free=RAIL_FREE,
        beside=max((s.block.width + BAR_GAP for s in layout.stands if is_beside(s.block)), default=0.0),
        turned=turned,
        fixed=bool(locked),
        foot=STUD_FOOT,
        past=UPRIGHT_PAST_RAIL,
        spare=practice.spare_share,
        clear=min(behind["depth"], default=np.inf),
        entry_top=enclosure.entry is EntrySide.TOP,
    )
    seq = [index[lead] for row in rows.leads for lead in row if lead in index and lead not in locked]
    counts = [sum(lead not in locked for lead in row) for row in rows.leads]
    wire, outside = _wires(panel, index, stands, rows.strips_of_now, bundled=bundled)
    return Problem(
        tuple(stands[lead].block for lead in leads),
        len(free),
        Question(
            unit,
            wire,
            _columns(leads, devices, len(free)),
            behind,
            _rails(layout, len(rows.leads)) if locked else np.zeros(len(rows.leads), RAIL),
            PlateFigures(*map(float, plate)),
        ),
        np.array(rows.strips, dtype=np.int64),
        *_groups(leads[: len(free)], devices),
        Order(np.array(seq, dtype=np.int64), np.cumsum(np.array(counts, dtype=np.int64))),
        layout,
        outside,
        enclosure,
        practice,
        locked,
    )


class _Rows(NamedTuple):
    """Blocks by row, which rows are for terminals, the row that bars stand beside, and its rail of now."""

    leads: list[list[DeviceId]]
    strips: list[int]
    strips_row: int
    strips_of_now: int


def _rows_of(layout: Layout, turned: bool, spare_rows: int) -> _Rows:
    """Blocks by row, left to right; a screwed one belongs to the rail whose line it stands on."""
    leads: list[list[DeviceId]] = [[] for _ in layout.rails]
    strips = [0 for _ in layout.rails]
    order = {rail.number: r for r, rail in enumerate(layout.rails)}
    for stand in sorted(layout.stands, key=lambda s: s.x):
        if is_loose(stand.block) or not layout.rails:
            continue
        middle = stand.y + stand.block.above
        near = min(layout.rails, key=lambda rail: abs(rail.y - middle))
        r = order[stand.rail] if stand.rail else order[near.number]
        leads[r].append(stand.block.lead)
        strips[r] = max(strips[r], int(stand.block.row is RailRow.TERMINALS))
    now = _bars_beside(strips, turned)
    for _ in range(spare_rows):
        where = len(leads) if turned or not any(strips) else strips.index(1)
        leads.insert(where, [])
        strips.insert(where, 0)
    return _Rows(leads, strips, _bars_beside(strips, turned), now)


def _bars_beside(strips: list[int], turned: bool) -> int:
    last = max((r for r, strip in enumerate(strips) if strip), default=len(strips) - 1)
    return strips.index(1) if turned and any(strips) else last


def _unit(
    stand: Stand,
    devices: Mapping[DeviceId, Device],
    warm: Mapping[DeviceId, float],
    low: set[DeviceId],
    fixed_row: int,
    *,
    takes_rail: bool,
) -> tuple[float, ...]:
    """A line of ``UNIT``."""
    block = stand.block
    lead = devices[block.lead]
    return (
        block.width if takes_rail else 0.0,
        block.room_left,
        block.room_right,
        block.above + block.room_above,
        block.below + block.room_below,
        block.row is RailRow.TERMINALS,
        block.screwed,
        sum(warm.get(device, 0.0) for device in block.devices),
        block.lead in low and _all_low(lead, low),
        block.depth,
        lead.kind.can(Can.MAIN_SWITCH),
        fixed_row,
        stand.x,
        block.above,
        block.below,
    )


def _all_low(device: Device, low: set[DeviceId]) -> bool:
    """Whether a part belongs to the extra-low side: it has no power poles of its own."""
    return not device.kind.can(Can.SPANS_VOLTAGES) and not device.kind.is_protective


def _duct_width(layout: Layout, practice: Practice) -> float:
    uprights = [duct.rect.width for duct in layout.ducts if duct.upright]
    return uprights[0] if uprights else practice.duct_width


def _columns(leads: list[DeviceId], devices: Mapping[DeviceId, Device], free: int) -> Table:
    """Units of one circuit that follow each other: breaker, contactor, and so on down the column."""
    last: dict[str, int] = {}
    pairs: list[tuple[int, int]] = []
    order = {device: n for n, device in enumerate(devices)}
    for k in sorted(range(free), key=lambda k: order[leads[k]]):
        device = devices[leads[k]]
        if device.strip or device.circuit in IMPLIED.values() or device.circuit == INCOMER_ID:
            continue
        if device.circuit in last:
            pairs.append((last[device.circuit], k))
        last[device.circuit] = k
    return np.array(pairs, dtype=COLUMN)


def _groups(free: list[DeviceId], devices: Mapping[DeviceId, Device]) -> tuple[Numbers, Numbers]:
    """Which circuit every free unit belongs to, and which unit has a role in a circuit; -1 for none."""
    circuits = list(dict.fromkeys(devices[lead].circuit for lead in free))
    roles = list(dict.fromkeys(role_of(lead) for lead in free))
    group = np.array([circuits.index(devices[lead].circuit) for lead in free], dtype=np.int64)
    member = np.full((len(circuits), len(roles)), -1, dtype=np.int64)
    for k, lead in enumerate(free):
        member[group[k], roles.index(role_of(lead))] = k
    return group, member


def _behind(door: DoorPlan, enclosure: Enclosure) -> Table:
    """What the door's parts leave behind them: rectangle on the plate and the depth that is left, mm."""
    origin = to_door_origin(enclosure)
    rows = []
    for seat in door.seats:
        if seat.is_shaft:
            continue
        x, y = seat.x - origin[0], seat.y - origin[1]
        half_w, half_h = seat.part.width / 2, seat.part.height / 2
        left = enclosure.plate_depth - seat.depth - WIRING_DEPTH
        rows.append((x - half_w, y - half_h, x + half_w, y + half_h, left))
    return np.array(rows, dtype=BEHIND)


def to_door_origin(enclosure: Enclosure) -> tuple[float, float]:
    """The plate's datum on the door."""
    at = to_door(Point(0, 0), enclosure)
    return at.x, at.y


def _rails(layout: Layout, rows: int) -> Table:
    """Of every rail: y, left end, length, the room above and below it to the ducts, the middle of the duct above."""
    made = np.zeros(rows, RAIL)
    levels = [duct.rect for duct in layout.ducts if not duct.upright]
    for r, rail in enumerate(layout.rails):
        above = max((d.bottom for d in levels if d.bottom <= rail.y), default=0.0)
        below = min((d.y for d in levels if d.y >= rail.y), default=layout.plate.height)
        over = max((d.centre.y for d in levels if d.centre.y <= rail.y), default=np.nan)
        made[r] = (rail.y, rail.x1, rail.length, rail.y - above, below - rail.y, over)
    return made


_End = tuple[int, int, float, float]


def _wires(
    panel: PanelToPlan,
    index: Mapping[DeviceId, int],
    stands: Mapping[DeviceId, Stand],
    strips_row: int,
    *,
    bundled: bool,
) -> tuple[Table, int]:
    """The wires as lines of ``WIRE``, and how many have an end that the plan does not move."""
    layout, devices = panel.layout, panel.circuits.by_id
    unit_of = {device: stand.block.lead for stand in stands.values() for device in stand.block.devices}
    seats = {seat.device: seat for seat in layout.seats}
    strips_y = layout.rails[strips_row].y if strips_row < len(layout.rails) else 0.0
    door_y = _hinge_y(panel.door, layout, panel.enclosure)
    hinge = 1.0 if panel.door.hinge_x > 0 else 0.0

    def end(pin: PinRef) -> _End | None:
        owner, marking = pin
        device = devices[owner]
        seat = seats.get(device.id)
        if device.zone is Zone.DOOR and device.kind.mounting is not Mounting.RAIL and seat is None:
            return (-1, int(hinge), 0.0, door_y)
        if seat is None:
            return None
        at = seat.pin_point(marking)
        if device.kind.can(Can.EARTH_STUD):
            right = at.x > layout.plate.width / 2
            return (-1, int(right), 0.0, float("nan"))
        lead = unit_of[device.id]
        stand = stands[lead]
        side = 0 if seat.side_of(device.kind.pin(marking)) is Side.TOP else 1
        line = strips_y if is_loose(stand.block) else stand.y + stand.block.above
        return (index[lead], side, at.x - stand.x, at.y - line)

    bundles: dict[tuple[object, ...], list[tuple[_End, _End, float]]] = defaultdict(list)
    outside = 0
    for n, tie in enumerate(panel.ties):
        a, b = end(tie.a), end(tie.b)
        if a is None or b is None or (a[0] < 0 and b[0] < 0):
            outside += 1
            continue
        if a[0] < 0 or (b[0] >= 0 and b[:2] < a[:2]):
            a, b = b, a
        key: tuple[object, ...] = (*a[:2], *b[:2], str(b[3]) if b[0] < 0 else "") if bundled else (n,)
        bundles[key].append((a, b, 1 + tie.mm2 / STIFF_MM2))
    return np.array([_bundle(wires) for wires in bundles.values()], dtype=WIRE), outside


def _bundle(wires: list[tuple[_End, _End, float]]) -> tuple[float, ...]:
    """A line of ``WIRE``: wires between the same sides of two units as one, in their middle."""
    first_a, first_b, _ = wires[0]
    count = float(len(wires))
    x_a, y_a = sum(a[2] for a, _, _ in wires) / count, sum(a[3] for a, _, _ in wires) / count
    x_b, y_b = sum(b[2] for _, b, _ in wires) / count, sum(b[3] for _, b, _ in wires) / count
    return (*first_a[:2], *first_b[:2], x_a, y_a, x_b, y_b, count, sum(weight for _, _, weight in wires))


def _hinge_y(door: DoorPlan, layout: Layout, enclosure: Enclosure) -> float:
    """Where the door's loom leaves its duct: at half the door's height."""
    uprights = [duct.rect for duct in layout.ducts if duct.upright]
    y = door.face.centre.y - to_door_origin(enclosure)[1]
    return min(max(y, uprights[0].y), uprights[0].bottom) if uprights else y
