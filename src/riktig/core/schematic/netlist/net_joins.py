"""Nets joined by units that lead on, and what is reached along them."""

from collections import defaultdict
from collections.abc import Callable, Iterable, Mapping

from riktig.core.catalogue import Unit
from riktig.core.job import PinRef
from riktig.core.schematic.model.elements import Circuits, Device
from riktig.core.schematic.netlist.nets import Nets

__all__ = ["joined_nets", "reached"]


def joined_nets(
    circuits: Circuits, nets: Nets, leads_on: Callable[[Device, Unit], bool], *, across_shared: bool = False
) -> Mapping[PinRef, set[PinRef]]:
    """By net the nets that units join it to.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        leads_on: Whether a unit of a device leads on from its first pin to its last.
        across_shared: Whether earth and neutral count as other nets do: all circuits meet there.
    """
    joined: dict[PinRef, set[PinRef]] = defaultdict(set)
    for device in circuits.devices:
        for unit in device.kind.units:
            if not leads_on(device, unit):
                continue
            a, b = (nets.of_pin.get(device.pin(pin)) for pin in (unit.pins[0], unit.pins[-1]))
            if a and b and (across_shared or not (a.is_shared or b.is_shared)):
                joined[a.id].add(b.id)
                joined[b.id].add(a.id)
    return joined


def reached(joined: Mapping[PinRef, set[PinRef]], seeds: Iterable[PinRef]) -> set[PinRef]:
    """The nets that some nets reach, with these.

    Args:
        joined: By net the nets next to it; see ``joined_nets``.
        seeds: Where it begins.
    """
    seen = set(seeds)
    todo = list(seen)
    while todo:
        fresh = joined.get(todo.pop(), set()) - seen
        seen |= fresh
        todo += fresh
    return seen
