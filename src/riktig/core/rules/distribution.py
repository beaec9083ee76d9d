"""How the supply is shared out: what stays live, the feeder of motors, light and sockets of the panel, diversity."""

from collections.abc import Iterator

from riktig.core.catalogue import Behaviour, Can, Part
from riktig.core.job import PinRef
from riktig.core.keys import DeviceKey, PartKey
from riktig.core.rules.guarded_wires import GuardedWires
from riktig.core.rules.model import ClauseResult, Finding, Group, QuickFix, Verdict
from riktig.core.rules.view import View
from riktig.core.schematic import Device, Net, outside_device, source_reach
from riktig.core.short_circuit import earth_faults
from riktig.core.sizing import LoadSize
from riktig.core.standards import (
    assumed_loading,
    limited_energy_va,
    nec_branch_percent,
    nec_rating_above,
    nec_rating_below,
    rule,
)

__all__ = ["DISTRIBUTION"]

_TAKES = (Behaviour.COIL, Behaviour.LAMP, Behaviour.WINDING, Behaviour.LOAD, Behaviour.INPUT)
BETWEEN_HZ = 55.0
"""Above it a supply is of 60 Hz."""
SMALLEST_A = 15.0
"""The smallest standard rating of a feeder's breaker, A (NEC 240.6(A), from memory)."""
LIGHT_AND_SOCKETS = ("lamp", "socket")
"""The symbols of what the panel is lit and served by."""


def excepted_circuits(view: View) -> ClauseResult:
    """What the main switch leaves live has a switch of its own, and somebody accepted that it stays live."""
    clause = view.source("E22")
    title = "Circuits the main switch leaves live"
    foreign = {device.id for device in view.circuits.devices if device.kind.can(Can.FOREIGN_SUPPLY)}
    live = {pin for live_net in view.live_off for pin in live_net.pins}
    takers = [device for device in view.circuits.devices if device.id not in foreign and _takes_at(device, live)]
    from_elsewhere = {pin for live_net in view.live_off if live_net.source in foreign for pin in live_net.pins}
    reach = source_reach(view.circuits, view.nets, without=_switches_off)
    supply = {device.id for device in view.circuits.devices if device.kind.can(Can.SUPPLY)}
    unswitched = frozenset().union(*(on for pin, on in reach.nets.items() if pin.device in supply))
    evidence: list[str] = []
    findings: list[Finding] = []
    for device in takers:
        pins = [pin for pin in device.pins.values() if pin in live]
        elsewhere = any(pin in from_elsewhere for pin in pins)
        nets = [net for pin in pins if (net := view.nets.of_pin.get(pin))]
        bare = [net for net in nets if net.id in unswitched and not net.is_shared]
        name = f"{view.tag(device.id)} ({device.purpose})"
        if bare and not elsewhere:
            text = f"{name} stays live with the main switch off and has no switch of its own."
            remedy = "Put a switch that can be locked ahead of it, or feed it from behind the main switch."
            findings.append(Finding("E22", Verdict.FAILS, text, DeviceKey(device.id), clause, remedy))
        else:
            evidence.append(f"{name}, {'from elsewhere' if elsewhere else 'by a switch of its own'}")
    if evidence:
        text = f"With the main switch off {len(evidence)} things stay live: {'; '.join(evidence)}."
        remedy = "Sign that each must stay live, has its plate, and is named in the instructions."
        where = DeviceKey(takers[0].id)
        findings.append(Finding("E22", Verdict.JUDGE, text, where, clause, remedy))
    none = "" if takers else "nothing but the incoming terminals stays live with the main switch off"
    return ClauseResult("E22", Group.SUPPLY, title, clause, tuple(evidence), tuple(findings), none)


def _switches_off(device: Device) -> bool:
    """Whether what is behind a device can be made dead by it alone."""
    return device.kind.can(Can.ISOLATES) or device.kind.is_protective


