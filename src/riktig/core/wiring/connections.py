"""A wire before it has looks: two clamps of one net."""

from dataclasses import dataclass

from riktig.core.job import PinRef
from riktig.core.schematic import Net

__all__ = ["Connection", "feeds"]


@dataclass(frozen=True, slots=True)
class Connection:
    """Which clamp to which, and the net they share."""

    net: Net
    a: PinRef
    b: PinRef


def feeds(net: Net) -> bool:
    """Whether a net is one of the lines behind the main switch."""
    return any(node.startswith("main.") for node in net.nodes)
