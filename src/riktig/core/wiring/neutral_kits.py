"""The neutrals of a bar as a kit: one conductor from the bar, with a tail where each neutral leaves it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from riktig.core.catalogue import Can
from riktig.core.geometry import Point
from riktig.core.job import DeviceId
from riktig.core.schematic import Device, NetClass, Nets
from riktig.core.standards import conductor_current, is_awg, next_section
from riktig.core.wiring.model import Wire, WireEnd, WireId, Wiring

__all__ = ["LEAST_TAILS", "NeutralKit", "Tail", "neutral_kits"]

LEAST_TAILS = 3
"""Neutrals from one bar that are worth a kit (chosen by us: two wires are laid as quickly)."""

SHARE = 0.5
"""Of its way that a neutral runs with the trunk (chosen by us: a shorter one is a wire of its own)."""


@dataclass(frozen=True, slots=True)
class Tail:
    """Where one neutral lands: ``along`` the trunk from the bar it leaves it, ``length`` its own, mm."""

    wire: Wire
    end: WireEnd
    along: float
    length: float


@dataclass(frozen=True, slots=True)
class NeutralKit:
    """One conductor with its tails, those nearest to the bar first. ``trunk`` is its length, mm.

    ``mm2`` of the trunk carries what all its tails may carry, and is never more than what feeds the bar.
    """

    bar: DeviceId
    mm2: float
    colour: str
    trunk: float
    tails: tuple[Tail, ...]

    @property
    def metres(self) -> float:
        """Of conductor in the kit, m."""
        return (self.trunk + sum(tail.length for tail in self.tails)) / 1000

    @property
    def metres_apart(self) -> float:
        """Of the same neutrals as wires of their own, m."""
        return sum(tail.wire.length for tail in self.tails) / 1000


def neutral_kits(wiring: Wiring, devices: Mapping[DeviceId, Device], nets: Nets) -> tuple[NeutralKit, ...]:
    """The kits of all neutral bars that feed enough neutrals along one way.

    Method:
        The longest neutral of a bar gives the trunk, and those that run half of their way or more with it are its
        tails; from what is left the next trunk is taken. The trunk ends where the last tail but one leaves it.

    Args:
        wiring: All wires.
        devices: All devices.
        nets: All nets.
    """
    kits: list[NeutralKit] = []
    for bar in (device for device in devices.values() if device.kind.can(Can.NEUTRAL_BAR)):
        bar_wires = [w for w in wiring.on_device.get(bar.id, ()) if nets.of_pin[w.net].net_class is NetClass.NEUTRAL]
        feed = max(bar_wires, key=lambda wire: wire.mm2, default=None)
        left = sorted((wire for wire in bar_wires if wire is not feed), key=lambda wire: -wire.length)
        while feed and left:
            along = {wire.key: _shared(_from(bar.id, left[0]), _from(bar.id, wire)) for wire in left}
            group = [wire for wire in left if along[wire.key] >= SHARE * wire.length or wire is left[0]]
            left = [wire for wire in left if wire not in group]
            if len(group) >= LEAST_TAILS:
                kits.append(_kit(bar.id, feed, group, along))
    return tuple(kits)


def _kit(bar: DeviceId, feed: Wire, group: list[Wire], along: Mapping[WireId, float]) -> NeutralKit:
    """The kit of neutrals that run together; the first of them is the longest."""
    trunk = max(along[wire.key] for wire in group[1:])
    tails: list[Tail] = []
    for wire in group:
        leaves = min(along[wire.key], trunk)
        end = wire.end if wire.start.pin.device == bar else wire.start
        tails.append(Tail(wire, end, leaves, wire.length - leaves))
    mm2 = _trunk_section(feed.mm2, [wire.mm2 for wire in group])
    return NeutralKit(bar, mm2, group[0].colour, trunk, tuple(sorted(tails, key=lambda tail: tail.along)))


def _trunk_section(feed: float, tails: Sequence[float]) -> float:
    """The section of a trunk, mm²: each neutral may carry all that its own conductor carries.

    In North America it is that of the feed, which the same device protects.

    Source:
        IEC 60204-1 Table 6, from memory; that the currents are added is chosen by us.
    """
    if is_awg(feed):
        return feed
    needed = sum(conductor_current(mm2).value for mm2 in tails)
    mm2 = max(tails)
    while mm2 < feed and conductor_current(mm2).value < needed:
        mm2 = next_section(mm2 + 0.01)
    return min(mm2, feed)


def _from(bar: DeviceId, wire: Wire) -> tuple[Point, ...]:
    """The way of a wire, seen from the bar."""
    return wire.route if wire.start.pin.device == bar else wire.route[::-1]


def _shared(trunk: tuple[Point, ...], other: tuple[Point, ...]) -> float:
    """How far two ways from one bar run together, mm: each along straight lines between its corners."""
    run = 0.0
    walked = list(zip(pairwise(trunk), pairwise(other), strict=False))
    for n, ((a, b), (c, d)) in enumerate(walked):
        first, second = _length(a, b), _length(c, d)
        if n == 0:  # from two clamps of the bar side by side into the duct
            run += min(first, second)
            continue
        level = a.y == b.y == c.y == d.y
        upright = a.x == b.x == c.x == d.x
        if not (level or upright):
            break
        onward = ((b.x - a.x) * (d.x - c.x) if level else (b.y - a.y) * (d.y - c.y)) > 0
        if not onward:
            break
        run += min(first, second)
        if abs(first - second) > 1.0 and b != d:
            break
    return run


def _length(a: Point, b: Point) -> float:
    return abs(a.x - b.x) + abs(a.y - b.y)
