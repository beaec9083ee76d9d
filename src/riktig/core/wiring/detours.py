"""Wires that go another way: a duct on the shortest one would be too full, or a signal would lie beside pulses."""

from bisect import bisect_left, bisect_right
from collections.abc import Collection, Iterator, Mapping, Sequence
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from riktig.core.job import PinRef
from riktig.core.plate import Layout
from riktig.core.wiring.apart import mm_in, stretches_of
from riktig.core.wiring.fill import DUCT_HEIGHT, Span, segments_of, spans_of, wire_area
from riktig.core.wiring.model import Segment
from riktig.core.wiring.routes import Route, Router

__all__ = ["InDucts", "KeptApart", "Run", "lay_in_ducts"]

ROUNDS = 8
"""How often all wires in full ducts are looked at again: each round closes what the last one filled (chosen by us)."""
DEAR = 4.0
"""What a mm of way beside pulses counts more than another (chosen by us: to leave half a metre of it, up to 2 m)."""
MOST_LONGER = 2000.0
"""How much longer a way may be that keeps a signal from pulses, mm (chosen by us: round the plate and back)."""
ROUNDING = 1e-6
"""Two fills that differ by less are alike, mm²."""


class Run(NamedTuple):
    """A wire as far as the ducts know it: its two clamps, its section, mm², its shortest way, and where that lies."""

    a: PinRef
    b: PinRef
    mm2: float
    route: Route
    spans: tuple[Span, ...]


class KeptApart(NamedTuple):
    """Wires that are kept apart in ducts, by their places among the runs: the signals, and what disturbs them."""

    signals: tuple[int, ...] = ()
    pulses: tuple[int, ...] = ()


class InDucts(NamedTuple):
    """How all wires lie: the ways of those that make a detour, by their place among the runs, and all ducts' fill."""

    detours: Mapping[int, Route]
    segments: dict[str, tuple[Segment, ...]]


class _Option(NamedTuple):
    """Another way for a wire: what a mm² of it costs in length, the number of the wire, the way and its spans."""

    cost: float
    wire: int
    route: Route
    spans: tuple[Span, ...]


class _Loads:
    """What lies in every duct, from place to place, mm²; a wire can be put in and taken out."""

    def __init__(
        self,
        layout: Layout,
        spans: Collection[tuple[Span, ...]],
        areas: Collection[float],
        stops: Mapping[str, list[float]],
        most: float,
    ) -> None:
        self.layout = layout
        places: dict[str, set[float]] = {duct.name: set(stops.get(duct.name, ())) for duct in layout.ducts}
        for span in (span for wire in spans for span in wire):
            places[span.duct] |= {span.begin, span.end}
        self._places = {name: sorted(at) for name, at in places.items()}
        self._areas = {name: np.zeros(max(len(at) - 1, 0)) for name, at in places.items()}
        widths = {duct.name: duct.rect.width if duct.upright else duct.rect.height for duct in layout.ducts}
        self._most = {name: most * width * DUCT_HEIGHT for name, width in widths.items()}
        for wire_spans, area in zip(spans, areas, strict=True):
            self.put(wire_spans, area)

    def put(self, spans: Sequence[Span], area: float) -> None:
        """A wire goes in; with a negative area it comes out."""
        for span in spans:
            self._part(span)[:] += area

    def over(self, spans: Sequence[Span], more: float = 0.0) -> bool:
        """Whether a duct holds too much somewhere along some spans, with so much more in it."""
        return any((self._part(span) + more > self._most[span.duct] + ROUNDING).any() for span in spans)

    def swap(self, before: Sequence[Span], after: Sequence[Span], area: float) -> bool:
        """A wire goes another way if that has room for it; whether it did."""
        self.put(before, -area)
        fits = not self.over(after, area)
        self.put(after if fits else before, area)
        return fits

    def give_back(self, detour: Sequence[Span], shortest: Sequence[Span], area: float) -> bool:
        """A wire takes its shortest way again where no place gets too full by it that is not so anyway."""
        self.put(detour, -area)
        in_vain = not any(
            ((part <= most) & (part + area > most)).any()
            for part, most in ((self._part(span), self._most[span.duct] + ROUNDING) for span in shortest)
        )
        self.put(shortest if in_vain else detour, area)
        return in_vain

    def full(self, more: float = 0.0) -> dict[str, list[tuple[float, float]]]:
        """The stretches of duct that hold too much, or would with so much more in them."""
        stretches: dict[str, list[tuple[float, float]]] = {}
        for name, areas in self._areas.items():
            of_duct = stretches.setdefault(name, [])
            for (begin, end), area in zip(pairwise(self._places[name]), areas.tolist(), strict=True):
                if area + more <= self._most[name] + ROUNDING:
                    continue
                if of_duct and of_duct[-1][1] == begin:
                    begin = of_duct.pop()[0]
                of_duct.append((begin, end))
        return stretches

    def _part(self, span: Span) -> NDArray[np.float64]:
        places = self._places[span.duct]
        return self._areas[span.duct][bisect_right(places, span.begin) - 1 : bisect_left(places, span.end)]


