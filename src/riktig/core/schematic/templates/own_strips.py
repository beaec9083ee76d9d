"""Terminals in the strips and the order that the builder gave them."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace

from riktig.core.job import DeviceId, OwnStrip
from riktig.core.schematic.model.elements import Device
from riktig.core.schematic.templates.spare_terminals import SPARE, is_plain

__all__ = ["inserted_spare", "with_own_strips"]

INSERTED = f".X.{SPARE}.own"
"""Between the circuit and the number in the id of a spare terminal that the builder inserted."""


def inserted_spare(circuit: str, taken: Iterable[DeviceId]) -> DeviceId:
    """The id of one more spare terminal of a circuit.

    Args:
        circuit: Its id.
        taken: Ids that are in use.
    """
    used = set(taken)
    number = 1
    while DeviceId(f"{circuit}{INSERTED}{number}") in used:
        number += 1
    return DeviceId(f"{circuit}{INSERTED}{number}")


def with_own_strips(
    devices: Iterable[Device], own: Sequence[OwnStrip]
) -> tuple[tuple[Device, ...], tuple[OwnStrip, ...]]:
    """The devices with their terminals as the builder ordered them, and the strips of his that name one that is gone.

    A terminal that he named twice stands where it was named first. Two of a strip never bear one marking.

    Args:
        devices: All devices, as practice has them.
        own: The strips that he ordered.
    """
    everything = tuple(devices)
    if not own:
        return everything, ()
    known = {device.id: device for device in everything if device.strip}
    lost: list[OwnStrip] = []
    strips: dict[str, list[tuple[Device, str]]] = {}
    taken: set[DeviceId] = set()
    for strip in own:
        marks = strip.marks or ("",) * len(strip.terminals)
        for terminal, mark in zip(strip.terminals, marks, strict=True):
            device = known.get(terminal) or _spare(terminal, strip, known)
            if device is None:
                lost.append(strip)
            elif terminal not in taken:
                taken.add(terminal)
                strips.setdefault(strip.name, []).append((device, mark))
    for device in everything:
        if device.strip in strips and device.id not in taken:
            strips[device.strip].append((device, ""))
    ready = {name: _marked(name, members) for name, members in strips.items()}
    into = {device.id: name for name, members in ready.items() for device in members}
    ordered: list[Device] = []
    for device in everything:
        name = into.get(device.id)
        if name is None:
            ordered.append(device)
        elif name in ready:
            ordered += ready.pop(name)
    return (*ordered, *(device for members in ready.values() for device in members)), tuple(dict.fromkeys(lost))


def _spare(terminal: DeviceId, strip: OwnStrip, known: Mapping[DeviceId, Device]) -> Device | None:
    """A spare terminal that the builder inserted: like the plain ones of its strip."""
    if INSERTED not in terminal:
        return None
    beside = [known[other] for other in strip.terminals if other in known]
    plain = next((device for device in beside if is_plain(device)), None)
    return replace(plain, id=terminal, mark="", purpose=SPARE) if plain else None


def _marked(name: str, members: Sequence[tuple[Device, str]]) -> list[Device]:
    """The terminals of a strip, each with a marking of its own: the given one, its own, or the next that is free."""
    used: set[str] = set()
    marked: list[Device] = []
    counted = max((int(d.mark) for d, _ in members if d.mark.isdecimal()), default=0)
    for device, given in members:
        mark = given or device.mark
        if not mark or (mark in used and mark.isdecimal()):
            counted += 1
            mark = str(counted)
        number, stem = 2, mark
        while mark in used:
            mark, number = f"{stem}{number}", number + 1
        used.add(mark)
        marked.append(replace(device, strip=name, mark=mark))
    return marked
