"""A plate to be planned, as numbers: what stands where is open, what is locked is not."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from riktig.core.catalogue import Can, Mounting, Side
from riktig.core.door.door_types import WIRING_DEPTH, DoorPlan, to_door
from riktig.core.geometry import Point
from riktig.core.ids import role_of
from riktig.core.job import IMPLIED, INCOMER_ID, DeviceId, Enclosure, EntrySide, PinRef, Practice
from riktig.core.optimiser import kernel
from riktig.core.plate.arrange import BAR_GAP, GAP, STUD_FOOT, UPRIGHT_PAST_RAIL, is_beside, is_loose
from riktig.core.plate.inside_air import Losses
from riktig.core.plate.model import EDGE, Block, Layout, RailRow, Stand
from riktig.core.schematic import Circuits, Device, Zone

__all__ = ["Problem", "Tie", "problem_of"]


F = NDArray[np.float64]
N = NDArray[np.int64]
Arrays = tuple[F, N, F, N, F, F, F]


STIFF_MM2 = 6.0
"""A wire of this section counts twice its length: it is dear, and hard to lay (chosen by us)."""


class Tie(NamedTuple):
    """A wire as the plan of now has it: its two pins, and its section, mm²."""

    a: PinRef
    b: PinRef
    mm2: float = 0.0


@dataclass(frozen=True, eq=False, slots=True)
class Problem:
    """The plate as arrays for ``kernel``, and what its units and rows are.

    Shapes: ``unit`` (n, 15), ``wire`` (w, 4), ``pin`` (w, 6), ``column`` (c, 2), ``behind`` (o, 5), ``plate`` (13,),
    ``rails`` (rows, 6), ``strips`` (rows,), ``group`` (free,), ``member`` (circuits, roles); ``seq`` and
    ``ends`` are the plan of now. ``free`` units are numbered first.
    """

    blocks: tuple[Block, ...]
    free: int
    unit: NDArray[np.float64]
    wire: NDArray[np.int64]
    pin: NDArray[np.float64]
    column: NDArray[np.int64]
    behind: NDArray[np.float64]
    plate: NDArray[np.float64]
    rails: NDArray[np.float64]
    strips: NDArray[np.int64]
    group: NDArray[np.int64]
    member: NDArray[np.int64]
    seq: NDArray[np.int64]
    ends: NDArray[np.int64]
    layout: Layout
    outside: int
    """Wires with an end that the plan does not move, such as those within the door."""
    enclosure: Enclosure
    practice: Practice
    locked: frozenset[DeviceId] = field(default_factory=frozenset)

    @property
    def is_fixed(self) -> bool:
        """Whether rails and ducts stay where they are, because of locks."""
        return bool(self.plate[kernel.P_FIXED])

    @property
    def arrays(self) -> "Arrays":
        """What ``kernel.cost_of`` reads, in its order."""
        return self.unit, self.wire, self.pin, self.column, self.behind, self.plate, self.rails

    @property
    def same_as(self) -> bytes:
        """Equal for two problems that ask the same."""
        return b"|".join(one.tobytes() for one in (*self.arrays, self.strips))


def problem_of(
    layout: Layout,
    circuits: Circuits,
    door: DoorPlan,
    losses: Losses,
    enclosure: Enclosure,
    practice: Practice,
    ties: Iterable[Tie],
    low_voltage: frozenset[PinRef],
    locked: frozenset[DeviceId] = frozenset(),
    *,
    bundled: bool = True,
) -> Problem:
    """The problem that a layout is one answer to.

    Args:
        ties: The wires of the layout: which pins are joined.
        low_voltage: Pins that carry extra-low voltage.
        locked: Leads of blocks that stay; with any, rails and ducts stay too.
        bundled: Wires between the same sides of the same two units as one, in their middle: quicker, and a
            few mm off; not for figures that must be exact.
    """
    devices = circuits.by_id
    turned = any(stand.block.turned for stand in layout.stands)
    rows = _rows_of(layout, turned, spare_rows=0 if locked else 1)
    at = {lead: (r, k) for r, row in enumerate(rows.leads) for k, lead in enumerate(row)}
    stands = {stand.block.lead: stand for stand in layout.stands}
    free = [lead for row in rows.leads for lead in row if lead not in locked]
    still = [s.block.lead for s in layout.stands if s.block.lead not in free]
    leads = [*free, *still]
    index = {lead: k for k, lead in enumerate(leads)}
    warm = {loss.device: loss.watts for loss in losses}
    low = {pin.device for pin in low_voltage}
    unit = np.zeros((len(leads), 15))
    for lead, k in index.items():
        stand = stands[lead]
        in_row = lead in at
        fixed_row = -1 if lead in free else at[lead][0] if in_row else rows.strips_row
        unit[k] = _unit(stand, devices, warm, low, fixed_row, takes_rail=in_row)
    behind = _behind(door, enclosure)
    plate = np.array(
        [
            layout.plate.width,
            layout.plate.height,
            EDGE,
            _duct_width(layout, practice),
            GAP,
            max((s.block.width + BAR_GAP for s in layout.stands if is_beside(s.block)), default=0.0),
            turned,
            bool(locked),
            STUD_FOOT,
            UPRIGHT_PAST_RAIL,
            practice.spare_share,
            min(behind[:, 4], default=np.inf),
            enclosure.entry is EntrySide.TOP,
        ],
        dtype=np.float64,
    )
    seq = [index[lead] for row in rows.leads for lead in row if lead in index and lead not in locked]
    counts = [sum(lead not in locked for lead in row) for row in rows.leads]
    wire, pin, outside = _wires(
        ties, layout, door, enclosure, devices, index, stands, rows.strips_of_now, bundled=bundled
    )
    return Problem(
        tuple(stands[lead].block for lead in leads),
        len(free),
        unit,
        wire,
        pin,
        _columns(leads, devices, len(free)),
        behind,
        plate,
        _rails(layout, len(rows.leads)) if locked else np.zeros((len(rows.leads), 6)),
        np.array(rows.strips, dtype=np.int64),
        *_groups(leads[: len(free)], devices),
        np.array(seq, dtype=np.int64),
        np.cumsum(np.array(counts, dtype=np.int64)),
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
    last = max((r for r, one in enumerate(strips) if one), default=len(strips) - 1)
    return strips.index(1) if turned and any(strips) else last


def _unit(
    stand: Stand,
    devices: Mapping[DeviceId, Device],
    warm: Mapping[DeviceId, float],
    low: set[DeviceId],
    fixed_row: int,
    *,
    takes_rail: bool,
) -> NDArray[np.float64]:
    block = stand.block
    lead = devices[block.lead]
    made = np.zeros(15)
    made[kernel.WIDTH] = block.width if takes_rail else 0.0
    made[kernel.LEFT] = max(block.room_left, GAP)
    made[kernel.RIGHT] = block.room_right
    made[kernel.ABOVE] = block.above + block.room_above
    made[kernel.BELOW] = block.below + block.room_below
    made[kernel.TERMINAL] = block.row is RailRow.TERMINALS
    made[kernel.SCREWED] = block.screwed
    made[kernel.HEAT] = sum(warm.get(device, 0.0) for device in block.devices)
    made[kernel.LOW_VOLTAGE] = block.lead in low and _all_low(lead, low)
    made[kernel.DEPTH] = block.depth
    made[kernel.INCOMER] = lead.kind.can(Can.MAIN_SWITCH)
    made[kernel.FIXED_ROW] = fixed_row
    made[kernel.FIXED_X] = stand.x
    made[kernel.UP] = block.above
    made[kernel.DOWN] = block.below
    return made


def _all_low(device: Device, low: set[DeviceId]) -> bool:
    """Whether a part belongs to the extra-low side: it has no power poles of its own."""
    return not device.kind.can(Can.SPANS_VOLTAGES) and not device.kind.is_protective


def _duct_width(layout: Layout, practice: Practice) -> float:
    uprights = [duct.rect.width for duct in layout.ducts if duct.upright]
    return uprights[0] if uprights else practice.duct_width


def _columns(leads: list[DeviceId], devices: Mapping[DeviceId, Device], free: int) -> NDArray[np.int64]:
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
    return np.array(pairs, dtype=np.int64).reshape(-1, 2)


def _groups(free: list[DeviceId], devices: Mapping[DeviceId, Device]) -> tuple[NDArray[np.int64], NDArray[np.int64]]:
    """Which circuit every free unit belongs to, and which unit has a role in a circuit; -1 for none."""
    circuits = list(dict.fromkeys(devices[lead].circuit for lead in free))
    roles = list(dict.fromkeys(role_of(lead) for lead in free))
    group = np.array([circuits.index(devices[lead].circuit) for lead in free], dtype=np.int64)
    member = np.full((len(circuits), len(roles)), -1, dtype=np.int64)
    for k, lead in enumerate(free):
        member[group[k], roles.index(role_of(lead))] = k
    return group, member


def _behind(door: DoorPlan, enclosure: Enclosure) -> NDArray[np.float64]:
    """What the door's parts leave behind them: rectangle on the plate and the depth that is left, mm."""
    origin = to_door_origin(enclosure)
    found = []
    for seat in door.seats:
        if seat.is_shaft:
            continue
        x, y = seat.x - origin[0], seat.y - origin[1]
        half_w, half_h = seat.part.width / 2, seat.part.height / 2
        left = enclosure.plate_depth - seat.depth - WIRING_DEPTH
        found.append((x - half_w, y - half_h, x + half_w, y + half_h, left))
    return np.array(found, dtype=np.float64).reshape(-1, 5)


