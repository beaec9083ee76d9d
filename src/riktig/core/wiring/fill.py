"""How full every duct is, along its length; who shares it, how wide it ought to be, which fingers come out."""

from collections import defaultdict
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import ceil
from typing import NamedTuple

from riktig.core.geometry import TOLERANCE_MM, Point
from riktig.core.job import Practice, Rulebook
from riktig.core.plate import Duct, Layout
from riktig.core.schematic import NetClass, Nets
from riktig.core.standards import COMMON_PRACTICE, Figure, wire_diameter
from riktig.core.wiring.model import Segment, Wire, Wiring

__all__ = [
    "DUCT_HEIGHT",
    "DUCT_WIDTHS",
    "DuctEntry",
    "DuctUse",
    "Span",
    "duct_target",
    "duct_uses",
    "families_of",
    "fill_limit",
    "segments_of",
    "spans_of",
    "wire_area",
]

DUCT_HEIGHT = 60.0
"""Inside height of the ducts, mm (the stock on the cut list)."""
DUCT_WIDTHS = (25.0, 30.0, 40.0, 60.0, 80.0, 100.0, 120.0)
"""Widths that slotted duct is sold in, mm (common practice, no source)."""
FINGER_PITCH = 12.5
"""From finger to finger of slotted duct, mm (common size, no source)."""
SLOT = 7.5
"""Width of the slot between two fingers: so much wire goes in without breaking one out, mm (common size, no source)."""
FAMILIES = {
    NetClass.POWER: "mains",
    NetClass.NEUTRAL: "mains",
    NetClass.CONTROL: "control",
    NetClass.DC: "extra-low voltage",
    NetClass.EXCEPTED: "live with the switch off",
}
"""What a net counts as when ducts are shared; earths go with everything."""


@dataclass(frozen=True, slots=True)
class DuctEntry:
    """Where wires enter a duct: its side, the place from the plate's datum, mm, the wires, and fingers to break out."""

    duct: str
    side: str
    at: float
    wires: int
    fingers: int


@dataclass(frozen=True, slots=True)
class DuctUse:
    """One duct: what runs in it, and where it goes in.

    The fullest share of its section, the families in it, the narrowest width that would do, mm, and where wires go in.
    ``width`` is 0 when no standard width would do.
    """

    name: str
    segments: tuple[Segment, ...]
    share: float
    limit: float
    families: tuple[str, ...]
    width: float
    now: float
    openings: tuple[DuctEntry, ...]

    @property
    def shared(self) -> bool:
        """Whether extra-low voltage or what stays live lies beside other wires."""
        apart = {"extra-low voltage", "live with the switch off"}
        return len(self.families) > 1 and bool(apart & set(self.families))


def fill_limit(practice: Practice) -> Figure:
    """Share of a duct's section that wires may take at delivery.

    Source:
        NFPA 79 13.5 for North America; elsewhere common practice; both from memory.
    """
    if practice.rulebook is Rulebook.UL:
        return Figure(0.50, "NFPA 79 13.5, from memory", "fairly sure")
    return Figure(0.70, COMMON_PRACTICE, "fairly sure")


class Span(NamedTuple):
    """A part of a duct that a wire lies in: from where to where along it on the plate, mm."""

    duct: str
    begin: float
    end: float


def duct_target(practice: Practice) -> float:
    """Share of a duct's section at which the practice stops: the limit without the room that is kept spare."""
    return fill_limit(practice).value * (1 - practice.spare_duct)


def segments_of(
    spans: Iterable[tuple[Span, ...]], areas: Iterable[float], layout: Layout
) -> dict[str, tuple[Segment, ...]]:
    """The fill of every duct by name, from end to end in pieces of equal fill.

    Args:
        spans: Where each wire lies (``spans_of``).
        areas: What each takes of a duct's section there, mm² (``wire_area``).
        layout: The plate with its ducts.
    """
    steps: dict[str, dict[float, float]] = {duct.name: defaultdict(float) for duct in layout.ducts}
    for wire, area in zip(spans, areas, strict=True):
        for duct, begin, end in wire:
            change = steps[duct]
            change[begin] += area
            change[end] -= area
    return {duct.name: _profile(duct, steps[duct.name]) for duct in layout.ducts}


