"""The conductor tally: of every number, where its ends are, how many wires are pulled, how many links stay in place.

Words: a *place* is the plate, the door, or one thing in the field; a *pulled* wire runs from one place to
another; a *link* joins two ends in one place.
"""

from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Clamp
from riktig.core.job import PinRef
from riktig.core.schematic.model.elements import Circuits, Device, Zone
from riktig.core.schematic.netlist.nets import Nets

__all__ = ["DOOR", "PLATE", "ConductorEnds", "EndsInPlace", "conductor_ends_of", "place_of"]

PLATE, DOOR = "plate", "door"


@dataclass(frozen=True, slots=True)
class EndsInPlace:
    """The ends of one number in one place: a pin each, a terminal or bar that joins several once.

    ``place`` is “plate”, “door”, or the id of the device in the field.
    """

    place: str
    pins: tuple[PinRef, ...]

    @property
    def links(self) -> int:
        """Links that join these ends."""
        return len(self.pins) - 1


@dataclass(frozen=True, slots=True)
class ConductorEnds:
    """One potential, counted."""

    net: PinRef
    places: tuple[EndsInPlace, ...]

    @property
    def ends(self) -> int:
        """All ends."""
        return sum(len(place.pins) for place in self.places)

    @property
    def pulled(self) -> int:
        """Wires from place to place: places less one."""
        return len(self.places) - 1

    @property
    def links(self) -> int:
        """Links within places: ends less places."""
        return self.ends - len(self.places)


def place_of(device: Device) -> str:
    """Where a device is: the plate, the door, or by itself in the field."""
    return {Zone.PLATE: PLATE, Zone.DOOR: DOOR}.get(device.zone, str(device.id))


def conductor_ends_of(
    circuits: Circuits, nets: Nets, place: Callable[[Device], str] = place_of
) -> tuple[ConductorEnds, ...]:
    """Every potential on which a wire can land, counted.

    Method:
        Pulled wires = places - 1, links = ends - places (common practice, no source). What a device joins
        inside itself (a terminal, a bar, a block) is one end; a plugged pin is none. The plate comes first,
        then the door, then the field.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        place: Where a device is, in words.
    """
    devices = circuits.by_id
    joined: dict[PinRef, PinRef] = {}
    for device in circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.JOINT:
                for marking in unit.pins:
                    joined[device.pin(marking)] = device.pin(unit.pins[0])
    conductor_endses = []
    for net in nets.nets:
        if net.inner:
            continue
        by_place: dict[str, dict[PinRef, None]] = defaultdict(dict)
        for pin in net.pins:
            device = devices[pin.device]
            if device.kind.pin(pin.marking).clamp is not Clamp.PLUG:
                by_place[place(device)][joined.get(pin, pin)] = None
        order = sorted(by_place, key=lambda place: (place != PLATE, place != DOOR))
        conductor_endses.append(
            ConductorEnds(net.id, tuple(EndsInPlace(place, tuple(by_place[place])) for place in order))
        )
    return tuple(conductor_endses)
