"""Clauses about protective conductors and bonds."""

from collections import defaultdict
from collections.abc import Iterable

import numpy as np

from riktig.core.catalogue import Behaviour, Can, Clamp
from riktig.core.job import CircuitId, DeviceId, PinRef, circuit_of, role_of
from riktig.core.keys import DeviceKey, Key, NetKey, PartKey, PinKey, WireKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import DOOR_BONDS, Net, NetClass, Zone
from riktig.core.simulation import islands
from riktig.core.standards import conductor_name, nec_protective_size, protective_section
from riktig.core.terminals import EARTH_CORE

__all__ = ["EARTHING"]

LEAST_MM2 = 2.08
"""Protective conductors of small circuits that the Brief does not list (IEC 60204-1 8.2.2 with protection
against damage; NEC 250.30(A)(1) up to 1000 VA, 14 AWG; both from memory: fairly sure)."""


def protective_sections(view: View) -> ClauseResult:
    """Protective conductors no thinner than the conductors of their circuit ask, in the panel and in the cables."""
    american = view.rulebook.north_american
    clause = view.source("E08")
    findings = []
    evidence = []
    phases = _thickest_phases(view)
    supply = {d.circuit for d in view.circuits.devices if d.kind.can(Can.MAIN_SWITCH)}
    earths = {net.id for net in view.nets.nets if net.net_class is NetClass.EARTH}
    landed = {end.pin for wire in view.wiring.wires for end in (wire.start, wire.end)}
    for wire in view.wiring.wires:
        if wire.net not in earths or role_of(wire.end.pin.device) in DOOR_BONDS:
            continue
        load = view.sizing.load_of(wire.circuit)
        of_supply = wire.circuit in supply
        phase = view.sizing.feeder.mm2 if of_supply else phases.get(wire.circuit, load.section.mm2 if load else 0.0)
        by_it = {pin for pin in view.wiring.joined_with(wire.end.pin) if pin == wire.end.pin or pin not in landed}
        along_rail = [circuit_of(pin.device) for pin in by_it]
        phase = max([phase, *(phases.get(circuit, 0.0) for circuit in along_rail)])
        need = protective_section(phase).value if phase else 0.0
        if american:
            guard = load.proposal.amount("breaker") if load else view.supply.upstream_a
            need = min(nec_protective_size(guard).value, phase)
        if load is None and not of_supply:
            need = max(need, LEAST_MM2)
        shown = f"{conductor_name(phase)} phase" if phase else "a small circuit"
        evidence.append(f"{wire.end.label}: {conductor_name(wire.mm2)} for {shown}")
        if wire.mm2 < need - 1e-9:
            text = f"The protective conductor to {wire.end.label} is {conductor_name(wire.mm2)}"
            findings.append(_too_thin(text, need, WireKey(wire.key), clause))
    for cable in view.strips.cables:
        need = 0.0 if american or not cable.cores else protective_section(cable.mm2).value
        for core in cable.cores:
            if core.name == EARTH_CORE and core.mm2 < need - 1e-9:
                text = f"The protective conductor of cable {cable.tag} is {conductor_name(core.mm2)}"
                findings.append(_too_thin(text, need, DeviceKey(cable.device), clause))
    return ClauseResult(
        "E08", Group.EARTHING, "Protective conductor sections", clause, tuple(evidence), tuple(findings)
    )


def _too_thin(text: str, need: float, where: Key, clause: str) -> Finding:
    text = f"{text}; it must be {conductor_name(need)}."
    return Finding("E08", Verdict.FAILS, text, where, clause, "Use the larger section.")


def _thickest_phases(view: View) -> dict[CircuitId, float]:
    """The thickest live conductor of every circuit as it is wired, mm²; the feed that is looped through it apart."""
    feeds = {n.id for n in view.nets.nets if any(node.startswith(("main.", "in.", "held.")) for node in n.nodes)}
    apart = {net.id for net in view.nets.nets if net.net_class in (NetClass.EARTH, NetClass.NEUTRAL)}
    thickest: dict[CircuitId, float] = {}
    for wire in view.wiring.wires:
        for end in (wire.start, wire.end):
            circuit = circuit_of(end.pin.device)
            if wire.net not in apart and (wire.net not in feeds or circuit in view.sizing.onward.circuits):
                thickest[circuit] = max(thickest.get(circuit, 0.0), wire.mm2)
    return thickest


