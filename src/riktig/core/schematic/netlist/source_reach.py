"""Which nets each source of the panel reaches, with everything that can switch as if it were closed."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can, Unit
from riktig.core.job import DeviceId, PinRef
from riktig.core.schematic.model.elements import Circuits, Device
from riktig.core.schematic.netlist.net_joins import joined_nets, reached
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

    def leads_on(device: Device, unit: Unit) -> bool:
        return unit.behaviour in PASS and unit.symbol != "link" and not (without and without(device))

    joined = joined_nets(circuits, nets, leads_on)
    on_source: dict[PinRef, frozenset[PinRef]] = {}
    for seed in _live_pins(circuits):
        net = nets.of_pin.get(seed)
        if net is not None:
            on_source[seed] = frozenset(reached(joined, (net.id,)))
    return SourceReach(on_source)


def _live_pins(circuits: Circuits) -> Iterable[PinRef]:
    """Where the current leaves each source."""
    for device in circuits.devices:
        if device.kind.can(Can.SUPPLY):
            yield from (device.pin(name) for name in ("L1", "L2", "L3"))
        yield from (device.pin(unit.pins[0]) for unit in device.kind.units if unit.behaviour is Behaviour.SOURCE)
