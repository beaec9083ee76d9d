"""Poles of one supply that meet: where, through what, and which protective device opens."""

from dataclasses import dataclass

from riktig.core.job import DeviceId
from riktig.core.simulation.connectivity import NONE, Connectivity
from riktig.core.simulation.network import MAINS, Network, SupplyPole
from riktig.core.simulation.volts import Volts

__all__ = ["Short", "find_short"]

UNGUARDED = "nothing in the panel guards it: the feed's own protection goes"
LEAST_V = 1.0
"""Poles closer together than this may meet: a zero and the earth, V (chosen by us)."""


@dataclass(frozen=True, slots=True)
class Short:
    """Two poles that meet. ``guard`` opens; None: nothing in the panel guards them, and ``supplies`` go."""

    met: str
    said: str
    device: DeviceId
    guard: DeviceId | None
    supplies: frozenset[str]


def find_short(network: Network, connectivity: Connectivity, volts: Volts) -> Short | None:
    """The first short circuit of now; None where there is none. Poles joined by a wire alone nothing guards."""
    for first, other in volts.doubled:
        apart = abs(complex(abs(first.ac - other.ac), first.dc - other.dc))
        if first.system == other.system and apart >= LEAST_V and other.pin is not None:
            device = other.pin.device
            met = " meets ".join(sorted((first.name, other.name)))
            return Short(
                met, f"Short circuit: {met} at {{{device}}}; {UNGUARDED}", device, None, _supplies(first, other)
            )
    for number in sorted(connectivity.crossings):
        contact = connectivity.contacts[number]
        a, b = volts.pole_at(contact.a), volts.pole_at(contact.b)
        if a is None or b is None or NONE in (connectivity.root[contact.a], connectivity.root[contact.b]):
            continue
        if volts.between(contact.a, contact.b) < LEAST_V:
            continue
        met = " meets ".join(sorted((a.name, b.name)))
        here = [] if connectivity.is_bridge(number) else [number]
        way = [*reversed(connectivity.way(contact.a)), *here, *connectivity.way(contact.b)]
        guard = _guard(network, way)
        through = ", ".join(
            f"{{{network.contacts[n].device}}} {network.contacts[n].unit}" for n in way if not _protects(network, n)
        )
        trips = f"{{{guard}}} trips" if guard else UNGUARDED
        return Short(met, f"Short circuit: {met} through {through}; {trips}", contact.device, guard, _supplies(a, b))
    return None


def _supplies(*poles: SupplyPole) -> frozenset[str]:
    return frozenset(pole.name if pole.system == MAINS else pole.system for pole in poles)


def _protects(network: Network, number: int) -> bool:
    return network.devices[network.contacts[number].device].kind.is_protective


def _guard(network: Network, way: list[int]) -> DeviceId | None:
    """Of the protective devices on a way between two poles the one nearest its middle: nearest the fault."""
    there = [place for place, number in enumerate(way) if _protects(network, number)]
    if not there:
        return None
    place = max(there, key=lambda n: (min(n, len(way) - 1 - n), -n))
    return network.contacts[way[place]].device
