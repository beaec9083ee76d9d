"""A wire before it has looks: two clamps of one net."""

from dataclasses import dataclass

from riktig.core.circuit import Net
from riktig.core.job import CircuitId, DeviceId, PinId

__all__ = ["Half", "circuit_of_pin", "feeds", "owner_of"]


@dataclass(frozen=True, slots=True)
class Half:
    """Which clamp to which, and the net they share."""

    net: Net
    a: PinId
    b: PinId


def owner_of(pin: PinId) -> tuple[DeviceId, str]:
    """The device of a pin and its marking."""
    device, marking = pin.rsplit(":", 1)
    return DeviceId(device), marking


def feeds(net: Net) -> bool:
    """Whether a net is one of the lines behind the main switch."""
    return any(node.startswith("main.") for node in net.nodes)


def circuit_of_pin(pin: PinId) -> CircuitId:
    """The circuit of a pin."""
    return CircuitId(pin.split(".", 1)[0])
