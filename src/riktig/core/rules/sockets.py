"""Whether who plugs something in is protected: sockets behind a residual-current breaker."""

from collections.abc import Iterable

from riktig.core.catalogue import Behaviour, Can
from riktig.core.job import LoadKind
from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import PASS, Device, Net, joined_nets, reached, source_reach

__all__ = ["SOCKETS"]

UP_TO_A = 32.0
"""Sockets up to this rating (IEC 60364-4-41:2017 411.3.3, from memory)."""
TO_GROUND_V = 150.0
"""North American receptacles up to this voltage to ground (NEC 210.8(B), from memory)."""


def sockets_watched(view: View) -> ClauseResult:
    """Every socket has a residual-current breaker in each of its live conductors, its neutral too."""
    american = view.rulebook.north_american
    clause = view.source("E15")
    reach = source_reach(view.circuits, view.nets, without=lambda device: device.kind.can(Can.RESIDUAL))
    unwatched = frozenset().union(*reach.nets.values())
    # The reach begins at the live side of a source; its return must not come past the breaker to a socket either.
    ends = {
        net.id
        for source in view.circuits.devices
        for unit in source.kind.units
        if unit.behaviour is Behaviour.SOURCE and (net := view.nets.of_pin.get(source.pin(unit.pins[-1])))
    }
    ends |= {net.id for net in view.nets.nets if "N" in net.nodes}
    returns = reached(
        joined_nets(
            view.circuits,
            view.nets,
            lambda device, unit: unit.behaviour in PASS and not device.kind.can(Can.RESIDUAL),
            across_shared=True,
        ),
        ends,
    )
    evidence: list[str] = []
    findings: list[Finding] = []
    for device, excused in _sockets(view, american):
        pins = [device.pin(pin.name) for pin in device.kind.pins if pin.name != "PE"]
        nets = [net for pin in pins if (net := view.nets.of_pin.get(pin))]
        past = [net for net in nets if net.is_shared or net.id in unwatched or net.id in returns]
        name = f"{view.tag(device.id)}, {device.purpose}"
        if excused:
            evidence.append(f"{name}: {excused}")
        elif past:
            findings.append(_finding(view, device, past, clause))
        else:
            evidence.append(f"{name}: {len(nets)} conductors behind a residual-current breaker")
    none = "" if evidence or findings else "no socket is drawn"
    return ClauseResult("E15", Group.PROTECTION, "Sockets", clause, tuple(evidence), tuple(findings), none)


def _finding(view: View, device: Device, past: list[Net], clause: str) -> Finding:
    numbers = " and ".join(view.names.number.get(net.id, "a conductor") for net in past)
    text = f"{view.tag(device.id)} ({device.purpose}): {numbers} goes to the socket past any residual-current breaker."
    remedy = "Feed it by a residual-current breaker of 30 mA, its neutral through the same breaker."
    return Finding("E15", Verdict.FAILS, text, DeviceKey(device.id), clause, remedy)


def _sockets(view: View, american: bool) -> Iterable[tuple[Device, str]]:
    """Every socket, in the panel and in the field, and why it needs none; empty where it does."""
    loads = {load.id: load for load in view.loads if load.kind is LoadKind.SOCKETS}
    for device in view.circuits.devices:
        if any(unit.symbol == "socket" for unit in device.kind.units):
            yield device, ""
            continue
        size = view.sizing.load_of(device.circuit)
        load = loads.get(size.load) if size else None
        takes = any(unit.behaviour in (Behaviour.LOAD, Behaviour.WINDING) for unit in device.kind.units)
        if load is None or size is None or not takes:
            continue
        amps = size.proposal.amount("breaker") or size.current.value
        volts = view.supply.voltage_to_neutral_v
        if american and (load.phases > 1 or volts > TO_GROUND_V):
            yield device, f"{volts:g} V to ground, {load.phases} lines: not asked for"
        elif not american and amps > UP_TO_A:
            yield device, f"behind {amps:g} A: asked for up to {UP_TO_A:g} A"
        else:
            yield device, ""


SOCKETS = (sockets_watched,)
