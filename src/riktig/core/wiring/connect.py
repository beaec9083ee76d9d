"""Nets to wires: n clamps of a net take n-1 wires, no clamp holds more than it may."""

from collections.abc import Container, Iterable, Mapping
from functools import partial
from itertools import pairwise

from riktig.core.catalogue import Can, Clamp
from riktig.core.evaluation import Memory
from riktig.core.ids import read_pin
from riktig.core.job import CircuitId, DeviceId, EndStyle, PinRef, circuit_of
from riktig.core.schematic import Circuits, Device, Net, NetClass, Nets, Zone
from riktig.core.sizing import Sizing
from riktig.core.wiring.apart import pulse_nets
from riktig.core.wiring.batches import make_batches
from riktig.core.wiring.colours import analogue_nets
from riktig.core.wiring.connections import Connection, chained, feeds
from riktig.core.wiring.detours import KeptApart, lay_in_ducts
from riktig.core.wiring.fill import duct_target
from riktig.core.wiring.inputs import WiringInputs
from riktig.core.wiring.joined import (
    earth_points,
    ends_of_chains,
    first_of_joined,
    joined_pins,
    off_jumpers,
    over_jumpers,
)
from riktig.core.wiring.model import Wiring
from riktig.core.wiring.network_cables import network_cables
from riktig.core.wiring.own_orders import OwnOrders
from riktig.core.wiring.routes import Router
from riktig.core.wiring.stages import areas_of
from riktig.core.wiring.wire_ends import Draft, Ends
from riktig.core.wiring.wire_ids import wire_ids_of
from riktig.core.wiring.wire_maker import KeptWires, WireMaker

__all__ = ["wire_all"]

SPREADS = (Can.EARTH_BAR, Can.NEUTRAL_BAR, Can.ZERO_BAR, Can.DISTRIBUTES)
"""What gives each circuit a way of its own."""


