"""Clauses about what watches the supply: surge protectors by their leads, phase lamps, sockets a contactor can drop."""

from collections.abc import Iterable

from riktig.core.catalogue import Can, parts
from riktig.core.job import Recipe, circuit_of
from riktig.core.keys import DeviceKey
from riktig.core.rules.model import ClauseResult, Finding, Group, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Device, NetClass, source_reach

__all__ = ["SUPPLY_WATCH"]

LEADS_MM = 500.0
"""Longest way of a surge by both leads of its protector together, mm (IEC 60364-5-53 534.4.8, from memory; NEC 242
asks for short and straight ones)."""


def surge_leads(view: View) -> ClauseResult:
    """The leads of a surge protector are short: along each metre of them a surge leaves about a kilovolt behind."""
    clause = view.source("E17")
    findings: list[Finding] = []
    evidence: list[str] = []
    for device in view.circuits.devices:
        if not device.kind.can(Can.SURGE):
            continue
        length = sum(_leads(view, device))
        evidence.append(f"{view.tag(device.id)}: leads of {length / 1000:.1f} m together")
        if length > LEADS_MM:
            text = f"{evidence[-1]}; {LEADS_MM / 1000:g} m is the limit."
            remedy = "Put it and its fuses beside the main switch and the earth bar, or sign that longer leads will do."
            findings.append(Finding("E17", Verdict.JUDGE, text, DeviceKey(device.id), clause, remedy))
    words = tuple(evidence) or ("no surge protector is drawn",)
    return ClauseResult("E17", Group.PROTECTION, "Leads of surge protectors", clause, words, tuple(findings))


def _leads(view: View, protector: Device) -> Iterable[float]:
    """The longest wire of each stretch: from the feed to its fuses, on to the protector, and to earth, mm."""
    earths = {net.id for net in view.nets.nets if net.net_class is NetClass.EARTH}
    power = {net.id for net in view.nets.nets if net.net_class is NetClass.POWER}
    leading = [
        wire
        for wire in view.wiring.wires
        if protector.circuit in (circuit_of(wire.start.pin.device), circuit_of(wire.end.pin.device))
    ]
    lands = [wire for wire in leading if protector.id in (wire.start.pin.device, wire.end.pin.device)]
    yield max((wire.length for wire in lands if wire.net in earths), default=0.0)
    yield max((wire.length for wire in lands if wire.net in power), default=0.0)
    ahead = {wire.net for wire in lands}
    yield max((wire.length for wire in leading if wire.net in power and wire.net not in ahead), default=0.0)


def phases_watched(view: View) -> ClauseResult:
    """Lamps of the phases are no monitor: a motor that runs on feeds the lost phase back."""
    clause = view.source("C17")
    lamps = {circuit.id for circuit in view.own_circuits if circuit.recipe is Recipe.PHASE_LAMPS}
    motors = [d for d in view.circuits.devices if d.kind.is_motor and d.kind.can(Can.ON_THREE_LINES)]
    watched = [view.tag(d.id) for d in view.circuits.devices if d.kind.can(Can.WATCHES_PHASES)]
    findings: list[Finding] = []
    shown = [d for d in view.circuits.devices if d.circuit in lamps and d.kind.can(Can.SHOWS)]
    if shown and motors and not watched:
        tags = ", ".join(view.tag(device.id) for device in shown)
        text = f"{tags} can stay lit for a lost phase that a running motor feeds back."
        remedy = "Add a main contactor with a phase monitor, or sign that they are looked at with the motors off only."
        findings.append(Finding("C17", Verdict.JUDGE, text, DeviceKey(shown[0].id), clause, remedy))
    generic = {part.ref for part in parts()}
    evidence = [f"{len(shown)} lamps of phases, {len(motors)} motors on three lines"]
    if watched:
        evidence.append(f"the supply is watched by {', '.join(watched)}")
    for motor in () if watched else motors:
        guards = [d for d in view.circuits.devices if d.circuit == motor.circuit and _sees_a_lost_phase(d)]
        known = [view.tag(d.id) for d in guards if view.sizing.parts[d.id].ref in generic]
        if known:
            evidence.append(f"{view.tag(motor.id)} by {', '.join(known)}")
            continue
        unsure = f"whether {view.tag(guards[0].id)} sees that its data say" if guards else "nothing sees that"
        remedy = "Take an overload relay that trips on a lost phase, or a phase monitor; or compare and sign."
        text = f"{view.tag(motor.id)} overheats on two lines: {unsure}."
        findings.append(Finding("C17", Verdict.JUDGE, text, DeviceKey(motor.id), clause, remedy))
    if any(" by " in line for line in evidence[1:]) and not watched:
        evidence.append("such parts usually see it: compare with their data")
    return ClauseResult("C17", Group.CONTROL, "A lost phase", clause, tuple(evidence), tuple(findings))


def _sees_a_lost_phase(device: Device) -> bool:
    """Overload relays, motor protectors and what is electronic do (IEC 60947-4-1 8.2.1.5, from memory)."""
    can = device.kind.can
    return can(Can.SET_TO_MOTOR) or can(Can.VARIES_SPEED) or can(Can.STARTS_SOFTLY)


def sockets_stay(view: View) -> ClauseResult:
    """A socket for whoever looks for a fault is not dropped by the contactor that the fault drops."""
    clause = view.source("C18")
    sized_circuits = {size.circuit for size in view.sizing.loads}
    main = {d.id for d in view.circuits.devices if d.kind.can(Can.SWITCHES_LOAD) and d.circuit not in sized_circuits}
    reach = source_reach(view.circuits, view.nets, without=lambda device: device.id in main)
    without = frozenset().union(*reach.nets.values())
    findings: list[Finding] = []
    looked_at = 0
    for device in view.circuits.devices:
        if not any(unit.symbol == "socket" for unit in device.kind.units):
            continue
        looked_at += 1
        net = view.nets.of_pin.get(device.pin("L"))
        if main and net and net.id not in without:
            drops = ", ".join(view.tag(d) for d in sorted(main))
            text = f"{view.tag(device.id)} ({device.purpose}) is dead as soon as {drops} drops out."
            remedy = "Feed it ahead of the main contactor, or sign that another socket is at hand."
            findings.append(Finding("C18", Verdict.JUDGE, text, DeviceKey(device.id), clause, remedy))
    words = (f"{looked_at} sockets in the panel, {len(findings)} of them behind the main contactor",)
    title, none = "Sockets and the main contactor", "" if looked_at else "no socket stands in the panel"
    return ClauseResult("C18", Group.CONTROL, title, clause, words, tuple(findings), none)


SUPPLY_WATCH = (surge_leads, phases_watched, sockets_stay)
