"""What stays live when a device is open: plain connectivity from the supply.

Only closed contacts lead on; a coil or lamp does not. Good for “what is still live”, not for
whether a relay holds: that needs the voltages, and this function does not say it.
"""

from collections import defaultdict

from riktig.core.catalogue import Behaviour
from riktig.core.circuit import Circuits, Net, Nets
from riktig.core.job import DeviceId, PinId

__all__ = ["live_nets"]

_CLOSED_AT_REST = {Behaviour.POLE, Behaviour.NC, Behaviour.HEATER}


def live_nets(circuits: Circuits, nets: Nets, opened: frozenset[DeviceId]) -> tuple[Net, ...]:
    """The nets that a supply phase reaches, with everything at rest and ``opened`` switched off.

    Args:
        opened: Isolators and breakers that are off; all others are on.

    Returns:
        In the order of the nets.
    """
    joined: dict[PinId, set[PinId]] = defaultdict(set)
    for device in circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour not in _CLOSED_AT_REST:
                continue
            if unit.behaviour is Behaviour.POLE and device.id in opened:
                continue
            ends = [nets.of_pin.get(device.pin(pin)) for pin in unit.pins]
            if ends[0] and ends[-1]:
                joined[ends[0].id].add(ends[-1].id)
                joined[ends[-1].id].add(ends[0].id)
    reached = [
        net.id
        for device in circuits.devices
        if device.kind_id == "supply"
        for phase in ("L1", "L2", "L3")
        if (net := nets.of_pin.get(device.pin(phase)))
    ]
    seen = set(reached)
    while reached:
        for other in joined[reached.pop()]:
            if other not in seen:
                seen.add(other)
                reached.append(other)
    return tuple(net for net in nets.nets if net.id in seen)
