"""The cables of a network, ready made: from port to port, one thing after the other."""

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import pairwise

from riktig.core.catalogue import Can
from riktig.core.job import DeviceId, PinRef
from riktig.core.schematic import Device, Nets, Zone
from riktig.core.wiring.routes import Route, Router

__all__ = ["CORD_LENGTHS", "NetworkCable", "network_cables"]

CORD_LENGTHS = (250.0, 500.0, 1000.0, 1500.0, 2000.0, 3000.0, 5000.0, 7500.0, 10_000.0)
"""In which ready-made cables are sold, mm (common practice, no source)."""
SLACK = 150.0
"""At each plug, for the bend and to pull it out, mm (chosen by us)."""


@dataclass(frozen=True, slots=True)
class NetworkCable:
    """One cable between two ports. ``route`` and ``length``, mm, are of one inside the panel; outside both are unknown.

    ``length`` is the shortest that is sold and reaches.
    """

    start: PinRef
    end: PinRef
    route: Route | None
    length: float

    @property
    def inside(self) -> bool:
        """Whether both ports are in the panel."""
        return self.route is not None


def network_cables(nets: Nets, devices: Mapping[DeviceId, Device], router: Router) -> tuple[NetworkCable, ...]:
    """The cables in the order in which they are laid: those of one chain follow each other.

    Args:
        nets: All nets.
        devices: All devices.
        router: The ways of this panel.
    """
    cables: list[NetworkCable] = []
    for net in nets.nets:
        ports = [pin for pin in net.pins if devices[pin.device].kind.can(Can.ON_NETWORK)]
        if len(ports) != len(net.pins) or len(ports) < 2:
            continue
        for start, end in pairwise(ports):
            outside = any(devices[pin.device].zone is Zone.FIELD for pin in (start, end))
            if outside or not (router.reaches(start) and router.reaches(end)):
                cables.append(NetworkCable(start, end, None, 0.0))
                continue
            route = router.route(start, end)
            needs = route.length + 2 * SLACK
            cables.append(NetworkCable(start, end, route, next((n for n in CORD_LENGTHS if n >= needs), needs)))
    return tuple(sorted(cables, key=lambda cable: not cable.inside))
