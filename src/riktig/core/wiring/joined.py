"""What joins pins of one net without a wire: links, busbars and combs, bridges of terminals, and the rail itself."""

from collections.abc import Callable, Iterable, Mapping

from riktig.core.catalogue import Can
from riktig.core.job import INCOMER_ID, DeviceId, EarthScheme, Join, PinRef, Practice
from riktig.core.plate import Layout, bridged_pins
from riktig.core.schematic import Circuits, Device, NetClass, Nets
from riktig.core.standards import rule
from riktig.core.wiring.model import ASSEMBLY, JUMPER

__all__ = ["earth_points", "first_of_joined", "joined_pins"]

RAIL = "rail "
"""What the name of a rail begins with that joins protective conductors."""


def joined_pins(
    devices: Mapping[DeviceId, Device], nets: Nets, layout: Layout, practice: Practice, joins: Iterable[Join]
) -> dict[PinRef, str]:
    """The pins that something else than a wire joins to others of their net, with a name for what joins them.

    Args:
        devices: All devices by their ids.
        nets: All nets: terminals of one strip that carry control at one potential are bridged by a jumper.
        layout: The plate: where everything stands.
        practice: Whether terminals earth through their rail.
        joins: What the builder or the practice joined to assemblies.
    """
    # An assembly joins several potentials, each by itself: three phases on one comb stay three.
    joined = {
        pin: f"{ASSEMBLY}{number} {nets.of_pin[pin].id}"
        for pin, number in bridged_pins(joins, devices).items()
        if pin in nets.of_pin
    }
    joined |= _jumpers(devices, nets)
    if practice.earths is EarthScheme.RAIL:
        for seat in layout.seats:
            device = devices[seat.device]
            if device.kind.can(Can.EARTH_TERMINAL) and device.circuit != INCOMER_ID and seat.rail:
                joined[device.pin("i")] = f"{RAIL}{seat.rail}"
    return joined


def _jumpers(devices: Mapping[DeviceId, Device], nets: Nets) -> dict[PinRef, str]:
    """Terminals of one strip at one potential of control: each clamp takes one conductor, so no chain could pass."""
    groups: dict[tuple[str, PinRef], list[PinRef]] = {}
    for device in devices.values():
        net = nets.of_pin.get(device.pin("i")) if device.strip else None
        if net is None or device.kind.can(Can.NEUTRAL_TERMINAL):
            continue
        if net.net_class in (NetClass.CONTROL, NetClass.DC, NetClass.NEUTRAL):
            groups.setdefault((device.strip, net.id), []).append(device.pin("i"))
    return {pin: f"{JUMPER}{strip} {net}" for (strip, net), pins in groups.items() if len(pins) > 1 for pin in pins}


def first_of_joined(pins: list[PinRef], joined: Mapping[PinRef, str]) -> list[PinRef]:
    """Without the pins that something joins to the first of them: no wire goes there.

    Args:
        pins: Of one net.
        joined: What joins pins, see ``joined_pins``.
    """
    seen: set[str] = set()
    firsts = []
    for pin in pins:
        if pin in joined:
            if joined[pin] in seen:
                continue
            seen.add(joined[pin])
        firsts.append(pin)
    return firsts


def earth_points(
    pins: list[PinRef], circuits: Circuits, joined: Mapping[PinRef, str], mm2_of: Callable[[PinRef], float]
) -> list[PinRef]:
    """The points that a protective conductor runs to from the bar, in the order of the circuits.

    Of the terminals that earth through one rail only the thickest has one: it bonds the rail. A conductor
    that is thicker than what the rail replaces keeps its own.

    Args:
        pins: Of the protective conductor.
        circuits: All devices of the job.
        joined: What joins pins, see ``joined_pins``.
        mm2_of: The protective conductor that a point asks for, mm².
    """
    bars = {device.id for device in circuits.devices if device.kind.can(Can.EARTH_BAR)}
    known = set(pins)
    points = dict.fromkeys([*(p for p in circuits.earths if p in known), *(p for p in pins if p.device not in bars)])
    most = rule("rail as protective conductor").value
    own_points: list[PinRef] = []
    bonds: dict[str, PinRef] = {}
    for pin in points:
        rail = joined.get(pin, "")
        if not rail.startswith(RAIL) or mm2_of(pin) > most:
            own_points.append(pin)
        elif rail not in bonds or mm2_of(pin) > mm2_of(bonds[rail]):
            bonds[rail] = pin
    return [pin for pin in points if pin in own_points or pin in bonds.values()]
