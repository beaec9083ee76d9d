"""Breakers that practice has fed by a comb or a bar system: they stand side by side and take no wire between them."""

from collections.abc import Iterable
from math import inf

from riktig.core.catalogue import Behaviour, Clamp, Side
from riktig.core.job import DeviceId, Distribution, Enclosure, Join, JoinHow, Practice
from riktig.core.plate.bar_system import adapter_width, least_beside
from riktig.core.plate.first_layout import rail_run
from riktig.core.plate.joins import Assembly, bridged_pins
from riktig.core.schematic import Circuits, Device, Net, Nets, Zone
from riktig.core.sizing import Sizing
from riktig.core.standards import most_of_comb

__all__ = ["assemblies"]

FEEDS = ("main.", "held.")
"""What the names of the lines of a feed begin with."""
COMB_WIDTH = 230.0
"""Longest comb, mm: five motor breakers of 45 mm or twelve places of 17.5 mm (common practice, no source)."""


def assemblies(
    own: tuple[Join, ...], circuits: Circuits, nets: Nets, sizing: Sizing, practice: Practice, enclosure: Enclosure
) -> tuple[Assembly, ...]:
    """What the builder joined, and after it what practice has fed by a comb or a bar.

    Method:
        A comb joins breakers and fuses of one size whose inlets lie on the same lines, in the order of the
        circuits. A bar takes all that hangs on the same feed, whatever its size. What the builder joined himself
        is left as it is, and what is longer than a comb or a rail, or more than a comb carries, becomes two.

    Args:
        own: What the builder joined.
        circuits: All devices of the job.
        nets: All nets of these circuits.
        sizing: The part of every device.
        practice: The practice of the job.
        enclosure: The enclosure: a bar is no longer than a rail.
    """
    how = {Distribution.COMB: JoinHow.COMB, Distribution.BAR: JoinHow.BUSBAR}.get(practice.distribution)
    if how is None:
        return _with_lines(own, circuits, nets)
    taken = {device for join in own for device in join.devices}
    groups: dict[tuple[object, ...], list[tuple[DeviceId, float, float]]] = {}
    for device in circuits.devices:
        lines = _feed_lines(device, nets)
        if lines and device.id not in taken and not device.under:
            part = sizing.parts[device.id]
            alike: tuple[object, ...] = (_system(lines[0]),)
            if how is JoinHow.COMB:
                alike = (*(net.id for net in lines), device.kind_id, part.width, part.height, part.depth)
            width = part.width if how is JoinHow.COMB else adapter_width(part)
            groups.setdefault(alike, []).append((device.id, width, part.rated_a))
    longest = rail_run(enclosure, practice)
    longest = min(longest, COMB_WIDTH) if how is JoinHow.COMB else longest - least_beside(longest)
    limited = how is JoinHow.COMB and not practice.rulebook.north_american and sizing.feeder.needs_a > most_of_comb()
    most_a = most_of_comb() if limited else inf
    joined = [run for members in groups.values() for run in _runs(members, longest, most_a)]
    return _with_lines((*own, *(Join(run, how) for run in joined if len(run) > 1)), circuits, nets)


def _with_lines(joins: Iterable[Join], circuits: Circuits, nets: Nets) -> tuple[Assembly, ...]:
    """Each with the number of potentials at which it joins its parts: so many bars lie beside each other."""
    devices = circuits.by_id
    of_joined = [(join, {nets.of_pin.get(pin) for pin in bridged_pins((join,), devices)}) for join in joins]
    return tuple(Assembly(join.devices, join.how, len(on_nets - {None})) for join, on_nets in of_joined)


def _system(net: Net) -> str:
    """“main” behind the main switch, “held” behind the main contactor; empty of all other nets."""
    return next((node.partition(".")[0] for node in net.nodes if node.startswith(FEEDS)), "")


def _feed_lines(device: Device, nets: Nets) -> tuple[Net, ...]:
    """The lines of the feed that the inlets of a breaker or fuse on the plate lie on; none where one lies elsewhere."""
    if device.zone is not Zone.PLATE or not device.kind.is_protective:
        return ()
    poles = {name for unit in device.kind.units if unit.behaviour is Behaviour.POLE for name in unit.pins}
    inlets = [p for p in device.kind.pins if p.clamp is Clamp.POWER and p.side is Side.TOP and p.name in poles]
    landed = [nets.of_pin.get(device.pin(pin.name)) for pin in inlets]
    lines = tuple(net for net in landed if net is not None and _system(net))
    return lines if len(lines) == len(inlets) else ()


def _runs(
    members: Iterable[tuple[DeviceId, float, float]], longest: float, most_a: float
) -> list[tuple[DeviceId, ...]]:
    """The members in runs, each with its width, mm, and its rated current, A.

    No run is longer than given, nor do its breakers let through more. None is left alone where the run before can spare
    one.
    """
    runs: list[tuple[DeviceId, ...]] = []
    width = amps = 0.0
    for device, wide, rated_a in members:
        if runs and width + wide <= longest and amps + rated_a <= most_a:
            runs[-1] = (*runs[-1], device)
            width, amps = width + wide, amps + rated_a
        else:
            runs.append((device,))
            width, amps = wide, rated_a
    if len(runs) > 1 and len(runs[-1]) == 1 and len(runs[-2]) > 2:
        runs[-2:] = [runs[-2][:-1], (runs[-2][-1], *runs[-1])]
    return runs
