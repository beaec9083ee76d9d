"""What joins pins of one net without a wire: links, busbars and combs, bridges of terminals, and the rail itself."""

from collections import Counter
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import replace

from riktig.core.catalogue import Can
from riktig.core.job import INCOMER_ID, DeviceId, EarthScheme, Join, OwnJumper, PinRef, Practice
from riktig.core.plate import Layout, bridged_pins
from riktig.core.schematic import Circuits, Device, NetClass, Nets
from riktig.core.standards import rule
from riktig.core.wiring.connections import Connection
from riktig.core.wiring.model import ASSEMBLY, JUMPER

__all__ = [
    "can_be_jumped",
    "earth_points",
    "ends_of_chains",
    "first_of_joined",
    "joined_pins",
    "off_jumpers",
    "over_jumpers",
]

ENDS = 2
"""Of a chain."""
RAIL = "rail "
"""What the name of a rail begins with that joins protective conductors."""


def joined_pins(
    devices: Mapping[DeviceId, Device],
    nets: Nets,
    layout: Layout,
    practice: Practice,
    joins: Iterable[Join],
    jumpers: Iterable[OwnJumper] = (),
) -> dict[PinRef, str]:
    """The pins that something else than a wire joins to others of their net, with a name for what joins them.

    Args:
        devices: All devices by their ids.
        nets: All nets: terminals of one strip that carry control at one potential are bridged by a jumper.
        layout: The plate: where everything stands.
        practice: Whether terminals earth through their rail.
        joins: What the builder or the practice joined to assemblies.
        jumpers: The jumpers that the builder chose himself.
    """
    # An assembly joins several potentials, each by itself: three phases on one comb stay three.
    joined = {
        pin: f"{ASSEMBLY}{number} {nets.of_pin[pin].id}"
        for pin, number in bridged_pins(joins, devices).items()
        if pin in nets.of_pin
    }
    joined |= _jumpers(devices, nets, jumpers)
    if practice.earths is EarthScheme.RAIL:
        for seat in layout.seats:
            device = devices[seat.device]
            if device.kind.can(Can.EARTH_TERMINAL) and device.circuit != INCOMER_ID and seat.rail:
                joined[device.pin("i")] = f"{RAIL}{seat.rail}"
    return joined


def can_be_jumped(device: Device, nets: Nets) -> bool:
    """Whether a plug-in jumper may lie on a terminal: it carries control, and is none of the neutral's own."""
    net = nets.of_pin.get(device.pin("i")) if device.strip else None
    if net is None or device.kind.can(Can.NEUTRAL_TERMINAL):
        return False
    return net.net_class in (NetClass.CONTROL, NetClass.DC, NetClass.NEUTRAL)


def _jumpers(devices: Mapping[DeviceId, Device], nets: Nets, own: Iterable[OwnJumper]) -> dict[PinRef, str]:
    """Terminals of one strip at one potential of control: each clamp takes one conductor, so no chain could pass."""
    own_number = {terminal: number for number, jumper in enumerate(own, 1) for terminal in jumper.terminals}
    groups: dict[tuple[str, PinRef, int], list[PinRef]] = {}
    for device in devices.values():
        if can_be_jumped(device, nets):
            net = nets.of_pin[device.pin("i")].id
            groups.setdefault((device.strip, net, own_number.get(device.id, 0)), []).append(device.pin("i"))
    joined: dict[PinRef, str] = {}
    for (strip, net, number), pins in groups.items():
        name = f"{JUMPER}{strip} {net} own {number}" if number else f"{JUMPER}{strip} {net}"
        joined |= dict.fromkeys(pins if len(pins) > 1 else (), name)
    return joined


def off_jumpers(devices: Mapping[DeviceId, Device], nets: Nets, own: Iterable[OwnJumper]) -> tuple[PinRef, ...]:
    """Terminals that a jumper of the builder's names and cannot join to the first that it names.

    One is gone, one stands in another strip, or one carries another potential, or no control any more.
    """
    off: list[PinRef] = []
    for jumper in own:
        first: tuple[str, PinRef] | None = None
        for terminal in jumper.terminals:
            device = devices.get(terminal)
            if device is None or not can_be_jumped(device, nets):
                off.append(PinRef(terminal, "i"))
                continue
            place = (device.strip, nets.of_pin[device.pin("i")].id)
            first = first or place
            if place != first:
                off.append(PinRef(terminal, "i"))
    return tuple(off)


def ends_of_chains(
    pins: Iterable[PinRef], joined: Mapping[PinRef, str], room_of: Callable[[PinRef], int]
) -> frozenset[PinRef]:
    """The clamps from which no wire goes on: they take one.

    Where there are more than a chain has ends, jumpers are passed: in at one terminal, out at another. Only then: an
    earthing link should not hang behind a jumper that somebody pulls out; where one does, W10 says so.
    """
    single = frozenset(pin for pin in pins if room_of(pin) == 1)
    if len(single) <= ENDS:
        return single
    return frozenset(pin for pin in single if not joined.get(pin, "").startswith(JUMPER))


def over_jumpers(
    connections: Sequence[Connection], joined: Mapping[PinRef, str], room_of: Callable[[PinRef], int]
) -> list[Connection]:
    """Wires that go on over a jumper: what the first of its terminals has no room for lands on the next that has.

    Args:
        connections: Of one potential, each from the first terminal of a jumper.
        joined: What joins pins, see ``joined_pins``.
        room_of: How many conductors a clamp takes.
    """
    used: Counter[PinRef] = Counter()

    def landing(pin: PinRef) -> PinRef:
        name = joined.get(pin, "")
        chosen = pin
        if name.startswith(JUMPER) and used[pin] >= room_of(pin):
            others = (other for other, of in joined.items() if of == name and used[other] < room_of(other))
            chosen = next(others, pin)
        used[chosen] += 1
        return chosen

    spread: list[Connection] = []
    for connection in connections:
        a, b = landing(connection.a), landing(connection.b)
        if (a, b) != (connection.a, connection.b):
            now = {connection.a: a, connection.b: b}
            connection = replace(connection, a=a, b=b, last=tuple(now[end] for end in connection.last))
        spread.append(connection)
    return spread


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
