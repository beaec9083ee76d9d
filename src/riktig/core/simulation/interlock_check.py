"""Contactors that must never be in together, found in together."""

from riktig.core.ids import circuit_of, device_id, role_of
from riktig.core.job import DeviceId
from riktig.core.schematic import MAIN_CONTACTOR, REVERSE, STAR, TRIANGLE
from riktig.core.simulation.connectivity import Connectivity
from riktig.core.simulation.network import Network
from riktig.core.simulation.state import ContactStage
from riktig.core.simulation.volts import Volts

__all__ = ["interlock_fault"]

PAIRS = ((MAIN_CONTACTOR, REVERSE), (STAR, TRIANGLE))
"""By their roles: forward and reverse, star and triangle."""


def interlock_fault(
    network: Network, connectivity: Connectivity, volts: Volts, stage: dict[DeviceId, ContactStage], moved: DeviceId
) -> str:
    """What is wrong when a contactor came in: its opposite is in too, with the ways that feed both; else empty."""
    circuit, role = circuit_of(moved), role_of(moved)
    for pair in PAIRS:
        if role not in pair:
            continue
        other = device_id(circuit, pair[1 - pair.index(role)])
        if other in network.devices and stage[other] == ContactStage.IN:
            ways = "; ".join(
                f"{{{device}}} {_fed(network, connectivity, volts, device)}" for device in sorted((moved, other))
            )
            return f"Both in: {{{moved}}} and {{{other}}}. {ways}"
    return ""


def _fed(network: Network, connectivity: Connectivity, volts: Volts, did: DeviceId) -> str:
    coil = next((consumer for consumer in network.consumers if consumer.device == did), None)
    if coil is None:
        return "has no coil here"
    live = next((p for p in (coil.a, coil.b) if (pole := volts.pole_at(p)) and not pole.is_zero), None)
    if live is None:
        return "is pushed in by hand"
    contacts = (network.contacts[number] for number in connectivity.way(live))
    return "is fed through " + ", ".join(f"{{{contact.device}}} {contact.unit}" for contact in contacts)
