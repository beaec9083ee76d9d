"""Busbars with 60 mm from middle to middle: parts stand on adapters that hook onto the bars, holders carry them."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil

from riktig.core.catalogue import Part
from riktig.core.job import DeviceId
from riktig.core.standards import Busbar, busbar_for

__all__ = [
    "BAR_PITCH",
    "HOLDER_HEIGHT",
    "HOLDER_WIDTH",
    "INFEED_WIDTH",
    "RAISED",
    "Adapter",
    "BarSystem",
    "adapter_width",
    "bar_system",
    "current_into",
    "least_beside",
]

BAR_PITCH = 60.0
"""From the middle of one bar to the middle of the next, mm."""
HOLDER_WIDTH, HOLDER_HEIGHT = 20.0, 200.0
"""Of what carries the bars, mm; an adapter is as high (common size, no source)."""
HOLDERS_APART = 350.0
"""Farthest from one holder to the next, mm: the bars must not bend in a short circuit (common practice, no source)."""
INFEED_WIDTH = 54.0
"""Of the terminals where the feed lands, mm (common size, no source)."""
ADAPTER_STEP, ADAPTER_LEAST = 9.0, 18.0
"""Adapters come in steps of half a place, mm (common size, no source)."""
RAISED = 50.0
"""How much farther from the plate a part stands on an adapter than on a rail, mm (common size, no source)."""


@dataclass(frozen=True, slots=True)
class Adapter:
    """What one part stands on: its left edge from that of the system, and its width, mm."""

    device: DeviceId
    x: float
    width: float


@dataclass(frozen=True, slots=True)
class BarSystem:
    """One run of bars with all that belongs to it; places are from its left edge, mm.

    ``lines`` is how many bars lie side by side, one a potential. ``bar`` is None where the thickest does not carry
    ``amps``, what can flow in it.
    """

    lines: int
    amps: float
    bar: Busbar | None
    adapters: tuple[Adapter, ...]
    infeed_x: float
    holders: tuple[float, ...]
    width: float

    @property
    def bar_name(self) -> str:
        """“copper busbar 20 × 5”; of one that no size is enough for, without the size."""
        return f"copper busbar {self.bar.name}" if self.bar else "copper busbar"


def adapter_width(part: Part) -> float:
    """The narrowest adapter that a part goes onto, mm."""
    return max(ceil(round(part.width / ADAPTER_STEP, 6)) * ADAPTER_STEP, ADAPTER_LEAST)


def least_beside(run: float) -> float:
    """What infeed and holders take beside the adapters where bars fill a run, mm."""
    return INFEED_WIDTH + HOLDER_WIDTH * (2 + int(run // HOLDERS_APART))


def current_into(parts: Sequence[Part], most_a: float) -> float:
    """What can flow into the bars or the comb that feeds some parts, A.

    It is what their breakers let through together; where one of them is no breaker, or its rating is not known, all
    that the feed lets.

    Args:
        parts: What is fed.
        most_a: What the feed must carry at most, A: more never flows.
    """
    all_known = all(part.kind.is_protective and part.rated_a for part in parts)
    return min(sum(part.rated_a for part in parts), most_a) if all_known else most_a


def bar_system(parts: Sequence[tuple[DeviceId, Part]], *, lines: int, most_a: float, north_american: bool) -> BarSystem:
    """The bars for parts that stand side by side on them.

    Method:
        From the left a holder, the infeed, the adapters, a holder; where two holders would be too far from each other,
        one more goes between two adapters, as far to the right as it may.

    Args:
        parts: What stands on the bars, from left to right.
        lines: How many potentials they bring, each on a bar of its own.
        most_a: What the feed of the bars must carry at most, A: more never flows.
        north_american: Whether the panel is built by UL 508A, which decides what a bar carries.
    """
    amps = current_into([part for _, part in parts], most_a)
    holders = [0.0]
    x = HOLDER_WIDTH + INFEED_WIDTH
    adapters: list[Adapter] = []
    for n, (device, part) in enumerate(parts):
        width = adapter_width(part)
        following = adapter_width(parts[n + 1][1]) if n + 1 < len(parts) else 0.0
        adapters.append(Adapter(device, x, width))
        x += width
        if following and x + following - holders[-1] > HOLDERS_APART:
            holders.append(x)
            x += HOLDER_WIDTH
    bar = busbar_for(amps, north_american=north_american)
    return BarSystem(lines, amps, bar, tuple(adapters), HOLDER_WIDTH, (*holders, x), x + HOLDER_WIDTH)
