"""What a fault of the circuits is, and the circuits as nets joined by units, for those that look for faults."""

from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Unit
from riktig.core.job import PinRef
from riktig.core.keys import Key
from riktig.core.schematic.model.elements import Circuits, Device, Element, elements_of
from riktig.core.schematic.netlist.net_joins import joined_nets, reached
from riktig.core.schematic.netlist.nets import Nets

__all__ = ["CONTACTS", "PASS", "TAKES", "CircuitFault", "UnitGraph", "behaves"]

PASS = {Behaviour.POLE, Behaviour.NO, Behaviour.NC, Behaviour.HEATER}
TAKES = {Behaviour.COIL, Behaviour.LAMP, Behaviour.LOAD, Behaviour.INPUT}
CONTACTS = {Behaviour.NO, Behaviour.NC}


@dataclass(frozen=True, slots=True)
class CircuitFault:
    """One thing wrong: its kind, what it says with ``{device}`` ids in braces, where, and what mends it."""

    kind: str
    text: str
    where: Key | None
    remedy: str


class UnitGraph:
    """The circuits as nets joined by units."""

    def __init__(self, circuits: Circuits, nets: Nets) -> None:
        self.circuits, self.nets = circuits, nets
        self.devices = circuits.by_id
        self.used = Counter(
            (pole.device, pole.unit)
            for rung in circuits.rungs
            for element in elements_of(rung.path)
            for pole in element.poles
        )
        self.drawn = {device for device, _ in self.used}
        self.by_node = {node: net.id for net in nets.nets for node in net.nodes}
        self.pins_at = {node: net.pins for net in nets.nets for node in net.nodes}
        self.class_at = {node: net.net_class for net in nets.nets for node in net.nodes}

    def net(self, device: Device, pin: str) -> PinRef | None:
        """The net of a pin, by its id."""
        net = self.nets.of_pin.get(device.pin(pin))
        return net.id if net else None

    def is_joint(self, element: Element) -> bool:
        """Whether an element keeps the potential: a terminal."""
        return behaves(self, element, Behaviour.JOINT)

    def reach(self, seeds: set[PinRef], passes: Callable[[Device, Behaviour], bool]) -> set[PinRef]:
        """The nets that ``seeds`` reach through units that ``passes`` lets through."""

        def leads_on(device: Device, unit: Unit) -> bool:
            return passes(device, unit.behaviour) and (device.id, unit.name) in self.used

        return reached(joined_nets(self.circuits, self.nets, leads_on, across_shared=True), seeds)


def behaves(graph: UnitGraph, element: Element, behaviour: Behaviour) -> bool:
    """Whether the first unit of an element behaves so."""
    return graph.devices[element.device].kind.unit(element.poles[0].unit).behaviour is behaviour
