"""Terminals by function: all neutrals of loads in one strip, all their protective conductors in another."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import replace

from riktig.core.catalogue import Can
from riktig.core.job import INCOMER_ID
from riktig.core.schematic.model.elements import Device

__all__ = ["EARTHS", "NEUTRALS", "strips_by_function"]

NEUTRALS, EARTHS = "neutrals", "protective conductors"
"""The strips that all circuits share, by what they are for."""


def strips_by_function(devices: Iterable[Device]) -> tuple[Device, ...]:
    """The devices with the terminals of neutrals and of protective conductors in a strip of their own, at the end.

    Those of the incoming supply stay with it. A terminal is marked “N1”, “PE3”: no two of a strip alike, and none like
    the terminals that its circuit keeps, so that a tag given before names it still.

    Args:
        devices: All devices, in the order of the circuits.
    """
    others: list[Device] = []
    moved: dict[str, list[Device]] = {NEUTRALS: [], EARTHS: []}
    count: Counter[str] = Counter()
    for device in devices:
        strip = _strip_of(device)
        if not strip:
            others.append(device)
            continue
        count[strip] += 1
        mark = f"{'N' if strip == NEUTRALS else 'PE'}{count[strip]}"
        moved[strip].append(replace(device, strip=strip, mark=mark))
    return (*others, *moved[NEUTRALS], *moved[EARTHS])


def _strip_of(device: Device) -> str:
    if not device.strip or device.circuit == INCOMER_ID:
        return ""
    if device.kind.can(Can.NEUTRAL_TERMINAL):
        return NEUTRALS
    return EARTHS if device.kind.can(Can.EARTH_TERMINAL) else ""