def wire_all(inputs: WiringInputs, memory: Memory | None = None) -> Wiring:
    """All wires of the panel.

    Method:
        Each net is joined by the shortest chain through its clamps; a clamp for one conductor
        ends the chain. Protective conductors run each from a way of its own on the earth bar.
        Length = way through the ducts + an allowance at each end, rounded up.

    Args:
        inputs: What the wires follow from.
        memory: Where the ways and wires of the panel as it was are kept; without it the same, only slower.
    """
    circuits, nets, names, sizing = inputs.circuits, inputs.nets, inputs.names, inputs.sizing
    layout, practice = inputs.layout, inputs.practice
    devices = circuits.by_id
    router = Router(layout, inputs.door, circuits.devices, inputs.enclosure, practice, nets.of_pin)
    memory = Memory() if memory is None else memory
    routers, kept_wires = memory.memo(Router, "router"), memory.memo(KeptWires, "kept wires")
    router = routers.put("router", router.or_same(routers.last("router")))
    joined = joined_pins(devices, nets, layout, practice, inputs.joins, inputs.jumpers)
    maker = WireMaker(inputs, router, joined, kept_wires.last("all"))
    connections: list[Connection] = []
    earths: list[tuple[Net, list[PinRef]]] = []
    unrouted: list[PinRef] = []
    own_orders = OwnOrders(inputs.orders, nets.of_pin)
    alone = frozenset(read_pin(text) for text in inputs.one_conductor)
    room_of = partial(_room_of, alone=alone, devices=devices, sizing=sizing)
    spreads = [d for d in circuits.devices if any(d.kind.can(ability) for ability in SPREADS)]
    spreading = {device.id for device in spreads}
    for net in nets.nets:
        pins = [pin for pin in net.pins if _is_clamp(pin, devices)]
        unrouted += [pin for pin in pins if not router.reaches(pin)]
        pins = [pin for pin in pins if router.reaches(pin)]
        if net.net_class is NetClass.EARTH:
            earths.append((net, pins))
            continue
        alike, pins = pins, first_of_joined(pins, joined)
        single = ends_of_chains(pins, joined, room_of)
        takes_wire = {joined[pin]: pin for pin in pins if pin in joined}
        stands_for = {pin: takes_wire[joined[pin]] for pin in alike if pin in joined}
        shortest = partial(router.chain, single=single, door=frozenset())
        by_own_order = own_orders.connections(net, pins, stands_for, spreading, shortest)
        if by_own_order is not None:
            connections += by_own_order
            continue
        spread = _from_blocks(net, pins, _blocks_of(net, spreads, router), maker) if feeds(net) else []
        if spread:
            connections += spread
        elif bars := _bars_of(net, spreads, router):
            neutrals = {device.id for device in devices.values() if device.kind.can(Can.NEUTRAL_TERMINAL)}
            connections += _from_bars(net, pins, bars, neutrals)
        elif any(devices[pin.device].kind.can(Can.TAP_TERMINAL) for pin in pins):
            connections += _tapped(net, pins, devices, single, router)
        elif len(pins) == 2:
            connections += chained(net, pins)
        elif pins[1:]:
            order = router.chain(pins, single, {pin for pin in pins if devices[pin.device].zone is Zone.DOOR})
            connections += chained(net, order)
    connections = over_jumpers(connections, joined, room_of)
    drafts = [maker.draft(connection) for connection in connections]
    maker.note_phases(drafts)
    of_earth: list[Connection] = []
    for net, pins in earths:
        bars = _bars_on(net, Can.EARTH_BAR, spreads, router)
        of_earth += _earths(net, earth_points(pins, circuits, joined, maker.earth_mm2), bars)
    drafts += [maker.draft(connection) for connection in of_earth]
    runs = [maker.run(draft) for draft in drafts]
    in_ducts = lay_in_ducts(runs, layout, router, duct_target(practice), _kept_apart(drafts, circuits, nets))
    for n, route in in_ducts.detours.items():
        drafts[n] = drafts[n]._replace(route=route, detour=route.length - drafts[n].route.length)
    maker.own = wire_ids_of([*connections, *of_earth], names)
    ends = Ends(drafts, sizing, maker.label, maker.is_infeed, crimped=practice.ends is EndStyle.CRIMPS)
    wires = [maker.wire(draft, ends) for draft in drafts]
    kept_wires.put("all", maker.kept(ends))
    returns = {net.id for net in inputs.nets.nets if net.net_class is NetClass.NEUTRAL or net.earthed}
    ordered, batches = make_batches(wires, practice, returns, areas_of(devices, layout, inputs.door), maker)
    strays = tuple(pin for net in nets.nets for pin in own_orders.strays(net))
    strays += tuple(pin for order in own_orders.lost for pin in order.pins)
    return Wiring(
        ordered, batches, in_ducts.segments, maker.crowded(ends, alone), tuple(unrouted), joined, strays,
        network_cables(nets, devices, router), off_jumpers(devices, nets, inputs.jumpers),
    )  # fmt: skip


def _kept_apart(drafts: Iterable[Draft], circuits: Circuits, nets: Nets) -> KeptApart:
    """Which wires carry values of a controller, and which the pulses of drives."""
    pulses = pulse_nets(circuits, nets)
    signals = analogue_nets(circuits, nets) if pulses else frozenset()
    of = [(n, draft.connection.net.id) for n, draft in enumerate(drafts)] if signals else []
    return KeptApart(tuple(n for n, net in of if net in signals), tuple(n for n, net in of if net in pulses))


def _is_clamp(pin: PinRef, devices: Mapping[DeviceId, Device]) -> bool:
    owner, marking = pin
    device = devices[owner]
    clamp = device.kind.pin(marking).clamp
    return device.zone is not Zone.FIELD and clamp in (Clamp.POWER, Clamp.CONTROL)


def _room_of(pin: PinRef, alone: Container[PinRef], devices: Mapping[DeviceId, Device], sizing: Sizing) -> int:
    """How many conductors a clamp takes, by its part and by the builder's word."""
    owner, marking = pin
    return 1 if pin in alone else sizing.parts[devices[owner].id].clamp(marking).conductors


def _earths(net: Net, points: list[PinRef], bars: list[Device]) -> list[Connection]:
    """Each point from a way of its own; a further bar hangs on the last way of the one before."""
    if not bars:
        return []
    ways = [bar.pin(str(n)) for bar in bars for n in range(1, 8)]
    links = [Connection(net, a.pin("8"), b.pin("1")) for a, b in pairwise(bars)]
    if links:
        taken = {connection.b for connection in links}
        ways = [way for way in ways if way not in taken]
    spare = ways[-1:] * len(points)
    return links + [Connection(net, way, point) for way, point in zip(ways + spare, points, strict=False)]


