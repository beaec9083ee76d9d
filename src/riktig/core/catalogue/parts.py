"""Parts: outline, room, ratings and clamps. Generic, with invented references."""

import csv
from dataclasses import dataclass, replace
from functools import cache
from importlib import resources

from riktig.core.catalogue.kinds import Clamp, Kind, Pin, Side, kind
from riktig.core.geometry import Point

__all__ = ["PIN_INSET_MM", "ClampData", "Part", "first_of_kind", "part", "parts", "parts_of"]

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
class Part:
    """One part of the catalogue. Sizes and room kept free around it in mm; currents in A.

    ``rated_a`` is the AC-3 current of a contactor, VA of a transformer, m³/h of a fan; ``ac1_a`` what
    a contactor carries in duty AC-1.
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

    def clamp(self, pin: str) -> ClampData:
        """The clamp of a pin; terminals and bar ways take one conductor (common practice)."""
        found = self.kind.pin(pin)
        data = self.control if found.clamp is Clamp.CONTROL else self.power
        if self.kind.id.endswith("terminal") or self.kind.id in ("earth_bar", "stud", "dist_block"):
            return ClampData(data.min_mm2, data.max_mm2, data.strip, data.torque_n_m, 1)
        return data

    def pin_point(self, pin: Pin) -> Point:
        """Where a pin is, mm from the part's left upper corner."""
        inset = min(PIN_INSET_MM, self.height / 2)
        return Point(pin.across * self.width, inset if pin.side is Side.TOP else self.height - inset)


@cache
def parts() -> tuple[Part, ...]:
    """The whole catalogue, in its own order: rising within a kind."""
    path = resources.files("riktig.core.catalogue") / "data" / "parts.csv"
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
    )


@cache
def part(ref: str) -> Part:
    """The part with that reference.

    Raises:
        KeyError: the catalogue has none.
    """
    for one in parts():
        if one.ref == ref:
            return one
    raise KeyError(ref)


@cache
def parts_of(kind_id: str) -> tuple[Part, ...]:
    """The parts of a kind, rising; a kind that is like another has that one's parts under the same references."""
    own = kind(kind_id)
    rows = (one for one in parts() if one.kind.id == own.family)
    return tuple(one if one.kind is own else _as(one, own) for one in rows)


BLOCK_DEPTH = 33.0
"""What an auxiliary block adds in front of its device, mm (common size, no source)."""


def _as(one: Part, own: Kind) -> Part:
    if not own.block:
        return replace(one, kind=own)
    words = f"{one.description}, auxiliary block 2 NO + 2 NC"
    return replace(one, kind=own, ref=f"{one.ref} + AB-22", description=words, depth=one.depth + BLOCK_DEPTH)


def first_of_kind(kind_id: str, *, at_least: float = 0.0) -> Part:
    """The first part of a kind with a rating, or its last.

    Raises:
        IndexError: the catalogue has none of the kind.
    """
    offered = parts_of(kind_id)
    return next((one for one in offered if one.rated_a >= at_least), offered[-1])