def _takes_at(device: Device, live: set[PinRef]) -> bool:
    """Whether a device works on a potential that stays live."""
    return any(unit.behaviour in _TAKES and any(pin in live for pin in pins) for unit, pins in device.unit_pins)


def feeder_of_motors(view: View) -> ClauseResult:
    """The feeder is protected by no more than its largest branch, and the currents of all other loads."""
    clause = view.source("E24")
    title = "Protection of the feeder"
    if not view.rulebook.north_american:
        none = "the European rulebook protects the feeder by its section, see W01 and W05"
        return ClauseResult("E24", Group.SUPPLY, title, clause, (), (), none)
    faults = earth_faults(view.power_paths, view.sizing, view.loads, view.supply, view.short_circuit.prospective_ka)
    guard_of = {fault.load: view.sizing.parts[fault.guard] for fault in faults}
    motors = {load.id for load in view.loads if load.is_motor}
    sizes = [size for size in view.sizing.loads if size.load in guard_of]
    of_motors = [size for size in sizes if size.load in motors]
    if not of_motors:
        return ClauseResult("E24", Group.SUPPLY, title, clause, (), (), "no motor hangs on the feeder")
    largest = max(of_motors, key=lambda size: guard_of[size.load].rated_a)
    others = max(view.sizing.full_load_a - largest.current.value, 0.0)
    fitted = guard_of[largest.load].rated_a
    allowed = max(fitted, _most_of_branch(view, largest, guard_of[largest.load]))
    wanted, most = (max(nec_rating_below(branch + others), SMALLEST_A) for branch in (fitted, allowed))
    has = view.supply.upstream_a
    evidence = [
        f"largest branch {view.tag(outside_device(view.circuits, largest.circuit).id)}, {fitted:g} A, all other loads "
        f"{others:.1f} A: the feeder at {wanted:g} A",
        f"by the largest guard that branch may have, {allowed:g} A, the feeder at {most:g} A",
        f"protected upstream at {has:g} A",
    ]
    findings: list[Finding] = []
    if has > wanted + 1e-9:
        text = f"The feeder is protected at {has:g} A; by its branches as fitted at most {wanted:g} A are allowed."
        remedy = "Protect the feeder by the next lower standard rating, or say why a larger one is needed and sign."
        verdict = Verdict.FAILS if has > most + 1e-9 else Verdict.JUDGE
        fix = QuickFix(f"Protect the feeder at {wanted:g} A", "feeder", f"{wanted:g}")
        findings.append(Finding("E24", verdict, text, PartKey("supply"), clause, remedy, fix))
    return ClauseResult("E24", Group.SUPPLY, title, clause, tuple(evidence), tuple(findings))


def _most_of_branch(view: View, size: LoadSize, guard: Part) -> float:
    """The largest guard that the branch of a motor may have by its kind, A (NEC 430.52(C)(1) with exception 1)."""
    phases = next(load.phases for load in view.loads if load.id == size.load)
    of_kind = "dual_element_time_delay_fuse" if guard.kind.can(Can.LIMITS_CURRENT) else "inverse_time_breaker"
    return nec_rating_above(size.current.value * nec_branch_percent(of_kind, phases=phases).value)