def _tapped(
    net: Net, pins: list[PinRef], devices: Mapping[DeviceId, Device], single: frozenset[PinRef], router: Router
) -> list[Connection]:
    """What is tapped ahead of the main switch hangs on the terminal's own clamp for it, the feed on the other."""
    tap = next(p for p in pins if devices[p.device].kind.can(Can.TAP_TERMINAL) and p.marking == "t")
    aside = [p for p in pins if p != tap and devices[p.device].kind.can(Can.TAP_SWITCH)]
    feed = [p for p in pins if p != tap and p not in aside]
    chains = [router.chain(feed, single & frozenset(feed), ())] if len(feed) > 1 else []
    return [Connection(net, a, b) for chain in [*chains, [tap, *aside]] for a, b in pairwise(chain)]


def _bars_on(net: Net, can: Can, spreads: list[Device], router: Router) -> list[Device]:
    """Bars of a kind that are drawn on this net and that a wire can get to: another one is no place for its wires."""
    return [d for d in spreads if d.kind.can(can) and d.pin("1") in net.pins and router.reaches(d.pin("1"))]


def _bars_of(net: Net, spreads: list[Device], router: Router) -> list[Device]:
    """The bars that spread a return: the neutral, or 0 V where relay commons are bridged."""
    wanted = {NetClass.NEUTRAL: Can.NEUTRAL_BAR, NetClass.DC: Can.ZERO_BAR}.get(net.net_class)
    return _bars_on(net, wanted, spreads, router) if wanted else []


def _blocks_of(net: Net, spreads: list[Device], router: Router) -> list[Device]:
    """Distribution blocks of which this net has an inlet that a wire can get to."""
    return [
        d
        for d in spreads
        if d.kind.can(Can.DISTRIBUTES)
        and any(d.pin(u.name) in net.pins and router.reaches(d.pin(u.name)) for u in d.kind.units)
    ]


def _from_bars(net: Net, pins: list[PinRef], bars: list[Device], neutrals: Container[DeviceId]) -> list[Connection]:
    """Each circuit's return from a way of its own on the bar, its load's from another; the rest goes on from there."""
    ways = [bar.pin(str(n)) for bar in bars for n in range(1, 8)]
    links = [Connection(net, a.pin("8"), b.pin("1")) for a, b in pairwise(bars)]
    taken = {connection.b for connection in links}
    ways = [way for way in ways if way not in taken]
    heads: dict[tuple[CircuitId, PinRef | None], PinRef] = {}
    connections: list[Connection] = []
    for pin in pins:
        if pin in ways or pin.device in {bar.id for bar in bars}:
            continue
        head = (circuit_of(pin.device), pin if pin.device in neutrals and pin.marking == "i" else None)
        if head in heads:
            connections.append(Connection(net, heads[head], pin))
        else:
            connections.append(Connection(net, ways[min(len(heads), len(ways) - 1)], pin))
        heads[head] = pin
    return links + connections


def _from_blocks(net: Net, pins: list[PinRef], blocks: list[Device], maker: WireMaker) -> list[Connection]:
    """Each breaker from a way of its own of the distribution blocks; none without blocks.

    The supply lands on the first block; a further block hangs on the thick outlet of the one before. That of the last
    block takes the thickest tap where the small outlets do not.
    """
    if not blocks:
        return []
    unit = next(u for u in blocks[0].kind.units if blocks[0].pin(u.name) in net.pins)
    inlets = [block.pin(unit.name) for block in blocks]
    ways = [block.pin(name) for block in blocks for name in unit.pins[2:]]
    onward = [block.pin(unit.pins[1]) for block in blocks]
    links = [Connection(net, a, b) for a, b in zip(onward, inlets[1:], strict=False)]
    ends = [pin for pin in pins if pin not in inlets and pin not in ways and pin not in onward]
    source = [pin for pin in ends if circuit_of(pin.device) == blocks[0].circuit]
    fed = [pin for pin in ends if pin not in source]
    connections = [Connection(net, pin, inlets[0]) for pin in source]
    thickest = max(fed, key=maker.tap_mm2, default=None)
    if thickest and ways and maker.tap_mm2(thickest) > maker.clamp_mm2(ways[0]):
        connections.append(Connection(net, onward[-1], thickest))
        fed.remove(thickest)
    over = ways[-1:] * max(len(fed) - len(ways), 0)
    return connections + links + [Connection(net, way, pin) for way, pin in zip(ways + over, fed, strict=False)]
