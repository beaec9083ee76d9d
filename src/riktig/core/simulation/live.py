"""What stays live in each position of isolators and breakers, and what must be locked to work on a thing."""

from collections import defaultdict
from dataclasses import dataclass

from riktig.core.catalogue import Can
from riktig.core.job import DeviceId, PinRef
from riktig.core.schematic import Circuits, Net, Nets
from riktig.core.simulation.isolation_points import lockable
from riktig.core.simulation.run import Panel

__all__ = ["IsolationResult", "LiveNet", "isolations_of", "live_nets", "live_off"]

LIVE_V = 1.0
"""From here on a point counts as live, V (chosen by us)."""


@dataclass(frozen=True, slots=True)
class LiveNet:
    """A potential that is live: its net, the source that makes it so, its voltage to that source's zero, its pins."""

    net: PinRef
    source: str
    volts: float
    pins: tuple[PinRef, ...]


@dataclass(frozen=True, slots=True)
class IsolationResult:
    """One isolator or breaker that is off: what is live all the same, and the nets that it makes dead.

    Of the main switch ``live`` is all of the panel; of any other what is live on devices of the circuits
    it feeds, so on the very things somebody would work on behind it.
    """

    device: DeviceId
    live: tuple[LiveNet, ...]
    dead: tuple[PinRef, ...]


def _with_foreign(panel: Panel) -> Panel:
    """Every supply from elsewhere counts as on: it may be."""
    panel.operator_state.foreign = {d.id for d in panel.circuits.devices if d.kind.can(Can.FOREIGN_SUPPLY)}
    panel.run_until_stable()
    return panel


def _live(panel: Panel, nets: Nets) -> dict[PinRef, LiveNet]:
    nets_of = {}
    for net in nets.nets:
        by_point: dict[int, list[PinRef]] = defaultdict(list)
        for pin in net.pins:
            by_point[panel.network.point[pin]].append(pin)
        for point, pins in by_point.items():
            known = panel.volts.at[point]
            volts = abs(complex(abs(known[0]), known[1])) if known else 0.0
            if volts < LIVE_V:
                continue
            pole = panel.source_of(point)
            source = pole.system if pole else "through a load"
            nets_of[net.id] = LiveNet(net.id, source, round(volts, 1), tuple(pins))
    return nets_of


def live_off(
    circuits: Circuits, nets: Nets, opened: frozenset[DeviceId], panel: Panel | None = None
) -> tuple[LiveNet, ...]:
    """The potentials that are live with everything at rest and ``opened`` switched off, every other supply on.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        opened: Isolators and breakers that are off; all others are on.
        panel: A panel at rest to try it on; it is left as it was.

    Returns:
        In the order of the nets. A point that is live only through a load counts too.
    """
    panel = _with_foreign(panel or Panel(circuits, nets))
    before = set(panel.operator_state.opened)
    panel.operator_state.opened |= opened
    panel.run_until_stable()
    live = _live(panel, nets)
    panel.operator_state.opened = before
    panel.run_until_stable()
    return tuple(live.values())


def live_nets(circuits: Circuits, nets: Nets, opened: frozenset[DeviceId]) -> tuple[Net, ...]:
    """The nets of ``live_off``.

    Args:
        circuits: All devices and rungs of the job.
        nets: All nets of these circuits.
        opened: Isolators and breakers that are off.
    """
    live = {live_net.net for live_net in live_off(circuits, nets, opened)}
    return tuple(net for net in nets.nets if net.id in live)


def isolations_of(panel: Panel) -> tuple[IsolationResult, ...]:
    """Every isolator and breaker off in turn, the others on, everything else at rest."""
    circuits, nets = panel.circuits, panel.nets
    _with_foreign(panel)
    whole = _live(panel, nets)
    main = {d.id for d in circuits.devices if d.kind.can(Can.MAIN_SWITCH)}
    owner = {d.id: d.circuit for d in circuits.devices}
    isolation_results = []
    for device_id in lockable(circuits):
        panel.operator_state.opened.add(device_id)
        panel.run_until_stable()
        live = _live(panel, nets)
        panel.operator_state.opened.discard(device_id)
        panel.run_until_stable()
        dead = tuple(net for net in whole if net not in live)
        live_nets = tuple(live.values())
        if device_id not in main:
            behind = {owner[pin.device] for net in dead for pin in nets.of_pin[net].pins}
            ours = behind if len(behind) <= 2 else {owner[device_id]}
            live_nets = tuple(live_net for live_net in live_nets if any(owner[p.device] in ours for p in live_net.pins))
        isolation_results.append(IsolationResult(device_id, live_nets, dead))
    return tuple(isolation_results)
