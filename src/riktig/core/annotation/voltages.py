"""The voltage of each net as a drawing says it at its rails."""

from riktig.core.job import PinRef, Supply
from riktig.core.schematic import Nets
from riktig.core.simulation import MAINS, Network, PolesInReach, SupplyPole

__all__ = ["net_voltages", "supply_lines"]

_NEAR = 0.05
"""A line is said to have the stated voltage to neutral when it is so near to it: 400 V over the root of 3 is 230.9."""


def net_voltages(nets: Nets, network: Network, supply: Supply) -> dict[PinRef, str]:
    """The voltage of every net that one pole of one source can reach, by the id of the net.

    A net that several sources or several poles of one can reach is left out: what it carries depends on what is
    closed. So is a neutral or a protective conductor, whose name says it.

    Args:
        nets: All nets of the circuits.
        network: The circuits as a network.
        supply: The supply of the job.
    """
    reach = PolesInReach(network)
    direct = {pole.system for pole in network.poles if pole.dc}
    voltages: dict[PinRef, str] = {}
    for net in nets.nets:
        point = network.point.get(net.id)
        poles = {(pole.system, pole.ac, pole.dc): pole for pole in (reach.of(point) if point is not None else ())}
        if len(poles) == 1:
            (pole,) = poles.values()
            text = _of_pole(pole, supply, direct)
            if text:
                voltages[net.id] = text
    return voltages


def _of_pole(pole: SupplyPole, supply: Supply, direct: set[str]) -> str:
    if pole.system == MAINS:
        if not pole.name.startswith("L"):
            return ""
        if not supply.neutral:
            return f"{supply.voltage_v:g} V AC"
        to_neutral, stated = abs(pole.ac), supply.voltage_to_neutral_v
        return f"{stated if abs(to_neutral - stated) < _NEAR * stated else round(to_neutral):g} V AC"
    if pole.dc:
        return f"{pole.dc:g} V DC"
    if pole.ac:
        return f"{abs(pole.ac):g} V AC"
    return "0 V" if pole.system in direct else ""


def supply_lines(supply: Supply) -> tuple[str, ...]:
    """What is said of the incoming supply: voltage and frequency, and its conductors."""
    return (f"{supply.voltage_name} {supply.frequency_hz:g} Hz", supply.system_name)
