"""Parts: outline, room, ratings and clamps. Generic, with invented references."""

import csv
from dataclasses import dataclass, field, replace
from functools import cache
from importlib import resources

from riktig.core.catalogue.capabilities import Can
from riktig.core.catalogue.kind_model import Clamp, Kind, Mounting, Pin, Side
from riktig.core.catalogue.kind_table import kind, kinds
from riktig.core.geometry import Point
from riktig.core.job import OwnPart

__all__ = [
    "PIN_INSET_MM",
    "RAIL_HEIGHT",
    "ClampData",
    "HoleSpot",
    "Part",
    "first_of_kind",
    "own_part",
    "part",
    "parts",
    "parts_of",
    "placeable_kinds",
]

RAIL_HEIGHT = 7.5
"""Of the top-hat rail TH 35-7.5, mm (IEC 60715, from memory)."""
PIN_INSET_MM = 6.0
"""From a part's edge to the middle of its clamps (chosen by us; part data will refine it)."""


@dataclass(frozen=True, slots=True)
class ClampData:
    """What one clamp takes: section range mm², strip length mm, torque N·m, conductors.

    Source:
        Catalogue row; two conductors a clamp is common practice, no source.
    """

    min_mm2: float
    max_mm2: float
    strip: float
    torque_n_m: float
    conductors: int = 2


@dataclass(frozen=True, slots=True)
class HoleSpot:
    """A fixing hole of a part, mm from its left upper corner, and its thread."""

    x: float
    y: float
    thread: str


@dataclass(frozen=True, slots=True)
class Part:
    """One part of the catalogue. Sizes and room kept free around it in mm; currents in A.

    ``depth`` is from the plate's face, rail and all. ``rated_a`` is the AC-3 current of a contactor, ``ac1_a``
    what it carries in duty AC-1; ``rated_va`` is of a transformer, ``flow_m3_h`` of a fan. ``bend`` is room its
    thickest conductors need above and below to bend; ``holes`` are where it is screwed to the plate.
    """

    ref: str
    kind: Kind
    description: str
    width: float
    height: float
    depth: float
    loss_w: float
    room_left: float
    room_right: float
    room_top: float
    room_bottom: float
    rated_a: float
    min_a: float
    max_a: float
    power: ClampData
    control: ClampData
    coil_va_in: float
    coil_va_hold: float
    coil_ohm: float
    screw: str
    colour: str
    ac1_a: float = 0.0
    bend: float = 0.0
    holes: tuple[HoleSpot, ...] = ()
    rated_va: float = 0.0
    flow_m3_h: float = 0.0
    north_american: bool = False
    """Whether it is made for the North American market only."""
    serves: str = ""
    """What it may guard under the North American rulebook: “feeder branch”, “branch” or “supplementary”."""
    characteristic: str = ""
    """What a drawing says after its rated current: “C”, “C, 30 mA”, “class CC”, “class 10A”."""
    _clamps: dict[str, ClampData] = field(default_factory=dict, init=False, repr=False, compare=False)

    @property
    def rating(self) -> float:
        """What it is chosen by: A, or VA of a transformer, or m³/h of a fan."""
        return self.rated_va or self.flow_m3_h or self.rated_a

    @property
    def from_rail(self) -> float:
        """Its height over the rail it stands on, mm."""
        return max(self.depth - RAIL_HEIGHT, 0.0)

    @property
    def is_screwed(self) -> bool:
        """Whether it is screwed to the plate: of its kind, or because it has holes for it."""
        return self.kind.mounting is Mounting.SCREWED or (self.kind.mounting is Mounting.RAIL and bool(self.holes))

    def takes(self, mm2: float) -> bool:
        """Whether a conductor, mm², goes into its power clamps."""
        return self.power.min_mm2 - 1e-9 <= mm2 <= self.power.max_mm2 + 1e-9

    def clamp(self, pin: str) -> ClampData:
        """The clamp of a pin; terminals and bar ways take one conductor (common practice)."""
        clamp = self._clamps.get(pin)
        if clamp is None:
            clamp = self._clamps[pin] = self._clamp(pin)
        return clamp

    def _clamp(self, pin: str) -> ClampData:
        own_pin = self.kind.pin(pin)
        data = self.control if own_pin.clamp is Clamp.CONTROL else self.power
        if self.kind.can(Can.ONE_CONDUCTOR):
            return ClampData(data.min_mm2, data.max_mm2, data.strip, data.torque_n_m, 1)
        return data

    def pin_point(self, pin: Pin) -> Point:
        """Where a pin is, mm from the part's left upper corner."""
        inset = min(PIN_INSET_MM, self.height / 2)
        return Point(pin.across * self.width, inset if pin.side is Side.TOP else self.height - inset)


@cache
def parts() -> tuple[Part, ...]:
    """The whole catalogue, in its own order: rising within a kind, those of the North American market last."""
    theirs = (replace(row, north_american=True) for row in _rows("parts_north_american.csv"))
    return (*_rows("parts.csv"), *theirs)


def _rows(name: str) -> tuple[Part, ...]:
    path = resources.files("riktig.core.catalogue") / "data" / name
    lines = path.read_text(encoding="utf-8").splitlines()[1:]
    return tuple(_part(row) for row in csv.DictReader(lines))


