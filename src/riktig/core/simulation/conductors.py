"""What joins the pins: wires, cores of field cables, terminals and bars; and what was done wrong to them."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from riktig.core.catalogue import Behaviour
from riktig.core.job import PinRef
from riktig.core.schematic import Circuits, Net, Nets
from riktig.core.simulation.figures import LINK_OHM
from riktig.core.simulation.nodal import islands
from riktig.core.standards import wire_resistance
from riktig.core.terminals import Strips
from riktig.core.wiring import Wiring

__all__ = ["Conductor", "conductors_of", "drawn_conductors", "grouped"]


@dataclass(frozen=True, slots=True)
class Conductor:
    """One piece that joins two pins, ohm; ``key`` is its wire's, empty for anything else."""

    a: PinRef
    b: PinRef
    ohm: float
    key: str = ""


def drawn_conductors(nets: Nets) -> tuple[Conductor, ...]:
    """Each potential joined to its first pin: as it is drawn, before any wire is planned."""
    return tuple(Conductor(net.pins[0], pin, LINK_OHM) for net in nets.nets for pin in net.pins[1:])


def conductors_of(circuits: Circuits, nets: Nets, wiring: Wiring, strips: Strips) -> tuple[Conductor, ...]:
    """Each potential as it is wired: by wires, by cores, through terminals; all pins of it hang together.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        wiring: All wires, in the order of their batches.
        strips: The terminal strips and the cables that land on them.
    """
    conductors: dict[PinRef, list[Conductor]] = {net.id: [] for net in nets.nets}
    for device in circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.JOINT:
                pins = [pin for pin in map(device.pin, unit.pins) if pin in nets.of_pin]
                for pin in pins[1:]:
                    conductors[nets.of_pin[pin].id].append(Conductor(pins[0], pin, LINK_OHM))
    for wire in wiring.wires:
        ohm = wire_resistance(wire.mm2).value * wire.length / 1e6
        conductors[wire.net].append(Conductor(wire.start.pin, wire.end.pin, max(ohm, LINK_OHM / 10), str(wire.key)))
    for cable in strips.cables:
        for core in cable.cores:
            per_m = wire_resistance(core.mm2).value / 1000
            net = nets.of_pin.get(core.field_pin)
            if net is not None:
                ohm = max(per_m * (cable.length_m or 10.0), LINK_OHM / 10)
                conductors[net.id].append(Conductor(core.panel_pin, core.field_pin, ohm))
    return tuple(
        conductor
        for net in nets.nets
        for conductor in (*conductors[net.id], *_other_conductors(net, conductors[net.id]))
    )


def _other_conductors(net: Net, known: Sequence[Conductor]) -> Iterable[Conductor]:
    """What else must join the pins of a potential: plugs and combs."""
    group = grouped(net.pins, known)
    seen = {group[net.pins[0]]}
    for pin in net.pins[1:]:
        if group[pin] not in seen:
            seen.add(group[pin])
            yield Conductor(net.pins[0], pin, LINK_OHM)


def grouped(pins: Iterable[PinRef] | Mapping[PinRef, object], conductors: Iterable[Conductor]) -> dict[PinRef, int]:
    """The number of the point that each pin is at: pins joined by conductors are at one point."""
    place = {pin: number for number, pin in enumerate(pins)}
    ends = [
        (place[conductor.a], place[conductor.b])
        for conductor in conductors
        if conductor.a in place and conductor.b in place
    ]
    labels = islands(len(place), np.array(ends, dtype=np.int64).reshape(-1, 2)).tolist()
    return dict(zip(place, labels, strict=True))
