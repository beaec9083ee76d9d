"""Which ways of a distribution block or a bar nothing lands on, and how a label names them."""

import re
from collections.abc import Container, Iterable, Sequence

from riktig.core.catalogue import Can
from riktig.core.job import PinRef
from riktig.core.schematic import Device
from riktig.core.wiring import Wire

__all__ = ["HAVE_WAYS", "named_ways", "spare_ways"]

HAVE_WAYS = (Can.DISTRIBUTES, Can.NEUTRAL_BAR, Can.ZERO_BAR, Can.EARTH_BAR)
"""What has ways that are counted."""

_NUMBERED = re.compile(r"(.*?)(\d+)$")


def spare_ways(device: Device, wires: Iterable[Wire], cores: Container[PinRef]) -> tuple[str, ...]:
    """The ways that no wire and no core lands on, in the order in which they lie; none for what has no ways.

    The inlet and the outlet onward of a block are no ways: nothing small is taken from them.

    Args:
        device: A block or a bar.
        wires: Those that land on it.
        cores: Where cores of cables from the field land.
    """
    if not any(device.kind.can(ability) for ability in HAVE_WAYS):
        return ()
    first_way = 2 if device.kind.can(Can.DISTRIBUTES) else 0
    taken = {end.pin for wire in wires for end in (wire.start, wire.end)}
    ways = [pin for unit in device.kind.units for pin in unit.pins[first_way:]]
    return tuple(way for way in ways if device.pin(way) not in taken and device.pin(way) not in cores)


def named_ways(ways: Sequence[str]) -> str:
    """Ways as a label says them, those that follow each other as one range: “L1.2–7, L3.6, L3.7” or “4–8”."""
    ranges: list[tuple[str, int, int]] = []
    for way in ways:
        numbered = _NUMBERED.fullmatch(way)
        before, number = (numbered[1], int(numbered[2])) if numbered else (way, 0)
        if ranges and numbered and ranges[-1][0] == before and ranges[-1][2] == number - 1:
            ranges[-1] = (before, ranges[-1][1], number)
        else:
            ranges.append((before, number, number))
    return ", ".join(_range_words(*way_range) for way_range in ranges)


def _range_words(before: str, first: int, last: int) -> str:
    if first == last:
        return f"{before}{first or ''}"
    between = "–" if last > first + 1 else f", {before}"
    return f"{before}{first}{between}{last}"