def everything_bonded(view: View) -> ClauseResult:
    """Every point marked for earth has a conductor to the bar: its own, or that of the rail it stands on."""
    clause = view.source("E09")
    landed = {end.pin for w in view.wiring.wires for end in (w.start, w.end)}
    points = view.circuits.earths
    by_rail = sum(pin in view.wiring.joined and pin not in landed for pin in points)
    findings = [
        Finding(
            "E09",
            Verdict.FAILS,
            f"{view.pin_label(pin)} has no protective conductor.",
            PinKey(pin),
            clause,
            "Give it a way on the earth bar.",
        )
        for pin in points
        if not landed & set(view.wiring.joined_with(pin))
    ]
    for device in view.circuits.devices:
        if device.kind.needs_earth:
            net, outside = view.nets.of_pin.get(device.pin("PE")), device.zone is Zone.FIELD
            if net is None or net.net_class is not NetClass.EARTH:
                findings.append(
                    Finding(
                        "E09",
                        Verdict.FAILS,
                        f"{view.tag(device.id)} has no {'earth core' if outside else 'protective conductor'}.",
                        DeviceKey(device.id),
                        clause,
                        "Give its cable an earth core." if outside else "Give it a way on the earth bar.",
                    )
                )
    return ClauseResult(
        "E09",
        Group.EARTHING,
        "Everything bonded",
        clause,
        (
            f"{sum(pin in landed for pin in points)} points, each from a way of its own",
            *((f"{by_rail} points through the rail they stand on",) if by_rail else ()),
        ),
        tuple(findings),
    )


def one_earth(view: View) -> ClauseResult:
    """All protective conductors hang together from the supply's own, and each supply is earthed at one place."""
    clause = view.source("E13")
    earth = next((net for net in view.nets.nets if "PE" in net.nodes), None)
    findings = list(_floating(view, earth, clause))
    links = [
        (device, ends)
        for device in view.circuits.devices
        for unit in device.kind.units
        if unit.symbol == "link"
        and len(ends := [net for pin in unit.pins if (net := view.nets.of_pin.get(device.pin(pin)))]) > 1
    ]
    by_side: dict[PinRef, list[str]] = defaultdict(list)
    for device, ends in links:
        side = next((net for net in ends if net.net_class is not NetClass.EARTH), None)
        if side is None:
            continue
        by_side[side.id].append(view.tag(device.id))
        if side.net_class is NetClass.NEUTRAL:
            text = f"{view.tag(device.id)} joins the neutral to the protective conductor inside the panel."
            remedy = "Remove it: neutral and protective conductor are joined at the source alone."
            findings.append(Finding("E13", Verdict.FAILS, text, DeviceKey(device.id), clause, remedy))
    for side_id, tags in by_side.items():
        if len(tags) > 1:
            text = f"{' and '.join(tags)} earth the same side: current can flow through the protective conductors."
            findings.append(Finding("E13", Verdict.FAILS, text, NetKey(side_id), clause, "Leave one link."))
    joined = sum(1 for wire in view.wiring.wires if earth and wire.net == earth.id)
    evidence = (f"{joined} protective conductors from the supply's own, {len(links)} links to earth",)
    return ClauseResult("E13", Group.EARTHING, "One earth", clause, evidence, tuple(findings))


def _floating(view: View, earth: Net | None, clause: str) -> Iterable[Finding]:
    """What is marked for earth and hangs together with the supply's protective conductor by no wire."""
    if earth is None:
        return
    number = {pin: n for n, pin in enumerate(earth.pins)}
    label = _islands_of(view, earth, number)
    supply = [pin for pin in earth.pins if view.circuits.device(pin.device).kind.can(Can.SUPPLY)]
    if not supply:
        text = "The supply brings no protective conductor."
        yield Finding("E13", Verdict.FAILS, text, PartKey("supply"), clause, "Land the supply's own on its terminal.")
        return
    root = label[number[supply[0]]]
    loose = dict.fromkeys(pin.device for pin in earth.pins if label[number[pin]] != root)
    for device_id in loose:
        if not view.circuits.device(device_id).kind.pins or _plugged(view, device_id):
            continue
        text = f"{view.tag(device_id)} is marked for earth, but no conductor leads from it to the supply's own."
        yield Finding("E13", Verdict.FAILS, text, DeviceKey(device_id), clause, "Give it a way on the earth bar.")


def _islands_of(view: View, earth: Net, number: dict[PinRef, int]) -> list[int]:
    """By the number of each pin, which of them wires, cores, bars and rails join."""
    ends = [(number[w.start.pin], number[w.end.pin]) for w in view.wiring.wires if w.net == earth.id]
    for cable in view.strips.cables:
        for core in cable.cores:
            if core.panel_pin in number and core.field_pin in number:
                ends.append((number[core.panel_pin], number[core.field_pin]))
    for device in view.circuits.devices:
        for unit in device.kind.units:
            if unit.behaviour is Behaviour.JOINT:
                pins = [number[pin] for name in unit.pins if (pin := device.pin(name)) in number]
                ends += [(pins[0], other) for other in pins[1:]]
    first_of: dict[str, int] = {}
    for pin in earth.pins:
        if pin in view.wiring.joined:
            ends.append((first_of.setdefault(view.wiring.joined[pin], number[pin]), number[pin]))
    label: list[int] = islands(len(earth.pins), np.array(ends, dtype=np.int64).reshape(-1, 2)).tolist()
    return label


def _plugged(view: View, device_id: DeviceId) -> bool:
    """Whether a device takes no wire: it is earthed by what it plugs onto."""
    return all(pin.clamp is Clamp.PLUG for pin in view.circuits.device(device_id).kind.pins)


EARTHING = (protective_sections, everything_bonded, one_earth)
