"""Which nets each source of the panel reaches, with everything that can switch as if it were closed."""

from collections import defaultdict
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import DeviceId, PinRef
from riktig.core.schematic.model.elements import Circuits, Device
from riktig.core.schematic.netlist.nets import Nets
from riktig.core.schematic.netlist.unit_graph import PASS

__all__ = ["SourceReach", "source_reach"]


@dataclass(frozen=True, slots=True)
class SourceReach:
    """The live side of every source with the nets it reaches: lines of the supply, transformers, 24 V supplies."""

    nets: Mapping[PinRef, frozenset[PinRef]]
    """By the pin of the source where its current leaves it."""

    def lines_of(self, net: PinRef) -> tuple[int, ...]:
        """The lines of the supply, 0 to 2, that reach a net."""
        names = ("L1", "L2", "L3")
        return tuple(
            sorted(names.index(pin.marking) for pin, on in self.nets.items() if pin.marking in names and net in on)
        )

    def source_of(self, net: PinRef) -> DeviceId | None:
        """The transformer or 24 V supply that reaches a net; None where a line does, or nothing."""
        return next(
            (pin.device for pin, on in self.nets.items() if pin.marking not in ("L1", "L2", "L3") and net in on), None
        )


def source_reach(circuits: Circuits, nets: Nets, *, without: Callable[[Device], bool] | None = None) -> SourceReach:
    """The reach of every source; never across a link to earth, an earth, or the neutral of the supply.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        without: Which devices are left out: the reach that is left goes past all of them.
    """
    joined: dict[PinRef, set[PinRef]] = defaultdict(set)
    seeds: list[PinRef] = []
    for device in circuits.devices:
        if device.kind.can(Can.SUPPLY):
            seeds += [device.pin(name) for name in ("L1", "L2", "L3")]
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.SOURCE:
                seeds.append(device.pin(unit.pins[0]))
            if without and without(device):
                continue
            if unit.behaviour in PASS and unit.symbol != "link":
                a, b = (nets.of_pin.get(device.pin(pin)) for pin in (unit.pins[0], unit.pins[-1]))
                if a and b and not (a.is_shared or b.is_shared):
                    joined[a.id].add(b.id)
                    joined[b.id].add(a.id)
    reached: dict[PinRef, frozenset[PinRef]] = {}
    for seed in seeds:
        net = nets.of_pin.get(seed)
        if net is None:
            continue
        seen, todo = {net.id}, [net.id]
        while todo:
            fresh = joined[todo.pop()] - seen
            seen |= fresh
            todo += fresh
        reached[seed] = frozenset(seen)
    return SourceReach(reached)