def _part(row: dict[str, str]) -> Part:
    def number(column: str) -> float:
        return float(row[column] or 0)

    def clamp(which: str) -> ClampData:
        return ClampData(
            number(f"{which}_min_mm2"),
            number(f"{which}_max_mm2"),
            number(f"{which}_strip"),
            number(f"{which}_torque_n_m"),
        )

    return Part(
        ref=row["ref"],
        kind=kind(row["kind"]),
        description=row["description"],
        width=number("width"),
        height=number("height"),
        depth=number("depth"),
        loss_w=number("loss_w"),
        room_left=number("room_left"),
        room_right=number("room_right"),
        room_top=number("room_top"),
        room_bottom=number("room_bottom"),
        rated_a=number("rated_a"),
        min_a=number("min_a"),
        max_a=number("max_a"),
        power=clamp("power"),
        control=clamp("control"),
        coil_va_in=number("coil_va_in"),
        coil_va_hold=number("coil_va_hold"),
        coil_ohm=number("coil_ohm"),
        screw=row["screw"],
        colour=row["colour"],
        ac1_a=number("ac1_a"),
        bend=number("bend"),
        holes=_holes(row["holes"]),
        rated_va=number("rated_va"),
        flow_m3_h=number("flow_m3_h"),
        serves=row.get("serves", ""),
        characteristic=row["characteristic"],
    )


def _holes(text: str) -> tuple[HoleSpot, ...]:
    """The holes of a catalogue row: “M4 8,8 84,8”, the thread and the places."""
    if not text:
        return ()
    thread, *spots = text.split()
    places = (spot.split(",") for spot in spots)
    return tuple(HoleSpot(float(x), float(y), thread) for x, y in places)


def own_part(own: OwnPart) -> Part:
    """The builder's own part as a part of the catalogue.

    Raises:
        KeyError: there is no such kind.
    """
    of = kind(own.kind)
    transforms = of.can(Can.TRANSFORMS)  # the form asks for one rating, which of a transformer is VA
    clamp = ClampData(own.min_mm2, own.max_mm2, own.strip, own.torque_n_m)
    control = ClampData(min(own.min_mm2, 0.5), max(min(own.max_mm2, 2.5), own.min_mm2), 9.0, 0.8)
    return Part(
        ref=own.ref,
        kind=of,
        description=own.description,
        width=own.width,
        height=own.height,
        depth=own.depth,
        loss_w=own.loss_w,
        room_left=own.room_left,
        room_right=own.room_right,
        room_top=own.room_top,
        room_bottom=own.room_bottom,
        rated_a=0.0 if transforms else own.rated_a,
        rated_va=own.rated_a if transforms else 0.0,
        min_a=0.0,
        max_a=own.rated_a,
        power=clamp,
        control=control,
        coil_va_in=0.0,
        coil_va_hold=0.0,
        coil_ohm=0.0,
        screw=own.holes[0].thread if own.holes else "",
        colour=own.colour,
        bend=own.bend,
        holes=tuple(HoleSpot(hole.x, hole.y, hole.thread) for hole in own.holes),
    )


def placeable_kinds() -> tuple[Kind, ...]:
    """The kinds that a part of one's own can be of: those that stand on the plate."""
    return tuple(
        known_kind for known_kind in kinds() if known_kind.mounting in (Mounting.RAIL, Mounting.SCREWED, Mounting.UNDER)
    )


@cache
def part(ref: str) -> Part:
    """The part with that reference.

    Raises:
        KeyError: the catalogue has none.
    """
    for known_part in parts():
        if known_part.ref == ref:
            return known_part
    raise KeyError(ref)


TRIP_TYPES = ("B", "C", "D")
"""How fast a breaker trips on a short circuit, from fast to late: IEC 60898-1."""


@cache
def parts_of(kind_id: str, *, north_american: bool = False, characteristic: str = "") -> tuple[Part, ...]:
    """The parts of a kind that one market has, rising; those of the other where it has none.

    Args:
        kind_id: A kind; one that is like another has that one's parts under the same references.
        north_american: By the North American rulebook, which has parts of its own for protection.
        characteristic: Of breakers that come in several, which; where the kind has not that one, and without it,
            the one that its first part has.
    """
    offered = every_part_of(kind_id)
    market = tuple(known_part for known_part in offered if known_part.north_american is north_american) or offered
    if not market or market[0].characteristic not in TRIP_TYPES:
        return market
    having = {known_part.characteristic for known_part in market}
    wanted = characteristic if characteristic in having else market[0].characteristic
    return tuple(known_part for known_part in market if known_part.characteristic == wanted)


@cache
def every_part_of(kind_id: str) -> tuple[Part, ...]:
    """The parts of a kind of both markets: what a builder may pick."""
    own_kind = kind(kind_id)
    rows = (known_part for known_part in parts() if known_part.kind.id == own_kind.family)
    return tuple(row if row.kind is own_kind else _part_of_kind(row, own_kind) for row in rows)


BLOCK_DEPTH = 33.0
"""What an auxiliary block adds in front of its device, mm (common size, no source)."""


SIGNAL_WIDTH = 9.0
"""What a signal contact adds beside its breaker, mm (common size: half a module, no source)."""


def _part_of_kind(fitted: Part, own: Kind) -> Part:
    if own.signals:
        words, width = f"{fitted.description}, signal contact", fitted.width + SIGNAL_WIDTH
        return replace(fitted, kind=own, ref=f"{fitted.ref} + SB-1", description=words, width=width)
    if not own.block:
        return replace(fitted, kind=own)
    words = f"{fitted.description}, auxiliary block 2 NO + 2 NC"
    return replace(fitted, kind=own, ref=f"{fitted.ref} + AB-22", description=words, depth=fitted.depth + BLOCK_DEPTH)


def first_of_kind(kind_id: str, *, at_least: float = 0.0) -> Part:
    """The first part of a kind with a rating, or its last.

    Args:
        kind_id: The kind, as the catalogue has it.
        at_least: Rated so much at least, A.

    Raises:
        IndexError: the catalogue has none of the kind.
    """
    offered = parts_of(kind_id)
    return next((offered_part for offered_part in offered if offered_part.rating >= at_least), offered[-1])