def light_and_sockets(view: View) -> ClauseResult:
    """Light and sockets of the panel have a small breaker of their own, apart from control."""
    clause = view.source("E25")
    title = "Light and sockets of the panel"
    american = view.rulebook.north_american
    most = rule("light of the panel in north america" if american else "light of the panel")
    guards = view.once(GuardedWires)
    evidence: list[str] = []
    findings: list[Finding] = []
    for device in view.circuits.devices:
        symbols = {unit.symbol for unit in device.kind.units}
        if not device.kind.can(Can.SERVICE) or not symbols.intersection(LIGHT_AND_SOCKETS):
            continue
        name, where = f"{view.tag(device.id)} ({device.purpose})", DeviceKey(device.id)
        ahead = [guard for net in _nets_of(view, device) for guard in guards.guards_of(net.id)]
        if not ahead:
            # A supply from elsewhere is guarded there, if the Brief says by what.
            amps = min((guards.ahead_of(net.id) for net in _nets_of(view, device) if not net.is_shared), default=0.0)
            if 0 < amps <= most.value:
                evidence.append(f"{name}: {amps:g} A where its supply comes from")
                continue
            text = f"{name} has no breaker of {most.value:g} A or less ahead of it in the panel."
            verdict = Verdict.JUDGE if _fed_from_elsewhere(view, device) else Verdict.FAILS
            remedy = "Give it a breaker of its own, or sign what protects it where its supply comes from."
            findings.append(Finding("E25", verdict, text, where, clause, remedy))
            continue
        nearest, amps = min(ahead, key=lambda guard: guard[1])
        if amps > most.value:
            text = f"{name} stands behind {view.tag(nearest)} of {amps:g} A; at most {most.value:g} A are allowed."
            remedy = f"Take a breaker of {most.value:g} A or less."
            findings.append(Finding("E25", Verdict.FAILS, text, where, clause, remedy))
        else:
            evidence.append(f"{name}: {view.tag(nearest)}, {amps:g} A")
    none = "" if evidence or findings else "no light and no socket of the panel is drawn"
    return ClauseResult("E25", Group.PROTECTION, title, clause, tuple(evidence), tuple(findings), none)


def _fed_from_elsewhere(view: View, device: Device) -> bool:
    """Whether a supply from elsewhere reaches a device through whatever can close."""
    reach = source_reach(view.circuits, view.nets)
    own_nets = {net.id for net in _nets_of(view, device) if not net.is_shared}
    return any(
        own_nets & nets
        for pin, nets in reach.nets.items()
        if view.circuits.device(pin.device).kind.can(Can.FOREIGN_SUPPLY)
    )


def _nets_of(view: View, device: Device) -> list[Net]:
    return [net for pin in device.pins.values() if (net := view.nets.of_pin.get(pin))]


def diversity(view: View) -> ClauseResult:
    """The main switch carries all outgoing circuits at once, or the share that may be assumed of so many."""
    clause = view.source("E29")
    title = "Diversity of the loads"
    if view.rulebook.north_american:
        none = "the North American rulebook adds up what runs together, see E02 and E03"
        return ClauseResult("E29", Group.SUPPLY, title, clause, (), (), none)
    switch = next((device for device in view.circuits.devices if device.kind.can(Can.MAIN_SWITCH)), None)
    sizes = view.sizing.loads
    if switch is None or not sizes:
        return ClauseResult("E29", Group.SUPPLY, title, clause, (), (), "no main switch or no load is drawn")
    rated, whole = view.sizing.parts[switch.id].rated_a, sum(size.current.value for size in sizes)
    evidence = [
        f"{len(sizes)} outgoing circuits, {whole:.1f} A together; {view.tag(switch.id)} {rated:g} A",
        "heat is reckoned with every load at its full current, see P05",
    ]
    if rated >= whole:
        evidence.append("diversity factor 1: all may run at once")
        return ClauseResult("E29", Group.SUPPLY, title, clause, tuple(evidence))
    needed, assumed = rated / whole, assumed_loading(len(sizes))
    verdict = Verdict.FAILS if needed < assumed.value else Verdict.JUDGE
    text = (
        f"{view.tag(switch.id)} carries {needed:.2f} of all loads at once; {assumed.value:g} are assumed of "
        f"{len(sizes)} circuits whose loads nobody has stated."
    )
    remedy = "Take a larger main switch." if verdict is Verdict.FAILS else "State the diversity factor, and sign."
    findings = (Finding("E29", verdict, text, DeviceKey(switch.id), clause, remedy),)
    return ClauseResult("E29", Group.SUPPLY, title, clause, tuple(evidence), findings)


