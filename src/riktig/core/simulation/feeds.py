"""What every load hangs between, whatever is switched: its poles, its voltage, and what guards it on the way."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from enum import Enum
from itertools import product

import numpy as np

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import DeviceId
from riktig.core.schematic import Device
from riktig.core.simulation.network import MAINS, Consumer, Contact, Network, SupplyPole
from riktig.core.simulation.nodal import islands

__all__ = ["Feed", "FeedFault", "FeedKind", "PolesInReach", "feed_faults", "feeds_of"]

NEAR = 0.15
"""How far a voltage may be from what a load is made for: the tolerance of coils, IEC 60947-4-1 8.2.1.2, from memory."""
MAINS_LOADS = {"resistor", "socket", "lamp", "fan", "rectifier"}
"""Signs of loads that are made for the supply between a line and neutral."""
DEAD_V = 1.0
"""Below this nothing works (chosen by us)."""
EARTH = "PE"


class FeedKind(Enum):
    """The kinds of what can be wrong with the feed of a load."""

    EARTH_RETURN = "returns through the protective conductor"
    TWO_SOURCES = "between two sources"
    WRONG_CURRENT = "direct for alternating current"
    WRONG_VOLTS = "wrong voltage"
    UNSTATED = "voltage not stated"
    NO_OVERLOAD = "no overload protection"
    PAST_STARTER = "past its electronic starter"


@dataclass(frozen=True, slots=True)
class FeedFault:
    """One thing wrong with what feeds a load: its kind, the load, and the words, devices as ids in braces."""

    kind: FeedKind
    device: DeviceId
    text: str


@dataclass(frozen=True, slots=True)
class Feed:
    """A load with the poles that either end could be joined to, every contact closed but links to earth."""

    consumer: Consumer
    first: tuple[SupplyPole, ...]
    last: tuple[SupplyPole, ...]
    bridged: bool
    """Both ends could be joined to each other, so that nothing can be said of what it hangs between."""

    @property
    def pairs(self) -> list[tuple[SupplyPole, SupplyPole]]:
        """Two poles of one source, one at each end; the protective conductor is no pole to come back to."""
        return [
            (a, b)
            for a, b in product(self.first, self.last)
            if a.system == b.system and a.name != b.name and EARTH not in (a.name, b.name)
        ]


def feeds_of(network: Network) -> tuple[Feed, ...]:
    """What every consumer hangs between."""
    reach = PolesInReach(network)
    return tuple(
        Feed(consumer, reach.of(consumer.a), reach.of(consumer.b), reach.label[consumer.a] == reach.label[consumer.b])
        for consumer in network.consumers
    )


class PolesInReach:
    """The poles of sources that a point of the network could be joined to, every contact closed but links to earth."""

    def __init__(self, network: Network) -> None:
        self.label = _joined(network, lambda contact, device: not _is_earth_link(device))
        self._poles: dict[int, list[SupplyPole]] = {}
        for pole in network.poles:
            self._poles.setdefault(self.label[pole.point], []).append(pole)

    def of(self, point: int) -> tuple[SupplyPole, ...]:
        """Those of one point, by its number."""
        return tuple(self._poles.get(self.label[point], ()))


def feed_faults(network: Network, control_v: float, line_v: float) -> tuple[FeedFault, ...]:
    """What is wrong with the feeds of coils, lamps and loads; nothing is said of one whose poles are not known.

    Args:
        network: The circuits as a network.
        control_v: Voltage of the control circuits, V.
        line_v: Voltage of the supply between two lines, V.
    """
    phase_v = line_v / 3**0.5
    faults = [fault for feed in feeds_of(network) if (fault := _poles_of(feed, network, (control_v, phase_v, line_v)))]
    return (*faults, *_without_overload(network))


def _poles_of(feed: Feed, network: Network, volts: tuple[float, float, float]) -> FeedFault | None:
    """Whether a load lies between two poles of one source, with the voltage it is made for."""
    if feed.bridged or not feed.first or not feed.last:
        return None
    device = network.devices[feed.consumer.device]
    end_poles = [{(pole.system, pole.name) for pole in end if pole.name != EARTH} for end in (feed.first, feed.last)]
    if not feed.pairs:
        if not end_poles[0] or not end_poles[1]:
            text = f"{{{device.id}}} returns through the protective conductor, which carries current in a fault only."
            return FeedFault(FeedKind.EARTH_RETURN, device.id, text)
        text = f"{{{device.id}}} lies between {_named(feed.first)} and {_named(feed.last)}, which are not one source."
        return FeedFault(FeedKind.TWO_SOURCES, device.id, text)
    sources = [network.devices[_maker(a)] for a, _ in feed.pairs if a.system != MAINS]
    foreign = next((source for source in sources if source.kind.can(Can.FOREIGN_SUPPLY)), None)
    if foreign is not None and not foreign.volts:
        text = f"{{{device.id}}} is fed by {{{foreign.id}}}, and the Brief does not say what that gives."
        return FeedFault(FeedKind.UNSTATED, device.id, text)
    if foreign is not None:
        return _of_foreign(device, foreign)
    return _volts_of(feed, device, volts)


def _of_foreign(device: Device, foreign: Device) -> FeedFault | None:
    """What another panel feeds: made for direct current or not, and for 24 V where it is."""
    made_direct = device.kind.draw is not None and device.kind.draw.dc
    given = f"{foreign.volts:g} V {'direct' if foreign.direct else 'alternating'}"
    if made_direct and (not foreign.direct or abs(foreign.volts - 24.0) > NEAR * 24.0):
        text = f"{{{device.id}}} works on 24 V direct current, and {given} reach it from {{{foreign.id}}}."
        return FeedFault(FeedKind.WRONG_VOLTS if foreign.direct else FeedKind.WRONG_CURRENT, device.id, text)
    return None


def _volts_of(feed: Feed, device: Device, volts: tuple[float, float, float]) -> FeedFault | None:
    """Whether a load that is made for one voltage gets it; coils and lamps are bought for that of their circuit."""
    unit = next((u for u in device.kind.units if u.name == feed.consumer.unit), None)
    direct = [abs(a.dc - b.dc) for a, b in feed.pairs if abs(a.dc - b.dc) > DEAD_V]
    alternating = [abs(a.ac - b.ac) for a, b in feed.pairs if abs(a.ac - b.ac) > DEAD_V]
    if unit is None or unit.behaviour is Behaviour.INPUT:
        return None
    if device.kind.draw is not None and device.kind.draw.dc:
        if direct or not alternating:
            return None
        text = f"{{{device.id}}} works on 24 V direct current, and {min(alternating):.0f} V alternating reach it."
        return FeedFault(FeedKind.WRONG_CURRENT, device.id, text)
    if unit.behaviour is not Behaviour.LOAD or unit.symbol not in MAINS_LOADS or device.kind.can(Can.OTHER_LOAD):
        return None  # a load of the Brief is for the voltage that the Brief gives it
    if not alternating:
        if not direct:
            return None  # a supply of no volts to speak of
        text = f"{{{device.id}}} works on alternating current, and {min(direct):.0f} V direct reach it."
        return FeedFault(FeedKind.WRONG_CURRENT, device.id, text)
    control_v, phase_v, line_v = volts
    made_for = (phase_v, line_v, control_v) if device.kind.can(Can.MAKES_DC) else (phase_v, control_v)
    if any(abs(has - wanted) <= NEAR * wanted for has, wanted in product(alternating, made_for)):
        return None
    text = f"{{{device.id}}} is made for {phase_v:.0f} V, and {min(alternating):.0f} V reach it."
    return FeedFault(FeedKind.WRONG_VOLTS, device.id, text)


def _without_overload(network: Network) -> Iterable[FeedFault]:
    """Motors that a line of the supply reaches through nothing that watches the motor's current."""

    def watched(contact: Contact, device: Device) -> bool:
        can = device.kind.can
        return can(Can.OVERLOAD) or can(Can.SET_TO_MOTOR) or can(Can.ELECTRONIC_STARTER)

    label = _joined(network, lambda contact, device: not watched(contact, device))
    lines = {label[pole.point]: pole.name for pole in network.poles if pole.system == MAINS and pole.ac}
    starters = {d.circuit: d.id for d in network.devices.values() if d.kind.can(Can.ELECTRONIC_STARTER)}
    told: set[DeviceId] = set()
    for consumer in network.consumers:
        device = network.devices[consumer.device]
        bare = lines.get(label[consumer.a])
        through = not consumer.ends[1] or label[consumer.b] in lines  # a winding is watched at either of its ends
        if device.kind.is_motor and bare and through and device.id not in told:
            told.add(device.id)
            if device.circuit in starters:
                text = (
                    f"{{{device.id}}} can run past {{{starters[device.circuit]}}}: whether that still watches its "
                    "current depends on where it measures."
                )
                yield FeedFault(FeedKind.PAST_STARTER, device.id, text)
                continue
            text = f"{{{device.id}}} is reached from {bare} through nothing that watches its current."
            yield FeedFault(FeedKind.NO_OVERLOAD, device.id, text)


def _joined(network: Network, leads: Callable[[Contact, Device], bool]) -> list[int]:
    """The island of every point, with the contacts closed that ``leads`` says yes to."""
    ends = [(c.a, c.b) for c in network.contacts if leads(c, network.devices[c.device])]
    return [int(n) for n in islands(network.count, np.array(ends, dtype=np.int64).reshape(-1, 2))]


def _is_earth_link(device: Device) -> bool:
    """Whether a device joins the zero of a source to the protective conductor."""
    return any(unit.symbol == "link" for unit in device.kind.units)


def _maker(pole: SupplyPole) -> DeviceId:
    return DeviceId(pole.system.partition(":")[0])


def _named(poles: tuple[SupplyPole, ...]) -> str:
    """The poles at one end in words: “L1 of the supply”, “M of {T1}”."""
    words = [
        f"{pole.name} of " + ("the supply" if pole.system == MAINS else f"{{{_maker(pole)}}}")
        for pole in poles
        if pole.name != EARTH
    ]
    return " and ".join(dict.fromkeys(words))
