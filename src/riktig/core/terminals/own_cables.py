"""Field cables as the builder or the practice shares them: one sheath for several things, cores called as he says."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace

from riktig.core.job import DeviceId, FieldCables, OwnCable, PinRef
from riktig.core.schematic import Net, NetClass
from riktig.core.terminals.cables import EARTH_CORE, Cable, Core

__all__ = ["carried", "may_share", "with_own_cables"]


def may_share(cable: Cable) -> bool:
    """Whether a cable may lie in one sheath with others: control cores by their numbers, no power and no network."""
    return bool(cable.cores) and not cable.is_supply and all(core.name.isdecimal() for core in cable.cores)


def carried(cable: Cable, of_pin: Mapping[PinRef, Net]) -> frozenset[NetClass]:
    """What the cores of a cable carry: alternating control, direct control, or what stays live with the switch off."""
    return frozenset(of_pin[core.field_pin].net_class for core in cable.cores if core.field_pin in of_pin)


def with_own_cables(
    cables: Sequence[Cable],
    own: Sequence[OwnCable],
    practice: FieldCables,
    circuits: Mapping[DeviceId, str],
    of_pin: Mapping[PinRef, Net],
) -> tuple[Cable, ...]:
    """The cables, shared and called as the builder says; what he does not speak of follows the practice.

    What cannot share a sheath keeps a cable of its own: nothing is ever left without its cores. What is screened shares
    only with what is screened alike.

    Args:
        cables: One for each thing in the field.
        own: Those of the builder.
        practice: Whether the control cables of one circuit are one.
        circuits: The circuit of each device.
        of_pin: The potential of each pin: what is fed otherwise never shares a sheath.
    """
    by_device = {cable.device: cable for cable in cables}
    plan_of: dict[DeviceId, OwnCable] = {}
    for planned in own:
        for device in planned.devices:
            if device in by_device:
                plan_of.setdefault(device, planned)
    groups: dict[object, list[Cable]] = {}
    for cable in cables:
        mine = plan_of.get(cable.device)
        key: object = cable.device
        if mine is not None and (may_share(cable) or len(mine.devices) == 1):
            key = (id(mine), carried(cable, of_pin), cable.screen)
        elif mine is None and practice is FieldCables.SHARED and may_share(cable):
            key = (circuits[cable.device], carried(cable, of_pin), cable.screen)
        groups.setdefault(key, []).append(cable)
    return tuple(_one(members, plan_of.get(members[0].device)) for members in groups.values())


def _one(members: Sequence[Cable], planned: OwnCable | None) -> Cable:
    """Several cables in one sheath, or one with its own names."""
    if len(members) == 1 and planned is None:
        return members[0]
    lead = members[0]
    if planned is not None:
        lead = next((cable for device in planned.devices for cable in members if cable.device == device), lead)
    ordered = [lead, *(cable for cable in members if cable is not lead)]
    return replace(
        lead,
        to=_purposes([cable.to for cable in ordered]),
        mm2=max(cable.mm2 for cable in ordered),
        cores=_named([core for cable in ordered for core in cable.cores], dict(planned.cores) if planned else {}),
        length_m=max(cable.length_m for cable in ordered),
        others=tuple(cable.device for cable in ordered[1:]),
        bought=planned.bought if planned else 0,
    )


def _purposes(each: Sequence[str]) -> str:
    """“B4, B5 brine pump” in place of “B4 brine pump, low float; B5 brine pump, start float”."""
    tags, purposes = zip(*((tag, purpose) for tag, _, purpose in (text.partition(" ") for text in each)), strict=True)
    common = {purpose.partition(", ")[0] for purpose in purposes}
    return f"{', '.join(tags)} {common.pop()}" if len(each) > 1 and len(common) == 1 else "; ".join(each)


def _named(cores: Sequence[Core], given: Mapping[str, str]) -> tuple[Core, ...]:
    """Cores with names of which no two are alike: the given one, else its own, else the next number."""
    names = {str(core.field_pin): given[str(core.field_pin)] for core in cores if str(core.field_pin) in given}
    used = set(names.values())
    named: list[Core] = []
    for core in cores:
        name = names.get(str(core.field_pin), "")
        if not name:
            name = core.name if core.name == EARTH_CORE or core.name not in used else _free(used)
            used.add(name)
        named.append(replace(core, name=name))
    return tuple(named)


def _free(used: Iterable[str]) -> str:
    """The first number that no core has."""
    taken, number = set(used), 1
    while str(number) in taken:
        number += 1
    return str(number)
