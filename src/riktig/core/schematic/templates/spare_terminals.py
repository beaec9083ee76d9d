"""Terminals kept free at the end of each strip, for what comes later."""

from collections.abc import Iterable
from dataclasses import replace
from math import ceil

from riktig.core.catalogue import Can
from riktig.core.job import INCOMER_ID, DeviceId
from riktig.core.schematic.model.elements import Device

__all__ = ["SPARE", "is_plain", "with_spare_terminals"]

SPARE = "spare"


def with_spare_terminals(devices: Iterable[Device], share: float) -> tuple[Device, ...]:
    """The devices with so many spare terminals behind the last of each strip, at least one.

    Strips of the supply, and those of one function, get none: what is added there belongs to a circuit.

    Args:
        devices: All devices, in the order of the circuits.
        share: Of the plain terminals of a strip; 0 adds nothing.
    """
    all_devices = tuple(devices)
    if not share:
        return all_devices
    strips: dict[str, list[Device]] = {}
    for device in all_devices:
        if device.strip and device.circuit != INCOMER_ID:
            strips.setdefault(device.strip, []).append(device)
    last: dict[DeviceId, tuple[Device, ...]] = {}
    for members in strips.values():
        plain = [device for device in members if is_plain(device)]
        if plain:
            last[members[-1].id] = tuple(_spares(members, plain, ceil(share * len(plain))))
    return tuple(made for device in all_devices for made in (device, *last.get(device.id, ())))


def is_plain(device: Device) -> bool:
    """Whether a terminal leads one conductor through; a stud for thick ones is no use to what comes later."""
    return device.kind.can(Can.PLAIN_TERMINAL) and device.kind.can(Can.ONE_CONDUCTOR)


def _spares(members: list[Device], plain: list[Device], count: int) -> Iterable[Device]:
    marks = [int(device.mark) for device in members if device.mark.isdecimal()]
    for number in range(1, count + 1):
        name = DeviceId(f"{plain[0].circuit}.X.{SPARE}{number}")
        yield replace(plain[0], id=name, mark=str(max(marks, default=0) + number), purpose=SPARE)