def control_voltage(view: View) -> ClauseResult:
    """The control voltage of what was drawn is no higher than the rulebook wants it."""
    clause = view.source("C23")
    title = "Control voltage"
    american, hz = view.rulebook.north_american, view.supply.frequency_hz
    most = rule("highest control voltage")
    if american:
        most = rule("highest control voltage in north america")
    elif hz > BETWEEN_HZ:
        most = rule("highest control voltage at 60 hz")
    sources = [device for device in view.circuits.devices if device.kind.can(Can.TRANSFORMS)]
    evidence = [f"{view.tag(device.id)}: {view.practice.transformer_v:g} V" for device in sources]
    findings: list[Finding] = []
    if not any(device.kind.has_coil for device in view.circuits.devices):
        return ClauseResult("C23", Group.CONTROL, title, clause, (), (), "no coil is drawn")
    if sources and view.practice.transformer_v > most.value:
        text = f"Control circuits stand at {view.practice.transformer_v:g} V; at most {most.value:g} V are allowed."
        remedy = "Choose a lower voltage of the control transformer in the practice."
        findings.append(Finding("C23", Verdict.FAILS, text, DeviceKey(sources[0].id), clause, remedy))
    for device, volts in _on_supply(view):
        evidence.append(f"{view.tag(device.id)}: {volts:g} V, from the supply")
        if volts > most.value:
            text = f"The coil {view.tag(device.id)} hangs on the supply at {volts:g} V; allowed are {most.value:g} V."
            fix = QuickFix("Control from a transformer", "control transformer")
            remedy = "Feed it by a transformer."
            findings.append(Finding("C23", Verdict.FAILS, text, DeviceKey(device.id), clause, remedy, fix))
    words = tuple(evidence) or ("every coil at 24 V direct current",)
    return ClauseResult("C23", Group.CONTROL, title, clause, words, tuple(findings))


def _on_supply(view: View) -> Iterator[tuple[Device, float]]:
    """Coils that a line of the supply reaches through contacts and guards, with their voltage."""
    reach = source_reach(view.circuits, view.nets)
    lines = [on for pin, on in reach.nets.items() if view.circuits.device(pin.device).kind.can(Can.SUPPLY)]
    fed = frozenset().union(*lines)
    for device in view.circuits.devices:
        for unit, pins in device.unit_pins:
            if unit.behaviour is not Behaviour.COIL or not device.kind.can(Can.SWITCHES_LOAD):
                continue
            nets = [net for pin in pins if (net := view.nets.of_pin.get(pin))]
            on_lines = {net.id for net in nets if net.id in fed and not net.is_shared}
            if on_lines:
                to_neutral = any(net.is_shared for net in nets)
                yield device, view.supply.voltage_to_neutral_v if to_neutral else view.supply.voltage_v


def limited_energy(view: View) -> ClauseResult:
    """What is called a limited-energy circuit gives no more than the table allows, and has a supply made for it."""
    clause = view.source("E30")
    title = "Limited energy"
    sources = [device for device in view.circuits.devices if device.kind.can(Can.LIMITED_ENERGY)]
    allowed = limited_energy_va(24.0)
    evidence: list[str] = []
    findings: list[Finding] = []
    for device in sources:
        part = view.sizing.parts[device.id]
        gives = part.rated_a * 24.0
        evidence.append(f"{view.tag(device.id)}: {gives:g} VA of {allowed.value:g} VA at 24 V")
        if gives > allowed.value:
            text = f"{view.tag(device.id)} can give {gives:g} VA; of limited energy are {allowed.value:g} VA at most."
            findings.append(
                Finding("E30", Verdict.FAILS, text, DeviceKey(device.id), clause, "Take a smaller one, or two.")
            )
    none = "" if sources else "no limited-energy supply is drawn"
    return ClauseResult("E30", Group.PROTECTION, title, clause, tuple(evidence), tuple(findings), none)


DISTRIBUTION = (
    excepted_circuits, feeder_of_motors, light_and_sockets, diversity, control_voltage, limited_energy,
)  # fmt: skip
