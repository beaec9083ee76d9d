"""Which line is where: what a motor does, and whether three lines arrive in their order."""

from riktig.core.catalogue import Can
from riktig.core.job import DeviceId
from riktig.core.simulation.connectivity import NONE, Connectivity
from riktig.core.simulation.network import MAINS, Network
from riktig.core.simulation.volts import Volts

__all__ = ["LINES", "lines_at", "rotation_of"]

LINES = ("L1", "L2", "L3")


def lines_at(network: Network, volts: Volts, device: DeviceId, pins: tuple[str, str, str] = LINES) -> str:
    """The order in which three pins have the three lines: forward or reverse; empty when one is missing."""
    orders = []
    for pin in pins:
        at = network.at(device, pin)
        pole = volts.pole_at(at) if at is not None else None
        if pole is None or pole.system != MAINS or pole.is_zero:
            return ""
        orders.append(pole.name[-1])
    if len(set(orders)) < 3:
        return ""
    return "forward" if "".join(orders) in ("123", "231", "312") else "reverse"


def rotation_of(network: Network, connectivity: Connectivity, volts: Volts, device: DeviceId) -> str:
    """What a motor does, or another load of three lines; see ``Panel.turns``."""
    kind = network.devices[device].kind
    if kind.can(Can.THREE_LINE_LOAD):
        return "on" if lines_at(network, volts, device) else "off"
    ends = [pin.name for pin in kind.pins]  # the beginnings of the windings, then W2, U2 and V2 however they are marked
    way = lines_at(network, volts, device, (ends[0], ends[1], ends[2]))
    if not way or not kind.can(Can.SIX_ENDS):
        return way or "off"
    tails = [network.at(device, pin) for pin in ends[3:6]]
    first, *others = (-1 if point is None else point for point in tails)
    if -1 in (first, *others):
        return "off"
    if connectivity.root[first] == NONE and set(others) <= connectivity.joined(first):
        return "star"
    return "delta" if lines_at(network, volts, device, (ends[4], ends[5], ends[3])) else "off"
