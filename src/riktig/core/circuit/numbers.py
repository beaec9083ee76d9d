"""Tags of devices and numbers of nets: consecutive, and kept once given."""

from collections import defaultdict
from dataclasses import dataclass

from riktig.core.circuit.model import Circuits, Device
from riktig.core.circuit.nets import Net, NetClass, Nets
from riktig.core.job import DeviceId, GivenNumber, GivenTag, PinId
from riktig.core.plan import Recent

__all__ = ["Names", "name_all"]


@dataclass(frozen=True, slots=True)
class Names:
    """What is written on things: a tag each device, a number each net (inner nets have none)."""

    tag: dict[DeviceId, str]
    number: dict[PinId, str]
    """By net id."""
    given_tags: tuple[GivenTag, ...]
    given_numbers: tuple[GivenNumber, ...]
    last_number: int


def name_all(
    circuits: Circuits, nets: Nets, tags: tuple[GivenTag, ...], numbers: tuple[GivenNumber, ...], last_number: int
) -> Names:
    """Tags every device and numbers every net.

    Method:
        Tags: class letter and the next free number, in the order of the circuits; the terminals
        of one strip share a tag. Numbers: the supply's conductors keep their names; a motor's
        conductors are named U, V, W and the motor's tag; all other nets are counted from the
        supply on, each device crossed giving the next number. A net takes back the number that
        most of its pins carried before; a number out of use is not given again. What was given once
        is given again, so the names of a document that keeps them are those it was settled with.
    """
    return _NAMED.get(
        (circuits, nets, tags, numbers, last_number), lambda: _named(circuits, nets, tags, numbers, last_number)
    )


_NAMED: Recent[Names] = Recent()


def _named(
    circuits: Circuits, nets: Nets, tags: tuple[GivenTag, ...], numbers: tuple[GivenNumber, ...], last_number: int
) -> Names:
    tag, given_tags = _tags(circuits, tags)
    number: dict[PinId, str] = {}
    counted: list[Net] = []
    devices = {device.id: device for device in circuits.devices}
    for net in nets.nets:
        name = _name_of(net, devices, tag)
        if net.inner:
            continue
        if name:
            number[net.id] = name
        else:
            counted.append(net)
    taken = _kept(counted, numbers)
    last = max([last_number, *taken.values()], default=0)
    for net in counted:
        if net.id not in taken:
            last += 1
            taken[net.id] = last
        number[net.id] = str(taken[net.id])
    given = tuple(GivenNumber(taken[net.id], net.pins) for net in counted)
    names = Names(tag, number, given_tags, given, last)
    return _NAMED.put((circuits, nets, given_tags, given, last), names)


def _tags(circuits: Circuits, given: tuple[GivenTag, ...]) -> tuple[dict[DeviceId, str], tuple[GivenTag, ...]]:
    known = {one.device: one.tag for one in given}
    used = set(known.values())
    strips: dict[str, str] = {
        device.strip: known[device.id] for device in circuits.devices if device.strip and device.id in known
    }
    next_of: dict[str, int] = defaultdict(lambda: 1)
    result: dict[DeviceId, str] = {}
    for device in circuits.devices:
        if device.id in known:
            result[device.id] = known[device.id]
        elif device.strip in strips:
            result[device.id] = strips[device.strip]
        else:
            result[device.id] = _next_tag(device, next_of, used)
        if device.strip:
            strips[device.strip] = result[device.id]
    return result, tuple(GivenTag(device.id, result[device.id]) for device in circuits.devices)


def _next_tag(device: Device, next_of: dict[str, int], used: set[str]) -> str:
    letter = device.kind.letter
    if device.kind_id == "earth_bar" and letter not in used:
        used.add(letter)
        return letter
    while (tag := f"{letter}{next_of[letter]}") in used:
        next_of[letter] += 1
    used.add(tag)
    return tag


def _name_of(net: Net, devices: dict[DeviceId, Device], tag: dict[DeviceId, str]) -> str:
    if net.net_class is NetClass.EARTH:
        return "PE"
    if net.net_class is NetClass.NEUTRAL:
        return "N"
    for pin in net.pins:
        owner, marking = pin.rsplit(":", 1)
        device = devices[DeviceId(owner)]
        if device.kind_id == "supply":
            return marking
        if device.kind.is_motor:
            return f"{marking if device.kind_id == 'motor6' else marking[0]}{tag[device.id]}"
    return ""


def _kept(nets: list[Net], given: tuple[GivenNumber, ...]) -> dict[PinId, int]:
    """Numbers taken back: the largest share of common pins first, the lower number on a tie."""
    old: dict[PinId, int] = {pin: one.number for one in given for pin in one.pins}
    claims: list[tuple[int, int, int, Net]] = []
    for place, net in enumerate(nets):
        shares: dict[int, int] = defaultdict(int)
        for pin in net.pins:
            if pin in old:
                shares[old[pin]] += 1
        claims += [(-count, number, place, net) for number, count in shares.items()]
    taken: dict[PinId, int] = {}
    for _, number, _, net in sorted(claims, key=lambda claim: claim[:3]):
        if net.id not in taken and number not in taken.values():
            taken[net.id] = number
    return taken