def _profile(duct: Duct, steps: Mapping[float, float]) -> tuple[Segment, ...]:
    rect = duct.rect
    first, last = (rect.y, rect.bottom) if duct.upright else (rect.x, rect.right)
    section = (rect.width if duct.upright else rect.height) * DUCT_HEIGHT
    places = sorted({first, last, *(min(max(place, first), last) for place in steps)})
    segments: list[Segment] = []
    area = sum(change for place, change in steps.items() if place < first)
    for begin, end in pairwise(places):
        area += steps.get(begin, 0.0)
        share = round(max(area, 0.0) / section, 4)
        if segments and abs(segments[-1].share - share) < 1e-9:
            segments[-1] = Segment(segments[-1].begin, end, share)
        else:
            segments.append(Segment(begin, end, share))
    return tuple(segments)


def spans_of(names: Collection[str], route: Sequence[Point], ducts: Iterable[Duct]) -> tuple[Span, ...]:
    """Where a wire lies in the ducts.

    Args:
        names: The ducts that its way passes.
        route: The corners of its way on the plate.
        ducts: All ducts of the plate.
    """
    xs, ys = [point.x for point in route], [point.y for point in route]
    spans = []
    for duct in ducts:
        if duct.name not in names:
            continue
        middle = duct.rect.centre.x if duct.upright else duct.rect.centre.y
        across, along = (xs, ys) if duct.upright else (ys, xs)
        inside = [abs(place - middle) <= TOLERANCE_MM for place in across]
        for first in range(len(inside) - 1):
            if inside[first] and inside[first + 1] and abs(along[first + 1] - along[first]) > TOLERANCE_MM:
                begin, end = sorted((along[first], along[first + 1]))
                spans.append(Span(duct.name, round(begin, 2), round(end, 2)))
    return tuple(spans)


def wire_area(mm2: float) -> float:
    """What a wire takes of a duct's section, mm²: the square of its diameter, as round wires lie beside each other."""
    return wire_diameter(mm2).value ** 2


def families_of(wires: Iterable[Wire], nets: Nets) -> dict[str, tuple[str, ...]]:
    """The families of wires in every duct, in the order of ``FAMILIES``."""
    classes = {net.id: net.net_class for net in nets.nets}
    bundles: dict[str, set[str]] = defaultdict(set)
    for wire in wires:
        family = FAMILIES.get(classes[wire.net])
        if family:
            for name in wire.ducts:
                bundles[name].add(family)
    order = tuple(dict.fromkeys(FAMILIES.values()))
    return {name: tuple(bundle for bundle in order if bundle in has) for name, has in bundles.items()}


def duct_uses(wiring: Wiring, layout: Layout, nets: Nets, practice: Practice) -> tuple[DuctUse, ...]:
    """Every duct of the plate with what it holds."""
    limit = fill_limit(practice).value
    families = families_of(wiring.wires, nets)
    openings = _openings(wiring.wires, layout.ducts)
    uses = []
    for duct in layout.ducts:
        now = duct.rect.width if duct.upright else duct.rect.height
        share = wiring.fill.get(duct.name, 0.0)
        width = next((offered for offered in DUCT_WIDTHS if share * now / offered <= limit + 1e-9), 0.0)
        uses.append(
            DuctUse(
                duct.name,
                wiring.segments[duct.name],
                share,
                limit,
                families.get(duct.name, ()),
                width,
                now,
                tuple(openings.get(duct.name, ())),
            )
        )
    return tuple(uses)


def _openings(wires: Iterable[Wire], ducts: tuple[Duct, ...]) -> dict[str, list[DuctEntry]]:
    """Where wires come into the ducts from parts, by the pitch of the fingers."""
    spots: dict[tuple[str, str, int], list[float]] = defaultdict(list)
    by_name = {duct.name: duct for duct in ducts}
    for wire in wires:
        if len(wire.route) < 2 or not wire.ducts:
            continue
        ends = ((wire.route[0], wire.route[1], wire.ducts[0]), (wire.route[-1], wire.route[-2], wire.ducts[-1]))
        for pin, inside, name in ends:
            duct = by_name.get(name)
            if duct is None or duct.upright or abs(inside.y - duct.rect.centre.y) > TOLERANCE_MM:
                continue
            if abs(pin.x - inside.x) > TOLERANCE_MM:
                continue
            side = "above" if pin.y < inside.y else "below"
            slot = int((pin.x - duct.rect.x) // FINGER_PITCH)
            spots[name, side, slot].append(wire_diameter(wire.mm2).value)
    entries: dict[str, list[DuctEntry]] = defaultdict(list)
    for (name, side, slot), sizes in sorted(spots.items()):
        at = round(by_name[name].rect.x + (slot + 0.5) * FINGER_PITCH, 1)
        fingers = max(ceil((sum(sizes) - SLOT) / FINGER_PITCH), 0)
        entries[name].append(DuctEntry(name, side, at, len(sizes), fingers))
    return entries
