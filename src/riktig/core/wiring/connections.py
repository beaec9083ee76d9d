"""A wire before it has looks: two clamps of one net."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from riktig.core.job import PinRef
from riktig.core.schematic import Net

__all__ = ["Connection", "chained", "feeds"]


@dataclass(frozen=True, slots=True)
class Connection:
    """Which clamp to which, and the net they share; ``last`` are those of the two from which no wire goes on."""

    net: Net
    a: PinRef
    b: PinRef
    last: tuple[PinRef, ...] = ()


def chained(net: Net, order: Sequence[PinRef]) -> list[Connection]:
    """The connections from clamp to clamp.

    Args:
        net: The net of the clamps.
        order: The clamps in the order in which they are joined.
    """
    ends = (order[0], order[-1])
    return [Connection(net, a, b, tuple(end for end in ends if end in (a, b))) for a, b in pairwise(order)]


def feeds(net: Net) -> bool:
    """Whether a net is one of the lines behind the main switch or the main contactor."""
    return any(node.startswith(("main.", "held.")) for node in net.nodes)