NOTHING_APART = KeptApart()


def lay_in_ducts(
    runs: Sequence[Run], layout: Layout, router: Router, most: float, apart: KeptApart = NOTHING_APART
) -> InDucts:
    """Leads as many wires another way as it takes to bring ducts under a share of their section, where there is room.

    No duct gets fuller than ``most`` by a detour; one that stays fuller has no other way with room, and no wire goes
    a longer way for it in vain. Then signals are led so that they lie less beside pulses, where the ducts have such a
    way with room that is at most ``MOST_LONGER`` longer; then the pulses so that they lie less beside signals.

    Args:
        runs: All wires with their shortest ways.
        layout: The plate with its ducts.
        router: What knows the ways.
        most: The share of its section that a duct may hold, up to 1.
        apart: What is kept apart.
    """
    spans = [run.spans for run in runs]
    area_of = {mm2: wire_area(mm2) for mm2 in {run.mm2 for run in runs}}
    areas = [area_of[run.mm2] for run in runs]
    segments = segments_of(spans, areas, layout)
    has_room = all(segment.share <= most for duct in segments.values() for segment in duct)
    if has_room and not _lie_together(spans, apart):
        return InDucts({}, segments)
    loads = _Loads(layout, spans, areas, router.stops_of_ducts(), most)
    detours = {} if has_room else _find_detours(runs, spans, areas, router, loads)
    for wire, option in detours.items():
        spans[wire] = option.spans
    now = [run._replace(route=detours[n].route) if n in detours else run for n, run in enumerate(runs)]
    for wire, option in _lead_apart(now, spans, areas, router, (loads, apart)):
        spans[wire], detours[wire] = option.spans, option
    return InDucts({n: option.route for n, option in detours.items()}, segments_of(spans, areas, layout))


def _find_detours(
    runs: Sequence[Run], shortest: Sequence[tuple[Span, ...]], areas: Sequence[float], router: Router, loads: _Loads
) -> dict[int, _Option]:
    """The wires that go another way.

    Method:
        In rounds: whatever has no room is closed, each wire in a duct that is too full is measured another way, and
        those go first that add least length for the room they give back. What turns out not to help goes back.
    """
    spans, detours = list(shortest), dict[int, _Option]()
    for _ in range(ROUNDS):
        moved = False
        pressed = [n for n, wire_spans in enumerate(spans) if loads.over(wire_spans)]
        for option in sorted(_options(runs, pressed, areas, loads, router), key=lambda o: (o.cost, o.wire)):
            wire = option.wire
            if wire not in detours and loads.over(spans[wire]) and loads.swap(spans[wire], option.spans, areas[wire]):
                spans[wire], detours[wire], moved = option.spans, option, True
        if not moved:
            break
    for wire in reversed(list(detours)):
        if loads.give_back(spans[wire], shortest[wire], areas[wire]):
            del detours[wire]
    return detours


def _lie_together(spans: Sequence[tuple[Span, ...]], apart: KeptApart) -> bool:
    """Whether a signal lies beside pulses."""
    stretches = stretches_of(spans[wire] for wire in apart.pulses)
    return any(mm_in(spans[wire], stretches) for wire in apart.signals)


def _lead_apart(
    runs: Sequence[Run],
    spans: Sequence[tuple[Span, ...]],
    areas: Sequence[float],
    router: Router,
    kept: tuple[_Loads, KeptApart],
) -> Iterator[tuple[int, _Option]]:
    """The wires that go another way so that signals and pulses lie apart: the signals first, then the pulses."""
    (loads, apart), lying = kept, list(spans)
    for moved, others in ((apart.signals, apart.pulses), (apart.pulses, apart.signals)):
        stretches = stretches_of(lying[wire] for wire in others)
        together = [wire for wire in moved if mm_in(lying[wire], stretches)]
        if not together:
            return
        routes = router.routes_around(stretches, DEAR)
        for wire in together:
            a, b, _mm2, laid, _spans = runs[wire]
            now = mm_in(lying[wire], stretches)
            for route in routes(a, b):
                other = spans_of(route.ducts, route.points, loads.layout.ducts)
                gain = DEAR * (now - mm_in(other, stretches)) - (route.length - laid.length)
                if gain <= ROUNDING or route.length > laid.length + MOST_LONGER:
                    continue
                if loads.swap(lying[wire], other, areas[wire]):
                    lying[wire] = other
                    yield wire, _Option(0.0, wire, route, other)
                    break


def _options(
    runs: Sequence[Run], pressed: Sequence[int], areas: Sequence[float], loads: _Loads, router: Router
) -> list[_Option]:
    """The other ways of the wires that lie in a duct which is too full."""
    if not pressed:
        return []
    routes = router.routes_around(loads.full(min(areas[wire] for wire in pressed)))
    options: list[_Option] = []
    for wire in pressed:
        a, b, _mm2, now, _spans = runs[wire]
        for route in routes(a, b):
            if route.points != now.points:
                spans = spans_of(route.ducts, route.points, loads.layout.ducts)
                options.append(_Option((route.length - now.length) / areas[wire], wire, route, spans))
    return options