def to_door_origin(enclosure: Enclosure) -> tuple[float, float]:
    """The plate's datum on the door."""
    at = to_door(Point(0, 0), enclosure)
    return at.x, at.y


def _rails(layout: Layout, rows: int) -> NDArray[np.float64]:
    """Of every rail: y, left end, length, the room above and below it to the ducts, the middle of the duct above."""
    made = np.zeros((rows, 6))
    levels = [duct.rect for duct in layout.ducts if not duct.upright]
    for r, rail in enumerate(layout.rails):
        above = max((d.bottom for d in levels if d.bottom <= rail.y), default=0.0)
        below = min((d.y for d in levels if d.y >= rail.y), default=layout.plate.height)
        over = max((d.centre.y for d in levels if d.centre.y <= rail.y), default=np.nan)
        made[r] = (rail.y, rail.x1, rail.length, rail.y - above, below - rail.y, over)
    return made


_End = tuple[int, int, float, float]


def _wires(
    ties: Iterable[Tie],
    layout: Layout,
    door: DoorPlan,
    enclosure: Enclosure,
    devices: Mapping[DeviceId, Device],
    index: Mapping[DeviceId, int],
    stands: Mapping[DeviceId, Stand],
    strips_row: int,
    *,
    bundled: bool,
) -> tuple[NDArray[np.int64], NDArray[np.float64], int]:
    unit_of = {device: stand.block.lead for stand in stands.values() for device in stand.block.devices}
    seats = {seat.device: seat for seat in layout.seats}
    strips_y = layout.rails[strips_row].y if strips_row < len(layout.rails) else 0.0
    door_y = _hinge_y(door, layout, enclosure)
    hinge = 1.0 if door.hinge_x > 0 else 0.0

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

    rows: dict[tuple[object, ...], list[float]] = {}
    outside = 0
    for n, tie in enumerate(ties):
        a, b = end(tie.a), end(tie.b)
        if a is None or b is None or (a[0] < 0 and b[0] < 0):
            outside += 1
            continue
        weight = 1 + tie.mm2 / STIFF_MM2
        if a[0] < 0 or (b[0] >= 0 and b[:2] < a[:2]):
            a, b = b, a
        key: tuple[object, ...] = (*a[:2], *b[:2], str(b[3]) if b[0] < 0 else "") if bundled else (n,)
        if key in rows:
            row = rows[key]
            for k, value in ((2, a[2]), (3, a[3]), (6, b[2]), (7, b[3])):
                row[k] += value
            row[8] += 1
            row[9] += weight
        else:
            rows[key] = [*map(float, a), *map(float, b), 1.0, weight]
    made = np.array(list(rows.values()), dtype=np.float64).reshape(-1, 10)
    for k in (2, 3, 6, 7):
        made[:, k] /= made[:, 8]
    return made[:, [0, 1, 4, 5]].astype(np.int64), made[:, [2, 3, 6, 7, 8, 9]], outside


def _hinge_y(door: DoorPlan, layout: Layout, enclosure: Enclosure) -> float:
    """Where the door's loom leaves its duct: at half the door's height."""
    uprights = [duct.rect for duct in layout.ducts if duct.upright]
    y = door.face.centre.y - to_door_origin(enclosure)[1]
    return min(max(y, uprights[0].y), uprights[0].bottom) if uprights else y
