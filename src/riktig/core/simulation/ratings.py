"""For which voltage each coil, lamp and load of the panel is to be bought: that of the circuit it is in."""

import re
from dataclasses import dataclass

from riktig.core.catalogue import Behaviour, Can, Part
from riktig.core.job import DeviceId, Supply
from riktig.core.simulation.feeds import Feed, PolesInReach, feeds_of
from riktig.core.simulation.network import MAINS, Network
from riktig.core.standards import conductor_name, thickest_awg

__all__ = ["Rating", "described", "ratings_of"]

BOUGHT = {"coil", "buzzer", "lamp", "socket", "resistor", "fan"}
"""Signs of loads that are bought for a voltage; a supply's input and a card's take a range of their own."""


_METRIC = re.compile(r"(\d+(?:\.\d+)?) mm²")


@dataclass(frozen=True, slots=True, order=True)
class Rating:
    """A voltage that something is bought for, V; ``hz`` is 0 for direct current."""

    volts: float
    hz: float

    @property
    def text(self) -> str:
        """“230 V 50 Hz”, “24 V DC”."""
        return f"{self.volts:g} V {self.hz:g} Hz" if self.hz else f"{self.volts:g} V DC"


def ratings_of(network: Network, supply: Supply) -> dict[DeviceId, tuple[Rating, ...]]:
    """The voltages that each device is bought for; a device is not there where they are not known.

    A device with several coils or lamps on different circuits has all of their voltages, in the order of its units; a
    transformer has that of its primary and that of its secondary.

    Args:
        network: The circuits as a network.
        supply: The supply of the job.
    """
    ratings: dict[DeviceId, dict[Rating, None]] = {}
    for feed in feeds_of(network):
        device = network.devices[feed.consumer.device]
        unit = next((u for u in device.kind.units if u.name == feed.consumer.unit), None)
        if unit is None or device.kind.can(Can.OTHER_LOAD) or (device.kind.draw is not None and device.kind.draw.dc):
            continue  # made for 24 V, and its name says so
        bought = unit.behaviour in (Behaviour.COIL, Behaviour.LAMP) or unit.symbol in BOUGHT
        rating = _rating(feed, network, supply) if bought else None
        if rating:
            ratings.setdefault(device.id, {})[rating] = None
    bought_for = {device: tuple(device_ratings) for device, device_ratings in ratings.items()}
    return bought_for | _of_transformers(network, supply)


def _of_transformers(network: Network, supply: Supply) -> dict[DeviceId, tuple[Rating, ...]]:
    """Of each transformer what its primary hangs between, and what its secondary gives; not where nothing feeds it."""
    ratings: dict[DeviceId, tuple[Rating, ...]] = {}
    reach = PolesInReach(network)
    given = {pole.system: abs(pole.ac) for pole in network.poles if pole.ac}
    for device in network.devices.values():
        if not device.kind.can(Can.TRANSFORMS) or str(device.id) not in given:
            continue
        ends = [network.at(device.id, pin) for pin in ("1", "3")]
        names = [{p.name for p in reach.of(end) if p.system == MAINS} for end in ends if end is not None]
        if len(names) != len(ends) or not all(names):
            continue
        volts = supply.voltage_to_neutral_v if any("N" in name for name in names) else supply.voltage_v
        ratings[device.id] = tuple(Rating(v, supply.frequency_hz) for v in (volts, given[str(device.id)]))
    return ratings


def _rating(feed: Feed, network: Network, supply: Supply) -> Rating | None:
    """The least voltage that its poles give it; None where the Brief does not say it, or nothing feeds it."""
    offered: list[Rating] = []
    for a, b in feed.pairs:
        if a.system != MAINS and _is_unstated(network, a.system):
            return None
        if abs(a.dc - b.dc) > 1.0:
            offered.append(Rating(abs(a.dc - b.dc), 0.0))
        elif abs(a.ac - b.ac) > 1.0:
            volts = abs(a.ac - b.ac)
            if a.system == MAINS:
                volts = supply.voltage_to_neutral_v if "N" in (a.name, b.name) else supply.voltage_v
            offered.append(Rating(volts, supply.frequency_hz))
    return min(offered, default=None)


def _is_unstated(network: Network, system: str) -> bool:
    """Whether a supply from elsewhere is meant of which the Brief does not say what it gives."""
    owner = network.devices.get(DeviceId(system.partition(":")[0]))
    return owner is not None and owner.kind.can(Can.FOREIGN_SUPPLY) and not owner.volts


def described(part: Part, ratings: tuple[Rating, ...] = (), *, north_american: bool = False) -> str:
    """A part as it is bought: its description, and for which voltages.

    Args:
        part: Of the catalogue.
        ratings: For which voltages; none where it has none.
        north_american: Whether sizes of clamps are said in AWG as well, and the part is called as it is there.
    """
    text = _METRIC.sub(lambda size: f"{size[0]} ({conductor_name(thickest_awg(float(size[1])))})", part.description)
    text = text if north_american else part.description
    if text.startswith(part.kind.name):
        text = part.kind.called(north_american=north_american) + text.removeprefix(part.kind.name)
    if not ratings:
        return text
    if part.kind.can(Can.TRANSFORMS):
        return f"{text}, {' to '.join(r.text for r in ratings)}"
    return f"{text}, {'coil' if part.kind.has_coil else 'for'} {' and '.join(r.text for r in ratings)}"
